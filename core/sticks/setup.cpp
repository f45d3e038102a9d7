#include "sticks/setup.h"

#include <algorithm>
#include <cmath>

#include "base/find.h"
#include "base/number.h"
#include "sticks/sticks.h"

namespace rigging {
namespace {

using F = ChannelFunction;

constexpr double still_s = 0.4, rest_s = 0.8;
constexpr double moved_us = 150, home_us = 120;  // it was moved; it is back
constexpr double aside = 0.2;                    // another channel that moves by this share of the first moves with it
constexpr double patience_us = 4e6;              // then two channels that move together are a mix, no slip of the hand
constexpr std::size_t least_frames = 8;

const char* end_words(F f, int side) {
  switch (f) {
    case F::roll:
      return side > 0 ? "Push the roll stick fully to the right and hold it."
                      : "Push the roll stick fully to the left and hold it.";
    case F::pitch:
      return side > 0 ? "Pull the pitch stick fully back, toward you, and hold it."
                      : "Push the pitch stick fully forward and hold it.";
    case F::yaw:
      return side > 0 ? "Push the yaw stick fully to the right and hold it."
                      : "Push the yaw stick fully to the left and hold it.";
    default:
      return side > 0 ? "Open the throttle fully and hold it. The propeller is off." : "Close the throttle fully.";
  }
}

}  // namespace

StickSetup::StickSetup(std::vector<F> sticks, std::vector<StickReading> others) : others_(std::move(others)) {
  steps_.push_back({Phase::rest, F::other});
  for (const F f : sticks)
    if (f == F::throttle)
      steps_.insert(steps_.end(), {{Phase::open, f}, {Phase::close, f}});
    else
      steps_.insert(steps_.end(), {{Phase::push, f}, {Phase::after_push, f}, {Phase::pull, f}, {Phase::after_pull, f}});
}

std::string StickSetup::todo() const {
  if (done()) return {};
  const Step& s = steps_[at_];
  switch (s.phase) {
    case Phase::rest: return "Throttle closed, both hands off the sticks.";
    case Phase::push:
    case Phase::open: return end_words(s.function, 1);
    case Phase::pull:
    case Phase::close: return end_words(s.function, -1);
    default: return "Let the " + function_label(s.function) + " go.";
  }
}

std::optional<F> StickSetup::stick() const {
  return done() || steps_[at_].phase == Phase::rest ? std::nullopt : std::optional(steps_[at_].function);
}

int StickSetup::side() const {
  if (done()) return 0;
  const Phase p = steps_[at_].phase;
  return p == Phase::push || p == Phase::open ? 1 : p == Phase::pull || p == Phase::close ? -1 : 0;
}

void StickSetup::again() {
  if (at_ == 0) return;
  // A stick that is under way begins again; one that has not begun hands over to the one before.
  const auto begins = [](Phase p) { return p == Phase::push || p == Phase::open; };
  const bool under_way = !done() && !begins(steps_[at_].phase);
  if (!under_way && !readings_.empty()) {
    std::erase_if(findings_, [&](const StickFinding& f) { return f.function == readings_.back().function; });
    readings_.pop_back();
  }
  do {
    --at_;
  } while (at_ > 0 && !begins(steps_[at_].phase));
  remark_.clear();
  heard_.clear();
  if (at_ == 0) readings_.clear();
}

/// The frames of the last `seconds`, all of this step; no value while there are too few.
std::optional<StickSetup::Still> StickSetup::window(double seconds) const {
  if (heard_.empty() || heard_.back().t_us - heard_.front().t_us < seconds * 1e6) return std::nullopt;
  const double from = heard_.back().t_us - seconds * 1e6;
  Still w;
  w.channels = heard_.back().channels;
  std::array<double, most_channels> sum{}, square{}, low, high{};
  low.fill(1e9);
  std::size_t n = 0;
  for (auto f = heard_.rbegin(); f != heard_.rend() && f->t_us >= from; ++f, ++n)
    for (std::size_t i = 0; i < static_cast<std::size_t>(w.channels); ++i) {
      const double v = static_cast<double>(f->pulse_us[i]) - static_cast<double>(heard_.back().pulse_us[i]);
      sum[i] += v;
      square[i] += v * v;
      low[i] = std::min(low[i], v);
      high[i] = std::max(high[i], v);
    }
  if (n < least_frames) return std::nullopt;
  const double count = static_cast<double>(n);
  for (std::size_t i = 0; i < static_cast<std::size_t>(w.channels); ++i) {
    w.mean[i] = sum[i] / count + static_cast<double>(heard_.back().pulse_us[i]);
    w.deviation[i] = std::sqrt(std::max(0.0, square[i] / count - sum[i] / count * (sum[i] / count)));
    w.range[i] = high[i] - low[i];
  }
  return w;
}

bool StickSetup::still(const Still& w, int channel) const {
  const auto i = static_cast<std::size_t>(channel);
  // Six deviations hold practically all of a steady noise; a hand on its way spreads far wider.
  return w.range[i] <= std::max(12.0, 7 * (at_ == 0 ? w.deviation[i] : std::max(rest_.deviation[i], 1.0)));
}

void StickSetup::feed(const ChannelFrame& frame) {
  if (done()) return;
  if (frame.lost || frame.failsafe || frame.channels == 0) {
    if (frame.failsafe) remark_ = "The receiver hears no transmitter.";
    return;
  }
  if (!heard_.empty() && frame.t_us < heard_.back().t_us) heard_.clear();
  if (heard_.empty()) since_us_ = frame.t_us;
  heard_.push_back(frame);
  while (heard_.size() > 2 && heard_.back().t_us - heard_[1].t_us > 1.2e6) heard_.pop_front();
  judge();
}

void StickSetup::next() {
  ++at_;
  heard_.clear();
  remark_.clear();
}

void StickSetup::judge() {
  const Step& s = steps_[at_];
  const auto w = window(s.phase == Phase::rest ? rest_s : still_s);
  if (!w) return;
  if (s.phase == Phase::rest) {
    for (int i = 0; i < w->channels; ++i)
      if (w->range[static_cast<std::size_t>(i)] > 80) {
        remark_ = "Channel " + std::to_string(i + 1) + " still moves.";
        return;
      }
    rest_ = *w;
    end_of_ = w->mean;
    readings_.clear();
    findings_.clear();
    next();
    return;
  }

  const int known = now_.channel - 1;
  const auto delta = [&](int i) {
    return w->mean[static_cast<std::size_t>(i)] - rest_.mean[static_cast<std::size_t>(i)];
  };
  if (s.phase == Phase::push || s.phase == Phase::open) {
    int most = 0, second = -1;
    for (int i = 1; i < std::min(w->channels, rest_.channels); ++i)
      if (std::abs(delta(i)) > std::abs(delta(most))) most = i;
    for (int i = 0; i < std::min(w->channels, rest_.channels); ++i)
      if (i != most && (second < 0 || std::abs(delta(i)) > std::abs(delta(second)))) second = i;
    if (std::abs(delta(most)) < moved_us || !still(*w, most)) return;
    const auto on_it = [&](const StickReading& r) { return r.channel == most + 1; };
    const StickReading* taken = find_in(readings_, on_it);
    if (!taken) taken = find_in(others_, on_it);
    if (taken) {
      remark_ = "Channel " + std::to_string(most + 1) + " moves, which the " + function_label(taken->function) +
                " moved already. Is it the other stick?";
      return;
    }
    if (second >= 0 && std::abs(delta(second)) > aside * std::abs(delta(most))) {
      remark_ = "Channels " + std::to_string(most + 1) + " and " + std::to_string(second + 1) +
                " move together. Move this one stick alone; if that is so, the transmitter mixes them.";
      if (heard_.back().t_us - since_us_ < patience_us && heard_.size() > 2) return;
      findings_.push_back({s.function, StickFinding::TypeInfo::together,
                           capital(function_label(s.function)) + " moves channels " + std::to_string(most + 1) +
                               " and " + std::to_string(second + 1) +
                               ": the transmitter mixes them. Switch the mix off."});
    }
    now_ = {};
    now_.function = s.function;
    now_.channel = most + 1;
    now_.noise_us = rest_.deviation[static_cast<std::size_t>(most)];
    first_end_ = w->mean[static_cast<std::size_t>(most)];
    now_.inverted = delta(most) < 0;
    if (s.phase == Phase::open) second_end_ = rest_.mean[static_cast<std::size_t>(most)];
    next();
    return;
  }

  const double mean = w->mean[static_cast<std::size_t>(known)];
  const double sense = now_.inverted ? -1 : 1;
  if (!still(*w, known)) return;
  // Whoever pauses on the way to the end and goes on is believed.
  const bool further = s.phase == Phase::after_push || s.phase == Phase::close
                           ? sense * (mean - first_end_) > 0
                           : s.phase == Phase::after_pull && sense * (mean - second_end_) < 0;
  switch (s.phase) {
    case Phase::after_push:
      if (further) first_end_ = mean;
      if (std::abs(delta(known)) > home_us) return;
      first_centre_ = mean;
      next();
      return;
    case Phase::pull:
      if (std::abs(delta(known)) < moved_us) return;
      if (sense * delta(known) > 0) {
        remark_ = "That is the same side again.";
        return;
      }
      second_end_ = mean;
      next();
      return;
    case Phase::after_pull:
      if (further) second_end_ = mean;
      if (std::abs(delta(known)) > home_us) return;
      now_.spread_us = std::abs(mean - first_centre_);
      now_.centre_us = (mean + first_centre_) / 2;
      break;
    case Phase::close:
      if (further) first_end_ = mean;
      if (std::abs(mean - first_end_) < 2 * moved_us) return;
      second_end_ = mean;
      break;
    default: return;
  }
  now_.low_us = std::min(first_end_, second_end_);
  now_.high_us = std::max(first_end_, second_end_);
  for (int i = 0; i < w->channels; ++i) end_of_[static_cast<std::size_t>(i)] = w->mean[static_cast<std::size_t>(i)];
  readings_.push_back(now_);
  next();
}

std::vector<StickFinding> StickSetup::findings() const {
  std::vector<StickFinding> all = findings_;
  for (const StickReading& r : readings_) {
    const auto i = static_cast<std::size_t>(r.channel - 1);
    const std::string name = capital(function_label(r.function));
    if (r.noise_us > noisy_us)
      all.push_back({r.function, StickFinding::TypeInfo::noise,
                     name + " jitters by " + number_text(r.noise_us, 1) +
                         " µs at rest: a dirty or worn gimbal, or a poor supply in the transmitter."});
    if (r.spread_us > worn_us)
      all.push_back({r.function, StickFinding::TypeInfo::worn,
                     name + " comes back to centres that lie " + number_text(r.spread_us, 1) +
                         " µs apart: a worn gimbal or a tired spring. No sub-trim cures that."});
    if (r.function == F::throttle || !r.centre_us) continue;
    const double drift = end_of_[i] - rest_.mean[i];
    if (std::abs(drift) > drifts_us && r.spread_us <= worn_us)
      all.push_back({r.function, StickFinding::TypeInfo::drift,
                     name + " drifted by " + number_text(drift, 1) +
                         " µs while nobody touched it. Let the transmitter warm up and measure again."});
  }
  return all;
}

Rig with_readings(Rig rig, const std::vector<StickReading>& readings) {
  for (const StickReading& r : readings)
    for (Channel& c : rig.radio.channels)
      if (c.function == r.function && c.number != r.channel) c.function = F::other;
  for (const StickReading& r : readings) {
    Channel* c = find_in(rig.radio.channels, [&](const Channel& x) { return x.number == r.channel; });
    if (!c) {
      c = &rig.radio.channels.emplace_back();
      c->number = r.channel;
    }
    c->function = r.function;
    c->low_us = r.low_us;
    c->high_us = r.high_us;
    c->centre_us = r.centre_us.value_or((r.low_us + r.high_us) / 2);
    c->inverted = r.inverted;
    c->noise_us = r.noise_us;
    c->centre_spread_us = r.spread_us;
    c->learned = false;
  }
  std::sort(rig.radio.channels.begin(), rig.radio.channels.end(),
            [](const Channel& a, const Channel& b) { return a.number < b.number; });
  return rig;
}

void SwitchSetup::feed(const ChannelFrame& frame) {
  if (frame.lost || frame.failsafe || frame.channels == 0) return;
  if (!first_) first_ = frame;
  if (channel_ == 0) {
    double most = 100;
    for (int i = 0; i < std::min(frame.channels, first_->channels); ++i) {
      if (std::find(taken_.begin(), taken_.end(), i + 1) != taken_.end()) continue;
      const double moved = std::abs(static_cast<double>(frame.pulse_us[static_cast<std::size_t>(i)] -
                                                        first_->pulse_us[static_cast<std::size_t>(i)]));
      if (moved > most) {
        most = moved;
        channel_ = i + 1;
      }
    }
    if (channel_ == 0) return;
    // Where it stood before the first move is a position, too.
    places_.push_back({static_cast<double>(first_->pulse_us[static_cast<std::size_t>(channel_ - 1)]), 1});
  }
  heard_.push_back(frame);
  const auto i = static_cast<std::size_t>(channel_ - 1);
  while (heard_.size() > 2 && heard_.back().t_us - heard_[1].t_us > 0.25e6) heard_.pop_front();
  if (heard_.back().t_us - heard_.front().t_us < 0.25e6 || heard_.size() < 5) return;
  double low = 1e9, high = 0, sum = 0;
  for (const ChannelFrame& f : heard_) {
    const double v = static_cast<double>(f.pulse_us[i]);
    low = std::min(low, v);
    high = std::max(high, v);
    sum += v;
  }
  if (high - low > 20) return;
  const double mean = sum / static_cast<double>(heard_.size());
  Mounting* p = find_in(places_, [&](const Mounting& x) { return std::abs(x.mean() - mean) < 50; });
  if (!p) p = &places_.emplace_back();
  p->sum += mean;
  ++p->count;
}

std::vector<double> SwitchSetup::positions() const {
  std::vector<double> all;
  for (const Mounting& p : places_) all.push_back(p.mean());
  std::sort(all.begin(), all.end());
  return all;
}

}  // namespace rigging
