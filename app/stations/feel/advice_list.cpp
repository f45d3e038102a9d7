#include "stations/feel/advice_list.h"

#include <QButtonGroup>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include "base/units.h"
#include "feel/edits.h"
#include "look/html.h"
#include "look/literals.h"
#include "look/pieces.h"
#include "stations/numbers_dialog.h"

namespace rigging::app {
namespace {

Html paragraph(const Html& words) { return html(u"<p style='margin:0 0 7px 0'>%1</p>", {words}); }
Html strong(const Html& words) { return html(u"<b>%1</b>", {words}); }

}  // namespace

AdviceList::AdviceList(RigDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
  auto* side = new QVBoxLayout(this);
  side->setContentsMargins(0, 0, 0, 0);
  side->setSpacing(8);
  auto* lists = new QHBoxLayout;
  lists->setSpacing(4);
  keys_ = new QButtonGroup(this);
  for (const auto& [id, name, text, hint] :
       {std::tuple{first, "list_first", u"First"_s, u"Gains for the first flight"_s},
        {steps, "list_steps", u"Then"_s, u"One change a flight"_s},
        {what_if, "list_what_if", u"What if"_s, u"What one change does to where it stays calm"_s},
        {bench, "list_bench", u"Bench"_s, u"What the eye checks before"_s},
        {launch, "list_launch", u"Launch"_s, u"Rates, and how it gets into the air"_s}}) {
    auto* b = hinted_button(text, name, hint);
    b->setCheckable(true);
    keys_->addButton(b, id);
    lists->addWidget(b);
  }
  keys_->button(first)->setChecked(true);
  connect(keys_, &QButtonGroup::idClicked, this, &AdviceList::show_words);
  side->addLayout(lists);
  words_ = wrapping_words(9.5);
  words_->setObjectName(u"feel_list"_s);
  words_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  words_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  working_ = wrapping_words(8.5);
  working_->setObjectName(u"feel_working"_s);
  working_->hide();
  auto* inner = new QWidget;
  auto* inner_layout = new QVBoxLayout(inner);
  inner_layout->setContentsMargins(0, 0, 6, 0);
  inner_layout->addWidget(words_);
  inner_layout->addWidget(working_);
  inner_layout->addStretch(1);
  takeoff_ = hinted_button(u"How it takes off…"_s, "takeoff",
                           u"By hand, from the ground, on tow or from a height; wind, and what there is for it"_s);
  connect(takeoff_, &QPushButton::clicked, this, &AdviceList::ask_takeoff);
  takeoff_->hide();
  side->addWidget(takeoff_);
  auto* area = new QScrollArea;
  area->setWidgetResizable(true);
  area->setFrameShape(QFrame::NoFrame);
  area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  area->setWidget(inner);
  side->addWidget(area, 1);
  working_button_ =
      hinted_button(u"Show working"_s, "feel_show_working", u"Every number with its formula and source"_s);
  working_button_->setCheckable(true);
  connect(working_button_, &QPushButton::toggled, this, [this](bool on) {
    working_button_->setText(on ? u"Hide working"_s : u"Show working"_s);
    working_->setVisible(on);
    words_->setVisible(!on);
  });
  side->addWidget(working_button_);
}

void AdviceList::show_axis(Axis axis) {
  axis_ = axis;
  show_words();
  show_working();
}

void AdviceList::show_working() {
  const DeferredReview* d = document_.deferred();
  if (!d || !d->feel.missing.empty()) return working_->clear();
  Html figures;
  const auto add = [&figures](const Figure& f) {
    figures += html(u"<p style='margin:0 0 5px 0'><b>%1</b>: %2<br>%3. <i>%4</i></p>",
                    {f.name, figure_text(f), f.formula, f.source});
  };
  for (const Figure& f : d->feel.of(axis_).path.figures) add(f);
  for (const Figure& f : d->feel.aeroplane.figures()) add(f);
  show_html(working_, figures);
}

void AdviceList::show_words() {
  const DeferredReview* d = document_.deferred();
  const int list = keys_->checkedId();
  takeoff_->setVisible(list == launch);
  if (!d) return words_->clear();
  const FeelAdvice& a = d->feel_advice;
  Html said;
  const auto add = [&said](const std::vector<std::string>& lines) {
    for (const std::string& l : lines) said += paragraph(l);
  };
  // What must be heeded stands first on the bench, last where it is for the air.
  if (list == bench && !a.cautions.empty()) said += paragraph(strong(a.cautions.front()));
  if (list == first) {
    for (const FirstGain& f : a.first)
      said += paragraph(capital(std::string(name_of(f.axis))) + ": " + f.set + ". " + f.why);
    // Axes of the same surfaces have the same words.
    for (std::size_t i = 0; i < a.throws.size(); ++i)
      if (i == 0 || a.throws[i].words != a.throws[i - 1].words) said += paragraph(a.throws[i].words);
  } else if (list == steps) {
    for (const GainStep& s : a.steps)
      if (s.axis == axis_)
        said += paragraph(s.set + ", flown at " + speed_text(s.m_s) + ". Watch for " + s.watch + ". " + s.back_off);
    if (said.isEmpty()) said += paragraph(u"No steps on this axis."_s);
  } else if (list == what_if) {
    for (const LoopChange& w : d->loop_changes)
      if (w.axis == axis_) said += paragraph(w.words);
    if (said.isEmpty()) said += paragraph(u"Nothing can be said of this axis."_s);
  } else if (list == bench) {
    add(a.bench);
  } else {
    const TakeoffAdvice t = takeoff_advice(document_.review(), *d);
    said += paragraph(strong(t.go ? u"Go, says the plan."_s : u"Not yet:"_s));
    for (const auto* lines : {&t.not_yet, &t.cautions, &t.lines, &a.rates, &a.launch}) add(*lines);
  }
  if (list != bench)
    for (std::size_t k = 1; k < a.cautions.size(); ++k) said += paragraph(html(u"<i>%1</i>", {a.cautions[k]}));
  show_html(words_, said);
}

void AdviceList::ask_takeoff() {
  Rig rig = document_.rig();
  Takeoff& t = rig.feel.takeoff;
  NumbersDialog dialog(
      u"How it takes off"_s,
      u"What is left open is taken as usual: a throw of 7 m/s, room enough. Where it may be flown, the rules of the "
      "place and the club decide."_s,
      this);
  auto way = static_cast<std::size_t>(t.way), steering = static_cast<std::size_t>(t.steering);
  dialog.add("takeoff_way", u"From"_s, way, {u"the hand"_s, u"the ground"_s, u"a tow"_s, u"a height"_s});
  dialog.add("throw", t, &Takeoff::throw_m_s, u"as usual"_s);
  dialog.add("run", t, &Takeoff::run_m, u"room enough"_s);
  dialog.add("tow", t, &Takeoff::tow_m_s, u"not known"_s);
  dialog.add("wind", t, &Takeoff::wind_m_s);
  dialog.add("crosswind", t, &Takeoff::crosswind_m_s);
  dialog.add("steering", u"Steered by"_s, steering, {u"nothing"_s, u"a wheel"_s, u"the rudder"_s});
  dialog.add("rough", u"Grass, not a strip"_s, t.rough);
  dialog.ask(document_, [&] {
    t.way = static_cast<TakeoffWay>(way);
    t.steering = static_cast<Steering>(steering);
    return plan_takeoff(rig, t);
  });
}

}  // namespace rigging::app
