#include "feel/oscillation.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>
#include <sstream>

#include "base/angle.h"

namespace rigging {
namespace {

/// A flight in gusts: a roll rate that turbulence excites through a roll mode, a stick that wanders, a correction that
/// opposes the rate.
struct Flight {
  explicit Flight(unsigned seed, double rate_hz = 100, double seconds = 40) : random(seed), hz(rate_hz) {
    const auto n = static_cast<std::size_t>(seconds * rate_hz);
    double gust = 0, rate = 0, hand = 0;
    for (std::size_t i = 0; i < n; ++i) {
      const double h = 1 / hz, noise = normal();
      gust += h * (-gust / 0.4) + noise * std::sqrt(2 * h / 0.4);
      rate += h * (gust * 8 - rate) / 0.12;
      hand += h * (-hand / 1.5) + 0.1 * normal() * std::sqrt(2 * h / 1.5);
      rates.push_back(rate + 0.4 * normal());
      sticks.push_back(hand);
      throttle.push_back(0.6);
    }
  }
  double normal() { return std::normal_distribution()(random); }

  /// A swing between two times; `shape` is its height over time from 0 to 1.
  void swing(double from_s, double to_s, double frequency, double height, bool grows = false) {
    for (std::size_t i = 0; i < rates.size(); ++i) {
      const double t = static_cast<double>(i) / hz;
      if (t < from_s || t > to_s) continue;
      const double share = grows ? std::min(1.0, std::exp((t - from_s - 2) / 0.5)) : 1;
      rates[i] += share * height * std::sin(2 * pi * frequency * t);
    }
  }
  FlightLog log(double correction_per_deg_s = 0.004) const {
    std::ostringstream out;
    out << "t_s,roll_rate_deg_s,roll_stick,roll_correction,throttle\n";
    for (std::size_t i = 0; i < rates.size(); ++i)
      out << static_cast<double>(i) / hz << ',' << rates[i] << ',' << std::clamp(sticks[i], -1.0, 1.0) << ','
          << std::clamp(-correction_per_deg_s * (rates[i] - unseen[i % unseen.size()]), -1.0, 1.0) << ',' << throttle[i]
          << '\n';
    const auto log = parse_flight_log(out.str(), "flight");
    if (!log) ADD_FAILURE() << log.error().text();
    return log.value_or(FlightLog{});
  }

