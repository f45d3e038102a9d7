#pragma once

#include <QDialog>

#include "document/rig_document.h"

class QComboBox;
class QLabel;

namespace rigging::app {

class BaudBox;
class SatelliteLine;

/// A satellite receiver by itself at a serial device: which, how fast, and how to wire it.
class SatelliteDialog : public QDialog {
  Q_OBJECT
 public:
  SatelliteDialog(SatelliteLine& line, QWidget* parent);

 private:
  void listen();
  SatelliteLine& line_;
  QComboBox *device_, *baud_;
  QLabel* trouble_;
};

}  // namespace rigging::app
