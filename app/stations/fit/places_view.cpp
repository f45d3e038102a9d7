#include "stations/fit/places_view.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>
#include <cmath>

#include "base/settled.h"
#include "fit/edits.h"
#include "look/look.h"
#include "look/units.h"
#include "rig/ranges.h"

namespace rigging::app {
namespace {

constexpr double default_size_m = 0.02;
// Pixels: round the drawing, between the two views, above and below them, and for names beside a bay.
constexpr double margin_px = 14, gutter_px = 44, head_px = 26, foot_px = 24, names_px = 120, leader_px = 20;

}  // namespace

PlacesView::PlacesView(RigDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
  setObjectName(QStringLiteral("places_view"));
  setAccessibleName(tr("Parts in the aircraft, from the left and from above, nose up"));
  setAccessibleDescription(
      tr("Drag a part; with Alt it lines up with nothing. Arrow keys move the chosen one by 5 mm, with Shift by 1 mm; "
         "Page up and down lift and lower it."));
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
}

std::vector<std::string> PlacesView::things() const {
  std::vector<std::string> ids{"controller"};
  for (const Part& p : document_.rig().parts) ids.push_back(p.id);
  return ids;
}

std::string PlacesView::name_of(const std::string& part) const {
  return part_name(document_.rig(), document_.catalogue(), part);
}

const FitReport& PlacesView::report() const { return live_ ? *live_ : document_.review().fit; }

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
  }
  // Beside a bay there must be room for names, round a whole aircraft there is.
  const double names = closer_ ? 2.0 * names_px * Look::instance().text_scale() : 0;
  const double w = width() - 3 * margin_px - gutter_px - names,
               h = height() - head_px - foot_px * Look::instance().text_scale();
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
  return {view == View::side ? height : width, length};
}

QRectF PlacesView::box_of(View view, const std::string& part) const {
  const QSizeF s = size_of(view, part) * scale_;
  const QPointF c = on_screen(view, place_of(part));
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
    if (!document_.rig().place(part)) continue;
    const QRectF box = box_of(view, part).adjusted(-3, -3, 3, 3);
    if (box.contains(at) && box.width() * box.height() < least) {
      least = box.width() * box.height();
      found = part;
    }
  }
  return found;
}

void PlacesView::draw_cloud(QPainter& p) {
  const FitReport& fit = document_.review().fit;
  if (fit.compasses.empty() || fit.currents.empty()) return;
  constexpr int step = 5;
  const int w = static_cast<int>((width() - split_) / step), h = height() / step;
  if (w <= 0 || h <= 0) return;
  if (cloud_.isNull()) {
    cloud_ = QImage(w, h, QImage::Format_ARGB32_Premultiplied);
    cloud_.fill(Qt::transparent);
    const CompassReport& compass = fit.compasses.front();
    QColor ink = inks().rust;
    for (int y = 0; y < h; ++y)
      for (int x = 0; x < w; ++x) {
        const Point at = in_model(View::above, {split_ + (x + 0.5) * step, (y + 0.5) * step}, compass.at);
        const double error = error_at(fit, at, compass.horizontal.value);
        if (error < 0.5) continue;
        // Half strength at the two degrees that count.
        ink.setAlphaF(static_cast<float>(std::min(0.34, 0.10 * std::log2(1 + error))));
        cloud_.setPixelColor(x, y, ink);
      }
  }
  p.save();
  p.setRenderHint(QPainter::SmoothPixmapTransform);
  p.drawImage(QRectF(split_, 0, w * step, h * step), cloud_);
  p.restore();
}

