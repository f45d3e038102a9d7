#include "sticks/sticks.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <numeric>
#include <random>

#include "base/find.h"
#include "bench_rig.h"
#include "sticks/setup.h"

namespace rigging {
namespace {

using F = ChannelFunction;

/// A transmitter as it really is: written from the sentence in the header of `dial_in`, not from its code.
struct RealStick {
  int channel = 1;
  double middle_us = 0, reach_left = 1, reach_right = 1;
  int sense = 1;
  double noise_us = 0;
  double drift_us_s = 0;
  double settles_us = 0;  ///< how far from the middle it comes to rest, on the side it came from

  double pulse(const Channel& set, double position, const Transmitter& t) const {
    const double reach = position > 0 ? reach_right : reach_left;
    const double hand = sense * (set.reversed ? -1 : 1) * position * reach;
    const double travel = hand > 0 ? set.travel_high_percent : set.travel_low_percent;
    return 1500 + set.sub_trim_us + sense * (set.reversed ? -1 : 1) * middle_us + hand * travel / 100 * t.full_us;
  }
};

struct RealTransmitter {
  std::array<RealStick, 4> sticks;  // roll, pitch, throttle, yaw
  std::array<Channel, 8> set;
  Transmitter t;
  std::mt19937 random{7};
  double clock_us = 0;
  std::array<double, 4> hand{0, 0, -1, 0};

  explicit RealTransmitter(unsigned seed) : random(seed) {
    std::array<int, 8> order;
    std::iota(order.begin(), order.end(), 1);
    std::shuffle(order.begin(), order.end(), random);
    const auto within = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
    for (std::size_t i = 0; i < 8; ++i) {
      set[i].number = static_cast<int>(i + 1);
      set[i].sub_trim_us = std::round(within(-30, 30));
      set[i].travel_low_percent = std::round(within(70, 120));
      set[i].travel_high_percent = std::round(within(70, 120));
    }
    for (std::size_t i = 0; i < 4; ++i)
      sticks[i] = {order[i],
                   i == 2 ? 0 : within(-25, 25),
                   i == 2 ? 0.97 : within(0.9, 1.0),
                   i == 2 ? 0.97 : within(0.9, 1.0),
                   random() % 3 == 0 ? -1 : 1,
                   within(0, 2.5),
                   0,
                   0};
  }

  ChannelFrame frame() {
    ChannelFrame f;
    f.channels = 8;
    f.pulse_us.fill(1500);
    for (std::size_t i = 0; i < 4; ++i) {
      const auto c = static_cast<std::size_t>(sticks[i].channel - 1);
      const double noise = sticks[i].noise_us > 0 ? std::normal_distribution<double>(0, sticks[i].noise_us)(random) : 0;
      f.pulse_us[c] =
          static_cast<float>(sticks[i].pulse(set[c], hand[i], t) + noise + sticks[i].drift_us_s * clock_us * 1e-6);
    }
    f.t_us = clock_us += 9000;
    return f;
  }

