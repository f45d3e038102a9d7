#pragma once

#include "bench/bench_link.h"
#include "direction/case.h"

namespace rigging::app {

/// Carries out one observation on the simulated bench, as a builder would: sets the mode, moves the stick, tilts or
/// drives, waits, and puts everything back.
class BenchHands : public QObject {
  Q_OBJECT
 public:
  BenchHands(BenchLink& bench, QObject* parent);

  /// `momentary` asks for quick flicks instead of a held tilt; `from_deg` is how far the tilt must at least go.
  void perform(const direction::Observation& observation, const std::string& socket, bool momentary, double from_deg);
  bool busy() const { return !steps_.isEmpty(); }

 Q_SIGNALS:
  void finished();

 private:
  struct Step {
    int after_ms;
    std::function<void()> act;
  };
  void next();

  BenchLink& bench_;
  QList<Step> steps_;
  QTimer timer_;
};

}  // namespace rigging::app
