#pragma once

#include <QElapsedTimer>

#include "senses/sense_procedures.h"
#include "stations/station_page.h"

class QPushButton;
class QStackedWidget;

namespace rigging::app {

class AircraftView;
class GoreMap;
class ResidualRose;

/// Does it know which way is up and north? The builder's own aircraft shows how it is held and how it should be.
class SensesPage : public StationPage {
  Q_OBJECT
 public:
  explicit SensesPage(const PageContext& context);
  void go_to(const QString& subject) override;
  QWidget* first_focus() override;
  QList<Request> requests() override;
  bool uses_bench() const override { return true; }

  enum Side { rotation, accelerometer, compass };
  template <class P>
  const P& procedure(Side side) const {
    return static_cast<const P&>(cards_[side]->runner().procedure());
  }

 protected:
  void refresh() override;

 private:
  void show_side(Side side);
  void follow();
  void hear(const std::vector<MotionSample>& samples);

  Side side_ = rotation;
  std::array<QPushButton*, 3> sides_{};
  std::array<ProcedureCard*, 3> cards_{};
  AircraftView* view_;
  GoreMap* map_;
  ResidualRose* rose_;
  QStackedWidget *picture_, *stack_;
  QLabel* now_;
  Point smooth_ = {0, 0, -9.8};
  QElapsedTimer drawn_;
};

}  // namespace rigging::app
