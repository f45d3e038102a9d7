#pragma once

#include <optional>
#include <string>

#include "base/described.h"
#include "base/point.h"
#include "base/unknown_members.h"
#include "base/words.h"
#include "rig/names.h"
#include "rig/radio.h"

namespace rigging {

struct Part {
  std::string id;
  std::string kind;  ///< part id in the catalogue
  std::string label;
  std::optional<SurfaceName> surface;  ///< which surface a servo works, or which motor of a pair it is
  std::optional<double> mass_kg;       ///< weighed; the catalogue's when absent
  std::optional<Signal> says;          ///< of a receiver whose output is chosen in the transmitter
  std::optional<double> baud;          ///< what it really speaks; the catalogue's when absent
  std::string plug;                    ///< on its power leads, in the catalogue; the kind's when empty
  std::string motor_plug;              ///< on the three leads between speed controller and motor; soldered when empty
  UnknownMembers unknown_members;
  bool operator==(const Part&) const = default;
};

/// What holds a part where it sits.
enum class Fixing { unknown, tape, hook_and_loop, foam, plate, holder, flush, lid };

struct Mounting {
  std::string part;
  double x_m = 0, y_m = 0,
         z_m = 0;  ///< middle of the part; body axes with the nose at x = 0, so that x is negative aft of it
  TurnName turn;   ///< how it sits; of the board and of a compass it matters
  double roll_deg = 0, pitch_deg = 0, yaw_deg = 0;  ///< small angles on top of the turn, −20 to 20
  Fixing fixing = Fixing::unknown;
  UnknownMembers unknown_members;
  bool operator==(const Mounting&) const = default;
};

/// How what has this place sits: model = matrix · part. Without a place as the model does.
Eigen::Matrix3d alignment_of(const Mounting* place);

enum class LeadKind { servo, y_lead, four_way, two_plus_two, six_way, two_wire, power, phase, video, soldered };

/// One end of a lead: a part (or "controller") and a socket, port or pad of it.
struct LeadEnd {
  std::string part;
  std::string socket;
  UnknownMembers unknown_members;
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
  UnknownMembers unknown_members;
  bool operator==(const Lead&) const = default;
};

template <>
struct Names<LeadKind> {
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
struct Names<Fixing> {
  using F = Fixing;
  static constexpr std::array<std::pair<F, std::string_view>, 8> list{{{F::unknown, "unknown"},
                                                                       {F::tape, "tape"},
                                                                       {F::hook_and_loop, "hook_and_loop"},
                                                                       {F::foam, "foam"},
                                                                       {F::plate, "plate"},
                                                                       {F::holder, "holder"},
                                                                       {F::flush, "flush"},
                                                                       {F::lid, "lid"}}};
};

template <>
const Members& Described<Part>::members();
template <>
const Members& Described<Mounting>::members();
template <>
const Members& Described<LeadEnd>::members();
template <>
const Members& Described<Lead>::members();

}  // namespace rigging
