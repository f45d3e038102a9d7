#include "bench/bench_link.h"

#include <QCoreApplication>
#include <QFileInfo>
#include <QSerialPort>

#include "base/json.h"
#include "bench/receiver_device.h"

namespace rigging::app {

BenchLink::BenchLink(QObject* parent) : QObject(parent) {
  since_.start();
  poll_.setInterval(10);
  connect(&poll_, &QTimer::timeout, this, &BenchLink::poll);
  quiet_.setInterval(100);
  connect(&quiet_, &QTimer::timeout, this, [this] {
    if (silent()) Q_EMIT frames_heard({});
  });
  connect_.setInterval(30);
  connect(&connect_, &QTimer::timeout, this, [this] {
    if (++connect_tries_ > 200) {
      connect_.stop();
      if (!wire_) Q_EMIT problem(tr("The bench does not answer at %1").arg(socket_folder_));
      return;
    }
    const QString hands = socket_folder_ + QStringLiteral("/hands");
    if (!wire_ && controller_socket_.state() == QLocalSocket::UnconnectedState)
      controller_socket_.connectToServer(socket_folder_ + QStringLiteral("/controller"));
    if (hands_.state() == QLocalSocket::UnconnectedState && QFileInfo::exists(hands)) hands_.connectToServer(hands);
    if (!wire_ && controller_socket_.state() == QLocalSocket::ConnectedState) begin(&controller_socket_);
    if (wire_ && hands_connected()) {
      connect_.stop();
      send_to_hands("hello", Json::object());
      Q_EMIT state_changed();
    }
  });
  connect(&controller_socket_, &QLocalSocket::readyRead, this, &BenchLink::pump);
  connect(&hands_, &QLocalSocket::readyRead, this, [this] {
    const QByteArray bytes = hands_.readAll();
    for (auto& item : hands_client_.feed({bytes.constData(), static_cast<std::size_t>(bytes.size())}))
      if (auto* reply = std::get_if<link::Reply>(&item)) hands_reply(*reply);
  });
  for (QLocalSocket* socket : {&controller_socket_, &hands_})
    connect(socket, &QLocalSocket::disconnected, this, &BenchLink::lost);
  connect(&twin_, &QProcess::errorOccurred, this, [this](QProcess::ProcessError error) {
    if (error == QProcess::FailedToStart) Q_EMIT problem(tr("The simulated bench (rigging-twin) could not be started"));
  });
  connect(&twin_, &QProcess::finished, this, [this](int code) {
    const QString said = QString::fromUtf8(twin_.readAllStandardError()).trimmed();
    if (code != 0 && !said.isEmpty()) {
      connect_.stop();
      Q_EMIT problem(said);
    }
  });
}

BenchLink::~BenchLink() {
  blockSignals(true);
  stop();
}

void BenchLink::start_twin(const TwinOptions& o) {
  stop();
  stop_listening();
  folder_ = std::make_unique<QTemporaryDir>();
  QStringList arguments{o.rig_file, QStringLiteral("--sockets"), folder_->path(), QStringLiteral("--with-parent")};
  for (const QString& fault : o.faults) arguments << QStringLiteral("--fault") << fault;
  for (const QString& fault : o.lead_faults) arguments << QStringLiteral("--lead-fault") << fault;
  if (o.troubles.bad_sticks) arguments << QStringLiteral("--bad-sticks");
  if (o.troubles.cold_sticks) arguments << QStringLiteral("--cold-sticks");
  if (o.troubles.poor_senses) arguments << QStringLiteral("--poor-senses");
  for (const QString& fault : o.troubles.sense_faults) arguments << QStringLiteral("--sense-fault") << fault;
  if (o.troubles.differs) arguments << QStringLiteral("--differs");
  if (o.troubles.crooked) arguments << QStringLiteral("--crooked");
  if (o.troubles.any() || o.random > 0) arguments << QStringLiteral("--seed") << QString::number(o.seed);
  if (o.random > 0) arguments << QStringLiteral("--random") << QString::number(o.random);
  if (o.hidden) arguments << QStringLiteral("--hidden");
  QString program = QCoreApplication::applicationDirPath() + QStringLiteral("/rigging-twin");
  if (!QFileInfo::exists(program)) program = QStringLiteral("rigging-twin");
  twin_.start(program, arguments);
  connect_to(folder_->path());
}

void BenchLink::connect_to(const QString& folder) {
  socket_folder_ = folder;
  connect_tries_ = 0;
  connect_.start();
}

void BenchLink::connect_device(const QString& device) {
  stop();
  stop_listening();
  auto port = std::make_unique<QSerialPort>(device);
  port->setBaudRate(QSerialPort::Baud115200);
  if (!port->open(QIODevice::ReadWrite)) {
    Q_EMIT problem(
        tr("%1 could not be opened: %2. Is it plugged in, and may you use it?").arg(device, port->errorString()));
    return;
  }
  connect(port.get(), &QSerialPort::readyRead, this, &BenchLink::pump);
  connect(port.get(), &QSerialPort::errorOccurred, this, [this](QSerialPort::SerialPortError error) {
    if (error == QSerialPort::ResourceError || error == QSerialPort::DeviceNotFoundError)
      QTimer::singleShot(0, this, &BenchLink::stop);  // not from within the device that is taken down
  });
  socket_folder_ = device;
  device_ = std::move(port);
  begin(device_.get());
}

void BenchLink::begin(QIODevice* wire) {
  wire_ = wire;
  controller_.opened(now_s());
  pump();
  poll_.start();
  Q_EMIT state_changed();
}

void BenchLink::stop() {
  connect_.stop();
  poll_.stop();
  controller_socket_.abort();
  hands_.abort();
  if (twin_.state() != QProcess::NotRunning) {
    twin_.terminate();
    if (!twin_.waitForFinished(1500)) twin_.kill();
    twin_.waitForFinished(500);
  }
  folder_.reset();
  lost();
}

void BenchLink::lost() {
  wire_ = nullptr;
  device_.reset();
  poll_.stop();
  hands_client_ = {};
  board_.reset();
  channels_.clear();
  ports_.clear();
  battery_v_ = 0;
  frames_.clear();
  signal_.reset();
  bytes_.reset();
  edges_.reset();
  last_frame_s_ = 0;
  sight_ = {};
  controller_.closed();
  for (const auto& event : controller_.take_events())
    if (std::holds_alternative<link::Written>(event)) happened(event);
  Q_EMIT state_changed();
}

bool BenchLink::simulated() const {
  return hands_connected() || (controller_.hello() && controller_.hello()->simulated);
}

QString BenchLink::firmware() const {
  return controller_.hello() ? QString::fromStdString(controller_.hello()->firmware) : QString();
}

bool BenchLink::is_another_class(const std::string& wanted) const {
  return controller_.hello() && controller_.hello()->kind != wanted;
}

QString BenchLink::kind() const {
  return controller_.hello() ? QString::fromStdString(controller_.hello()->kind) : QString();
}

QString BenchLink::state_words() const {
  if (listening()) return tr("A receiver by itself is listened to");
  if (!wire_) return connect_.isActive() ? tr("Connecting to the simulated bench…") : tr("No bench connected");
  const QString answers = controller_answers() ? tr("controller answers, firmware %1").arg(firmware()) : QString();
  if (!hands_connected()) {
    const QString where = simulated() ? tr("Simulated controller at %1") : tr("Controller at %1");
    return tr("%1 · %2").arg(where.arg(socket_folder_), answers.isEmpty() ? tr("waiting for an answer") : answers);
  }
  const QString supply = sight_.battery ? (sight_.usb ? tr("USB and battery") : tr("battery"))
                         : sight_.usb   ? tr("USB only")
                                        : tr("no supply");
  return tr("Simulated bench · %1 · %2")
      .arg(supply, !answers.isEmpty()    ? answers
                   : sight_.lamp.empty() ? tr("waiting")
                                         : QString::fromStdString(sight_.lamp));
}

void BenchLink::ask(const hands::Request& request) {
  if (const auto* inspect = std::get_if<hands::Inspect>(&request)) inspecting_ = inspect->lead;
  send_to_hands(hands::name_of(request), hands::body_of(request));
}

void BenchLink::send_to_hands(const std::string& what, Json body) {
  if (hands_.state() != QLocalSocket::ConnectedState) return;
  const std::string bytes = hands_client_.ask(what, std::move(body)).second;
  hands_.write(bytes.data(), static_cast<qint64>(bytes.size()));
}

void BenchLink::poll() {
  // A look that has not been answered yet is not asked again; three ticks make a look.
  if (++ticks_ % 3 == 0 && hands_client_.open_requests() < 4) ask(hands::Look{});
  pump();
}

void BenchLink::pump() {
  if (!wire_) return;
  const QByteArray bytes = wire_->readAll();
  if (!bytes.isEmpty()) controller_.received({bytes.constData(), static_cast<std::size_t>(bytes.size())}, now_s());
  controller_.tick(now_s());
  for (const auto& event : controller_.take_events()) happened(event);
  if (const std::string out = controller_.take_bytes(); wire_ && !out.empty())
    wire_->write(out.data(), static_cast<qint64>(out.size()));
}

void BenchLink::happened(const link::LinkEvent& event) {
  if (std::get_if<link::Greeted>(&event)) {
    Q_EMIT state_changed();
  } else if (std::get_if<link::FellSilent>(&event)) {
    board_.reset();
    channels_.clear();
    ports_.clear();
    found_.clear();
    state_.reset();
    battery_v_ = 0;
    frames_.clear();
    signal_.reset();
    Q_EMIT board_sensed();
    Q_EMIT board_told();
    Q_EMIT frames_heard({});
    Q_EMIT state_changed();
  } else if (const auto* channels = std::get_if<link::ChannelsReply>(&event)) {
    channels_ = channels->us;
    Q_EMIT channels_heard();
  } else if (const auto* sensors = std::get_if<link::SensorsReply>(&event)) {
    battery_v_ = sensors->battery_v;
    ports_ = sensors->ports;
    found_ = sensors->found;
    Q_EMIT board_sensed();
  } else if (const auto* state = std::get_if<link::StateReply>(&event)) {
    state_ = *state;
    Q_EMIT board_told();
  } else if (const auto* motion = std::get_if<link::MotionReply>(&event)) {
    Q_EMIT motion_heard(*motion);
  } else if (const auto* receiver = std::get_if<link::ReceiverReply>(&event)) {
    take_wire(*receiver);
  } else if (const auto* read = std::get_if<link::BoardRead>(&event)) {
    board_ = read->image;
    Q_EMIT board_read();
  } else if (const auto* done = std::get_if<link::Written>(&event)) {
    if (done->image) board_ = done->image;
    Q_EMIT written(done->good, QString::fromStdString(done->words));
  } else if (const auto* trouble = std::get_if<link::Problem>(&event)) {
    Q_EMIT problem(QString::fromStdString(trouble->words));
  }
}

void BenchLink::hands_reply(const link::Reply& reply) {
  if (reply.request == "look" && reply.ok()) {
    const bool had_supply = sight_.usb || sight_.battery;
    hands::Sight now = hands::sight_of(reply.body);
    for (const std::string& part : now.destroyed)
      if (std::find(sight_.destroyed.begin(), sight_.destroyed.end(), part) == sight_.destroyed.end())
        Q_EMIT problem(tr("Smoke (simulated): %1 met the wrong polarity and is gone. Battery out.")
                           .arg(QString::fromStdString(part)));
    const bool changed = now.lamp != sight_.lamp || now.usb != sight_.usb || now.battery != sight_.battery;
    sight_ = std::move(now);
    const bool has_supply = sight_.usb || sight_.battery;
    if (!has_supply && had_supply) {
      controller_.supply_out();
      pump();
    }
    Q_EMIT seen();
    if (changed) Q_EMIT state_changed();
    return;
  }
  if (reply.request == "inspect" && reply.ok()) {
    Q_EMIT inspected(inspecting_, reply.body);
    return;
  }
  if (reply.request == "mend" && reply.ok()) {
    Q_EMIT hands_done(true, tr("The lead is as planned now"));
    return;
  }
  if (reply.request == "fly" && reply.ok()) {
    flight_text_.clear();
    flight_end_ = text_member(reply.body, "end");
    return ask(hands::ReadFlight{});
  }
  if (reply.request == "read_flight" && reply.ok()) return take_flight(hands::piece_of(reply.body));
  if (reply.request == "read_transmitter" && reply.ok()) {
    Q_EMIT transmitter_read(hands::settings_of(reply.body));
    return;
  }
  if (reply.request == "dial" || reply.request == "clevis" || reply.request == "tooth" ||
      reply.request == "set_output" || reply.request == "turn_gain" || reply.request == "work" || !reply.ok())
    Q_EMIT hands_done(reply.ok(),
                      reply.ok() ? tr("Done on the simulated model") : QString::fromStdString(reply.refused()));
}

void BenchLink::take_flight(const hands::FlightPiece& piece) {
  if (piece.text.empty() || piece.from != flight_text_.size()) return;
  flight_text_ += piece.text;
  if (flight_text_.size() < piece.size) return ask(hands::ReadFlight{flight_text_.size()});
  auto flight = flight_from_csv(flight_text_, "the simulated flight");
  if (!flight) return Q_EMIT hands_done(false, QString::fromStdString(flight.error().text()));
  flight->end = flight_end_;
  Q_EMIT flew(*flight);
}

void BenchLink::take_wire(const link::ReceiverReply& wire) {
  if (listening()) return;
  if (wire.dark) {
    if (signal_) frames_.clear();
    signal_.reset();
    Q_EMIT frames_heard({});
    return;
  }
  if (signal_ != wire.signal) hear(wire.signal);
  std::vector<ChannelFrame> fresh;
  if (bytes_)
    for (const auto& [t_us, bytes] : wire.chunks) bytes_->feed(bytes, t_us, fresh);
  if (edges_)
    for (const Edge& e : wire.edges) edges_->feed(e, fresh);
  heard(fresh);
}

void BenchLink::hear(Signal signal) {
  signal_ = signal;
  last_frame_s_ = now_s();  // it has just been lit
  frames_.clear();
  bytes_.reset();
  edges_.reset();
  if (signal == Signal::inverted_serial || signal == Signal::two_way_serial)
    bytes_.emplace(signal);
  else
    edges_.emplace(signal);
}

void BenchLink::heard(const std::vector<ChannelFrame>& fresh) {
  if (!fresh.empty()) last_frame_s_ = now_s();
  // Eight seconds; a clock that stands, jumps or runs backward keeps no more than the fastest receiver sends in them.
  constexpr double kept_us = 8e6;
  constexpr std::size_t most_frames = 8000;
  for (const ChannelFrame& f : fresh) {
    if (!frames_.empty() && f.t_us < frames_.back().t_us) frames_.clear();
    frames_.push_back(f);
  }
  while (frames_.size() > most_frames || (!frames_.empty() && frames_.back().t_us - frames_.front().t_us > kept_us))
    frames_.pop_front();
  Q_EMIT frames_heard(fresh);
}

void BenchLink::listen_to(const ReceiverAt& receiver) {
  stop_listening();
  stop();
  const bool inverted = receiver.signal == Signal::inverted_serial;
  const double baud = receiver.baud > 0 ? receiver.baud : inverted ? 100000 : 420000;
  const auto line = [inverted, baud](QSerialPort& port) {
    port.setBaudRate(static_cast<qint32>(baud));
    // 8E2 for the inverted family, 8N1 for the other.
    port.setParity(inverted ? QSerialPort::EvenParity : QSerialPort::NoParity);
    port.setStopBits(inverted ? QSerialPort::TwoStop : QSerialPort::OneStop);
  };
  QString trouble;
  receiver_ = open_receiver(
      receiver.device, line, this, [this] { take_bytes(); },
      [this](const QString& words) {
        if (!listening()) return;
        stop_listening();
        Q_EMIT problem(words);
      },
      &trouble);
  if (!receiver_) {
    Q_EMIT problem(trouble);
    return;
  }
  receiver_byte_us_ = (inverted ? 12 : 10) * 1e6 / baud;
  bytes_heard_ = 0;
  hear(receiver.signal);
  quiet_.start();
  Q_EMIT state_changed();
}

void BenchLink::stop_listening() {
  if (!listening()) return;
  quiet_.stop();
  receiver_.reset();
  signal_.reset();
  frames_.clear();
  bytes_.reset();
  Q_EMIT frames_heard({});
  Q_EMIT state_changed();
}

void BenchLink::take_bytes() {
  if (!listening() || !bytes_) return;
  const QByteArray bytes = receiver_->readAll();
  bytes_heard_ += static_cast<std::uint64_t>(bytes.size());
  std::vector<ChannelFrame> fresh;
  // They have just come to their end.
  const double began_us = now_s() * 1e6 - static_cast<double>(bytes.size()) * receiver_byte_us_;
  bytes_->feed({bytes.constData(), static_cast<std::size_t>(bytes.size())}, began_us, fresh);
  if (!fresh.empty()) heard(fresh);
}

SignalTally BenchLink::tally() const { return bytes_ ? bytes_->tally() : edges_ ? edges_->tally() : SignalTally{}; }
LinkReport BenchLink::link_report() const { return bytes_ ? bytes_->link_report() : LinkReport{}; }
void BenchLink::read_board() {
  controller_.read_board(now_s());
  pump();
}
void BenchLink::drive(const std::string& socket, double level) {
  controller_.drive(socket, level, now_s());
  pump();
}
void BenchLink::release() {
  controller_.release(now_s());
  pump();
}
void BenchLink::write(const link::Image& image) {
  controller_.write(image, now_s());
  if (wire_) return pump();
  for (const auto& event : controller_.take_events()) happened(event);
}

}  // namespace rigging::app
