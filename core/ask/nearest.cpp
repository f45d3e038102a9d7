#include "ask/nearest.h"

#include <algorithm>
#include <set>

#include "ask/things.h"
#include "ask/topics.h"

namespace rigging {
namespace {

/// Of what was said, by weight, a topic has at least this much; where nothing else was found, at least that.
constexpr double enough_share = 0.62, least_to_suppose = 0.5;
constexpr std::size_t most_supposed = 3;

using Words = std::set<std::string>;

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
  for (const Interpretation& a : found.all)
    if (a.fit >= sure_fit) return;
  const WeighedWords asked = of.knowledge->weighed(sentence.words);
  if (asked.empty()) return;
  struct Near {
    const Topic* topic;
    double share;
    std::size_t size;
  };
  std::vector<Near> near;
  for (const Knowledge::Known& k : of.knowledge->all()) {
    if (k.topic.view != AskedView::none) continue;
    bool in_phrases = false;
    const double share = share_of(k, asked, &in_phrases);
    if (in_phrases && share >= least_to_suppose) near.push_back({&k.topic, share, k.in_phrases.size()});
  }
  // Of two that have as much, the one that is about less else.
  std::stable_sort(near.begin(), near.end(), [](const Near& a, const Near& b) {
    return std::pair(-a.share, a.size) < std::pair(-b.share, b.size);
  });
  const bool unsure = near.empty() || near.front().share < enough_share || asked.size() == 1;
  if (unsure && !found.all.empty()) return;
  if (!unsure) std::erase_if(near, [](const Near& n) { return n.share < enough_share; });
  if (near.size() > most_supposed) near.resize(most_supposed);
  for (const Near& n : near) {
    Interpretation a = answer_of(*n.topic, of);
    a.fit = 2 * n.share - 0.6;
    a.quoted = true;  // below what goes by such a name
    if (std::any_of(found.all.begin(), found.all.end(),
                    [&](const Interpretation& o) { return o.text.ends_with(a.text); }))
      continue;
    a.text = (unsure ? "Not sure what is meant; perhaps: " : "Perhaps: ") + a.text;
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
  if (of.knowledge)
    for (const Knowledge::Known& k : of.knowledge->all()) {
      learn(k.topic.text);
      for (const std::string& p : k.topic.phrases) learn(p);
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
    if (w.size() < least || !letters || said(known, w)) continue;
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
