#include "stations/home/home_page.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QSlider>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>
#include <utility>

#include "base/angle.h"
#include "base/json.h"
#include "base/number.h"
#include "base/units.h"
#include "fit/compass.h"
#include "home/edits.h"
#include "home/field_files.h"
#include "home/flown_home.h"
#include "look/pieces.h"
#include "stations/home/home_sheets.h"

namespace rigging::app {
namespace {

QString spoken(LossAction action) {
  switch (action) {
    case LossAction::glide: return QObject::tr("Motor off, glide level");
    case LossAction::circle: return QObject::tr("Circle where it is");
    case LossAction::come_home: return QObject::tr("Come home");
    default: return QObject::tr("Not decided");
  }
}

QLabel* caption(const QString& words, QWidget* buddy) {
  auto* l = new QLabel(words);
  l->setBuddy(buddy);
  return l;
}

}  // namespace

QDoubleSpinBox* HomePage::box(const char* id, const QString& label, const QString& unit, Span range, int decimals,
                              const QString& unknown, void (*put)(Home&, std::optional<double>)) {
  auto* b = number_box(QLatin1String(id), label, 112);
  const double step = std::pow(10, -decimals);
  const bool open = !unknown.isEmpty();
  b->setDecimals(decimals);
  b->setRange(open ? range.least - step : range.least, range.most);
  b->setSuffix(QLatin1Char(' ') + unit);
  if (open) b->setSpecialValueText(unknown);
  const int row = grid_->rowCount();
  grid_->addWidget(caption(label, b), row, 0);
  grid_->addWidget(b, row, 1);
  connect(b, &QDoubleSpinBox::valueChanged, this, [this, b, put, open, label](double value) {
    if (filling_) return;
    const double unit = b->suffix().trimmed() == field_unit() ? field_unit_m() : 1;
    const std::optional<double> given =
        open && value < b->minimum() + 1e-9 ? std::nullopt : std::optional(value * unit);
    change(label, [&](Home& h) { put(h, given); });
  });
  connect(b, &QDoubleSpinBox::editingFinished, this, [this, b, label] {
    const QString refusal = static_cast<NumberBox*>(b)->take_refusal();
    if (!refusal.isEmpty()) Q_EMIT said(label + QStringLiteral(": ") + refusal);
  });
  return b;
}

HomePage::HomePage(const PageContext& context)
    : StationPage(Station::home, context),
      rehearser_([this](const Result<RehearsalTable>& table) { tell_rehearsal(table); }) {
  auto* page = new QHBoxLayout(this);
  page->setContentsMargins(16, 10, 12, 10);
  page->setSpacing(14);
  auto* left = new QVBoxLayout;
  auto* top = new QHBoxLayout;
  top->addWidget(heading(), 1);
  switches_ = hinted_button(tr("Switches"), "home_switches", tr("What every way the switches can stand does"));
  switches_->setCheckable(true);
  bench_key_ =
      hinted_button(tr("Bench"), "home_bench", tr("Transmitter off, every position, arming: looked at and recorded"));
  bench_key_->setCheckable(true);
  top->addWidget(switches_);
  top->addWidget(bench_key_);
  caution_ = caution_words();
  caution_->setWordWrap(false);
  caution_->setText(tr("Worked out, not flown."));
  caution_->setToolTip(
      tr("Steady wind, straight tracks; the hatched rim says how sure it is. Where one may fly is the "
         "law of the place and the club's."));
  top->addWidget(caution_);
  left->addLayout(top);
  auto* field = new QWidget;
  auto* column = new QVBoxLayout(field);
  column->setContentsMargins(0, 0, 0, 0);
  chart_ = new ReachChart;
  column->addWidget(chart_, 1);
  moment_ = wrapping_words(10);
  moment_->setObjectName(QStringLiteral("story_moment"));
  moment_->setMinimumHeight(38);
  moment_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  column->addWidget(moment_);
  strip_ = new StoryStrip;
  column->addWidget(strip_);
  deck_ = new SwitchDeck;
  pictures_ = new QStackedWidget;
  pictures_->addWidget(field);
  pictures_->addWidget(deck_);
  pictures_->addWidget(make_bench());
  left->addWidget(pictures_, 1);
  connect(switches_, &QPushButton::toggled, this, [this](bool on) {
    if (on) bench_key_->setChecked(false);
    show_picture();
  });
  connect(bench_key_, &QPushButton::toggled, this, [this](bool on) {
    if (on) switches_->setChecked(false);
    show_picture();
  });
  page->addLayout(left, 1);

  auto* side = new QVBoxLayout;
  side->setSpacing(6);
  side->setContentsMargins(0, 0, 0, 0);
  grid_ = new QGridLayout;
  grid_->setVerticalSpacing(4);
  grid_->setColumnStretch(0, 1);
  on_loss_ = new QComboBox;
  on_loss_->setObjectName(QStringLiteral("on_loss"));
  on_loss_->setAccessibleName(tr("What it does when the link is gone"));
  on_loss_->setToolTip(tr("What the controller does by itself; only what can work with what is fitted"));
  connect(on_loss_, &QComboBox::activated, this, [this] {
    const auto action = static_cast<LossAction>(on_loss_->currentData().toInt());
    change(spoken(action), [action](Home& h) { h.on_loss = action; });
  });
  side->addWidget(caption(tr("When the link is gone"), on_loss_));
  side->addWidget(on_loss_);
  choice_words_ = wrapping_words(9);
  choice_words_->setProperty("soft", true);
  side->addWidget(choice_words_);
  hold_ = box("home_hold", tr("Waits first"), tr("s"), {0, 60}, 1, {},
              [](Home& h, std::optional<double> v) { h.hold_s = *v; });
  height_ = box("home_height", tr("Way home at"), tr("m"), {0, 5000}, 0, tr("as needed"),
                [](Home& h, std::optional<double> v) { h.height_m = v; });
  climb_first_ = new QCheckBox(tr("Climbs before it turns home"));
  climb_first_->setObjectName(QStringLiteral("climb_first"));
  climb_first_->setToolTip(tr("Else on the way: sooner home, lower over what stands there"));
  connect(climb_first_, &QCheckBox::clicked, this,
          [this](bool on) { change(tr("Climbs first"), [on](Home& h) { h.climb_first = on; }); });
  grid_->addWidget(climb_first_, grid_->rowCount(), 0, 1, 2);
  circle_ = box("home_circle", tr("Circles at home within"), tr("m"), {5, 2000}, 0, tr("as needed"),
                [](Home& h, std::optional<double> v) { h.circle_radius_m = v; });
  arrival_ = new QComboBox;
  arrival_->setObjectName(QStringLiteral("on_arrival"));
  arrival_->addItem(tr("circles on"), static_cast<int>(OnArrival::circle));
  arrival_->addItem(tr("lands by itself"), static_cast<int>(OnArrival::land));
  connect(arrival_, &QComboBox::activated, this, [this] {
    const auto what = static_cast<OnArrival>(arrival_->currentData().toInt());
    change(tr("At home"), [what](Home& h) { h.on_arrival = what; });
  });
  const int row = grid_->rowCount();
  grid_->addWidget(caption(tr("Then it"), arrival_), row, 0);
  grid_->addWidget(arrival_, row, 1);
  area_ = box("home_area", tr("Flies as far as"), tr("m"), {10, 50000}, 0, tr("not told"),
              [](Home& h, std::optional<double> v) { h.area_m = v; });
  warn_ = box("home_warn", tr("Turns home at"), tr("V"), {2, 60}, 1, tr("not set"),
              [](Home& h, std::optional<double> v) { h.warn_v = v; });
  side->addLayout(grid_);
  charge_ = new QSlider(Qt::Horizontal);
  charge_->setObjectName(QStringLiteral("charge_left"));
  charge_->setAccessibleName(tr("Charge left when the link goes"));
  charge_->setRange(5, 100);
  charge_->setValue(50);
  charge_words_ = new QLabel;
  charge_words_->setBuddy(charge_);
  connect(charge_, &QSlider::valueChanged, this, [this] {
    charge_chosen_ = true;
    show_chart({document_.rig().home.wind_m_s, document_.rig().home.wind_from_deg});
    show_story();
  });
  side->addWidget(charge_words_);
  side->addWidget(charge_);
  obstacle_ = hinted_button(tr("What stands high…"), "home_obstacle",
                            tr("A mast, a church, a row of trees, as seen from home"));
  connect(obstacle_, &QPushButton::clicked, this, [this] { ask_obstacle(document_, this); });
  triggers_ =
      hinted_button(tr("What else…"), "home_triggers", tr("Low battery, fence, lost position: what it does then"));
  by_itself_ = hinted_button(tr("By itself…"), "home_by_itself",
                             tr("Throttle, landing, alarm and checks while it flies by itself"));
  goggles_ = hinted_button(tr("Goggles…"), "home_goggles", tr("What is written over the picture"));
  connect(triggers_, &QPushButton::clicked, this, [this] {
    if (const HomeReport* r = report()) ask_triggers(document_, *r, this);
  });
  connect(by_itself_, &QPushButton::clicked, this, [this] {
    if (const HomeReport* r = report()) ask_by_itself(document_, *r, this);
  });
  connect(goggles_, &QPushButton::clicked, this, [this] { ask_goggles(document_, this); });
  auto* more = new QHBoxLayout;
  for (QPushButton* b : {triggers_, by_itself_, goggles_}) more->addWidget(b);
  side->addLayout(more);
  working_ = hinted_button(tr("Show working"), "home_working", tr("Every number with where it comes from"));
  working_->setCheckable(true);
  connect(working_, &QPushButton::toggled, this, &HomePage::show_words);
  auto* keys = new QHBoxLayout;
  keys->addWidget(obstacle_);
  keys->addWidget(working_);
  side->addLayout(keys);
  auto* tries = new QHBoxLayout;
  rehearse_ = hinted_button(tr("Rehearse 200 times"), "home_rehearse",
                            tr("In simulation: the link is cut all over the area, in gusts, with aircraft like yours"));
  connect(rehearse_, &QPushButton::clicked, this, &HomePage::rehearse_it);
  tries->addWidget(rehearse_);
  fly_ =
      hinted_button(tr("Fly one on the bench"), "home_fly",
                    tr("The bench's simulated model flies, the link is cut, and its own board brings it home or not"));
  connect(fly_, &QPushButton::clicked, this, &HomePage::fly_it);
  tries->addWidget(fly_);
  side->addLayout(tries);
  lay_out_ = hinted_button(tr("Lay out the first flight"), "home_lay_out",
                           tr("Manual, level and circle on the mode switch, return on a switch of its own"));
  lay_out_->hide();
  connect(lay_out_, &QPushButton::clicked, this,
          [this] { document_.apply(lay_out_first_flight(document_.rig(), document_.catalogue())); });
  side->addWidget(lay_out_);
  launch_ = hinted_button(tr("Launch in the place of manual"), "home_launch",
                          tr("For later flights, when the corrections were flown: then there is no manual"));
  launch_->hide();
  connect(launch_, &QPushButton::clicked, this,
          [this] { document_.apply(lay_out_launch(document_.rig(), document_.catalogue())); });
  side->addWidget(launch_);
  give_ = hinted_button(tr("Give it there"), "home_give", tr("What has to be known before anything can be worked out"));
  connect(give_, &QPushButton::clicked, this, [this] {
    if (const HomeReport* r = report()) Q_EMIT wanted(r->missing_at, QString());
  });
  side->addWidget(give_);
  looked_up_ = new QLineEdit;
  looked_up_->setObjectName(QStringLiteral("looked_up"));
  looked_up_->setPlaceholderText(tr("which rules, where, when"));
  looked_up_->setAccessibleName(tr("Rules of the place and the club that were looked up"));
  connect(looked_up_, &QLineEdit::editingFinished, this, [this] {
    if (!filling_)
      change(tr("Rules looked up"), [text = looked_up_->text().toStdString()](Home& h) { h.looked_up = text; });
  });
  side->addWidget(caption(tr("Rules of the place and the club, looked up"), looked_up_));
  side->addWidget(looked_up_);
  words_ = wrapping_words(9.5);
  words_->setObjectName(QStringLiteral("home_words"));
  words_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  words_->setTextFormat(Qt::PlainText);
  side->addWidget(words_);
  side->addStretch(1);
  auto* plan = new QWidget;
  plan->setLayout(side);
  plan_ = new QScrollArea;
  plan_->setWidgetResizable(true);
  plan_->setFrameShape(QFrame::NoFrame);
  plan_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  plan_->setWidget(plan);
  plan_->setFixedWidth(326);
  page->addWidget(plan_);

  connect(chart_, &ReachChart::place_moved, this, &HomePage::show_story);
  connect(chart_, &ReachChart::wind_moved, this, [this](double m_s, double from_deg, bool let_go) {
    show_chart({m_s, from_deg});
    if (!let_go) return;
    change(tr("Wind"), [=](Home& h) { h.wind_m_s = m_s, h.wind_from_deg = from_deg; });
  });
  connect(strip_, &StoryStrip::scrubbed, this, &HomePage::show_moment);
  connect(&document_, &RigDocument::deferred_ready, this, &HomePage::refresh);
  connect(&bench_, &BenchLink::flew, this, &HomePage::tell_flight);
  connect(&bench_, &BenchLink::hands_done, this, [this](bool good, const QString& why) {
    if (good || !asked_) return;
    asked_.reset();
    flown_ = tr("It does not fly: %1").arg(why);
    refresh();
  });
}

QWidget* HomePage::make_bench() {
  auto* bench = new QWidget;
  auto* row = new QHBoxLayout(bench);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(10);
  for (const char* id : {"loss", "positions", "arming"}) {
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setWidget(procedure_card(id, ProcedureCard::Form::column));
    row->addWidget(scroll, 1);
  }
  return bench;
}

bool HomePage::uses_bench() const { return bench_key_->isChecked(); }

void HomePage::show_picture() {
  const bool switches = switches_->isChecked(), bench = bench_key_->isChecked();
  pictures_->setCurrentIndex(bench ? 2 : switches ? 1 : 0);
  rehearse_->setVisible(!switches);
  fly_->setVisible(!switches);
  plan_->setVisible(!bench);
  caution_->setVisible(!bench && !switches);
  lay_out_->setVisible(switches);
  launch_->setVisible(switches);
  show_words();
  Q_EMIT bench_use_changed();
}

const HomeReport* HomePage::report() const { return document_.deferred() ? &document_.deferred()->home : nullptr; }

void HomePage::change(const QString& label, const std::function<void(Home&)>& how) {
  Home home = document_.rig().home;
  how(home);
  if (home == document_.rig().home) return;
  document_.apply(set_home(document_.rig(), home, label.toStdString()));
}

void HomePage::refresh() {
  const Home& h = document_.rig().home;
  const HomeReport* r = report();
  filling_ = true;
  on_loss_->clear();
  on_loss_->addItem(spoken(LossAction::undecided), static_cast<int>(LossAction::undecided));
  if (r)
    for (const LossAction action : r->choices) on_loss_->addItem(spoken(action), static_cast<int>(action));
  // What was planned and can't work stays to be seen.
  if (on_loss_->findData(static_cast<int>(h.on_loss)) < 0)
    on_loss_->addItem(tr("%1 (can't work)").arg(spoken(h.on_loss)), static_cast<int>(h.on_loss));
  on_loss_->setCurrentIndex(on_loss_->findData(static_cast<int>(h.on_loss)));
  const auto show = [](QDoubleSpinBox* b, std::optional<double> value) {
    if (!b->hasFocus() || std::abs(b->value() - value.value_or(b->minimum())) > 1e-9)
      b->setValue(value.value_or(b->minimum()));
  };
  for (const auto& [b, value] : {std::pair{height_, h.height_m}, {circle_, h.circle_radius_m}, {area_, h.area_m}}) {
    b->setSuffix(QLatin1Char(' ') + field_unit());
    show(b, value ? std::optional(*value / field_unit_m()) : value);
  }
  show(hold_, h.hold_s);
  show(warn_, h.warn_v);
  climb_first_->setChecked(h.climb_first);
  arrival_->setCurrentIndex(arrival_->findData(static_cast<int>(h.on_arrival)));
  if (!looked_up_->hasFocus()) looked_up_->setText(said_of(h.looked_up));
  filling_ = false;
  const bool acts = r && r->can_act, homes = h.on_loss == LossAction::come_home;
  hold_->setEnabled(acts);
  rehearse_->setEnabled(acts && homes && r->knows_place && r->missing.empty() && !rehearser_.progress());
  if (!(rehearsed_.isEmpty() && flown_.isEmpty()) && !(of_ == document_.rig())) {
    rehearsed_.clear();
    flown_.clear();
    chart_->set_track({});
  }
  fly_->setEnabled(acts && homes && r->knows_place && r->missing.empty() && !asked_);
  for (QPushButton* b : {triggers_, by_itself_}) b->setEnabled(acts);
  goggles_->setEnabled(document_.controller() && document_.controller()->home.writes_over_video);
  for (QWidget* w : std::initializer_list<QWidget*>{height_, climb_first_, circle_, arrival_})
    w->setEnabled(acts && homes);
  choice_words_->setText(!r ? tr("Being worked out…")
                         : !r->can_act
                             ? tr("This class does nothing of its own then: what the receiver has stored counts.")
                         : !r->knows_place ? tr("Without a satellite receiver it can only glide.")
                                           : QString());
  choice_words_->setVisible(!choice_words_->text().isEmpty());
  give_->setVisible(r && !r->missing.empty());
  // To begin with: the charge at which it has to turn home, where that is known.
  if (r && r->missing.empty() && !charge_chosen_) {
    const QSignalBlocker quiet(charge_);
    const double capacity = r->performance.capacity_mah.expected;
    charge_->setValue(r->turn_home_mah ? static_cast<int>(std::lround(100 * r->turn_home_mah->value / capacity)) : 50);
  }
  const auto earth = earth_field(document_.rig(), document_.catalogue());
  chart_->set_declination(earth ? std::optional(earth->declination_deg) : std::nullopt);
  show_chart({h.wind_m_s, h.wind_from_deg});
  show_story();
  show_words();
}

void HomePage::show_chart(const SteadyWind& wind) {
  const HomeReport* r = report();
  if (!r || !r->missing.empty()) {
    chart_->show_nothing(r ? said_of(r->missing) : tr("Being worked out…"));
    charge_words_->setText(tr("Charge left then"));
    return;
  }
  const double share = charge_->value() / 100.0;
  charge_words_->setText(tr("Charge left then: %1 mAh, %2 V under load")
                             .arg(share * r->performance.capacity_mah.expected, 0, 'f', 0)
                             .arg(r->performance.volts_at(share, r->performance.cruise_a.expected), 0, 'f', 1));
  const ReachBand band = reach_band(*r, share * r->performance.capacity_mah.expected, wind);
  const Home& h = document_.rig().home;
  ReachChart::Shown shown;
  shown.reach = band.expected, shown.worse = band.worse, shown.better = band.better;
  shown.wind = wind;
  shown.area_m = h.area_m.value_or(0);
  shown.circle_m = r->circle_radius_m;
  shown.obstacles = h.obstacles;
  shown.panels = document_.review().airframe.panels;
  chart_->show_field(std::move(shown));
}

void HomePage::show_story() {
  const HomeReport* r = report();
  if (!r || !r->missing.empty()) {
    strip_->show_story({});
    moment_->clear();
    return;
  }
  const HomePlace place{chart_->distance_m(), chart_->bearing_deg(), std::max(30.0, 0.5 * r->return_height_m)};
  strip_->show_story(loss_story(document_.rig(), document_.catalogue(), *r, place,
                                charge_->value() / 100.0 * r->performance.capacity_mah.expected));
  show_moment();
}

void HomePage::show_moment() {
  const StoryStep* s = strip_->step();
  const HomeReport* r = report();
  if (!s || !r) return moment_->clear();
  const double length = s->to_s - s->from_s;
  const double along = length > 0 ? std::clamp((strip_->at_s() - s->from_s) / length, 0.0, 1.0) : 1;
  const double far = s->from_m + along * (s->to_m - s->from_m),
               high = s->from_height_m + along * (s->to_height_m - s->from_height_m);
  moment_->setText(tr("%1: %2 (%3 from home, %4 up, %5 mAh used)")
                       .arg(said_of(s->title), said_of(s->what), said_of(field_text(far)), said_of(field_text(high)))
                       .arg(s->used_mah, 0, 'f', 0));
  const auto track = track_on(chart_->bearing_deg() + 180, r->expected.aircraft.cruise_m_s, r->expected.wind);
  const bool good = std::any_of(strip_->story().begin(), strip_->story().end(),
                                [](const StoryStep& x) { return x.part == StoryPart::circling && x.to_m < 1; });
  chart_->set_progress(far, track ? track->heading_deg : chart_->bearing_deg() + 180, good);
}

void HomePage::show_words() {
  const HomeReport* r = report();
  if (switches_->isChecked()) {
    const ModeDeck deck = mode_deck(document_.rig(), document_.catalogue());
    QStringList lines;
    for (const ModeFinding& f : deck.findings) lines << said_of(f.words);
    if (!deck.switches.empty() && deck.findings.empty())
      lines << tr("Nothing is in the way: every position is well inside its range.");
    for (const std::string& m : deck.missing) lines << tr("For a first flight there is no %1.").arg(said_of(m));
    if (deck.fixed) lines << tr("This class has its modes on positions of its own: nothing to lay out.");
    const ControllerClass* c = document_.controller();
    lay_out_->setEnabled(!deck.fixed && c && !c->home.on_loss.empty() &&
                         (!deck.missing.empty() || deck.switches.empty()));
    launch_->setEnabled(
        std::any_of(deck.cases.begin(), deck.cases.end(), [](const ModeCase& x) { return x.mode == "manual"; }) && c &&
        std::find(c->home.flies.begin(), c->home.flies.end(), "launch") != c->home.flies.end());
    deck_->show_deck(deck);
    return words_->setText(lines.join(QStringLiteral("\n\n")));
  }
  if (!r || !r->missing.empty()) return words_->clear();
  QStringList lines;
  if (working_->isChecked()) {
    std::vector<Figure> all = r->performance.figures;
    for (const auto& f : {r->turn_home_mah, r->turn_home_v})
      if (f) all.push_back(*f);
    for (const Figure& f : all)
      lines
          << tr("%1: %2\n%3 — %4").arg(said_of(f.name), said_of(figure_text(f)), said_of(f.formula), said_of(f.source));
    for (const RoseLine& l : wind_rose_of(document_.rig(), *r)) {
      if (std::fmod(l.wind_m_s, 2) > 0.5) continue;
      QString words = tr("Wind %1 from any side: out and back %2")
                          .arg(said_of(speed_text(l.wind_m_s)), said_of(field_text(l.out_and_back_m)));
      if (l.turn_home_v)
        words += tr(", turn home at %1 V").arg(*l.turn_home_v, 0, 'f', 1);
      else if (document_.rig().home.area_m)
        words += tr(", not from the edge of the area");
      lines << words;
    }
  } else {
    if (!flown_.isEmpty()) lines << flown_;
    if (!rehearsed_.isEmpty()) lines << rehearsed_;
    for (const std::string& w : r->words) lines << said_of(w);
    for (const ObstacleLine& o : r->obstacles)
      lines << tr("%1: %2 below the way home").arg(said_of(o.name), said_of(field_text(o.clearance_m)));
  }
  words_->setText(lines.join(QStringLiteral("\n\n")));
}

void HomePage::rehearse_it() {
  const HomeReport* r = report();
  if (!r) return;
  constexpr int times = 200;
  of_ = document_.rig();
  rehearse_->setEnabled(false);
  rehearser_.start([rig = of_, catalogue = document_.shared_catalogue(),
                    report = *r](Progress& progress) -> std::optional<Result<RehearsalTable>> {
    auto table = rehearse_many(rig, *catalogue, report, times, 1, progress);
    if (progress.cancelled()) return std::nullopt;
    return table;
  });
}

void HomePage::fly_it() {
  const HomeReport* r = report();
  if (!r || !r->missing.empty()) return;
  if (!bench_.hands_connected()) {
    Q_EMIT bench_asked();
    bench_key_->setChecked(true);
    return Q_EMIT said(
        tr("The bench is being started. Battery in below, the rig written to its board, then fly from the chart."));
  }
  FlightPlan plan;
  plan.mode = Mode::level;
  plan.seconds = longest_rehearsal_s;
  plan.height_m = std::max(30.0, 0.5 * r->return_height_m);
  plan.north_m = chart_->distance_m() * std::cos(chart_->bearing_deg() * rad);
  plan.east_m = chart_->distance_m() * std::sin(chart_->bearing_deg() * rad);
  plan.heading_deg = chart_->bearing_deg();
  const Home& h = document_.rig().home;
  plan.steady_wind_m_s = h.wind_m_s, plan.steady_from_deg = h.wind_from_deg;
  plan.wind_m_s = std::min(10.0, h.wind_m_s);
  plan.left_mah = charge_->value() / 100.0 * r->performance.capacity_mah.expected;
  plan.link_lost_s = 2;
  asked_ = plan;
  flown_ = tr("Being flown…");
  of_ = document_.rig();
  bench_.ask(hands::Fly{plan});
  refresh();
}

void HomePage::tell_flight(const Flight& flight) {
  const HomeReport* r = report();
  if (!asked_ || !r || !r->missing.empty()) return;
  const FlightPlan plan = *std::exchange(asked_, std::nullopt);
  const ControllerClass* c = document_.controller();
  if (!c) return;
  std::vector<HomePlace> track;
  for (std::size_t k = 0; k < flight.size(); k += 5) {
    const Motion& m = flight.motion[k];
    const double bearing = std::atan2(m.east, m.north) / rad;
    track.push_back({std::hypot(m.north, m.east), bearing < 0 ? bearing + 360 : bearing, m.height()});
  }
  chart_->set_track(std::move(track));
  flown_ = said_of(flown_home(flight, plan, document_.rig(), *c, *r).words);
  refresh();
}

void HomePage::open_track() {
  const QString file =
      QFileDialog::getOpenFileName(this, tr("A track of the field"), {}, tr("GPX (*.gpx);;All files (*)"));
  if (!file.isEmpty()) take_track(file);
}

void HomePage::take_track(const QString& file) {
  const auto text = read_file(file.toStdString());
  if (!text) return Q_EMIT said(said_of(text.error().text()));
  const auto track = track_from_gpx(*text, QFileInfo(file).fileName().toStdString(), document_.rig());
  if (!track) return Q_EMIT said(said_of(track.error().text()));
  auto edit = area_from_track(document_.rig(), *track);
  if (!edit) return Q_EMIT said(said_of(edit.error().text()));
  chart_->set_track(track->places);
  Q_EMIT said(tr("%1 from home at most: the area reaches as far. One undo takes it back.")
                  .arg(said_of(field_text(track->farthest_m))));
  document_.apply(std::move(*edit));
}

void HomePage::save_reach() {
  const QString file = QFileDialog::getSaveFileName(this, tr("Save the reach"), QStringLiteral("reach.geojson"),
                                                    tr("GeoJSON (*.geojson);;GPX (*.gpx)"));
  if (!file.isEmpty()) write_reach(file);
}

void HomePage::write_reach(const QString& file) {
  const HomeReport* r = report();
  if (!r) return;
  const double left = charge_->value() / 100.0 * r->performance.capacity_mah.expected;
  const Home& h = document_.rig().home;
  const ReachBand band = r->missing.empty() ? reach_band(*r, left, {h.wind_m_s, h.wind_from_deg}) : ReachBand{};
  const bool gpx = file.endsWith(QStringLiteral(".gpx"), Qt::CaseInsensitive);
  const auto text = gpx ? reach_gpx(document_.rig(), *r, band, left) : reach_geojson(document_.rig(), *r, band, left);
  if (!text) return Q_EMIT said(said_of(text.error().text()));
  if (const auto ok = write_file_atomically(file.toStdString(), *text); !ok)
    return Q_EMIT said(said_of(ok.error().text()));
  Q_EMIT said(tr("The reach with %1 mAh left was written to %2.").arg(left, 0, 'f', 0).arg(QFileInfo(file).fileName()));
}

void HomePage::tell_rehearsal(const Result<RehearsalTable>& table) {
  if (!table) {
    rehearsed_ = said_of(table.error().text());
  } else {
    rehearsed_ = tr("Simulated: %1 of %2 come home, %3 with the reserve kept.")
                     .arg(table->home)
                     .arg(table->flown)
                     .arg(table->kept_reserve);
    for (const RehearsalTable::Line& l : table->failed)
      rehearsed_ += tr(" %1 did not; the first, lost %2 out in %3 of wind: %4")
                        .arg(l.count)
                        .arg(said_of(field_text(l.first.place.distance_m)), said_of(speed_text(l.first.wind.speed_m_s)),
                             said_of(l.words));
  }
  refresh();
}

QList<Request> HomePage::requests() {
  const auto here = [this](const std::function<void()>& act) {
    return [this, act] {
      come_here();
      act();
    };
  };
  return {{tr("What happens when the link goes"), tr("failsafe loss return home lost signal story"),
           here([this] { strip_->setFocus(); })},
          {tr("From how far it comes home"), tr("reach range wind battery charge map"),
           here([this] { chart_->setFocus(); })},
          {tr("Rehearse the way home"), tr("simulate cut the link test failsafe"), here([this] { rehearse_it(); })},
          {tr("What the switches do"), tr("modes deck positions manual level circle return"),
           here([this] { switches_->setChecked(true); })},
          {tr("Something high near the field…"), tr("obstacle mast church tree height"),
           here([this] { ask_obstacle(document_, this); })},
          {tr("What else makes it act by itself…"), tr("trigger fence low battery compass position airspeed long loss"),
           here([this] {
             if (const HomeReport* r = report()) ask_triggers(document_, *r, this);
           })},
          {tr("Throttle and alarm while it flies by itself…"),
           tr("cruise throttle tow release lost alarm arming checks"), here([this] {
             if (const HomeReport* r = report()) ask_by_itself(document_, *r, this);
           })},
          {tr("What the goggles show…"), tr("overlay volts picture clear page"),
           here([this] { ask_goggles(document_, this); })},
          {tr("Why does it not arm"), tr("arming refused armed motor locked safety button"),
           here([this] { bench_key_->setChecked(true); })},
          {tr("Try the loss on the bench"), tr("transmitter off failsafe check"),
           here([this] { bench_key_->setChecked(true); })},
          {tr("Take the area from a track…"), tr("gpx flown border import"), here([this] { open_track(); })},
          {tr("Save the reach as a file…"), tr("gpx geojson export map"), here([this] { save_reach(); })}};
}

}  // namespace rigging::app
