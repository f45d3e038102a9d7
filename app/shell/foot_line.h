#pragma once

#include <QWidget>

#include "bench/bench_link.h"
#include "document/rig_document.h"

class QLabel;
class QPushButton;

namespace rigging::app {

/// Link and supply, readiness in words, last edit with undo.
class FootLine : public QWidget {
  Q_OBJECT
 public:
  FootLine(RigDocument& document, BenchLink& bench, QWidget* parent = nullptr);
  void refresh();
  /// A sentence that matters now; replaced by the next one.
  void say(const QString& words);
  /// One that the next edit makes untrue.
  void say_until_edit(const QString& words);

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  RigDocument& document_;
  BenchLink& bench_;
  QLabel *link_, *readiness_, *said_, *edit_;
  QPushButton* undo_;
  bool until_edit_ = false;
};

}  // namespace rigging::app
