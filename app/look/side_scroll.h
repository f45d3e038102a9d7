#pragma once

#include <QScrollArea>

namespace rigging::app {

/// A panel beside the drawing, as wide as its text needs (pixels at the usual size of text, and what its content asks
/// for, within reason), that scrolls upright.
class SideScroll : public QScrollArea {
  Q_OBJECT
 public:
  SideScroll(double pixels, QWidget* content);
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void fit();

  double pixels_;
};

}  // namespace rigging::app
