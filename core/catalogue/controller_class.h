#pragma once

#include <optional>
#include <string>
#include <vector>

#include "catalogue/terminal.h"
#include "rig/remedy.h"
#include "rig/rig.h"

/// Classes of controllers, described by what they can do.
namespace rigging {

enum class Family { flight_controller, stabilizer };

/// What a surface does while the model is held tilted or turned, in one mode.
enum class AnswerKind { none, momentary, held, springs_back, runs_away };

/// One cure for a wrong direction that this class really offers.
struct RemedySteps {
  Remedy remedy = Remedy::reverse_output;
  bool over_link = false;  ///< Rigging can write it; otherwise the steps are for the hand
  /// Steps of the hand card. {output}, {socket}, {axis}, {surface}, {other}, {rotation} stand for what is concerned.
  std::vector<std::string> steps;
  UnknownMembers unknown_members;
  bool operator==(const RemedySteps&) const = default;
};

/// How a setting is changed with a class.
enum class SetBy { link, dial, slide_switch, key, gesture, menu, computer };

struct SettingWay {
  std::string what;  ///< a setting's name (core/settings); "mix", "sensing", "gains" for all of a kind; "functions"
                     ///< for the sense of an axis on all of its outputs
  SetBy by = SetBy::link;
  std::vector<std::string> steps;  ///< for the hand card, as those of a cure
  bool restart = false;            ///< takes effect after a restart
  UnknownMembers unknown_members;
  bool operator==(const SettingWay&) const = default;
};

struct ModeAnswer {
  Mode mode = Mode::manual;
  AnswerKind answer = AnswerKind::none;
  double from_deg = 0;          ///< answers only when tilted further than this
  bool motor_unlocked = false;  ///< asleep while the motor is locked
  std::string note;
  UnknownMembers unknown_members;
  bool operator==(const ModeAnswer&) const = default;
};

/// What a lamp or tone is about.
enum class LampTells { other, settling, ready, no_signal, armed, set_up, levelling, fault };

struct Lamp {
  std::string sign;  ///< rhythm or tone, in words: colours differ from board to board
  std::string meaning;
  LampTells tells = LampTells::other;
  UnknownMembers unknown_members;
  bool operator==(const Lamp&) const = default;
};

enum class ArmsBy { nothing, by_switch, by_stick, by_either };
/// Where the throttle lead may go.
enum class MotorPath { through, receiver, either };
/// How the model must stand while the unit finds its zero.
enum class PowerUp { anyhow, still, still_and_level };
/// How a gain is dialled: from least to most, or from the middle to either side, of which each is a direction.
enum class Dials { none, one_sided, two_sided };

/// What a class can, by the station that asks. A later station brings a group of its own.
struct SticksAbilities {
  bool reads_channels = false;           ///< shows what it receives
  double reads_full = 0;                 ///< its test page shows ± this at the ends; 0: it shows µs
  bool learns_ends = false;              ///< takes measured ends and centre of each channel for its own
  double travel_percent = 100;           ///< of the transmitter's travel that gives it full resolution
  bool pitch_back_falls = false;         ///< stick back is meant to read low
  bool throttle_opens_falls = false;     ///< an opened throttle is meant to read low
  bool gesture_needs_full_ends = false;  ///< a stick gesture counts only when 1000 and 2000 µs are reached
  bool stick_direction_in_transmitter = false;
  std::vector<OnLoss> notices;  ///< what of a receiver's behaviour tells it that the link is gone
  std::string arming;           ///< how the motor is unlocked, in words
  ArmsBy arms_by = ArmsBy::nothing;
  bool safety_button = false;  ///< pressed before it arms
  int mode_channel = 0;        ///< on which it listens for its modes; 0: any can be assigned
  int unlock_channel = 0;      ///< on which it listens for the motor's lock; 0: none, or any
  UnknownMembers unknown_members;
  bool operator==(const SticksAbilities&) const = default;
};

/// How it takes over the trim that was flown: never, by itself while flying, or when it is told to.
enum class TrimKeeping { never, by_itself, on_request };

struct SurfacesAbilities {
  bool drives_one_output = false;  ///< moves one output alone on request
  MotorPath motor = MotorPath::through;
  std::vector<SurfaceKind> drives;  ///< what it mixes and stabilizes, where that is fixed; empty: whatever it is told
  bool others_by_profile = false;   ///< what is not in `drives` needs a profile loaded from a computer
  bool y_lead_in_either = false;    ///< two ailerons on one lead work from the left and from the right socket
  TrimKeeping trim = TrimKeeping::never;
  Mode trims_in = Mode::level;    ///< the mode in which the trim is found
  double trim_every_s = 10;       ///< how often it is kept, while it does so by itself (common practice)
  bool routes_channels = false;   ///< each socket is told in a menu which channel it carries
  bool tail_mix_of_roll = false;  ///< roll weights of tail halves are set as a percentage of the ailerons' throw
  UnknownMembers unknown_members;
  bool operator==(const SurfacesAbilities&) const = default;
};

struct SensesAbilities {
  bool axis_sensing_reversible = false;
  bool can_be_turned = false;          ///< can be told that it sits turned
  bool either_face = false;            ///< finds out which face is up: only the arrow counts
  bool half_turn_by_switches = false;  ///< arrow to the tail, undone by its switches of roll and pitch
  bool has_compass = false, has_barometer = false;
  bool shows_motion = false;                             ///< tells over its link what its sensors read
  bool isolated = false, spare = false, heated = false;  ///< sensors against vibration, doubled, held warm
  PowerUp power_up = PowerUp::anyhow;
  std::string level;         ///< how level is stored, in words
  bool stores_level = true;  ///< false: level is the attitude in which it wakes
  UnknownMembers unknown_members;
  bool operator==(const SensesAbilities&) const = default;
};

/// What a gain is set by: the linkage alone, a dial, a percentage, a number, or a switch between two fixed strengths.
enum class GainBy { linkage, dial, percent, number, strengths };
/// What makes the correction smaller when the model flies faster.
enum class GainFollows { nothing, throttle, airspeed };

struct FeelAbilities {
  std::string gains;  ///< how they are set, in words
  Dials dials = Dials::none;
  bool gain_is_travel = false;  ///< the travel of the gain channel is the gain: it needs no 1000 and 2000 µs
  GainBy gain_by = GainBy::percent;
  double least = 0, most = 100;  ///< of the number that is set
  double half_share = 0.5;       ///< effect in the middle over the whole: 0.5 is even steps
  double full_at_deg_s = 120;    ///< with the gain at most, the rate that is answered with the whole travel
  double full_at_deg = 60;       ///< the same of the tilt, in a levelling mode
  double gentle_share = 0.4;     ///< of two strengths, the lesser over the greater
  double authority = 1;          ///< share of the travel that a correction may take
  double cycles_hz = 400;        ///< how often it works out a correction
  double filter_hz = 40;         ///< low-pass on the sensed rate
  bool level_apart = false;      ///< levelling has a gain of its own
  bool limits = false;           ///< bank and nose limits of levelling can be set
  bool sets_stick = false;       ///< the direct stick share (feed forward) is a setting of each axis
  double stick_share = 1;        ///< that share as the class comes: 1, the stick works as in manual
  GainFollows follows = GainFollows::nothing;
  UnknownMembers unknown_members;
  bool operator==(const FeelAbilities&) const = default;
};

struct ProofAbilities {
  std::vector<ModeAnswer> modes;
  Mode bench_mode = Mode::rate;   ///< shows the correction best on the bench
  bool rudder_into_bank = false;  ///< holds rudder toward a held bank, for coordinated turns
  std::vector<Lamp> lamps;
  UnknownMembers unknown_members;
  bool operator==(const ProofAbilities&) const = default;
};

struct HomeAbilities {
  std::vector<LossAction> on_loss;  ///< what it can do by itself when the link is gone; empty: what the receiver sends
  double notices_after_s = 1;       ///< frames missing or marked, until it calls it a loss
  std::vector<HomeTrigger> triggers;    ///< beside the lost link, on which it can act
  std::vector<std::string> flies;       ///< modes beside those of `proof`: "circle", "return"
  std::vector<ModeChoice> fixed_modes;  ///< where its modes are not put on switches: channel 1 stands for its first
                                        ///< mode channel, 2 for the second
  std::string else_mode;                ///< that flies while no switch chooses another; empty: what it was
  bool checks_before_arming = false;    ///< refuses to arm with a reason
  bool tells_state = false;             ///< mode, arming and loss over its link
  bool writes_over_video = false;
  bool sounds = false;  ///< an alarm of its own, or a pin for one
  UnknownMembers unknown_members;
  bool operator==(const HomeAbilities&) const = default;
};

/// A figure that differs from unit to unit of a class and stands in the leaflet that came with it. In texts of the
/// class {leaflet:ID} stands for it.
struct LeafletValue {
  std::string id;
  std::string what;   ///< "presses of the button for roll"
  std::string value;  ///< an example of our own until it is looked up
  bool looked_up = false;
  UnknownMembers unknown_members;
  bool operator==(const LeafletValue&) const = default;
};

/// When a hand step is due: before the first check, or after corrections were checked.
enum class StepTime { before, after_corrections };
/// For which rigs: all, those with surfaces that the class only drives with a profile of mixes, those whose motor is
/// armed by a switch.
enum class StepFor { all, mixes, arms };

/// Something that hands do on the board, the transmitter or a computer, apart from checks and settings.
struct HandStep {
  std::string id;  ///< of the check: "bind"
  std::string title;
  StepTime when = StepTime::before;
  StepFor only_for = StepFor::all;
  std::vector<std::string> steps;
  std::string expected;
  std::vector<std::string> cautions;
  std::string until_then;  ///< a loose end as long as it is due and not done, in words
  UnknownMembers unknown_members;
  bool operator==(const HandStep&) const = default;
};

struct ControllerClass {
  std::string id;
  std::string name;
  std::string summary;
  Family family = Family::stabilizer;
  bool link = false;  ///< settings over a byte link
  double width_mm = 30, length_mm = 40, height_mm = 12, mass_kg = 0.012;
  std::vector<std::string> inputs;
  std::vector<Terminal> outputs;  ///< pulse outputs
  std::vector<Terminal> ports;    ///< every other socket
  std::vector<Terminal> pads;     ///< to solder to
  std::vector<Feed> feeds;
  std::vector<Load> loads;
  std::string minus_edge;            ///< where the minus pin of a servo plug sits, in words
  std::vector<SettingWay> settings;  ///< what can be set at all; what is not listed can't
  /// Of its own in the file; once loaded also those that follow from `settings`, and those that all classes share.
  std::vector<RemedySteps> remedies;
  std::vector<HandStep> steps;
  std::vector<LeafletValue> leaflet;
  std::vector<std::string> tools;  ///< that its settings and its lid ask for
  SticksAbilities sticks;
  SurfacesAbilities surfaces;
  SensesAbilities senses;
  FeelAbilities feel;
  HomeAbilities home;
  ProofAbilities proof;
  UnknownMembers unknown_members;
  bool operator==(const ControllerClass&) const = default;

