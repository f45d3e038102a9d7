#pragma once

#include <vector>

#include "document/rig_document.h"

class QWidget;

namespace rigging::app {

/// Asks for what was read of each stick, as the class's test page or a servo tester shows it. Readings that can't
/// be are refused in the dialog, with what was typed still there.
void ask_readings(RigDocument& document, const std::vector<ChannelFunction>& needed, QWidget* parent);
/// Asks how the transmitter counts and what it has.
void ask_transmitter(RigDocument& document, QWidget* parent);

}  // namespace rigging::app
