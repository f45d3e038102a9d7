#include "procedure/procedure.h"

#include "base/find.h"

namespace rigging {

const Action* Card::action(std::string_view id) const {
  return find_in(actions, [&](const Action& a) { return a.id == id; });
}

}  // namespace rigging
