#include "stations/wiring/board_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

#include "look/literals.h"
#include "look/look.h"

namespace rigging::app {
namespace {

constexpr double step_mm = 0.5, margin = 84;

double stepped(double mm, double most_mm) { return std::clamp(std::round(mm / step_mm) * step_mm, 0.0, most_mm); }

/// The edge that a place on the board is nearest to.
QString nearest_side(double x_mm, double y_mm, const ControllerClass& board) {
  const std::pair<double, const char*> sides[] = {
      {y_mm, "tail"}, {board.length_mm - y_mm, "nose"}, {x_mm, "left"}, {board.width_mm - x_mm, "right"}};
  return QString::fromLatin1(std::min_element(std::begin(sides), std::end(sides))->second);
}

}  // namespace

BoardView::BoardView(QWidget* parent) : QWidget(parent) {
  setObjectName(u"board_view"_s);
  setAccessibleName(u"The board from above, arrow up"_s);
  setToolTip(u"Drag a socket or pad. Arrow keys move the chosen one by half a millimetre; Tab goes to the next."_s);
  setFocusPolicy(Qt::StrongFocus);
  setMinimumSize(320, 320);
}

std::vector<BoardView::Spot> BoardView::spots() {
  std::vector<Spot> all;
  const auto add = [&](const char* list, std::vector<Terminal>& terminals, bool pad) {
    for (std::size_t i = 0; i < terminals.size(); ++i)
      all.push_back({u"/%1/%2"_s.arg(QLatin1String(list)).arg(i), &terminals[i], pad});
  };
  add("outputs", board_.outputs, false);
  add("ports", board_.ports, false);
  add("pads", board_.pads, true);
  return all;
}

void BoardView::show_board(const ControllerClass& board) {
  board_ = board;
  update();
}

void BoardView::choose(const QString& pointer) {
  chosen_ = pointer;
  update();
}

std::optional<BoardView::Spot> BoardView::chosen_spot() {
  for (const Spot& s : spots())
    if (chosen_ == s.pointer || chosen_.startsWith(s.pointer + QLatin1Char('/'))) return s;
  return std::nullopt;
}

QRectF BoardView::board() const {
  const double scale = std::min((width() - 2 * margin) / board_.width_mm, (height() - 2 * margin) / board_.length_mm);
  const QSizeF size(board_.width_mm * scale, board_.length_mm * scale);
  return {QPointF((width() - size.width()) / 2, (height() - size.height()) / 2), size};
}

QPointF BoardView::on_screen(const Terminal& t) const {
  const QRectF b = board();
  return {b.left() + t.x_mm / board_.width_mm * b.width(), b.bottom() - t.y_mm / board_.length_mm * b.height()};
}

QPointF BoardView::spot(const QString& pointer) const {
  for (const Spot& s : const_cast<BoardView*>(this)->spots())
    if (s.pointer == pointer) return on_screen(*s.terminal);
  return {};
}

void BoardView::move_to(const Spot& s, double x_mm, double y_mm) {
  s.terminal->x_mm = stepped(x_mm, board_.width_mm);
  s.terminal->y_mm = stepped(y_mm, board_.length_mm);
  if (!s.pad || !s.terminal->side.empty())
    s.terminal->side = nearest_side(s.terminal->x_mm, s.terminal->y_mm, board_).toStdString();
  update();
}

void BoardView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& ink = Style::instance().inks();
  p.fillRect(rect(), ink.sheet);
  const QRectF b = board();
  p.setPen(QPen(ink.ink, 1.6));
  p.setBrush(ink.wash);
  p.drawRect(b);
  // The arrow, and a scale.
  p.setPen(QPen(ink.soft, 1.4));
  const QPointF mid = b.center();
  p.drawLine(QPointF(mid.x(), mid.y() + 16), QPointF(mid.x(), mid.y() - 16));
  p.drawLine(QPointF(mid.x(), mid.y() - 16), QPointF(mid.x() - 6, mid.y() - 7));
  p.drawLine(QPointF(mid.x(), mid.y() - 16), QPointF(mid.x() + 6, mid.y() - 7));
  p.setFont(Style::instance().text(9));
  const double ten_mm = 10 * b.width() / board_.width_mm;
  const double right = width() - 12;
  p.drawLine(QPointF(right - ten_mm, 24), QPointF(right, 24));
  p.drawText(QPointF(right - ten_mm, 18), u"10 mm"_s);
  p.drawText(QPointF(12, 18),
             u"From above, arrow up · %1 × %2 mm · figures: timer group"_s.arg(board_.width_mm).arg(board_.length_mm));
  for (const Spot& s : spots()) {
    const QPointF at = on_screen(*s.terminal);
    const bool now = chosen_ == s.pointer || chosen_.startsWith(s.pointer + QLatin1Char('/'));
    const std::string& side = s.terminal->side;
    p.setPen(QPen(now ? ink.teal : ink.ink, now ? 2.4 : 1.2));
    p.setBrush(now ? ink.teal : ink.sheet);
    if (s.pad && side.empty())
      p.drawEllipse(at, 5, 5);
    else
      p.drawRect(QRectF(at.x() - 5, at.y() - 5, 10, 10));
    const QString label = QString::fromStdString(s.terminal->label);
    p.setPen(now ? ink.teal : ink.ink);
    if (s.terminal->timer_group > 0) {
      // Inward of its socket, so that what shares a pulse rate is seen.
      p.setPen(ink.soft);
      const double in_x = side == "left"    ? 10
                          : side == "right" ? -18
                                            : -3,
                   in_y = side == "tail"   ? -10
                          : side == "nose" ? 18
                                           : 4;
      p.drawText(at + QPointF(in_x, in_y), QString::number(s.terminal->timer_group));
      p.setPen(now ? ink.teal : ink.ink);
    }
    // Names stand outside of the board, along the way a plug leaves it.
    p.save();
    p.translate(at);
    const double wide = p.fontMetrics().horizontalAdvance(label);
    if (side == "tail" || side == "nose") {
      p.rotate(side == "tail" ? 90 : -90);
      p.drawText(QPointF((side == "tail" ? b.bottom() - at.y() : at.y() - b.top()) + 9, 4), label);
    } else if (side == "left") {
      p.drawText(QPointF(b.left() - at.x() - 9 - wide, 4), label);
    } else if (side == "right") {
      p.drawText(QPointF(b.right() - at.x() + 9, 4), label);
    } else {
      p.drawText(QPointF(8, 4), label);
    }
    p.restore();
  }
  if (hasFocus()) {
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(ink.teal, 2));
    p.drawRect(QRectF(rect()).adjusted(1, 1, -1, -1));
  }
}

