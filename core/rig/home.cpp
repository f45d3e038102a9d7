#include "rig/home.h"

#include "base/described.h"
#include "rig/ranges.h"

namespace rigging {

template <>
const Members& Described<ModeChoice>::members() {
  static const Members all = Describe<ModeChoice>()
                                 .needed("mode", &ModeChoice::mode)  // places go by it
                                 .needed("channel", &ModeChoice::channel, {1, 32}, "channel")
                                 .needed("from_us", &ModeChoice::from_us, range::read_us, "from")
                                 .needed("to_us", &ModeChoice::to_us, range::read_us, "to")
                                 .rest(&ModeChoice::extra);
  return all;
}

template <>
const Members& Described<Home>::members() {
  static const Members all = Describe<Home>()
                                 .member("on_loss", &Home::on_loss)
                                 .member("height_m", &Home::height_m, {0, 5000}, "height of the way home")
                                 .rest(&Home::extra);
  return all;
}

}  // namespace rigging
