#pragma once

#include <QString>

namespace rigging::app {

/// While it lives, widgets are made without the application's style sheet; when it ends, the sheet is laid on all of
/// them at once. Laid on every widget again each time that it or something above it got a parent, it took two thirds
/// of the time in which the window was made (docs/performance.md).
class StyleLater {
 public:
  StyleLater();
  ~StyleLater();
  StyleLater(const StyleLater&) = delete;
  StyleLater& operator=(const StyleLater&) = delete;

 private:
  QString sheet_;
};

}  // namespace rigging::app
