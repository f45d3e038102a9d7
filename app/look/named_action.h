#pragma once

#include <QString>
#include <functional>

namespace rigging::app {

/// Something that can be asked for in words.
struct NamedAction {
  QString text;
  QString also;  ///< further words under which it is found
  std::function<void()> act;
};

}  // namespace rigging::app
