#include "airframe/proportions.h"

#include <gtest/gtest.h>

#include "airframe/airframe.h"
#include "airframe/edits.h"
#include "airframe/kinds.h"
#include "bench_rig.h"
#include "feel/feel.h"

namespace rigging {
namespace {

// Common practice: a beginning that looks and flies like its kind. The drawing holds together, the wing does not end
// behind the tail, the neutral point lies on the aircraft, and it stalls at a speed that models have.
TEST(Proportions, EveryKindAtEverySizeHoldsTogether) {
  for (const auto& [kind, name] : Names<AirframeKind>::list)
    for (const double span : {0.4, 0.7, 1.2, 2.4, 6.0}) {
      Rig rig;
      rig.airframe = usual_airframe(kind, span);
      const Airframe& a = rig.airframe;
      EXPECT_LT(a.wing_at_m + a.root_chord_m, a.length_m * 1.01) << name;
      const AirframeReport r = analyze_airframe(rig);
      EXPECT_GT(r.neutral_point.value, 0) << name;
      EXPECT_LT(r.neutral_point.value, a.length_m) << name;
      ASSERT_TRUE(r.stall_speed) << name;
      EXPECT_GT(r.stall_speed->value, 3) << name << " " << span;
      EXPECT_LT(r.stall_speed->value, 26) << name << " " << span;
    }
}

/// A rig that is begun comes back into the wind by itself, whatever its body does: the lower edge of the band counts.
TEST(Proportions, FinsSufficeOnEveryKind) {
  for (const auto& [kind, name] : Names<AirframeKind>::list)
    for (const double span : {0.5, 0.9, 1.4, 2.4, 4.0})
      for (const double heavier : {0.7, 1.0, 1.5}) {
        Rig rig = fresh_rig("A", kind, "full_controller");
        rig.airframe = usual_airframe(kind, span);
        rig.airframe.mass_kg = heavier * *rig.airframe.mass_kg;
        const FeelReport r = analyze_feel({rig, shipped()});
        ASSERT_EQ(r.missing, "") << name;
        EXPECT_GT(r.aeroplane.stability.yaw_beta.least, 0) << name << " " << span << " m";
        EXPECT_LT(r.aeroplane.stability.yaw_beta.value, 0.25)
            << name << ": no fin on a model is as large as that asks for";
      }
}

TEST(Proportions, GuessesFollowUntilTheyAreMeasured) {
  Rig rig = fresh_rig("A", AirframeKind::flying_wing, "full_controller");
  rig.airframe = usual_airframe(AirframeKind::flying_wing, 1.2);
  const double chord = rig.airframe.root_chord_m, kg = *rig.airframe.mass_kg;
  rig = measure(rig, "span_m", 2.4)->rig;
  EXPECT_NEAR(rig.airframe.root_chord_m, 2 * chord, 0.002);
  EXPECT_NEAR(*rig.airframe.mass_kg, 8 * kg, 0.06 * 8 * kg) << "as the cube of the size";
  rig = measure(rig, "root_chord_m", 0.5)->rig;
  rig = measure(rig, "mass_kg", 2.0)->rig;
  EXPECT_NEAR(rig.airframe.tip_chord_m / rig.airframe.root_chord_m, 0.16 / 0.28, 0.01) << "the tip follows the root";
  rig = measure(rig, "span_m", 1.2)->rig;
  EXPECT_EQ(rig.airframe.root_chord_m, 0.5) << "measured is measured";
  EXPECT_EQ(rig.airframe.mass_kg, 2.0);
  // Any other way of typing it makes it a measure, too.
  const auto edit = set_value(rig, "airframe/tip_chord_m", Json(0.3));
  ASSERT_TRUE(edit);
  const auto& guessed = edit->rig.airframe.guessed;
  EXPECT_EQ(std::count(guessed.begin(), guessed.end(), "tip_chord_m"), 0);
  EXPECT_EQ(std::count(guessed.begin(), guessed.end(), "sweep_deg"), 1);
  EXPECT_FALSE(measure(rig, "wing_colour", 3.0));
  EXPECT_FALSE(measure(rig, "span_m", 300.0));
}

TEST(Proportions, OnlyWhatTheKindHasIsCalledAGuess) {
  const auto has = [](AirframeKind kind, const std::string& what) {
    const auto names = guesses_of(usual_airframe(kind, 1));
    return std::find(names.begin(), names.end(), what) != names.end();
  };
  EXPECT_FALSE(has(AirframeKind::flying_wing, "tail span"));
  EXPECT_TRUE(has(AirframeKind::two_ailerons, "tail span"));
  EXPECT_FALSE(has(AirframeKind::two_ailerons, "V-tail angle"));
  EXPECT_TRUE(has(AirframeKind::v_tail, "V-tail angle"));
  EXPECT_TRUE(guesses_of(demo("hedgerow").airframe).empty());
}

}  // namespace
}  // namespace rigging
