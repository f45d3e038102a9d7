#include "stations/feel/feel_page.h"

#include <QButtonGroup>
#include <QFileDialog>
#include <QFileInfo>
#include <QLineEdit>
#include <QMessageBox>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>
#include <cmath>

#include "base/angle.h"
#include "base/json.h"
#include "base/number.h"
#include "base/units.h"
#include "feel/edits.h"
#include "feel/gust.h"
#include "feel/learn.h"
#include "look/pieces.h"
#include "stations/feel/gust_strip.h"
#include "stations/numbers_dialog.h"

namespace rigging::app {
namespace {

enum List { first_list, steps_list, bench_list, launch_list };
constexpr double throw_room = 1.5;  ///< of a linkage's scale over the throw that there is

QString said_of(const std::string& text) { return QString::fromStdString(text); }
QString speed(double m_s) { return said_of(speed_text(m_s)); }

QPushButton* key(const QString& text, const char* id, const QString& hint) {
  QPushButton* b = hinted_button(text, id, hint);
  b->setCheckable(true);
  return b;
}

/// The marks beside the scale: whole hours of a dial, quarters of a number.
std::vector<std::pair<double, QString>> marks_of(const GainScale& scale) {
  std::vector<std::pair<double, QString>> marks;
  const int parts = scale.by() == GainBy::dial ? 5 : scale.by() == GainBy::strengths ? 2 : 4;
  for (int k = 0; k <= parts; ++k) {
    const double place = static_cast<double>(k) / parts;
    const std::string words = scale.words(place);
    marks.emplace_back(place, said_of(words.substr(0, words.find(','))));
  }
  return marks;
}

QString bullets(const std::vector<std::string>& lines) {
  QString html;
  for (const std::string& l : lines)
    html += QStringLiteral("<p style='margin:0 0 7px 0'>%1</p>").arg(said_of(l).toHtmlEscaped());
  return html;
}

}  // namespace

FeelPage::FeelPage(const PageContext& context) : StationPage(Station::feel, context) {
  auto* page = new QHBoxLayout(this);
  page->setContentsMargins(16, 10, 12, 10);
  page->setSpacing(14);

  auto* left = new QVBoxLayout;
  left->addWidget(heading());
  auto* axes = new QHBoxLayout;
  axis_keys_ = new QButtonGroup(this);
  for (const auto& [axis, name, hint] : {std::tuple{Axis::roll, tr("Roll"), tr("What stops the wings from rocking")},
                                         {Axis::pitch, tr("Pitch"), tr("What stops the nose from nodding")},
                                         {Axis::yaw, tr("Yaw"), tr("What stops the tail from wagging")}}) {
    auto* b = key(name, word(axis) == "roll" ? "axis_roll" : word(axis) == "pitch" ? "axis_pitch" : "axis_yaw", hint);
    axis_keys_->addButton(b, index_of(axis));
    axes->addWidget(b);
  }
  axes->addStretch(1);
  axes->addWidget(caution_ = caution_words());
  caution_->setText(tr("Worked out, not flown. The band says how sure it is."));
  caution_->setWordWrap(false);
  left->addLayout(axes);
  connect(axis_keys_, &QButtonGroup::idClicked, this, [this](int id) { show_axis(static_cast<Axis>(id)); });
  view_ = new FeelView;
  left->addWidget(view_, 1);
  connect(view_, &FeelView::dragged, this, &FeelPage::show_words);
  connect(view_, &FeelView::let_go, this, &FeelPage::set_place);
  verdict_ = wrapping_words(10.5, true);
  verdict_->setObjectName(QStringLiteral("feel_verdict"));
  verdict_->setMinimumHeight(38);
  verdict_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  left->addWidget(verdict_);
  gust_words_ = wrapping_words(9);
  left->addWidget(gust_words_);
  strip_ = new GustStrip;
  left->addWidget(strip_);
  page->addLayout(left, 1);

  auto* side = new QVBoxLayout;
  side->setSpacing(8);
  auto* start_row = new QHBoxLayout;
  start_row->addWidget(new QLabel(tr("Begin with")));
  start_keys_ = new QButtonGroup(this);
  for (const auto& [start, id, name, hint] :
       {std::tuple{StartAt::least, "start_least", tr("Least gain"),
                   tr("The first flight nearly by hand, then up in steps")},
        {StartAt::half, "start_half", tr("Half gain"), tr("Half of what stays calm, a dial not above its middle")}}) {
    auto* b = key(name, id, hint);
    start_keys_->addButton(b, static_cast<int>(start));
    start_row->addWidget(b);
  }
  connect(start_keys_, &QButtonGroup::idClicked, this,
          [this](int id) { document_.apply(start_at(document_.rig(), static_cast<StartAt>(id))); });
  side->addLayout(start_row);
  first_ = hinted_button(tr("Plan the first gains"), "first_gains",
                         tr("Puts all axes where the advice for the first flight says"));
  first_->setProperty("main", true);
  connect(first_, &QPushButton::clicked, this, &FeelPage::set_first);
  side->addWidget(first_);
  auto* typed_row = new QHBoxLayout;
  typed_row->addWidget(typed_label_ = new QLabel);
  typed_ = new QLineEdit;
  typed_->setObjectName(QStringLiteral("typed_gain"));
  typed_->setFont(Look::instance().figures());
  typed_->setAccessibleName(tr("Gain of this axis, as the board shows it"));
  typed_label_->setBuddy(typed_);
  connect(typed_, &QLineEdit::editingFinished, this, &FeelPage::type_place);
  typed_row->addWidget(typed_, 1);
  side->addLayout(typed_row);
  why_ = caution_words();
  why_->setObjectName(QStringLiteral("typed_refused"));
  why_->hide();
  side->addWidget(why_);
  auto* more = new QHBoxLayout;
  log_ = hinted_button(tr("From a flight's log…"), "feel_log",
                       tr("Finds what shook and why, corrects the model, says what to turn down"));
  connect(log_, &QPushButton::clicked, this, &FeelPage::read_log);
  more->addWidget(log_);
  holes_ = hinted_button(tr("Holes for it…"), "feel_holes", tr("To station surfaces: another hole is another throw"));
  connect(holes_, &QPushButton::clicked, this, [this] { Q_EMIT wanted(Station::surfaces, QString()); });
  more->addWidget(holes_);
  side->addLayout(more);

  auto* lists = new QHBoxLayout;
  lists->setSpacing(4);
  list_keys_ = new QButtonGroup(this);
  for (const auto& [id, name, text, hint] :
       {std::tuple{first_list, "list_first", tr("First"), tr("Gains for the first flight")},
        {steps_list, "list_steps", tr("Then"), tr("One change a flight")},
        {bench_list, "list_bench", tr("Bench"), tr("What the eye checks before")},
        {launch_list, "list_launch", tr("Launch"), tr("Rates, and how it gets into the air")}}) {
    auto* b = key(text, name, hint);
    list_keys_->addButton(b, id);
    lists->addWidget(b);
  }
  list_keys_->button(first_list)->setChecked(true);
  connect(list_keys_, &QButtonGroup::idClicked, this, &FeelPage::show_advice);
  side->addLayout(lists);
  list_ = wrapping_words(9.5);
  list_->setObjectName(QStringLiteral("feel_list"));
  list_->setTextFormat(Qt::RichText);
  list_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  list_->setTextInteractionFlags(Qt::TextSelectableByMouse);
  working_ = wrapping_words(8.5);
  working_->setObjectName(QStringLiteral("feel_working"));
  working_->hide();
  auto* inner = new QWidget;
  auto* inner_layout = new QVBoxLayout(inner);
  inner_layout->setContentsMargins(0, 0, 6, 0);
  inner_layout->addWidget(list_);
  inner_layout->addWidget(working_);
  inner_layout->addStretch(1);
  takeoff_ = hinted_button(tr("How it takes off…"), "takeoff",
                           tr("By hand, from the ground, on tow or from a height; wind, and what there is for it"));
  connect(takeoff_, &QPushButton::clicked, this, &FeelPage::ask_takeoff);
  takeoff_->hide();
  side->addWidget(takeoff_);
  area_ = new QScrollArea;
  area_->setWidgetResizable(true);
  area_->setFrameShape(QFrame::NoFrame);
  area_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  area_->setWidget(inner);
  side->addWidget(area_, 1);
  working_button_ =
      hinted_button(tr("Show working"), "feel_show_working", tr("Every number with its formula and source"));
  working_button_->setCheckable(true);
  connect(working_button_, &QPushButton::toggled, this, [this](bool on) {
    working_button_->setText(on ? tr("Hide working") : tr("Show working"));
    working_->setVisible(on);
    list_->setVisible(!on);
  });
  side->addWidget(working_button_);
  auto* right = new QWidget;
  right->setFixedWidth(312);
  right->setLayout(side);
  side->setContentsMargins(0, 0, 0, 0);
  page->addWidget(right);
  connect(&document_, &RigDocument::deferred_ready, this, &FeelPage::refresh);
}

const FeelReport* FeelPage::report() const { return document_.deferred() ? &document_.deferred()->feel : nullptr; }

void FeelPage::go_to(const QString& subject) {
  if (const auto axis = from_word<Axis>(subject.toStdString())) show_axis(*axis);
}

QList<Request> FeelPage::requests() {
  QList<Request> all;
  for (const Axis axis : all_axes) {
    const QString name = said_of(std::string(word(axis)));
    all.append({tr("Show the %1 gain").arg(name), tr("feel firmness dial slider shake oscillate margin"), [this, axis] {
                  come_here();
                  show_axis(axis);
                }});
  }
  all.append({tr("Plan the first gains"), tr("feel dial slider first flight"), [this] {
                come_here();
                set_first();
              }});
  all.append({tr("Read a flight's log"), tr("feel oscillation shaking csv"), [this] {
                come_here();
                read_log();
              }});
  return all;
}

void FeelPage::refresh() {
  for (const Axis axis : all_axes) axis_keys_->button(index_of(axis))->setChecked(axis == axis_);
  start_keys_->button(static_cast<int>(document_.rig().feel.start))->setChecked(true);
  show_axis(axis_);
  show_advice();
}

void FeelPage::show_axis(Axis axis) {
  axis_ = axis;
  axis_keys_->button(index_of(axis))->setChecked(true);
  const FeelReport* r = report();
  const ControllerClass* c = document_.catalogue().controller(document_.rig().controller.kind);
  const bool known = r && r->missing.empty() && r->of(axis).known() && c;
  const bool settable = c && GainScale(*c, {}).settable();
  bool as_advised = known && settable;
  if (as_advised)
    for (const FirstGain& f : document_.deferred()->feel_advice.first) {
      const AxisGain* g = document_.rig().feel.gain(f.axis);
      as_advised = as_advised && g && g->rate && std::abs(*g->rate - f.place) < 1e-9;
    }
  first_->setEnabled(known && settable && !as_advised);
  first_->setToolTip(as_advised ? tr("They stand as advised: set them on the board and prove them")
                                : tr("Puts all axes where the advice for the first flight says"));
  typed_->setEnabled(known && settable);
  holes_->setVisible(c && !settable);
  start_keys_->button(0)->setEnabled(settable);
  start_keys_->button(1)->setEnabled(settable);
  typed_label_->setText(tr("%1 gain").arg(said_of(capital(std::string(word(axis))))));
  if (!known) {
    view_->show_nothing(!r                    ? tr("Being worked out…")
                        : !r->missing.empty() ? said_of(r->missing)
                        : !c                  ? tr("No controller is chosen.")
                                              : said_of(r->of(axis).why_not));
    strip_->clear();
    verdict_->clear();
    gust_words_->clear();
    typed_->clear();
    return;
  }
  const AxisFeel& a = r->of(axis);
  const GainScale scale(*c, document_.rig().feel.half_share);
  FeelView::Shown shown;
  shown.curve = a.stricter();
  shown.follows = [kind = *c, cruise = r->aeroplane.cruise_m_s](double m_s) {
    return follows_speed(kind, m_s, cruise);
  };
  shown.stall_m_s = r->aeroplane.stall_m_s, shown.cruise_m_s = r->aeroplane.cruise_m_s, shown.fast_m_s = r->fast_m_s;
  const double full = a.path.full_gain_s, now_deg = a.control.throw_rad / rad;
  if (settable) {
    shown.scale.height = [scale, full](double gain) { return scale.place_for(gain / full); };
    shown.scale.words = [scale](double height) { return said_of(scale.words(height)); };
    shown.scale.marks = marks_of(scale);
    shown.scale.step = scale.step();
    shown.setting = a.place;
    if (const DeferredReview* d = document_.deferred())
      for (const FirstGain& f : d->feel_advice.first)
        if (f.axis == axis && (!a.place || std::abs(f.place - *a.place) > 1e-6)) shown.first = f.place;
  } else {
    // The linkage sets it: the scale is the throw.
    shown.scale.height = [full](double gain) { return gain / (full * throw_room); };
    shown.scale.words = [now_deg](double height) {
      return tr("%1° of throw").arg(said_of(number_text(height * throw_room * now_deg, 1)));
    };
    for (int k = 0; k <= 3; ++k)
      shown.scale.marks.emplace_back(k / 3.0, said_of(number_text(k / 3.0 * throw_room * now_deg, 0)) + tr("°"));
    shown.scale.step = 0.02;
    shown.setting = 1 / throw_room;
  }
  view_->show_axis(said_of(std::string(word(axis))), std::move(shown));
  typed_->setText(a.place ? said_of(scale.words(*a.place)).section(QLatin1Char(','), 0, 0) : QString());
  typed_->setPlaceholderText(settable ? tr("such as %1").arg(said_of(scale.words(0.25)).section(QLatin1Char(','), 0, 0))
                                      : QString());
  why_->hide();
  QString figures;
  const auto add = [&figures](const Figure& f) {
    figures += QStringLiteral("<p style='margin:0 0 5px 0'><b>%1</b>: %2<br>%3. <i>%4</i></p>")
                   .arg(said_of(f.name).toHtmlEscaped(), said_of(figure_text(f)).toHtmlEscaped(),
                        said_of(f.formula).toHtmlEscaped(), said_of(f.source).toHtmlEscaped());
  };
  for (const Figure& f : a.path.figures) add(f);
  for (const Figure& f : r->aeroplane.figures()) add(f);
  working_->setText(figures);
  show_words(view_->setting().value_or(-1));
}

double FeelPage::gain_at(double height) const {
  const AxisFeel& a = report()->of(axis_);
  const ControllerClass* c = document_.catalogue().controller(document_.rig().controller.kind);
  const GainScale scale(*c, document_.rig().feel.half_share);
  return a.path.full_gain_s * (scale.settable() ? scale.effect(height) : height * throw_room);
}

void FeelPage::show_words(double height) {
  const FeelReport* r = report();
  if (!r || !r->missing.empty() || !r->of(axis_).known()) return;
  const AxisFeel& a = r->of(axis_);
  const ControllerClass* c = document_.catalogue().controller(document_.rig().controller.kind);
  if (height < 0) {
    verdict_->setText(tr("Nothing is set yet. At %1 it stays calm up to %2.")
                          .arg(speed(r->fast_m_s),
                               a.calm_place > 1
                                   ? tr("the most that can be set")
                                   : said_of(GainScale(*c, document_.rig().feel.half_share).words(a.calm_place))));
    gust_words_->setText(tr("A gust, hands off:"));
    show_gust();
    return;
  }
  const double gain = gain_at(height);
  double calm_to = 0, may_from = 0;
  for (const MarginPoint& p : a.stricter()) {
    const double here = gain * follows_speed(*c, p.m_s, r->aeroplane.cruise_m_s);
    if (p.shakes_s <= 0 || here <= p.calm_s) calm_to = p.m_s;
    if (may_from == 0 && p.shakes_s > 0 && here >= p.shakes_least_s) may_from = p.m_s;
  }
  const bool all = calm_to >= a.stricter().back().m_s;
  verdict_->setText(
      all           ? tr("Calm at every speed, up to the dive.")
      : calm_to > 0 ? may_from > 0 ? tr("Calm up to %1; from %2 on it may shake.").arg(speed(calm_to), speed(may_from))
                                   : tr("Calm up to %1; beyond, there is little room left.").arg(speed(calm_to))
                    : tr("Too firm at every speed%1.")
                          .arg(may_from > 0 ? tr("; from %1 on it may shake").arg(speed(may_from)) : QString()));
  show_gust();
}

void FeelPage::show_gust() {
  const FeelReport* r = report();
  const AxisFeel& a = r->of(axis_);
  const auto height = view_->setting();
  const double gain = height ? gain_at(*height) : 0;
  const double v = r->aeroplane.cruise_m_s;
  const bool levels = !a.level.empty();
  const GustAnswer with = gust_answer(*r, axis_, gain, levels && gain > 0, v),
                   without = gust_answer(*r, axis_, 0, false, v);
  strip_->show_answer(axis_, document_.review().airframe.panels, with, without);
  gust_words_->setText(gain <= 0         ? tr("A gust at cruise, hands off:")
                       : with.swings > 3 ? tr("A gust at cruise: the answer goes on swinging.")
                       : levels          ? tr("A gust at cruise, levelling; pale: hands off.")
                                         : tr("A gust at cruise; pale: hands off."));
}

void FeelPage::set_place(double height) {
  const ControllerClass* c = document_.catalogue().controller(document_.rig().controller.kind);
  if (!c) return;
  if (!GainScale(*c, {}).settable()) {
    // Nothing is set: holes are chosen at station surfaces.
    verdict_->setText(tr("%1 The linkage decides: choose holes for that throw.").arg(verdict_->text()));
    return;
  }
  document_.apply(set_gain(document_.rig(), document_.catalogue(), axis_, height));
}

void FeelPage::type_place() {
  if (!typed_->isModified()) return;
  typed_->setModified(false);
  const auto edit = set_gain_in_words(document_.rig(), document_.catalogue(), axis_, typed_->text().toStdString());
  if (!edit) {
    // What is not understood stays in the box.
    why_->setText(said_of(capital(edit.error().what) + " does not fit: " + edit.error().expected + "."));
    why_->show();
    return;
  }
  why_->hide();
  document_.apply(edit);
}

void FeelPage::set_first() {
  const DeferredReview* d = document_.deferred();
  if (!d) return;
  document_.apply(set_first_gains(document_.rig(), document_.catalogue(), d->feel_advice));
}

void FeelPage::show_advice() {
  const DeferredReview* d = document_.deferred();
  if (!d || !d->feel.missing.empty()) {
    list_->clear();
    return;
  }
  const FeelAdvice& a = d->feel_advice;
  std::vector<std::string> lines;
  QString head;
  takeoff_->setVisible(list_keys_->checkedId() == launch_list);
  switch (list_keys_->checkedId()) {
    case first_list:
      for (const FirstGain& f : a.first)
        lines.push_back(capital(std::string(word(f.axis))) + ": " + f.set + ". " + f.why);
      for (const FeelAdvice::Throw& t : a.throws) lines.push_back(t.words);
      break;
    case steps_list:
      for (const GainStep& s : a.steps)
        if (s.axis == axis_)
          lines.push_back(s.set + ", flown at " + speed_text(s.m_s) + ". Watch for " + s.watch + ". " + s.back_off);
      if (lines.empty()) lines.emplace_back("No steps on this axis.");
      break;
    case bench_list: lines = a.bench; break;
    case launch_list: {
      const TakeoffAdvice t = takeoff_advice(document_.rig(), document_.review(), *d);
      head = QStringLiteral("<p style='margin:0 0 7px 0'><b>%1</b></p>")
                 .arg(t.go ? tr("Go, says the plan.") : tr("Not yet:"));
      lines = t.not_yet;
      for (const auto* more : {&t.cautions, &t.lines, &a.rates, &a.launch})
        lines.insert(lines.end(), more->begin(), more->end());
      break;
    }
    default: break;
  }
  QString html = head + bullets(lines);
  if (list_keys_->checkedId() != bench_list)
    for (std::size_t k = 1; k < a.cautions.size(); ++k)
      html += QStringLiteral("<p style='margin:0 0 7px 0'><i>%1</i></p>").arg(said_of(a.cautions[k]).toHtmlEscaped());
  else
    html.prepend(
        QStringLiteral("<p style='margin:0 0 7px 0'><b>%1</b></p>").arg(said_of(a.cautions.front()).toHtmlEscaped()));
  list_->setText(html);
}

void FeelPage::ask_takeoff() {
  Rig rig = document_.rig();
  Takeoff& t = rig.feel.takeoff;
  NumbersDialog dialog(
      tr("How it takes off"),
      tr("What is left open is taken as usual: a throw of 7 m/s, room enough. Where it may be flown, the rules of the "
         "place and the club decide."),
      this);
  auto way = static_cast<std::size_t>(t.way), steering = static_cast<std::size_t>(t.steering);
  dialog.add("takeoff_way", tr("From"), way, {tr("the hand"), tr("the ground"), tr("a tow"), tr("a height")});
  dialog.add("throw", t, &Takeoff::throw_m_s, tr("as usual"));
  dialog.add("run", t, &Takeoff::run_m, tr("room enough"));
  dialog.add("tow", t, &Takeoff::tow_m_s, tr("not known"));
  dialog.add("wind", t, &Takeoff::wind_m_s);
  dialog.add("crosswind", t, &Takeoff::crosswind_m_s);
  dialog.add("steering", tr("Steered by"), steering, {tr("nothing"), tr("a wheel"), tr("the rudder")});
  dialog.add("rough", tr("Grass, not a strip"), t.rough);
  dialog.ask(document_, [&]() -> Result<Edit> {
    t.way = static_cast<TakeoffWay>(way);
    t.steering = static_cast<Steering>(steering);
    return Edit{rig, "How it takes off"};
  });
}

void FeelPage::read_log() {
  const QString file =
      QFileDialog::getOpenFileName(this, tr("A flight's log"), {}, tr("Comma-separated (*.csv);;All files (*)"));
  if (!file.isEmpty()) take_log(file);
}

void FeelPage::take_log(const QString& file) {
  const FeelReport* r = report();
  if (!r) return;
  const auto log = [&]() -> Result<FlightLog> {
    const auto text = read_file(file.toStdString(), std::size_t{1} << 30);
    if (!text) return tl::make_unexpected(text.error());
    return parse_flight_log(*text, QFileInfo(file).fileName().toStdString(), document_.rig().feel.log_columns);
  }();
  if (!log) {
    Q_EMIT said(said_of(log.error().text()));
    return;
  }
  const FlightLesson lesson = lesson_of(document_.rig(), document_.catalogue(), *r, *log);
  QStringList words;
  bool turns_down = false, learns = false;
  for (const AxisLesson& l : lesson.axes) {
    words << said_of(l.words);
    turns_down = turns_down || l.place;
    learns = learns || l.after;
  }
  QMessageBox box(this);
  box.setObjectName(QStringLiteral("lesson"));
  box.setWindowTitle(tr("What the flight told"));
  box.setText(words.join(QStringLiteral("\n\n")));
  QPushButton* both = turns_down ? box.addButton(tr("Turn down and learn"), QMessageBox::AcceptRole) : nullptr;
  QPushButton* only = learns ? box.addButton(tr("Correct the model only"), QMessageBox::AcceptRole) : nullptr;
  box.addButton(turns_down || learns ? tr("Leave all as it is") : tr("Close"), QMessageBox::RejectRole);
  box.exec();
  if (box.clickedButton() && (box.clickedButton() == both || box.clickedButton() == only))
    document_.apply(take_lesson(document_.rig(), lesson, box.clickedButton() == both));
}

}  // namespace rigging::app
