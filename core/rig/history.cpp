#include "rig/history.h"

namespace rigging {

const std::string& History::next_edit() const {
  static const std::string none;
  return can_redo() ? steps_[at_ + 1].label : none;
}

void History::edit(Rig rig, std::string label) {
  if (rig == now()) return;
  steps_.resize(at_ + 1);
  steps_.push_back({std::move(rig), std::move(label)});
  ++at_;
}

void History::reset(Rig rig) {
  steps_.clear();
  steps_.push_back({std::move(rig), {}});
  at_ = 0;
}

}  // namespace rigging
