#pragma once

#include <QObject>
#include <memory>

#include "senses/satellites.h"
#include "time/clock.h"

class QSerialPort;

namespace rigging::app {

/// A satellite receiver by itself, at a serial device. Where its baud is not given, one after the other is tried until
/// sentences come.
class SatelliteLine : public QObject {
  Q_OBJECT
 public:
  explicit SatelliteLine(QObject* parent = nullptr);
  ~SatelliteLine() override;

  /// `baud` 0: find it. Not opened, it says why with `problem`.
  void open(const QString& device, double baud);
  void close();
  bool is_open() const { return port_ != nullptr; }
  /// What it listens with now.
  int baud() const;
  /// The device, its baud, and what arrives, in words.
  QString state_words() const;

  /// Tried in this order (common practice: 57 600 and 115 200 are the usual ones).
  static const std::vector<int>& usual_bauds();

 Q_SIGNALS:
  void heard(const std::string& bytes);
  void changed();
  void problem(const QString& words);

 private:
  void take();
  void look();
  std::unique_ptr<QSerialPort> port_;
  SatelliteReader reader_;
  Ticks look_;
  bool finds_ = false;
  std::size_t at_ = 0;
};

}  // namespace rigging::app
