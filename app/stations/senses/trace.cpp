#include "stations/senses/trace.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "look/literals.h"
#include "look/look.h"

namespace rigging::app {
namespace {

/// 1, 2 or 5 times a power of ten, so that about `count` of them fill the length.
double round_step(double length, int count) {
  const double rough = length / count, power = std::pow(10, std::floor(std::log10(rough)));
  for (const double k : {1.0, 2.0, 5.0})
    if (rough <= k * power) return k * power;
  return 10 * power;
}

QString tick_text(double v, double step) {
  return QString::fromStdString(number_text(v, step < 0.1 ? 2 : step < 1 ? 1 : 0));
}

}  // namespace

Trace::Trace(QWidget* parent) : QWidget(parent) {
  setObjectName(u"trace"_s);
  setAccessibleName(u"What was read"_s);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

void Trace::show_lines(std::vector<Line> lines, double least_height, const QString& x_unit, const QString& caption) {
  if (lines == lines_ && caption == caption_) return;
  lines_ = std::move(lines);
  least_height_ = least_height;
  x_unit_ = x_unit;
  caption_ = caption;
  setAccessibleDescription(caption);
  update();
}

void Trace::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& i = inks();
  p.setFont(Style::instance().text(8.5));
  const QRectF area(52, 26, width() - 52 - 54, height() - 26 - 40);
  p.setPen(i.soft);
  p.drawText(QRectF(4, 4, width() - 8, 18), Qt::AlignLeft | Qt::AlignVCenter, caption_);
  double x0 = 1e300, x1 = -1e300, y0 = 1e300, y1 = -1e300;
  for (const Line& l : lines_)
    for (const auto& [x, y] : l.points) {
      x0 = std::min(x0, x);
      x1 = std::max(x1, x);
      y0 = std::min(y0, y);
      y1 = std::max(y1, y);
    }
  p.setPen(QPen(i.line, 1));
  p.drawRect(area);
  if (x1 <= x0) {
    p.setPen(i.soft);
    p.drawText(area, Qt::AlignCenter, u"Nothing read yet."_s);
    return;
  }
  const double middle = (y0 + y1) / 2, half = std::max(y1 - y0, least_height_) / 2 * 1.08;
  y0 = middle - half;
  y1 = middle + half;
  const auto at = [&](double x, double y) {
    return QPointF(area.left() + (x - x0) / (x1 - x0) * area.width(),
                   area.bottom() - (y - y0) / (y1 - y0) * area.height());
  };
  const double y_step = round_step(y1 - y0, 5), x_step = round_step(x1 - x0, 6);
  for (double y = std::ceil(y0 / y_step) * y_step; y <= y1; y += y_step) {
    p.setPen(QPen(i.line, std::abs(y) < y_step / 2 ? 1.6 : 0.8));
    p.drawLine(at(x0, y), at(x1, y));
    p.setPen(i.soft);
    p.drawText(QRectF(0, at(x0, y).y() - 9, 46, 18), Qt::AlignRight | Qt::AlignVCenter,
               tick_text(std::abs(y) < y_step / 2 ? 0 : y, y_step));
  }
  for (double x = std::ceil(x0 / x_step) * x_step; x <= x1; x += x_step) {
    p.setPen(i.soft);
    p.drawText(QRectF(at(x, y0).x() - 30, area.bottom() + 3, 60, 16), Qt::AlignCenter, tick_text(x, x_step));
  }
  p.drawText(QRectF(area.left(), area.bottom() + 19, area.width(), 16), Qt::AlignCenter, x_unit_);
  const QColor ink[] = {i.teal, i.rust, i.slate};
  const Qt::PenStyle style[] = {Qt::SolidLine, Qt::DashLine, Qt::DotLine};
  double last_y = -1e9;
  std::vector<std::pair<double, std::size_t>> ends;
  p.setClipRect(area.adjusted(-1, -1, 1, 1));
  for (std::size_t k = 0; k < lines_.size(); ++k) {
    QPolygonF shape;
    for (const auto& [x, y] : lines_[k].points) shape << at(x, y);
    // Fine lines of many points: smoothed ones take ten times as long, eight times a second.
    p.setRenderHint(QPainter::Antialiasing, shape.size() < 200);
    p.setPen(QPen(ink[k % 3], shape.size() < 200 ? 1.4 : 1, shape.size() < 200 ? style[k % 3] : Qt::SolidLine));
    p.drawPolyline(shape);
    p.setRenderHint(QPainter::Antialiasing);
    if (!shape.isEmpty()) ends.emplace_back(shape.last().y(), k);
  }
  p.setClipping(false);
  // Names at the ends, one below the other.
  std::sort(ends.begin(), ends.end());
  for (const auto& [y, k] : ends) {
    last_y = std::max(y, last_y + 14);
    p.setPen(ink[k % 3]);
    p.drawText(QRectF(area.right() + 4, last_y - 8, 50, 16), Qt::AlignLeft | Qt::AlignVCenter, lines_[k].name);
  }
}

}  // namespace rigging::app
