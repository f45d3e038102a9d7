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
  static std::vector<std::string> choices() {
    std::vector<std::string> words;
    for (const Surface& s : all_surfaces()) words.push_back(s.word());
    return words;
  }
};

struct Part {
  std::string id;
  std::string kind;  ///< part id in the catalogue
  std::string label;
  std::optional<SurfaceName> surface;  ///< which surface a servo works, or which motor of a pair it is
  Json extra = Json::object();
  bool operator==(const Part&) const = default;
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
  static std::vector<std::string> choices() {
    std::vector<std::string> names{"arrow_nose_top_up"};  // the long name of "none"
    for (const Turn& t : all_turns()) names.push_back(t.name());
    return names;
  }
};

struct Place {
  std::string part;
  double x_m = 0, y_m = 0,
         z_m = 0;  ///< middle of the part; body axes with the nose at x = 0, so that x is negative aft of it
  TurnName turn;   ///< how it sits; of the board and of a compass it matters
  double roll_deg = 0, pitch_deg = 0, yaw_deg = 0;  ///< small angles on top of the turn, −20 to 20
  Json extra = Json::object();
  bool operator==(const Place&) const = default;
};

enum class LeadKind { servo, y_lead, four_way, two_plus_two, six_way, two_wire, power, phase, video, soldered };

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
  LeadKind kind = LeadKind::servo;
  std::optional<double> length_m;
  std::optional<double> gauge_awg;
  bool plus_removed = false;  ///< its red wire is out
  bool plug_turned = false;   ///< a plug the wrong way round: plus and minus or signal exchanged
  bool pair_turned = false;   ///< transmit meets transmit
  bool apart = false;         ///< plus and minus run apart, not side by side
  bool fixed = false;         ///< the plan leaves it where it is
  Json extra = Json::object();
  bool operator==(const Lead&) const = default;
};

enum class ChannelFunction { roll, pitch, throttle, yaw, mode, arm, return_home, gain, flap, other };

/// What the hand moves in the transmitter.
enum class Control { stick, two_position, three_position, slider, rotary, multi_position, fixed };

struct Channel {
  int number = 1;  ///< 1 is the first
  ChannelFunction function = ChannelFunction::other;
  std::optional<Control> control;  ///< absent: a stick for roll, pitch, throttle and yaw, unknown for the rest
  bool reversed = false;           ///< in the transmitter
  double sub_trim_us = 0;
  double travel_low_percent = 100, travel_high_percent = 100;  ///< below and above the centre of the pulse
  double rate_percent = 100;                                   ///< how much of the stick the rates let through
  std::optional<double> fixed_us;                              ///< of a channel that is fixed on or off
  std::optional<double> low_us, centre_us, high_us;            ///< as the controller read them
  bool inverted = false;                             ///< read the wrong way round: right, back, open or right read low
  bool learned = false;                              ///< the controller has taken these for its own ends
  std::optional<double> noise_us, centre_spread_us;  ///< found while measuring
  std::vector<double> positions_us;                  ///< of a switch, as read, lowest first
  Json extra = Json::object();
  bool operator==(const Channel&) const = default;
};

enum class TravelUnit { percent, us };

/// How the user's transmitter counts, and what it can.
struct Transmitter {
  TravelUnit counts = TravelUnit::percent;  ///< in which it shows sub-trim and travel
  double full_us = 500;                     ///< what 100 % of travel moves the pulse to either side
  double step_percent = 0.1;                ///< of travel
  double sub_trim_step_us = 0.5;
  double most_travel_percent = 150;
  double most_sub_trim_us = 150;
  int channels = 8;
  bool mixes = false;                     ///< it mixes channels itself
  bool gestures_change_settings = false;  ///< stick gestures that change settings of the controller are on
  std::vector<std::string> also_serves;   ///< other rigs that fly on the same memory
  Json extra = Json::object();
  bool operator==(const Transmitter&) const = default;
};

/// What the receiver does when it hears nothing.
enum class OnLoss { unknown, no_pulses, hold, preset, flag };

