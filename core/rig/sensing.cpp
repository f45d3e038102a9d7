#include "rig/sensing.h"

#include "base/described.h"
#include "rig/ranges.h"

namespace rigging {

template <>
const Members& Described<Sensing>::members() {
  static const Members all =
      Describe<Sensing>()
          .needed("board", &Sensing::board)
          .member("roll_reversed", &Sensing::roll_reversed)
          .member("pitch_reversed", &Sensing::pitch_reversed)
          .member("yaw_reversed", &Sensing::yaw_reversed)
          .member("level_nose_up_deg", &Sensing::level_nose_up_deg, range::degrees, "level, nose up")
          .rest(&Sensing::extra);
  return all;
}

}  // namespace rigging
