#include "stations/feel/feel_page.h"

#include <QButtonGroup>
#include <QLineEdit>
#include <QPushButton>
#include <QStackedWidget>
#include <QStyle>
#include <QVBoxLayout>
#include <cmath>
#include <utility>

#include "base/angle.h"
#include "base/number.h"
#include "base/units.h"
#include "feel/edits.h"
#include "feel/gust.h"
#include "look/literals.h"
#include "look/pieces.h"
#include "stations/feel/advice_list.h"
#include "stations/feel/fly_controls.h"
#include "stations/feel/gust_strip.h"
#include "stations/feel/log_reader.h"
#include "stations/numbers_dialog.h"

namespace rigging::app {
namespace {

constexpr double throw_room = 1.5;  ///< of a linkage's scale over the throw that there is

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

}  // namespace

FeelPage::FeelPage(const PageContext& context) : StationPage(Station::feel, context) {
  auto* page = new QHBoxLayout(this);
  page->setContentsMargins(16, 10, 12, 10);
  page->setSpacing(14);

  auto* left = new QVBoxLayout;
  left->addWidget(heading());
  auto* axes = new QHBoxLayout;
  axis_keys_ = new QButtonGroup(this);
  for (const auto& [axis, name, hint] : {std::tuple{Axis::roll, u"Roll"_s, u"What stops the wings from rocking"_s},
                                         {Axis::pitch, u"Pitch"_s, u"What stops the nose from nodding"_s},
                                         {Axis::yaw, u"Yaw"_s, u"What stops the tail from wagging"_s}}) {
    auto* b = key(name,
                  name_of(axis) == "roll"    ? "axis_roll"
                  : name_of(axis) == "pitch" ? "axis_pitch"
                                             : "axis_yaw",
                  hint);
    axis_keys_->addButton(b, index_of(axis));
    axes->addWidget(b);
  }
  fly_ =
      key(u"Fly it"_s, "fly_it", u"In simulation: gusts, a tug, a dive, a throw; as planned, and the bench's model"_s);
  axes->addSpacing(12);
  axes->addWidget(fly_);
  connect(fly_, &QPushButton::toggled, this, &FeelPage::show_flying);
  axes->addStretch(1);
  axes->addWidget(caution_ = caution_words());
  caution_->setText(u"Worked out, not flown."_s);
  caution_->setToolTip(u"The band says how sure it is."_s);
  caution_->setWordWrap(false);
  left->addLayout(axes);
  connect(axis_keys_, &QButtonGroup::idClicked, this, [this](int id) { show_axis(static_cast<Axis>(id)); });
  auto* firmness = new QWidget;
  auto* column = new QVBoxLayout(firmness);
  column->setContentsMargins(0, 0, 0, 0);
  view_ = new FeelView;
  column->addWidget(view_, 1);
  connect(view_, &FeelView::dragged, this, &FeelPage::show_words);
  connect(view_, &FeelView::let_go, this, &FeelPage::set_place);
  verdict_ = wrapping_words(10.5, true);
  verdict_->setObjectName(u"feel_verdict"_s);
  verdict_->setMinimumHeight(38);
  verdict_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  column->addWidget(verdict_);
  gust_words_ = wrapping_words(9);
  column->addWidget(gust_words_);
  strip_ = new GustStrip;
  column->addWidget(strip_);
  flight_ = new FlightPicture;
  pictures_ = new QStackedWidget;
  pictures_->addWidget(firmness);
  pictures_->addWidget(flight_);
  left->addWidget(pictures_, 1);
  page->addLayout(left, 1);

  auto* side = new QVBoxLayout;
  side->setSpacing(8);
  auto* start_row = new QHBoxLayout;
  start_row->addWidget(new QLabel(u"Begin with"_s));
  start_keys_ = new QButtonGroup(this);
  for (const auto& [start, id, name, hint] :
       {std::tuple{StartAt::least, "start_least", u"Least gain"_s,
                   u"The first flight nearly by hand, then up in steps"_s},
        {StartAt::half, "start_half", u"Half gain"_s, u"Half of what stays calm, a dial not above its middle"_s}}) {
    auto* b = key(name, id, hint);
    start_keys_->addButton(b, static_cast<int>(start));
    start_row->addWidget(b);
  }
  connect(start_keys_, &QButtonGroup::idClicked, this,
          [this](int id) { document_.apply(start_at(document_.rig(), static_cast<StartAt>(id))); });
  side->addLayout(start_row);
  first_ = hinted_button(u"Plan the first gains"_s, "first_gains",
                         u"Puts all axes where the advice for the first flight says"_s);
  first_->setProperty("main", true);
  connect(first_, &QPushButton::clicked, this, &FeelPage::set_first);
  side->addWidget(first_);
  auto* typed_row = new QHBoxLayout;
  typed_row->addWidget(typed_label_ = new QLabel);
  typed_ = new QLineEdit;
  typed_->setObjectName(u"typed_gain"_s);
  typed_->setFont(Style::instance().figures());
  typed_->setAccessibleName(u"Gain of this axis, as the board shows it"_s);
  typed_label_->setBuddy(typed_);
  connect(typed_, &QLineEdit::editingFinished, this, &FeelPage::type_place);
  typed_row->addWidget(typed_, 1);
  side->addLayout(typed_row);
  give_ = hinted_button(u"Give it at station airframe"_s, "feel_give",
                        u"What has to be known before anything can be worked out"_s);
  connect(give_, &QPushButton::clicked, this, [this] { Q_EMIT wanted(Station::airframe, QString()); });
  side->addWidget(give_);
  why_ = caution_words();
  why_->setObjectName(u"typed_refused"_s);
  why_->hide();
  side->addWidget(why_);
  auto* more = new QHBoxLayout;
  log_ = hinted_button(u"From a flight's log…"_s, "feel_log",
                       u"Finds what shook and why, corrects the model, says what to turn down"_s);
  reader_ = new LogReader(document_, this);
  connect(reader_, &LogReader::said, this, &FeelPage::said);
  connect(log_, &QPushButton::clicked, reader_, &LogReader::choose);
  more->addWidget(log_);
  holes_ = hinted_button(u"Holes for it…"_s, "feel_holes", u"To station surfaces: another hole is another throw"_s);
  connect(holes_, &QPushButton::clicked, this, [this] { Q_EMIT wanted(Station::surfaces, QString()); });
  more->addWidget(holes_);
  more_ = hinted_button(u"Limits, wishes…"_s, "feel_more",
                        u"Level strength, limits of bank and nose, wanted rates, the law of the dial"_s);
  connect(more_, &QPushButton::clicked, this, &FeelPage::ask_more);
  more->addWidget(more_);
  side->addLayout(more);

  advice_ = new AdviceList(document_);
  flying_ = new FlyControls(context, *flight_);
  connect(flying_, &FlyControls::bench_asked, this, &FeelPage::bench_asked);
  connect(flying_, &FlyControls::told, reader_, [this](const FlightLog& log) { reader_->tell(log, true); });
  sides_ = new QStackedWidget;
  sides_->addWidget(advice_);
  sides_->addWidget(flying_);
  side->addWidget(sides_, 1);
  auto* right = new QWidget;
  keep_width(right, 312);
  right->setLayout(side);
  side->setContentsMargins(0, 0, 0, 0);
  page->addWidget(right);
  connect(&document_, &RigDocument::deferred_ready, this, &FeelPage::refresh);
}

const FeelReport* FeelPage::report() const { return document_.deferred() ? &document_.deferred()->feel : nullptr; }

void FeelPage::go_to(const QString& subject) {
  if (const auto axis = from_name<Axis>(subject.toStdString())) show_axis(*axis);
}

QList<NamedAction> FeelPage::named_actions() {
  QList<NamedAction> all;
  for (const Axis axis : all_axes) {
    const QString name = said_of(std::string(name_of(axis)));
    all.append({u"Show the %1 gain"_s.arg(name), u"feel firmness dial slider shake oscillate margin"_s, [this, axis] {
                  come_here();
                  show_axis(axis);
                }});
  }
  all.append({u"Plan the first gains"_s, u"feel dial slider first flight"_s,
              [this] {
                come_here();
                set_first();
              },
              NamedAction::Does::changes_rig});
  all.append({u"Fly it in simulation"_s, u"feel gust throw dive turbulence plot film try"_s, [this] {
                come_here();
                fly_->setChecked(true);
              }});
  all.append({u"Read a flight's log"_s, u"feel oscillation shaking csv"_s, [this] {
                come_here();
                reader_->choose();
              }});
  return all;
}

void FeelPage::refresh() {
  for (const Axis axis : all_axes) axis_keys_->button(index_of(axis))->setChecked(axis == axis_);
  start_keys_->button(static_cast<int>(document_.rig().feel.start))->setChecked(true);
  show_axis(axis_);
}

void FeelPage::show_axis(Axis axis) {
  if (std::exchange(axis_, axis) != axis) typed_->setModified(false);
  advice_->show_axis(axis);
  if (fly_->isChecked()) flying_->show_axis(axis);
  axis_keys_->button(index_of(axis))->setChecked(true);
  const FeelReport* r = report();
  show_controls();
  if (known()) {
    view_->show_axis(said_of(std::string(name_of(axis))), picture_of(*r));
    show_words(view_->setting().value_or(-1));
    return;
  }
  view_->show_nothing(!r                    ? u"Being worked out…"_s
                      : !r->missing.empty() ? said_of(r->missing)
                                            : said_of(r->of(axis).why_not));
  strip_->clear();
  verdict_->clear();
  gust_words_->clear();
}

bool FeelPage::known() const {
  const FeelReport* r = report();
  return r && r->missing.empty() && r->of(axis_).known();
}

std::optional<GainScale> FeelPage::scale() const {
  const ControllerClass* c = document_.controller();
  return c ? std::optional(GainScale(*c, document_.rig().feel.half_share)) : std::nullopt;
}

void FeelPage::show_controls() {
  const auto scale = this->scale();
  const bool settable = scale && scale->settable();
  const FeelReport* r = report();
  bool can_plan = r && settable && !document_.deferred()->feel_advice.first.empty(), as_advised = can_plan;
  if (can_plan)
    for (const FirstGain& f : document_.deferred()->feel_advice.first) {
      const AxisGain* g = document_.rig().feel.gain(f.axis);
      as_advised = as_advised && g && g->rate && std::abs(*g->rate - f.place) < 1e-9;
    }
  first_->setEnabled(can_plan && !as_advised);
  first_->setToolTip(as_advised ? u"They stand as advised: set them on the board and prove them"_s
                                : u"Puts all axes where the advice for the first flight says"_s);
  give_->setVisible(r && !r->missing.empty());
  holes_->setVisible(scale && !settable);
  for (QAbstractButton* key : start_keys_->buttons()) key->setEnabled(settable);
  typed_label_->setText(u"%1 gain"_s.arg(said_of(capital(std::string(name_of(axis_))))));
  const AxisGain* set = document_.rig().feel.gain(axis_);
  const auto one_side = [&](double place) { return said_of(scale->words(place)).section(QLatin1Char(','), 0, 0); };
  // What is being typed stays.
  typed_->setEnabled(settable);
  if (!typed_->isModified()) typed_->setText(settable && set && set->rate ? one_side(*set->rate) : QString());
  typed_->setPlaceholderText(settable ? u"such as %1"_s.arg(one_side(0.25)) : QString());
  if (!typed_->isModified()) why_->hide();
}

FeelView::Shown FeelPage::picture_of(const FeelReport& r) const {
  const AxisFeel& a = r.of(axis_);
  const GainScale scale = *this->scale();
  FeelView::Shown shown;
  shown.curve = a.stricter();
  shown.follows = [kind = *document_.controller(), cruise = r.aeroplane.cruise_m_s](double m_s) {
    return follows_speed(kind, m_s, cruise);
  };
  shown.cruise_m_s = r.aeroplane.cruise_m_s, shown.fast_m_s = r.fast_m_s;
  const double full = a.path.full_gain_s, now_deg = a.control.throw_rad / rad;
  if (scale.settable()) {
    shown.scale.height = [scale, full](double gain) { return scale.place_for(gain / full); };
    shown.scale.words = [scale](double height) { return said_of(scale.words(height)); };
    shown.scale.marks = marks_of(scale);
    shown.scale.step = scale.step();
    shown.setting = a.place;
    for (const FirstGain& f : document_.deferred()->feel_advice.first)
      if (f.axis == axis_ && (!a.place || std::abs(f.place - *a.place) > 1e-6)) shown.first = f.place;
    return shown;
  }
  // The linkage sets it: the scale is the throw.
  shown.scale.height = [full](double gain) { return gain / (full * throw_room); };
  shown.scale.words = [now_deg](double height) {
    return u"%1° of throw"_s.arg(said_of(number_text(height * throw_room * now_deg, 1)));
  };
  for (int k = 0; k <= 3; ++k)
    shown.scale.marks.emplace_back(k / 3.0, said_of(number_text(k / 3.0 * throw_room * now_deg, 0)) + u"°"_s);
  shown.setting = 1 / throw_room;
  return shown;
}

double FeelPage::gain_at(double height) const {
  const GainScale scale = *this->scale();
  return report()->of(axis_).path.full_gain_s * (scale.settable() ? scale.effect(height) : height * throw_room);
}

void FeelPage::show_words(double height) {
  if (!known()) return;
  const FeelReport* r = report();
  const AxisFeel& a = r->of(axis_);
  if (height < 0) {
    verdict_->setText(u"Nothing is set yet. At %1 it stays calm up to %2."_s.arg(
        speed(r->fast_m_s), a.calm_place > 1 ? u"the most that can be set"_s : said_of(scale()->words(a.calm_place))));
    gust_words_->setText(u"A gust, hands off:"_s);
    show_gust();
    return;
  }
  const double gain = gain_at(height);
  double calm_to = 0, may_from = 0;
  for (const MarginPoint& p : a.stricter()) {
    const double here = gain * follows_speed(*document_.controller(), p.m_s, r->aeroplane.cruise_m_s);
    if (p.shakes_s <= 0 || here <= p.calm_s) calm_to = p.m_s;
    if (may_from == 0 && p.shakes_s > 0 && here >= p.shakes_least_s) may_from = p.m_s;
  }
  const bool all = calm_to >= a.stricter().back().m_s;
  verdict_->setText(
      all           ? u"Calm at every speed, up to the dive."_s
      : calm_to > 0 ? may_from > 0 ? u"Calm up to %1; from %2 on it may shake."_s.arg(speed(calm_to), speed(may_from))
                                   : u"Calm up to %1; beyond, there is little room left."_s.arg(speed(calm_to))
                    : u"Too firm at every speed%1."_s.arg(
                          may_from > 0 ? u"; from %1 on it may shake"_s.arg(speed(may_from)) : QString()));
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
  strip_->show_answer(axis_, document_.review().reports.airframe().panels, with, without);
  gust_words_->setText(gain <= 0         ? u"A gust at cruise, hands off:"_s
                       : with.swings > 3 ? u"A gust at cruise: the answer goes on swinging."_s
                       : levels          ? u"A gust at cruise, levelling; pale: hands off."_s
                                         : u"A gust at cruise; pale: hands off."_s);
}

void FeelPage::set_place(double height) {
  if (!scale() || !scale()->settable()) {
    // Nothing is set: holes are chosen at station surfaces.
    verdict_->setText(u"%1 The linkage decides: choose holes for that throw."_s.arg(verdict_->text()));
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
    typed_->setModified(true);
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
  if (!d->feel.missing.empty()) return Q_EMIT said(said_of(d->feel.missing));
  document_.apply(set_first_gains(document_.rig(), document_.catalogue(), d->feel_advice));
}

void FeelPage::take_log(const QString& file) { reader_->read(file); }
bool FeelPage::log_taken() const { return reader_->idle(); }

void FeelPage::ask_more() {
  const ControllerClass* c = document_.controller();
  if (!c) return;
  Rig rig = document_.rig();
  Feel& f = rig.feel;
  NumbersDialog dialog(u"More of the feel"_s,
                       u"What the class does not have is not asked. Left open: as usual for the class."_s, this);
  const bool levels = c->mode(Mode::level) != nullptr;
  if (levels && c->feel.level_apart) {
    for (const Axis axis : {Axis::roll, Axis::pitch}) f.made_gain(axis);  // both are there before one is pointed at
    for (const Axis axis : {Axis::roll, Axis::pitch})
      dialog.add(axis == Axis::roll ? "level_roll" : "level_pitch", f.made_gain(axis), &AxisGain::level,
                 u"as the gain"_s, u"%1 level strength"_s.arg(said_of(capital(std::string(name_of(axis))))));
  }
  if (c->feel.sets_stick) {
    for (const Axis axis : all_axes) f.made_gain(axis);
    for (const auto& [axis, id] :
         {std::pair{Axis::roll, "stick_roll"}, {Axis::pitch, "stick_pitch"}, {Axis::yaw, "stick_yaw"}})
      dialog.add(id, f.made_gain(axis), &AxisGain::stick, u"all of it"_s,
                 u"%1 direct stick (feed forward)"_s.arg(said_of(capital(std::string(name_of(axis))))));
  }
  if (levels && c->feel.limits) {
    dialog.add("bank_limit", f, &Feel::bank_limit_deg, u"as usual"_s);
    dialog.add("nose_limit", f, &Feel::nose_limit_deg, u"as usual"_s);
  }
  dialog.add("want_roll", f, &Feel::want_roll_deg_s, u"no wish"_s);
  dialog.add("want_pitch", f, &Feel::want_pitch_deg_s, u"no wish"_s);
  if (c->feel.gain_by == GainBy::dial) dialog.add("half_share", f, &Feel::half_share, u"as usual"_s);
  dialog.ask(document_, [&] { return wish_feel(rig, f); });
}

void FeelPage::show_flying(bool on) {
  pictures_->setCurrentIndex(on ? 1 : 0);
  sides_->setCurrentIndex(on ? 1 : 0);
  caution_->setText(on ? u"Simulated, not flown."_s : u"Worked out, not flown."_s);
  // One thing is the next step.
  make_main(*first_, !on);
  if (on) flying_->show_axis(axis_);
}

}  // namespace rigging::app