struct Radio {
  std::vector<Channel> channels;
  Transmitter transmitter;
  OnLoss on_loss = OnLoss::unknown;
  Json extra = Json::object();
  bool operator==(const Radio&) const = default;
};

/// How much of each command an output answers: 1 is full travel on full command. Throttle counts from closed (0) to
/// full (1).
struct Mix {
  double roll = 0, pitch = 0, yaw = 0, throttle = 0, flap = 0;
  /// Takes this share off the roll command on one side: off what lowers the sum when positive, off what raises it when
  /// negative. −1 to 1.
  double roll_differential = 0;
  Json extra = Json::object();
  bool operator==(const Mix&) const = default;

  double of(Axis axis) const { return axis == Axis::roll ? roll : axis == Axis::pitch ? pitch : yaw; }
  double& of(Axis axis) { return axis == Axis::roll ? roll : axis == Axis::pitch ? pitch : yaw; }
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
  bool fixed = false;  ///< the plan leaves it on its socket
  Json extra = Json::object();
  bool operator==(const Output&) const = default;
};

/// One reading at the trailing edge.
struct ThrowReading {
  double pulse_us = 1500;
  double up_deg = 0;  ///< trailing edge up (rudder: right) positive
  Json extra = Json::object();
  bool operator==(const ThrowReading&) const = default;
};

/// Linkage of one surface from servo arm to horn, in one plane. Servo ahead of the hinge; heights are counted toward
/// the side of the horn.
struct Linkage {
  SurfaceName surface;
  double arm_m = 0.012, rod_m = 0.1, horn_m = 0.014;
  double servo_travel_deg = 45;  ///< for 500 µs
  double arm_deg = 0;            ///< of the arm at 1500 µs from square to the chord, toward the hinge positive
  double horn_deg = 0;           ///< the same of the horn with the surface neutral, away from the servo positive
  double drop_m = 0;             ///< by how much the servo's axis lies further to the horn's side than the hinge
  std::optional<double>
      base_m;  ///< servo axis to hinge along the chord; absent: such that the surface is neutral at 1500 µs
  bool push_lifts =
      true;  ///< pushing the rod lifts the trailing edge (horn below), or moves a rudder's right (horn on the left)
  bool crossed = false;                           ///< the arm stands to the other side than the horn
  std::vector<double> arm_holes_m, horn_holes_m;  ///< what there is to choose from
  double clevis_pitch_m = 0.0004;
  double spline_tooth_deg = 14.4;                    ///< of the servo's output shaft: 25 teeth
  std::optional<double> chord_m;                     ///< hinge to trailing edge where the throw is measured
  std::optional<double> want_up_deg, want_down_deg;  ///< at full deflection
  std::optional<double> play_m;                      ///< at the trailing edge
  std::vector<ThrowReading> readings;
  Json extra = Json::object();
  bool operator==(const Linkage&) const = default;
};

/// What happens when commands ask for more than an output can give.
enum class Sharing { each_stops, all_shrink, roll_first, pitch_first };

struct Sensing {
  TurnName board;  ///< as the controller was told that it sits
  bool roll_reversed = false, pitch_reversed = false, yaw_reversed = false;
  std::optional<double> level_nose_up_deg;
  Json extra = Json::object();
  bool operator==(const Sensing&) const = default;