  std::mt19937 random;
  double hz;
  std::vector<double> rates, sticks, throttle, unseen{0};
};

TEST(Oscillation, GustsAreNoEpisode) {
  for (unsigned seed = 1; seed <= 12; ++seed) {
    const auto found = oscillations_in(Flight(seed, seed % 2 ? 100 : 50, 60).log());
    EXPECT_TRUE(found.empty()) << seed << ": " << (found.empty() ? "" : found[0].why);
  }
}

TEST(Oscillation, TooMuchGainIsFoundWithItsFrequencyHeightAndTime) {
  for (unsigned seed = 1; seed <= 6; ++seed) {
    Flight f(seed);
    const double hz = 3 + 0.8 * seed, height = 60 + 20 * seed;
    for (double& s : f.sticks) s *= 0.1;
    f.swing(12, 22, hz, height, true);
    const auto found = oscillations_in(f.log(1.5 / height));
    ASSERT_EQ(found.size(), 1u) << seed;
    EXPECT_EQ(found[0].kind, OscillationKind::gain) << found[0].why;
    EXPECT_EQ(found[0].axis, Axis::roll);
    EXPECT_NEAR(found[0].frequency_hz / hz, 1, 0.02);
    EXPECT_NEAR(found[0].amplitude_deg_s / height, 1, 0.1);
    EXPECT_NEAR(found[0].from_s, 13, 1.2) << "it grows from nothing";
    EXPECT_NEAR(found[0].to_s, 22, 0.5);
    EXPECT_TRUE(found[0].saturated);
  }
}

TEST(Oscillation, PlayStaysSmallAndSteady) {
  for (unsigned seed = 1; seed <= 6; ++seed) {
    Flight f(seed, 200);
    for (double& s : f.sticks) s *= 0.1;
    f.swing(10, 24, 4 + 0.5 * seed, 6);
    const auto found = oscillations_in(f.log());
    ASSERT_EQ(found.size(), 1u) << seed;
    EXPECT_EQ(found[0].kind, OscillationKind::slop) << found[0].why;
    EXPECT_NEAR(found[0].amplitude_deg_s, 6, 1.5);
  }
}

TEST(Oscillation, VibrationIsFasterThanAServo) {
  Flight f(3, 400);
  for (std::size_t i = 0; i < f.rates.size(); ++i) f.throttle[i] = i > 4000 ? 0.8 : 0;
  f.swing(10, 40, 62, 12);
  const auto found = oscillations_in(f.log());
  ASSERT_EQ(found.size(), 1u) << found.back().why << found.back().from_s << ' ' << found.back().to_s;
  EXPECT_EQ(found[0].kind, OscillationKind::vibration);
  EXPECT_NEAR(found[0].frequency_hz, 62, 0.5);
  EXPECT_NEAR(found[0].from_s, 10, 0.3);
}

TEST(Oscillation, ThePilotLeadsHisOwnChasing) {
  Flight f(4);
  for (std::size_t i = 0; i < f.rates.size(); ++i) {
    const double t = static_cast<double>(i) / f.hz;
    f.sticks[i] *= 0.2;
    if (t < 10 || t > 20) continue;
    f.sticks[i] += 0.5 * std::sin(2 * pi * 1.1 * t);
    f.rates[i] += 55 * std::sin(2 * pi * 1.1 * t - 0.7);
  }
  const auto found = oscillations_in(f.log());
  ASSERT_EQ(found.size(), 1u);
  EXPECT_EQ(found[0].kind, OscillationKind::pilot) << found[0].why;
  EXPECT_NEAR(found[0].frequency_hz, 1.1, 0.05);
}

// Deliberate: a push to one side, one to the other, and let go, once or every few seconds; the rate follows as the
// first order roll of any aeroplane does.
TEST(Oscillation, ADoubletIsMeant) {
  std::mt19937 random(9);
  const auto between = [&](double a, double b) { return std::uniform_real_distribution(a, b)(random); };
  for (int k = 0; k < 30; ++k) {
    Flight f(static_cast<unsigned>(20 + k));
    const double half = between(0.25, 0.9), height = between(0.3, 1), every = between(3, 8) + 2 * half,
                 full = between(60, 250), lag = between(0.05, 0.25);
    const int count = 1 + k % 4;
    double rate = 0;
    for (std::size_t i = 0; i < f.rates.size(); ++i) {
      const double t = static_cast<double>(i) / f.hz - 6;
      const double within = t < 0 || t > every * count ? -1 : std::fmod(t, every);
      const double push = within < 0 || within > 2 * half ? 0 : within < half ? height : -height;
      f.sticks[i] = 0.1 * f.sticks[i] + push;
      rate += (full * push - rate) / (lag * f.hz);
      f.rates[i] += rate;
    }
    for (const Episode& e : oscillations_in(f.log()))
      EXPECT_TRUE(e.kind == OscillationKind::slop) << k << ": " << e.why << " half " << half << " count " << count;
  }
}

// Nelson, ch. 5: sideslip and yaw rate exchange, roll follows by the dihedral; gusts excite it, and a damper that is
// too weak works against it all the time.
TEST(Oscillation, ADutchRollIsNotTooMuchGain) {
  std::mt19937 random(4);
  const auto between = [&](double a, double b) { return std::uniform_real_distribution(a, b)(random); };
  int told = 0;
  for (int k = 0; k < 24; ++k) {
    const double hz = between(0.7, 1.5), damping = between(0.01, 0.05), natural = 2 * pi * hz;
    const double gain = between(0.004, 0.02), roll_lag = between(0.08, 0.2), dihedral = between(2, 6);
    std::ostringstream out;
    out << "t_s,roll_rate_deg_s,yaw_rate_deg_s,roll_stick,yaw_stick,roll_correction,yaw_correction\n";
    double slip = 8, slip_rate = 0, roll = 0, gust = 0;
    for (int i = 0; i < 4000; ++i) {
      const double h = 0.01, noise = std::normal_distribution()(random);
      gust += h * (-gust / 0.5) + noise * std::sqrt(2 * h / 0.5);
      slip_rate += h * (-natural * natural * slip - 2 * damping * natural * slip_rate + 60 * gust);
      slip += h * slip_rate;
      roll += h * (-dihedral * natural * slip + 20 * gust - roll) / roll_lag;
      const double yaw = -slip_rate;
      const auto cut = [](double c) { return std::clamp(c, -1.0, 1.0); };
      out << i * h << ',' << roll + 0.3 * noise << ',' << yaw << ",0,0," << cut(-gain * roll) << ',' << cut(-gain * yaw)
          << '\n';
    }
    const auto log = parse_flight_log(out.str(), "flight");
    ASSERT_TRUE(log) << log.error().text();
    for (const Episode& e : oscillations_in(*log)) {
      EXPECT_NE(e.kind, OscillationKind::gain) << k << ": " << e.why;
      told += e.kind == OscillationKind::dutch_roll;
    }
  }
  EXPECT_GT(told, 20);
}

TEST(Oscillation, TheSameSwingWithAStickThatFollowsIsNotThePilots) {
  Flight f(5);
  for (std::size_t i = 0; i < f.rates.size(); ++i) {
    const double t = static_cast<double>(i) / f.hz;
    f.sticks[i] *= 0.1;
    if (t < 10 || t > 20) continue;
    f.rates[i] += 120 * std::sin(2 * pi * 1.6 * t);
    f.sticks[i] -= 0.1 * std::sin(2 * pi * 1.6 * (t - 0.1));
  }
  const auto found = oscillations_in(f.log(0.012));
  ASSERT_EQ(found.size(), 1u);
  EXPECT_EQ(found[0].kind, OscillationKind::gain) << found[0].why;
}

TEST(Oscillation, TwoBurstsAreTwoEpisodesAndEchoesAreNone) {
  Flight f(6);
  f.swing(6, 12, 5, 90);
  f.swing(6, 12, 15.2, 20);  // three times the frequency: its own shape
  f.swing(26, 34, 5, 90);
  const auto found = oscillations_in(f.log(0.02));
  ASSERT_EQ(found.size(), 2u);
  EXPECT_NEAR(found[0].from_s, 6, 0.4);
  EXPECT_NEAR(found[0].to_s, 12, 0.4);
  EXPECT_NEAR(found[1].from_s, 26, 0.4);
}

TEST(FlightLog, AFewRowsAreNotLaidOverAnHour) {
  std::ostringstream out;
  out << "t_s,roll_rate_deg_s\n";
  for (int i = 0; i < 20; ++i) out << i * 1e-4 + (i > 10 ? 1000 : 0) << ",1\n";
  const auto log = parse_flight_log(out.str(), "few.csv");
  ASSERT_FALSE(log);
  EXPECT_NE(log.error().text().find("few.csv"), std::string::npos);
  EXPECT_NE(log.error().text().find("gaps"), std::string::npos) << log.error().text();
}

TEST(FlightLog, GapsAreNotBridgedAndSlipsAreSaid) {
  std::ostringstream out;
  out << "t_s,roll_rate_deg_s\n";
  for (int i = 0; i < 300; ++i) out << i * 0.02 << ",1\n";
  for (int i = 0; i < 300; ++i) out << 60 + i * 0.02 << ",1\n";
  const auto log = parse_flight_log(out.str(), "f");
  ASSERT_TRUE(log);
  ASSERT_EQ(log->stretches.size(), 2u);
  EXPECT_NEAR(log->at_s(log->stretches[1].from), 60, 0.05);
  const auto error = [](const std::string& text) { return parse_flight_log(text, "f").error().text(); };
  EXPECT_EQ(error("t_s,roll_rate_deg_s\n0,1\n"), "f: the log is too short; expected 2 s or more");
  EXPECT_EQ(error("t_s,roll_rate_deg_s\n0,1\n1,1\n2,1\n3,1\n"),
            "f: readings come 1 times a second; expected 20 or more: t_s counts seconds");
  EXPECT_EQ(error("t_s,roll_rate_deg_s\n0,1\n1,1\n0.5,1\n"), "f, row 3: time goes backward; expected t_s that rises");
  EXPECT_NE(error("t_s,throttle\n0,1\n1,1\n").find("no rate of any axis"), std::string::npos);
  EXPECT_NE(error("").find("empty"), std::string::npos);
}

}  // namespace
}  // namespace rigging
