#pragma once

#include <deque>

#include "senses/air_procedures.h"
#include "senses/still_procedures.h"
#include "stations/station_page.h"

class QPushButton;
class QStackedWidget;

namespace rigging::app {

class AircraftView;
class GoreMap;
class ResidualRose;
class SatelliteLine;
class SkyPlot;
class Trace;

/// Does it know which way is up and north? The builder's own aircraft shows how it is held and how it should be.
class SensesPage : public StationPage {
  Q_OBJECT
 public:
  explicit SensesPage(const PageContext& context);
  void go_to(const QString& subject) override;
  QWidget* first_focus() override;
  QList<NamedAction> named_actions() override;
  bool uses_bench() const override { return true; }

  /// Readings of a flight, from a file.
  void take_log(const QString& file);
  enum Side { found, still, rotation, accelerometer, level, compass, motor, sky, air };
  static constexpr std::size_t side_count = 9;
  template <class P>
  const P& procedure(Side side) const {
    return static_cast<const P&>(cards_[side]->runner().procedure());
  }

 protected:
  void refresh() override;

 private:
  void show_side(Side side);
  void follow();
  void hear(const BoardReadings& readings);
  void show_pictures();
  void listen_to_sky();
  void ask_wing_and_cruise();
  void read_log();

  Side side_ = rotation;
  std::array<QPushButton*, side_count> sides_{};
  std::array<ProcedureCard*, side_count> cards_{};
  AircraftView *view_, *from_side_;
  GoreMap* map_;
  ResidualRose* rose_;
  Trace* trace_;
  SkyPlot* sky_plot_;
  QPushButton *real_receiver_, *wing_, *log_;
  SatelliteLine* line_;
  /// What the last twenty seconds said, for the trace.
  std::deque<MotionSample> recent_;
  std::deque<SlowReading> recent_slow_;
  QStackedWidget *picture_, *stack_;
  QLabel* now_;
  Point smooth_ = {0, 0, -9.8};
  double drawn_s_ = 0, worded_s_ = 0;
};

}  // namespace rigging::app
