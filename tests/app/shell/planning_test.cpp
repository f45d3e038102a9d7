#include <gtest/gtest.h>

#include <QDoubleSpinBox>
#include <QLabel>
#include <QTableWidget>
#include <cmath>
#include <set>

#include "bench_builder.h"
#include "look/literals.h"
#include "look/look.h"
#include "look/units.h"
#include "places.h"
#include "rig/rig_file.h"
#include "sheets/wiring_sheets.h"
#include "stations/fit/fit_page.h"
#include "stations/power/power_page.h"
#include "stations/wiring/wiring_page.h"

namespace rigging::app {
namespace {

TEST_F(Planning, SnagsTakeOneThere) {
  for (const auto& [station, subject] : {std::pair{Station::fit, "battery"},
                                         {Station::power, "servo_flaperon_left"},
                                         {Station::wiring, "gps"},
                                         {Station::wiring, "out_1"},
                                         {Station::fit, "frame"}}) {
    b.window.go(station);
    for (StationPage* page : b.window.findChildren<StationPage*>())
      if (page->isVisible()) page->go_to(QLatin1String(subject));
  }
  EXPECT_FALSE(b.find<WiringView>(u"wiring_view"_s)->traced().empty());
  EXPECT_EQ(b.window.findChild<PowerPage*>()->what_if().stalled, std::vector<std::string>{"servo_flaperon_left"});
}

TEST_F(Planning, UnitsAndThemesReachTheNewStations) {
  for (const Theme theme : {Theme::dark, Theme::field, Theme::paper}) {
    Style::instance().set_theme(theme);
    for (const Station s : {Station::fit, Station::power, Station::wiring}) {
      b.window.go(s);
      EXPECT_FALSE(b.window.grab().isNull());
    }
  }
  set_unit_system(UnitSystem::imperial);
  b.window.go(Station::fit);
  b.find<FitPage>({})->go_to(u"battery"_s);
  auto* behind = b.find<QDoubleSpinBox>(u"behind_nose"_s);
  EXPECT_NEAR(behind->value(), 0.17 / 0.0254, 0.01);
  behind->setValue(7);
  EXPECT_NEAR(rig().mounting("battery")->x_m, -7 * 0.0254, 1e-9);
  b.window.go(Station::wiring);
  auto* table = b.find<QTableWidget>(u"loom"_s);
  EXPECT_TRUE(table->item(0, 4)->text().endsWith(u"in"_s)) << table->item(0, 4)->text().toStdString();
  const std::string lead = table->item(0, 0)->data(Qt::UserRole).toString().toStdString();
  table->item(0, 4)->setText(u"10"_s);
  EXPECT_NEAR(*rig().lead(lead)->length_m, 0.254, 1e-9);
  set_unit_system(UnitSystem::metric);
}

TEST_F(Planning, TheAskBoxKnowsLeadsAndSheets) {
  int where = 0, print = 0, plan = 0;
  for (const NamedAction& d : b.window.named_actions()) {
    const bool plugged = fit_of(u"where is satellite receiver plugged"_s, d) > 0;
    where += plugged;
    if (plugged && where == 1) d.act();
    print += fit_of(u"print plug list"_s, d) > 0;
    plan += fit_of(u"plan wiring"_s, d) > 0;
  }
  EXPECT_GE(where, 1);
  EXPECT_GE(print, 1);
  EXPECT_GE(plan, 1);
  EXPECT_EQ(b.window.station(), Station::wiring);
  EXPECT_EQ(b.find<WiringView>(u"wiring_view"_s)->traced(), "gps");
}

TEST_F(Planning, EveryStationStandsAtTheSmallestSize) {
  for (const Station s : all_stations()) {
    b.window.go(s);
    b.window.resize(1024, 700);
    QApplication::processEvents();
    EXPECT_LE(b.window.minimumSizeHint().width(), 1024) << name_of(s);
    EXPECT_LE(b.window.minimumSizeHint().height(), 700) << name_of(s);
  }
}

TEST_F(Planning, LongFixesStayInsideTheirPanel) {
  Rig heavy = rig();
  *heavy.fit.frame_at_m += 0.045;
  heavy.lead("receiver")->plug_turned = true;
  heavy.outputs[0].rate_hz = 333;
  b.window.document().edit(heavy, u"three faults"_s);
  for (const int width : {1280, 1024}) {
    b.window.resize(width, 800);
    b.window.document().edit(heavy, u"again"_s);
    b.window.go(Station::fit);
    QApplication::processEvents();
    auto* panel = b.window.findChild<SnagPanel*>();
    int seen = 0;
    for (auto* button : panel->findChildren<QPushButton*>()) {
      if (!button->isVisible()) continue;
      ++seen;
      EXPECT_LE(button->mapTo(panel, QPoint(button->width(), 0)).x(), panel->width())
          << button->accessibleName().toStdString();
    }
    EXPECT_GT(seen, 3);
    auto* fix = b.find<QPushButton>(u"fix_FIT-04"_s);
    ASSERT_TRUE(fix);
    EXPECT_TRUE(fix->accessibleName().contains(u"behind the nose"_s)) << "whole for those who listen";
    EXPECT_FALSE(fix->accessibleName().contains(QLatin1Char('\n')));
  }
  ASSERT_TRUE(b.click(u"fix_FIT-04"_s));
  // What else comes with it is said first.
  if (b.find<QLabel>(u"with_FIT-04"_s)->isVisible()) ASSERT_TRUE(b.click(u"fix_FIT-04"_s));
  EXPECT_NE(rig().mounting("battery")->x_m, heavy.mounting("battery")->x_m);
}

TEST_F(Planning, UndoLeadsBackThroughAll) {
  const Rig before = rig();
  b.window.go(Station::wiring);
  b.find<WiringPage>({})->go_to(u"gps"_s);
  for (const char* button : {"lead_red_out", "lead_plug_turned", "lead_pair_turned", "lead_fixed", "lead_right"})
    ASSERT_TRUE(b.click(QLatin1String(button))) << button;
  const Lead& l = *rig().lead("gps");
  EXPECT_TRUE(l.plus_removed && l.plug_turned && l.pair_turned && l.fixed);
  EXPECT_EQ(rig().proofs.size(), 1u);
  bool turned = false;
  for (const Snag& s : b.window.document().review().snags) turned = turned || s.code == "WIRING-08";
  EXPECT_TRUE(turned);
  while (b.window.document().history().can_undo()) b.window.document().undo();
  EXPECT_EQ(rig(), before);
  while (b.window.document().history().can_redo()) b.window.document().redo();
  EXPECT_EQ(rig().proofs.size(), 1u);
}

TEST(PlanningPages, StandWithAnyDemoAndWithNothing) {
  Builder b;
  for (const char* name : {"hedgerow", "heath", "delta", "bramble"}) {
    ASSERT_TRUE(
        b.window.open_file(QString::fromStdString(in_source("/data/demo/%1.rig.json")).arg(QLatin1String(name))));
    for (const Station s : {Station::fit, Station::power, Station::wiring}) {
      b.window.go(s);
      EXPECT_FALSE(b.window.grab().isNull());
    }
  }
  Rig empty;
  empty.name = "empty";
  empty.controller.kind = "abacus";
  b.window.document().start_new(empty);
  for (const Station s : {Station::fit, Station::power, Station::wiring}) {
    b.window.go(s);
    EXPECT_FALSE(b.window.grab().isNull());
  }
  b.click(u"plan_wiring"_s);
  EXPECT_TRUE(b.find<QLabel>(u"plan_words"_s)->text().contains(u"abacus"_s));
}

}  // namespace
}  // namespace rigging::app
