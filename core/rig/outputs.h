#pragma once

#include <string>
#include <vector>

#include "base/axis.h"
#include "base/described.h"
#include "base/unknown_members.h"
#include "rig/names.h"

namespace rigging {

/// How much of each command an output answers: 1 is full travel on full command. Throttle counts from closed (0) to
/// full (1).
struct Mix {
  double roll = 0, pitch = 0, yaw = 0, throttle = 0, flap = 0;
  /// Takes this share off the roll command on one side: off what lowers the sum when positive, off what raises it when
  /// negative. −1 to 1.
  double roll_differential = 0;
  UnknownMembers unknown_members;
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
  bool fixed = false;           ///< the plan leaves it on its socket
  int passthrough_channel = 0;  ///< the channel that it passes through, unmixed; 0: none
  UnknownMembers unknown_members;
  bool operator==(const Output&) const = default;
};

/// What happens when commands ask for more than an output can give.
enum class Saturation { each_stops, all_shrink, roll_first, pitch_first };

template <>
struct Names<Saturation> {
  using S = Saturation;
  static constexpr std::array<std::pair<S, std::string_view>, 4> list{{{S::each_stops, "each_stops"},
                                                                       {S::all_shrink, "all_shrink"},
                                                                       {S::roll_first, "roll_first"},
                                                                       {S::pitch_first, "pitch_first"}}};
};

template <>
const Members& Described<Mix>::members();
template <>
const Members& Described<Output>::members();

}  // namespace rigging
