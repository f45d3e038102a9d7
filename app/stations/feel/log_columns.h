#pragma once

#include "document/rig_document.h"

class QWidget;

namespace rigging::app {

/// A table whose heading lacks the time or every rate, or what the rig was told of, under these names.
bool log_names_unknown(const std::string& text, const std::vector<LogColumn>& told);

/// Asks which column of the log is what, and in which unit; guesses stand there already. True when the rig knows.
bool ask_log_columns(RigDocument& document, const std::string& text, const Error& why, QWidget* parent);

}  // namespace rigging::app
