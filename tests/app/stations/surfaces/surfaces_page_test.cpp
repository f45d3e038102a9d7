#include <gtest/gtest.h>

#include <sys/wait.h>
#include <unistd.h>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <cmath>
#include <csignal>
#include <fstream>

#include "airframe/kinds.h"
#include "base/json.h"
#include "bench_builder.h"
#include "direction/from_rig.h"
#include "drawing/stick_square.h"
#include "look/literals.h"
#include "look/units.h"
#include "places.h"
#include "rig/rig_file.h"
#include "stations/surfaces/linkage_view.h"
#include "stations/surfaces/surfaces_page.h"
#include "surfaces/edits.h"

namespace rigging::app {
namespace {

TEST(Surfaces, StickMovesWhatItShouldAndSaturationShows) {
  Builder b;
  b.window.start_demo();
  b.window.go(Station::surfaces);
  auto* square = b.find<StickSquare>(u"stick_square"_s);
  square->setFocus();
  for (int i = 0; i < 10; ++i) QTest::keyClick(square, Qt::Key_Right);
  EXPECT_NEAR(square->command().roll, 1, 1e-9);
  auto* weight = b.find<QDoubleSpinBox>(u"weight_out_1_roll"_s);
  weight->setValue(-140);
  EXPECT_TRUE(b.find<QLabel>(u"saturation"_s)->text().contains(u"reaches its end"_s));
  ASSERT_TRUE(b.click(u"reverse_out_1"_s));
  EXPECT_TRUE(b.window.document().rig().output("out_1")->reversed);
}

TEST(SurfacesPage, SharingAndDifferentialGoIntoTheRig) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::surfaces));
  b.find<QDoubleSpinBox>(u"differential"_s)->setValue(40);
  EXPECT_EQ(differential_of(b.window.document().rig()), 0.4);
  auto* sharing = b.find<QComboBox>(u"sharing"_s);
  sharing->setCurrentIndex(2);
  Q_EMIT sharing->activated(2);
  EXPECT_EQ(b.window.document().rig().saturation, Saturation::roll_first);
  EXPECT_TRUE(b.find<QLabel>(u"mix_words"_s)->text().contains(u"differential"_s));
  b.window.document().undo();
  b.window.document().undo();
  EXPECT_EQ(differential_of(b.window.document().rig()), 0);
}

TEST(SurfacesPage, HolesAreRankedAndOneIsTaken) {
  Builder b;
  ASSERT_TRUE(b.window.open_file(QString::fromStdString(in_source("/data/demo/hedgerow.rig.json"))));
  b.edit([](Rig& rig) {
    rig.linkages[0].arm_holes_m = {0.009, 0.012};
    rig.linkages[0].horn_holes_m = {0.012, 0.016, 0.020};
    rig.linkages[0].want_up_deg = rig.linkages[0].want_down_deg = 22;
  });
  b.window.go(Station::surfaces);
  ASSERT_TRUE(b.click(u"side_linkage"_s));
  ASSERT_TRUE(b.wait([&] { return b.find<QPushButton>(u"hole_1"_s) != nullptr; })) << "worked out beside";
  auto* best = b.find<QPushButton>(u"hole_1"_s);
  EXPECT_TRUE(best->accessibleName().contains(u"of the travel"_s)) << best->accessibleName().toStdString();
  best->click();
  const Linkage& l = b.window.document().rig().linkages[0];
  EXPECT_TRUE(l.base_m) << "servo and hinge stay where they are";
  const auto curve = trace(l, *b.window.document().rig().output_of(l.surface));
  ASSERT_TRUE(curve);
  EXPECT_GE(std::min(curve->most_up_deg, curve->most_down_deg), 22);
  EXPECT_NEAR(curve->neutral_deg, 0, 1e-9);
}

