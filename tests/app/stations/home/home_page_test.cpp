#include "stations/home/home_page.h"

#include <QComboBox>
#include <QSlider>
#include <cmath>

#include "base/angle.h"
#include "base/file.h"
#include "bench_builder.h"
#include "home/home_checks.h"
#include "look/literals.h"

namespace rigging::app {
namespace {

const HomeReport* home_of(Builder& b) {
  return b.wait([&] { return b.window.document().deferred() != nullptr; }) ? &b.window.document().deferred()->home
                                                                           : nullptr;
}

QString text(Builder& b, const char* label) { return b.find<QLabel>(QLatin1String(label))->text(); }

bool choose(Builder& b, const char* combo, const char* words) {
  auto* box = b.find<QComboBox>(QLatin1String(combo));
  const int at = box->findText(QLatin1String(words));
  if (at < 0) return false;
  box->setCurrentIndex(at);
  Q_EMIT box->activated(at);
  return true;
}

QStringList titles(Builder& b) {
  QStringList all;
  for (const StoryStep& s : b.find<StoryStrip>(u"story_strip"_s)->story()) all << QString::fromStdString(s.title);
  return all;
}

TEST(HomePage, FromNothingToAPlanThatComesHome) {
  Builder b({}, 0);
  ASSERT_TRUE(b.open("hedgerow", Station::home));
  b.edit([](Rig& r) {
    r.home = {};
    r.radio.on_loss = OnLoss::flag;
  });
  ASSERT_TRUE(home_of(b));
  QApplication::processEvents();
  EXPECT_TRUE(titles(b).contains(u"Nothing is decided"_s)) << titles(b).join(QLatin1Char(';')).toStdString();
  ASSERT_TRUE(choose(b, "on_loss", "Come home"));
  EXPECT_EQ(b.window.document().rig().home.on_loss, LossAction::come_home);
  ASSERT_TRUE(home_of(b));
  QStringList said;
  QObject::connect(b.window.findChild<HomePage*>(), &StationPage::said, [&](const QString& words) { said << words; });
  b.type("home_area", "900,5");
  EXPECT_FALSE(b.window.document().rig().home.area_m);
  EXPECT_TRUE(said.join(QLatin1Char(' ')).contains(u"does not fit"_s)) << "nothing is thrown away in silence";
  b.type("home_area", "900");
  ASSERT_TRUE(home_of(b));
  EXPECT_EQ(b.window.document().rig().home.area_m, 900);
  EXPECT_TRUE(b.wait([&] { return text(b, "home_words").contains(u"has to turn home at"_s); }))
      << text(b, "home_words").toStdString();
  // Too low a threshold is found, and its own button mends it.
  b.type("home_warn", "12");
  ASSERT_TRUE(home_of(b));
  EXPECT_TRUE(b.wait([&] { return text(b, "home_words").contains(u"too low"_s); }));
  for (const Snag& s : b.window.document().snags())
    if (s.code == "HOME-05" && s.fix) {
      b.window.document().apply(s.fix->edit(b.window.document().rig(), b.window.document().catalogue()));
      break;
    }
  ASSERT_TRUE(home_of(b));
  EXPECT_TRUE(b.wait([&] { return text(b, "home_words").contains(u"brings it home from anywhere"_s); }))
      << text(b, "home_words").toStdString();
  EXPECT_TRUE(titles(b).contains(u"Circles over home"_s)) << titles(b).join(QLatin1Char(';')).toStdString();
  while (b.window.document().rig().home.on_loss != LossAction::undecided) b.window.document().undo();
  EXPECT_FALSE(b.window.document().rig().home.area_m);
}

TEST(HomePage, TheAircraftIsDraggedTheWindTurnedTheStoryScrubbed) {
  Builder b({}, 0);
  ASSERT_TRUE(b.open("hedgerow", Station::home));
  b.edit([](Rig& r) {
    r.home = {};
    r.radio.on_loss = OnLoss::flag;
    r.home.on_loss = LossAction::come_home;
    r.home.area_m = 800;
  });
  ASSERT_TRUE(home_of(b));
  QApplication::processEvents();
  auto* chart = b.find<ReachChart>(u"reach_chart"_s);
  auto* strip = b.find<StoryStrip>(u"story_strip"_s);
  const QPoint middle = chart->rect().center();
  QTest::mouseClick(chart, Qt::LeftButton, {}, middle + QPoint(90, 0));
  EXPECT_NEAR(chart->bearing_deg(), 90, 2);
  const double far = chart->distance_m();
  EXPECT_GT(far, 100);
  chart->setFocus();
  QTest::keyClick(chart, Qt::Key_Down);
  EXPECT_LT(chart->distance_m(), far);
  QTest::keyClick(chart, Qt::Key_Right);
  EXPECT_NEAR(chart->bearing_deg(), 95, 3);
  // Along the story it comes nearer.
  const QString before = text(b, "story_moment");
  strip->setFocus();
  for (int i = 0; i < 40; ++i) QTest::keyClick(strip, Qt::Key_Right);
  EXPECT_GT(strip->at_s(), 5);
  EXPECT_NE(text(b, "story_moment"), before);
  // A storm from home's other side: the wind's arrow is dragged toward the middle.
  const double radius = std::min(chart->width(), chart->height()) / 2.0 - 26;
  const double px = radius - 7 * 5;  // the tip of the five metres a second that are usual, from the west
  const QPoint tip(middle.x() - static_cast<int>(px), middle.y());
  QTest::mousePress(chart, Qt::LeftButton, {}, tip);
  const QPoint to(middle.x() - static_cast<int>(radius - 7 * 22), middle.y());
  QMouseEvent move(QEvent::MouseMove, QPointF(to), chart->mapToGlobal(QPointF(to)), Qt::NoButton, Qt::LeftButton, {});
  QApplication::sendEvent(chart, &move);
  EXPECT_EQ(b.window.document().rig().home.wind_m_s, 5) << "counts when it is let go";
  QTest::mouseRelease(chart, Qt::LeftButton, {}, to);
  EXPECT_NEAR(b.window.document().rig().home.wind_m_s, 22, 1);
  EXPECT_NEAR(b.window.document().rig().home.wind_from_deg, 270, 3);
  ASSERT_TRUE(home_of(b));
  EXPECT_TRUE(b.wait([&] { return text(b, "home_words").contains(u"can't come home against it"_s); }));
  EXPECT_TRUE(titles(b).contains(u"It can't come home"_s));
  // Less charge reaches less far.
  b.window.document().undo();
  ASSERT_TRUE(home_of(b));
  auto* charge = b.find<QSlider>(u"charge_left"_s);
  charge->setValue(6);
  chart->set_place(1e9, 90);
  Q_EMIT chart->place_moved(chart->distance_m(), 90);
  EXPECT_TRUE(titles(b).contains(u"Battery empty"_s));
}

TEST(HomePage, RehearsalsFindWhatThePlanDoesNotHold) {
  Builder b({}, 0);
  ASSERT_TRUE(b.open("hedgerow", Station::home));
  ASSERT_TRUE(home_of(b));
  QApplication::processEvents();
  ASSERT_TRUE(b.click(u"home_rehearse"_s));
  EXPECT_TRUE(b.wait([&] { return text(b, "home_words").contains(u"Simulated: 200 of 200"_s); }))
      << text(b, "home_words").toStdString();
  b.edit([](Rig& r) { r.home.wind_m_s = 15; });
  ASSERT_TRUE(home_of(b));
  EXPECT_TRUE(b.wait([&] { return !text(b, "home_words").contains(u"Simulated"_s); })) << "of another plan";
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"home_rehearse"_s); }));
  ASSERT_TRUE(b.click(u"home_rehearse"_s));
  EXPECT_TRUE(b.wait([&] { return text(b, "home_words").contains(u"did not; the first"_s); }))
      << text(b, "home_words").toStdString();
  b.edit([](Rig& r) { r.home.on_loss = LossAction::glide; });
  ASSERT_TRUE(home_of(b));
  EXPECT_TRUE(b.wait([&] { return !b.can_click(u"home_rehearse"_s); }));
}

