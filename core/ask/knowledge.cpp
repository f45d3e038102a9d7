#include "ask/knowledge.h"

#include <algorithm>
#include <cmath>

#include "ask/sentence.h"
#include "ask/topics.h"

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

std::set<std::string> asked_words(const std::vector<std::string>& meant) {
  std::set<std::string> asked;
  for (const std::string& w : meant)
    if (!tells_nothing(w) && std::none_of(w.begin(), w.end(), [](unsigned char c) { return c >= '0' && c <= '9'; }))
      asked.insert(w);
  for (const auto& [kind, also] : {std::pair{"elevon", "aileron"}, {"flaperon", "aileron"}, {"taileron", "aileron"}})
    if (asked.count(kind)) asked.erase(kind), asked.insert(also);
  return asked;
}

Knowledge::Knowledge(const std::vector<Topic>& topics) {
  known_.reserve(topics.size());
  for (const Topic& t : topics) {
    Known k{{}, word_set(t.text)};
    for (const std::string& phrase : t.phrases) k.phrases.merge(word_set(phrase));
    known_.push_back(std::move(k));
  }
}

double Knowledge::weight(const std::string& word) const {
  const auto it = weights_.find(word);
  if (it != weights_.end()) return it->second;
  const auto in = std::count_if(known_.begin(), known_.end(),
                                [&](const Known& k) { return said(k.phrases, word) || said(k.answer, word); });
  const double w = std::log((static_cast<double>(known_.size()) + 1) / (static_cast<double>(in) + 0.5));
  return weights_[word] = w;
}

double Knowledge::share(std::size_t topic, const std::set<std::string>& asked, bool* in_phrases) const {
  const Known& k = known_[topic];
  double sum = 0, whole = 0;
  for (const std::string& word : asked) {
    const double w = weight(word);
    whole += w;
    if (said(k.phrases, word)) {
      sum += w;
      if (in_phrases) *in_phrases = true;
    } else if (said(k.answer, word)) {
      sum += of_answer * w;
    }
  }
  return whole > 0 ? sum / whole : 0;
}

}  // namespace rigging
