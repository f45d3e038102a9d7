#pragma once

#include <QIODevice>
#include <QLocalSocket>
#include <memory>

#include "link/controller_link.h"

namespace rigging::app {

/// The link to the controller: what carries the bytes, and what the controller told over it.
class BoardLink : public QObject {
  Q_OBJECT
 public:
  explicit BoardLink(QObject* parent = nullptr);
  ~BoardLink() override;

  /// Tries a simulated controller's socket once; `opened` tells.
  void connect_to(const QString& socket);
  /// A controller on a serial device. False with `problem` where it can't be opened.
  bool connect_device(const QString& device);
  void close();
  /// Bytes can go to and fro; whether somebody answers is another matter.
  bool open() const { return wire_ != nullptr; }
  /// Sends what is to be sent and tells what came.
  void pump();
  void supply_out();
  /// When it was asked for something on purpose, by the one clock.
  double stirred_s() const { return stirred_s_; }

  bool answers() const { return controller_.answers(); }
  const std::optional<link::HelloReply>& hello() const { return controller_.hello(); }
  const std::map<std::string, double>& channels() const { return channels_; }
  const std::map<std::string, bool>& ports() const { return ports_; }
  double battery_v() const { return battery_v_; }
  const std::map<Sensor, SensorState>& found() const { return found_; }
  const std::optional<BoardState>& state() const { return state_; }
  const std::optional<link::Image>& image() const { return image_; }

  void read();
  void write(const link::Image& image);
  bool writing() const { return controller_.writing(); }
  void drive(const std::string& socket, double level);
  void release();

 Q_SIGNALS:
  void opened();
  void lost();
  void greeted();
  void fell_silent();
  void channels_heard();
  void sensed();
  void told();
  void motion_heard(const rigging::BoardReadings& readings);
  void receiver_told(const rigging::link::ReceiverReply& wire);
  void was_read();
  void written(bool good, const QString& words);
  void problem(const QString& words);

 private:
  void begin(QIODevice* wire);
  void happened(const link::LinkEvent& event);
  void forget();
  double stir();

  QLocalSocket socket_;
  std::unique_ptr<QIODevice> device_;
  QIODevice* wire_ = nullptr;  ///< what the controller is talked to through
  link::ControllerLink controller_;
  std::map<std::string, double> channels_;
  std::map<std::string, bool> ports_;
  double battery_v_ = 0;
  std::map<Sensor, SensorState> found_;
  std::optional<BoardState> state_;
  std::optional<link::Image> image_;
  double stirred_s_ = 0;
  double saying_since_s_ = 0;  ///< of the second in which problems are counted
  int said_ = 0;
};

}  // namespace rigging::app