TEST(HomePage, TheSwitchesAreMovedAndWhatFliesIsSaid) {
  Builder b({}, 0);
  ASSERT_TRUE(b.open("hedgerow", Station::home));
  ASSERT_TRUE(home_of(b));
  QApplication::processEvents();
  ASSERT_TRUE(b.click(u"home_switches"_s));
  auto* deck = b.find<SwitchDeck>(u"switch_deck"_s);
  ASSERT_TRUE(deck->isVisible() && deck->chosen());
  EXPECT_EQ(deck->chosen()->mode, "manual");
  deck->setFocus();
  QTest::keyClick(deck, Qt::Key_Down);
  EXPECT_EQ(deck->chosen()->mode, "level");
  EXPECT_TRUE(deck->accessibleDescription().contains(u"holds no height"_s));
  QTest::mouseClick(deck, Qt::LeftButton, {}, QPoint(deck->width() / 2, 40 + 325));
  EXPECT_EQ(deck->chosen()->mode, "rate");
  EXPECT_TRUE(text(b, "home_words").contains(u"no return on a switch of its own"_s));
  ASSERT_TRUE(b.click(u"home_lay_out"_s));
  ASSERT_TRUE(home_of(b));
  EXPECT_TRUE(b.wait([&] { return text(b, "home_words").contains(u"Nothing is in the way"_s); }))
      << text(b, "home_words").toStdString();
  EXPECT_FALSE(b.can_click(u"home_lay_out"_s)) << "it stands as a first flight wants it";
  EXPECT_EQ(b.window.document().rig().modes.size(), 4u);
  ASSERT_TRUE(b.click(u"home_switches"_s));
  EXPECT_FALSE(deck->isVisible());
}

