#pragma once

#include "catalogue/catalogue.h"
#include "direction/case.h"
#include "rig/rig.h"

/// The bench checks of a rig, what each should show, and whether its proof still stands.
namespace rigging {

enum class CheckKind { stick, correction };

struct Check {
  std::string id;  ///< "stick.roll", "correction.yaw"
  CheckKind kind = CheckKind::stick;
  Axis axis = Axis::roll;
  std::string title;
};

/// What is seen on one surface if all is well.
struct Expected {
  Surface surface;
  int motion = 0;  ///< as in `required_direction`
};

/// One check as it is done on the bench.
struct CheckCard {
  Check check;
  direction::Observation observation;  ///< what to do
  std::string todo;                    ///< the same in one sentence
  std::vector<Expected> expected;      ///< only surfaces that should move
  AnswerKind answer = AnswerKind::held;
  double from_deg = 0;
  std::string how;  ///< how the movement shows with this class and mode: momentary, held, only past 45°…
  std::vector<std::string> cautions;
};

enum class ProofState { none, provisional, fresh, stale };

struct CheckStatus {
  Check check;
  ProofState state = ProofState::none;
  std::string at;
  /// What changed since, in words; only when stale.
  std::string because;
};

/// Sticks first, then corrections, axis by axis; only axes that some surface answers.
std::vector<Check> needed_checks(const Rig& rig, const ControllerClass& controller);

CheckCard card_of(const Rig& rig, const ControllerClass& controller, const Check& check);

/// What the check depends on, in words, one line per thing. The proof's fingerprint is made of exactly these lines.
std::vector<std::string> dependencies(const Rig& rig, const Check& check);
std::string fingerprint(const Rig& rig, const Check& check);

/// How one proof stands against what it depends on now.
struct Standing {
  ProofState state = ProofState::none;
  std::string at;
  std::string because;  ///< what changed, when stale
};
Standing standing(const Rig& rig, const std::string& check_id, const std::vector<std::string>& now);
/// The rig with a check recorded as passed at `at`, depending on these lines.
Rig recorded(Rig rig, const std::string& check_id, const std::vector<std::string>& depends_on, const std::string& at,
             bool simulated, bool provisional);

std::vector<CheckStatus> check_statuses(const Rig& rig, const ControllerClass& controller);

/// The rig with the check recorded as passed at `at` (ISO 8601, UTC); provisional while the board is loose.
Rig proven(Rig rig, const Check& check, const std::string& at, bool simulated);

}  // namespace rigging

namespace rigging {
template <>
struct Words<ProofState> {
  static constexpr std::array<std::pair<ProofState, std::string_view>, 4> list{
      {{ProofState::none, "none"},
       {ProofState::provisional, "provisional"},
       {ProofState::fresh, "fresh"},
       {ProofState::stale, "stale"}}};
};
}  // namespace rigging
