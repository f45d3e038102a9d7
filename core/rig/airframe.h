#pragma once

#include <optional>

#include "base/described.h"
#include "base/unknown_members.h"
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
  towed_glider,
  aileron_elevator
};

/// One motor, two that turn alike, or two that steer as well.
enum class Motors { one, two, two_steering };

/// Where the propeller is: as the kind usually has it, ahead and pulling, or behind and pushing.
enum class PropellerSide { usual, tractor, pusher };

/// The wing's section as a builder sees it: which tells at which angle it lifts nothing.
enum class WingSection { unknown, symmetric, semi_symmetric, flat_bottom, under_cambered, reflexed };

/// How the span of a V-tail was measured.
enum class VSpan { from_above, along_panels };

struct Airframe {
  AirframeKind kind = AirframeKind::two_ailerons;
  Motors motors = Motors::one;  ///< the kind with differential thrust has two that steer in any case
  PropellerSide propeller = PropellerSide::usual;
  /// Both ailerons hang on one output by a Y-lead, whatever the tail; the kind with a Y-lead has it in any case.
  bool ailerons_joined = false;
  double span_m = 1.4;
  double root_chord_m = 0.22;
  double tip_chord_m = 0.18;
  double sweep_deg = 0;  ///< of the leading edge, back positive
  double dihedral_deg = 2;
  double length_m = 1.0;       ///< nose to the last trailing edge
  double wing_at_m = 0.3;      ///< nose to the leading edge at the root
  double tail_span_m = 0.45;   ///< tail, or foreplane where there is no tail; of a V as `v_span` says
  double tail_chord_m = 0.13;  ///< at the root
  /// Sizes that follow by usual proportions until they are measured (core/airframe/planform.h).
  std::optional<double> tail_tip_chord_m;
  std::optional<double> tail_at_m;  ///< nose to the leading edge at the root
  std::optional<double> foreplane_span_m, foreplane_chord_m, foreplane_tip_chord_m, foreplane_at_m;
  VSpan v_span = VSpan::from_above;
  double fin_height_m = 0.16;
  double fin_chord_m = 0.14;
  double surface_chord = 0.25;  ///< control surface chord as a share of the chord in front of it
  double v_angle_deg = 35;      ///< of each V-tail half against the horizon
  WingSection section = WingSection::unknown;
  double incidence_deg = 0;    ///< of the line from leading to trailing edge against the floor the board sits on
  double thrust_down_deg = 0;  ///< of the motor's shaft against that floor
  std::optional<double> mass_kg;
  std::optional<double> cruise_m_s;  ///< as flown; estimated from the stall speed when absent
  std::optional<double> fast_m_s,
      dive_m_s;  ///< fastest level flight and fastest ever; estimated from the cruise speed when absent
  /// Members that nobody has measured: their values are guesses that follow the span and the kind
  /// (core/airframe/proportions.h).
  std::vector<std::string> guessed;
  UnknownMembers unknown_members;
  bool operator==(const Airframe&) const = default;
};

template <>
struct Names<WingSection> {
  using S = WingSection;
  static constexpr std::array<std::pair<S, std::string_view>, 6> list{{{S::unknown, "unknown"},
                                                                       {S::symmetric, "symmetric"},
                                                                       {S::semi_symmetric, "semi_symmetric"},
                                                                       {S::flat_bottom, "flat_bottom"},
                                                                       {S::under_cambered, "under_cambered"},
                                                                       {S::reflexed, "reflexed"}}};
};
template <>
struct Names<PropellerSide> {
  using P = PropellerSide;
  static constexpr std::array<std::pair<P, std::string_view>, 3> list{
      {{P::usual, "usual"}, {P::tractor, "tractor"}, {P::pusher, "pusher"}}};
};
template <>
struct Names<Motors> {
  using M = Motors;
  static constexpr std::array<std::pair<M, std::string_view>, 3> list{
      {{M::one, "one"}, {M::two, "two"}, {M::two_steering, "two_steering"}}};
};
template <>
struct Names<AirframeKind> {
  using K = AirframeKind;
  static constexpr std::array<std::pair<K, std::string_view>, 17> list{
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
       {K::towed_glider, "towed_glider"},
       {K::aileron_elevator, "aileron_elevator"}}};
};

template <>
struct Names<VSpan> {
  static constexpr std::array<std::pair<VSpan, std::string_view>, 2> list{
      {{VSpan::from_above, "from_above"}, {VSpan::along_panels, "along_panels"}}};
};

template <>
const Members& Described<Airframe>::members();

}  // namespace rigging