/// Comes home, told from the window, with gains that hold it.
void plan_home(Builder& b) {
  b.edit([](Rig& r) {
    r.home = {};
    r.modes.clear();
    r.radio.on_loss = OnLoss::flag;
    for (const Axis axis : all_axes) {
      AxisGain& g = r.feel.made_gain(axis);
      g.rate = 0.35, g.level = 0.4;
    }
  });
  ASSERT_TRUE(home_of(b));
  ASSERT_TRUE(choose(b, "on_loss", "Come home"));
  ASSERT_TRUE(home_of(b));
  b.type("home_area", "800");
  ASSERT_TRUE(home_of(b));
}

bool stands(Builder& b, const CheckId& id) {
  const CheckStatus* s = find_check(b.window.document().review().checks, id);
  return s && s->state == ProofState::fresh;
}

bool has_snag(Builder& b, const char* code) {
  const auto snags = b.window.document().snags();
  return std::any_of(snags.begin(), snags.end(), [&](const Snag& s) { return s.code == code; });
}

// The main job of this station, from nothing to its proofs.
TEST(HomePage, ModesAndFailsafeAreSetRehearsedMendedWrittenAndProven) {
  Builder b({}, 0);
  ASSERT_TRUE(b.open("hedgerow", Station::home));
  plan_home(b);
  // Switches.
  ASSERT_TRUE(b.click(u"home_switches"_s));
  ASSERT_TRUE(b.click(u"home_lay_out"_s));
  ASSERT_TRUE(home_of(b));
  EXPECT_EQ(b.window.document().rig().modes.size(), 4u);
  ASSERT_TRUE(b.click(u"home_switches"_s));
  // What else makes it act: too soon, and said.
  b.type_into_sheet({{"trigger_low_battery", u"comes home"_s},
                     {"trigger_long_loss", u"lands by itself"_s},
                     {"long_loss_at", u"30"_s}});
  ASSERT_TRUE(b.click(u"home_triggers"_s));
  EXPECT_EQ(b.window.document().rig().home.triggers.size(), 2u);
  ASSERT_TRUE(home_of(b));
  EXPECT_TRUE(b.wait([&] { return has_snag(b, "HOME-11"); })) << "it would come down on its way";
  b.type_into_sheet({{"long_loss_at", u"600"_s}});
  ASSERT_TRUE(b.click(u"home_triggers"_s));
  ASSERT_TRUE(home_of(b));
  // The threshold is too low, and mended by its snag.
  b.type("home_warn", "12");
  ASSERT_TRUE(home_of(b));
  ASSERT_TRUE(b.wait([&] { return has_snag(b, "HOME-05"); }));
  for (const Snag& s : b.window.document().snags())
    if (s.code == "HOME-05" && s.fix) {
      b.window.document().apply(s.fix->edit(b.window.document().rig(), b.window.document().catalogue()));
      break;
    }
  ASSERT_TRUE(home_of(b));
  EXPECT_FALSE(has_snag(b, "HOME-05"));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"home_rehearse"_s); }));
  ASSERT_TRUE(b.click(u"home_rehearse"_s));
  EXPECT_TRUE(b.wait([&] { return text(b, "home_words").contains(u"of 200 come home"_s); }))
      << text(b, "home_words").toStdString();
  b.type_into_sheet({{"shows_volts", u"yes"_s}, {"clear_page", u"yes"_s}});
  ASSERT_TRUE(b.click(u"home_goggles"_s));
  EXPECT_EQ(b.window.document().rig().home.goggles, (std::vector<GogglesLine>{GogglesLine::volts}));
  // The bench: written, then looked at.
  ASSERT_TRUE(b.click(u"home_bench"_s));
  ASSERT_TRUE(b.click(u"bench_start"_s));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  EXPECT_TRUE(text(b, "arming_todo").contains(u"is asked here"_s));
  ASSERT_TRUE(b.click(u"supply_battery"_s));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().controller_answers() && b.window.bench().state(); }));
  if (b.wait([&] { return b.can_click(u"write_home"_s); }, 1500)) ASSERT_TRUE(b.click(u"write_home"_s));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"loss_do"_s); }));
  ASSERT_TRUE(b.click(u"loss_do"_s));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"loss_seen"_s); }, 20000)) << text(b, "loss_says").toStdString();
  EXPECT_TRUE(text(b, "loss_lines").contains(u"That is the plan"_s));
  ASSERT_TRUE(b.click(u"loss_seen"_s));
  EXPECT_TRUE(stands(b, loss_planned));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"positions_do"_s); }));
  ASSERT_TRUE(b.click(u"positions_do"_s));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"positions_record"_s); }, 30000))
      << text(b, "positions_lines").toStdString();
  ASSERT_TRUE(b.click(u"positions_record"_s));
  EXPECT_TRUE(stands(b, positions_planned));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"arming_record"_s); }, 40000)) << text(b, "arming_says").toStdString();
  ASSERT_TRUE(b.click(u"arming_record"_s));
  EXPECT_TRUE(stands(b, arming_waits));
  // One flight of the bench's own model, beside what was reckoned.
  ASSERT_TRUE(b.click(u"home_bench"_s));
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"home_fly"_s); }));
  ASSERT_TRUE(b.click(u"home_fly"_s));
  EXPECT_TRUE(b.wait([&] { return text(b, "home_words").contains(u"over home"_s); }, 20000))
      << text(b, "home_words").toStdString();
  // Another plan, and the proof is gone.
  ASSERT_TRUE(choose(b, "on_loss", "Motor off, glide level"));
  EXPECT_FALSE(stands(b, loss_planned));
  EXPECT_TRUE(stands(b, positions_planned));
}

