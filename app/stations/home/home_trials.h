#pragma once

#include <QWidget>

#include "bench/bench_link.h"
#include "document/rig_document.h"
#include "document/worker.h"
#include "home/rehearsal.h"

class QPushButton;

namespace rigging::app {

/// The way home tried in simulation: many rehearsals of the plan, or one flight of the bench's own model. What they
/// told holds for the plan that they were of.
class HomeTrials : public QWidget {
  Q_OBJECT
 public:
  HomeTrials(RigDocument& document, BenchLink& bench, QWidget* parent = nullptr);

  /// As the rig stands; null while it is being worked out.
  void show_state(const HomeReport* report);
  /// From where, and with which charge, one is flown.
  void start_at(const HomePlace& place, double left_mah) { place_ = place, left_mah_ = left_mah; }
  void rehearse();
  void fly();
  /// One paragraph each; empty where nothing was tried.
  QStringList words() const;

 Q_SIGNALS:
  void told();
  /// The way that was flown; empty when it does not hold any more.
  void flown(const std::vector<rigging::HomePlace>& track);
  /// There is no bench to fly on.
  void bench_missing();

 private:
  const HomeReport* report() const;
  void take_table(const Result<RehearsalTable>& table);
  void take_flight(const Flight& flight);

  RigDocument& document_;
  BenchLink& bench_;
  QPushButton *rehearse_, *fly_;
  Worker<Result<RehearsalTable>> rehearser_;
  HomePlace place_;
  double left_mah_ = 0;
  QString rehearsed_, flown_;
  std::optional<FlightPlan> asked_;  ///< that is being flown
  Rig of_;                           ///< the plan that was tried
};

}  // namespace rigging::app
