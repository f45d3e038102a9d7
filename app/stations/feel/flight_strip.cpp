#include "stations/feel/flight_strip.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include <Eigen/Geometry>

#include "base/angle.h"
#include "base/number.h"
#include "look/literals.h"
#include "look/look.h"

namespace rigging::app {
namespace {

constexpr int film_frames = 7;
constexpr double eye_above_deg = 14;  ///< one sees the wing from a little above
/// Where it hardly tilts all along, the tilt is drawn larger, and it says so.
constexpr double hardly_deg = 8, drawn_times = 4;

std::size_t index_at(const Flight& f, double t_s) {
  const auto i = static_cast<std::ptrdiff_t>(std::lround(t_s / f.step_s));
  return static_cast<std::size_t>(std::clamp<std::ptrdiff_t>(i, 0, static_cast<std::ptrdiff_t>(f.size()) - 1));
}

}  // namespace

FlightStrip::FlightStrip(QWidget* parent) : QWidget(parent) {
  setObjectName(u"flight_strip"_s);
  setAccessibleName(u"The flight as a film"_s);
  setToolTip(u"Seen from behind, over the horizon. In ink: this flight. Pale: the one before. Simulated."_s);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

void FlightStrip::set_panels(const std::vector<Panel>& panels) {
  panels_.clear();
  Point middle = {0, 0, 0};
  double count = 0;
  for (const Panel& p : panels) {
    if (p.part == Panel::Part::propeller) continue;
    panels_.push_back(p);
    for (const Point& c : p.corners) middle += c, ++count;
  }
  reach_m_ = 1e-6;
  for (Panel& p : panels_)
    for (Point& c : p.corners) {
      c -= middle / std::max(1.0, count);
      reach_m_ = std::max(reach_m_, std::abs(c.y()));
    }
  update();
}

void FlightStrip::show_flight(const std::optional<Flight>& now, const std::optional<Flight>& before, double from_s,
                              double to_s) {
  now_ = now, before_ = before;
  from_s_ = from_s, to_s_ = to_s;
  if (now_ && now_->size() > 0) {
    const Motion& last = now_->motion[index_at(*now_, to_s)];
    setAccessibleDescription(u"At %1 seconds it banks by %2°, at a height of %3 m."_s.arg(
        QString::fromStdString(number_text(to_s, 1)), QString::fromStdString(number_text(last.bank() / rad, 0)),
        QString::fromStdString(number_text(last.height(), 0))));
  } else {
    setAccessibleDescription({});
  }
  update();
}

void FlightStrip::paintEvent(QPaintEvent*) {
  if (!now_ || now_->size() == 0 || panels_.empty()) return;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& i = inks();
  const double wide = static_cast<double>(width()) / film_frames, tall = height() - 18;
  const double scale = std::min(wide * 0.45, tall * 0.62) / reach_m_;
  p.setFont(Style::instance().figures(8));
  double worst = 0;
  for (const auto* f : {&now_, &before_})
    if (*f)
      for (const Motion& m : (*f)->motion) worst = std::max({worst, std::abs(m.bank()), std::abs(m.nose_up())});
  const double times = worst < hardly_deg * rad ? drawn_times : 1;
  const Eigen::Matrix3d eye = Eigen::AngleAxisd(-eye_above_deg * rad, Point::UnitY()).toRotationMatrix();
  for (int k = 0; k < film_frames; ++k) {
    const double t = from_s_ + (to_s_ - from_s_) * k / (film_frames - 1);
    const QRectF frame(wide * k + 2, 1, wide - 4, tall - 2);
    p.setClipRect(frame);
    p.setPen(QPen(i.line, 1));
    p.drawLine(QPointF(frame.left(), frame.center().y()), QPointF(frame.right(), frame.center().y()));
    const auto draw = [&](const Flight& f, const QPen& pen, const QBrush& brush) {
      if (t > static_cast<double>(f.size()) * f.step_s) return;
      const Motion& m = f.motion[index_at(f, t)];
      const Eigen::Matrix3d turned = eye * (Eigen::AngleAxisd(times * m.nose_up(), Point::UnitY()) *
                                            Eigen::AngleAxisd(times * m.bank(), Point::UnitX()))
                                               .toRotationMatrix();
      std::vector<std::pair<double, QPolygonF>> shapes;
      for (const Panel& panel : panels_) {
        QPolygonF shape;
        double ahead = 0;
        for (const Point& c : panel.corners) {
          const Point at = turned * c;
          shape << frame.center() + QPointF(at.y(), at.z()) * scale;
          ahead += at.x() / static_cast<double>(panel.corners.size());
        }
        shapes.emplace_back(ahead, shape);
      }
      // What is furthest ahead is drawn first.
      std::sort(shapes.begin(), shapes.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
      p.setPen(pen);
      p.setBrush(brush);
      for (const auto& [ahead, shape] : shapes) p.drawPolygon(shape);
    };
    if (before_) draw(*before_, QPen(i.line, 0.8), QBrush(i.line));
    draw(*now_, QPen(i.ink, 0.9), QBrush(i.wash));
    p.setClipping(false);
    p.setPen(QPen(i.line, 1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(frame);
    p.setPen(i.soft);
    if (k == 0 && times > 1)
      p.drawText(frame.adjusted(4, 2, 0, 0), Qt::AlignTop | Qt::AlignLeft, u"tilt drawn ×%1"_s.arg(times));
    const QString when = QString::fromStdString(number_text(t, 1)) + u" s"_s;
    const bool over = t > static_cast<double>(now_->size()) * now_->step_s;
    p.drawText(QRectF(wide * k, tall, wide, 17), Qt::AlignCenter,
               over ? when
                    : when + u" · "_s +
                          QString::fromStdString(number_text(now_->motion[index_at(*now_, t)].height(), 0)) + u" m"_s);
  }
}

}  // namespace rigging::app
