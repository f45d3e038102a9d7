#include "look/page_scroll.h"

#include <QEvent>
#include <QLayout>
#include <QScrollBar>
#include <algorithm>

namespace rigging::app {

PageScroll::PageScroll(QWidget* page) {
  setFrameShape(QFrame::NoFrame);
  setFocusPolicy(Qt::NoFocus);
  setWidget(page);
  viewport()->setAutoFillBackground(false);
  page->setAutoFillBackground(false);
  page->installEventFilter(this);
}

QSize PageScroll::minimumSizeHint() const {
  constexpr int least = 200;
  return {widget()->minimumSizeHint().width(), least};
}

int PageScroll::least_height(int width) const {
  const QLayout* layout = widget()->layout();
  if (!layout) return widget()->minimumSizeHint().height();
  return layout->hasHeightForWidth() ? layout->minimumHeightForWidth(width) : layout->minimumSize().height();
}

void PageScroll::fit() {
  const QSize room = maximumViewportSize();
  int width = room.width(), high = least_height(width);
  if (high > room.height()) {
    width -= verticalScrollBar()->sizeHint().width();
    high = least_height(width);
  }
  // Where even the narrowest is too wide it scrolls to the side as well, rather than lose an edge.
  widget()->resize(std::max(width, widget()->minimumSizeHint().width()), std::max(room.height(), high));
}

void PageScroll::resizeEvent(QResizeEvent* event) {
  fit();
  QScrollArea::resizeEvent(event);
}

bool PageScroll::eventFilter(QObject* watched, QEvent* event) {
  if (watched == widget() && event->type() == QEvent::LayoutRequest) fit();
  return QScrollArea::eventFilter(watched, event);
}

}  // namespace rigging::app
