#pragma once

#include "document/worker.h"
#include "feel/flight_log.h"
#include "feel/flown.h"
#include "stations/feel/flight_picture.h"
#include "stations/station_page.h"

class QButtonGroup;
class QComboBox;
class QLabel;
class QPushButton;

namespace rigging::app {

/// What to fly in simulation, and with what: the plan as it stands, with the band of what it may turn out to be, or the
/// model on the simulated bench with what was written to its board.
class FlyControls : public QWidget {
  Q_OBJECT
 public:
  FlyControls(const PageContext& context, FlightPicture& picture, QWidget* parent = nullptr);

  /// Follows the document; plots are of this axis.
  void show_axis(Axis axis);

 Q_SIGNALS:
  void said(const QString& words);
  void bench_asked();
  /// What the flight of the bench's model told, to be taken or left.
  void told(const rigging::FlightLog& log);

 private:
  enum TypeInfo { gusts, tug, dive, hand, reversed };
  /// What is flown, with what, and as it is said.
  struct Launch {
    TypeInfo kind = gusts;
    FlyOptions options;
    QStringList said;  ///< whose, mode, speed, wind, hands, gain: to name what differs from another
    std::vector<AxisGain> gains;
  };
  /// As everything stands now.
  Launch launch(bool of_bench) const;
  void fly_plan();
  void fly_bench();
  /// Once the board holds the gains as planned and the battery is in.
  void advance();
  void take(Flight flight, std::optional<FlightBand> band, bool of_bench);
  /// No flight comes of it; why is said.
  void give_up(const QString& why);
  void next_step();
  const GainStep* step() const;
  void show_state();
  void show_picture();
  bool written_as_planned() const;
  bool directions_proven() const;

  RigDocument& document_;
  BenchLink& bench_;
  FlightPicture& picture_;
  Worker<Result<FlightBand>> worker_;
  Axis axis_ = Axis::roll;
  FlightPicture::Shown shown_;
  Launch planned_, asked_for_, flown_;  ///< being worked out, asked of the bench, and shown
  Seen seen_;                           ///< judged when it was flown, with the gains of then
  bool of_bench_ = false, wants_to_fly_ = false;
  Ticks wake_{900};  ///< from battery in to a board that has found its zero, ms
  bool fed_ = false, waits_ = false, lives_ = false,
       asked_ = false;  ///< what has been done for the flight that is wanted
  std::uint32_t seed_ = 1;
  QButtonGroup* kinds_;
  QComboBox *mode_, *speed_, *wind_, *hands_;
  QPushButton *plan_, *bench_key_, *other_, *tell_, *next_;
  QLabel* board_;
};

}  // namespace rigging::app
