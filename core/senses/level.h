#pragma once

#include <optional>
#include <string>

#include "base/figure.h"
#include "rig/airframe.h"

/// The attitude that a board should take for level: that in which the wing carries the model at cruise.
namespace rigging {

struct AirframeReport;

struct LevelReport {
  /// Of the floor that the board sits on, degrees. Absent without a mass, or where the wing can't carry it at cruise.
  std::optional<Figure> nose_up;
  std::optional<Figure> speed, wing_lift;  ///< lift coefficient of the wing
  double wing_deg = 0;                     ///< the line from leading to trailing edge, against the air
  std::string first;                       ///< what is needed before it can be said; empty when it is
  std::string beside;                      ///< how it stands beside common practice, one sentence
};

/// Level flight at cruise: lift of the wing is weight less what tail (or foreplane, or elevons) and the shaft's tilt
/// carry. Angle without lift from the camber of the section, −2·camber (parabolic camber line; Glauert, The Elements of
/// Aerofoil and Airscrew Theory), slope from the lattice of the airframe, trim from the moments about `balance_m`
/// behind the nose. Band: speed, camber and slope (8 %) at their ends. Body, propeller wash and flaps are not modelled.
LevelReport analyze_level(const Airframe& airframe, const AirframeReport& report, double balance_m);

/// "2.3° (-0.2 to 5.2°)"; empty where it is not known.
std::string level_text(const LevelReport& report);

/// What to change after a flight in self-level with the sticks at rest.
struct LevelChange {
  double deg = 0, least = 0, most = 0;  ///< to be added to the level attitude
  std::string why;
};
/// It climbed (m/s, down negative) at cruise throttle: nose too high. By how much follows from how the path answers the
/// attitude at a fixed throttle: constant power of the propeller (thrust P/V) against the drag polar. Nothing without a
/// mass. Band: drag at its ends, thrust between constant and constant power.
std::optional<LevelChange> level_from_climb(const Airframe& airframe, const AirframeReport& report, double climb_m_s);
/// It turned, right positive, degrees a second: level is that much banked, tan φ = V·ω/g, up to 12°; a steeper bank is
/// no error of level, and nothing is to be added. To be added to how far the
/// right wing is down.
std::optional<LevelChange> level_from_turn(const Airframe& airframe, double turn_deg_s);

/// What is usual, degrees nose up (common practice).
inline constexpr double usual_level_least_deg = 2, usual_level_deg = 3, usual_level_most_deg = 5;

}  // namespace rigging
