#include "stations/wiring/wiring_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

#include "look/look.h"

namespace rigging::app {
namespace {

constexpr double sheet_w = 200;  // millimetres of the drawing across the widget

/// Leads keep their real colours in every theme; only minus turns light where the sheet is dark.
QColor strand_ink(const QString& strand) {
  if (strand == QLatin1String("minus"))
    return Look::instance().theme() == Theme::dark ? QColor("#B9A793") : QColor("#2B1D14");
  if (strand == QLatin1String("plus")) return QColor("#B3261E");
  if (strand == QLatin1String("signal")) return QColor("#C28A12");
  if (strand == QLatin1String("transmit")) return inks().teal;
  if (strand == QLatin1String("receive"))
    return Look::instance().theme() == Theme::dark ? QColor("#C588B2") : QColor("#7A3B69");
  return inks().slate;
}

}  // namespace

WiringView::WiringView(RigDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
  setObjectName(QStringLiteral("wiring_view"));
  setAccessibleName(tr("Board, parts and leads"));
  setToolTip(
      tr("Click a lead to trace it, drag its end at the board to another socket. Up and Down step through the leads."));
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
}

void WiringView::resizeEvent(QResizeEvent*) { refresh(); }

void WiringView::refresh() {
  scale_ = width() / sheet_w;
  layout_ = layout_wiring(document_.rig(), document_.catalogue(), sheet_w, height() / scale_);
  if (!document_.rig().lead(traced_)) traced_.clear();
  dragged_.clear();
  update();
}

void WiringView::trace(const std::string& lead) {
  traced_ = lead;
  update();
}

QPointF WiringView::at_socket(const std::string& socket) const {
  const auto* s = layout_.spot("controller", socket);
  return s ? on_screen(s->x, s->y) : QPointF();
}

QPainterPath WiringView::path_of(const WiringLayout::Curve& c, double offset) const {
  QPointF end = on_screen(c.xy[6], c.xy[7]), start = on_screen(c.xy[0], c.xy[1]);
  QPointF first = on_screen(c.xy[2], c.xy[3]), second = on_screen(c.xy[4], c.xy[5]);
  if (c.lead == dragged_) {
    const Lead* l = document_.rig().lead(c.lead);
    (l && l->from.part == "controller" ? start : end) = drag_at_;
  }
  const QPointF along = end - start;
  const double size = std::max(1.0, std::hypot(along.x(), along.y()));
  const QPointF side(-along.y() / size * offset, along.x() / size * offset);
  QPainterPath path(start + side);
  path.cubicTo(first + side, second + side, end + side);
  return path;
}

const WiringLayout::Curve* WiringView::curve_at(QPointF at) const {
  for (const WiringLayout::Curve& c : layout_.curves) {
    QPainterPathStroker stroker;
    stroker.setWidth(10);
    if (stroker.createStroke(path_of(c, 0)).contains(at)) return &c;
  }
  return nullptr;
}

std::string WiringView::lead_at_socket(const std::string& socket) const {
  // The traced one first, where several meet.
  const Lead* t = document_.rig().lead(traced_);
  if (t && far_end(*t, "controller", socket)) return traced_;
  for (const Lead& l : document_.rig().leads)
    if (far_end(l, "controller", socket)) return l.id;
  return {};
}

std::optional<Severity> WiringView::conflict_at(const std::string& socket) const {
  std::optional<Severity> worst;
  for (const Snag& s : document_.review().snags) {
    if (s.station != Station::wiring || s.severity == Severity::worth_knowing) continue;
    for (const Lead& l : document_.rig().leads) {
      const LeadEnd* far = far_end(l, "controller", socket);
      if (!far || (s.subject != l.id && s.subject != far->part)) continue;
      if (!worst || s.severity < *worst) worst = s.severity;
    }
    for (const Output& o : document_.rig().outputs)
      if (o.socket == socket && o.id == s.subject && (!worst || s.severity < *worst)) worst = s.severity;
  }
  return worst;
}

void WiringView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const ControllerClass* c = document_.controller();
  if (layout_.board_w > 0) {
    const QRectF board(on_screen(layout_.board_x, layout_.board_y), QSizeF(layout_.board_w, layout_.board_h) * scale_);
    p.setPen(QPen(inks().ink, 1.6));
    p.setBrush(inks().sheet);
    p.drawRoundedRect(board, 2, 2);
    const QPointF m(board.center().x(), on_screen(0, layout_.quiet_y).y() - 10);
    p.setPen(QPen(inks().soft, 1.4));
    p.drawLine(m + QPointF(0, 22), m + QPointF(0, -14));
    p.setBrush(inks().soft);
    p.drawPolygon(QPolygonF{m + QPointF(0, -22), m + QPointF(-5, -12), m + QPointF(5, -12)});
    p.setFont(Look::instance().text(9));
    p.drawText(QRectF(board.left() + 34, m.y() + 24, board.width() - 68, 34),
               Qt::AlignHCenter | Qt::AlignTop | Qt::TextWordWrap, c ? QString::fromStdString(c->name) : QString());
  }
  for (const int pass : {0, 1})
    for (const WiringLayout::Curve& curve : layout_.curves) {
      const bool traced = curve.lead == traced_;
      if (traced != (pass == 1)) continue;
      const bool dim = !traced_.empty() && !traced;
      if (traced) {
        QColor glow = inks().teal;
        glow.setAlphaF(0.22f);
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(glow, 3.0 * static_cast<double>(curve.strands.size()) + 9, Qt::SolidLine, Qt::RoundCap));
        p.drawPath(path_of(curve, 0));
      }
      for (std::size_t k = 0; k < curve.strands.size(); ++k) {
        QColor ink = strand_ink(QLatin1String(curve.strands[k]));
        if (dim) ink.setAlphaF(0.22f);
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(ink, traced ? 2.2 : 1.7));
        p.drawPath(
            path_of(curve, (static_cast<double>(k) - (static_cast<double>(curve.strands.size()) - 1) / 2) * 2.7));
      }
      if (curve.plus_removed || curve.crossed_wrongly) {
        const QPainterPath path = path_of(curve, 0);
        const QPointF at = path.pointAtPercent(0.5);
        const QString text = curve.plus_removed ? tr("red out") : tr("turned");
        p.setFont(Look::instance().text(8, true));
        const QRectF box =
            QFontMetricsF(p.font()).boundingRect(text).translated(at + QPointF(6, -4)).adjusted(-3, -1, 3, 1);
        p.setPen(Qt::NoPen);
        p.setBrush(inks().sheet);
        p.drawRect(box);
        p.setPen(inks().rust);
        p.drawText(at + QPointF(6, -4), text);
      }
    }
  for (const WiringLayout::Box& b : layout_.boxes) {
    const QRectF box(on_screen(b.x, b.y), QSizeF(b.w, b.h) * scale_);
    const bool related = [&] {
      const Lead* l = document_.rig().lead(traced_);
      return l && (l->from.part == b.part || l->to.part == b.part);
    }();
    const ConsumerReport* fed = document_.review().power.consumer(b.part);
    const bool dark = fed && !fed->lit[static_cast<std::size_t>(SupplyState::battery)];
    p.setPen(QPen(dark ? inks().rust : related ? inks().teal : inks().line, dark || related ? 2 : 1.2));
    p.setBrush(inks().sheet);
    p.drawRect(box);
    if (dark) {
      p.setPen(inks().rust);
      p.setFont(Look::instance().text(8, true));
      p.drawText(box.adjusted(6, 3, -6, 0), Qt::AlignTop | Qt::AlignRight, tr("dark"));
    }
    p.setPen(dark ? inks().rust : inks().ink);
    p.setFont(Look::instance().text(8.5, true));
    p.drawText(box.adjusted(6, 2, -4, 0), Qt::AlignTop | Qt::AlignLeft,
               QFontMetrics(p.font()).elidedText(QString::fromStdString(capital(b.name)), Qt::ElideMiddle,
                                                 static_cast<int>(box.width()) - 10));
  }
  for (const WiringLayout::Spot& s : layout_.spots) {
    const QPointF at = on_screen(s.x, s.y);
    p.setFont(Look::instance().text(7.5));
    if (!s.on_board) {
      p.setPen(Qt::NoPen);
      p.setBrush(inks().ink);
      p.drawEllipse(at, 2.4, 2.4);
      p.setPen(inks().soft);
      const QString label = QString::fromStdString(s.label);
      if (s.out_x != 0)
        p.drawText(QRectF(s.out_x > 0 ? at.x() - 128 : at.x() + 6, at.y() - 8, 122, 16),
                   (s.out_x > 0 ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter, label);
      else
        p.drawText(QRectF(at.x() - 40, at.y() + 17, 80, 16), Qt::AlignCenter, label);
      continue;
    }
    const QRectF box(at - QPointF(5.5, 5.5), QSizeF(11, 11));
    p.setPen(QPen(inks().ink, 1.3));
    p.setBrush(inks().paper);
    if (s.pad)
      p.drawEllipse(box);
    else
      p.drawRect(box);
    if (const auto severity = conflict_at(s.terminal))
      Look::instance().draw_severity(p, box.adjusted(-1, -1, 1, 1), *severity);
    p.setPen(inks().ink);
    const QString label = QString::fromStdString(s.label);
    if (s.out_x != 0)
      p.drawText(QRectF(s.out_x > 0 ? at.x() - 74 : at.x() + 9, at.y() - 8, 65, 16),
                 (s.out_x > 0 ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter, label);
    else
      p.drawText(QRectF(at.x() - 30, s.out_y > 0 ? at.y() - 22 : at.y() + 7, 60, 14), Qt::AlignCenter, label);
  }
  if (!dragged_.empty()) {
    const auto* near = layout_.nearest_board_spot(drag_at_.x() / scale_, drag_at_.y() / scale_, 6);
    if (near) {
      p.setPen(QPen(inks().teal, 2.4));
      p.setBrush(Qt::NoBrush);
      p.drawEllipse(on_screen(near->x, near->y), 11, 11);
    }
  }
  if (hasFocus()) {
    p.setPen(QPen(inks().teal, 2));
    p.setBrush(Qt::NoBrush);
    p.drawRect(rect().adjusted(1, 1, -1, -1));
  }
}

void WiringView::mousePressEvent(QMouseEvent* e) {
  const QPointF at = e->position();
  if (const auto* spot = layout_.nearest_board_spot(at.x() / scale_, at.y() / scale_, 3.2)) {
    const std::string lead = lead_at_socket(spot->terminal);
    if (!lead.empty()) {
      dragged_ = traced_ = lead;
      drag_at_ = at;
      Q_EMIT picked(lead);
      update();
      return;
    }
  }
  const auto* curve = curve_at(at);
  traced_ = curve ? curve->lead : std::string();
  Q_EMIT picked(traced_);
  update();
}

void WiringView::mouseMoveEvent(QMouseEvent* e) {
  const QPointF at = e->position();
  if (!dragged_.empty()) {
    drag_at_ = at;
    update();
    return;
  }
  const auto* spot = layout_.nearest_board_spot(at.x() / scale_, at.y() / scale_, 3.2);
  setCursor(spot && !lead_at_socket(spot->terminal).empty() ? Qt::OpenHandCursor
            : curve_at(at)                                  ? Qt::PointingHandCursor
                                                            : Qt::ArrowCursor);
}

void WiringView::mouseReleaseEvent(QMouseEvent*) {
  if (dragged_.empty()) return;
  const std::string lead = dragged_;
  dragged_.clear();
  const auto* near = layout_.nearest_board_spot(drag_at_.x() / scale_, drag_at_.y() / scale_, 6);
  update();
  const Lead* l = document_.rig().lead(lead);
  if (!near || !l || far_end(*l, "controller", near->terminal)) return;
  Q_EMIT moved(lead, near->terminal);
}

void WiringView::keyPressEvent(QKeyEvent* e) {
  const auto& leads = document_.rig().leads;
  if ((e->key() != Qt::Key_Up && e->key() != Qt::Key_Down) || leads.empty()) return QWidget::keyPressEvent(e);
  const auto it = std::find_if(leads.begin(), leads.end(), [&](const Lead& l) { return l.id == traced_; });
  const auto n = static_cast<std::ptrdiff_t>(leads.size());
  const std::ptrdiff_t at = it == leads.end() ? (e->key() == Qt::Key_Down ? 0 : n - 1)
                                              : (it - leads.begin() + (e->key() == Qt::Key_Down ? 1 : n - 1)) % n;
  traced_ = leads[static_cast<std::size_t>(at)].id;
  Q_EMIT picked(traced_);
  update();
}

}  // namespace rigging::app
