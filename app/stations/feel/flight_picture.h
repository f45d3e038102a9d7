#pragma once

#include <QWidget>

#include "airframe/airframe.h"
#include "feel/flyer.h"

class QCPAxisRect;
class QCPGraph;
class QCustomPlot;
class QLabel;

namespace rigging::app {

class FlightStrip;

/// One flight, a former one behind it, and the band of what aircraft like this one may do: as a film and as plots.
class FlightPicture : public QWidget {
  Q_OBJECT
 public:
  explicit FlightPicture(QWidget* parent = nullptr);

  struct Shown {
    std::optional<Flight> now, before;
    std::optional<FlightBand> band;
  };
  void show_flight(Axis axis, const std::vector<Panel>& panels, Shown shown);
  /// No flight; words in its place.
  void show_nothing(const QString& words);
  /// What became of it, under the plots.
  void say(const QString& words);

 private:
  struct Row {
    QCPAxisRect* rect = nullptr;
    QCPGraph *least = nullptr, *most = nullptr, *before = nullptr, *extra = nullptr, *now = nullptr;
  };
  void make_rows();
  void dress();
  void fill();
  double length_s() const;
  void look_at(double from_s, double to_s);

  QCustomPlot* plot_;
  FlightStrip* strip_;
  QLabel *words_, *nothing_;
  std::vector<Row> rows_;
  Axis axis_ = Axis::roll;
  Shown shown_;
};

}  // namespace rigging::app
