#include "transmitter.h"

#include <algorithm>
#include <cmath>

#include "base/find.h"

namespace rigging::twin {
namespace {

constexpr int sent_channels = 8;
constexpr double warm_after_s = 120;

double period_us(Signal signal) {
  switch (signal) {
    case Signal::inverted_serial: return 9000;
    case Signal::two_way_serial: return 6667;
    case Signal::summed: return 22500;
    case Signal::pulse: return 20000;
  }
  return 20000;
}

}  // namespace

std::size_t Transmitter::index(ChannelFunction f) {
  switch (f) {
    case ChannelFunction::pitch: return 1;
    case ChannelFunction::throttle: return 2;
    case ChannelFunction::yaw: return 3;
    default: return 0;
  }
}

Transmitter::Transmitter(const Rig& rig, const std::array<Gimbal, 4>& gimbals, Signal signal)
    : gimbals_(gimbals), settings_(rig.radio.channels), limits_(rig.radio.transmitter), signal_(signal) {
  on_loss_ = rig.radio.on_loss;
  const bool serial = signal == Signal::inverted_serial || signal == Signal::two_way_serial;
  if (on_loss_ == OnLoss::unknown || (on_loss_ == OnLoss::flag && !serial))
    on_loss_ = serial ? OnLoss::flag : OnLoss::no_pulses;
  for (int number = 1; number <= sent_channels; ++number) setting(number);
  for (Channel& c : settings_) c.low_us = c.centre_us = c.high_us = std::nullopt;
}

Channel& Transmitter::setting(int channel) {
  if (Channel* c = find_in(settings_, [&](const Channel& x) { return x.number == channel; })) return *c;
  Channel c;
  c.number = channel;
  settings_.push_back(c);
  return settings_.back();
}

void Transmitter::stick(ChannelFunction f, double position) {
  const std::size_t i = index(f);
  if (position != 0) side_[i] = position > 0 ? 1 : -1;
  hand_[i] = position;
}

void Transmitter::control(int channel, double position) { controls_[channel] = position; }

void Transmitter::control_to(int channel, double pulse_us) {
  const Channel& c = setting(channel);
  const double off = pulse_us - 1500 - c.sub_trim_us;
  const double travel = (off > 0 ? c.travel_high_percent : c.travel_low_percent) / 100 * limits_.full_us;
  if (travel > 0) control(channel, (c.reversed ? -1 : 1) * std::clamp(off / travel, -1.0, 1.0));
}

void Transmitter::dial(int channel, bool reversed, double sub_trim_us, double low, double high) {
  Channel& c = setting(channel);
  c.reversed = reversed;
  c.sub_trim_us = std::clamp(sub_trim_us, -limits_.most_sub_trim_us, limits_.most_sub_trim_us);
  c.travel_low_percent = std::clamp(low, 0.0, limits_.most_travel_percent);
  c.travel_high_percent = std::clamp(high, 0.0, limits_.most_travel_percent);
}

void Transmitter::turn_round(int channel) { setting(channel).reversed = !setting(channel).reversed; }

void Transmitter::exchange(ChannelFunction a, ChannelFunction b) {
  std::swap(gimbals_[index(a)].channel, gimbals_[index(b)].channel);
}

ChannelFrame Transmitter::sent() {
  ChannelFrame f;
  f.channels = sent_channels;
  f.pulse_us.fill(1500);
  for (int n = 1; n <= sent_channels; ++n) {
    const Channel& c = setting(n);
    const auto it = controls_.find(n);
    const double position = (c.reversed ? -1 : 1) * (it != controls_.end() ? it->second : -1.0);
    f.pulse_us[static_cast<std::size_t>(n - 1)] = static_cast<float>(c.fixed_us.value_or(
        1500 + c.sub_trim_us +
        position * (position > 0 ? c.travel_high_percent : c.travel_low_percent) / 100 * limits_.full_us));
  }
  for (std::size_t i = 0; i < 4; ++i) {
    const Gimbal& g = gimbals_[i];
    if (g.channel < 1 || g.channel > sent_channels) continue;
    const Channel& c = setting(g.channel);
    const double way = g.sense * (c.reversed ? -1 : 1);
    // Reach belongs to the hand's side, travel to the pulse's.
    const bool to_high_end = g.sense * hand_[i] > 0;
    const double hand = way * hand_[i] * (to_high_end ? g.reach_high : g.reach_low);
    const double noise = g.noise_us > 0 ? std::normal_distribution<double>(0, g.noise_us)(random_) : 0;
    const double rest = hand_[i] == 0 ? way * side_[i] * g.wear_us : 0;
    const double middle = g.middle_us + g.drift_us_s * std::min(now_us_ * 1e-6, warm_after_s);
    const double pulse = 1500 + c.sub_trim_us + (c.reversed ? -1 : 1) * middle + rest + noise +
                         hand * (hand > 0 ? c.travel_high_percent : c.travel_low_percent) / 100 * limits_.full_us;
    f.pulse_us[static_cast<std::size_t>(g.channel - 1)] = static_cast<float>(std::clamp(pulse, 880.0, 2120.0));
  }
  return f;
}

void Transmitter::step(double dt_s, bool receiver_lit) {
  now_us_ += dt_s * 1e6;
  if (!receiver_lit) {
    last_.reset();
    next_us_ = now_us_;
    return;
  }
  for (; next_us_ <= now_us_; next_us_ += period_us(signal_)) {
    ChannelFrame f = on_ ? sent() : last_.value_or(sent());
    f.lost = f.failsafe = false;
    if (!on_) {
      if (on_loss_ == OnLoss::no_pulses) continue;
      if (on_loss_ == OnLoss::flag) f.lost = f.failsafe = true;
      if (on_loss_ == OnLoss::preset) {
        for (std::size_t i = 0; i < 4; ++i)
          if (gimbals_[i].channel >= 1 && gimbals_[i].channel <= sent_channels)
            f.pulse_us[static_cast<std::size_t>(gimbals_[i].channel - 1)] = i == 2 ? 1000 : 1500;
      }
    }
    f.t_us = next_us_;
    last_ = f;
    switch (signal_) {
      case Signal::inverted_serial: wire_.chunks.emplace_back(next_us_, encode_inverted_serial(f)); break;
      case Signal::two_way_serial:
        wire_.chunks.emplace_back(next_us_, encode_two_way(f, counter_++));
        if (counter_ % 16 == 0)
          wire_.chunks.emplace_back(next_us_ + 3000, encode_link_report({on_ ? 100.0 : 0.0, on_ ? -42.0 : -120.0}));
        break;
      case Signal::summed:
        for (const Edge& e : encode_summed(f, next_us_)) wire_.edges.push_back(e);
        break;
      case Signal::pulse:
        for (const Edge& e : encode_pulses(f, next_us_)) wire_.edges.push_back(e);
        break;
    }
  }
  std::erase_if(wire_.chunks, [&](const auto& c) { return c.first < now_us_ - 0.5e6; });
  std::erase_if(wire_.edges, [&](const Edge& e) { return e.t_us < now_us_ - 0.5e6; });
}

const ChannelFrame* Transmitter::heard() const { return last_ && now_us_ - last_->t_us < 100000 ? &*last_ : nullptr; }

Transmitter::Wire Transmitter::take_wire() {
  Wire w = std::move(wire_);
  w.signal = signal_;
  wire_ = {};
  return w;
}

}  // namespace rigging::twin
