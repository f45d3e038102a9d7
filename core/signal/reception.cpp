#include "signal/reception.h"

#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "base/statistics.h"

namespace rigging {
namespace {

constexpr std::size_t least_frames_for_a_rate = 8;
constexpr float flicker_us = 1.01F;  // two neighbours of a 1 µs grid are one place
constexpr double still_us = 60;      // no jitter and no drift is as wide (common practice)

}  // namespace

Reception reception(const std::deque<ChannelFrame>& frames) {
  Reception r;
  if (frames.size() < 2) return r;
  std::size_t lost = 0;
  for (std::size_t i = 0; i < frames.size(); ++i) {
    lost += frames[i].lost || frames[i].failsafe;
    if (i > 0) r.longest_gap_us = std::max(r.longest_gap_us, frames[i].t_us - frames[i - 1].t_us);
  }
  const double span = frames.back().t_us - frames.front().t_us;
  if (span > 0) r.frames_per_s = static_cast<double>(frames.size() - 1) / span * 1e6;
  r.lost_share = static_cast<double>(lost) / static_cast<double>(frames.size());
  r.failsafe = frames.back().failsafe;
  return r;
}

bool moved(const std::optional<ChannelFrame>& drawn, const ChannelFrame* now) {
  if (!drawn || !now) return drawn.has_value() != (now != nullptr);
  if (drawn->channels != now->channels) return true;
  for (std::size_t i = 0; i < now->channels; ++i)
    if (std::abs(drawn->pulse_us[i] - now->pulse_us[i]) > flicker_us) return true;
  return false;
}

std::vector<ChannelHabit> habits(const std::deque<ChannelFrame>& frames) {
  std::vector<const ChannelFrame*> good;
  int channels = 0;
  for (const ChannelFrame& f : frames) {
    if (f.lost || f.failsafe) continue;
    good.push_back(&f);
    channels = std::max<int>(channels, f.channels);
  }
  std::vector<ChannelHabit> all;
  for (int number = 1; number <= channels; ++number) {
    std::vector<double> at, steps;
    for (const ChannelFrame* f : good)
      if (const double us = static_cast<double>(f->pulse_us[static_cast<std::size_t>(number - 1)]);
          number <= f->channels && us > 0)
        at.push_back(us);
    if (at.empty()) continue;
    ChannelHabit h;
    h.channel = number;
    h.least_us = *std::min_element(at.begin(), at.end());
    h.most_us = *std::max_element(at.begin(), at.end());
    h.last_us = at.back();
    if (at.size() >= least_frames_for_a_rate) {
      for (std::size_t i = 1; i < at.size(); ++i) steps.push_back(std::abs(at[i] - at[i - 1]));
      // Steps of a steady Gaussian jitter have √2 of its deviation, and the median of their size is 0.6745 of that.
      h.noise_us = median(steps) / (0.6745 * std::sqrt(2.0));
      // A hand that moves the stick makes steps of its own. Fourth differences (√70 of the deviation) leave next to
      // nothing of anything as smooth as a hand, and all of the jitter.
      std::vector<double> rough;
      for (std::size_t i = 4; i < at.size(); ++i)
        rough.push_back(std::abs(at[i] - 4 * at[i - 1] + 6 * at[i - 2] - 4 * at[i - 3] + at[i - 4]));
      const double jitter_us = median(rough) / (0.6745 * std::sqrt(70.0));
      h.moved = h.most_us - h.least_us > still_us + 8 * jitter_us;
      if (h.moved) h.noise_us = jitter_us;
      const auto quarter = static_cast<std::ptrdiff_t>(at.size() / 4);
      if (!h.moved) h.drift_us = median({at.end() - quarter, at.end()}) - median({at.begin(), at.begin() + quarter});
    }
    if (h.noise_us > noisy_us)
      h.words = "jitters by " + number_text(h.noise_us, 1) + " µs: a dirty or worn gimbal, or a poor supply";
    if (std::abs(h.drift_us) > std::max(drifts_us, 3 * h.noise_us))
      h.words +=
          (h.words.empty() ? "" : "; ") + ("drifts by " + number_text(h.drift_us, 1) + " µs with nobody touching it");
    all.push_back(h);
  }
  return all;
}

}  // namespace rigging
