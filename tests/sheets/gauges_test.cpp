#include <gtest/gtest.h>

#include <cmath>
#include <regex>

#include "base/number.h"
#include "bench_rig.h"
#include "sheets/gauge_sheets.h"

namespace rigging {
namespace {

struct Stroke {
  double x1, y1, x2, y2;
  double length() const { return std::hypot(x2 - x1, y2 - y1); }
};

std::vector<Stroke> strokes(const std::string& svg) {
  std::vector<Stroke> all;
  const std::regex line("<line x1=\"([-0-9.]+)\" y1=\"([-0-9.]+)\" x2=\"([-0-9.]+)\" y2=\"([-0-9.]+)\"");
  for (std::sregex_iterator it(svg.begin(), svg.end(), line), end; it != end; ++it)
    all.push_back(
        {*number_of((*it).str(1)), *number_of((*it).str(2)), *number_of((*it).str(3)), *number_of((*it).str(4))});
  return all;
}

TEST(Gauges, PagesAreMillimetresAndCarryARuler) {
  const auto pages = gauge_sheets_svg({demo("hedgerow"), shipped()});
  ASSERT_EQ(pages.size(), 2u) << "wedge and marks; a gauge for the flaperons and one for the tail on one page";
  for (const std::string& page : pages) {
    EXPECT_NE(page.find("width=\"210mm\" height=\"297mm\""), std::string::npos) << page.substr(0, 200);
    EXPECT_NE(page.find("viewBox=\"0 0 210 297\""), std::string::npos);
    const auto all = strokes(page);
    EXPECT_EQ(std::count_if(all.begin(), all.end(),
                            [](const Stroke& s) { return s.y1 == s.y2 && std::abs(s.length() - 150) < 1e-9; }),
              1)
        << "the ruler";
  }
}

TEST(Gauges, TheWedgeHasTheAngle) {
  Rig rig = demo("hedgerow");
  rig.sensing.level_nose_up_deg = 4;
  bool found = false;
  for (const Stroke& s : strokes(gauge_sheets_svg({rig, shipped()})[0]))
    if (s.length() > 100 && s.y1 != s.y2) {
      EXPECT_NEAR(std::atan2(s.y1 - s.y2, s.x2 - s.x1) * 57.29578, 4 + rig.airframe.incidence_deg, 0.02);
      found = true;
    }
  EXPECT_TRUE(found);
}

// A tick for 20° on a gauge of 50 mm stands where a protractor and a ruler put it: 2 · 50 · sin 10° = 17.36 mm from the
// tick of 0°.
TEST(Gauges, DegreesAndMillimetresAgree) {
  Rig rig = demo("hedgerow");
  for (Linkage& l : rig.linkages) l.chord_m = 0.05;
  const auto pages = gauge_sheets_svg({rig, shipped()});
  ASSERT_EQ(pages.size(), 2u) << "one chord, one gauge";
  // Its upper left corner stands 44 mm down; words take 16 of them, half of the arc with its numbers the rest.
  const double radius = 53, cx = 23, cy = 44 + 16 + 60 * std::sin(40 / 57.29578) + 2, tick = 9 * radius / 60;
  int seen = 0;
  for (const Stroke& s : strokes(pages[1]))
    for (const double deg : {-20.0, 0.0, 20.0})
      if (std::abs(s.length() - tick) < 0.01 && std::hypot(s.x1 - (cx + radius * std::cos(deg / 57.29578)),
                                                           s.y1 - (cy - radius * std::sin(deg / 57.29578))) < 0.01)
        ++seen;
  EXPECT_EQ(seen, 3);
}

TEST(Gauges, ABroadSurfaceSaysThatItIsReadNearer) {
  Rig rig = demo("hedgerow");
  rig.linkages[0].chord_m = 0.4;
  bool said = false;
  for (const std::string& page : gauge_sheets_svg({rig, shipped()}))
    said = said || page.find("Too long for this paper") != std::string::npos;
  EXPECT_TRUE(said);
}

}  // namespace
}  // namespace rigging
