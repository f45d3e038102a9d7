#include "procedure/timed_orders.h"

namespace rigging {

Orders TimedOrders::due(double now_s) {
  Orders orders;
  while (!steps_.empty() && now_s >= last_s_ + steps_.front().after_s) {
    last_s_ += steps_.front().after_s;
    orders.push_back(std::move(steps_.front().order));
    steps_.erase(steps_.begin());
  }
  return orders;
}

}  // namespace rigging
