#pragma once

#include <initializer_list>
#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "language/tokens.h"

/// A sentence as the ask box takes it apart.
namespace rigging {

/// Words that carry something, in one spelling for what builders call by several names: "prop" is a propeller, "lipo" a
/// battery, "speed controller" one thing; without plurals.
std::vector<std::string> meant_words(std::string_view text);
/// Each of them once.
std::set<std::string> word_set(std::string_view text);

/// The same word but for an ending.
bool like(const std::string& a, const std::string& b);
bool said(const std::vector<std::string>& words, const std::string& one);
bool said(const std::set<std::string>& words, const std::string& one);

/// How well the words say a name: 0 unless all of the name's words, or all of the asked ones, are found in the other;
/// at most 2.
double names(const std::vector<std::string>& asked, const std::vector<std::string>& name);
double names(const std::vector<std::string>& asked, std::string_view name);

struct Sentence {
  explicit Sentence(std::string_view text);

  std::string spoken;                   ///< as it was said
  std::string text;                     ///< in small letters
  std::vector<std::string> all;         ///< every word
  std::vector<std::string> words;       ///< `meant_words`
  CutNumber split;                      ///< the first number with its unit, and the rest
  std::vector<std::string> numberless;  ///< `meant_words` of the rest

  /// It begins with one of these words.
  bool begins(std::initializer_list<std::string_view> words) const;
  /// One of these words is in it, as it stands there.
  bool has(std::initializer_list<std::string_view> words) const;
  /// These words, one behind the other.
  bool has_row(std::initializer_list<std::string_view> words) const;
  /// It asks, and does not want anything done.
  bool asks() const;
};

/// Words without some that say nothing of what is meant.
std::vector<std::string> without(std::vector<std::string> words, std::initializer_list<std::string_view> some);

}  // namespace rigging
