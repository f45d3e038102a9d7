#include "surfaces/release.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "base/number.h"
#include "base/units.h"
#include "rig/path.h"

namespace rigging {
namespace {

constexpr double to_rad = std::numbers::pi / 180;

std::vector<std::string> subjects(const CheckContext& in) {
  return release_output(in.rig) ? std::vector<std::string>{{}} : std::vector<std::string>{};
}

std::vector<std::string> places(const CheckContext& in, const std::string&) {
  std::vector<std::string> all{"controller/kind"};
  if (const Output* o = release_output(in.rig))
    for (const char* member : {"socket", "reversed", "low_us", "high_us"})
      all.push_back(path_of({"outputs", o->id, member}));
  for (const char* member : {"arm_m", "pin_m"}) all.push_back(std::string("release/") + member);
  return all;
}

CheckCard card(const CheckContext& in, const std::string&) {
  CheckCard c;
  c.title = "Tow release holds and lets go under load";
  const auto& pull = in.rig.release ? in.rig.release->pull_n : std::nullopt;
  c.todo = "Throttle closed: latch the line, and pull on it as the tow does" +
           (pull ? " (" + number_text(*pull, 0) + " N, a spring balance tells)" : std::string()) +
           ". Shake the model. Then full throttle with the line still pulled; then once more with the transmitter "
           "switched off while it is latched.";
  c.expected =
      "It holds at closed throttle and through the shaking, and lets go at once at full throttle under load. "
      "Without the transmitter it does what the plan for a lost link says.";
  c.how = "It must let go under load every time, ten times in a row: one that jams in tow takes both aircraft along.";
  c.cautions = {"No propeller on this model; fingers clear of pin and loop. The line is under load when it lets go."};
  return c;
}

}  // namespace

ReleaseReport analyze_release(const Release& r, const Output& o, std::optional<double> torque_nm) {
  ReleaseReport report;
  const auto angle = [&](double us) { return (r.arm_deg + (us - 1500) / 500 * r.servo_travel_deg) * to_rad; };
  const double a = angle(o.low_us), b = angle(o.high_us);
  const double travel = r.arm_m * std::abs(std::sin(b) - std::sin(a));
  const auto mm = [](double m) { return number_text(1000 * m, 1); };
  report.travel =
      Figure{"Wire travel, closed to full throttle",
             travel,
             "m",
             {},
             {},
             mm(r.arm_m) + " mm · |sin " + number_text(b / to_rad, 0) + "° − sin " + number_text(a / to_rad, 0) + "°|",
             "geometry of the arm"};
  report.clears = travel > r.pin_m;
  // The arm is longest across the wire where it stands square: there it pulls least.
  const double widest = a * b <= 0 ? 1.0 : std::max(std::abs(std::cos(a)), std::abs(std::cos(b)));
  if (torque_nm)
    report.force =
        Figure{"The servo pulls at least",
               *torque_nm / (r.arm_m * widest),
               "N",
               {},
               {},
               number_text(*torque_nm, 2) + " Nm / (" + mm(r.arm_m) + " mm · " + number_text(widest, 2) + ")",
               "lever"};
  if (r.pull_n)
    report.needed = Figure{"To draw the pin under load",
                           r.friction * *r.pull_n,
                           "N",
                           {},
                           {},
                           number_text(r.friction, 2) + " · " + number_text(*r.pull_n, 0) + " N",
                           "Coulomb friction"};
  report.strong = !torque_nm || !r.pull_n || report.force.value > 2 * report.needed.value;
  return report;
}

const Output* release_output(const Rig& rig) {
  if (rig.airframe.kind != AirframeKind::towed_glider) return nullptr;
  for (const Output& o : rig.outputs)
    if (o.surfaces.empty() && o.passthrough_channel == 0) return &o;
  return nullptr;
}

std::optional<double> release_torque(const Rig& rig, const Catalogue& catalogue) {
  const Output* o = release_output(rig);
  if (!o || o->socket.empty()) return std::nullopt;
  for (const Part& p : rig.parts) {
    const PartKind* k = catalogue.part(p.kind);
    if (k && k->servo && !p.surface) return k->servo->torque_nm;
  }
  return std::nullopt;
}

CheckFamily release_check() {
  return {.id = tow_release.family,
          .station = Station::proof,
          .name = "Tow release",
          .one = "release",
          .many = "releases",
          .subjects = subjects,
          .depends_on = places,
          .card = card};
}

}  // namespace rigging
