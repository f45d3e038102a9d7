#pragma once

#include <string>

#include "base/described.h"
#include "base/unknown_members.h"

namespace rigging {

struct ControllerFit {
  std::string kind;        ///< class id in the catalogue
  std::string firmware;    ///< version as reported or read, empty when unknown
  bool mounted = false;    ///< false while the board lies loose on the bench
  bool auto_trim = false;  ///< it moves the centres in flight and keeps them, where the class can
  UnknownMembers unknown_members;
  bool operator==(const ControllerFit&) const = default;
};

template <>
const Members& Described<ControllerFit>::members();

}  // namespace rigging
