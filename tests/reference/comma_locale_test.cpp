#include <gtest/gtest.h>

#include <clocale>
#include <cstdlib>

// Numbers that are written, hashed or compared go through no locale. The test presets run everything under one that
// writes a comma; this is where that locale comes into force.
namespace {

const bool in_force = std::setlocale(LC_ALL, "") != nullptr;

TEST(CommaLocale, IsInForceWhereItIsAskedFor) {
  if (const char* asked = std::getenv("RIGGING_COMMA_LOCALE"); asked && *asked) {
    EXPECT_TRUE(in_force);
    EXPECT_STREQ(std::localeconv()->decimal_point, ",");
  } else {
    EXPECT_STREQ(std::localeconv()->decimal_point, ".");
  }
}

}  // namespace
