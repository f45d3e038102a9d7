#include "shell/snag_panel.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <QScrollBar>
#include <QVBoxLayout>

#include "look/look.h"
#include "look/scroll_content.h"
#include "sheets/sketch.h"

namespace rigging::app {
namespace {

class SeverityMark : public QWidget {
 public:
  explicit SeverityMark(Severity severity) : severity_(severity) {
    setFixedSize(16, 16);
    static const char* words[] = {"grounds the aircraft", "fix before flight", "worth knowing"};
    setToolTip(QString::fromLatin1(words[static_cast<int>(severity)]));
    setAccessibleName(toolTip());
  }

 protected:
  void paintEvent(QPaintEvent*) override {
    QPainter p(this);
    Look::instance().draw_severity(p, QRectF(1, 2, 12, 12), severity_);
  }

 private:
  Severity severity_;
};

QLabel* wrapped(const std::string& text, bool soft) {
  auto* label = new QLabel(QString::fromStdString(text));
  label->setWordWrap(true);
  label->setProperty("soft", soft);
  label->setFont(Look::instance().text(9));
  return label;
}

}  // namespace

SnagPanel::SnagPanel(RigDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
  setObjectName(QStringLiteral("snag_panel"));
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(8, 8, 8, 8);
  auto* top = new QHBoxLayout;
  heading_ = new QLabel;
  heading_->setFont(Look::instance().text(11, true));
  scope_ = new QPushButton(tr("Whole rig"));
  scope_->setCheckable(true);
  scope_->setChecked(true);
  scope_->setToolTip(tr("Show the snags of the whole rig, or only of this station"));
  top->addWidget(heading_, 1);
  top->addWidget(scope_);
  layout->addLayout(top);
  area_ = new QScrollArea;
  area_->setWidgetResizable(true);
  area_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  layout->addWidget(area_);
  connect(&Look::instance(), &Look::changed, this, [this] { shown_.clear(); });
  connect(&document_, &RigDocument::deferred_ready, this, &SnagPanel::refresh);
  connect(scope_, &QPushButton::toggled, this, [this](bool whole) {
    scope_->setText(whole ? tr("Whole rig") : tr("This station"));
    refresh();
  });
}

void SnagPanel::set_station(Station station) {
  station_ = station;
  refresh();
}

QWidget* SnagPanel::card(const Snag& snag) {
  auto* frame = new QFrame;
  frame->setProperty("card", true);
  frame->setFocusPolicy(Qt::StrongFocus);
  frame->setAccessibleName(QString::fromStdString(snag.what));
  auto* layout = new QVBoxLayout(frame);
  layout->setContentsMargins(8, 6, 8, 6);
  layout->setSpacing(3);
  auto* top = new QHBoxLayout;
  top->setSpacing(6);
  auto* what = wrapped(snag.what, false);
  what->setFont(Look::instance().text(9.5, true));
  top->addWidget(new SeverityMark(snag.severity), 0, Qt::AlignTop);
  top->addWidget(what, 1);
  layout->addLayout(top);
  layout->addWidget(wrapped(snag.why, true));
  layout->addWidget(wrapped(snag.remedy, false));
  if (snag.fix) {
    // A button does not wrap by itself; broken so that it fits the narrow panel, too.
    QStringList lines;
    for (const std::string& line : rigging::wrapped(snag.fix->label, width() > 200 ? 32 : 20))
      lines << QString::fromStdString(line);
    auto* fix = new QPushButton(lines.join(QLatin1Char('\n')));
    fix->setAccessibleName(QString::fromStdString(snag.fix->label));
    fix->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    fix->setObjectName(QStringLiteral("fix_") + QString::fromStdString(snag.code));
    fix->setFont(Look::instance().text(9));
    connect(fix, &QPushButton::clicked, this, [this, f = *snag.fix] {
      document_.apply(Edit{f.apply(document_.rig()), f.label});
    });
    layout->addWidget(fix);
  }
  auto* there = new QPushButton(tr("Take me there  ·  %1").arg(QString::fromStdString(snag.code)));
  there->setProperty("flat", true);
  there->setFont(Look::instance().text(8.5));
  there->setToolTip(tr("Source of the rule: %1").arg(QString::fromStdString(snag.source)));
  there->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);  // a narrow panel must not grow for it
  connect(there, &QPushButton::clicked, this,
          [this, station = place_of(document_.review(), snag), subject = QString::fromStdString(snag.subject)] {
            Q_EMIT take_me_there(station, subject);
          });
  layout->addWidget(there);
  return frame;
}

void SnagPanel::refresh() {
  std::string wanted = scope_->isChecked() ? "all" : std::string(word(station_));
  const std::vector<Snag> snags = document_.snags();
  for (const Snag& s : snags)
    if (scope_->isChecked() || s.station == station_) wanted += '\n' + s.code + s.subject + s.what + s.why;
  if (wanted == shown_) return;
  shown_ = std::move(wanted);
  const int position = area_->verticalScrollBar()->value();
  auto* inside = new QWidget;
  auto* layout = new QVBoxLayout(inside);
  layout->setContentsMargins(0, 0, 2, 0);
  layout->setSpacing(6);
  cards_.clear();
  at_ = -1;
  int count = 0;
  for (const Snag& snag : snags) {
    if (!scope_->isChecked() && snag.station != station_) continue;
    ++count;
    cards_.append(card(snag));
    layout->addWidget(cards_.back());
  }
  if (count == 0) {
    auto* none =
        new QLabel(scope_->isChecked() ? tr("Nothing in the way.") : tr("Nothing in the way at this station."));
    none->setProperty("soft", true);
    layout->addWidget(none);
  }
  layout->addStretch();
  replace_content(*area_, inside);
  area_->verticalScrollBar()->setValue(position);
  heading_->setText(count == 1 ? tr("1 snag") : tr("%1 snags").arg(count));
}

void SnagPanel::next() {
  if (cards_.isEmpty()) return;
  at_ = (at_ + 1) % static_cast<int>(cards_.size());
  cards_[at_]->setFocus(Qt::ShortcutFocusReason);
  area_->ensureWidgetVisible(cards_[at_]);
}

}  // namespace rigging::app