void PlacesView::draw_aircraft(QPainter& p, View view) {
  for (const Panel& panel : document_.review().airframe.panels) {
    if (panel.part == Panel::Part::propeller && view == View::above) continue;
    QPolygonF outline;
    for (const Point& c : panel.corners) outline << on_screen(view, c);
    p.setPen(QPen(inks().soft, panel.part == Panel::Part::body || panel.part == Panel::Part::boom ? 0.5 : 0.9));
    QColor fill = inks().sheet;
    fill.setAlphaF(0.45f);
    p.setBrush(fill);
    p.drawPolygon(outline);
  }
  for (const auto* bay : {&document_.rig().fit.bay, &document_.rig().fit.second_bay}) {
    if (!*bay) continue;
    const Bay& room = **bay;
    const double back = -room.at_m - room.length_m, half = room.width_m / 2, tall = room.height_m / 2;
    p.setPen(QPen(inks().soft, 1, Qt::DotLine));
    p.setBrush(Qt::NoBrush);
    const Point a =
        view == View::above ? Point(-room.at_m, room.right_m - half, 0) : Point(-room.at_m, 0, room.below_m - tall);
    const Point b = view == View::above ? Point(back, room.right_m + half, 0) : Point(back, 0, room.below_m + tall);
    p.drawRect(QRectF(on_screen(view, a), on_screen(view, b)).normalized());
  }
}

void PlacesView::draw_parts(QPainter& p, View view) {
  const FitReport& fit = report();
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
                   across = turn.arrow.axis % 3 == (view == View::above ? 1 : 2)
                                ? (view == View::above ? 1 : -1) * turn.arrow.sign
                                : 0;
      if (along != 0 || across != 0) {
        const QPointF half(across * box.width() * 0.38, along * box.height() * 0.38);
        const QPointF tip = box.center() + half;
        p.drawLine(box.center() - half, tip);
        const QPointF back(-across * 4, -along * 4), out(along * 3, -across * 3);
        p.setBrush(inks().ink);
        p.drawPolygon(QPolygonF{tip, tip + back + out, tip + back - out});
      }
    }
    for (const CompassReport& c : fit.compasses)
      if (c.part == part) {
        p.setPen(QPen(inks().teal, 1.4));
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(box.center(), 5, 5);
        p.drawLine(box.center() + QPointF(0, 2), box.center() + QPointF(0, -4));
      }
  }
}

