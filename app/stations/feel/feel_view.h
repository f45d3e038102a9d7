#pragma once

#include <QWidget>
#include <functional>
#include <optional>

#include "feel/feel.h"

namespace rigging::app {

/// Speed along, firmness up: where an axis is calm, where it may shake and where it shakes, with today's setting as a
/// mark to drag.
class FeelView : public QWidget {
  Q_OBJECT
 public:
  explicit FeelView(QWidget* parent = nullptr);

  /// How firmness is shown: from a rate gain (already as it is set, without what follows the speed) to a height from 0
  /// to 1, and back; and what stands beside some heights.
  struct Scale {
    std::function<double(double gain_s)> height;
    std::vector<std::pair<double, QString>> marks;
    std::function<QString(double height)> words;
    double step = 0.02;
    bool settable = true;
  };
  struct Shown {
    std::vector<MarginPoint> curve;
    std::function<double(double m_s)> follows;  ///< what the class makes of a gain at a speed
    double cruise_m_s = 0, fast_m_s = 0;
    std::optional<double> setting;  ///< height of today's setting
    std::optional<double> first;    ///< height advised for the first flight
    Scale scale;
  };
  void show_axis(const QString& axis, Shown shown);
  /// Nothing to draw: why.
  void show_nothing(const QString& why);
  /// Where today's setting stands, or would while it is dragged.
  std::optional<double> setting() const { return dragged_ ? dragged_ : shown_.setting; }

  QSize sizeHint() const override { return {640, 400}; }
  QSize minimumSizeHint() const override { return {420, 240}; }

 Q_SIGNALS:
  void dragged(double height);
  void let_go(double height);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  QRectF field() const;
  double x_of(double m_s) const;
  double y_of(double height) const;
  double height_at(double y) const;
  /// Heights of one edge of the curve, from the slowest to the fastest speed.
  QPolygonF edge(double MarginPoint::*of) const;
  void drag_to(double height);

  QString axis_, why_;
  Shown shown_;
  std::optional<double> dragged_;
  bool pressed_ = false;
};

}  // namespace rigging::app
