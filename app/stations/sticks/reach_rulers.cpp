#include "stations/sticks/reach_rulers.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

#include "look/literals.h"
#include "look/look.h"
#include "signal/reception.h"

namespace rigging::app {
namespace {

constexpr int usual_row = 66, least_row = 54;
constexpr double names_px = 108;
constexpr double least_us = 850, most_us = 2150;

}  // namespace

ReachRulers::ReachRulers(QWidget* parent) : QWidget(parent) {
  setObjectName(u"reach_rulers"_s);
  setAccessibleName(u"Reach of the sticks"_s);
  setToolTip(
      u"Long ticks: where the pulses should land. Ink: how far the stick really reached. Triangle: where it is now."_s);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Maximum);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

QSize ReachRulers::sizeHint() const { return {640, std::max<int>(1, static_cast<int>(lines_.size())) * usual_row + 6}; }
QSize ReachRulers::minimumSizeHint() const {
  return {400, std::max<int>(1, static_cast<int>(lines_.size())) * least_row + 6};
}

void ReachRulers::set_lines(std::vector<ChannelLine> lines, const Transmitter& transmitter) {
  const bool other = lines.size() != lines_.size();
  lines_ = std::move(lines);
  transmitter_ = transmitter;
  QStringList words;
  for (const ChannelLine& l : lines_)
    words << u"%1: %2"_s.arg(QString::fromStdString(function_label(l.channel.function)),
                             QString::fromStdString(l.verdict));
  setAccessibleDescription(words.join(u"; "_s));
  if (other) updateGeometry();
  update();
}

void ReachRulers::set_now(const ChannelFrame* frame) {
  if (!moved(now_, frame)) return;
  now_ = frame ? std::optional(*frame) : std::nullopt;
  update();
}

void ReachRulers::set_asked(std::optional<ChannelFunction> function, int side) {
  asked_ = function;
  side_ = side;
  update();
}

void ReachRulers::set_again(bool possible) {
  again_ = possible;
  setMouseTracking(possible);
  update();
}

double ReachRulers::row_height() const {
  return std::min<double>(usual_row, (height() - 6.0) / std::max<double>(1, static_cast<double>(lines_.size())));
}

const ChannelLine* ReachRulers::again_at(QPointF at) const {
  const double row = (at.y() - 4) / row_height();
  if (!again_ || at.x() > names_px || row < 0 || row >= static_cast<double>(lines_.size())) return nullptr;
  const ChannelLine& line = lines_[static_cast<std::size_t>(row)];
  return line.read ? &line : nullptr;
}

void ReachRulers::mousePressEvent(QMouseEvent* e) {
  if (const ChannelLine* line = again_at(e->position())) Q_EMIT again(line->channel.function);
}

void ReachRulers::mouseMoveEvent(QMouseEvent* e) {
  setCursor(again_at(e->position()) ? Qt::PointingHandCursor : Qt::ArrowCursor);
}

void ReachRulers::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& i = inks();
  const Style& look = Style::instance();
  const double left = names_px + 10, right = width() - 262;
  const auto x = [&](double us) { return left + (us - least_us) / (most_us - least_us) * (right - left); };
  const double row_height = this->row_height();
  double top = 4;
  for (const ChannelLine& l : lines_) {
    const Channel& c = l.channel;
    const bool asked = asked_ == c.function;
    const double base = top + row_height / 2 + 1;
    if (asked) p.fillRect(QRectF(0, top - 2, width(), row_height - 2), i.wash);
    p.setPen(i.ink);
    p.setFont(look.text(10, true));
    QString name = QString::fromStdString(function_label(c.function));
    name[0] = name[0].toUpper();
    p.drawText(QRectF(6, top, names_px, 22), Qt::AlignVCenter, name);
    p.setFont(look.text(8.5));
    p.setPen(i.soft);
    p.drawText(QRectF(6, top + 20, names_px, 18), Qt::AlignVCenter,
               c.number > 0 ? u"channel %1%2"_s.arg(c.number).arg(c.reversed ? u", turned"_s : QString())
                            : u"no channel yet"_s);
    if (again_ && l.read && row_height >= least_row) {
      p.setPen(i.teal);
      QFont link = look.text(8.5);
      link.setUnderline(true);
      p.setFont(link);
      p.drawText(QRectF(6, top + 36, names_px - 6, 16), Qt::AlignVCenter, u"listen again"_s);
    }
    const QString sides[4][2] = {
        {u"left"_s, u"right"_s}, {u"forward"_s, u"back"_s}, {u"closed"_s, u"open"_s}, {u"left"_s, u"right"_s}};
    const int kind = c.function == ChannelFunction::pitch      ? 1
                     : c.function == ChannelFunction::throttle ? 2
                     : c.function == ChannelFunction::yaw      ? 3
                                                               : 0;

    // The ruler: a line with a small tick every 100 µs.
    p.setPen(QPen(i.line, 1));
    p.drawLine(QPointF(left, base), QPointF(right, base));
    for (int us = 900; us <= 2100; us += 100)
      p.drawLine(QPointF(x(us), base), QPointF(x(us), base - (us % 500 == 0 ? 7 : 4)));
    // Where the pulses should land.
    p.setFont(look.figures(8));
    const bool throttle = c.function == ChannelFunction::throttle;
    for (const double us : {l.wanted.low_us, l.wanted.centre_us, l.wanted.high_us}) {
      if (throttle && us == l.wanted.centre_us) continue;
      p.setPen(QPen(i.slate, 2));
      p.drawLine(QPointF(x(us), base - 15), QPointF(x(us), base + 3));
      p.setPen(i.slate);
      p.drawText(QRectF(x(us) - 24, base - 30, 48, 14), Qt::AlignCenter, QString::number(us, 'f', 0));
    }
    if (!l.read) {
      p.setPen(i.soft);
      p.setFont(look.text(8));
      p.drawText(QRectF(left, base + 14, 70, 14), Qt::AlignLeft, sides[kind][0]);
      p.drawText(QRectF(right - 70, base + 14, 70, 14), Qt::AlignRight, sides[kind][1]);
    }
    // How far it really reached: an inked line with a foot at each end and a dot at the centre.
    if (l.read) {
      const QColor ink = l.state == ChannelLine::State::lands    ? i.moss
                         : l.state == ChannelLine::State::usable ? i.ochre
                                                                 : i.rust;
      p.setPen(QPen(ink, 3, Qt::SolidLine, Qt::FlatCap));
      const double low = x(*c.low_us), high = x(*c.high_us), mid = x(*c.centre_us);
      p.drawLine(QPointF(low, base + 6), QPointF(high, base + 6));
      p.setPen(QPen(ink, 2));
      for (const double at : {low, high}) p.drawLine(QPointF(at, base + 1), QPointF(at, base + 11));
      p.setBrush(ink);
      if (!throttle) p.drawEllipse(QPointF(mid, base + 6), 3.2, 3.2);
      p.setFont(look.figures(8));
      p.setPen(ink);
      for (const double us : {*c.low_us, *c.centre_us, *c.high_us}) {
        if (throttle && us == *c.centre_us) continue;
        p.drawText(QRectF(std::clamp(x(us) - 28, left - 4, right - 52), base + 12, 56, 14), Qt::AlignCenter,
                   QString::number(us, 'f', 1));
      }
    }
    // Where the stick is now.
    if (now_ && c.number >= 1 && c.number <= now_->channels) {
      const double at =
          x(std::clamp(static_cast<double>(now_->pulse_us[static_cast<std::size_t>(c.number - 1)]), least_us, most_us));
      QPainterPath mark;
      mark.moveTo(at, base - 1);
      mark.lineTo(at - 5, base - 11);
      mark.lineTo(at + 5, base - 11);
      mark.closeSubpath();
      p.setPen(Qt::NoPen);
      p.setBrush(i.teal);
      p.drawPath(mark);
    }
    if (asked && side_ != 0) {
      p.setPen(QPen(i.teal, 2.4));
      const double from = x(1500 + side_ * 250), to = x(1500 + side_ * 440);
      p.drawLine(QPointF(from, base - 22), QPointF(to, base - 22));
      p.drawLine(QPointF(to, base - 22), QPointF(to - side_ * 7, base - 27));
      p.drawLine(QPointF(to, base - 22), QPointF(to - side_ * 7, base - 17));
    }

    // What to dial in.
    const QRectF box(right + 16, top, width() - right - 20, row_height - 8);
    if (l.dial && l.dial->changes) {
      const double third = box.width() / 3;
      const std::pair<QString, QString> cells[] = {
          {u"travel low"_s, QString::fromStdString(shown_travel(transmitter_, l.dial->travel_low_percent))},
          {u"sub-trim"_s, QString::fromStdString(shown_sub_trim(transmitter_, l.dial->sub_trim_us))},
          {u"travel high"_s, QString::fromStdString(shown_travel(transmitter_, l.dial->travel_high_percent))}};
      for (int k = 0; k < 3; ++k) {
        const QRectF cell(box.left() + k * third, box.top() + 4, third, box.height());
        p.setFont(look.text(8));
        p.setPen(i.soft);
        p.drawText(cell, Qt::AlignHCenter | Qt::AlignTop, cells[k].first);
        p.setFont(look.figures(12, true));
        p.setPen(i.ink);
        p.drawText(cell.adjusted(-6, 15, 6, 0), Qt::AlignHCenter | Qt::AlignTop, cells[k].second);
      }
      if (l.dial->turn_round || !l.dial->limits.empty()) {
        p.setFont(look.text(8));
        p.setPen(i.rust);
        p.drawText(box.adjusted(0, 38, 0, 8), Qt::AlignHCenter | Qt::AlignTop | Qt::TextWordWrap,
                   l.dial->turn_round ? u"turn its direction round first"_s : u"reaches its limit: see below"_s);
      }
    } else {
      p.setFont(look.text(9));
      p.setPen(l.state == ChannelLine::State::lands ? i.moss : i.soft);
      p.drawText(box, Qt::AlignVCenter | Qt::AlignLeft | Qt::TextWordWrap, QString::fromStdString(l.verdict));
    }
    top += row_height;
  }
}

}  // namespace rigging::app
