#include "feel/flyer.h"

#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "base/number.h"
#include "earth/gravity.h"
#include "feel/gain_scale.h"
#include "flight/servo.h"
#include "flight/wind.h"
#include "power/power.h"

namespace rigging {
namespace {

constexpr double tick = 1e-3;
constexpr int kept = 10;
constexpr double longest_s = 600;
constexpr double usual_throw_m_s = 7;  ///< that an arm gives (common practice)
constexpr double usual_limit_deg = 45;
constexpr double gyro_noise_deg_s = 0.3;
/// Hands: stick for a radian of bank or nose, no faster than a third of a second.
constexpr double hand_bank = 0.6, hand_nose = 1.2, hand_lag_s = 0.35;
constexpr double throttle_per_m_s = 0.08;
constexpr double coordinated = 0.25;  ///< rudder for a radian of bank, where the class leans into it

/// One surface with its servo.
struct Moved {
  ServoModel servo;
  ControlEffect effect;
  std::array<double, 3> up_rad{}, down_rad{};  ///< for full positive and full negative command
  double most_up = 0, most_down = 0;           ///< rad, both positive
  double told = 0;                             ///< rad, what the last pulse said
};

/// A command that arrives later, in steps.
class Late {
 public:
  explicit Late(double delay_s) : values_(static_cast<std::size_t>(std::max(1L, std::lround(delay_s / tick))), 0.0) {}
  double pass(double value) {
    const double out = values_[at_];
    values_[at_] = value;
    at_ = (at_ + 1) % values_.size();
    return out;
  }

 private:
  std::vector<double> values_;
  std::size_t at_ = 0;
};

/// What the board does with rates, attitude and sticks: corrections of −1 to 1.
struct Law {
  Mode mode = Mode::rate;
  std::array<double, 3> rate_s{};  ///< share of the travel for a radian a second
  std::array<double, 3> level{};   ///< and for a radian of tilt
  double bank_limit = 0, nose_limit = 0, authority = 1;
  bool into_bank = false;
  std::array<bool, 3> reversed{};
  std::array<double, 3> held{};  ///< of hold: turned so far since the stick was let go

