#include "rig/socket_names.h"

#include <algorithm>
#include <array>
#include <string_view>

#include "base/json.h"
#include "language/tokens.h"
#include "rig/path.h"

namespace rigging {
namespace {

constexpr std::array<std::string_view, 9> shipped_before{"fixed_mini",       "fixed_wing",      "gesture_board",
                                                         "screen_keys",      "pc_mini",         "radio_stabilizer",
                                                         "small_controller", "full_controller", "large_controller"};

struct Stem {
  std::string_view was, is;
  bool digits;  ///< numbers follow, else one letter
};
constexpr std::array<Stem, 2> stems{{{"s", "slot_", true}, {"uart_", "data_", false}}};

std::string exchanged(const std::string& id, bool up) {
  for (const Stem& s : stems) {
    const std::string_view from = up ? s.was : s.is, to = up ? s.is : s.was;
    if (!id.starts_with(from) || id.size() == from.size()) continue;
    const std::string rest = id.substr(from.size());
    const bool fits = s.digits ? rest.size() <= 2 && std::all_of(rest.begin(), rest.end(), is_digit)
                               : rest.size() == 1 && is_letter(rest[0]);
    if (fits) return std::string(to) + rest;
  }
  return id;
}

void bring_up(Json& object, const char* member) {
  if (!object.is_object()) return;
  const auto at = object.find(member);
  if (at != object.end() && at->is_string()) *at = current_socket(at->get<std::string>());
}

}  // namespace

std::string current_socket(const std::string& id) { return exchanged(id, true); }
std::string former_socket(const std::string& id) { return exchanged(id, false); }

void bring_sockets_up(Json& rig) {
  const auto section = [&](const char* name) -> Json* {
    const auto at = rig.find(name);
    return at == rig.end() ? nullptr : &*at;
  };
  const Json* controller = section("controller");
  if (!controller || !controller->is_object()) return;
  const std::string kind = text_member(*controller, "kind");
  if (std::find(shipped_before.begin(), shipped_before.end(), kind) == shipped_before.end()) return;
  for (const char* list : {"outputs", "ports"})
    if (Json* all = section(list); all && all->is_array())
      for (Json& entry : *all) bring_up(entry, "socket");
  if (Json* leads = section("leads"); leads && leads->is_array())
    for (Json& l : *leads)
      for (const char* end : {"from", "to"})
        if (l.is_object())
          if (const auto at = l.find(end); at != l.end() && at->is_object() && text_member(*at, "part") == "controller")
            bring_up(*at, "socket");
  Json* proofs = section("proofs");
  if (!proofs || !proofs->is_array()) return;
  for (Json& p : *proofs) {
    const auto rests = p.is_object() ? p.find("depends_on") : p.end();
    if (!p.is_object() || rests == p.end() || !rests->is_object()) continue;
    Json now = Json::object();
    for (const auto& [place, value] : rests->items()) {
      std::vector<std::string> steps = steps_of(place);
      if (steps.size() > 1 && steps[0] == "ports") steps[1] = current_socket(steps[1]);
      const bool of_board = !steps.empty() && steps.back() == "socket";
      std::string path;
      for (const std::string& s : steps) path += (path.empty() ? "" : "/") + path_of({s});
      now[path] = of_board && value.is_string() ? Json(current_socket(value.get<std::string>())) : value;
    }
    *rests = std::move(now);
  }
}

}  // namespace rigging
