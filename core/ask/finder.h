#pragma once

#include "ask/found.h"
#include "ask/sentence.h"
#include "base/number.h"
#include "power/network.h"

namespace rigging {

/// What everything that looks for a meaning has at hand.
class Finder {
 public:
  Finder(const AskedOf& of, const Sentence& sentence, Found& found) : of_(of), in_(sentence), found_(found) {}

 protected:
  bool verb(std::initializer_list<std::string_view> verbs) const { return in_.has(verbs); }
  std::string name_of_part(const std::string& id) const { return capital(part_name(of_.rig, of_.catalogue, id)); }
  /// Null when the rig names a class that the catalogue does not have.
  const ControllerClass* board() const { return of_.review.reports.controller(); }

  const AskedOf& of_;
  const Sentence& in_;
  Found& found_;
};

}  // namespace rigging
