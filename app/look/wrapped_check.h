#pragma once

#include <QCheckBox>

namespace rigging::app {

/// A check box whose words break into as many lines as they need.
class WrappedCheck : public QCheckBox {
  Q_OBJECT
 public:
  explicit WrappedCheck(const QString& words, QWidget* parent = nullptr);
  bool hasHeightForWidth() const override { return true; }
  int heightForWidth(int width) const override;
  QSize sizeHint() const override;
  QSize minimumSizeHint() const override { return {120, heightForWidth(width())}; }

 protected:
  void paintEvent(QPaintEvent*) override;
  bool hitButton(const QPoint& at) const override { return rect().contains(at); }

 private:
  int indent() const;
};

}  // namespace rigging::app
