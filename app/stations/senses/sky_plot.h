#pragma once

#include <QWidget>

#include "senses/satellites.h"

namespace rigging::app {

/// Where a receiver that stands still says that it is, in metres about the mean, north up.
class SkyPlot : public QWidget {
  Q_OBJECT
 public:
  explicit SkyPlot(QWidget* parent = nullptr);
  void show_fixes(const std::vector<SatelliteFix>& fixes, const Standing& standing);
  QSize sizeHint() const override { return {360, 320}; }
  QSize minimumSizeHint() const override { return {180, 160}; }

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  std::vector<QPointF> east_north_m_;
  Standing standing_;
  std::size_t shown_ = 0;
};

}  // namespace rigging::app