  void follow(StickSetup& setup) {
    const std::array<F, 4> functions{F::roll, F::pitch, F::throttle, F::yaw};
    for (int i = 0; i < 4000 && !setup.done(); ++i) {
      hand = {0, 0, -1, 0};
      for (std::size_t k = 0; k < 4; ++k)
        if (setup.stick() == functions[k]) {
          hand[k] = k == 2 && setup.side() == 0 ? -1 : setup.side();
          if (setup.side() == 0) hand[k] = k == 2 ? -1 : last_side * sticks[k].settles_us / 500;
        }
      if (setup.side() != 0) last_side = setup.side();
      setup.feed(frame());
    }
  }
  int last_side = 1;
};

const std::vector<F> four{F::roll, F::pitch, F::throttle, F::yaw};

TEST(StickSetup, AnyOrderAndAnySettingIsBroughtToRoundPulses) {
  for (unsigned seed = 1; seed <= 60; ++seed) {
    RealTransmitter real(seed);
    Rig rig;
    rig.radio.transmitter = real.t;
    for (const Channel& c : real.set) rig.radio.channels.push_back(c);
    for (int pass = 0; pass < 2; ++pass) {
      StickSetup setup(four);
      real.follow(setup);
      ASSERT_TRUE(setup.done()) << "seed " << seed << ": " << setup.todo() << " " << setup.remark();
      ASSERT_EQ(setup.readings().size(), 4u);
      for (std::size_t k = 0; k < 4; ++k) {
        const StickReading& r = setup.readings()[k];
        EXPECT_EQ(r.channel, real.sticks[k].channel) << "seed " << seed;
        const auto c = static_cast<std::size_t>(r.channel - 1);
        EXPECT_EQ(r.inverted, real.sticks[k].sense * (real.set[c].reversed ? -1 : 1) < 0);
      }
      rig = with_readings(rig, setup.readings());
      for (std::size_t k = 0; k < 4; ++k) {
        Channel* c = rig.channel(four[k]);
        ASSERT_TRUE(c);
        const auto d = dial_in(*c, rig.radio.transmitter, {}, setup.readings()[k].inverted);
        ASSERT_TRUE(d) << d.error().text();
        EXPECT_TRUE(d->limits.empty()) << d->limits.front();
        // The hand dials exactly what is shown.
        Channel& set = real.set[static_cast<std::size_t>(c->number - 1)];
        *c = dialled(*c, *d);
        set.reversed = c->reversed;
        set.sub_trim_us = c->sub_trim_us;
        set.travel_low_percent = c->travel_low_percent;
        set.travel_high_percent = c->travel_high_percent;
      }
    }
    for (std::size_t k = 0; k < 4; ++k) {
      const Channel& set = real.set[static_cast<std::size_t>(real.sticks[k].channel - 1)];
      EXPECT_NEAR(real.sticks[k].pulse(set, 1, real.t), 2000, 2) << "seed " << seed << " stick " << k;
      EXPECT_NEAR(real.sticks[k].pulse(set, -1, real.t), 1000, 2) << "seed " << seed << " stick " << k;
      if (k != 2) EXPECT_NEAR(real.sticks[k].pulse(set, 0, real.t), 1500, 2) << "seed " << seed << " stick " << k;
    }
  }
}

TEST(StickSetup, NoiseWearAndMixesAreSaid) {
  RealTransmitter real(5);
  for (RealStick& s : real.sticks) s.noise_us = 1;
  real.sticks[0].noise_us = 8;
  real.sticks[3].settles_us = 9;
  StickSetup setup(four);
  real.follow(setup);
  ASSERT_TRUE(setup.done());
  std::vector<std::pair<F, StickFinding::TypeInfo>> kinds;
  for (const StickFinding& f : setup.findings()) kinds.emplace_back(f.function, f.kind);
  EXPECT_EQ(kinds, (std::vector<std::pair<F, StickFinding::TypeInfo>>{{F::roll, StickFinding::TypeInfo::noise},
                                                                      {F::yaw, StickFinding::TypeInfo::worn}}));
}

TEST(StickSetup, ADriftingCentreIsSaidAndAWarmOneIsNot) {
  for (const double drift_us_s : {0.0, 1.5, -1.5, 4.0}) {
    RealTransmitter real(3);
    real.sticks[0].drift_us_s = drift_us_s;
    StickSetup setup(four);
    real.follow(setup);
    ASSERT_TRUE(setup.done());
    const auto findings = setup.findings();
    const StickFinding* drift =
        find_in(findings, [](const StickFinding& f) { return f.kind == StickFinding::TypeInfo::drift; });
    EXPECT_EQ(drift != nullptr, drift_us_s != 0) << drift_us_s;
    if (!drift) continue;
    EXPECT_EQ(drift->function, F::roll);
    EXPECT_NE(drift->words.find("warm up"), std::string::npos);
    EXPECT_EQ(std::count_if(findings.begin(), findings.end(),
                            [](const StickFinding& f) { return f.kind == StickFinding::TypeInfo::worn; }),
              0)
        << "a spring is not to blame";
  }
}

TEST(StickSetup, TwoChannelsThatMoveTogetherAreWaitedForThenCalledAMix) {
  StickSetup setup({F::roll});
  double t = 0;
  const auto hold = [&](double a, double b, double seconds) {
    for (const double until = t + seconds * 1e6; t < until; t += 9000) {
      ChannelFrame f;
      f.channels = 4;
      f.pulse_us = {static_cast<float>(a), static_cast<float>(b), 1000, 1500};
      f.t_us = t;
      setup.feed(f);
    }
  };
  hold(1500, 1500, 1.2);
  EXPECT_EQ(setup.steps_done(), 1);
  hold(1950, 1700, 2);
  EXPECT_EQ(setup.steps_done(), 1);
  EXPECT_NE(setup.remark().find("Channels 1 and 2 move together"), std::string::npos);
  hold(1950, 1700, 4);
  EXPECT_EQ(setup.steps_done(), 2);
  hold(1500, 1500, 1);
  hold(1050, 1300, 1);
  hold(1500, 1500, 1);
  ASSERT_TRUE(setup.done());
  ASSERT_EQ(setup.findings().size(), 1u);
  EXPECT_EQ(setup.findings()[0].kind, StickFinding::TypeInfo::together);
}

TEST(StickSetup, APauseOnTheWayIsForgivenAndTheWrongStickIsNamed) {
  StickSetup setup({F::roll, F::yaw});
  double t = 0;
  const auto hold = [&](double a, double b) {
    for (const double until = t + 1e6; t < until; t += 9000) {
      ChannelFrame f;
      f.channels = 2;
      f.pulse_us = {static_cast<float>(a), static_cast<float>(b)};
      f.t_us = t;
      setup.feed(f);
    }
  };
  for (const double a : {1500.0, 1800.0, 1980.0, 1500.0, 1030.0, 1500.0}) hold(a, 1500);
  ASSERT_EQ(setup.readings().size(), 1u);
  EXPECT_NEAR(setup.readings()[0].high_us, 1980, 0.1);
  EXPECT_NEAR(setup.readings()[0].low_us, 1030, 0.1);
  hold(1900, 1500);
  EXPECT_NE(setup.remark().find("which the roll stick moved already"), std::string::npos);
  setup.again();
  EXPECT_TRUE(setup.readings().empty());
  EXPECT_EQ(setup.stick(), F::roll);
}

TEST(StickSetup, LostFramesAreNoMovement) {
  StickSetup setup({F::roll});
  for (int i = 0; i < 300; ++i) {
    ChannelFrame f;
    f.channels = 4;
    f.failsafe = true;
    f.t_us = i * 9000.0;
    setup.feed(f);
  }
  EXPECT_EQ(setup.steps_done(), 0);
  EXPECT_EQ(setup.remark(), "The receiver hears no transmitter.");
}

TEST(Habits, JitterAndDriftAreTheirOwnWhateverHandsDo) {
  std::mt19937 random(9);
  std::deque<ChannelFrame> frames;
  for (int i = 0; i < 1200; ++i) {
    ChannelFrame f;
    f.channels = 5;
    f.t_us = i * 9000.0;
    const auto jitter = [&](double us) { return static_cast<float>(std::normal_distribution<double>(0, us)(random)); };
    f.pulse_us[0] = 1500 + jitter(6);                                        // dirty
    f.pulse_us[1] = 1500 + jitter(0.5) + static_cast<float>(i) * 24 / 1200;  // cold
    f.pulse_us[2] = (i / 300 % 2 ? 1900.0f : 1100.0f) + jitter(0.5);         // moved now and then
    f.pulse_us[3] = 1500 + 400 * static_cast<float>(std::sin(i / 200.0));    // stirred all the time
    f.pulse_us[4] = 1500;                                                    // fixed
    if (i % 50 == 0) {
      f.lost = true;
      f.pulse_us.fill(900);  // what a lost frame says is no movement
    }
    frames.push_back(f);
  }
  const auto all = habits(frames);
  ASSERT_EQ(all.size(), 5u);
  EXPECT_NEAR(all[0].noise_us, 6, 0.6);
  EXPECT_NE(all[0].words.find("jitters"), std::string::npos);
  EXPECT_EQ(all[0].words.find("drifts"), std::string::npos);
  EXPECT_NEAR(all[1].drift_us, 18, 1) << "from the middle of the first quarter to that of the last";
  EXPECT_NE(all[1].words.find("drifts by 18"), std::string::npos) << all[1].words;
  EXPECT_TRUE(all[2].moved);
  EXPECT_NEAR(all[2].noise_us, 0.5, 0.1);
  EXPECT_EQ(all[2].words, "");
  EXPECT_EQ(all[3].words, "");
  EXPECT_FALSE(all[4].moved);
  EXPECT_EQ(all[4].noise_us, 0);
  EXPECT_EQ(all[4].least_us, 1500);
  EXPECT_TRUE(habits({}).empty());
  frames.resize(3);
  EXPECT_EQ(habits(frames)[0].noise_us, 0) << "three frames tell nothing";
}

TEST(SwitchSetup, RestsAreFoundAndPassagesAreNot) {
  SwitchSetup setup({1, 2, 3, 4});
  double t = 0;
  const auto hold = [&](double us, double seconds) {
    for (const double until = t + seconds * 1e6; t < until; t += 9000) {
      ChannelFrame f;
      f.channels = 6;
      f.pulse_us = {1500, 1500, 1000, 1500, 1500, static_cast<float>(us)};
      f.t_us = t;
      setup.feed(f);
    }
  };
  hold(1010, 0.5);
  hold(1250, 0.05);
  hold(1502, 0.6);
  hold(1988, 0.6);
  hold(1502, 0.6);
  EXPECT_EQ(setup.channel(), 6);
  const auto at = setup.positions();
  ASSERT_EQ(at.size(), 3u);
  EXPECT_NEAR(at[0], 1010, 1);
  EXPECT_NEAR(at[1], 1502, 1);
  EXPECT_NEAR(at[2], 1988, 1);
}

TEST(DialIn, ByHand) {
  // Read 1060, 1512, 1940 with sub-trim 0 and travel 100 %: the middle goes down by 12 µs; below it 452 µs became 500,
  // above 428 became 500.
  Channel c;
  c.function = F::roll;
  c.low_us = 1060;
  c.centre_us = 1512;
  c.high_us = 1940;
  const auto d = dial_in(c, Transmitter{}, {}, false);
  ASSERT_TRUE(d);
  EXPECT_DOUBLE_EQ(d->sub_trim_us, -12);
  EXPECT_NEAR(d->travel_low_percent, 100 * 500 / 452.0, 0.051);
  EXPECT_NEAR(d->travel_high_percent, 100 * 500 / 428.0, 0.051);
  EXPECT_NEAR(d->lands.low_us, 1000, 0.3);
  EXPECT_TRUE(d->limits.empty());
  // Turned round, the sides change places and the middle's error changes its sign.
  const auto turned = dial_in(c, Transmitter{}, {}, true);
  EXPECT_DOUBLE_EQ(turned->sub_trim_us, 12);
  EXPECT_NEAR(turned->travel_low_percent, 100 * 500 / 428.0, 0.051);
}

TEST(DialIn, CoarseStepsAndLimitsAreSaid) {
  Channel c;
  c.function = F::roll;
  c.low_us = 1100;
  c.centre_us = 1500;
  c.high_us = 1803;
  Transmitter t;
  t.most_travel_percent = 125;
  t.step_percent = 1;
  const auto d = dial_in(c, t, {}, false);
  ASSERT_TRUE(d);
  ASSERT_EQ(d->limits.size(), 1u);
  EXPECT_NE(d->limits[0].find("the high end stops at 1878.8 µs: 125 %"), std::string::npos) << d->limits[0];
  EXPECT_EQ(d->travel_low_percent, 125);
  t.step_percent = 7;
  t.most_travel_percent = 200;
  const auto coarse = dial_in(c, t, {}, false);
  ASSERT_FALSE(coarse->limits.empty());
  EXPECT_NE(coarse->limits[0].find("come no closer"), std::string::npos);
  EXPECT_FALSE(dial_in(Channel{}, t, {}, false)) << "nothing was read";
  c.high_us = 1505;
  EXPECT_NE(dial_in(c, t, {}, false).error().what.find("not moved"), std::string::npos);
}

TEST(DialIn, NumbersAsTheTransmitterShowsThem) {
  Transmitter t;
  EXPECT_EQ(shown_sub_trim(t, -12), "-2.4 %");
  EXPECT_EQ(shown_travel(t, 110.6), "110.6 %");
  t.counts = TravelUnit::us;
  EXPECT_EQ(shown_sub_trim(t, 12), "+12 µs");
  EXPECT_EQ(shown_travel(t, 110.6), "553 µs");
}

TEST(Sticks, ClassesWantWhatTheyWant) {
  const Catalogue& catalogue = shipped();
  const Reach full = wanted_reach(*catalogue.controller("full_controller"), {}, F::roll),
              wide = wanted_reach(*catalogue.controller("gesture_board"), {}, F::roll);
  EXPECT_EQ(full.high_us, 2000);
  EXPECT_EQ(wide.high_us, 2125);  // 125 % of 500 µs
  EXPECT_EQ(wanted_reach(*catalogue.controller("gesture_board"), {}, F::throttle).high_us, 2000);
  Transmitter narrow;
  narrow.full_us = 400;
  EXPECT_EQ(wanted_reach(*catalogue.controller("gesture_board"), narrow, F::pitch).low_us, 1000);
  const ControllerClass& page = *catalogue.controller("screen_keys");
  EXPECT_EQ(us_from_page(page, -1000), 1000);
  EXPECT_EQ(page_from_us(page, 1750), 500);
}

TEST(Sticks, ReportOfTheDemo) {
  const Rig rig = demo("hedgerow");
  const SticksReport r = analyze_sticks(rig, shipped());
  EXPECT_FALSE(r.all_read);
  ASSERT_TRUE(r.signal);
  for (const BudgetLine& b : r.budget)
    if (b.function == F::roll) EXPECT_EQ(b.channel, 1);
  const SwitchLine* mode = find_in(r.switches, [](const SwitchLine& s) { return s.function == F::mode; });
  ASSERT_TRUE(mode);
  ASSERT_EQ(mode->positions.size(), 3u);
  EXPECT_EQ(mode->positions[0].mode, "manual");
  EXPECT_EQ(mode->positions[1].mode, "level");
  EXPECT_EQ(mode->positions[1].guard_us, 200);
  for (const LossLine& l : r.losses)
    if (l.behaviour == OnLoss::hold) EXPECT_FALSE(l.noticed);
}

TEST(Sticks, APositionOnABoundaryGetsRoom) {
  Rig rig = demo("hedgerow");
  Channel& mode = *rig.channel(F::mode);
  mode.positions_us = {1010, 1295, 1990};
  const auto guard = [&](const Rig& of) {
    const SticksReport r = analyze_sticks(of, shipped());
    double least = 1000;
    for (const SwitchLine& s : r.switches)
      for (const SwitchPosition& p : s.positions) least = std::min(least, p.guard_us);
    return least;
  };
  EXPECT_EQ(guard(rig), 5);
  mode.positions_us = {1010, 1400, 1990};
  const Rig even = with_even_boundaries(rig, mode.number);
  EXPECT_NEAR(guard(even), 195, 1);
  EXPECT_EQ(even.modes.size(), 3u);
  EXPECT_EQ(even.modes[1].mode, "level");
}

}  // namespace
}  // namespace rigging
