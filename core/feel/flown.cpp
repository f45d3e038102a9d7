#include "feel/flown.h"

#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "base/number.h"

namespace rigging {
namespace {

std::string named(OscillationKind kind) {
  switch (kind) {
    case OscillationKind::gain: return "too much gain";
    case OscillationKind::slop: return "play in the linkage";
    case OscillationKind::vibration: return "vibration";
    case OscillationKind::pilot: return "the hand on the stick";
    case OscillationKind::dutch_roll: return "its own Dutch roll";
  }
  return {};
}

/// What kept it from the airspeed that was asked for; empty where it flew it.
std::string off_speed(const Flight& f, double flown) {
  constexpr double within = 0.04;
  if (f.asked_m_s <= 0 || std::abs(flown / f.asked_m_s - 1) <= within) return {};
  const bool fast = flown > f.asked_m_s;
  const std::string why = !f.level.carried                           ? "slower than its wing carries it"
                          : !f.level.pulled && f.level.throttle == 0 ? "it has no motor that pulls"
                          : !f.level.pulled && fast         ? "the motor does not hold its height, and it comes down"
                          : !f.level.pulled                 ? "full throttle gives no more"
                          : fast && f.level.throttle < 0.03 ? "it is no slower with the motor off"
                          : f.throttle.empty() || !f.end.empty() ? "it did not get to settle"
                                                                 : "neither throttle nor hands held it";
  return " It flew " + number_text(flown, 1) + " m/s where " + number_text(f.asked_m_s, 1) + " were asked for: " + why +
         ".";
}

}  // namespace

FlightLog log_of(const Flight& f) {
  FlightLog log;
  log.step_s = f.step_s;
  log.size = f.size();
  log.airspeed_m_s = f.airspeed_m_s;
  log.throttle = f.throttle;
  for (std::size_t k = 0; k < 3; ++k) log.axes[k] = {f.rate_deg_s[k], f.stick[k], f.correction[k]};
  log.stretches = {{0, log.size}};
  return log;
}

Seen seen_in(const Flight& f, const ControllerClass* controller, const FeelReport* report) {
  Seen seen;
  constexpr double shortest_s = 2;
  if (static_cast<double>(f.size()) * f.step_s > shortest_s)
    seen.episodes = controller && report ? episodes_in(log_of(f), *controller, *report) : oscillations_in(log_of(f));
  for (std::size_t k = 0; k < 3; ++k) {
    double squares = 0;
    for (const double r : f.rate_deg_s[k]) squares += r * r;
    seen.rms_deg_s[k] = std::sqrt(squares / static_cast<double>(std::max<std::size_t>(1, f.size())));
    for (const double c : f.correction[k]) seen.correction[k] = std::max(seen.correction[k], std::abs(c));
  }
  for (const Motion& m : f.motion) seen.worst_bank_deg = std::max(seen.worst_bank_deg, std::abs(m.bank()) / rad);
  if (f.size() > 0) seen.climb_m = f.motion.back().height() - f.motion.front().height();
  for (const Episode& e : seen.episodes)
    seen.words += capital(std::string(name_of(e.axis))) + " shook at " + number_text(e.frequency_hz, 1) + " Hz from " +
                  number_text(e.from_s, 1) + " s on: " + named(e.kind) + ". ";
  if (seen.episodes.empty() && f.end.empty()) seen.words = "Nothing shook. ";
  seen.words += "It banked up to " + number_text(seen.worst_bank_deg, 0) + "° and " +
                (std::abs(seen.climb_m) < 0.5
                     ? "kept its height."
                     : (seen.climb_m > 0 ? "gained " : "lost ") + number_text(std::abs(seen.climb_m), 0) + " m.");
  const auto settled =
      static_cast<std::size_t>(std::min(3.0, 0.5 * static_cast<double>(f.size()) * f.step_s) / f.step_s);
  double sum = 0;
  for (std::size_t i = settled; i < f.size(); ++i) sum += f.airspeed_m_s[i];
  if (f.size() > settled) seen.airspeed_m_s = sum / static_cast<double>(f.size() - settled);
  seen.words += off_speed(f, seen.airspeed_m_s);
  if (!f.end.empty()) seen.words += " " + f.end;
  return seen;
}

}  // namespace rigging
