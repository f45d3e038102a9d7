#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "airframe/edits.h"
#include "airframe/kinds.h"
#include "base/find.h"
#include "base/number.h"
#include "base/units.h"
#include "proof/hand_steps.h"
#include "review/rules.h"
#include "rig/path.h"
#include "surfaces/edits.h"
#include "surfaces/release.h"
#include "wiring/edits.h"

namespace rigging {
namespace rules::surfaces {
namespace {

constexpr double tight_approach = 0.5, no_approach = 0.25;  // of full correction; common practice

std::string name_of(const Output& o) {
  if (o.surfaces.empty()) return "output " + o.id;
  return "output " + o.id + " (" + o.surfaces.front().label() + ")";
}

std::string free_socket(const Rig& rig, const ControllerClass& c) {
  for (const Terminal& s : c.outputs)
    if (std::none_of(rig.outputs.begin(), rig.outputs.end(), [&](const Output& o) { return o.socket == s.id; }))
      return s.id;
  return {};
}

std::optional<Fix> move_to_free_socket(const Inspection& in, const Output& o) {
  const std::string socket = in.controller ? free_socket(in.rig, *in.controller) : "";
  if (socket.empty()) return std::nullopt;
  return Fix{"Move " + o.id + " to " + in.controller->socket(socket)->label,
             [id = o.id, socket](const Rig& rig, const Catalogue& c) { return plug_output(rig, c, id, socket); }};
}

void surface_without_output(const Inspection& in, Findings& found) {
  for (const Surface s : surfaces_of(in.rig.airframe)) {
    if (in.rig.output_of(s)) continue;
    Snag& n = found.add(Severity::grounds, s.name(), capital(s.label()) + " has no output", "Nothing moves it.",
                        "Give it an output.");
    n.fix = Fix{"Add the missing outputs",
                [](const Rig& rig, const Catalogue& c) { return change_kind(rig, c, rig.airframe.kind); }};
  }
}

void output_for_no_surface(const Inspection& in, Findings& found) {
  const auto surfaces = surfaces_of(in.rig.airframe);
  for (const Output& o : in.rig.outputs)
    for (const Surface s : o.surfaces)
      if (std::find(surfaces.begin(), surfaces.end(), s) == surfaces.end()) {
        Snag& n =
            found.add(Severity::fix_first, o.id,
                      capital(name_of(o)) + " drives a surface that this kind of airframe does not have",
                      "The plan and the model disagree.", "Choose the right kind of airframe, or remove the output.");
        n.fix = Fix{"Remove " + o.id, [id = o.id](const Rig& rig, const Catalogue&) { return remove_output(rig, id); }};
      }
}

void shared_socket(const Inspection& in, Findings& found) {
  std::map<std::string, const Output*> first;
  for (const Output& o : in.rig.outputs) {
    if (o.socket.empty()) continue;
    const auto [it, is_new] = first.emplace(o.socket, &o);
    if (is_new) continue;
    Snag& n = found.add(Severity::grounds, o.id,
                        capital(name_of(o)) + " and " + name_of(*it->second) + " share socket " + o.socket,
                        "One socket gives one pulse.", "Move one of them to a free socket.");
    n.fix = move_to_free_socket(in, o);
  }
}

void unknown_socket(const Inspection& in, Findings& found) {
  if (!in.controller) return;
  for (const Output& o : in.rig.outputs) {
    if (in.controller->socket(o.socket) || (o.socket.empty() && in.controller->motor_may_bypass() && drives_motor(o)))
      continue;
    const std::string what = o.socket.empty() ? " has no socket yet"
                                              : " sits in socket " + o.socket + ", which this controller does not have";
    Snag& n = found.add(Severity::grounds, o.id, capital(name_of(o)) + what, "Without a socket nothing is driven.",
                        "Choose one of the controller's sockets.");
    n.fix = move_to_free_socket(in, o);
  }
}

void command_unanswered(const Inspection& in, Findings& found) {
  const auto answered = [](const std::vector<Output>& outputs, Axis axis) {
    return std::any_of(outputs.begin(), outputs.end(), [&](const Output& o) {
      return o.mix.of(axis) != 0 && std::any_of(o.surfaces.begin(), o.surfaces.end(),
                                                [&](Surface s) { return required_direction(s, axis) != 0; });
    });
  };
  const auto usual = default_outputs(in.rig.airframe);
  for (const Axis axis : all_axes) {
    const std::string name(name_of(axis));
    if (answered(usual, axis) && !answered(in.rig.outputs, axis))
      found.add(Severity::grounds, name, "Nothing answers " + name, "The model could not be steered in " + name + ".",
                "Give a surface a " + name + " weight.");
  }
}

void wrong_axis(const Inspection& in, Findings& found) {
  for (const Output& o : in.rig.outputs)
    for (const Axis axis : all_axes)
      for (const Surface s : o.surfaces)
        if (o.mix.of(axis) != 0 && required_direction(s, axis) == 0) {
          const std::string name(name_of(axis));
          Snag& n = found.add(Severity::fix_first, o.id,
                              capital(name_of(o)) + " answers " + name + ", which this surface can't serve",
                              "It would only add drag and confusion.", "Set its " + name + " weight to zero.");
          n.fix = Fix{"Set the " + name + " weight of " + o.id + " to zero",
                      [id = o.id, name](const Rig& rig, const Catalogue&) { return set_weight(rig, id, name, 0); }};
          break;
        }
}

void no_sign_is_right(const Inspection& in, Findings& found) {
  for (const Output& o : in.rig.outputs)
    for (const Surface s : o.surfaces) {
      int sense = 0;
      bool torn = false;
      for (const Axis axis : all_axes) {
        const double wanted = o.mix.of(axis) * required_direction(s, axis);
        if (wanted == 0) continue;
        torn = torn || (sense != 0 && sense != (wanted > 0 ? 1 : -1));
        sense = wanted > 0 ? 1 : -1;
      }
      if (torn)
        found.add(
            Severity::grounds, o.id, capital(name_of(o)) + " mixes its commands with signs that can't all be right",
            "Whichever way the servo turns, one command moves the surface the wrong way.",
            "Look at the surface on each stick and flip the sign of the one that is wrong (station proof finds it).");
    }
}

void unequal_sides(const Inspection& in, Findings& found) {
  for (const Output& o : in.rig.outputs) {
    if (o.surfaces.size() != 1 || o.surfaces[0].side != Side::left) continue;
    const Output* twin = in.rig.output_of({o.surfaces[0].kind, Side::right});
    if (!twin || twin == &o || twin->surfaces.size() != 1) continue;
    for (const Axis axis : all_axes)
      if (std::abs(std::abs(o.mix.of(axis)) - std::abs(twin->mix.of(axis))) > 0.01) {
        const std::string name(name_of(axis));
        Snag& n = found.add(Severity::fix_first, o.id,
                            "Left and right answer " + name + " by unequal amounts (" +
                                number_text(std::abs(o.mix.of(axis)), 2) + " and " +
                                number_text(std::abs(twin->mix.of(axis)), 2) + ")",
                            "A " + name + " command would carry another one with it.",
                            "Make the amounts equal; differential belongs in the linkage or in its own setting.");
        n.fix = Fix{"Give the right side the left side's amount",
                    [id = twin->id, name, weight = std::copysign(o.mix.of(axis), twin->mix.of(axis))](
                        const Rig& rig, const Catalogue&) { return set_weight(rig, id, name, weight); }};
      }
  }
}

void saturates(const Inspection& in, Findings& found) {
  for (const SurfaceAnswer& a : in.reports.surfaces().answers)
    if (a.worst_sum > 1 + 1e-6)
      found.add(Severity::worth_knowing, a.output,
                "Full sticks together ask " + number_text(100 * a.worst_sum, 0) + " % of the travel of the " +
                    a.surface.label(),
                in.rig.saturation == Saturation::each_stops
                    ? "Beyond 100 % the surface stops and one command swallows the other."
                : in.rig.saturation == Saturation::all_shrink
                    ? "Beyond 100 % all commands are made smaller until it can follow."
                    : std::string("Beyond 100 % ") + (in.rig.saturation == Saturation::roll_first ? "pitch" : "roll") +
                          " and yaw are made smaller until it can follow.",
                "Lower the weights, or accept it and know it.");
}

/// Flaps down and sticks at rest: what is left for the stabilizer on the approach.
void no_room_with_flaps(const Inspection& in, Findings& found) {
  const ControlMargin& room = in.reports.control_margins().with_flaps;
  const double left = room.at(ControlMargin::steps / 2, ControlMargin::steps / 2);
  if (left >= tight_approach) return;
  found.add(left < no_approach ? Severity::fix_first : Severity::worth_knowing, "flaps",
            "With full flap the stabilizer has " + number_text(100 * left, 0) + " % of full correction left",
            "Full flap takes so much of the travel that a gust on the approach finds the surfaces at their stop.",
            "Less flap weight, or more throw by another hole.");
}

void y_lead(const Inspection& in, Findings& found) {
  for (const Output& o : in.rig.outputs)
    if (o.surfaces.size() > 1)
      found.add(Severity::worth_knowing, o.id,
                capital(name_of(o)) + " is a Y-lead with " + std::to_string(o.surfaces.size()) + " servos",
                "No setting can turn one side alone, and there is no differential.",
                "If one side is wrong, remount its servo, or give it its own output.");
}

void linkage_trouble(const Inspection& in, Findings& found) {
  for (const SurfaceAnswer& a : in.reports.surfaces().answers) {
    if (!a.linkage_error.empty())
      found.add(Severity::fix_first, a.surface.name(),
                "The linkage of the " + a.surface.label() + " can't be built as measured", a.linkage_error + ".",
                "Measure arm, rod and horn again.");
    if (a.problems.empty()) continue;
    std::string what = capital(a.surface.label());
    for (const LinkageProblem& p : a.problems) what += (&p == &a.problems.front() ? ": " : "; ") + small(p.words);
    found.add(Severity::fix_first, a.surface.name(), what, "Within the pulses that its output may send.",
              "Bring the ends in, or use other holes.");
  }
}

void unequal_throws(const Inspection& in, Findings& found) {
  for (const SurfaceAnswer& a : in.reports.surfaces().answers) {
    if (a.surface.side != Side::left || a.surface.kind == SurfaceKind::motor) continue;
    const auto left = read_throws(in.rig, a.surface), right = read_throws(in.rig, {a.surface.kind, Side::right});
    if (!left || !right) continue;
    if (std::abs(left->up_deg - right->up_deg) > alike_deg || std::abs(left->down_deg - right->down_deg) > alike_deg)
      found.add(Severity::fix_first, a.surface.name(),
                "Left and right throws differ: " + number_text(left->up_deg, 1) + "° up and " +
                    number_text(left->down_deg, 1) + "° down against " + number_text(right->up_deg, 1) + "° and " +
                    number_text(right->down_deg, 1) + "°",
                "Every command would carry another one with it.", "Set the ends at station surfaces, Throws.");
  }
}

void not_flush(const Inspection& in, Findings& found) {
  for (const SurfaceAnswer& a : in.reports.surfaces().answers)
    if (const auto read = read_throws(in.rig, a.surface); read && std::abs(read->neutral_deg) > 1)
      found.add(Severity::fix_first, a.surface.name(),
                capital(a.surface.label()) + " stands " + number_text(read->neutral_deg, 1) + "° off neutral",
                "It would be trimmed against in flight, and one side has less throw left.",
                "Centre it with the linkage first, then with its output.");
}

void servo_load(const Inspection& in, Findings& found) {
  for (const ServoLoad& l : in.reports.loads()) {
    if (l.available_nm <= 0) continue;
    if (l.fast.share_low > 1)
      found.add(Severity::fix_first, l.surface.name(),
                "The servo of the " + l.surface.label() + " can't hold full throw in fast flight",
                number_text(100 * l.fast.torque_low_nm, 0) + " to " + number_text(100 * l.fast.torque_high_nm, 0) +
                    " N·cm asked, " + number_text(100 * l.available_nm, 0) + " there (an estimate).",
                "A stronger servo, an inner hole of its arm, or less throw.");
    else if (l.fast.share_low > working_share)
      found.add(
          Severity::worth_knowing, l.surface.name(),
          "Full throw in fast flight asks more than half of the stall torque of the servo of the " + l.surface.label(),
          number_text(100 * l.fast.share_low, 0) + " to " + number_text(100 * l.fast.share_high, 0) +
              " % of it (an estimate). A servo works at up to about half of what it stalls at.",
          "A stronger servo, an inner hole of its arm, or less throw.");
  }
}

void play(const Inspection& in, Findings& found) {
  for (const Linkage& l : in.rig.linkages) {
    if (!l.play_m || *l.play_m <= 0.001) continue;
    found.add(Severity::worth_knowing, l.surface.name(),
              capital(l.surface.label()) + " has " + length_text(*l.play_m, 1) + " of play at its edge",
              "Play sets a ceiling to the gain, and on a fast or unbalanced surface it invites flutter: a caution, not "
              "a calculation.",
              "Tighten horn, clevis and servo arm before raising the gain.");
  }
}

void ends_at_the_stop(const Inspection& in, Findings& found) {
  constexpr double least_us = 900, most_us = 2100;  // common practice
  for (const Output& o : in.rig.outputs)
    if (!o.surfaces.empty() && o.mix.throttle == 0 && (o.low_us < least_us || o.high_us > most_us))
      found.add(
          Severity::fix_first, o.id,
          capital(name_of(o)) + " may be sent to " + number_text(o.low_us < least_us ? o.low_us : o.high_us, 0) + " µs",
          "Centre, trim and mix together must not drive a servo against its stop: it stalls, and pulls the rail down.",
          "Bring the end in, and use another hole for more throw.");
}

void strong_taileron(const Inspection& in, Findings& found) {
  const Output* aileron = in.rig.output_of({SurfaceKind::aileron, Side::left});
  if (!aileron || aileron->mix.roll == 0) return;
  for (const Output& o : in.rig.outputs)
    for (const Surface s : o.surfaces)
      if (const double percent = 100 * std::abs(o.mix.roll / aileron->mix.roll);
          s.kind == SurfaceKind::taileron && s.side == Side::left && percent > 55)
        found.add(Severity::worth_knowing, o.id,
                  "For roll the tail halves get " + number_text(percent, 0) + " % of what the ailerons get",
                  "At 50 % they move half as far as the ailerons for the same stick. Tail halves roll hard and bend "
                  "the tail; common practice starts low.",
                  "Start at 25 % of the aileron throw, up to 50 %, and raise it after the first flights.");
}

/// A class that reverses functions turns an output round only together with all that carry the same.
void functions_of_one_sense(const Inspection& in, Findings& found) {
  if (settable(in.controller).reverse) return;
  for (const Axis axis : all_axes) {
    const Output* first = nullptr;
    for (const Output& o : in.rig.outputs) {
      if (o.mix.of(axis) == 0 || drives_motor(o)) continue;
      if (!first) first = &o;
      if (o.reversed == first->reversed) continue;
      std::vector<PlacedValue> plain;
      for (const Output& other : in.rig.outputs) plain.emplace_back(path_of({"outputs", other.id, "reversed"}), false);
      found
          .add(Severity::fix_first, o.id,
               capital(name_of(o)) + " is planned to turn the other way than the " + name_of(*first) +
                   ", and this class can't turn one output round",
               "It reverses the whole " + std::string(name_of(axis)) + " function, servo and sensing, on every output.",
               "Turn the servo or its rod round, or plan both alike.")
          .fix = sets("Plan every output plain", plain);
      return;
    }
  }
}

/// A side that flaps lift, or one that they leave behind, rolls the model when it is slow and low.
void flaps_that_lift(const Inspection& in, Findings& found) {
  for (const Output& o : in.rig.outputs)
    for (const Surface s : o.surfaces) {
      if (flap_motion(o, s) <= 0) continue;
      found
          .add(
              Severity::fix_first, o.id, "Full flap is planned to lift the " + s.label(),
              "Flaps droop on both sides. One up and one down is a roll command, on the approach, close to the ground.",
              "Turn the sign of its flap weight round.")
          .fix =
          Fix{"Flip the flap weight of " + o.id, [id = o.id, weight = -o.mix.flap](const Rig& rig, const Catalogue&) {
                return set_weight(rig, id, "flap", weight);
              }};
    }
}

void settings_that_are_not_there(const Inspection& in, Findings& found) {
  if (!in.controller) return;
  functions_of_one_sense(in, found);
  const OutputSettings can = settable(in.controller);
  for (const Output& o : in.rig.outputs) {
    if (o.surfaces.empty() || o.mix.throttle != 0) continue;
    const bool centre = !can.centre && std::abs(o.centre_us - 1500) > 1,
               ends = !can.ends && (std::abs(o.low_us - 1000) > 1 || std::abs(o.high_us - 2000) > 1);
    if (!centre && !ends) continue;
    Snag& n =
        found.add(Severity::fix_first, o.id,
                  capital(name_of(o)) + " is planned with " +
                      (centre && ends ? "a centre and ends"
                       : centre       ? "a centre"
                                      : "ends") +
                      " of its own, which this class can't set",
                  "The board sends 1000, 1500 and 2000 µs all the same; every throw worked out from the plan is wrong.",
                  "Centre it with arm and clevis, and choose the throw by the holes.");
    std::vector<PlacedValue> plain;
    const auto at = [&](const char* member) { return path_of({"outputs", o.id, member}); };
    if (!can.ends) plain.insert(plain.end(), {{at("low_us"), 1000.0}, {at("high_us"), 2000.0}});
    if (!can.centre || o.centre_us <= 1000 || o.centre_us >= 2000) plain.emplace_back(at("centre_us"), 1500.0);
    n.fix = sets("Plan " + o.id + " with plain pulses", plain);
  }
}

void surface_of_another_variant(const Inspection& in, Findings& found) {
  if (!in.controller || in.controller->surfaces.drives.empty()) return;
  const auto& drives = in.controller->surfaces.drives;
  const bool loadable = in.controller->surfaces.others_by_profile;
  const CheckStatus* loaded = find_in(in.checks, [](const CheckStatus& c) {
    return c.id == CheckId{prepare_family, "profile"};
  });
  if (loadable && loaded && loaded->state == ProofState::fresh) return;
  std::set<SurfaceKind> told;
  for (const Output& o : in.rig.outputs)
    for (const Surface s : o.surfaces)
      if (std::find(drives.begin(), drives.end(), s.kind) == drives.end() && told.insert(s.kind).second) {
        const std::string them = s.kind == SurfaceKind::vtail || s.kind == SurfaceKind::inverted_v
                                     ? std::string("a V-tail")
                                     : label_of(name_of(s.kind)) + "s";
        if (loadable) {
          found.add(Severity::fix_first, o.id,
                    "As it comes the " + in.controller->name + " does not mix " + them + ": it needs a profile",
                    "Without it stick and correction come out wrong on these surfaces.",
                    "Load the profile from the computer, and tick that step off at station proof; or choose another "
                    "class.");
          continue;
        }
        found.add(Severity::grounds, o.id, "The " + in.controller->name + " is not made for " + them,
                  "It mixes only what its own variant is made for: stick and correction would come out wrong.",
                  "Choose its sibling or another class, or let the transmitter's channel past the board.");
      }
}

void release_reaches(const Inspection& in, Findings& found) {
  const Output* o = release_output(in.rig);
  if (!o || !in.rig.release) return;
  const ReleaseReport r = analyze_release(*in.rig.release, *o, release_torque(in.rig, in.catalogue));
  if (!r.clears)
    found.add(Severity::grounds, o->id,
              "The tow release draws its pin " + length_text(r.travel.value) + " of the " +
                  length_text(in.rig.release->pin_m) + " that sit in the loop",
              "At full throttle the line is still held: a tow that can't be let go takes both aircraft along.",
              "A longer arm, more travel of the output, or a shorter pin.");
  else if (!r.strong)
    found.add(Severity::fix_first, o->id,
              "The tow release's servo pulls " + number_text(r.force.value, 0) +
                  " N where drawing the pin under load may ask " + number_text(r.needed.value, 0) + " N",
              "It jams when the line pulls: twice the force is wanted (common practice).",
              "A shorter arm, a stronger servo, or a smoother pin.");
}

void trims_itself(const Inspection& in, Findings& found) {
  if (!in.rig.controller.auto_trim || !in.controller) return;
  if (in.controller->surfaces.trim == TrimKeeping::never) {
    found
        .add(Severity::fix_first, "controller", "Automatic trim is planned, and this class keeps no trim",
             "Its centres stay where they were set.", "Trim with pushrods and centres.")
        .fix = sets("No automatic trim", {{"controller/auto_trim", false}});
    return;
  }
  const std::string mode(name_of(in.controller->surfaces.trims_in));
  if (!in.rig.modes.empty() &&
      std::none_of(in.rig.modes.begin(), in.rig.modes.end(), [&](const ModeChoice& m) { return m.mode == mode; }))
    found.add(Severity::worth_knowing, "controller",
              "Automatic trim finds the trim in " + mode + " mode, and no switch position gives it",
              "It would never move a centre.", "Give " + mode + " mode a position, or do without automatic trim.");
}

}  // namespace
}  // namespace rules::surfaces

const std::vector<Rule>& surfaces_rules() {
  using namespace rules::surfaces;
  static const std::vector<Rule> rules{{"SURFACES-01", Station::surfaces, surface_without_output, source::plan},
                                       {"SURFACES-02", Station::surfaces, output_for_no_surface, source::plan},
                                       {"SURFACES-03", Station::surfaces, shared_socket, source::plan},
                                       {"SURFACES-04", Station::surfaces, unknown_socket, source::catalogue},
                                       {"SURFACES-05", Station::surfaces, command_unanswered, source::sign},
                                       {"SURFACES-06", Station::surfaces, wrong_axis, source::sign},
                                       {"SURFACES-07", Station::surfaces, no_sign_is_right, source::sign},
                                       {"SURFACES-08", Station::surfaces, unequal_sides, source::sign},
                                       {"SURFACES-09", Station::surfaces, saturates, source::mix},
                                       {"SURFACES-10", Station::surfaces, y_lead, source::common},
                                       {"SURFACES-11", Station::surfaces, linkage_trouble, source::fourbar},
                                       {"SURFACES-12", Station::surfaces, unequal_throws, source::common},
                                       {"SURFACES-13", Station::surfaces, not_flush, source::common},
                                       {"SURFACES-14", Station::surfaces, servo_load, source::hinge},
                                       {"SURFACES-15", Station::surfaces, play, source::common},
                                       {"SURFACES-16", Station::surfaces, ends_at_the_stop, source::mix},
                                       {"SURFACES-17", Station::surfaces, strong_taileron, source::common},
                                       {"SURFACES-18", Station::surfaces, settings_that_are_not_there, source::board},
                                       {"SURFACES-19", Station::surfaces, flaps_that_lift, source::sign},
                                       {"SURFACES-20", Station::surfaces, no_room_with_flaps, source::mix},
                                       {"SURFACES-21", Station::surfaces, surface_of_another_variant, source::board},
                                       {"SURFACES-22", Station::surfaces, release_reaches, source::geometry},
                                       {"SURFACES-23", Station::surfaces, trims_itself, source::board}};
  return rules;
}

}  // namespace rigging
