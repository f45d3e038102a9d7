#include "ask/ask.h"

#include <algorithm>
#include <set>

#include "ask/deeds.h"
#include "ask/nearest.h"
#include "ask/questions.h"
#include "ask/read_up.h"
#include "ask/topics.h"
#include "ask/touched.h"

namespace rigging {
namespace {

/// "show me the wiring", "help".
void find_stations(const Sentence& in, Found& found) {
  if (in.all == std::vector<std::string>{"help"} || in.words == std::vector<std::string>{"manual"}) {
    found.answer(1.6, "The manual");
    found.all.back().view = AskedView::help;
  }
  if (in.words.size() == 1)
    if (const auto station = from_name<Station>(in.words.front())) {
      found.answer(1.6, "Station " + in.words.front(), *station);
      found.all.back().leads = true;
    }
}

/// What was said has at least this much of what a topic knows, or the topic is supposed only.
constexpr double least_told = 0.5;

void find_topics(const AskedOf& of, const Sentence& in, Found& found) {
  // What it does with the throttle closed is not what it does with it open.
  const bool closes =
      said(in.words, "throttle") && in.has({"close", "closed", "closing", "cut", "reduce", "off", "shut"});
  // What is told of an aileron holds for what is one in part.
  std::vector<std::string> words = in.words;
  for (const auto& [kind, also] : {std::pair{"elevon", "aileron"},
                                   {"flaperon", "aileron"},
                                   {"taileron", "aileron"},
                                   {"aileron", "surface"},
                                   {"elevator", "surface"},
                                   {"rudder", "surface"}})
    if (said(words, kind)) words.emplace_back(also);
  const WeighedWords asked = of.knowledge->weighed(in.words);
  const bool asked_denies = says_not(in.all);
  for (const Knowledge::Known& known : of.knowledge->all()) {
    const Topic& t = known.topic;
    double best = 0;
    for (const Phrase& phrase : known.phrases) {
      const auto& wanted = phrase.wanted;
      if (wanted.empty() || (closes && wanted.size() > 1 && said(wanted, "throttle") && !said(wanted, "close")) ||
          !std::all_of(wanted.begin(), wanted.end(), [&](const std::string& w) { return said(words, w); }))
        continue;
      // What does not move is not what moves too little.
      if (phrase.denies && !asked_denies) continue;
      // Of a phrase of which one word is left after the small ones, the small ones are meant as well.
      if (const auto& whole = phrase.words;
          wanted.size() == 1 && whole.size() > 1 && !std::all_of(whole.begin(), whole.end(), [&](const std::string& w) {
            return said(in.all, w) || said(in.words, w);
          }))
        continue;
      const auto left = static_cast<double>(
          std::count_if(in.words.begin(), in.words.end(), [&](const std::string& w) { return !said(wanted, w); }));
      // A view is asked for in so many words, or not at all.
      if (t.view != AskedView::none && left > 1) continue;
      best = std::max(best, 1.5 + 0.9 * static_cast<double>(wanted.size()) - 0.35 * left +
                                (phrase.denies  ? 0.5
                                 : asked_denies ? -0.2
                                                : 0));
    }
    if (best <= 0) continue;
    Interpretation a = answer_of(t, of);
    a.fit = best;
    // "rename switch SA to arming" has a word of arming, and is about something else.
    if (t.view == AskedView::none && asked.size() > 1 && share_of(known, asked) < least_told) {
      constexpr double supposed = 2;
      a.fit = std::min(a.fit, supposed), a.quoted = true;
      a.text = "Perhaps: " + a.text;
    }
    found.all.push_back(std::move(a));
  }
  // Beside what is sure nothing is supposed.
  if (std::any_of(found.all.begin(), found.all.end(),
                  [](const Interpretation& a) { return a.fit >= sure_fit && !a.quoted; }))
    std::erase_if(found.all, [](const Interpretation& a) { return a.quoted; });
}

}  // namespace

std::vector<std::string> telling_words(std::string_view text) {
  static const std::set<std::string> small{
      "a",     "an",    "the",    "my",   "is",   "are",   "it",   "its",    "do",    "does",  "did",  "can",  "could",
      "would", "will",  "please", "i",    "me",   "we",    "you",  "of",     "for",   "to",    "in",   "at",   "on",
      "with",  "and",   "or",     "by",   "what", "which", "how",  "where",  "when",  "why",   "who",  "this", "that",
      "these", "those", "be",     "been", "have", "has",   "had",  "should", "there", "go",    "want", "need", "show",
      "tell",  "much",  "many",   "so",   "some", "any",   "from", "as",     "than",  "then",  "s",    "m",    "get",
      "about", "was",   "were",   "into", "if",   "am",    "not",  "don",    "t",     "doesn", "won",  "isn",  "help"};
  std::vector<std::string> words = words_of(text);
  std::erase_if(words, [&](const std::string& w) { return small.count(w) > 0; });
  return words;
}

namespace {

std::vector<Interpretation> answers_as_spelled(const AskedOf& of, std::string_view words) {
  constexpr std::size_t most = 8;
  const Sentence sentence(words);
  Found found;
  find_deeds(of, sentence, found);
  for (Interpretation& a : found.all)
    if (a.edit && a.edit->rig == of.rig)
      a.edit.reset(), a.text = "So it is already, or nothing here takes it: " + a.text;
  find_answers(of, sentence, found);
  find_meanings(of, sentence, found);
  find_touched(of, sentence, found);
  find_stations(sentence, found);
  if (of.knowledge) {
    find_topics(of, sentence, found);
    find_nearest(of, sentence, found);
  }
  find_in_manual(of, sentence, found);
  std::stable_sort(found.all.begin(), found.all.end(),
                   [](const Interpretation& a, const Interpretation& b) { return a.fit > b.fit; });
  // A figure that a topic says too stands once.
  std::vector<Interpretation> once;
  for (Interpretation& a : found.all)
    if (once.size() < most &&
        std::none_of(once.begin(), once.end(), [&](const Interpretation& o) { return o.text == a.text; }))
      once.push_back(std::move(a));
  return once;
}

}  // namespace

std::vector<Interpretation> answers(const AskedOf& of, std::string_view words) {
  constexpr std::size_t longest = 300;
  if (words.size() > longest || words_of(words).empty()) return {};
  std::vector<Interpretation> all = answers_as_spelled(of, words);
  if (!all.empty()) return all;
  const std::string spelled = with_known_spelling(of, words);
  if (spelled == small_letters(words)) return all;
  all = answers_as_spelled(of, spelled);
  // What is read otherwise than it was typed says so.
  for (Interpretation& a : all) a.text = "Read as \"" + spelled + "\": " + a.text;
  return all;
}

}  // namespace rigging
