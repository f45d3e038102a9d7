#include <gtest/gtest.h>

#include <clocale>
#include <cstdlib>

// Numbers that are written, hashed or compared go through no locale. The whole suite is run once more under one that
// writes a comma (CommaLocale.* in CMakeLists.txt); this is where that locale comes into force.
namespace {

const bool in_force = std::setlocale(LC_ALL, "") != nullptr;

TEST(CommaLocale, IsInForceWhereItIsAskedFor) {
  if (std::getenv("RIGGING_COMMA_LOCALE")) {
    EXPECT_TRUE(in_force);
    EXPECT_STREQ(std::localeconv()->decimal_point, ",");
  } else {
    EXPECT_STREQ(std::localeconv()->decimal_point, ".");
  }
}

}  // namespace
