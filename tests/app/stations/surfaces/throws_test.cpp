#include <gtest/gtest.h>

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>

#include "base/json.h"
#include "bench_builder.h"
#include "look/literals.h"
#include "places.h"
#include "stations/surfaces/surfaces_page.h"

namespace rigging::app {
namespace {

TEST(ThrowsPanel, MillimetresAreTakenForTheSurfacesOwnChord) {
  Builder b;
  ASSERT_TRUE(b.window.open_file(QString::fromStdString(in_source("/data/demo/hedgerow.rig.json"))));
  b.edit([](Rig& rig) { rig.linkages[0].chord_m = 0.05; });
  b.window.go(Station::surfaces);
  ASSERT_TRUE(b.click(u"side_throws"_s));
  ASSERT_TRUE(b.click(u"throw_begin"_s));
  b.find<QComboBox>(u"throws_unit"_s)->setCurrentIndex(1);
  auto* value = b.find<QDoubleSpinBox>(u"throws_value"_s);
  // The zero that stands there is not a reading before it is typed.
  ASSERT_TRUE(b.click(u"throw_take"_s));
  EXPECT_TRUE(b.find<QLabel>(u"throws_remark"_s)->text().contains(u"Reading 1 of 5"_s));
  for (const char* mm : {"0", "25", "13", "-13", "-25"}) {
    value->setFocus();
    value->selectAll();
    QTest::keyClicks(value, QLatin1String(mm));
    ASSERT_TRUE(b.click(u"throw_take"_s));
  }
  const auto& readings = b.window.document().rig().linkages[0].readings;
  ASSERT_EQ(readings.size(), 5u);
  // 25 mm on 50 mm: 2 · asin(25 / 100) = 28.955°.
  EXPECT_NEAR(readings[1].up_deg, 28.955, 1e-3);
  EXPECT_EQ(readings[1].pulse_us, 1000);
  // Full roll right sends the left flaperon a low pulse, which must lower it: one that lifts it is a servo the wrong
  // way round.
  ASSERT_TRUE(b.window.findChild<SurfacesPage*>()->throws().answer());
  EXPECT_TRUE(b.window.findChild<SurfacesPage*>()->throws().answer()->reverse);
}

TEST(ThrowsPanel, AReadingThatDoesNotFitIsNotTakenAsAnother) {
  Builder b;
  ASSERT_TRUE(b.window.open_file(QString::fromStdString(in_source("/data/demo/hedgerow.rig.json"))));
  b.window.go(Station::surfaces);
  auto* page = b.window.findChild<SurfacesPage*>();
  QStringList said;
  QObject::connect(page, &StationPage::said, [&](const QString& words) { said << words; });
  ASSERT_TRUE(b.click(u"side_throws"_s));
  ASSERT_TRUE(b.click(u"throw_begin"_s));
  const QString first = b.find<QLabel>(u"throws_todo"_s)->text();
  auto* value = b.find<QDoubleSpinBox>(u"throws_value"_s);
  value->setFocus();
  value->selectAll();
  QTest::keyClicks(value, u"350"_s);
  ASSERT_TRUE(b.click(u"throw_take"_s));
  EXPECT_EQ(b.find<QLabel>(u"throws_todo"_s)->text(), first) << "it still asks for the same";
  EXPECT_TRUE(said.join(QLatin1Char(' ')).contains(u"“350” does not fit: -200"_s))
      << said.join(QLatin1Char('\n')).toStdString();
  value->setFocus();
  value->selectAll();
  QTest::keyClicks(value, u"0,5"_s);
  ASSERT_TRUE(b.click(u"throw_take"_s));
  EXPECT_NE(b.find<QLabel>(u"throws_todo"_s)->text(), first);
}

TEST(ThrowsPanel, AClassThatDrivesNothingIsReadByItsSticks) {
  Builder b;
  ASSERT_TRUE(b.open("delta", Station::sticks));
  ASSERT_TRUE(b.click(u"bench_start"_s));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  ASSERT_TRUE(b.click(u"supply_battery"_s));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().sight().servos_powered; }));
  b.window.go(Station::surfaces);
  auto* page = b.window.findChild<SurfacesPage*>();
  page->show_surface(*surface_from_name("elevon_left"));
  ASSERT_TRUE(b.click(u"side_throws"_s));
  ASSERT_TRUE(b.click(u"throw_begin"_s));
  QStringList said;
  while (page->throws().state() == ThrowsProcedure::State::reading) {
    ASSERT_TRUE(b.wait([&] { return b.can_click(u"throw_eyes"_s); }));
    said << b.find<QLabel>(u"throws_remark"_s)->text();
    ASSERT_TRUE(b.click(u"throw_eyes"_s));
  }
  const QString all = said.join(QLatin1Char('\n'));
  EXPECT_TRUE(all.contains(u"Hold the roll stick full right and the pitch stick full forward"_s)) << all.toStdString();
  const Linkage* l = b.window.document().rig().linkage(*surface_from_name("elevon_left"));
  ASSERT_TRUE(l);
  ASSERT_EQ(l->readings.size(), 5u);
  EXPECT_LT(l->readings[1].up_deg, -10) << "the simulated hands held them";
  EXPECT_GT(l->readings[4].up_deg, 10);
  ASSERT_TRUE(page->throws().answer()) << b.find<QLabel>(u"throws_lines"_s)->text().toStdString();
  EXPECT_EQ(page->throws().answer()->low_us, 1000) << "this class has no ends to set";
}