TEST(HomePage, ATrackBecomesTheAreaAndTheReachAFile) {
  Builder b({}, 0);
  ASSERT_TRUE(b.open("hedgerow", Station::home));
  plan_home(b);
  QStringList said;
  auto* page = b.window.findChild<HomePage*>();
  QObject::connect(page, &StationPage::said, [&](const QString& words) { said << words; });
  b.edit([](Rig& r) { r.fit.latitude_deg = 47, r.fit.longitude_deg = 8; });
  ASSERT_TRUE(home_of(b));
  const auto write = [&](const char* name, const char* content) {
    const QString file = b.folder.path() + QLatin1Char('/') + QLatin1String(name);
    EXPECT_TRUE(write_file_atomically(file.toStdString(), content));
    return file;
  };
  page->take_track(write("bad.gpx", "<gpx><wpt lat=\"99\" lon=\"8\"/></gpx>"));
  ASSERT_EQ(said.size(), 1);
  EXPECT_TRUE(said.back().contains(u"point 1"_s));
  EXPECT_EQ(b.window.document().rig().home.area_m, 800);
  page->take_track(write("good.gpx", "<gpx><wpt lat=\"47.005\" lon=\"8\"/></gpx>"));
  EXPECT_EQ(b.window.document().rig().home.area_m, 560);
  b.window.document().undo();
  EXPECT_EQ(b.window.document().rig().home.area_m, 800);
  ASSERT_TRUE(home_of(b));
  const QString file = b.folder.path() + u"/reach.gpx"_s;
  page->write_reach(file);
  EXPECT_TRUE(said.back().contains(u"reach.gpx"_s));
  page->take_track(file);  // what was written is read again
  EXPECT_GT(*b.window.document().rig().home.area_m, 800);
  page->write_reach(u"/nowhere/at/all.geojson"_s);
  EXPECT_FALSE(said.back().contains(u"was written"_s));
}

