#pragma once

#include <optional>

#include "base/described.h"
#include "base/extra.h"
#include "base/words.h"

namespace rigging {

enum class AirframeKind {
  aileron_y_lead,
  two_ailerons,
  rudder_only,
  v_tail,
  inverted_v_tail,
  flying_wing,
  flying_wing_rudders,
  canard,
  canard_delta,
  tailerons,
  tailerons_canards,
  flaperons,
  flaperons_inverted_v_tail,
  twin_differential,
  motor_glider,
  towed_glider
};

struct Airframe {
  AirframeKind kind = AirframeKind::two_ailerons;
  double span_m = 1.4;
  double root_chord_m = 0.22;
  double tip_chord_m = 0.18;
  double sweep_deg = 0;  ///< of the leading edge, back positive
  double dihedral_deg = 2;
  double length_m = 1.0;      ///< nose to the last trailing edge
  double wing_at_m = 0.3;     ///< nose to the leading edge at the root
  double tail_span_m = 0.45;  ///< flat tail or V-tail as seen from above; foreplane on a canard
  double tail_chord_m = 0.13;
  double fin_height_m = 0.16;
  double fin_chord_m = 0.14;
  double surface_chord = 0.25;  ///< control surface chord as a share of the chord in front of it
  double v_angle_deg = 35;      ///< of each V-tail half against the horizon
  std::optional<double> mass_kg;
  std::optional<double> fast_m_s,
      dive_m_s;  ///< fastest level flight and fastest ever; estimated from the cruise speed when absent
  Extra extra;
  bool operator==(const Airframe&) const = default;
};

template <>
struct Words<AirframeKind> {
  using K = AirframeKind;
  static constexpr std::array<std::pair<K, std::string_view>, 16> list{
      {{K::aileron_y_lead, "aileron_y_lead"},
       {K::two_ailerons, "two_ailerons"},
       {K::rudder_only, "rudder_only"},
       {K::v_tail, "v_tail"},
       {K::inverted_v_tail, "inverted_v_tail"},
       {K::flying_wing, "flying_wing"},
       {K::flying_wing_rudders, "flying_wing_rudders"},
       {K::canard, "canard"},
       {K::canard_delta, "canard_delta"},
       {K::tailerons, "tailerons"},
       {K::tailerons_canards, "tailerons_canards"},
       {K::flaperons, "flaperons"},
       {K::flaperons_inverted_v_tail, "flaperons_inverted_v_tail"},
       {K::twin_differential, "twin_differential"},
       {K::motor_glider, "motor_glider"},
       {K::towed_glider, "towed_glider"}}};
};

template <>
const Members& Described<Airframe>::members();

}  // namespace rigging
