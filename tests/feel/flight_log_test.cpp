#include "feel/flight_log.h"

#include <gtest/gtest.h>

#include "base/angle.h"
#include "base/csv.h"
#include "bench_rig.h"
#include "feel/edits.h"

namespace rigging {
namespace {

/// Another program's way of keeping a flight, with words in a column that nobody asked for.
std::string foreign() {
  std::string text = "Time(ms),Gyro roll,gyro pitch,State,Stick roll\n";
  for (int i = 0; i < 300; ++i)
    text += std::to_string(20 * i) + ",0.5,0.1,flying," + std::to_string(1500 + i % 2 * 250) + "\n";
  return text;
}

TEST(FlightLog, ColumnsOfAnotherProgramAreToldOnceWithTheirUnits) {
  EXPECT_FALSE(parse_flight_log(foreign(), "log"));
  const auto heading = heading_of(foreign());
  EXPECT_EQ(likely_column("t_s", heading), "Time(ms)");
  EXPECT_EQ(likely_column("roll_rate_deg_s", heading), "Gyro roll");
  EXPECT_EQ(likely_column("pitch_rate_deg_s", heading), "gyro pitch");
  EXPECT_EQ(likely_column("roll_stick", heading), "Stick roll");
  EXPECT_EQ(likely_column("yaw_rate_deg_s", heading), std::nullopt);
  const auto unit = [](const char* meaning, const char* name) {
    for (const LogUnit& u : log_units(meaning))
      if (u.name == name) return u;
    ADD_FAILURE() << name;
    return LogUnit{};
  };
  const LogUnit ms = unit("t_s", "milliseconds"), radians = unit("roll_rate_deg_s", "radians a second"),
                pulse = unit("roll_stick", "pulse, µs");
  const auto told =
      with_log_columns(demo("hedgerow"), {{"t_s", "Time(ms)", ms.offset, ms.factor, {}},
                                          {"roll_rate_deg_s", "Gyro roll", radians.offset, radians.factor, {}},
                                          {"roll_stick", "Stick roll", pulse.offset, pulse.factor, {}}});
  ASSERT_TRUE(told);
  const auto log = parse_flight_log(foreign(), "log", told->rig.feel.log_columns);
  ASSERT_TRUE(log) << log.error().text();
  EXPECT_NEAR(log->step_s, 0.02, 1e-9);
  EXPECT_NEAR(log->of(Axis::roll).rate_deg_s[10], 0.5 / rad, 1e-6);
  EXPECT_NEAR(log->of(Axis::roll).stick[1], 0.5, 1e-9);
  EXPECT_TRUE(log->of(Axis::pitch).rate_deg_s.empty()) << "nothing was said of it";
  EXPECT_FALSE(with_log_columns(demo("hedgerow"), {{"t_s", "Time(ms)", 0, 1, {}}}));
  const auto missing = parse_flight_log("Time(ms),roll\n1,2\n", "log", told->rig.feel.log_columns);
  ASSERT_FALSE(missing);
  EXPECT_EQ(missing.error().text(), "log: column \"Gyro roll\" is missing; expected Time(ms), roll");
}

TEST(FlightLog, EveryMeaningHasUnitsOfWhichTheFirstIsRiggingsOwn) {
  for (const std::string& meaning : log_meanings()) {
    ASSERT_FALSE(log_units(meaning).empty());
    EXPECT_EQ(log_units(meaning).front().factor, 1) << meaning;
    EXPECT_EQ(log_units(meaning).front().offset, 0) << meaning;
    EXPECT_FALSE(meaning_label(meaning).empty());
  }
}

}  // namespace
}  // namespace rigging
