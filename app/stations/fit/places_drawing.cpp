#include <QPainter>
#include <cmath>

#include "base/settled.h"
#include "look/literals.h"
#include "look/look.h"
#include "stations/fit/places_view.h"

// How the places are drawn; where they are and what hands do with them is in places_view.cpp.
namespace rigging::app {

void PlacesView::draw_cloud(QPainter& p) {
  const FitReport& fit = document_.review().reports.fit();
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
  for (const Panel& panel : document_.review().reports.airframe().panels) {
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
    if (!document_.rig().mounting(part)) continue;
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
  const QFont plain = Style::instance().text(8.5), bold = Style::instance().text(8.5, true);
  const double line = QFontMetricsF(bold).height();
  std::vector<Name> left, right;
  double reach = 16;  // half the width of what stands near the middle
  const double middle = origin_above_.x();
  std::vector<Name> near, outer;
  QList<QRectF> taken;
  const double close = closer_ ? 1e9 : std::max(34.0, 0.06 * scale_);
  for (const std::string& part : things()) {
    if (!document_.rig().mounting(part)) continue;
    const QRectF box = box_of(View::above, part);
    taken << box;
    const bool chosen = part == selected_;
    const QString words = QFontMetrics(chosen ? bold : plain)
                              .elidedText(QString::fromStdString(part_label(part)), Qt::ElideMiddle, width() / 4);
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
    const std::vector<double> at = settled(wanted, sizes, 1, head_px, height() - 4 - foot_px);
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
  const QColor ink = b.side() == BalanceSide::holds ? inks().ink : inks().rust;
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

/// Beside the dragged part.
void PlacesView::draw_what_it_does(QPainter& p) {
  const QStringList lines = what_it_does();
  if (lines.isEmpty()) return;
  p.setFont(Style::instance().text(9));
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
  p.setFont(Style::instance().text(8.5));
  const double line = QFontMetricsF(p.font()).height();
  p.drawText(QRectF(10, 4, split_ - 8, line), Qt::AlignLeft, u"From the left"_s);
  p.drawText(QRectF(split_, 4, width() - split_ - 8, line), Qt::AlignLeft, u"From above, nose up"_s);
  QString key = u"hatched: allowed balance · bar: first flight · lines: currents"_s;
  if (!document_.review().reports.fit().compasses.empty()) key += u" · cloud: turns a compass"_s;
  p.drawText(QRectF(10, height() - line - 3, width() - 20, line), Qt::AlignLeft,
             QFontMetrics(p.font()).elidedText(key, Qt::ElideRight, width() - 20));
  draw_what_it_does(p);
  if (hasFocus()) {
    p.setPen(QPen(inks().teal, 2));
    p.setBrush(Qt::NoBrush);
    p.drawRect(rect().adjusted(1, 1, -1, -1));
  }
}

}  // namespace rigging::app
