#pragma once

#include <QWidget>

#include "surfaces/linkage.h"

namespace rigging::app {

/// The linkage from the side, to scale: servo, arm, rod, horn and surface, with what it does in degrees and
/// millimetres. The holes of arm and horn can be dragged along them.
class LinkageView : public QWidget {
  Q_OBJECT
 public:
  explicit LinkageView(QWidget* parent = nullptr);
  /// `pulse_us`: where the servo is sent.
  /// `origin`: where the linkage is known from, in a few words.
  void set_linkage(const Linkage& linkage, const Output& output, double chord_m, double pulse_us,
                   const QString& origin);
  void clear(const QString& words);
  enum class Grip { none, arm, horn };
  QPointF grip(Grip which) const;  ///< where it can be taken hold of

 Q_SIGNALS:
  void dragged(double arm_m, double horn_m);
  void let_go();

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;
  void mouseReleaseEvent(QMouseEvent*) override;
  void keyPressEvent(QKeyEvent*) override;

 private:
  struct Frame {
    double scale = 1;
    QPointF origin;
    double side = 1;
    QPointF at(double x_m, double y_m) const { return origin + QPointF(x_m * scale, side * y_m * scale); }
  };
  Frame frame() const;
  Frame held_frame_;  ///< the scale stays while a hole is dragged
  std::optional<LinkagePose> pose() const;

  Linkage linkage_;
  Output output_;
  double chord_m_ = 0.05, pulse_us_ = 1500;
  std::optional<LinkageCurve> curve_;
  bool known_ = false;
  QString words_, origin_;
  Grip held_ = Grip::none, chosen_ = Grip::arm;
};

}  // namespace rigging::app
