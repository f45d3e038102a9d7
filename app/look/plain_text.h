#pragma once

#include <QObject>
#include <QPoint>
#include <QString>

namespace rigging::app {

/// What a resting pointer brings up, in lines that are read at a glance: hints are plain text, which breaks nowhere by
/// itself.
QString hint_lines(const QString& words);

/// Brings them up, shown as they are.
void show_hint(const QPoint& at, const QString& words, QWidget* of);

/// Names, firmware and messages come from files, links and hands: a label or hint shows them as they are. A label that
/// is meant to have bold words gets them by `show_html`.
class PlainText : public QObject {
  Q_OBJECT
 public:
  using QObject::QObject;

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
};

}  // namespace rigging::app