/// Names of what sits near the middle stand in a column on either side, each tied to its part by a line; what sits out
/// in the wings has its own below it.
void PlacesView::draw_names(QPainter& p) {
  struct Name {
    std::string part;
    QRectF box;
    QString words;
    double width;
  };
  const QFont plain = Look::instance().text(8.5), bold = Look::instance().text(8.5, true);
  const double line = QFontMetricsF(bold).height();
  std::vector<Name> left, right;
  double reach = 16;  // half the width of what stands near the middle
  const double middle = origin_above_.x();
  std::vector<Name> near, outer;
  QList<QRectF> taken;
  const double close = closer_ ? 1e9 : std::max(34.0, 0.06 * scale_);
  for (const std::string& part : things()) {
    if (!document_.rig().place(part)) continue;
    const QRectF box = box_of(View::above, part);
    const bool chosen = part == selected_;
    const QString words = QFontMetrics(chosen ? bold : plain)
                              .elidedText(QString::fromStdString(name_of(part)), Qt::ElideMiddle, width() / 4);
    const double w = QFontMetricsF(chosen ? bold : plain).horizontalAdvance(words);
    if (std::abs(box.center().x() - middle) < close) {
      near.push_back({part, box, words, w});
      reach = std::max(reach, std::abs(box.center().x() - middle) + box.width() / 2);
      continue;
    }
    outer.push_back({part, box, words, w});
  }
  std::stable_sort(near.begin(), near.end(),
                   [](const Name& a, const Name& b) { return a.box.center().y() < b.box.center().y(); });
  for (Name& n : near) {
    const double off = n.box.center().x() - middle;
    const bool to_left = std::abs(off) > 0.004 * scale_ ? off < 0 : left.size() < right.size();
    (to_left ? left : right).push_back(std::move(n));
  }
  for (const bool is_left : {true, false}) {
    const std::vector<Name>& names = is_left ? left : right;
    std::vector<double> wanted, sizes;
    for (const Name& n : names) {
      wanted.push_back(n.box.center().y() - line / 2);
      sizes.push_back(line);
    }
    const std::vector<double> at = settled(wanted, sizes, 1, head_px, height() - foot_px - 4);
    for (std::size_t i = 0; i < names.size(); ++i) {
      const Name& n = names[i];
      const bool chosen = n.part == selected_;
      const double x = is_left ? middle - reach - leader_px - n.width : middle + reach + leader_px;
      const double y = at[i] + line / 2;
      p.setPen(QPen(chosen ? inks().teal : inks().soft, chosen ? 1.2 : 0.8));
      p.drawLine(QPointF(is_left ? n.box.left() : n.box.right(), n.box.center().y()),
                 QPointF(is_left ? middle - reach - 4 : middle + reach + 4, y));
      p.drawLine(QPointF(is_left ? middle - reach - 4 : middle + reach + 4, y),
                 QPointF(is_left ? x + n.width + 3 : x - 3, y));
      taken << QRectF(x, at[i], n.width, line);
      p.setFont(chosen ? bold : plain);
      p.setPen(chosen ? inks().teal : inks().ink);
      p.drawText(QRectF(x, at[i], n.width + 4, line), Qt::AlignLeft | Qt::AlignVCenter, n.words);
    }
  }
  // Beside the part where nothing is written yet; the chosen one in any case.
  for (const Name& n : outer) {
    const bool chosen = n.part == selected_;
    const QPointF c = n.box.center();
    const QSizeF size(n.width, line);
    for (const QPointF corner :
         {QPointF(c.x() - n.width / 2, n.box.bottom() + 1), QPointF(c.x() - n.width / 2, n.box.top() - line - 1),
          QPointF(n.box.right() + 4, c.y() - line / 2), QPointF(n.box.left() - n.width - 4, c.y() - line / 2),
          QPointF(std::clamp(c.x() - n.width / 2, split_ + 2, std::max(split_ + 2, width() - n.width - 4)),
                  n.box.bottom() + line)}) {
      const QRectF here(corner, size);
      const bool free = here.left() > split_ && here.right() < width() &&
                        std::none_of(taken.begin(), taken.end(), [&](const QRectF& t) { return t.intersects(here); });
      if (!free && !(chosen && corner.y() == n.box.bottom() + line)) continue;
      taken << here;
      p.setFont(chosen ? bold : plain);
      p.setPen(chosen ? inks().teal : inks().ink);
      p.drawText(here.adjusted(0, 0, 4, 0), Qt::AlignLeft | Qt::AlignVCenter, n.words);
      break;
    }
  }
}

/// Between the two views: the allowed band, the first flight's place, and where it balances.
void PlacesView::draw_balance(QPainter& p) {
  const Balance& b = report().balance;
  if (document_.rig().parts.empty()) return;
  const double base = split_ - gutter_px / 2;
  const auto y = [&](double behind) { return on_screen(View::side, {-behind, 0, 0}).y(); };
  p.setPen(QPen(inks().moss, 1.2));
  p.setBrush(QBrush(inks().moss, Qt::BDiagPattern));
  p.drawRect(QRectF(base - 5, y(b.band_front_m), 10, std::max(2.0, y(b.band_back_m) - y(b.band_front_m))));
  p.setPen(QPen(inks().moss, 2));
  p.drawLine(QPointF(base - 9, y(b.first_flight.value)), QPointF(base + 9, y(b.first_flight.value)));
  if (b.total.value <= 0 || !b.complete) return;
  const double at = y(b.balance_point.value);
  const bool good = b.balance_point.value >= b.band_front_m && b.balance_point.value <= b.band_back_m;
  const QColor ink = good ? inks().ink : inks().rust;
  p.setPen(QPen(ink, 1, Qt::DashLine));
  p.drawLine(QPointF(margin_px, at), QPointF(on_screen(View::above, {0, b.lateral.value, 0}).x(), at));
  p.setPen(ink);
  p.setBrush(ink);
  p.drawPolygon(QPolygonF{QPointF(base - 6, at), QPointF(base - 15, at - 6), QPointF(base - 15, at + 6)});
  // The same from above: a quartered disc at the balance point.
  const QPointF c = on_screen(View::above, {-b.balance_point.value, b.lateral.value, 0});
  p.setPen(QPen(ink, 1.4));
  p.setBrush(inks().sheet);
  p.drawEllipse(c, 6, 6);
  p.setBrush(ink);
  p.drawPie(QRectF(c.x() - 6, c.y() - 6, 12, 12), 0, 90 * 16);
  p.drawPie(QRectF(c.x() - 6, c.y() - 6, 12, 12), 180 * 16, 90 * 16);
}

