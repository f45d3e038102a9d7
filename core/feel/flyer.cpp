#include "feel/flyer.h"

#include <algorithm>
#include <cmath>
#include <random>

#include "base/angle.h"
#include "base/number.h"
#include "feel/gain_scale.h"
#include "feel/without_gain.h"
#include "flight/drawn.h"
#include "flight/engine.h"
#include "flight/servo.h"

namespace rigging {
namespace {

constexpr double longest_s = 600;
constexpr double gyro_noise_deg_s = 0.3;
constexpr double coordinated = 0.25;  ///< rudder for a radian of bank, where the class leans into it

/// One surface with its servo.
struct Moved {
  ServoModel servo;
  ControlEffect effect;
  std::array<double, 3> up_rad{}, down_rad{};  ///< for full positive and full negative command
  double most_up = 0, most_down = 0;           ///< rad, both positive
  int pulse = 20;                              ///< ticks from one to the next
  double told = 0;                             ///< rad, what the last pulse said
};

/// A command that arrives later, in steps.
class Late {
 public:
  explicit Late(double delay_s) : values_(static_cast<std::size_t>(flight_ticks(delay_s)), 0.0) {}
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

constexpr double climb_at_full_m_s = 3, most_kept_bank = 35 * rad, most_kept_nose = 15 * rad;

/// Height and heading as they stood when the sticks were let go. The throttle stays the pilot's.
class KeptHeight {
 public:
  /// Nose, rad, that keeps the height or climbs as the stick asks.
  double nose(const Motion& m, double stick, double limit, double dt) {
    if (!height_m_) height_m_ = m.height();
    *height_m_ = std::abs(stick) > 0.03 ? m.height() : *height_m_;
    const double low = std::clamp(*height_m_ - m.height(), -10.0, 10.0);
    const double wanted = std::abs(stick) > 0.03 ? stick * climb_at_full_m_s : 0.25 * low;
    const double short_of = wanted - m.climb_m_s(), steep = wanted / std::max(5.0, std::hypot(m.u, m.w));
    trim_ = std::clamp(trim_ + dt * 0.02 * short_of, -0.3, 0.3);
    const double most = std::min(limit, most_kept_nose);
    return std::clamp(steep + 0.05 * short_of + trim_, -most, most);
  }
  /// Bank, rad, that brings it back to the heading.
  double bank(const Motion& m, double stick, double limit) {
    if (!heading_ || std::abs(stick) > 0.03) heading_ = m.heading();
    if (std::abs(stick) > 0.03) return stick * limit;
    const double most = std::min(limit, most_kept_bank);
    return std::clamp(std::remainder(*heading_ - m.heading(), 2 * pi), -most, most);
  }

 private:
  std::optional<double> height_m_, heading_;
  double trim_ = 0;
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
  KeptHeight kept;

  /// `rates` as filtered, rad/s.
  std::array<double, 3> corrections(const std::array<double, 3>& rates, double bank, double nose,
                                    const std::array<double, 3>& sticks, const Motion& m, double follow, double dt) {
    std::array<double, 3> out{};
    if (mode == Mode::manual) return out;
    for (std::size_t i = 0; i < 3; ++i) {
      double c = -rate_s[i] * rates[i];
      if (levels_wings(mode) && i < 2) {
        double wanted = sticks[i] * (i == 0 ? bank_limit : nose_limit);
        if (keeps_height(mode) && i == 1) wanted = kept.nose(m, sticks[1], nose_limit, dt);
        if (mode == Mode::heading_height && i == 0) wanted = kept.bank(m, sticks[0], bank_limit);
        c += level[i] * (wanted - (i == 0 ? bank : nose));
      }
      if (mode == Mode::hold) {
        held[i] = std::abs(sticks[i]) > 0.03 ? 0 : held[i] + rates[i] * dt;
        c -= level[i] * held[i];
      }
      if (levels_wings(mode) && i == 2 && into_bank) c += coordinated * bank;
      out[i] = std::clamp(c * follow, -authority, authority) * (reversed[i] ? -1 : 1);
    }
    return out;
  }
};

/// The board as it is planned, with what hangs on it.
class PlannedBoard : public FlightBoard {
 public:
  PlannedBoard(const Rig& rig, const Catalogue& catalogue, const ControllerClass& controller,
               const Aeroplane& aeroplane, double cruise_throttle, const FlyOptions& options);

  Response step(const Told& told) override;
  const std::array<double, 3>& correction() const override { return correction_; }
  double nose_limit_rad() const override { return law_.nose_limit; }

