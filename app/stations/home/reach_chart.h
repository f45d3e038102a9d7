#pragma once

#include <QWidget>
#include <vector>

#include "airframe/airframe.h"
#include "home/home.h"

class QPainter;

namespace rigging::app {

/// The field from above, home in the middle and north up: from where it comes home, the wind, what stands high, and the
/// aircraft as a mark to drag.
class ReachChart : public QWidget {
  Q_OBJECT
 public:
  explicit ReachChart(QWidget* parent = nullptr);

  struct Shown {
    std::vector<HomeReach> reach, worse, better;
    SteadyWind wind;
    double area_m = 0;  ///< 0: not told
    double circle_m = 0;
    std::vector<FieldObstacle> obstacles;
    std::vector<Panel> panels;  ///< of the aircraft, for its mark
  };
  /// Where the aircraft is while the story goes on, and where it heads; the wind as arrows at the rim.
  void show_field(Shown shown);
  void show_nothing(const QString& why);
  /// Where the link goes: distance and bearing from home.
  void set_place(double distance_m, double bearing_deg);
  double distance_m() const { return distance_m_; }
  double bearing_deg() const { return bearing_deg_; }
  /// How far the story has gone: distance from home on the same bearing, and the heading that is flown; whether it
  /// comes home at all.
  void set_progress(double distance_m, double heading_deg, bool arrives);

  /// A track that was flown, in simulation or by a file; empty for none.
  void set_track(std::vector<HomePlace> track);
  /// Magnetic north against true north, east positive; nothing where it is not known.
  void set_declination(std::optional<double> deg);

  QSize sizeHint() const override { return {640, 460}; }
  QSize minimumSizeHint() const override { return {380, 260}; }

 Q_SIGNALS:
  void place_moved(double distance_m, double bearing_deg);
  /// The wind arrow was dragged; counts when it is let go.
  void wind_moved(double speed_m_s, double from_deg, bool let_go);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  QPointF middle() const;
  double radius() const;  ///< px from home to the rim
  double scale() const;   ///< px for a metre
  QPointF at(double distance_m, double bearing_deg) const;
  QPointF wind_grip() const;
  void drag_place(QPointF pos);
  void drag_wind(QPointF pos, bool let_go);
  void draw_wind(QPainter& p) const;
  void draw_aircraft(QPainter& p, QPointF at, double heading_deg, double size, const QColor& ink) const;

  Shown shown_;
  std::vector<HomePlace> track_;
  std::optional<double> declination_deg_;
  QString why_;
  double rim_m_ = 1000;  ///< distance at the rim
  double distance_m_ = 300, bearing_deg_ = 45;
  double gone_m_ = 300, heading_deg_ = 0;
  bool arrives_ = true;
  enum class Drag { nothing, place, wind } drag_ = Drag::nothing;
};

}  // namespace rigging::app
