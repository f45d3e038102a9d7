#include "base/unknown_members.h"

#include "base/json.h"

namespace rigging {

UnknownMembers::UnknownMembers(Json members) {
  if (!members.empty()) members_ = std::make_shared<const Json>(std::move(members));
}

const Json& UnknownMembers::members() const {
  static const Json none = Json::object();
  return members_ ? *members_ : none;
}

bool UnknownMembers::operator==(const UnknownMembers& other) const {
  return members_ == other.members_ || members() == other.members();
}

}  // namespace rigging
