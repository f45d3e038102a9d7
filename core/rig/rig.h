#pragma once

#include <optional>
#include <string>
#include <vector>

#include "base/axis.h"
#include "base/json.h"
#include "base/turn.h"
#include "rig/surface.h"

/// The document: one aircraft as a plain value. Units are in the names; body axes are those of ISO 1151.
/// Every struct keeps members it does not know in `extra`.
namespace rigging {

inline constexpr int rig_version = 1;

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
  double sweep_deg = 0;       ///< of the leading edge, back positive
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
  Json extra = Json::object();
  bool operator==(const Airframe&) const = default;
};

struct ControllerFit {
  std::string kind;      ///< class id in the catalogue
  std::string firmware;  ///< version as reported or read, empty when unknown
  bool mounted = false;  ///< false while the board lies loose on the bench
  Json extra = Json::object();
  bool operator==(const ControllerFit&) const = default;
};

struct Part {
  std::string id;
  std::string kind;  ///< part id in the catalogue
  std::string label;
  Json extra = Json::object();
  bool operator==(const Part&) const = default;
};

struct Place {
  std::string part;
  double x_m = 0, y_m = 0, z_m = 0;  ///< body axes with the nose at x = 0, so that x is negative aft of it
  Json extra = Json::object();
  bool operator==(const Place&) const = default;
};

/// One end of a lead: a part (or "controller") and a socket, port or pad of it.
struct LeadEnd {
  std::string part;
  std::string socket;
  Json extra = Json::object();
  bool operator==(const LeadEnd&) const = default;
};

struct Lead {
  std::string id;
  LeadEnd from, to;
  std::optional<double> length_m;
  std::optional<double> gauge_awg;
  bool plus_removed = false;
  Json extra = Json::object();
  bool operator==(const Lead&) const = default;
};

enum class ChannelFunction { roll, pitch, throttle, yaw, mode, arm, return_home, gain, flap, other };

struct Channel {
  int number = 1;  ///< 1 is the first
  ChannelFunction function = ChannelFunction::other;
  bool reversed = false;  ///< in the transmitter
  double sub_trim_us = 0;
  double travel_low_percent = 100, travel_high_percent = 100;
  Json extra = Json::object();
  bool operator==(const Channel&) const = default;
};

struct Radio {
  std::vector<Channel> channels;
  Json extra = Json::object();
  bool operator==(const Radio&) const = default;
};

/// How much of each command an output answers: 1 is full travel on full command. Throttle counts from closed (0) to full (1).
struct Mix {
  double roll = 0, pitch = 0, yaw = 0, throttle = 0, flap = 0;
  Json extra = Json::object();
  bool operator==(const Mix&) const = default;

  double of(Axis axis) const { return axis == Axis::roll ? roll : axis == Axis::pitch ? pitch : yaw; }
  double& of(Axis axis) { return axis == Axis::roll ? roll : axis == Axis::pitch ? pitch : yaw; }
};

/// A surface in a file is its word.
struct SurfaceName : Surface {
  SurfaceName() = default;
  SurfaceName(Surface s) : Surface(s) {}
  std::string to_text() const { return word(); }
  bool from_text(const std::string& text) {
    const auto found = surface_from_word(text);
    if (found) static_cast<Surface&>(*this) = *found;
    return found.has_value();
  }
  static std::string expected() { return "a surface such as elevon_left, rudder or motor_right"; }
};

struct Output {
  std::string id;
  std::string socket;  ///< output of the controller class; empty when not chosen
  /// What it drives; a motor or tow release that is not one of a pair has the function throttle and no surface.
  std::vector<SurfaceName> surfaces;
  Mix mix;
  bool reversed = false;
  double low_us = 1000, centre_us = 1500, high_us = 2000;
  double rate_hz = 50;
  Json extra = Json::object();
  bool operator==(const Output&) const = default;
};

/// Linkage of one surface from servo arm to horn.
struct Linkage {
  SurfaceName surface;
  double arm_m = 0.012, rod_m = 0.1, horn_m = 0.014;
  double servo_travel_deg = 45;  ///< for half of the pulse range
  Json extra = Json::object();
  bool operator==(const Linkage&) const = default;
};

