#pragma once

#include <QDialog>

#include "bench/bench_link.h"
#include "document/rig_document.h"

class QComboBox;
class QLabel;
class QPushButton;

namespace rigging::app {

class BaudBox;

/// A receiver by itself at a serial device: which, what it says, and how to wire it.
class ReceiverDialog : public QDialog {
  Q_OBJECT
 public:
  ReceiverDialog(const RigDocument& document, BenchLink& bench, QWidget* parent);

 private:
  void describe();
  void listen();
  Signal signal() const;

  BenchLink& bench_;
  QComboBox *device_, *signal_;
  BaudBox* baud_;
  QLabel *how_, *trouble_;
};

}  // namespace rigging::app
