#pragma once

#include "direction/direction_checks.h"
#include "direction/from_rig.h"
#include "direction/reason.h"

namespace rigging {

/// One sitting at the bench: what was seen so far and what follows from it. Plain value; an edit of the rig starts the
/// looks anew, since they were made on another configuration.
class BenchSession {
 public:
  BenchSession() = default;
  BenchSession(const Rig& rig, const ControllerClass& controller);

  /// Adds a look and reasons again.
  void add(direction::Observation observation);
  /// What is known without a look of this sitting, such as leads that were proven; in place of what was known before.
  void know(std::optional<direction::Observation> known);
  /// Takes back the looks that contradict each other, so that they can be made again.
  void drop_contradictions();
  void take_back_last();
  void forget();

  const direction::Case& looks() const { return case_; }
  const direction::Diagnosis& answer() const { return answer_; }
  bool anything_seen() const { return looks_made() > 0; }
  std::size_t looks_made() const { return case_.observations.size() - known_; }
  /// Something is wrong for sure: the plainest account of what was seen needs at least one fault.
  bool wrong() const;
  /// Wrong, and clear what to do.
  bool diagnosed() const { return wrong() && answer_.settled; }

 private:
  void reason();

  direction::Case case_;
  std::size_t known_ = 0;  ///< so many of the observations, the first ones, are known without a look
  direction::Diagnosis answer_;
};

/// True if every surface of the card that was looked at moved as it should, and all of them were.
bool as_expected(const DirectionCard& card, const direction::Observation& seen);

/// The rig with everything undone that the explanation names, and which of its remedies still need hands.
struct RepairedRig {
  Rig rig;
  std::vector<direction::Fault> by_hand;
  std::string label;  ///< for the undo list
};
RepairedRig repaired(const Rig& rig, const ControllerClass& controller, const direction::Case& c,
                     const direction::Explanation& explanation);

}  // namespace rigging
