#include "bench.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <Eigen/Geometry>

#include "base/json.h"
#include "direction/from_rig.h"
#include "feel/gain_scale.h"
#include "mixer.h"

namespace rigging::twin {
namespace {

constexpr double turning_deg_s = 130;    // a brisk hand
constexpr double motor_travel_s = 0.18;  // from centre to end
constexpr double flick_deg = 28;
constexpr double most_held_deg = 60;  // that holding remembers

constexpr auto at(Axis axis) { return static_cast<std::size_t>(index_of(axis)); }

double toward(double now, double wanted, double most) { return now + std::clamp(wanted - now, -most, most); }

/// By how far the pulse is from the centre, −1 to 1; for outputs that answer throttle −1 is closed.
double share(const Output& o, double pulse_us) {
  if (o.mix.throttle != 0) return 2 * (pulse_us - o.low_us) / (o.high_us - o.low_us) - 1;
  return pulse_us >= o.centre_us ? (pulse_us - o.centre_us) / (o.high_us - o.centre_us)
                                 : (pulse_us - o.centre_us) / (o.centre_us - o.low_us);
}

}  // namespace

Bench::Bench(Rig rig, ControllerClass controller, Truth truth, Harness harness, SensesTruth senses)
    : rig_(std::move(rig)),
      controller_(std::move(controller)),
      truth_(std::move(truth)),
      harness_(std::move(harness)),
      image_(link::image_of(rig_)),
      set_(link::configured(image_)),
      senses_(std::move(senses)),
      satellites_(senses_.truth().sky) {
  for (const Sensor s : senses_.truth().left_over) set_.sensing.*use_of(s) = true;
  if (!senses_.truth().left_over.empty()) keep();
  for (const Axis axis : truth_.turned_functions) direction::reverse_function(set_.outputs, axis);
  if (!truth_.turned_functions.empty()) keep();
  Rig as_set = rig_;
  if (!truth_.settings.empty()) as_set.radio.channels = truth_.settings;
  radio_ = Transmitter(as_set, truth_.gimbals, truth_.signal);
}

void Bench::configure(link::Image image) {
  image_ = std::move(image);
  set_ = link::configured(image_);
  const SettingWay* ports = controller_.way("ports");
  if (!ports || !ports->restart) harness_.told(set_.ports, set_.radio.receiver_signal);
}

void Bench::plug(Supply supply) {
  supply_ = supply;
  if (!supply_.usb && !supply_.battery) awake_for_s_ = 0;
  if (awake_for_s_ == 0) harness_.told(set_.ports, set_.radio.receiver_signal);
  harness_.power(supply);
  if ((!supply.usb && !supply.battery) || !harness_.controller_powered()) {
    awake_for_s_ = 0;
    // Out and in again may come within one step.
    senses_.fall_asleep();
  }
  if (!supply.battery) driven_.clear();
}

void Bench::mode(Mode m) {
  if (m != mode_) runaway_ = hold_ = {};
  mode_ = m;
  const auto at =
      std::find_if(rig_.modes.begin(), rig_.modes.end(), [&](const ModeChoice& c) { return c.mode == name_of(m); });
  told_mode_ = at == rig_.modes.end();
  if (told_mode_) return;
  // As the switch stands for the planned range, whatever the board makes of it.
  radio_.control_to(at->channel, (std::max(at->from_us, 1000.0) + std::min(at->to_us, 2000.0)) / 2);
}

void Bench::turn_control(int channel, double position) {
  told_mode_ = false;
  radio_.control(channel, position);
}

void Bench::flick(Axis axis, int sense) {
  flick_axis_ = axis;
  flick_sense_ = sense;
  flick_left_ = flick_deg / turning_deg_s + 0.35;  // there, a moment's rest, and slowly back
}

/// A vector of the model in the controller's axes: as its board sits, and as it was told that it sits.
std::array<double, 3> Bench::in_its_axes(const std::array<double, 3>& body) const {
  std::array<double, 3> board{}, out{};
  for (int axis = 0; axis < 3; ++axis) {
    const SignedAxis s = truth_.board.sensed(axis);
    board[static_cast<std::size_t>(s.axis)] += s.sign * body[static_cast<std::size_t>(axis)];
  }
  for (int axis = 0; axis < 3; ++axis) {
    const SignedAxis s = set_.sensing.board.sensed(axis);
    out[static_cast<std::size_t>(axis)] = s.sign * board[static_cast<std::size_t>(s.axis)];
  }
  return out;
}

int Bench::sensing_sign(Axis axis) const { return truth_.gyro_sign[at(axis)] * (set_.sensing.reversed(axis) ? -1 : 1); }

/// What the controller takes the model's rotation for, degrees or degrees per second.
std::array<double, 3> Bench::sensed(const std::array<double, 3>& body) const {
  std::array<double, 3> out = in_its_axes(body);
  for (const Axis axis : all_axes) out[at(axis)] *= sensing_sign(axis);
  return out;
}

/// Bank and pitch by gravity, degrees: where the controller takes "down" to be. A board whose top does not look where
/// it was told finds it in the wrong place, with the model level.
std::array<double, 2> Bench::leaning() const {
  constexpr double rad = std::numbers::pi / 180;
  const double roll = pose_[0] * rad, pitch = pose_[1] * rad;
  const auto down = in_its_axes({-std::sin(pitch), std::sin(roll) * std::cos(pitch), std::cos(roll) * std::cos(pitch)});
  return {sensing_sign(Axis::roll) * std::atan2(down[1], down[2]) / rad,
          sensing_sign(Axis::pitch) * std::asin(std::clamp(-down[0], -1.0, 1.0)) / rad};
}

Bench::Strength Bench::strength(Axis axis) const {
  // As boards come: enough that eyes see it.
  constexpr Strength as_it_came{1.0 / 110, 1.0 / 40, 1.0 / 25};
  const FeelAbilities& f = controller_.feel;
  const GainScale scale(controller_, set_.feel.half_share);
  const AxisGain* g = set_.feel.gain(axis);
  if (scale.settable() && !(g && g->rate)) return as_it_came;
  const double rate = scale.settable() ? scale.effect(*g->rate) : 1;
  const double level = f.level_apart && g && g->level ? scale.effect(*g->level) : rate;
  return {rate / f.full_at_deg_s, level / f.full_at_deg, level / f.full_at_deg};
}

Command Bench::corrections() const {
  std::array<double, 3> c{};
  const std::string acts = acts_on_loss();
  // With the link gone, and in the modes that fly by themselves, it levels; in a circle to a bank.
  const std::string flies = acts.empty() ? flown_mode() : acts;
  const Mode mode = from_name<Mode>(flies).value_or(flies.empty() || flies == "undecided" ? Mode::manual : Mode::level);
  const ModeAnswer* answer = controller_.mode(mode);
  if (!answer || mode == Mode::manual || (answer->motor_unlocked && motor_locked())) return {};
  const std::array<double, 2> lean = leaning();
  // What it was told to take for level.
  constexpr double circling_deg = 20;
  const std::array<double, 2> level{
      set_.sensing.level_right_down_deg.value_or(0) + (flies == "circle" ? circling_deg : 0),
      set_.sensing.level_nose_up_deg.value_or(0)};
  for (const Axis axis : all_axes) {
    const auto i = at(axis);
    const Strength s = strength(axis);
    switch (answer->answer) {
      case AnswerKind::none: break;
      case AnswerKind::momentary: c[i] = -s.rate * sensed_rate_[i]; break;
      case AnswerKind::springs_back: c[i] = -s.held * hold_[i]; break;
      case AnswerKind::held:
        if (axis != Axis::yaw)
          if (const double off = lean[i] - level[i]; std::abs(off) >= answer->from_deg && std::abs(off) > 1)
            c[i] = -s.tilt * off;
        break;
      case AnswerKind::runs_away: c[i] = axis == Axis::yaw ? 0 : -runaway_[i]; break;
    }
    const double most = std::min(0.9, controller_.feel.authority);
    c[i] = std::clamp(c[i], -most, most);
  }
  if (controller_.proof.rudder_into_bank && answer->answer == AnswerKind::held)
    c[2] += sensing_sign(Axis::yaw) * std::clamp(lean[0] / 100, -0.3, 0.3);
  return {c[0], c[1], c[2], 0, 0};
}

void Bench::step(double dt) {
  // Hand
  std::array<double, 3> wanted = wanted_pose_;
  double pace = turning_deg_s;
  if (flick_left_ > 0) {
    flick_left_ -= dt;
    comes_back_ = flick_left_ <= 0;
    wanted[at(flick_axis_)] += flick_sense_ * flick_deg;
  } else {
    pace = 45;
  }
  std::array<double, 3> rate{};
  for (std::size_t i = 0; i < 3; ++i) {
    const double before = pose_[i];
    pose_[i] = toward(pose_[i], wanted[i], pace * dt);
    rate[i] = dt > 0 ? (pose_[i] - before) / dt : 0;
  }
  // The way back from a flick is slow, below what a gyro answers visibly.
  comes_back_ = comes_back_ && pose_ != wanted;
  sensed_rate_ = sensed(rate);
  const std::array<double, 2> lean = leaning();
  for (std::size_t i = 0; i < 3; ++i) {
    if (comes_back_) sensed_rate_[i] = 0;
    hold_[i] = std::clamp(hold_[i] + sensed_rate_[i] * dt, -most_held_deg, most_held_deg) * std::exp(-dt / 0.6);
    // It expects to be flying: even from a standstill it seeks an answer that does not come.
    if (i < lean.size()) runaway_[i] = std::clamp(runaway_[i] + (lean[i] > -3 ? 1 : -1) * dt * 1.2, -1.0, 1.0);
  }

  constexpr double rad = std::numbers::pi / 180;
  double motor = 0;
  if (supply_.battery && settled())
    for (const Output& o : set_.outputs)
      if (const auto pulse = pulses_.find(o.socket); o.mix.throttle != 0 && pulse != pulses_.end())
        motor = std::max(motor, std::clamp((share(o, pulse->second) + 1) / 2, 0.0, 1.0));
  senses_.step(dt,
               {(Eigen::AngleAxisd(pose_[2] * rad, Point::UnitZ()) * Eigen::AngleAxisd(pose_[1] * rad, Point::UnitY()) *
                 Eigen::AngleAxisd(pose_[0] * rad, Point::UnitX()))
                    .toRotationMatrix(),
                awake(), motor});
  satellites_.step(dt, harness_.line_of(PartGroup::satellite_receiver) != Harness::Line::silent);
  radio_.step(dt, receiver_powered());

  // Controller
  if ((!supply_.usb && !supply_.battery) || !harness_.controller_powered()) {
    pulses_.clear();
    heard_ = button_pressed_ = false;
    lost_for_s_ = 0;
    chosen_mode_.clear();
    return;
  }
  awake_for_s_ += dt;
  if (receiver_lit()) {
    heard_ = true, lost_for_s_ = 0;
    if (const std::string chosen = chosen_by(*radio_.heard()); !chosen.empty()) chosen_mode_ = chosen;
  } else if (heard_) {
    lost_for_s_ += dt;
  }
  Command command = commanded().value_or(Command{});
  if (motor_locked()) command.throttle = 0;
  if (settled()) {
    const Command c = corrections();
    command.roll += c.roll;
    command.pitch += c.pitch;
    command.yaw += c.yaw;
  }
  const ChannelFrame* frame = receiver_lit() ? radio_.heard() : nullptr;
  std::vector<double> pulses;
  Mixer(set_.outputs, set_.saturation).pulses(command, pulses);
  for (std::size_t i = 0; i < set_.outputs.size(); ++i) {
    const Output& o = set_.outputs[i];
    double pulse = pulses[i];
    if (o.passthrough_channel > 0 && frame && o.passthrough_channel <= frame->channels)
      pulse = std::clamp(static_cast<double>(frame->pulse_us[static_cast<std::size_t>(o.passthrough_channel - 1)]),
                         o.low_us, o.high_us);
    if (driven_ == o.socket) pulse = output_pulse_us(o, drive_level_);
    pulses_[o.socket] = pulse;
  }

  // Servos
  if (!harness_.servo_rail_powered()) return;
  for (const auto& [socket, surfaces] : truth_.hangs_on) {
    const auto o = std::find_if(set_.outputs.begin(), set_.outputs.end(),
                                [&, &name = socket](const auto& x) { return x.socket == name; });
    const auto dead = truth_.dead.find(socket);
    if (o == set_.outputs.end() || (dead != truth_.dead.end() && dead->second)) continue;
    for (const Surface s : surfaces) {
      if (!harness_.servo_works(s)) continue;
      if (s.kind == SurfaceKind::motor) {
        double& speed = servo_us_[s];
        speed = toward(speed, std::clamp(share(*o, pulses_[socket]), -1.0, 1.0), dt / motor_travel_s);
        continue;
      }
      const auto servo = truth_.servos.find(s);
      const Truth::Servo kind = servo == truth_.servos.end() ? Truth::Servo{} : servo->second;
      double& stands = servo_us_.try_emplace(s, 1500.0).first->second;
      const double asked_us = pulses_[socket];
      // Within its dead band a servo stays where it is.
      if (std::abs(asked_us - stands) > kind.dead_band_us / 2) stands = toward(stands, asked_us, kind.us_per_s * dt);
    }
  }
}

Bench::Sight Bench::look() const {
  Sight sight;
  sight.pose_deg = pose_;
  sight.servos_powered = harness_.servo_rail_powered();
  for (const auto& [surface, sign] : truth_.servo_sign) {
    const auto it = servo_us_.find(surface);
    if (surface.kind == SurfaceKind::motor)
      sight.deflection.emplace_back(surface, it == servo_us_.end() ? 0 : sign * it->second);
    else
      sight.deflection.emplace_back(surface, surface_deg(surface, it == servo_us_.end() ? 1500 : it->second));
  }
  const auto sign = [&](LampTells tells, const char* else_says) {
    const Lamp* lamp = controller_.lamp(tells);
    return lamp ? lamp->sign + ": " + lamp->meaning : std::string(else_says);
  };
  const bool moved = senses_.moved_at_start() && controller_.lamp(LampTells::fault);
  sight.lamp = !supply_.usb && !supply_.battery ? "dark"
               : !settled()                     ? sign(LampTells::settling, "finding its zero: keep it still")
               : moved                          ? sign(LampTells::fault, "")
               : receiver_lit()                 ? sign(LampTells::ready, "ready")
                                                : sign(LampTells::no_signal, "no signal from the receiver");
  return sight;
}

bool Bench::motor_locked() const {
  const int channel = controller_.sticks.unlock_channel;
  if (channel < 1) return false;
  const ChannelFrame* f = receiver_lit() ? radio_.heard() : nullptr;
  constexpr int unlocked_us = 1600;
  return !f || channel > f->channels || f->pulse_us[static_cast<std::size_t>(channel - 1)] < unlocked_us;
}

bool Bench::receiver_lit() const {
  const ChannelFrame* f = radio_.heard();
  return receiver_powered() && f && !f->failsafe;
}

double Bench::surface_deg(Surface surface, double servo_us) const {
  const int sense = truth_.servo_sign.at(surface);
  const auto servo = truth_.servos.find(surface);
  const double us = servo_us + (servo == truth_.servos.end() ? 0 : servo->second.centre_us);
  const auto it = truth_.linkages.find(surface);
  if (it == truth_.linkages.end()) return sense * std::clamp((us - 1500) / 500, -1.2, 1.2) * 25;
  // A linkage that binds stops the servo.
  const auto bar = FourBar::of(it->second);
  for (double part = 1; bar && part > 0; part -= 0.02)
    if (const auto pose = bar->pose(arm_at(it->second, 1500 + part * (us - 1500), sense))) return pose->up_deg;
  return 0;
}

std::optional<Command> Bench::commanded() const {
  if (!receiver_lit()) return std::nullopt;
  return taken_for(*radio_.heard());
}

Command Bench::taken_for(const ChannelFrame& f) const {
  Command c;
  constexpr std::array<ChannelFunction, 4> functions{ChannelFunction::roll, ChannelFunction::pitch,
                                                     ChannelFunction::throttle, ChannelFunction::yaw};
  for (std::size_t i = 0; i < 4; ++i) {
    Channel plain;
    plain.number = static_cast<int>(i + 1);
    const Channel* known = nullptr;
    for (const Channel& k : set_.radio.channels)
      if (k.function == functions[i]) known = &k;
    if (!known && !set_.radio.channels.empty()) continue;
    const Channel& k = known ? *known : plain;
    if (k.number < 1 || k.number > f.channels) continue;
    const double low = k.low_us.value_or(1000), centre = k.centre_us.value_or(1500), high = k.high_us.value_or(2000);
    const double us = static_cast<double>(f.pulse_us[static_cast<std::size_t>(k.number - 1)]);
    if (functions[i] == ChannelFunction::throttle) {
      const double share = std::clamp((us - low) / (high - low), 0.0, 1.0);
      c.throttle = controller_.sticks.throttle_opens_falls ? 1 - share : share;
      continue;
    }
    const double share =
        std::clamp(us >= centre ? (us - centre) / (high - centre) : (us - centre) / (centre - low), -1.0, 1.0);
    (functions[i] == ChannelFunction::roll ? c.roll : functions[i] == ChannelFunction::pitch ? c.pitch : c.yaw) = share;
  }
  if (const Channel* k = set_.channel(ChannelFunction::flap); k && k->number >= 1 && k->number <= f.channels) {
    const double low = k->low_us.value_or(1000), high = k->high_us.value_or(2000);
    c.flap = std::clamp((static_cast<double>(f.pulse_us[static_cast<std::size_t>(k->number - 1)]) - low) / (high - low),
                        0.0, 1.0);
  }
  return c;
}

std::map<std::string, double> Bench::channels() const {
  std::map<std::string, double> out;
  const auto c = commanded();
  if (!c) return out;
  out["roll"] = 1500 + 500 * c->roll;
  out["pitch"] = 1500 + 500 * c->pitch;
  out["yaw"] = 1500 + 500 * c->yaw;
  out["throttle"] = 1000 + 1000 * c->throttle;
  return out;
}

Result<void> Bench::drive(const std::string& socket, double level) {
  if (!supply_.battery)
    return failure("drive", "the servos have no supply: USB feeds only the processor. Battery in, propeller off");
  if (!harness_.servo_rail_powered())
    return failure("drive", "the servos have no supply, with the battery in: look at the red wires");
  if (!settled()) return failure("drive", "the sensors are settling: keep it still for a moment");
  if (const auto c = commanded(); c && c->throttle > 0.02) return failure("drive", "the throttle is not closed");
  const auto o =
      std::find_if(set_.outputs.begin(), set_.outputs.end(), [&](const auto& x) { return x.socket == socket; });
  if (o == set_.outputs.end())
    return failure("drive", "socket " + socket + " is not in use", "a socket of the configuration");
  driven_ = socket;
  drive_level_ = std::clamp(level, -1.0, 1.0);
  return {};
}

std::string Bench::flown_mode() const {
  if (told_mode_ || set_.modes.empty()) return std::string(name_of(mode_));
  return chosen_mode_;
}

/// The board's own rule: where switches disagree, what is later in this list goes before.
std::string Bench::chosen_by(const ChannelFrame& frame) const {
  constexpr std::array<std::string_view, 10> order{"manual",         "rate",   "hold",   "level", "level_height",
                                                   "heading_height", "launch", "circle", "land",  "return"};
  const auto weight = [&](const std::string& mode) {
    return std::find(order.begin(), order.end(), mode) - order.begin();
  };
  std::string chosen;
  for (const ModeChoice& m : set_.modes) {
    if (m.channel < 1 || m.channel > frame.channels) continue;
    const double us = static_cast<double>(frame.pulse_us[static_cast<std::size_t>(m.channel - 1)]);
    if (us >= m.from_us && us < m.to_us && (chosen.empty() || weight(m.mode) > weight(chosen))) chosen = m.mode;
  }
  return chosen;
}

std::string Bench::acts_on_loss() const {
  if (controller_.home.on_loss.empty() || lost_for_s_ < controller_.home.notices_after_s) return {};
  if (lost_for_s_ < controller_.home.notices_after_s + set_.home.loss_hold_s) return "waits";
  return std::string(name_of(set_.home.on_loss));
}

std::vector<BoardState::Refusal> Bench::refusals() const {
  using R = ArmingRefusal;
  std::vector<BoardState::Refusal> why;
  const auto refuses = [&why](R reason, std::string of = {}) { why.push_back({reason, std::move(of)}); };
  if (!supply_.battery) refuses(R::no_battery);
  if (!settled()) refuses(R::settling);
  if (!receiver_lit()) refuses(R::no_signal);
  if (const auto c = commanded(); c && c->throttle > 0.02) refuses(R::throttle_open);
  if (set_.home.checks_before_arming) {
    if (settled() && senses_.moved_at_start()) refuses(R::moved_at_start);
    for (const auto& [sensor, state] : found())
      if (state != SensorState::works)
        refuses(state == SensorState::sick ? R::sensor_sick : R::sensor_missing, std::string(name_of(sensor)));
    const bool finds_home = set_.home.on_loss == LossAction::come_home || set_.home.on_loss == LossAction::circle ||
                            std::any_of(set_.modes.begin(), set_.modes.end(),
                                        [](const ModeChoice& m) { return m.mode == "return" || m.mode == "circle"; });
    if (finds_home && !satellites_.has_fix()) refuses(R::no_fix);
    if (battery_low()) refuses(R::battery_low);
    const std::string mode = flown_mode();
    if (mode == "circle" || mode == "return" || mode == "land") refuses(R::flies_by_itself);
  }
  if (controller_.sticks.safety_button && !button_pressed_) refuses(R::safety_button);
  return why;
}

bool Bench::battery_low() const {
  const double volts = harness_.battery_v();
  return set_.home.turn_home_v && volts > 0 && volts < *set_.home.turn_home_v;
}

BoardState Bench::state() const {
  BoardState s;
  s.mode = flown_mode();
  s.on_loss = acts_on_loss();
  s.link_lost = !s.on_loss.empty();
  s.battery_low = battery_low();
  s.can_arm = controller_.home.checks_before_arming;
  if (s.can_arm) s.refuses = refusals();
  s.satellites = satellites_.count();
  return s;
}

std::map<Sensor, SensorState> Bench::found() const {
  std::map<Sensor, SensorState> all;
  const SensesTruth& truth = senses_.truth();
  const auto there = [&](Sensor s, bool is) {
    const auto told = use_of(s);
    if (is && !(told && set_.sensing.*told == std::optional(false)))
      all[s] = truth.sick.count(s) ? SensorState::sick : SensorState::works;
    else if (told && (set_.sensing.*told).value_or(false))
      all[s] = SensorState::missing;
  };
  there(Sensor::gyro, true);
  there(Sensor::accelerometer, true);
  there(Sensor::barometer, truth.has_barometer);
  // A compass that goes with the satellite receiver lives from its supply.
  const bool on_board = controller_.senses.has_compass;
  const PartGroup carrier = harness_.has(PartGroup::compass) ? PartGroup::compass : PartGroup::satellite_receiver;
  there(Sensor::compass, truth.has_compass && (on_board || harness_.line_of(carrier) != Harness::Line::silent));
  there(Sensor::airspeed, truth.has_airspeed && harness_.line_of(PartGroup::airspeed) != Harness::Line::silent);
  there(Sensor::satellites, harness_.has(PartGroup::satellite_receiver) &&
                                harness_.line_of(PartGroup::satellite_receiver) == Harness::Line::clear);
  return all;
}

BoardReadings Bench::take_readings() {
  BoardReadings r = senses_.take();
  r.satellite_bytes = satellites_.take_bytes();
  const PartGroup receiver = PartGroup::satellite_receiver;
  switch (harness_.has(receiver) ? harness_.line_of(receiver) : Harness::Line::silent) {
    case Harness::Line::silent: r.satellite_bytes.clear(); break;
    case Harness::Line::garbled:
      // Another baud makes other bits of the same edges.
      for (char& c : r.satellite_bytes) c = static_cast<char>(static_cast<unsigned char>(c) * 37 + 0x81);
      break;
    case Harness::Line::clear: break;
  }
  return r;
}

void pass_time(Bench& bench, double s) {
  for (; s > 1e-9; s -= 0.01) bench.step(std::min(s, 0.01));
}

}  // namespace rigging::twin
