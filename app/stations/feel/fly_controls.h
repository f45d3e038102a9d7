#pragma once

#include "document/worker.h"
#include "feel/flight_log.h"
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
  enum Kind { gusts, tug, dive, hand, reversed };
  FlyOptions options() const;
  void fly_plan();
  void fly_bench();
  /// Once the board holds the gains as planned and the battery is in.
  void advance();
  void take(std::optional<Flight> flight, std::optional<FlightBand> band, bool of_bench);
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
  Kind shown_kind_ = gusts;
  std::vector<AxisGain> flown_with_;
  bool of_bench_ = false, wants_to_fly_ = false;
  bool fed_ = false, waits_ = false, lives_ = false,
       asked_ = false;  ///< what has been done for the flight that is wanted
  std::uint32_t seed_ = 1;
  QButtonGroup* kinds_;
  QComboBox *mode_, *speed_, *wind_, *hands_;
  QPushButton *plan_, *bench_key_, *other_, *tell_, *next_;
  QLabel *caution_, *board_;
};

}  // namespace rigging::app
