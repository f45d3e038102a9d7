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
  /// Until when a sentence holds, if no other replaces it before.
  enum class Until { edit, link_gone, replaced };
  /// A sentence that matters now, until the next edit.
  void say(const QString& words) { say_until(Until::edit, words); }
  /// What is said of the board is over with the next edit and with the link.
  void say_until(Until until, const QString& words);

 protected:
  void paintEvent(QPaintEvent*) override;
  void resizeEvent(QResizeEvent*) override;

 private:
  RigDocument& document_;
  BenchLink& bench_;
  QLabel *link_, *readiness_, *said_, *edit_;
  QPushButton* undo_;
  void fit();

  QString words_;
  Until until_ = Until::edit;
};

}  // namespace rigging::app
