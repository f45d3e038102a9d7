#include "procedure/procedure.h"

#include "base/find.h"

namespace rigging {

const Action* Card::action(std::string_view id) const {
  return find_in(actions, [&](const Action& a) { return a.id == id; });
}

void add_changes(Card& card, const CheckStatus& check) {
  constexpr std::size_t most = 6;
  const std::size_t all = check.changes.size(), shown = all > most ? most - 1 : all;
  for (std::size_t i = 0; i < shown; ++i) card.lines.push_back({capital(check.changes[i]) + "."});
  if (shown < all) card.lines.push_back({"And " + std::to_string(all - shown) + " changes more."});
}

}  // namespace rigging
