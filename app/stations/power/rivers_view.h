#pragma once

#include <QWidget>

#include "document/rig_document.h"

namespace rigging::app {

/// Rails as rivers: from the sources at the left to the loads at the right, as wide as the current.
class RiversView : public QWidget {
  Q_OBJECT
 public:
  explicit RiversView(RigDocument& document, QWidget* parent = nullptr);
  /// What to draw; the report must be of the same rig.
  void show(const PowerReport& report, const Solution& solution);
  QSize minimumSizeHint() const override { return {360, 200}; }

 Q_SIGNALS:
  /// A servo was clicked: stall it, or let it go.
  void load_clicked(const std::string& part);

 protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void mouseMoveEvent(QMouseEvent*) override;

 private:
  RigDocument& document_;
  PowerReport report_;
  Solution solution_;
  std::vector<std::pair<QRectF, std::string>> targets_;
};

}  // namespace rigging::app
