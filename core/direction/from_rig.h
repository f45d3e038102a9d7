#pragma once

#include "catalogue/catalogue.h"
#include "direction/case.h"
#include "rig/rig.h"

namespace rigging::direction {

/// The case of a rig with nothing seen yet: outputs that drive surfaces, the remedies that the class really offers and
/// the looks that can be had with it. Faults are then meant against what the rig and the controller say now.
Case case_from_rig(const Rig& rig, const ControllerClass& controller);

/// True if the remedy is a change of settings with this class; otherwise hands do it on the model or in the
/// transmitter.
bool is_setting(Remedy remedy, const ControllerClass& controller);

/// Turns the weight of an axis round on every output, as a class does that reverses functions; differential with it.
void reverse_function(std::vector<Output>& outputs, Axis axis);

/// The rig with the remedy carried out. Settings change; work by hand takes back the proofs that it touches and is
/// logged.
Rig remedied(Rig rig, const Fault& fault, const Case& c, const ControllerClass& controller);

}  // namespace rigging::direction
