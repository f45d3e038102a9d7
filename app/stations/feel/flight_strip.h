#pragma once

#include <QWidget>
#include <optional>

#include "airframe/airframe.h"
#include "flight/flight.h"

namespace rigging::app {

/// A flight as a film: the builder's aircraft as one who flies behind it sees it, every few tenths of a second, over
/// the horizon; a former flight pale behind it.
class FlightStrip : public QWidget {
  Q_OBJECT
 public:
  explicit FlightStrip(QWidget* parent = nullptr);

  void set_panels(const std::vector<Panel>& panels);
  void show_flight(const std::optional<Flight>& now, const std::optional<Flight>& before, double from_s, double to_s);
  QSize sizeHint() const override { return {640, 132}; }
  QSize minimumSizeHint() const override { return {420, 110}; }

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  std::vector<Panel> panels_;
  double reach_m_ = 1;
  std::optional<Flight> now_, before_;
  double from_s_ = 0, to_s_ = 1;
};

}  // namespace rigging::app
