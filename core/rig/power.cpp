#include "rig/power.h"

#include "base/described.h"

namespace rigging {

template <>
const Members& Described<Power>::members() {
  static const Members all =
      Describe<Power>()
          .member("static_a", &Power::static_a, {0, 1000}, "current at full throttle, standing")
          .member("static_thrust_n", &Power::static_thrust_n, {0, 5000}, "thrust at full throttle, standing")
          .member("cruise_a", &Power::cruise_a, {0, 1000}, "current at cruise")
          .member("cruise_throttle", &Power::cruise_throttle, {0.05, 1}, "throttle at cruise")
          .member("ambient_c", &Power::ambient_c, {-40, 60}, "temperature around it")
          .member("reserve_share", &Power::reserve_share, {0, 0.9}, "kept for the way home")
          .member("propeller_faces_flight", &Power::propeller_faces_flight)
          .member("clearance_m", &Power::clearance_m, {-1, 10}, "clearance of the propeller")
          .rest(&Power::unknown_members);
  return all;
}

}  // namespace rigging
