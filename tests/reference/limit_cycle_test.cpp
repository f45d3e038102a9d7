#include <gtest/gtest.h>

#include <cmath>
#include <deque>

#include "base/angle.h"
#include "flight/limit_cycle.h"
#include "flight/servo.h"

// Gelb and Vander Velde, Multiple-Input Describing Functions: what they say of play and of saturation, against a
// simulation in small steps that knows no describing function.
namespace rigging {
namespace {

struct Swing {
  double amplitude = 0, hz = 0;
};

/// Follows the loop with play behind the servo, and with the correction cut off at `limit`; the swing of what goes into
/// the play, or of the correction before it is cut off, in the last four seconds. A
/// hundredth of a millisecond: near the onset a thousandth of the phase moves the amplitude by a tenth.
Swing simulated(const Loop& l, double play, double limit, double begin) {
  const double h = 1e-5, end = 40;
  std::deque<double> queue(static_cast<std::size_t>(std::lround(l.delay_s / h)), 0.0);
  double rate = begin, filtered = begin, servo = 0, speed = 0, surface = 0, most = 0, last = 0;
  int crossings = 0;
  for (double t = 0; t < end; t += h) {
    const double asked = -l.rate_gain * filtered;
    queue.push_back(std::clamp(asked, -limit, limit));
    const double told = queue.front();
    queue.pop_front();
    speed += h * (told - servo - l.servo_c1_s * speed) / l.servo_c2_s2;
    servo += h * speed;
    surface = std::clamp(surface, servo - play / 2, servo + play / 2);
    rate += h * (l.plant.b0 * surface - l.plant.a0 * rate);
    filtered += h * (rate - filtered) / l.filter_s;
    const double seen = play > 0 ? servo : asked;
    if (t > end - 4) {
      most = std::max(most, std::abs(seen));
      crossings += last < 0 && seen >= 0;
    }
    last = seen;
  }
  return {most, crossings / 4.0};
}

Loop loop(double share_of_onset) {
  Loop l;
  l.plant = RatePlant::roll(-9, 110);
  l.servo(7, 0.7);
  l.lowpass(40);
  l.delay_s = 0.014;
  l.rate_gain = share_of_onset * onset_of(l)->rate_gain;
  return l;
}

TEST(LimitCycle, ACorrectionThatIsCutOffSwingsAsFarAsItSays) {
  for (const double share : {1.3, 1.7, 2.5}) {
    const Loop l = loop(share);
    const auto said = saturation_cycle(l);
    ASSERT_TRUE(said);
    const Swing s = simulated(l, 0, 1, 0.5);
    EXPECT_NEAR(s.amplitude / said->amplitude, 1, 0.1) << share;
    EXPECT_NEAR(s.hz / said->hz, 1, 0.1) << share;
  }
  EXPECT_FALSE(saturation_cycle(loop(0.9)));
}

TEST(LimitCycle, PlayKeepsASwingUpWhereItSaysAndNotBelow) {
  const Loop at_onset = loop(1);
  const auto ceiling = play_ceiling(at_onset);
  ASSERT_TRUE(ceiling);
  EXPECT_LE(*ceiling, 1.001 * at_onset.rate_gain);
  // A first-order roll has too little lag for a swing of its own below its onset.
  Loop calm = at_onset;
  calm.rate_gain = 0.85 * *ceiling;
  EXPECT_FALSE(play_cycle(calm));
  EXPECT_LT(simulated(calm, 0.02, 1e9, 0.5).amplitude, 0.012) << "it comes to rest within its play";
  // Levelling through an integrator is what play makes swing.
  Loop slow;
  slow.plant = RatePlant::roll(0, 60);
  slow.servo(6, 0.7);
  slow.lowpass(30);
  slow.delay_s = 0.02;
  const auto low = play_ceiling(slow);
  ASSERT_TRUE(low);
  const double onset = onset_of(slow)->rate_gain;
  for (const double share : {0.3, 0.6}) {
    slow.rate_gain = *low + share * (onset - *low);
    const auto said = play_cycle(slow);
    const Swing s = simulated(slow, 0.02, 1e9, 1);
    ASSERT_TRUE(said) << share;
    EXPECT_NEAR(s.amplitude / (0.02 * said->amplitude), 1, 0.1) << share;
    EXPECT_NEAR(s.hz / said->hz, 1, 0.1) << share;
  }
}

}  // namespace
}  // namespace rigging
