#include "shell/station_strip.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

#include "look/literals.h"
#include "look/look.h"
#include "look/plain_text.h"
#include "review/stations.h"

namespace rigging::app {

StationStrip::StationStrip(QWidget* parent) : QWidget(parent), states_(station_count()) {
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  setObjectName(u"station_strip"_s);
  setAccessibleName(u"Stations"_s);
  setAccessibleDescription(u"Left and right arrow keys walk the stations, Enter goes there"_s);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

void StationStrip::set_states(const std::vector<StationState>& states) {
  states_ = states;
  update();
}

void StationStrip::set_current(Station station) {
  current_ = static_cast<int>(station);
  update();
}

QRectF StationStrip::bay(int index) const {
  const double left = 26, right = width() - 40;
  const double step = (right - left) / count();
  return {left + index * step, 4, step, height() - 8.0};
}

/// The hull: blunt nose, full middle, fine tail.
double StationStrip::half_height(double share) const {
  const double full = height() / 2.0 - 6;
  if (share < 0.12) return full * std::sqrt(std::max(0.0, 1 - std::pow((0.12 - share) / 0.155, 2)));
  if (share < 0.55) return full;
  return full * (1 - 0.42 * std::pow((share - 0.55) / 0.45, 1.5));
}

int StationStrip::at(QPointF pos) const {
  for (int i = 0; i < count(); ++i)
    if (bay(i).contains(pos)) return i;
  return -1;
}

void StationStrip::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& i = inks();
  const double left = bay(0).left() - 20, right = bay(count() - 1).right() + 18, middle = height() / 2.0;
  const auto x_at = [&](double share) { return left + share * (right - left); };

  QPainterPath hull;
  for (int k = 0; k <= 100; ++k) {
    const QPointF point(x_at(k / 100.0), middle - half_height(k / 100.0));
    k == 0 ? hull.moveTo(point) : hull.lineTo(point);
  }
  // Fin at the tail.
  hull.lineTo(right + 16, middle - height() / 2.0 + 6);
  hull.lineTo(right + 14, middle);
  for (int k = 100; k >= 0; --k) hull.lineTo(x_at(k / 100.0), middle + half_height(k / 100.0) * (0.9));
  hull.closeSubpath();
  p.setPen(QPen(i.ink, 1.3));
  p.setBrush(i.sheet);
  p.drawPath(hull);

  p.save();
  p.setClipPath(hull);
  p.fillRect(bay(current_).adjusted(0, -10, 0, 10), i.wash);
  if (hovered_ >= 0 && hovered_ != current_) {
    QColor hover = i.wash;
    hover.setAlpha(120);
    p.fillRect(bay(hovered_).adjusted(0, -10, 0, 10), hover);
  }
  p.fillRect(
      QRectF(bay(current_).left(), middle + half_height((bay(current_).center().x() - left) / (right - left)) * 0.9 - 4,
             bay(current_).width(), 10),
      i.teal);
  p.setPen(QPen(i.line, 1));
  for (int k = 1; k < count(); ++k) p.drawLine(QPointF(bay(k).left(), 0), QPointF(bay(k).left(), height()));
  p.restore();

  for (int k = 0; k < count(); ++k) {
    const QRectF box = bay(k);
    const bool here = k == current_;
    Style::instance().draw_station_mark(p, QRectF(box.center().x() - 7, middle - 19, 14, 14),
                                        states_[static_cast<std::size_t>(k)]);
    p.setPen(here ? i.teal : i.ink);
    p.setFont(Style::instance().text(width() > 1100 ? 10 : 8.5, here));
    p.drawText(QRectF(box.left(), middle - 2, box.width(), 20), Qt::AlignCenter,
               QString::fromLatin1(name_of(static_cast<Station>(k)).data()));
    if (here && hasFocus()) {
      p.setPen(QPen(i.teal, 2));
      p.setBrush(Qt::NoBrush);
      p.drawRect(box.adjusted(4, 8, -4, -8));
    }
  }
}

void StationStrip::mousePressEvent(QMouseEvent* event) {
  if (const int k = at(event->position()); k >= 0) Q_EMIT chosen(static_cast<Station>(k));
}

void StationStrip::mouseMoveEvent(QMouseEvent* event) {
  const int k = at(event->position());
  if (k == hovered_) return;
  hovered_ = k;
  setCursor(k >= 0 ? Qt::PointingHandCursor : Qt::ArrowCursor);
  update();
}

void StationStrip::leaveEvent(QEvent*) {
  hovered_ = -1;
  update();
}

void StationStrip::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right) {
    const int k = current_ + (event->key() == Qt::Key_Right ? 1 : -1);
    if (k >= 0 && k < count()) Q_EMIT chosen(static_cast<Station>(k));
    setFocus();
    return;
  }
  QWidget::keyPressEvent(event);
}

bool StationStrip::event(QEvent* event) {
  if (event->type() == QEvent::ToolTip) {
    auto* help = static_cast<QHelpEvent*>(event);
    const int k = at(help->pos());
    static const char* names[] = {"nothing known yet", "has snags", "planned", "proven", "gone stale"};
    if (k >= 0)
      show_hint(help->globalPos(),
                u"%1\n%2"_s.arg(QString::fromUtf8(entry_of(static_cast<Station>(k)).question),
                                QString::fromLatin1(names[static_cast<int>(states_[static_cast<std::size_t>(k)])])),
                this);
    return true;
  }
  return QWidget::event(event);
}

}  // namespace rigging::app
