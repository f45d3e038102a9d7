#include "language/typed.h"

#include <gtest/gtest.h>

#include <cmath>

namespace rigging {
namespace {

// International yard and pound (1959): an inch is 25.4 mm, a pound 453.59237 g, exactly.
TEST(Typed, TheUnitIsUnderstood) {
  struct Case {
    const char *typed, *unit;
    double value;
  };
  for (const Case& c : std::initializer_list<Case>{{"1200", "mm", 1200},
                                                   {"1.2 m", "mm", 1200},
                                                   {"1,2 m", "mm", 1200},
                                                   {"1.2m", "m", 1.2},
                                                   {"48 in", "mm", 1219.2},
                                                   {"48\"", "mm", 1219.2},
                                                   {"4 ft", "m", 1.2192},
                                                   {"4ft 6in", "m", 1.3716},
                                                   {"4' 6\"", "mm", 1371.6},
                                                   {"-5 mm", "mm", -5},
                                                   {"−5", "mm", -5},
                                                   {"1.1 kg", "g", 1100},
                                                   {"2 lb 3 oz", "g", 992.2333},
                                                   {"60 km/h", "m/s", 16.66667},
                                                   {"3 deg", "°", 3},
                                                   {"3°", "°", 3},
                                                   {"2200 mAh", "Ah", 2.2},
                                                   {"20 %", "%", 20},
                                                   {"9.5 N·cm", "N·cm", 9.5}}) {
    const auto value = typed_number(c.typed, c.unit);
    ASSERT_TRUE(value) << c.typed << ": " << value.error().text();
    EXPECT_NEAR(*value, c.value, 1e-4) << c.typed;
  }
}

TEST(Typed, WhatIsNotUnderstoodSaysWhy) {
  for (const auto& [typed, unit] : {std::pair{"", "mm"},
                                    {"wide", "mm"},
                                    {"1.2 kg", "mm"},
                                    {"1.2 furlong", "mm"},
                                    {"1.2.3", "mm"},
                                    {"nan", "mm"},
                                    {"1 2", "mm"},
                                    {"4 ft 6", "mm"},
                                    {"3 m", "µs"},
                                    {"1e999", "mm"}}) {
    const auto value = typed_number(typed, unit);
    ASSERT_FALSE(value) << typed;
    EXPECT_NE(value.error().text().find(unit), std::string::npos) << value.error().text();
  }
}

}  // namespace
}  // namespace rigging
