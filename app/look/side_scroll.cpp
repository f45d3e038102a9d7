#include "look/side_scroll.h"

#include <QEvent>
#include <QScrollBar>
#include <algorithm>

#include "look/look.h"

namespace rigging::app {

SideScroll::SideScroll(double pixels, QWidget* content) : pixels_(pixels) {
  setWidgetResizable(true);
  setFrameShape(QFrame::NoFrame);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setFocusPolicy(Qt::NoFocus);
  setWidget(content);
  connect(&Style::instance(), &Style::changed, this, &SideScroll::fit);
  fit();
}

void SideScroll::fit() {
  constexpr double most = 1.2;
  const int usual = Style::instance().px(pixels_);
  const int asked = widget()->minimumSizeHint().width() + verticalScrollBar()->sizeHint().width();
  setFixedWidth(std::clamp(asked, usual, static_cast<int>(most * usual)));
}

bool SideScroll::eventFilter(QObject* watched, QEvent* event) {
  const bool done = QScrollArea::eventFilter(watched, event);
  if (watched == widget() && event->type() == QEvent::LayoutRequest) fit();
  return done;
}

}  // namespace rigging::app
