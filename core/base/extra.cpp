#include "base/extra.h"

#include "base/json.h"

namespace rigging {

Extra::Extra(Json members) {
  if (!members.empty()) members_ = std::make_shared<const Json>(std::move(members));
}

const Json& Extra::members() const {
  static const Json none = Json::object();
  return members_ ? *members_ : none;
}

bool Extra::operator==(const Extra& other) const { return members_ == other.members_ || members() == other.members(); }

}  // namespace rigging
