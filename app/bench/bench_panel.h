#pragma once

#include "bench/bench_link.h"
#include "document/rig_document.h"
#include "drawing/aircraft_view.h"

class QComboBox;
class QLabel;
class QPushButton;
class QSlider;

namespace rigging::app {

class StickSquare;

/// The simulated bench in the builder's hands: the model to hold and look at, sticks, switches, supply.
class BenchPanel : public QWidget {
  Q_OBJECT
 public:
  BenchPanel(RigDocument& document, BenchLink& bench, QWidget* parent = nullptr);
  void refresh();

 Q_SIGNALS:
  void start_asked();
  void compare_asked();

 private:
  void update_sight();

  RigDocument& document_;
  BenchLink& bench_;
  AircraftView* view_;
  StickSquare* square_;
  QSlider *yaw_, *throttle_;
  QPushButton *start_, *battery_, *usb_, *transmitter_, *compare_;
  QComboBox* mode_;
  QLabel *state_, *heard_, *caution_;
  QWidget* controls_;
  QString modes_of_;
};

}  // namespace rigging::app
