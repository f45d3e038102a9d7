#include <gtest/gtest.h>

#include <cmath>
#include <set>

#include "bench_builder.h"
#include "look/literals.h"
#include "rig/rig_file.h"
#include "sheets/wiring_sheets.h"
#include "stations/power/power_page.h"

namespace rigging::app {
namespace {

TEST_F(Planning, WhatIfsShowAndChangeNothing) {
  b.window.go(Station::power);
  const Rig before = rig();
  auto* page = b.window.findChild<PowerPage*>();
  EXPECT_TRUE(text("power_verdicts").contains(u"holds"_s));
  EXPECT_TRUE(text("power_explained").contains(u"On USB alone"_s));
  for (const char* button : {"supply_state_usb", "supply_state_both", "supply_state_battery", "effort_idle",
                             "effort_two_stalled", "one_more_cell", "pull_esc"})
    ASSERT_TRUE(b.click(QLatin1String(button))) << button;
  EXPECT_EQ(page->what_if().more_cells, 1);
  EXPECT_EQ(page->what_if().without, std::vector<std::string>{"esc"});
  EXPECT_TRUE(text("power_figures").contains(u"21 V"_s)) << text("power_figures").toStdString();
  ASSERT_TRUE(b.click(u"as_it_is"_s));
  EXPECT_EQ(page->what_if().more_cells, 0);
  // A click on a servo's river stalls it; another lets it go.
  auto* rivers = b.find<RiversView>(u"rivers_view"_s);
  rivers->repaint();
  rivers->grab();
  bool stalled = false;
  for (int y = 10; y < rivers->height() && !stalled; y += 8) {
    QTest::mouseClick(rivers, Qt::LeftButton, {}, QPoint(rivers->width() - 100, y));
    stalled = !page->what_if().stalled.empty();
  }
  EXPECT_TRUE(stalled);
  EXPECT_EQ(rig(), before);
  ASSERT_TRUE(b.click(u"power_working"_s));
  EXPECT_TRUE(b.find<QPushButton>(u"power_working"_s)->text().contains(u"Hide"_s));
}

TEST_F(Planning, AnOverloadedRailIsSaidWithAdvice) {
  Rig heavy = rig();
  for (Part& p : heavy.parts) {
    if (p.kind == "servo_12g_metal") p.kind = "servo_25g_high_voltage";
    if (p.id == "esc") p.kind = "esc_30_switching";
  }
  b.window.document().edit(heavy, u"heavy servos"_s);
  b.window.go(Station::power);
  EXPECT_TRUE(text("power_verdicts").contains(u"too much"_s));
  EXPECT_TRUE(text("power_advice").contains(u"second regulator"_s));
}

}  // namespace
}  // namespace rigging::app
