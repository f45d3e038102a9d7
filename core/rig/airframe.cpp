#include "rig/airframe.h"

#include "base/described.h"
#include "rig/ranges.h"

namespace rigging {

template <>
const Members& Described<Airframe>::members() {
  static const Members all =
      Describe<Airframe>()
          .needed("kind", &Airframe::kind)
          .member("motors", &Airframe::motors)
          .member("propeller", &Airframe::propeller)
          .member("ailerons_joined", &Airframe::ailerons_joined)
          .needed("span_m", &Airframe::span_m, {0.1, 20}, "span")
          .needed("root_chord_m", &Airframe::root_chord_m, range::metres, "root chord")
          .needed("tip_chord_m", &Airframe::tip_chord_m, range::metres, "tip chord")
          .needed("sweep_deg", &Airframe::sweep_deg, {-60, 75}, "sweep")
          .needed("dihedral_deg", &Airframe::dihedral_deg, {-30, 45}, "dihedral")
          .needed("length_m", &Airframe::length_m, {0.1, 20}, "length")
          .needed("wing_at_m", &Airframe::wing_at_m, {0, 20}, "nose to wing")
          .needed("tail_span_m", &Airframe::tail_span_m, range::metres, "tail span")
          .needed("tail_chord_m", &Airframe::tail_chord_m, range::metres, "tail chord")
          .member("tail_tip_chord_m", &Airframe::tail_tip_chord_m, range::metres, "tail tip chord")
          .member("tail_at_m", &Airframe::tail_at_m, {0, 20}, "nose to tail")
          .member("foreplane_span_m", &Airframe::foreplane_span_m, range::metres, "foreplane span")
          .member("foreplane_chord_m", &Airframe::foreplane_chord_m, range::metres, "foreplane chord")
          .member("foreplane_tip_chord_m", &Airframe::foreplane_tip_chord_m, range::metres, "foreplane tip chord")
          .member("foreplane_at_m", &Airframe::foreplane_at_m, {0, 20}, "nose to foreplane")
          .member("v_span", &Airframe::v_span)
          .needed("fin_height_m", &Airframe::fin_height_m, range::metres, "fin height")
          .needed("fin_chord_m", &Airframe::fin_chord_m, range::metres, "fin chord")
          .needed("surface_chord", &Airframe::surface_chord, {0.05, 1}, "surface chord")
          .needed("v_angle_deg", &Airframe::v_angle_deg, {5, 80}, "V-tail angle")
          .member("section", &Airframe::section)
          .member("incidence_deg", &Airframe::incidence_deg, range::small_deg, "wing's incidence")
          .member("thrust_down_deg", &Airframe::thrust_down_deg, range::small_deg, "down-thrust")
          .member("mass_kg", &Airframe::mass_kg, {0.02, 150}, "flying mass")
          .member("cruise_m_s", &Airframe::cruise_m_s, range::speed_m_s, "cruise speed")
          .member("fast_m_s", &Airframe::fast_m_s, range::speed_m_s, "fastest level flight")
          .member("dive_m_s", &Airframe::dive_m_s, range::speed_m_s, "fastest ever")
          .member("guessed", &Airframe::guessed)
          .rest(&Airframe::unknown_members);
  return all;
}

}  // namespace rigging
