#pragma once

#include <QWidget>

#include "surfaces/surfaces.h"

namespace rigging::app {

/// All stick positions of roll and pitch as a square. The point can be dragged; positions that saturate an output are
/// hatched.
class StickSquare : public QWidget {
  Q_OBJECT
 public:
  static constexpr double half_correction = 0.5;  ///< share of a full correction that should still fit
  explicit StickSquare(QWidget* parent = nullptr);
  /// `room`: of the same rig, from its review.
  void set_rig(const Rig& rig, const ControlMargin& room);
  void set_command(const Command& command);
  const Command& command() const { return command_; }
  QSize sizeHint() const override { return {190, 190}; }

 Q_SIGNALS:
  void moved(double roll, double pitch);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseDoubleClickEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

 private:
  QRectF square() const;
  void drag(QPointF pos);

  Rig rig_;
  ControlMargin room_;
  Command command_;
};

}  // namespace rigging::app
