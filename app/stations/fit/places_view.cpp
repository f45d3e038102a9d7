#include "stations/fit/places_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

#include "fit/edits.h"
#include "look/look.h"
#include "rig/ranges.h"

namespace rigging::app {
namespace {

constexpr double default_size_m = 0.02;

}  // namespace

PlacesView::PlacesView(RigDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
  setObjectName(QStringLiteral("places_view"));
  setAccessibleName(tr("Parts in the aircraft, from the side and from above"));
  setToolTip(tr(
      "Drag a part. Arrow keys move the chosen one by 5 mm, with Shift by 1 mm; Page up and down lift and lower it."));
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
}

std::vector<std::string> PlacesView::things() const {
  std::vector<std::string> ids{"controller"};
  for (const Part& p : document_.rig().parts) ids.push_back(p.id);
  return ids;
}

void PlacesView::refresh() {
  cloud_ = {};
  dragged_.reset();
  update();
}

void PlacesView::select(const std::string& part) {
  selected_ = part;
  update();
}

void PlacesView::set_closer(bool on) {
  closer_ = on;
  refresh();
}

void PlacesView::fit() {
  const Rig& rig = document_.rig();
  if (closer_) {
    // The bay with some air round it, or the front of the fuselage.
    Bay bay;
    bay.at_m = 0;
    bay.length_m = 0.6 * rig.airframe.length_m;
    if (rig.fit.bay) bay = *rig.fit.bay;
    const double span = bay.length_m * 1.12;
    const double tall = std::max(0.05, bay.height_m) * 1.7, wide = std::max(0.06, bay.width_m) * 1.9;
    scale_ = std::min((width() - 30) / span, (height() - 92) / (tall + wide));
    const double left = width() / 2.0 - (bay.at_m + bay.length_m / 2) * scale_;
    const double share = (height() - 92) * tall / (tall + wide);
    origin_side_ = {left, 26 + share / 2};
    split_ = 26 + share + 26;
    origin_above_ = {left, (split_ + height()) / 2.0 + 6};
    return;
  }
  double front = -0.06, back = 0.1, side = 0.1, up = -0.05, down = 0.05;
  for (const Panel& panel : document_.review().airframe.panels)
    for (const Point& c : panel.corners) {
      front = std::min(front, -c.x());
      back = std::max(back, -c.x());
      side = std::max(side, std::abs(c.y()));
      up = std::min(up, c.z());
      down = std::max(down, c.z());
    }
  for (const Place& p : rig.places) {
    front = std::min(front, -p.x_m - 0.03);
    back = std::max(back, -p.x_m + 0.03);
  }
  const double w = width() - 30, h = height() - 92;
  scale_ = std::min(w / (back - front), h / (2 * side + (down - up)));
  const double used = (back - front) * scale_;
  const double left = (width() - used) / 2 - front * scale_;
  const double side_h = (down - up) * scale_;
  const double slack = std::max(0.0, h - side_h - 2 * side * scale_);
  origin_side_ = {left, 26 + slack * 0.2 - up * scale_};
  split_ = 26 + slack * 0.2 + side_h + 26;
  origin_above_ = {left, split_ + 14 + slack * 0.4 + side * scale_};
}

QPointF PlacesView::on_screen(View view, Point p) const {
  const QPointF o = view == View::side ? origin_side_ : origin_above_;
  return {o.x() - p.x() * scale_, o.y() + (view == View::side ? p.z() : p.y()) * scale_};
}

Point PlacesView::in_model(View view, QPointF at, Point keep) const {
  const QPointF o = view == View::side ? origin_side_ : origin_above_;
  keep.x() = -(at.x() - o.x()) / scale_;
  (view == View::side ? keep.z() : keep.y()) = (at.y() - o.y()) / scale_;
  return keep;
}

Point PlacesView::place_of(const std::string& part) const {
  if (dragged_ && part == selected_) return *dragged_;
  const Place* p = document_.rig().place(part);
  return p ? point_of(*p) : Point::Zero();
}

QSizeF PlacesView::size_of(View view, const std::string& part) const {
  double length = default_size_m, width = default_size_m, height = default_size_m;
  if (part == "controller") {
    if (const ControllerClass* c = document_.controller()) {
      length = c->length_mm / 1000;
      width = c->width_mm / 1000;
      height = c->height_mm / 1000;
    }
  } else if (const PartKind* k = kind_of(document_.rig(), document_.catalogue(), part)) {
    length = k->length_mm.value_or(1000 * default_size_m) / 1000;
    width = k->width_mm.value_or(1000 * default_size_m) / 1000;
    height = k->height_mm.value_or(1000 * default_size_m) / 1000;
  }
  if (const Place* p = document_.rig().place(part); p && p->turn.arrow.axis % 3 == 1) std::swap(length, width);
  return {length, view == View::side ? height : width};
}

QRectF PlacesView::box_of(View view, const std::string& part) const {
  const QSizeF s = size_of(view, part) * scale_;
  const QPointF c = on_screen(view, place_of(part));
  // Never smaller than what a finger can find.
  const double w = std::max(7.0, s.width()), h = std::max(6.0, s.height());
  return {c.x() - w / 2, c.y() - h / 2, w, h};
}

QPointF PlacesView::above_of(const std::string& part) const { return box_of(View::above, part).center(); }

void PlacesView::draw_cloud(QPainter& p) {
  const FitReport& fit = document_.review().fit;
  if (fit.compasses.empty() || fit.currents.empty()) return;
  constexpr int step = 5;
  const int w = width() / step, h = static_cast<int>((height() - split_) / step);
  if (w <= 0 || h <= 0) return;
  if (cloud_.isNull()) {
    cloud_ = QImage(w, h, QImage::Format_ARGB32_Premultiplied);
    cloud_.fill(Qt::transparent);
    const CompassReport& compass = fit.compasses.front();
    QColor ink = inks().rust;
    for (int y = 0; y < h; ++y)
      for (int x = 0; x < w; ++x) {
        const Point at = in_model(View::above, {(x + 0.5) * step, split_ + (y + 0.5) * step}, compass.at);
        const double error = error_at(fit, at, compass.horizontal.value);
        if (error < 0.5) continue;
        // Half strength at the two degrees that count.
        ink.setAlphaF(static_cast<float>(std::min(0.34, 0.10 * std::log2(1 + error))));
        cloud_.setPixelColor(x, y, ink);
      }
  }
  p.save();
  p.setRenderHint(QPainter::SmoothPixmapTransform);
  p.drawImage(QRectF(0, split_, w * step, h * step), cloud_);
  p.restore();
}

void PlacesView::draw_parts(QPainter& p, View view) {
  const FitReport& fit = document_.review().fit;
  QList<QRectF> taken;
  for (const std::string& part : things()) {
    if (!document_.rig().place(part)) continue;
    const QRectF box = box_of(view, part);
    const bool chosen = part == selected_;
    const bool clashing = std::any_of(fit.clashes.begin(), fit.clashes.end(),
                                      [&](const Clash& s) { return s.part == part || s.other == part; });
    p.setPen(QPen(chosen ? inks().teal : clashing ? inks().rust : inks().ink, chosen ? 2.2 : 1.1));
    p.setBrush(chosen ? inks().wash : inks().sheet);
    p.drawRect(box);
    if (part == "controller") {
      // Its arrow.
      const Turn turn = fit.board.turn;
      const double along = turn.arrow.axis % 3 == 0 ? -turn.arrow.sign : 0,
                   across = turn.arrow.axis % 3 == (view == View::above ? 1 : 2) ? turn.arrow.sign : 0;
      if (along != 0 || across != 0) {
        const QPointF tip = box.center() + QPointF(along * box.width() * 0.38, across * box.height() * 0.38),
                      tail = box.center() - QPointF(along * box.width() * 0.38, across * box.height() * 0.38);
        p.drawLine(tail, tip);
        const QPointF back(-along * 4, -across * 4), out(-across * 3, along * 3);
        p.setBrush(inks().ink);
        p.drawPolygon(QPolygonF{tip, tip + back + out, tip + back - out});
      }
    }
    for (const CompassReport& c : fit.compasses)
      if (c.part == part) {
        p.setPen(QPen(inks().teal, 1.4));
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(box.center(), 5, 5);
        p.drawLine(box.center() + QPointF(2, 0), box.center() + QPointF(-4, 0));
      }
    // A name where there is room: beside the part, below or above.
    const QString name = QString::fromStdString(part_name(document_.rig(), document_.catalogue(), part));
    p.setFont(Look::instance().text(8, chosen));
    const QRectF text = QFontMetricsF(p.font()).boundingRect(name);
    for (const QPointF at : {QPointF(box.center().x() - text.width() / 2, box.top() - 3),
                             QPointF(box.center().x() - text.width() / 2, box.bottom() + text.height() - 2),
                             QPointF(box.right() + 4, box.center().y() + 4),
                             QPointF(box.left() - text.width() - 4, box.center().y() + 4)}) {
      const QRectF want(at.x(), at.y() - text.height() + 3, text.width(), text.height() - 2);
      if (std::any_of(taken.begin(), taken.end(), [&](const QRectF& t) { return t.intersects(want); }) && !chosen)
        continue;
      if (want.left() < 0 || want.right() > width()) continue;
      taken << want;
      p.setPen(chosen ? inks().teal : inks().ink);
      p.drawText(at, name);
      break;
    }
    taken << box;
  }
}

void PlacesView::draw_balance(QPainter& p) {
  const Balance& b = document_.review().fit.balance;
  if (document_.rig().parts.empty()) return;
  const double base = split_ - 20;
  const auto x = [&](double behind) { return on_screen(View::side, {-behind, 0, 0}).x(); };
  const QRectF band(x(b.band_front_m), base - 9, x(b.band_back_m) - x(b.band_front_m), 9);
  p.setPen(QPen(inks().moss, 1.2));
  p.setBrush(QBrush(inks().moss, Qt::BDiagPattern));
  p.drawRect(band);
  p.setPen(QPen(inks().moss, 2));
  p.drawLine(QPointF(x(b.first_flight.value), base - 13), QPointF(x(b.first_flight.value), base));
  if (b.total.value <= 0 || !b.complete) return;
  const double at = x(b.balance_point.value);
  const bool good = b.balance_point.value >= b.band_front_m && b.balance_point.value <= b.band_back_m;
  const QColor ink = good ? inks().ink : inks().rust;
  p.setPen(ink);
  p.setBrush(ink);
  p.drawPolygon(QPolygonF{QPointF(at, base + 1), QPointF(at - 6, base + 11), QPointF(at + 6, base + 11)});
  p.setPen(QPen(ink, 1, Qt::DashLine));
  p.drawLine(QPointF(at, 24), QPointF(at, base));
  // The same from above: a quartered disc at the balance point.
  const QPointF c = on_screen(View::above, {-b.balance_point.value, b.lateral.value, 0});
  p.setPen(QPen(ink, 1.4));
  p.setBrush(inks().sheet);
  p.drawEllipse(c, 6, 6);
  p.setBrush(ink);
  p.drawPie(QRectF(c.x() - 6, c.y() - 6, 12, 12), 0, 90 * 16);
  p.drawPie(QRectF(c.x() - 6, c.y() - 6, 12, 12), 180 * 16, 90 * 16);
}

void PlacesView::paintEvent(QPaintEvent*) {
  fit();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  draw_cloud(p);
  for (const View view : {View::side, View::above}) {
    p.setClipRect(view == View::side ? QRectF(0, 0, width(), split_ - 2)
                                     : QRectF(0, split_, width(), height() - split_));
    for (const Panel& panel : document_.review().airframe.panels) {
      if (panel.part == Panel::Part::propeller && view == View::above) continue;
      QPolygonF outline;
      for (const Point& c : panel.corners) outline << on_screen(view, c);
      p.setPen(QPen(inks().line, 1));
      QColor fill = inks().sheet;
      fill.setAlphaF(0.35f);
      p.setBrush(fill);
      p.drawPolygon(outline);
    }
    p.setClipping(false);
  }
  for (const auto* bay : {&document_.rig().fit.bay, &document_.rig().fit.second_bay}) {
    if (!*bay) continue;
    const Bay& room = **bay;
    p.setPen(QPen(inks().soft, 1, Qt::DotLine));
    p.setBrush(Qt::NoBrush);
    const double back = -room.at_m - room.length_m, half = room.width_m / 2, tall = room.height_m / 2;
    p.drawRect(QRectF(on_screen(View::above, {-room.at_m, room.right_m - half, 0}),
                      on_screen(View::above, {back, room.right_m + half, 0})));
    p.drawRect(QRectF(on_screen(View::side, {-room.at_m, 0, room.below_m - tall}),
                      on_screen(View::side, {back, 0, room.below_m + tall})));
  }
  p.save();
  p.setClipRect(QRectF(0, split_, width(), height() - split_));
  for (const CurrentPath& c : document_.review().fit.currents) {
    p.setPen(QPen(inks().soft, std::clamp(0.6 + std::sqrt(c.amps) * 0.4, 0.8, 4.0)));
    p.drawLine(on_screen(View::above, c.a), on_screen(View::above, c.b));
  }
  p.restore();
  for (const View view : {View::side, View::above}) {
    p.save();
    p.setClipRect(view == View::side ? QRectF(0, 0, width(), split_ - 2)
                                     : QRectF(0, split_, width(), height() - split_));
    draw_parts(p, view);
    p.restore();
  }
  draw_balance(p);
  p.setPen(inks().soft);
  p.setFont(Look::instance().text(8.5));
  p.drawText(QPointF(10, 16), tr("From the left · hatched: allowed balance · bar: first flight"));
  p.drawText(QPointF(10, split_ + 12),
             document_.review().fit.compasses.empty()
                 ? tr("From above · lines: leads that carry current")
                 : tr("From above · lines: leads that carry current · cloud: where a compass would be turned"));
  if (hasFocus()) {
    p.setPen(QPen(inks().teal, 2));
    p.setBrush(Qt::NoBrush);
    p.drawRect(rect().adjusted(1, 1, -1, -1));
  }
}

void PlacesView::mousePressEvent(QMouseEvent* e) {
  const View view = e->position().y() < split_ ? View::side : View::above;
  // The smallest one under the pointer: what lies on top of something else is what one means.
  std::string found;
  double least = 1e18;
  for (const std::string& part : things()) {
    if (!document_.rig().place(part)) continue;
    const QRectF box = box_of(view, part).adjusted(-3, -3, 3, 3);
    if (box.contains(e->position()) && box.width() * box.height() < least) {
      least = box.width() * box.height();
      found = part;
    }
  }
  if (found.empty()) return;
  selected_ = found;
  drag_view_ = view;
  grip_ = e->position() - on_screen(view, place_of(found));
  dragged_ = place_of(found);
  Q_EMIT picked(found);
  update();
}

void PlacesView::mouseMoveEvent(QMouseEvent* e) {
  if (!dragged_ || !(e->buttons() & Qt::LeftButton)) {
    const View view = e->position().y() < split_ ? View::side : View::above;
    const auto all = things();
    setCursor(std::any_of(all.begin(), all.end(),
                          [&](const std::string& part) {
                            return document_.rig().place(part) && box_of(view, part).contains(e->position());
                          })
                  ? Qt::OpenHandCursor
                  : Qt::ArrowCursor);
    return;
  }
  Point to = in_model(drag_view_, e->position() - grip_, *dragged_);
  to = (to * 1000).array().round() / 1000;
  dragged_ = to;
  update();
}

void PlacesView::mouseReleaseEvent(QMouseEvent*) {
  if (!dragged_) return;
  const Point to = *dragged_, from = [&] {
    const Place* p = document_.rig().place(selected_);
    return p ? point_of(*p) : Point::Zero();
  }();
  dragged_.reset();
  if ((to - from).norm() < 0.0005) return;
  move_to(selected_, to);
}

void PlacesView::move_to(const std::string& part, Point to) {
  const Place* known = document_.rig().place(part);
  if (!known) return;
  Place p = *known;
  p.x_m = std::clamp(to.x(), range::place_m.least, range::place_m.most);
  p.y_m = std::clamp(to.y(), range::place_m.least, range::place_m.most);
  p.z_m = std::clamp(to.z(), range::place_m.least, range::place_m.most);
  document_.apply(put_part(document_.rig(), document_.catalogue(), p));
}

void PlacesView::keyPressEvent(QKeyEvent* e) {
  const double step = e->modifiers() & Qt::ShiftModifier ? 0.001 : 0.005;
  Point by = Point::Zero();
  switch (e->key()) {
    case Qt::Key_Left: by.x() = step; break;
    case Qt::Key_Right: by.x() = -step; break;
    case Qt::Key_Up: by.y() = -step; break;
    case Qt::Key_Down: by.y() = step; break;
    case Qt::Key_PageUp: by.z() = -step; break;
    case Qt::Key_PageDown: by.z() = step; break;
    default: return QWidget::keyPressEvent(e);
  }
  if (selected_.empty() || !document_.rig().place(selected_)) return;
  Point to = place_of(selected_) + by;
  to = (to * 10000).array().round() / 10000;
  move_to(selected_, to);
}

}  // namespace rigging::app
