#pragma once

#include <string>
#include <vector>

#include "base/unknown_members.h"
#include "base/words.h"

namespace rigging {

/// What a lead can be plugged into or soldered to, by what it carries.
enum class TerminalKind {
  output,         ///< servo pulses out, with plus and minus
  pulse_input,    ///< takes servo pulses: a servo, a speed controller, one channel of a board
  summed_output,  ///< all channels on one wire
  summed_input,
  inverted_serial,   ///< a receiver's inverted framed serial, one wire
  serial_inverting,  ///< a board's port that can invert its input
  serial,            ///< a data pair, transmit and receive
  two_wire,          ///< bus of clock and data
  sense_output,      ///< a power module's measuring lead
  sense_input,
  usb,
  power,     ///< gives plus
  power_in,  ///< takes plus
  supply,    ///< the outlet lead of a regulator: a servo plug without a signal
  ground,
  video_out,
  video_in,
  battery_out,
  battery_in,
  motor_out,
  motor_in,
  switched,    ///< a pad that switches a small load
  switched_in  ///< the small load
};

/// A battery lead has one kind of plug, the leads to the motor may have another.
constexpr bool on_motor_lead(TerminalKind kind) {
  return kind == TerminalKind::motor_out || kind == TerminalKind::motor_in;
}
constexpr bool on_battery_lead(TerminalKind kind) {
  return kind == TerminalKind::battery_out || kind == TerminalKind::battery_in;
}

/// One socket, port or pad. Terminals of one thing that name the same net are joined inside it.
struct Terminal {
  std::string id;
  std::string label;
  TerminalKind kind = TerminalKind::output;
  std::vector<TerminalKind> also;  ///< other kinds that it can serve as
  std::string net;                 ///< where its plus goes inside; empty without a plus
  int timer_group = 0;             ///< outputs of one group share a pulse rate; 0 for what is no output
  bool emulated = false;           ///< a port made by software: costs processor time
  double most_baud = 0;            ///< of a serial port; 0 when any rate will do
  std::string serves;  ///< kept by the class for one job: a surface word, an axis, "throttle", "gain" or a part group
  std::string side;    ///< edge of the board at which a plug sits: nose, tail, left, right; empty for a pad on the face
  std::string plug;    ///< kind of plug on a power lead, in the catalogue
  double x_mm = 0, y_mm = 0;  ///< on the board, arrow up, from its left rear corner
  UnknownMembers unknown_members;
  bool operator==(const Terminal&) const = default;

  bool serves_as(TerminalKind wanted) const;
};

/// True if a lead between the two makes sense electrically, in either order.
bool mates(const Terminal& a, const Terminal& b);

/// True if a lead at this kind of terminal carries plus.
bool carries_plus(TerminalKind kind);

enum class FeedKind { linear, switching, diode, joined };

/// A way from one net to another inside a part or board: a regulator, a diode or a plain track.
struct Feed {
  std::string from, to;
  FeedKind kind = FeedKind::switching;
  double volts = 5;                       ///< a regulator's outlet; passed over for diode and joined
  double amps = 3;                        ///< its rating, continuous
  double least_in_v = 0, most_in_v = 60;  ///< input window
  double k_per_w = 0;                     ///< junction to ambient, of a linear regulator; 0 when not known
  double most_junction_c = 125;
  UnknownMembers unknown_members;
  bool operator==(const Feed&) const = default;
};

/// What a part draws on one of its nets.
struct Load {
  std::string net;
  double idle_a = 0, typical_a = 0, most_a = 0;
  double least_v = 0, most_v = 60;
  UnknownMembers unknown_members;
  bool operator==(const Load&) const = default;
};

}  // namespace rigging

namespace rigging {
template <>
struct Names<TerminalKind> {
  using T = TerminalKind;
  static constexpr std::array<std::pair<T, std::string_view>, 23> list{{{T::output, "output"},
                                                                        {T::pulse_input, "pulse_input"},
                                                                        {T::summed_output, "summed_output"},
                                                                        {T::summed_input, "summed_input"},
                                                                        {T::inverted_serial, "inverted_serial"},
                                                                        {T::serial_inverting, "serial_inverting"},
                                                                        {T::serial, "serial"},
                                                                        {T::two_wire, "two_wire"},
                                                                        {T::sense_output, "sense_output"},
                                                                        {T::sense_input, "sense_input"},
                                                                        {T::usb, "usb"},
                                                                        {T::power, "power"},
                                                                        {T::power_in, "power_in"},
                                                                        {T::supply, "supply"},
                                                                        {T::ground, "ground"},
                                                                        {T::video_out, "video_out"},
                                                                        {T::video_in, "video_in"},
                                                                        {T::battery_out, "battery_out"},
                                                                        {T::battery_in, "battery_in"},
                                                                        {T::motor_out, "motor_out"},
                                                                        {T::motor_in, "motor_in"},
                                                                        {T::switched, "switched"},
                                                                        {T::switched_in, "switched_in"}}};
};
template <>
struct Names<FeedKind> {
  static constexpr std::array<std::pair<FeedKind, std::string_view>, 4> list{{{FeedKind::linear, "linear"},
                                                                              {FeedKind::switching, "switching"},
                                                                              {FeedKind::diode, "diode"},
                                                                              {FeedKind::joined, "joined"}}};
};
}  // namespace rigging
