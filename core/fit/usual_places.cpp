#include "fit/usual_places.h"

#include <algorithm>
#include <cmath>

#include "airframe/airframe.h"
#include "airframe/body.h"
#include "airframe/kinds.h"
#include "fit/fit.h"
#include "fit/free_room.h"

namespace rigging {
namespace {

constexpr double board_behind_battery_m = 0.05;
constexpr double least_frame_share = 0.3;

/// Where a bare airframe usually balances, behind a quarter of the mean chord and in mean chords: a tail pulls it back,
/// a foreplane forward (from memory, ±0.2).
double bare_frame_chords(AirframeKind kind) { return has_foreplane(kind) ? -0.15 : has_tail(kind) ? 0.4 : 0.1; }

/// Where everything of one rig belongs.
class Belongs {
 public:
  Belongs(Rig& rig, const Catalogue& catalogue, bool again)
      : rig_(rig), catalogue_(catalogue), airframe_(analyze_airframe(rig)), planform_(planform_of(rig.airframe)) {
    for (const Part& p : rig.parts)
      if (again || !rig.mounting(p.id)) open_.push_back(p.id);
    if (again || !rig.mounting("controller")) open_.emplace_back("controller");
  }

  bool anything() const { return !open_.empty(); }

  void carry_out() {
    // The battery's place follows from all the others, and they make room for it: a second round settles it.
    std::optional<double> battery_x;
    for (int round = 0; round < 3; ++round) {
      FreeRoom places(rig_, catalogue_, open_);
      all(places, battery_x);
      const auto wanted = balance_x();
      if (!wanted || (battery_x && std::abs(*wanted - *battery_x) < 0.003)) break;
      battery_x = wanted;
    }
  }

 private:
  bool is_open(const std::string& id) const { return std::find(open_.begin(), open_.end(), id) != open_.end(); }

  PartGroup group(const std::string& id) const {
    const PartKind* k = kind_of(rig_, catalogue_, id);
    return k ? k->group : PartGroup::other;
  }
  std::vector<std::string> of(PartGroup g) const {
    std::vector<std::string> ids;
    for (const std::string& id : open_)
      if (id != "controller" && group(id) == g) ids.push_back(id);
    return ids;
  }
  double kg_of(const Part& p) const { return mass_of(p, catalogue_).value_or(0); }
  Point size(const std::string& id) const {
    return size_of(rig_, catalogue_, id, Turn{}).value_or(Point(0.02, 0.02, 0.01));
  }
  double end_x() const { return -body_of(rig_.airframe).length_m; }

  void drive(FreeRoom& places) {
    std::vector<Point> hubs;
    for (const Panel& p : airframe_.panels)
      if (p.part == Panel::Part::propeller) hubs.push_back(p.hinge_a);
    const double aft = propeller_pushes(rig_.airframe) ? 1 : -1;  // from the hub to the motor
    const auto motors = of(PartGroup::motor), propellers = of(PartGroup::propeller),
               controllers = of(PartGroup::speed_controller);
    const auto hub = [&](const std::string& id, std::size_t i) -> std::optional<Point> {
      if (hubs.empty()) return std::nullopt;
      const Part* p = rig_.part(id);
      if (p && p->surface && hubs.size() == 2) return hubs[p->surface->side == Side::right ? 1 : 0];
      return hubs[std::min(i, hubs.size() - 1)];
    };
    for (std::size_t i = 0; i < motors.size(); ++i)
      if (const auto h = hub(motors[i], i))
        places.put(motors[i], *h + Point(aft * (0.01 + size(motors[i]).x() / 2), 0, 0));
    for (std::size_t i = 0; i < propellers.size(); ++i)
      if (const auto h = hub(propellers[i], i)) places.put(propellers[i], *h);
    for (std::size_t i = 0; i < controllers.size(); ++i) {
      const double motor = i < motors.size() ? size(motors[i]).x() : 0.03, own = size(controllers[i]).x();
      const auto h = hub(controllers[i], i);
      if (h && hubs.size() == 2)
        places.put(controllers[i], *h + Point(aft * (0.01 + motor + 0.015 + own / 2), 0, 0));
      else
        places.settle(controllers[i], h ? Point(h->x() + aft * (0.025 + motor + own / 2), 0, 0) : Point(-0.1, 0, 0),
                      false);
    }
  }

