#include "senses/sense_checks.h"

#include "base/number.h"
#include "rig/path.h"
#include "senses/inventory.h"
#include "senses/level.h"

namespace rigging {
namespace {

std::vector<std::string> of_boards_that_show(const CheckContext& in) {
  return in.controller && in.controller->senses.shows_motion ? std::vector<std::string>{""}
                                                             : std::vector<std::string>{};
}

std::vector<std::string> of_compasses(const CheckContext& in) {
  return sensor_part(in.rig, in.catalogue, Sensor::compass).empty() ? std::vector<std::string>{}
                                                                    : of_boards_that_show(in);
}

std::vector<std::string> sits(const std::string& part) {
  std::vector<std::string> all;
  for (const char* member : {"turn", "roll_deg", "pitch_deg", "yaw_deg"})
    all.push_back(path_of({"places", part, member}));
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
    all.push_back(path_of({"sensing", sensor, m.name}));
  return all;
}

std::vector<std::string> accelerometer_places(const CheckContext&, const std::string&) {
  return correction_of("accelerometer");
}

/// What turns or disturbs it: where it sits, and every lead and part that carries the motor's or the battery's current.
std::vector<std::string> compass_places(const CheckContext& in, const std::string&) {
  std::vector<std::string> all = correction_of("compass");
  const std::string part = sensor_part(in.rig, in.catalogue, Sensor::compass);
  const auto add = [&](const std::vector<std::string>& more) { all.insert(all.end(), more.begin(), more.end()); };
  const auto stands = [&](const std::string& id) {
    for (const char* member : {"x_m", "y_m", "z_m"}) all.push_back(path_of({"places", id, member}));
  };
  add(sits(part));
  stands(part);
  if (part != "controller") all.push_back(path_of({"parts", part, "kind"}));
  for (const Lead& l : in.rig.leads)
    if (l.kind == LeadKind::power || l.kind == LeadKind::phase) {
      all.push_back(path_of({"leads", l.id, "kind"}));
      all.push_back(path_of({"leads", l.id, "length_m"}));
      all.push_back(path_of({"leads", l.id, "apart"}));
    }
  for (const Part& p : in.rig.parts)
    if (const PartKind* k = in.catalogue.part(p.kind);
        k &&
        (k->group == PartGroup::motor || k->group == PartGroup::speed_controller || k->group == PartGroup::battery))
      stands(p.id);
  return all;
}

bool levels(const CheckContext& in) { return in.controller && in.controller->mode(Mode::level); }
std::vector<std::string> once_if(bool needed) {
  return needed ? std::vector<std::string>{""} : std::vector<std::string>{};
}

std::vector<std::string> of_boards_that_level(const CheckContext& in) {
  return once_if(levels(in) && in.controller->senses.shows_motion);
}
std::vector<std::string> of_levels_by_hand(const CheckContext& in) {
  return once_if(levels(in) && !in.controller->senses.shows_motion && in.controller->senses.stores_level);
}
std::vector<std::string> of_boards_with_a_lamp(const CheckContext& in) {
  return once_if(in.controller && !in.controller->senses.shows_motion &&
                 in.controller->senses.power_up != PowerUp::anyhow);
}
std::vector<std::string> of_fixes(const CheckContext& in) {
  return sensor_part(in.rig, in.catalogue, Sensor::satellites).empty() ? std::vector<std::string>{}
                                                                       : of_boards_that_show(in);
}

/// A new zero is taken at every start: what it rests on is the board itself.
std::vector<std::string> board_places(const CheckContext&, const std::string&) {
  return {"controller/kind", "controller/firmware"};
}

/// The angle, where the board sits, and what the angle was worked out from.
std::vector<std::string> level_places(const CheckContext& in, const std::string& subject) {
  std::vector<std::string> all = rotation_places(in, subject);
  for (const char* member : {"level_nose_up_deg", "level_right_down_deg"}) all.push_back(path_of({"sensing", member}));
  for (const char* member :
       {"span_m", "root_chord_m", "tip_chord_m", "mass_kg", "section", "incidence_deg", "cruise_m_s"})
    all.push_back(path_of({"airframe", member}));
  return all;
}

std::vector<std::string> fix_places(const CheckContext& in, const std::string&) {
  const std::string part = sensor_part(in.rig, in.catalogue, Sensor::satellites);
  std::vector<std::string> all{"controller/kind", path_of({"parts", part, "kind"}), path_of({"parts", part, "baud"}),
                               "sensing/uses_satellites"};
  for (const char* member : {"x_m", "y_m", "z_m", "turn"}) all.push_back(path_of({"places", part, member}));
  return all;
}

std::string level_fails(const CheckContext& in, const std::string&) {
  return in.rig.sensing.level_nose_up_deg ? "" : "the level attitude has not been set";
}

std::string rotation_fails(const CheckContext& in, const std::string&) {
  const Mounting* place = in.rig.mounting("controller");
  if (!place) return "where the board sits is not known";
  const bool face = in.controller && in.controller->senses.either_face;
  const Turn sits_so = place->turn, told = in.rig.sensing.board;
  if (face ? sits_so.face_up() == told.face_up() : sits_so == told) return "";
  return "the board sits with its " + sits_so.label() + " and is told " + told.label();
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

CheckCard gyro_card(const CheckContext&, const std::string&) {
  return {"Still at power-up",
          "",
          "At station senses: power up with the model still, hands off, and read the gyro for some seconds.",
          "At rest it says that nothing turns.",
          "",
          {"Propeller off."}};
}

CheckCard level_card(const CheckContext& in, const std::string&) {
  const auto& level = in.rig.sensing.level_nose_up_deg;
  return {"Level attitude",
          "",
          "At station senses, set the attitude in which the wing carries the model at cruise.",
          level ? "Propped " + number_text(*level, 1) + "° nose up, in self-level, the surfaces stand in their middle."
                : "",
          "",
          {"Propeller off."}};
}

CheckCard fix_card(const CheckContext&, const std::string&) {
  return {"A good fix",
          "",
          "Outdoors, at station senses, let the satellite receiver stand still for a few minutes.",
          "Enough satellites, and a home that is right to a few metres.",
          "",
          {"Propeller off."}};
}

std::string sign_words(const ControllerClass& c, LampTells tells) {
  const Lamp* lamp = c.lamp(tells);
  return lamp ? lamp->sign : std::string();
}

CheckCard wakes_card(const CheckContext& in, const std::string&) {
  const ControllerClass& c = *in.controller;
  const bool level = c.senses.power_up == PowerUp::still_and_level;
  const std::string settling = sign_words(c, LampTells::settling), ready = sign_words(c, LampTells::ready),
                    fault = sign_words(c, LampTells::fault);
  CheckCard card;
  card.title = level ? "Wakes still and level" : "Wakes still";
  card.todo = std::string("1. Transmitter on, throttle closed. 2. Set the model down ") +
              (level ? "in the attitude in which it flies level (the wedge under it), still, hands off. "
                     : "still, hands off; it need not be level. ") +
              "3. Battery in. 4. Do not touch it until it is ready.";
  card.expected =
      (settling.empty() ? std::string() : "First: " + settling + ". ") +
      (ready.empty() ? "It shows that it is ready" : "Then: " + ready) +
      ", and the surfaces stand still while the model does." +
      (fault.empty() ? "" : " If instead: " + fault + ", it was moved: unplug, keep it still, plug in again.");
  card.how = "A surface that creeps or stands off its middle, with the model at rest, says that the zero is wrong.";
  card.cautions = {"Propeller off."};
  return card;
}

CheckCard level_stored_card(const CheckContext& in, const std::string&) {
  const auto& level = in.rig.sensing.level_nose_up_deg;
  return {"Level stored",
          "",
          "1. Prop the model on its wedge, nose up by " + number_text(level.value_or(usual_level_deg), 1) + "°" +
              (level ? "" : " (usual, 2 to 5°; station senses works it out)") + ", wings level, still. 2. " +
              in.controller->with_leaflet(in.controller->senses.level),
          "On the wedge, in the levelling mode, the surfaces stand in their middle; off it they answer.",
          "",
          {"Propeller off."}};
}

}  // namespace

std::vector<CheckFamily> sense_checks() {
  using Subjects = decltype(CheckFamily::subjects);
  using Places = decltype(CheckFamily::depends_on);
  using MadeCard = decltype(CheckFamily::card);
  using WhyNot = decltype(CheckFamily::why_not);
  const auto read = [](const CheckId& id, const char* name, Subjects subjects, Places places, MadeCard card,
                       WhyNot why_not = nullptr) {
    CheckFamily f = reading_family(id, Station::senses, name);
    f.subjects = subjects;
    f.depends_on = places;
    f.card = card;
    f.why_not = why_not;
    return f;
  };
  CheckFamily gyro = read(gyro_still, "Still at power-up", of_boards_that_show, board_places, gyro_card);
  CheckFamily rotation =
      read(rotation_known, "Board rotation", of_boards_that_show, rotation_places, rotation_card, rotation_fails);
  CheckFamily accelerometer = read(accelerometer_calibrated, "Accelerometer", of_boards_that_show, accelerometer_places,
                                   accelerometer_card, accelerometer_fails);
  CheckFamily level = read(level_told, "Level attitude", of_boards_that_level, level_places, level_card, level_fails);
  CheckFamily compass = read(compass_calibrated, "Compass", of_compasses, compass_places, compass_card, compass_fails);
  CheckFamily fix = read(fix_seen, "A good fix", of_fixes, fix_places, fix_card);
  // What goes with the sensors and not with how the board sits.
  gyro.until_mounted = accelerometer.until_mounted = false;
  compass.outside = fix.outside = true;
  // What eyes alone can say is asked at proof.
  CheckFamily wakes = read(wakes_still, "Wakes still", of_boards_with_a_lamp, board_places, wakes_card);
  CheckFamily stored = read(level_stored, "Level stored", of_levels_by_hand, level_places, level_stored_card);
  for (CheckFamily* f : {&wakes, &stored}) {
    f->station = Station::proof;
    f->by_station = false;
    f->counts_for = Station::senses;
  }
  wakes.until_mounted = false;
  return {gyro, rotation, accelerometer, level, compass, fix, wakes, stored};
}

}  // namespace rigging
