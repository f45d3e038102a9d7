#include "stations/proof/proof_chain.h"

#include <QKeyEvent>
#include <QPainter>
#include <algorithm>

#include "look/look.h"

namespace rigging::app {
namespace {
constexpr int pitch = 46;
}

ProofChain::ProofChain(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("proof_chain"));
  setFocusPolicy(Qt::StrongFocus);
  setFixedWidth(196);
  setAccessibleName(tr("Bench checks"));
  setAccessibleDescription(tr("Up and down arrow keys walk the checks"));
  connect(&Look::instance(), &Look::changed, this, qOverload<>(&QWidget::update));
}

void ProofChain::set_checks(const std::vector<CheckStatus>& checks) {
  checks_ = checks;
  setMinimumHeight(sizeHint().height());
  update();
}

void ProofChain::set_current(const std::string& id) {
  current_ = id;
  update();
}

void ProofChain::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& i = inks();
  for (std::size_t k = 0; k < checks_.size(); ++k) {
    const CheckStatus& c = checks_[k];
    const QRectF box(0, static_cast<double>(k) * pitch + 2, width() - 2, pitch - 4);
    if (k > 0) {
      p.setPen(QPen(i.line, 2));
      p.drawLine(QPointF(17, box.top() - 10), QPointF(17, box.top() + 9));
    }
    if (c.check.id == current_) {
      p.setPen(hasFocus() ? QPen(i.teal, 2) : QPen(i.line, 1));
      p.setBrush(i.wash);
      p.drawRect(box.adjusted(1, 1, -1, -1));
    }
    static const QString words[] = {tr("to do"), tr("provisional"), tr("proven"), tr("gone stale")};
    const StationState mark = c.state == ProofState::fresh         ? StationState::proven
                              : c.state == ProofState::stale       ? StationState::stale
                              : c.state == ProofState::provisional ? StationState::planned
                                                                   : StationState::unknown;
    QRectF ring(9, box.center().y() - 8, 16, 16);
    if (c.state == ProofState::none) {
      p.setPen(QPen(i.soft, 1.2, Qt::DotLine));
      p.setBrush(i.sheet);
      p.drawEllipse(ring);
    } else {
      p.setPen(Qt::NoPen);
      p.setBrush(i.paper);
      p.drawEllipse(ring);
    }
    Look::instance().draw_station_mark(p, ring, mark);
    if (c.state == ProofState::stale)
      p.fillRect(QRectF(box.right() - 8, box.top() + 4, 5, box.height() - 8), QBrush(i.ochre, Qt::BDiagPattern));
    p.setPen(i.ink);
    p.setFont(Look::instance().text(9.5, c.check.id == current_));
    const QString name = QString::fromStdString(capital(std::string(word(c.check.axis)))) +
                         (c.check.kind == CheckKind::stick ? tr(" stick") : tr(" correction"));
    p.drawText(QRectF(34, box.top() + 4, box.width() - 44, 18), Qt::AlignVCenter, name);
    p.setPen(c.state == ProofState::fresh ? i.moss : c.state == ProofState::none ? i.soft : i.ochre);
    p.setFont(Look::instance().text(8.5));
    p.drawText(QRectF(34, box.top() + 20, box.width() - 44, 16), Qt::AlignVCenter, words[static_cast<int>(c.state)]);
  }
}

void ProofChain::mousePressEvent(QMouseEvent* event) {
  const auto k = static_cast<std::size_t>(event->position().y() / pitch);
  if (k < checks_.size()) Q_EMIT chosen(QString::fromStdString(checks_[k].check.id));
}

void ProofChain::keyPressEvent(QKeyEvent* event) {
  const auto at =
      std::find_if(checks_.begin(), checks_.end(), [&](const CheckStatus& c) { return c.check.id == current_; });
  if (event->key() == Qt::Key_Down && at != checks_.end() && at + 1 != checks_.end())
    return void(Q_EMIT chosen(QString::fromStdString((at + 1)->check.id)));
  if (event->key() == Qt::Key_Up && at != checks_.begin() && at != checks_.end())
    return void(Q_EMIT chosen(QString::fromStdString((at - 1)->check.id)));
  QWidget::keyPressEvent(event);
}

}  // namespace rigging::app
