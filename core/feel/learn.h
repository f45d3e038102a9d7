#pragma once

#include <string>
#include <vector>

#include "edit/edit.h"
#include "feel/feel.h"
#include "feel/oscillation.h"

namespace rigging {

/// What shook, with a word of the model: a swing at the loop's own rhythm, at a speed where the setting may shake, is
/// too much gain even where it stays small: a servo that can't follow any faster cuts it off, and that looks like play.
std::vector<Episode> episodes_in(const FlightLog& log, const ControllerClass& controller, const FeelReport& report,
                                 Progress* progress = nullptr);

/// What one flight's log makes of an axis.
struct AxisLesson {
  Axis axis = Axis::roll;
  std::vector<Episode> episodes;
  /// The true loop gain over the model's: before this flight and after it; absent where the flight tells nothing.
  std::optional<LearnedGain> before, after;
  std::optional<double> place;  ///< to set for the next flight; absent: leave it
  std::string words;            ///< what was seen and what to do
};

struct FlightLesson {
  std::vector<AxisLesson> axes;
  double fastest_m_s = 0;  ///< of the log; 0 when it has no airspeed
};

/// Bayes on a grid of the loop gain's factor. Before: what was learnt, else the band of the model. A shaking of the
/// kind gain says that the factor is (shaking gain of the model at that speed) / (gain that was set), give or take 12
/// %; a flight without one, that it is no more than that at the fastest speed. `report` is of the rig as it was flown.
///
/// `simulated`: it was flown by the simulated bench. What that tells is marked, and forgotten by the first real flight.
FlightLesson lesson_of(const Rig& rig, const Catalogue& catalogue, const FeelReport& report, const FlightLog& log,
                       bool simulated = false, Progress* progress = nullptr);

/// The model corrected, and where `lesson` says so the gains as well. Error: the lesson changes nothing.
Result<Edit> take_lesson(const Rig& rig, const FlightLesson& lesson, bool gains);

}  // namespace rigging
