#pragma once

#include <QDoubleSpinBox>
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

/// Words that must be heeded.
inline QLabel* caution_words(double points = 9) {
  QLabel* l = wrapping_words(points);
  l->setProperty("caution", true);
  return l;
}

/// Takes a comma for the decimal point, in every locale: "1,5" is never 15.
class NumberBox : public QDoubleSpinBox {
 public:
  QValidator::State validate(QString& text, int& at) const override {
    text.replace(QLatin1Char(','), QLatin1Char('.'));
    return QDoubleSpinBox::validate(text, at);
  }
};

/// A box for one number: typed, not stepped, with its figures at the right. A change counts when it is finished.
inline QDoubleSpinBox* number_box(const QString& id, const QString& name, int width = 0) {
  auto* b = new NumberBox;
  b->setObjectName(id);
  b->setAccessibleName(name);
  b->setButtonSymbols(QAbstractSpinBox::NoButtons);
  b->setAlignment(Qt::AlignRight);
  b->setFont(Look::instance().figures());
  b->setKeyboardTracking(false);
  if (width > 0) b->setFixedWidth(width);
  return b;
}

}  // namespace rigging::app
