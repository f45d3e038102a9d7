#pragma once

#include <QLocalSocket>

#include "flight/flight.h"
#include "hands/hands.h"
#include "link/client.h"

namespace rigging::app {

/// The builder's hands and eyes on the simulated model. Never asks the twin what is wrong with it.
class HandsLink : public QObject {
  Q_OBJECT
 public:
  explicit HandsLink(QObject* parent = nullptr);

  /// Tries once; `connected` tells.
  void connect_to(const QString& socket);
  bool connected() const { return socket_.state() == QLocalSocket::ConnectedState; }
  bool idle() const { return socket_.state() == QLocalSocket::UnconnectedState; }
  void close();
  /// Without hands nothing happens.
  void ask(const hands::Request& request);
  /// A look, unless the ones before have not been answered yet.
  void look();
  /// Lets the simulated bench's time pass, where a test turns the clock, and waits until it has.
  void pass_time(double s);
  const hands::Sight& sight() const { return sight_; }
  /// When something was asked of them, or something else was seen than before, by the one clock.
  double stirred_s() const { return stirred_s_; }

 Q_SIGNALS:
  void lost();
  void seen();
  /// Lamp or supply are others than before.
  void changed();
  void supply_out();
  void done(bool good, const QString& words);
  void flew(const rigging::Flight& flight);
  void inspected(const std::string& lead, const rigging::Json& seen);
  void transmitter_read(const std::vector<rigging::Channel>& settings);
  void problem(const QString& words);

 private:
  void send(const std::string& what, Json body);
  void put(const hands::Request& request);
  void stir();
  void take();
  void reply(const link::Reply& reply);
  void take_sight(const Json& body);
  void take_flight(const hands::FlightPiece& piece);

  QLocalSocket socket_;
  link::Client client_;
  hands::Sight sight_;
  double stirred_s_ = 0;
  bool time_passes_ = false;  ///< asked for, not answered yet
  std::string inspecting_;
  std::string flight_text_, flight_end_;  ///< what has come of the last flight's log
};

}  // namespace rigging::app
