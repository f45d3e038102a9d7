#pragma once

#include "base/station.h"
#include "catalogue/catalogue.h"
#include "rig/rig.h"

/// Bench checks of every station as one kind of thing: a family says when it is needed, what it depends on, whether
/// what was read passes, and what its card says. A proof stands as long as what it depended on does.
namespace rigging {

/// What a family looks at. `controller` is null when the catalogue does not have the class.
struct CheckContext {
  const Rig& rig;
  const Catalogue& catalogue;
  const ControllerClass* controller;

  CheckContext(const Rig& r, const Catalogue& c) : rig(r), catalogue(c), controller(c.controller(r.controller.kind)) {}
};

/// What to do on the bench, and what should be seen.
struct CheckCard {
  std::string title;
  std::string before_power;  ///< to look at with everything dark; may be empty
  std::string todo;
  std::string expected;
  std::string how;  ///< how it shows; may be empty
  std::vector<std::string> cautions;
};

struct CheckFamily {
  std::string id;                          ///< "stick", "lead", "sticks.calibrated"
  Station station = Station::proof;        ///< where it is done
  std::optional<Station> counts_for = {};  ///< another station that is proven only with it
  bool until_mounted = true;               ///< only provisional while the board lies loose
  bool by_station = false;                 ///< its own station records it, not a look at the card
  bool grouped = false;                    ///< several of them make one line where checks are listed
  bool guides = false;                     ///< a step on the way: nothing waits for it
  bool outside = false;                    ///< done under the open sky, away from iron
  bool read_back = false;                  ///< of settings alone: a link that reads them back has seen it
  std::string name = {};                   ///< short, of a family of one: "Sticks calibrated"
  std::string one = {}, many = {};         ///< "direction", "directions": for counting them
  /// What of the rig must be checked; one empty text for a family of one.
  std::vector<std::string> (*subjects)(const CheckContext&) = nullptr;
  /// Places of the document.
  std::vector<std::string> (*depends_on)(const CheckContext&, const std::string& subject) = nullptr;
  CheckCard (*card)(const CheckContext&, const std::string& subject) = nullptr;
  /// One sentence when what was read does not pass; empty when it does. Null: only eyes and hands can say.
  std::string (*why_not)(const CheckContext&, const std::string& subject) = nullptr;
};

/// A family of one check that rests on what was read at its station.
CheckFamily reading_family(const CheckId& id, Station station, std::string name);

/// In the order that builders keep. Each station brings its own (review/stations.cpp).
std::vector<const CheckFamily*> check_families();
const CheckFamily* family_of(const CheckId& id);

enum class ProofState { none, provisional, fresh, stale };

struct CheckStatus {
  CheckId id;
  const CheckFamily* family = nullptr;
  std::string title;
  ProofState state = ProofState::none;
  std::string at;
  std::vector<std::string> changes;  ///< since it was proven, each a sentence without its stop; only when stale
  bool holds = true;                 ///< what was read passes now
  std::string why_not;               ///< one sentence when it does not

  bool stands() const { return state == ProofState::fresh || state == ProofState::provisional; }
  /// The changes in one line: "…; …".
  std::string because() const;
};

/// Every check that this rig needs, in the order of the families.
std::vector<CheckStatus> check_statuses(const Rig& rig, const Catalogue& catalogue);
/// One of them, or null.
const CheckStatus* find_check(const std::vector<CheckStatus>& checks, const CheckId& id);
/// The id that this text is of a check in the list, or null: "stick.roll".
const CheckStatus* find_check(const std::vector<CheckStatus>& checks, const std::string& text);

/// The rig with the check recorded as passed at `at` (ISO 8601, UTC); provisional while the board is loose, where that
/// matters. Refused when the rig does not need such a check, or when what was read does not pass.
Result<Rig> with_proof(Rig rig, const Catalogue& catalogue, const CheckId& id, const std::string& at, bool simulated);

/// The rig without the proofs of this family, of one subject when it is given.
Rig without_proofs(Rig rig, const std::string& family, const std::string& subject = {});

CheckCard card_of(const CheckContext& context, const CheckId& id);

}  // namespace rigging

namespace rigging {
template <>
struct Names<ProofState> {
  static constexpr std::array<std::pair<ProofState, std::string_view>, 4> list{
      {{ProofState::none, "none"},
       {ProofState::provisional, "provisional"},
       {ProofState::fresh, "fresh"},
       {ProofState::stale, "stale"}}};
};
}  // namespace rigging
