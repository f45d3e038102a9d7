#pragma once

#include <map>
#include <string>
#include <vector>

#include "base/described.h"
#include "base/unknown_members.h"

namespace rigging {

/// Which check: its family, and what of the rig it is about (an axis, a lead; empty where the family has one check).
struct CheckId {
  std::string family, subject;
  auto operator<=>(const CheckId&) const = default;
  /// "stick.roll", "lead.gps", "sticks.calibrated".
  std::string text() const { return subject.empty() ? family : family + "." + subject; }
};

/// Places of the document (rig/place.h) and what stood there.
using Dependencies = std::map<std::string, Value>;

/// A bench check that was passed, with exactly those parts of the rig that it depended on.
struct Proof {
  CheckId check;
  std::string at;  ///< ISO 8601, UTC
  Dependencies depends_on;
  bool provisional = false;  ///< done with the board loose on the bench
  bool simulated = false;
  std::string note;
  /// What version 1 wrote instead of `depends_on`; empty once taken over (proof/version_1.h).
  std::string fingerprint;
  std::vector<std::string> words;
  UnknownMembers unknown_members;
  bool operator==(const Proof&) const = default;
};

/// A check that was bypassed for the bench, or a temporary setting.
struct LooseEnd {
  std::string id;
  std::string text;
  std::string since;
  UnknownMembers unknown_members;
  bool operator==(const LooseEnd&) const = default;
};

struct LogEntry {
  std::string at;
  std::string text;
  UnknownMembers unknown_members;
  bool operator==(const LogEntry&) const = default;
};

template <>
struct TypeOf<Dependencies> {
  static const TypeInfo& get();
};
template <>
const Members& Described<CheckId>::members();
template <>
const Members& Described<Proof>::members();
template <>
const Members& Described<LooseEnd>::members();
template <>
const Members& Described<LogEntry>::members();

}  // namespace rigging
