#include "bench/board_link.h"

#include <QSerialPort>
#include <QTimer>

#include "look/literals.h"
#include "time/clock.h"

namespace rigging::app {
namespace {

double now_s() { return Clock::instance().now_s(); }

}  // namespace

BoardLink::BoardLink(QObject* parent) : QObject(parent) {
  connect(&socket_, &QLocalSocket::connected, this, [this] { begin(&socket_); });
  connect(&socket_, &QLocalSocket::readyRead, this, &BoardLink::pump);
  connect(&socket_, &QLocalSocket::disconnected, this, &BoardLink::lost);
}

BoardLink::~BoardLink() = default;

void BoardLink::connect_to(const QString& socket) {
  if (socket_.state() == QLocalSocket::UnconnectedState) socket_.connectToServer(socket);
}

bool BoardLink::connect_device(const QString& device) {
  auto port = std::make_unique<QSerialPort>(device);
  port->setBaudRate(QSerialPort::Baud115200);
  if (!port->open(QIODevice::ReadWrite)) {
    Q_EMIT problem(
        u"%1 could not be opened: %2. Is it plugged in, and may you use it?"_s.arg(device, port->errorString()));
    return false;
  }
  connect(port.get(), &QSerialPort::readyRead, this, &BoardLink::pump);
  connect(port.get(), &QSerialPort::errorOccurred, this, [this](QSerialPort::SerialPortError error) {
    if (error == QSerialPort::ResourceError || error == QSerialPort::DeviceNotFoundError)
      QTimer::singleShot(0, this, &BoardLink::lost);  // not from within the device that is taken down
  });
  device_ = std::move(port);
  begin(device_.get());
  return true;
}

void BoardLink::begin(QIODevice* wire) {
  wire_ = wire;
  controller_.opened(now_s());
  pump();
  Q_EMIT opened();
}

void BoardLink::close() {
  const QSignalBlocker quiet(socket_);  // whoever closes knows it
  socket_.abort();
  wire_ = nullptr;
  device_.reset();
  forget();
  controller_.closed();
  for (const auto& event : controller_.take_events())
    if (std::holds_alternative<link::Written>(event)) happened(event);
}

void BoardLink::forget() {
  image_.reset();
  channels_.clear();
  ports_.clear();
  found_.clear();
  state_.reset();
  battery_v_ = 0;
}

void BoardLink::pump() {
  if (!wire_) return;
  const QByteArray bytes = wire_->readAll();
  if (!bytes.isEmpty()) controller_.received({bytes.constData(), static_cast<std::size_t>(bytes.size())}, now_s());
  controller_.tick(now_s());
  for (const auto& event : controller_.take_events()) happened(event);
  if (const std::string out = controller_.take_bytes(); wire_ && !out.empty())
    wire_->write(out.data(), static_cast<qint64>(out.size()));
}

void BoardLink::supply_out() {
  controller_.supply_out();
  pump();
}

void BoardLink::happened(const link::LinkEvent& event) {
  if (std::get_if<link::Greeted>(&event)) {
    Q_EMIT greeted();
  } else if (std::get_if<link::FellSilent>(&event)) {
    forget();
    Q_EMIT sensed();
    Q_EMIT told();
    Q_EMIT fell_silent();
  } else if (const auto* channels = std::get_if<link::ChannelsReply>(&event)) {
    channels_ = channels->us;
    Q_EMIT channels_heard();
  } else if (const auto* sensors = std::get_if<link::SensorsReply>(&event)) {
    battery_v_ = sensors->battery_v;
    ports_ = sensors->ports;
    found_ = sensors->found;
    Q_EMIT sensed();
  } else if (const auto* state = std::get_if<link::StateReply>(&event)) {
    state_ = *state;
    Q_EMIT told();
  } else if (const auto* motion = std::get_if<link::MotionReply>(&event)) {
    Q_EMIT motion_heard(*motion);
  } else if (const auto* receiver = std::get_if<link::ReceiverReply>(&event)) {
    Q_EMIT receiver_told(*receiver);
  } else if (const auto* read = std::get_if<link::BoardRead>(&event)) {
    image_ = read->image;
    Q_EMIT was_read();
  } else if (const auto* done = std::get_if<link::Written>(&event)) {
    if (done->image) image_ = done->image;
    Q_EMIT written(done->good, QString::fromStdString(done->words));
  } else if (const auto* trouble = std::get_if<link::Problem>(&event)) {
    // A stream of damaged frames is one trouble: nobody reads more than a few sentences a second.
    constexpr int most_a_second = 4;
    if (const double now = now_s(); now - saying_since_s_ >= 1) saying_since_s_ = now, said_ = 0;
    if (++said_ <= most_a_second) Q_EMIT problem(QString::fromStdString(trouble->words));
  }
}

double BoardLink::stir() { return stirred_s_ = now_s(); }

void BoardLink::read() {
  controller_.read_board(stir());
  pump();
}
void BoardLink::drive(const std::string& socket, double level) {
  controller_.drive(socket, level, stir());
  pump();
}
void BoardLink::release() {
  controller_.release(stir());
  pump();
}
void BoardLink::write(const link::Image& image) {
  controller_.write(image, stir());
  if (wire_) return pump();
  for (const auto& event : controller_.take_events()) happened(event);
}

}  // namespace rigging::app
