#include "surfaces/linkage.h"
#include "base/json.h"

#include <gtest/gtest.h>

#include <random>
#include <set>

#include "bench_rig.h"
#include "surfaces/edits.h"

namespace rigging {
namespace {

Linkage plain() {
  Linkage l;
  l.surface = *surface_from_name("elevator");
  l.rod_m = 0.12;
  return l;
}

Output elevator() {
  Output o;
  o.id = "out_1";
  o.surfaces = {*surface_from_name("elevator")};
  o.mix.pitch = 1;
  return o;
}

TEST(Linkage, UpIsUpWhicheverSideTheHornIsOn) {
  for (const bool push : {true, false})
    for (const bool reversed : {true, false}) {
      Linkage l = plain();
      l.push_lifts = push;
      Output o = elevator();
      o.reversed = reversed;
      const auto curve = trace(l, o);
      ASSERT_TRUE(curve);
      EXPECT_NEAR(curve->neutral_deg, 0, 1e-9);
      // Full nose up sends high pulses, or low ones when reversed: the trailing edge goes up.
      const auto& end = reversed ? curve->points.front() : curve->points.back();
      EXPECT_GT(end.pose.up_deg, 20) << push << reversed;
      EXPECT_EQ(end.pulse_us, reversed ? 1000 : 2000);
      EXPECT_GT(curve->deg_per_us * (reversed ? -1 : 1), 0);
      EXPECT_TRUE(curve->problems.empty());
    }
}

TEST(Linkage, ALeaningHornGivesDifferential) {
  Linkage l = plain();
  l.horn_deg = 25;
  const auto back = trace(l, elevator());
  l.horn_deg = -25;
  const auto forward = trace(l, elevator());
  ASSERT_TRUE(back && forward);
  EXPECT_GT(std::abs(std::log(back->differential)), 0.1);
  EXPECT_LT(std::log(back->differential) * std::log(forward->differential), 0)
      << "leaning the other way turns it round";
  EXPECT_NEAR(trace(plain(), elevator())->differential, 1, 0.06);
}

TEST(Linkage, DeadCentresAndStopsAreNamed) {
  const auto faults = [](Linkage l) {
    std::set<LinkageFault> all;
    const auto curve = trace(l, elevator());
    if (curve)
      for (const LinkageProblem& p : curve->problems) {
        all.insert(p.fault);
        EXPECT_FALSE(p.words.empty());
        EXPECT_LT(std::abs(p.arm_deg), 121);
      }
    return all;
  };
  Linkage far = plain();
  far.servo_travel_deg = 110;
  EXPECT_TRUE(faults(far).count(LinkageFault::arm_dead_centre)) << "a servo that turns past the rod";
  Linkage tight = plain();
  tight.arm_m = 0.02;
  tight.horn_m = 0.012;
  tight.servo_travel_deg = 60;
  const auto found = faults(tight);
  EXPECT_TRUE(found.count(LinkageFault::horn_dead_centre) || found.count(LinkageFault::rod_too_short))
      << "arm longer than the horn: the rod stretches it flat";
  // What cannot be moved is not in the curve.
  const auto curve = trace(tight, elevator());
  EXPECT_LT(curve->points.size(), 101u);
}

TEST(Linkage, AbsurdGeometryIsRefusedInWords) {
  struct Bad {
    const char* member;
    double value;
    const char* words;
  };
  for (const Bad& bad : {Bad{"arm", 0, "no length"},
                         {"horn", -1, "no length"},
                         {"rod", std::numeric_limits<double>::quiet_NaN(), "no length"},
                         {"drop", 0.5, "shorter than the holes"},
                         {"base", 0.5, "too short"},
                         {"base", 0.02, "too long"}}) {
    Linkage l = plain();
    const std::string member = bad.member;
    if (member == "arm") l.arm_m = bad.value;
    if (member == "horn") l.horn_m = bad.value;
    if (member == "rod") l.rod_m = bad.value;
    if (member == "drop") l.drop_m = bad.value;
    if (member == "base") l.base_m = bad.value;
    const auto curve = trace(l, elevator());
    ASSERT_FALSE(curve) << member;
    EXPECT_NE(curve.error().text().find(bad.words), std::string::npos) << curve.error().text();
    EXPECT_NE(curve.error().where.find("elevator"), std::string::npos);
  }
  EXPECT_FALSE(pulse_for(plain(), 80, 1));
  EXPECT_NE(pulse_for(plain(), 80, 1).error().what.find("80° is out of its reach"), std::string::npos);
}

TEST(Linkage, PulsesForAnglesAreTheInverse) {
  Linkage l = plain();
  l.horn_deg = 12;
  l.arm_deg = -7;
  for (const int sense : {1, -1})
    for (double up = -25; up <= 25; up += 5) {
      const auto pulse = pulse_for(l, up, sense);
      ASSERT_TRUE(pulse) << pulse.error().text();
      EXPECT_NEAR(FourBar::of(l)->pose(arm_at(l, *pulse, sense))->up_deg, up, 1e-9);
    }
}

TEST(Holes, TheBestReachesTheThrowWithMostOfTheTravel) {
  Linkage l = plain();
  l.arm_holes_m = {0.008, 0.011, 0.014};
  l.horn_holes_m = {0.010, 0.014, 0.018};
  const auto choices = choose_holes(l, elevator(), 20, 5);
  ASSERT_TRUE(choices);
  ASSERT_EQ(choices->size(), 9u);
  const HoleChoice& best = choices->front();
  EXPECT_TRUE(best.reaches);
  for (const HoleChoice& c : *choices) {
    // By the sine rule of a level rod: what reaches is arm · sin 45° ≥ horn · sin 20°.
    if (std::abs(c.arm_m * std::sin(0.7854) / (c.horn_m * std::sin(0.34907)) - 1) > 0.08)
      EXPECT_EQ(c.reaches, c.arm_m * std::sin(0.7854) > c.horn_m * std::sin(0.34907)) << c.arm_m << " " << c.horn_m;
    if (c.reaches) EXPECT_LE(c.travel_percent, best.travel_percent);
    if (c.reaches && c.travel_percent < best.travel_percent - 10)
      EXPECT_LT(c.force, best.force) << "more travel, more force";
    if (c.reaches && c.travel_percent < best.travel_percent - 10)
      EXPECT_GT(c.step_deg, best.step_deg) << "and finer steps";
  }
  EXPECT_FALSE(choose_holes(l, elevator(), 0, 5));
  EXPECT_FALSE(choose_holes(plain(), elevator(), 20, 5));
  // A wish that nothing fulfils is answered by what there is.
  const auto none = choose_holes(l, elevator(), 80, 5);
  ASSERT_TRUE(none);
  EXPECT_FALSE(none->front().reaches);
  EXPECT_NE(none->front().remark.find("at most"), std::string::npos);
}

/// A linkage as it really is: crooked.
Linkage crooked(std::mt19937& random, const Linkage& measured) {
  const auto within = [&](double a) { return std::uniform_real_distribution<double>(-a, a)(random); };
  Linkage l = measured;
  l.base_m = FourBar::of(measured)->base_m();
  l.arm_deg += within(12);
  l.horn_deg += within(12);
  l.servo_travel_deg += within(6);
  l.rod_m += within(0.002);
  return l;
}

double real_deg(const Linkage& l, double pulse, int sense) {
  return FourBar::of(l)->pose(arm_at(l, pulse, sense))->up_deg;
}

TEST(Centring, CrookedLinkagesComeStraightWithinHalfADegree) {
  int done = 0;
  for (unsigned seed = 1; seed <= 200; ++seed) {
    std::mt19937 random(seed);
    Linkage measured = plain();
    measured.arm_m = 0.010 + 0.001 * (random() % 5);
    measured.want_up_deg = 18;
    measured.want_down_deg = 15;
    measured.base_m = FourBar::of(measured)->base_m();
    Linkage real = crooked(random, measured);
    const int sense = random() % 2 ? 1 : -1;
    Output o = elevator();
    bool limited = false;
    // What the builder's hands do: read, set, turn the clevis, read again.
    for (int pass = 0; pass < 3; ++pass) {
      measured.readings.clear();
      for (const double pulse :
           {o.low_us, (o.low_us + o.centre_us) / 2, o.centre_us, (o.high_us + o.centre_us) / 2, o.high_us})
        measured.readings.push_back({pulse, std::round(real_deg(real, pulse, sense) * 5) / 5, {}});
      const auto c = centre(measured, o);
      ASSERT_TRUE(c) << "seed " << seed << ": " << c.error().text();
      limited = !c->limits.empty();
      if (pass == 0) EXPECT_EQ(c->reverse, sense < 0);
      if (c->reverse) o.reversed = !o.reversed;
      real.rod_m += c->clevis_turns * measured.clevis_pitch_m;
      real.arm_deg += c->teeth * measured.spline_tooth_deg;
      measured = worked_over(measured, *c);
      o.low_us = c->low_us;
      o.centre_us = c->centre_us;
      o.high_us = c->high_us;
    }
    const double up = std::max(real_deg(real, o.high_us, sense), real_deg(real, o.low_us, sense)),
                 down = std::min(real_deg(real, o.high_us, sense), real_deg(real, o.low_us, sense));
    if (limited) continue;  // said so
    ++done;
    EXPECT_NEAR(real_deg(real, o.centre_us, sense), 0, 0.5) << "seed " << seed;
    EXPECT_NEAR(up, 18, 0.5) << "seed " << seed;
    EXPECT_NEAR(down, -15, 0.5) << "seed " << seed;
  }
  EXPECT_GT(done, 150);
}

TEST(Centring, BadReadingsAndImpossibleWishesAreSaid) {
  Linkage l = plain();
  const auto read = [&](std::vector<std::pair<double, double>> list) {
    l.readings.clear();
    for (const auto& [us, deg] : list) l.readings.push_back({us, deg, {}});
  };
  read({{1000, -20}, {2000, 20}});
  EXPECT_NE(estimate(l).error().expected.find("at least three"), std::string::npos);
  read({{1000, 20}, {1500, 0}, {2000, 20}});
  EXPECT_NE(estimate(l).error().text().find("hardly moved"), std::string::npos);
  read({{1000, -20}, {1250, 14}, {1500, 0}, {2000, 20}});
  EXPECT_NE(estimate(l).error().text().find("turns back"), std::string::npos) << estimate(l).error().text();
  read({{1000, -80}, {1500, 0}, {2000, 80}});
  EXPECT_NE(estimate(l).error().text().find("do not fit"), std::string::npos);
  l = plain();
  l.want_up_deg = 60;
  const auto c = centre(l, elevator());
  ASSERT_TRUE(c);
  ASSERT_EQ(c->limits.size(), 1u);
  EXPECT_NE(c->limits[0].find("60° up can't be reached"), std::string::npos);
}

// Classes without a centre or ends of their own: arm and clevis do it all, and what they leave is said.
TEST(Centring, WithoutSettingsHandsDoItAndTheRestIsSaid) {
  int flush = 0;
  for (unsigned seed = 1; seed <= 100; ++seed) {
    std::mt19937 random(seed);
    Linkage measured = plain();
    measured.base_m = FourBar::of(measured)->base_m();
    Linkage real = crooked(random, measured);
    const Output o = elevator();
    std::optional<Centring> last;
    for (int pass = 0; pass < 4; ++pass) {
      measured.readings.clear();
      for (const double pulse : {1000.0, 1250.0, 1500.0, 1750.0, 2000.0})
        measured.readings.push_back({pulse, std::round(real_deg(real, pulse, 1) * 10) / 10, {}});
      const auto c = centre(measured, o, {false, false});
      ASSERT_TRUE(c) << "seed " << seed << ": " << c.error().text();
      EXPECT_EQ(c->low_us, 1000);
      EXPECT_EQ(c->centre_us, 1500);
      EXPECT_EQ(c->high_us, 2000);
      last = *c;
      if (c->settled) break;
      real.rod_m += c->clevis_turns * measured.clevis_pitch_m;
      real.arm_deg += c->teeth * measured.spline_tooth_deg;
      measured = worked_over(measured, *c);
    }
    EXPECT_TRUE(last->settled) << "seed " << seed << ": the hand would turn for ever";
    // Half a turn of this thread is 0.82°: nothing finer than half of that can be had, and readings are off by a
    // little.
    EXPECT_LT(std::abs(real_deg(real, 1500, 1)), 0.75) << "seed " << seed;
    flush += std::abs(real_deg(real, 1500, 1)) < 0.5;
    const double up = real_deg(real, 2000, 1), down = -real_deg(real, 1000, 1);
    const bool said = std::any_of(last->limits.begin(), last->limits.end(), [](const std::string& l) {
      return l.find("up and down differ") != std::string::npos;
    });
    if (std::abs(up - down) > 2) EXPECT_TRUE(said) << "seed " << seed << ": " << up << " and " << down;
    if (std::abs(up - down) < 0.5) EXPECT_FALSE(said) << "seed " << seed;
  }
  EXPECT_GT(flush, 90);
  // A wish is compared with what the pulses give, and holes are what is left.
  Linkage l = plain();
  l.want_up_deg = 12;
  const auto c = centre(l, elevator(), {true, false});
  ASSERT_TRUE(c);
  ASSERT_EQ(c->limits.size(), 1u);
  EXPECT_NE(c->limits[0].find("12° are wanted, and this class has no ends to set: choose other holes"),
            std::string::npos)
      << c->limits[0];
}

// Rod half a turn of a 0.4 mm thread too long on a 14 mm horn: 0.2 / 14 rad = 0.82° by hand; less than a trim, so the
// centre takes it.
TEST(Centring, SmallErrorsGoToTheCentreLargeOnesToTheClevis) {
  Linkage l = plain();
  l.base_m = FourBar::of(l)->base_m();
  l.rod_m += 0.0002;
  auto c = centre(l, elevator());
  ASSERT_TRUE(c);
  EXPECT_NEAR(std::abs(c->neutral_now_deg), 0.82, 0.02);
  EXPECT_EQ(c->clevis_turns, 0);
  EXPECT_NE(c->centre_us, 1500);
  l.rod_m += 0.001;
  c = centre(l, elevator());
  ASSERT_TRUE(c);
  EXPECT_EQ(c->clevis_turns, -3);
  EXPECT_NEAR(c->centre_us, 1500, 6);
  EXPECT_NEAR(c->up_deg, c->down_deg, 1e-9) << "without a wish both throws are equal";
}

/// Throws are wanted per command: what a setting does to them is said before it is made, and can be kept.
TEST(Centring, SaysWhatEveryCommandLosesAndCanKeepIt) {
  const Rig rig = demo("hedgerow");
  const Surface left{SurfaceKind::flaperon, Side::left};
  ASSERT_EQ(rig.linkage(left)->want_up_deg, 20);
  const auto c = centre(*rig.linkage(left), *rig.output_of(left));
  ASSERT_TRUE(c);
  const CommandThrows t = command_throws(rig, left, *c);
  const auto roll = static_cast<std::size_t>(MixCommand::roll), flap = static_cast<std::size_t>(MixCommand::flap),
             pitch = static_cast<std::size_t>(MixCommand::pitch);
  // The whole travel goes from some 32° to 20°, the 70 % of it that are roll along with it.
  EXPECT_NEAR(t.now_deg[roll], throw_for(rig, *rig.output_of(left), left, MixCommand::roll), 1e-9);
  EXPECT_GT(t.now_deg[roll], 20);
  EXPECT_NEAR(t.then_deg[roll], 14, 0.7);
  EXPECT_LT(t.then_deg[flap], t.now_deg[flap]);
  EXPECT_EQ(t.now_deg[pitch], 0);
  EXPECT_TRUE(t.falls());
  const Rig kept = centre_and_ends_set_keeping_throws(rig, left, *c).rig;
  // Roll asks for more than the travel has: all of it is given. The other side was not read and moves as it did.
  EXPECT_NEAR(std::abs(kept.output("out_1")->mix.roll), 1, 1e-9);
  EXPECT_EQ(kept.output("out_2")->mix, rig.output("out_2")->mix);
  EXPECT_GT(kept.output("out_1")->mix.roll * rig.output("out_1")->mix.roll, 0) << "signs stay";
  for (const MixCommand command : {MixCommand::roll, MixCommand::flap})
    EXPECT_NEAR(throw_for(kept, *kept.output_of(left), left, command), t.kept_deg[static_cast<std::size_t>(command)],
                0.1);
  EXPECT_NEAR(t.kept_deg[flap], t.now_deg[flap], 0.1);
  EXPECT_NEAR(t.kept_deg[roll], 20, 0.7);
  const Rig plain = centre_and_ends_set(rig, left, *c).rig;
  EXPECT_EQ(plain.output("out_1")->mix, rig.output("out_1")->mix);
}

}  // namespace
}  // namespace rigging
