#pragma once

#include <QElapsedTimer>
#include <QObject>
#include <QTimer>

namespace rigging::app {

class Ticks;

/// The one clock of everything that waits: the bench link, procedures, what is drawn moving. It runs by itself, or a
/// test turns it: then a simulated minute costs what it computes.
class Clock : public QObject {
  Q_OBJECT
 public:
  static Clock& instance();

  /// Seconds from any beginning; never backward.
  double now_s() const;
  bool by_hand() const { return by_hand_; }
  /// From now on time stands but for `turn`, or runs by itself again. What ticks already goes on as it began: for when
  /// nothing does.
  void take_by_hand(bool by_hand = true);
  void turn(double s);

 Q_SIGNALS:
  /// It was turned; comes before the ticks that fell into this time.
  void passed(double s);

 private:
  friend class Ticks;
  Clock();

  QElapsedTimer since_;
  bool by_hand_ = false;
  double turned_s_ = 0;
  std::vector<Ticks*> ticking_;  ///< by hand
};

/// A timer of this clock, as QTimer is of the wall's: what was missed comes once.
class Ticks : public QObject {
  Q_OBJECT
 public:
  explicit Ticks(int interval_ms = 0, QObject* parent = nullptr);
  ~Ticks() override;
  void start();
  void start(int interval_ms);
  void stop();
  void set_single(bool single) { single_ = single; }
  bool is_active() const { return active_; }

 Q_SIGNALS:
  void timeout();

 private:
  friend class Clock;
  void fire();

  QTimer timer_;
  double interval_s_, due_s_ = 0;
  bool active_ = false, single_ = false;
};

}  // namespace rigging::app
