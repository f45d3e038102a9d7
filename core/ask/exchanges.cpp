#include "ask/exchanges.h"

#include <cmath>

#include "ask/things.h"
#include "base/number.h"
#include "catalogue/part_words.h"
#include "fit/edits.h"
#include "power/drive_choice.h"

namespace rigging {
namespace {

/// "2200" of a battery is its capacity, mAh.
bool is_capacity(const std::string& token) {
  constexpr double least_mah = 150, most_mah = 30000;
  const auto n = number_of(token);
  return n && *n >= least_mah && *n <= most_mah;
}

/// A part of the rig, and the kind that was said for its place.
struct Exchange {
  const Part* part = nullptr;
  const PartKind* kind = nullptr;
  bool exact = false;  ///< else `kind` is the nearest that is known
};

std::optional<Exchange> exchange_said(const AskedOf& of, const Sentence& in) {
  std::string rest = in.has({"capacity"}) && !in.has({"battery"}) ? "battery " : "";
  for (const std::string& t : tokens_of(in.text)) {
    const auto small = {"use", "change", "exchange", "replace", "to",      "set",     "with", "by",       "the",
                        "my",  "a",      "an",       "i",       "instead", "make",    "it",   "capacity", "swap",
                        "for", "can",    "if",       "what",    "does",    "happens", "fit",  "could",    "is",
                        "on",  "run",    "would",    "will",    "happen",  "be"};
    if (std::find(small.begin(), small.end(), t) == small.end())
      rest += t + (said(in.words, "battery") && is_capacity(t) ? " mah " : " ");
  }
  // Nobody who says a capacity means other cells.
  const auto packs = parts_of(of, PartGroup::battery);
  if (const PartKind* k = packs.size() == 1 ? of.catalogue.part(packs.front()->kind) : nullptr;
      k && k->battery && said(in.words, "battery") + in.has({"capacity", "mah"}) > 0 && !in.has({"cell", "cells"}) &&
      std::none_of(in.all.begin(), in.all.end(),
                   [](const std::string& w) { return w.size() >= 2 && w.ends_with("s") && is_digit(w.front()); }))
    rest += std::to_string(k->battery->cells) + " s";
  const auto kinds = find_kinds(of.catalogue, rest);
  if (kinds.empty() || !kinds.front().unknown.empty()) return {};
  const auto there = parts_of(of, kinds.front().kind->group);
  if (there.size() != 1) return {};
  const PartKind* now = of.catalogue.part(there.front()->kind);
  // Of those that are all that was said, the one that is most like what it replaces.
  const PartKind* like_it = kinds.front().kind;
  const auto apart = [&](const PartKind& k) {
    return !now || !now->battery || !k.battery ? 0
                                               : std::abs(std::log(k.battery->capacity_ah / now->battery->capacity_ah));
  };
  for (const FoundKind& k : kinds)
    if (k.exact && kinds.front().exact && k.fit >= kinds.front().fit && k.kind->group == like_it->group &&
        apart(*k.kind) < apart(*like_it))
      like_it = k.kind;
  return Exchange{there.front(), like_it, kinds.front().exact};
}

/// What was said and is not known is not silently another.
std::string nearest_words(const PartKind& kind) {
  return "no " + label_of(name_of(kind.group)) + " that is known is just so; the nearest is " + kind.name +
         ". Write it to the own parts, or say that one";
}

DriveKinds fitted_drive(const AskedOf& of) {
  DriveKinds kinds;
  for (const auto& [group, id] : {std::pair{PartGroup::motor, &kinds.motor},
                                  {PartGroup::propeller, &kinds.propeller},
                                  {PartGroup::battery, &kinds.battery},
                                  {PartGroup::speed_controller, &kinds.speed_controller}})
    if (const auto parts = parts_of(of, group); !parts.empty()) *id = parts.front()->kind;
  return kinds;
}

std::string verdict(const AskedOf& of, const DriveKinds& kinds) {
  const DriveChoice choice = judge_drive(of.rig.airframe, of.catalogue, kinds);
  std::string wrong;
  for (const std::string& w : choice.wrong) wrong += (wrong.empty() ? "" : "; ") + w;
  return choice.wrong.empty() ? "suits: " + choice.words
                              : "does not suit: " + wrong + (choice.words.empty() ? "" : " (" + choice.words + ")");
}

/// The member of a drive for parts of this group, or null.
std::string DriveKinds::*place_of(PartGroup group) {
  switch (group) {
    case PartGroup::motor: return &DriveKinds::motor;
    case PartGroup::propeller: return &DriveKinds::propeller;
    case PartGroup::battery: return &DriveKinds::battery;
    case PartGroup::speed_controller: return &DriveKinds::speed_controller;
    default: return nullptr;
  }
}

/// "one cell less", "a cell more", as a battery that is named: "use a 3S battery".
std::optional<Sentence> with_other_cells(const AskedOf& of, const Sentence& in) {
  const bool fewer = in.has({"less", "fewer"}), more = in.has({"more", "extra", "additional", "another"});
  const auto batteries = parts_of(of, PartGroup::battery);
  const PartKind* k = batteries.empty() ? nullptr : of.catalogue.part(batteries.front()->kind);
  if (!in.has({"cell", "cells"}) || fewer == more || !k || !k->battery || (in.split.number.size() > 1)) return {};
  const auto by = in.split.number.empty() ? std::nullopt : number_of(in.split.number);
  const int cells = k->battery->cells + (fewer ? -1 : 1) * (by ? static_cast<int>(*by) : in.has({"two"}) ? 2 : 1);
  if (cells < 1) return {};
  return Sentence((in.asks() ? "can I use a " : "use a ") + std::to_string(cells) + "S battery");
}

}  // namespace

void find_exchange(const AskedOf& of, const Sentence& in, Found& found) {
  if (const auto cells = with_other_cells(of, in)) return find_exchange(of, *cells, found);
  const bool asked =
      in.has({"use", "change", "exchange", "replace", "take", "swap", "set"}) || in.has({"capacity"}) ||
      (in.has({"battery", "propeller", "prop", "motor", "lipo"}) && !in.split.number.empty() && in.words.size() <= 5);
  // "use inches" exchanges no part.
  if (!asked || in.has({"inches", "metric", "imperial", "millimetres"}) || said(in.words, "weigh") ||
      in.has({"add", "another", "move", "put", "out", "remove", "take"}))
    return;
  const auto said_one = exchange_said(of, in);
  if (!said_one) return;
  const std::string& id = said_one->part->id;
  if (!said_one->exact) return found.refusal(4.5, nearest_words(*said_one->kind), Station::fit, id);
  found.deed(4.5, exchange_part(of.rig, of.catalogue, id, said_one->kind->id), Station::fit, id);
}

void find_other_drive(const AskedOf& of, const Sentence& in, Found& found) {
  if (const auto cells = with_other_cells(of, in)) return find_other_drive(of, *cells, found);
  if (!in.asks() || !in.has({"use", "fit", "run", "put", "change", "swap", "take", "with"}) || !of.rig.airframe.mass_kg)
    return;
  const auto said_one = exchange_said(of, in);
  // "does the battery fit" names no other one.
  const bool numbered = in.text.find_first_of("0123456789") != std::string::npos;
  if (!numbered || !said_one || !place_of(said_one->kind->group)) return;
  const std::string& id = said_one->part->id;
  if (!said_one->exact) return found.answer(4.5, capital(nearest_words(*said_one->kind)), Station::fit, id);
  DriveKinds kinds = fitted_drive(of);
  kinds.*place_of(said_one->kind->group) = said_one->kind->id;
  found.answer(4.5,
               said_one->kind->name + " " + verdict(of, kinds) + ". Say “use …” to fit it, and one undo takes it back",
               Station::power, id);
}

void find_suits(const AskedOf& of, const Sentence& in, Found& found) {
  if (!in.asks() || !of.rig.airframe.mass_kg ||
      !in.has({"big", "small", "large", "strong", "weak", "right", "suit", "suits", "ok", "okay", "match", "good"}))
    return;
  for (const PartGroup group :
       {PartGroup::motor, PartGroup::propeller, PartGroup::battery, PartGroup::speed_controller}) {
    const auto parts = parts_of(of, group);
    const auto what = without(in.words, {"big", "small", "large", "strong", "weak", "right", "suit", "suits", "ok",
                                         "okay", "match", "good", "too", "enough", "fit", "fits"});
    if (parts.empty() || names(what, label_of(name_of(group))) < 1) continue;
    const PartKind* k = of.catalogue.part(parts.front()->kind);
    if (!k) continue;
    return found.answer(4.2, k->name + " " + verdict(of, fitted_drive(of)), Station::power, parts.front()->id);
  }
}

}  // namespace rigging
