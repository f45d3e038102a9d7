#pragma once

#include <QtGlobal>
#include <vector>

#include "hands/hands.h"

namespace rigging::app {

/// The last move of the model from rest to rest, to be looked at again: a hand-flick is over before the eye has found
/// the surface. Times in milliseconds of any clock.
class LastMove {
 public:
  void see(qint64 ms, const hands::Sight& sight);
  /// Whether a whole move is remembered.
  bool any() const { return !kept_.empty(); }
  /// What was seen so long after the move began; null when it is over.
  const hands::Sight* at(qint64 ms) const;

 private:
  struct Seen {
    qint64 ms = 0;
    hands::Sight sight;
  };
  std::vector<Seen> current_, kept_;
  qint64 moved_ms_ = 0;
  bool moving_ = false;
};

}  // namespace rigging::app
