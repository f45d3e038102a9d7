#pragma once

#include <string>
#include <vector>

#include "rig/rig.h"

namespace rigging {

/// All values that the document has had. Undo has no limit; a rig is a few kilobytes.
class History {
 public:
  explicit History(Rig start = {}) { reset(std::move(start)); }

  const Rig& now() const { return steps_[at_].rig; }
  bool can_undo() const { return at_ > 0; }
  bool can_redo() const { return at_ + 1 < steps_.size(); }
  /// What the last edit did, or what redo would do again; empty if there is none.
  const std::string& last_edit() const { return steps_[at_].label; }
  const std::string& next_edit() const;

  /// Ignored if nothing changes. Drops what had been undone.
  void edit(Rig rig, std::string label);
  void undo() { at_ -= can_undo() ? 1 : 0; }
  void redo() { at_ += can_redo() ? 1 : 0; }
  void reset(Rig rig);

 private:
  struct Step {
    Rig rig;
    std::string label;
  };
  std::vector<Step> steps_;
  std::size_t at_ = 0;
};

}  // namespace rigging
