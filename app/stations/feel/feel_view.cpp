#include "stations/feel/feel_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "base/units.h"
#include "look/literals.h"
#include "look/look.h"

namespace rigging::app {
namespace {

constexpr double left_room = 92, right_room = 16, top_room = 30, bottom_room = 40;

QString spoken_speed(double m_s) { return QString::fromStdString(speed_text(m_s)); }

}  // namespace

FeelView::FeelView(QWidget* parent) : QWidget(parent) {
  setObjectName(u"feel_view"_s);
  setFocusPolicy(Qt::StrongFocus);
  setToolTip(
      u"Drag the mark, or move it with the up and down keys. Calm: nineteen of twenty aircraft like yours keep "
      "6 dB and 45° there."_s);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

void FeelView::show_axis(const QString& axis, Shown shown) {
  axis_ = axis;
  why_.clear();
  shown_ = std::move(shown);
  dragged_.reset();
  setAccessibleName(u"Firmness of %1 against speed"_s.arg(axis));
  if (!shown_.curve.empty()) {
    const MarginPoint fast = margin_at(shown_.curve, shown_.fast_m_s);
    setAccessibleDescription(u"At %1 it stays calm up to %2."_s.arg(
        spoken_speed(shown_.fast_m_s), shown_.scale.words(std::min(1.0, shown_.scale.height(fast.calm_s)))));
  }
  update();
}

void FeelView::show_nothing(const QString& why) {
  shown_ = {};
  why_ = why;
  setAccessibleDescription(why);
  update();
}

QRectF FeelView::field() const { return QRectF(rect()).adjusted(left_room, top_room, -right_room, -bottom_room); }
double FeelView::x_of(double m_s) const {
  const double from = shown_.curve.front().m_s, to = shown_.curve.back().m_s;
  return field().left() + field().width() * (m_s - from) / (to - from);
}
double FeelView::y_of(double height) const {
  return field().bottom() - field().height() * std::clamp(height, 0.0, 1.0);
}
double FeelView::height_at(double y) const { return std::clamp((field().bottom() - y) / field().height(), 0.0, 1.0); }

QPolygonF FeelView::edge(double MarginPoint::*of) const {
  QPolygonF line;
  for (const MarginPoint& p : shown_.curve) {
    // Where nothing shakes the whole height is calm.
    const double gain = p.*of;
    line << QPointF(x_of(p.m_s), gain > 0 ? y_of(shown_.scale.height(gain / shown_.follows(p.m_s))) : field().top());
  }
  return line;
}

void FeelView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& i = inks();
  p.setFont(Style::instance().text(9));
  if (shown_.curve.empty()) {
    p.setPen(i.soft);
    p.drawText(rect().adjusted(30, 0, -30, 0), Qt::AlignCenter | Qt::TextWordWrap, why_);
    return;
  }
  const QRectF f = field();
  p.fillRect(f, i.sheet);
  const QPolygonF calm = edge(&MarginPoint::calm_s), least = edge(&MarginPoint::shakes_least_s),
                  expected = edge(&MarginPoint::shakes_s), most = edge(&MarginPoint::shakes_most_s);
  const auto under = [&](const QPolygonF& top, const QPolygonF& bottom) {
    QPolygonF area = top;
    for (auto it = bottom.rbegin(); it != bottom.rend(); ++it) area << *it;
    return area;
  };
  const QPolygonF floor{QPointF(f.left(), f.bottom()), QPointF(f.right(), f.bottom())};
  const QPolygonF ceiling{QPointF(f.left(), f.top()), QPointF(f.right(), f.top())};
  const auto fill = [&](const QPolygonF& area, QColor ink, int alpha, Qt::BrushStyle style) {
    ink.setAlpha(alpha);
    p.setPen(Qt::NoPen);
    p.setBrush(QBrush(ink, style));
    p.drawPolygon(area);
  };
  p.save();
  p.setClipRect(f);
  fill(under(calm, floor), i.moss, 44, Qt::SolidPattern);
  fill(under(least, calm), i.ochre, 26, Qt::SolidPattern);
  fill(under(most, least), i.rust, 26, Qt::SolidPattern);
  fill(under(most, least), i.rust, 90, Qt::BDiagPattern);
  fill(under(ceiling, most), i.rust, 52, Qt::SolidPattern);
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(i.moss, 2));
  p.drawPolyline(calm);
  p.setPen(QPen(i.rust, 2));
  p.drawPolyline(expected);
  p.restore();

  // Speeds.
  p.setPen(QPen(i.line, 1));
  p.drawRect(f);
  p.setFont(Style::instance().figures(9));
  const double from = shown_.curve.front().m_s, to = shown_.curve.back().m_s;
  for (double v = std::ceil(from / 5) * 5; v <= to; v += 5) {
    p.setPen(QPen(i.line, 1));
    p.drawLine(QPointF(x_of(v), f.bottom()), QPointF(x_of(v), f.bottom() + 4));
    p.setPen(i.soft);
    p.drawText(QRectF(x_of(v) - 40, f.bottom() + 5, 80, 14), Qt::AlignCenter, spoken_speed(v));
  }
  p.setFont(Style::instance().text(9));
  p.drawText(QRectF(f.left(), f.bottom() + 20, f.width(), 16), Qt::AlignRight, u"airspeed, up to the dive"_s);
  const auto mark_speed = [&](double v, const QString& name) {
    if (v < from || v > to) return;
    p.setPen(QPen(i.soft, 1, Qt::DashLine));
    p.drawLine(QPointF(x_of(v), f.top()), QPointF(x_of(v), f.bottom()));
    p.setPen(i.soft);
    p.drawText(QRectF(x_of(v) - 90, 8, 180, 16), Qt::AlignCenter, name);
  };
  mark_speed(shown_.cruise_m_s, u"cruise"_s);
  mark_speed(shown_.fast_m_s, u"fastest level flight"_s);

