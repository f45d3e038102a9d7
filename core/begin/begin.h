#pragma once

#include "catalogue/part_words.h"
#include "edit/edit.h"
#include "power/drive_choice.h"

/// From nothing to a rig that is placed, fed and planned.
namespace rigging {

/// What a builder tells of an aircraft to begin with. Everything may be left open.
struct NewAircraft {
  std::string name;
  AirframeKind kind = AirframeKind::two_ailerons;
  Motors motors = Motors::one;
  PropellerSide propeller = PropellerSide::usual;
  bool ailerons_joined = false;  ///< on a Y-lead; a kind without a pair of ailerons has none
  std::string controller = "full_controller";
  std::optional<double> span_m;  ///< 1.2 where it is not told, and a guess then
  std::optional<double> mass_kg;
  /// Further measures by the names of the document ("root_chord_m"), SI.
  std::vector<std::pair<std::string, double>> measures;
  DriveKinds drive;             ///< what is left open here is not added
  std::string receiver, servo;  ///< ids of kinds; no receiver and no servos where empty
  std::vector<SaidPart> others;
};

/// The aircraft with its sizes alone, as it is drawn while it is told. Errors: a measure out of its range.
Result<Airframe> airframe_of(const NewAircraft& aircraft);

/// Servos as models of this flying mass usually have them (common practice): 5 g up to 0.35 kg, then 9 g, metal gears
/// from 1.5 kg, 20 g from 2.5 kg.
std::string usual_servo(const Airframe& airframe, const Catalogue& catalogue);
/// The first receiver of the catalogue whose signal the class takes, two-way serial before framed before pulses; empty
/// when there is none.
std::string usual_receiver(const Catalogue& catalogue, const std::string& controller);
/// A drive as it was said: "2212 1000 kV, 9 x 6, 3S 2200, 30 A"; what is no part of a drive comes back in `others`.
struct SaidDrive {
  DriveKinds kinds;
  std::vector<SaidPart> pieces;  ///< all of what was said, piece by piece, as it was understood
  std::vector<SaidPart> others;
  std::vector<std::string> remarks;  ///< what was said and is not known so
};
SaidDrive drive_in_words(const Catalogue& catalogue, std::string_view words);

/// The whole rig: outputs in the sockets of the class, parts with places, wiring planned, and what the plan says is
/// missing to feed everything. Errors: an unknown id; a measure out of its range.
Result<Edit> begin_rig(const Catalogue& catalogue, const NewAircraft& aircraft);

}  // namespace rigging
