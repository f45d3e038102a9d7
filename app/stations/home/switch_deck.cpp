#include "stations/home/switch_deck.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

#include "base/number.h"
#include "look/literals.h"
#include "look/look.h"
#include "look/pieces.h"

namespace rigging::app {
namespace {

constexpr double head_px = 40, words_room_px = 92, most_wide_px = 250, most_high_px = 330, knob_px = 11;

}  // namespace

SwitchDeck::SwitchDeck(QWidget* parent) : QWidget(parent) {
  setObjectName(u"switch_deck"_s);
  setAccessibleName(u"The switches that choose modes"_s);
  setToolTip(u"Click a position, or use the arrow keys: left and right to another switch, up and down to move it"_s);
  setFocusPolicy(Qt::StrongFocus);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

void SwitchDeck::show_deck(ModeDeck deck) {
  deck_ = std::move(deck);
  at_.resize(deck_.switches.size());
  for (std::size_t k = 0; k < at_.size(); ++k)
    if (at_[k] >= deck_.switches[k].positions.size()) at_[k] = 0;
  hand_ = std::min(hand_, at_.empty() ? 0 : at_.size() - 1);
  update();
}

void SwitchDeck::move_switch(std::size_t which, std::size_t position) {
  if (which >= at_.size() || position >= deck_.switches[which].positions.size()) return;
  hand_ = which, at_[which] = position;
  // A channel of the same switch goes along: to the nearest way in which it can stand so.
  if (!chosen()) {
    const ModeCase* nearest = nullptr;
    const auto moved = [&](const ModeCase& c) {
      std::size_t n = 0;
      for (std::size_t k = 0; k < at_.size(); ++k) n += c.positions[k] != at_[k];
      return n;
    };
    for (const ModeCase& c : deck_.cases)
      if (c.positions[which] == position && (!nearest || moved(c) < moved(*nearest))) nearest = &c;
    if (nearest) at_ = nearest->positions;
  }
  if (const ModeCase* c = chosen()) setAccessibleDescription(said_of(c->mode + ": " + mode_words(c->mode)));
  update();
}

QRectF SwitchDeck::plate(std::size_t which) const {
  const auto n = static_cast<double>(std::max<std::size_t>(1, deck_.switches.size()));
  const double wide = std::min(most_wide_px, (width() - 16.0) / n);
  return {8 + (width() - 16 - wide * n) / 2 + wide * static_cast<double>(which) + 6, head_px, wide - 12,
          std::min(most_high_px, height() - head_px - words_room_px)};
}

QPointF SwitchDeck::knob(std::size_t which, std::size_t position) const {
  const QRectF box = plate(which).adjusted(0, 58, 0, -30);
  const auto last = static_cast<double>(std::max<std::size_t>(1, deck_.switches[which].positions.size() - 1));
  return {box.left() + 34, box.top() + box.height() * static_cast<double>(position) / last};
}

void SwitchDeck::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& i = inks();
  p.setFont(Style::instance().text(9));
  p.setPen(i.soft);
  if (deck_.switches.empty()) {
    p.drawText(rect().adjusted(30, 0, -30, 0), Qt::AlignCenter | Qt::TextWordWrap,
               u"No switch position chooses a mode yet. Lay out the first flight (beside), or put modes on switches at "
               "station sticks."_s);
    return;
  }
  p.drawText(QRectF(8, 6, width() - 16, 30), Qt::AlignLeft | Qt::TextWordWrap,
             u"Move the switches as you would in flight: below stands what flies then."_s);
  for (std::size_t k = 0; k < deck_.switches.size(); ++k) {
    const SwitchLine& s = deck_.switches[k];
    const QRectF box = plate(k);
    p.setBrush(i.sheet);
    p.setPen(QPen(hasFocus() && k == hand_ ? i.teal : i.line, hasFocus() && k == hand_ ? 2 : 1));
    p.drawRect(box);
    p.setPen(i.ink);
    p.setFont(Style::instance().text(9.5, true));
    p.drawText(box.adjusted(10, 6, -6, 0), Qt::AlignLeft | Qt::AlignTop,
               u"Channel %1"_s.arg(s.channel) + (s.measured ? QString() : u", not measured"_s));
    if (s.positions.empty()) continue;
    p.setPen(QPen(i.line, 8, Qt::SolidLine, Qt::RoundCap));
    p.drawLine(knob(k, 0), knob(k, s.positions.size() - 1));
    for (std::size_t n = 0; n < s.positions.size(); ++n) {
      const SwitchPosition& at = s.positions[n];
      const QPointF q = knob(k, n);
      const bool here = at_[k] == n, tight = at.guard_us < least_guard_us;
      p.setPen(QPen(here ? i.teal : i.soft, 2));
      p.setBrush(here ? i.teal : i.sheet);
      p.drawEllipse(q, here ? knob_px : 7, here ? knob_px : 7);
      p.setPen(here ? i.teal : i.ink);
      p.setFont(Style::instance().text(10, here));
      p.drawText(QRectF(q.x() + 20, q.y() - 17, box.right() - q.x() - 22, 18), Qt::AlignLeft | Qt::AlignVCenter,
                 at.mode.empty() ? (deck_.switches.size() > 1 ? u"off"_s : u"nothing"_s)
                                 : said_of(rigging::label_of(at.mode)));
      p.setPen(tight ? i.rust : i.soft);
      p.setFont(Style::instance().figures(8));
      p.drawText(QRectF(q.x() + 20, q.y() + 1, box.right() - q.x() - 22, 15), Qt::AlignLeft | Qt::AlignVCenter,
                 tight ? u"%1 µs, %2 from an edge"_s.arg(at.pulse_us, 0, 'f', 0).arg(at.guard_us, 0, 'f', 0)
                       : u"%1 µs"_s.arg(at.pulse_us, 0, 'f', 0));
    }
  }
  const ModeCase* c = chosen();
  if (!c) return;
  const QRectF foot(plate(0).left(), plate(0).bottom() + 14, width() - plate(0).left() - 8, words_room_px - 14);
  p.setFont(Style::instance().text(13, true));
  p.setPen(i.ink);
  p.drawText(foot, Qt::AlignLeft | Qt::AlignTop, c->mode.empty() ? u"nothing"_s : said_of(rigging::label_of(c->mode)));
  p.setFont(Style::instance().text(10));
  QString words = said_of(mode_words(c->mode));
  if (c->mode != "manual" && c->moves_to_manual > 0)
    words += c->moves_to_manual == 1 ? u" Manual is one movement away."_s
                                     : u" Manual is %1 movements away."_s.arg(c->moves_to_manual);
  p.drawText(foot.adjusted(0, 26, 0, 0), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, words);
}

void SwitchDeck::mousePressEvent(QMouseEvent* event) {
  for (std::size_t k = 0; k < deck_.switches.size(); ++k) {
    if (!plate(k).contains(event->position())) continue;
    std::size_t nearest = 0;
    for (std::size_t n = 0; n < deck_.switches[k].positions.size(); ++n)
      if (std::abs(knob(k, n).y() - event->position().y()) < std::abs(knob(k, nearest).y() - event->position().y()))
        nearest = n;
    move_switch(k, nearest);
  }
}

void SwitchDeck::keyPressEvent(QKeyEvent* event) {
  if (at_.empty()) return QWidget::keyPressEvent(event);
  switch (event->key()) {
    case Qt::Key_Left: hand_ = hand_ > 0 ? hand_ - 1 : 0; break;
    case Qt::Key_Right: hand_ = std::min(hand_ + 1, at_.size() - 1); break;
    case Qt::Key_Up:
      if (at_[hand_] > 0) move_switch(hand_, at_[hand_] - 1);
      break;
    case Qt::Key_Down: move_switch(hand_, at_[hand_] + 1); break;
    default: return QWidget::keyPressEvent(event);
  }
  update();
}

}  // namespace rigging::app
