#include "feel/gain_scale.h"

#include <gtest/gtest.h>

#include "bench_rig.h"

namespace rigging {
namespace {

GainScale scale(const char* kind, std::optional<double> half = {}) { return {*shipped().controller(kind), half}; }

TEST(GainScale, ADialDoesFarMoreInItsSecondHalf) {  // common practice
  const GainScale dial = scale("inline_dial");
  EXPECT_EQ(dial.effect(0), 0);
  EXPECT_NEAR(dial.effect(0.5), 0.2, 1e-12);
  EXPECT_NEAR(dial.effect(1), 1, 1e-12);
  EXPECT_NEAR(scale("inline_dial", 0.5).effect(0.3), 0.3, 1e-12) << "even, when the builder found it so";
  for (double place = 0.05; place <= 1; place += 0.05) EXPECT_NEAR(dial.place_for(dial.effect(place)), place, 1e-9);
  EXPECT_GT(dial.place_for(2), 1) << "more than the dial can";
}

TEST(GainScale, PlacesAreSpokenAndReadAsTheClassSetsThem) {
  const GainScale dial = scale("inline_dial");
  EXPECT_EQ(dial.words(0), "7 o'clock");
  EXPECT_EQ(dial.words(0.5), "12 o'clock");
  EXPECT_EQ(dial.words(1), "5 o'clock");
  EXPECT_EQ(dial.words(0.25), "half past 9");
  EXPECT_EQ(dial.words(0.575), "quarter to 1");
  for (const char* typed : {"half past 9", "9:30", "9.5", "9,5", " 9:30 "})
    EXPECT_NEAR(*dial.read(typed), 0.25, 1e-9) << typed;
  EXPECT_NEAR(*dial.read("5"), 1, 1e-9);
  EXPECT_NEAR(*dial.read("1 o'clock"), 0.6, 1e-9);
  for (const char* typed : {"6", "5:30", "noon", "", "nan", "13:99"}) EXPECT_FALSE(dial.read(typed)) << typed;
  EXPECT_NEAR(dial.rounded_down(0.26), 0.25, 1e-9) << "a hand sets quarters of an hour";

  const GainScale two_sided = scale("inline_level");
  EXPECT_EQ(two_sided.words(0), "the middle");
  EXPECT_NEAR(*two_sided.read("2:30"), 0.5, 1e-9);
  EXPECT_NEAR(*two_sided.read("9:30"), 0.5, 1e-9) << "as far to the other side";

  const GainScale percent = scale("full_controller");
  EXPECT_EQ(percent.words(0.35), "35 %");
  EXPECT_NEAR(*percent.read("35 %"), 0.35, 1e-9);
  EXPECT_NEAR(*percent.read("12,5 %"), 0.125, 1e-9);
  EXPECT_EQ(percent.words(0.125), "12.5 %") << "what was typed is what is shown";
  EXPECT_EQ(percent.words(0.12), "12 %");
  EXPECT_FALSE(percent.read("101"));
  EXPECT_FALSE(percent.read("-1"));

  const GainScale number = scale("screen_keys");
  EXPECT_EQ(number.words(0.5), "20");
  EXPECT_NEAR(*number.read("20"), 0.5, 1e-9);

  const GainScale strengths = scale("gesture_board");
  EXPECT_EQ(strengths.words(*strengths.read("gentle")), "gentle");
  EXPECT_NEAR(strengths.effect(*strengths.read("gentle")), 0.45, 1e-9);
  EXPECT_EQ(strengths.effect(*strengths.read("off")), 0);

  const GainScale linkage = scale("fixed_mini");
  EXPECT_FALSE(linkage.settable());
  EXPECT_EQ(linkage.effect(0.2), 1);
  EXPECT_FALSE(linkage.read("10"));
}

TEST(GainScale, EveryPlaceOfEveryClassIsReadBackFromItsWords) {
  for (const ControllerClass& c : shipped().controllers) {
    const GainScale s(c, {});
    if (!s.settable()) continue;
    for (double place = 0; place <= 1 + 1e-9; place += s.step()) {
      std::string words = s.words(place);
      words = words.substr(0, words.find(','));
      const auto back = s.read(words);
      ASSERT_TRUE(back) << c.id << ": " << words;
      EXPECT_NEAR(*back, place, 1e-9) << c.id << ": " << words;
    }
  }
}

}  // namespace
}  // namespace rigging
