#pragma once

#include "bench/bench_link.h"
#include "bench/last_move.h"
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

  QSize sizeHint() const override { return {900, least_height()}; }
  QSize minimumSizeHint() const override { return {600, least_height()}; }
  bool eventFilter(QObject* watched, QEvent* event) override;

 Q_SIGNALS:
  void start_asked();
  void compare_asked();

 private:
  int least_height() const;
  void update_sight();
  void replay();
  void show_live();
  void show_sight(const hands::Sight& sight);

  RigDocument& document_;
  BenchLink& bench_;
  AircraftView* view_;
  StickSquare* square_;
  QSlider *yaw_, *throttle_;
  QPushButton *start_, *battery_, *usb_, *transmitter_, *compare_;
  QComboBox* mode_;
  QLabel *state_, *heard_, *caution_;
  QPushButton* slowly_;
  QWidget* controls_;
  LastMove last_move_;
  double replaying_from_s_ = 0;
  Ticks replay_{30};
  QString modes_of_;
};

}  // namespace rigging::app
