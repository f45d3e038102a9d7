#include "stations/home/reach_chart.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "base/units.h"
#include "look/literals.h"
#include "look/look.h"
#include "look/pieces.h"

namespace rigging::app {
namespace {

constexpr double margin = 26;
constexpr double grip_px = 13;
constexpr double px_per_m_s = 7;  ///< length of the wind's arrow
constexpr double most_wind_m_s = 25;

QPointF toward(double bearing_deg, double px) {
  return {px * std::sin(bearing_deg * rad), -px * std::cos(bearing_deg * rad)};
}

double bearing_of(QPointF v) {
  const double deg = std::atan2(v.x(), -v.y()) / rad;
  return deg < 0 ? deg + 360 : deg;
}

/// A round distance not below this one.
double round_up(double m) {
  const double power = std::pow(10, std::floor(std::log10(std::max(m, 10.0))));
  for (const double f : {1.0, 1.5, 2.0, 3.0, 4.0, 5.0, 7.5, 10.0})
    if (f * power >= m) return f * power;
  return 10 * power;
}

}  // namespace

ReachChart::ReachChart(QWidget* parent) : QWidget(parent) {
  setObjectName(u"reach_chart"_s);
  setAccessibleName(u"The field from above, with what comes home"_s);
  setToolTip(
      u"Drag the aircraft, or move it with the arrow keys: up and down further and nearer, left and right round "
      "home. Drag the wind's arrow."_s);
  setFocusPolicy(Qt::StrongFocus);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

void ReachChart::show_field(Shown shown) {
  shown_ = std::move(shown);
  why_.clear();
  double most = std::max(shown_.area_m * 1.3, 100.0);
  for (const HomeReach& r : shown_.reach)
    most = std::max(most, std::min(r.reach_m * 1.15, 2.5 * std::max(shown_.area_m, 500.0)));
  rim_m_ = round_up(most);
  distance_m_ = std::min(distance_m_, rim_m_);
  update();
}

void ReachChart::show_nothing(const QString& why) {
  shown_ = {};
  why_ = why;
  setAccessibleDescription(why);
  update();
}

void ReachChart::set_place(double distance_m, double bearing_deg) {
  distance_m_ = std::clamp(distance_m, 0.0, rim_m_), bearing_deg_ = std::fmod(std::fmod(bearing_deg, 360) + 360, 360);
  update();
}

void ReachChart::set_progress(double distance_m, double heading_deg, bool arrives) {
  gone_m_ = distance_m, heading_deg_ = heading_deg, arrives_ = arrives;
  update();
}

QPointF ReachChart::middle() const { return QRectF(rect()).center(); }
double ReachChart::radius() const { return std::min(width(), height()) / 2.0 - margin; }
double ReachChart::scale() const { return radius() / rim_m_; }
QPointF ReachChart::at(double distance_m, double bearing_deg) const {
  return middle() + toward(bearing_deg, distance_m * scale());
}
QPointF ReachChart::wind_grip() const {
  // The arrow's tail stands at the rim, where the wind comes from; its length is the speed.
  return middle() + toward(shown_.wind.from_deg, radius() - px_per_m_s * shown_.wind.speed_m_s);
}

void ReachChart::draw_wind(QPainter& p) const {
  const Inks& i = inks();
  const QPointF tail = middle() + toward(shown_.wind.from_deg, radius()), tip = wind_grip();
  const QPointF along = toward(shown_.wind.from_deg, 1), side(-along.y(), along.x());
  p.setPen(QPen(i.slate, 3));
  p.drawLine(tail, tip);
  p.setBrush(i.slate);
  p.setPen(Qt::NoPen);
  p.drawPolygon(QPolygonF{tip - along * 9, tip + along * 5 + side * 7, tip + along * 5 - side * 7});
  p.setPen(QPen(i.slate, 1.5));
  p.setBrush(i.sheet);
  p.drawEllipse(tail, 5, 5);
  p.setFont(Style::instance().text(9, true));
  const QString words = u"wind %1"_s.arg(said_of(speed_text(shown_.wind.speed_m_s)));
  QRectF box(0, 0, p.fontMetrics().horizontalAdvance(words) + 10, 18);
  const QPointF mid = (tail + tip) / 2 + side * (box.width() / 2 + 10) * (side.x() >= 0 ? 1 : -1);
  box.moveCenter(mid);
  box.moveLeft(std::clamp(box.left(), 2.0, width() - box.width() - 2));
  p.fillRect(box, i.sheet);
  p.setPen(i.slate);
  p.drawText(box, Qt::AlignCenter, words);
}

void ReachChart::draw_aircraft(QPainter& p, QPointF at, double heading_deg, double size, const QColor& ink) const {
  double most = 0.1, front = -1e9, back = 1e9;
  for (const Panel& panel : shown_.panels)
    for (const Point& c : panel.corners)
      most = std::max({most, std::abs(c.y())}), front = std::max(front, c.x()), back = std::min(back, c.x());
  if (shown_.panels.empty()) front = back = 0;
  most = std::max(most, (front - back) / 2);
  p.save();
  p.translate(at);
  p.rotate(heading_deg);
  p.setPen(Qt::NoPen);
  p.setBrush(ink);
  for (const Panel& panel : shown_.panels) {
    QPolygonF outline;
    for (const Point& c : panel.corners) outline << QPointF(c.y(), -(c.x() - (front + back) / 2)) * (size / most);
    p.drawPolygon(outline);
  }
  if (shown_.panels.empty()) p.drawEllipse(QPointF(0, 0), 6, 6);
  p.restore();
}

void ReachChart::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& i = inks();
  p.setFont(Style::instance().text(9));
  if (shown_.reach.empty()) {
    p.setPen(i.soft);
    p.drawText(rect().adjusted(30, 0, -30, 0), Qt::AlignCenter | Qt::TextWordWrap, why_);
    return;
  }
  const QPointF home = middle();
  const auto shape = [&](const std::vector<HomeReach>& reach, double HomeReach::*which) {
    QPolygonF outline;
    for (const HomeReach& r : reach) outline << at(std::min(r.*which, rim_m_ * 3), r.bearing_deg);
    return outline;
  };
  p.setBrush(i.sheet);
  p.setPen(Qt::NoPen);
  p.drawEllipse(home, radius(), radius());
  QPainterPath rim;
  rim.addEllipse(home, radius(), radius());
  p.save();
  p.setClipPath(rim);
  const auto fill = [&](const QPolygonF& area, QColor ink, int alpha, Qt::BrushStyle style) {
    ink.setAlpha(alpha);
    p.setPen(Qt::NoPen);
    p.setBrush(QBrush(ink, style));
    p.drawPolygon(area);
  };
  QColor none = i.rust;
  none.setAlpha(30);
  p.fillRect(rect(), none);
  const QPolygonF sure = shape(shown_.worse, &HomeReach::reach_m), perhaps = shape(shown_.better, &HomeReach::reach_m);
  // Sure inside, unsure as a rim.
  p.setBrush(i.sheet);
  p.drawPolygon(perhaps);
  fill(perhaps, i.ochre, 40, Qt::SolidPattern);
  fill(perhaps, i.ochre, 90, Qt::BDiagPattern);
  p.setBrush(i.sheet);
  p.setPen(Qt::NoPen);
  p.drawPolygon(sure);
  fill(sure, i.moss, 52, Qt::SolidPattern);
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(i.moss, 2));
  p.drawPolygon(shape(shown_.reach, &HomeReach::reach_m));
  p.restore();

