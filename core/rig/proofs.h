#pragma once

#include <string>
#include <vector>

#include "base/described.h"
#include "base/extra.h"

namespace rigging {

/// A bench check that was passed, with a fingerprint of what it depended on.
struct Proof {
  std::string check;
  std::string at;  ///< ISO 8601, UTC
  std::string fingerprint;
  std::vector<std::string> depends_on;
  bool provisional = false;  ///< done with the board loose on the bench
  bool simulated = false;
  std::string note;
  Extra extra;
  bool operator==(const Proof&) const = default;
};

/// A check that was bypassed for the bench, or a temporary setting.
struct LooseEnd {
  std::string id;
  std::string text;
  std::string since;
  Extra extra;
  bool operator==(const LooseEnd&) const = default;
};

struct LogEntry {
  std::string at;
  std::string text;
  Extra extra;
  bool operator==(const LogEntry&) const = default;
};

template <>
const Members& Described<Proof>::members();
template <>
const Members& Described<LooseEnd>::members();
template <>
const Members& Described<LogEntry>::members();

}  // namespace rigging
