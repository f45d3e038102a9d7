#pragma once

#include <string>
#include <vector>

#include "catalogue/catalogue.h"
#include "rig/airframe.h"

/// Which motor, propeller, battery and speed controller suit an airframe, of the kinds that are known. Estimates, as
/// good as the propeller coefficients of drive.h: ±20 % in thrust and current.
namespace rigging {

/// Kinds of the catalogue, one of each for every motor, one battery. An empty id: not chosen.
struct DriveKinds {
  std::string motor, propeller, battery, speed_controller;
  bool operator==(const DriveKinds&) const = default;
};

struct DriveChoice {
  DriveKinds kinds;
  int motors = 1;
  double thrust_n = 0;             ///< of all motors, held still, half-full battery
  double thrust_to_weight = 0;     ///< at the flying mass
  double full_a = 0;               ///< of all motors, fresh battery
  double pitch_speed_m_s = 0;      ///< at which the propeller would push no more
  double cruise_a = 0;             ///< of all motors; 0 where it can't cruise with it
  double minutes = 0;              ///< at cruise, with a fifth kept
  double mass_kg = 0;              ///< of all of it
  std::vector<std::string> wrong;  ///< what does not go together, in words; empty when all does
  std::string words;               ///< "14.2 N, 1.2 of the weight; 21 A at most; about 24 min at cruise"
};

/// What comes of these kinds on this airframe, whose mass must be known. What is missing of motor, propeller or battery
/// is said under `wrong`; without a speed controller nothing is said of its current.
DriveChoice judge_drive(const Airframe& airframe, const Catalogue& catalogue, const DriveKinds& kinds);

/// Up to `most` that suit, the best first: nothing wrong with them, thrust as the kind wants it, a propeller that still
/// pushes at its speed, a battery that is not too heavy, then the longest flight. What is chosen already stays. Empty
/// when nothing suits, when the airframe has no motor, or when its mass is not known.
std::vector<DriveChoice> suggest_drives(const Airframe& airframe, const Catalogue& catalogue,
                                        const DriveKinds& chosen = {}, std::size_t most = 3);

/// The same propeller for a motor that turns the other way; null when none is known.
const PartKind* other_handed(const Catalogue& catalogue, const PartKind& propeller);

/// Thrust over weight that models of the kind usually have (common practice): from 0.45 for a motor glider to 0.9 for
/// wings and deltas.
double usual_thrust_to_weight(AirframeKind kind);

}  // namespace rigging
