#pragma once

#include <fcntl.h>
#include <stdlib.h>
#include <termios.h>
#include <unistd.h>

#include <QString>
#include <string_view>

namespace rigging::app {

/// A serial device that a test plays: the far end of a pseudo-terminal pair.
class PseudoTerminal {
 public:
  PseudoTerminal() {
    far_ = ::posix_openpt(O_RDWR | O_NOCTTY | O_NONBLOCK);
    ::grantpt(far_);
    ::unlockpt(far_);
    termios raw{};
    ::tcgetattr(far_, &raw);
    ::cfmakeraw(&raw);
    ::tcsetattr(far_, TCSANOW, &raw);
  }
  PseudoTerminal(const PseudoTerminal&) = delete;
  PseudoTerminal& operator=(const PseudoTerminal&) = delete;
  ~PseudoTerminal() { unplug(); }

  void unplug() {
    if (far_ >= 0) ::close(far_);
    far_ = -1;
  }
  QString device() const { return QString::fromLocal8Bit(::ptsname(far_)); }
  ssize_t read(char* block, std::size_t most) { return ::read(far_, block, most); }
  /// With which whoever opened the device listens.
  speed_t speed() const {
    termios set{};
    ::tcgetattr(far_, &set);
    return ::cfgetispeed(&set);
  }
  void write(std::string_view bytes) { (void)!::write(far_, bytes.data(), bytes.size()); }

 private:
  int far_ = -1;
};

}  // namespace rigging::app
