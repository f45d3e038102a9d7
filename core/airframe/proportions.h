#pragma once

#include "rig/airframe.h"

namespace rigging {

/// Sizes of the kind as models of this span usually have them, from memory of many plans: a beginning to measure
/// against, ±20 %; fins and V as large as it takes that it turns its nose into the wind whatever the body does, the
/// lower edge of Cnβ above 0 (a test). Each of them is named in `guessed`, and so is the mass, 4 to 10 kg per (m² of
/// wing)^1.5 by kind (from memory, ±40 %). `span_m` 0.1 to 20.
Airframe usual_airframe(AirframeKind kind, double span_m);

/// What was only guessed follows again: the span, the chord at the root and the kind lead.
Airframe with_guesses_following(Airframe airframe);

/// The spoken names of what is still a guess, as the form says them; what the kind does not have is left out.
std::vector<std::string> guesses_of(const Airframe& airframe);

}  // namespace rigging
