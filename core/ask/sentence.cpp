#include "ask/sentence.h"

#include <algorithm>
#include <array>
#include <map>

#include "ask/ask.h"

namespace rigging {
namespace {

struct Row {
  std::vector<std::string> words;
  std::string one;
};

/// Two or three words that are one thing.
const std::vector<Row>& rows() {
  static const std::vector<Row> all{{{"speed", "controller"}, "esc"},
                                    {{"video", "transmitter"}, "vtx"},
                                    {{"flight", "controller"}, "board"},
                                    {{"flight", "mode"}, "mode"},
                                    {{"centre", "of", "gravity"}, "cg"},
                                    {{"center", "of", "gravity"}, "cg"},
                                    {{"c", "of", "g"}, "cg"},
                                    {{"y", "lead"}, "ylead"},
                                    {{"y", "cable"}, "ylead"},
                                    {{"y", "harness"}, "ylead"},
                                    {{"v", "tail"}, "vtail"},
                                    {{"feed", "forward"}, "feedforward"},
                                    {{"dual", "rate"}, "dualrate"},
                                    {{"upside", "down"}, "upsidedown"},
                                    {{"come", "home"}, "return"},
                                    {{"comes", "home"}, "return"},
                                    {{"came", "home"}, "return"},
                                    {{"fly", "home"}, "return"},
                                    {{"come", "back"}, "return"},
                                    {{"comes", "back"}, "return"},
                                    {{"go", "home"}, "return"},
                                    {{"goes", "home"}, "return"},
                                    {{"way", "home"}, "wayhome"}};
  return all;
}

std::string one_spelling(std::string word) {
  static const std::map<std::string, std::string> same{{"prop", "propeller"},
                                                       {"airscrew", "propeller"},
                                                       {"lipo", "battery"},
                                                       {"pack", "battery"},
                                                       {"batteries", "battery"},
                                                       {"liion", "battery"},
                                                       {"tx", "transmitter"},
                                                       {"rx", "receiver"},
                                                       {"gps", "satellite"},
                                                       {"gnss", "satellite"},
                                                       {"bec", "regulator"},
                                                       {"ubec", "regulator"},
                                                       {"controller", "board"},
                                                       {"fc", "board"},
                                                       {"center", "centre"},
                                                       {"cog", "cg"},
                                                       {"cam", "camera"},
                                                       {"metres", "metre"},
                                                       {"meters", "metre"},
                                                       {"meter", "metre"},
                                                       {"airplane", "aircraft"},
                                                       {"aeroplane", "aircraft"},
                                                       {"plane", "aircraft"},
                                                       {"model", "aircraft"},
                                                       {"weight", "weigh"},
                                                       {"weighs", "weigh"},
                                                       {"weighed", "weigh"},
                                                       {"heavy", "weigh"},
                                                       {"mass", "weigh"},
                                                       {"cable", "lead"},
                                                       {"wire", "lead"},
                                                       {"wires", "lead"},
                                                       {"quit", "cut"},
                                                       {"noisy", "noise"},
                                                       {"cuts", "cut"},
                                                       {"lose", "lost"},
                                                       {"loses", "lost"},
                                                       {"loss", "lost"},
                                                       {"losing", "lost"},
                                                       {"calibration", "calibrate"},
                                                       {"shook", "shake"},
                                                       {"signal", "link"},
                                                       {"rth", "return"},
                                                       {"returns", "return"},
                                                       {"returned", "return"},
                                                       {"failsafes", "failsafe"},
                                                       {"geofence", "fence"},
                                                       {"export", "xport"},
                                                       {"altitude", "height"},
                                                       {"mixer", "mix"},
                                                       {"mixes", "mix"},
                                                       {"warm", "hot"},
                                                       {"heat", "hot"},
                                                       {"overheat", "hot"},
                                                       {"engine", "motor"},
                                                       {"antenna", "aerial"},
                                                       {"spin", "turn"},
                                                       {"rotate", "turn"},
                                                       {"broken", "broke"},
                                                       {"damaged", "broke"},
                                                       {"stabilizer", "gyro"},
                                                       {"stabiliser", "gyro"},
                                                       {"color", "colour"},
                                                       {"radio", "transmitter"},
                                                       {"handset", "transmitter"},
                                                       {"led", "lamp"},
                                                       {"drone", "aircraft"},
                                                       {"font", "text"},
                                                       {"letters", "text"},
                                                       {"craft", "aircraft"},
                                                       {"kv", "kv"}};
  // "buzzes" and "buzzing" are one word.
  constexpr std::size_t least = 3;
  if (word.size() > least + 2 && word.ends_with("ing") && word != "string" && word != "spring")
    word.resize(word.size() - 3);
  else if (word.size() > least + 2 &&
           (word.ends_with("zes") || word.ends_with("xes") || word.ends_with("shes") || word.ends_with("ches")))
    word.resize(word.size() - 2);
  if (word.size() > 3 && word.ends_with("s") && !word.ends_with("ss") && !word.ends_with("us") &&
      !word.ends_with("is") && !same.count(word))
    word.pop_back();
  const auto it = same.find(word);
  return it == same.end() ? word : it->second;
}

std::string with_percent_signs(std::string text) {
  for (const std::string_view word : {" percent", " per cent"})
    if (const std::size_t at = text.find(word); at != std::string::npos) text.replace(at, word.size(), " %");
  return text;
}

}  // namespace

std::vector<std::string> meant_words(std::string_view text) {
  std::vector<std::string> in = words_of(text), joined;
  for (std::string& w : in)
    if (w.size() > 4 && w.ends_with("s") && (w == "controllers" || w == "transmitters" || w == "modes" || w == "rates"))
      w.pop_back();
  for (std::size_t i = 0; i < in.size();) {
    const Row* row = nullptr;
    for (const Row& r : rows())
      if (!row && i + r.words.size() <= in.size() &&
          std::equal(r.words.begin(), r.words.end(), in.begin() + static_cast<std::ptrdiff_t>(i)))
        row = &r;
    joined.push_back(row ? row->one : in[i]);
    i += row ? row->words.size() : 1;
  }
  std::vector<std::string> out;
  for (const std::string& w : joined)
    if (!telling_words(w).empty()) out.push_back(one_spelling(w));
  return out;
}

std::set<std::string> word_set(std::string_view text) {
  const auto all = meant_words(text);
  return {all.begin(), all.end()};
}

bool like(const std::string& a, const std::string& b) {
  const std::string &few = a.size() < b.size() ? a : b, &many = a.size() < b.size() ? b : a;
  // Words of their own that begin with another.
  static const std::set<std::pair<std::string, std::string>> others{
      {"read", "ready"}, {"fin", "find"},   {"fin", "fine"},    {"fin", "final"},   {"fin", "finish"},
      {"pan", "panel"},  {"tow", "toward"}, {"tow", "towards"}, {"out", "outside"}, {"fuse", "fuselage"}};
  if (others.count({few, many}) > 0) return false;
  return a == b || (few.size() >= 3 && many.starts_with(few) && many.size() - few.size() <= 4);
}

bool said(const std::vector<std::string>& words, const std::string& one) {
  return std::any_of(words.begin(), words.end(), [&](const std::string& w) { return like(w, one); });
}

bool said(const std::set<std::string>& words, const std::string& one) {
  return words.count(one) > 0 || std::any_of(words.begin(), words.end(), [&](const auto& w) { return like(w, one); });
}

double names(const std::vector<std::string>& asked, const std::vector<std::string>& name) {
  if (asked.empty() || name.empty()) return 0;
  const auto both = std::count_if(name.begin(), name.end(), [&](const std::string& n) { return said(asked, n); });
  const auto back = std::count_if(asked.begin(), asked.end(), [&](const std::string& a) { return said(name, a); });
  const double of_name = static_cast<double>(both) / static_cast<double>(name.size()),
               of_asked = static_cast<double>(back) / static_cast<double>(asked.size());
  return of_name < 1 && of_asked < 1 ? 0 : of_name + of_asked;
}

double names(const std::vector<std::string>& asked, std::string_view name) { return names(asked, meant_words(name)); }

Sentence::Sentence(std::string_view of)
    : spoken(of),
      text(small_letters(of)),
      all(words_of(of)),
      words(meant_words(of)),
      split(cut_number(with_percent_signs(std::string(of)))) {
  numberless = meant_words(split.words);
}

bool Sentence::begins(std::initializer_list<std::string_view> some) const {
  std::size_t at = 0;
  for (const std::string_view polite : {"please", "now", "then", "can", "could", "you", "i", "want", "to"})
    if (at < all.size() && all[at] == polite) ++at;
  return at < all.size() && std::find(some.begin(), some.end(), all[at]) != some.end();
}

bool Sentence::has(std::initializer_list<std::string_view> some) const {
  return std::any_of(all.begin(), all.end(),
                     [&](const std::string& w) { return std::find(some.begin(), some.end(), w) != some.end(); });
}

bool Sentence::has_row(std::initializer_list<std::string_view> row) const {
  return std::search(all.begin(), all.end(), row.begin(), row.end()) != all.end();
}

bool Sentence::asks() const {
  static constexpr std::array<std::string_view, 21> asking{
      "what", "which", "how", "why",    "when", "where", "who",   "is",      "are", "does", "do",
      "did",  "will",  "can", "should", "may",  "am",    "whats", "explain", "has", "have"};
  if (all.size() > 1 && all[1] == "you" && (all[0] == "can" || all[0] == "could" || all[0] == "would")) return false;
  // "turn the nose left, which way does the rudder go".
  for (const std::string_view what : {"way", "direction"})
    for (const std::string_view which : {"which", "what"})
      if (has_row({which, what})) return true;
  return !all.empty() && (std::find(asking.begin(), asking.end(), all.front()) != asking.end() || text.ends_with("?"));
}

std::vector<std::string> without(std::vector<std::string> words, std::initializer_list<std::string_view> some) {
  std::erase_if(words, [&](const std::string& w) {
    return std::any_of(some.begin(), some.end(),
                       [&](std::string_view s) { return w == s || w == one_spelling(std::string(s)); });
  });
  return words;
}

}  // namespace rigging
