#pragma once

#include "base/figure.h"
#include "edit/edit.h"

/// The swing test: how hard the model is to turn, from how slowly it swings on two strings.
namespace rigging {

/// Moment of inertia about the upright line midway between the strings, kg·m²: m·g·d²·T² / (16·π²·L), a model of mass m
/// on two upright strings of length L, d apart, that turns about that line by a few degrees with the period T (bifilar
/// pendulum; Soulé and Miller, NACA report 467, from memory). What air swings with it counts: it does so in flight too.
/// Band: 0.3 s of the time of ten swings, 2 mm between the strings, 5 mm of their length, 1 % of the mass and 2 % for
/// all else, squared and added.
Figure swung_inertia(const Swing& swing);

/// Swung with the mass that it has now, within a twentieth; parts that moved since nobody sees.
bool counts(const Swing& swing, double mass_kg);
bool counts(const Swing& swing, const Rig& rig);

/// Which way it hangs, and what is in the way.
std::string hanging_words(Axis axis);

/// Kept with the mass that it had; the one of the same axis before it is replaced. Errors: a measure outside of its
/// range, a mass that is not known.
Result<Edit> take_swing(const Rig& rig, const Catalogue& catalogue, Axis axis, double apart_m, double length_m,
                        double period_s);

}  // namespace rigging