  bool reversed(Axis axis) const {
    return axis == Axis::roll ? roll_reversed : axis == Axis::pitch ? pitch_reversed : yaw_reversed;
  }
  bool& reversed(Axis axis) {
    return axis == Axis::roll ? roll_reversed : axis == Axis::pitch ? pitch_reversed : yaw_reversed;
  }
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

/// The room for the controller and what goes with it.
struct Bay {
  double at_m = 0.2;  ///< from the nose to its front
  double length_m = 0.2, width_m = 0.08, height_m = 0.06;
  Json extra = Json::object();
  bool operator==(const Bay&) const = default;
};

/// What the fit station knows beyond the places.
struct Fit {
  std::optional<double> frame_mass_kg;  ///< airframe without the listed parts
  double frame_at_m = 0.4;              ///< its balance point behind the nose
  double frame_side_m = 0;              ///< right of the middle
  std::optional<Bay> bay;
  double static_margin = 0.10;                        ///< wanted, as a share of the mean chord
  double first_flight_forward = 0.02;                 ///< further forward for the first flight, same share
  std::optional<double> latitude_deg, longitude_deg;  ///< where it flies: for the compass
  double altitude_km = 0;
  std::string date;                    ///< year-month-day or decimal year, for the magnetic model
  std::vector<std::string> confirmed;  ///< things only the builder can see, in the words of the fit station
  Json extra = Json::object();
  bool operator==(const Fit&) const = default;
};

/// What the power station knows beyond the parts.
struct Power {
  std::optional<double> static_a;         ///< measured at full throttle, propeller on, model held
  std::optional<double> static_thrust_n;  ///< measured
  std::optional<double> cruise_a;         ///< drive current at cruise, from a flight record
  double ambient_c = 25;
  double reserve_share = 0.2;  ///< of the capacity, kept for the way home
  bool pusher = false;
  bool propeller_faces_flight = true;  ///< lettered side toward the direction of flight
  std::optional<double> clearance_m;   ///< least distance from the blade tips to anything
  Json extra = Json::object();
  bool operator==(const Power&) const = default;
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
  Fit fit;
  Power power;
  Radio radio;
  std::vector<Output> outputs;
  Sharing sharing = Sharing::each_stops;
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
  const Part* part(const std::string& id) const;
  /// Where the part sits, or null. The controller has the id "controller".
  const Place* place(const std::string& part_id) const;
  Place* place(const std::string& part_id);
  const Lead* lead(const std::string& id) const;
  Lead* lead(const std::string& id);
  const Linkage* linkage(Surface surface) const;
  Linkage* linkage(Surface surface);
  /// The channel that carries the function, or null.
  const Channel* channel(ChannelFunction function) const;
  Channel* channel(ChannelFunction function);
  /// The output that drives the surface, or null.
  const Output* output_of(Surface surface) const;
};

}  // namespace rigging

namespace rigging {

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
struct Words<LeadKind> {
  using L = LeadKind;
  static constexpr std::array<std::pair<L, std::string_view>, 10> list{{{L::servo, "servo"},
                                                                        {L::y_lead, "y_lead"},
                                                                        {L::four_way, "four_way"},
                                                                        {L::two_plus_two, "two_plus_two"},
                                                                        {L::six_way, "six_way"},
                                                                        {L::two_wire, "two_wire"},
                                                                        {L::power, "power"},
                                                                        {L::phase, "phase"},
                                                                        {L::video, "video"},
                                                                        {L::soldered, "soldered"}}};
};

template <>
struct Words<Control> {
  using C = Control;
  static constexpr std::array<std::pair<C, std::string_view>, 7> list{{{C::stick, "stick"},
                                                                       {C::two_position, "two_position"},
                                                                       {C::three_position, "three_position"},
                                                                       {C::slider, "slider"},
                                                                       {C::rotary, "rotary"},
                                                                       {C::multi_position, "multi_position"},
                                                                       {C::fixed, "fixed"}}};
};

template <>
struct Words<TravelUnit> {
  static constexpr std::array<std::pair<TravelUnit, std::string_view>, 2> list{
      {{TravelUnit::percent, "percent"}, {TravelUnit::us, "us"}}};
};

template <>
struct Words<OnLoss> {
  using L = OnLoss;
  static constexpr std::array<std::pair<L, std::string_view>, 5> list{{{L::unknown, "unknown"},
                                                                       {L::no_pulses, "no_pulses"},
                                                                       {L::hold, "hold"},
                                                                       {L::preset, "preset"},
                                                                       {L::flag, "flag"}}};
};

template <>
struct Words<Sharing> {
  using S = Sharing;
  static constexpr std::array<std::pair<S, std::string_view>, 4> list{{{S::each_stops, "each_stops"},
                                                                       {S::all_shrink, "all_shrink"},
                                                                       {S::roll_first, "roll_first"},
                                                                       {S::pitch_first, "pitch_first"}}};
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
