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
                                 .rest(&ModeChoice::unknown_members);
  return all;
}

template <>
const Members& Described<FieldObstacle>::members() {
  static const Members all = Describe<FieldObstacle>()
                                 .needed("name", &FieldObstacle::name)  // places go by it
                                 .needed("bearing_deg", &FieldObstacle::bearing_deg, {0, 360}, "bearing from home")
                                 .needed("distance_m", &FieldObstacle::distance_m, {0, 20000}, "distance from home")
                                 .needed("height_m", &FieldObstacle::height_m, {-500, 3000}, "height above home")
                                 .rest(&FieldObstacle::unknown_members);
  return all;
}

template <>
const Members& Described<TriggerChoice>::members() {
  static const Members all = Describe<TriggerChoice>()
                                 .needed("on", &TriggerChoice::on)  // places go by it
                                 .needed("does", &TriggerChoice::does)
                                 .member("at", &TriggerChoice::at, {0, 50000}, "at")
                                 .rest(&TriggerChoice::unknown_members);
  return all;
}

template <>
const Members& Described<Home>::members() {
  static const Members all = Describe<Home>()
                                 .member("on_loss", &Home::on_loss)
                                 .member("loss_hold_s", &Home::loss_hold_s, {0, 60}, "waits before it acts")
                                 .member("climb_first", &Home::climb_first)
                                 .member("return_height_m", &Home::return_height_m, {0, 5000}, "height of the way home")
                                 .member("circle_radius_m", &Home::circle_radius_m, {5, 2000}, "radius of the circle")
                                 .member("on_arrival", &Home::on_arrival)
                                 .member("turn_home_v", &Home::turn_home_v, {2, 60}, "turns home at")
                                 .member("wind_m_s", &Home::wind_m_s, {0, 40}, "wind")
                                 .member("wind_from_deg", &Home::wind_from_deg, {0, 360}, "wind from")
                                 .member("area_m", &Home::area_m, {10, 50000}, "flies as far as")
                                 .member("obstacles", &Home::obstacles)
                                 .member("triggers", &Home::triggers)
                                 .member("cruise_throttle", &Home::cruise_throttle, {0, 1}, "throttle at cruise")
                                 .member("adds_throttle", &Home::adds_throttle)
                                 .member("landing_throttle", &Home::landing_throttle, {0, 1}, "throttle while landing")
                                 .member("opens_tow", &Home::opens_tow)
                                 .member("sounds_when_lost", &Home::sounds_when_lost)
                                 .member("checks_before_arming", &Home::checks_before_arming)
                                 .member("goggles", &Home::goggles)
                                 .member("clear_page", &Home::clear_page)
                                 .member("looked_up", &Home::looked_up)
                                 .rest(&Home::unknown_members);
  return all;
}

}  // namespace rigging
