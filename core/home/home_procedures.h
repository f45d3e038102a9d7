#pragma once

#include <set>

#include "home/modes.h"
#include "procedure/timed_orders.h"

namespace rigging {

/// Transmitter off: what the board says that it does, against the plan; what the surfaces do, eyes tell.
class LossProcedure : public Procedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override;
  Card card(const Scene& scene) const override;
  bool listens_to_state() const override { return true; }

 private:
  enum class Doing { nothing, waits, lost, back };
  Orders press(const std::string& action, const Scene& scene);
  Doing doing_ = Doing::nothing;
  BoardState state_;
  double now_s_ = 0, began_s_ = 0, lost_s_ = 0, acted_s_ = 0;
  std::string acted_;  ///< the last that it did about the loss, but waiting
  TimedOrders steps_;
};

/// Every position of every switch that chooses a mode, with what the board makes of it.
class PositionsProcedure : public Procedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override;
  Card card(const Scene& scene) const override;
  bool listens_to_state() const override { return true; }

 private:
  using Position = std::pair<int, std::size_t>;  ///< channel, which of its positions
  Orders press(const std::string& action);
  void judge(const Scene& scene);
  /// What is to be seen with the switches as they stand; nothing where one is between its positions.
  std::optional<std::vector<std::size_t>> standing() const;
  bool listens_ = false;
  ModeDeck deck_;
  std::map<int, double> pulse_us_;
  BoardState state_;
  double now_s_ = 0;
  int told_ = 0;        ///< how often the board has told its state since the switches stand so
  int told_other_ = 0;  ///< of these the last in a row with another mode than planned
  std::vector<std::size_t> stands_;
  std::set<Position> seen_;
  std::map<Position, std::string> wrong_;  ///< the mode that it gave instead
  TimedOrders steps_;
};

/// What keeps the board from arming now, one reason at a time with its remedy.
class ArmingProcedure : public Procedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override;
  Card card(const Scene& scene) const override;
  bool listens_to_state() const override { return true; }

 private:
  std::optional<BoardState> state_;
  double now_s_ = 0;
  TimedOrders steps_;
  bool refused_without_place_ = false, refused_without_button_ = false;
};

}  // namespace rigging
