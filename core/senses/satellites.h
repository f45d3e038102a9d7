#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "senses/verdict.h"

/// What a satellite receiver says on its serial line (NMEA 0183), and how good a home that would make.
namespace rigging {

/// One position as a GGA sentence gives it, with what the others said last.
struct SatelliteFix {
  std::optional<double> t_s;  ///< since midnight UTC, counted on over midnight
  bool valid = false;         ///< the receiver vouches for it, and it is from −1000 to 10 000 m high
  double latitude_deg = 0, longitude_deg = 0;
  double height_m = 0;  ///< above mean sea level; 0 when it is not valid or not said
  int satellites = 0;   ///< in use
  double hdop = 0;      ///< horizontal dilution of precision; 0 when not said
  int dimensions = 0;   ///< 2 or 3 as a GSA sentence says; 0 when none did
};

/// What was met on the way. Nothing is dropped in silence.
struct SatelliteTally {
  std::size_t bytes = 0;
  std::size_t sentences = 0;  ///< whole, with a right check sum
  std::size_t damaged = 0;    ///< with a wrong check sum, or cut
  std::size_t foreign = 0;    ///< bytes of no sentence; printable text of other kinds included
  std::size_t unprintable = 0;
};

/// Takes bytes in any pieces. Sentences of any talker; GGA makes a fix, GSA adds its dimensions, others count.
class SatelliteReader {
 public:
  std::vector<SatelliteFix> feed(std::string_view bytes);
  const SatelliteTally& tally() const { return tally_; }

 private:
  std::optional<SatelliteFix> take(std::string_view sentence);
  std::string line_;
  SatelliteTally tally_;
  int dimensions_ = 0;
  double day_s_ = 0, last_t_s_ = -1;
};

/// What arrives, in one sentence: nothing, another baud, a line of something else, or sentences.
std::string line_words(const SatelliteTally& tally);

/// A receiver that stands still.
struct Standing {
  std::size_t fixes = 0;              ///< valid ones
  std::optional<double> first_fix_s;  ///< after the first sentence with a time
  int satellites = 0;                 ///< of the last valid fix
  double hdop = 0;
  /// Radii round the mean place within which half and 95 % of the fixes lie, m. Over a few minutes a receiver scatters
  /// less than it is off.
  double r50_m = 0, r95_m = 0;
  double latitude_deg = 0, longitude_deg = 0;
  double height_m = 0, height_spread_m = 0;  ///< above mean sea level, the mean; one standard deviation
  double home_m = 0;  ///< how far home may be off (95 %): what scatters, and what dilution makes of 2.5 m per satellite
  Verdict verdict = Verdict::repeat;
  std::string why;
};

/// Good: at least eight satellites, dilution at most 1.5 and 95 % within 5 m; usable: six, 2.5 and 15 m (common
/// practice).
Standing standing(const std::vector<SatelliteFix>& fixes);

}  // namespace rigging