  /// `rates` as filtered, rad/s.
  std::array<double, 3> corrections(const std::array<double, 3>& rates, double bank, double nose,
                                    const std::array<double, 3>& sticks, double follow, double dt) {
    std::array<double, 3> out{};
    if (mode == Mode::manual) return out;
    for (std::size_t i = 0; i < 3; ++i) {
      double c = -rate_s[i] * rates[i];
      if (mode == Mode::level && i < 2) {
        const double wanted = sticks[i] * (i == 0 ? bank_limit : nose_limit);
        c += level[i] * (wanted - (i == 0 ? bank : nose));
      }
      if (mode == Mode::hold) {
        held[i] = std::abs(sticks[i]) > 0.03 ? 0 : held[i] + rates[i] * dt;
        c -= level[i] * held[i];
      }
      if (mode == Mode::level && i == 2 && into_bank) c += coordinated * bank;
      out[i] = std::clamp(c * follow, -authority, authority) * (reversed[i] ? -1 : 1);
    }
    return out;
  }
};

}  // namespace

Engine engine_of(const Rig& rig, const Catalogue& catalogue, const Aeroplane& aeroplane) {
  const AirframeReport airframe = analyze_airframe(rig);
  const SurfacesReport surfaces = analyze_surfaces(rig);
  const std::vector<ServoLoad> loads = analyze_loads(rig, catalogue, airframe, surfaces);
  const PowerReport power = analyze_power(rig, catalogue, {}, &loads);
  Engine e;
  if (!power.drive || power.drive->thrust.value <= 0) return e;
  e.static_n = power.drive->thrust.value;
  e.free_m_s = 2 * aeroplane.cruise_m_s;
  for (const Motor& m : power.drive->motors)
    if (const PartKind* k = kind_of(rig, catalogue, m.propeller); k && k->propeller && m.rev_s > 0)
      e.free_m_s = 1.15 * k->propeller->pitch_m * 1.1 * m.rev_s;
  return e;
}

Result<Flight> fly(const Rig& rig, const Catalogue& catalogue, const FlyOptions& o, Progress* progress) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c) return failure("fly", "no controller is chosen", "a class of controller");
  if (!c->mode(o.mode))
    return failure("fly", c->name + " has no mode " + std::string(word(o.mode)), "one of its modes");
  if (!(o.seconds > 0 && o.seconds <= longest_s))
    return failure("fly", number_text(o.seconds, 1) + " s", "up to " + number_text(longest_s, 0) + " s");
  const FeelReport report = feel_report(rig, catalogue);
  if (!report.missing.empty()) return failure("fly", report.missing, "");
  Aeroplane truth = report.aeroplane;
  const Doubt& d = o.truth.doubt;
  for (Banded* b : {&truth.stability.roll_p, &truth.stability.pitch_q, &truth.stability.yaw_r}) b->value *= d.damping;
  for (Banded* b : {&truth.stability.pitch_alpha, &truth.stability.yaw_beta}) b->value *= d.stiffness;
  for (Banded* b : {&truth.inertia.roll, &truth.inertia.pitch, &truth.inertia.yaw}) b->value *= d.inertia;
  const FlightModel model(truth, drag_of(rig.airframe, truth.cruise_m_s), engine_of(rig, catalogue, truth));
  const SurfacesReport surfaces = analyze_surfaces(rig);
  const GainScale scale(*c, rig.feel.half_share);
  const FeelAbilities& f = c->feel;

  std::vector<Moved> moved;
  double servo_hz = 7, servo_damping = 0.7, rate_deg_s = 400, pulses_hz = 50;
  for (const AxisFeel& a : report.axes)
    if (a.known()) servo_hz = a.path.servo_hz, servo_damping = a.path.servo_damping, rate_deg_s = a.path.servo_deg_s;
  for (const SurfaceAnswer& answer : surfaces.answers) {
    const ControlEffect* effect = truth.control(answer.surface);
    if (!effect) continue;
    Moved m;
    m.effect = *effect;
    for (double* e : {&m.effect.lift, &m.effect.side, &m.effect.roll, &m.effect.pitch, &m.effect.yaw}) *e *= d.effect;
    for (std::size_t i = 0; i < 3; ++i)
      m.up_rad[i] = answer.positive_deg[i] * rad, m.down_rad[i] = answer.negative_deg[i] * rad;
    m.most_up = answer.most_up_deg * rad, m.most_down = answer.most_down_deg * rad;
    if (const Output* out = rig.output(answer.output)) pulses_hz = out->rate_hz;
    m.servo.natural_rad_s = 2 * pi * servo_hz * o.truth.servo;
    m.servo.damping = servo_damping;
    m.servo.most_rate = rate_deg_s * rad;
    m.servo.play = o.truth.play_deg * rad;
    moved.push_back(m);
  }

  Law law;
  law.mode = o.mode;
  law.authority = f.authority;
  law.into_bank = c->proof.rudder_into_bank;
  law.reversed = o.truth.reversed;
  law.bank_limit = rig.feel.bank_limit_deg.value_or(usual_limit_deg) * rad;
  law.nose_limit = rig.feel.nose_limit_deg.value_or(usual_limit_deg) * rad;
  for (const Axis axis : all_axes) {
    const auto i = static_cast<std::size_t>(index_of(axis));
    const AxisGain* g = rig.feel.gain(axis);
    const double effect = scale.settable() ? (g && g->rate ? scale.effect(*g->rate) : 0) : 1;
    law.rate_s[i] = effect / (f.full_at_deg_s * rad);
    law.level[i] = (f.level_apart && g && g->level ? scale.effect(*g->level) : effect) / (f.full_at_deg * rad);
  }

  const double speed = o.m_s > 0 ? o.m_s : truth.cruise_m_s;
  Motion m = o.thrown ? Motion::straight(rig.feel.takeoff.throw_m_s.value_or(usual_throw_m_s), 1.7, 15 * rad, 10 * rad)
                      : Motion::straight(speed, o.height_m);
  Turbulence gusts(o.seed, o.wind_m_s, o.height_m, speed, truth.span_m);
  std::array<double, 3> filtered{}, hand{}, correction{}, arrived{};
  std::vector<Late> late;
  // Computing takes a cycle, and the pulse its own length; holding is simulated.
  for (int i = 0; i < 3; ++i) late.emplace_back(1 / f.cycles_hz + 0.0015);
  const auto cycle = std::max(1, static_cast<int>(std::lround(1 / f.cycles_hz / tick)));
  const auto pulse = std::max(1, static_cast<int>(std::lround(1 / std::max(20.0, pulses_hz) / tick)));
  std::uint32_t noise = o.seed * 2654435761u + 12345u;
  const auto rough = [&noise] {
    noise = noise * 1664525u + 1013904223u;
    return static_cast<double>(noise >> 8) / (1 << 24) * 2 - 1;
  };
  const double filter = 2 * pi * f.filter_hz, climb_nose = -o.nose_down_deg * rad;
  double throttle = model.cruise_throttle();
  const double kept_heading = m.heading();
  Flight flight;
  flight.lowest_m = m.height();
  const auto steps = static_cast<int>(o.seconds / tick);
  for (int i = 0; i <= steps; ++i) {
    const double t = i * tick;
    Air air;
    if (o.wind_m_s > 0) gusts.step(tick, air);
    const std::array<double, 3> rates{m.p, m.q, m.r};
    for (std::size_t k = 0; k < 3; ++k)
      filtered[k] += tick * filter * (rates[k] + gyro_noise_deg_s * rad * rough() - filtered[k]);
    const double bank = m.bank(), nose = m.nose_up();
    if (i % cycle == 0) {
      std::array<double, 3> wanted{};
      if (o.pilot && o.mode != Mode::level) {
        const double aside = std::remainder(m.heading() - kept_heading, 2 * pi);
        wanted[0] = std::clamp(-hand_bank * (bank + 0.5 * aside), -0.5, 0.5);
        wanted[1] = std::clamp(hand_nose * (climb_nose - nose), -0.5, 0.5);
      } else if (o.mode == Mode::level) {
        wanted[1] = law.nose_limit > 0 ? climb_nose / law.nose_limit : 0;
      }
      const double dt = cycle * tick;
      for (std::size_t k = 0; k < 3; ++k) hand[k] += dt / hand_lag_s * (wanted[k] - hand[k]);
      std::array<double, 3> stick = hand;
      for (const StickMove& s : o.sticks)
        if (t >= s.from_s && t < s.to_s) stick[static_cast<std::size_t>(index_of(s.axis))] = s.at;
      const double v = model.incidence(m, air).airspeed;
      correction = law.corrections(filtered, bank, nose, stick, follows_speed(*c, v, truth.cruise_m_s), dt);
      throttle = o.thrown ? 1 : std::clamp(model.cruise_throttle() + throttle_per_m_s * (speed - v), 0.0, 1.0);
      for (std::size_t k = 0; k < 3; ++k) arrived[k] = std::clamp(stick[k], -1.0, 1.0);
    }
    std::array<double, 3> command{};
    for (std::size_t k = 0; k < 3; ++k) {
      // In level the stick asks for an attitude and not for a deflection.
      const bool direct = o.mode != Mode::level || k == 2;
      command[k] = late[k].pass((direct ? arrived[k] : 0) + correction[k]);
    }
    Deflection sum;
    for (Moved& s : moved) {
      if (i % pulse == 0) {
        double asked = 0;
        for (std::size_t k = 0; k < 3; ++k)
          asked += std::min(std::abs(command[k]), 1.0) * (command[k] >= 0 ? s.up_rad[k] : s.down_rad[k]);
        s.told = std::clamp(asked, -s.most_down, s.most_up);
      }
      s.servo.step(s.told, tick);
      const double at = s.servo.surface();
      sum.lift += at * s.effect.lift, sum.side += at * s.effect.side, sum.roll += at * s.effect.roll,
          sum.pitch += at * s.effect.pitch, sum.yaw += at * s.effect.yaw;
    }
    if (i % kept == 0) {
      flight.motion.push_back(m);
      flight.airspeed_m_s.push_back(model.incidence(m, air).airspeed);
      flight.throttle.push_back(throttle);
      for (std::size_t k = 0; k < 3; ++k) {
        flight.rate_deg_s[k].push_back(rates[k] / rad);
        flight.stick[k].push_back(arrived[k]);
        flight.correction[k].push_back(correction[k]);
        flight.worst_surface_share[k] = std::max(flight.worst_surface_share[k], std::abs(command[k]));
      }
      flight.lowest_m = std::min(flight.lowest_m, m.height());
      if (progress) {
        progress->at(t / o.seconds);
        if (progress->cancelled()) return flight;
      }
      if (m.height() <= 0) {
        flight.end = "It reached the ground after " + number_text(t, 1) + " s.";
        break;
      }
    }
    model.step(m, sum, throttle, air, tick);
  }
  return flight;
}

std::string Flight::csv() const {
  std::string text =
      "t_s,roll_rate_deg_s,pitch_rate_deg_s,yaw_rate_deg_s,roll_stick,pitch_stick,yaw_stick,roll_correction,"
      "pitch_correction,yaw_correction,airspeed_m_s,throttle\n";
  for (std::size_t i = 0; i < size(); ++i) {
    text += number_text(static_cast<double>(i) * step_s, 3);
    const auto add = [&](double v) { text += ',' + number_text(v, 4); };
    for (const auto& of : {&rate_deg_s, &stick, &correction})
      for (const std::vector<double>& axis : *of) add(axis[i]);
    add(airspeed_m_s[i]);
    add(throttle[i]);
    text += '\n';
  }
  return text;
}

}  // namespace rigging
