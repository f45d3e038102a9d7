#include "bench/satellite_line.h"

#include "bench/receiver_device.h"
#include "look/literals.h"

namespace rigging::app {
namespace {

constexpr int look_every_ms = 1600;  // receivers speak once a second at least

}  // namespace

const std::vector<int>& SatelliteLine::usual_bauds() {
  static const std::vector<int> all{57600, 115200, 9600, 38400, 230400, 19200, 4800};
  return all;
}

SatelliteLine::SatelliteLine(QObject* parent) : QObject(parent), look_(look_every_ms) {
  connect(&look_, &Ticks::timeout, this, &SatelliteLine::look);
}

SatelliteLine::~SatelliteLine() = default;

void SatelliteLine::open(const QString& device, double baud) {
  close();
  finds_ = baud <= 0;
  at_ = 0;
  QString trouble;
  port_ = open_receiver(
      device,
      [this, baud](QSerialPort& port) { port.setBaudRate(finds_ ? usual_bauds()[0] : static_cast<qint32>(baud)); },
      this, [this] { take(); },
      [this](const QString& words) {
        if (!is_open()) return;
        close();
        Q_EMIT problem(words);
      },
      &trouble);
  if (!port_) {
    Q_EMIT problem(trouble);
    return;
  }
  reader_ = {};
  look_.start();
  Q_EMIT changed();
}

void SatelliteLine::close() {
  if (!is_open()) return;
  look_.stop();
  port_.reset();
  Q_EMIT changed();
}

int SatelliteLine::baud() const { return port_ ? port_->baudRate() : 0; }

void SatelliteLine::take() {
  if (!is_open()) return;
  const QByteArray bytes = port_->readAll();
  const std::string text(bytes.constData(), static_cast<std::size_t>(bytes.size()));
  reader_.feed(text);
  Q_EMIT heard(text);
}

void SatelliteLine::look() {
  // Nothing at all is no matter of the baud; what is no sentence may be.
  if (finds_ && reader_.tally().sentences == 0 && reader_.tally().bytes > 0) {
    at_ = (at_ + 1) % usual_bauds().size();
    port_->setBaudRate(usual_bauds()[at_]);
    reader_ = {};
  }
  Q_EMIT changed();
}

QString SatelliteLine::state_words() const {
  if (!is_open()) return {};
  const bool fine = reader_.tally().sentences > 0;
  return u"Listening to %1 at %2 baud%3. %4"_s.arg(port_->portName())
      .arg(baud())
      .arg(finds_ && !fine ? u" (looking for the right one)"_s : QString())
      .arg(QString::fromStdString(line_words(reader_.tally())));
}

}  // namespace rigging::app
