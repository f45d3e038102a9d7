#include "bench/receiver_link.h"

#include <QSerialPort>

#include "bench/receiver_device.h"

namespace rigging::app {
namespace {

constexpr double kept_us = 8e6;
/// A clock that stands, jumps or runs backward keeps no more than the fastest receiver sends in that time.
constexpr std::size_t most_frames = 8000;

}  // namespace

ReceiverLink::ReceiverLink(QObject* parent) : QObject(parent), quiet_(100) {
  connect(&quiet_, &Ticks::timeout, this, [this] {
    if (silent()) Q_EMIT frames_heard({});
  });
}

ReceiverLink::~ReceiverLink() = default;

bool ReceiverLink::silent() const { return signal_ && Clock::instance().now_s() - last_frame_s_ > silent_after_s; }

bool ReceiverLink::listen_to(const At& receiver) {
  stop_listening();
  const bool inverted = receiver.signal == Signal::inverted_serial;
  const double baud = receiver.baud > 0 ? receiver.baud : inverted ? 100000 : 420000;
  const auto line = [inverted, baud](QSerialPort& port) {
    port.setBaudRate(static_cast<qint32>(baud));
    // 8E2 for the inverted family, 8N1 for the other.
    port.setParity(inverted ? QSerialPort::EvenParity : QSerialPort::NoParity);
    port.setStopBits(inverted ? QSerialPort::TwoStop : QSerialPort::OneStop);
  };
  QString trouble;
  device_ = open_receiver(
      receiver.device, line, this, [this] { take_bytes(); },
      [this](const QString& words) {
        if (!listening()) return;
        stop_listening();
        Q_EMIT problem(words);
      },
      &trouble);
  if (!device_) {
    Q_EMIT problem(trouble);
    return false;
  }
  byte_us_ = (inverted ? 12 : 10) * 1e6 / baud;
  bytes_heard_ = 0;
  hear(receiver.signal);
  quiet_.start();
  Q_EMIT listening_changed();
  return true;
}

void ReceiverLink::stop_listening() {
  if (!listening()) return;
  quiet_.stop();
  device_.reset();
  unpowered();
  Q_EMIT listening_changed();
}

void ReceiverLink::take_bytes() {
  if (!listening() || !bytes_) return;
  const QByteArray bytes = device_->readAll();
  bytes_heard_ += static_cast<std::uint64_t>(bytes.size());
  std::vector<ChannelFrame> fresh;
  // They have just come to their end.
  const double began_us = Clock::instance().now_s() * 1e6 - static_cast<double>(bytes.size()) * byte_us_;
  bytes_->feed({bytes.constData(), static_cast<std::size_t>(bytes.size())}, began_us, fresh);
  if (!fresh.empty()) heard(fresh);
}

void ReceiverLink::take(Signal signal, const std::vector<std::pair<double, std::string>>& chunks,
                        const std::vector<Edge>& edges) {
  if (listening()) return;
  if (signal_ != signal) hear(signal);
  std::vector<ChannelFrame> fresh;
  if (bytes_)
    for (const auto& [t_us, bytes] : chunks) bytes_->feed(bytes, t_us, fresh);
  if (edges_)
    for (const Edge& e : edges) edges_->feed(e, fresh);
  heard(fresh);
}

void ReceiverLink::unpowered() {
  if (listening()) return;
  frames_.clear();
  signal_.reset();
  bytes_.reset();
  edges_.reset();
  Q_EMIT frames_heard({});
}

void ReceiverLink::hear(Signal signal) {
  signal_ = signal;
  last_frame_s_ = Clock::instance().now_s();  // it has just been lit
  frames_.clear();
  bytes_.reset();
  edges_.reset();
  if (signal == Signal::inverted_serial || signal == Signal::two_way_serial)
    bytes_.emplace(signal);
  else
    edges_.emplace(signal);
}

void ReceiverLink::heard(const std::vector<ChannelFrame>& fresh) {
  if (!fresh.empty()) last_frame_s_ = Clock::instance().now_s();
  for (const ChannelFrame& f : fresh) {
    if (!frames_.empty() && f.t_us < frames_.back().t_us) frames_.clear();
    frames_.push_back(f);
  }
  while (frames_.size() > most_frames || (!frames_.empty() && frames_.back().t_us - frames_.front().t_us > kept_us))
    frames_.pop_front();
  Q_EMIT frames_heard(fresh);
}

SignalTally ReceiverLink::tally() const { return bytes_ ? bytes_->tally() : edges_ ? edges_->tally() : SignalTally{}; }
LinkReport ReceiverLink::link_report() const { return bytes_ ? bytes_->link_report() : LinkReport{}; }

}  // namespace rigging::app
