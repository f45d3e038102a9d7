#include "bench/last_move.h"

#include <gtest/gtest.h>

namespace rigging::app {
namespace {

hands::Sight banked(double roll_deg, double elevon_deg) {
  hands::Sight s;
  s.roll_deg = roll_deg;
  s.deflections[Surface{SurfaceKind::elevon, Side::left}] = elevon_deg;
  return s;
}

TEST(LastMove, KeepsAMoveFromRestToRest) {
  LastMove move;
  EXPECT_EQ(move.at(0), nullptr);
  qint64 ms = 1000;
  for (; ms < 3000; ms += 40) move.see(ms, banked(0, 0));
  EXPECT_FALSE(move.any()) << "nothing has moved";
  // A flick of a fifth of a second, then rest.
  for (int i = 1; i <= 5; ++i, ms += 40) move.see(ms, banked(4.0 * i, -i));
  for (int i = 5; i >= 0; --i, ms += 40) move.see(ms, banked(4.0 * i, -i));
  EXPECT_FALSE(move.any()) << "it may go on";
  for (const qint64 until = ms + 1000; ms < until; ms += 40) move.see(ms, banked(0, 0));
  ASSERT_TRUE(move.any());
  ASSERT_TRUE(move.at(0));
  EXPECT_EQ(move.at(0)->roll_deg, 0) << "begins at rest";
  double most = 0, least = 0;
  qint64 last = 0;
  for (qint64 t = 0; move.at(t); t += 10) {
    most = std::max(most, move.at(t)->roll_deg);
    least = std::min(least, move.at(t)->deflections.begin()->second);
    last = t;
  }
  EXPECT_EQ(most, 20);
  EXPECT_EQ(least, -5) << "with what the surface did";
  EXPECT_GT(last, 400);
  EXPECT_LT(last, 1400) << "it does not wait for hours of rest";
  // The next move replaces it.
  for (int i = 0; i < 60; ++i, ms += 40) move.see(ms, banked(i < 10 ? -3.0 * i : 0, 0));
  double turned = 0;
  for (qint64 t = 0; move.at(t); t += 10) turned = std::min(turned, move.at(t)->roll_deg);
  EXPECT_EQ(turned, -27);
}

}  // namespace
}  // namespace rigging::app