TEST(SurfacesPage, AHoleIsDraggedAndOneUndoTakesItBack) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::surfaces));
  ASSERT_TRUE(b.click(u"side_linkage"_s));
  auto* view = b.find<QWidget>(u"linkage_view"_s);
  ASSERT_TRUE(view && view->isVisible());
  const double before = b.window.document().rig().linkages.front().horn_m;
  view->setFocus();
  QTest::keyClick(view, Qt::Key_H);
  QTest::keyClick(view, Qt::Key_Plus);
  EXPECT_NEAR(b.window.document().rig().linkages.front().horn_m, before + 0.0005, 1e-9);
  b.window.document().undo();
  EXPECT_EQ(b.window.document().rig().linkages.front().horn_m, before);
}

TEST(SurfacesPage, InchesAreTakenAndGiven) {
  struct Metric {
    ~Metric() { set_unit_system(UnitSystem::metric); }
  } back;
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::surfaces));
  const Rig before = b.window.document().rig();
  set_unit_system(UnitSystem::imperial);
  b.edit([](Rig& rig) { rig.linkages[0].chord_m = 0.0508; });
  ASSERT_TRUE(b.click(u"side_linkage"_s));
  EXPECT_TRUE(b.find<QLabel>(u"linkage_facts"_s)->text().contains(u" in at the edge"_s))
      << b.find<QLabel>(u"linkage_facts"_s)->text().toStdString();
  EXPECT_TRUE(b.find<QLabel>(u"linkage_loads"_s)->text().contains(u"oz·in"_s));
  b.type_into_sheet({{"horn", u"0.6"_s}});
  ASSERT_TRUE(b.click(u"linkage_measures"_s));
  EXPECT_NEAR(b.window.document().rig().linkages[0].horn_m, 0.6 * 0.0254, 1e-9);
  EXPECT_EQ(b.window.document().rig().linkages[0].arm_m, before.linkages[0].arm_m)
      << "what was not touched keeps its last digits";
  // Bad holes are refused in the sheet, good ones are inches.
  QString why;
  b.type_into_sheet({{"arm_holes", u"0.31, 40"_s}}, [&](QWidget& dialog) {
    why = dialog.findChild<QLabel*>(u"refusal"_s)->text();
    dialog.findChild<QLineEdit*>(u"arm_holes"_s)->setText(u"0.3, 0.4"_s);
    dialog.findChild<QPushButton*>(u"take"_s)->click();
  });
  ASSERT_TRUE(b.click(u"linkage_holes"_s));
  EXPECT_TRUE(why.contains(u"39.37 in"_s)) << why.toStdString();
  ASSERT_EQ(b.window.document().rig().linkages[0].arm_holes_m.size(), 2u);
  EXPECT_NEAR(b.window.document().rig().linkages[0].arm_holes_m[1], 0.01016, 1e-9);
  // A reading of half an inch on two inches of chord: 2 · asin(0.25 / 2) = 14.362°.
  ASSERT_TRUE(b.click(u"side_throws"_s));
  ASSERT_TRUE(b.click(u"throw_begin"_s));
  auto* unit = b.find<QComboBox>(u"throws_unit"_s);
  unit->setCurrentIndex(1);
  Q_EMIT unit->activated(1);
  EXPECT_TRUE(unit->currentText().startsWith(u"in "_s));
  for (const char* in : {"0", "0.5", "0.25", "-0.25", "-0.5"}) {
    auto* value = b.find<QDoubleSpinBox>(u"throws_value"_s);
    value->setFocus();
    value->selectAll();
    QTest::keyClicks(value, QLatin1String(in));
    ASSERT_TRUE(b.click(u"throw_take"_s));
  }
  EXPECT_NEAR(b.window.document().rig().linkages[0].readings.at(1).up_deg, 14.362, 1e-3);
}

