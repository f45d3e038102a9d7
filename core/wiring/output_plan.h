#pragma once

#include "wiring/plan.h"

namespace rigging {

/// The first part of a plan: gives every output of `plan.rig` a socket, and notes choices and obstacles. Exact as long
/// as the ways of giving pulse rates to timer groups are few (up to 5000); beyond that groups go to the rates that are
/// asked for most.
void plan_outputs(Plan& plan, const ControllerClass& controller);

}  // namespace rigging