  /// A text of the class with its figures in the place of {leaflet:ID}: what was looked up as it is, an example as one;
  /// and with its channels in the place of {mode_channel} and {unlock_channel}.
  std::string with_leaflet(std::string text) const;
  /// Can it drive such a surface only with a profile that is loaded from a computer?
  bool needs_profile(SurfaceKind kind) const;
  /// The throttle lead never goes through it.
  bool motor_bypasses() const { return surfaces.motor == MotorPath::receiver; }
  /// A motor's output may be without a socket: its lead stays on the receiver.
  bool motor_may_bypass() const { return surfaces.motor != MotorPath::through; }
  /// Null when the class has no such sign.
  const Lamp* lamp(LampTells tells) const;
  /// Null when this class can't set it.
  const SettingWay* way(const std::string& what) const;
  const RemedySteps* steps_for(Remedy remedy) const;
  const ModeAnswer* mode(Mode mode) const;
  const Terminal* socket(const std::string& socket_id) const;  ///< among the outputs
  /// Among outputs, ports and pads.
  const Terminal* terminal(const std::string& terminal_id) const;
  std::vector<const Terminal*> terminals() const;
  /// Remedies that can be had with this class, on the board, on the model or in the transmitter.
  Abilities abilities() const;
};

}  // namespace rigging

