#include "stations/procedure_runner.h"

#include "base/cases.h"
#include "link/image.h"
#include "look/literals.h"

namespace rigging::app {
ProcedureRunner::ProcedureRunner(RigDocument& document, BenchLink& bench, const ProcedureEntry& entry, QObject* parent)
    : QObject(parent), document_(document), bench_(bench), entry_(entry), procedure_(entry.make()) {
  connect(&ticks_, &Ticks::timeout, this, [this] {
    tell_time();
    show();
  });
  soon_.set_single(true);
  connect(&soon_, &Ticks::timeout, this, &ProcedureRunner::show);
  connect(&bench_, &BenchLink::frames_heard, this,
          [this](const std::vector<ChannelFrame>& frames) { overhear(FramesHeard{frames}); });
  connect(&bench_, &BenchLink::channels_heard, this, [this] { overhear(ChannelsHeard{bench_.channels()}); });
  connect(&bench_, &BenchLink::motion_heard, this, [this](const BoardReadings& readings) {
    if (procedure_->listens_to_motion()) overhear(readings);
  });
  connect(&bench_, &BenchLink::board_sensed, this, [this] {
    if (found_ == bench_.found()) return;
    found_ = bench_.found();
    tell(SensorsFound{found_});
  });
  connect(&bench_, &BenchLink::board_told, this, [this] {
    if (procedure_->listens_to_state() && bench_.state()) overhear(*bench_.state());
  });
  connect(&bench_, &BenchLink::seen, this, [this] { overhear(SurfacesSeen{bench_.sight().deflections}); });
  connect(&bench_, &BenchLink::transmitter_read, this,
          [this](const std::vector<Channel>& settings) { overhear(TransmitterShown{settings}); });
  for (const auto signal : {&BenchLink::state_changed, &BenchLink::board_read})
    connect(&bench_, signal, this, &ProcedureRunner::refresh);
  connect(&bench_, &BenchLink::written, this, [this](bool, const QString&) { refresh(); });
  refresh();
}

BenchState ProcedureRunner::bench_state() const {
  BenchState s;
  s.controller = bench_.controller_answers();
  s.read = bench_.board().has_value();
  s.differs = bench_state_.differs;  // told by `refresh`
  s.writing = bench_.writing();
  s.hands = bench_.hands_connected();
  s.usb = bench_.sight().usb;
  s.battery = bench_.sight().battery;
  s.hears = bench_.signal().has_value();
  s.direct = bench_.listening();
  return s;
}

Scene ProcedureRunner::scene() const {
  const Review& r = document_.review();
  return {document_.rig(),   document_.catalogue(), document_.controller(), &r.reports, r.checks,
          r.readiness.words, bench_state_};
}

void ProcedureRunner::tell_time() { carry_out(procedure_->hear(Time{Clock::instance().now_s()}, scene())); }

void ProcedureRunner::hear(const Event& event) {
  if (revision_ != document_.revision() || bench_state() != bench_state_) refresh();
  tell_time();
  carry_out(procedure_->hear(event, scene()));
}

void ProcedureRunner::tell(const Event& event) {
  hear(event);
  show();
}

void ProcedureRunner::overhear(const Event& event) {
  if (sleeps()) return;
  hear(event);
  if (!soon_.is_active()) soon_.start();
}

void ProcedureRunner::refresh() {
  revision_ = document_.revision();
  bench_state_ = bench_state();
  bench_state_.differs = bench_state_.read && (bench_.is_another_class(document_.rig().controller.kind) ||
                                               !link::differences(document_.image(), *bench_.board()).empty());
  carry_out(procedure_->hear(SceneChanged{}, scene()));
  show();
}

void ProcedureRunner::set_shown(bool shown) {
  const bool slept = sleeps();
  shown_ = shown;
  if (slept && !sleeps()) refresh();
}

void ProcedureRunner::carry_out(const Orders& orders) {
  for (const Order& o : orders)
    std::visit(
        Cases{[&](const ApplyEdit& c) {
                document_.apply(c.edit);
                refresh();
              },
              [&](const Record& r) {
                const auto ok = document_.record(r.check, bench_.simulated());
                if (!ok)
                  Q_EMIT said(QString::fromStdString(ok.error().text()));
                else if (!r.said.empty())
                  Q_EMIT said(QString::fromStdString(r.said));
                refresh();
              },
              [&](const WriteBoard&) {
                if (bench_.is_another_class(document_.rig().controller.kind))
                  Q_EMIT said(u"The board is of another class than the rig: nothing was written."_s);
                else
                  bench_.write(document_.image());
              },
              [&](const DriveOutput& d) { bench_.drive(d.socket, d.level); },
              [&](const ReleaseOutputs&) { bench_.release(); }, [&](const AskHands& a) { bench_.ask(a.request); },
              [&](const Say& s) { Q_EMIT said(QString::fromStdString(s.words)); },
              [&](const GoTo& g) { Q_EMIT wanted(g.station, QString::fromStdString(g.subject)); },
              [&](const ShowHandCards& h) { Q_EMIT hand_cards_asked(h.cards); }},
        o);
}

void ProcedureRunner::show() {
  Card now = procedure_->card(scene());
  if (now == card_) return;
  card_ = std::move(now);
  card_.busy ? ticks_.start() : ticks_.stop();
  Q_EMIT card_changed();
}

}  // namespace rigging::app
