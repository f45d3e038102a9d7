#pragma once

#include <QFutureWatcher>
#include <QtConcurrentRun>
#include <memory>

#include "base/job.h"

namespace rigging::app {

/// Runs jobs of core beside the interface, one at a time: a new one cancels the one before, whose result is dropped.
/// The result comes back in the thread that started it.
template <class T>
class Worker {
 public:
  explicit Worker(std::function<void(T)> done) : done_(std::move(done)) {}
  /// Waits for nothing: a job holds all that it looks at.
  ~Worker() { cancel(); }
  Worker(const Worker&) = delete;
  Worker& operator=(const Worker&) = delete;

  void start(Job<T> job) {
    cancel();
    progress_ = std::make_shared<Progress>();
    // A watcher that is given another future tells nothing of the former one any more.
    watcher_.disconnect();
    QObject::connect(&watcher_, &QFutureWatcherBase::finished, &watcher_, [this, progress = progress_] {
      if (progress->cancelled()) return;
      if (std::optional<T> result = watcher_.future().takeResult()) {
        progress_.reset();
        done_(std::move(*result));
      }
    });
    watcher_.setFuture(QtConcurrent::run([job = std::move(job), progress = progress_] { return job(*progress); }));
  }
  void cancel() {
    if (progress_) progress_->cancel();
    progress_.reset();
  }
  /// Null when nothing is computed.
  const Progress* progress() const { return progress_.get(); }

 private:
  std::function<void(T)> done_;
  std::shared_ptr<Progress> progress_;
  QFutureWatcher<std::optional<T>> watcher_;
};

}  // namespace rigging::app
