#include "stations/feel/flight_picture.h"

// The library is written with Qt's short keywords, which are off here.
#define signals Q_SIGNALS
#define slots Q_SLOTS
#define foreach Q_FOREACH
#include <qcustomplot.h>
#undef signals
#undef slots
#undef foreach

#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "look/literals.h"
#include "look/pieces.h"
#include "stations/feel/flight_strip.h"

namespace rigging::app {
namespace {

constexpr double first_look_s = 12;

QVector<double> in_s(std::size_t count, double step_s) {
  QVector<double> t;
  for (std::size_t i = 0; i < count; ++i) t << static_cast<double>(i) * step_s;
  return t;
}

QVector<double> values(const std::vector<double>& v, double factor = 1) {
  QVector<double> out;
  for (const double x : v) out << x * factor;
  return out;
}

constexpr int ticks_each = 3;

}  // namespace

FlightPicture::FlightPicture(QWidget* parent) : QWidget(parent) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(6);
  layout->addWidget(strip_ = new FlightStrip);
  plot_ = new QCustomPlot;
  plot_->setObjectName(u"flight_plot"_s);
  plot_->setAccessibleName(u"Rate, correction and height over time"_s);
  plot_->setToolTip(u"Turn the wheel to look closer, drag to move along. The film shows what the plots show."_s);
  plot_->setMinimumHeight(170);
  connect(plot_, &QCustomPlot::mouseDoubleClick, this, [this] { look_at(0, std::max(1.0, length_s())); });
  layout->addWidget(plot_, 1);
  nothing_ = wrapping_words(11);
  nothing_->setProperty("soft", true);
  nothing_->setAlignment(Qt::AlignCenter);
  layout->addWidget(nothing_, 1);
  words_ = wrapping_words(9.5);
  words_->setObjectName(u"fly_words"_s);
  words_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  words_->setMinimumHeight(84);
  layout->addWidget(words_);
  make_rows();
  connect(&Style::instance(), &Style::changed, this, [this] {
    dress();
    plot_->replot();
  });
}

void FlightPicture::make_rows() {
  plot_->plotLayout()->clear();  // it comes with one of its own
  plot_->setInteractions(QCP::iRangeDrag | QCP::iRangeZoom);
  auto* edge = new QCPMarginGroup(plot_);
  for (int k = 0; k < 3; ++k) {
    Row row;
    row.rect = new QCPAxisRect(plot_);
    row.rect->setMarginGroup(QCP::msLeft, edge);
    row.rect->setRangeDrag(Qt::Horizontal);
    row.rect->setRangeZoom(Qt::Horizontal);
    row.rect->setAutoMargins(k < 2 ? QCP::msLeft : QCP::msLeft | QCP::msBottom);
    row.rect->setMargins(QMargins(0, 3, 6, 3));
    row.rect->axis(QCPAxis::atBottom)->setTickLabels(k == 2);
    plot_->plotLayout()->addElement(k, 0, row.rect);
    auto* x = row.rect->axis(QCPAxis::atBottom);
    auto* y = row.rect->axis(QCPAxis::atLeft);
    y->ticker()->setTickCount(ticks_each);
    for (QCPGraph** g : {&row.least, &row.most, &row.before, &row.extra, &row.now}) *g = plot_->addGraph(x, y);
    row.most->setChannelFillGraph(row.least);
    rows_.push_back(row);
  }
  // They move together.
  for (const Row& a : rows_)
    for (const Row& b : rows_)
      if (a.rect != b.rect)
        connect(a.rect->axis(QCPAxis::atBottom), qOverload<const QCPRange&>(&QCPAxis::rangeChanged),
                b.rect->axis(QCPAxis::atBottom), qOverload<const QCPRange&>(&QCPAxis::setRange));
  connect(rows_.front().rect->axis(QCPAxis::atBottom), qOverload<const QCPRange&>(&QCPAxis::rangeChanged), this,
          [this](const QCPRange& r) {
            const double last = std::max(1.0, length_s());
            const double size = std::min(r.size(), last), from = std::clamp(r.lower, 0.0, last - size);
            if (std::abs(from - r.lower) > 1e-6 || std::abs(size - r.size()) > 1e-6)
              return rows_.front().rect->axis(QCPAxis::atBottom)->setRange(from, from + size);
            strip_->show_flight(shown_.now, shown_.before, r.lower, r.upper);
          });
  dress();
}

void FlightPicture::dress() {
  const Inks& i = inks();
  plot_->setBackground(QBrush(i.sheet));
  for (const Row& row : rows_) {
    for (QCPAxis* axis : row.rect->axes()) {
      axis->setBasePen(QPen(i.line, 1));
      axis->setTickPen(QPen(i.line, 1));
      axis->setSubTickPen(Qt::NoPen);
      axis->setTickLabelColor(i.soft);
      axis->setTickLabelFont(Style::instance().figures(8));
      axis->setLabelColor(i.soft);
      axis->setLabelFont(Style::instance().text(8.5));
      axis->grid()->setPen(QPen(i.line, 0.5, Qt::DotLine));
      axis->grid()->setZeroLinePen(QPen(i.line, 1));
    }
    row.least->setPen(Qt::NoPen);
    row.most->setPen(Qt::NoPen);
    row.most->setBrush(QBrush(i.wash));
    row.before->setPen(QPen(i.ochre, 1.0, Qt::DashLine));
    row.extra->setPen(QPen(i.soft, 1.0, Qt::DotLine));
    row.now->setPen(QPen(i.ink, 1.3));
  }
}

