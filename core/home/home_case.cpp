#include "base/fields.h"
#include "home/way_home.h"

namespace rigging {

namespace {
constexpr Span heights{-500, 10000}, turns{-360, 360}, speeds{0.1, 200}, charges{0, 1e6};
}

template <>
const Members& Described<SteadyWind>::members() {
  static const Members all = Describe<SteadyWind>()
                                 .needed("speed_m_s", &SteadyWind::speed_m_s, {0, 100}, "wind")
                                 .needed("from_deg", &SteadyWind::from_deg, turns, "from")
                                 .done();
  return all;
}

template <>
const Members& Described<HomePlace>::members() {
  static const Members all = Describe<HomePlace>()
                                 .needed("distance_m", &HomePlace::distance_m, {0, 1e6}, "distance from home")
                                 .needed("bearing_deg", &HomePlace::bearing_deg, turns, "bearing from home")
                                 .needed("height_m", &HomePlace::height_m, heights, "height")
                                 .done();
  return all;
}

template <>
const Members& Described<HomeAircraft>::members() {
  static const Members all = Describe<HomeAircraft>()
                                 .needed("cruise_m_s", &HomeAircraft::cruise_m_s, speeds, "cruise speed")
                                 .needed("cruise_a", &HomeAircraft::cruise_a, {1e-3, 1000}, "current at cruise")
                                 .needed("climb_m_s", &HomeAircraft::climb_m_s, {1e-2, 100}, "climbs at")
                                 .needed("climb_a", &HomeAircraft::climb_a, {0, 1000}, "current in the climb")
                                 .needed("bank_deg", &HomeAircraft::bank_deg, {1, 85}, "most bank")
                                 .done();
  return all;
}

template <>
const Members& Described<HomeReturn>::members() {
  static const Members all =
      Describe<HomeReturn>()
          .needed("height_m", &HomeReturn::height_m, heights, "return height")
          .needed("circle_radius_m", &HomeReturn::circle_radius_m, {1, 1e5}, "radius of the circle")
          .done();
  return all;
}

template <>
const Members& Described<HomeBattery>::members() {
  static const Members all = Describe<HomeBattery>()
                                 .needed("left_mah", &HomeBattery::left_mah, charges, "charge left")
                                 .needed("reserve_mah", &HomeBattery::reserve_mah, charges, "reserve")
                                 .done();
  return all;
}

template <>
const Members& Described<HomeCase>::members() {
  static const Members all = Describe<HomeCase>()
                                 .needed("place", &HomeCase::place)
                                 .needed("wind", &HomeCase::wind)
                                 .needed("aircraft", &HomeCase::aircraft)
                                 .needed("return", &HomeCase::back)
                                 .needed("battery", &HomeCase::battery)
                                 .done();
  return all;
}

Result<HomeCase> home_case_from_json(const Json& json, const std::string& file) {
  return read_exactly<HomeCase>(json, file);
}

Result<HomeCase> reach_case_from_json(Json json, const std::string& file) {
  if (json.is_object()) {
    if (!json.contains("place")) json["place"] = {{"distance_m", 0}, {"bearing_deg", 0}, {"height_m", 0}};
    if (!json.contains("return")) json["return"] = {{"height_m", 0}, {"circle_radius_m", 50}};
  }
  return home_case_from_json(json, file);
}

}  // namespace rigging
