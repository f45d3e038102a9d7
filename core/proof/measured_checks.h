#pragma once

#include "proof/checks.h"

/// Bench checks that rest on numbers read: sticks that land, surfaces that are flush and throw alike, a loss of signal
/// that is noticed.
namespace rigging {

enum class MeasuredCheck { sticks_calibrated, loss_noticed, surfaces_centred, throws_equal };

struct MeasuredStatus {
  MeasuredCheck check = MeasuredCheck::sticks_calibrated;
  std::string id;  ///< "sticks.calibrated", …
  std::string title;
  bool holds = false;   ///< what was read passes now
  std::string why_not;  ///< one sentence when it does not
  Standing standing;
};

/// All four, whatever the rig.
std::vector<MeasuredStatus> measured_statuses(const Rig& rig, const Catalogue& catalogue);
/// The rig with the check recorded at `at` (ISO 8601, UTC); provisional while the board is loose. Nothing changes when
/// what was read does not pass; a loss of signal is taken from the caller, who saw it.
Rig measured_proven(Rig rig, const Catalogue& catalogue, MeasuredCheck check, const std::string& at, bool simulated);

/// How close a surface must stand: half a degree at neutral and ends (a degree is seen, half of one is not: common
/// practice).
inline constexpr double flush_deg = 0.5;
/// How much left and right may differ, degrees.
inline constexpr double alike_deg = 1.0;

/// What a surface was last read to do at its output's centre and ends (or as far as full sticks bring it); absent while
/// not read there. `up` and `down` are positive.
struct ReadThrows {
  double neutral_deg = 0, up_deg = 0, down_deg = 0;
};
std::optional<ReadThrows> read_throws(const Rig& rig, Surface surface);

}  // namespace rigging