double FlightPicture::length_s() const {
  double last = 0;
  for (const auto* f : {&shown_.now, &shown_.before})
    if (*f) last = std::max(last, static_cast<double>((*f)->size()) * (*f)->step_s);
  return last;
}

void FlightPicture::look_at(double from_s, double to_s) {
  rows_.front().rect->axis(QCPAxis::atBottom)->setRange(from_s, to_s);
  plot_->replot();
}

void FlightPicture::say(const QString& words) { words_->setText(words); }

void FlightPicture::show_nothing(const QString& words) {
  shown_ = {};
  nothing_->setText(words);
  for (QWidget* w : {static_cast<QWidget*>(plot_), static_cast<QWidget*>(strip_)}) w->hide();
  nothing_->show();
}

void FlightPicture::show_flight(Axis axis, const std::vector<Panel>& panels, Shown shown) {
  const bool fresh = !shown_.now;
  axis_ = axis;
  shown_ = std::move(shown);
  nothing_->hide();
  for (QWidget* w : {static_cast<QWidget*>(plot_), static_cast<QWidget*>(strip_)}) w->show();
  strip_->set_panels(panels);
  fill();
  if (fresh) look_at(0, std::min(first_look_s, std::max(1.0, length_s())));
  const QCPRange looked_at = rows_.front().rect->axis(QCPAxis::atBottom)->range();
  strip_->show_flight(shown_.now, shown_.before, looked_at.lower, looked_at.upper);
  plot_->replot();
}

void FlightPicture::fill() {
  const auto k = static_cast<std::size_t>(index_of(axis_));
  const QString name = axis_ == Axis::roll ? u"roll"_s : axis_ == Axis::pitch ? u"pitch"_s : u"yaw"_s;
  const auto set = [](QCPGraph* g, const QVector<double>& y, double step_s) {
    g->setData(in_s(static_cast<std::size_t>(y.size()), step_s), y, true);
  };
  const auto show = [&](const Row& row, const auto& of, const Envelope* band, double factor) {
    for (QCPGraph* g : {row.least, row.most, row.before, row.extra, row.now}) g->data()->clear();
    if (shown_.now) set(row.now, values(of(*shown_.now), factor), shown_.now->step_s);
    if (shown_.before) set(row.before, values(of(*shown_.before), factor), shown_.before->step_s);
    if (band && shown_.band) {
      set(row.least, values(band->least, factor), shown_.band->expected.step_s);
      set(row.most, values(band->most, factor), shown_.band->expected.step_s);
    }
    double low = 1e9, high = -1e9;
    for (QCPGraph* g : {row.least, row.most, row.before, row.now}) {
      bool found = false;
      const QCPRange r = g->getValueRange(found);
      if (found) low = std::min(low, r.lower), high = std::max(high, r.upper);
    }
    if (low > high) low = -1, high = 1;
    const double room = std::max(0.08 * (high - low), 0.5);
    row.rect->axis(QCPAxis::atLeft)->setRange(low - room, high + room);
  };
  const FlightBand* band = shown_.band ? &*shown_.band : nullptr;
  show(
      rows_[0], [k](const Flight& f) { return f.rate_deg_s[k]; }, band ? &band->rate_deg_s[k] : nullptr, 1);
  show(
      rows_[1], [k](const Flight& f) { return f.correction[k]; }, band ? &band->correction[k] : nullptr, 100);
  show(
      rows_[2], [](const Flight& f) { return f.heights(); }, band ? &band->height_m : nullptr, 1);
  // A stick that goes far beyond the correction would be a fence of upright lines.
  constexpr double far_beyond = 4;
  if (shown_.now) {
    const QVector<double> stick = values(shown_.now->stick[k], 100);
    const auto [low, high] = std::minmax_element(stick.begin(), stick.end());
    if (!stick.isEmpty() && *high - *low < far_beyond * rows_[1].rect->axis(QCPAxis::atLeft)->range().size())
      set(rows_[1].extra, stick, shown_.now->step_s);
  }
  rows_[0].rect->axis(QCPAxis::atLeft)->setLabel(u"%1, °/s"_s.arg(name));
  rows_[1].rect->axis(QCPAxis::atLeft)->setLabel(u"correction, %"_s);
  rows_[2].rect->axis(QCPAxis::atLeft)->setLabel(u"height, m"_s);
  rows_[2].rect->axis(QCPAxis::atBottom)->setLabel(u"seconds"_s);
}

}  // namespace rigging::app
