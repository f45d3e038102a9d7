#include "stations/home/story_strip.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "look/literals.h"
#include "look/look.h"
#include "look/pieces.h"

namespace rigging::app {
namespace {

constexpr double least_px = 84, side_px = 10, top_px = 6, words_px = 38, foot_px = 20;

QString clock_words(double s) {
  if (s < 100) return u"%1 s"_s.arg(said_of(number_text(s, s < 10 ? 1 : 0)));
  return u"%1 min"_s.arg(said_of(number_text(s / 60, s < 600 ? 1 : 0)));
}

}  // namespace

StoryStrip::StoryStrip(QWidget* parent) : QWidget(parent) {
  setObjectName(u"story_strip"_s);
  setAccessibleName(u"What happens after the link is lost"_s);
  setToolTip(u"Drag along it, or use the left and right keys: the chart shows where the aircraft is then"_s);
  setFocusPolicy(Qt::StrongFocus);
  connect(&Style::instance(), &Style::changed, this, qOverload<>(&QWidget::update));
}

void StoryStrip::show_story(std::vector<StoryStep> story) {
  story_ = std::move(story);
  QStringList words;
  for (const StoryStep& s : story_) words << said_of(s.title);
  setAccessibleDescription(words.join(u", "_s));
  set_at(std::min(at_s_, story_.empty() ? 0 : story_.back().to_s));
}

void StoryStrip::set_at(double seconds) {
  at_s_ = std::clamp(seconds, 0.0, story_.empty() ? 0.0 : story_.back().to_s);
  update();
}

const StoryStep* StoryStrip::step() const {
  for (const StoryStep& s : story_)
    if (at_s_ < s.to_s) return &s;
  return story_.empty() ? nullptr : &story_.back();
}

std::vector<double> StoryStrip::edges() const {
  const double room = width() - 2 * side_px;
  std::vector<double> widths;
  double sum = 0;
  for (const StoryStep& s : story_) {
    // The square root keeps a long circle from pushing all else together.
    widths.push_back(std::sqrt(s.to_s - s.from_s));
    sum += widths.back();
  }
  const double least = std::min(least_px, room / static_cast<double>(std::max<std::size_t>(1, story_.size())));
  const double spare = room - least * static_cast<double>(story_.size());
  std::vector<double> at{side_px};
  for (const double w : widths) at.push_back(at.back() + least + (sum > 0 ? spare * w / sum : 0));
  return at;
}

double StoryStrip::x_of(double seconds) const {
  const std::vector<double> at = edges();
  for (std::size_t i = 0; i < story_.size(); ++i) {
    const StoryStep& s = story_[i];
    if (seconds > s.to_s || s.to_s <= s.from_s) continue;
    return at[i] + (at[i + 1] - at[i]) * std::max(0.0, seconds - s.from_s) / (s.to_s - s.from_s);
  }
  return at.back();
}

double StoryStrip::seconds_at(double x) const {
  const std::vector<double> at = edges();
  for (std::size_t i = 0; i < story_.size(); ++i)
    if (x < at[i + 1]) {
      const StoryStep& s = story_[i];
      return s.from_s + (s.to_s - s.from_s) * std::clamp((x - at[i]) / (at[i + 1] - at[i]), 0.0, 1.0);
    }
  return story_.empty() ? 0 : story_.back().to_s;
}

void StoryStrip::paintEvent(QPaintEvent*) {
  if (story_.empty()) return;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Inks& i = inks();
  const std::vector<double> at = edges();
  const double bottom = height() - foot_px, high = bottom - top_px - words_px;
  double most = 1;
  for (const StoryStep& s : story_) most = std::max({most, s.from_height_m, s.to_height_m});
  const auto y_of = [&](double m) { return bottom - (high - 6) * m / most; };
  const StoryStep* now = step();
  for (std::size_t k = 0; k < story_.size(); ++k) {
    const StoryStep& s = story_[k];
    const QRectF box(at[k], top_px, at[k + 1] - at[k], bottom - top_px);
    p.fillRect(box.adjusted(1, 0, -1, 0), &s == now ? i.wash : i.sheet);
    // The height as the ground's own drawing.
    QColor ink = s.good ? i.teal : i.rust;
    ink.setAlpha(60);
    p.setPen(Qt::NoPen);
    p.setBrush(QBrush(ink, s.good ? Qt::SolidPattern : Qt::BDiagPattern));
    p.drawPolygon(QPolygonF{QPointF(box.left() + 1, bottom), QPointF(box.left() + 1, y_of(s.from_height_m)),
                            QPointF(box.right() - 1, y_of(s.to_height_m)), QPointF(box.right() - 1, bottom)});
    p.setPen(QPen(s.good ? i.teal : i.rust, 2));
    p.drawLine(QPointF(box.left() + 1, y_of(s.from_height_m)), QPointF(box.right() - 1, y_of(s.to_height_m)));
    p.setPen(s.good ? i.ink : i.rust);
    p.setFont(Style::instance().text(8.5, true));
    p.drawText(box.adjusted(5, 3, -3, -(high)), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, said_of(s.title));
    p.setPen(QPen(i.line, 1));
    p.drawLine(QPointF(box.left(), top_px), QPointF(box.left(), bottom + 4));
    p.setPen(i.soft);
    p.setFont(Style::instance().figures(8));
    p.drawText(QRectF(box.left() + 2, bottom + 3, box.width(), 14), Qt::AlignLeft, clock_words(s.from_s));
  }
  p.setPen(QPen(i.line, 1));
  p.drawLine(QPointF(at.front(), bottom), QPointF(at.back(), bottom));
  const double x = x_of(at_s_);
  p.setPen(QPen(i.ink, 2));
  p.drawLine(QPointF(x, top_px - 2), QPointF(x, bottom + 2));
  p.setBrush(i.ink);
  p.drawEllipse(QPointF(x, bottom), hasFocus() ? 6 : 4, hasFocus() ? 6 : 4);
}

void StoryStrip::mousePressEvent(QMouseEvent* event) {
  if (story_.empty()) return;
  set_at(seconds_at(event->position().x()));
  Q_EMIT scrubbed(at_s_);
}

void StoryStrip::mouseMoveEvent(QMouseEvent* event) {
  if (event->buttons() & Qt::LeftButton) mousePressEvent(event);
}

void StoryStrip::keyPressEvent(QKeyEvent* event) {
  if (story_.empty() || (event->key() != Qt::Key_Left && event->key() != Qt::Key_Right))
    return QWidget::keyPressEvent(event);
  const double x = x_of(at_s_) + (event->key() == Qt::Key_Right ? 12 : -12);
  set_at(seconds_at(x));
  Q_EMIT scrubbed(at_s_);
}

}  // namespace rigging::app
