#pragma once

#include "home/home.h"

/// What makes it act by itself beside a lost link: what can be chosen, and what of the choice does not hold. Common
/// practice, but for the way home, which is worked out.
namespace rigging {

/// What can work on this trigger with this class and what is fitted; the first is the usual one. Empty: the class does
/// not notice it.
std::vector<TriggerAction> trigger_choices(HomeTrigger trigger, const ControllerClass& controller,
                                           const HomeReport& report);

/// The choice for a trigger, or null.
const TriggerChoice* trigger_choice(const Home& home, HomeTrigger trigger);

struct TriggerFinding {
  HomeTrigger on;
  std::string words, remedy;
  bool gives_up = false;  ///< it would come down, or fly off, where it need not
};
std::vector<TriggerFinding> judge_triggers(const Rig& rig, const ControllerClass& controller, const HomeReport& report);

/// Seconds of the way home from the worst place of the area in the worst case, waiting included; nothing where that is
/// not known.
std::optional<double> longest_way_s(const Rig& rig, const ControllerClass& controller, const HomeReport& report);

/// "The battery sinks below 14.2 V", "It is further than 500 m from home".
std::string trigger_spoken(const Rig& rig, HomeTrigger trigger, std::optional<double> at);
std::string action_spoken(TriggerAction action);

}  // namespace rigging
