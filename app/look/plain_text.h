#pragma once

#include <QObject>
#include <QString>

namespace rigging::app {

/// What a resting pointer brings up, in lines that are read at a glance: hints are plain text, which breaks nowhere by
/// itself.
QString hint_lines(const QString& words);

/// Names, firmware and messages come from files, links and hands: a label or hint shows them as they are. A label that
/// is meant to have bold words says so (`setTextFormat(Qt::RichText)`) and escapes what it is given.
class PlainText : public QObject {
  Q_OBJECT
 public:
  using QObject::QObject;

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
};

}  // namespace rigging::app
