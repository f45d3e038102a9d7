#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "catalogue/controller_class.h"

namespace rigging {

/// What this class's dial, slider or number makes of a correction. Its place counts from 0 (least) to 1 (most).
///
/// The effect grows as place^p, such that the middle gives `half_share` of the whole: dials do far more from 12 to 5
/// o'clock than from 7 to 12 (common practice; a fifth in the middle unless the builder or a log says otherwise). On a
/// two-sided dial the place is the distance from the middle.
class GainScale {
 public:
  GainScale(const ControllerClass& controller, std::optional<double> half_share);

  GainBy by() const { return by_; }
  /// There is something to set.
  bool settable() const { return by_ != GainBy::linkage; }
  /// Share of the whole effect, 0 to 1. Where nothing can be set it is 1.
  double effect(double place) const;
  /// The place that has this effect; over 1 when none has.
  double place_for(double effect) const;
  /// "half past 9", "35 %", "12", "gentle".
  std::string words(double place) const;
  /// The smallest step that a hand can set: a quarter of an hour on a dial, a whole number else.
  double step() const;
  /// On a step, not above `place`.
  double rounded_down(double place) const;
  /// "9:30", "half past 9", "10 o'clock", "35 %", "12". Errors: what is expected, with its range.
  Result<double> read(std::string_view text) const;

 private:
  GainBy by_;
  bool two_sided_;
  double least_, most_, gentle_, power_;
};

}  // namespace rigging
