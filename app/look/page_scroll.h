#pragma once

#include <QScrollArea>

namespace rigging::app {

/// A page as large as its place, or as its words need at least: with large text on a small screen it scrolls
/// instead of cutting its words.
class PageScroll : public QScrollArea {
  Q_OBJECT
 public:
  explicit PageScroll(QWidget* page);
  QSize minimumSizeHint() const override;
  QSize sizeHint() const override { return widget()->sizeHint(); }
  bool eventFilter(QObject* watched, QEvent* event) override;

 protected:
  void resizeEvent(QResizeEvent*) override;

 private:
  void fit();
  int least_height(int width) const;
};

}  // namespace rigging::app
