#pragma once

#include <QWidget>

#include "airframe/airframe.h"
#include "feel/gust.h"

namespace rigging::app {

/// A gust as a small film: the builder's aircraft every few tenths of a second, with the correction in ink and hands
/// off behind it.
class GustStrip : public QWidget {
  Q_OBJECT
 public:
  explicit GustStrip(QWidget* parent = nullptr);

  void show_answer(Axis axis, const std::vector<Panel>& panels, const GustAnswer& with, const GustAnswer& without);
  void clear();
  QSize sizeHint() const override { return {640, 112}; }
  QSize minimumSizeHint() const override { return {420, 96}; }

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  Axis axis_ = Axis::roll;
  std::vector<Panel> panels_;
  GustAnswer with_, without_;
};

}  // namespace rigging::app
