#include "look/plain_text.h"

#include <QEvent>
#include <QHelpEvent>
#include <QLabel>
#include <QToolTip>

namespace rigging::app {

bool PlainText::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::Polish) {
    if (auto* label = qobject_cast<QLabel*>(watched); label && label->textFormat() == Qt::AutoText)
      label->setTextFormat(Qt::PlainText);
  } else if (event->type() == QEvent::ToolTip) {
    if (auto* widget = qobject_cast<QWidget*>(watched); widget && Qt::mightBeRichText(widget->toolTip())) {
      QToolTip::showText(static_cast<QHelpEvent*>(event)->globalPos(),
                         QStringLiteral("<qt>%1</qt>").arg(widget->toolTip().toHtmlEscaped()), widget);
      return true;
    }
  }
  return QObject::eventFilter(watched, event);
}

}  // namespace rigging::app
