#include "drawing/aircraft_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>
#include <numbers>

#include "base/angle.h"
#include "look/literals.h"
#include "look/look.h"

namespace rigging::app {
namespace {

QColor blended(QColor a, QColor b, double share) {
  const auto part = [&](int x, int y) { return static_cast<int>(x + (y - x) * share); };
  return {part(a.red(), b.red()), part(a.green(), b.green()), part(a.blue(), b.blue())};
}
}  // namespace

AircraftView::AircraftView(From from, QWidget* parent) : QWidget(parent), from_(from) {
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
  setMouseTracking(true);
  setAccessibleName(u"Aircraft drawing"_s);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

void AircraftView::set_panels(std::vector<Panel> panels) {
  panels_ = std::move(panels);
  update();
}

void AircraftView::set_deflections(const std::map<Surface, double>& deflections) {
  if (deflections == deflections_) return;
  deflections_ = deflections;
  update();
}

void AircraftView::set_arrows(const std::map<Surface, int>& arrows) {
  arrows_ = arrows;
  update();
}

void AircraftView::set_pose(double roll_deg, double pitch_deg, double yaw_deg) {
  if (roll_ == roll_deg && pitch_ == pitch_deg && yaw_ == yaw_deg) return;
  roll_ = roll_deg;
  pitch_ = pitch_deg;
  yaw_ = yaw_deg;
  update();
}

void AircraftView::set_selected(std::set<Surface> surfaces) {
  selected_ = std::move(surfaces);
  update();
}

void AircraftView::set_pickable(bool pickable) { pickable_ = pickable; }

void AircraftView::set_caption(const QString& caption) {
  caption_ = caption;
  update();
}

void AircraftView::set_reach(double roll_deg, double pitch_deg, double yaw_deg) {
  reach_ = {roll_deg, pitch_deg, yaw_deg};
  update();
}

Point AircraftView::posed(Point p, const std::array<double, 3>& pose_deg) {
  // ZYX order of ISO 1151 about a point near the balance point.
  const Point middle{-0.45, 0, 0};
  p = rigging::turned(p, middle, {1, 0, 0}, pose_deg[0] * rad);
  p = rigging::turned(p, middle, {0, 1, 0}, pose_deg[1] * rad);
  return rigging::turned(p, middle, {0, 0, 1}, pose_deg[2] * rad);
}

Point AircraftView::seen(Point p) const {
  switch (from_) {
    case From::side: return {-p.x(), p.z(), p.y()};    // nose to the left, seen from the left side
    case From::above: return {p.y(), -p.x(), p.z()};   // nose up, as one stands behind it
    case From::front: return {-p.y(), p.z(), -p.x()};  // looking at the nose
    case From::behind_above: {
      // The eye stands behind, above and a little to the left.
      const double down = 33 * rad, aside = 17 * rad;
      const double x = p.x() * std::cos(aside) - p.y() * std::sin(aside),
                   y = p.x() * std::sin(aside) + p.y() * std::cos(aside);
      return {y, p.z() * std::cos(down) - x * std::sin(down), x * std::cos(down) + p.z() * std::sin(down)};
    }
  }
  return p;
}

std::vector<AircraftView::Drawn> AircraftView::drawn() const {
  std::vector<Drawn> all;
  for (const Panel& panel : panels_) {
    double angle = 0;
    if (panel.surface)
      if (const auto it = deflections_.find(*panel.surface); it != deflections_.end())
        angle = it->second * exaggeration_;
    Drawn d{&panel, {}, 0};
    for (const Point& corner : deflected(panel, angle)) {
      const Point s = seen(posed(corner));
      d.outline << QPointF(origin_.x() + s.x() * scale_, origin_.y() + s.y() * scale_);
      d.depth += s.z() / static_cast<double>(panel.corners.size());
    }
    all.push_back(std::move(d));
  }
  // Far pieces first. Seen from above, a wing hides the belly and is hidden by the back, however long it is.
  const bool above = from_ == From::above || from_ == From::behind_above;
  // Turned on its back it shows its belly; standing on end, only depth tells.
  const double lean = seen(posed({-0.45, 0, -1})).z() - seen(posed({-0.45, 0, 0})).z();
  const double upright = seen({-0.45, 0, -1}).z() - seen({-0.45, 0, 0}).z();
  const bool layered = above && std::abs(lean) > 0.3, belly = lean * upright < 0;
  const auto layer = [&](const Panel& p) {
    double z = 0;
    for (const Point& corner : p.corners) z += belly ? -corner.z() : corner.z();
    return !layered ? 0 : p.part == Panel::Part::wing ? 1 : p.part == Panel::Part::body && z > 0 ? 0 : 2;
  };
  std::stable_sort(all.begin(), all.end(), [&](const Drawn& a, const Drawn& b) {
    const int la = layer(*a.panel), lb = layer(*b.panel);
    return la != lb ? la < lb : a.depth > b.depth;
  });
  return all;
}

void AircraftView::fit() {
  double left = 1e9, right = -1e9, top = 1e9, bottom = -1e9;
  for (const Panel& panel : panels_)
    for (const Point& corner : panel.corners)
      for (const Point& s : {seen(corner), seen(posed(corner, reach_))}) {
        left = std::min(left, s.x());
        right = std::max(right, s.x());
        top = std::min(top, s.y());
        bottom = std::max(bottom, s.y());
      }
  // A handle must stay under the hand.
  if (left > right || held_handle_) return;
  if (any_pose_) {
    const Point middle{-0.45, 0, 0};
    double radius = 0.05;
    for (const Panel& panel : panels_)
      for (const Point& corner : panel.corners) radius = std::max(radius, (corner - middle).norm());
    scale_ = (std::min(width(), height()) - 24) / (2 * radius);
    const Point s = seen(middle);
    origin_ = QPointF(width() / 2.0 - s.x() * scale_, height() / 2.0 - s.y() * scale_);
    return;
  }
  const double w = width() - 36, h = height() - 34 - (caption_.isEmpty() ? 0 : 14);
  const double room = dragging_turns_ ? 1.08 : 1.0;
  scale_ = std::min(w / (right - left), h / std::max(0.05, bottom - top)) / room;
  origin_ = QPointF(width() / 2.0 - (left + right) / 2 * scale_,
                    height() / 2.0 + (caption_.isEmpty() ? 0 : 8) - (top + bottom) / 2 * scale_);
}

QPointF AircraftView::on_screen(Point p) const {
  const Point s = seen(posed(p));
  return {origin_.x() + s.x() * scale_, origin_.y() + s.y() * scale_};
}

void AircraftView::draw_arrow(QPainter& p, Surface surface, int direction) const {
  for (const Panel& panel : panels_) {
    if (!panel.surface || *panel.surface != surface) continue;
    double angle = 0;
    if (const auto it = deflections_.find(surface); it != deflections_.end()) angle = it->second * exaggeration_;
    const auto corners = deflected(panel, angle);
    p.setBrush(inks().teal);
    if (surface.kind == SurfaceKind::motor) {
      const QPointF hub = on_screen(panel.hinge_a);
      p.setPen(inks().teal);
      p.setFont(Style::instance().text(9, true));
      p.drawText(QRectF(hub.x() - 40, hub.y() - 30, 80, 16), Qt::AlignCenter,
                 QString::fromStdString(std::string(motion_word(surface, direction))));
      continue;
    }
    if (corners.size() < 4) continue;
    const Point edge = mix(corners[2], corners[3], 0.5);
    if (direction == 0) {
      p.setPen(Qt::NoPen);
      p.drawEllipse(on_screen(edge), 3.5, 3.5);
      continue;
    }
    // The way the trailing edge moves now: where a very small further turn would take it.
    const Point ahead = rigging::turned(edge, panel.hinge_a, panel.hinge_b - panel.hinge_a, direction * rad);
    QPointF start = on_screen(edge), along = on_screen(ahead) - start;
    const double size = std::hypot(along.x(), along.y()), whole = (ahead - edge).norm() * scale_;
    if (size < 0.3 * whole) {
      // Seen along the movement: a cross for away, a dot for toward the eye.
      p.setPen(QPen(inks().teal, 2));
      p.setBrush(Qt::NoBrush);
      p.drawEllipse(start, 5, 5);
      if (seen(posed(ahead)).z() > seen(posed(edge)).z()) {
        p.drawLine(start + QPointF(-3, -3), start + QPointF(3, 3));
        p.drawLine(start + QPointF(-3, 3), start + QPointF(3, -3));
      } else {
        p.setBrush(inks().teal);
        p.drawEllipse(start, 1.5, 1.5);
      }
      continue;
    }
    along *= 26 / size;
    const QPointF tip = start + along, side(-along.y() / 26, along.x() / 26), back = along / 26;
    p.setPen(QPen(inks().teal, 2.4, Qt::SolidLine, Qt::FlatCap));
    p.drawLine(start, tip - back * 6);
    p.setPen(Qt::NoPen);
    p.drawPolygon(QPolygonF({tip, tip - back * 9 + side * 5, tip - back * 9 - side * 5}));
  }
}

void AircraftView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  fit();
  const Inks& i = inks();
  for (const Drawn& d : drawn()) {
    const Panel& panel = *d.panel;
    QColor fill = i.sheet;
    double width = 0.9;
    QColor pen = i.ink;
    switch (panel.part) {
      case Panel::Part::body:
      case Panel::Part::boom:
        fill = i.wash;
        pen = i.soft;
        width = 0.7;
        break;
      case Panel::Part::propeller:
        fill = QColor(i.line.red(), i.line.green(), i.line.blue(), 70);
        pen = i.soft;
        width = 0.7;
        break;
      default: break;
    }
    if (panel.surface && panel.surface->kind != SurfaceKind::motor) {
      fill = i.wash;
      pen = i.teal;
      width = 1.3;
      const auto it = deflections_.find(*panel.surface);
      if (it != deflections_.end() && std::abs(it->second) > 0.5) fill = blended(i.sheet, i.teal, 0.35);
      if (hovered_ == panel.surface || selected_.count(*panel.surface)) {
        fill = blended(i.sheet, i.teal, 0.6);
        width = 2;
      }
    }
    p.setPen(QPen(pen, width, Qt::SolidLine, Qt::SquareCap, Qt::RoundJoin));
    p.setBrush(fill);
    p.drawPolygon(d.outline);
  }
  for (const auto& [surface, direction] : arrows_) draw_arrow(p, surface, direction);
  if (ghost_deg_) {
    p.setPen(QPen(i.teal, 1.2, Qt::DashLine));
    p.setBrush(Qt::NoBrush);
    for (const Panel& panel : panels_) {
      if (panel.part == Panel::Part::propeller) continue;
      QPolygonF outline;
      for (const Point& corner : panel.corners) {
        const Point s = seen(posed(corner, *ghost_deg_));
        outline << QPointF(origin_.x() + s.x() * scale_, origin_.y() + s.y() * scale_);
      }
      p.drawPolygon(outline);
    }
  }
  draw_handles(p);
  if (hasFocus()) {
    p.setPen(QPen(i.teal, 2));
    p.setBrush(Qt::NoBrush);
    p.drawRect(rect().adjusted(1, 1, -1, -1));
  }
  if (!caption_.isEmpty()) {
    p.setFont(Style::instance().text(8.5));
    p.setPen(i.soft);
    p.drawText(QRectF(8, 4, this->width() - 16, 18), Qt::AlignLeft | Qt::AlignVCenter,
               QFontMetrics(p.font()).elidedText(caption_, Qt::ElideRight, this->width() - 16));
  }
  if (pickable_ && hovered_) {
    p.setFont(Style::instance().text(9, true));
    p.setPen(i.teal);
    p.drawText(QRectF(8, height() - 22, this->width() - 16, 18), Qt::AlignRight | Qt::AlignVCenter,
               QString::fromStdString(capital(hovered_->label())));
  }
}

void AircraftView::set_ghost(const std::optional<std::array<double, 3>>& pose_deg) {
  if (pose_deg == ghost_deg_) return;
  ghost_deg_ = pose_deg;
  update();
}

void AircraftView::set_handles(std::vector<Handle> handles) {
  handles_ = std::move(handles);
  if (!handles_.empty()) setMouseTracking(true);
  update();
}

void AircraftView::set_held_words(const QString& words) {
  held_words_ = words;
  update();
}

std::optional<int> AircraftView::handle_near(QPointF at) const {
  constexpr double reach_px = 8;
  std::optional<int> best;
  double least = reach_px;
  for (std::size_t i = 0; i < handles_.size(); ++i) {
    const QPointF off = on_screen(handles_[i].at) - at;
    if (std::hypot(off.x(), off.y()) > least) continue;
    least = std::hypot(off.x(), off.y());
    best = static_cast<int>(i);
  }
  return best;
}

void AircraftView::draw_handles(QPainter& p) const {
  for (std::size_t i = 0; i < handles_.size(); ++i) {
    const bool chosen = static_cast<int>(i) == held_handle_.value_or(over_handle_.value_or(-1));
    const QPointF at = on_screen(handles_[i].at);
    p.setPen(QPen(inks().teal, 1.4));
    p.setBrush(chosen ? inks().teal : inks().sheet);
    p.drawEllipse(at, chosen ? 5 : 3.6, chosen ? 5 : 3.6);
    if (!chosen) continue;
    const QString words = held_handle_ ? held_words_ : handles_[i].words;
    p.setFont(Style::instance().text(9.5, true));
    const QSizeF size(QFontMetricsF(p.font()).horizontalAdvance(words) + 12, QFontMetricsF(p.font()).height() + 4);
    const QPointF corner(std::clamp(at.x() + 12, 2.0, std::max(2.0, width() - size.width() - 2)),
                         at.y() < height() / 2.0 ? at.y() + 10 : at.y() - 10 - size.height());
    p.setPen(QPen(inks().teal, 1.2));
    p.setBrush(inks().sheet);
    p.drawRect(QRectF(corner, size));
    p.setPen(inks().ink);
    p.drawText(QRectF(corner, size), Qt::AlignCenter, words);
  }
}

void AircraftView::mousePressEvent(QMouseEvent* event) {
  drag_start_ = event->pos();
  held_handle_ = handle_near(event->position());
  if (held_handle_) {
    held_words_ = handles_[static_cast<std::size_t>(*held_handle_)].words;
    return update();
  }
  if (pickable_ && hovered_) Q_EMIT picked(*hovered_);
}

void AircraftView::mouseMoveEvent(QMouseEvent* event) {
  if (dragging_turns_ && event->buttons() & Qt::LeftButton) {
    const QPoint moved = event->pos() - drag_start_;
    Q_EMIT turned(std::clamp(moved.x() * 0.6, -80.0, 80.0), std::clamp(moved.y() * -0.6, -80.0, 80.0));
    return;
  }
  if (held_handle_) {
    const QPointF moved = event->pos() - drag_start_;
    Q_EMIT handle_dragged(*held_handle_, -moved.y() / scale_, moved.x() / scale_);
    return;
  }
  if (const auto near = handle_near(event->position()); near != over_handle_) {
    over_handle_ = near;
    setCursor(near ? Qt::SizeAllCursor : Qt::ArrowCursor);
    update();
  }
  if (!pickable_ || over_handle_) return;
  std::optional<Surface> over;
  for (const Drawn& d : drawn())
    if (d.panel->surface && d.outline.containsPoint(event->position(), Qt::OddEvenFill)) over = d.panel->surface;
  if (over != hovered_) {
    hovered_ = over;
    setCursor(over ? Qt::PointingHandCursor : Qt::ArrowCursor);
    update();
  }
}

void AircraftView::mouseReleaseEvent(QMouseEvent*) {
  held_roll_ = held_pitch_ = 0;
  if (held_handle_) {
    held_handle_.reset();
    update();
    return Q_EMIT handle_let_go();
  }
  if (dragging_turns_) Q_EMIT released();
}

void AircraftView::set_dragging_turns(bool on) {
  dragging_turns_ = on;
  setFocusPolicy(on ? Qt::StrongFocus : Qt::NoFocus);
}

void AircraftView::keyPressEvent(QKeyEvent* event) {
  if (!dragging_turns_) return QWidget::keyPressEvent(event);
  switch (event->key()) {
    case Qt::Key_Left: held_roll_ -= 10; break;
    case Qt::Key_Right: held_roll_ += 10; break;
    case Qt::Key_Up: held_pitch_ += 10; break;
    case Qt::Key_Down: held_pitch_ -= 10; break;
    case Qt::Key_Home: held_roll_ = held_pitch_ = 0; break;
    default: return QWidget::keyPressEvent(event);
  }
  held_roll_ = std::clamp(held_roll_, -80.0, 80.0);
  held_pitch_ = std::clamp(held_pitch_, -80.0, 80.0);
  Q_EMIT turned(held_roll_, held_pitch_);
}

}  // namespace rigging::app
