#include "stations/sticks/signal_strip.h"

#include <QPainter>

#include "look/literals.h"
#include "look/look.h"

namespace rigging::app {

SignalStrip::SignalStrip(QWidget* parent) : QWidget(parent) {
  setObjectName(u"signal_strip"_s);
  setAccessibleName(u"Recent signal"_s);
  setMinimumHeight(56);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
  setToolTip(
      u"The last eight seconds, oldest left. A gap: nothing came. Marks below: frames that the receiver calls lost."_s);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

void SignalStrip::set_channels(std::vector<std::pair<int, QString>> channels) {
  channels_ = std::move(channels);
  update();
}

void SignalStrip::set_frames(const std::deque<ChannelFrame>* frames, const QString& words) {
  frames_ = frames;
  words_ = words;
  setAccessibleDescription(words);
  update();
}

void SignalStrip::paintEvent(QPaintEvent*) {
  QPainter p(this);
  const Inks& i = inks();
  const QRectF box(0.5, 20.5, width() - 1, height() - 21);
  p.setFont(Style::instance().text(9));
  p.setPen(i.soft);
  p.drawText(QRectF(2, 0, width() - 4, 18), Qt::AlignVCenter | Qt::AlignLeft, words_);
  if (!frames_) return;
  p.fillRect(box, i.sheet);
  p.setPen(QPen(i.line, 1));
  p.drawRect(box);
  if (frames_->empty() || channels_.empty()) return;
  const double span = 8e6, end = frames_->back().t_us,
               lane = (box.height() - 8) / static_cast<double>(channels_.size());
  const auto x = [&](double t) { return box.right() - 64 - (end - t) / span * (box.width() - 66); };
  p.setClipRect(box);
  double top = box.top() + 2;
  for (const auto& [number, name] : channels_) {
    const auto channel = static_cast<std::size_t>(number - 1);
    p.setPen(QPen(i.line, 1, Qt::DotLine));
    p.drawLine(QPointF(box.left(), top + lane / 2), QPointF(box.right() - 62, top + lane / 2));
    const auto y = [&](float us) { return top + lane / 2 - (static_cast<double>(us) - 1500) / 1200 * lane; };
    // At most two points for each pixel: the least and the most of what falls on it.
    QPolygonF line;
    double column = -1e9, before = -1e9;
    float least = 0, most = 0;
    const auto put = [&] {
      if (column < -1e8) return;
      line << QPointF(column, y(least));
      if (most != least) line << QPointF(column, y(most));
    };
    p.setPen(QPen(i.ink, 1.2));
    for (const ChannelFrame& f : *frames_) {
      if (channel >= f.channels) continue;
      const double at = std::floor(x(f.t_us));
      if (before > -1e8 && f.t_us - before > 100000) {
        put();
        p.drawPolyline(line);
        line.clear();
        column = -1e9;
      }
      before = f.t_us;
      if (at != column) {
        put();
        column = at;
        least = most = f.pulse_us[channel];
      }
      least = std::min(least, f.pulse_us[channel]);
      most = std::max(most, f.pulse_us[channel]);
    }
    put();
    p.drawPolyline(line);
    p.setPen(i.soft);
    p.setFont(Style::instance().text(8));
    p.drawText(QRectF(box.right() - 60, top, 58, lane), Qt::AlignVCenter | Qt::AlignLeft, name);
    top += lane;
  }
  p.setPen(QPen(i.rust, 1));
  for (const ChannelFrame& f : *frames_)
    if (f.lost || f.failsafe) p.drawLine(QPointF(x(f.t_us), box.bottom() - 5), QPointF(x(f.t_us), box.bottom() - 1));
}

}  // namespace rigging::app