  void servos(FreeRoom& places) {
    for (const std::string& id : of(PartGroup::servo)) {
      const Part* part = rig_.part(id);
      const Point own = size(id);
      const Panel* panel = nullptr;
      if (part->surface)
        for (const Panel& p : airframe_.panels)
          if (p.surface && *p.surface == static_cast<const Surface&>(*part->surface) && !panel) panel = &p;
      const double behind_wing = planform_.wing.root.x() - planform_.wing.root_chord_m - 0.01 - own.x() / 2;
      if (!panel) {
        places.settle(id, {behind_wing, 0, 0}, false);
        continue;
      }
      const Point hinge = (panel->hinge_a + panel->hinge_b) / 2;
      const SurfaceKind kind = part->surface->kind;
      const bool wing = panel->part == Panel::Part::wing;
      const bool on_boom =
          rig_.airframe.kind == AirframeKind::flaperons_inverted_v_tail && panel->part == Panel::Part::tail;
      const bool in_fin = kind == SurfaceKind::rudder && part->surface->side != Side::single;
      if (wing || on_boom || in_fin) {
        // Ahead of the hinge by the length of a short rod.
        const double side = hinge.y() < 0 ? -1 : 1;
        const double y = on_boom  ? side * std::max(std::abs(panel->hinge_a.y()), std::abs(panel->hinge_b.y()))
                         : in_fin ? hinge.y() - side * (own.y() / 2 + 0.012)
                                  : hinge.y();
        const Point at(hinge.x() + 0.012 + own.x() / 2, y, wing ? hinge.z() : on_boom ? 0 : planform_.wing.tip.z());
        if (wing)
          places.settle(id, at, true);
        else
          places.put(id, at);
      } else if (kind == SurfaceKind::canard) {
        places.settle(id, {hinge.x() - 0.03 - own.x() / 2, 0, 0}, false);
      } else {
        places.settle(id, {behind_wing, part->surface->side == Side::left ? -0.01 : 0.01, 0}, false);
      }
    }
  }

  /// The target of the balance point, behind the nose as x.
  double target_x() const {
    const double margin = rig_.fit.static_margin;
    return -(airframe_.neutral_point.value - margin * airframe_.mean_chord.value);
  }

  /// Between battery and motor, where the thick leads run, for something so long.
  double power_x(const std::vector<std::string>& batteries, bool behind, double length) const {
    const Mounting* b = batteries.empty() ? nullptr : rig_.mounting(batteries.front());
    if (!b) return behind ? 0.6 * end_x() : 0.6 * target_x();
    const double off = size(batteries.front()).x() / 2 + 0.02 + length / 2;
    return std::clamp(b->x_m + (behind ? -off : off), end_x(), 0.0);
  }

