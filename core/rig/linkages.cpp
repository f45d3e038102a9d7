#include "rig/linkages.h"

#include "base/described.h"
#include "rig/ranges.h"

namespace rigging {

template <>
const Members& Described<ThrowReading>::members() {
  static const Members all = Describe<ThrowReading>()
                                 .needed("pulse_us", &ThrowReading::pulse_us, range::read_us, "pulse")
                                 .needed("up_deg", &ThrowReading::up_deg, {-90, 90}, "trailing edge up")
                                 .rest(&ThrowReading::unknown_members);
  return all;
}

template <>
const Members& Described<Release>::members() {
  static const Members all =
      Describe<Release>()
          .needed("arm_m", &Release::arm_m, range::hole_m, "servo arm")
          .member("servo_travel_deg", &Release::servo_travel_deg, {5, 120}, "servo travel for 500 µs")
          .member("arm_deg", &Release::arm_deg, range::degrees, "arm off square")
          .needed("pin_m", &Release::pin_m, {0.001, 0.1}, "pin inside the loop")
          .member("pull_n", &Release::pull_n, {0, 2000}, "most pull of the line")
          .member("friction", &Release::friction, {0.05, 1}, "friction of the pin")
          .rest(&Release::unknown_members);
  return all;
}

template <>
const Members& Described<Linkage>::members() {
  static const Members all =
      Describe<Linkage>()
          .needed("surface", &Linkage::surface)
          .needed("arm_m", &Linkage::arm_m, range::hole_m, "servo arm")
          .needed("rod_m", &Linkage::rod_m, {0.001, 10}, "rod")
          .needed("horn_m", &Linkage::horn_m, range::hole_m, "horn")
          .needed("servo_travel_deg", &Linkage::servo_travel_deg, {5, 120}, "servo travel for 500 µs")
          .member("arm_deg", &Linkage::arm_deg, range::degrees, "arm off square")
          .member("horn_deg", &Linkage::horn_deg, range::degrees, "horn off square")
          .member("drop_m", &Linkage::drop_m, {-1, 1}, "servo lower than the hinge")
          .member("base_m", &Linkage::base_m, {0.001, 10}, "servo to hinge")
          .member("push_lifts", &Linkage::push_lifts)
          .member("crossed", &Linkage::crossed)
          .member("arm_holes_m", &Linkage::arm_holes_m, range::hole_m, "holes of the arm")
          .at_most(40)
          .member("horn_holes_m", &Linkage::horn_holes_m, range::hole_m, "holes of the horn")
          .at_most(40)
          .member("clevis_pitch_m", &Linkage::clevis_pitch_m, {0.0001, 0.005}, "clevis, a turn")
          .member("spline_tooth_deg", &Linkage::spline_tooth_deg, {1, 90}, "a tooth of the servo")
          .member("chord_m", &Linkage::chord_m, {0.005, 5}, "chord where it is measured")
          .member("want_up_deg", &Linkage::want_up_deg, range::throw_deg, "wanted up")
          .member("want_down_deg", &Linkage::want_down_deg, range::throw_deg, "wanted down")
          .member("want_neutral_deg", &Linkage::want_neutral_deg, {-30, 30}, "wanted at the centre")
          .member("play_m", &Linkage::play_m, {0, 0.1}, "play at the trailing edge")
          .member("readings", &Linkage::readings)
          .rest(&Linkage::unknown_members);
  return all;
}

}  // namespace rigging
