#pragma once

#include <QObject>

namespace rigging::app {

/// Undo and redo pressed inside a box: while something is being typed there they are the box's own; once it is taken
/// (Enter, or another box) they are the window's.
class UndoBeyond : public QObject {
  Q_OBJECT
 public:
  using QObject::QObject;

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
};

}  // namespace rigging::app