 private:
  const ControllerClass& controller_;
  double cruise_m_s_, cruise_throttle_, filter_;
  double along_, aside_;  ///< cosine and sine of the nose above the flight at cruise
  Law law_;
  std::vector<Moved> moved_;
  std::array<double, 3> filtered_{}, correction_{}, arrived_{}, stick_share_{1, 1, 1};
  std::vector<Late> late_;
  int cycle_, now_ = 0;
  std::minstd_rand random_;
  std::uniform_real_distribution<double> rough_{-1, 1};
};

PlannedBoard::PlannedBoard(const Rig& rig, const Catalogue& catalogue, const ControllerClass& controller,
                           const Aeroplane& aeroplane, double cruise_throttle, const FlyOptions& o)
    : controller_(controller),
      cruise_m_s_(aeroplane.cruise_m_s),
      cruise_throttle_(cruise_throttle),
      filter_(2 * pi * controller.feel.filter_hz),
      along_(std::cos(aeroplane.trim_alpha.value)),
      aside_(std::sin(aeroplane.trim_alpha.value)),
      cycle_(flight_ticks(1 / controller.feel.cycles_hz)),
      random_(o.seed + 1) {
  const FeelAbilities& f = controller.feel;
  const SurfacesReport surfaces = analyze_surfaces(rig);
  for (const SurfaceAnswer& answer : surfaces.answers) {
    const ControlEffect* effect = aeroplane.control(answer.surface);
    if (!effect) continue;
    Moved m;
    m.effect = *effect;
    for (std::size_t i = 0; i < 3; ++i)
      m.up_rad[i] = answer.positive_deg[i] * rad, m.down_rad[i] = answer.negative_deg[i] * rad;
    m.most_up = answer.most_up_deg * rad, m.most_down = answer.most_down_deg * rad;
    const SurfaceServo servo = surface_servo(rig, catalogue, answer);
    const Output* out = rig.output(answer.output);
    m.pulse = flight_ticks(1 / std::max(20.0, out ? out->rate_hz : 50));
    m.servo.natural_rad_s = 2 * pi * servo.hz * o.truth.servo;
    m.servo.damping = servo_damping;
    m.servo.most_rate = servo.deg_s * rad;
    m.servo.play = o.truth.play_deg * rad;
    moved_.push_back(m);
  }
  law_.mode = o.mode;
  law_.authority = f.authority;
  law_.into_bank = controller.proof.rudder_into_bank;
  law_.reversed = o.truth.reversed;
  law_.bank_limit = rig.feel.bank_limit_deg.value_or(usual_limit_deg) * rad;
  law_.nose_limit = rig.feel.nose_limit_deg.value_or(usual_limit_deg) * rad;
  const GainScale scale(controller, rig.feel.half_share);
  for (const Axis axis : all_axes) {
    const auto i = static_cast<std::size_t>(index_of(axis));
    const AxisGain* g = rig.feel.gain(axis);
    const double effect = scale.settable() ? (g && g->rate ? scale.effect(*g->rate) : 0) : 1;
    if (f.sets_stick) stick_share_[i] = g && g->stick ? *g->stick : f.stick_share;
    law_.rate_s[i] = effect / (f.full_at_deg_s * rad);
    law_.level[i] = (f.level_apart && g && g->level ? scale.effect(*g->level) : effect) / (f.full_at_deg * rad);
  }
  // Computing takes a cycle, and the pulse its own length; holding is simulated.
  for (int i = 0; i < 3; ++i) late_.emplace_back(1 / f.cycles_hz + pulse_itself_s);
}

FlightBoard::Response PlannedBoard::step(const Told& told) {
  const Motion& m = told.motion;
  // Its gyro lies along the drawing, whose nose stands above the flight.
  const std::array<double, 3> rates{m.p * along_ - m.r * aside_, m.q, m.r * along_ + m.p * aside_};
  for (std::size_t k = 0; k < 3; ++k)
    filtered_[k] += flight_tick_s * filter_ * (rates[k] + gyro_noise_deg_s * rad * rough_(random_) - filtered_[k]);
  if (now_ % cycle_ == 0) {
    correction_ = law_.corrections(filtered_, m.bank(), m.nose_up(), told.stick, m,
                                   follows_speed(controller_, told.airspeed_m_s, cruise_m_s_) *
                                       follows_throttle(controller_, told.throttle, cruise_throttle_),
                                   cycle_ * flight_tick_s);
    arrived_ = told.stick;
  }
  std::array<double, 3> command{};
  for (std::size_t k = 0; k < 3; ++k) {
    // In level the stick asks for an attitude and not for a deflection.
    const bool direct = !levels_wings(law_.mode) || k == 2;
    const double share = law_.mode == Mode::manual ? 1 : stick_share_[k];
    command[k] = late_[k].pass((direct ? share * arrived_[k] : 0) + correction_[k]);
  }
  Response answer;
  answer.throttle = told.throttle;
  for (Moved& s : moved_) {
    if (now_ % s.pulse == 0) {
      double asked = 0;
      for (std::size_t k = 0; k < 3; ++k)
        asked += std::min(std::abs(command[k]), 1.0) * (command[k] >= 0 ? s.up_rad[k] : s.down_rad[k]);
      s.told = std::clamp(asked, -s.most_down, s.most_up);
    }
    s.servo.step(s.told, flight_tick_s);
    answer.surfaces.add(s.effect, s.servo.surface());
  }
  ++now_;
  return answer;
}

/// What a flight needs that does not change from one doubt to the next.
struct Ready {
  const ControllerClass& controller;
  FeelReport report;
  Drag drag;
  Engine engine;
  FlightPlan plan;
};

Result<Ready> ready_for(const Rig& rig, const Catalogue& catalogue, const FlyOptions& o) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c) return failure("fly", "no controller is chosen", "a class of controller");
  if (!c->mode(o.mode))
    return failure("fly", c->name + " has no mode " + std::string(name_of(o.mode)), "one of its modes");
  if (!(o.seconds > 0 && o.seconds <= longest_s))
    return failure("fly", number_text(o.seconds, 1) + " s", "up to " + number_text(longest_s, 0) + " s");
  Ready ready{*c, analyze_feel({rig, catalogue}), {}, {}, o};
  if (!ready.report.missing.empty()) return failure("fly", ready.report.missing, "");
  ready.drag = drag_of(rig.airframe, ready.report.aeroplane.cruise_m_s);
  ready.engine = engine_of({rig, catalogue}, ready.report.aeroplane);
  ready.plan.throw_m_s = rig.feel.takeoff.throw_m_s.value_or(o.throw_m_s);
  return ready;
}

Flight flown(const Rig& rig, const Catalogue& catalogue, const Ready& ready, const Aeroplane& expected,
             const FlyOptions& o, Progress* progress) {
  const Aeroplane aeroplane = doubted(expected, o.truth.doubt);
  const FlightModel model(aeroplane, ready.drag, ready.engine);
  PlannedBoard board(rig, catalogue, ready.controller, aeroplane, ready.report.cruise_throttle, o);
  return run_flight(model, board, ready.plan, progress);
}

void widen(Envelope& e, const std::vector<double>& by) {
  for (std::size_t i = 0; i < std::min(e.least.size(), by.size()); ++i)
    e.least[i] = std::min(e.least[i], by[i]), e.most[i] = std::max(e.most[i], by[i]);
}

}  // namespace

