#include <gtest/gtest.h>

#include <QMessageBox>
#include <QPushButton>
#include <QRegularExpression>

#include "bench_builder.h"
#include "feel/flown.h"
#include "look/literals.h"
#include "stations/feel/feel_page.h"
#include "stations/feel/flight_picture.h"
#include "stations/feel/fly_controls.h"

namespace rigging::app {
namespace {

bool worked_out(Builder& b) {
  return b.wait([&] { return b.window.document().deferred(); });
}

bool flies(Builder& b, const char* rig, Axis axis) {
  if (!b.open(rig, Station::feel) || !worked_out(b)) return false;
  QApplication::processEvents();
  return b.click(axis == Axis::roll ? u"axis_roll"_s : u"axis_pitch"_s) && b.click(u"fly_it"_s);
}

QString words(Builder& b) { return b.find<QLabel>(u"fly_words"_s)->text(); }

TEST(FlyIt, ThePlanFliesWithItsBandAndAChangeIsLaidOverWhatWasBefore) {
  Builder b({}, 0);
  ASSERT_TRUE(flies(b, "bramble", Axis::pitch));
  ASSERT_TRUE(b.click(u"first_gains"_s));
  ASSERT_TRUE(worked_out(b));
  b.find<QComboBox>(u"fly_speed"_s)->setCurrentIndex(1);
  ASSERT_TRUE(b.click(u"fly_plan"_s));
  ASSERT_TRUE(b.wait([&] { return words(b).contains(u"As planned"_s); }, 20000));
  EXPECT_TRUE(words(b).contains(u"Of 8 that it may turn out to be, none shook"_s)) << words(b).toStdString();
  EXPECT_FALSE(words(b).contains(u"Before"_s));
  EXPECT_TRUE(b.find<QLabel>(u"fly_caution"_s)->text().contains(u"Simulated"_s));
  EXPECT_FALSE(b.can_click(u"fly_tell"_s)) << "the plan's own flight teaches nothing of the plan";

  // Far too firm: it shakes, and the former flight stands beside it.
  auto* typed = b.find<QLineEdit>(u"typed_gain"_s);
  typed->selectAll();
  QTest::keyClicks(typed, u"100"_s);
  QTest::keyClick(typed, Qt::Key_Return);
  ASSERT_TRUE(worked_out(b));
  ASSERT_TRUE(b.click(u"fly_plan"_s));
  ASSERT_TRUE(b.wait([&] { return words(b).contains(u"Before"_s); }, 20000));
  EXPECT_TRUE(words(b).contains(u"Pitch shook"_s)) << words(b).toStdString();
  EXPECT_FALSE(b.find<QWidget>(u"flight_strip"_s)->accessibleDescription().isEmpty());
}

TEST(FlyIt, AReversedCorrectionTurnsItOverInThePlanAlone) {
  Builder b({}, 0);
  ASSERT_TRUE(flies(b, "hedgerow", Axis::roll));
  auto* typed = b.find<QLineEdit>(u"typed_gain"_s);
  QTest::keyClicks(typed, u"60"_s);
  QTest::keyClick(typed, Qt::Key_Return);
  ASSERT_TRUE(worked_out(b));
  ASSERT_TRUE(b.click(u"fly_reversed"_s));
  auto* mode = b.find<QComboBox>(u"fly_mode"_s);
  mode->setCurrentIndex(mode->findText(u"level"_s));
  EXPECT_FALSE(b.can_click(u"fly_bench"_s));
  const Rig before = b.window.document().rig();
  ASSERT_TRUE(b.click(u"fly_plan"_s));
  ASSERT_TRUE(b.wait([&] { return words(b).contains(u"As planned"_s); }, 20000));
  EXPECT_EQ(b.window.document().rig(), before) << "showing it changes nothing";
  const auto bank = QRegularExpression(u"banked up to (\\d+)°"_s).match(words(b)).captured(1).toInt();
  EXPECT_GT(bank, 80) << words(b).toStdString();
}

/// Advice, the bench's model in turbulence, its log, the next advice, as a builder goes through it in the window.
class Tuning : public testing::TestWithParam<std::pair<const char*, Axis>> {};

TEST_P(Tuning, GoesOnUntilItHasSettled) {
  const auto [name, axis] = GetParam();
  Builder b({}, 0, 5);
  ASSERT_TRUE(flies(b, name, axis));
  ASSERT_TRUE(b.click(u"first_gains"_s));
  ASSERT_TRUE(worked_out(b));
  ASSERT_TRUE(b.click(u"fly_bench"_s)) << "starts the bench";
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected() && b.window.bench().sight().lamp != ""; }));
  b.find<QComboBox>(u"fly_speed"_s)->setCurrentIndex(1);
  Flight last;
  bool flown = false;
  QObject::connect(&b.window.bench(), &BenchLink::flew, &b.window, [&](const Flight& f) {
    last = f;
    flown = true;
  });
  const auto place = [&] {
    const AxisGain* g = b.window.document().rig().feel.gain(axis);
    return g ? g->rate.value_or(0) : 0;
  };
  const double first = place();
  bool turned_down = false;
  int flights = 0;
  for (; flights < 14 && !turned_down; ++flights) {
    flown = false;
    ASSERT_TRUE(b.wait([&] { return b.can_click(u"fly_bench"_s); }));
    ASSERT_TRUE(b.click(u"fly_bench"_s));
    ASSERT_TRUE(b.wait([&] { return flown; }, 20000)) << words(b).toStdString();
    const auto of_axis = [axis](const Episode& e) { return e.axis == axis && e.kind == OscillationKind::gain; };
    const std::vector<Episode> episodes =
        seen_in(last, b.window.document().controller(), &b.window.document().deferred()->feel).episodes;
    const bool shook = std::any_of(episodes.begin(), episodes.end(), of_axis);
    b.in_sheet([&](QWidget& sheet) {
      const auto buttons = sheet.findChildren<QPushButton*>();
      QPushButton* pick = nullptr;
      for (const QString& wanted : {u"Turn down and learn"_s, u"Correct the model only"_s})
        for (QPushButton* k : buttons)
          if (!pick && k->text() == wanted) pick = k;
      (pick ? pick : buttons.front())->click();
    });
    const double was = place();
    ASSERT_TRUE(b.click(u"fly_tell"_s));
    ASSERT_TRUE(b.wait([&] { return b.find<FeelPage>({})->log_taken(); }, 20000)) << "judged beside the window";
    ASSERT_TRUE(worked_out(b));
    if (shook) {
      EXPECT_LT(place(), was) << "it shook: it is turned down";
      turned_down = true;
      break;
    }
    // Nothing further is advised once the next step would be expected to shake.
    if (!b.click(u"fly_next"_s)) break;
    ASSERT_TRUE(worked_out(b));
    EXPECT_GT(place(), was) << "one step at a time";
  }
  RecordProperty("flights", flights);
  // Settled: it corrects, no less than at first, and no longer shakes at the fastest speed.
  flown = false;
  ASSERT_TRUE(b.click(u"fly_bench"_s));
  ASSERT_TRUE(b.wait([&] { return flown; }, 20000));
  for (const Episode& e :
       seen_in(last, b.window.document().controller(), &b.window.document().deferred()->feel).episodes)
    EXPECT_FALSE(e.axis == axis && e.kind == OscillationKind::gain) << e.why;
  EXPECT_GE(place(), 0.99 * first);
  EXPECT_TRUE(last.end.empty()) << last.end;
  for (const LearnedGain& l : b.window.document().rig().feel.learned) EXPECT_TRUE(l.simulated);
}

INSTANTIATE_TEST_SUITE_P(DemoRigs, Tuning,
                         testing::Values(std::pair{"hedgerow", Axis::roll}, std::pair{"bramble", Axis::roll},
                                         std::pair{"delta", Axis::roll}, std::pair{"heath", Axis::pitch}),
                         [](const auto& each) { return std::string(each.param.first); });

}  // namespace
}  // namespace rigging::app
