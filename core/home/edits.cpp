#include "home/edits.h"

#include <algorithm>

#include "base/fields.h"
#include "base/number.h"

namespace rigging {
namespace {

Result<Edit> on_loss_edit(const Rig& rig, const Catalogue&, const std::vector<std::string>& given) {
  const auto action = from_word<LossAction>(given[0]);
  if (!action) return failure("on-loss", "\"" + given[0] + "\"", word_choice<LossAction>());
  Home home = rig.home;
  home.on_loss = *action;
  return set_home(rig, home, "When the link goes: " + given[0]);
}

Result<Edit> obstacle_edit(const Rig& rig, const Catalogue&, const std::vector<std::string>& given) {
  FieldObstacle o;
  o.name = given[0];
  for (const auto& [text, value, name] : {std::tuple{&given[1], &o.bearing_deg, "bearing"},
                                          {&given[2], &o.distance_m, "distance"},
                                          {&given[3], &o.height_m, "height"}}) {
    const auto number = number_of(*text);
    if (!number) return failure("obstacle: " + std::string(name), "\"" + *text + "\" is no number", "a number");
    *value = *number;
  }
  return put_obstacle(rig, o);
}

Result<Edit> no_obstacle_edit(const Rig& rig, const Catalogue&, const std::vector<std::string>& given) {
  return take_obstacle_away(rig, given[0]);
}

}  // namespace

Result<Edit> set_home(const Rig& rig, Home home, const std::string& label) {
  if (const auto ok = in_range(home, "home"); !ok) return tl::make_unexpected(ok.error());
  Edit e{rig, label};
  e.rig.home = std::move(home);
  return e;
}

Result<Edit> put_obstacle(const Rig& rig, const FieldObstacle& obstacle) {
  if (obstacle.name.empty()) return failure("obstacle", "has no name", "what stands there: \"church\"");
  Home home = rig.home;
  std::erase_if(home.obstacles, [&](const FieldObstacle& o) { return o.name == obstacle.name; });
  home.obstacles.push_back(obstacle);
  return set_home(rig, home, "High near the field: " + obstacle.name);
}

Result<Edit> take_obstacle_away(const Rig& rig, const std::string& name) {
  Home home = rig.home;
  if (std::erase_if(home.obstacles, [&](const FieldObstacle& o) { return o.name == name; }) == 0)
    return failure("obstacle", "there is none called \"" + name + "\"", "one that stands in the plan");
  return set_home(rig, home, "Not there any more: " + name);
}

std::vector<EditEntry> home_edits() {
  return {{"on-loss", "What the controller does when the link is gone", {"ACTION"}, on_loss_edit},
          {"obstacle",
           "Something high near the field, as seen from home",
           {"NAME", "BEARING_DEG", "DISTANCE_M", "HEIGHT_M"},
           obstacle_edit},
          {"no-obstacle", "Takes it out of the plan", {"NAME"}, no_obstacle_edit}};
}

}  // namespace rigging
