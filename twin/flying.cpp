#include "flying.h"

#include <algorithm>
#include <cmath>
#include <random>

#include <Eigen/Geometry>

#include "base/alignment.h"
#include "base/angle.h"
#include "base/number.h"
#include "earth/gravity.h"
#include "feel/feel.h"
#include "feel/gain_scale.h"
#include "flight/drawn.h"
#include "flight/engine.h"
#include "flight/servo.h"
#include "home/home.h"
#include "mixer.h"
#include "power/power.h"
#include "senses/level.h"
#include "way_back.h"

namespace rigging::twin {
namespace {

constexpr double attitude_settles_s = 2;  ///< how fast gravity pulls the estimate
constexpr double warmed_k = 8;            ///< that the board gains in the air after its zero
constexpr double coordinated = 0.25;      ///< rudder for a radian of bank
constexpr double table_low_us = 600, table_high_us = 2400, table_step_us = 10;

Eigen::Quaterniond attitude_of(const Motion& m) { return {m.q0, m.q1, m.q2, m.q3}; }

/// Where the board takes the model to be: gyro in the short run, gravity in the long.
class Estimator {
 public:
  double bank = 0, nose = 0;  ///< rad

  /// `rate` rad/s, `force` m/s², both as the board has them after its corrections.
  void step(const Point& rate, const Point& force, double dt) {
    const double sr = std::sin(bank), cr = std::cos(bank), cp = std::max(0.05, std::cos(nose));
    bank += dt * (rate.x() + std::tan(std::clamp(nose, -1.4, 1.4)) * (rate.y() * sr + rate.z() * cr));
    nose += dt * (rate.y() * cr - rate.z() * sr);
    const double g = force.norm();
    // In a turn or a dive what it feels is not gravity.
    if (std::abs(g / standard_gravity - 1) < 0.25 && cp > 0.2) {
      const double by_force_bank = std::atan2(-force.y(), -force.z()),
                   by_force_nose = std::asin(std::clamp(force.x() / g, -1.0, 1.0));
      bank += dt / attitude_settles_s * std::remainder(by_force_bank - bank, 2 * pi);
      nose += dt / attitude_settles_s * (by_force_nose - nose);
    }
    bank = std::remainder(bank, 2 * pi);
  }
};

/// A surface behind its lead.
struct Hung {
  std::size_t output = 0;
  ControlEffect effect;
  ServoModel servo;  ///< in µs off 1500
  int pulse = 20;
  double told_us = 0;
  std::vector<double> angles;  ///< rad over pulses
  double angle() const {
    const double at = std::clamp((1500 + servo.surface() - table_low_us) / table_step_us, 0.0,
                                 static_cast<double>(angles.size()) - 1.001);
    const auto i = static_cast<std::size_t>(at);
    return angles[i] + (at - static_cast<double>(i)) * (angles[i + 1] - angles[i]);
  }
};

class BuiltBoard : public FlightBoard {
 public:
  BuiltBoard(const Bench& bench, const FlyingTruth& air, double cruise_throttle, const FlightPlan& plan);

  Response step(const Told& told) override;
  const std::array<double, 3>& correction() const override { return correction_; }
  double nose_limit_rad() const override { return nose_limit_; }
  bool over() const override { return way_back_.over(); }

