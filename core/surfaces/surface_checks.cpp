#include "surfaces/surface_checks.h"

#include <algorithm>
#include <cmath>

#include "base/find.h"
#include "base/number.h"
#include "rig/path.h"
#include "surfaces/surfaces.h"

namespace rigging {

std::vector<Surface> hinged(const Rig& rig) {
  std::vector<Surface> all;
  for (const Output& o : rig.outputs)
    for (const Surface s : o.surfaces)
      if (s.kind != SurfaceKind::motor) all.push_back(s);
  return all;
}

namespace {

constexpr double same_us = 3;  // a reading belongs to a pulse that is this near

std::vector<std::string> centre_places(const CheckContext& in, const std::string&) {
  std::vector<std::string> all;
  for (const Surface s : hinged(in.rig)) {
    const Output& o = *in.rig.output_of(s);
    for (const char* member : {"surfaces", "socket", "reversed", "centre_us"})
      all.push_back(path_of({"outputs", o.id, member}));
    for (const char* member : {"arm_m", "arm_deg", "horn_m", "rod_m"})
      all.push_back(path_of({"linkages", s.name(), member}));
    if (const Linkage* l = in.rig.linkage(s); l && l->want_neutral_deg)
      all.push_back(path_of({"linkages", s.name(), "want_neutral_deg"}));
    for (const Part& p : in.rig.parts)
      if (p.surface && *p.surface == s) all.push_back(path_of({"parts", p.id, "kind"}));
  }
  return all;
}

std::vector<std::string> throw_places(const CheckContext& in, const std::string& subject) {
  std::vector<std::string> all = centre_places(in, subject);
  for (const Surface s : hinged(in.rig))
    for (const char* member : {"low_us", "high_us"})
      all.push_back(path_of({"outputs", in.rig.output_of(s)->id, member}));
  return all;
}

std::string failing_centre(const CheckContext& in, const std::string&) {
  const Rig& rig = in.rig;
  for (const Surface s : hinged(rig)) {
    const auto read = read_throws(rig, s);
    if (!read) return "the " + s.label() + " was not read at its centre and both ends since it was last set";
    const Linkage* l = rig.linkage(s);
    const double want = l ? l->want_neutral_deg.value_or(0) : 0;
    if (std::abs(read->neutral_deg - want) > flush_deg)
      return "the " + s.label() + " stands " + number_text(read->neutral_deg - want, 1) + "° off " +
             (want == 0 ? std::string("neutral") : "where it is wanted (" + number_text(want, 1) + "°)");
  }
  return hinged(rig).empty() ? "there is no surface" : "";
}

std::string failing_throws(const CheckContext& in, const std::string& subject) {
  const Rig& rig = in.rig;
  if (std::string first = failing_centre(in, subject); !first.empty()) return first;
  for (const Surface s : hinged(rig)) {
    const auto read = read_throws(rig, s);
    if (const Linkage* l = rig.linkage(s)) {
      if (l->want_up_deg && std::abs(*l->want_up_deg - read->up_deg) > flush_deg)
        return "the " + s.label() + " goes " + number_text(read->up_deg, 1) + "° up instead of " +
               number_text(*l->want_up_deg, 1) + "°";
      if (l->want_down_deg && std::abs(*l->want_down_deg - read->down_deg) > flush_deg)
        return "the " + s.label() + " goes " + number_text(read->down_deg, 1) + "° down instead of " +
               number_text(*l->want_down_deg, 1) + "°";
    }
    if (s.side != Side::left) continue;
    const auto other = read_throws(rig, {s.kind, Side::right});
    if (other &&
        (std::abs(other->up_deg - read->up_deg) > alike_deg || std::abs(other->down_deg - read->down_deg) > alike_deg))
      return s.label() + " and its twin differ: " + number_text(read->up_deg, 1) + "/" +
             number_text(read->down_deg, 1) + "° and " + number_text(other->up_deg, 1) + "/" +
             number_text(other->down_deg, 1) + "°";
  }
  return {};
}

CheckCard centred_card(const CheckContext&, const std::string&) {
  return {"Surfaces centred and measured",
          "",
          "At station surfaces, read every surface at its centre and both ends.",
          "Every surface stands flush at its centre, within half a degree.",
          "",
          {"Propeller off. Hold the model where nothing can catch the surfaces or the shaft."}};
}

CheckCard throws_card(const CheckContext&, const std::string&) {
  return {"Throws as wanted, left and right alike",
          "",
          "At station surfaces, read every surface at its centre and both ends.",
          "Every surface goes as far as wanted, left and right alike.",
          "",
          {"Propeller off. Hold the model where nothing can catch the surfaces or the shaft."}};
}

const Channel* flap_channel(const Rig& rig) { return rig.channel(ChannelFunction::flap); }

std::vector<const Output*> flapped(const Rig& rig) {
  std::vector<const Output*> all;
  for (const Output& o : rig.outputs)
    if (o.mix.flap != 0 && !o.surfaces.empty()) all.push_back(&o);
  return all;
}

std::vector<std::string> flap_subjects(const CheckContext& in) {
  if (!in.controller || !flap_channel(in.rig) || flapped(in.rig).empty()) return {};
  return {{}};
}

std::vector<std::string> flap_places(const CheckContext& in, const std::string&) {
  std::vector<std::string> all{"controller/kind", "controller/firmware", "controller/mounted"};
  for (const Output* o : flapped(in.rig)) {
    for (const char* member : {"socket", "surfaces", "reversed"}) all.push_back(path_of({"outputs", o->id, member}));
    all.push_back(path_of({"outputs", o->id, "mix", "flap"}));
  }
  if (const Channel* c = flap_channel(in.rig))
    for (const char* member : {"function", "reversed"})
      all.push_back(path_of({"radio", "channels", std::to_string(c->number), member}));
  return all;
}

CheckCard flap_card(const CheckContext& in, const std::string&) {
  CheckCard card;
  card.title = "Flaps droop on both sides";
  const Channel* c = flap_channel(in.rig);
  card.todo = "Once the roll stick is right: in manual, bring the flap control" +
              (c ? " (channel " + std::to_string(c->number) + ")" : std::string()) + " from up to full, slowly.";
  for (const Output* o : flapped(in.rig))
    for (const Surface s : o->surfaces)
      card.expected += (card.expected.empty() ? "" : ", ") + s.label() + " " + motion_label(s, -1);
  card.expected = capital(card.expected) + ", all by as much.";
  card.how =
      "All go up: turn the flap channel round. One goes up and the other down: that is roll, close to the ground; flip "
      "the flap weight of the one that goes up, and not its output, which the roll stick has proven.";
  card.cautions = {"Propeller off. Hold the model where nothing can catch the surfaces or the shaft."};
  return card;
}

}  // namespace

int flap_motion(const Output& o, Surface s) {
  if (o.mix.flap == 0) return 0;
  const int flap = o.mix.flap > 0 ? 1 : -1;
  for (const Axis axis : all_axes)
    if (const int way = required_direction(s, axis); way != 0 && o.mix.of(axis) != 0)
      return flap * way * (o.mix.of(axis) > 0 ? 1 : -1);
  return 0;
}

CheckFamily flap_check() {
  return {.id = flaps_droop.family,
          .station = Station::proof,
          .counts_for = Station::surfaces,
          .name = "Flaps droop",
          .one = "direction",
          .many = "directions",
          .subjects = flap_subjects,
          .depends_on = flap_places,
          .card = flap_card};
}

std::optional<ReadThrows> read_throws(const Rig& rig, Surface s) {
  const Linkage* l = rig.linkage(s);
  const Output* o = rig.output_of(s);
  if (!l || !o) return std::nullopt;
  const auto at = [&](double us) {
    return find_in(l->readings, [&](const ThrowReading& r) { return std::abs(r.pulse_us - us) <= same_us; });
  };
  // A class that can't drive one output alone is read as far as its sticks bring it.
  const auto end = [&](double level) {
    const auto* r = at(output_pulse_us(*o, level));
    return r ? r : at(output_pulse_us(*o, level * stick_reach(*o)));
  };
  const auto *low = end(-1), *centre = at(o->centre_us), *high = end(1);
  if (!low || !centre || !high) return std::nullopt;
  return ReadThrows{centre->up_deg, std::max(low->up_deg, high->up_deg), -std::min(low->up_deg, high->up_deg)};
}

std::vector<CheckFamily> throw_checks() {
  CheckFamily centred = reading_family(surfaces_centred, Station::surfaces, "Surfaces centred");
  centred.depends_on = centre_places;
  centred.card = centred_card;
  centred.why_not = failing_centre;
  CheckFamily throws = reading_family(throws_equal, Station::surfaces, "Throws alike");
  throws.depends_on = throw_places;
  throws.card = throws_card;
  throws.why_not = failing_throws;
  return {centred, throws};
}

}  // namespace rigging
