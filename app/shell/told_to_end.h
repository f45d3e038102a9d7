#pragma once

#include <QSocketNotifier>

namespace rigging::app {

/// SIGTERM, SIGHUP and SIGINT as a signal of Qt, in the window's own time: while it lives they do not end the program
/// by themselves. There can be one.
class ToldToEnd : public QObject {
  Q_OBJECT
 public:
  explicit ToldToEnd(QObject* parent = nullptr);
  ~ToldToEnd() override;

 Q_SIGNALS:
  void told(int signal);

 private:
  int ends_[2] = {-1, -1};  ///< of the pipe through which a handler may speak
};

}  // namespace rigging::app