/// Lines through what the dragged part is lined up with.
void PlacesView::draw_guides(QPainter& p) {
  if (!dragged_) return;
  p.setPen(QPen(inks().teal, 1, Qt::DashDotLine));
  if (guide_x_) {
    const double y = on_screen(View::above, {*guide_x_, 0, 0}).y();
    p.drawLine(QPointF(0, y), QPointF(width(), y));
  }
  if (guide_y_ && drag_view_ == View::above) {
    const double x = on_screen(View::above, {0, *guide_y_, 0}).x();
    p.drawLine(QPointF(x, 0), QPointF(x, height()));
  }
}

QStringList PlacesView::what_it_does() const {
  if (!dragged_ || !from_ || !live_ || (*dragged_ - *from_).norm() < 0.0005) return {};
  const Units& units = Units::instance();
  const auto length = [&](double m) {
    return QStringLiteral("%1 %2").arg(units.length_out(m), 0, 'f', units.metric() ? 0 : 2).arg(units.length_unit());
  };
  const Point& at = *dragged_;
  QStringList lines{tr("moved %1: %2 behind the nose").arg(length((at - *from_).norm()), length(-at.x()))};
  if (drag_view_ == View::above)
    lines << (std::abs(at.y()) < 5e-4 ? tr("in the middle")
                                      : (at.y() > 0 ? tr("%1 right of the middle") : tr("%1 left of the middle"))
                                            .arg(length(std::abs(at.y()))));
  else
    lines << (std::abs(at.z()) < 5e-4
                  ? tr("level with the middle")
                  : (at.z() > 0 ? tr("%1 below the middle") : tr("%1 above the middle")).arg(length(std::abs(at.z()))));
  const Balance &now = live_->balance, &was = document_.review().fit.balance;
  if (now.complete && now.total.value > 0) {
    const bool good = now.balance_point.value >= now.band_front_m && now.balance_point.value <= now.band_back_m;
    lines << tr("balances at %1, was %2: %3")
                 .arg(length(now.balance_point.value), length(was.balance_point.value),
                      good                                         ? tr("holds")
                      : now.balance_point.value < now.band_front_m ? tr("nose-heavy")
                                                                   : tr("tail-heavy"));
  }
  for (const CompassReport& c : live_->compasses)
    lines << (c.error.value >= points_nowhere_deg ? tr("compass: points nowhere here")
                                                  : tr("compass turned up to %1° of %2° allowed")
                                                        .arg(c.error.value, 0, 'f', 1)
                                                        .arg(wanted_compass_error_deg));
  for (const Clash& c : live_->clashes)
    if (c.part == selected_ || c.other == selected_)
      lines << (c.other.empty()
                    ? tr("sticks out of the bay")
                    : tr("overlaps %1").arg(QString::fromStdString(name_of(c.other == selected_ ? c.part : c.other))));
  return lines;
}

