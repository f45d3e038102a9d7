#include "home/field_files.h"

#include <gtest/gtest.h>

#include <cmath>

#include "base/angle.h"
#include "home/home_rigs.h"

namespace rigging {
namespace {

Rig somewhere(double lat = 45, double lon = 7) {
  Rig rig = comes_home();
  rig.fit.latitude_deg = lat, rig.fit.longitude_deg = lon;
  return rig;
}

std::string gpx(const std::string& inside) {
  return "<?xml version=\"1.0\"?><gpx version=\"1.1\" creator=\"x\" "
         "xmlns=\"http://www.topografix.com/GPX/1/1\">" +
         inside + "</gpx>";
}

std::string point(double lat, double lon) {
  char text[80] = {};
  std::snprintf(text, sizeof text, "<trkpt lat=\"%.7f\" lon=\"%.7f\"><ele>240</ele></trkpt>", lat, lon);
  for (char& c : text)
    if (c == ',') c = '.';
  return text;
}

std::string track(const std::string& points) {
  return gpx("<trk><name>Sunday</name><trkseg>" + points + "</trkseg></trk>");
}

// A small step north is the meridian's radius of curvature times the angle, a step east that of the prime vertical
// times the cosine: closed form of the ellipsoid, WGS 84 (NIMA TR8350.2: a 6378137 m, 1/f 298.257223563).
TEST(FieldFiles, DistancesAreThoseOfTheEllipsoid) {
  constexpr double a = 6378137, f = 1 / 298.257223563, e2 = f * (2 - f);
  for (const double lat : {-55.0, 0.0, 33.0, 47.5, 65.0}) {
    const double s = std::sin(lat * rad), w = 1 - e2 * s * s, step = 0.004;
    const double meridian = a * (1 - e2) / std::pow(w, 1.5), prime = a / std::sqrt(w);
    const Rig rig = somewhere(lat, 7);
    const auto north = track_from_gpx(track(point(lat + step, 7)), "t", rig);
    ASSERT_TRUE(north) << north.error().text();
    EXPECT_NEAR(north->farthest_m, meridian * step * rad, 0.05) << lat;
    EXPECT_NEAR(std::remainder(north->places[0].bearing_deg, 360), 0, 1e-6);
    const auto east = track_from_gpx(track(point(lat, 7 + step)), "t", rig);
    EXPECT_NEAR(east->farthest_m, prime * std::cos(lat * rad) * step * rad, 0.05) << lat;
    EXPECT_NEAR(east->places[0].bearing_deg, 90, 0.01);
  }
}

TEST(FieldFiles, ATrackBecomesTheAreaAndWhereNobodyKnowsTheFieldItsBeginningIsHome) {
  Rig rig = comes_home();
  rig.fit.latitude_deg = rig.fit.longitude_deg = std::nullopt;
  const auto t = track_from_gpx(track(point(47, 8) + point(47.003, 8) + point(47.001, 8.002)), "t.gpx", rig);
  ASSERT_TRUE(t) << t.error().text();
  EXPECT_EQ(t->name, "Sunday");
  EXPECT_EQ(t->places.size(), 3u);
  EXPECT_NEAR(t->farthest_m, 333.5, 0.5);
  const auto edit = area_from_track(rig, *t);
  ASSERT_TRUE(edit);
  EXPECT_EQ(edit->rig.home.area_m, std::optional(340.0));
  EXPECT_EQ(edit->rig.fit.latitude_deg, std::optional(47.0));
}

TEST(FieldFiles, WhatIsNoTrackIsRefusedWithItsPlace) {
  const Rig rig = somewhere();
  const auto error = [&](const std::string& text) {
    const auto t = track_from_gpx(text, "t.gpx", rig);
    return t ? std::string("taken") : t.error().text();
  };
  EXPECT_NE(error("").find("t.gpx"), std::string::npos);
  EXPECT_NE(error("lat,lon\n1,2\n").find("GPX"), std::string::npos);
  EXPECT_NE(error("<kml/>").find("gpx"), std::string::npos);
  EXPECT_NE(error(gpx("")).find("no points"), std::string::npos);
  EXPECT_NE(error(track(point(45, 7) + "<trkpt lat=\"95\" lon=\"7\"/>")).find("point 2"), std::string::npos);
  EXPECT_NE(error(track("<trkpt lat=\"nan\" lon=\"7\"/>")).find("point 1"), std::string::npos);
  EXPECT_NE(error(track("<trkpt lat=\"45\"/>")).find("point 1"), std::string::npos);
  EXPECT_NE(error(track(point(45, 7)).substr(0, 120)).find("byte"), std::string::npos);
  const auto still = track_from_gpx(track(point(45, 7) + point(45, 7)), "t", rig);
  EXPECT_NE(area_from_track(rig, *still).error().text().find("never leaves"), std::string::npos);
  const auto abroad = track_from_gpx(track(point(46, 7)), "t", rig);
  EXPECT_NE(area_from_track(rig, *abroad).error().text().find("another field"), std::string::npos);
}

ReachBand band_of(const HomeReport& r, double left) { return reach_band(r, left, r.expected.wind); }

// RFC 7946: positions are longitude, latitude (3.1.1); a ring is closed, of four positions or more, its outer one
// counterclockwise (3.1.6).
TEST(FieldFiles, TheReachIsGeoJson) {
  Rig rig = somewhere();
  FieldObstacle mast;
  mast.name = "mast \"2\" <b>";
  mast.bearing_deg = 90, mast.distance_m = 300, mast.height_m = 40;
  rig.home.obstacles.push_back(mast);
  const HomeReport r = home_of(rig);
  const auto text = reach_geojson(rig, r, band_of(r, 1500), 1500);
  ASSERT_TRUE(text) << text.error().text();
  const Json j = Json::parse(*text);
  EXPECT_EQ(j["type"], "FeatureCollection");
  int polygons = 0, points = 0;
  for (const Json& f : j["features"]) {
    EXPECT_EQ(f["type"], "Feature");
    ASSERT_TRUE(f.contains("geometry") && f.contains("properties"));
    const Json& c = f["geometry"]["coordinates"];
    if (f["geometry"]["type"] == "Point") {
      ++points;
      EXPECT_NEAR(c[0].get<double>(), 7, 0.1) << "longitude first";
      EXPECT_NEAR(c[1].get<double>(), 45, 0.1);
      continue;
    }
    ++polygons;
    ASSERT_EQ(f["geometry"]["type"], "Polygon");
    const Json& ring = c[0];
    ASSERT_GE(ring.size(), 4u);
    EXPECT_EQ(ring.front(), ring.back());
    double area = 0;
    for (std::size_t i = 0; i + 1 < ring.size(); ++i)
      area += ring[i][0].get<double>() * ring[i + 1][1].get<double>() -
              ring[i + 1][0].get<double>() * ring[i][1].get<double>();
    EXPECT_GT(area, 0) << f["properties"]["name"];
  }
  EXPECT_EQ(points, 2) << "home and the mast";
  EXPECT_EQ(polygons, 5) << "three of the reach, the area, the circle";
}

// RFC 7946, 3.1.9: what crosses 180° is cut there into parts of a MultiPolygon, none of which crosses it. Cut or not,
// the ring encloses the same.
TEST(FieldFiles, RingsAcrossTheLineOfTheDateAreCut) {
  const auto enclosed = [](double longitude) {
    Rig rig = somewhere();
    rig.fit.latitude_deg = -17, rig.fit.longitude_deg = longitude;
    const HomeReport r = home_of(rig);
    const auto text = reach_geojson(rig, r, band_of(r, 1500), 1500);
    EXPECT_TRUE(text);
    std::vector<std::pair<std::string, double>> areas;
    const Json whole = Json::parse(*text);
    for (const Json& f : whole["features"]) {
      const std::string type = f["geometry"]["type"];
      if (type == "Point") continue;
      Json parts = f["geometry"]["coordinates"];
      if (type == "Polygon") parts = Json::array({parts});
      double sum = 0;
      for (const Json& part : parts) {
        const Json& ring = part[0];
        EXPECT_EQ(ring.front(), ring.back());
        double area = 0, east = -1e9, west = 1e9;
        for (std::size_t i = 0; i + 1 < ring.size(); ++i) {
          const double lon = ring[i][0];
          area += lon * ring[i + 1][1].get<double>() - ring[i + 1][0].get<double>() * ring[i][1].get<double>();
          east = std::max(east, lon), west = std::min(west, lon);
        }
        EXPECT_GT(area, 0);
        EXPECT_LT(east - west, 1) << "no part runs round the earth";
        EXPECT_LE(east, 180);
        EXPECT_GE(west, -180);
        sum += area / 2;
      }
      areas.emplace_back(type, sum);
    }
    return areas;
  };
  const auto plain = enclosed(100);
  for (const double longitude : {179.9999, -179.9999, 180.0}) {
    const auto cut = enclosed(longitude);
    ASSERT_EQ(cut.size(), plain.size());
    for (std::size_t i = 0; i < cut.size(); ++i) {
      EXPECT_EQ(cut[i].first, "MultiPolygon") << i;
      EXPECT_NEAR(cut[i].second / plain[i].second, 1, 1e-3) << i;
    }
  }
}

// GPX 1.1: lat and lon are attributes of every point; metadata, wpt and trk stand in this order; name before desc.
TEST(FieldFiles, TheReachIsGpxAndReadsBack) {
  const Rig rig = somewhere();
  const HomeReport r = home_of(rig);
  const ReachBand band = band_of(r, 1500);
  const auto text = reach_gpx(rig, r, band, 1500);
  ASSERT_TRUE(text) << text.error().text();
  EXPECT_NE(text->find("xmlns=\"http://www.topografix.com/GPX/1/1\""), std::string::npos);
  EXPECT_LT(text->find("<metadata>"), text->find("<wpt"));
  EXPECT_LT(text->rfind("<wpt"), text->find("<trk>"));
  EXPECT_EQ(text->find(','), text->find(", reach")) << "no comma in a number";
  const auto back = track_from_gpx(*text, "reach.gpx", rig);
  ASSERT_TRUE(back) << back.error().text();
  // The first ring is the sure reach: bearing for bearing, to a centimetre or two.
  for (std::size_t i = 0; i < band.worse.size(); ++i)
    EXPECT_NEAR(back->places[i].distance_m, band.worse[i].reach_m, 0.03) << band.worse[i].bearing_deg;
}

TEST(FieldFiles, WithoutAFieldOrAnAircraftThereIsNothingToWrite) {
  Rig rig = comes_home();
  rig.fit.latitude_deg = std::nullopt;
  const HomeReport r = home_of(rig);
  EXPECT_NE(reach_geojson(rig, r, band_of(r, 1500), 1500).error().text().find("latitude"), std::string::npos);
  Rig empty;
  empty.fit.latitude_deg = empty.fit.longitude_deg = 1;
  EXPECT_FALSE(reach_gpx(empty, home_of(empty), {}, 100));
}

}  // namespace
}  // namespace rigging
