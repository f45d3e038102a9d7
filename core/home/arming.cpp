#include "home/arming.h"

#include <algorithm>

#include "base/number.h"
#include "home/modes.h"
#include "senses/inventory.h"

namespace rigging {
namespace {

std::string arm_switch(const Rig& rig) {
  const Channel* c = rig.channel(ChannelFunction::arm);
  return c ? "the arm switch (channel " + std::to_string(c->number) + ")" : std::string("the arm switch");
}

}  // namespace

ArmingReason reason_of(const BoardState::Refusal& r, const Rig& rig) {
  using R = ArmingRefusal;
  const std::string sensor = label_of(r.of);
  switch (r.why) {
    case R::no_battery: return {"The battery is not in.", "Propeller off, then plug it in.", Station::power};
    case R::settling: return {"Its sensors are settling.", "Leave it still until its lamp is steady.", Station::senses};
    case R::moved_at_start:
      return {"It was moved while it looked for its zero.", "Unplug, set it down, and plug in again, hands off.",
              Station::senses};
    case R::no_signal:
      return {"It hears no receiver.", "Transmitter on; then the receiver's lead, port and signal at station sticks.",
              Station::sticks};
    case R::throttle_open:
      return {"The throttle is not closed.",
              "Close it; if it is, its low end was not learned or its direction is wrong: station sticks.",
              Station::sticks};
    case R::sensor_missing:
      return {
          capital(sensor) + " is to be used and not found.",
          "If none is fitted the setting is left over: switch it off at station senses. If one is, follow its lead.",
          Station::senses};
    case R::sensor_sick:
      return {capital(sensor) + " is found and not well.", "Calibrate it anew at station senses, or exchange it.",
              Station::senses};
    case R::no_fix:
      return {"It has no position, and is planned to find home.",
              "Wait under open sky: home is where it is armed. Indoors it will not arm, and that is right.",
              Station::senses};
    case R::battery_low:
      return {"The battery is under the voltage at which it turns home.", "Put a full one in.", Station::home};
    case R::flies_by_itself:
      return {"A mode that flies by itself is switched on.", "Put the mode switch on manual or levelling.",
              Station::home};
    case R::safety_button:
      return {"The safety button was not pressed.",
              rig.channel(ChannelFunction::arm) ? "Propeller off on the bench. Press it until its lamp is steady."
                                                : "Press it until its lamp is steady; propeller off on the bench.",
              Station::home};
  }
  return {};
}

bool needs_place(const Rig& rig) {
  if (rig.home.on_loss == LossAction::come_home || rig.home.on_loss == LossAction::circle) return true;
  return std::any_of(rig.modes.begin(), rig.modes.end(),
                     [](const ModeChoice& m) { return m.mode == "return" || m.mode == "circle" || m.mode == "land"; });
}

std::vector<std::string> arming_needs(const Rig& rig, const Catalogue& catalogue) {
  std::vector<std::string> all;
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c || c->sticks.arms_by == ArmsBy::nothing) return all;
  all.emplace_back("The battery in, the model still until the lamp is steady");
  all.emplace_back("The transmitter on, the throttle closed");
  if (c->home.checks_before_arming) {
    for (const InventoryLine& line : inventory_of(rig, catalogue))
      if (line.finding == Finding::left_over)
        all.push_back("Mend first: " + line.words + " It keeps the board from arming");
    if (needs_place(rig)) all.emplace_back("A position: home is where it is armed, so wait for a good one");
    if (!rig.modes.empty()) all.emplace_back("The mode switch on a mode that is flown by hand");
    if (rig.home.turn_home_v) all.push_back("A battery above " + number_text(*rig.home.turn_home_v, 1) + " V");
  }
  if (c->sticks.safety_button) all.emplace_back("The safety button pressed");
  if (c->sticks.unlock_channel > 0)
    all.push_back("Channel " + std::to_string(c->sticks.unlock_channel) + " switched over: it unlocks the motor");
  else if (c->sticks.arms_by == ArmsBy::by_switch ||
           (c->sticks.arms_by == ArmsBy::by_either && rig.channel(ChannelFunction::arm)))
    all.push_back(capital(arm_switch(rig)) + " switched over");
  else
    all.push_back("Throttle closed and the rudder stick held to the right" +
                  std::string(c->sticks.arms_by == ArmsBy::by_either ? ", or an arm switch" : ""));
  return all;
}

}  // namespace rigging
