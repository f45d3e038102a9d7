#pragma once

#include <QScrollArea>

namespace rigging::app {

/// Puts new content into a scroll area. The old one may be in the middle of an event of its own, so it goes later.
inline void replace_content(QScrollArea& area, QWidget* content) {
  if (QWidget* old = area.takeWidget()) {
    old->hide();
    old->setParent(nullptr);
    old->deleteLater();
  }
  area.setWidget(content);
}

}  // namespace rigging::app
