#include "shell/snag_panel.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <QScrollBar>
#include <QVBoxLayout>

#include "look/literals.h"
#include "look/pieces.h"
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
    Style::instance().draw_severity(p, QRectF(1, 2, 12, 12), severity_);
  }

 private:
  Severity severity_;
};

QLabel* wrapped(const std::string& text, bool soft) {
  auto* label = new QLabel(said_of(text));
  label->setWordWrap(true);
  label->setProperty("soft", soft);
  label->setFont(Style::instance().text(9));
  return label;
}

/// Of the panel, its scroll bar, the card and a button in it.
constexpr int around_px = 58;

}  // namespace

SnagPanel::SnagPanel(RigDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
  setObjectName(u"snag_panel"_s);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(8, 8, 8, 8);
  auto* top = new QHBoxLayout;
  heading_ = new QLabel;
  heading_->setFont(Style::instance().text(11, true));
  scope_ = new QPushButton(u"Whole rig"_s);
  scope_->setCheckable(true);
  scope_->setChecked(true);
  scope_->setToolTip(u"Show the snags of the whole rig, or only of this station"_s);
  top->addWidget(heading_, 1);
  top->addWidget(scope_);
  layout->addLayout(top);
  area_ = new QScrollArea;
  area_->setWidgetResizable(true);
  area_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  layout->addWidget(area_);
  connect(&Style::instance(), &Style::changed, this, [this] { shown_.clear(); });
  connect(&document_, &RigDocument::deferred_ready, this, &SnagPanel::refresh);
  connect(scope_, &QPushButton::toggled, this, [this](bool whole) {
    scope_->setText(whole ? u"Whole rig"_s : u"This station"_s);
    refresh();
  });
}

void SnagPanel::set_station(Station station) {
  station_ = station;
  refresh();
}

void SnagPanel::add_fix(QVBoxLayout& to, const Snag& snag) {
  // A button does not wrap by itself; broken so that it fits the narrow panel, too.
  QStringList lines;
  const int letter = QFontMetrics(Style::instance().text(9)).averageCharWidth();
  const auto most = static_cast<std::size_t>(std::max(12, (width() - around_px) / letter));
  for (const std::string& line : rigging::wrapped(snag.fix->label, most)) lines << said_of(line);
  auto* fix = new QPushButton(lines.join(QLatin1Char('\n')));
  fix->setAccessibleName(said_of(snag.fix->label));
  fix->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  fix->setObjectName(u"fix_"_s + said_of(snag.code));
  fix->setFont(Style::instance().text(9));
  auto* with_it = wrapped({}, false);
  with_it->setObjectName(u"with_"_s + said_of(snag.code));
  with_it->hide();
  // What was said stays said while the rig is the same, whatever is worked out meanwhile.
  if (told_label_ == snag.fix->label && told_of_ == document_.rig()) tell(*fix, *with_it, told_);
  connect(fix, &QPushButton::clicked, this, [this, fix, with_it, f = *snag.fix] { mend(f, *fix, *with_it); });
  to.addWidget(fix);
  to.addWidget(with_it);
}

/// What mends one thing and spoils another says so first, and is done when it is pressed again.
void SnagPanel::mend(const Fix& fix, QPushButton& button, QLabel& with_it) {
  auto edit = fix.edit(document_.rig(), document_.catalogue());
  if (edit && with_it.isHidden()) {
    const auto comes = only_in(review_after(edit->rig, document_.review()).snags, document_.review().snags);
    if (!comes.empty()) {
      QString words = u"With it comes: %1."_s.arg(said_of(comes.front().what));
      if (comes.size() > 1) words += u" And %1 more."_s.arg(comes.size() - 1);
      told_label_ = fix.label, told_of_ = document_.rig(), told_ = words + u" Press again to do it all the same."_s;
      return tell(button, with_it, told_);
    }
  }
  document_.apply(std::move(edit));
}

void SnagPanel::tell(QPushButton& button, QLabel& with_it, const QString& words) {
  with_it.setText(words);
  with_it.show();
  button.setAccessibleDescription(words);
}

