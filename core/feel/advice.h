#pragma once

#include <string>
#include <vector>

#include "feel/feel.h"

/// What to set for the first flight, and how to go on from there.
namespace rigging {

struct FirstGain {
  Axis axis = Axis::roll;
  double place = 0;
  std::string set;  ///< "half past 9"
  std::string why;
};

/// One change, one flight.
struct GainStep {
  Axis axis = Axis::roll;
  double place = 0;
  std::string set;
  double m_s = 0;        ///< fly so fast to see it
  std::string watch;     ///< what would show, at which frequency
  std::string back_off;  ///< where to go when it shows
};

struct FeelAdvice {
  std::vector<FirstGain> first;
  std::vector<GainStep> steps;
  /// Where a gain can't be set: what the linkage has to give.
  struct Throw {
    Axis axis = Axis::roll;
    double share = 1;  ///< of the throw that there is
    std::string words;
  };
  std::vector<Throw> throws;
  std::vector<std::string> bench, rates, launch;
  std::vector<std::string> cautions;
};

/// Rests on the margins: no first setting is above what is calm at the fastest level flight, and no step above where it
/// is expected to begin to shake. Common practice: raise one axis at a time until it just begins, at the fastest speed
/// that is flown, then back by 30 %; every step a third more effect, and smaller ones near the end. Two schools of
/// beginning: least (a quarter of what is calm, a dial at its least) or half (of what is calm, a dial not above its
/// middle).
FeelAdvice advise_feel(const Rig& rig, const Catalogue& catalogue, const FeelReport& report);

inline constexpr double back_off_to = 0.7;   ///< of the effect at which it began to shake (common practice)
inline constexpr double safe_height_m = 50;  ///< to try a gain at (common practice)

}  // namespace rigging
