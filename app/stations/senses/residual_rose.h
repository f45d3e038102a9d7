#pragma once

#include <QWidget>
#include <utility>
#include <vector>

namespace rigging::app {

/// Lengths that should all be one circle: before the correction and after it, with what is off drawn larger.
class ResidualRose : public QWidget {
  Q_OBJECT
 public:
  explicit ResidualRose(QWidget* parent = nullptr);
  /// Round the circle, what each length is off by (share of the length): before, and after. `caption`: what it is.
  void show_lengths(std::vector<std::pair<double, double>> lengths, const QString& caption);
  QSize sizeHint() const override { return {200, 170}; }
  QSize minimumSizeHint() const override { return {140, 120}; }

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  std::vector<std::pair<double, double>> lengths_;
  QString caption_;
};

}  // namespace rigging::app
