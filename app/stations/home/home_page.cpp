#include "stations/home/home_page.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QPushButton>
#include <QScrollArea>
#include <QSlider>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>
#include <utility>

#include "base/file.h"
#include "base/number.h"
#include "base/units.h"
#include "document/folders.h"
#include "fit/compass.h"
#include "home/edits.h"
#include "home/field_files.h"
#include "look/literals.h"
#include "look/pieces.h"
#include "look/side_scroll.h"
#include "stations/home/home_sheets.h"

namespace rigging::app {
HomePage::HomePage(const PageContext& context) : StationPage(Station::home, context) {
  auto* page = new QHBoxLayout(this);
  page->setContentsMargins(16, 10, 12, 10);
  page->setSpacing(14);
  auto* left = new QVBoxLayout;
  auto* top = new QHBoxLayout;
  top->addWidget(heading(), 1);
  switches_ = hinted_button(u"Switches"_s, "home_switches", u"What every way the switches can stand does"_s);
  switches_->setCheckable(true);
  bench_key_ =
      hinted_button(u"Bench"_s, "home_bench", u"Transmitter off, every position, arming: looked at and recorded"_s);
  bench_key_->setCheckable(true);
  top->addWidget(switches_);
  top->addWidget(bench_key_);
  caution_ = caution_words();
  caution_->setText(u"Worked out, not flown."_s);
  caution_->setToolTip(
      u"Steady wind, straight tracks; the hatched rim says how sure it is. Where one may fly is the "
      "law of the place and the club's."_s);
  top->addWidget(caution_);
  left->addLayout(top);
  auto* field = new QWidget;
  auto* column = new QVBoxLayout(field);
  column->setContentsMargins(0, 0, 0, 0);
  chart_ = new ReachChart;
  column->addWidget(chart_, 1);
  moment_ = wrapping_words(10);
  moment_->setObjectName(u"story_moment"_s);
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
  boxes_ = new HomePlan(document_);
  side->addWidget(boxes_);
  charge_ = new QSlider(Qt::Horizontal);
  charge_->setObjectName(u"charge_left"_s);
  charge_->setAccessibleName(u"Charge left when the link goes"_s);
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
  obstacle_ =
      hinted_button(u"What stands high…"_s, "home_obstacle", u"A mast, a church, a row of trees, as seen from home"_s);
  connect(obstacle_, &QPushButton::clicked, this, [this] { ask_obstacle(document_, this); });
  triggers_ =
      hinted_button(u"What else…"_s, "home_triggers", u"Low battery, fence, lost position: what it does then"_s);
  by_itself_ = hinted_button(u"By itself…"_s, "home_by_itself",
                             u"Throttle, landing, alarm and checks while it flies by itself"_s);
  goggles_ = hinted_button(u"Goggles…"_s, "home_goggles", u"What is written over the picture"_s);
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
  working_ = hinted_button(u"Show working"_s, "home_working", u"Every number with where it comes from"_s);
  working_->setCheckable(true);
  connect(working_, &QPushButton::toggled, this, &HomePage::show_words);
  auto* keys = new QHBoxLayout;
  keys->addWidget(obstacle_);
  keys->addWidget(working_);
  side->addLayout(keys);
  trials_ = new HomeTrials(document_, bench_);
  connect(trials_, &HomeTrials::told, this, &HomePage::refresh);
  connect(trials_, &HomeTrials::flown, this, [this](const std::vector<HomePlace>& track) { show_track(track); });
  connect(trials_, &HomeTrials::bench_missing, this, [this] {
    Q_EMIT bench_asked();
    bench_key_->setChecked(true);
    Q_EMIT said(
        u"The bench is being started. Battery in below, the rig written to its board, then fly from the chart."_s);
  });
  side->addWidget(trials_);
  lay_out_ = hinted_button(u"Lay out the first flight"_s, "home_lay_out",
                           u"Manual, level and circle on the mode switch, return on a switch of its own"_s);
  lay_out_->hide();
  connect(lay_out_, &QPushButton::clicked, this,
          [this] { document_.apply(lay_out_first_flight(document_.rig(), document_.catalogue())); });
  side->addWidget(lay_out_);
  launch_ = hinted_button(u"Launch in the place of manual"_s, "home_launch",
                          u"For later flights, when the corrections were flown: then there is no manual"_s);
  launch_->hide();
  connect(launch_, &QPushButton::clicked, this,
          [this] { document_.apply(lay_out_launch(document_.rig(), document_.catalogue())); });
  side->addWidget(launch_);
  words_ = wrapping_words(9.5);
  words_->setObjectName(u"home_words"_s);
  words_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  side->addWidget(words_);
  give_ = hinted_button(u"Give it there"_s, "home_give", u"What has to be known before anything can be worked out"_s);
  connect(give_, &QPushButton::clicked, this, [this] {
    if (const HomeReport* r = report()) Q_EMIT wanted(r->missing_at, QString());
  });
  side->addWidget(give_);
  side->addStretch(1);
  auto* plan = new QWidget;
  plan->setLayout(side);
  plan_ = new SideScroll(326, plan);
  page->addWidget(plan_);

  connect(chart_, &ReachChart::place_moved, this, &HomePage::show_story);
  connect(chart_, &ReachChart::wind_moved, this, [this](double m_s, double from_deg, bool let_go) {
    show_chart({m_s, from_deg});
    if (!let_go) return;
    change_home(document_, u"Wind"_s, [=](Home& h) { h.wind_m_s = m_s, h.wind_from_deg = from_deg; });
  });
  connect(strip_, &StoryStrip::scrubbed, this, &HomePage::show_moment);
  connect(&document_, &RigDocument::deferred_ready, this, &HomePage::refresh);
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
  trials_->setVisible(!switches);
  plan_->setVisible(!bench);
  caution_->setVisible(!bench && !switches);
  lay_out_->setVisible(switches);
  launch_->setVisible(switches);
  show_words();
  Q_EMIT bench_use_changed();
}

const HomeReport* HomePage::report() const { return document_.deferred() ? &document_.deferred()->home : nullptr; }

void HomePage::refresh() {
  const Home& h = document_.rig().home;
  const HomeReport* r = report();
  boxes_->show_plan(r);
  trials_->show_state(r);
  if (track_of_ != document_.rig().name) show_track({});
  for (QPushButton* b : {triggers_, by_itself_}) b->setEnabled(r && r->can_act);
  goggles_->setEnabled(document_.controller() && document_.controller()->home.writes_over_video);
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

double HomePage::left_mah(const HomeReport& r) const {
  return charge_->value() / 100.0 * r.performance.capacity_mah.expected;
}

void HomePage::show_chart(const SteadyWind& wind) {
  const HomeReport* r = report();
  if (!r || !r->missing.empty()) {
    chart_->show_nothing(r ? said_of(r->missing) : u"Being worked out…"_s);
    charge_words_->setText(u"Charge left then"_s);
    return;
  }
  charge_words_->setText(
      u"Charge left then: %1 mAh, %2 V under load"_s.arg(left_mah(*r), 0, 'f', 0)
          .arg(r->performance.volts_at(charge_->value() / 100.0, r->performance.cruise_a.expected), 0, 'f', 1));
  const ReachBand band = reach_band(*r, left_mah(*r), wind);
  const Home& h = document_.rig().home;
  ReachChart::Shown shown;
  shown.reach = band.expected, shown.worse = band.worse, shown.better = band.better;
  shown.wind = wind;
  shown.area_m = h.area_m.value_or(0);
  shown.circle_m = r->circle_radius_m;
  shown.obstacles = h.obstacles;
  shown.panels = document_.review().reports.airframe().panels;
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
  const double left = left_mah(*r);
  trials_->start_at(place, left);
  strip_->show_story(loss_story(document_.rig(), document_.catalogue(), *r, place, left));
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
  moment_->setText(u"%1: %2 (%3 from home, %4 up, %5 mAh used)"_s
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
      lines << u"Nothing is in the way: every position is well inside its range."_s;
    for (const std::string& m : deck.missing) lines << u"For a first flight there is no %1."_s.arg(said_of(m));
    if (deck.fixed) lines << u"This class has its modes on positions of its own: nothing to lay out."_s;
    const ControllerClass* c = document_.controller();
    lay_out_->setEnabled(!deck.fixed && c && !c->home.on_loss.empty() &&
                         (!deck.missing.empty() || deck.switches.empty()));
    launch_->setEnabled(
        std::any_of(deck.cases.begin(), deck.cases.end(), [](const ModeCase& x) { return x.mode == "manual"; }) && c &&
        std::find(c->home.flies.begin(), c->home.flies.end(), "launch") != c->home.flies.end());
    deck_->show_deck(deck);
    return words_->setText(lines.join(u"\n\n"_s));
  }
  if (!r || !r->missing.empty()) return words_->clear();
  QStringList lines;
  if (working_->isChecked()) {
    std::vector<Figure> all = r->performance.figures;
    for (const auto& f : {r->turn_home_mah, r->turn_home_v})
      if (f) all.push_back(*f);
    for (const Figure& f : all)
      lines << u"%1: %2\n%3 — %4"_s.arg(said_of(f.name), said_of(figure_text(f)), said_of(f.formula),
                                        said_of(f.source));
    for (const RoseLine& l : wind_rose_of(document_.rig(), *r)) {
      if (std::fmod(l.wind_m_s, 2) > 0.5) continue;
      QString words = u"Wind %1 from any side: out and back %2"_s.arg(said_of(speed_text(l.wind_m_s)),
                                                                      said_of(field_text(l.out_and_back_m)));
      if (l.turn_home_v)
        words += u", turn home at %1 V"_s.arg(*l.turn_home_v, 0, 'f', 1);
      else if (document_.rig().home.area_m)
        words += u", not from the edge of the area"_s;
      lines << words;
    }
  } else {
    lines << trials_->words();
    for (const std::string& w : r->words) lines << said_of(w);
    for (const ObstacleLine& o : r->obstacles)
      lines << u"%1: %2 below the way home"_s.arg(said_of(o.name), said_of(field_text(o.clearance_m)));
  }
  words_->setText(lines.join(u"\n\n"_s));
}

void HomePage::show_track(std::vector<HomePlace> track) {
  track_of_ = document_.rig().name;
  chart_->set_track(std::move(track));
}

void HomePage::open_track() {
  const QString file = QFileDialog::getOpenFileName(this, u"A track of the field"_s, remembered_folder(u"track"_s),
                                                    u"GPX (*.gpx);;All files (*)"_s);
  if (!file.isEmpty()) take_track(file);
}

void HomePage::take_track(const QString& file) {
  const auto text = read_file(file.toStdString());
  if (!text) return Q_EMIT said(said_of(text.error().text()));
  const auto track = track_from_gpx(*text, QFileInfo(file).fileName().toStdString(), document_.rig());
  if (!track) return Q_EMIT said(said_of(track.error().text()));
  auto edit = area_from_track(document_.rig(), *track);
  if (!edit) return Q_EMIT said(said_of(edit.error().text()));
  show_track(track->places);
  Q_EMIT said(u"%1 from home at most: the area reaches as far. One undo takes it back."_s.arg(
      said_of(field_text(track->farthest_m))));
  document_.apply(std::move(*edit));
}

void HomePage::save_reach() {
  const QString file =
      QFileDialog::getSaveFileName(this, u"Save the reach"_s, in_remembered_folder(u"track"_s, u"reach.geojson"_s),
                                   u"GeoJSON (*.geojson);;GPX (*.gpx)"_s);
  if (!file.isEmpty()) write_reach(file);
}

void HomePage::write_reach(const QString& file) {
  const HomeReport* r = report();
  if (!r) return;
  const double left = left_mah(*r);
  const Home& h = document_.rig().home;
  const ReachBand band = r->missing.empty() ? reach_band(*r, left, {h.wind_m_s, h.wind_from_deg}) : ReachBand{};
  const bool gpx = file.endsWith(u".gpx"_s, Qt::CaseInsensitive);
  const auto text = gpx ? reach_gpx(document_.rig(), *r, band, left) : reach_geojson(document_.rig(), *r, band, left);
  if (!text) return Q_EMIT said(said_of(text.error().text()));
  if (const auto ok = write_file_atomically(file.toStdString(), *text); !ok)
    return Q_EMIT said(said_of(ok.error().text()));
  Q_EMIT said(u"The reach with %1 mAh left was written to %2."_s.arg(left, 0, 'f', 0).arg(QFileInfo(file).fileName()));
}

QList<NamedAction> HomePage::named_actions() {
  const auto here = [this](const std::function<void()>& act) {
    return [this, act] {
      come_here();
      act();
    };
  };
  return {
      {u"What happens when the link goes"_s, u"failsafe loss return home lost signal story"_s,
       here([this] { strip_->setFocus(); })},
      {u"From how far it comes home"_s, u"reach range wind battery charge map"_s, here([this] { chart_->setFocus(); })},
      {u"Rehearse the way home"_s, u"simulate cut the link test failsafe"_s, here([this] { trials_->rehearse(); })},
      {u"What the switches do"_s, u"modes deck positions manual level circle return"_s,
       here([this] { switches_->setChecked(true); })},
      {u"Something high near the field…"_s, u"obstacle mast church tree height"_s,
       here([this] { ask_obstacle(document_, this); })},
      {u"What else makes it act by itself…"_s, u"trigger fence low battery compass position airspeed long loss"_s,
       here([this] {
         if (const HomeReport* r = report()) ask_triggers(document_, *r, this);
       })},
      {u"Throttle and alarm while it flies by itself…"_s, u"cruise throttle tow release lost alarm arming checks"_s,
       here([this] {
         if (const HomeReport* r = report()) ask_by_itself(document_, *r, this);
       })},
      {u"What the goggles show…"_s, u"overlay volts picture clear page"_s,
       here([this] { ask_goggles(document_, this); })},
      {u"Why does it not arm"_s, u"arming refused armed motor locked safety button"_s,
       here([this] { bench_key_->setChecked(true); })},
      {u"Try the loss on the bench"_s, u"transmitter off failsafe check"_s,
       here([this] { bench_key_->setChecked(true); })},
      {u"Take the area from a track…"_s, u"gpx flown border import"_s, here([this] { open_track(); })},
      {u"Save the reach as a file…"_s, u"gpx geojson export map"_s, here([this] { save_reach(); })}};
}

}  // namespace rigging::app
