#include "bench/bench_hands.h"

namespace rigging::app {

BenchHands::BenchHands(BenchLink& bench, QObject* parent) : QObject(parent), bench_(bench) {
  timer_.setSingleShot(true);
  connect(&timer_, &QTimer::timeout, this, [this] {
    const auto act = steps_.takeFirst().act;
    act();
    next();
  });
}

void BenchHands::next() {
  if (steps_.isEmpty()) {
    Q_EMIT finished();
    return;
  }
  timer_.start(steps_.first().after_ms);
}

void BenchHands::perform(const direction::Observation& o, const std::string& socket, bool momentary, double from_deg) {
  if (busy()) return;
  const QString axis = QString::fromLatin1(word(o.axis).data());
  switch (o.act) {
    case direction::Act::stick:
      steps_ << Step{0, [this, o] { bench_.mode(o.mode); }}
             << Step{150, [this, o, axis] { bench_.stick(axis, o.sense); }}
             << Step{2200, [this, axis] { bench_.stick(axis, 0); }};
      break;
    case direction::Act::drive:
      steps_ << Step{0, [this, o] { bench_.mode(Mode::manual); }}
             << Step{150, [this, o, socket] { bench_.drive(socket, 0.8 * o.sense); }}
             << Step{2000, [this] { bench_.release(); }};
      break;
    case direction::Act::tilt: {
      steps_ << Step{0, [this, o] { bench_.mode(o.mode); }};
      if (momentary) {
        for (int i = 0; i < 2; ++i) steps_ << Step{i == 0 ? 200 : 1500, [this, o] { bench_.flick(o.axis, o.sense); }};
        steps_ << Step{1400, [this] { bench_.hold(0, 0, 0); }};
      } else {
        const double angle = o.sense * std::max(30.0, from_deg + 8);
        steps_ << Step{200,
                       [this, o, angle] {
                         bench_.hold(o.axis == Axis::roll ? angle : 0, o.axis == Axis::pitch ? angle : 0,
                                     o.axis == Axis::yaw ? angle : 0);
                       }}
               << Step{2600, [this] { bench_.hold(0, 0, 0); }};
      }
      break;
    }
  }
  steps_ << Step{700, [this] { bench_.mode(Mode::manual); }};
  next();
}

}  // namespace rigging::app
