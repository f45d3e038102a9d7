#pragma once

#include "ask/ask.h"

namespace rigging {

/// Something that builders ask or complain about, in the words that they use for it, and where it is looked at.
struct Topic {
  std::vector<std::string> phrases;  ///< all words of one of them are said, in any order
  std::string text;                  ///< what the answer says
  Station station = Station::airframe;
  std::string subject;
  std::string (*say)(const AskedOf&) = nullptr;  ///< the answer with its number; empty where it is not known
  AskedView view = AskedView::none;
  bool tells = false;  ///< its text is the answer, and no place to go to
};

const std::vector<Topic>& all_topics();

}  // namespace rigging
