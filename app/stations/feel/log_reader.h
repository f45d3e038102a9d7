#pragma once

#include <QObject>
#include <optional>

#include "document/rig_document.h"
#include "feel/flight_log.h"
#include "feel/learn.h"
#include "look/progress_sheet.h"

namespace rigging::app {

/// Reads the log of a flight, real or simulated, says what it told, and lets the builder take that or leave it. Reading
/// and judging run beside the window.
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
  /// Nothing is read or judged now.
  bool idle() const { return !reading_.progress() && !judging_.progress() && !untold_; }

 Q_SIGNALS:
  void said(const QString& words);

 private:
  struct Read {
    QString file;
    std::string beginning;  ///< of the text, with the heading
    Result<FlightLog> log;
  };
  void hear(Read read);
  void judge_pending();
  void show(const FlightLesson& lesson, bool simulated);

  RigDocument& document_;
  QWidget* window_;
  Worker<Read> reading_;
  std::optional<std::pair<FlightLog, bool>> untold_;
  Worker<std::pair<FlightLesson, bool>> judging_;
  ProgressSheet progress_;
};

}  // namespace rigging::app
