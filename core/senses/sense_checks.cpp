#include "senses/sense_checks.h"

#include "rig/place.h"

namespace rigging {
namespace {

std::vector<std::string> of_boards_that_show(const CheckContext& in) {
  return in.controller && in.controller->senses.shows_motion ? std::vector<std::string>{""}
                                                             : std::vector<std::string>{};
}

std::vector<std::string> of_compasses(const CheckContext& in) {
  return compass_part(in.rig, in.catalogue).empty() ? std::vector<std::string>{} : of_boards_that_show(in);
}

std::vector<std::string> sits(const std::string& part) {
  std::vector<std::string> all;
  for (const char* member : {"turn", "roll_deg", "pitch_deg", "yaw_deg"})
    all.push_back(place_of({"places", part, member}));
  return all;
}

std::vector<std::string> rotation_places(const CheckContext&, const std::string&) {
  std::vector<std::string> all = sits("controller");
  all.emplace_back("controller/kind");
  all.emplace_back("sensing/board");
  return all;
}

std::vector<std::string> correction_of(const std::string& sensor) {
  std::vector<std::string> all{"controller/kind"};
  for (const Member& m : Described<SensorCorrection>::members().list)
    all.push_back(place_of({"sensing", sensor, m.name}));
  return all;
}

std::vector<std::string> accelerometer_places(const CheckContext&, const std::string&) {
  return correction_of("accelerometer");
}

/// What turns or disturbs it: where it sits, and every lead and part that carries the motor's or the battery's current.
std::vector<std::string> compass_places(const CheckContext& in, const std::string&) {
  std::vector<std::string> all = correction_of("compass");
  const std::string part = compass_part(in.rig, in.catalogue);
  const auto add = [&](const std::vector<std::string>& more) { all.insert(all.end(), more.begin(), more.end()); };
  const auto stands = [&](const std::string& id) {
    for (const char* member : {"x_m", "y_m", "z_m"}) all.push_back(place_of({"places", id, member}));
  };
  add(sits(part));
  stands(part);
  if (part != "controller") all.push_back(place_of({"parts", part, "kind"}));
  for (const Lead& l : in.rig.leads)
    if (l.kind == LeadKind::power || l.kind == LeadKind::phase) {
      all.push_back(place_of({"leads", l.id, "kind"}));
      all.push_back(place_of({"leads", l.id, "length_m"}));
      all.push_back(place_of({"leads", l.id, "apart"}));
    }
  for (const Part& p : in.rig.parts)
    if (const PartKind* k = in.catalogue.part(p.kind);
        k &&
        (k->group == PartGroup::motor || k->group == PartGroup::speed_controller || k->group == PartGroup::battery))
      stands(p.id);
  return all;
}

std::string rotation_fails(const CheckContext& in, const std::string&) {
  const Place* place = in.rig.place("controller");
  if (!place) return "where the board sits is not known";
  const bool face = in.controller && in.controller->senses.either_face;
  const Turn sits_so = place->turn, told = in.rig.sensing.board;
  if (face ? sits_so.face_up() == told.face_up() : sits_so == told) return "";
  return "the board sits with its " + sits_so.spoken() + " and is told " + told.spoken();
}

std::string accelerometer_fails(const CheckContext& in, const std::string&) {
  return in.rig.sensing.accelerometer ? "" : "the accelerometer has not been calibrated";
}

std::string compass_fails(const CheckContext& in, const std::string&) {
  return in.rig.sensing.compass ? "" : "the compass has not been calibrated";
}

CheckCard rotation_card(const CheckContext&, const std::string&) {
  return {"Board rotation",
          "",
          "At station senses, hold the model level, nose up, then right wing down.",
          "The board sits as it was told.",
          "",
          {"Propeller off."}};
}

CheckCard accelerometer_card(const CheckContext&, const std::string&) {
  return {"Accelerometer calibrated",
          "",
          "At station senses, hold the model still in six poses or more.",
          "Every pose measures the same gravity.",
          "",
          {"Propeller off."}};
}

CheckCard compass_card(const CheckContext&, const std::string&) {
  return {"Compass calibrated",
          "",
          "At station senses, turn the model through all directions, away from iron.",
          "Every direction measures the same field.",
          "",
          {"Propeller off. A free path: nothing to trip over while turning."}};
}

}  // namespace

std::string compass_part(const Rig& rig, const Catalogue& catalogue) {
  for (const Part& p : rig.parts)
    if (const PartKind* k = catalogue.part(p.kind); k && k->magnetic_sensor) return p.id;
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  return c && c->senses.has_compass ? "controller" : "";
}

std::vector<CheckFamily> sense_checks() {
  CheckFamily rotation = reading_family(rotation_known, Station::senses, "Board rotation");
  rotation.subjects = of_boards_that_show;
  rotation.depends_on = rotation_places;
  rotation.card = rotation_card;
  rotation.why_not = rotation_fails;
  CheckFamily accelerometer = reading_family(accelerometer_calibrated, Station::senses, "Accelerometer");
  accelerometer.subjects = of_boards_that_show;
  accelerometer.depends_on = accelerometer_places;
  accelerometer.card = accelerometer_card;
  accelerometer.why_not = accelerometer_fails;
  accelerometer.until_mounted = false;  // it goes with the sensor
  CheckFamily compass = reading_family(compass_calibrated, Station::senses, "Compass");
  compass.subjects = of_compasses;
  compass.depends_on = compass_places;
  compass.card = compass_card;
  compass.why_not = compass_fails;
  return {rotation, accelerometer, compass};
}

}  // namespace rigging
