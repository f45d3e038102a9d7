#include "fit/swing.h"

#include <gtest/gtest.h>

#include <cmath>

#include "base/angle.h"
#include "bench_rig.h"
#include "earth/gravity.h"
#include "feel/feel.h"
#include "play/script.h"
#include "review/review.h"

namespace rigging {
namespace {

/// Time of one swing to and fro of a body on two strings, by its energy: it rises as the strings lean, L − √(L² −
/// (d·sin θ/2)²), and turns; T = 4·∫ dθ/θ' from 0 to the widest angle. Exact for strings that stay straight.
double period_of(double inertia, double mass, double apart, double length, double widest) {
  const auto height = [&](double angle) {
    return length - std::sqrt(length * length - std::pow(apart * std::sin(angle / 2), 2));
  };
  constexpr int steps = 4000;
  double time = 0;
  for (int i = 0; i < steps; ++i) {
    // θ = widest · sin u takes the root at the turning point away.
    const double u = (i + 0.5) / steps * pi / 2, angle = widest * std::sin(u), little = 1e-6;
    const double rises = (height(angle + little) - height(angle - little)) / (2 * little);
    const double energy = mass * standard_gravity * (height(widest) - height(angle));
    const double rate = std::sqrt(2 * energy / (inertia + mass * rises * rises));
    time += widest * std::cos(u) / rate * pi / 2 / steps;
  }
  return 4 * time;
}

TEST(SwingTest, TellsTheInertiaThatAnExactPendulumHas) {
  for (const double inertia : {0.004, 0.06, 0.8})
    for (const double length : {0.8, 1.6}) {
      Swing s;
      s.mass_kg = inertia > 0.5 ? 6 : inertia < 0.01 ? 0.25 : 1.2, s.apart_m = 0.5, s.length_m = length;
      s.period_s = period_of(inertia, s.mass_kg, s.apart_m, length, 5 * rad);
      const Figure f = swung_inertia(s);
      EXPECT_NEAR(f.value / inertia, 1, 0.003);
      EXPECT_LT(*f.least, inertia);
      EXPECT_GT(*f.most, inertia);
      EXPECT_LT(*f.most / *f.least, 1.2);
    }
}

TEST(SwingTest, TakesThePlaceOfTheGuessAsLongAsTheMassStays) {
  const Rig rig = demo("hedgerow");
  const auto roll_of = [](const Rig& r) { return analyze_feel({r, shipped()}).aeroplane.inertia.roll; };
  const Banded guess = roll_of(rig);
  const double true_one = 1.2 * guess.value;
  const auto swung =
      take_swing(rig, shipped(), Axis::roll, 0.6, 1.5, period_of(true_one, *rig.airframe.mass_kg, 0.6, 1.5, 0.1));
  ASSERT_TRUE(swung) << swung.error().text();
  EXPECT_NEAR(roll_of(swung->rig).value / true_one, 1, 0.003);
  EXPECT_LT(roll_of(swung->rig).most / roll_of(swung->rig).least, 0.5 + 0.5 * guess.most / guess.least);
  EXPECT_EQ(analyze_feel({swung->rig, shipped()}).aeroplane.inertia.yaw,
            analyze_feel({rig, shipped()}).aeroplane.inertia.yaw);
  // Another battery: what was swung is another aircraft.
  Rig heavier = swung->rig;
  *heavier.airframe.mass_kg *= 1.1;
  Rig heavier_guess = rig;
  *heavier_guess.airframe.mass_kg *= 1.1;
  EXPECT_EQ(roll_of(heavier), roll_of(heavier_guess));
  // Once more about the same axis: the later one counts, and the file keeps it.
  const auto again = take_swing(swung->rig, shipped(), Axis::roll, 0.6, 1.5, 2);
  ASSERT_TRUE(again);
  EXPECT_EQ(again->rig.fit.swings.size(), 1u);
  EXPECT_FALSE(take_swing(rig, shipped(), Axis::roll, 0.6, 1.5, 0));
  EXPECT_FALSE(take_swing(rig, shipped(), Axis::roll, 60, 1.5, 2));
  EXPECT_FALSE(take_swing(rig, shipped(), Axis::roll, 1.5, 0.3, 4)) << "exchanged: no mass lies beyond the wing tips";
}

// By the card, with its own clock and with a watch: 0.6 m apart, 1.5 m long, ten swings in 23 s.
TEST(SwingTest, TheCardTakesItStepByStep) {
  ProcedureEntry entry;
  for (const ProcedureEntry& p : all_procedures())
    if (p.id == "swing") entry = p;
  ASSERT_TRUE(entry.make);
  ProcedurePlayer player(demo("bramble"), shipped(), entry, "2026-12-01T08:00:00Z");
  const auto play = [&](const std::string& line) {
    const auto heard = player.play(line, "here");
    EXPECT_TRUE(heard) << line << ": " << (heard ? "" : heard.error().text());
  };
  play("time 1");
  EXPECT_NE(player.card().caution.find("Propeller off"), std::string::npos);
  play("press swing_apart 60 cm");
  play("press swing_length 150 cm");
  play("press swing_start");
  EXPECT_TRUE(player.card().busy);
  play("time 24");
  play("press swing_stop");
  ASSERT_EQ(player.rig().fit.swings.size(), 1u);
  const Swing s = player.rig().fit.swings[0];
  EXPECT_EQ(s.axis, Axis::roll);
  EXPECT_NEAR(s.period_s, 2.3, 1e-9);
  // On paper: 0.46 kg · 9.80665 · 0.6² · 2.3² / (16 · π² · 1.5) = 0.03628.
  EXPECT_NEAR(swung_inertia(s).value, 0.46 * 9.80665 * 0.36 * 5.29 / (16 * 9.8696044 * 1.5), 1e-6);
  // The clock that was not stopped in time records nothing.
  EXPECT_NE(player.card().says.find("0.0363"), std::string::npos) << player.card().says;
  play("press swing_yaw");
  play("press swing_apart 20 in");
  play("press swing_length 150 cm");
  play("press swing_start");
  play("time 24.5");
  play("press swing_stop");
  EXPECT_EQ(player.rig().fit.swings.size(), 1u);
  play("press swing_typed 31 s");
  ASSERT_EQ(player.rig().fit.swings.size(), 2u);
  EXPECT_NEAR(player.rig().fit.swings[1].apart_m, 0.508, 1e-9);
  EXPECT_NEAR(player.rig().fit.swings[1].period_s, 3.1, 1e-9);
  EXPECT_FALSE(player.play("press swing_apart 1 cm", "here")) << "too near to tell anything";
}

}  // namespace
}  // namespace rigging
