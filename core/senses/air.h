#pragma once

#include <optional>
#include <string>
#include <vector>

#include "senses/verdict.h"

/// Barometer and airspeed sensor of a model that stands on the bench.
namespace rigging {

struct BarometerReport {
  double held_s = 0;
  double noise_m = 0;          ///< of single readings, from one to the next
  double drift_m_per_min = 0;  ///< rising positive
  double wander_m = 0;         ///< highest less lowest mean of two seconds
  Verdict verdict = Verdict::repeat;
  std::string why;
};

/// Height of the standard atmosphere, metres, for 20 000 to 110 000 Pa (ISO 2533, below 11 km).
double pressure_height_m(double pressure_pa);

/// Ten seconds or more of a model at rest. Good: rustling below 0.5 m and drifting below 1.5 m a minute; usable: 1.5 m
/// and 6 m a minute (common practice). Wind, sun and a propeller's wash show as wander.
BarometerReport barometer_of(const std::vector<double>& t_s, const std::vector<double>& pressure_pa);

/// What the hand did to the tube, as it shows in the pressure.
struct AirspeedReport {
  double zero_pa = 0, noise_pa = 0;   ///< while covered
  double zero_m_s = 0;                ///< by how much that falsifies the speed at cruise
  double least_m_s = 0;               ///< slower is not told from nothing
  std::optional<double> pushed_pa;    ///< the strongest that was put on it; absent when nobody did
  bool exchanged = false;             ///< the two hoses are the wrong way round
  std::optional<double> lost_in_10s;  ///< share of a held pressure; absent when it was not held for five seconds
  Verdict verdict = Verdict::repeat;
  std::string why;
};

/// Three seconds covered, then a pressure (a syringe or a finger on the hose) that is held for ten, then let go.
/// `cruise_m_s`: for what an offset means; 12 where it is not known. Good: zero within 5 Pa, no exchange, less than a
/// tenth lost in ten seconds; usable: 15 Pa and a quarter (common practice).
AirspeedReport airspeed_of(const std::vector<double>& t_s, const std::vector<double>& pitot_pa, double cruise_m_s = 12);

}  // namespace rigging
