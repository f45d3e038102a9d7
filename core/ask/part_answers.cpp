#include "ask/part_answers.h"

#include <algorithm>

#include "ask/things.h"
#include "base/number.h"
#include "base/units.h"
#include "fit/fit.h"
#include "power/network.h"

namespace rigging {
namespace {

std::string cells_text(int least, int most) {
  return std::to_string(least) + (most > least ? " to " + std::to_string(most) : "") + " cells";
}

/// The figures of a kind that are asked for, with their unit; empty where it has none of them.
std::string figure_asked(const PartKind& kind, const Sentence& in) {
  const bool amps = in.has({"current", "amps", "ampere", "amp", "rating"});
  const auto a = [](double v) { return number_text(v, 1) + " A"; };
  if (kind.battery) {
    if (in.has({"resistance", "ohm", "milliohm", "internal"}))
      return number_text(kind.battery->cell_milliohm * kind.battery->cells, 0) + " mΩ, " +
             number_text(kind.battery->cell_milliohm, 1) + " mΩ each cell, warm";
    if (in.has({"capacity", "mah"})) return number_text(1000 * kind.battery->capacity_ah, 0) + " mAh";
    if (in.has({"cells", "cell"})) return cells_text(kind.battery->cells, kind.battery->cells);
    if (in.has({"voltage", "volts", "full", "empty"}))
      return number_text(kind.battery->cells * kind.battery->full_cell_v, 1) + " V full, " +
             number_text(kind.battery->cells * kind.battery->empty_cell_v, 1) + " V empty under load";
    if (amps || in.has({"discharge"})) return a(kind.battery->amps) + " without end";
  }
  if (kind.drive) {
    if (amps) return a(kind.drive->amps) + " without end";
    if (in.has({"cells", "cell", "voltage", "volts"}))
      return cells_text(kind.drive->least_cells, kind.drive->most_cells);
  }
  if (kind.motor) {
    if (amps) return a(kind.motor->amps) + " for some seconds, " + a(kind.motor->no_load_a) + " without a propeller";
    if (in.has({"kv", "revs", "rev", "rpm", "speed", "turns"}))
      return number_text(kind.motor->rpm_per_v, 0) + " rev/min for each volt";
    if (in.has({"resistance", "ohm"})) return number_text(1000 * kind.motor->ohm, 0) + " mΩ";
  }
  if (kind.servo) {
    if (in.has({"torque", "strong", "force"})) return number_text(kind.servo->torque_nm, 2) + " N·m stalled, at 5 V";
    if (in.has({"fast", "speed", "quick"})) return number_text(kind.servo->seconds_per_60deg, 2) + " s for 60°";
    if (in.has({"digital", "analogue", "analog"})) return kind.servo->digital ? "digital" : "analogue";
    if (in.has({"band", "deadband"})) return number_text(kind.servo->dead_band_us, 0) + " µs dead band";
    if (in.has({"rate", "hz"})) return "up to " + number_text(kind.servo->most_rate_hz, 0) + " Hz";
  }
  if (kind.propeller) {
    if (in.has({"diameter", "big", "size"})) return length_text(kind.propeller->diameter_m) + " across";
    if (in.has({"pitch"})) return length_text(kind.propeller->pitch_m) + " pitch";
    if (in.has({"blades", "blade"})) return std::to_string(kind.propeller->blades) + " blades";
  }
  constexpr double mm = 1e-3;
  if ((in.has({"size", "long", "wide", "high", "dimensions"}) || in.has_row({"how", "big"})) && kind.length_mm &&
      kind.width_mm && kind.height_mm)
    return length_text(*kind.length_mm * mm) + " × " + length_text(*kind.width_mm * mm) + " × " +
           length_text(*kind.height_mm * mm);
  return {};
}

/// Every word that was said is the part's, and the other way round.
constexpr double all_said = 1.9;

void figures(const AskedOf& of, const Sentence& in, Found& found) {
  const auto what = without(
      in.words, {"current",  "amps",    "rating",   "max",  "maximum", "most",     "resistance", "ohm",   "internal",
                 "capacity", "cells",   "voltage",  "kv",   "torque",  "strong",   "fast",       "speed", "size",
                 "big",      "long",    "wide",     "high", "pitch",   "diameter", "blades",     "bear",  "take",
                 "rate",     "digital", "analogue", "dead", "band",    "turns",    "full",       "empty"});
  // Nothing but the part may be left.
  double fit = 0;
  const Part* p = part_named(of, what, &fit);
  const PartKind* k = p && fit >= all_said ? of.catalogue.part(p->kind) : nullptr;
  if (!k) return;
  if (const std::string figure = figure_asked(*k, in); !figure.empty())
    found.answer(5.1, capital(part_name(of.rig, of.catalogue, p->id)) + ": " + figure, Station::fit, p->id);
}

void heaviest(const AskedOf& of, const Sentence& in, Found& found) {
  if (!in.has({"heaviest", "lightest"})) return;
  std::vector<MassItem> items = of.review.reports.fit().balance.items;
  std::erase_if(items, [](const MassItem& i) { return i.airframe; });
  const bool heavy = in.has({"heaviest"});
  std::stable_sort(items.begin(), items.end(), [&](const MassItem& a, const MassItem& b) {
    return heavy ? a.mass_kg > b.mass_kg : a.mass_kg < b.mass_kg;
  });
  constexpr std::size_t most_named = 3;
  std::string text;
  for (std::size_t i = 0; i < std::min(most_named, items.size()); ++i)
    text += (i == 0 ? "" : ", then ") + items[i].name + " " + mass_text(items[i].mass_kg);
  if (!items.empty()) found.answer(5, capital(text), Station::fit, items.front().part);
}

/// "which servo works the left elevon", "what drives output 3".
void workers(const AskedOf& of, const Sentence& in, Found& found) {
  if (!in.begins({"which", "what", "who"}) || !in.has({"servo", "servos", "works", "work", "moves", "drives"})) return;
  std::string text;
  std::string subject;
  for (const Surface s : surfaces_named(of, in))
    for (const Part& p : of.rig.parts)
      if (p.surface == s) {
        const Output* o = of.rig.output_of(s);
        const PartKind* k = of.catalogue.part(p.kind);
        text += (text.empty() ? "" : "; ") + s.label() + ": " + (k ? k->name : p.kind) +
                (o ? ", by output " + o->id.substr(o->id.find_last_of('_') + 1) : "");
        subject = p.id;
      }
  if (!text.empty()) found.answer(4.4, capital(text), Station::fit, subject);
}

/// "how far is the receiver from the video transmitter".
void apart(const AskedOf& of, const Sentence& in, Found& found) {
  const auto from = std::find_if(in.all.begin(), in.all.end(),
                                 [](const std::string& w) { return w == "from" || w == "and" || w == "to"; });
  if (!in.has({"far", "distance", "apart", "close", "near"}) || from == in.all.end()) return;
  const auto words = [](auto begin, auto end) {
    std::string text;
    for (auto it = begin; it != end; ++it) text += *it + " ";
    return without(meant_words(text), {"far", "distance", "between", "apart", "close", "near"});
  };
  const auto place_of = [&](const std::vector<std::string>& asked, std::string& name) -> const Mounting* {
    double fit = 0;
    const Part* p = part_named(of, asked, &fit);
    const std::string id = p && fit >= 1 ? p->id : said(asked, "board") ? "controller" : std::string();
    if (id.empty()) return nullptr;
    name = part_name(of.rig, of.catalogue, id);
    return of.rig.mounting(id);
  };
  std::string one, two;
  const Mounting* a = place_of(words(in.all.begin(), from), one);
  const Mounting* b = place_of(words(from + 1, in.all.end()), two);
  if (!a || !b || a == b) return;
  const double d = Point(a->x_m - b->x_m, a->y_m - b->y_m, a->z_m - b->z_m).norm();
  found.answer(5.2, capital(one) + " and " + two + ": " + length_text(d) + " from middle to middle", Station::fit,
               a->part);
}

}  // namespace

void find_part_answers(const AskedOf& of, const Sentence& in, Found& found) {
  heaviest(of, in, found);
  apart(of, in, found);
  if (!in.asks()) return;
  workers(of, in, found);
  if (in.split.number.empty()) figures(of, in, found);
}

}  // namespace rigging
