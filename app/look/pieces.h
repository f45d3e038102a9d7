#pragma once

#include <QLabel>
#include <QPushButton>
#include <QStyle>

#include "look/look.h"

namespace rigging::app {

/// Core's words on the screen.
inline QString said_of(const std::string& text) { return QString::fromStdString(text); }

/// Keeps a width that follows the size of text; pixels at the usual one.
inline void keep_width(QWidget* w, double pixels) {
  const auto fit = [w, pixels] { w->setFixedWidth(Style::instance().px(pixels)); };
  fit();
  QObject::connect(&Style::instance(), &Style::changed, w, fit);
}

/// The filled one, which is the next step, or not.
inline void make_main(QPushButton& button, bool main) {
  if (button.property("main").toBool() == main) return;
  button.setProperty("main", main);
  button.style()->unpolish(&button);
  button.style()->polish(&button);
}

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
  l->setFont(Style::instance().text(points, bold));
  return l;
}

/// Words that must be heeded.
inline QLabel* caution_words(double points = 9) {
  QLabel* l = wrapping_words(points);
  l->setProperty("caution", true);
  return l;
}

}  // namespace rigging::app
