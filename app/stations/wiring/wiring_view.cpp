#include "stations/wiring/wiring_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

#include "base/polyline.h"
#include "look/literals.h"
#include "look/look.h"

namespace rigging::app {
namespace {

constexpr double widest_mm = 200;    // of the drawing across the widget, where it is large enough
constexpr double least_scale = 4.6;  // pixels a millimetre at the usual text size: below that the names can't be read
constexpr double corner_mm = 1.6;

/// Along the corners, rounded, from the drawing to the screen.
QPainterPath rounded(const std::vector<Eigen::Vector2d>& corners, double round_mm, double scale) {
  const auto at = [&](const Eigen::Vector2d& p) { return QPointF(p.x(), p.y()) * scale; };
  QPainterPath path(at(corners.front()));
  for (const Bend& b : bends(corners, round_mm)) {
    path.lineTo(at(b.enter));
    path.quadTo(at(b.corner), at(b.leave));
  }
  path.lineTo(at(corners.back()));
  return path;
}

/// Leads keep their real colours in every theme; only minus turns light where the sheet is dark.
QColor strand_ink(const QString& strand) {
  if (strand == QLatin1String("minus"))
    return Style::instance().theme() == Theme::dark ? QColor("#B9A793") : QColor("#2B1D14");
  if (strand == QLatin1String("plus")) return QColor("#B3261E");
  if (strand == QLatin1String("signal")) return QColor("#C28A12");
  if (strand == QLatin1String("transmit")) return inks().teal;
  if (strand == QLatin1String("receive"))
    return Style::instance().theme() == Theme::dark ? QColor("#C588B2") : QColor("#7A3B69");
  return inks().slate;
}

}  // namespace

WiringView::WiringView(RigDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
  setObjectName(u"wiring_view"_s);
  setAccessibleName(u"Board, parts and leads"_s);
  setToolTip(
      u"Click a lead to trace it, drag its end at the board to another socket. Up and Down step through the leads."_s);
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
}

QSize WiringView::minimumSizeHint() const {
  return {420,
          static_cast<int>(290 * Style::instance().text().pointSizeF() / 10)};  // below that its words can't be read
}

void WiringView::resizeEvent(QResizeEvent*) { refresh(); }

void WiringView::refresh() {
  const double text = Style::instance().text_scale();
  const double wanted = std::max(width() / widest_mm, least_scale * text);
  layout_ = layout_wiring(document_.rig(), document_.catalogue(), width() / wanted, height() / wanted);
  scale_ = width() / layout_.width;
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

QPainterPath WiringView::path_of(const WiringLayout::Line& line, double offset_mm) const {
  if (line.lead != dragged_) return rounded(beside(line.corners, offset_mm), corner_mm - offset_mm, scale_);
  // While its end is in the hand, straight from the part to the hand.
  const Lead* l = document_.rig().lead(line.lead);
  const Eigen::Vector2d& still = l && l->from.part == "controller" ? line.corners.back() : line.corners.front();
  return rounded(beside({still, {drag_at_.x() / scale_, drag_at_.y() / scale_}}, offset_mm), 0, scale_);
}

const WiringLayout::Line* WiringView::line_at(QPointF at) const {
  for (const WiringLayout::Line& line : layout_.lines) {
    QPainterPathStroker stroker;
    stroker.setWidth(2.2 * scale_);
    if (stroker.createStroke(path_of(line, 0)).contains(at)) return &line;
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
    const QPointF m(board.center().x(), on_screen(0, layout_.quiet_y).y() - 3 * scale_);
    p.setPen(QPen(inks().soft, 1.4));
    p.drawLine(m + QPointF(0, 4 * scale_), m + QPointF(0, -2.8 * scale_));
    p.setBrush(inks().soft);
    p.drawPolygon(QPolygonF{m + QPointF(0, -4.4 * scale_), m + QPointF(-scale_, -2.4 * scale_),
                            m + QPointF(scale_, -2.4 * scale_)});
    p.setFont(font(2.3));
    p.drawText(QRectF(board.left() + 7 * scale_, m.y() + 4.6 * scale_, board.width() - 14 * scale_, 7 * scale_),
               Qt::AlignHCenter | Qt::AlignTop | Qt::TextWordWrap, c ? QString::fromStdString(c->name) : QString());
  }
  for (const int pass : {0, 1})
    for (const WiringLayout::Line& line : layout_.lines)
      if ((line.lead == traced_) == (pass == 1)) draw_lead(p, line);
  draw_parts(p);
  draw_sockets(p);
  for (const WiringLayout::Line& line : layout_.lines)
    if (line.lead != dragged_) draw_number(p, line);
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

/// Text grows with the drawing: letters of that height.
QFont WiringView::font(double mm, bool bold) const {
  QFont f = Style::instance().text(9, bold);
  f.setPixelSize(std::max(6, static_cast<int>(std::lround(mm * scale_))));
  return f;
}

void WiringView::draw_lead(QPainter& p, const WiringLayout::Line& line) const {
  const bool traced = line.lead == traced_, dim = !traced_.empty() && !traced;
  const double strands = static_cast<double>(line.strands.size());
  p.setBrush(Qt::NoBrush);
  // The sheet's colour beneath, so that the eye stays on one lead where two cross.
  QColor under = inks().paper;
  if (traced) {
    under = inks().teal;
    under.setAlphaF(0.22f);
  }
  p.setPen(QPen(under, (0.62 * strands + (traced ? 1.6 : 0.7)) * scale_, Qt::SolidLine, Qt::FlatCap));
  p.drawPath(path_of(line, 0));
  for (std::size_t k = 0; k < line.strands.size(); ++k) {
    QColor ink = strand_ink(QLatin1String(line.strands[k]));
    if (dim) ink.setAlphaF(0.3f);
    p.setPen(QPen(ink, (traced ? 0.42 : 0.36) * scale_));
    p.drawPath(path_of(line, (static_cast<double>(k) - (strands - 1) / 2) * 0.62));
  }
}

/// The number that the lead has in the table, and what is special about it.
void WiringView::draw_number(QPainter& p, const WiringLayout::Line& line) const {
  const QPointF at = on_screen(line.sign.x(), line.sign.y());
  p.setPen(QPen(line.lead == traced_ ? inks().teal : inks().soft, line.lead == traced_ ? 1.6 : 0.8));
  p.setBrush(inks().sheet);
  p.drawEllipse(at, 1.7 * scale_, 1.7 * scale_);
  p.setPen(inks().ink);
  p.setFont(font(2.0));
  p.drawText(QRectF(at - QPointF(4, 2) * scale_, QSizeF(8, 4) * scale_), Qt::AlignCenter, QString::number(line.number));
  if (!line.plus_removed && !line.crossed_wrongly) return;
  const QString text = line.plus_removed ? u"red out"_s : u"turned"_s;
  p.setFont(font(2.1, true));
  const QRectF box(at + QPointF(2.1, -1.5) * scale_,
                   QSizeF(QFontMetricsF(p.font()).horizontalAdvance(text) + 6, 3 * scale_));
  p.setPen(Qt::NoPen);
  p.setBrush(inks().sheet);
  p.drawRect(box);
  p.setPen(inks().rust);
  p.drawText(box, Qt::AlignCenter, text);
}

void WiringView::draw_parts(QPainter& p) const {
  const Lead* lead = document_.rig().lead(traced_);
  for (const WiringLayout::Box& b : layout_.boxes) {
    const QRectF box(on_screen(b.x, b.y), QSizeF(b.w, b.h) * scale_);
    const bool related = lead && (lead->from.part == b.part || lead->to.part == b.part);
    const ConsumerReport* fed = document_.review().reports.power().consumer(b.part);
    const bool dark = fed && !fed->powered[static_cast<std::size_t>(SupplyState::battery)];
    p.setPen(QPen(dark ? inks().rust : related ? inks().teal : inks().line, dark || related ? 2 : 1.2));
    p.setBrush(inks().sheet);
    p.drawRect(box);
    p.setPen(dark ? inks().rust : inks().ink);
    p.setFont(font(2.3, true));
    for (std::size_t i = 0; i < b.name.size(); ++i) {
      const QRectF line(box.left() + 1.2 * scale_, (b.name_y + 3.0 * static_cast<double>(i)) * scale_,
                        box.width() - 2 * scale_, 3 * scale_);
      const QString dark_word = dark && i == 0 ? u"dark"_s : QString();
      const int taken = dark_word.isEmpty() ? 0 : QFontMetrics(p.font()).horizontalAdvance(dark_word) + 6;
      p.drawText(line, Qt::AlignLeft | Qt::AlignVCenter,
                 QFontMetrics(p.font()).elidedText(QString::fromStdString(i == 0 ? capital(b.name[0]) : b.name[i]),
                                                   Qt::ElideMiddle, static_cast<int>(line.width()) - taken));
      p.drawText(line, Qt::AlignRight | Qt::AlignVCenter, dark_word);
    }
  }
}

void WiringView::draw_sockets(QPainter& p) const {
  p.setFont(font(2.1));
  for (const WiringLayout::Spot& s : layout_.spots) {
    const QPointF at = on_screen(s.x, s.y);
    const QString label = QString::fromStdString(s.label);
    // Inside the part or the board, away from the leads.
    const double aside = (s.on_board ? 1.9 : 1.4) * scale_, inward = (s.inner ? 5.2 : s.on_board ? 2.9 : 2.2) * scale_;
    const QRectF beside_it(s.out_x > 0 ? at.x() - aside - 40 * scale_ : at.x() + aside, at.y() - 2 * scale_,
                           40 * scale_, 4 * scale_);
    const QRectF within(at.x() - 20 * scale_, at.y() - s.out_y * inward - 2 * scale_, 40 * scale_, 4 * scale_);
    const QRectF room = s.out_x != 0 ? beside_it : within;
    const Qt::Alignment align = (s.out_x > 0   ? Qt::AlignRight
                                 : s.out_x < 0 ? Qt::AlignLeft
                                               : Qt::AlignHCenter) |
                                Qt::AlignVCenter;
    if (s.on_board) {
      const QRectF box(at - QPointF(1.1, 1.1) * scale_, QSizeF(2.2, 2.2) * scale_);
      p.setPen(QPen(inks().ink, 1.3));
      p.setBrush(inks().paper);
      if (s.pad)
        p.drawEllipse(box);
      else
        p.drawRect(box);
      if (const auto severity = conflict_at(s.terminal))
        Style::instance().draw_severity(p, box.adjusted(-1, -1, 1, 1), *severity);
      p.setPen(inks().ink);
    } else {
      p.setPen(Qt::NoPen);
      p.setBrush(inks().ink);
      p.drawEllipse(at, 0.5 * scale_, 0.5 * scale_);
      p.setPen(inks().soft);
    }
    p.drawText(room, align, label);
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
  const auto* line = line_at(at);
  traced_ = line ? line->lead : std::string();
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
            : line_at(at)                                   ? Qt::PointingHandCursor
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
