#include "stations/home/home_trials.h"

#include <QHBoxLayout>
#include <QPushButton>
#include <algorithm>
#include <utility>

#include "base/units.h"
#include "home/flown_home.h"
#include "look/literals.h"
#include "look/pieces.h"

namespace rigging::app {
namespace {

constexpr double lost_after_s = 2;      ///< into the flight the link is cut
constexpr double most_gusts_m_s = 10;   ///< of the wind that makes them
constexpr std::size_t drawn_every = 5;  ///< of the flight's lines

}  // namespace

HomeTrials::HomeTrials(RigDocument& document, BenchLink& bench, QWidget* parent)
    : QWidget(parent),
      document_(document),
      bench_(bench),
      rehearser_([this](const Result<RehearsalTable>& table) { take_table(table); }) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  rehearse_ = hinted_button(u"Rehearse 200 times"_s, "home_rehearse",
                            u"In simulation: the link is cut all over the area, in gusts, with aircraft like yours"_s);
  fly_ =
      hinted_button(u"Fly one on the bench"_s, "home_fly",
                    u"The bench's simulated model flies, the link is cut, and its own board brings it home or not"_s);
  row->addWidget(rehearse_);
  row->addWidget(fly_);
  connect(rehearse_, &QPushButton::clicked, this, &HomeTrials::rehearse);
  connect(fly_, &QPushButton::clicked, this, &HomeTrials::fly);
  connect(&bench_, &BenchLink::flew, this, &HomeTrials::take_flight);
  connect(&bench_, &BenchLink::hands_done, this, [this](bool good, const QString& why) {
    if (good || !asked_) return;
    asked_.reset();
    flown_ = u"It does not fly: %1"_s.arg(why);
    Q_EMIT told();
  });
}

const HomeReport* HomeTrials::report() const {
  const DeferredReview* d = document_.deferred();
  return d && d->home.missing.empty() ? &d->home : nullptr;
}

void HomeTrials::show_state(const HomeReport* r) {
  const bool can =
      r && r->missing.empty() && r->can_act && r->knows_place && document_.rig().home.on_loss == LossAction::come_home;
  // Both stay enabled while they run: the keyboard would jump from one to the other.
  rehearse_->setEnabled(can);
  if (!words().isEmpty() && !(of_ == document_.rig())) {
    rehearsed_.clear();
    flown_.clear();
    Q_EMIT flown({});
  }
  fly_->setEnabled(can);
}

QStringList HomeTrials::words() const {
  QStringList all;
  for (const QString& one : {flown_, rehearsed_})
    if (!one.isEmpty()) all << one;
  return all;
}

void HomeTrials::rehearse() {
  const HomeReport* r = report();
  if (!r) return;
  constexpr int times = 200;
  of_ = document_.rig();
  rehearser_.start([rig = of_, catalogue = document_.shared_catalogue(),
                    report = *r](Progress& progress) -> std::optional<Result<RehearsalTable>> {
    auto table = rehearse_many(rig, *catalogue, report, times, 1, progress);
    if (progress.cancelled()) return std::nullopt;
    return table;
  });
}

void HomeTrials::fly() {
  const HomeReport* r = report();
  if (!r || asked_) return;
  if (!bench_.hands_connected()) return Q_EMIT bench_missing();
  FlightPlan plan;
  plan.mode = Mode::level;
  plan.seconds = longest_rehearsal_s;
  plan.height_m = place_.height_m;
  plan.north_m = place_.north_m(), plan.east_m = place_.east_m();
  plan.heading_deg = place_.bearing_deg;
  const Home& h = document_.rig().home;
  plan.steady_wind_m_s = h.wind_m_s, plan.steady_from_deg = h.wind_from_deg;
  plan.wind_m_s = std::min(most_gusts_m_s, h.wind_m_s);
  plan.left_mah = left_mah_;
  plan.link_lost_s = lost_after_s;
  asked_ = plan;
  flown_ = u"Being flown…"_s;
  of_ = document_.rig();
  bench_.ask(hands::Fly{plan});
  Q_EMIT told();
}

void HomeTrials::take_flight(const Flight& flight) {
  if (!asked_) return;
  const FlightPlan plan = *std::exchange(asked_, std::nullopt);
  const HomeReport* r = report();
  const ControllerClass* c = document_.controller();
  if (!r || !c) return;
  std::vector<HomePlace> track;
  for (std::size_t k = 0; k < flight.size(); k += drawn_every)
    track.push_back(HomePlace::at(flight.motion[k].north, flight.motion[k].east, flight.motion[k].height()));
  flown_ = said_of(flown_home(flight, plan, document_.rig(), *c, *r).words);
  Q_EMIT flown(track);
  Q_EMIT told();
}

void HomeTrials::take_table(const Result<RehearsalTable>& table) {
  if (!table) {
    rehearsed_ = said_of(table.error().text());
  } else {
    rehearsed_ = u"Simulated: %1 of %2 come home, %3 with the reserve kept."_s.arg(table->home)
                     .arg(table->flown)
                     .arg(table->kept_reserve);
    for (const RehearsalTable::Line& l : table->failed)
      rehearsed_ += u" %1 did not; the first, lost %2 out in %3 of wind: %4"_s.arg(l.count).arg(
          said_of(field_text(l.first.place.distance_m)), said_of(speed_text(l.first.wind.speed_m_s)), said_of(l.words));
  }
  Q_EMIT told();
}

}  // namespace rigging::app
