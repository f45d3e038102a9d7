#include "fit/free_room.h"

#include <algorithm>
#include <cmath>

#include "airframe/body.h"
#include "fit/fit.h"

namespace rigging {
namespace {

constexpr double between_m = 0.003;  // least air between two parts
constexpr double step_m = 0.005;     // of the search
constexpr double of_section = 0.92;  // that boxes may fill of an oval section
constexpr double video_to_satellites_m = 0.12, video_to_receiver_m = 0.1, iron_to_compass_m = 0.07;  // with some room

/// What something must keep clear of.
bool keeps_clear(PartGroup a, bool a_compass, PartGroup b, bool b_compass, double distance_m) {
  const auto pair = [&](PartGroup x, PartGroup y) { return (a == x && b == y) || (a == y && b == x); };
  const auto iron = [](PartGroup g) {
    return g == PartGroup::motor || g == PartGroup::buzzer || g == PartGroup::servo ||
           g == PartGroup::speed_controller || g == PartGroup::battery || g == PartGroup::power_module;
  };
  if (pair(PartGroup::video_transmitter, PartGroup::satellite_receiver)) return distance_m >= video_to_satellites_m;
  if (pair(PartGroup::video_transmitter, PartGroup::receiver)) return distance_m >= video_to_receiver_m;
  if ((a_compass && iron(b)) || (b_compass && iron(a))) return distance_m >= iron_to_compass_m;
  return true;
}

}  // namespace

FreeRoom::FreeRoom(Rig& rig, const Catalogue& catalogue, const std::vector<std::string>& open)
    : rig_(rig), catalogue_(catalogue), wing_(planform_of(rig.airframe).wing) {
  for (const Mounting& p : rig.mountings)
    if (std::find(open.begin(), open.end(), p.part) == open.end()) note(p.part);
}

void FreeRoom::put(const std::string& id, Point at) {
  Mounting* p = rig_.mounting(id);
  if (!p) {
    p = &rig_.mountings.emplace_back();
    p->part = id;
  }
  const auto mm = [](double v) { return std::round(v * 1000) / 1000; };
  p->x_m = mm(at.x()), p->y_m = mm(at.y()), p->z_m = mm(at.z());
  note(id);
}

bool FreeRoom::settle(const std::string& id, Point wished, bool in_wing) {
  const auto size = size_of(rig_, catalogue_, id, turn_of(id));
  if (!size) {
    put(id, wished);
    return true;
  }
  std::optional<Point> best;
  double best_cost = 1e9;
  const auto look = [&](Point at) {
    const double cost =
        std::abs(at.x() - wished.x()) + 0.8 * std::abs(at.y() - wished.y()) + 0.6 * std::abs(at.z() - wished.z());
    if (cost >= best_cost || !fits(*size, at, in_wing) || !free(id, *size, at)) return;
    best_cost = cost;
    best = at;
  };
  const double reach = in_wing ? 0.4 * rig_.airframe.span_m : rig_.airframe.length_m;
  for (double off = 0; off <= reach; off += step_m)
    for (const double sign : {1.0, -1.0}) {
      if (off > best_cost) break;
      if (in_wing) {
        // Along the span, and a little along the chord.
        for (double along = -0.06; along <= 0.06; along += 0.01)
          look({wished.x() + along, wished.y() + sign * off, wished.z()});
      } else {
        const double x = wished.x() + sign * off;
        const auto section = body_at(rig_.airframe, x);
        if (!section) continue;
        const double y = std::max(0.0, of_section * section->half_width_m - size->y() / 2),
                     z = std::max(0.0, of_section * section->half_height_m - size->z() / 2);
        for (const double share_y : {0.0, 0.5, -0.5, 1.0, -1.0})
          for (const double share_z : {0.0, 0.5, -0.5, 1.0, -1.0})
            look({x, share_y * y, section->below_m + share_z * z});
        look({x, wished.y(), wished.z()});
      }
    }
  put(id, best.value_or(wished));
  return best.has_value();
}

Turn FreeRoom::turn_of(const std::string& id) const {
  const Mounting* p = rig_.mounting(id);
  return p ? static_cast<Turn>(p->turn) : Turn{};
}

std::pair<PartGroup, bool> FreeRoom::nature(const std::string& id) const {
  const PartKind* k = kind_of(rig_, catalogue_, id);
  return {k ? k->group : PartGroup::other, k && k->magnetic_sensor};
}

void FreeRoom::note(const std::string& id) {
  const auto [group, compass] = nature(id);
  if (const auto room = room_of(rig_, catalogue_, id))
    placed_[id] = {*room, group, compass};
  else if (const Mounting* p = rig_.mounting(id))
    placed_[id] = {{point_of(*p), point_of(*p)}, group, compass};
}

bool FreeRoom::free(const std::string& id, const Point& size, const Point& at) const {
  const auto [group, compass] = nature(id);
  const PartRoom room{at - size / 2, at + size / 2};
  const PartRoom wide{room.least - Point::Constant(between_m), room.most + Point::Constant(between_m)};
  return std::all_of(placed_.begin(), placed_.end(), [&, group = group, compass = compass](const auto& entry) {
    const Placed& o = entry.second;
    if (entry.first == id) return true;
    if (o.room.least != o.room.most && wide.overlap(o.room) > 0) return false;
    return keeps_clear(group, compass, o.group, o.compass, (at - o.room.middle()).norm());
  });
}

bool FreeRoom::fits(const Point& size, const Point& at, bool in_wing) const {
  if (in_wing) {
    const HalfSurface& w = wing_;
    const double half = std::abs(w.tip.y()), y = std::abs(at.y());
    if (y - size.y() / 2 < 0 || y + size.y() / 2 > 0.98 * half) return false;
    const double share = y / half, le = std::lerp(w.root.x(), w.tip.x(), share),
                 chord = std::lerp(w.root_chord_m, w.tip_chord_m, share);
    return at.x() + size.x() / 2 <= le && at.x() - size.x() / 2 >= le - chord * (1 - 0.5 * rig_.airframe.surface_chord);
  }
  for (const double end : {at.x() + size.x() / 2, at.x() - size.x() / 2}) {
    const auto section = body_at(rig_.airframe, end);
    if (!section || std::abs(at.y()) + size.y() / 2 > section->half_width_m ||
        std::abs(at.z() - section->below_m) + size.z() / 2 > section->half_height_m)
      return false;
  }
  return true;
}

Point point_in_wing(const HalfSurface& wing, double side, double share, double along) {
  const Point edge = mix(wing.root, wing.tip, share);
  return {edge.x() - along * std::lerp(wing.root_chord_m, wing.tip_chord_m, share), side * std::abs(edge.y()),
          edge.z()};
}

}  // namespace rigging
