#include "bench.h"

#include <algorithm>
#include <cmath>

#include "direction/from_rig.h"

namespace rigging::twin {
namespace {

constexpr double turning_deg_s = 130;   // a brisk hand
constexpr double servo_travel_s = 0.18; // from centre to end
constexpr double flick_deg = 28;

constexpr auto at(Axis axis) { return static_cast<std::size_t>(index_of(axis)); }

double toward(double now, double wanted, double most) { return now + std::clamp(wanted - now, -most, most); }

/// By how far the pulse is from the centre, −1 to 1; for outputs that answer throttle −1 is closed.
double share(const link::ImageOutput& o, double pulse_us) {
  if (o.mix.throttle != 0) return 2 * (pulse_us - o.low_us) / (o.high_us - o.low_us) - 1;
  return pulse_us >= o.centre_us ? (pulse_us - o.centre_us) / (o.high_us - o.centre_us) : (pulse_us - o.centre_us) / (o.centre_us - o.low_us);
}

}  // namespace

Bench::Bench(Rig rig, ControllerClass controller, Truth truth, Loom loom)
    : rig_(std::move(rig)), controller_(std::move(controller)), truth_(std::move(truth)), loom_(std::move(loom)), image_(link::image_of(rig_)) {}

void Bench::plug(Supply supply) {
  supply_ = supply;
  loom_.power(supply);
  if ((!supply.usb && !supply.battery) || !loom_.controller_lit()) awake_for_s_ = 0;
  if (!supply.battery) driven_.clear();
}

void Bench::mode(Mode m) {
  if (m != mode_) runaway_ = hold_ = {};
  mode_ = m;
}

void Bench::flick(Axis axis, int sense) {
  flick_axis_ = axis;
  flick_sense_ = sense;
  flick_left_ = flick_deg / turning_deg_s + 0.35;  // there, a moment's rest, and slowly back
}

/// What the controller takes the model's motion for: sensor, board, then what it was told about both.
std::array<double, 3> Bench::sensed(const std::array<double, 3>& body) const {
  std::array<double, 3> board{}, out{};
  for (int axis = 0; axis < 3; ++axis) {
    const SignedAxis s = truth_.board.sensed(axis);
    board[static_cast<std::size_t>(s.axis)] += s.sign * body[static_cast<std::size_t>(axis)];
  }
  for (int axis = 0; axis < 3; ++axis) {
    const SignedAxis s = image_.sensing.board.sensed(axis);
    out[static_cast<std::size_t>(axis)] = s.sign * board[static_cast<std::size_t>(s.axis)];
  }
  for (const Axis axis : all_axes) out[at(axis)] *= truth_.gyro_sign[at(axis)] * (image_.sensing.reversed(axis) ? -1 : 1);
  return out;
}

Command Bench::corrections() const {
  std::array<double, 3> c{};
  const ModeAnswer* answer = controller_.mode(mode_);
  if (!answer || mode_ == Mode::manual) return {};
  const std::array<double, 3> tilt = sensed(pose_);
  for (const Axis axis : all_axes) {
    const auto i = at(axis);
    switch (answer->answer) {
      case AnswerKind::none: break;
      case AnswerKind::momentary: c[i] = -sensed_rate_[i] / 110; break;
      case AnswerKind::springs_back: c[i] = -hold_[i]; break;
      case AnswerKind::held:
        if (axis != Axis::yaw && std::abs(tilt[i]) >= answer->from_deg && std::abs(tilt[i]) > 1) c[i] = -tilt[i] / 40;
        break;
      case AnswerKind::runs_away: c[i] = axis == Axis::yaw ? 0 : -runaway_[i]; break;
    }
    c[i] = std::clamp(c[i], -0.9, 0.9);
  }
  if (controller_.rudder_into_bank && mode_ != Mode::manual) c[2] += std::clamp(tilt[0] / 200, -0.15, 0.15);
  return {c[0], c[1], c[2], 0, 0};
}

void Bench::step(double dt) {
  // Hand
  std::array<double, 3> wanted = wanted_pose_;
  double pace = turning_deg_s;
  if (flick_left_ > 0) {
    flick_left_ -= dt;
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
  const bool slow = flick_left_ <= 0;
  sensed_rate_ = sensed(rate);
  const std::array<double, 3> tilt = sensed(pose_);
  for (std::size_t i = 0; i < 3; ++i) {
    if (slow && std::abs(sensed_rate_[i]) < 50) sensed_rate_[i] = 0;
    hold_[i] = std::clamp(hold_[i] + sensed_rate_[i] * dt / 25, -1.0, 1.0) * std::exp(-dt / 0.6);
    if (std::abs(tilt[i]) > 3) runaway_[i] = std::clamp(runaway_[i] + (tilt[i] > 0 ? 1 : -1) * dt * 1.2, -1.0, 1.0);
  }

  // Controller
  if ((!supply_.usb && !supply_.battery) || !loom_.controller_lit()) {
    pulses_.clear();
    return;
  }
  awake_for_s_ += dt;
  Command command;
  if (receiver_lit()) {
    std::array<double, 3> heard{};
    for (std::size_t i = 0; i < 3; ++i) {
      const auto channel = static_cast<std::size_t>(truth_.stick_to_channel[i]);
      heard[channel] = sticks_[i] * truth_.channel_sign[channel];
    }
    command = {heard[0], heard[1], heard[2], throttle_, 0};
  }
  if (settled()) {
    const Command c = corrections();
    command.roll += c.roll;
    command.pitch += c.pitch;
    command.yaw += c.yaw;
  }
  for (const link::ImageOutput& o : image_.outputs) {
    Output output;
    output.mix = o.mix;
    output.reversed = o.reversed;
    output.low_us = o.low_us;
    output.centre_us = o.centre_us;
    output.high_us = o.high_us;
    double pulse = mixed(output, command).pulse_us;
    if (driven_ == o.socket) pulse = drive_level_ >= 0 ? o.centre_us + drive_level_ * (o.high_us - o.centre_us) : o.centre_us + drive_level_ * (o.centre_us - o.low_us);
    pulses_[o.socket] = pulse;
  }

  // Servos
  if (!loom_.servo_rail_lit()) return;
  for (const auto& [socket, surfaces] : truth_.hangs_on) {
    const auto o = std::find_if(image_.outputs.begin(), image_.outputs.end(), [&, &name = socket](const auto& x) { return x.socket == name; });
    const auto dead = truth_.dead.find(socket);
    if (o == image_.outputs.end() || (dead != truth_.dead.end() && dead->second)) continue;
    for (const Surface s : surfaces)
      if (loom_.servo_works(s)) servo_[s] = toward(servo_[s], std::clamp(share(*o, pulses_[socket]), -1.0, 1.0), dt / servo_travel_s);
  }
}

Bench::Sight Bench::look() const {
  Sight sight;
  sight.pose_deg = pose_;
  sight.servos_powered = loom_.servo_rail_lit();
  for (const auto& [surface, sign] : truth_.servo_sign) {
    const auto it = servo_.find(surface);
    const double full = surface.kind == SurfaceKind::motor ? 1 : 25;
    const double moved = it == servo_.end() ? 0 : it->second;
    sight.deflection.emplace_back(surface, (surface.kind == SurfaceKind::motor && it == servo_.end() ? 0 : sign * moved) * full);
  }
  sight.lamp = !supply_.usb && !supply_.battery ? "dark" : !settled() ? "blinking: keep it still" : receiver_lit() ? "steady" : "slow blink: no receiver";
  return sight;
}

std::map<std::string, double> Bench::channels() const {
  std::map<std::string, double> out;
  if (!receiver_lit()) return out;
  for (const Axis stick : all_axes) {
    const auto channel = static_cast<std::size_t>(truth_.stick_to_channel[at(stick)]);
    out[std::string(word(static_cast<Axis>(channel)))] = 1500 + 500 * sticks_[at(stick)] * truth_.channel_sign[channel];
  }
  out["throttle"] = 1000 + 1000 * throttle_;
  return out;
}

Result<void> Bench::drive(const std::string& socket, double level) {
  if (!supply_.battery) return failure("drive", "the servos have no supply: USB feeds only the processor. Battery in, propeller off");
  if (!loom_.servo_rail_lit()) return failure("drive", "the servos have no supply, with the battery in: look at the red wires");
  if (!settled()) return failure("drive", "the sensors are settling: keep it still for a moment");
  if (receiver_lit() && throttle_ > 0.02) return failure("drive", "the throttle is not closed");
  const auto o = std::find_if(image_.outputs.begin(), image_.outputs.end(), [&](const auto& x) { return x.socket == socket; });
  if (o == image_.outputs.end()) return failure("drive", "socket " + socket + " is not in use", "a socket of the configuration");
  driven_ = socket;
  drive_level_ = std::clamp(level, -1.0, 1.0);
  return {};
}

std::vector<std::string> Bench::arming_refusals() const {
  std::vector<std::string> why;
  if (!supply_.battery) why.push_back("no battery");
  if (!settled()) why.push_back("sensors settling");
  if (!receiver_lit()) why.push_back("no receiver signal");
  if (throttle_ > 0.02) why.push_back("throttle not closed");
  why.push_back("no position yet, and return is chosen");
  return why;
}

Result<void> Bench::work(Remedy remedy, const Json& place) {
  const direction::Case c = direction::case_from_rig(rig_, controller_);
  const auto refuse = [&](const std::string& what) { return failure("work " + std::string(word(remedy)), what, "a place as in docs/twin.md"); };
  const auto socket = [&](const std::string& id) -> std::string {
    const Output* o = rig_.output(id);
    return o ? o->socket : std::string();
  };
  const auto image_output = [&](const std::string& id) -> link::ImageOutput* {
    for (link::ImageOutput& o : image_.outputs)
      if (!id.empty() && o.socket == socket(id)) return &o;
    return nullptr;
  };
  const auto axis = from_word<Axis>(text_member(place, "axis"));
  if (direction::is_setting(remedy, controller_) && controller_.link) return refuse("this controller is set over its link");
  switch (remedy) {
    case Remedy::reverse_output:
    case Remedy::flip_mix: {
      link::ImageOutput* o = image_output(text_member(place, "output"));
      if (!o || (remedy == Remedy::flip_mix && !axis)) return refuse("no such output or axis");
      if (remedy == Remedy::reverse_output)
        o->reversed = !o->reversed;
      else
        o->mix.of(*axis) *= -1;
      return {};
    }
    case Remedy::flip_gyro:
      if (!axis) return refuse("no axis");
      image_.sensing.reversed(*axis) = !image_.sensing.reversed(*axis);
      return {};
    case Remedy::turn_board:
      if (controller_.can_be_turned)
        image_.sensing.board = truth_.board;
      else
        truth_.board = Turn{};
      return {};
    case Remedy::swap_leads: {
      const auto ids = texts_member(place, "outputs");
      if (ids.size() != 2 || !truth_.hangs_on.count(socket(ids[0])) || !truth_.hangs_on.count(socket(ids[1]))) return refuse("no such outputs");
      std::swap(truth_.hangs_on[socket(ids[0])], truth_.hangs_on[socket(ids[1])]);
      return {};
    }
    case Remedy::check_output: {
      const std::string s = socket(text_member(place, "output"));
      if (s.empty()) return refuse("no such output");
      truth_.dead[s] = false;
      return {};
    }
    case Remedy::move_linkage: {
      const auto surface = surface_from_word(text_member(place, "surface"));
      if (!surface || !truth_.servo_sign.count(*surface)) return refuse("no such surface");
      truth_.servo_sign[*surface] *= -1;
      return {};
    }
    case Remedy::reverse_transmitter:
      if (!axis) return refuse("no axis");
      truth_.channel_sign[at(*axis)] *= -1;
      return {};
    case Remedy::swap_transmitter: {
      const auto names = texts_member(place, "axes");
      const auto a = names.size() == 2 ? from_word<Axis>(names[0]) : std::nullopt, b = names.size() == 2 ? from_word<Axis>(names[1]) : std::nullopt;
      if (!a || !b) return refuse("no such axes");
      std::swap(truth_.stick_to_channel[at(*a)], truth_.stick_to_channel[at(*b)]);
      return {};
    }
  }
  return refuse("unknown work");
}

}  // namespace rigging::twin
