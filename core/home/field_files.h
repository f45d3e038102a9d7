#pragma once

#include <string_view>

#include "edit/edit.h"
#include "home/home.h"

/// The field on the earth: reach out as GeoJSON (RFC 7946) and GPX 1.1, tracks in as GPX 1.1. Geodesics of WGS 84; home
/// is the place of the flying field in the rig.
namespace rigging {

/// A track or a border line that was flown or walked, as seen from home.
struct FieldTrack {
  std::string name;
  std::vector<HomePlace> places;  ///< height: above the first point, 0 where the file has none
  double farthest_m = 0;
  double first_latitude_deg = 0, first_longitude_deg = 0;
};

/// All points of tracks, routes and way points. Where the rig does not know where it flies, home is the first point.
/// Errors: no GPX, no points, a point off the earth (with its number), too many of them.
Result<FieldTrack> track_from_gpx(std::string_view text, const std::string& file, const Rig& rig);
inline constexpr std::size_t most_track_points = 500000;

/// The area reaches as far as the track, rounded up to 10 m; the field's place is taken from its first point where the
/// rig has none. Errors: one that never leaves home, one that is further than 50 km.
Result<Edit> area_from_track(const Rig& rig, const FieldTrack& track);

/// Home, what stands high, the planned area, the circle, and the reach with this band as rings; sure, expected and
/// hoped for. Errors: nobody knows where on earth it is, nothing is worked out.
Result<std::string> reach_geojson(const Rig& rig, const HomeReport& report, const ReachBand& band, double left_mah);
Result<std::string> reach_gpx(const Rig& rig, const HomeReport& report, const ReachBand& band, double left_mah);

}  // namespace rigging
