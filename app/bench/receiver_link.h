#pragma once

#include <QIODevice>
#include <QObject>
#include <memory>

#include "signal/reception.h"
#include "time/clock.h"

namespace rigging::app {

/// Frames decoded from a receiver's wire, whoever brings it: the controller tells of it, or a serial device of its own.
class ReceiverLink : public QObject {
  Q_OBJECT
 public:
  explicit ReceiverLink(QObject* parent = nullptr);
  ~ReceiverLink() override;

  /// A receiver by itself, on a serial device. The line of an idle-low one is inverted by the adapter.
  struct At {
    QString device;
    Signal signal = Signal::inverted_serial;  ///< or two-way serial
    double baud = 0;                          ///< 0: the signal's own
  };
  /// Not opened, it says why with `problem` and returns false.
  bool listen_to(const At& receiver);
  void stop_listening();
  bool listening() const { return device_ != nullptr; }
  /// Bytes of the receiver that is listened to, whatever they mean.
  std::uint64_t bytes_heard() const { return bytes_heard_; }

  /// What the controller tells of its wire; passed over while a device is listened to.
  void take(Signal signal, const std::vector<std::pair<double, std::string>>& chunks, const std::vector<Edge>& edges);
  /// The receiver has no supply, or nobody tells of it any more.
  void unpowered();

  /// Of the last eight seconds, oldest first; empty when the class does not show what it receives.
  const std::deque<ChannelFrame>& frames() const { return frames_; }
  std::optional<Signal> signal() const { return signal_; }
  /// The receiver has supply, but no frame has come for a while.
  bool silent() const;
  SignalTally tally() const;
  LinkReport link_report() const;

 Q_SIGNALS:
  /// New frames, oldest first; they are in `frames()` already. None: it fell silent, or dark.
  void frames_heard(const std::vector<rigging::ChannelFrame>& frames);
  void listening_changed();
  void problem(const QString& words);

 private:
  void take_bytes();
  void hear(Signal signal);
  void heard(const std::vector<ChannelFrame>& fresh);

  std::unique_ptr<QIODevice> device_;
  double byte_us_ = 100;
  std::uint64_t bytes_heard_ = 0;
  Ticks quiet_;  ///< tells of silence while a receiver is listened to
  std::deque<ChannelFrame> frames_;
  std::optional<Signal> signal_;
  std::optional<ByteDecoder> bytes_;
  std::optional<EdgeDecoder> edges_;
  double last_frame_s_ = 0;
};

}  // namespace rigging::app