Result<Flight> fly(const Rig& rig, const Catalogue& catalogue, const FlyOptions& o, Progress* progress) {
  const auto ready = ready_for(rig, catalogue, o);
  if (!ready) return tl::make_unexpected(ready.error());
  return flown(rig, catalogue, *ready, ready->report.aeroplane, o, progress);
}

Result<FlightBand> fly_band(const Rig& rig, const Catalogue& catalogue, const FlyOptions& o, int others,
                            Progress& progress) {
  const auto ready = ready_for(rig, catalogue, o);
  if (!ready) return tl::make_unexpected(ready.error());
  FlightBand band;
  band.expected = flown(rig, catalogue, *ready, ready->report.aeroplane, o, &progress);
  for (std::size_t k = 0; k < 3; ++k) {
    band.rate_deg_s[k] = {band.expected.rate_deg_s[k], band.expected.rate_deg_s[k]};
    band.correction[k] = {band.expected.correction[k], band.expected.correction[k]};
  }
  band.seen = seen_in(band.expected, &ready->controller, &ready->report);
  if (o.mode != Mode::manual)
    if (const std::string axes = axes_without_gain(ready->report); !axes.empty())
      band.seen.words = "No gain is set for " + axes + ": nothing is corrected there. " + band.seen.words;
  band.height_m = {band.expected.heights(), band.expected.heights()};
  std::mt19937 random(o.seed + 101);
  for (; band.others < others && !progress.cancelled(); ++band.others) {
    FlyOptions one = o;
    for (const AxisFeel& a : ready->report.axes)
      if (a.known()) one.truth.servo = std::uniform_real_distribution(a.path.servo_least, a.path.servo_most)(random);
    const Flight flight = flown(rig, catalogue, *ready, drawn_from(ready->report.aeroplane, random()), one, &progress);
    for (std::size_t k = 0; k < 3; ++k)
      widen(band.rate_deg_s[k], flight.rate_deg_s[k]), widen(band.correction[k], flight.correction[k]);
    widen(band.height_m, flight.heights());
    band.ended += !flight.end.empty();
    for (const Episode& e : seen_in(flight, &ready->controller, &ready->report).episodes) {
      // Slower than the loop's own rhythm it is the aircraft that wallows.
      const AxisFeel& a = ready->report.of(e.axis);
      if (e.kind != OscillationKind::gain || (a.known() && e.frequency_hz < a.shakes_hz / 2)) continue;
      ++band.shook;
      break;
    }
  }
  return band;
}

}  // namespace rigging
