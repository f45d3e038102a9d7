#pragma once

#include <QString>

namespace rigging::app {

class MainWindow;

/// Walks the demo through every view and writes one PNG each. Returns the exit status.
int take_screenshots(MainWindow& window, const QString& folder);

}  // namespace rigging::app
