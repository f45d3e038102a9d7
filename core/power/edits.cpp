#include "power/edits.h"

#include "base/fields.h"

namespace rigging {

Result<Edit> measure_power(const Rig& rig, const Power& power) {
  if (const auto ok = in_range(power, "power"); !ok) return tl::make_unexpected(ok.error());
  Edit edit{rig, "Measured values and propeller"};
  edit.rig.power = power;
  return edit;
}

}  // namespace rigging