TEST(HomePage, ObstaclesAndTheRulesOfThePlaceAreWrittenDown) {
  Builder b({}, 0);
  ASSERT_TRUE(b.open("hedgerow", Station::home));
  b.edit([](Rig& r) { r.home = {}; });
  ASSERT_TRUE(home_of(b));
  QApplication::processEvents();
  b.when([&] { return QApplication::activeModalWidget() != nullptr; },
         [&] {
           auto* sheet = QApplication::activeModalWidget();
           sheet->findChild<QLineEdit*>(u"obstacle_name"_s)->setText(u"<b>mast</b>"_s);
           for (const auto& [box, value] :
                {std::pair{"obstacle_bearing", 40.0}, {"obstacle_distance", 150.0}, {"obstacle_height", 55.0}})
             sheet->findChild<QDoubleSpinBox*>(QLatin1String(box))->setValue(value);
           static_cast<QDialog*>(sheet)->accept();
         });
  ASSERT_TRUE(b.click(u"home_obstacle"_s));
  ASSERT_EQ(b.window.document().rig().home.obstacles.size(), 1u);
  ASSERT_TRUE(home_of(b));
  EXPECT_TRUE(b.wait([&] { return text(b, "home_words").contains(u"<b>mast</b>"_s); })) << "as it was typed";
  EXPECT_NEAR(home_of(b)->return_height_m, 75, 0.01) << "as needed";
  auto* rules = b.find<QLineEdit>(u"looked_up"_s);
  rules->setFocus();
  QTest::keyClicks(rules, u"club rules, spring"_s);
  QTest::keyClick(rules, Qt::Key_Return);
  EXPECT_EQ(b.window.document().rig().home.looked_up, "club rules, spring");
}

TEST(HomePage, StandsWithAnyDemoAndSaysWhatIsMissing) {
  for (const char* name : {"heath", "bramble", "delta"}) {
    Builder b({}, 0);
    ASSERT_TRUE(b.open(name, Station::home)) << name;
    ASSERT_TRUE(home_of(b)) << name;
    QApplication::processEvents();
    EXPECT_EQ(home_of(b)->missing, "") << name;
    EXPECT_FALSE(titles(b).isEmpty()) << name;
    EXPECT_FALSE(b.can_click(u"home_give"_s)) << name;
  }
  Builder b({}, 0);
  ASSERT_TRUE(b.open("hedgerow", Station::home));
  b.edit([](Rig& r) { r.parts.clear(), r.mountings.clear(), r.leads.clear(); });
  ASSERT_TRUE(home_of(b));
  QApplication::processEvents();
  EXPECT_TRUE(b.wait([&] { return b.can_click(u"home_give"_s); }));
}

}  // namespace
}  // namespace rigging::app
