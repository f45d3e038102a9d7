#pragma once

#include "checks/checks.h"

/// What hands do apart from checks and settings, as the class says: before the first check, and to put back what a
/// look at the corrections left turned up.
namespace rigging {

inline constexpr const char prepare_family[] = "prepare", put_back_family[] = "put_back";

/// Has it surfaces that the class mixes only with a profile loaded from a computer?
bool mixes_by_profile(const Rig& rig, const ControllerClass& controller);

/// Bind, load firmware, start from defaults, assign inputs …: one card each, to be ticked off. They guide: a model
/// whose directions are proven does not wait for them.
CheckFamily prepare_checks();
/// Dials back to least, gains back from high: due whenever a correction was proven since.
CheckFamily put_back_checks();

/// Loose ends that follow from what was done: a set-up mode that was entered and not left, dials that are still turned
/// up. They close by themselves when their step is done.
std::vector<LooseEnd> due_loose_ends(const CheckContext& context);

}  // namespace rigging