  void all(FreeRoom& places, std::optional<double> battery_x) {
    const bool behind = propeller_behind(rig_.airframe);
    const double end = end_x(), target = target_x();
    drive(places);
    for (const std::string& id : of(PartGroup::camera))
      places.settle(id,
                    {behind || rig_.airframe.kind == AirframeKind::towed_glider ? -size(id).x() / 2
                                                                                : 0.75 * planform_.wing.root.x(),
                     0, behind ? 0 : -0.03},
                    false);
    const auto batteries = of(PartGroup::battery);
    for (const std::string& id : batteries)
      places.settle(id, {battery_x.value_or(behind ? 0.25 * end : 0.5 * target), 0, 0}, false);
    if (is_open("controller")) {
      // Near the balance point, but not on the battery's leads.
      double x = target;
      for (const std::string& id : batteries)
        if (const Mounting* b = rig_.mounting(id)) {
          const double clear = size(id).x() / 2 + board_behind_battery_m +
                               size_of(rig_, catalogue_, "controller", Turn{}).value_or(Point(0.04, 0, 0)).x() / 2;
          if (std::abs(x - b->x_m) < clear) x = b->x_m - clear;
        }
      places.settle("controller", {x, 0, 0}, false);
    }
    servos(places);
    const Mounting* board = rig_.mounting("controller");
    const double board_x = board ? board->x_m : target,
                 board_half = size_of(rig_, catalogue_, "controller", Turn{}).value_or(Point(0.04, 0.03, 0.01)).x() / 2;
    const bool room_behind =
        has_tail(rig_.airframe.kind) && rig_.airframe.kind != AirframeKind::flaperons_inverted_v_tail;
    for (const std::string& id : of(PartGroup::video_transmitter)) {
      const PartKind* k = kind_of(rig_, catalogue_, id);
      const bool with_camera = k && !k->terminal("video");
      if (with_camera)
        places.settle(id, {-size(id).x() / 2, 0, 0}, false);
      else
        places.settle(id, point_in_wing(planform_.wing, -1, 0.4, 0.45), true);
    }
    for (const PartGroup g : {PartGroup::satellite_receiver, PartGroup::compass})
      for (const std::string& id : of(g)) {
        const double back = planform_.wing.root.x() - planform_.wing.root_chord_m - 0.12 - size(id).x() / 2;
        if (room_behind) {
          const auto section = body_at(rig_.airframe, back);
          places.settle(id, {back, 0, section ? -(section->half_height_m - size(id).z() / 2) : 0}, false);
        } else {
          places.settle(id, point_in_wing(planform_.wing, 1, g == PartGroup::compass ? 0.55 : 0.42, 0.4), true);
        }
      }
    for (const std::string& id : of(PartGroup::airspeed))
      places.settle(id, point_in_wing(planform_.wing, 1, 0.62, 0.2), true);
    for (const std::string& id : of(PartGroup::receiver))
      places.settle(id, {board_x - board_half - 0.015 - size(id).x() / 2, 0, 0}, false);
    for (const std::string& id : of(PartGroup::power_module))
      places.settle(id, {power_x(batteries, behind, size(id).x()), 0, 0}, false);
    for (const std::string& id : of(PartGroup::regulator))
      places.settle(id, {power_x(batteries, behind, size(id).x()), 0, 0.02}, false);
    for (const std::string& id : open_)
      if (!places.has(id)) places.settle(id, {board_x - board_half - 0.05, 0, 0}, false);
  }

  /// Where the first battery balances it, as x; nothing where masses are missing.
  std::optional<double> balance_x() const {
    std::string battery;
    double parts = 0;
    for (const Part& p : rig_.parts) {
      parts += kg_of(p);
      if (battery.empty() && group(p.id) == PartGroup::battery && is_open(p.id)) battery = p.id;
    }
    const Part* moves = rig_.part(battery);
    const Mounting* place = moves ? rig_.mounting(battery) : nullptr;
    const double own = moves ? kg_of(*moves) : 0;
    if (!place || own <= 0 || (!rig_.fit.frame_mass_kg && !rig_.airframe.mass_kg)) return std::nullopt;
    const HalfSurface& wing = planform_.wing;
    const double flying = rig_.airframe.mass_kg.value_or(0);
    double mass = rig_.fit.frame_mass_kg.value_or(std::max(least_frame_share * flying, flying - parts));
    double moment = -mass * rig_.fit.frame_at_m.value_or(wing.quarter_chord_m() +
                                                         bare_frame_chords(rig_.airframe.kind) * wing.mean_chord_m());
    const auto add = [&](const std::string& id, double kg) {
      if (const Mounting* p = rig_.mounting(id)) mass += kg, moment += kg * p->x_m;
    };
    if (const ControllerClass* c = catalogue_.controller(rig_.controller.kind)) add("controller", c->mass_kg);
    for (const Part& p : rig_.parts) add(p.id, kg_of(p));
    const double to = place->x_m + (target_x() * mass - moment) / own;
    const double half = size(battery).x() / 2;
    return std::clamp(to, end_x() + half, -half - 0.005);
  }

