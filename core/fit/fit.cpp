#include "fit/fit.h"

#include <Eigen/Geometry>
#include <algorithm>
#include <cmath>
#include <numbers>
#include <set>

#include "airframe/airframe.h"
#include "base/alignment.h"
#include "base/angle.h"
#include "base/number.h"
#include "base/units.h"
#include "fit/compass.h"
#include "fit/outside.h"
#include "fit/room.h"
#include "fit/to_get.h"

namespace rigging {

BalanceSide Balance::side() const {
  constexpr double on_it_m = 1e-6;
  return !complete                                      ? BalanceSide::unknown
         : balance_point.value > band_back_m + on_it_m  ? BalanceSide::tail_heavy
         : balance_point.value < band_front_m - on_it_m ? BalanceSide::nose_heavy
                                                        : BalanceSide::holds;
}

namespace {

constexpr double nose_weight_at_m = 0.03;  // as far forward as a nose usually lets one
constexpr double margin_spread = 0.05;     // allowed either side of the wanted static margin, common practice
constexpr double plug_room_m = 0.012;      // a servo plug and its bend, common practice
constexpr double side_by_side_m = 0.0025;  // centres of two wires of a servo lead
constexpr double battery_pair_m = 0.006;   // of a battery lead
const Turn half_turn{{0, -1}, {2, -1}};    // arrow to the tail, top up

struct Box {
  std::string part, name;
  Eigen::AlignedBox3d room;
};

/// The room of a bay.
Eigen::AlignedBox3d inside(const Bay& bay) {
  return {Point(-bay.at_m - bay.length_m, bay.right_m - bay.width_m / 2, bay.below_m - bay.height_m / 2),
          Point(-bay.at_m, bay.right_m + bay.width_m / 2, bay.below_m + bay.height_m / 2)};
}

std::optional<Box> box_of(const Rig& rig, const Catalogue& catalogue, const std::string& part) {
  const auto room = room_of(rig, catalogue, part);
  if (!room) return std::nullopt;
  return Box{part, part_name(rig, catalogue, part), {room->least, room->most}};
}

/// Copper (8960 kg/m³) of their gauge and length, and as much again a half
/// for insulation, and 0.4 g for the plugs of each (common practice).
double lead_kg(const Lead& l) {
  const double wires =
      l.kind == LeadKind::power                                                                          ? 2
      : l.kind == LeadKind::two_plus_two || l.kind == LeadKind::four_way || l.kind == LeadKind::two_wire ? 4
      : l.kind == LeadKind::six_way                                                                      ? 6
                                                                                                         : 3;
  const double area_m2 = 1.7241e-8 / copper_ohm_per_m(lead_awg(l));
  return 1.5 * 8960 * area_m2 * lead_length_m(l) * wires + 0.0004;
}

/// All leads as one item in their common middle; only those whose ends have a place.
void add_leads(const Rig& rig, Balance& b) {
  double mass = 0;
  Point moment = Point::Zero();
  for (const Lead& l : rig.leads) {
    const Mounting *from = rig.mounting(l.from.part), *to = rig.mounting(l.to.part);
    if (!from || !to) continue;
    const double kg = lead_kg(l);
    mass += kg;
    moment += kg * mix(point_of(*from), point_of(*to), 0.5);
  }
  if (mass <= 0) return;
  MassItem item{"", "leads", mass, moment / mass, true, false};
  b.items.push_back(std::move(item));
}

/// What holds it weighs something, too (from memory): a printed holder has walls of 1.2 mm round base and sides, to six
/// tenths of the height, at 1240 kg/m³; a plate is 1.5 mm of plywood at 680 kg/m³ with four screws of half a gram.
double fixing_kg(Fixing fixing, const Point& size) {
  const double base = size.x() * size.y(), sides = 2 * (size.x() + size.y()) * size.z() * 0.6;
  switch (fixing) {
    case Fixing::holder: return (base + sides) * 0.0012 * 1240;
    case Fixing::plate: return base * 0.0015 * 680 + 4 * 0.0005;
    default: return 0;
  }
}

void weigh(const Rig& rig, const Catalogue& catalogue, const AirframeReport& airframe, Balance& b) {
  const Fit& frame = rig.fit;
  bool all_known = frame.frame_mass_kg && frame.frame_at_m;
  if (frame.frame_mass_kg)
    b.items.push_back({"",
                       "airframe",
                       *frame.frame_mass_kg,
                       {-frame.frame_at_m.value_or(0), frame.frame_side_m, 0},
                       frame.frame_at_m.has_value(),
                       true,
                       true});
  const auto add = [&](const std::string& id, std::optional<double> mass, bool weighed) {
    MassItem item{id, part_name(rig, catalogue, id), mass.value_or(0), {}, false, weighed};
    if (const Mounting* place = rig.mounting(id)) {
      item.at = point_of(*place);
      item.placed = true;
    }
    all_known = all_known && item.placed && mass;
    b.items.push_back(std::move(item));
    if (const auto box = box_of(rig, catalogue, id))
      if (const double kg = fixing_kg(rig.mounting(id)->fixing, box->room.sizes()); kg > 0)
        b.items.push_back({"", "what holds " + part_name(rig, catalogue, id), kg, box->room.center(), true, false});
  };
  if (const ControllerClass* c = catalogue.controller(rig.controller.kind)) add("controller", c->mass_kg, false);
  for (const Part& p : rig.parts) add(p.id, mass_of(p, catalogue), p.mass_kg.has_value());
  add_leads(rig, b);
  b.complete = all_known;
  double total = 0, mass = 0, along = 0, across = 0;  // the mass of what has a place gives the balance
  for (const MassItem& i : b.items) {
    total += i.mass_kg;
    if (i.placed) {
      mass += i.mass_kg;
      along += -i.at.x() * i.mass_kg;
      across += i.at.y() * i.mass_kg;
    }
  }
  const double mac = airframe.mean_chord.value, np = airframe.neutral_point.value, at = mass > 0 ? along / mass : 0;
  b.total = {"Mass",
             total,
             "kg",
             {},
             {},
             "sum of " + std::to_string(b.items.size()) + " items",
             "as weighed or from the catalogue"};
  b.balance_point = {"Balance point behind the nose",
                     at,
                     "m",
                     {},
                     {},
                     number_text(along, 4) + " kg·m / " + number_text(mass, 3) + " kg",
                     "sum of moments about the nose"};
  b.lateral = {"Balance right of the middle",
               mass > 0 ? across / mass : 0,
               "m",
               {},
               {},
               number_text(across, 5) + " kg·m / " + number_text(mass, 3) + " kg",
               "sum of moments about the middle"};
  const double least_np = airframe.neutral_point.least.value_or(np), most_np = airframe.neutral_point.most.value_or(np);
  const auto point = [&](const char* name, double margin, const std::string& how) {
    return Figure{name,
                  np - margin * mac,
                  "m",
                  least_np - margin * mac,
                  most_np - margin * mac,
                  number_text(np, 3) + " m − " + number_text(margin, 3) + " × " + number_text(mac, 3) + " m",
                  how};
  };
  b.wanted = point("Wanted balance point behind the nose", rig.fit.static_margin,
                   "neutral point less the static margin; band of the neutral point");
  b.first_flight = point("Balance point for the first flight", rig.fit.static_margin + rig.fit.first_flight_forward,
                         "slightly forward for the first flight, common practice");
  b.band_front_m = np - (rig.fit.static_margin + margin_spread) * mac;
  b.band_back_m = np - (rig.fit.static_margin - margin_spread) * mac;
  b.static_margin = {"Static margin",
                     mac > 0 ? 100 * (np - at) / mac : 0,
                     "%",
                     {},
                     {},
                     "(" + number_text(np, 3) + " m − " + number_text(at, 3) + " m) / " + number_text(mac, 3) + " m",
                     "definition"};
}

BalanceAdvice advise(const Rig& rig, const Catalogue& catalogue, const Balance& b, double target) {
  BalanceAdvice a;
  const double mass = b.total.value, off = b.balance_point.value - target;
  if (mass <= 0) return a;
  if (!b.complete) {
    a.words = "Not known yet: the bare airframe's mass and balance point, and a mass and a place for every part.";
    return a;
  }
  if (std::abs(off) < 0.001) {
    a.words = "It balances there.";
    return a;
  }
  // Room for the battery: the bay, or nose to tail.
  double front = 0.02, back = rig.airframe.length_m;
  const auto room = [&](const MassItem& battery) {
    const Bay* bay = rig.fit.bay ? &*rig.fit.bay : nullptr;
    if (const auto& second = rig.fit.second_bay; second && (!bay || inside(*second).contains(battery.at)))
      bay = &*second;
    if (!bay) return;
    front = bay->at_m;
    back = front + bay->length_m;
  };
  std::string tried;
  double moved_off = off;
  for (const MassItem& i : b.items) {
    const PartKind* k = kind_of(rig, catalogue, i.part);
    if (!k || k->group != PartGroup::battery || !i.placed || i.mass_kg <= 0) continue;
    room(i);
    // The leads at it come along, with their middle half as far.
    double along_kg = i.mass_kg;
    for (const Lead& l : rig.leads)
      if ((l.from.part == i.part || l.to.part == i.part) && rig.mounting(l.from.part) && rig.mounting(l.to.part))
        along_kg += lead_kg(l) / 2;
    const double now = -i.at.x(), to = now - off * mass / along_kg, half = k->length_mm.value_or(60) / 2000;
    if (to - half >= std::min(front, now - half) && to + half <= std::max(back, now + half)) {
      a.battery_to_m = to;
      a.words = "Move " + i.name + " " + length_text(std::abs(to - now)) + (to < now ? " forward" : " back") +
                ", its middle to " + length_text(to) + " behind the nose.";
      return a;
    }
    // As far as it goes; a weight does the rest.
    const double end = off > 0 ? std::min(front, now - half) + half : std::max(back, now + half) - half;
    if (std::abs(end - now) < 0.003 || std::abs((end - now) * along_kg) < std::abs(off - moved_off) * mass) continue;
    moved_off = off + (end - now) * along_kg / mass;
    a.battery_to_m = end;
    tried = "Move " + i.name + " " + length_text(std::abs(end - now)) + (end < now ? " forward" : " back") +
            ", to the end of its room (its middle " + length_text(end) + " behind the nose), and ";
  }
  const double at = off > 0 ? nose_weight_at_m : rig.airframe.length_m - 0.03;
  if (off > 0 ? target > at + 0.01 : target < at - 0.01) {
    a.weight_kg = mass * moved_off / (target - at);
    a.weight_at_m = at;
    a.words = tried + (tried.empty() ? "Add " : "add ") + mass_text(*a.weight_kg) + " at " + length_text(at) +
              " behind the nose.";
  } else {
    a.words = "No weight in the " + std::string(off > 0 ? "nose" : "tail") + " can bring it there.";
    a.battery_to_m.reset();
  }
  return a;
}

std::vector<CurrentPath> paths_of(const Rig& rig, const Catalogue& catalogue, const PowerReport& power) {
  std::vector<CurrentPath> all;
  const Solution& moving = power.load_cases[static_cast<std::size_t>(LoadCase::all_moving)];
  const double drive_a = power.drive ? power.drive->static_current.value : 0;
  const auto motors = power.drive ? std::max<std::size_t>(1, power.drive->motors.size()) : 1;
  for (const Lead& l : rig.leads) {
    const Mounting *a = rig.mounting(l.from.part), *b = rig.mounting(l.to.part);
    if (!a || !b) continue;
    double amps = 0;
    for (std::size_t w = 0; w < power.network.wires.size(); ++w)
      if (power.network.wires[w].lead == l.id) amps = std::abs(moving.wire_a[w]);
    const PartKind *from = kind_of(rig, catalogue, l.from.part), *to = kind_of(rig, catalogue, l.to.part);
    const auto drives = [](const PartKind* k) { return k && (k->drive || k->battery); };
    if (l.kind == LeadKind::power && drives(from) && drives(to)) {
      const bool single =
          (from->group == PartGroup::speed_controller || to->group == PartGroup::speed_controller) && motors > 1;
      amps += single ? drive_a / static_cast<double>(motors) : drive_a;
    }
    // What goes to and fro in a motor's three leads adds up to nothing, but never in one place.
    if (l.kind == LeadKind::phase) amps = drive_a / static_cast<double>(motors);
    if (amps < 0.02) continue;
    const double spacing = l.kind == LeadKind::power || l.kind == LeadKind::phase ? battery_pair_m : side_by_side_m;
    all.push_back({l.id, part_name(rig, catalogue, l.from.part) + " to " + part_name(rig, catalogue, l.to.part),
                   point_of(*a), point_of(*b), amps, spacing, l.apart});
  }
  return all;
}

}  // namespace

std::optional<double> mass_of(const Part& part, const Catalogue& catalogue) {
  const PartKind* k = catalogue.part(part.kind);
  return part.mass_kg ? part.mass_kg : k ? k->mass_kg : std::nullopt;
}

std::vector<Clash> find_clashes(const Rig& rig, const Catalogue& catalogue) {
  // Whoever has so many overlaps spreads them out; hundreds of parts in one place would be tens of thousands.
  constexpr std::size_t most_overlaps = 500;
  std::vector<Clash> clashes;
  std::vector<Box> boxes;
  if (auto b = box_of(rig, catalogue, "controller")) boxes.push_back(*b);
  for (const Part& p : rig.parts)
    if (auto b = box_of(rig, catalogue, p.id)) boxes.push_back(*b);
  const auto overlap = [](const Box& a, const Box& b) { return a.room.intersection(b.room).sizes().minCoeff(); };
  for (std::size_t i = 0; i < boxes.size(); ++i)
    for (std::size_t k = i + 1; k < boxes.size() && clashes.size() < most_overlaps; ++k)
      if (const double by = overlap(boxes[i], boxes[k]); by > least_overlap_m)
        clashes.push_back({Clash::What::overlap, boxes[i].part, boxes[k].part,
                           capital(boxes[i].name) + " and " + boxes[k].name + " overlap by " + length_text(by)});
  std::vector<std::pair<Eigen::AlignedBox3d, const char*>> bays;
  if (rig.fit.bay) bays.emplace_back(inside(*rig.fit.bay), "bay");
  if (rig.fit.second_bay) bays.emplace_back(inside(*rig.fit.second_bay), "second bay");
  for (const Box& b : boxes) {
    // Inside is what has its middle there; servos in the wing are none of the bay's business.
    const auto bay =
        std::find_if(bays.begin(), bays.end(), [&](const auto& x) { return x.first.contains(b.room.center()); });
    if (bay == bays.end()) continue;
    const Eigen::AlignedBox3d& inner = bay->first;
    const Point room_low = b.room.min() - inner.min(), room_high = inner.max() - b.room.max();
    const double out = -std::min(room_low.minCoeff(), room_high.minCoeff());
    if (out > 0.0005) {
      clashes.push_back({Clash::What::out_of_bay, b.part, "",
                         capital(b.name) + " sticks out of the " + bay->second + " by " + length_text(out)});
      continue;
    }
    if (b.part != "controller") continue;
    // Room for plugs on the edges that carry sockets.
    const ControllerClass* c = catalogue.controller(rig.controller.kind);
    const Mounting* place = rig.mounting("controller");
    std::set<std::string> sides;
    for (const Terminal* t : c->terminals())
      if (!t->side.empty()) sides.insert(t->side);
    for (const std::string& side : sides) {
      // The board's own direction in the model.
      const int axis = side == "nose" || side == "tail" ? place->turn.arrow.axis % 3
                                                        : 3 - place->turn.arrow.axis % 3 - place->turn.top.axis % 3;
      const double room = side == "nose" || side == "tail"
                              ? ((place->turn.arrow.sign > 0) == (side == "nose") ? room_high[axis] : room_low[axis])
                              : std::min(room_low[axis], room_high[axis]);
      if (room < plug_room_m)
        clashes.push_back({Clash::What::plug_room, "controller", "",
                           "No room for the plugs at the " +
                               std::string(side == "nose"   ? "front"
                                           : side == "tail" ? "rear"
                                                            : side) +
                               " edge of the board: " + length_text(room) + " of " + length_text(plug_room_m)});
    }
  }
  // A propeller turns ahead of the nose or behind a boom.
  const std::vector<Panel> panels = aircraft_panels(rig.airframe);
  for (const Box& b : boxes) {
    const Part* p = rig.part(b.part);
    const PartKind* k = p ? catalogue.part(p->kind) : nullptr;
    if (k && k->group == PartGroup::propeller) continue;
    const double clear = clear_of_aircraft(panels, rig.airframe, {b.room.min(), b.room.max()});
    if (clear > farthest_from_aircraft_m)
      clashes.push_back(
          {Clash::What::outside, b.part, "",
           capital(b.name) + " stands outside of the airframe, " + length_text(clear) + " from the nearest of it"});
  }
  return clashes;
}

Point point_of(const Mounting& p) { return {p.x_m, p.y_m, p.z_m}; }

namespace {

std::string firm_words(Fixing fixing) {
  switch (fixing) {
    case Fixing::plate: return "Board screwed to its plate, the plate firm in the model, screws secured";
    case Fixing::holder: return "Board in its holder without play, unable to jump out, the same way round each time";
    case Fixing::foam: return "Foam under the whole base of the board, nothing that can lift off";
    case Fixing::hook_and_loop: return "Board on hook-and-loop: strapped so that it can't move against the model";
    case Fixing::flush:
    case Fixing::lid: return "Board firm under its lid, nothing that can lift off or rattle";
    default: return "Firm tape under the whole base of the board, nothing that can lift off";
  }
}

}  // namespace

std::vector<Confirmation> confirmations(const Rig& rig, const Catalogue& catalogue) {
  const Mounting* board = rig.mounting("controller");
  std::vector<Confirmation> all{{"firm_base", firm_words(board ? board->fixing : Fixing::unknown)},
                                {"wires_clear", "Wires clear of every servo arm through full travel"},
                                {"plugs_home", "Every plug can be pushed home, and holds"}};
  if (std::any_of(rig.parts.begin(), rig.parts.end(), [&](const Part& p) {
        const PartKind* k = catalogue.part(p.kind);
        return k && k->group == PartGroup::battery;
      })) {
    all.push_back({"battery_held", "Battery held in every attitude, and still able to slide for the balance point"});
    all.push_back({"battery_plug", "The battery's plug can be reached and pulled with the battery in its place"});
  }
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (c && c->family == Family::stabilizer)
    all.push_back({"controls_reached", "Buttons, dials, switches and lamp can be reached and seen"});
  if (c && std::any_of(c->ports.begin(), c->ports.end(), [](const Terminal& t) { return t.kind == TerminalKind::usb; }))
    all.push_back({"connector_reached", "The computer's plug can be put in with the board in place"});
  if (c && c->senses.has_barometer)
    all.push_back({"barometer_covered", "Barometer under open-cell foam, out of the airstream and of sunlight"});
  bool sky = false, video = false, radio = false;
  for (const Part& p : rig.parts)
    if (const PartKind* k = catalogue.part(p.kind)) {
      sky = sky || k->needs_sky;
      video = video || k->group == PartGroup::video_transmitter;
      radio = radio || k->group == PartGroup::receiver;
    }
  if (video)
    all.push_back({"video_ready", "Video transmitter: antenna on before it gets power, air over it on the bench"});
  if (sky) all.push_back({"sky_clear", "Satellite receiver on top with a clear sky, its arrow checked"});
  if (radio)
    all.push_back({"antennas_clear",
                   video ? "Antennas apart from each other, from the video transmitter and from carbon and metal"
                         : "Antenna away from carbon, metal and leads"});
  return all;
}

std::vector<Figure> FitReport::figures() const {
  const Balance& b = balance;
  std::vector<Figure> all{b.total, b.wanted, b.first_flight};
  if (b.complete) all = {b.total, b.balance_point, b.wanted, b.first_flight, b.static_margin, b.lateral};
  for (const CompassReport& c : compasses) all.insert(all.end(), {c.horizontal, c.error});
  return all;
}

FitReport analyze_fit(const Rig& rig, const Catalogue& catalogue, const AirframeReport& airframe,
                      const PowerReport& power) {
  FitReport r;
  weigh(rig, catalogue, airframe, r.balance);
  r.balance.to_wanted = advise(rig, catalogue, r.balance, r.balance.wanted.value);
  r.balance.to_first_flight = advise(rig, catalogue, r.balance, r.balance.first_flight.value);
  if (const double y = r.balance.lateral.value; r.balance.complete && std::abs(y) > 0.002 && rig.airframe.span_m > 0) {
    const double weight = r.balance.total.value * std::abs(y) / (rig.airframe.span_m / 2 * 0.95);
    r.balance.lateral_advice = "Add " + mass_text(weight) + " at the " + std::string(y > 0 ? "left" : "right") +
                               " wing tip, or move a part to that side.";
  }
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (const Mounting* place = rig.mounting("controller")) {
    r.board.turn = place->turn;
    r.board.roll_deg = place->roll_deg;
    r.board.pitch_deg = place->pitch_deg;
    r.board.yaw_deg = place->yaw_deg;
  } else {
    r.board.turn = rig.sensing.board;
  }
  r.board.matrix = alignment_matrix(r.board.turn, r.board.roll_deg, r.board.pitch_deg, r.board.yaw_deg);
  const SensesAbilities senses = c ? c->senses : SensesAbilities{};
  const auto felt = [&](const Turn& turn) { return senses.either_face ? turn.face_up() : turn; };
  const Turn sits = felt(r.board.turn), set = felt(rig.sensing.board);
  r.board.by_switches = !senses.can_be_turned && senses.half_turn_by_switches && sits == half_turn;
  r.board.told =
      r.board.by_switches ? set == Turn{} && rig.sensing.roll_reversed && rig.sensing.pitch_reversed : set == sits;
  r.board.can_be_told = c && (senses.can_be_turned || sits == Turn{} || r.board.by_switches);
  r.board.small_matters =
      std::abs(r.board.yaw_deg) > 2 || std::abs(r.board.roll_deg) > 10 || std::abs(r.board.pitch_deg) > 10;
  r.currents = paths_of(rig, catalogue, power);
  r.compasses = compass_reports(rig, catalogue, r.currents, !power.drive || power.drive->static_current.value > 0);
  r.clashes = find_clashes(rig, catalogue);
  r.to_get = list_to_get(rig, catalogue, power, r.clashes);
  return r;
}

}  // namespace rigging
