#pragma once

#include <random>
#include <string>

namespace rigging::twin {

/// How a simulated satellite receiver fares.
enum class SkyTruth {
  fine,  ///< a fix within some twenty seconds, then better
  slow,  ///< the same after two minutes
  poor,  ///< few satellites, much scatter
  never  ///< it talks, and has no fix
};

/// A satellite receiver that stands still on the bench: sentences of NMEA 0183, twice a second.
class Satellites {
 public:
  explicit Satellites(SkyTruth truth = SkyTruth::fine, unsigned seed = 1) : truth_(truth), random_(seed) {}

  void step(double dt_s, bool powered);
  /// Since the last time; the oldest are dropped where nobody reads.
  std::string take_bytes() { return std::exchange(bytes_, {}); }
  bool has_fix() const;
  /// That it uses; 0 without a fix.
  int count() const;

 private:
  void speak();
  SkyTruth truth_;
  std::mt19937 random_;
  double on_s_ = 0, next_s_ = 0;
  double north_m_ = 0, east_m_ = 0, up_m_ = 0;  ///< by how much it is off; wanders
  std::string bytes_;
};

}  // namespace rigging::twin
