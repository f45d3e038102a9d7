#include "stations/senses/residual_rose.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "look/literals.h"
#include "look/look.h"

namespace rigging::app {

ResidualRose::ResidualRose(QWidget* parent) : QWidget(parent) {
  setObjectName(u"residual_rose"_s);
  setAccessibleName(u"What is off, before and after"_s);
  setToolTip(u"Should be one circle. Dashed: as read. Full: corrected. What is off is drawn larger than it is."_s);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

void ResidualRose::show_lengths(std::vector<std::pair<double, double>> lengths, const QString& caption) {
  if (lengths == lengths_ && caption == caption_) return;
  lengths_ = std::move(lengths);
  caption_ = caption;
  double before = 0, after = 0;
  for (const auto& [b, a] : lengths_) {
    before = std::max(before, std::abs(b));
    after = std::max(after, std::abs(a));
  }
  setAccessibleDescription(
      lengths_.empty()
          ? QString()
          : u"off by at most %1 % before, %2 % after"_s.arg(before * 100, 0, 'f', 1).arg(after * 100, 0, 'f', 1));
  update();
}

void ResidualRose::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& i = inks();
  p.setFont(Style::instance().text(8.5));
  p.setPen(i.soft);
  p.drawText(QRectF(4, height() - 18, width() - 8, 18), Qt::AlignCenter, caption_);
  const QPointF middle(width() / 2.0, (height() - 18) / 2.0);
  const double radius = std::min(width(), height() - 18) * 0.3;
  p.setPen(QPen(i.line, 1));
  p.drawEllipse(middle, radius, radius);
  if (lengths_.size() < 3) return;
  double most = 0.01;
  for (const auto& [b, a] : lengths_) most = std::max({most, std::abs(b), std::abs(a)});
  const double larger = 0.55 / most;
  const auto line = [&](bool after) {
    QPolygonF shape;
    for (std::size_t k = 0; k < lengths_.size(); ++k) {
      const double off = after ? lengths_[k].second : lengths_[k].first;
      const double turn = 2 * pi * static_cast<double>(k) / static_cast<double>(lengths_.size());
      shape << middle + QPointF(std::sin(turn), -std::cos(turn)) * radius * (1 + off * larger);
    }
    return shape;
  };
  p.setBrush(Qt::NoBrush);
  p.setPen(QPen(i.soft, 1.2, Qt::DashLine));
  p.drawPolygon(line(false));
  p.setPen(QPen(i.teal, 2));
  p.drawPolygon(line(true));
}

}  // namespace rigging::app
