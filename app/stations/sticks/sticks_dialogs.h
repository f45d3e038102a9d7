#pragma once

#include <vector>

#include "document/rig_document.h"
#include "sticks/edits.h"

class QWidget;

namespace rigging::app {

/// Asks for what was read of each stick and switch, as the class's test page, a servo tester or the transmitter's own
/// channel screen shows it. Readings that can't
/// be are refused in the dialog, with what was typed still there.
void ask_readings(RigDocument& document, const std::vector<ChannelFunction>& needed, ReadOn where, QWidget* parent);
/// Asks how the transmitter counts and what it has.
void ask_transmitter(RigDocument& document, QWidget* parent);

}  // namespace rigging::app
