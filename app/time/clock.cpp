#include "time/clock.h"

#include <QPointer>
#include <algorithm>

namespace rigging::app {

Clock& Clock::instance() {
  static Clock clock;
  return clock;
}

Clock::Clock() { since_.start(); }

double Clock::now_s() const { return turned_s_ + (by_hand_ ? 0.0 : static_cast<double>(since_.nsecsElapsed()) * 1e-9); }

void Clock::take_by_hand(bool by_hand) {
  if (by_hand_ == by_hand) return;
  // It goes on from where it stands.
  turned_s_ = now_s();
  by_hand_ = by_hand;
  since_.start();
}

void Clock::turn(double s) {
  turned_s_ += s;
  Q_EMIT passed(s);
  const std::vector<QPointer<Ticks>> ticking(ticking_.begin(), ticking_.end());
  for (const QPointer<Ticks>& t : ticking)
    if (t && t->active_ && t->due_s_ <= turned_s_ + 1e-9) t->fire();
}

Ticks::Ticks(int interval_ms, QObject* parent) : QObject(parent), interval_s_(interval_ms / 1000.0) {
  connect(&timer_, &QTimer::timeout, this, &Ticks::fire);
}

Ticks::~Ticks() { stop(); }

void Ticks::start(int interval_ms) {
  interval_s_ = interval_ms / 1000.0;
  start();
}

void Ticks::start() {
  stop();
  active_ = true;
  Clock& clock = Clock::instance();
  if (clock.by_hand()) {
    due_s_ = clock.now_s() + interval_s_;
    clock.ticking_.push_back(this);
  } else {
    timer_.setSingleShot(single_);
    timer_.start(static_cast<int>(interval_s_ * 1000));
  }
}

void Ticks::stop() {
  active_ = false;
  timer_.stop();
  std::erase(Clock::instance().ticking_, this);
}

void Ticks::fire() {
  if (single_) {
    stop();
  } else {
    due_s_ = std::max(due_s_ + interval_s_, Clock::instance().now_s());
  }
  Q_EMIT timeout();
}

}  // namespace rigging::app
