#pragma once

#include <optional>
#include <vector>

#include "document/rig_document.h"

class QWidget;

namespace rigging::app {

/// Asks for what was read of each stick, as the class's test page or a servo tester shows it. The rig with it; none
/// when left. Readings that can't be are refused in the dialog, with what was typed still there.
std::optional<Rig> ask_readings(const RigDocument& document, const std::vector<ChannelFunction>& needed,
                                QWidget* parent);
/// Asks how the transmitter counts and what it has.
std::optional<Rig> ask_transmitter(const RigDocument& document, QWidget* parent);

}  // namespace rigging::app