 private:
  void sense(const Motion& m, double airspeed);
  void correct(const Motion& m, double airspeed, double dt);
  void keep_height(const Motion& m, double airspeed, double dt);
  bool by_itself() const { return way_back_.doing() != WayBack::Doing::by_hand; }
  const Bench& bench_;
  const ControllerClass& controller_;
  const FlyingTruth& air_;
  Mode mode_;
  bool finds_place_;
  WayBack way_back_;
  WayBack::Steering steering_;
  double lost_for_s_ = 0;
  bool corrects_ = true;
  Transmitter radio_;
  Mixer mixer_;
  Estimator estimate_;
  std::array<double, 3> sign_{}, rate_gain_{}, level_gain_{}, filtered_{}, correction_{}, held_{};
  double bank_limit_, nose_limit_, level_nose_, level_bank_, cruise_m_s_, cruise_throttle_, filter_;
  std::array<double, 3> stick_share_{1, 1, 1};  ///< of the stick that goes straight to the surface
  Point zero_left_;                             ///< of the gyro, rad/s in its axes
  Eigen::Matrix3d force_ = Eigen::Matrix3d::Identity();
  Point force_offset_ = {0, 0, 0};
  Eigen::Matrix3d told_;     ///< from its own axes to those that it was told
  Eigen::Quaterniond sits_;  ///< the floor of the board, as the wing carries it, from the axes of the flight
  Point velocity_ = {0, 0, 0};
  bool as_begun_ = false;
  Command command_;
  std::deque<Command> late_;
  std::vector<double> pulses_;
  std::vector<Hung> hung_;
  std::optional<std::size_t> motor_;  ///< output of the motor; without one the throttle does not go through the board
  std::mt19937 random_;
  std::normal_distribution<double> normal_;
  bool has_barometer_;
  double pressed_m_ = 0, rising_ = 0;  ///< height by barometer, m, and how fast it grows
  double kept_m_ = 0, kept_heading_ = 0, eased_ = 0;
  WayBack::Steering kept_;  ///< in the modes that keep a height
  int cycle_, now_ = 0;
};

BuiltBoard::BuiltBoard(const Bench& bench, const FlyingTruth& air, double cruise_throttle, const FlightPlan& plan)
    : bench_(bench),
      controller_(bench.controller()),
      air_(air),
      mode_(plan.mode),
      finds_place_(bench.finds_place()),
      way_back_(bench.set(), bench.controller(), air.aeroplane.cruise_m_s, cruise_throttle, bench.finds_place()),
      radio_(bench.radio()),
      mixer_(bench.set().outputs, bench.set().saturation),
      told_(alignment_matrix(bench.set().sensing.board)),
      sits_(Eigen::AngleAxisd(air.cruise_nose_up_deg * rad, Point::UnitY())),
      random_(plan.seed + 17),
      has_barometer_(bench.controller().senses.has_barometer),
      cycle_(flight_ticks(1 / controller_.feel.cycles_hz)) {
  const Rig& set = bench.set();
  const FeelAbilities& f = controller_.feel;
  if (const int unlock = controller_.sticks.unlock_channel; unlock > 0) radio_.control(unlock, 1);
  // Only a dial has a law that nobody told.
  const bool by_dial = f.gain_by == GainBy::dial && air.half_share;
  const GainScale scale(controller_, by_dial ? air.half_share : set.feel.half_share);
  for (const Axis axis : all_axes) {
    const auto i = static_cast<std::size_t>(index_of(axis));
    sign_[i] = bench.sensing_sign(axis);
    const AxisGain* g = set.feel.gain(axis);
    const double effect = scale.settable() ? (g && g->rate ? scale.effect(*g->rate) : 0) : 1;
    if (f.sets_stick) stick_share_[i] = g && g->stick ? *g->stick : f.stick_share;
    rate_gain_[i] = effect / (f.full_at_deg_s * rad);
    level_gain_[i] = (f.level_apart && g && g->level ? scale.effect(*g->level) : effect) / (f.full_at_deg * rad);
  }
  bank_limit_ = set.feel.bank_limit_deg.value_or(usual_limit_deg) * rad;
  nose_limit_ = set.feel.nose_limit_deg.value_or(usual_limit_deg) * rad;
  level_nose_ = set.sensing.level_nose_up_deg.value_or(0) * rad;
  level_bank_ = set.sensing.level_right_down_deg.value_or(0) * rad;
  cruise_m_s_ = air.aeroplane.cruise_m_s, cruise_throttle_ = cruise_throttle;
  filter_ = 2 * pi * f.filter_hz;
  const SensesTruth& senses = bench.senses().truth();
  zero_left_ = senses.rate_drift * (warmed_k * rad);
  // What its calibration leaves of the accelerometer's errors, in the board's own axes.
  force_ = senses.force, force_offset_ = senses.force_offset;
  if (const auto& c = set.sensing.accelerometer) {
    Eigen::Matrix3d matrix;
    matrix << c->scale_x, c->cross_xy, c->cross_xz, c->cross_xy, c->scale_y, c->cross_yz, c->cross_xz, c->cross_yz,
        c->scale_z;
    force_ = matrix * senses.force;
    force_offset_ = matrix * (senses.force_offset - Point(c->offset_x, c->offset_y, c->offset_z));
  }
  late_.assign(static_cast<std::size_t>(flight_ticks(1 / f.cycles_hz + pulse_itself_s)), Command{});

  const Truth& truth = bench.truth();
  for (const auto& [socket, surfaces] : truth.hangs_on) {
    const auto dead = truth.dead.find(socket);
    if (dead != truth.dead.end() && dead->second) continue;
    for (std::size_t o = 0; o < set.outputs.size(); ++o) {
      if (set.outputs[o].socket != socket) continue;
      if (set.outputs[o].mix.throttle != 0) motor_ = o;
      for (const Surface s : surfaces) {
        const ControlEffect* effect = air.aeroplane.control(s);
        if (!effect || !bench.harness().servo_works(s)) continue;
        Hung h;
        h.output = o;
        h.effect = *effect;
        const auto servo = truth.servos.find(s);
        const Truth::Servo kind = servo == truth.servos.end() ? Truth::Servo{} : servo->second;
        const auto natural = air.servo_rad_s.find(s);
        h.servo.natural_rad_s = natural == air.servo_rad_s.end() ? 40 : natural->second;
        h.servo.damping = servo_damping;
        h.servo.most_rate = kind.us_per_s;
        h.servo.dead_band = kind.dead_band_us;
        h.pulse = flight_ticks(1 / std::max(20.0, set.outputs[o].rate_hz));
        for (double us = table_low_us; us <= table_high_us; us += table_step_us)
          h.angles.push_back(bench.surface_deg(s, us) * rad);
        const std::size_t centre = static_cast<std::size_t>((1500 - table_low_us) / table_step_us);
        if (const double slope = std::abs(h.angles[centre + 1] - h.angles[centre]) / table_step_us; slope > 0)
          h.servo.play = air.play_deg * rad / slope;
        hung_.push_back(std::move(h));
      }
    }
  }
}

void BuiltBoard::sense(const Motion& m, double airspeed) {
  const Eigen::Quaterniond attitude = attitude_of(m);
  const Point velocity = attitude * Point(m.u, m.v, m.w);
  Point force = attitude.conjugate() * Point(0, 0, -standard_gravity);
  if (as_begun_)
    force = attitude.conjugate() * ((velocity - velocity_) / flight_tick_s - Point(0, 0, standard_gravity));
  as_begun_ = true;
  velocity_ = velocity;
  const SensesTruth& senses = bench_.senses().truth();
  const auto noise = [this](double sigma) -> Point {
    return Point(normal_(random_), normal_(random_), normal_(random_)) * sigma;
  };
  // On the floor of the board, in its own axes, with its errors, in what it takes for the model's axes.
  const Point felt = senses.board.transpose() * (sits_.conjugate() * force);
  const Point seen = told_ * (force_ * felt + force_offset_ + noise(senses.force_noise));
  const Point turned = senses.board.transpose() * (sits_.conjugate() * Point(m.p, m.q, m.r));
  const Point rate = told_ * (turned + zero_left_ + noise(senses.rate_noise * rad));
  if (now_ == 0) {
    estimate_.bank = std::atan2(-seen.y(), -seen.z());
    estimate_.nose = std::asin(std::clamp(seen.x() / seen.norm(), -1.0, 1.0));
  }
  // With its speed from the satellites it takes off what a turn adds to gravity.
  const Point turning = finds_place_ ? Point(0, rate.z() * airspeed, -rate.y() * airspeed) : Point(0, 0, 0);
  estimate_.step(rate, seen - turning, flight_tick_s);
  for (std::size_t k = 0; k < 3; ++k)
    filtered_[k] += flight_tick_s * filter_ * (sign_[k] * rate[static_cast<Eigen::Index>(k)] - filtered_[k]);
}

/// Height and heading are those at which the sticks were let go; a held pitch stick asks for three metres a second.
/// The throttle stays with the pilot.
void BuiltBoard::keep_height(const Motion& m, double airspeed, double dt) {
  constexpr double air_noise_m = 0.15, smooth_s = 0.4, climbs_m_s = 3, most_nose = 15 * rad, most_bank = 35 * rad;
  const double before = pressed_m_;
  if (now_ == 0) pressed_m_ = kept_m_ = m.height(), kept_heading_ = m.heading();
  pressed_m_ += dt / smooth_s * (m.height() + air_noise_m * normal_(random_) - pressed_m_);
  if (now_ > 0) rising_ += dt / smooth_s * ((pressed_m_ - before) / dt - rising_);
  const bool climbs = std::abs(command_.pitch) > 0.05, turns = std::abs(command_.roll) > 0.05;
  if (climbs) kept_m_ = pressed_m_;
  if (turns) kept_heading_ = m.heading();
  const double wanted = climbs ? climbs_m_s * command_.pitch : std::clamp(0.3 * (kept_m_ - pressed_m_), -2.5, 2.5);
  eased_ = std::clamp(eased_ + 0.02 * dt * (wanted - rising_), -0.3, 0.3);
  const double nose_most = std::min(nose_limit_, most_nose), bank_most = std::min(bank_limit_, most_bank);
  kept_.nose =
      std::clamp(wanted / std::max(5.0, airspeed) + 0.045 * (wanted - rising_) + eased_, -nose_most, nose_most);
  kept_.bank = turns ? command_.roll * bank_limit_
                     : std::clamp(std::remainder(kept_heading_ - m.heading(), 2 * pi), -bank_most, bank_most);
}

void BuiltBoard::correct(const Motion& m, double airspeed, double dt) {
  const double follow = follows_speed(controller_, airspeed, cruise_m_s_) *
                        follows_throttle(controller_, command_.throttle, cruise_throttle_);
  const std::array<double, 2> lean{sign_[0] * (estimate_.bank - level_bank_),
                                   sign_[1] * (estimate_.nose - level_nose_)};
  const std::array<double, 3> stick{command_.roll, command_.pitch, command_.yaw};
  // With the link gone it levels to where it steers itself.
  const bool keeps = !by_itself() && keeps_height(mode_) && has_barometer_;
  if (keeps) keep_height(m, airspeed, dt);
  const Mode mode = by_itself() || keeps_height(mode_) ? Mode::level : mode_;
  const bool heads = keeps && mode_ == Mode::heading_height;
  const std::array<double, 2> wanted{by_itself() ? sign_[0] * steering_.bank
                                     : heads     ? sign_[0] * kept_.bank
                                                 : stick[0] * bank_limit_,
                                     by_itself() ? sign_[1] * steering_.nose
                                     : keeps     ? sign_[1] * kept_.nose
                                                 : stick[1] * nose_limit_};
  // A level turn turns about two axes: what belongs to it is not fought.
  std::array<double, 3> turn{};
  if (by_itself()) {
    const double bank = std::clamp(estimate_.bank, -1.0, 1.0), g_over_v = standard_gravity / std::max(5.0, airspeed);
    turn = {0, sign_[1] * g_over_v * std::sin(bank) * std::tan(bank), sign_[2] * g_over_v * std::sin(bank)};
  }
  for (std::size_t k = 0; k < 3; ++k) {
    double c = -rate_gain_[k] * (filtered_[k] - turn[k]);
    if (mode == Mode::level && k < 2) c += level_gain_[k] * (wanted[k] - lean[k]);
    if (mode == Mode::hold) {
      held_[k] = std::abs(stick[k]) > 0.03 ? 0 : held_[k] + filtered_[k] * dt;
      c -= level_gain_[k] * held_[k];
    }
    if (mode == Mode::level && k == 2 && controller_.proof.rudder_into_bank) c += coordinated * lean[0];
    correction_[k] = corrects_ && mode != Mode::manual
                         ? std::clamp(c * follow, -controller_.feel.authority, controller_.feel.authority)
                         : 0;
  }
}

FlightBoard::Response BuiltBoard::step(const Told& told) {
  radio_.stick(ChannelFunction::roll, told.stick[0]);
  radio_.stick(ChannelFunction::pitch, told.stick[1]);
  radio_.stick(ChannelFunction::yaw, told.stick[2]);
  radio_.stick(ChannelFunction::throttle, 2 * told.throttle - 1);
  radio_.on(told.transmitter);
  radio_.step(flight_tick_s, true);
  sense(told.motion, told.airspeed_m_s);
  if (now_ % cycle_ == 0) {
    const ChannelFrame* frame = radio_.heard();
    const bool heard = frame && !frame->failsafe;
    lost_for_s_ = heard ? 0 : lost_for_s_ + cycle_ * flight_tick_s;
    // Until it is sure of the loss it goes on with the last that it heard.
    if (heard) command_ = bench_.taken_for(*frame);
    steering_ = way_back_.step(told.motion, told.airspeed_m_s, lost_for_s_, cycle_ * flight_tick_s);
    if (by_itself()) command_ = {0, 0, 0, steering_.throttle, 0};
    if (!heard && !by_itself() && controller_.home.on_loss.empty()) command_ = {};
    correct(told.motion, told.airspeed_m_s, cycle_ * flight_tick_s);
  }
  Command sum = command_;
  // In level the sticks ask for an attitude and not for a deflection.
  if (levels_wings(mode_) || by_itself()) sum.roll = sum.pitch = 0;
  if (mode_ != Mode::manual) sum.roll *= stick_share_[0], sum.pitch *= stick_share_[1], sum.yaw *= stick_share_[2];
  sum.roll += correction_[0], sum.pitch += correction_[1], sum.yaw += correction_[2];
  late_.push_back(sum);
  if (now_ % 2 == 0) mixer_.pulses(late_.front(), pulses_);
  late_.pop_front();
  Response answer;
  for (Hung& h : hung_) {
    if (now_ % h.pulse == 0) h.told_us = pulses_[h.output] - 1500;
    h.servo.step(h.told_us, flight_tick_s);
    answer.surfaces.add(h.effect, h.angle());
  }
  if (motor_) {
    const Output& o = bench_.set().outputs[*motor_];
    answer.throttle = std::clamp((pulses_[*motor_] - o.low_us) / (o.high_us - o.low_us), 0.0, 1.0);
    if (o.reversed) answer.throttle = 1 - answer.throttle;
  } else {
    answer.throttle = told.throttle;
  }
  if (air_.full_a > 0) answer.amps = air_.rest_a + air_.full_a * std::pow(answer.throttle, air_.amps_power);
  ++now_;
  return answer;
}

}  // namespace

FlyingTruth flying_of(const Reports& reports) {
  FlyingTruth t;
  const Rig& rig = reports.rig();
  const Catalogue& catalogue = reports.catalogue();
  const FeelReport report = analyze_feel(reports);
  t.cannot = report.missing;
  if (!t.cannot.empty()) return t;
  t.aeroplane = report.aeroplane;
  t.drag = drag_of(rig.airframe, t.aeroplane.cruise_m_s);
  t.engine = engine_of(reports, t.aeroplane);
  for (const SurfaceAnswer& a : reports.surfaces().answers)
    t.servo_rad_s[a.surface] = 2 * pi * surface_servo(rig, catalogue, a).hz;
  const PowerReport& power = reports.power();
  if (power.drive && power.drive->full_current.value > 0 && power.drive->cruise_current.value > 0) {
    t.full_a = power.drive->full_current.value;
    const HomeReport home = analyze_home(reports, report);
    if (home.missing.empty()) t.rest_a = home.performance.cruise_a.expected - power.drive->cruise_current.value;
    const double throttle = FlightModel(t.aeroplane, t.drag, t.engine).cruise_throttle();
    const double share = power.drive->cruise_current.value / t.full_a;
    if (throttle > 0.05 && throttle < 0.95 && share < 0.95)
      t.amps_power = std::clamp(std::log(share) / std::log(throttle), 1.0, 4.0);
  }
  const LevelReport level = analyze_level(rig.airframe, reports.airframe(), t.aeroplane.balance_m);
  if (level.nose_up) t.cruise_nose_up_deg = level.nose_up->value;
  return t;
}

void make_different(FlyingTruth& t, unsigned seed) {
  std::mt19937 random(seed * 2654435761u + 7);
  const auto within = [&random](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
  t.aeroplane = drawn_from(t.aeroplane, seed);
  const double slower = within(0.8, 1.05);
  for (auto& [surface, natural] : t.servo_rad_s) natural *= slower;
  t.half_share = within(0.15, 0.28);
  t.play_deg = within(0, 0.3);
  t.cruise_nose_up_deg += within(-0.8, 0.8);
}

Result<Flight> fly(const Bench& bench, const FlyingTruth& truth, const FlightPlan& plan) {
  if (!truth.cannot.empty()) return failure("fly", truth.cannot, "");
  if (!bench.controller().mode(plan.mode))
    return failure("fly", "this class has no mode " + std::string(name_of(plan.mode)), "one of its modes");
  if (!bench.supply().battery || !bench.settled()) return failure("fly", "it does not live", "the battery in");
  if (!bench.receiver_lit()) return failure("fly", "no signal from the receiver", "the transmitter on");
  const FlightModel model(truth.aeroplane, truth.drag, truth.engine);
  BuiltBoard board(bench, truth, model.cruise_throttle(), plan);
  return run_flight(model, board, plan);
}

}  // namespace rigging::twin
