#pragma once

#include <QDoubleSpinBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <cmath>
#include <utility>

#include "base/typed.h"
#include "look/look.h"

namespace rigging::app {

/// Core's words on the screen.
inline QString said_of(const std::string& text) { return QString::fromStdString(text); }

/// Keeps a width that follows the size of text; pixels at the usual one.
inline void keep_width(QWidget* w, double pixels) {
  const auto fit = [w, pixels] { w->setFixedWidth(Look::instance().px(pixels)); };
  fit();
  QObject::connect(&Look::instance(), &Look::changed, w, fit);
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
  l->setFont(Look::instance().text(points, bold));
  return l;
}

/// Words that must be heeded.
inline QLabel* caution_words(double points = 9) {
  QLabel* l = wrapping_words(points);
  l->setProperty("caution", true);
  return l;
}

class NumberBox;

/// What stands around number boxes and hears of one whose number does not fit.
class HearsRefusals {
 public:
  virtual void hear_refusal(NumberBox& box) = 0;

 protected:
  ~HearsRefusals() = default;
};

/// Takes a comma for the decimal point, in every locale: "1,5" is never 15.
class NumberBox : public QDoubleSpinBox {
 public:
  NumberBox() {
    connect(lineEdit(), &QLineEdit::textEdited, this, [this] {
      refused_.clear();
      typed_ = true;
    });
    connect(this, &QDoubleSpinBox::editingFinished, this, [this] {
      if (refused_.isEmpty()) return;
      for (QWidget* around = parentWidget(); around; around = around->parentWidget())
        if (auto* listener = dynamic_cast<HearsRefusals*>(around)) return listener->hear_refusal(*this);
    });
  }
  /// Where less than `least` can only be "not known", which stands at the lower end of the box.
  void set_least_known(double least) { least_known_ = least; }
  /// Was something typed since it was last asked? A number that is typed again as it stood changes nothing, and is
  /// said.
  bool take_typed() { return std::exchange(typed_, false); }
  QValidator::State validate(QString& text, int& at) const override {
    text.replace(QLatin1Char(','), QLatin1Char('.'));
    const QValidator::State state = QDoubleSpinBox::validate(text, at);
    if (state == QValidator::Acceptable && least_known_) {
      const double value = valueFromText(text);
      return value > minimum() && value < *least_known_ - 1e-9 ? QValidator::Intermediate : state;
    }
    if (state != QValidator::Invalid) return state;
    // Everything can be typed to its end: a key that is swallowed makes another number of it.
    return text.isEmpty() ? state : QValidator::Intermediate;
  }
  /// "1.2 m" where millimetres are asked is 1200. What was typed and does not fit is kept to be told of, once.
  void fixup(QString& text) const override {
    const QString own = suffix().trimmed();
    QString typed = text;
    if (!prefix().isEmpty()) typed.remove(prefix());
    typed = typed.trimmed();
    if (!suffix().isEmpty() && typed.endsWith(own) && typed.size() > own.size() &&
        !typed.at(typed.size() - own.size() - 1).isLetter())
      typed.chop(own.size());
    // Without a unit of its own it must fit as it stands; from another unit it is rounded.
    bool bare = false;
    QString(typed).replace(QLatin1Char(','), QLatin1Char('.')).toDouble(&bare);
    if (const auto value = typed_number(typed.trimmed().toStdString(), own.toStdString());
        !bare && value && *value >= least() - 1e-9 && *value <= maximum() + 1e-9) {
      text = prefix() + textFromValue(*value) + suffix();
      return;
    }
    // The words for "not known" come along with the unit.
    const bool words = !specialValueText().isEmpty() && text.startsWith(specialValueText());
    if (!words) refused_ = text;
    QDoubleSpinBox::fixup(text);
  }
  /// A sentence about what was typed and does not fit; empty where all does, or where it was taken already.
  QString refusal() const {
    const QString typed = refused_.trimmed();
    return typed.isEmpty() ? QString()
                           : tr("“%1” does not fit: %2 to %3%4 is expected.")
                                 .arg(typed, textFromValue(least()), textFromValue(maximum()), suffix());
  }
  /// The same, said once; what was typed then counts as not typed.
  QString take_refusal() {
    const QString words = refusal();
    refused_.clear();
    if (!words.isEmpty()) typed_ = false;
    return words;
  }

 private:
  /// The words for "not known" stand below the range: one step, where nothing else is said.
  double least() const {
    return least_known_.value_or(minimum() + (specialValueText().isEmpty() ? 0 : std::pow(10.0, -decimals())));
  }

  std::optional<double> least_known_;
  mutable QString refused_;
  bool typed_ = false;
};

/// A box for one number: typed, not stepped, with its figures at the right. A change counts when it is finished.
inline NumberBox* number_box(const QString& id, const QString& name, int width = 0) {
  auto* b = new NumberBox;
  b->setObjectName(id);
  b->setAccessibleName(name);
  b->setButtonSymbols(QAbstractSpinBox::NoButtons);
  b->setAlignment(Qt::AlignRight);
  b->setFont(Look::instance().figures());
  b->setKeyboardTracking(false);
  if (width > 0) keep_width(b, width);
  return b;
}

}  // namespace rigging::app
