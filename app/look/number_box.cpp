#include "look/number_box.h"

#include <QLineEdit>
#include <cmath>
#include <utility>

#include "language/typed.h"
#include "look/literals.h"
#include "look/pieces.h"

namespace rigging::app {

NumberBox::NumberBox() {
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

bool NumberBox::take_typed() { return std::exchange(typed_, false); }

QValidator::State NumberBox::validate(QString& text, int& at) const {
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

void NumberBox::fixup(QString& text) const {
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

QString NumberBox::refusal() const {
  const QString typed = refused_.trimmed();
  return typed.isEmpty() ? QString()
                         : u"“%1” does not fit: %2 to %3%4 is expected."_s.arg(typed, textFromValue(least()),
                                                                               textFromValue(maximum()), suffix());
}

QString NumberBox::take_refusal() {
  QString words = refusal();
  refused_.clear();
  if (!words.isEmpty()) typed_ = false;
  return words;
}

double NumberBox::least() const {
  return least_known_.value_or(minimum() + (specialValueText().isEmpty() ? 0 : std::pow(10.0, -decimals())));
}

NumberBox* number_box(const QString& id, const QString& name, int width) {
  auto* b = new NumberBox;
  b->setObjectName(id);
  b->setAccessibleName(name);
  b->setButtonSymbols(QAbstractSpinBox::NoButtons);
  b->setAlignment(Qt::AlignRight);
  b->setFont(Style::instance().figures());
  b->setKeyboardTracking(false);
  if (width > 0) keep_width(b, width);
  return b;
}

}  // namespace rigging::app
