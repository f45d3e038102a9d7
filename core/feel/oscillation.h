#pragma once

#include <optional>
#include <string>
#include <vector>

#include "base/axis.h"
#include "base/words.h"
#include "feel/flight_log.h"

namespace rigging {

/// Where an oscillation comes from: too much correction, play in the linkage, a shaking airframe, the pilot's own hand,
/// the Dutch roll of an airframe that damps it too little.
enum class OscillationKind { gain, slop, vibration, pilot, dutch_roll };

struct Episode {
  Axis axis = Axis::roll;
  double from_s = 0, to_s = 0;
  double frequency_hz = 0;
  double amplitude_deg_s = 0;  ///< of the sine, while it is at its full height
  OscillationKind kind = OscillationKind::gain;
  std::string why;
  std::optional<double> airspeed_m_s;  ///< in its first quarter: where it began
  std::optional<double> correction;    ///< amplitude of its own frequency, share of full deflection
  bool saturated = false;              ///< the correction reached its end
};

/// Narrow lines in the spectra of the rates (Hann windows of three and of six or seven seconds) that stand at least
/// eight times above what lies beside them and last for a second and three swings or more; their beginning, end, height
/// and frequency by demodulation. Gusts excite a loop at random: their phase jumps, and they are no episode.
///
/// Kinds (common practice): from 15 Hz on it shakes (from 9 Hz where the correction has no part in it); below 2.5 Hz
/// with a stick that moves with it and leads, it is the pilot, if the stick goes to and fro at least five times without
/// resting in between: a doublet is meant, and no episode. Below 2.2 Hz a swing of roll and yaw together, or one of
/// either that an unsaturated correction works straight against, is the airframe's own: what comes late enough to drive
/// a swing that slow is no servo. Else it is the loop: gain where the correction is large or the swing grows, slop
/// where it stays small and steady. Slower than 0.4 Hz (the loop: 0.8 Hz) nothing is told; nor is what neither the
/// correction nor the stick has a part in. A weaker line at a multiple of a stronger one, or at the same frequency and
/// time on another axis, is its echo and not listed.
std::vector<Episode> oscillations_in(const FlightLog& log, Progress* progress = nullptr);

template <>
struct Names<OscillationKind> {
  using K = OscillationKind;
  static constexpr std::array<std::pair<K, std::string_view>, 5> list{{{K::gain, "gain"},
                                                                       {K::slop, "slop"},
                                                                       {K::vibration, "vibration"},
                                                                       {K::pilot, "pilot"},
                                                                       {K::dutch_roll, "dutch_roll"}}};
};

}  // namespace rigging
