#pragma once

#include <string>
#include <vector>

#include "catalogue/catalogue.h"
#include "edit/edit.h"
#include "rig/rig.h"

/// What the board reports of its sensors, against the parts of the rig and what it was told to use.
namespace rigging {

enum class Finding {
  as_planned,    ///< fitted, and works
  missing,       ///< fitted, not found
  sick,          ///< found, and says nonsense
  left_over,     ///< told to be used, nothing of the kind is fitted: keeps the board from arming
  not_planned,   ///< found, not in the rig
  switched_off,  ///< fitted, and told not to be used
  not_asked      ///< fitted; the board has not been asked at all
};

struct InventoryLine {
  Sensor sensor = Sensor::gyro;
  Finding finding = Finding::as_planned;
  std::string part;  ///< in the rig; "controller" for one on the board; empty when there is none
  std::string words, remedy;
};

/// In the order of `Sensor`; only what is fitted, told of or reported.
std::vector<InventoryLine> inventory_of(const Rig& rig, const Catalogue& catalogue);

/// Tells the board to use a sensor, or not to; one that every board uses stays. What it reported of one that it is not
/// to use any more is forgotten.
Edit use_sensor(const Rig& rig, Sensor sensor, bool use);

/// The part of the rig that is this sensor, "controller" for one on the board; empty without any.
std::string sensor_part(const Rig& rig, const Catalogue& catalogue, Sensor sensor);

}  // namespace rigging
