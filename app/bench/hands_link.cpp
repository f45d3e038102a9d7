#include "bench/hands_link.h"

#include <algorithm>

#include "base/json.h"
#include "look/literals.h"
#include "time/clock.h"

namespace rigging::app {
namespace {

constexpr std::size_t most_open_looks = 4;
constexpr int time_passes_within_ms = 5000;

}  // namespace

HandsLink::HandsLink(QObject* parent) : QObject(parent) {
  connect(&socket_, &QLocalSocket::readyRead, this, &HandsLink::take);
  connect(&socket_, &QLocalSocket::connected, this, [this] { send("hello", Json::object()); });
  connect(&socket_, &QLocalSocket::disconnected, this, &HandsLink::lost);
}

void HandsLink::connect_to(const QString& socket) { socket_.connectToServer(socket); }

void HandsLink::close() {
  const QSignalBlocker quiet(socket_);  // whoever closes knows it
  socket_.abort();
  client_ = {};
  sight_ = {};
  time_passes_ = false;
}

void HandsLink::ask(const hands::Request& request) {
  if (const auto* inspect = std::get_if<hands::Inspect>(&request)) inspecting_ = inspect->lead;
  stir();
  put(request);
}

void HandsLink::put(const hands::Request& request) { send(hands::request_name(request), hands::body_of(request)); }

void HandsLink::look() {
  if (client_.open_requests() < most_open_looks) put(hands::Look{});
}

void HandsLink::stir() { stirred_s_ = Clock::instance().now_s(); }

void HandsLink::send(const std::string& what, Json body) {
  if (!connected()) return;
  const std::string bytes = client_.ask(what, std::move(body)).second;
  socket_.write(bytes.data(), static_cast<qint64>(bytes.size()));
}

void HandsLink::pass_time(double s) {
  if (!connected()) return;
  time_passes_ = true;
  put(hands::PassTime{s});
  while (time_passes_ && connected() && socket_.waitForReadyRead(time_passes_within_ms)) {}
}

void HandsLink::take() {
  const QByteArray bytes = socket_.readAll();
  for (auto& item : client_.feed({bytes.constData(), static_cast<std::size_t>(bytes.size())}))
    if (auto* answer = std::get_if<link::Reply>(&item)) reply(*answer);
}

void HandsLink::reply(const link::Reply& r) {
  if (r.request == "pass_time") {
    time_passes_ = false;
  } else if (r.request == "look" && r.ok()) {
    take_sight(r.body);
  } else if (r.request == "inspect" && r.ok()) {
    Q_EMIT inspected(inspecting_, r.body);
  } else if (r.request == "mend" && r.ok()) {
    Q_EMIT done(true, u"The lead is as planned now"_s);
  } else if (r.request == "fly" && r.ok()) {
    flight_text_.clear();
    flight_end_ = text_member(r.body, "end");
    ask(hands::ReadFlight{});
  } else if (r.request == "read_flight" && r.ok()) {
    take_flight(hands::piece_of(r.body));
  } else if (r.request == "read_transmitter" && r.ok()) {
    Q_EMIT transmitter_read(hands::settings_of(r.body));
  } else if (!r.ok()) {
    Q_EMIT done(false, QString::fromStdString(r.refused()));
  } else {
    for (const char* work : {"dial", "clevis", "tooth", "set_output", "turn_gain", "work"})
      if (r.request == work) Q_EMIT done(true, u"Done on the simulated model"_s);
  }
}

void HandsLink::take_sight(const Json& body) {
  const hands::Sight was = std::exchange(sight_, hands::sight_of(body));
  if (!(sight_ == was)) stir();
  for (const std::string& part : sight_.destroyed)
    if (std::find(was.destroyed.begin(), was.destroyed.end(), part) == was.destroyed.end())
      Q_EMIT problem(u"Smoke (simulated): %1 met the wrong polarity and is gone. Battery out."_s.arg(
          QString::fromStdString(part)));
  if ((was.usb || was.battery) && !sight_.usb && !sight_.battery) Q_EMIT supply_out();
  Q_EMIT seen();
  if (sight_.lamp != was.lamp || sight_.usb != was.usb || sight_.battery != was.battery) Q_EMIT changed();
}

void HandsLink::take_flight(const hands::FlightPiece& piece) {
  if (piece.text.empty() || piece.from != flight_text_.size()) return;
  flight_text_ += piece.text;
  if (flight_text_.size() < piece.size) return ask(hands::ReadFlight{flight_text_.size()});
  auto flight = flight_from_csv(flight_text_, "the simulated flight");
  if (!flight) return Q_EMIT done(false, QString::fromStdString(flight.error().text()));
  flight->end = flight_end_;
  Q_EMIT flew(*flight);
}

}  // namespace rigging::app
