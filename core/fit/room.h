#pragma once

#include "catalogue/catalogue.h"

namespace rigging {

/// The room that something takes in the model, along the body axes, metres.
struct PartRoom {
  Point least, most;
  Point middle() const { return (least + most) / 2; }
  /// By how much two overlap on the axis on which they do least; 0 or less where they are apart.
  double overlap(const PartRoom& other) const {
    return (most.cwiseMin(other.most) - least.cwiseMax(other.least)).minCoeff();
  }
};

/// Less is how parts are measured and put.
inline constexpr double least_overlap_m = 0.0005;

/// Length, width and height of a part, or of the "controller", as it sits with this turn; nothing where the catalogue
/// has no sizes.
std::optional<Point> size_of(const Rig& rig, const Catalogue& catalogue, const std::string& part, const Turn& turn);
/// Of what has a place and a size.
std::optional<PartRoom> room_of(const Rig& rig, const Catalogue& catalogue, const std::string& part);

}  // namespace rigging
