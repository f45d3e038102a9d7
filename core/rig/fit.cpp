#include "rig/fit.h"

#include "base/described.h"
#include "rig/ranges.h"

namespace rigging {

template <>
const Members& Described<Bay>::members() {
  static const Members all = Describe<Bay>()
                                 .needed("at_m", &Bay::at_m, {0, 20}, "nose to its front")
                                 .needed("length_m", &Bay::length_m, range::metres, "length")
                                 .needed("width_m", &Bay::width_m, range::metres, "width")
                                 .needed("height_m", &Bay::height_m, range::metres, "height")
                                 .member("below_m", &Bay::below_m, {-5, 5}, "its middle below the fuselage's")
                                 .member("right_m", &Bay::right_m, {-5, 5}, "its middle right of the fuselage's")
                                 .rest(&Bay::unknown_members);
  return all;
}

template <>
const Members& Described<Swing>::members() {
  static const Members all = Describe<Swing>()
                                 .needed("axis", &Swing::axis)  // places go by it
                                 .needed("mass_kg", &Swing::mass_kg, {0.005, 150}, "mass on the strings")
                                 .needed("apart_m", &Swing::apart_m, {0.02, 10}, "between the strings")
                                 .needed("length_m", &Swing::length_m, {0.1, 20}, "length of a string")
                                 .needed("period_s", &Swing::period_s, {0.2, 20}, "a swing to and fro")
                                 .rest(&Swing::unknown_members);
  return all;
}

template <>
const Members& Described<Fit>::members() {
  static const Members all = Describe<Fit>()
                                 .member("frame_mass_kg", &Fit::frame_mass_kg, {0.005, 150}, "bare airframe")
                                 .member("frame_at_m", &Fit::frame_at_m, {0, 20}, "it balances behind the nose")
                                 .member("frame_side_m", &Fit::frame_side_m, {-5, 5}, "right of the middle")
                                 .member("bay", &Fit::bay)
                                 .member("second_bay", &Fit::second_bay)
                                 .member("static_margin", &Fit::static_margin, range::share, "static margin")
                                 .member("first_flight_forward", &Fit::first_flight_forward, range::share,
                                         "further forward for the first flight")
                                 .member("latitude_deg", &Fit::latitude_deg, {-90, 90}, "latitude")
                                 .member("longitude_deg", &Fit::longitude_deg, {-180, 360}, "longitude")
                                 .member("altitude_km", &Fit::altitude_km, {-1, 10}, "height above sea level")
                                 .member("date", &Fit::date)
                                 .member("confirmed", &Fit::confirmed)
                                 .member("swings", &Fit::swings)
                                 .rest(&Fit::unknown_members);
  return all;
}

}  // namespace rigging
