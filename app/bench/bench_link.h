#pragma once

#include "bench/board_link.h"
#include "bench/hands_link.h"
#include "bench/receiver_link.h"
#include "bench/twin_process.h"
#include "time/clock.h"

namespace rigging::app {

/// The bench as the window knows it: the board, the receiver, and where they are simulated the hands and the program
/// that simulates them. It says which of them there are; what each does stands in its own class.
class BenchLink : public QObject {
  Q_OBJECT
 public:
  using Troubles = TwinProcess::Troubles;
  using TwinOptions = TwinProcess::Options;
  using ReceiverAt = ReceiverLink::At;

  explicit BenchLink(QObject* parent = nullptr);
  ~BenchLink() override;

  /// Starts rigging-twin as a program of its own and connects to it.
  void start_twin(const TwinOptions& options);
  /// Connects to a twin that runs already, by its folder of sockets: the controller, and hands and eyes where there are
  /// any.
  void connect_to(const QString& folder);
  /// Connects to a controller on a serial device. It has no hands: those are the builder's own.
  void connect_device(const QString& device);
  void stop();
  bool connecting() const { return connect_.isActive(); }

  /// The bench is left for it: nothing else is heard then.
  void listen_to(const ReceiverAt& receiver);
  void stop_listening() { receiver_.stop_listening(); }
  bool listening() const { return receiver_.listening(); }
  std::uint64_t bytes_heard() const { return receiver_.bytes_heard(); }

  bool hands_connected() const { return hands_.connected(); }
  /// True once the controller has answered.
  bool controller_answers() const { return board_.answers(); }
  /// What is proven with it is proven on a simulation.
  bool simulated() const;
  QString firmware() const;
  /// True when a controller answers that is not of this class: its settings are somebody else's.
  bool is_another_class(const std::string& wanted) const;
  QString kind() const;
  const hands::Sight& sight() const { return hands_.sight(); }
  const std::map<std::string, double>& channels() const { return board_.channels(); }
  /// What the board reports of its ports: true where data arrives. And the voltage that it measures.
  const std::map<std::string, bool>& ports() const { return board_.ports(); }
  double battery_v() const { return board_.battery_v(); }
  /// What the board finds of its sensors; empty without a board that says it.
  const std::map<Sensor, SensorState>& found() const { return board_.found(); }
  /// What the board says that it does; nothing where it does not say it.
  const std::optional<BoardState>& state() const { return board_.state(); }
  const std::deque<ChannelFrame>& frames() const { return receiver_.frames(); }
  SignalTally tally() const { return receiver_.tally(); }
  LinkReport link_report() const { return receiver_.link_report(); }
  std::optional<Signal> signal() const { return receiver_.signal(); }
  bool silent() const { return receiver_.silent(); }
  const std::optional<link::Image>& board() const { return board_.image(); }
  QString state_words() const;

  /// Asks the hands for something; without hands nothing happens. Done or refused comes with `hands_done`, what is seen
  /// with `seen`, `inspected` and `transmitter_read`.
  void ask(const hands::Request& request) { hands_.ask(request); }

  // Controller
  void read_board() { board_.read(); }
  void write(const link::Image& image) { board_.write(image); }
  void drive(const std::string& socket, double level) { board_.drive(socket, level); }
  void release() { board_.release(); }
  bool writing() const { return board_.writing(); }

 Q_SIGNALS:
  void state_changed();
  void seen();
  void channels_heard();
  /// New frames, oldest first; they are in `frames()` already.
  void frames_heard(const std::vector<rigging::ChannelFrame>& frames);
  /// Readings of the board's own sensors, oldest first.
  void motion_heard(const rigging::BoardReadings& readings);
  /// Settings as on the transmitter's screen.
  void transmitter_read(const std::vector<rigging::Channel>& settings);
  void board_read();
  void written(bool good, const QString& words);
  void hands_done(bool good, const QString& words);
  /// The simulated model has flown, as its hands were asked with `hands::Fly`.
  void flew(const rigging::Flight& flight);
  /// What eyes saw of a lead, in the words of docs/twin.md.
  void inspected(const std::string& lead, const rigging::Json& seen);
  void board_sensed();
  /// What it does now, and why it does not arm: some four times a second.
  void board_told();
  void problem(const QString& words);

 private:
  void try_to_connect();
  void poll();
  void lost();

  TwinProcess twin_;
  BoardLink board_;
  HandsLink hands_;
  ReceiverLink receiver_;
  Ticks poll_;
  QTimer connect_;  ///< a program takes its time to start, whoever turns the clock
  int connect_tries_ = 0, ticks_ = 0;
  bool rests_ = false;  ///< nobody does anything, and nothing moves
  QString where_;       ///< folder of the sockets, or device
};

}  // namespace rigging::app
