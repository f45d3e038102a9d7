#include "stations/surfaces/linkage_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <cmath>
#include <numbers>

#include "base/angle.h"
#include "look/literals.h"
#include "look/look.h"
#include "look/units.h"

namespace rigging::app {
namespace {

constexpr double least_m = 0.004, most_m = 0.06;

}  // namespace

LinkageView::LinkageView(QWidget* parent) : QWidget(parent) {
  setObjectName(u"linkage_view"_s);
  setAccessibleName(u"Linkage from the side"_s);
  setAccessibleDescription(
      u"Drag the holes of arm and horn along them; or choose one with the keys A and H, and use plus and minus"_s);
  setToolTip(
      u"Drag the hole of the arm or of the horn along it. Small rings: where the edge was read. Keys: A arm, H horn, "
      "+ and − by half a millimetre"_s);
  setFocusPolicy(Qt::StrongFocus);
  setMinimumSize(300, 200);
  setMouseTracking(true);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

void LinkageView::set_linkage(const Linkage& linkage, const Output& output, double chord_m, double pulse_us,
                              const QString& origin) {
  linkage_ = linkage;
  output_ = output;
  chord_m_ = chord_m;
  pulse_us_ = pulse_us;
  origin_ = origin;
  known_ = true;
  curve_.reset();
  if (auto curve = trace(linkage_, output_)) curve_ = std::move(*curve);
  words_.clear();
  update();
}

void LinkageView::clear(const QString& words) {
  known_ = false;
  words_ = words;
  update();
}

std::optional<LinkagePose> LinkageView::pose() const {
  const auto bar = FourBar::of(linkage_);
  if (!known_ || !bar) return std::nullopt;
  const auto p = bar->pose(arm_at(linkage_, pulse_us_, rising_lifts(output_, linkage_.surface)));
  return p ? std::optional(*p) : std::nullopt;
}

LinkageView::Frame LinkageView::frame() const {
  if (held_ != Grip::none) return held_frame_;
  Frame f;
  const auto bar = FourBar::of(linkage_);
  const double base = bar ? bar->base_m() : linkage_.rod_m;
  // Room for what swings: the edge over its whole arc, and arm and horn on their side.
  const auto rise = [&](double deg) { return chord_m_ * std::sin(std::clamp(deg, 6.0, 90.0) * rad); };
  const double levers = std::max(linkage_.arm_m + std::abs(linkage_.drop_m), linkage_.horn_m) + 0.008;
  double above = std::max(rise(curve_ ? curve_->most_up_deg : 30), 0.01),
         below = std::max(rise(curve_ ? curve_->most_down_deg : 30), 0.01);
  // Horn below: its side is downward on the screen.
  f.side = linkage_.push_lifts ? 1 : -1;
  (f.side > 0 ? below : above) = std::max(f.side > 0 ? below : above, levers);
  if (linkage_.crossed) (f.side > 0 ? above : below) = std::max(f.side > 0 ? above : below, levers);
  const double head = 52, foot = 28 + (curve_ && !curve_->problems.empty() ? 34 : 0);
  const double wide = base + chord_m_ + 1.6 * linkage_.arm_m;
  f.scale = std::max(50.0, std::min((width() - 110) / wide, (height() - head - foot) / (above + below)));
  const double slack = std::max(0.0, height() - head - foot - (above + below) * f.scale);
  f.origin = QPointF((width() - (base + chord_m_) * f.scale) / 2, head + slack / 2 + above * f.scale);
  return f;
}

QPointF LinkageView::grip(Grip which) const {
  const auto p = pose();
  if (!p || which == Grip::none) return {};
  const Frame f = frame();
  return which == Grip::arm ? f.at(p->arm_x_m, p->arm_y_m) : f.at(p->horn_x_m, p->horn_y_m);
}

void LinkageView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& i = inks();
  const Style& look = Style::instance();
  const auto bar = known_ ? FourBar::of(linkage_) : Result<FourBar>(failure("", ""));
  const auto now = pose();
  if (!known_ || !bar || !now) {
    p.setPen(i.soft);
    p.setFont(look.text(10));
    p.drawText(rect().adjusted(20, 20, -20, -20), Qt::AlignCenter | Qt::TextWordWrap,
               !known_ ? words_
               : !bar  ? QString::fromStdString(bar.error().text())
                       : u"At this pulse the rod can't join arm and horn."_s);
    return;
  }
  const Frame f = frame();
  const bool rudder = linkage_.surface.kind == SurfaceKind::rudder;
  const double base = bar->base_m();
  const QPointF servo = f.at(0, linkage_.drop_m), hinge = f.at(base, 0), arm = f.at(now->arm_x_m, now->arm_y_m),
                horn = f.at(now->horn_x_m, now->horn_y_m);

  // Skin, servo body, hinge line.
  p.setPen(QPen(i.line, 1));
  const double skin = f.side * -0.006 * f.scale;
  p.drawLine(QPointF(8, hinge.y() + skin), QPointF(hinge.x(), hinge.y() + skin));
  p.setBrush(i.wash);
  p.drawRect(QRectF(servo.x() - 0.014 * f.scale, servo.y() - 0.006 * f.scale, 0.022 * f.scale, 0.012 * f.scale));

  // Where the surface goes over the whole range, and where it is.
  const auto edge = [&](double up_deg) {
    return QPointF(hinge.x() + chord_m_ * f.scale * std::cos(up_deg * rad),
                   hinge.y() - chord_m_ * f.scale * std::sin(up_deg * rad));
  };
  const double up = curve_ ? curve_->most_up_deg : 0, down = curve_ ? curve_->most_down_deg : 0;
  const double reach = chord_m_ * f.scale;
  p.setPen(QPen(i.slate, 1, Qt::DashLine));
  p.setBrush(Qt::NoBrush);
  p.drawArc(QRectF(hinge.x() - reach, hinge.y() - reach, 2 * reach, 2 * reach), static_cast<int>(-down * 16),
            static_cast<int>((up + down) * 16));
  for (const double end : {up, -down}) p.drawLine(hinge, edge(end));
  p.setPen(QPen(i.line, 1, Qt::DotLine));
  p.drawLine(hinge, edge(0) + QPointF(26, 0));
  p.setFont(look.figures(9, true));
  p.setPen(i.slate);
  const auto mark = [&](double deg, bool above) {
    const QPointF at = edge(deg);
    const QString text =
        u"%1° · %2"_s.arg(std::abs(deg), 0, 'f', 1).arg(Units::instance().length(std::abs(throw_m(chord_m_, deg))));
    p.drawText(QRectF(std::min(at.x() - 20, width() - 146.0), at.y() + (above ? -22 : 6), 144, 16),
               Qt::AlignLeft | Qt::AlignVCenter, text);
  };
  mark(up, true);
  mark(-down, false);
  // Where it was read.
  p.setPen(QPen(i.rust, 1.6));
  for (const ThrowReading& r : linkage_.readings) p.drawEllipse(edge(r.up_deg), 3.2, 3.2);
  // The surface as a slim wedge.
  QPainterPath wedge;
  const QPointF tip = edge(now->up_deg),
                across(0.004 * f.scale * std::sin(now->up_deg * rad), 0.004 * f.scale * std::cos(now->up_deg * rad));
  wedge.moveTo(hinge - across);
  wedge.lineTo(tip);
  wedge.lineTo(hinge + across);
  wedge.closeSubpath();
  p.setPen(QPen(i.ink, 1.2));
  QColor fill = i.teal;
  fill.setAlpha(60);
  p.setBrush(fill);
  p.drawPath(wedge);

  // Arm, rod, horn.
  p.setPen(QPen(i.ink, 3.5, Qt::SolidLine, Qt::RoundCap));
  p.drawLine(servo, arm);
  p.drawLine(hinge, horn);
  p.setPen(QPen(i.soft, 2));
  p.drawLine(arm, horn);
  p.setPen(QPen(i.ink, 1.4));
  p.setBrush(i.sheet);
  for (const QPointF at : {servo, hinge}) p.drawEllipse(at, 4, 4);
  for (const auto& [at, which] : {std::pair{arm, Grip::arm}, {horn, Grip::horn}}) {
    const bool live = held_ == which || (hasFocus() && chosen_ == which);
    p.setPen(QPen(live ? i.teal : i.ink, live ? 2.4 : 1.4));
    p.setBrush(live ? i.wash : i.sheet);
    p.drawEllipse(at, 6, 6);
  }
  p.setPen(i.soft);
  p.setFont(look.text(8.5));
  const Units& u = Units::instance();
  const double under = f.side > 0 ? 10 : -24;
  p.drawText(QRectF(arm.x() - 50, arm.y() + under, 100, 14), Qt::AlignCenter,
             u"arm %1"_s.arg(u.length(linkage_.arm_m)));
  p.drawText(QRectF(horn.x() - 50, horn.y() + under, 100, 14), Qt::AlignCenter,
             u"horn %1"_s.arg(u.length(linkage_.horn_m)));
  p.drawText(QRectF((arm.x() + horn.x()) / 2 - 60, (arm.y() + horn.y()) / 2 - f.side * 8 - 14, 120, 14),
             Qt::AlignCenter, u"rod %1"_s.arg(u.length(linkage_.rod_m)));
  p.setFont(look.text(9));
  p.drawText(QRectF(6, 4, width() - 12, 18), Qt::AlignLeft | Qt::AlignVCenter,
             u"%1 µs: %2° %3 · %5, servo ahead, %4"_s.arg(pulse_us_, 0, 'f', 0)
                 .arg(std::abs(now->up_deg), 0, 'f', 1)
                 .arg(std::abs(now->up_deg) < 0.05 ? u"flush"_s
                      : now->up_deg > 0            ? (rudder ? u"right"_s : u"up"_s)
                      : rudder                     ? u"left"_s
                                                   : u"down"_s,
                      rudder ? u"seen from above"_s : u"seen from the left"_s, origin_));
  if (curve_ && !curve_->problems.empty()) {
    p.setPen(i.rust);
    p.setFont(look.text(9, true));
    p.drawText(QRectF(6, height() - 40, width() - 12, 36), Qt::AlignLeft | Qt::AlignBottom | Qt::TextWordWrap,
               QString::fromStdString(curve_->problems.front().words) + QLatin1Char('.'));
  }
}

void LinkageView::mousePressEvent(QMouseEvent* event) {
  held_ = Grip::none;
  held_frame_ = frame();
  Grip taken = Grip::none;
  for (const Grip g : {Grip::arm, Grip::horn})
    if (known_ && pose() && QLineF(grip(g), event->position()).length() < 14) taken = chosen_ = g;
  held_ = taken;
  update();
}

void LinkageView::mouseMoveEvent(QMouseEvent* event) {
  if (held_ == Grip::none) {
    const bool over = known_ && pose() &&
                      (QLineF(grip(Grip::arm), event->position()).length() < 14 ||
                       QLineF(grip(Grip::horn), event->position()).length() < 14);
    setCursor(over ? Qt::PointingHandCursor : Qt::ArrowCursor);
    return;
  }
  const Frame f = frame();
  const auto bar = FourBar::of(linkage_);
  if (!bar) return;
  const QPointF root = held_ == Grip::arm ? f.at(0, linkage_.drop_m) : f.at(bar->base_m(), 0);
  const double length =
      std::clamp(std::round(QLineF(root, event->position()).length() / f.scale * 2000) / 2000, least_m, most_m);
  Q_EMIT dragged(held_ == Grip::arm ? length : linkage_.arm_m, held_ == Grip::horn ? length : linkage_.horn_m);
}

void LinkageView::mouseReleaseEvent(QMouseEvent*) {
  if (held_ == Grip::none) return;
  held_ = Grip::none;
  update();
  Q_EMIT let_go();
}

void LinkageView::keyPressEvent(QKeyEvent* event) {
  double by = 0;
  switch (event->key()) {
    case Qt::Key_A: chosen_ = Grip::arm; break;
    case Qt::Key_H: chosen_ = Grip::horn; break;
    case Qt::Key_Plus: by = 0.0005; break;
    case Qt::Key_Minus: by = -0.0005; break;
    default: return QWidget::keyPressEvent(event);
  }
  update();
  if (by == 0 || !known_) return;
  const auto moved = [&](Grip g, double m) { return chosen_ == g ? std::clamp(m + by, least_m, most_m) : m; };
  Q_EMIT dragged(moved(Grip::arm, linkage_.arm_m), moved(Grip::horn, linkage_.horn_m));
  Q_EMIT let_go();
}

}  // namespace rigging::app
