#include "home/field_files.h"

#include <GeographicLib/Geodesic.hpp>
#include <algorithm>
#include <cmath>
#include <pugixml.hpp>
#include <sstream>

#include "base/clean_text.h"
#include "base/json.h"
#include "base/number.h"
#include "base/polygon.h"
#include "base/units.h"

namespace rigging {
namespace {

constexpr double most_area_m = 50000;
constexpr int circle_points = 72;
constexpr int decimals = 7;  ///< of a degree: a centimetre

struct OnEarth {
  double lat = 0, lon = 0;
};

const GeographicLib::Geodesic& earth() { return GeographicLib::Geodesic::WGS84(); }

OnEarth seen_from(const OnEarth& home, double bearing_deg, double distance_m) {
  OnEarth p;
  earth().Direct(home.lat, home.lon, bearing_deg, distance_m, p.lat, p.lon);
  return p;
}

Result<OnEarth> home_of_field(const Rig& rig, const HomeReport& report) {
  if (!report.missing.empty()) return failure("home", report.missing, "");
  if (!rig.fit.latitude_deg || !rig.fit.longitude_deg)
    return failure("home", "where on earth it flies is not known", "latitude and longitude of the field (station fit)");
  return OnEarth{*rig.fit.latitude_deg, *rig.fit.longitude_deg};
}

/// A ring that ends where it begins.
struct Ring {
  std::string name, words;
  std::vector<OnEarth> points;
};

Ring circle_of(const OnEarth& home, double radius_m, std::string name, std::string words) {
  Ring r{std::move(name), std::move(words), {}};
  for (int i = 0; i <= circle_points; ++i)
    r.points.push_back(seen_from(home, 360.0 * (i % circle_points) / circle_points, radius_m));
  return r;
}

std::vector<Ring> rings_of(const Rig& rig, const HomeReport& report, const ReachBand& band, double left_mah,
                           const OnEarth& home) {
  std::vector<Ring> all;
  const std::string with = "Comes home from here with " + number_text(left_mah, 0) + " mAh left, wind " +
                           number_text(rig.home.wind_m_s, 1) + " m/s from " + number_text(rig.home.wind_from_deg, 0) +
                           "°, the reserve kept. Worked out, not flown.";
  for (const auto& [name, reach] :
       {std::pair{"Reach, sure", &band.worse}, {"Reach, expected", &band.expected}, {"Reach, at best", &band.better}}) {
    Ring r{name, with, {}};
    double farthest = 0;
    for (const HomeReach& at : *reach) {
      r.points.push_back(seen_from(home, at.bearing_deg, at.reach_m));
      farthest = std::max(farthest, at.reach_m);
    }
    // Where nothing is reached there is no ring.
    if (farthest < 1 || r.points.size() < 3) continue;
    r.points.push_back(r.points.front());
    all.push_back(std::move(r));
  }
  if (rig.home.area_m)
    all.push_back(circle_of(home, *rig.home.area_m, "Planned area", "As far as it is meant to fly."));
  if (rig.home.on_loss == LossAction::come_home)
    all.push_back(circle_of(home, report.circle_radius_m, "Circle at home", "Flown once it is home."));
  return all;
}

Json position_of(const OnEarth& p) {
  const auto rounded = [](double deg) { return std::round(deg * 1e7) / 1e7; };
  return Json::array({rounded(p.lon), rounded(p.lat)});
}

std::string degrees_of(double deg) { return number_text(deg, decimals); }

std::string height_words(const FieldObstacle& o) { return field_text(o.height_m) + " above home"; }

/// Rings of a closed ring, counterclockwise (RFC 7946, 3.1.6), cut where it runs across 180° (3.1.9). A ring round a
/// pole is none of a model's field.
std::vector<std::vector<OnEarth>> cut_rings(const std::vector<OnEarth>& closed) {
  std::vector<Flat> ring;
  for (std::size_t i = 0; i + 1 < closed.size(); ++i) {
    double lon = closed[i].lon;
    if (!ring.empty()) lon = ring.back()[0] + std::remainder(lon - ring.back()[0], 360);
    ring.push_back({lon, closed[i].lat});
  }
  if (flat_area(ring) < 0) std::reverse(ring.begin(), ring.end());
  std::vector<std::vector<OnEarth>> all;
  for (const double turn : {-360.0, 0.0, 360.0}) {
    std::vector<Flat> part = ring;
    for (Flat& p : part) p[0] += turn;
    part = cut_by_line(cut_by_line(part, 1, 0, 180), -1, 0, 180);
    if (part.size() < 3 || flat_area(part) < 1e-14) continue;
    std::vector<OnEarth>& to = all.emplace_back();
    for (const Flat& p : part) to.push_back({p[1], p[0]});
    to.push_back(to.front());
  }
  return all;
}

/// No text of XML has control characters, however they are written (XML 1.0, 2.2).
std::string in_xml(const std::string& text) { return clean_text(text, 8000); }

}  // namespace

Result<FieldTrack> track_from_gpx(std::string_view text, const std::string& file, const Rig& rig) {
  pugi::xml_document doc;
  const auto parsed = doc.load_buffer(text.data(), text.size(), pugi::parse_default, pugi::encoding_auto);
  if (!parsed)
    return failure(file,
                   "is no GPX: " + std::string(parsed.description()) + " at byte " + std::to_string(parsed.offset),
                   "a track in GPX 1.1");
  const pugi::xml_node gpx = doc.child("gpx");
  if (!gpx) return failure(file, "has no element gpx at its root", "a track in GPX 1.1");
  struct Read {
    OnEarth at;
    double height_m;
  };
  std::vector<Read> points;
  std::optional<Error> error;
  const auto take = [&](const pugi::xml_node& node) {
    if (error) return;
    const std::string where = file + ": point " + std::to_string(points.size() + 1);
    const auto lat = number_of(node.attribute("lat").value()), lon = number_of(node.attribute("lon").value());
    if (!lat || !lon || std::abs(*lat) > 90 || std::abs(*lon) > 180) {
      error = Error{where,
                    "is not on the earth (\"" + clean_text(node.attribute("lat").value(), 20) + "\", \"" +
                        clean_text(node.attribute("lon").value(), 20) + "\")",
                    "lat from −90 to 90 and lon from −180 to 180"};
      return;
    }
    if (points.size() >= most_track_points) {
      error = Error{where, "is one too many", "at most " + std::to_string(most_track_points)};
      return;
    }
    const auto height = number_of(node.child_value("ele"));
    points.push_back({{*lat, *lon}, height && std::abs(*height) < 20000 ? *height : 0});
  };
  FieldTrack track;
  const auto named = [&track](const pugi::xml_node& n) {
    if (track.name.empty()) track.name = clean_text(n.child_value("name"), 80);
  };
  for (const pugi::xml_node& trk : gpx.children("trk")) {
    named(trk);
    for (const pugi::xml_node& seg : trk.children("trkseg"))
      for (const pugi::xml_node& p : seg.children("trkpt")) take(p);
  }
  for (const pugi::xml_node& rte : gpx.children("rte")) {
    named(rte);
    for (const pugi::xml_node& p : rte.children("rtept")) take(p);
  }
  for (const pugi::xml_node& p : gpx.children("wpt")) take(p);
  if (error) return tl::make_unexpected(*error);
  if (points.empty()) return failure(file, "holds no points", "a track, a route or way points");
  track.first_latitude_deg = points.front().at.lat, track.first_longitude_deg = points.front().at.lon;
  const bool known = rig.fit.latitude_deg && rig.fit.longitude_deg;
  const OnEarth home = known ? OnEarth{*rig.fit.latitude_deg, *rig.fit.longitude_deg} : points.front().at;
  for (const Read& p : points) {
    HomePlace place;
    double back = 0;
    earth().Inverse(home.lat, home.lon, p.at.lat, p.at.lon, place.distance_m, place.bearing_deg, back);
    if (place.bearing_deg < 0) place.bearing_deg += 360;
    place.height_m = p.height_m - points.front().height_m;
    track.farthest_m = std::max(track.farthest_m, place.distance_m);
    track.places.push_back(place);
  }
  return track;
}

Result<Edit> area_from_track(const Rig& rig, const FieldTrack& track) {
  const double area = std::ceil(track.farthest_m / 10 - 1e-9) * 10;
  if (area < 10) return failure("track", "never leaves home", "one that goes as far as it is flown");
  if (area > most_area_m)
    return failure("track", "is up to " + field_text(track.farthest_m) + " from home: another field?",
                   "one within " + field_text(most_area_m) + ", or another place of the field (station fit)");
  Edit e{rig, "Flies as far as the track" + (track.name.empty() ? std::string() : " " + track.name)};
  e.rig.home.area_m = area;
  if (!rig.fit.latitude_deg || !rig.fit.longitude_deg) {
    e.rig.fit.latitude_deg = track.first_latitude_deg;
    e.rig.fit.longitude_deg = track.first_longitude_deg;
  }
  return e;
}

Result<std::string> reach_geojson(const Rig& rig, const HomeReport& report, const ReachBand& band, double left_mah) {
  const auto home = home_of_field(rig, report);
  if (!home) return tl::make_unexpected(home.error());
  Json all{{"type", "FeatureCollection"}, {"features", Json::array()}};
  const auto add = [&](Json geometry, const std::string& name, const std::string& words) {
    all["features"].push_back({{"type", "Feature"},
                               {"geometry", std::move(geometry)},
                               {"properties", {{"name", name}, {"description", words}}}});
  };
  add({{"type", "Point"}, {"coordinates", position_of(*home)}}, "Home", "Where it is armed.");
  for (const FieldObstacle& o : rig.home.obstacles)
    add({{"type", "Point"}, {"coordinates", position_of(seen_from(*home, o.bearing_deg, o.distance_m))}}, o.name,
        height_words(o));
  for (const Ring& r : rings_of(rig, report, band, left_mah, *home)) {
    Json polygons = Json::array();
    for (const std::vector<OnEarth>& points : cut_rings(r.points)) {
      Json ring = Json::array();
      for (const OnEarth& p : points) ring.push_back(position_of(p));
      polygons.push_back(Json::array({std::move(ring)}));
    }
    if (polygons.size() == 1)
      add({{"type", "Polygon"}, {"coordinates", std::move(polygons[0])}}, r.name, r.words);
    else
      add({{"type", "MultiPolygon"}, {"coordinates", std::move(polygons)}}, r.name, r.words);
  }
  return all.dump(1) + "\n";
}

Result<std::string> reach_gpx(const Rig& rig, const HomeReport& report, const ReachBand& band, double left_mah) {
  const auto home = home_of_field(rig, report);
  if (!home) return tl::make_unexpected(home.error());
  pugi::xml_document doc;
  pugi::xml_node declaration = doc.append_child(pugi::node_declaration);
  declaration.append_attribute("version") = "1.0";
  declaration.append_attribute("encoding") = "UTF-8";
  pugi::xml_node gpx = doc.append_child("gpx");
  gpx.append_attribute("version") = "1.1";
  gpx.append_attribute("creator") = "Rigging";
  gpx.append_attribute("xmlns") = "http://www.topografix.com/GPX/1/1";
  gpx.append_child("metadata").append_child("name").text() = in_xml(rig.name + ", reach").c_str();
  const auto point = [](pugi::xml_node parent, const char* element, const OnEarth& p) {
    pugi::xml_node node = parent.append_child(element);
    node.append_attribute("lat") = degrees_of(p.lat).c_str();
    node.append_attribute("lon") = degrees_of(p.lon).c_str();
    return node;
  };
  const auto way_point = [&](const OnEarth& p, const std::string& name, const std::string& words) {
    pugi::xml_node node = point(gpx, "wpt", p);
    node.append_child("name").text() = in_xml(name).c_str();
    node.append_child("desc").text() = in_xml(words).c_str();
  };
  way_point(*home, "Home", "Where it is armed.");
  for (const FieldObstacle& o : rig.home.obstacles)
    way_point(seen_from(*home, o.bearing_deg, o.distance_m), o.name, height_words(o));
  for (const Ring& r : rings_of(rig, report, band, left_mah, *home)) {
    pugi::xml_node trk = gpx.append_child("trk");
    trk.append_child("name").text() = in_xml(r.name).c_str();
    trk.append_child("desc").text() = in_xml(r.words).c_str();
    pugi::xml_node seg = trk.append_child("trkseg");
    for (const OnEarth& p : r.points) point(seg, "trkpt", p);
  }
  std::ostringstream out;
  doc.save(out, " ");
  return out.str();
}

}  // namespace rigging
