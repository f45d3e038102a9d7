#pragma once

#include <optional>
#include <string>
#include <vector>

#include "base/axis.h"
#include "base/described.h"
#include "base/unknown_members.h"
#include "base/words.h"

namespace rigging {

/// How hard one axis is corrected, as the board is set: 0 at least, 1 at most of what it can be set to. A dial at 7
/// o'clock is 0, at 12 it is 0.5, at 5 it is 1.
struct AxisGain {
  Axis axis = Axis::roll;
  std::optional<double> rate;   ///< against turning
  std::optional<double> level;  ///< against tilting, where the class sets it apart
  /// Direct stick share (feed forward): of the throw that the stick gives by itself in a stabilized mode, where the
  /// class sets it.
  std::optional<double> stick;
  UnknownMembers unknown_members;
  bool operator==(const AxisGain&) const = default;

  bool says_nothing() const { return !rate && !level && !stick && unknown_members.empty(); }
};

/// What flights have told of an axis: its true loop gain over the one that the model expects, with its band.
struct LearnedGain {
  Axis axis = Axis::roll;
  double factor = 1, least = 1, most = 1;
  bool simulated = false;  ///< some of it was told by the simulated bench
  UnknownMembers unknown_members;
  bool operator==(const LearnedGain&) const = default;
};

/// Where another program's log keeps what Rigging calls `meaning`. (Reading − offset) · factor is what Rigging wants
/// (deg/s, −1 to 1, m/s, 0 to 1).
struct LogColumn {
  std::string meaning, column;
  double offset = 0, factor = 1;
  UnknownMembers unknown_members;
  bool operator==(const LogColumn&) const = default;
};

inline constexpr double usual_throw_m_s = 7;  ///< that an arm gives (common practice)

enum class TakeoffWay { hand, ground, tow, height };
enum class Steering { none, wheel, rudder };

/// How it gets into the air, and what there is for it.
struct Takeoff {
  TakeoffWay way = TakeoffWay::hand;
  std::optional<double> throw_m_s;  ///< that the arm gives; the usual when absent
  std::optional<double> run_m;      ///< ground to roll on
  std::optional<double> tow_m_s;    ///< speed behind the tug when it lets go
  double wind_m_s = 0;              ///< against
  double crosswind_m_s = 0;
  Steering steering = Steering::none;
  bool rough = false;  ///< grass, not a strip
  UnknownMembers unknown_members;
  bool operator==(const Takeoff&) const = default;
};

enum class StartAt { least, half };

inline constexpr double usual_limit_deg = 45;  ///< of bank and nose in a levelling mode (common practice)

struct Feel {
  std::vector<AxisGain> gains;
  StartAt start = StartAt::least;    ///< for the first flight
  std::optional<double> half_share;  ///< effect of a dial's middle over the whole; the class's when absent
  std::optional<double> bank_limit_deg, nose_limit_deg;     ///< of the levelling mode
  std::optional<double> want_roll_deg_s, want_pitch_deg_s;  ///< at full stick, cruise speed
  Takeoff takeoff;
  std::vector<LearnedGain> learned;
  std::vector<LogColumn> log_columns;
  UnknownMembers unknown_members;
  bool operator==(const Feel&) const = default;

  const AxisGain* gain(Axis axis) const;
  AxisGain& made_gain(Axis axis);  ///< made when there is none
  const LearnedGain* learnt(Axis axis) const;
};

template <>
const Members& Described<AxisGain>::members();
template <>
const Members& Described<LearnedGain>::members();
template <>
const Members& Described<LogColumn>::members();
template <>
const Members& Described<Takeoff>::members();
template <>
const Members& Described<Feel>::members();

template <>
struct Names<TakeoffWay> {
  using W = TakeoffWay;
  static constexpr std::array<std::pair<W, std::string_view>, 4> list{
      {{W::hand, "hand"}, {W::ground, "ground"}, {W::tow, "tow"}, {W::height, "height"}}};
};
template <>
struct Names<Steering> {
  using S = Steering;
  static constexpr std::array<std::pair<S, std::string_view>, 3> list{
      {{S::none, "none"}, {S::wheel, "wheel"}, {S::rudder, "rudder"}}};
};
template <>
struct Names<StartAt> {
  static constexpr std::array<std::pair<StartAt, std::string_view>, 2> list{
      {{StartAt::least, "least"}, {StartAt::half, "half"}}};
};

}  // namespace rigging