QWidget* SnagPanel::way_there(const Snag& snag) {
  auto* there = new QPushButton(u"Take me there"_s);
  there->setObjectName(u"there_"_s + said_of(snag.code));
  there->setAccessibleName(u"Take me there, %1"_s.arg(said_of(snag.code)));
  there->setProperty("flat", true);
  there->setFont(Style::instance().text(8.5));
  there->setToolTip(u"Source of the rule: %1"_s.arg(said_of(snag.source)));
  connect(there, &QPushButton::clicked, this,
          [this, station = station_of(document_.review(), snag), subject = said_of(snag.subject)] {
            Q_EMIT take_me_there(station, subject);
          });
  auto* code = new QLabel(said_of(snag.code));
  code->setProperty("soft", true);
  code->setFont(Style::instance().text(8));
  auto* both = new QWidget;
  // A long code stands below where both have no room on a line.
  const bool fits = there->sizeHint().width() + code->sizeHint().width() + 6 <= width() - around_px;
  auto* line = new QBoxLayout(fits ? QBoxLayout::LeftToRight : QBoxLayout::TopToBottom, both);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(0);
  line->addWidget(there, 0, Qt::AlignLeft);
  line->addWidget(code, 0, Qt::AlignRight);
  return both;
}

QWidget* SnagPanel::card(const SnagGroup& group) {
  const Snag& snag = group.first();
  auto* frame = new QFrame;
  frame->setProperty("card", true);
  frame->setFocusPolicy(Qt::StrongFocus);
  frame->setAccessibleName(said_of(snag.what));
  auto* layout = new QVBoxLayout(frame);
  layout->setContentsMargins(8, 6, 8, 6);
  layout->setSpacing(3);
  auto* top = new QHBoxLayout;
  top->setSpacing(6);
  auto* what = wrapped(snag.what, false);
  what->setFont(Style::instance().text(9.5, true));
  top->addWidget(new SeverityMark(snag.severity), 0, Qt::AlignTop);
  top->addWidget(what, 1);
  layout->addLayout(top);
  layout->addWidget(wrapped(snag.why, true));
  layout->addWidget(wrapped(snag.remedy, false));
  if (snag.fix) add_fix(*layout, snag);
  if (group.snags.size() > 1) {
    auto* rest = new QWidget;
    auto* like = new QVBoxLayout(rest);
    like->setContentsMargins(0, 0, 0, 0);
    like->setSpacing(3);
    for (std::size_t i = 1; i < group.snags.size(); ++i) {
      const Snag& other = group.snags[i];
      auto* one = new QWidget;
      auto* of_one = new QVBoxLayout(one);
      of_one->setContentsMargins(0, 0, 0, 0);
      of_one->setSpacing(2);
      auto* line = wrapped(other.what, false);
      line->setToolTip(said_of(other.why));
      of_one->addWidget(line);
      if (other.remedy != snag.remedy) of_one->addWidget(wrapped(other.remedy, true));
      if (other.fix) add_fix(*of_one, other);
      // What is like the first is often somewhere else.
      if (other.subject != snag.subject) of_one->addWidget(way_there(other));
      like->addWidget(one);
    }
    auto* more = new QPushButton;
    more->setObjectName(u"more_"_s + said_of(snag.code));
    more->setProperty("flat", true);
    more->setFont(Style::instance().text(9));
    more->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    const auto unfold = [this, rest, more, code = snag.code, words = said_of(group.more())](bool on) {
      rest->setVisible(on);
      more->setText(on ? u"▾ %1"_s.arg(words) : u"▸ %1"_s.arg(words));
      on ? (void)unfolded_.insert(code) : (void)unfolded_.erase(code);
    };
    more->setCheckable(true);
    more->setChecked(unfolded_.count(snag.code) > 0);
    connect(more, &QPushButton::toggled, this, unfold);
    layout->addWidget(more);
    layout->addWidget(rest);
    unfold(more->isChecked());
  }
  layout->addWidget(way_there(snag));
  return frame;
}

void SnagPanel::refresh() {
  std::string wanted = scope_->isChecked() ? "all" : std::string(name_of(station_));
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
  std::vector<Snag> here = snags;
  if (!scope_->isChecked()) std::erase_if(here, [&](const Snag& s) { return s.station != station_; });
  for (const SnagGroup& group : grouped(here)) {
    cards_.append(card(group));
    layout->addWidget(cards_.back());
  }
  const auto count = cards_.size();
  if (count == 0) {
    auto* none = new QLabel(scope_->isChecked() ? u"Nothing in the way."_s : u"Nothing in the way at this station."_s);
    none->setProperty("soft", true);
    layout->addWidget(none);
  }
  layout->addStretch();
  replace_content(*area_, inside);
  area_->verticalScrollBar()->setValue(position);
  heading_->setText(count == 1 ? u"1 snag"_s : u"%1 snags"_s.arg(count));
}

void SnagPanel::next() {
  if (cards_.isEmpty()) return;
  at_ = (at_ + 1) % static_cast<int>(cards_.size());
  cards_[at_]->setFocus(Qt::ShortcutFocusReason);
  area_->ensureWidgetVisible(cards_[at_]);
}

}  // namespace rigging::app