/// A class without a settings link and without ends: sticks bring the surface to its readings, hands do the rest.
TEST(HandsAlone, BringCrookedElevonsStraight) {
  Builder b;
  ASSERT_TRUE(b.open("delta", Station::sticks));
  const Surface elevons[] = {*surface_from_name("elevon_left"), *surface_from_name("elevon_right")};
  b.edit([&](Rig& rig) {
    for (const Surface s : elevons) {
      Linkage l;
      l.surface = SurfaceName(s);
      l.arm_m = 0.012;
      l.horn_m = 0.015;
      l.rod_m = 0.1;
      rig.linkages.push_back(l);
    }
  });
  b.window.start_troubled_bench(6, {false, false, true});
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  EXPECT_FALSE(b.window.bench().board()) << "nothing is read where there is no settings link";
  b.window.go(Station::surfaces);
  ASSERT_TRUE(b.click(u"side_throws"_s));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"throw_supply"_s); }));
  ASSERT_TRUE(b.click(u"throw_supply"_s));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().sight().servos_powered; }));
  for (const Surface s : elevons) {
    straighten(b, s);
    if (HasFatalFailure()) return;
    EXPECT_FALSE(b.can_click(u"throw_write"_s));
    // By nobody's leave: sticks in the middle, and the edge is flush.
    EXPECT_TRUE(b.wait([&] { return std::abs(b.window.bench().sight().deflections.at(s)) < 0.6; }))
        << s.name() << " " << b.window.bench().sight().deflections.at(s);
    const Output& o = *b.window.document().rig().output_of(s);
    EXPECT_EQ(o.low_us, 1000);
    EXPECT_EQ(o.high_us, 2000);
  }
}

/// Both flaperons on one lead: each is read against its own sense, and the second sets no pulses.
TEST(ThrowsPanel, BothSidesOfAYLeadAreReadAndOnlyTheFirstSetsThePulses) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::sticks));
  b.edit([](Rig& rig) {
    rig.outputs.erase(rig.outputs.begin() + 1);
    Output& o = *rig.output("out_1");
    o.surfaces.push_back(SurfaceName(*surface_from_name("flaperon_right")));
    o.mix.flap = 0;
    for (Lead& l : rig.leads)
      for (LeadEnd* e : {&l.from, &l.to})
        if (e->part == "controller" && e->socket == "slot_2") e->socket = "slot_1";
  });
  b.window.start_troubled_bench(5, {false, false, true});
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  ASSERT_TRUE(b.click(u"supply_battery"_s));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().sight().servos_powered && b.window.bench().board(); }));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().sight().lamp.find("ready") != std::string::npos; }))
      << "kept still while it settles";
  b.window.go(Station::surfaces);
  ASSERT_TRUE(b.click(u"side_throws"_s));
  auto* page = b.window.findChild<SurfacesPage*>();
  std::map<std::string, double> at_high;
  for (const char* side : {"flaperon_left", "flaperon_right"}) {
    page->show_surface(*surface_from_name(side));
    ASSERT_TRUE(b.wait([&] { return b.can_click(u"throw_begin"_s); }));
    ASSERT_TRUE(b.click(u"throw_begin"_s));
    while (page->throws().state() == ThrowsProcedure::State::reading) {
      ASSERT_TRUE(b.wait([&] { return b.can_click(u"throw_eyes"_s); }));
      ASSERT_TRUE(b.click(u"throw_eyes"_s));
    }
    const auto& answer = page->throws().answer();
    ASSERT_TRUE(answer) << side << b.find<QLabel>(u"throws_lines"_s)->text().toStdString();
    EXPECT_FALSE(answer->reverse) << side << " moves as it should";
    for (const std::string& limit : answer->limits)
      EXPECT_EQ(limit.find("wrong way"), std::string::npos) << side << ": " << limit;
    if (std::string(side) == "flaperon_right") EXPECT_EQ(answer->high_us, 2000) << "the output belongs to the first";
    at_high[side] = b.window.document().rig().linkage(*surface_from_name(side))->readings.back().up_deg;
  }
  EXPECT_LT(at_high["flaperon_left"] * at_high["flaperon_right"], 0) << "one goes up where the other goes down";
}

}  // namespace
}  // namespace rigging::app
