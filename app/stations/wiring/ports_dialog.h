#pragma once

#include <QDialog>

#include "document/rig_document.h"

namespace rigging::app {

/// How each port of the board is set, and which signal of the receiver it listens for.
class PortsDialog : public QDialog {
  Q_OBJECT
 public:
  PortsDialog(RigDocument& document, QWidget* parent);

 private:
  void rebuild();
  QWidget* port_row(const Terminal& terminal);
  QWidget* receiver_row();
  void put(const Port& port);
  RigDocument& document_;
  bool rebuilding_ = false;
};

}  // namespace rigging::app
