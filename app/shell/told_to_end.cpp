#include "shell/told_to_end.h"

#include <fcntl.h>
#include <unistd.h>
#include <csignal>

namespace rigging::app {
namespace {

volatile std::sig_atomic_t pipe_in = -1;
constexpr int signals[] = {SIGTERM, SIGHUP, SIGINT};

void tell(int signal) {
  const char byte = static_cast<char>(signal);
  // A full pipe has told it already.
  [[maybe_unused]] const auto n = ::write(pipe_in, &byte, 1);
}

}  // namespace

ToldToEnd::ToldToEnd(QObject* parent) : QObject(parent) {
  if (::pipe2(ends_, O_CLOEXEC | O_NONBLOCK) != 0) return;
  pipe_in = ends_[1];
  auto* heard = new QSocketNotifier(ends_[0], QSocketNotifier::Read, this);
  connect(heard, &QSocketNotifier::activated, this, [this] {
    char byte = 0;
    while (::read(ends_[0], &byte, 1) == 1) Q_EMIT told(byte);
  });
  for (const int s : signals) {
    struct sigaction now {};
    // What is started with a signal ignored (nohup) goes on ignoring it.
    if (::sigaction(s, nullptr, &now) == 0 && now.sa_handler == SIG_IGN) continue;
    struct sigaction act {};
    act.sa_handler = tell;
    act.sa_flags = SA_RESTART;
    ::sigaction(s, &act, nullptr);
  }
}

ToldToEnd::~ToldToEnd() {
  for (const int s : signals) {
    struct sigaction now {};
    if (::sigaction(s, nullptr, &now) == 0 && now.sa_handler == tell) std::signal(s, SIG_DFL);
  }
  pipe_in = -1;
  for (const int end : ends_)
    if (end >= 0) ::close(end);
}

}  // namespace rigging::app
