#pragma once

#include <QLabel>
#include <QPushButton>

#include "look/look.h"

namespace rigging::app {

/// A button with its one-line hint and the name that tests and the keyboard find it by.
inline QPushButton* hinted_button(const QString& text, const char* id, const QString& hint) {
  auto* b = new QPushButton(text);
  b->setObjectName(QLatin1String(id));
  b->setToolTip(hint);
  return b;
}

/// A label whose words wrap.
inline QLabel* wrapping_words(double points, bool bold = false) {
  auto* l = new QLabel;
  l->setWordWrap(true);
  l->setFont(Look::instance().text(points, bold));
  return l;
}

}  // namespace rigging::app
