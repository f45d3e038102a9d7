#pragma once

#include "edit/edit.h"
#include "language/glossary.h"
#include "language/manual.h"
#include "review/deferred.h"

/// What builders say, in their own words: questions, deeds, complaints and views. Small words do not matter, a number
/// takes its unit, and what will be done is said before it is done.
namespace rigging {

/// Something of the window itself that was asked for.
enum class AskedView {
  none,
  metric,
  imperial,
  paper,
  field,
  dark,
  larger,
  smaller,
  undo,
  redo,
  save,
  save_as,
  open,
  print,
  begin,
  bench,
  help
};

/// One thing that the words may mean.
struct Interpretation {
  std::string text;  ///< the answer itself, or what will be done
  double fit = 0;    ///< above 0; higher fits better
  std::optional<Edit> edit;
  std::optional<Station> station;  ///< where it is looked at
  std::string subject;             ///< there, as pages take it
  AskedView view = AskedView::none;
  bool leads = false;   ///< it answers nothing by itself, and says where to go
  bool quoted = false;  ///< out of the manual, because nothing else was understood
};

/// What the words are asked of. `deferred` may be null while it is being worked out, `terms` and `manual`
/// where there is none.
class Knowledge;
struct AskedOf {
  const Rig& rig;
  const Catalogue& catalogue;
  const Review& review;
  const DeferredReview* deferred = nullptr;
  const std::vector<Term>* terms = nullptr;
  const std::vector<Passage>* manual = nullptr;
  const Knowledge* knowledge = nullptr;
};

/// The best first; empty where nothing is understood. A deed that can't be done is an answer that says why.
std::vector<Interpretation> answers(const AskedOf& of, std::string_view words);

/// Words that carry something, as they are compared: small letters, without "the", "my", "is" and their like.
std::vector<std::string> telling_words(std::string_view words);

}  // namespace rigging
