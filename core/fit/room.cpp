#include "fit/room.h"

#include "base/alignment.h"
#include "power/network.h"

namespace rigging {

std::optional<Point> size_of(const Rig& rig, const Catalogue& catalogue, const std::string& part, const Turn& turn) {
  Point mm;
  if (part == "controller") {
    const ControllerClass* c = catalogue.controller(rig.controller.kind);
    if (!c) return std::nullopt;
    mm = Point(c->length_mm, c->width_mm, c->height_mm);
  } else {
    const PartKind* k = kind_of(rig, catalogue, part);
    if (!k || !k->length_mm || !k->width_mm || !k->height_mm) return std::nullopt;
    mm = Point(*k->length_mm, *k->width_mm, *k->height_mm);
  }
  // What sits turned has its sides exchanged.
  return Point((alignment_matrix(turn) * mm).cwiseAbs() / 1000);
}

std::optional<PartRoom> room_of(const Rig& rig, const Catalogue& catalogue, const std::string& part) {
  const Mounting* place = rig.mounting(part);
  if (!place) return std::nullopt;
  const auto size = size_of(rig, catalogue, part, place->turn);
  if (!size) return std::nullopt;
  const Point middle(place->x_m, place->y_m, place->z_m);
  return PartRoom{middle - *size / 2, middle + *size / 2};
}

}  // namespace rigging
