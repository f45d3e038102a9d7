#include "rig/ports.h"

#include "rig/ranges.h"

namespace rigging {

template <>
const Members& Described<Port>::members() {
  static const Members all = Describe<Port>()
                                 .needed("socket", &Port::socket)
                                 .needed("job", &Port::job)
                                 .member("baud", &Port::baud, range::baud, "baud")
                                 .member("direction", &Port::direction)
                                 .rest(&Port::unknown_members);
  return all;
}

}  // namespace rigging
