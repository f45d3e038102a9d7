#include "proof/measured_checks.h"

#include <algorithm>
#include <cmath>

#include "base/find.h"
#include "base/number.h"
#include "sticks/sticks.h"
#include "surfaces/surfaces.h"

namespace rigging {
namespace {

constexpr double same_us = 3;  // a reading belongs to a pulse that is this near

std::vector<Surface> hinged(const Rig& rig) {
  std::vector<Surface> all;
  for (const Output& o : rig.outputs)
    for (const Surface s : o.surfaces)
      if (s.kind != SurfaceKind::motor) all.push_back(s);
  return all;
}

std::vector<std::string> centre_lines(const Rig& rig, bool ends) {
  std::vector<std::string> lines;
  for (const Surface s : hinged(rig)) {
    const Output& o = *rig.output_of(s);
    std::string line = s.spoken() + ": " + o.socket + (o.reversed ? " reversed" : "") + ", centre " +
                       number_text(o.centre_us, 0) + " µs";
    if (ends) line += ", ends " + number_text(o.low_us, 0) + " and " + number_text(o.high_us, 0) + " µs";
    if (const Linkage* l = rig.linkage(s))
      line += ", arm " + number_text(1000 * l->arm_m, 1) + " mm at " + number_text(l->arm_deg, 1) + "°, horn " +
              number_text(1000 * l->horn_m, 1) + " mm, rod " + number_text(1000 * l->rod_m, 1) + " mm";
    for (const Part& p : rig.parts)
      if (p.surface && *p.surface == s) line += ", servo " + p.kind;
    lines.push_back(line);
  }
  return lines;
}

std::string failing_centre(const Rig& rig) {
  for (const Surface s : hinged(rig)) {
    const auto read = read_throws(rig, s);
    if (!read) return "the " + s.spoken() + " was not read at its centre and both ends since it was last set";
    if (std::abs(read->neutral_deg) > flush_deg)
      return "the " + s.spoken() + " stands " + number_text(read->neutral_deg, 1) + "° off neutral";
  }
  return hinged(rig).empty() ? "there is no surface" : "";
}

std::string failing_throws(const Rig& rig) {
  if (const std::string first = failing_centre(rig); !first.empty()) return first;
  for (const Surface s : hinged(rig)) {
    const auto read = read_throws(rig, s);
    if (const Linkage* l = rig.linkage(s)) {
      if (l->want_up_deg && std::abs(*l->want_up_deg - read->up_deg) > flush_deg)
        return "the " + s.spoken() + " goes " + number_text(read->up_deg, 1) + "° up instead of " +
               number_text(*l->want_up_deg, 1) + "°";
      if (l->want_down_deg && std::abs(*l->want_down_deg - read->down_deg) > flush_deg)
        return "the " + s.spoken() + " goes " + number_text(read->down_deg, 1) + "° down instead of " +
               number_text(*l->want_down_deg, 1) + "°";
    }
    if (s.side != Side::left) continue;
    const auto other = read_throws(rig, {s.kind, Side::right});
    if (other &&
        (std::abs(other->up_deg - read->up_deg) > alike_deg || std::abs(other->down_deg - read->down_deg) > alike_deg))
      return s.spoken() + " and its twin differ: " + number_text(read->up_deg, 1) + "/" +
             number_text(read->down_deg, 1) + "° and " + number_text(other->up_deg, 1) + "/" +
             number_text(other->down_deg, 1) + "°";
  }
  return {};
}

struct Known {
  MeasuredCheck check;
  const char *id, *title;
};
constexpr Known known[] = {
    {MeasuredCheck::sticks_calibrated, "sticks.calibrated", "Sticks calibrated"},
    {MeasuredCheck::loss_noticed, "sticks.loss_noticed", "Loss of signal noticed"},
    {MeasuredCheck::surfaces_centred, "surfaces.centred", "Surfaces centred and measured"},
    {MeasuredCheck::throws_equal, "surfaces.throws_equal", "Throws as wanted, left and right alike"}};

std::vector<std::string> lines_of(const Rig& rig, const Catalogue& catalogue, MeasuredCheck check) {
  switch (check) {
    case MeasuredCheck::sticks_calibrated: return calibration_dependencies(rig);
    case MeasuredCheck::loss_noticed: return loss_dependencies(rig, catalogue);
    case MeasuredCheck::surfaces_centred: return centre_lines(rig, false);
    case MeasuredCheck::throws_equal: return centre_lines(rig, true);
  }
  return {};
}

std::string failing(const Rig& rig, const Catalogue& catalogue, MeasuredCheck check) {
  switch (check) {
    case MeasuredCheck::sticks_calibrated: {
      const SticksReport r = analyze_sticks(rig, catalogue);
      return !r.all_read ? "not every stick has been read" : !r.all_land ? "not every stick lands" : "";
    }
    case MeasuredCheck::loss_noticed: return {};
    case MeasuredCheck::surfaces_centred: return failing_centre(rig);
    case MeasuredCheck::throws_equal: return failing_throws(rig);
  }
  return {};
}

}  // namespace

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

std::vector<MeasuredStatus> measured_statuses(const Rig& rig, const Catalogue& catalogue) {
  std::vector<MeasuredStatus> all;
  for (const Known& k : known) {
    MeasuredStatus s{k.check,
                     k.id,
                     k.title,
                     false,
                     failing(rig, catalogue, k.check),
                     standing(rig, k.id, lines_of(rig, catalogue, k.check))};
    s.holds = s.why_not.empty();
    all.push_back(std::move(s));
  }
  return all;
}

Rig measured_proven(Rig rig, const Catalogue& catalogue, MeasuredCheck check, const std::string& at, bool simulated) {
  if (!failing(rig, catalogue, check).empty()) return rig;
  const auto lines = lines_of(rig, catalogue, check);
  const bool loose = !rig.controller.mounted;
  for (const Known& k : known)
    if (k.check == check) return recorded(std::move(rig), k.id, lines, at, simulated, loose);
  return rig;
}

}  // namespace rigging
