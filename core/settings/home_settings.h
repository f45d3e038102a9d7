#pragma once

#include "settings/settings.h"

namespace rigging {

/// Modes, what happens when the link goes, what else makes it act, and the goggles.
std::vector<Setting> home_settings();

/// "fence at 500 m: come home".
std::string trigger_words(const TriggerChoice& trigger);

}  // namespace rigging
