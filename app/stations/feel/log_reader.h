#pragma once

#include <QObject>
#include <optional>

#include "document/rig_document.h"
#include "feel/flight_log.h"

namespace rigging::app {

/// Reads the log of a flight, real or simulated, says what it told, and lets the builder take that or leave it.
class LogReader : public QObject {
  Q_OBJECT
 public:
  /// `window` is what its sheets stand over, and owns it.
  LogReader(RigDocument& document, QWidget* window);

  /// Asks for a file.
  void choose();
  void read(const QString& file);
  /// Now, or as soon as the margins are there again. It is taken as flown with the gains that are set.
  void tell(const FlightLog& log, bool simulated);

 Q_SIGNALS:
  void said(const QString& words);

 private:
  void tell_pending();

  RigDocument& document_;
  QWidget* window_;
  std::optional<std::pair<FlightLog, bool>> untold_;
};

}  // namespace rigging::app
