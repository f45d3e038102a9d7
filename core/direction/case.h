#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "base/axis.h"
#include "base/json_fwd.h"
#include "base/result.h"
#include "base/turn.h"
#include "hands/hands.h"
#include "rig/remedy.h"
#include "rig/surface.h"

/// Direction reasoning: from what was seen on the bench to what is wrong.
namespace rigging::direction {

constexpr std::size_t at(int index) { return static_cast<std::size_t>(index); }

enum class FaultKind {
  output_reversed,
  leads_swapped,
  mix_sign_wrong,
  transmitter_reversed,
  transmitter_swapped,
  gyro_reversed,
  board_turned,
  output_dead,
  linkage_opposed,
  function_reversed
};

/// Each fault has exactly one remedy, in the same place of its list.
constexpr Remedy remedy_of(FaultKind kind) { return static_cast<Remedy>(kind); }

struct CaseOutput {
  std::string id;
  /// What people call it; "output" and the id when empty.
  std::string label;
  /// What the output is meant to drive; more than one hangs on a Y-lead.
  std::vector<Surface> surfaces;
  /// Weight per axis as configured now; 0 means that the axis is not mixed in.
  std::array<double, 3> mix{};
  bool reversed = false;
};

/// `inspect`: leads, the board or horns were looked at, and are as planned.
enum class Act { stick, drive, tilt, inspect };

struct Seen {
  Surface surface;
  /// Sign as in `required_direction`; 0 is still.
  int motion = 0;
};

struct Observation {
  Act act = Act::stick;
  /// Stick and tilt.
  Axis axis = Axis::roll;
  /// Stick and tilt: +1 right, nose up, right. Drive: +1 the pulse rises.
  int sense = 1;
  Mode mode = Mode::manual;
  /// Drive: index into the outputs.
  int output = 0;
  std::vector<Seen> saw;
  /// Stick: +1 rises, −1 falls, 0 still, normalised so that right, nose up and right rise.
  std::array<std::optional<int>, 3> channels{};
  /// Inspect: indices of outputs whose leads were followed to their own surfaces.
  std::vector<int> leads;
  /// Inspect: surfaces whose horn stands on the side that was planned.
  std::vector<Surface> horns;
  /// Inspect: the board sits as the controller was told.
  bool board = false;
};

/// An observation that could still be made, and what can be looked at while it is made.
struct Question {
  Observation observation;
  bool surfaces = true;
  bool channels = false;
};

struct Case {
  std::vector<CaseOutput> outputs;
  Abilities can = Abilities::all();
  std::vector<Observation> observations;
  /// What may be asked next; all that can be done to these outputs when absent.
  std::optional<std::vector<Question>> may_ask;
  /// What a reversed function is held against. False: the mix as it stands here is what the controller does, and the
  /// fault is in it (commands.md). True: the mix is the plan, and right; the controller, which can't be read, works the
  /// function the other way round.
  bool mix_is_plan = false;
  /// What `level` answers. False: the opposite of the sensed rotation (commands.md). True: where it senses "down"
  /// (levelling.h), which differs for a board whose top does not look where the controller was told.
  bool levels_by_gravity = false;
  /// The board finds out which face is up: a turned face is no fault.
  bool either_face = false;

  /// Every stick, drive and tilt that tells something about these outputs, plainest first.
  std::vector<Question> all_questions() const;
};

struct Fault {
  FaultKind kind = FaultKind::output_reversed;
  /// Index of the output; for swapped leads the lower of the two.
  int output = -1;
  int other_output = -1;
  Axis axis = Axis::roll;
  Axis other_axis = Axis::roll;
  Surface surface{};
  /// How the board really sits.
  Turn turn{};

  bool operator==(const Fault&) const = default;
};

/// Reads the format of `rigging-cli directions`; `name` is the file for messages.
Result<Case> case_from_json(const Json& json, const std::string& name);

Json fault_to_json(const Fault& fault, const Case& c);
Json remedy_to_json(const Fault& fault, const Case& c);
/// What hands are asked to do about it.
hands::Work work_for(const Fault& fault, const Case& c);
Json observation_to_json(const Observation& observation, const Case& c);

/// "Output out_1 is reversed", with the outputs' ids.
std::string fault_text(const Fault& fault, const Case& c);
/// "Reverse output out_1".
std::string remedy_text(const Fault& fault, const Case& c);
/// "Right stick right in manual", "roll the model right in rate".
std::string observation_text(const Observation& observation, const Case& c);

}  // namespace rigging::direction

namespace rigging {

template <>
struct Names<direction::FaultKind> {
  using K = direction::FaultKind;
  static constexpr std::array<std::pair<K, std::string_view>, 10> list{
      {{K::output_reversed, "output_reversed"},
       {K::leads_swapped, "leads_swapped"},
       {K::mix_sign_wrong, "mix_sign_wrong"},
       {K::transmitter_reversed, "transmitter_reversed"},
       {K::transmitter_swapped, "transmitter_swapped"},
       {K::gyro_reversed, "gyro_reversed"},
       {K::board_turned, "board_turned"},
       {K::output_dead, "output_dead"},
       {K::linkage_opposed, "linkage_opposed"},
       {K::function_reversed, "function_reversed"}}};
};

template <>
struct Names<direction::Act> {
  using A = direction::Act;
  static constexpr std::array<std::pair<A, std::string_view>, 4> list{
      {{A::stick, "stick"}, {A::drive, "drive"}, {A::tilt, "tilt"}, {A::inspect, "inspect"}}};
};

}  // namespace rigging
