#pragma once

#include <map>

#include "airframe/planform.h"
#include "fit/room.h"

namespace rigging {

/// Free room in a model for parts that are being placed: in the body as it is drawn, or in the wing; nothing overlaps,
/// and what disturbs one another keeps apart (common practice, with some room).
class FreeRoom {
 public:
  /// Of what is `open` nothing is in the way until it is put somewhere.
  FreeRoom(Rig& rig, const Catalogue& catalogue, const std::vector<std::string>& open);

  bool has(const std::string& id) const { return placed_.count(id) > 0; }
  /// At its own place, whatever is there already.
  void put(const std::string& id, Point at);
  /// The nearest free spot in the body, or in the wing (`in_wing`: on that side). The wished-for one, and false, when
  /// there is none.
  bool settle(const std::string& id, Point wished, bool in_wing);

 private:
  struct Placed {
    PartRoom room;
    PartGroup group = PartGroup::other;
    bool compass = false;
  };
  Turn turn_of(const std::string& id) const;
  std::pair<PartGroup, bool> nature(const std::string& id) const;
  void note(const std::string& id);
  bool free(const std::string& id, const Point& size, const Point& at) const;
  bool fits(const Point& size, const Point& at, bool in_wing) const;

  Rig& rig_;
  const Catalogue& catalogue_;
  HalfSurface wing_;
  std::map<std::string, Placed> placed_;
};

/// In the wing at a share of the half span, `along` of the chord behind its leading edge; `side` 1 right, −1 left.
Point point_in_wing(const HalfSurface& wing, double side, double share, double along);

}  // namespace rigging