/// Beside the dragged part.
void PlacesView::draw_what_it_does(QPainter& p) {
  const QStringList lines = what_it_does();
  if (lines.isEmpty()) return;
  p.setFont(Look::instance().text(9));
  const QFontMetricsF metrics(p.font());
  double wide = 0;
  for (const QString& l : lines) wide = std::max(wide, metrics.horizontalAdvance(l));
  const QSizeF size(wide + 16, static_cast<double>(lines.size()) * metrics.height() + 10);
  const QRectF part = box_of(drag_view_, selected_);
  QPointF corner(part.right() + 24, part.bottom() + 16);
  if (corner.x() + size.width() > width() - 4) corner.setX(part.left() - 24 - size.width());
  if (corner.y() + size.height() > height() - 4) corner.setY(part.top() - 16 - size.height());
  corner = {std::clamp(corner.x(), 4.0, std::max(4.0, width() - size.width() - 4)), std::max(4.0, corner.y())};
  p.setPen(QPen(inks().teal, 1.4));
  p.setBrush(inks().sheet);
  p.drawRect(QRectF(corner, size));
  p.setPen(inks().ink);
  for (qsizetype i = 0; i < lines.size(); ++i)
    p.drawText(
        QRectF(corner.x() + 8, corner.y() + 5 + static_cast<double>(i) * metrics.height(), wide + 4, metrics.height()),
        Qt::AlignLeft | Qt::AlignVCenter, lines[i]);
}

void PlacesView::paintEvent(QPaintEvent*) {
  fit();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  draw_cloud(p);
  const auto within = [&](View view) {
    return view == View::side ? QRectF(0, 0, split_ - gutter_px, height())
                              : QRectF(split_, 0, width() - split_, height());
  };
  for (const View view : {View::side, View::above}) {
    p.setClipRect(within(view));
    draw_aircraft(p, view);
  }
  for (const CurrentPath& c : report().currents) {
    p.setPen(QPen(inks().soft, std::clamp(0.6 + std::sqrt(c.amps) * 0.4, 0.8, 4.0)));
    p.drawLine(on_screen(View::above, c.a), on_screen(View::above, c.b));
  }
  for (const View view : {View::side, View::above}) {
    p.setClipRect(within(view));
    draw_parts(p, view);
  }
  draw_names(p);
  p.setClipping(false);
  draw_balance(p);
  draw_guides(p);
  p.setPen(inks().soft);
  p.setFont(Look::instance().text(8.5));
  const double line = QFontMetricsF(p.font()).height();
  p.drawText(QRectF(10, 4, split_ - 8, line), Qt::AlignLeft, tr("From the left"));
  p.drawText(QRectF(split_, 4, width() - split_ - 8, line), Qt::AlignLeft, tr("From above, nose up"));
  QString key = tr("hatched: allowed balance · bar: first flight · lines: currents");
  if (!document_.review().fit.compasses.empty()) key += tr(" · cloud: turns a compass");
  p.drawText(QRectF(10, height() - line - 3, width() - 20, line), Qt::AlignLeft,
             QFontMetrics(p.font()).elidedText(key, Qt::ElideRight, width() - 20));
  draw_what_it_does(p);
  if (hasFocus()) {
    p.setPen(QPen(inks().teal, 2));
    p.setBrush(Qt::NoBrush);
    p.drawRect(rect().adjusted(1, 1, -1, -1));
  }
}

bool PlacesView::event(QEvent* e) {
  if (e->type() == QEvent::ToolTip) {
    const auto* help = static_cast<QHelpEvent*>(e);
    const std::string part = part_at(help->pos().x() < split_ - gutter_px ? View::side : View::above, help->pos());
    const QString words = part.empty() ? accessibleDescription() : QString::fromStdString(capital(name_of(part)));
    QToolTip::showText(help->globalPos(), words.toHtmlEscaped(), this);
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
  grip_ = e->position() - on_screen(view, place_of(found));
  from_ = dragged_ = place_of(found);
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
  for (const Place& p : document_.rig().places) {
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
  for (Place& p : moved.places)
    if (p.part == selected_) p.x_m = to.x(), p.y_m = to.y(), p.z_m = to.z();
  live_ = analyze_fit(moved, document_.catalogue(), document_.review().airframe, document_.review().power);
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
    case Qt::Key_Up: by.x() = step; break;
    case Qt::Key_Down: by.x() = -step; break;
    case Qt::Key_Left: by.y() = -step; break;
    case Qt::Key_Right: by.y() = step; break;
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
