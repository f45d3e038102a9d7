#include "catalogue/part_words.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <map>
#include <set>

#include "base/number.h"

namespace rigging {
namespace {

/// A number with what it counts: "s" cells, "ah", "a", "v", "mw", "g", "kv" (revolutions a minute per volt), "mm", "x"
/// (of a propeller's two, diameter and pitch in inches), "channels", "blades"; empty when nothing was said.
struct Quantity {
  double value = 0;
  std::string unit;
};

struct Said {
  std::vector<std::string> words;
  std::vector<Quantity> quantities;
};

bool is_digit(char c) { return std::isdigit(static_cast<unsigned char>(c)) != 0; }
bool is_letter(char c) { return std::isalpha(static_cast<unsigned char>(c)) != 0 || (c & 0x80) != 0; }

/// Small letters, the two signs of "times" as x, a comma between digits as a point.
std::string plain(std::string_view text) {
  std::string out;
  for (std::size_t i = 0; i < text.size(); ++i) {
    if (out.ends_with("li") && (text.size() - i > 3) && (text[i] == '-' || text[i] == ' ') &&
        (text.substr(i + 1, 3) == "ion" || text.substr(i + 1, 3) == "Ion" || text.substr(i + 1, 3) == "ION") &&
        (out.size() == 2 || !is_letter(out[out.size() - 3]))) {
      out.replace(out.size() - 2, 2, "cylindrical");
      i += 3;
    } else if (text.substr(i, 2) == "×") {
      out += 'x';
      ++i;
    } else if (text[i] == ',' && i > 0 && i + 1 < text.size() && is_digit(text[i - 1]) && is_digit(text[i + 1])) {
      out += '.';
    } else {
      out += static_cast<char>(std::tolower(static_cast<unsigned char>(text[i])));
    }
  }
  return out;
}

/// Numbers, runs of letters, and the stroke of inches; everything else parts them.
std::vector<std::string> tokens_of(std::string_view text) {
  const std::string all = plain(text);
  std::vector<std::string> tokens;
  for (std::size_t i = 0; i < all.size();) {
    std::size_t end = i;
    if (is_digit(all[i])) {
      while (end < all.size() &&
             (is_digit(all[end]) || (all[end] == '.' && end + 1 < all.size() && is_digit(all[end + 1]))))
        ++end;
    } else if (is_letter(all[i])) {
      while (end < all.size() && is_letter(all[end])) ++end;
    } else {
      if (all[i] == '"') tokens.emplace_back("inch");
      ++i;
      continue;
    }
    tokens.push_back(all.substr(i, end - i));
    i = end;
  }
  return tokens;
}

std::optional<double> number_word(const std::string& word) {
  static const std::array<const char*, 13> words{"no",    "one",   "two",  "three", "four",   "five",  "six",
                                                 "seven", "eight", "nine", "ten",   "eleven", "twelve"};
  for (std::size_t i = 1; i < words.size(); ++i)
    if (word == words[i]) return static_cast<double>(i);
  return word == "twenty" ? std::optional(20.0) : word == "forty" ? std::optional(40.0) : std::nullopt;
}

/// The unit and what one of it is in the unit that is compared; none for a word that is no unit.
std::optional<std::pair<std::string, double>> unit_of(const std::string& word) {
  static const std::map<std::string, std::pair<std::string, double>> units{{"s", {"s", 1}},
                                                                           {"cell", {"s", 1}},
                                                                           {"cells", {"s", 1}},
                                                                           {"ah", {"ah", 1}},
                                                                           {"mah", {"ah", 0.001}},
                                                                           {"a", {"a", 1}},
                                                                           {"amp", {"a", 1}},
                                                                           {"amps", {"a", 1}},
                                                                           {"ampere", {"a", 1}},
                                                                           {"amperes", {"a", 1}},
                                                                           {"v", {"v", 1}},
                                                                           {"volt", {"v", 1}},
                                                                           {"volts", {"v", 1}},
                                                                           {"mw", {"mw", 1}},
                                                                           {"milliwatt", {"mw", 1}},
                                                                           {"milliwatts", {"mw", 1}},
                                                                           {"w", {"mw", 1000}},
                                                                           {"g", {"g", 1}},
                                                                           {"gram", {"g", 1}},
                                                                           {"grams", {"g", 1}},
                                                                           {"gramme", {"g", 1}},
                                                                           {"mm", {"mm", 1}},
                                                                           {"kv", {"kv", 1}},
                                                                           {"rpm", {"kv", 1}},
                                                                           {"rev", {"kv", 1}},
                                                                           {"inch", {"x", 1}},
                                                                           {"inches", {"x", 1}},
                                                                           {"in", {"x", 1}},
                                                                           {"channel", {"channels", 1}},
                                                                           {"channels", {"channels", 1}},
                                                                           {"ch", {"channels", 1}},
                                                                           {"blade", {"blades", 1}},
                                                                           {"blades", {"blades", 1}},
                                                                           {"bladed", {"blades", 1}}};
  const auto it = units.find(word);
  return it == units.end() ? std::nullopt : std::optional(it->second);
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
  const auto value_at = [&](std::size_t i) -> std::optional<double> {
    if (i >= tokens.size()) return std::nullopt;
    return is_digit(tokens[i][0]) ? number_of(tokens[i]) : number_word(tokens[i]);
  };
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
      said.quantities.push_back({*value, "diameter"});
      said.quantities.push_back({*value_at(i + 2), "pitch"});
      i += 2;
      if (i + 1 < tokens.size() && unit_of(tokens[i + 1]) && unit_of(tokens[i + 1])->first == "x") ++i;
      continue;
    }
    if (const auto unit = i + 1 < tokens.size() ? unit_of(tokens[i + 1]) : std::nullopt) {
      said.quantities.push_back({*value * unit->second, unit->first == "x" ? "diameter" : unit->first});
      ++i;
    } else if (is_digit(tokens[i][0]) || of_catalogue || *value > 1) {
      said.quantities.push_back({*value, {}});
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
  for (const Quantity& q : read(k.id, true).quantities)
    if (std::none_of(e.name.quantities.begin(), e.name.quantities.end(),
                     [&](const Quantity& o) { return o.value == q.value && (o.unit == q.unit || q.unit.empty()); }))
      e.name.quantities.push_back(q);
  for (const std::string& w : tokens_of(spoken(word(k.group)))) e.group.push_back(w);
  return e;
}

bool close(double a, double b) { return std::abs(a - b) <= 0.01 * std::max(std::abs(a), std::abs(b)); }

/// 1 for the same number, less the further apart, 0 where the kind has none of the unit.
double nearness(const Quantity& asked, const Said& name) {
  double best = 0;
  for (const Quantity& q : name.quantities) {
    if (asked.unit.empty() || q.unit.empty()) {
      if (close(asked.value, q.value)) best = 1;
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

std::vector<FoundKind> find_kinds(const Catalogue& catalogue, std::string_view text) {
  std::vector<FoundKind> found;
  const Said asked = read(text, false);
  // A small number alone could be anything's.
  if (asked.words.empty() && asked.quantities.size() == 1 && asked.quantities[0].unit.empty() &&
      asked.quantities[0].value < 100)
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
    const bool nothing_asked = asked.words.empty() && asked.quantities.empty();
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
    for (const Quantity& q : asked.quantities) {
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
    const bool times =
        tokens.size() > 2 && tokens[1] == "x" && ((!is_digit(tokens[2][0]) && !number_word(tokens[2])) || !inches(3));
    if (tokens.size() > 1 && !unit_of(tokens[1]) &&
        (times || (tokens[1] != "x" && part.said[tokens[0].size()] == ' '))) {
      const auto count = is_digit(tokens[0][0]) ? number_of(tokens[0]) : number_word(tokens[0]);
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
