#include "senses/inventory.h"

#include <algorithm>

namespace rigging {
namespace {

std::string first_of(const Rig& rig, const Catalogue& catalogue, PartGroup group) {
  const auto all = parts_of(rig, catalogue, group);
  return all.empty() ? std::string() : all.front()->id;
}

std::string sensor_text(Sensor s) {
  switch (s) {
    case Sensor::gyro: return "Gyro";
    case Sensor::accelerometer: return "Accelerometer";
    case Sensor::barometer: return "Barometer";
    case Sensor::compass: return "Compass";
    case Sensor::airspeed: return "Airspeed sensor";
    case Sensor::satellites: return "Satellite receiver";
  }
  return {};
}

std::string where_to_look(Sensor s, const std::string& part) {
  if (part == "controller")
    return "It sits on the board: power up again, keep it still and warm. If it stays so, the board is sick.";
  return s == Sensor::satellites
             ? "Look at its supply (its lamp), the data pair (transmit to receive) and the baud rate."
             : "Look at its supply and its two-wire plug: clock and data may be exchanged.";
}

}  // namespace

std::string sensor_part(const Rig& rig, const Catalogue& catalogue, Sensor sensor) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  switch (sensor) {
    case Sensor::gyro:
    case Sensor::accelerometer: return "controller";
    case Sensor::barometer: return c && c->senses.has_barometer ? "controller" : "";
    case Sensor::compass:
      for (const Part& p : rig.parts)
        if (const PartKind* k = catalogue.part(p.kind); k && k->magnetic_sensor) return p.id;
      return c && c->senses.has_compass ? "controller" : "";
    case Sensor::airspeed: return first_of(rig, catalogue, PartGroup::airspeed);
    case Sensor::satellites: return first_of(rig, catalogue, PartGroup::satellite_receiver);
  }
  return {};
}

Edit use_sensor(const Rig& rig, Sensor sensor, bool use) {
  Edit edit{rig, "Tell it: " + std::string(name_of(sensor)) + (use ? " used" : " not used")};
  const auto told = use_of(sensor);
  if (!told) return edit;
  edit.rig.sensing.*told = use;
  if (!use) std::erase_if(edit.rig.sensing.reported, [&](const ReportedSensor& s) { return s.sensor == sensor; });
  return edit;
}

std::vector<InventoryLine> inventory_of(const Rig& rig, const Catalogue& catalogue) {
  std::vector<InventoryLine> all;
  for (const auto& entry : Names<Sensor>::list) {
    const Sensor s = entry.first;
    InventoryLine line;
    line.sensor = s;
    line.part = sensor_part(rig, catalogue, s);
    const auto told = use_of(s);
    const bool wanted = told && (rig.sensing.*told).value_or(false),
               refused = told && !(rig.sensing.*told).value_or(true);
    const auto reported = std::find_if(rig.sensing.reported.begin(), rig.sensing.reported.end(),
                                       [s](const ReportedSensor& r) { return r.sensor == s; });
    const bool spoken_of = reported != rig.sensing.reported.end(), fitted = !line.part.empty();
    if (!spoken_of && !fitted && !wanted) continue;
    const std::string name = sensor_text(s);
    if (!fitted && wanted) {
      line.finding = Finding::left_over;
      line.words = name + ": the board is told to use one, and none is in the rig";
      line.remedy = "Left over from another model: switch it off, or put the part into the rig.";
    } else if (!fitted && spoken_of && reported->state == SensorState::missing) {
      line.finding = Finding::left_over;
      line.words = name + ": the board looks for one and finds none; none is in the rig";
      line.remedy = "Left over from another model: tell it that there is none.";
    } else if (!fitted) {
      line.finding = Finding::not_planned;
      line.words = name + ": the board has found one that is not in the rig";
      line.remedy = "Put the part into the rig at station fit, or take it out.";
    } else if (refused) {
      line.finding = Finding::switched_off;
      line.words = name + ": fitted, and the board is told not to use it";
      line.remedy = "Let it be used, or take it out.";
    } else if (rig.sensing.reported.empty()) {
      line.finding = Finding::not_asked;
      line.words = name + ": fitted; the board has not been asked";
    } else if (!spoken_of || reported->state == SensorState::missing) {
      line.finding = Finding::missing;
      line.words = name + ": fitted, and the board does not find it";
      line.remedy = where_to_look(s, line.part);
    } else if (reported->state == SensorState::sick) {
      line.finding = Finding::sick;
      line.words = name + ": the board finds it sick";
      line.remedy = "Power up again, still. If it stays so, exchange it; do not fly with it.";
    } else {
      line.words = name + ": fitted, and works";
    }
    all.push_back(std::move(line));
  }
  return all;
}

}  // namespace rigging
