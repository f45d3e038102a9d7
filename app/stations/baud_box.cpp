#include "stations/baud_box.h"

#include <QLineEdit>

#include "base/number.h"
#include "look/literals.h"
#include "rig/ranges.h"

namespace rigging::app {

BaudBox::BaudBox(const QString& id, const QString& name) {
  setObjectName(id);
  setAccessibleName(name);
  setEditable(true);
  setInsertPolicy(QComboBox::NoInsert);
  connect(this, &QComboBox::activated, this, &BaudBox::finish);
  connect(lineEdit(), &QLineEdit::editingFinished, this, &BaudBox::finish);
}

void BaudBox::offer(const QString& none, const std::vector<int>& bauds, double most) {
  clear();
  none_ = none;
  if (!none.isEmpty()) addItem(none);
  for (const int b : bauds)
    if (most == 0 || b <= most) addItem(QString::number(b));
}

void BaudBox::show_value(const std::optional<double>& baud) {
  shown_ = baud;
  setCurrentText(baud ? QString::fromStdString(number_text(*baud, 0)) : none_);
}

BaudBox::Typed BaudBox::typed() const {
  const QString text = currentText().simplified();
  if (!none_.isEmpty() && (text.isEmpty() || text == none_.simplified())) return {};
  const auto number = number_of(QString(text).remove(QLatin1Char(' ')).toStdString());
  if (number && *number >= range::baud.least && *number <= range::baud.most) return {number, QString()};
  QString expected = u"a number from 1200 to 4000000 is expected"_s;
  if (!none_.isEmpty()) expected += u", or “%1”"_s.arg(none_);
  return {std::nullopt, u"“%1” is no baud: %2."_s.arg(text.left(40), expected)};
}

void BaudBox::finish() {
  const Typed now = typed();
  if (!now.error.isEmpty()) {
    show_value(shown_);
    Q_EMIT refused(now.error);
  } else if (now.baud != shown_) {
    shown_ = now.baud;
    Q_EMIT taken(now.baud);
  }
}

}  // namespace rigging::app
