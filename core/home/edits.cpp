#include "home/edits.h"

#include <algorithm>
#include <cmath>

#include "base/fields.h"
#include "base/find.h"
#include "base/number.h"
#include "sticks/sticks.h"

namespace rigging {
namespace {

Result<Edit> on_loss_edit(const Rig& rig, const Catalogue&, const std::vector<std::string>& given) {
  const auto action = from_name<LossAction>(given[0]);
  if (!action) return failure("on-loss", "\"" + given[0] + "\"", choice_of<LossAction>());
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

Result<Edit> trigger_edit(const Rig& rig, const Catalogue&, const std::vector<std::string>& given) {
  const auto on = from_name<HomeTrigger>(given[0]);
  if (!on) return failure("trigger", "\"" + given[0] + "\"", choice_of<HomeTrigger>());
  const auto does = from_name<TriggerAction>(given[1]);
  if (!does) return failure("trigger", "\"" + given[1] + "\"", choice_of<TriggerAction>());
  const auto at = given[2] == "-" ? std::nullopt : number_of(given[2]);
  if (!at && given[2] != "-") return failure("trigger: at", "\"" + given[2] + "\" is no number", "a number, or -");
  return set_trigger(rig, *on, does, at);
}

Result<Edit> no_trigger_edit(const Rig& rig, const Catalogue&, const std::vector<std::string>& given) {
  const auto on = from_name<HomeTrigger>(given[0]);
  if (!on) return failure("no-trigger", "\"" + given[0] + "\"", choice_of<HomeTrigger>());
  return set_trigger(rig, *on, std::nullopt, std::nullopt);
}

Result<Edit> launch_edit(const Rig& rig, const Catalogue& catalogue, const std::vector<std::string>&) {
  return lay_out_launch(rig, catalogue);
}

Result<Edit> first_flight_edit(const Rig& rig, const Catalogue& catalogue, const std::vector<std::string>&) {
  return lay_out_first_flight(rig, catalogue);
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

Result<Edit> set_trigger(const Rig& rig, HomeTrigger on, std::optional<TriggerAction> does, std::optional<double> at) {
  Home home = rig.home;
  const auto now =
      std::find_if(home.triggers.begin(), home.triggers.end(), [on](const TriggerChoice& t) { return t.on == on; });
  if (!does) {
    if (now != home.triggers.end()) home.triggers.erase(now);
  } else if (now != home.triggers.end()) {
    now->does = *does, now->at = at;
  } else {
    TriggerChoice t;
    t.on = on, t.does = *does, t.at = at;
    home.triggers.push_back(std::move(t));
  }
  return set_home(rig, home,
                  capital(label_of(name_of(on))) + ": " + (does ? label_of(name_of(*does)) : "not in the plan"));
}

Result<Edit> lay_out_launch(const Rig& rig, const Catalogue& catalogue) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c || std::find(c->home.flies.begin(), c->home.flies.end(), "launch") == c->home.flies.end())
    return failure("modes", "this class has no launch mode", "a class that throws by itself");
  Edit e{rig, "Launch in the place of manual"};
  ModeChoice* manual = find_in(e.rig.modes, [](const ModeChoice& m) { return m.mode == "manual"; });
  if (!manual) return failure("modes", "no position gives manual", "the first flight's switches, laid out and flown");
  manual->mode = "launch";
  return e;
}

Result<Edit> lay_out_first_flight(const Rig& rig, const Catalogue& catalogue) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c || c->home.on_loss.empty())
    return failure("modes", "this class has its modes on fixed positions", "a class whose modes are put on switches");
  Edit e{rig, "Switches for the first flight"};
  auto& channels = e.rig.radio.channels;
  const auto unused = [&] {
    for (int number = 1; number <= rig.radio.transmitter.channels; ++number)
      if (!find_in(channels, [number](const Channel& x) { return x.number == number; })) return number;
    return 0;
  };
  // A switch that is there, else one more of this kind.
  const auto taken = [&](ChannelFunction function, Control control, int but) -> Channel* {
    for (Channel& x : channels)
      if (x.function == function && x.number != but) return &x;
    const int number = unused();
    if (number == 0) return nullptr;
    Channel made;
    made.number = number, made.function = function, made.control = control;
    channels.push_back(made);
    return &channels.back();
  };
  channels.reserve(channels.size() + 2);
  const Channel* modes = taken(ChannelFunction::mode, Control::three_position, 0);
  const Channel* own = modes ? taken(ChannelFunction::return_home, Control::two_position, modes->number) : nullptr;
  if (!own)
    return failure("modes", "no channel is left for it",
                   "two switches among the " + std::to_string(rig.radio.transmitter.channels) + " channels");
  const auto positions = [&](const Channel& x) {
    for (const SwitchLine& s : analyze_sticks(e.rig, catalogue).switches)
      if (s.channel == x.number) return s.positions;
    return std::vector<SwitchPosition>{};
  };
  const auto main = positions(*modes), second = positions(*own);
  if (main.size() < 3)
    return failure("modes", "the mode switch on channel " + std::to_string(modes->number) + " has too few positions",
                   "a switch with three");
  if (second.size() < 2)
    return failure("modes", "channel " + std::to_string(own->number) + " has no two positions", "a switch");
  const bool place = !parts_of(rig, catalogue, PartGroup::satellite_receiver).empty();
  e.rig.modes.clear();
  const auto put = [&](const Channel& on, const std::vector<SwitchPosition>& at,
                       const std::vector<std::string>& wanted) {
    double from = 900;
    for (std::size_t i = 0; i < at.size(); ++i) {
      const double to = i + 1 < at.size() ? std::round((at[i].pulse_us + at[i + 1].pulse_us) / 2) : 2100;
      const std::string& mode = wanted[std::min(i, wanted.size() - 1)];
      if (!mode.empty()) e.rig.modes.push_back({on.number, from, to, mode, {}});
      from = to;
    }
  };
  put(*modes, main, {"manual", "level", place ? "circle" : "rate"});
  if (place) put(*own, second, {"", "return"});
  return e;
}

std::vector<EditEntry> home_edits() {
  return {
      {"on-loss", "What the controller does when the link is gone", {"ACTION"}, on_loss_edit},
      {"obstacle",
       "Something high near the field, as seen from home",
       {"NAME", "BEARING_DEG", "DISTANCE_M", "HEIGHT_M"},
       obstacle_edit},
      {"no-obstacle", "Takes it out of the plan", {"NAME"}, no_obstacle_edit},
      {"trigger",
       "What it does by itself when something else than the link goes",
       {"TRIGGER", "ACTION", "AT_OR_-"},
       trigger_edit},
      {"no-trigger", "Takes that out of the plan", {"TRIGGER"}, no_trigger_edit},
      {"launch-modes", "Launch in the place of manual, for an aircraft whose corrections were flown", {}, launch_edit},
      {"first-flight-modes", "Manual, level and circle on the mode switch, return on its own", {}, first_flight_edit}};
}

}  // namespace rigging
