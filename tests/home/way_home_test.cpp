#include "home/way_home.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "base/angle.h"
#include "base/json.h"
#include "home/home_rigs.h"

namespace rigging {
namespace {

TEST(WayHome, PlacesAreSeenFromHome) {
  const HomePlace p = HomePlace::at(-30, -40, 7);
  EXPECT_NEAR(p.distance_m, 50, 1e-12);
  EXPECT_NEAR(p.bearing_deg, 233.13, 0.01);
  EXPECT_NEAR(p.north_m(), -30, 1e-9);
  EXPECT_NEAR(p.east_m(), -40, 1e-9);
}

TEST(WayHome, FlownStepByStepItEndsAtHomeWithThatCharge) {
  // Second side: the heading is held and the air carries it, a hundredth of a second at a time.
  std::mt19937 random(3);
  const auto between = [&random](double a, double b) { return std::uniform_real_distribution(a, b)(random); };
  int flown = 0;
  for (int i = 0; i < 200; ++i) {
    HomeCase c = usual_way_home();
    c.place = {between(200, 3000), between(0, 360), between(20, 150)};
    c.wind = {between(0, 18), between(0, 360)};
    c.aircraft = {between(10, 22), between(3, 15), between(1, 4), between(10, 30), 30};
    const WayHome w = way_home(c);
    if (!w.track) {
      const double from = (c.wind.from_deg - c.place.bearing_deg - 180) * rad;
      EXPECT_TRUE(std::abs(c.wind.speed_m_s * std::sin(from)) > c.aircraft.cruise_m_s ||
                  c.wind.speed_m_s * std::cos(from) > 0)
          << i;
      EXPECT_FALSE(w.arrives);
      continue;
    }
    ++flown;
    double north = c.place.distance_m * std::cos(c.place.bearing_deg * rad),
           east = c.place.distance_m * std::sin(c.place.bearing_deg * rad), height = c.place.height_m, used_as = 0;
    const double dt = w.way_s / 2000;
    for (int k = 0; k < 2000; ++k) {
      north += dt * (c.aircraft.cruise_m_s * std::cos(w.track->heading_deg * rad) -
                     c.wind.speed_m_s * std::cos(c.wind.from_deg * rad));
      east += dt * (c.aircraft.cruise_m_s * std::sin(w.track->heading_deg * rad) -
                    c.wind.speed_m_s * std::sin(c.wind.from_deg * rad));
      const bool climbs = height < c.back.height_m;
      height += climbs ? dt * c.aircraft.climb_m_s : 0;
      used_as += dt * (climbs ? c.aircraft.climb_a : c.aircraft.cruise_a);
    }
    EXPECT_NEAR(std::hypot(north, east), 0, 1e-6 * c.place.distance_m) << i;
    EXPECT_NEAR(w.used_mah, used_as / 3.6, 0.01 * w.used_mah + 0.001 * w.way_s * c.aircraft.climb_a) << i;
    EXPECT_NEAR(std::remainder(w.track->heading_deg + w.track->drift_deg - c.place.bearing_deg - 180, 360), 0, 1e-9);
  }
  EXPECT_GT(flown, 120);
}

TEST(WayHome, FromTheEdgeOfTheReachTheReserveIsJustKept) {
  std::mt19937 random(4);
  const auto between = [&random](double a, double b) { return std::uniform_real_distribution(a, b)(random); };
  for (int i = 0; i < 50; ++i) {
    HomeCase c = usual_way_home();
    c.wind = {between(0, 20), between(0, 360)};
    for (const HomeReach& r : reach_of(c)) {
      c.place = {r.reach_m, r.bearing_deg, c.back.height_m};
      const WayHome w = way_home(c);
      ASSERT_EQ(w.track.has_value(), r.reach_m > 0);
      if (!w.track) continue;
      EXPECT_NEAR(w.left_mah, c.battery.reserve_mah, 1e-6);
      if (r.out_and_back_m <= 0) continue;
      // Out and back with the same charge: the way out is the way home of the opposite place.
      c.place.distance_m = r.out_and_back_m;
      const double back = way_home(c).used_mah;
      c.place.bearing_deg += 180;
      EXPECT_NEAR(back + way_home(c).used_mah, c.battery.left_mah - c.battery.reserve_mah, 1e-6);
    }
  }
}

TEST(WayHome, WhatCantBeHeldIsSaidAndNotComputed) {
  HomeCase c = usual_way_home();
  c.wind = {16, 60};  // against the way home
  const WayHome against = way_home(c);
  EXPECT_FALSE(against.arrives || against.keeps_reserve || against.track);
  EXPECT_NE(against.why.find("can't hold the track"), std::string::npos);
  c.wind.from_deg = 240;  // with it
  const WayHome with = way_home(c);
  ASSERT_TRUE(with.track);
  EXPECT_NEAR(with.track->ground_m_s, 30, 1e-9);
  EXPECT_NE(with.why.find("can't hold a place"), std::string::npos);
  // Within arcsin(V/W) of the wind's direction and no further.
  const double edge = std::asin(14.0 / 16) / rad;
  c.place.bearing_deg = 240 + edge - 0.01;
  EXPECT_TRUE(way_home(c).track);
  c.place.bearing_deg = 240 + edge + 0.01;
  EXPECT_FALSE(way_home(c).track);
}

TEST(WayHome, ShortOfChargeTheNumbersStay) {
  HomeCase c = usual_way_home();
  c.battery.left_mah = 100;
  c.place.distance_m = 5000, c.place.height_m = c.back.height_m;
  const WayHome w = way_home(c);
  EXPECT_FALSE(w.arrives);
  ASSERT_TRUE(w.track);
  EXPECT_LT(w.left_mah, 0);
  EXPECT_NEAR(w.used_mah, 5000 / w.track->ground_m_s * 9.5 / 3.6, 1e-9);
  for (const HomeReach& r : reach_of(c)) EXPECT_EQ(r.reach_m, 0) << "only the reserve is left";
}

TEST(WayHome, RefusesWhatMakesNoSense) {
  const auto read = [](const char* path, double value) {
    Json j = Json::parse(R"({"place":{"distance_m":1500,"bearing_deg":240,"height_m":100},
      "wind":{"speed_m_s":6,"from_deg":270},
      "aircraft":{"cruise_m_s":14,"cruise_a":9.5,"climb_m_s":2.5,"climb_a":22,"bank_deg":30},
      "return":{"height_m":100,"circle_radius_m":50},"battery":{"left_mah":1300,"reserve_mah":250}})");
    j[Json::json_pointer(path)] = value;
    return home_case_from_json(j, "case.json");
  };
  EXPECT_TRUE(read("/wind/speed_m_s", 0));
  for (const auto& [path, value] : {std::pair{"/battery/left_mah", -1.0},
                                    {"/wind/speed_m_s", -2.0},
                                    {"/wind/speed_m_s", 400.0},
                                    {"/aircraft/cruise_m_s", 0.0},
                                    {"/aircraft/bank_deg", 90.0},
                                    {"/place/distance_m", -5.0},
                                    {"/battery/reserve_mah", -1.0}}) {
    const auto c = read(path, value);
    ASSERT_FALSE(c) << path;
    EXPECT_NE(c.error().text().find(path), std::string::npos) << c.error().text();
  }
}

}  // namespace
}  // namespace rigging
