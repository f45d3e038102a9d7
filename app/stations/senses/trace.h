#pragma once

#include <QWidget>
#include <utility>
#include <vector>

namespace rigging::app {

/// A few lines over time (or over frequency), each named at its end; scaled to what there is.
class Trace : public QWidget {
  Q_OBJECT
 public:
  struct Line {
    QString name;
    std::vector<std::pair<double, double>> points;
    bool operator==(const Line&) const = default;
  };
  explicit Trace(QWidget* parent = nullptr);
  /// `least_height`: of what is shown, so that a quiet sensor draws a quiet line. `caption`: what it is, with its
  /// units.
  void show_lines(std::vector<Line> lines, double least_height, const QString& x_unit, const QString& caption);
  QSize sizeHint() const override { return {420, 260}; }
  QSize minimumSizeHint() const override { return {200, 120}; }

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  std::vector<Line> lines_;
  double least_height_ = 1;
  QString x_unit_, caption_;
};

}  // namespace rigging::app
