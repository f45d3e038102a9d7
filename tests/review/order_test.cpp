#include <gtest/gtest.h>

#include "new_aircraft.h"
#include "review/review.h"

namespace rigging {
namespace {

std::size_t first_of(const std::vector<CheckStatus>& all, const std::string& family) {
  const auto is = [&](const CheckStatus& c) { return c.id.family == family; };
  return static_cast<std::size_t>(std::find_if(all.begin(), all.end(), is) - all.begin());
}

std::size_t last_of(const std::vector<CheckStatus>& all, const std::string& family) {
  for (std::size_t i = all.size(); i-- > 0;)
    if (all[i].id.family == family) return i;
  return all.size();
}

// Common practice: what is found early must not throw away what was measured.
TEST(Order, OfTheChecksIsThatOfTheBenchOnEveryKindAndClass) {
  // Whatever stands left comes before whatever stands right, where a rig has both.
  const std::pair<const char*, const char*> keep[] = {
      {"prepare", "lead"},
      {"senses.gyro", "lead"},
      {"lead", "sticks.calibrated"},
      {"sticks.calibrated", "stick"},
      {"senses.wakes", "stick"},
      {"stick", "surfaces.centred"},
      {"stick", "flaps"},
      {"surfaces.centred", "surfaces.throws_equal"},
      {"surfaces.throws_equal", "correction"},
      {"correction", "coordination"},
      {"correction", "mode"},
      {"correction", "senses.level"},
      {"correction", "senses.level_stored"},
      {"correction", "put_back"},
      {"put_back", "feel.first_gains"},
      {"feel.correction_amount", "put_back"},
      {"feel.first_gains", "feel.barely_moves"},
      {"feel.barely_moves", "sticks.loss_noticed"},
      {"sticks.loss_noticed", "home.loss"},
      {"home.loss", "senses.fix"},
      {"senses.fix", "home.arming"},
      {"home.low_battery", "home.range"},
  };
  std::size_t kept = 0;
  for (const auto& [kind, word] : Names<AirframeKind>::list)
    for (const ControllerClass& c : shipped().controllers) {
      const auto begun = begin_rig(shipped(), new_aircraft(c.id, kind));
      ASSERT_TRUE(begun) << word << " " << c.id;
      const std::vector<CheckStatus> all = check_statuses(begun->rig, shipped());
      for (const auto& [before, after] : keep)
        if (const std::size_t a = last_of(all, before), b = first_of(all, after); a < all.size() && b < all.size()) {
          EXPECT_LT(a, b) << word << " " << c.id << ": " << before << " before " << after;
          ++kept;
        }
      // The loss is tried once for all that want it.
      if (const std::size_t noticed = first_of(all, "sticks.loss_noticed"), planned = first_of(all, "home.loss");
          noticed < all.size() && planned < all.size())
        EXPECT_EQ(noticed + 1, planned) << word << " " << c.id;
    }
  EXPECT_GT(kept, 1000u);
}

// A family that nobody has put into the order would come last, after what is seen in the field.
TEST(Order, HasAPlaceForEveryFamily) {
  const std::vector<const CheckFamily*> all = check_families();
  ASSERT_FALSE(all.empty());
  EXPECT_EQ(all.back()->id, "home.range");
}

}  // namespace
}  // namespace rigging
