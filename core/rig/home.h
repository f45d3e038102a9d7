#pragma once

#include <optional>
#include <string>
#include <vector>

#include "base/described.h"
#include "base/unknown_members.h"
#include "base/words.h"

namespace rigging {

struct ModeChoice {
  int channel = 5;
  double from_us = 1000, to_us = 2000;
  std::string mode;
  UnknownMembers unknown_members;
  bool operator==(const ModeChoice&) const = default;
};

/// What the controller does by itself when the link is gone: nothing decided, motor off and wings level, a circle where
/// it is, or back to where it was armed.
enum class LossAction { undecided, glide, circle, come_home };
/// What it does once it is home.
enum class OnArrival { circle, land };

/// Something high near the field, as seen from home.
struct FieldObstacle {
  std::string name;
  double bearing_deg = 0, distance_m = 0, height_m = 0;
  UnknownMembers unknown_members;
  bool operator==(const FieldObstacle&) const = default;
};

/// What makes it act by itself, or warn, beside a lost link.
enum class HomeTrigger { low_battery, fence, no_fix, bad_compass, bad_airspeed, long_loss };
/// A pilot who is warned flies on by hand.
enum class TriggerAction { warn, glide, circle, come_home, land };

struct TriggerChoice {
  HomeTrigger on = HomeTrigger::low_battery;
  TriggerAction does = TriggerAction::warn;
  std::optional<double> at;  ///< fence: m from home; long loss: s after the link went. The others have none
  UnknownMembers unknown_members;
  bool operator==(const TriggerChoice&) const = default;
};

/// What is written over the picture in the goggles.
enum class GogglesLine {
  volts,
  amps,
  used_charge,
  height,
  speed,
  way_home,
  distance,
  mode,
  link,
  flight_time,
  warnings
};

struct Home {
  LossAction on_loss = LossAction::undecided;
  double loss_hold_s = 1.5;               ///< that it flies on before it acts (common practice)
  bool climb_first = false;               ///< to the return height in circles before it sets out; else on the way
  std::optional<double> return_height_m;  ///< of the way home, above it
  std::optional<double> circle_radius_m;  ///< over home
  OnArrival on_arrival = OnArrival::circle;
  std::optional<double> turn_home_v;         ///< of the whole battery under load: it or the pilot turns home there
  double wind_m_s = 5, wind_from_deg = 270;  ///< that the plan counts with
  std::optional<double> area_m;              ///< how far it is meant to fly
  std::vector<FieldObstacle> obstacles;
  std::vector<TriggerChoice> triggers;
  std::optional<double> cruise_throttle;   ///< 0 to 1, of the modes that fly by themselves
  std::optional<bool> adds_throttle;       ///< the pilot's stick adds to it in those modes
  std::optional<double> landing_throttle;  ///< 0 to 1, while it lands by itself; 0: cut
  std::optional<bool> opens_tow;           ///< the tow release opens when the link is gone; else it stays latched
  std::optional<bool> sounds_when_lost;    ///< an alarm, until it is found
  bool checks_before_arming = true;        ///< refuses to arm while something is not ready
  std::vector<GogglesLine> goggles;        ///< in the goggles
  bool clear_page = false;                 ///< one page of the goggles with nothing over the picture
  std::string looked_up;  ///< which rules of the place and the club were looked up, in the builder's words
  UnknownMembers unknown_members;
  bool operator==(const Home&) const = default;
};

template <>
const Members& Described<ModeChoice>::members();
template <>
const Members& Described<FieldObstacle>::members();
template <>
const Members& Described<TriggerChoice>::members();
template <>
const Members& Described<Home>::members();

template <>
struct Names<LossAction> {
  using A = LossAction;
  static constexpr std::array<std::pair<A, std::string_view>, 4> list{
      {{A::undecided, "undecided"}, {A::glide, "glide"}, {A::circle, "circle"}, {A::come_home, "come_home"}}};
};
template <>
struct Names<HomeTrigger> {
  using T = HomeTrigger;
  static constexpr std::array<std::pair<T, std::string_view>, 6> list{{{T::low_battery, "low_battery"},
                                                                       {T::fence, "fence"},
                                                                       {T::no_fix, "no_fix"},
                                                                       {T::bad_compass, "bad_compass"},
                                                                       {T::bad_airspeed, "bad_airspeed"},
                                                                       {T::long_loss, "long_loss"}}};
};
template <>
struct Names<TriggerAction> {
  using A = TriggerAction;
  static constexpr std::array<std::pair<A, std::string_view>, 5> list{
      {{A::warn, "warn"}, {A::glide, "glide"}, {A::circle, "circle"}, {A::come_home, "come_home"}, {A::land, "land"}}};
};
template <>
struct Names<GogglesLine> {
  using S = GogglesLine;
  static constexpr std::array<std::pair<S, std::string_view>, 11> list{{{S::volts, "volts"},
                                                                        {S::amps, "amps"},
                                                                        {S::used_charge, "used_charge"},
                                                                        {S::height, "height"},
                                                                        {S::speed, "speed"},
                                                                        {S::way_home, "way_home"},
                                                                        {S::distance, "distance"},
                                                                        {S::mode, "mode"},
                                                                        {S::link, "link"},
                                                                        {S::flight_time, "flight_time"},
                                                                        {S::warnings, "warnings"}}};
};
template <>
struct Names<OnArrival> {
  static constexpr std::array<std::pair<OnArrival, std::string_view>, 2> list{
      {{OnArrival::circle, "circle"}, {OnArrival::land, "land"}}};
};

}  // namespace rigging
