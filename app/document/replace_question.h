#pragma once

#include <QString>

class QWidget;

namespace rigging::app {

/// A file dialog has asked for the name that was chosen in it. A path that only became one by its ending is asked for
/// here, when there is such a file: true when it may be replaced.
bool may_replace(QWidget* parent, const QString& path, const QString& chosen);

}  // namespace rigging::app