  Rig& rig_;
  const Catalogue& catalogue_;
  AirframeReport airframe_;
  Planform planform_;
  std::vector<std::string> open_;
};

/// What stays when two are in one place: the higher.
int firmness(const Rig& rig, const Catalogue& catalogue, const std::string& id) {
  if (id == "controller") return 80;
  const PartKind* k = kind_of(rig, catalogue, id);
  switch (k ? k->group : PartGroup::other) {
    case PartGroup::motor:
    case PartGroup::propeller: return 100;
    case PartGroup::battery: return 90;
    case PartGroup::servo: return 70;
    case PartGroup::speed_controller: return 60;
    case PartGroup::camera: return 50;
    case PartGroup::satellite_receiver:
    case PartGroup::compass: return 40;
    default: return 10;
  }
}

}  // namespace

Result<Edit> place_parts(const Rig& rig, const Catalogue& catalogue, bool again) {
  Edit edit{rig, again ? "Everything where its kind belongs" : "Placed where their kind belongs"};
  Belongs belongs(edit.rig, catalogue, again);
  if (!belongs.anything()) return failure("the parts", "all have a place", "a part without one");
  belongs.carry_out();
  return edit;
}

Result<Edit> spread_out(const Rig& rig, const Catalogue& catalogue) {
  Edit edit{rig, "Spread out"};
  constexpr std::size_t most_moves = 100;  // more is no slip that a fix could mend
  struct Box {
    std::string part;
    PartRoom room;
    int firm;
    std::size_t in_the_way = 0;  ///< of how many others
  };
  std::vector<Box> boxes;
  const auto add = [&](const std::string& id) {
    if (const auto room = room_of(rig, catalogue, id)) boxes.push_back({id, *room, firmness(rig, catalogue, id)});
  };
  add("controller");
  for (const Part& p : rig.parts) add(p.id);
  /// Counts the box in or out with all others.
  std::size_t pairs = 0;
  const auto count = [&](Box& b, bool in) {
    for (Box& other : boxes)
      if (&other != &b && b.room.overlap(other.room) > least_overlap_m) {
        in ? (++other.in_the_way, ++b.in_the_way, ++pairs) : (--other.in_the_way, --b.in_the_way, --pairs);
      }
  };
  for (std::size_t i = 0; i < boxes.size(); ++i)
    for (std::size_t k = i + 1; k < boxes.size(); ++k)
      if (boxes[i].room.overlap(boxes[k].room) > least_overlap_m) ++boxes[i].in_the_way, ++boxes[k].in_the_way, ++pairs;
  if (pairs == 0) return failure("the parts", "overlap nowhere", "two that do");
  const std::size_t before = pairs;
  for (std::size_t turns = 0; turns < std::min(2 * rig.parts.size(), most_moves) && pairs > 0; ++turns) {
    // The one that moves most easily of all that are in somebody's way.
    Box* easiest = nullptr;
    for (Box& b : boxes)
      if (b.in_the_way > 0 && (!easiest || b.firm < easiest->firm)) easiest = &b;
    const std::string& moves = easiest->part;
    const Mounting now = *edit.rig.mounting(moves);
    FreeRoom places(edit.rig, catalogue, {moves});
    const Point at = point_of(now);
    const auto section = body_at(rig.airframe, at.x());
    const bool in_wing = !section || std::abs(at.y()) > section->half_width_m;
    if (!places.settle(moves, at, in_wing) && !places.settle(moves, at, !in_wing)) break;
    count(*easiest, false);
    easiest->room = *room_of(edit.rig, catalogue, moves);
    count(*easiest, true);
  }
  if (pairs >= before)
    return failure("the parts", "find no room inside of the outline", "a smaller part, or a wider body");
  return edit;
}

}  // namespace rigging
