#pragma once

#include <QWidget>

#include "review/review.h"

namespace rigging::app {

/// A fuselage cut into the stations; each rib shows how its station stands.
class StationStrip : public QWidget {
  Q_OBJECT
 public:
  explicit StationStrip(QWidget* parent = nullptr);
  void set_states(const std::vector<StationState>& states);
  void set_current(Station station);
  QSize sizeHint() const override { return {900, 76}; }
  QSize minimumSizeHint() const override { return {600, 76}; }

 Q_SIGNALS:
  void chosen(rigging::Station station);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void leaveEvent(QEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  bool event(QEvent*) override;

 private:
  int count() const { return static_cast<int>(states_.size()); }
  int at(QPointF pos) const;
  QRectF bay(int index) const;
  double half_height(double share) const;

  std::vector<StationState> states_;
  int current_ = 0, hovered_ = -1;
};

}  // namespace rigging::app
