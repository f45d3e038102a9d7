#pragma once

#include <QWidget>

namespace rigging::app {

/// One weight as a bar from the middle, to be pulled with the mouse in steps of 5 %. The number box beside it is its
/// way for the keyboard.
class ShareBar : public QWidget {
  Q_OBJECT
 public:
  /// The share that it stands for, 1 being the full travel; more than it can show is typed.
  ShareBar(const QString& id, double value);
  void set_value(double share);
  QSize sizeHint() const override;

 Q_SIGNALS:
  void pulled(double share);
  void let_go(double share);
  void given_up();  ///< with Escape: it stands where it stood

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  double x_of(double share) const;
  void pull_to(double x);

  double value_, before_;
  bool held_ = false;
};

}  // namespace rigging::app
