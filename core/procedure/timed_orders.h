#pragma once

#include "procedure/procedure.h"

namespace rigging {

/// Orders that follow one another, each some seconds after the one before: what simulated hands do in a look.
class TimedOrders {
 public:
  void add(double after_s, Order order) { steps_.push_back({after_s, std::move(order)}); }
  void begin(double now_s) { last_s_ = now_s; }
  void drop() { steps_.clear(); }
  bool busy() const { return !steps_.empty(); }
  /// Those whose time has come, once.
  Orders due(double now_s);

 private:
  struct Step {
    double after_s = 0;
    Order order;
  };
  std::vector<Step> steps_;
  double last_s_ = 0;
};

}  // namespace rigging