  // Firmness.
  for (const auto& [height, words] : shown_.scale.marks) {
    if (height < 0 || height > 1) continue;
    p.setPen(QPen(i.line, 1));
    p.drawLine(QPointF(f.left() - 4, y_of(height)), QPointF(f.left(), y_of(height)));
    p.setPen(i.soft);
    p.drawText(QRectF(0, y_of(height) - 8, left_room - 8, 16), Qt::AlignRight | Qt::AlignVCenter, words);
  }

  // Names, each in its own field where there is room for it.
  const auto name = [&](const QPolygonF& top, const QPolygonF& bottom, const QString& words, const QColor& ink,
                        double along) {
    const auto at = static_cast<qsizetype>(along * static_cast<double>(top.size() - 1));
    const double y0 = std::max(top[at].y(), f.top()), y1 = std::min(bottom[at].y(), f.bottom());
    if (y1 - y0 < 16) return;
    QRectF box = p.fontMetrics().boundingRect(words);
    box = QRectF(top[at].x() - box.width() / 2 - 5, (y0 + y1) / 2 - 9, box.width() + 10, 18);
    // On a patch of its own: lines and hatching run through.
    QColor patch = i.sheet;
    patch.setAlpha(215);
    p.fillRect(box, patch);
    p.setPen(ink);
    p.drawText(box, Qt::AlignCenter, words);
  };
  p.setFont(Style::instance().text(10, true));
  QPolygonF low, high;
  for (const QPointF& q : calm) low << QPointF(q.x(), f.bottom()), high << QPointF(q.x(), f.top());
  name(calm, low, u"calm"_s, i.moss, 0.16);
  const MarginPoint fast = margin_at(shown_.curve, shown_.fast_m_s);
  if (fast.hz > 0)
    name(high, most, u"shakes, %1 times a second"_s.arg(QString::fromStdString(number_text(fast.hz, 0))), i.rust, 0.78);
  p.setFont(Style::instance().text(9));
  name(least, calm, u"little room left"_s, i.ochre, 0.24);
  name(most, least, u"shakes about here"_s, i.rust, 0.3);

  // Advice and setting.
  if (shown_.first) {
    const double y = y_of(*shown_.first);
    p.setPen(QPen(i.slate, 1.5, Qt::DotLine));
    p.drawLine(QPointF(f.left(), y), QPointF(f.right(), y));
    p.setPen(i.slate);
    p.drawText(QRectF(f.right() - 170, y - 17, 166, 16), Qt::AlignRight, u"for the first flight"_s);
  }
  if (const auto height = setting()) {
    const double y = y_of(*height);
    p.setPen(QPen(i.teal, 2));
    p.drawLine(QPointF(f.left(), y), QPointF(f.right(), y));
    const QPointF at(x_of(std::clamp(shown_.fast_m_s, from, to)), y);
    p.setBrush(i.teal);
    p.setPen(QPen(i.sheet, 1.5));
    p.drawEllipse(at, 8, 8);
    if (hasFocus()) {
      p.setBrush(Qt::NoBrush);
      p.setPen(QPen(i.teal, 1.5));
      p.drawEllipse(at, 12, 12);
    }
    const QString words = (dragged_ ? u"would be %1"_s : u"set: %1"_s).arg(shown_.scale.words(*height));
    p.setFont(Style::instance().text(10, true));
    QRectF box = p.fontMetrics().boundingRect(words);
    box = QRectF(at.x() + 14, y < f.top() + 24 ? y + 4 : y - 22, box.width() + 12, 18);
    if (box.right() > f.right() - 4) box.moveRight(at.x() - 14);
    p.setBrush(i.sheet);
    p.setPen(QPen(i.teal, 1));
    p.drawRect(box);
    p.setPen(i.teal);
    p.drawText(box, Qt::AlignCenter, words);
  } else if (hasFocus()) {
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(i.teal, 1.5));
    p.drawRect(f.adjusted(-2, -2, 2, 2));
  }
}

void FeelView::drag_to(double height) {
  const double steps = std::round(height / shown_.scale.step);
  dragged_ = std::clamp(steps * shown_.scale.step, 0.0, 1.0);
  update();
  Q_EMIT dragged(*dragged_);
}

void FeelView::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton || shown_.curve.empty() || !shown_.scale.settable) return;
  pressed_ = true;
  drag_to(height_at(event->position().y()));
}

void FeelView::mouseMoveEvent(QMouseEvent* event) {
  if (pressed_) drag_to(height_at(event->position().y()));
}

void FeelView::mouseReleaseEvent(QMouseEvent*) {
  if (!std::exchange(pressed_, false) || !dragged_) return;
  const double height = *std::exchange(dragged_, std::nullopt);
  Q_EMIT let_go(height);
}

void FeelView::keyPressEvent(QKeyEvent* event) {
  const bool up = event->key() == Qt::Key_Up, down = event->key() == Qt::Key_Down;
  if ((!up && !down) || shown_.curve.empty() || !shown_.scale.settable) return QWidget::keyPressEvent(event);
  const double now = shown_.setting.value_or(shown_.first.value_or(0));
  Q_EMIT let_go(std::clamp(now + (up ? 1 : -1) * shown_.scale.step, 0.0, 1.0));
}

}  // namespace rigging::app
