#pragma once

#include <filesystem>

#include "ask/ask.h"
#include "base/described.h"

namespace rigging {

/// Something that builders ask or complain about, in the words that they use for it, and where it is looked at.
struct Topic {
  std::vector<std::string> phrases;  ///< all words of one of them are said, in any order
  std::string text;                  ///< what the answer says, or what is needed before `says` can
  std::optional<Station> station;    ///< absent of a view
  std::string subject;
  std::string says;  ///< a saying (`saying_named`): the answer with its number
  AskedView view = AskedView::none;
  bool tells = false;  ///< its text is the answer, and no place to go to; what it `says` follows
  UnknownMembers unknown_members;
  bool operator==(const Topic&) const = default;
};

/// A file of topics. Errors: what is no JSON of this shape; a topic without phrases; an unknown saying.
Result<std::vector<Topic>> topics_of(std::string_view text, const std::string& name);
/// What a topic answers, in sentence and number, of a rig; without a fit.
Interpretation answer_of(const Topic& topic, const AskedOf& of);
/// Those that ship with a data folder; empty without them.
std::vector<Topic> topics_beside(const std::filesystem::path& data_folder);

template <>
const Members& Described<Topic>::members();

template <>
struct Names<AskedView> {
  using V = AskedView;
  static constexpr std::array<std::pair<V, std::string_view>, 17> list{{{V::none, "none"},
                                                                        {V::metric, "metric"},
                                                                        {V::imperial, "imperial"},
                                                                        {V::paper, "paper"},
                                                                        {V::field, "field"},
                                                                        {V::dark, "dark"},
                                                                        {V::larger, "larger"},
                                                                        {V::smaller, "smaller"},
                                                                        {V::undo, "undo"},
                                                                        {V::redo, "redo"},
                                                                        {V::save, "save"},
                                                                        {V::save_as, "save_as"},
                                                                        {V::open, "open"},
                                                                        {V::print, "print"},
                                                                        {V::begin, "begin"},
                                                                        {V::bench, "bench"},
                                                                        {V::help, "help"}}};
};

}  // namespace rigging
