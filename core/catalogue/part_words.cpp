#include "catalogue/part_words.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <map>
#include <set>

#include "language/measures.h"
#include "language/tokens.h"

namespace rigging {
namespace {

/// A number with what it counts: "s" cells, "ah", "a", "v", "mw", "g", "kv" (revolutions a minute per volt), "mm", "x"
/// (of a propeller's two, diameter and pitch in inches), "channels", "blades"; empty when nothing was said.
struct Amount {
  double value = 0;
  std::string unit;
};

struct Said {
  std::vector<std::string> words;
  std::vector<Amount> amounts;
};

/// A unit as parts are told apart by it, and what one of it is worth; none for a word that is none of those.
std::optional<std::pair<std::string, double>> unit_of(const std::string& word) {
  if (word == "s") return std::pair{"s", 1.0};  // a builder's three cells in series, and no seconds
  const Unit* u = unit_named(word);
  if (!u) return std::nullopt;
  const auto in = [&](const char* name, double factor) { return std::optional(std::pair{std::string(name), factor}); };
  switch (u->of) {
    case Quantity::cells: return in("s", 1);
    case Quantity::charge: return in("ah", u->worth);
    case Quantity::current: return in("a", u->worth);
    case Quantity::voltage: return in("v", u->worth);
    case Quantity::power: return in("mw", 1000 * u->worth);
    case Quantity::mass: return in("g", 1000 * u->worth);
    case Quantity::length:
      // Of a metre nobody says how large a part is; inches are a propeller's.
      return u->worth == 1 ? std::nullopt : u->worth == 0.0254 ? in("x", 1) : in("mm", 1000 * u->worth);
    case Quantity::speed_constant: return in("kv", 1);
    case Quantity::channels: return in("channels", 1);
    case Quantity::blades: return in("blades", 1);
    case Quantity::speed:
    case Quantity::angle:
    case Quantity::time:
    case Quantity::share: return std::nullopt;
  }
  return std::nullopt;
}

/// What builders say for what the catalogue says.
std::string usual_word(const std::string& word) {
  static const std::map<std::string, std::string> same{{"gps", "satellite"},
                                                       {"gnss", "satellite"},
                                                       {"satellites", "satellite"},
                                                       {"vtx", "video transmitter"},
                                                       {"rx", "receiver"},
                                                       {"esc", "speed controller"},
                                                       {"bec", "regulator"},
                                                       {"ubec", "regulator"},
                                                       {"cam", "camera"},
                                                       {"lipo", "battery"},
                                                       {"accu", "battery"},
                                                       {"pack", "battery"},
                                                       {"prop", "propeller"},
                                                       {"props", "propeller"},
                                                       {"magnetometer", "compass"},
                                                       {"mag", "compass"},
                                                       {"pitot", "airspeed"},
                                                       {"beeper", "buzzer"},
                                                       {"led", "lights"},
                                                       {"leds", "lights"},
                                                       {"light", "lights"},
                                                       {"ppm", "summed"},
                                                       {"pwm", "pulse"},
                                                       {"analog", "analogue"},
                                                       {"opto", "isolated"},
                                                       {"hv", "high voltage"},
                                                       {"tx", "transmitter"},
                                                       {"recorder", "recording"},
                                                       {"hd", "digital"},
                                                       {"sense", "measures"},
                                                       {"lightweight", "small"},
                                                       {"tiny", "small"},
                                                       {"mini", "small"},
                                                       {"motors", "motor"},
                                                       {"servos", "servo"},
                                                       {"cameras", "camera"},
                                                       {"batteries", "battery"},
                                                       {"receivers", "receiver"},
                                                       {"regulators", "regulator"},
                                                       {"transmitters", "transmitter"},
                                                       {"controllers", "controller"},
                                                       {"propellers", "propeller"},
                                                       {"speedo", "speed controller"}};
  const auto it = same.find(word);
  return it == same.end() ? word : it->second;
}

bool says_nothing(const std::string& word) {
  static const std::set<std::string> small{"a",      "an",   "the",  "my",   "with", "and",       "for",     "of",
                                           "on",     "in",   "its",  "it",   "to",   "is",        "that",    "i",
                                           "have",   "one",  "from", "by",   "own",  "some",      "per",     "min",
                                           "minute", "size", "type", "kind", "fpv",  "brushless", "external"};
  return small.count(word) > 0;
}

Said read(std::string_view text, bool of_catalogue) {
  Said said;
  const auto tokens = tokens_of(text);
  const auto value_at = [&](std::size_t i) { return i < tokens.size() ? said_number(tokens[i]) : std::nullopt; };
  for (std::size_t i = 0; i < tokens.size(); ++i) {
    const auto value = value_at(i);
    if (!value) {
      if (tokens[i] == "x") continue;
      // A unit without its number says nothing; a word may stand for two.
      for (const std::string& w : tokens_of(usual_word(tokens[i])))
        if (!says_nothing(w) && !unit_of(w)) said.words.push_back(w);
      continue;
    }
    if (i + 2 < tokens.size() && tokens[i + 1] == "x" && value_at(i + 2)) {
      said.amounts.push_back({*value, "diameter"});
      said.amounts.push_back({*value_at(i + 2), "pitch"});
      i += 2;
      if (i + 1 < tokens.size() && unit_of(tokens[i + 1]) && unit_of(tokens[i + 1])->first == "x") ++i;
      continue;
    }
    if (const auto unit = i + 1 < tokens.size() ? unit_of(tokens[i + 1]) : std::nullopt) {
      said.amounts.push_back({*value * unit->second, unit->first == "x" ? "diameter" : unit->first});
      ++i;
    } else if (is_digit(tokens[i][0]) || of_catalogue || *value > 1) {
      said.amounts.push_back({*value, {}});
    }
  }
  return said;
}

/// What the catalogue says of a kind, as words and numbers.
struct Entry {
  const PartKind* kind;
  Said name;
  std::vector<std::string> group;
};

Entry entry_of(const PartKind& k) {
  Entry e{&k, read(k.name, true), {}};
  for (const Amount& q : read(k.id, true).amounts)
    if (std::none_of(e.name.amounts.begin(), e.name.amounts.end(),
                     [&](const Amount& o) { return o.value == q.value && (o.unit == q.unit || q.unit.empty()); }))
      e.name.amounts.push_back(q);
  // What its figures say counts where the builder's own name says nothing.
  const auto figure = [&](double value, const char* unit) {
    if (std::none_of(e.name.amounts.begin(), e.name.amounts.end(), [&](const Amount& o) { return o.unit == unit; }))
      e.name.amounts.push_back({value, unit});
  };
  constexpr double inch_m = 0.0254;
  if (k.battery) figure(k.battery->cells, "s"), figure(k.battery->capacity_ah, "ah");
  if (k.drive) figure(k.drive->amps, "a");
  if (k.motor) figure(k.motor->rpm_per_v, "kv");
  if (k.propeller) figure(k.propeller->diameter_m / inch_m, "diameter"), figure(k.propeller->pitch_m / inch_m, "pitch");
  for (const std::string& w : tokens_of(label_of(name_of(k.group)))) e.group.push_back(w);
  return e;
}

bool close(double a, double b) { return std::abs(a - b) <= 0.01 * std::max(std::abs(a), std::abs(b)); }

/// 1 for the same number, less the further apart, 0 where the kind has none of the unit.
double nearness(const Amount& asked, const Said& name) {
  double best = 0;
  for (const Amount& q : name.amounts) {
    // A number without a unit, as in "2814", is its own; with one it is no bare number of the id.
    if (asked.unit.empty()) {
      if (close(asked.value, q.value)) best = 1;
    } else if (asked.unit == "s" && q.unit == "s") {
      // Another number of cells is another battery, however near.
      constexpr double other_cells = 0.2;
      best = std::max(best, close(asked.value, q.value) ? 1 : other_cells);
    } else if (asked.unit == q.unit) {
      const double apart = std::abs(std::log(asked.value / q.value));
      best = std::max(best, close(asked.value, q.value) ? 1 : 0.9 / (1 + apart));
    }
  }
  return best;
}

std::string joined(const std::vector<std::string>& words) {
  std::string all;
  for (const std::string& w : words) all += (all.empty() ? "" : " ") + w;
  return all;
}

}  // namespace

namespace {

std::vector<FoundKind> kinds_of(const Catalogue& catalogue, const Said& asked) {
  std::vector<FoundKind> found;
  // A small number alone could be anything's.
  if (asked.words.empty() && asked.amounts.size() == 1 && asked.amounts[0].unit.empty() && asked.amounts[0].value < 100)
    return found;
  std::vector<Entry> entries;
  for (const PartKind& k : catalogue.parts)
    if (k.group != PartGroup::lead) entries.push_back(entry_of(k));
  // What no part is called says nothing of one.
  const auto begins = [](const std::string& own, const std::string& w) { return own.starts_with(w); };
  std::vector<std::string> known, unknown;
  for (const std::string& w : asked.words) {
    const bool is_known = std::any_of(entries.begin(), entries.end(), [&](const Entry& e) {
      const auto like = [&](const std::string& own) { return begins(own, w); };
      return std::any_of(e.name.words.begin(), e.name.words.end(), like) ||
             std::any_of(e.group.begin(), e.group.end(), like);
    });
    (is_known ? known : unknown).push_back(w);
  }
  for (const Entry& e : entries) {
    FoundKind f{e.kind, 0, true, joined(unknown)};
    const bool nothing_asked = asked.words.empty() && asked.amounts.empty();
    bool misses = false;
    std::size_t of_group = 0, said_of_name = 0;
    for (const std::string& w : known) {
      const bool group =
          std::any_of(e.group.begin(), e.group.end(), [&](const std::string& o) { return begins(o, w); });
      const bool name =
          std::any_of(e.name.words.begin(), e.name.words.end(), [&](const std::string& o) { return begins(o, w); });
      of_group += group;
      said_of_name += name;
      misses = misses || (!group && !name);
      f.fit += group ? 1 : name ? 0.8 : 0;
    }
    // Its whole kind was named.
    if (!e.group.empty() && of_group >= e.group.size()) f.fit += 1.5;
    for (const Amount& q : asked.amounts) {
      const double near = nearness(q, e.name);
      f.exact = f.exact && near >= 1;
      // A number alone must be right: "5" means nothing near it.
      misses = misses || near <= 0;
      f.fit += 2 * near;
    }
    if (misses) continue;
    f.fit -= 0.02 * static_cast<double>(e.name.words.size() - std::min(e.name.words.size(), said_of_name));
    if (nothing_asked) f.fit = 1;
    if (f.fit > 0) found.push_back(std::move(f));
  }
  std::stable_sort(found.begin(), found.end(),
                   [](const FoundKind& a, const FoundKind& b) { return a.exact != b.exact ? a.exact : a.fit > b.fit; });
  return found;
}

}  // namespace

std::vector<FoundKind> find_kinds(const Catalogue& catalogue, std::string_view text) {
  const Said asked = read(text, false);
  auto found = kinds_of(catalogue, asked);
  if (!found.empty() || asked.words.size() < 2) return found;
  // A word that is said of other parts alone ("analogue camera") is not understood, and all else still is: what names a
  // whole kind fits best.
  for (std::size_t i = 0; i < asked.words.size(); ++i) {
    Said rest = asked;
    rest.words.erase(rest.words.begin() + static_cast<std::ptrdiff_t>(i));
    auto without = kinds_of(catalogue, rest);
    if (without.empty() || (!found.empty() && without.front().fit <= found.front().fit)) continue;
    for (FoundKind& f : without) f.unknown += (f.unknown.empty() ? "" : " ") + asked.words[i];
    found = std::move(without);
  }
  return found;
}

std::vector<SaidPart> parts_in_words(const Catalogue& catalogue, std::string_view list) {
  std::vector<std::string> things(1);
  const std::string text(list);
  const auto word_at = [&](std::size_t i, std::string_view word) {
    if (text.size() < i + word.size()) return false;
    for (std::size_t k = 0; k < word.size(); ++k)
      if (std::tolower(static_cast<unsigned char>(text[i + k])) != word[k]) return false;
    return true;
  };
  for (std::size_t i = 0; i < text.size(); ++i) {
    const bool decimal =
        text[i] == ',' && i > 0 && i + 1 < text.size() && is_digit(text[i - 1]) && is_digit(text[i + 1]);
    if ((text[i] == ',' && !decimal) || text[i] == ';' || text[i] == '\n' || text[i] == '+') {
      things.emplace_back();
    } else if (word_at(i, " and ") || word_at(i, " plus ")) {
      i += word_at(i, " and ") ? 4 : 5;
      things.emplace_back();
    } else {
      things.back() += text[i];
    }
  }
  std::vector<SaidPart> parts;
  for (std::string& thing : things) {
    const auto first = thing.find_first_not_of(" \t\r"), last = thing.find_last_not_of(" \t\r");
    if (first == std::string::npos) continue;
    SaidPart part;
    part.said = thing.substr(first, last - first + 1);
    std::string rest = part.said;
    // How many: a small whole number in front of something that is no unit.
    const auto tokens = tokens_of(part.said);
    const auto inches = [&](std::size_t i) {
      return i >= tokens.size() || unit_of(tokens[i]).value_or(std::pair{std::string("x"), 1.0}).first == "x";
    };
    const bool times = tokens.size() > 2 && tokens[1] == "x" && (!said_number(tokens[2]) || !inches(3));
    if (tokens.size() > 1 && !unit_of(tokens[1]) &&
        (times || (tokens[1] != "x" && part.said[tokens[0].size()] == ' '))) {
      const auto count = said_number(tokens[0]);
      if (count && *count >= 1 && *count <= 12 && *count == std::floor(*count)) {
        part.count = static_cast<int>(*count);
        rest = part.said.substr(tokens[0].size());
      }
    }
    const auto found = find_kinds(catalogue, rest);
    if (found.empty()) {
      part.remark = "no part that is known goes by this";
    } else {
      part.kind = found.front().kind;
      if (!found.front().exact) part.remark = "none is known with just these figures; this is the nearest";
      if (!found.front().unknown.empty())
        part.remark += (part.remark.empty() ? "" : "; ") + ("not understood: " + found.front().unknown);
    }
    parts.push_back(std::move(part));
  }
  return parts;
}

}  // namespace rigging
