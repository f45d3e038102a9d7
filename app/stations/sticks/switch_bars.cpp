#include "stations/sticks/switch_bars.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "look/literals.h"
#include "look/look.h"
#include "signal/reception.h"

namespace rigging::app {
namespace {

constexpr int across = 4, cell_height = 30, most_cells = 12;
constexpr double bar_low_us = 900, bar_high_us = 2100;

}  // namespace

SwitchBars::SwitchBars(QWidget* parent) : QWidget(parent) {
  setObjectName(u"switch_bars"_s);
  setAccessibleName(u"Switches and further channels"_s);
  setToolTip(u"Ticks: positions that are known. Mark: where the channel is now, and the mode that it chooses."_s);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

std::vector<SwitchBars::Cell> SwitchBars::cells() const {
  std::vector<Cell> all;
  for (const SwitchLine& l : lines_)
    all.push_back(
        {l.channel,
         l.function == ChannelFunction::other ? u"free"_s : QString::fromStdString(label_of(name_of(l.function))),
         l.positions});
  const auto shown = [&](int n) {
    return std::find(sticks_.begin(), sticks_.end(), n) != sticks_.end() ||
           std::any_of(all.begin(), all.end(), [n](const Cell& c) { return c.channel == n; });
  };
  if (now_)
    for (int n = 1; n <= std::min<int>(now_->channels, most_); ++n)
      if (!shown(n) && now_->pulse_us[static_cast<std::size_t>(n - 1)] > 0) all.push_back({n, u"free"_s, {}});
  std::sort(all.begin(), all.end(), [](const Cell& a, const Cell& b) { return a.channel < b.channel; });
  if (all.size() > most_cells) all.resize(most_cells);
  return all;
}

QSize SwitchBars::sizeHint() const {
  const int rows = (static_cast<int>(cells().size()) + across - 1) / across;
  return {640, rows * cell_height};
}

void SwitchBars::set_lines(std::vector<SwitchLine> lines, std::vector<int> sticks, const std::vector<ModeChoice>& modes,
                           int most) {
  most_ = most;
  lines_ = std::move(lines);
  sticks_ = std::move(sticks);
  modes_ = modes;
  updateGeometry();
  update();
}

void SwitchBars::set_now(const ChannelFrame* frame) {
  if (!moved(now_, frame)) return;
  const std::size_t before = cells().size();
  now_ = frame ? std::optional(*frame) : std::nullopt;
  const std::vector<Cell> all = cells();
  if (all.size() != before) updateGeometry();
  QStringList words;
  for (const Cell& c : all)
    if (now_ && c.channel <= now_->channels)
      words << u"channel %1, %2: %3 µs"_s.arg(c.channel).arg(c.name).arg(
          static_cast<double>(now_->pulse_us[static_cast<std::size_t>(c.channel - 1)]), 0, 'f', 0);
  setAccessibleDescription(words.join(u"; "_s));
  update();
}

void SwitchBars::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& i = inks();
  const Style& look = Style::instance();
  const double wide = static_cast<double>(width()) / across;
  int at = 0;
  for (const Cell& c : cells()) {
    const int row = at / across;
    const double left = (at % across) * wide + 6, top = row * cell_height, right = left + wide - 16;
    ++at;
    const double now_us = now_ && c.channel <= now_->channels
                              ? static_cast<double>(now_->pulse_us[static_cast<std::size_t>(c.channel - 1)])
                              : 0;
    QString chosen;
    for (const ModeChoice& m : modes_)
      if (m.channel == c.channel && now_us >= m.from_us && now_us <= m.to_us && chosen.isEmpty())
        chosen = QString::fromStdString(m.mode);
    p.setFont(look.text(8.5));
    p.setPen(i.soft);
    p.drawText(QRectF(left, top, right - left, 14), Qt::AlignLeft | Qt::AlignVCenter,
               u"%1 %2"_s.arg(c.channel).arg(c.name));
    p.setPen(i.ink);
    p.setFont(look.figures(8.5));
    p.drawText(QRectF(left, top, right - left, 14), Qt::AlignRight | Qt::AlignVCenter,
               now_us <= 0
                   ? u"–"_s
                   : QString::number(now_us, 'f', 0) + (chosen.isEmpty() ? QString() : QLatin1Char(' ') + chosen));
    const double line = top + 22;
    const auto x = [&](double us) {
      return left +
             (std::clamp(us, bar_low_us, bar_high_us) - bar_low_us) / (bar_high_us - bar_low_us) * (right - left);
    };
    p.setPen(QPen(i.line, 1));
    p.drawLine(QPointF(left, line), QPointF(right, line));
    p.setPen(QPen(i.slate, 1.5));
    for (const SwitchPosition& s : c.positions)
      p.drawLine(QPointF(x(s.pulse_us), line - 4), QPointF(x(s.pulse_us), line + 2));
    if (now_us <= 0) continue;
    p.setPen(Qt::NoPen);
    p.setBrush(i.teal);
    p.drawRect(QRectF(x(now_us) - 2, line - 4, 4, 7));
  }
}

}  // namespace rigging::app
