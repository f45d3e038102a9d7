#include "fit/outside.h"

#include <gtest/gtest.h>

#include <algorithm>

#include "airframe/airframe.h"
#include "begin/begin.h"
#include "bench_rig.h"
#include "new_aircraft.h"
#include "review/review.h"

namespace rigging {
namespace {

/// Distances by Pythagoras.
TEST(Outside, HowFarARoomStandsClear) {
  Panel square;
  square.corners = {Point(0, -0.1, 0), Point(0, 0.1, 0), Point(-0.2, 0.1, 0), Point(-0.2, -0.1, 0)};
  const Airframe none;
  const auto clear = [&](Point middle) {
    const Point half(0.01, 0.01, 0.01);
    return clear_of_aircraft({square}, none, {middle - half, middle + half});
  };
  EXPECT_DOUBLE_EQ(clear({-0.1, 0, 0}), 0);
  EXPECT_NEAR(clear({-0.1, 0.41, 0}), 0.3, 1e-12);
  EXPECT_NEAR(clear({0.31, 0.51, 0}), 0.5, 1e-12);  // 0.3 ahead, 0.4 beside
  EXPECT_GT(clear({-0.1, 0, -3}), 2);
  EXPECT_EQ(clear_of_aircraft({}, none, {Point(5, 5, 5), Point(6, 6, 6)}), 0);
}

/// What stands outside is put back by its fix, and nothing else moves.
TEST(Outside, ItsFixPutsItWhereItUsuallySits) {
  Rig rig = demo("hedgerow");
  rig.mounting("battery")->x_m = -4;
  const Review checked = review(rig, shipped());
  const auto snag =
      std::find_if(checked.snags.begin(), checked.snags.end(), [](const Snag& s) { return s.code == "FIT-26"; });
  ASSERT_NE(snag, checked.snags.end());
  EXPECT_EQ(snag->subject, "battery");
  ASSERT_TRUE(snag->fix);
  const auto put = snag->fix->edit(rig, shipped());
  ASSERT_TRUE(put);
  for (const Mounting& m : put->rig.mountings)
    if (m.part != "battery") EXPECT_EQ(m, *rig.mounting(m.part)) << m.part;
  for (const Snag& s : review(put->rig, shipped()).snags) EXPECT_NE(s.code, "FIT-26") << s.what;
}

/// Nothing that a beginning places is said to stand outside, whatever the kind, the class and the end of the propeller.
TEST(Outside, NoUsualPlaceIsOutside) {
  int rigs = 0;
  for (const auto& [kind, word] : Names<AirframeKind>::list)
    for (const ControllerClass& c : shipped().controllers)
      for (const PropellerSide side : {PropellerSide::tractor, PropellerSide::pusher}) {
        NewAircraft b = new_aircraft(c.id, kind);
        b.propeller = side;
        const auto begun = begin_rig(shipped(), b);
        if (!begun) continue;
        ++rigs;
        for (const Clash& clash : find_clashes(begun->rig, shipped()))
          EXPECT_NE(clash.what, Clash::What::outside) << word << ", " << c.id << ": " << clash.words;
      }
  EXPECT_GT(rigs, 150);
}

}  // namespace
}  // namespace rigging
