#include "look/undo_beyond.h"

#include <QAbstractSpinBox>
#include <QKeyEvent>
#include <QLineEdit>
#include <QPointer>
#include <QTimer>

namespace rigging::app {
namespace {

/// The line that is typed in: itself, or that of a box with arrows.
QLineEdit* line_of(QObject* watched) {
  if (auto* line = qobject_cast<QLineEdit*>(watched)) return line;
  auto* box = qobject_cast<QAbstractSpinBox*>(watched);
  return box ? box->findChild<QLineEdit*>() : nullptr;
}

}  // namespace

bool UndoBeyond::eventFilter(QObject* watched, QEvent* event) {
  const bool key = event->type() == QEvent::KeyPress, shortcut = event->type() == QEvent::ShortcutOverride;
  if (!key && !shortcut) return QObject::eventFilter(watched, event);
  QLineEdit* line = line_of(watched);
  if (!line) return QObject::eventFilter(watched, event);
  auto* pressed = static_cast<QKeyEvent*>(event);
  if (key) {
    // Taken when everything that listens to it has had it.
    if (pressed->key() == Qt::Key_Return || pressed->key() == Qt::Key_Enter)
      QTimer::singleShot(0, line, [line] { line->setModified(false); });
  } else if ((pressed->matches(QKeySequence::Undo) || pressed->matches(QKeySequence::Redo)) && !line->isModified()) {
    event->ignore();
    return true;
  }
  return QObject::eventFilter(watched, event);
}

}  // namespace rigging::app
