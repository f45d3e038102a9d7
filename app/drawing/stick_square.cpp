#include "drawing/stick_square.h"

#include <QKeyEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "look/literals.h"
#include "look/look.h"

namespace rigging::app {

StickSquare::StickSquare(QWidget* parent) : QWidget(parent) {
  setFocusPolicy(Qt::StrongFocus);
  setFixedSize(190, 190);
  setAccessibleName(u"Roll and pitch stick"_s);
  setAccessibleDescription(u"Drag, or use the arrow keys; Home centres"_s);
  setObjectName(u"stick_square"_s);
  setToolTip(
      u"Drag the stick. Hatched: there an output asks for more than its travel. Dotted: there half a full correction "
      "would be cut. Double-click centres."_s);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

void StickSquare::set_rig(const Rig& rig, const ControlMargin& room) {
  rig_ = rig;
  room_ = room;
  update();
}

void StickSquare::set_command(const Command& command) {
  command_ = command;
  update();
}

QRectF StickSquare::square() const { return QRectF(18, 16, width() - 36, height() - 36); }

void StickSquare::paintEvent(QPaintEvent*) {
  QPainter p(this);
  const Inks& i = inks();
  const QRectF box = square();
  p.fillRect(box, i.sheet);
  constexpr int steps = 36;
  const double cell = box.width() / steps;
  const QBrush hatch(i.ochre, Qt::BDiagPattern);
  for (int x = 0; x < steps; ++x)
    for (int y = 0; y < steps; ++y) {
      Command c = command_;
      c.roll = 2 * (x + 0.5) / steps - 1;
      c.pitch = 2 * (y + 0.5) / steps - 1;
      const int r = static_cast<int>(std::lround((c.roll + 1) / 2 * ControlMargin::steps)),
                q = static_cast<int>(std::lround((c.pitch + 1) / 2 * ControlMargin::steps));
      if (room_.at(r, q) < half_correction)
        p.fillRect(QRectF(box.left() + x * cell, box.top() + y * cell, cell + 0.5, cell + 0.5),
                   QBrush(i.slate, Qt::Dense7Pattern));
      if (std::any_of(rig_.outputs.begin(), rig_.outputs.end(), [&](const Output& o) {
            return !o.surfaces.empty() && o.mix.throttle == 0 && mixed(o, c).saturated;
          }))
        p.fillRect(QRectF(box.left() + x * cell, box.top() + y * cell, cell + 0.5, cell + 0.5), hatch);
    }
  p.setPen(QPen(i.line, 1));
  p.drawLine(QPointF(box.center().x(), box.top()), QPointF(box.center().x(), box.bottom()));
  p.drawLine(QPointF(box.left(), box.center().y()), QPointF(box.right(), box.center().y()));
  p.setPen(QPen(hasFocus() ? i.teal : i.ink, hasFocus() ? 2 : 1));
  p.setBrush(Qt::NoBrush);
  p.drawRect(box);
  p.setRenderHint(QPainter::Antialiasing);
  // Stick back is nose up: back is down in the picture.
  const QPointF at(box.center().x() + command_.roll * box.width() / 2,
                   box.center().y() + command_.pitch * box.height() / 2);
  p.setPen(QPen(i.sheet, 2));
  p.setBrush(i.teal);
  p.drawEllipse(at, 8, 8);
  p.setPen(i.soft);
  p.setFont(Style::instance().text(8));
  // What does not fit beside the square in large letters is said shorter.
  const auto fitting = [&](const QString& whole, const QString& shorter) {
    return p.fontMetrics().horizontalAdvance(whole) <= width() ? whole : shorter;
  };
  const int line = p.fontMetrics().height();
  p.drawText(QRectF(0, 15 - line, width(), line), Qt::AlignCenter,
             fitting(u"stick forward: nose down"_s, u"nose down"_s));
  p.drawText(QRectF(0, height() - 19, width(), line), Qt::AlignCenter, fitting(u"stick back: nose up"_s, u"nose up"_s));
  // It stays where it is put, so that one can look; how a hand lets go of it stands there then.
  if (std::abs(command_.roll) > 0.02 || std::abs(command_.pitch) > 0.02)
    p.drawText(QRectF(box.left(), command_.pitch > 0.5 ? box.top() + 4 : box.bottom() - 18, box.width(), 14),
               Qt::AlignCenter, u"double click: let go"_s);
}

void StickSquare::drag(QPointF pos) {
  const QRectF box = square();
  command_.roll = std::clamp((pos.x() - box.center().x()) / (box.width() / 2), -1.0, 1.0);
  command_.pitch = std::clamp((pos.y() - box.center().y()) / (box.height() / 2), -1.0, 1.0);
  update();
  Q_EMIT moved(command_.roll, command_.pitch);
}

void StickSquare::mousePressEvent(QMouseEvent* event) { drag(event->position()); }
void StickSquare::mouseMoveEvent(QMouseEvent* event) {
  if (event->buttons() & Qt::LeftButton) drag(event->position());
}
void StickSquare::mouseDoubleClickEvent(QMouseEvent*) { drag(square().center()); }

void StickSquare::keyPressEvent(QKeyEvent* event) {
  double roll = command_.roll, pitch = command_.pitch;
  switch (event->key()) {
    case Qt::Key_Left: roll -= 0.1; break;
    case Qt::Key_Right: roll += 0.1; break;
    case Qt::Key_Up: pitch -= 0.1; break;
    case Qt::Key_Down: pitch += 0.1; break;
    case Qt::Key_Home: roll = pitch = 0; break;
    default: return QWidget::keyPressEvent(event);
  }
  const QRectF box = square();
  drag({box.center().x() + std::clamp(roll, -1.0, 1.0) * box.width() / 2,
        box.center().y() + std::clamp(pitch, -1.0, 1.0) * box.height() / 2});
}

}  // namespace rigging::app
