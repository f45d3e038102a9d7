#include "rig/controller.h"

#include "base/described.h"

namespace rigging {

template <>
const Members& Described<ControllerFit>::members() {
  static const Members all = Describe<ControllerFit>()
                                 .needed("kind", &ControllerFit::kind)
                                 .member("firmware", &ControllerFit::firmware)
                                 .needed("mounted", &ControllerFit::mounted)
                                 .member("auto_trim", &ControllerFit::auto_trim)
                                 .rest(&ControllerFit::unknown_members);
  return all;
}

}  // namespace rigging
