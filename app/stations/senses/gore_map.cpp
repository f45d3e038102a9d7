#include "stations/senses/gore_map.h"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "look/literals.h"
#include "look/look.h"
#include "senses/sphere_fit.h"

namespace rigging::app {

GoreMap::GoreMap(QWidget* parent) : QWidget(parent) {
  setObjectName(u"gore_map"_s);
  setAccessibleName(u"Directions covered"_s);
  setToolTip(u"Each gore is a slice of the sphere of directions. Filled: the compass was turned through it."_s);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

void GoreMap::show_cells(const std::vector<bool>& seen, const std::optional<std::size_t>& now) {
  if (seen == seen_ && now == now_) return;
  seen_ = seen;
  now_ = now;
  const auto filled = std::count(seen_.begin(), seen_.end(), true);
  setAccessibleDescription(u"%1 of %2 parts of the sphere"_s.arg(filled).arg(seen_.size()));
  update();
}

void GoreMap::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& i = inks();
  QColor filled = i.teal;
  filled.setAlphaF(0.55F);
  const double top = 20, bottom = height() - 20, tall = bottom - top;
  // Gores keep their shape: half as wide as a twelfth of the way round at the height of the sphere.
  const double wide = std::min((width() - 16.0) / gores, tall * pi / (gores * 1.0) * 1.2);
  const double left = (width() - wide * gores) / 2;
  // Where a gore is `share` of the way down, 0 at the upper pole: its half width.
  const auto half = [&](double share) { return wide / 2 * std::sin(share * pi); };
  p.setFont(Style::instance().text(8.5));
  p.setPen(i.soft);
  p.drawText(QRectF(0, 0, width(), 18), Qt::AlignCenter, u"upward"_s);
  p.drawText(QRectF(0, height() - 18, width(), 18), Qt::AlignCenter, u"downward"_s);
  for (int gore = 0; gore < gores; ++gore) {
    const double middle = left + (gore + 0.5) * wide;
    for (int band = 0; band < bands; ++band) {
      // Bands of equal height of the sphere, from below up: equal parts of its surface.
      const double z0 = 1 - 2.0 * band / bands, z1 = 1 - 2.0 * (band + 1) / bands;  // down positive
      const double s0 = 1 - std::acos(z0) / pi, s1 = 1 - std::acos(z1) / pi;
      QPainterPath path;
      constexpr int pieces = 10;
      for (int k = 0; k <= pieces; ++k) {
        const double share = s0 + (s1 - s0) * k / pieces;
        const QPointF at(middle + half(share), top + share * tall);
        k == 0 ? path.moveTo(at) : path.lineTo(at);
      }
      for (int k = pieces; k >= 0; --k) {
        const double share = s0 + (s1 - s0) * k / pieces;
        path.lineTo(middle - half(share), top + share * tall);
      }
      path.closeSubpath();
      const auto cell = static_cast<std::size_t>(band * gores + gore);
      const bool seen = cell < seen_.size() && seen_[cell];
      p.setPen(QPen(i.line, 0.8));
      p.setBrush(seen ? filled : i.sheet);
      p.drawPath(path);
      if (now_ == cell) {
        p.setPen(QPen(i.ink, 2.2));
        p.setBrush(Qt::NoBrush);
        p.drawPath(path);
      }
    }
  }
}

}  // namespace rigging::app
