#pragma once

#include "settings/settings.h"

namespace rigging {

/// Modes, what happens when the link goes, what else makes it act, and the goggles. A list is one text: "manual 5 900
/// 1300; level 5 1300 1700", "fence come_home 500; low_battery warn", "volts height".
std::vector<Setting> home_settings();

/// Lists as text, and back; nothing where it is none.
std::string modes_text(const std::vector<ModeChoice>& modes);
std::optional<std::vector<ModeChoice>> modes_of(const std::string& text);
std::string triggers_text(const std::vector<TriggerChoice>& triggers);
std::optional<std::vector<TriggerChoice>> triggers_of(const std::string& text);

/// "fence at 500 m: come home".
std::string trigger_words(const TriggerChoice& trigger);

}  // namespace rigging
