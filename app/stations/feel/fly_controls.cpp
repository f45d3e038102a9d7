#include "stations/feel/fly_controls.h"

#include <QButtonGroup>
#include <QComboBox>
#include <QGridLayout>
#include <QPushButton>
#include <QVBoxLayout>

#include "base/number.h"
#include "base/units.h"
#include "direction/direction_checks.h"
#include "feel/edits.h"
#include "feel/flown.h"
#include "feel/gain_scale.h"
#include "link/image.h"
#include "look/literals.h"
#include "look/pieces.h"

namespace rigging::app {
namespace {

constexpr int others_flown = 8;

}  // namespace

FlyControls::FlyControls(const PageContext& context, FlightPicture& picture, QWidget* parent)
    : QWidget(parent),
      document_(context.document),
      bench_(context.bench),
      picture_(picture),
      worker_([this](Result<FlightBand> band) {
        if (!band) return give_up(said_of(band.error().text()));
        Flight flight = band->expected;
        take(std::move(flight), std::move(*band), false);
      }) {
  wake_.set_single(true);
  connect(&wake_, &Ticks::timeout, this, [this] {
    lives_ = true;
    advance();
  });
  auto* side = new QVBoxLayout(this);
  side->setContentsMargins(0, 0, 0, 0);
  side->setSpacing(6);
  auto* grid = new QGridLayout;
  grid->setSpacing(4);
  kinds_ = new QButtonGroup(this);
  int at = 0;
  for (const auto& [kind, id, name, hint] :
       {std::tuple{gusts, "fly_gusts", u"Gusts"_s, u"Twenty seconds through the turbulence of this wind"_s},
        {tug, "fly_tug", u"A tug"_s, u"The stick to one side for a moment, and let go"_s},
        {dive, "fly_dive", u"A dive"_s, u"Nose down by 25°: what is calm at cruise may shake here"_s},
        {hand, "fly_hand", u"A throw"_s, u"From the hand, full throttle, one wing low"_s},
        {reversed, "fly_reversed", u"Reversed"_s,
         u"This axis corrected the wrong way: what an unproven direction does. Nothing is changed"_s}}) {
    auto* b = hinted_button(name, id, hint);
    b->setCheckable(true);
    kinds_->addButton(b, kind);
    grid->addWidget(b, at / 3, at % 3);
    ++at;
  }
  other_ = hinted_button(u"Other air"_s, "fly_other", u"Other gusts of the same strength"_s);
  grid->addWidget(other_, at / 3, at % 3);
  kinds_->button(gusts)->setChecked(true);
  side->addLayout(grid);
  auto* set = new QGridLayout;
  set->setVerticalSpacing(4);
  mode_ = new QComboBox;
  speed_ = new QComboBox;
  wind_ = new QComboBox;
  hands_ = new QComboBox;
  for (const auto& [box, id, name, row] : {std::tuple{mode_, "fly_mode", u"Mode"_s, 0},
                                           {speed_, "fly_speed", u"Speed"_s, 1},
                                           {wind_, "fly_wind", u"Wind"_s, 2},
                                           {hands_, "fly_hands", u"Hands"_s, 3}}) {
    box->setObjectName(QLatin1String(id));
    auto* label = new QLabel(name);
    label->setBuddy(box);
    box->setAccessibleName(name);
    set->addWidget(label, row, 0);
    set->addWidget(box, row, 1);
  }
  set->setColumnStretch(1, 1);
  side->addLayout(set);
  plan_ =
      hinted_button(u"Fly the plan"_s, "fly_plan", u"The rig as it is planned, and eight that it may turn out to be"_s);
  plan_->setProperty("main", true);
  side->addWidget(plan_);
  bench_key_ =
      hinted_button({}, "fly_bench", u"The model on the simulated bench: its board flies what was written to it"_s);
  side->addWidget(bench_key_);
  board_ = wrapping_words(9);
  board_->setProperty("soft", true);
  board_->setObjectName(u"fly_board"_s);
  board_->setMinimumHeight(30);
  board_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  side->addWidget(board_);
  auto* caution = caution_words();
  caution->setObjectName(u"fly_caution"_s);
  caution->setText(
      u"Simulated. No flight here proves a direction, a balance or a gain: that is done on the bench and in "
      "the air."_s);
  side->addWidget(caution);
  side->addStretch(1);
  tell_ = hinted_button(u"What it tells…"_s, "fly_tell",
                        u"Reads the log of the bench's flight as it would that of a real one"_s);
  side->addWidget(tell_);
  next_ = hinted_button({}, "fly_next", u"One change, one flight"_s);
  side->addWidget(next_);

  wind_->addItem(u"calm"_s, 0.0);
  for (const double v : {2.0, 4.0, 6.0, 8.0, 10.0}) wind_->addItem(said_of(speed_text(v)), v);
  wind_->setCurrentIndex(2);
  hands_->addItem(u"hold height, loosely"_s, true);
  hands_->addItem(u"off the sticks"_s, false);
  connect(plan_, &QPushButton::clicked, this, &FlyControls::fly_plan);
  connect(bench_key_, &QPushButton::clicked, this, &FlyControls::fly_bench);
  connect(other_, &QPushButton::clicked, this, [this] {
    ++seed_;
    fly_plan();
  });
  connect(next_, &QPushButton::clicked, this, &FlyControls::next_step);
  connect(tell_, &QPushButton::clicked, this, [this] {
    if (shown_.now) Q_EMIT told(log_of(*shown_.now));
  });
  connect(kinds_, &QButtonGroup::idClicked, this, &FlyControls::show_state);
  connect(&bench_, &BenchLink::flew, this, [this](const Flight& flight) {
    if (wants_to_fly_) take(flight, std::nullopt, true);
  });
  for (const auto signal : {&BenchLink::state_changed, &BenchLink::board_read})
    connect(&bench_, signal, this, [this] {
      if (!bench_.hands_connected()) wants_to_fly_ = false;
      show_state();
      advance();
    });
  connect(&bench_, &BenchLink::seen, this, &FlyControls::advance);
  connect(&bench_, &BenchLink::written, this, [this](bool good, const QString& why) {
    if (!good && wants_to_fly_) return give_up(why);
    show_state();
  });
  connect(&bench_, &BenchLink::hands_done, this, [this](bool good, const QString& why) {
    if (!good && wants_to_fly_) give_up(why);
  });
}

void FlyControls::show_axis(Axis axis) {
  axis_ = axis;
  const ControllerClass* c = document_.controller();
  const QVariant kept = mode_->currentData();
  mode_->clear();
  if (c)
    for (const ModeAnswer& m : c->proof.modes)
      mode_->addItem(said_of(std::string(name_of(m.mode))), static_cast<int>(m.mode));
  const int again = mode_->findData(kept.isValid() ? kept : QVariant(static_cast<int>(Mode::rate)));
  mode_->setCurrentIndex(std::max(0, again));
  // What was chosen stays while the margins are worked out anew.
  if (const DeferredReview* d = document_.deferred(); d && d->feel.missing.empty()) {
    const int chosen = speed_->currentIndex();
    speed_->clear();
    const auto add = [&](const QString& name, double v) { speed_->addItem(name.arg(said_of(speed_text(v))), v); };
    add(u"cruise, %1"_s, d->feel.aeroplane.cruise_m_s);
    add(u"the fastest, %1"_s, d->feel.fast_m_s);
    add(u"slow, %1"_s, 1.25 * d->feel.aeroplane.stall_m_s);
    speed_->setCurrentIndex(std::max(0, chosen));
  }
  show_state();
  show_picture();
}

bool FlyControls::directions_proven() const {
  bool any = false, all = true;
  for (const CheckStatus& c : document_.review().checks)
    if (is_direction(c.id)) any = true, all = all && c.state == ProofState::fresh;
  return any && all;
}

bool FlyControls::written_as_planned() const {
  if (!bench_.board()) return false;
  return link::with_gains(*bench_.board(), document_.image()) == *bench_.board();
}

void FlyControls::show_state() {
  const DeferredReview* d = document_.deferred();
  const ControllerClass* c = document_.controller();
  const bool can = d && c && d->feel.missing.empty();
  const int kind = kinds_->checkedId();
  plan_->setEnabled(can && !worker_.progress());
  other_->setEnabled(can);
  speed_->setEnabled(kind != hand);
  const bool there = bench_.hands_connected();
  const bool by_link = c && c->link;
  bench_key_->setEnabled(can && kind != reversed && !wants_to_fly_);
  bench_key_->setText(!there                                                ? u"Start the bench to fly its model"_s
                      : by_link && !bench_.board()                          ? u"Battery in, and fly the bench's model"_s
                      : by_link && !written_as_planned()                    ? u"Write these gains and fly its model"_s
                      : !by_link && c && c->feel.gain_by != GainBy::linkage ? u"Set them by hand and fly its model"_s
                                                                            : u"Fly the bench's model"_s);
  board_->setText(kind == reversed ? u"Shown with the plan alone: the model on the bench has the faults that it has."_s
                  : !there         ? u"The bench's model is never quite what the rig makes one expect."_s
                  : by_link && !bench_.board()       ? u"Its battery comes in first; then its board is read."_s
                  : by_link && !written_as_planned() ? u"Its board holds other gains than planned here."_s
                                                     : u"Its board flies with what was written to it."_s);
  // A lesson holds for the gains that were flown.
  tell_->setEnabled(of_bench_ && shown_.now && flown_.gains == document_.rig().feel.gains);
  const GainStep* s = step();
  next_->setEnabled(s != nullptr);
  next_->setText(s ? u"Next step: %1 to %2"_s.arg(said_of(std::string(name_of(axis_))),
                                                  said_of(s->set).section(QLatin1Char(','), 0, 0))
                   : u"No further step on %1"_s.arg(said_of(std::string(name_of(axis_)))));
}

void FlyControls::show_picture() {
  if (!shown_.now) {
    picture_.show_nothing(
        u"Choose what to fly, and with what.\nThe flight before stays behind the new one: change one "
        "thing and fly again."_s);
    return;
  }
  picture_.show_flight(axis_, document_.review().reports.airframe().panels, shown_);
}

FlyControls::Launch FlyControls::launch(bool of_bench) const {
  Launch l;
  l.kind = static_cast<TypeInfo>(kinds_->checkedId());
  l.gains = document_.rig().feel.gains;
  FlyOptions& o = l.options;
  o.mode = static_cast<Mode>(mode_->currentData().toInt());
  o.m_s = speed_->currentData().toDouble();
  o.wind_m_s = wind_->currentData().toDouble();
  o.seed = seed_;
  o.pilot = hands_->currentData().toBool();
  o.seconds = 20;
  switch (l.kind) {
    case tug:
      o.seconds = 8;
      o.sticks = tug_at(axis_);
      break;
    case dive:
      o.seconds = 10;
      o.height_m = 150;
      o.nose_down_deg = 25;
      break;
    case hand:
      o.seconds = 6;
      o.thrown = true;
      break;
    case reversed:
      o.seconds = 15;
      o.pilot = false;  // no hand saves it
      o.truth.reversed[static_cast<std::size_t>(index_of(axis_))] = true;
      break;
    case gusts: break;
  }
  l.said = {of_bench ? u"the bench's model"_s : u"as planned"_s, mode_->currentText(), speed_->currentText(),
            u"wind %1"_s.arg(wind_->currentText()), u"hands: %1"_s.arg(hands_->currentText())};
  const ControllerClass* c = document_.controller();
  const AxisGain* gain = document_.rig().feel.gain(axis_);
  if (c && gain && gain->rate)
    l.said << u"%1 gain %2"_s.arg(said_of(std::string(name_of(axis_))),
                                  said_of(GainScale(*c, document_.rig().feel.half_share).words(*gain->rate)));
  return l;
}

void FlyControls::fly_plan() {
  plan_->setEnabled(false);
  picture_.say(u"Being flown…"_s);
  planned_ = launch(false);
  worker_.start([rig = document_.rig(), catalogue = document_.shared_catalogue(),
                 o = planned_.options](Progress& progress) -> std::optional<Result<FlightBand>> {
    return fly_band(rig, *catalogue, o, others_flown, progress);
  });
}

void FlyControls::fly_bench() {
  if (!bench_.hands_connected()) return Q_EMIT bench_asked();
  wants_to_fly_ = true;
  fed_ = waits_ = asked_ = false;
  lives_ = bench_.sight().battery;
  asked_for_ = launch(true);
  picture_.say(u"Being flown…"_s);
  bench_.ask(hands::SwitchTransmitter{true});
  show_state();
  advance();
}

void FlyControls::give_up(const QString& why) {
  wants_to_fly_ = false;
  picture_.say(why);
  show_state();
}

void FlyControls::advance() {
  const ControllerClass* c = document_.controller();
  if (!wants_to_fly_ || asked_ || !c) return;
  if (!bench_.sight().battery) {
    if (!std::exchange(fed_, true)) bench_.ask(hands::Supply{bench_.sight().usb, true});
    return;
  }
  if (c->link && !bench_.board()) return;
  // Its settings would be somebody else's.
  if (bench_.is_another_class(c->id)) return give_up(u"The board on the bench is of another class."_s);
  if (c->link && !written_as_planned()) {
    if (!bench_.writing()) bench_.write(link::with_gains(*bench_.board(), document_.image()));
    return;
  }
  if (!lives_) {
    if (!std::exchange(waits_, true)) wake_.start();
    return;
  }
  asked_ = true;
  if (!c->link && c->feel.gain_by != GainBy::linkage)
    for (const AxisGain& g : document_.rig().feel.gains) bench_.ask(hands::TurnGain{g});
  bench_.ask(hands::Fly{asked_for_.options});
}

void FlyControls::take(Flight flight, std::optional<FlightBand> band, bool of_bench) {
  if (of_bench) wants_to_fly_ = false;
  const Launch was = std::exchange(flown_, of_bench ? asked_for_ : planned_);
  const bool alike = shown_.now && was.kind == flown_.kind;
  // Only what was flown alike can be laid over each other.
  shown_.before = alike ? std::exchange(shown_.now, std::nullopt) : std::nullopt;
  shown_.now = std::move(flight);
  // The plan's band stays behind the bench's flight, as long as it is of the same.
  if (band || !alike) shown_.band = std::move(band);
  of_bench_ = of_bench;
  const FeelReport* report = document_.deferred() ? &document_.deferred()->feel : nullptr;
  const Seen before = std::exchange(seen_, seen_in(*shown_.now, document_.controller(), report));
  QString words = (of_bench ? u"The bench's model: %1"_s : u"As planned: %1"_s).arg(said_of(seen_.words));
  if (of_bench && !shown_.now->end.empty() && !directions_proven())
    words += u" Its directions are not proven on the bench: this is what a wrong one can do."_s;
  if (shown_.before) {
    QStringList other;
    for (qsizetype i = 0; i < std::min(was.said.size(), flown_.said.size()); ++i)
      if (was.said[i] != flown_.said[i]) other << was.said[i];
    const auto k = static_cast<std::size_t>(index_of(axis_));
    words += u"\nBefore (dashed%1): %2 It turned in %3 by %4°/s in the mean; now by %5°/s."_s.arg(
        other.isEmpty() ? QString() : u"; "_s + other.join(u", "_s), said_of(before.words),
        said_of(std::string(name_of(axis_))), said_of(number_text(before.rms_deg_s[k], 1)),
        said_of(number_text(seen_.rms_deg_s[k], 1)));
  }
  if (!of_bench && shown_.band)
    words += shown_.band->shook > 0 || shown_.band->ended > 0
                 ? u"\nOf %1 that it may turn out to be, %2 shook and %3 came to the ground."_s.arg(shown_.band->others)
                       .arg(shown_.band->shook)
                       .arg(shown_.band->ended)
                 : u"\nOf %1 that it may turn out to be, none shook."_s.arg(shown_.band->others);
  picture_.say(words);
  show_state();
  show_picture();
}

const GainStep* FlyControls::step() const {
  const DeferredReview* d = document_.deferred();
  if (!d) return nullptr;
  for (const GainStep& s : d->feel_advice.steps)
    if (s.axis == axis_) return &s;
  return nullptr;
}

void FlyControls::next_step() {
  if (const GainStep* s = step()) document_.apply(set_gain(document_.rig(), document_.catalogue(), axis_, s->place));
}

}  // namespace rigging::app
