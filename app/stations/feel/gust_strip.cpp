#include "stations/feel/gust_strip.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "base/number.h"
#include "look/literals.h"
#include "look/look.h"

namespace rigging::app {
namespace {

constexpr int frames = 8;
constexpr double last_s = 1.6;

}  // namespace

GustStrip::GustStrip(QWidget* parent) : QWidget(parent) {
  setObjectName(u"gust_strip"_s);
  setAccessibleName(u"A gust, and what becomes of it"_s);
  setToolTip(
      u"A gust that moves an aircraft by 25° that is left alone. In ink: as it is set. Pale: nothing corrects. "
      "Worked out, not "
      "flown."_s);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

void GustStrip::show_answer(Axis axis, const std::vector<Panel>& panels, const GustAnswer& with,
                            const GustAnswer& without) {
  axis_ = axis;
  panels_ = panels;
  with_ = with, without_ = without;
  if (!with_.angle_deg.empty())
    setAccessibleDescription(u"After %1 seconds it stands at %2°, without correction at %3°."_s.arg(
        QString::fromStdString(number_text(last_s, 1)), QString::fromStdString(number_text(with_.angle_deg.back(), 0)),
        QString::fromStdString(number_text(without_.angle_deg.back(), 0))));
  update();
}

void GustStrip::clear() {
  with_ = without_ = {};
  setAccessibleDescription({});
  update();
}

void GustStrip::paintEvent(QPaintEvent*) {
  if (with_.angle_deg.empty() || panels_.empty()) return;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& i = inks();
  const double wide = static_cast<double>(width()) / frames;
  double reach = 0;
  Point middle = {0, 0, 0};
  std::size_t count = 0;
  for (const Panel& panel : panels_)
    for (const Point& c : panel.corners) middle += c, ++count;
  middle /= static_cast<double>(std::max<std::size_t>(count, 1));
  // From behind for roll, from the left side for pitch, from above for yaw.
  const auto flat = [&](const Point& c) {
    const Point d = c - middle;
    return axis_ == Axis::roll    ? QPointF(d.y(), d.z())
           : axis_ == Axis::pitch ? QPointF(-d.x(), d.z())
                                  : QPointF(d.y(), -d.x());
  };
  for (const Panel& panel : panels_)
    for (const Point& c : panel.corners) reach = std::max(reach, std::hypot(flat(c).x(), flat(c).y()));
  const double scale = std::min(wide * 0.47, (height() - 18) * 0.75) / std::max(reach, 1e-6);
  p.setFont(Style::instance().figures(8));
  for (int k = 0; k < frames; ++k) {
    const double t = last_s * k / (frames - 1);
    const QPointF centre(wide * (k + 0.5), (height() - 16) / 2.0);
    const auto draw = [&](const GustAnswer& answer, const QPen& pen, const QBrush& brush) {
      const auto at = std::min(answer.angle_deg.size() - 1, static_cast<std::size_t>(t / answer.step_s));
      p.save();
      p.translate(centre);
      // Right wing down, nose up and nose right all turn with the clock, seen from where they are drawn.
      p.rotate(answer.angle_deg[at]);
      p.setPen(pen);
      p.setBrush(brush);
      for (const Panel& panel : panels_) {
        if (panel.part == Panel::Part::propeller) continue;
        QPolygonF shape;
        for (const Point& c : panel.corners) shape << flat(c) * scale;
        p.drawPolygon(shape);
      }
      p.restore();
    };
    QColor pale = i.line;
    draw(without_, QPen(pale, 0.8), QBrush(pale));
    draw(with_, QPen(i.ink, 0.8), QBrush(i.wash));
    p.setPen(i.soft);
    p.drawText(QRectF(wide * k, height() - 15, wide, 14), Qt::AlignCenter,
               QString::fromStdString(number_text(t, 1)) + u" s"_s);
  }
}

}  // namespace rigging::app
