#include "home/flown_home.h"

#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "base/units.h"

namespace rigging {
namespace {

constexpr double over_home_within_m = 15, last_s = 30;

}  // namespace

FlownHome flown_home(const Flight& flight, const FlightPlan& plan, const Rig& rig, const ControllerClass& controller,
                     const HomeReport& report) {
  FlownHome f;
  const double lost_s = plan.link_lost_s.value_or(0), acts_s = controller.home.notices_after_s + rig.home.loss_hold_s;
  f.used_mah = flight.used_mah;
  f.lowest_m = flight.lowest_m;
  const auto far = [&](std::size_t i) { return std::hypot(flight.motion[i].north, flight.motion[i].east); };
  const auto first = static_cast<std::size_t>((lost_s + acts_s) / flight.step_s);
  for (std::size_t i = first; i < flight.size() && !f.home; ++i)
    if (far(i) <= report.circle_radius_m + over_home_within_m) {
      f.home = true;
      f.over_home_s = static_cast<double>(i) * flight.step_s - lost_s;
    }
  const auto last = static_cast<std::size_t>(last_s / flight.step_s);
  for (std::size_t i = flight.size() > last ? flight.size() - last : 0; f.home && i < flight.size(); ++i)
    f.circle_reaches_m = std::max(f.circle_reaches_m, far(i));
  HomeCase c = report.expected;
  c.place = HomePlace::at(plan.north_m, plan.east_m, plan.height_m);
  c.wind = {plan.steady_wind_m_s, plan.steady_from_deg};
  if (plan.left_mah > 0) c.battery.left_mah = plan.left_mah;
  if (const WayHome w = way_home(c); w.track) {
    const double waits = acts_s, climbs = rig.home.climb_first ? w.climb_s : 0;
    f.reckoned_s = w.way_s + waits + climbs;
    f.reckoned_mah = w.used_mah + (waits * c.aircraft.cruise_a + climbs * c.aircraft.climb_a) * mah_per_as;
  }
  const std::string reckoned =
      !f.reckoned_s ? "; reckoned: it can't come home" : ". Reckoned: " + number_text(*f.reckoned_s, 0) + " s";
  f.words = f.home ? "Simulated flight: over home " + number_text(f.over_home_s, 0) + " s after the link went, up to " +
                         field_text(f.circle_reaches_m) + " from it in the last half minute" + reckoned + "."
                   : "Simulated flight: it did not come home" +
                         (flight.end.empty() ? std::string() : ". " + flight.end.substr(0, flight.end.size() - 1)) +
                         reckoned + ".";
  if (f.home && !flight.end.empty()) f.words += " " + flight.end;
  return f;
}

}  // namespace rigging
