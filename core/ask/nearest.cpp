#include "ask/nearest.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "ask/sayings.h"
#include "ask/things.h"
#include "ask/topics.h"

namespace rigging {
namespace {

/// Of what was said, by weight, a topic has at least this much.
constexpr double enough_share = 0.62;
/// A word of the answer tells less of the question than one of its phrases.
constexpr double of_answer = 0.6;
/// An answer that was found by all words of a phrase and fits at least so well needs no supposition.
constexpr double sure = 2.2;
constexpr std::size_t most_supposed = 3;

using Words = std::set<std::string>;

/// Words that say how something is asked, and not what.
bool tells_nothing(const std::string& word) {
  static const Words small{
      "just",   "really",  "actually",  "still",  "ever", "again", "now",  "today",    "while", "thing",    "ok",
      "okay",   "right",   "best",      "good",   "way",  "let",   "know", "think",    "mean",  "possible", "always",
      "very",   "already", "yesterday", "little", "bit",  "kind",  "sort", "supposed", "must",  "correct",  "work",
      "happen", "happens", "safe",      "say",    "use",  "make",  "like", "see",      "look",  "find",     "own"};
  return small.count(word) > 0;
}

Words words_in(std::string_view text) {
  const auto all = meant_words(text);
  return {all.begin(), all.end()};
}

bool has(const Words& words, const std::string& one) {
  return words.count(one) > 0 || std::any_of(words.begin(), words.end(), [&](const auto& w) { return like(w, one); });
}

/// What one topic knows.
struct Known {
  const Topic* topic;
  Words phrases, answer;

  double weight_of(const std::string& word) const { return has(phrases, word) ? 1 : has(answer, word) ? of_answer : 0; }
};

bool one_letter_apart(const std::string& a, const std::string& b) {
  const std::string &few = a.size() <= b.size() ? a : b, &many = a.size() <= b.size() ? b : a;
  if (many.size() - few.size() > 1) return false;
  std::size_t i = 0;
  while (i < few.size() && few[i] == many[i]) ++i;
  if (few.size() < many.size()) return few.compare(i, std::string::npos, many, i + 1) == 0;
  if (i == few.size()) return false;  // the same
  if (few.compare(i + 1, std::string::npos, many, i + 1) == 0) return true;
  return i + 1 < few.size() && few[i] == many[i + 1] && few[i + 1] == many[i] &&
         few.compare(i + 2, std::string::npos, many, i + 2) == 0;
}

}  // namespace

void find_nearest(const AskedOf& of, const Sentence& sentence, Found& found) {
  if (!of.topics) return;
  for (const Interpretation& a : found.all)
    if (a.fit >= sure) return;
  Words asked;
  for (const std::string& w : sentence.words)
    if (!tells_nothing(w)) asked.insert(w);
  for (const auto& [kind, also] : {std::pair{"elevon", "aileron"}, {"flaperon", "aileron"}, {"taileron", "aileron"}})
    if (asked.count(kind)) asked.erase(kind), asked.insert(also);
  if (asked.size() < 2) return;
  std::vector<Known> all;
  all.reserve(of.topics->size());
  for (const Topic& t : *of.topics) {
    if (t.view != AskedView::none) continue;
    Known k{&t, {}, words_in(t.text)};
    for (const std::string& phrase : t.phrases) k.phrases.merge(words_in(phrase));
    all.push_back(std::move(k));
  }
  double whole = 0;
  std::vector<std::pair<std::string, double>> weights;
  for (const std::string& word : asked) {
    const auto in = std::count_if(all.begin(), all.end(),
                                  [&](const Known& k) { return has(k.phrases, word) || has(k.answer, word); });
    weights.emplace_back(word, std::log((static_cast<double>(all.size()) + 1) / (static_cast<double>(in) + 0.5)));
    whole += weights.back().second;
  }
  struct Near {
    const Topic* topic;
    double share;
  };
  std::vector<Near> near;
  for (const Known& k : all) {
    double sum = 0;
    bool in_phrases = false;
    for (const auto& [word, weight] : weights) {
      const double w = k.weight_of(word);
      sum += w * weight;
      in_phrases = in_phrases || w == 1;
    }
    if (in_phrases && sum >= enough_share * whole) near.push_back({k.topic, sum / whole});
  }
  std::stable_sort(near.begin(), near.end(), [](const Near& a, const Near& b) { return a.share > b.share; });
  if (near.size() > most_supposed) near.resize(most_supposed);
  for (const Near& n : near) {
    const Topic& t = *n.topic;
    Interpretation a;
    a.text = t.text;
    a.fit = 2 * n.share - 0.6;
    a.station = t.station, a.subject = t.subject;
    a.leads = !t.tells;
    a.quoted = true;  // below what goes by such a name
    if (const auto say = saying_named(t.says))
      if (std::string own = say(of); !own.empty()) a.text = std::move(own), a.leads = false;
    if (std::any_of(found.all.begin(), found.all.end(), [&](const Interpretation& o) { return o.text == a.text; }))
      continue;
    a.text = "Perhaps: " + a.text;
    found.all.push_back(std::move(a));
  }
}

std::string with_known_spelling(const AskedOf& of, std::string_view text) {
  constexpr std::size_t least = 5;
  Words known;
  const auto learn = [&](std::string_view from) {
    for (std::string& w : words_of(from)) known.insert(std::move(w));
  };
  const std::vector<std::string> asked = words_of(text);
  if (std::none_of(asked.begin(), asked.end(), [](const std::string& w) { return w.size() >= least; }))
    return std::string(text);
  if (of.topics)
    for (const Topic& t : *of.topics) {
      learn(t.text);
      for (const std::string& p : t.phrases) learn(p);
    }
  if (of.manual)
    for (const Passage& p : *of.manual) learn(p.text());
  if (of.terms)
    for (const Term& t : *of.terms)
      for (const std::string& w : t.words) learn(w);
  for (const PartKind& k : of.catalogue.parts) learn(k.name);
  for (const Part& p : of.rig.parts) learn(part_name(of.rig, of.catalogue, p.id));
  learn(of.rig.name);
  std::string out = small_letters(text);
  for (const std::string& w : asked) {
    const bool letters = std::all_of(w.begin(), w.end(), [](unsigned char c) { return c >= 'a' && c <= 'z'; });
    if (w.size() < least || !letters || has(known, w)) continue;
    const std::string* one = nullptr;
    bool several = false;
    for (const std::string& k : known)
      if (k.size() >= least && one_letter_apart(k, w)) several = several || one, one = &k;
    if (!one || several) continue;
    if (const std::size_t at = out.find(w); at != std::string::npos) out.replace(at, w.size(), *one);
  }
  return out;
}

}  // namespace rigging
