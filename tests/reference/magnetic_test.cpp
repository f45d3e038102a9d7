#include <gtest/gtest.h>

#include <cmath>

#include "base/csv.h"
#include "base/file.h"
#include "earth/magnetic_model.h"
#include "places.h"

namespace rigging {
namespace {

const std::filesystem::path source(in_source(""));
const MagneticModel& model() {
  static const MagneticModel m = *MagneticModel::load(source / "data/magnetic/wmm2025.csv");
  return m;
}

// Source: published test values of the World Magnetic Model 2025, NOAA NCEI and British Geological Survey.
TEST(MagneticModel, AgreesWithThePublishedValues) {
  const auto table = parse_number_table(*read_file(source / "tests/reference/data/wmm2025-test-values.csv"), "values");
  ASSERT_TRUE(table) << table.error().text();
  ASSERT_GT(table->rows.size(), 40u);
  for (const auto& row : table->rows) {
    const auto cell = [&](const char* name) { return row[static_cast<std::size_t>(table->column(name))]; };
    const auto f = model().field(cell("lat_deg"), cell("lon_deg"), cell("alt_km"), cell("date"));
    ASSERT_TRUE(f) << f.error().text();
    // The aim is 0.1 nT; what is left comes from the rounding of the reference radius and flattening. Angles are
    // printed to 0.01°.
    EXPECT_NEAR(f->north_nT, cell("north_nT"), 1e-3);
    EXPECT_NEAR(f->east_nT, cell("east_nT"), 1e-3);
    EXPECT_NEAR(f->down_nT, cell("down_nT"), 1e-3);
    EXPECT_NEAR(f->horizontal_nT, cell("horizontal_nT"), 1e-3);
    EXPECT_NEAR(f->total_nT, cell("total_nT"), 1e-3);
    EXPECT_NEAR(f->inclination_deg, cell("inclination_deg"), 0.00501);
    EXPECT_NEAR(f->declination_deg, cell("declination_deg"), 0.00501);
  }
}

TEST(MagneticModel, HoldsAtThePolesAndRefusesBeyondItsRange) {
  for (const double pole : {90.0, -90.0}) {
    const auto at = model().field(pole, 30, 0, 2026), near = model().field(pole * (1 - 1e-9), 30, 0, 2026);
    ASSERT_TRUE(at && near);
    EXPECT_NEAR(at->north_nT, near->north_nT, 0.1);
    EXPECT_NEAR(at->east_nT, near->east_nT, 0.1);
  }
  EXPECT_NEAR(model().field(50, -10, 0, 2027)->declination_deg, model().field(50, 350, 0, 2027)->declination_deg, 1e-9);
  EXPECT_TRUE(model().field(0, 0, 0, 2025.0));
  EXPECT_TRUE(model().field(0, 0, 0, 2030.0));
  EXPECT_FALSE(model().field(0, 0, 0, 2024.99));
  EXPECT_FALSE(model().field(0, 0, 0, 2030.01));
  EXPECT_FALSE(model().field(90.1, 0, 0, 2026));
  EXPECT_FALSE(model().field(0, 361, 0, 2026));
  EXPECT_FALSE(model().field(0, 0, 1000, 2026));
  EXPECT_FALSE(model().field(std::nan(""), 0, 0, 2026));
}

TEST(MagneticModel, DatesAreDecimalYears) {
  EXPECT_DOUBLE_EQ(*decimal_year("2026-01-01"), 2026);
  EXPECT_NEAR(*decimal_year("2026-07-02"), 2026 + 182 / 365.0, 1e-12);
  EXPECT_NEAR(*decimal_year("2028-12-31"), 2028 + 365 / 366.0, 1e-12);
  EXPECT_DOUBLE_EQ(*decimal_year("2026.5"), 2026.5);
  for (const char* bad : {"", "soon", "2026-13-01", "2026-02-29", "2026-1-1", "2026.5x", "nan", "2026-0a-01"})
    EXPECT_FALSE(decimal_year(bad)) << bad;
}

TEST(NumberTable, SaysLineAndColumn) {
  const auto table = parse_number_table("# c\na,b\n1,2\n\n3, 4 \r\n", "t");
  ASSERT_EQ(table->rows.size(), 2u);
  EXPECT_EQ(table->rows[0][1], 2);
  EXPECT_EQ(table->rows[1][0], 3);
  EXPECT_EQ(table->rows[1][1], 4);
  std::string wide = "c0";
  for (int i = 1; i < 100'000; ++i) wide += ",c" + std::to_string(i);
  EXPECT_EQ(parse_number_table(wide + "\n", "t").error().text(),
            "t:1: has more than 2000 columns; expected a log or a table");
  EXPECT_EQ(heading_of(wide).size(), most_columns);
  EXPECT_EQ(parse_number_table("a,b,a\n", "t").error().text(),
            "t:1: column \"a\" stands twice; expected every column once");
  EXPECT_EQ(parse_number_table("a,b\n1,x\n", "t").error().text(), "t:2: \"x\" in column b; expected a number");
  EXPECT_EQ(parse_number_table("a,b\n1\n", "t").error().where, "t:2");
  EXPECT_FALSE(parse_number_table("a\ninf\n", "t"));
  EXPECT_FALSE(parse_number_table("# only a comment\n", "t"));
}

}  // namespace
}  // namespace rigging