TEST(SurfacesPage, TheSketchShowsWhatTheReadingsSay) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::surfaces));
  ASSERT_TRUE(b.click(u"side_linkage"_s));
  auto* view = b.window.findChild<LinkageView*>();
  const QPointF measured = view->grip(LinkageView::Grip::horn);
  // Four degrees low all along: the real horn does not stand where it was measured.
  b.edit([](Rig& rig) {
    const Output& o = *rig.output_of(rig.linkages[0].surface);
    const double way = rising_lifts(o, rig.linkages[0].surface);
    rig.linkages[0].readings = {{1000, -30 * way - 4, {}}, {1500, -4, {}}, {2000, 30 * way - 4, {}}};
  });
  ASSERT_TRUE(b.wait([&] { return b.window.document().deferred(); })) << "the readings are worked out beside";
  EXPECT_GT(QLineF(view->grip(LinkageView::Grip::horn), measured).length(), 2);
  b.edit([](Rig& rig) { rig.linkages[0].readings.clear(); });
  EXPECT_LT(QLineF(view->grip(LinkageView::Grip::horn), measured).length(), 0.01);
}

TEST(SurfacesPage, ThrowsAreTypedInDegrees) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::surfaces));
  auto* degrees = b.find<QDoubleSpinBox>(u"throw_out_1_roll"_s);
  ASSERT_TRUE(degrees);
  EXPECT_NEAR(degrees->value(), 23.1, 0.2);
  degrees->setFocus();
  degrees->selectAll();
  QTest::keyClicks(degrees, u"18"_s);
  QTest::keyClick(degrees, Qt::Key_Return);
  const Rig& rig = b.window.document().rig();
  EXPECT_NEAR(throw_for(rig, *rig.output("out_1"), rig.output("out_1")->surfaces[0], MixCommand::roll), 18, 0.04);
  EXPECT_EQ(rig.output("out_1")->mix.roll, -rig.output("out_2")->mix.roll);
  ASSERT_TRUE(QTest::qWaitFor([&] { return b.window.document().deferred() != nullptr; }));
  // What answers what, how strongly: two flaperons share the roll, and each half of the tail does half of pitch and
  // yaw.
  int halves = 0;
  for (const QLabel* label : b.window.findChild<SurfacesPage*>()->findChildren<QLabel*>())
    halves += label->isVisible() && label->text().contains(u"does 50 %"_s);
  EXPECT_EQ(halves, 6);
  // More than there is: said, and nothing changes.
  degrees = b.find<QDoubleSpinBox>(u"throw_out_1_roll"_s);
  const Rig before = rig;
  degrees->setValue(60);
  EXPECT_TRUE(b.find<QLabel>(u"mix_refusal"_s)->isVisible());
  EXPECT_TRUE(b.find<QLabel>(u"mix_refusal"_s)->text().contains(u"60° for full roll"_s));
  EXPECT_EQ(b.window.document().rig(), before);
  EXPECT_NEAR(degrees->value(), 18, 0.1);
  // Other holes: the same weight gives other degrees, and the row says so.
  b.edit([](Rig& r) { r.linkages[0].servo_travel_deg = 30; });
  EXPECT_LT(b.find<QDoubleSpinBox>(u"throw_out_1_roll"_s)->value(), 14);
}

TEST(SurfacesPage, PulsesAreThoseThatSharingLeaves) {
  Builder b;
  ASSERT_TRUE(b.open("delta", Station::surfaces));
  b.edit([](Rig& rig) {
    for (Output& o : rig.outputs)
      if (o.mix.roll != 0)
        for (const Axis axis : {Axis::roll, Axis::pitch}) o.mix.of(axis) = std::copysign(0.9, o.mix.of(axis));
  });
  Q_EMIT b.window.findChild<StickSquare*>(u"stick_square"_s)->moved(1, 1);
  const auto at_its_end = [&] {
    int n = 0;
    for (const QLabel* label : b.window.findChild<SurfacesPage*>()->findChildren<QLabel*>())
      n += label->text().contains(u"at its end"_s);
    return n;
  };
  EXPECT_EQ(at_its_end(), 1) << "one elevon is asked for 180 %";
  b.edit([](Rig& rig) { rig.saturation = Saturation::roll_first; });
  Q_EMIT b.window.findChild<StickSquare*>(u"stick_square"_s)->moved(1, 1);
  EXPECT_EQ(at_its_end(), 0);
}

