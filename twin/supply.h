#pragma once

namespace rigging::twin {

struct Supply {
  bool usb = false;
  bool battery = false;
};

}  // namespace rigging::twin