/// A turn in a file is its name.
struct TurnName : Turn {
  TurnName() = default;
  TurnName(Turn t) : Turn(t) {}
  std::string to_text() const { return name(); }
  bool from_text(const std::string& text) {
    const auto found = turn_from_name(text);
    if (found) static_cast<Turn&>(*this) = *found;
    return found.has_value();
  }
  static std::string expected() { return "none or arrow_A_top_B with nose, tail, right, left, up, down"; }
};

struct Sensing {
  TurnName board;  ///< as the controller was told that it sits
  bool roll_reversed = false, pitch_reversed = false, yaw_reversed = false;
  std::optional<double> level_nose_up_deg;
  Json extra = Json::object();
  bool operator==(const Sensing&) const = default;

  bool reversed(Axis axis) const { return axis == Axis::roll ? roll_reversed : axis == Axis::pitch ? pitch_reversed : yaw_reversed; }
  bool& reversed(Axis axis) { return axis == Axis::roll ? roll_reversed : axis == Axis::pitch ? pitch_reversed : yaw_reversed; }
};

struct Gain {
  std::string name;  ///< in the words of the controller class, e.g. "roll rate"
  double value = 0;
  std::string unit;
  Json extra = Json::object();
  bool operator==(const Gain&) const = default;
};

struct ModeChoice {
  int channel = 5;
  double from_us = 1000, to_us = 2000;
  std::string mode;
  Json extra = Json::object();
  bool operator==(const ModeChoice&) const = default;
};

struct Home {
  std::string on_loss;  ///< what happens when the link goes, in the words of the home station
  std::optional<double> height_m;
  Json extra = Json::object();
  bool operator==(const Home&) const = default;
};

/// A bench check that was passed, with a fingerprint of what it depended on.
struct Proof {
  std::string check;
  std::string at;  ///< ISO 8601, UTC
  std::string fingerprint;
  bool provisional = false;  ///< done with the board loose on the bench
  bool simulated = false;
  std::string note;
  Json extra = Json::object();
  bool operator==(const Proof&) const = default;
};

/// A check that was bypassed for the bench, or a temporary setting.
struct LooseEnd {
  std::string id;
  std::string text;
  std::string since;
  Json extra = Json::object();
  bool operator==(const LooseEnd&) const = default;
};

struct LogEntry {
  std::string at;
  std::string text;
  Json extra = Json::object();
  bool operator==(const LogEntry&) const = default;
};

struct Rig {
  std::string name;
  std::string note;
  Airframe airframe;
  ControllerFit controller;
  std::vector<Part> parts;
  std::vector<Place> places;
  std::vector<Lead> leads;
  Radio radio;
  std::vector<Output> outputs;
  std::vector<Linkage> linkages;
  Sensing sensing;
  std::vector<Gain> gains;
  std::vector<ModeChoice> modes;
  Home home;
  std::vector<Proof> proofs;
  std::vector<LooseEnd> loose_ends;
  std::vector<LogEntry> log;
  Json extra = Json::object();
  bool operator==(const Rig&) const = default;

  const Output* output(const std::string& id) const;
  Output* output(const std::string& id);
  /// The output that drives the surface, or null.
  const Output* output_of(Surface surface) const;
};

}  // namespace rigging

namespace rigging {

template <>
struct Words<AirframeKind> {
  using K = AirframeKind;
  static constexpr std::array<std::pair<K, std::string_view>, 16> list{{{K::aileron_y_lead, "aileron_y_lead"},
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
struct Words<ChannelFunction> {
  using F = ChannelFunction;
  static constexpr std::array<std::pair<F, std::string_view>, 10> list{{{F::roll, "roll"},
                                                                        {F::pitch, "pitch"},
                                                                        {F::throttle, "throttle"},
                                                                        {F::yaw, "yaw"},
                                                                        {F::mode, "mode"},
                                                                        {F::arm, "arm"},
                                                                        {F::return_home, "return"},
                                                                        {F::gain, "gain"},
                                                                        {F::flap, "flap"},
                                                                        {F::other, "other"}}};
};

}  // namespace rigging
