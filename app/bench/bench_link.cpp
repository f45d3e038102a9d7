#include "bench/bench_link.h"

#include "base/json.h"

#include <QCoreApplication>
#include <QFileInfo>

namespace rigging::app {

BenchLink::BenchLink(QObject* parent) : QObject(parent) {
  poll_.setInterval(33);
  connect(&poll_, &QTimer::timeout, this, &BenchLink::poll);
  connect_.setInterval(30);
  connect(&connect_, &QTimer::timeout, this, [this] {
    if (++connect_tries_ > 200) {
      connect_.stop();
      Q_EMIT problem(tr("The bench does not answer at %1").arg(socket_folder_));
      return;
    }
    if (controller_.state() == QLocalSocket::UnconnectedState)
      controller_.connectToServer(socket_folder_ + QStringLiteral("/controller"));
    if (hands_.state() == QLocalSocket::UnconnectedState)
      hands_.connectToServer(socket_folder_ + QStringLiteral("/hands"));
    if (controller_.state() == QLocalSocket::ConnectedState && hands_.state() == QLocalSocket::ConnectedState) {
      connect_.stop();
      ask_hands("hello");
      poll_.start();
      Q_EMIT state_changed();
    }
  });
  connect(&controller_, &QLocalSocket::readyRead, this, [this] {
    const QByteArray bytes = controller_.readAll();
    for (auto& item : controller_client_.feed({bytes.constData(), static_cast<std::size_t>(bytes.size())})) {
      if (auto* reply = std::get_if<link::Reply>(&item))
        controller_reply(*reply);
      else
        Q_EMIT problem(QString::fromStdString(std::get<Error>(item).text()));
    }
  });
  connect(&hands_, &QLocalSocket::readyRead, this, [this] {
    const QByteArray bytes = hands_.readAll();
    for (auto& item : hands_client_.feed({bytes.constData(), static_cast<std::size_t>(bytes.size())}))
      if (auto* reply = std::get_if<link::Reply>(&item)) hands_reply(*reply);
  });
  for (QLocalSocket* socket : {&controller_, &hands_})
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
  folder_ = std::make_unique<QTemporaryDir>();
  QStringList arguments{o.rig_file, QStringLiteral("--sockets"), folder_->path(), QStringLiteral("--with-parent")};
  for (const QString& fault : o.faults) arguments << QStringLiteral("--fault") << fault;
  for (const QString& fault : o.lead_faults) arguments << QStringLiteral("--lead-fault") << fault;
  if (o.troubles.bad_sticks) arguments << QStringLiteral("--bad-sticks");
  if (o.troubles.cold_sticks) arguments << QStringLiteral("--cold-sticks");
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

void BenchLink::stop() {
  connect_.stop();
  poll_.stop();
  controller_.abort();
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
  const bool was_writing = transaction_.has_value();
  transaction_.reset();
  controller_client_ = {};
  hands_client_ = {};
  controller_answers_ = false;
  board_.reset();
  channels_.clear();
  ports_.clear();
  battery_v_ = 0;
  frames_.clear();
  signal_.reset();
  bytes_.reset();
  edges_.reset();
  silent_polls_ = 0;
  shows_receiver_ = true;
  sight_ = {};
  poll_.stop();
  if (was_writing)
    Q_EMIT written(false, tr("The link was cut while writing; the controller keeps its old configuration or has the "
                             "whole new one. Read it again."));
  Q_EMIT state_changed();
}

QString BenchLink::state_words() const {
  if (!hands_connected())
    return connect_.isActive() ? tr("Connecting to the simulated bench…") : tr("No bench connected");
  const QString supply = sight_.battery ? (sight_.usb ? tr("USB and battery") : tr("battery"))
                         : sight_.usb   ? tr("USB only")
                                        : tr("no supply");
  return tr("Simulated bench · %1 · %2")
      .arg(supply, controller_answers_     ? tr("controller answers, firmware %1").arg(firmware_)
                   : sight_.lamp.isEmpty() ? tr("waiting")
                                           : sight_.lamp);
}

void BenchLink::ask_controller(const std::string& what, Json body) {
  if (controller_.state() != QLocalSocket::ConnectedState) return;
  const std::string bytes = controller_client_.ask(what, std::move(body));
  controller_.write(bytes.data(), static_cast<qint64>(bytes.size()));
}

void BenchLink::ask_hands(const std::string& what, Json body) {
  if (hands_.state() != QLocalSocket::ConnectedState) return;
  const std::string bytes = hands_client_.ask(what, std::move(body));
  hands_.write(bytes.data(), static_cast<qint64>(bytes.size()));
}

void BenchLink::poll() {
  // A look that has not been answered yet is not asked again.
  if (hands_client_.open_requests() < 4) ask_hands("look");
  if (controller_answers_ && controller_client_.open_requests() < 3)
    ask_controller(++polls_ % 8 == 0 ? "sensors" : "channels");
  if (controller_answers_ && shows_receiver_ && controller_client_.open_requests() < 4) ask_controller("receiver");
}

void BenchLink::greet() { ask_controller("hello", {{"protocol", link::protocol_version}}); }

void BenchLink::hands_reply(const link::Reply& reply) {
  if (reply.request == "look" && reply.ok()) {
    const bool had_supply = sight_.usb || sight_.battery;
    Sight now;
    if (const auto it = reply.body.find("surfaces"); it != reply.body.end() && it->is_object())
      for (const auto& [name, value] : it->items())
        if (const auto surface = surface_from_word(name); surface && value.is_number())
          now.deflections[*surface] = value.get<double>();
    now.roll_deg = number_member(reply.body, "roll_deg", 0);
    now.pitch_deg = number_member(reply.body, "pitch_deg", 0);
    now.yaw_deg = number_member(reply.body, "yaw_deg", 0);
    now.lamp = QString::fromStdString(text_member(reply.body, "lamp"));
    now.servos_powered = flag_member(reply.body, "servos_powered", false);
    now.usb = flag_member(reply.body, "usb", false);
    now.battery = flag_member(reply.body, "battery", false);
    for (const std::string& part : texts_member(reply.body, "destroyed")) now.destroyed << QString::fromStdString(part);
    for (const QString& part : now.destroyed)
      if (!sight_.destroyed.contains(part))
        Q_EMIT problem(tr("Smoke (simulated): %1 met the wrong polarity and is gone. Battery out.").arg(part));
    const bool changed = now.lamp != sight_.lamp || now.usb != sight_.usb || now.battery != sight_.battery;
    sight_ = std::move(now);
    const bool has_supply = sight_.usb || sight_.battery;
    if (has_supply && !controller_answers_ && controller_client_.open_requests() == 0) greet();
    if (!has_supply && had_supply) {
      controller_answers_ = false;
      board_.reset();
      channels_.clear();
      ports_.clear();
      battery_v_ = 0;
      Q_EMIT board_sensed();
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
  if (reply.request == "read_transmitter" && reply.ok()) {
    std::vector<Channel> settings;
    if (const auto it = reply.body.find("channels"); it != reply.body.end() && it->is_array())
      for (const Json& j : *it) {
        Channel c;
        c.number = static_cast<int>(number_member(j, "channel", 0));
        c.reversed = flag_member(j, "reversed", false);
        c.sub_trim_us = number_member(j, "sub_trim_us", 0);
        c.travel_low_percent = number_member(j, "travel_low_percent", 100);
        c.travel_high_percent = number_member(j, "travel_high_percent", 100);
        if (c.number >= 1 && c.number <= 32) settings.push_back(c);
      }
    Q_EMIT transmitter_read(settings);
    return;
  }
  if (reply.request == "dial" || reply.request == "clevis" || reply.request == "tooth" ||
      reply.request == "set_output" || reply.request == "work" || !reply.ok())
    Q_EMIT hands_done(reply.ok(),
                      reply.ok() ? tr("Done on the simulated model") : QString::fromStdString(reply.refused()));
}

void BenchLink::controller_reply(const link::Reply& reply) {
  if (transaction_ && (reply.request == "stage_begin" || reply.request == "stage" || reply.request == "verify" ||
                       reply.request == "commit" || reply.request == "read")) {
    transaction_->answered(reply);
    if (transaction_->failed()) {
      const QString words = QString::fromStdString(transaction_->problem());
      transaction_.reset();
      Q_EMIT written(false, words);
    } else if (transaction_->done()) {
      if (auto image = link::image_in(reply)) board_ = std::move(*image);
      transaction_.reset();
      Q_EMIT written(true, tr("Written to the controller and read back"));
    } else {
      next_write_step();
    }
    return;
  }
  if (reply.request == "hello") {
    controller_answers_ = reply.ok();
    if (reply.ok()) {
      firmware_ = QString::fromStdString(text_member(reply.body, "firmware"));
      kind_ = QString::fromStdString(text_member(reply.body, "kind"));
      if (flag_member(reply.body, "settings", true)) read_board();
      Q_EMIT state_changed();
    }
  } else if (reply.request == "read") {
    auto image = link::image_in(reply);
    if (!image) {
      Q_EMIT problem(QString::fromStdString(image.error().text()));
      return;
    }
    board_ = std::move(*image);
    Q_EMIT board_read();
  } else if (reply.request == "sensors" && reply.ok()) {
    battery_v_ = number_member(reply.body, "battery_v", 0);
    ports_.clear();
    if (const auto it = reply.body.find("ports"); it != reply.body.end() && it->is_object())
      for (const auto& [name, value] : it->items())
        if (value.is_boolean()) ports_[name] = value.get<bool>();
    Q_EMIT board_sensed();
  } else if (reply.request == "receiver") {
    shows_receiver_ = reply.ok();
    if (reply.ok()) take_wire(reply.body);
  } else if (reply.request == "channels" && reply.ok()) {
    channels_.clear();
    if (const auto it = reply.body.find("channels"); it != reply.body.end() && it->is_object())
      for (const auto& [name, value] : it->items())
        if (value.is_number()) channels_[name] = value.get<double>();
    Q_EMIT channels_heard();
  } else if (!reply.ok() && controller_answers_) {
    Q_EMIT problem(tr("The controller refuses: %1").arg(QString::fromStdString(reply.refused())));
  }
}

void BenchLink::take_wire(const Json& body) {
  const auto signal = from_word<Signal>(text_member(body, "signal"));
  if (!signal || flag_member(body, "dark", true)) {
    if (signal_) frames_.clear();
    signal_.reset();
    Q_EMIT frames_heard({});
    return;
  }
  const bool serial = *signal == Signal::inverted_serial || *signal == Signal::two_way_serial;
  if (signal_ != signal) {
    signal_ = signal;
    bytes_.reset();
    edges_.reset();
    if (serial)
      bytes_.emplace(*signal);
    else
      edges_.emplace(*signal);
  }
  std::vector<ChannelFrame> fresh;
  if (const auto it = body.find("chunks"); bytes_ && it != body.end() && it->is_array())
    for (const Json& chunk : *it)
      if (const auto b = chunk.is_object() ? chunk.find("bytes") : chunk.end();
          chunk.is_object() && b != chunk.end() && b->is_binary()) {
        const auto& raw = b->get_binary();
        bytes_->feed({reinterpret_cast<const char*>(raw.data()), raw.size()}, number_member(chunk, "t_us", 0), fresh);
      }
  if (const auto it = body.find("edges"); edges_ && it != body.end() && it->is_array())
    for (const Json& e : *it)
      if (e.is_array() && e.size() == 3 && e[0].is_number() && e[1].is_boolean() && e[2].is_number_integer() &&
          e[2].get<int>() >= 0 && e[2].get<int>() < static_cast<int>(most_channels))
        edges_->feed({e[0].get<double>(), e[1].get<bool>(), static_cast<std::uint8_t>(e[2].get<int>())}, fresh);
  silent_polls_ = fresh.empty() ? silent_polls_ + 1 : 0;
  for (const ChannelFrame& f : fresh) frames_.push_back(f);
  while (!frames_.empty() && frames_.back().t_us - frames_.front().t_us > 8e6) frames_.pop_front();
  Q_EMIT frames_heard(fresh);
}

SignalTally BenchLink::tally() const { return bytes_ ? bytes_->tally() : edges_ ? edges_->tally() : SignalTally{}; }
LinkReport BenchLink::link_report() const { return bytes_ ? bytes_->link_report() : LinkReport{}; }
void BenchLink::control(int channel, double position) {
  ask_hands("control", {{"channel", channel}, {"position", position}});
}
void BenchLink::read_transmitter() { ask_hands("read_transmitter"); }
void BenchLink::dial(const Channel& c) {
  ask_hands("dial", {{"channel", c.number},
                     {"reversed", c.reversed},
                     {"sub_trim_us", c.sub_trim_us},
                     {"travel_low_percent", c.travel_low_percent},
                     {"travel_high_percent", c.travel_high_percent}});
}
void BenchLink::clevis(Surface surface, double turns) {
  ask_hands("clevis", {{"surface", surface.word()}, {"turns", turns}});
}
void BenchLink::set_output(const Output& o) {
  ask_hands("set_output", {{"output", o.id},
                           {"reversed", o.reversed},
                           {"low_us", o.low_us},
                           {"centre_us", o.centre_us},
                           {"high_us", o.high_us}});
}
void BenchLink::tooth(Surface surface, int teeth) {
  ask_hands("tooth", {{"surface", surface.word()}, {"teeth", teeth}});
}

void BenchLink::supply(bool usb, bool battery) { ask_hands("supply", {{"usb", usb}, {"battery", battery}}); }
void BenchLink::stick(const QString& axis, double position) {
  ask_hands("stick", {{"axis", axis.toStdString()}, {"position", position}});
}
void BenchLink::hold(double roll_deg, double pitch_deg, double yaw_deg) {
  ask_hands("hold", {{"roll_deg", roll_deg}, {"pitch_deg", pitch_deg}, {"yaw_deg", yaw_deg}});
}
void BenchLink::flick(Axis axis, int sense) { ask_hands("flick", {{"axis", word(axis)}, {"sense", sense}}); }
void BenchLink::mode(Mode mode) { ask_hands("mode", {{"mode", word(mode)}}); }
void BenchLink::transmitter(bool on) { ask_hands("transmitter", {{"on", on}}); }
void BenchLink::inspect(const std::string& lead) {
  inspecting_ = lead;
  ask_hands("inspect", {{"lead", lead}});
}

void BenchLink::mend(const std::string& lead) { ask_hands("mend", {{"lead", lead}}); }

void BenchLink::work(Remedy remedy, const Json& place) {
  Json body = place;
  body["work"] = word(remedy);
  ask_hands("work", std::move(body));
}

void BenchLink::read_board() { ask_controller("read"); }
void BenchLink::drive(const std::string& socket, double level) {
  ask_controller("drive", {{"output", socket}, {"level", level}});
}
void BenchLink::release() { ask_controller("release"); }

void BenchLink::write(const link::Image& image) {
  if (!controller_answers_) {
    Q_EMIT written(false, tr("No controller answers"));
    return;
  }
  if (transaction_) return;
  transaction_.emplace(image);
  next_write_step();
}

void BenchLink::next_write_step() {
  if (auto request = transaction_->next()) ask_controller(request->what, std::move(request->body));
}

}  // namespace rigging::app
