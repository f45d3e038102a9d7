#pragma once

#include <atomic>
#include <functional>
#include <optional>

namespace rigging {

/// Between a slow function and whoever waits for it: how far it is, and whether it should go on. Safe between threads.
class Progress {
 public:
  /// 0 to 1.
  void at(double share) { share_ = share; }
  double share() const { return share_; }
  void cancel() { cancelled_ = true; }
  bool cancelled() const { return cancelled_; }

 private:
  std::atomic<double> share_ = 0;
  std::atomic<bool> cancelled_ = false;
};

/// A pure function on a snapshot that it holds itself. Nothing when it was cancelled on the way.
template <class T>
using Job = std::function<std::optional<T>(Progress&)>;

}  // namespace rigging
