#pragma once

#include <QString>

/// The window's words are written where they are shown, as `u"…"_s`: they come from core in English as well, and a
/// window of which half is translated would be worse than one of one language (house.md).
namespace rigging::app {

using namespace Qt::StringLiterals;

}  // namespace rigging::app
