#include "senses/satellites.h"
#include "senses/sentence.h"

#include <gtest/gtest.h>

#include <random>

namespace rigging {
namespace {

// Source: the worked example of NMEA 0183 with its check sum, 48°07.038' N, 11°31.000' E, 545.4 m.
TEST(Satellites, TheExampleSentenceIsRead) {
  SatelliteReader reader;
  const auto fixes = reader.feed("$GPGGA,123519,4807.038,N,01131.000,E,1,08,0.9,545.4,M,46.9,M,,*47\r\n");
  ASSERT_EQ(fixes.size(), 1u);
  const SatelliteFix& f = fixes[0];
  EXPECT_TRUE(f.valid);
  EXPECT_NEAR(f.latitude_deg, 48.1173, 1e-9);
  EXPECT_NEAR(f.longitude_deg, 11 + 31.0 / 60, 1e-9);
  EXPECT_EQ(f.satellites, 8);
  EXPECT_EQ(f.hdop, 0.9);
  EXPECT_EQ(f.height_m, 545.4);
  EXPECT_EQ(f.t_s, 12 * 3600 + 35 * 60 + 19);
  EXPECT_EQ(reader.tally().sentences, 1u);
}

TEST(Satellites, ADamagedSentenceIsCountedAndMakesNoFix) {
  SatelliteReader reader;
  EXPECT_TRUE(reader.feed("$GPGGA,123519,4807.039,N,01131.000,E,1,08,0.9,545.4,M,46.9,M,,*47\r\n").empty());
  EXPECT_TRUE(reader.feed("$GPGGA,123519,48").empty());
  EXPECT_EQ(reader.feed(sentence("GNGGA,000001,4807.038,S,01131.000,W,4,12,0.6,1.0,M,,M,,")).size(), 1u);
  EXPECT_EQ(reader.tally().damaged, 2u);
  // Whole sentences with nonsense in them.
  for (const char* body :
       {"GPGGA,999999,4807.038,N,01131.000,E,1,08,0.9,1,M,1,M,,", "GPGGA,1,4861.0,N,01131.000,E,1,08,0.9,1,M,,,,",
        "GPGGA,1,9107.0,N,01131.000,E,1,08,0.9,1,M,,,,", "GPGGA,1,4807.0,X,01131.000,E,1,08,0.9,1,M,,,,",
        "GPGGA,1,,,,,0,00,99.9,,M,,,,", "GPGGA,1,4807.0,N,01131.0,E,6,08,0.9,1,M,,,,"})
    for (const SatelliteFix& f : reader.feed(sentence(body)))
      EXPECT_EQ(f.valid, std::string(body).find("999999") != std::string::npos) << body;
  EXPECT_TRUE(reader.feed(sentence("GPGGA,1")).empty());
}

TEST(Satellites, PiecesOfAnySizeGiveTheSame) {
  std::string all;
  for (int i = 0; i < 50; ++i) {
    char body[120];
    std::snprintf(body, sizeof body, "GPGGA,1200%02d,4807.%03d,N,01131.000,E,1,09,0.8,100.0,M,,M,,", i, i);
    all += "noise" + sentence(body) + sentence("GPGSA,A,3,,,,,,,,,,,,,1.5,0.8,1.2");
  }
  SatelliteReader whole;
  const std::size_t n = whole.feed(all).size();
  EXPECT_EQ(n, 50u);
  for (const std::size_t piece : {1u, 7u, 64u}) {
    SatelliteReader reader;
    std::size_t got = 0;
    for (std::size_t at = 0; at < all.size(); at += piece)
      got += reader.feed(std::string_view(all).substr(at, piece)).size();
    EXPECT_EQ(got, n);
    EXPECT_EQ(reader.tally().foreign, whole.tally().foreign);
  }
}

TEST(Satellites, WhatArrivesIsSaid) {
  const auto words = [](const std::string& bytes) {
    SatelliteReader reader;
    reader.feed(bytes);
    return line_words(reader.tally());
  };
  EXPECT_NE(words("").find("Nothing"), std::string::npos);
  std::string garbage;
  std::mt19937 random(3);
  for (int i = 0; i < 2000; ++i) garbage += static_cast<char>(random() % 256);
  EXPECT_NE(words(garbage).find("another baud"), std::string::npos);
  EXPECT_NE(words("hello world\r\nhow are you\r\n").find("another device"), std::string::npos);
  EXPECT_EQ(words("$GPGGA,123519,4807.038,N,01131.000,E,1,08,0.9,545.4,M,46.9,M,,*47\r\n"), "Sentences arrive.");
}

TEST(Satellites, AStandingReceiverScattersAsItWasMade) {
  std::mt19937 random(4);
  std::normal_distribution<double> metres(0, 1.5);
  std::vector<SatelliteFix> fixes;
  for (int i = 0; i < 4000; ++i) {
    SatelliteFix f;
    f.t_s = 100 + i;
    f.valid = i >= 30;
    f.satellites = 11;
    f.hdop = 0.9;
    // Across the date line, where a mean of degrees would lie on the other side of the earth.
    const double east_deg = metres(random) / (111320 * std::cos(50 * 3.14159265358979 / 180));
    f.longitude_deg = east_deg >= 0 ? -180 + east_deg : 180 + east_deg;
    f.latitude_deg = 50 + metres(random) / 111229;
    f.height_m = 200 + metres(random);
    fixes.push_back(f);
  }
  const Standing s = standing(fixes);
  EXPECT_EQ(s.first_fix_s, 30);
  // Rayleigh: the median is 1.1774 σ, 95 % lie within 2.4477 σ.
  EXPECT_NEAR(s.r50_m, 1.1774 * 1.5, 0.07);
  EXPECT_NEAR(s.r95_m, 2.4477 * 1.5, 0.12);
  EXPECT_NEAR(s.height_spread_m, 1.5, 0.06);
  EXPECT_NEAR(std::abs(s.longitude_deg), 180, 1e-5);
  EXPECT_EQ(s.verdict, Verdict::good) << s.why;
  EXPECT_EQ(standing({}).verdict, Verdict::repeat);
  EXPECT_EQ(standing({fixes.back()}).verdict, Verdict::repeat) << "one position has no scatter";
  fixes.resize(30);
  EXPECT_EQ(standing(fixes).verdict, Verdict::repeat) << "no fix";
}

}  // namespace
}  // namespace rigging
