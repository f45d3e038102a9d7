#include "ask/knowledge.h"

#include <algorithm>
#include <cmath>

#include "ask/sentence.h"

namespace rigging {
namespace {

/// A word of the answer tells less of the question than one of its phrases.
constexpr double of_answer = 0.6;

/// Words that say how something is asked, and not what.
bool tells_nothing(const std::string& word) {
  static const std::set<std::string> small{
      "just",   "really", "actually",  "still",     "ever",       "again",   "now",       "today",    "while",
      "thing",  "ok",     "okay",      "right",     "best",       "good",    "way",       "let",      "know",
      "think",  "mean",   "possible",  "always",    "very",       "already", "yesterday", "little",   "bit",
      "kind",   "sort",   "supposed",  "must",      "correct",    "work",    "happen",    "happens",  "say",
      "use",    "make",   "like",      "see",       "look",       "find",    "own",       "whenever", "every",
      "during", "quite",  "suddenly",  "sometimes", "seem",       "seems",   "keep",      "keeps",    "give",
      "gives",  "take",   "takes",     "somehow",   "also",       "even",    "only",      "but",      "because",
      "after",  "before", "without",   "aircraft",  "they",       "he",      "she",       "them",     "his",
      "our",    "your",   "something", "anything",  "everything", "nothing", "stuff",     "one",      "off",
      "out",    "up",     "down"};
  return small.count(word) > 0;
}

}  // namespace

Knowledge::Knowledge(std::vector<Topic> topics) {
  all_.reserve(topics.size());
  for (Topic& t : topics) {
    Known k{{}, {}, {}, word_set(t.text)};
    for (const std::string& phrase : t.phrases) {
      k.in_phrases.merge(word_set(phrase));
      std::vector<std::string> words = words_of(phrase);
      const bool denies = says_not(words);
      k.phrases.push_back({std::move(words), meant_words(phrase), denies});
    }
    k.topic = std::move(t);
    all_.push_back(std::move(k));
  }
}

WeighedWords Knowledge::weighed(const std::vector<std::string>& meant) const {
  std::set<std::string> asked;
  for (const std::string& w : meant)
    if (!tells_nothing(w) && std::none_of(w.begin(), w.end(), [](unsigned char c) { return c >= '0' && c <= '9'; }))
      asked.insert(w);
  for (const auto& [kind, also] : {std::pair{"elevon", "aileron"}, {"flaperon", "aileron"}, {"taileron", "aileron"}})
    if (asked.count(kind)) asked.erase(kind), asked.insert(also);
  WeighedWords weighed;
  for (const std::string& word : asked) {
    const auto in = std::count_if(all_.begin(), all_.end(),
                                  [&](const Known& k) { return said(k.in_phrases, word) || said(k.in_answer, word); });
    weighed.emplace_back(word, std::log((static_cast<double>(all_.size()) + 1) / (static_cast<double>(in) + 0.5)));
  }
  return weighed;
}

double share_of(const Knowledge::Known& k, const WeighedWords& asked, bool* in_phrases) {
  double sum = 0, whole = 0;
  for (const auto& [word, weight] : asked) {
    whole += weight;
    if (said(k.in_phrases, word)) {
      sum += weight;
      if (in_phrases) *in_phrases = true;
    } else if (said(k.in_answer, word)) {
      sum += of_answer * weight;
    }
  }
  return whole > 0 ? sum / whole : 0;
}

bool says_not(const std::vector<std::string>& words) {
  static const std::set<std::string> all{"don",   "doesn", "didn",   "won",     "not",    "isn",
                                         "never", "no",    "cannot", "nothing", "without"};
  return std::any_of(words.begin(), words.end(), [](const std::string& w) { return all.count(w) > 0; });
}

}  // namespace rigging