  // Rings and the compass. A name on a ring keeps clear of the aircraft.
  const auto on_ring = [&](const QString& words, double ring_m, double bearing_deg, double other_deg) {
    const QRectF aircraft(at(gone_m_, bearing_deg_) - QPointF(22, 22), QSizeF(44, 44));
    QRectF box(0, 0, p.fontMetrics().horizontalAdvance(words) + 6, 14);
    box.moveCenter(at(ring_m, bearing_deg));
    if (box.intersects(aircraft)) box.moveCenter(at(ring_m, other_deg));
    return box;
  };
  p.setBrush(Qt::NoBrush);
  p.setFont(Style::instance().figures(8.5));
  for (int k = 1; k <= 4; ++k) {
    const double m = rim_m_ * k / 4;
    p.setPen(QPen(i.line, 1, k == 4 ? Qt::SolidLine : Qt::DotLine));
    p.drawEllipse(home, m * scale(), m * scale());
    const QString words = said_of(field_text(m));
    const QRectF box = on_ring(words, m, shown_.wind.from_deg + 140, shown_.wind.from_deg + 220);
    p.fillRect(box, i.paper);
    p.setPen(i.soft);
    p.drawText(box, Qt::AlignCenter, words);
  }
  p.setFont(Style::instance().text(9, true));
  for (const auto& [deg, name] : {std::pair{0.0, u"N"_s}, {90.0, u"E"_s}, {180.0, u"S"_s}, {270.0, u"W"_s}}) {
    QRectF box(0, 0, 20, 18);
    box.moveCenter(home + toward(deg, radius() + 13));
    p.setPen(i.soft);
    p.drawText(box, Qt::AlignCenter, name);
  }
  if (declination_deg_) {
    // Magnetic north: a half arrow inside the rim.
    const QPointF tip = home + toward(*declination_deg_, radius() - 2),
                  foot = home + toward(*declination_deg_, radius() - 26);
    p.setPen(QPen(i.slate, 1.5));
    p.drawLine(foot, tip);
    p.drawLine(tip, home + toward(*declination_deg_ + 2.5, radius() - 12));
    p.setFont(Style::instance().text(8));
    QRectF box(0, 0, 60, 14);
    box.moveCenter(home + toward(*declination_deg_ + 11, radius() - 24));
    p.drawText(box, Qt::AlignCenter, u"mag. %1°"_s.arg(*declination_deg_, 0, 'f', 0));
  }
  if (shown_.area_m > 0) {
    p.setPen(QPen(i.teal, 1.5, Qt::DashLine));
    p.setBrush(Qt::NoBrush);
    p.drawEllipse(home, shown_.area_m * scale(), shown_.area_m * scale());
    p.setFont(Style::instance().text(8.5));
    const QString words = u"flies as far as this"_s;
    const QRectF box = on_ring(words, shown_.area_m, shown_.wind.from_deg - 40, shown_.wind.from_deg + 40);
    p.fillRect(box, i.sheet);
    p.setPen(i.teal);
    p.drawText(box, Qt::AlignCenter, words);
  }
  // What stands high: a peg with its height.
  p.setFont(Style::instance().text(8.5));
  for (const FieldObstacle& o : shown_.obstacles) {
    if (o.distance_m > rim_m_) continue;
    const QPointF foot = at(o.distance_m, o.bearing_deg);
    p.setPen(QPen(i.ink, 1.5));
    p.setBrush(i.ink);
    p.drawPolygon(QPolygonF{foot + QPointF(-5, 4), foot + QPointF(5, 4), foot + QPointF(0, -8)});
    // On the side that looks away from home.
    const QString words = said_of(o.name + ", " + field_text(o.height_m));
    const double wide = p.fontMetrics().horizontalAdvance(words);
    p.drawText(foot + QPointF(foot.x() < home.x() ? -8 - wide : 8, 5), words);
  }
  // Home with its circle.
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(i.ink, 1.2));
  p.drawEllipse(home, shown_.circle_m * scale(), shown_.circle_m * scale());
  p.setPen(QPen(i.ink, 2));
  p.drawLine(home + QPointF(-5, 0), home + QPointF(5, 0));
  p.drawLine(home + QPointF(0, -5), home + QPointF(0, 5));
  draw_wind(p);

  p.setFont(Style::instance().text(9));
  p.setPen(i.soft);
  p.drawText(QRectF(0, 0, std::max(120.0, width() / 2.0 - radius() * 0.72), 80),
             Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
             u"From the green it comes home with the reserve kept; from the hatched rim perhaps."_s);

  if (track_.size() > 1) {
    QPolygonF line;
    for (const HomePlace& q : track_) line << at(std::min(q.distance_m, rim_m_ * 3), q.bearing_deg);
    p.save();
    p.setClipPath(rim);
    p.setPen(QPen(i.ochre, 2));
    p.drawPolyline(line);
    p.restore();
  }
  // The way home, and how far the story has gone on it.
  const QPointF lost = at(distance_m_, bearing_deg_), gone = at(gone_m_, bearing_deg_);
  p.setPen(QPen(arrives_ ? i.teal : i.rust, 1.5, arrives_ ? Qt::SolidLine : Qt::DashLine));
  p.drawLine(lost, home);
  p.setBrush(i.sheet);
  p.setPen(QPen(i.teal, 1.5));
  p.drawEllipse(lost, 4, 4);
  draw_aircraft(p, gone, heading_deg_, 17, arrives_ ? i.ink : i.rust);
  if (hasFocus()) {
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(i.teal, 1.5));
    p.drawEllipse(lost, 24, 24);
  }
}