void BoardView::mousePressEvent(QMouseEvent* event) {
  double nearest = 14;
  QString found;
  for (const Spot& s : spots()) {
    const QPointF d = on_screen(*s.terminal) - event->position();
    // Of two that lie on each other the chosen one is meant.
    if (const double away = std::hypot(d.x(), d.y()) - (s.pointer == chosen_ ? 1 : 0); away < nearest) {
      nearest = away;
      found = s.pointer;
    }
  }
  if (found.isEmpty()) return;
  dragging_ = true;
  choose(found);
  Q_EMIT chosen(found);
}

void BoardView::mouseMoveEvent(QMouseEvent* event) {
  const auto s = chosen_spot();
  if (!dragging_ || !s) return;
  const QRectF b = board();
  move_to(*s, (event->position().x() - b.left()) / b.width() * board_.width_mm,
          (b.bottom() - event->position().y()) / b.height() * board_.length_mm);
}

void BoardView::mouseReleaseEvent(QMouseEvent*) {
  if (const auto s = chosen_spot(); dragging_ && s)
    Q_EMIT moved(s->pointer, s->terminal->x_mm, s->terminal->y_mm, QString::fromStdString(s->terminal->side));
  dragging_ = false;
}

void BoardView::keyPressEvent(QKeyEvent* event) {
  const auto s = chosen_spot();
  const int dx = event->key() == Qt::Key_Right  ? 1
                 : event->key() == Qt::Key_Left ? -1
                                                : 0,
            dy = event->key() == Qt::Key_Up     ? 1
                 : event->key() == Qt::Key_Down ? -1
                                                : 0;
  if (!s || (dx == 0 && dy == 0)) return QWidget::keyPressEvent(event);
  move_to(*s, s->terminal->x_mm + dx * step_mm, s->terminal->y_mm + dy * step_mm);
  Q_EMIT moved(s->pointer, s->terminal->x_mm, s->terminal->y_mm, QString::fromStdString(s->terminal->side));
}

}  // namespace rigging::app
