#include "stations/surfaces/share_bar.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "look/literals.h"
#include "look/look.h"

namespace rigging::app {
namespace {

constexpr double step = 0.05, bar_end = 1.2;  ///< shares
constexpr double rim = 5;                     ///< half of the grip, px

}  // namespace

ShareBar::ShareBar(const QString& id, double value) : value_(value), before_(value) {
  setObjectName(id);
  setCursor(Qt::SizeHorCursor);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  setToolTip(
      u"Pull: the model shows full command meanwhile. The other half of a pair goes along where it gives as "
      "much; Escape leaves it as it was."_s);
}

void ShareBar::set_value(double share) {
  value_ = share;
  update();
}

QSize ShareBar::sizeHint() const { return {Style::instance().px(128), Style::instance().px(14)}; }

double ShareBar::x_of(double share) const { return rim + (share + bar_end) / (2 * bar_end) * (width() - 2 * rim); }

void ShareBar::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const double y = height() / 2.0, at = x_of(std::clamp(value_, -bar_end, bar_end)), zero = x_of(0);
  p.setPen(QPen(inks().line, 2));
  p.drawLine(QPointF(rim, y), QPointF(width() - rim, y));
  p.setPen(QPen(inks().soft, 1));
  for (const double share : {-1.0, 0.0, 1.0})
    p.drawLine(QPointF(x_of(share), y - (share == 0 ? 5 : 3)), QPointF(x_of(share), y + (share == 0 ? 5 : 3)));
  p.setPen(QPen(inks().teal, held_ ? 5 : 3));
  p.drawLine(QPointF(zero, y), QPointF(at, y));
  p.setPen(QPen(inks().ink, 1));
  p.setBrush(held_ ? inks().teal : inks().sheet);
  p.drawRect(QRectF(at - 3, y - 5, 6, 10));
}

void ShareBar::pull_to(double x) {
  const double share = (x - rim) / (width() - 2 * rim) * 2 * bar_end - bar_end;
  const double stepped = std::clamp(std::round(share / step) * step, -bar_end, bar_end);
  if (stepped == value_) return;
  set_value(stepped);
  Q_EMIT pulled(stepped);
}

void ShareBar::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton || !isEnabled()) return;
  held_ = true;
  before_ = value_;
  setFocus(Qt::MouseFocusReason);  // so that Escape is heard
  update();
  Q_EMIT pulled(value_);
  // Beside the grip it comes to the hand; on the grip nothing jumps.
  if (std::abs(event->position().x() - x_of(value_)) > rim) pull_to(event->position().x());
}

void ShareBar::mouseMoveEvent(QMouseEvent* event) {
  if (held_) pull_to(event->position().x());
}

void ShareBar::mouseReleaseEvent(QMouseEvent*) {
  if (!held_) return;
  held_ = false;
  update();
  if (value_ == before_)
    Q_EMIT given_up();
  else
    Q_EMIT let_go(value_);
}

void ShareBar::keyPressEvent(QKeyEvent* event) {
  if (!held_ || event->key() != Qt::Key_Escape) return QWidget::keyPressEvent(event);
  held_ = false;
  set_value(before_);
  Q_EMIT given_up();
}

}  // namespace rigging::app