void ReachChart::set_track(std::vector<HomePlace> track) {
  track_ = std::move(track);
  update();
}

void ReachChart::set_declination(std::optional<double> deg) {
  if (deg == declination_deg_) return;
  declination_deg_ = deg;
  update();
}

void ReachChart::drag_place(QPointF pos) {
  const QPointF v = pos - middle();
  set_place(std::round(std::hypot(v.x(), v.y()) / scale() / 5) * 5, std::round(bearing_of(v)));
  Q_EMIT place_moved(distance_m_, bearing_deg_);
}

void ReachChart::drag_wind(QPointF pos, bool let_go) {
  const QPointF v = pos - middle();
  const double far = std::hypot(v.x(), v.y());
  // Toward the middle is more wind.
  const double speed = std::clamp(std::round((radius() - far) / px_per_m_s * 2) / 2, 0.0, most_wind_m_s);
  shown_.wind = {speed, std::round(far > 8 ? bearing_of(v) : shown_.wind.from_deg)};
  update();
  Q_EMIT wind_moved(shown_.wind.speed_m_s, shown_.wind.from_deg, let_go);
}

void ReachChart::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton || shown_.reach.empty()) return;
  const QPointF pos = event->position(), tail = middle() + toward(shown_.wind.from_deg, radius());
  const auto near = [&](QPointF q) { return std::hypot((pos - q).x(), (pos - q).y()) < grip_px; };
  drag_ = near(wind_grip()) || near(tail) ? Drag::wind : Drag::place;
  if (drag_ == Drag::place) drag_place(pos);
}

void ReachChart::mouseMoveEvent(QMouseEvent* event) {
  if (drag_ == Drag::place) drag_place(event->position());
  if (drag_ == Drag::wind) drag_wind(event->position(), false);
}

void ReachChart::mouseReleaseEvent(QMouseEvent* event) {
  if (drag_ == Drag::wind) drag_wind(event->position(), true);
  drag_ = Drag::nothing;
}

void ReachChart::keyPressEvent(QKeyEvent* event) {
  if (shown_.reach.empty()) return QWidget::keyPressEvent(event);
  const double step = rim_m_ / 40;
  switch (event->key()) {
    case Qt::Key_Up: set_place(distance_m_ + step, bearing_deg_); break;
    case Qt::Key_Down: set_place(distance_m_ - step, bearing_deg_); break;
    case Qt::Key_Left: set_place(distance_m_, bearing_deg_ - 5); break;
    case Qt::Key_Right: set_place(distance_m_, bearing_deg_ + 5); break;
    default: return QWidget::keyPressEvent(event);
  }
  Q_EMIT place_moved(distance_m_, bearing_deg_);
}

}  // namespace rigging::app