namespace rigging {
template <>
struct Names<Family> {
  static constexpr std::array<std::pair<Family, std::string_view>, 2> list{
      {{Family::flight_controller, "flight_controller"}, {Family::stabilizer, "stabilizer"}}};
};
template <>
struct Names<AnswerKind> {
  using A = AnswerKind;
  static constexpr std::array<std::pair<A, std::string_view>, 5> list{{{A::none, "none"},
                                                                       {A::momentary, "momentary"},
                                                                       {A::held, "held"},
                                                                       {A::springs_back, "springs_back"},
                                                                       {A::runs_away, "runs_away"}}};
};
template <>
struct Names<LampTells> {
  using L = LampTells;
  static constexpr std::array<std::pair<L, std::string_view>, 8> list{{{L::other, "other"},
                                                                       {L::settling, "settling"},
                                                                       {L::ready, "ready"},
                                                                       {L::no_signal, "no_signal"},
                                                                       {L::armed, "armed"},
                                                                       {L::set_up, "set_up"},
                                                                       {L::levelling, "levelling"},
                                                                       {L::fault, "fault"}}};
};
template <>
struct Names<ArmsBy> {
  using A = ArmsBy;
  static constexpr std::array<std::pair<A, std::string_view>, 4> list{
      {{A::nothing, "nothing"}, {A::by_switch, "switch"}, {A::by_stick, "stick"}, {A::by_either, "either"}}};
};
template <>
struct Names<MotorPath> {
  using M = MotorPath;
  static constexpr std::array<std::pair<M, std::string_view>, 3> list{
      {{M::through, "through"}, {M::receiver, "receiver"}, {M::either, "either"}}};
};
template <>
struct Names<TrimKeeping> {
  using T = TrimKeeping;
  static constexpr std::array<std::pair<T, std::string_view>, 3> list{
      {{T::never, "never"}, {T::by_itself, "by_itself"}, {T::on_request, "on_request"}}};
};
template <>
struct Names<StepTime> {
  static constexpr std::array<std::pair<StepTime, std::string_view>, 2> list{
      {{StepTime::before, "before"}, {StepTime::after_corrections, "after_corrections"}}};
};
template <>
struct Names<StepFor> {
  static constexpr std::array<std::pair<StepFor, std::string_view>, 3> list{
      {{StepFor::all, "all"}, {StepFor::mixes, "mixes"}, {StepFor::arms, "arms"}}};
};
template <>
struct Names<PowerUp> {
  using P = PowerUp;
  static constexpr std::array<std::pair<P, std::string_view>, 3> list{
      {{P::anyhow, "anyhow"}, {P::still, "still"}, {P::still_and_level, "still_and_level"}}};
};
template <>
struct Names<Dials> {
  using D = Dials;
  static constexpr std::array<std::pair<D, std::string_view>, 3> list{
      {{D::none, "none"}, {D::one_sided, "one_sided"}, {D::two_sided, "two_sided"}}};
};
template <>
struct Names<GainBy> {
  using G = GainBy;
  static constexpr std::array<std::pair<G, std::string_view>, 5> list{{{G::linkage, "linkage"},
                                                                       {G::dial, "dial"},
                                                                       {G::percent, "percent"},
                                                                       {G::number, "number"},
                                                                       {G::strengths, "strengths"}}};
};
template <>
struct Names<GainFollows> {
  using F = GainFollows;
  static constexpr std::array<std::pair<F, std::string_view>, 3> list{
      {{F::nothing, "nothing"}, {F::throttle, "throttle"}, {F::airspeed, "airspeed"}}};
};
template <>
struct Names<SetBy> {
  using B = SetBy;
  static constexpr std::array<std::pair<B, std::string_view>, 7> list{{{B::link, "link"},
                                                                       {B::dial, "dial"},
                                                                       {B::slide_switch, "switch"},
                                                                       {B::key, "key"},
                                                                       {B::gesture, "gesture"},
                                                                       {B::menu, "menu"},
                                                                       {B::computer, "computer"}}};
};
}  // namespace rigging
