#include "ask/read_up.h"

#include <algorithm>
#include <cmath>

#include "base/station.h"

namespace rigging {
namespace {

/// Of what was said, by weight, a paragraph has at least this much, and one of its sentences.
constexpr double least_share = 0.95, least_of_sentence = 0.8;
/// An answer is read while the box is open.
constexpr std::size_t longest_answer = 320;

}  // namespace

void find_in_manual(const AskedOf& of, const Sentence& sentence, Found& found) {
  if (!of.manual || !found.all.empty()) return;
  std::vector<std::string> asked = sentence.words;
  std::sort(asked.begin(), asked.end());
  asked.erase(std::unique(asked.begin(), asked.end()), asked.end());
  constexpr std::size_t least_words = 2;
  if (asked.size() < least_words) return;
  std::vector<std::vector<std::string>> meant;
  meant.reserve(of.manual->size());
  for (const Passage& p : *of.manual) meant.push_back(meant_words(p.chapter + " " + p.text()));
  std::vector<double> weight;
  double whole = 0;
  for (const std::string& word : asked) {
    const auto in = std::count_if(meant.begin(), meant.end(), [&](const auto& words) { return said(words, word); });
    weight.push_back(std::log((static_cast<double>(meant.size()) + 1) / (static_cast<double>(in) + 0.5)));
    whole += weight.back();
  }
  const auto share = [&](const std::vector<std::string>& words) {
    double sum = 0;
    for (std::size_t i = 0; i < asked.size(); ++i)
      if (said(words, asked[i])) sum += weight[i];
    return whole > 0 ? sum / whole : 0;
  };
  double best = 0;
  const Passage* of_passage = nullptr;
  std::size_t of_sentence = 0;
  for (std::size_t i = 0; i < meant.size(); ++i) {
    const double has = share(meant[i]);
    if (has < least_share) continue;
    const Passage& p = (*of.manual)[i];
    for (std::size_t k = 0; k < p.sentences.size(); ++k) {
      const double own = share(meant_words(p.sentences[k]));
      // Of two that say as much the shorter paragraph is more about it.
      const double fit = has + own - 0.0001 * static_cast<double>(meant[i].size());
      if (own >= least_of_sentence && fit > best) best = fit, of_passage = &p, of_sentence = k;
    }
  }
  if (!of_passage) return;
  std::string text = of_passage->sentences[of_sentence];
  for (std::size_t k = of_sentence + 1; k < of_passage->sentences.size(); ++k) {
    if (text.size() + 1 + of_passage->sentences[k].size() > longest_answer) break;
    text += " " + of_passage->sentences[k];
  }
  found.answer(1, "From the manual, " + of_passage->chapter + ": " + text, from_name<Station>(of_passage->chapter));
  found.all.back().quoted = true;
}

}  // namespace rigging
