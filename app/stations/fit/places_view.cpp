#include "stations/fit/places_view.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <cmath>

#include "fit/edits.h"
#include "look/literals.h"
#include "look/look.h"
#include "look/plain_text.h"
#include "look/units.h"
#include "rig/ranges.h"

namespace rigging::app {
namespace {

constexpr double default_size_m = 0.02;

}  // namespace

PlacesView::PlacesView(RigDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
  setObjectName(u"places_view"_s);
  setAccessibleName(u"Parts in the aircraft, from the left and from above, nose up"_s);
  setAccessibleDescription(
      u"Drag a part; with Alt it lines up with nothing. Arrow keys move the chosen one by 5 mm, with Shift by 1 mm; "
      "Page up and down lift and lower it."_s);
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
}

std::vector<std::string> PlacesView::things() const {
  std::vector<std::string> ids{"controller"};
  for (const Part& p : document_.rig().parts) ids.push_back(p.id);
  return ids;
}

std::string PlacesView::part_label(const std::string& part) const {
  return part_name(document_.rig(), document_.catalogue(), part);
}

const FitReport& PlacesView::report() const { return live_ ? *live_ : document_.review().reports.fit(); }

void PlacesView::refresh() {
  cloud_ = {};
  dragged_.reset();
  live_.reset();
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

/// Both views share the height: what stands level in them is as far behind the nose.
void PlacesView::fit() {
  const Rig& rig = document_.rig();
  double front = -0.06, back = 0.1, side = 0.1, up = -0.05, down = 0.05;
  if (closer_) {
    // The bay with some air round it, or the front of the fuselage.
    Bay bay;
    bay.at_m = 0;
    bay.length_m = 0.6 * rig.airframe.length_m;
    if (rig.fit.bay) bay = *rig.fit.bay;
    front = bay.at_m - 0.06 * bay.length_m;
    back = bay.at_m + 1.06 * bay.length_m;
    side = std::max(0.03, bay.width_m * 0.95);
    down = std::max(0.025, bay.height_m * 0.85);
    up = -down;
  } else {
    for (const Panel& panel : document_.review().reports.airframe().panels)
      for (const Point& c : panel.corners) {
        front = std::min(front, -c.x());
        back = std::max(back, -c.x());
        side = std::max(side, std::abs(c.y()));
        up = std::min(up, c.z());
        down = std::max(down, c.z());
      }
    for (const Mounting& p : rig.mountings) {
      front = std::min(front, -p.x_m - 0.03);
      back = std::max(back, -p.x_m + 0.03);
    }
  }
  // Beside a bay there must be room for names, round a whole aircraft there is.
  const double names = closer_ ? 2.0 * names_px * Style::instance().text_scale() : 0;
  const double w = width() - 3 * margin_px - gutter_px - names,
               h = height() - head_px - foot_px * Style::instance().text_scale();
  scale_ = std::max(1.0, std::min(w / (2 * side + (down - up)), h / (back - front)));
  const double tall = (down - up) * scale_, top = head_px + (h - (back - front) * scale_) / 2 - front * scale_;
  const double used = tall + gutter_px + 2 * side * scale_ + names,
               slack = std::max(0.0, width() - 2 * margin_px - used);
  origin_side_ = {margin_px + slack * 0.3 + down * scale_, top};
  split_ = margin_px + slack * 0.3 + tall + gutter_px;
  origin_above_ = {split_ + names / 2 + side * scale_ + slack * 0.3, top};
}

QPointF PlacesView::on_screen(View view, Point p) const {
  const QPointF o = view == View::side ? origin_side_ : origin_above_;
  return {o.x() + (view == View::side ? -p.z() : p.y()) * scale_, o.y() - p.x() * scale_};
}

Point PlacesView::in_model(View view, QPointF at, Point keep) const {
  const QPointF o = view == View::side ? origin_side_ : origin_above_;
  keep.x() = -(at.y() - o.y()) / scale_;
  if (view == View::side)
    keep.z() = -(at.x() - o.x()) / scale_;
  else
    keep.y() = (at.x() - o.x()) / scale_;
  return keep;
}

Point PlacesView::path_of(const std::string& part) const {
  if (dragged_ && part == selected_) return *dragged_;
  const Mounting* p = document_.rig().mounting(part);
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
  if (const Mounting* p = document_.rig().mounting(part); p && p->turn.arrow.axis % 3 == 1) std::swap(length, width);
  return {view == View::side ? height : width, length};
}

QRectF PlacesView::box_of(View view, const std::string& part) const {
  const QSizeF s = size_of(view, part) * scale_;
  const QPointF c = on_screen(view, path_of(part));
  // Never smaller than what a finger can find.
  const double w = std::max(7.0, s.width()), h = std::max(6.0, s.height());
  return {c.x() - w / 2, c.y() - h / 2, w, h};
}

QPointF PlacesView::above_of(const std::string& part) const { return box_of(View::above, part).center(); }

std::string PlacesView::part_at(View view, QPointF at) const {
  // The smallest one under the pointer: what lies on top of something else is what one means.
  std::string found;
  double least = 1e18;
  for (const std::string& part : things()) {
    if (!document_.rig().mounting(part)) continue;
    const QRectF box = box_of(view, part).adjusted(-3, -3, 3, 3);
    if (box.contains(at) && box.width() * box.height() < least) {
      least = box.width() * box.height();
      found = part;
    }
  }
  return found;
}

QStringList PlacesView::what_it_does() const {
  if (!dragged_ || !from_ || !live_ || (*dragged_ - *from_).norm() < 0.0005) return {};
  const Units& units = Units::instance();
  const auto length = [&](double m) {
    return u"%1 %2"_s.arg(units.length_out(m), 0, 'f', units.metric() ? 0 : 2).arg(units.length_unit());
  };
  const Point& at = *dragged_;
  QStringList lines{u"moved %1: %2 behind the nose"_s.arg(length((at - *from_).norm()), length(-at.x()))};
  if (drag_view_ == View::above)
    lines << (std::abs(at.y()) < 5e-4 ? u"in the middle"_s
                                      : (at.y() > 0 ? u"%1 right of the middle"_s : u"%1 left of the middle"_s)
                                            .arg(length(std::abs(at.y()))));
  else
    lines << (std::abs(at.z()) < 5e-4
                  ? u"level with the middle"_s
                  : (at.z() > 0 ? u"%1 below the middle"_s : u"%1 above the middle"_s).arg(length(std::abs(at.z()))));
  const Balance &now = live_->balance, &was = document_.review().reports.fit().balance;
  if (now.complete && now.total.value > 0) {
    lines << u"balances at %1, was %2: %3"_s.arg(length(now.balance_point.value), length(was.balance_point.value),
                                                 QString::fromLatin1(name_of(now.side()).data()));
  } else if (const auto mass = document_.rig().airframe.mass_kg) {
    // The frame is not weighed yet: where it balances is not known, but how far this moves it is.
    const auto item =
        std::find_if(now.items.begin(), now.items.end(), [&](const MassItem& i) { return i.part == selected_; });
    const double aft = item == now.items.end() ? 0 : item->mass_kg * (from_->x() - at.x()) / *mass;
    if (std::abs(aft) >= 5e-4)
      lines << (aft > 0 ? u"balance goes back by %1"_s : u"balance goes forward by %1"_s).arg(length(std::abs(aft)));
  }
  for (const CompassReport& c : live_->compasses)
    lines << (c.verdict == CompassVerdict::points_nowhere
                  ? u"compass: points nowhere here"_s
                  : u"compass turned up to %1° of %2° allowed"_s.arg(c.error.value, 0, 'f', 1)
                        .arg(wanted_compass_error_deg));
  for (const Clash& c : live_->clashes)
    if (c.part == selected_ || c.other == selected_)
      lines << (c.other.empty() ? QString::fromStdString(c.words)
                                : u"overlaps %1"_s.arg(
                                      QString::fromStdString(part_label(c.other == selected_ ? c.part : c.other))));
  return lines;
}

bool PlacesView::event(QEvent* e) {
  if (e->type() == QEvent::ToolTip) {
    const auto* help = static_cast<QHelpEvent*>(e);
    const std::string part = part_at(help->pos().x() < split_ - gutter_px ? View::side : View::above, help->pos());
    const QString words = part.empty() ? accessibleDescription() : QString::fromStdString(capital(part_label(part)));
    show_hint(help->globalPos(), words, this);
    return true;
  }
  return QWidget::event(e);
}

void PlacesView::mousePressEvent(QMouseEvent* e) {
  const View view = e->position().x() < split_ - gutter_px ? View::side : View::above;
  const std::string found = part_at(view, e->position());
  if (found.empty()) return;
  selected_ = found;
  drag_view_ = view;
  grip_ = e->position() - on_screen(view, path_of(found));
  from_ = dragged_ = path_of(found);
  guide_x_.reset();
  guide_y_.reset();
  Q_EMIT picked(found);
  update();
}

/// To the middle line, or level with another part, where either is near; else to whole millimetres.
Point PlacesView::snapped(Point to) {
  constexpr double near_px = 5;
  guide_x_.reset();
  guide_y_.reset();
  double least_x = near_px / scale_, least_y = least_x;
  const auto try_x = [&](double x) {
    if (std::abs(to.x() - x) < least_x) least_x = std::abs(to.x() - x), guide_x_ = x;
  };
  const auto try_y = [&](double y) {
    if (std::abs(to.y() - y) < least_y) least_y = std::abs(to.y() - y), guide_y_ = y;
  };
  try_y(0);
  for (const Mounting& p : document_.rig().mountings) {
    if (p.part == selected_) continue;
    try_x(p.x_m);
    try_y(p.y_m);
    try_y(-p.y_m);
  }
  to = (to * 1000).array().round() / 1000;
  if (guide_x_) to.x() = *guide_x_;
  if (drag_view_ == View::above && guide_y_) to.y() = *guide_y_;
  return to;
}

void PlacesView::mouseMoveEvent(QMouseEvent* e) {
  if (!dragged_ || !(e->buttons() & Qt::LeftButton)) {
    const View view = e->position().x() < split_ - gutter_px ? View::side : View::above;
    setCursor(part_at(view, e->position()).empty() ? Qt::ArrowCursor : Qt::OpenHandCursor);
    return;
  }
  Point to = in_model(drag_view_, e->position() - grip_, *dragged_);
  if (e->modifiers() & Qt::AltModifier) {
    guide_x_.reset();
    guide_y_.reset();
    to = (to * 1000).array().round() / 1000;
  } else {
    to = snapped(to);
  }
  dragged_ = to;
  Rig moved = document_.rig();
  for (Mounting& p : moved.mountings)
    if (p.part == selected_) p.x_m = to.x(), p.y_m = to.y(), p.z_m = to.z();
  live_ = analyze_fit(moved, document_.catalogue(), document_.review().reports.airframe(),
                      document_.review().reports.power());
  update();
}

void PlacesView::mouseReleaseEvent(QMouseEvent*) {
  if (!dragged_) return;
  const Point to = *dragged_, from = from_.value_or(to);
  dragged_.reset();
  live_.reset();
  update();
  if ((to - from).norm() < 0.0005) return;
  move_to(selected_, to);
}

void PlacesView::move_to(const std::string& part, Point to) {
  const Mounting* known = document_.rig().mounting(part);
  if (!known) return;
  Mounting p = *known;
  p.x_m = std::clamp(to.x(), range::place_m.least, range::place_m.most);
  p.y_m = std::clamp(to.y(), range::place_m.least, range::place_m.most);
  p.z_m = std::clamp(to.z(), range::place_m.least, range::place_m.most);
  document_.apply(put_part(document_.rig(), document_.catalogue(), p));
}

void PlacesView::keyPressEvent(QKeyEvent* e) {
  const double step = e->modifiers() & Qt::ShiftModifier ? 0.001 : 0.005;
  Point by = Point::Zero();
  switch (e->key()) {
    case Qt::Key_Up: by.x() = step; break;
    case Qt::Key_Down: by.x() = -step; break;
    case Qt::Key_Left: by.y() = -step; break;
    case Qt::Key_Right: by.y() = step; break;
    case Qt::Key_PageUp: by.z() = -step; break;
    case Qt::Key_PageDown: by.z() = step; break;
    default: return QWidget::keyPressEvent(e);
  }
  if (selected_.empty() || !document_.rig().mounting(selected_)) return;
  Point to = path_of(selected_) + by;
  to = (to * 10000).array().round() / 10000;
  move_to(selected_, to);
}

}  // namespace rigging::app
