#pragma once

#include <memory>
#include <string>

#include "base/json_fwd.h"

namespace rigging {

/// Members of a file that this version does not know, kept so that nothing written by another one is lost. Almost
/// always empty, shared when copied, compared by content.
class UnknownMembers {
 public:
  UnknownMembers() = default;
  /// `members` must be an object.
  explicit UnknownMembers(Json members);

  bool empty() const { return !members_; }
  /// An object; without members when there are none.
  const Json& members() const;
  bool operator==(const UnknownMembers& other) const;

 private:
  std::shared_ptr<const Json> members_;
};

}  // namespace rigging
