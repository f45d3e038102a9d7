#include "stations/senses/sky_plot.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "base/number.h"
#include "look/literals.h"
#include "look/look.h"

namespace rigging::app {
namespace {

constexpr double metres_per_deg = 111320;  // near enough for a picture of some metres
constexpr std::size_t most_drawn = 600;

QString metres(double m) { return QString::fromStdString(number_text(m, m < 10 ? 1 : 0)) + u" m"_s; }

}  // namespace

SkyPlot::SkyPlot(QWidget* parent) : QWidget(parent) {
  setObjectName(u"sky_plot"_s);
  setAccessibleName(u"Where the receiver says that it is, while it stands still"_s);
  setToolTip(
      u"Each dot is one position. Inner ring: half of them. Outer ring: 95 of 100. Dashed: how far home may be off."_s);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

void SkyPlot::show_fixes(const std::vector<SatelliteFix>& fixes, const Standing& standing) {
  if (fixes.size() == shown_ && standing.fixes == standing_.fixes) return;
  shown_ = fixes.size();
  standing_ = standing;
  east_north_m_.clear();
  const std::size_t from = fixes.size() > most_drawn ? fixes.size() - most_drawn : 0;
  for (std::size_t k = from; k < fixes.size(); ++k) {
    const SatelliteFix& f = fixes[k];
    if (!f.valid) continue;
    east_north_m_.emplace_back(
        (f.longitude_deg - standing.longitude_deg) * metres_per_deg * std::cos(standing.latitude_deg * rad),
        (f.latitude_deg - standing.latitude_deg) * metres_per_deg);
  }
  setAccessibleDescription(QString::fromStdString(standing.why));
  update();
}

void SkyPlot::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& i = inks();
  p.setFont(Style::instance().text(8.5));
  const QPointF middle(width() / 2.0, height() / 2.0);
  const double radius = std::min(width(), height()) * 0.44;
  if (east_north_m_.empty()) {
    p.setPen(i.soft);
    p.drawText(rect(), Qt::AlignCenter, u"No fix yet."_s);
    return;
  }
  double most = std::max({standing_.home_m, standing_.r95_m, 2.0}) * 1.15;
  for (const QPointF& q : east_north_m_) most = std::max(most, std::hypot(q.x(), q.y()));
  const double scale = radius / most;
  // Cross of the directions, north up.
  p.setPen(QPen(i.line, 1));
  p.drawLine(middle - QPointF(radius, 0), middle + QPointF(radius, 0));
  p.drawLine(middle - QPointF(0, radius), middle + QPointF(0, radius));
  p.setPen(i.soft);
  p.drawText(QRectF(middle.x() + 4, middle.y() - radius - 2, 40, 14), Qt::AlignLeft, u"north"_s);
  p.setBrush(Qt::NoBrush);
  // What the rings are stands in a corner: near by they would cover the dots.
  double legend_y = height() - 8;
  const auto ring = [&](double m, const QPen& pen, const QString& name) {
    if (!(m > 0)) return;
    p.setPen(pen);
    p.drawEllipse(middle, m * scale, m * scale);
    p.drawLine(QPointF(8, legend_y - 6), QPointF(34, legend_y - 6));
    p.setPen(i.ink);
    p.drawText(QRectF(40, legend_y - 14, 190, 16), Qt::AlignLeft | Qt::AlignVCenter, name);
    legend_y -= 17;
  };
  ring(standing_.home_m, QPen(i.ochre, 1.6, Qt::DashLine), u"home within %1"_s.arg(metres(standing_.home_m)));
  ring(standing_.r95_m, QPen(i.soft, 1), u"95 of 100: %1"_s.arg(metres(standing_.r95_m)));
  ring(standing_.r50_m, QPen(i.teal, 1.4), u"half: %1"_s.arg(metres(standing_.r50_m)));
  p.setPen(Qt::NoPen);
  p.setBrush(i.teal);
  for (const QPointF& q : east_north_m_) p.drawEllipse(middle + QPointF(q.x(), -q.y()) * scale, 1.8, 1.8);
}

}  // namespace rigging::app
