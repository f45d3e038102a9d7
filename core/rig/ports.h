#pragma once

#include <optional>
#include <string>

#include "base/described.h"
#include "base/unknown_members.h"
#include "base/words.h"

namespace rigging {

/// What a serial port of the board is told to do. A port does one job.
enum class PortJob {
  none,
  receiver,
  satellite_receiver,
  telemetry,     ///< the return wire to a receiver
  display,       ///< figures for a digital video unit
  video_control  ///< channel and power of a video transmitter
};
enum class PortDirection { both, listens, speaks };

/// How one port of the board is set.
struct Port {
  std::string socket;  ///< of the controller class
  PortJob job = PortJob::none;
  std::optional<double> baud;  ///< absent: found by itself, or the signal has one of its own
  PortDirection direction = PortDirection::both;
  UnknownMembers unknown_members;
  bool operator==(const Port&) const = default;
};

template <>
struct Names<PortJob> {
  using J = PortJob;
  static constexpr std::array<std::pair<J, std::string_view>, 6> list{{{J::none, "none"},
                                                                       {J::receiver, "receiver"},
                                                                       {J::satellite_receiver, "satellite_receiver"},
                                                                       {J::telemetry, "telemetry"},
                                                                       {J::display, "display"},
                                                                       {J::video_control, "video_control"}}};
};
template <>
struct Names<PortDirection> {
  using D = PortDirection;
  static constexpr std::array<std::pair<D, std::string_view>, 3> list{
      {{D::both, "both"}, {D::listens, "listens"}, {D::speaks, "speaks"}}};
};

template <>
const Members& Described<Port>::members();

}  // namespace rigging
