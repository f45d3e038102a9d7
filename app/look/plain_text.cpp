#include "look/plain_text.h"

#include <QEvent>
#include <QHelpEvent>
#include <QLabel>
#include <QToolTip>

#include "base/wrapped.h"

namespace rigging::app {

QString hint_lines(const QString& words) {
  constexpr std::size_t most = 64;
  QStringList lines;
  for (const QString& line : words.split(QLatin1Char('\n')))
    for (const std::string& part : wrapped(line.toStdString(), most)) lines << QString::fromStdString(part);
  return lines.join(QLatin1Char('\n'));
}

void show_hint(const QPoint& at, const QString& words, QWidget* of) {
  QToolTip::showText(at, words, of);  // in a label of its own, which `PlainText` makes plain
}

bool PlainText::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::Polish) {
    if (auto* label = qobject_cast<QLabel*>(watched); label && label->textFormat() == Qt::AutoText)
      label->setTextFormat(Qt::PlainText);
  } else if (event->type() == QEvent::ToolTip) {
    if (auto* widget = qobject_cast<QWidget*>(watched); widget && !widget->toolTip().isEmpty()) {
      show_hint(static_cast<QHelpEvent*>(event)->globalPos(), hint_lines(widget->toolTip()), widget);
      return true;
    }
  }
  return QObject::eventFilter(watched, event);
}

}  // namespace rigging::app