TEST(SurfacesPage, ABarIsPulledAndOneUndoTakesItBack) {
  Builder b;
  b.window.start_demo();
  b.window.go(Station::surfaces);
  const auto rig = [&]() -> const Rig& { return b.window.document().rig(); };
  const auto roll = [&](const char* output) { return rig().output(output)->mix.roll; };
  const auto percent = [&](const char* output) {
    return b.find<QDoubleSpinBox>(u"weight_%1_roll"_s.arg(QLatin1String(output)))->value();
  };
  const Rig before = rig();
  auto* bar = b.find(u"share_out_1_roll"_s);
  ASSERT_TRUE(bar && bar->isVisible());
  // Where -70 % stands between -120 and 120, 5 px from both ends; from there to -40 %.
  const auto at = [&](double share) { return QPoint(qRound(5 + (share + 1.2) / 2.4 * (bar->width() - 10)), 7); };
  QTest::mousePress(bar, Qt::LeftButton, {}, at(-0.7));
  QTest::mouseMove(bar, at(-0.4));
  EXPECT_EQ(percent("out_1"), -40) << "the boxes follow";
  EXPECT_EQ(percent("out_2"), 40) << "of both halves";
  EXPECT_EQ(rig(), before) << "nothing is done while it is pulled";
  QTest::keyClick(bar, Qt::Key_Escape);
  QTest::mouseRelease(bar, Qt::LeftButton, {}, at(-0.4));
  EXPECT_EQ(rig(), before);
  EXPECT_EQ(percent("out_2"), 70) << "given up: as it was";
  QTest::mousePress(bar, Qt::LeftButton, {}, at(-0.7));
  QTest::mouseMove(bar, at(-0.4));
  QTest::mouseRelease(bar, Qt::LeftButton, {}, at(-0.4));
  QApplication::processEvents();
  EXPECT_DOUBLE_EQ(roll("out_1"), -0.4);
  EXPECT_DOUBLE_EQ(roll("out_2"), 0.4);
  b.window.document().undo();
  EXPECT_EQ(rig(), before);
}

TEST(Surfaces, TailMixTrimFlightAndTowReleaseAreTyped) {
  Builder b;
  b.window.start_demo();
  b.window.go(Station::surfaces);
  const auto rig = [&]() -> const Rig& { return b.window.document().rig(); };
  EXPECT_FALSE(b.find<QDoubleSpinBox>(u"tail_mix"_s)->isVisible());
  ASSERT_TRUE(b.click(u"side_throws"_s));
  EXPECT_TRUE(b.find<QLabel>(u"trim_words"_s)->text().contains(u"every 10 s"_s));
  ASSERT_TRUE(b.click(u"auto_trim"_s));
  EXPECT_TRUE(rig().controller.auto_trim);
  b.in_sheet([&](QWidget& sheet) {
    sheet.findChild<QDoubleSpinBox*>(u"sat_flaperon_left"_s)->setValue(1.5);
    static_cast<QDialog*>(&sheet)->accept();
  });
  ASSERT_TRUE(b.click(u"trim_flight"_s));
  EXPECT_EQ(rig().linkage({SurfaceKind::flaperon, Side::left})->want_neutral_deg, 1.5);

  b.edit([](Rig& r) { r = with_kind(r, AirframeKind::tailerons); });
  ASSERT_TRUE(b.click(u"side_mix"_s));
  auto* tail = b.find<QDoubleSpinBox>(u"tail_mix"_s);
  EXPECT_TRUE(tail->isVisible());
  tail->setValue(25);
  EXPECT_NEAR(*tail_mix_percent(rig()), 25, 0.6);

  b.edit([](Rig& r) { r = with_kind(r, AirframeKind::towed_glider); });
  ASSERT_TRUE(b.click(u"side_throws"_s));
  b.in_sheet([&](QWidget& sheet) {
    sheet.findChild<QDoubleSpinBox*>(u"release_pin"_s)->setValue(12);
    static_cast<QDialog*>(&sheet)->accept();
  });
  ASSERT_TRUE(b.click(u"tow_release"_s));
  ASSERT_TRUE(rig().release);
  EXPECT_NEAR(rig().release->pin_m, 0.012, 1e-9);
}

}  // namespace
}  // namespace rigging::app
