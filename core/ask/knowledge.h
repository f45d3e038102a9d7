#pragma once

#include <set>
#include <utility>

#include "ask/ask.h"
#include "ask/topics.h"

namespace rigging {

/// The words of a sentence that say what is meant, with what each of them tells of it.
using WeighedWords = std::vector<std::pair<std::string, double>>;

/// A phrase of a topic, taken apart.
struct Phrase {
  std::vector<std::string> words;   ///< every word
  std::vector<std::string> wanted;  ///< `meant_words`
  bool denies = false;              ///< "does not", "no": `says_not`
};

/// Topics, and what they know word by word: a word that few of them know tells more of what is meant than one that
/// many do.
class Knowledge {
 public:
  struct Known {
    Topic topic;
    std::vector<Phrase> phrases;
    std::set<std::string> in_phrases, in_answer;
  };

  Knowledge() = default;
  explicit Knowledge(std::vector<Topic> topics);

  const std::vector<Known>& all() const { return all_; }
  /// Without numbers and without words that only say how something is asked.
  WeighedWords weighed(const std::vector<std::string>& meant) const;

 private:
  std::vector<Known> all_;
};

/// Of what was said, by weight, the part that a topic has in its phrases or, for less, in its answer: 0 to 1.
/// `in_phrases` becomes whether a word of its phrases was said.
double share_of(const Knowledge::Known& known, const WeighedWords& asked, bool* in_phrases = nullptr);

/// One of the words denies.
bool says_not(const std::vector<std::string>& words);

}  // namespace rigging
