#pragma once

#include <QString>
#include <functional>

namespace rigging::app {

/// Something that can be asked for in words.
struct NamedAction {
  QString text;
  QString also;  ///< further words under which it is found
  std::function<void()> act;
  enum class Does { opens, changes_rig, writes_board };
  Does does = Does::opens;
  /// What records something about the real model is not what a mere name means: it is found only when one of these
  /// words is said as well.
  QString only_with = {};
};

}  // namespace rigging::app
