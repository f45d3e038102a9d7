#pragma once

#include <array>

#include "direction/case.h"
#include "direction/evidence.h"

namespace rigging::direction {

/// True if levelling takes the model on its wheels for level, whatever the arrow says: then it opposes the sensed
/// rotation. With any other turn it finds "down" in the wrong place and rolls or pitches the model away from level.
inline bool finds_down(const Turn& turn) { return turn.top == Turn{}.top; }

/// Motions (as `bit_of`) that a rising surface on such an output can show when a model that stood level is tilted and
/// its controller levels by gravity: bank atan2(y, z) and pitch asin(−x) of "down" in the sensed frame, each answered
/// by the opposite command (ISO 1151 axes). More than one bit where bank is undefined, at 180°, or two commands pull
/// apart; "still" is among them where the surface stood deflected already before the tilt.
/// `turn` of the board against what the controller was told; `reversed` axes answer the wrong way round; `pulse` is
/// the output's sign per axis.
SeenBits level_motions(const Turn& turn, unsigned reversed, Axis tilted, int sense, const std::array<int, 3>& pulse);

}  // namespace rigging::direction
