#pragma once

#include <map>
#include <set>

#include "ask/ask.h"

namespace rigging {

/// What the topics know, word by word: a word that few of them know tells more of what is meant than one that many do.
class Knowledge {
 public:
  explicit Knowledge(const std::vector<Topic>& topics);

  /// Of what was said, by weight, the part that a topic has in its phrases or, for less, in its answer: 0 to 1.
  /// `in_phrases` becomes whether a word of its phrases was said.
  double share(std::size_t topic, const std::set<std::string>& asked, bool* in_phrases = nullptr) const;
  /// How many words its phrases have.
  std::size_t size(std::size_t topic) const { return known_[topic].phrases.size(); }

 private:
  using Words = std::set<std::string>;
  struct Known {
    Words phrases, answer;
  };
  std::vector<Known> known_;
  mutable std::map<std::string, double> weights_;

  double weight(const std::string& word) const;
};

/// The words of a sentence that say what is meant, and not how it is asked; no numbers.
std::set<std::string> asked_words(const std::vector<std::string>& meant);

}  // namespace rigging
