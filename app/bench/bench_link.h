#pragma once

#include <QElapsedTimer>
#include <QLocalSocket>
#include <QObject>
#include <QProcess>
#include <QTemporaryDir>
#include <QTimer>

#include "catalogue/catalogue.h"
#include "flight/flight.h"
#include "hands/hands.h"
#include "link/controller_link.h"
#include "signal/reception.h"

namespace rigging::app {

/// Both ends of the bench: the link to the controller, and the builder's hands and eyes on the simulated model. Never
/// asks the twin what is wrong with it.
class BenchLink : public QObject {
  Q_OBJECT
 public:
  explicit BenchLink(QObject* parent = nullptr);
  ~BenchLink() override;

  /// What of the simulated model needs setting up.
  struct Troubles {
    bool bad_sticks = false;        ///< a badly set transmitter
    bool cold_sticks = false;       ///< gimbals that drift while they warm up
    bool crooked = false;           ///< linkages and servos that are not straight
    bool differs = false;           ///< in the air it is not quite what its rig makes one expect
    bool poor_senses = false;       ///< sensors that are off, and iron near the compass
    QStringList sense_faults = {};  ///< by name (docs/twin.md)
    bool any() const {
      return bad_sticks || cold_sticks || crooked || differs || poor_senses || !sense_faults.isEmpty();
    }
  };
  struct TwinOptions {
    QString rig_file;
    QStringList faults, lead_faults;  ///< given by name, for tests
    Troubles troubles;
    int random = 0;
    unsigned seed = 1;
    bool hidden = true;
  };
  /// Starts rigging-twin as a program of its own and connects to it.
  void start_twin(const TwinOptions& options);
  /// Connects to a twin that runs already, by its folder of sockets: the controller, and hands and eyes where there are
  /// any.
  void connect_to(const QString& folder);
  /// Connects to a controller on a serial device. It has no hands: those are the builder's own.
  void connect_device(const QString& device);
  void stop();

  /// A receiver by itself, on a serial device. The line of an idle-low one is inverted by the adapter.
  struct ReceiverAt {
    QString device;
    Signal signal = Signal::inverted_serial;  ///< or two-way serial
    double baud = 0;                          ///< 0: the signal's own
  };
  /// The bench is left for it: nothing else is heard then. Not opened, it says why with `problem`.
  void listen_to(const ReceiverAt& receiver);
  void stop_listening();
  bool listening() const { return receiver_ != nullptr; }
  /// Bytes of the receiver that is listened to, whatever they mean.
  std::uint64_t bytes_heard() const { return bytes_heard_; }

  bool hands_connected() const { return hands_.state() == QLocalSocket::ConnectedState; }
  /// True once the controller has answered.
  bool controller_answers() const { return controller_.answers(); }
  /// What is proven with it is proven on a simulation.
  bool simulated() const;
  QString firmware() const;
  /// True when a controller answers that is not of this class: its settings are somebody else's.
  bool is_another_class(const std::string& wanted) const;
  QString kind() const;
  const hands::Sight& sight() const { return sight_; }
  const std::map<std::string, double>& channels() const { return channels_; }
  /// What the board reports of its ports: true where data arrives. And the voltage that it measures.
  const std::map<std::string, bool>& ports() const { return ports_; }
  double battery_v() const { return battery_v_; }
  /// What the board finds of its sensors; empty without a board that says it.
  const std::map<Sensor, SensorState>& found() const { return found_; }
  /// What the board says that it does; nothing where it does not say it.
  const std::optional<BoardState>& state() const { return state_; }
  /// Frames of the last eight seconds, decoded from the receiver's wire; empty when the class does not show what it
  /// receives.
  const std::deque<ChannelFrame>& frames() const { return frames_; }
  SignalTally tally() const;
  LinkReport link_report() const;
  std::optional<Signal> signal() const { return signal_; }
  /// The receiver has supply, but no frame has come for a while.
  bool silent() const { return signal_ && now_s() - last_frame_s_ > silent_after_s; }
  const std::optional<link::Image>& board() const { return board_; }
  QString state_words() const;

  /// Asks the hands for something; without hands nothing happens. Done or refused comes with `hands_done`, what is seen
  /// with `seen`, `inspected` and `transmitter_read`.
  void ask(const hands::Request& request);

  // Controller
  void read_board();
  void write(const link::Image& image);
  void drive(const std::string& socket, double level);
  void release();
  bool writing() const { return controller_.writing(); }

 Q_SIGNALS:
  void state_changed();
  void seen();
  void channels_heard();
  /// New frames, oldest first; they are in `frames()` already.
  void frames_heard(const std::vector<rigging::ChannelFrame>& frames);
  /// Settings as on the transmitter's screen.
  /// Readings of the board's own sensors, oldest first.
  void motion_heard(const rigging::BoardReadings& readings);
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
  void send_to_hands(const std::string& what, Json body);
  void poll();
  /// The controller's stream is open; hands follow if there are any.
  void begin(QIODevice* wire);
  double now_s() const { return static_cast<double>(since_.nsecsElapsed()) * 1e-9; }
  /// Sends what is to be sent and tells what came.
  void pump();
  void happened(const link::LinkEvent& event);
  void hands_reply(const link::Reply& reply);
  void take_flight(const hands::FlightPiece& piece);
  void lost();

  QLocalSocket controller_socket_, hands_;
  std::unique_ptr<QIODevice> device_;
  QIODevice* wire_ = nullptr;  ///< what the controller is talked to through
  QElapsedTimer since_;
  link::ControllerLink controller_;
  link::Client hands_client_;
  QProcess twin_;
  std::unique_ptr<QTemporaryDir> folder_;
  QTimer poll_, connect_;
  int connect_tries_ = 0;
  QString socket_folder_;
  hands::Sight sight_;
  std::map<std::string, double> channels_;
  std::map<std::string, bool> ports_;
  double battery_v_ = 0;
  std::map<Sensor, SensorState> found_;
  std::optional<BoardState> state_;
  void take_wire(const link::ReceiverReply& reply);
  void take_bytes();
  void hear(Signal signal);
  void heard(const std::vector<ChannelFrame>& fresh);

  std::unique_ptr<QIODevice> receiver_;
  double receiver_byte_us_ = 100;
  std::uint64_t bytes_heard_ = 0;
  QTimer quiet_;  ///< tells of silence while a receiver is listened to

  std::deque<ChannelFrame> frames_;
  std::optional<Signal> signal_;
  std::optional<ByteDecoder> bytes_;
  std::optional<EdgeDecoder> edges_;
  double last_frame_s_ = 0;
  std::string inspecting_;
  std::string flight_text_, flight_end_;  ///< what has come of the last flight's log
  int ticks_ = 0;
  std::optional<link::Image> board_;
};

}  // namespace rigging::app
