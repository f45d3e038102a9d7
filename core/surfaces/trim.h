#pragma once

#include "catalogue/catalogue.h"
#include "rig/rig.h"

/// Trim that was flown: centres that a controller has moved by itself, and what a trim flight by hand has shown.
namespace rigging {

/// What a class does with the trim that was flown, one sentence; empty when it keeps none.
std::string trim_words(const ControllerClass& controller);

/// How far the surface stands at a pulse, from its readings: straight lines between them; nothing beyond them, or with
/// fewer than two.
std::optional<double> read_at(const Linkage& linkage, double pulse_us);

/// `after` differs from `before` by centres that the controller has moved in flight. What was proven of those surfaces
/// is taken over: where each sat in flight is wanted at its centre now, as far as its readings tell, and proofs that
/// rested on the centres rest on the new ones. More than 150 µs is no trim and stays a change like any other.
Rig with_flown_trim(const Rig& before, Rig after);

}  // namespace rigging
