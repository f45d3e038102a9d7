#include <algorithm>

#include "signal/signal.h"

namespace rigging {
namespace {

constexpr double least_pulse_us = 500, most_pulse_us = 2500;  // what can be a servo pulse at all
constexpr double pause_us = 2700;                             // longer than any channel: the frame is over
constexpr double mark_us = 300;

}  // namespace

void EdgeDecoder::give(double t_us, unsigned shape, std::vector<ChannelFrame>& out) {
  under_way_.t_us = t_us;
  const ChannelFrame frame = under_way_;
  under_way_ = {};
  filled_ = {};
  const auto take = [&](const ChannelFrame& f) {
    out.push_back(f);
    ++tally_.frames;
  };
  constexpr std::size_t agree = 3;
  if (shape_ == 0) {
    if (!held_.empty() && held_shape_ != shape) {
      tally_.damaged += held_.size();
      held_.clear();
    }
    held_.push_back(frame);
    held_shape_ = shape;
    if (held_.size() < agree) return;
    shape_ = shape;
    for (const ChannelFrame& f : held_) take(f);
    held_.clear();
    return;
  }
  if (shape == shape_) {
    others_ = 0;
    take(frame);
    return;
  }
  others_ = shape == other_shape_ ? others_ + 1 : 1;
  other_shape_ = shape;
  if (others_ >= static_cast<int>(agree)) {
    shape_ = shape;
    others_ = 0;
    take(frame);
    return;
  }
  ++tally_.damaged;
  ++tally_.resyncs;
}

void EdgeDecoder::feed(const Edge& edge, std::vector<ChannelFrame>& out) {
  signal_ == Signal::pulse ? pulse(edge, out) : summed(edge, out);
}

void EdgeDecoder::pulse(const Edge& edge, std::vector<ChannelFrame>& out) {
  if (edge.line >= most_channels) {
    ++tally_.skipped;
    return;
  }
  const std::size_t line = edge.line;
  if (edge.high) {
    if (up_[line]) ++tally_.skipped;
    up_[line] = true;
    rose_us_[line] = edge.t_us;
    return;
  }
  if (!up_[line]) {
    ++tally_.skipped;
    return;
  }
  up_[line] = false;
  const double width = edge.t_us - rose_us_[line];
  if (!(width >= least_pulse_us && width <= most_pulse_us)) {
    ++tally_.damaged;
    return;
  }
  // A channel that comes round again begins the next frame.
  if (filled_[line]) give(last_rise_us_, filled_shape(), out);
  filled_[line] = true;
  under_way_.pulse_us[line] = static_cast<float>(width);
  under_way_.channels = std::max(under_way_.channels, static_cast<std::uint8_t>(line + 1));
  last_rise_us_ = edge.t_us;
}

void EdgeDecoder::summed(const Edge& edge, std::vector<ChannelFrame>& out) {
  // Marks are equally long, so that rising edges alone carry the channels, whichever level the marks have.
  if (!edge.high) return;
  const double width = edge.t_us - last_rise_us_;
  const bool first = last_rise_us_ < 0;
  last_rise_us_ = edge.t_us;
  if (first) return;
  if (width > pause_us) {
    if (collected_ >= 0) {
      if (collected_ >= 1) {
        under_way_.channels = static_cast<std::uint8_t>(collected_);
        give(edge.t_us - width, static_cast<unsigned>(collected_), out);
      } else {
        ++tally_.damaged;
        ++tally_.resyncs;
      }
    }
    collected_ = 0;
    under_way_ = {};
    return;
  }
  if (collected_ < 0) {
    ++tally_.skipped;
    return;
  }
  if (width < least_pulse_us + 100 || width > most_pulse_us || collected_ >= static_cast<int>(most_channels)) {
    // A glitch: this frame can't be trusted.
    ++tally_.damaged;
    ++tally_.skipped;
    collected_ = -1;
    return;
  }
  under_way_.pulse_us[static_cast<std::size_t>(collected_++)] = static_cast<float>(width);
}

void EdgeDecoder::finish(std::vector<ChannelFrame>& out) {
  if (signal_ == Signal::pulse) {
    if (const unsigned shape = filled_shape(); shape != 0 && (shape_ == 0 || shape == shape_))
      give(last_rise_us_, shape, out);
  } else if (collected_ > 0 && static_cast<unsigned>(collected_) == (shape_ != 0 ? shape_ : held_shape_)) {
    under_way_.channels = static_cast<std::uint8_t>(collected_);
    give(last_rise_us_, static_cast<unsigned>(collected_), out);
  }
  // Nothing contradicts the only ones there are.
  for (const ChannelFrame& f : held_) out.push_back(f);
  tally_.frames += held_.size();
  held_.clear();
  collected_ = -1;
}

/// A bit per line that gave a pulse in the frame under way.
unsigned EdgeDecoder::filled_shape() const {
  unsigned shape = 0;
  for (std::size_t i = 0; i < filled_.size(); ++i) shape |= filled_[i] ? 1u << i : 0u;
  return shape;
}

std::vector<Edge> encode_pulses(const ChannelFrame& frame, double t_us) {
  std::vector<Edge> edges;
  for (std::uint8_t i = 0; i < frame.channels; ++i) {
    edges.push_back({t_us, true, i});
    edges.push_back({t_us + static_cast<double>(frame.pulse_us[i]), false, i});
  }
  std::stable_sort(edges.begin(), edges.end(), [](const Edge& a, const Edge& b) { return a.t_us < b.t_us; });
  return edges;
}

std::vector<Edge> encode_summed(const ChannelFrame& frame, double t_us) {
  std::vector<Edge> edges;
  double t = t_us;
  for (std::uint8_t i = 0; i <= frame.channels; ++i) {
    edges.push_back({t, true, 0});
    edges.push_back({t + mark_us, false, 0});
    if (i < frame.channels) t += static_cast<double>(frame.pulse_us[i]);
  }
  return edges;
}

}  // namespace rigging
