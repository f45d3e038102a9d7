#include "stations/proof/proof_chain.h"

#include <QKeyEvent>
#include <QPainter>
#include <algorithm>

#include "look/literals.h"
#include "look/pieces.h"

namespace rigging::app {
namespace {

constexpr int roomy = 46, tight = 21;

/// What stands together as one link: subjects of a family, what one station reads ("senses.gyro", "senses.rotation"),
/// the looks that belong to the way home, and what is done outside.
std::string together(const CheckFamily& family) {
  if (family.outside) return "under the sky";
  const std::size_t dot = family.id.find('.');
  if (family.counts_for == Station::home) return "way home";
  if (dot == std::string::npos || !family.by_station) return family.id;
  const std::string station = family.id.substr(0, dot);
  return station == "senses" ? "sensors" : station;
}

}  // namespace

ProofChain::ProofChain(QWidget* parent) : QWidget(parent) {
  setObjectName(u"proof_chain"_s);
  setFocusPolicy(Qt::StrongFocus);
  keep_width(this, 196);
  setAccessibleName(u"Bench checks"_s);
  setAccessibleDescription(u"Up and down arrow keys walk the checks"_s);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

void ProofChain::set_checks(const std::vector<CheckStatus>& checks) {
  links_.clear();
  const QString words[] = {u"to do"_s, u"provisional"_s, u"proven"_s, u"gone stale"_s};
  const auto rank = [](ProofState s) {  // worst first
    return s == ProofState::stale ? 0 : s == ProofState::none ? 1 : s == ProofState::provisional ? 2 : 3;
  };
  for (std::size_t i = 0; i < checks.size();) {
    const CheckStatus& c = checks[i];
    std::size_t end = i + 1;
    while (end < checks.size() && together(*checks[end].family) == together(*c.family)) ++end;
    const bool one_family =
        std::all_of(checks.begin() + static_cast<std::ptrdiff_t>(i), checks.begin() + static_cast<std::ptrdiff_t>(end),
                    [&](const CheckStatus& x) { return x.family == c.family; });
    if ((one_family && !c.family->grouped) || end - i == 1) {
      const QString name = !c.family->name.empty() ? QString::fromStdString(c.family->name)
                           : c.id.subject.empty() || c.family->guides
                               ? QString::fromStdString(c.title)
                               : QString::fromStdString(capital(c.id.subject) + " " + c.family->id);
      links_.push_back({c.id.text(), name, c.state, words[static_cast<int>(c.state)], {c.id.text()}});
      ++i;
      continue;
    }
    const CheckStatus* worst = &c;
    std::size_t fresh = 0;
    std::vector<std::string> ids;
    for (; i < end; ++i) {
      ids.push_back(checks[i].id.text());
      fresh += checks[i].stands();
      if (rank(checks[i].state) < rank(worst->state)) worst = &checks[i];
    }
    links_.push_back({worst->id.text(),
                      QString::fromStdString(capital(one_family ? c.family->many : together(*c.family))), worst->state,
                      (c.family->guides ? u"%1 of %2 done"_s : u"%1 of %2 proven"_s).arg(fresh).arg(ids.size()), ids});
  }
  setMinimumHeight(static_cast<int>(links_.size()) * tight + 8);
  update();
}

void ProofChain::set_current(const std::string& id) {
  current_ = id;
  update();
}

int ProofChain::pitch() const {
  const int links = std::max<int>(1, static_cast<int>(links_.size()));
  return std::clamp((height() - 8) / links, tight, roomy);
}

void ProofChain::paintEvent(QPaintEvent*) {
  const int pitch = this->pitch();
  const bool one_line = pitch < 40;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& i = inks();
  for (std::size_t k = 0; k < links_.size(); ++k) {
    const Link& c = links_[k];
    const QRectF box(0, static_cast<double>(k) * pitch + 2, width() - 2, pitch - 4);
    if (k > 0) {
      p.setPen(QPen(i.line, 2));
      p.drawLine(QPointF(17, box.center().y() - pitch + 9), QPointF(17, box.center().y() - 9));
    }
    if (c.holds(current_)) {
      p.setPen(hasFocus() ? QPen(i.teal, 2) : QPen(i.line, 1));
      p.setBrush(i.wash);
      p.drawRect(box.adjusted(1, 1, -1, -1));
    }
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
    Style::instance().draw_station_mark(p, ring, mark);
    if (c.state == ProofState::stale)
      p.fillRect(QRectF(box.right() - 8, box.top() + 4, 5, box.height() - 8), QBrush(i.ochre, Qt::BDiagPattern));
    p.setPen(i.ink);
    p.setFont(Style::instance().text(9.5, c.holds(current_)));
    p.drawText(QRectF(34, one_line ? box.top() : box.top() + 4, box.width() - 44, one_line ? box.height() : 18),
               Qt::AlignVCenter,
               p.fontMetrics().elidedText(c.name, Qt::ElideRight, static_cast<int>(box.width() - 44)));
    if (one_line) continue;
    p.setPen(c.state == ProofState::fresh ? i.moss : c.state == ProofState::none ? i.soft : i.ochre);
    p.setFont(Style::instance().text(8.5));
    p.drawText(QRectF(34, box.top() + 20, box.width() - 44, 16), Qt::AlignVCenter, c.words);
  }
}

void ProofChain::mousePressEvent(QMouseEvent* event) {
  const auto k = static_cast<std::size_t>(event->position().y() / pitch());
  if (k < links_.size()) Q_EMIT chosen(QString::fromStdString(links_[k].id));
}

void ProofChain::keyPressEvent(QKeyEvent* event) {
  const auto at = std::find_if(links_.begin(), links_.end(), [&](const Link& l) { return l.holds(current_); });
  if (event->key() == Qt::Key_Down && at != links_.end() && at + 1 != links_.end())
    return void(Q_EMIT chosen(QString::fromStdString((at + 1)->id)));
  if (event->key() == Qt::Key_Up && at != links_.begin() && at != links_.end())
    return void(Q_EMIT chosen(QString::fromStdString((at - 1)->id)));
  QWidget::keyPressEvent(event);
}

}  // namespace rigging::app
