#include <algorithm>
#include <cmath>

#include "airframe/edits.h"
#include "base/number.h"
#include "base/units.h"
#include "fit/edits.h"
#include "fit/usual_places.h"
#include "review/rules.h"
#include "wiring/ports.h"

namespace rigging {
namespace rules::fit {
namespace {

Mounting mounting_or_new(const Rig& rig, const std::string& part) {
  if (const Mounting* m = rig.mounting(part)) return *m;
  Mounting made;
  made.part = part;
  return made;
}

constexpr double far_from_balance_m = 0.15, near_motor_m = 0.05, satellite_to_video_m = 0.1,
                 receiver_to_video_m = 0.08;  // common practice

std::string name(const Inspection& in, const std::string& part) {
  return capital(part_name(in.rig, in.catalogue, part));
}

std::optional<double> apart(const Rig& rig, const std::string& a, const std::string& b) {
  const Mounting *p = rig.mounting(a), *q = rig.mounting(b);
  if (!p || !q) return std::nullopt;
  return (point_of(*p) - point_of(*q)).norm();
}

std::vector<std::string> of_group(const Inspection& in, PartGroup group) {
  std::vector<std::string> ids;
  for (const Part* p : parts_of(in.rig, in.catalogue, group)) ids.push_back(p->id);
  return ids;
}

std::vector<std::string> compasses(const Inspection& in) {
  std::vector<std::string> ids;
  for (const CompassReport& c : in.reports.fit().compasses) ids.push_back(c.part);
  return ids;
}

void unknown_kind(const Inspection& in, Findings& found) {
  for (const Part& p : in.rig.parts)
    if (!in.catalogue.part(p.kind))
      found.add(Severity::fix_first, p.id, "No kind of part \"" + p.kind + "\" is known",
                "Mass, size and currents of " + p.id + " are missing from every sum.",
                "Choose a kind, or describe your own.");
}

void unplaced(const Inspection& in, Findings& found) {
  std::string names, first;
  for (const MassItem& i : in.reports.fit().balance.items)
    if (!i.placed && !i.airframe && !in.rig.parts.empty()) {
      if (first.empty()) first = i.part;
      names += (names.empty() ? "" : ", ") + i.name;
    }
  if (names.empty()) return;
  found
      .add(Severity::worth_knowing, first, "Without a place yet: " + names, "The balance leaves them out.",
           "Have them put where their kind belongs, or drag them there.")
      .fix = Fix{"Put them where their kind belongs",
                 [](const Rig& rig, const Catalogue& c) { return place_parts(rig, c, false); }};
}

void frame_unweighed(const Inspection& in, Findings& found) {
  const Fit& fit = in.rig.fit;
  if (in.rig.parts.empty() || (fit.frame_mass_kg && fit.frame_at_m)) return;
  found.add(
      Severity::worth_knowing, "frame",
      fit.frame_mass_kg ? "Where the bare airframe balances is not told" : "The bare airframe has not been weighed",
      "Without it there is no balance point, only a list.",
      fit.frame_mass_kg ? "Balance it without the listed parts, and measure from the nose."
                        : "Weigh it without the listed parts and find where it balances.");
}

std::optional<Fix> move_battery(const Inspection& in) {
  const auto& advice = in.reports.fit().balance.to_wanted;
  if (!advice.battery_to_m) return std::nullopt;
  const auto batteries = of_group(in, PartGroup::battery);
  for (const std::string& id : batteries)
    if (in.rig.mounting(id))
      return Fix{"Move the battery to " + length_text(*advice.battery_to_m) + " behind the nose",
                 [id, to = *advice.battery_to_m](const Rig& rig, const Catalogue& c) {
                   Mounting p = mounting_or_new(rig, id);
                   p.x_m = -to;
                   return put_part(rig, c, p);
                 }};
  return std::nullopt;
}

void tail_heavy(const Inspection& in, Findings& found) {
  const Balance& b = in.reports.fit().balance;
  if (b.side() != BalanceSide::tail_heavy) return;
  found
      .add(Severity::grounds, "balance",
           "Tail-heavy: it balances " + length_text(b.balance_point.value) + " behind the nose, " +
               length_text(b.balance_point.value - b.band_back_m) + " behind the allowed band",
           "Static margin " + number_text(b.static_margin.value, 1) +
               " %: with too little it diverges in pitch faster than a hand can follow.",
           b.to_wanted.words)
      .fix = move_battery(in);
}

void nose_heavy(const Inspection& in, Findings& found) {
  const Balance& b = in.reports.fit().balance;
  if (b.side() != BalanceSide::nose_heavy) return;
  found
      .add(Severity::fix_first, "balance",
           "Nose-heavy: it balances " + length_text(b.band_front_m - b.balance_point.value) +
               " ahead of the allowed band",
           "Static margin " + number_text(b.static_margin.value, 1) +
               " %: the elevator may not hold the nose up when it flies slowly.",
           b.to_wanted.words)
      .fix = move_battery(in);
}

void lateral(const Inspection& in, Findings& found) {
  const Balance& b = in.reports.fit().balance;
  if (!b.complete || std::abs(b.lateral.value) <= 0.005 * in.rig.airframe.span_m) return;
  found.add(Severity::fix_first, "balance",
            "It balances " + length_text(std::abs(b.lateral.value)) + " to the " +
                (b.lateral.value > 0 ? "right" : "left") + " of the middle",
            "It will roll, and more when it flies slowly.", b.lateral_advice);
}

void mass_differs(const Inspection& in, Findings& found) {
  const Balance& b = in.reports.fit().balance;
  if (!b.complete || !in.rig.airframe.mass_kg ||
      std::abs(b.total.value - *in.rig.airframe.mass_kg) <= 0.1 * *in.rig.airframe.mass_kg)
    return;
  found
      .add(Severity::worth_knowing, "airframe",
           "The parts add up to " + number_text(b.total.value, 3) + " kg, the flying mass is given as " +
               number_text(*in.rig.airframe.mass_kg, 3) + " kg",
           "Speeds follow from one, the balance from the other.", "Weigh the whole model, or take over the sum.")
      .fix = Fix{"Take over " + number_text(b.total.value, 3) + " kg",
                 [kg = std::round(b.total.value * 1000) / 1000](const Rig& rig, const Catalogue&) {
                   return measure(rig, "mass_kg", kg);
                 }};
}

void overlap(const Inspection& in, Findings& found) {
  std::vector<const Clash*> pairs;
  for (const Clash& c : in.reports.fit().clashes)
    if (c.what == Clash::What::overlap) pairs.push_back(&c);
  if (pairs.empty()) return;
  std::string names;
  constexpr std::size_t said = 3;
  for (std::size_t i = 1; i < std::min(pairs.size(), said); ++i) names += "; " + small(pairs[i]->words);
  if (pairs.size() > said) names += "; and " + std::to_string(pairs.size() - said) + " more";
  Snag& s = found.add(Severity::fix_first, pairs.front()->part, pairs.front()->words + names,
                      "Two things can't be in one place.", "Move one of them, or have them spread out.");
  // Offered where there is room.
  if (spread_out(in.rig, in.catalogue)) s.fix = Fix{"Spread them out", spread_out};
}

void out_of_bay(const Inspection& in, Findings& found) {
  for (const Clash& s : in.reports.fit().clashes)
    if (s.what == Clash::What::out_of_bay)
      found.add(Severity::fix_first, s.part, s.words, "It does not fit the bay as placed.",
                "Move it, turn it, or choose a smaller one.");
}

/// This part alone where its kind usually sits.
Result<Edit> put_where_usual(const Rig& rig, const Catalogue& catalogue, const std::string& part) {
  Rig without = rig;
  std::erase_if(without.mountings, [&](const Mounting& m) { return m.part == part; });
  auto placed = place_parts(without, catalogue, false);
  if (!placed) return placed;
  const Mounting* place = placed->rig.mounting(part);
  if (!place) return failure(part, "has no usual place", "a place typed at fit");
  return put_part(rig, catalogue, *place);
}

void outside_of_airframe(const Inspection& in, Findings& found) {
  for (const Clash& s : in.reports.fit().clashes)
    if (s.what == Clash::What::outside) {
      Snag& snag = found.add(Severity::fix_first, s.part, s.words,
                             "Balance, leads and distances are reckoned from where it stands: there, they are wrong.",
                             "Put it where it sits in the model, or type the sizes of the airframe.");
      if (put_where_usual(in.rig, in.catalogue, s.part))
        snag.fix = Fix{"Put it where its kind usually sits",
                       [part = s.part](const Rig& rig, const Catalogue& c) { return put_where_usual(rig, c, part); }};
    }
}

void plug_room(const Inspection& in, Findings& found) {
  for (const Clash& s : in.reports.fit().clashes)
    if (s.what == Clash::What::plug_room)
      found.add(Severity::fix_first, s.part, s.words, "A plug that is bent hard works loose or breaks its wires.",
                "Leave room for plugs and bends.");
}

void loosely_held(const Inspection& in, Findings& found) {
  const Mounting* board = in.rig.mounting("controller");
  if (!board) return;
  if (board->fixing == Fixing::hook_and_loop)
    found.add(Severity::fix_first, "controller", "The board is held by hook-and-loop",
              "It tilts and shakes against the model: the stabilizer then answers its own fixing.",
              "Firm tape under the whole base, a screwed plate, or a holder that it can't move in.");
  else if (board->fixing == Fixing::foam && in.controller && in.controller->senses.isolated)
    found.add(Severity::worth_knowing, "controller", "The board lies on foam, and isolates its sensors by itself",
              "Two soft layers in a row can swing together.", "Firm tape under the whole base.");
  else if (board->fixing == Fixing::foam)
    found.add(Severity::worth_knowing, "controller", "The board lies on foam",
              "Foam helps against vibration only; too soft, and the board lags behind the model.",
              "Firm tape first; foam only where the motor's vibration shows in the sensors.");
  for (const Mounting& p : in.rig.mountings) {
    const PartKind* k = kind_of(in.rig, in.catalogue, p.part);
    if (k && k->group == PartGroup::battery &&
        (p.fixing == Fixing::tape || p.fixing == Fixing::plate || p.fixing == Fixing::foam))
      found.add(Severity::worth_knowing, p.part,
                capital(part_name(in.rig, in.catalogue, p.part)) + " is held by " + label_of(name_of(p.fixing)),
                "It has to come out, and to slide for the balance point.", "Hook-and-loop and a strap.");
  }
}

void cannot_be_told(const Inspection& in, Findings& found) {
  const Alignment& a = in.reports.fit().board;
  if (!in.controller || !in.rig.mounting("controller") || a.can_be_told) return;
  found
      .add(Severity::grounds, "controller",
           "The board is placed with its " + a.turn.label() + ", and this class can't be told so",
           "It would correct the wrong axes.",
           in.controller->senses.half_turn_by_switches ? "Mount it with its arrow to the nose and top up. To the tail, "
                                                         "its switches of roll and pitch undo the turn; "
                                                         "across, only exchanged leads would."
           : in.controller->senses.either_face         ? "Mount it with its arrow to the nose; either face may be up."
                                                       : "Mount it with its arrow to the nose and top up.")
      .fix = Fix{"Turn the arrow to the nose, top up", [](const Rig& rig, const Catalogue& c) {
                   Mounting p = mounting_or_new(rig, "controller");
                   p.turn = Turn{};
                   return put_part(rig, c, p);
                 }};
}

void not_told(const Inspection& in, Findings& found) {
  const Alignment& a = in.reports.fit().board;
  if (!in.controller || !in.rig.mounting("controller") || a.told || !a.can_be_told) return;
  if (a.by_switches) {
    found
        .add(Severity::grounds, "controller",
             "The board is placed with its arrow to the tail, and its switches are not planned to undo that",
             "It would correct roll and pitch the wrong way.",
             "Turn the reversing switches of roll and pitch round, not that of yaw, and check every correction.")
        .fix = sets("Plan roll and pitch sensing reversed", {{"sensing/board", std::string(Turn{}.name())},
                                                             {"sensing/roll_reversed", true},
                                                             {"sensing/pitch_reversed", true}});
    return;
  }
  found
      .add(Severity::grounds, "controller",
           "The board is placed with its " + a.turn.label() + ", but the setting says " + in.rig.sensing.board.label(),
           "It would correct the wrong axes.", "Set the board's position to how it sits.")
      .fix = sets("Set the position to: " + a.turn.label(), {{"sensing/board", std::string(a.turn.name())}});
}

void askew(const Inspection& in, Findings& found) {
  const Alignment& a = in.reports.fit().board;
  if (a.small_matters)
    found.add(
        Severity::fix_first, "controller",
        "The board sits askew: roll " + number_text(a.roll_deg, 1) + "°, pitch " + number_text(a.pitch_deg, 1) +
            "°, yaw " + number_text(a.yaw_deg, 1) + "°",
        "A level calibration takes up a few degrees of roll and pitch, but none of yaw: pitch and roll corrections "
        "mix.",
        "Set it straight to the fuselage.");
}

void far_from_balance(const Inspection& in, Findings& found) {
  const Mounting* p = in.rig.mounting("controller");
  const Balance& b = in.reports.fit().balance;
  if (!p || !b.complete || std::abs(-p->x_m - b.balance_point.value) <= far_from_balance_m) return;
  found.add(
      Severity::worth_knowing, "controller",
      "The board sits " + length_text(std::abs(-p->x_m - b.balance_point.value)) + " from the balance point",
      "Worth having nearer, not a must: rotation is the same everywhere, only the accelerometer feels the distance.",
      "Move it nearer if there is room.");
}

void compass_disturbed(const Inspection& in, Findings& found) {
  for (const CompassReport& c : in.reports.fit().compasses) {
    if (c.verdict == CompassVerdict::holds || c.verdict == CompassVerdict::so_far || c.paths.empty()) continue;
    const CompassPath& worst = c.paths.front();
    found.add(
        Severity::fix_first, c.part,
        c.verdict == CompassVerdict::points_nowhere
            ? std::string("At full throttle the compass points nowhere: currents and magnets are stronger than the "
                          "earth's field")
            : "Currents and magnets turn the compass by up to " + number_text(c.error.value, 1) + "° at full throttle",
        "Most of it comes from " + worst.path.name + " (" +
            (worst.path.lead.empty() ? "" : number_text(worst.path.amps, 1) + " A, ") + length_text(worst.distance_m) +
            " away).",
        "Keep the compass " + length_text(worst.least_distance_m) + " from " +
            (worst.path.lead.empty() ? "that motor."
             : worst.path.single     ? "that lead, or lay its plus and minus side by side: apart, its field falls "
                                       "with the distance alone."
                                     : "that lead, or twist it."));
  }
}

void compass_near_iron(const Inspection& in, Findings& found) {
  for (const std::string& compass : compasses(in))
    for (const PartGroup g : {PartGroup::motor, PartGroup::buzzer, PartGroup::servo})
      for (const std::string& other : of_group(in, g))
        if (const auto d = apart(in.rig, compass, other); d && *d < near_motor_m)
          found.add(Severity::fix_first, compass,
                    "The compass sits " + length_text(*d) + " from the " + part_name(in.rig, in.catalogue, other),
                    "Magnets and iron that move can't be calibrated away.",
                    "Keep " + length_text(near_motor_m) + " or more.");
}

void place_unknown(const Inspection& in, Findings& found) {
  if (!in.reports.fit().compasses.empty() && (!in.rig.fit.latitude_deg || !in.rig.fit.longitude_deg))
    found.add(Severity::worth_knowing, "place", "Where it flies is not given",
              "The earth's field at the compass is taken as usual for middle latitudes.",
              "Give latitude and longitude.");
}

void unconfirmed(const Inspection& in, Findings& found) {
  if (in.rig.parts.empty()) return;
  for (const Confirmation& c : confirmations(in.rig, in.catalogue)) {
    const auto& ticks = in.rig.fit.confirmed;
    if (std::find(ticks.begin(), ticks.end(), c.word) != ticks.end()) continue;
    found
        .add(Severity::fix_first, c.word, "Look and confirm: " + c.text, "Only the builder can see it.",
             "Look, put it right, tick it off.")
        .fix = Fix{"I looked: it is so", [w = std::string(c.word)](const Rig& rig, const Catalogue& all) {
                     return confirm(rig, all, w, true);
                   }};
  }
}

void near_video(const Inspection& in, Findings& found, PartGroup group, double least, const char* what) {
  for (const std::string& video : of_group(in, PartGroup::video_transmitter))
    for (const std::string& other : of_group(in, group))
      if (const auto d = apart(in.rig, video, other); d && *d < least)
        found.add(Severity::fix_first, other,
                  name(in, other) + " sits " + length_text(*d) + " from the video transmitter", what,
                  "Keep " + length_text(least) + " or more.");
}

void satellite_near_video(const Inspection& in, Findings& found) {
  near_video(in, found, PartGroup::satellite_receiver, satellite_to_video_m,
             "The transmitter drowns the satellites: few or none are found.");
}

void receiver_near_video(const Inspection& in, Findings& found) {
  near_video(in, found, PartGroup::receiver, receiver_to_video_m, "It costs range, which shows only far out.");
}

void compass_turned(const Inspection& in, Findings& found) {
  for (const std::string& id : compasses(in))
    if (const Mounting* p = in.rig.mounting(id); id != "controller" && p && static_cast<const Turn&>(p->turn) != Turn{})
      found.add(Severity::worth_knowing, id, "The compass sits with its " + p->turn.label(),
                "The controller has to be told, or north comes out turned.",
                "Set the compass's position in the controller, or turn its arrow to the nose.");
}

void no_battery(const Inspection& in, Findings& found) {
  const auto batteries = of_group(in, PartGroup::battery);
  if (in.rig.parts.empty() || !batteries.empty()) return;
  found.add(Severity::fix_first, "battery", "The list of parts has no battery",
            "It is the heaviest part and the source of every current.", "Add it.");
}

void no_receiver(const Inspection& in, Findings& found) {
  if (!in.controller || in.rig.parts.empty() || !of_group(in, PartGroup::receiver).empty() ||
      !hears_a_receiver(*in.controller))
    return;
  found.add(
      Severity::fix_first, "receiver", "The list of parts has no receiver",
      "This controller hears the sticks from nothing else, and without them it moves nothing that you tell it to.",
      "Add it.");
}

/// A board that takes the battery brings its thick leads out at one edge: that edge looks to where they go.
void edge_looks_away(const Inspection& in, Findings& found) {
  const Mounting* board = in.rig.mounting("controller");
  if (!in.controller || !board) return;
  std::string side;
  for (const Terminal* t : in.controller->terminals())
    if ((t->kind == TerminalKind::battery_in || t->kind == TerminalKind::battery_out) && !t->side.empty()) {
      if (!side.empty() && side != t->side) return;
      side = t->side;
    }
  if (side != "nose" && side != "tail") return;  // leads to the side go either way
  double ahead_m = 0;
  int counted = 0;
  for (const Part& p : in.rig.parts)
    if (const PartKind* k = in.catalogue.part(p.kind);
        k && (k->group == PartGroup::battery || k->group == PartGroup::speed_controller))
      if (const Mounting* there = in.rig.mounting(p.id)) {
        ahead_m += there->x_m - board->x_m;
        ++counted;
      }
  constexpr double clearly_m = 0.03;
  if (counted == 0 || std::abs(ahead_m / counted) < clearly_m) return;
  if (board->turn.arrow.axis != 0) return;  // across: they go out to the side
  const int looks = board->turn.arrow.sign * (side == "nose" ? 1 : -1);
  if (looks * ahead_m >= 0) return;
  found.add(Severity::worth_knowing, "controller",
            "Its edge with battery and motor leads looks away from battery and speed controller",
            "Thick leads would have to bend back over the board, past its sensors.",
            "Turn the board by 180° about the vertical and tell it so, where the class can be told.");
}

}  // namespace
}  // namespace rules::fit

const std::vector<Rule>& fit_rules() {
  using namespace rules::fit;
  static const std::vector<Rule> rules{{"FIT-01", Station::fit, unknown_kind, source::catalogue},
                                       {"FIT-02", Station::fit, unplaced, source::statics},
                                       {"FIT-03", Station::fit, frame_unweighed, source::statics},
                                       {"FIT-04", Station::fit, tail_heavy, source::margin},
                                       {"FIT-05", Station::fit, nose_heavy, source::margin},
                                       {"FIT-06", Station::fit, lateral, source::statics},
                                       {"FIT-07", Station::fit, mass_differs, source::statics},
                                       {"FIT-08", Station::fit, overlap, source::geometry},
                                       {"FIT-09", Station::fit, out_of_bay, source::geometry},
                                       {"FIT-10", Station::fit, plug_room, source::common},
                                       {"FIT-26", Station::fit, outside_of_airframe, source::geometry},
                                       {"FIT-11", Station::fit, cannot_be_told, source::board},
                                       {"FIT-12", Station::fit, not_told, source::cube},
                                       {"FIT-13", Station::fit, askew, source::cube},
                                       {"FIT-14", Station::fit, far_from_balance, source::common},
                                       {"FIT-15", Station::fit, compass_disturbed, source::field},
                                       {"FIT-16", Station::fit, compass_near_iron, source::common},
                                       {"FIT-17", Station::fit, place_unknown, source::wmm},
                                       {"FIT-18", Station::fit, unconfirmed, source::common},
                                       {"FIT-24", Station::fit, loosely_held, source::common},
                                       {"FIT-19", Station::fit, satellite_near_video, source::common},
                                       {"FIT-20", Station::fit, receiver_near_video, source::common},
                                       {"FIT-21", Station::fit, compass_turned, source::cube},
                                       {"FIT-22", Station::fit, no_battery, source::common},
                                       {"FIT-25", Station::fit, no_receiver, source::board},
                                       {"FIT-23", Station::fit, edge_looks_away, source::geometry}};
  return rules;
}

}  // namespace rigging
