#include "stations/feel/feel_page.h"

#include <QMessageBox>
#include <QPushButton>
#include <cmath>
#include <fstream>
#include <random>

#include "base/angle.h"
#include "bench_builder.h"
#include "look/literals.h"

namespace rigging::app {
namespace {

const FeelReport* feel_of(Builder& b) {
  return b.wait([&] { return b.window.document().deferred() != nullptr; }) ? &b.window.document().deferred()->feel
                                                                           : nullptr;
}

bool at_feel(Builder& b, const char* rig) {
  if (!b.open(rig, Station::feel) || !feel_of(b)) return false;
  QApplication::processEvents();
  return true;
}

std::optional<double> roll_gain(Builder& b) {
  const AxisGain* g = b.window.document().rig().feel.gain(Axis::roll);
  return g ? g->rate : std::nullopt;
}

QString text(Builder& b, const char* label) { return b.find<QLabel>(QLatin1String(label))->text(); }

TEST(FeelPage, FirstGainsArePlannedDraggedTypedAndUndone) {
  Builder b({}, 0);
  ASSERT_TRUE(at_feel(b, "hedgerow"));
  EXPECT_TRUE(text(b, "feel_verdict").contains(u"Nothing is set yet"_s)) << text(b, "feel_verdict").toStdString();
  ASSERT_TRUE(b.click(u"first_gains"_s));
  ASSERT_TRUE(feel_of(b));
  const double first = *roll_gain(b);
  EXPECT_NEAR(first, b.window.document().deferred()->feel_advice.first[0].place, 1e-12);
  EXPECT_EQ(b.window.document().rig().feel.gains.size(), 3u);
  EXPECT_TRUE(b.wait([&] { return !b.find<QPushButton>(u"first_gains"_s)->isEnabled(); })) << "it stands as advised";
  EXPECT_TRUE(text(b, "feel_verdict").contains(u"every speed"_s)) << text(b, "feel_verdict").toStdString();

  // Dragged far up it says that it shakes, and is set when let go.
  auto* view = b.find<FeelView>(u"feel_view"_s);
  const QPoint middle(view->width() / 2, view->height() / 2);
  QTest::mousePress(view, Qt::LeftButton, {}, middle);
  QMouseEvent move(QEvent::MouseMove, QPointF(middle.x(), 45), view->mapToGlobal(QPointF(middle.x(), 45)), Qt::NoButton,
                   Qt::LeftButton, {});
  QApplication::sendEvent(view, &move);
  EXPECT_TRUE(text(b, "feel_verdict").contains(u"may shake"_s)) << text(b, "feel_verdict").toStdString();
  EXPECT_NEAR(*roll_gain(b), first, 1e-12) << "nothing is set before the mark is let go";
  QTest::mouseRelease(view, Qt::LeftButton, {}, QPoint(middle.x(), 45));
  EXPECT_GT(*roll_gain(b), 0.9);
  ASSERT_TRUE(feel_of(b));

  // By keys, by words, and back.
  const double dragged = *roll_gain(b);
  view->setFocus();
  QTest::keyClick(view, Qt::Key_Down);
  EXPECT_LT(*roll_gain(b), dragged);
  ASSERT_TRUE(feel_of(b));
  auto* typed = b.find<QLineEdit>(u"typed_gain"_s);
  typed->setFocus();
  typed->selectAll();
  QTest::keyClicks(typed, u"130 %"_s);
  QTest::keyClick(typed, Qt::Key_Return);
  auto* refused = b.find<QLabel>(u"typed_refused"_s);
  EXPECT_TRUE(refused->isVisible() && refused->text().contains(u"0 to 100"_s)) << refused->text().toStdString();
  EXPECT_EQ(typed->text(), u"130 %"_s) << "what does not fit stays in the box";
  typed->selectAll();
  QTest::keyClicks(typed, u"22 %"_s);
  QTest::keyClick(typed, Qt::Key_Return);
  EXPECT_NEAR(*roll_gain(b), 0.22, 1e-12);
  while (roll_gain(b)) b.window.document().undo();
  EXPECT_TRUE(b.window.document().rig().feel.gains.empty());
}

TEST(FeelPage, ADialIsReadByTheClockAndALinkageByItsThrow) {
  Builder b({}, 0);
  ASSERT_TRUE(at_feel(b, "heath"));
  ASSERT_TRUE(b.click(u"axis_pitch"_s));
  auto* typed = b.find<QLineEdit>(u"typed_gain"_s);
  QTest::keyClicks(typed, u"half past 9"_s);
  QTest::keyClick(typed, Qt::Key_Return);
  EXPECT_NEAR(*b.window.document().rig().feel.gain(Axis::pitch)->rate, 0.25, 1e-9);
  ASSERT_TRUE(b.click(u"axis_roll"_s));
  EXPECT_TRUE(b.find<QLineEdit>(u"typed_gain"_s)->isEnabled()) << "it rolls by the rudder";

  Rig rig = b.window.document().rig();
  rig.controller.kind = "fixed_mini";
  b.window.document().edit(rig, u"Another board"_s);
  ASSERT_TRUE(feel_of(b));
  ASSERT_TRUE(b.click(u"axis_pitch"_s));
  EXPECT_FALSE(b.can_click(u"first_gains"_s));
  EXPECT_TRUE(b.can_click(u"feel_holes"_s));
  EXPECT_TRUE(text(b, "feel_list").contains(u"throw"_s));
}

TEST(FeelPage, ALogIsReadTurnedDownAndLearntFrom) {
  Builder b({}, 0);
  ASSERT_TRUE(at_feel(b, "hedgerow"));
  Rig rig = b.window.document().rig();
  rig.feel.made_gain(Axis::roll).rate = 0.8;
  b.window.document().edit(rig, u"A firm roll"_s);
  ASSERT_TRUE(feel_of(b));
  const QString file = b.folder.filePath(u"flight.csv"_s);
  {
    std::ofstream log(file.toStdString());
    std::mt19937 random(2);
    std::normal_distribution noise;
    log << "t_s,roll_rate_deg_s,roll_stick,roll_correction,airspeed_m_s\n";
    for (int i = 0; i < 3000; ++i) {
      const double t = i * 0.01, rate = (t > 10 && t < 18 ? 90 * std::sin(2 * pi * 7 * t) : 0) + noise(random);
      log << t << ',' << rate << ",0," << std::clamp(-0.02 * rate, -1.0, 1.0) << ",19\n";
    }
  }
  QString words;
  b.in_sheet([&](QWidget& sheet) {
    auto* box = qobject_cast<QMessageBox*>(&sheet);
    ASSERT_TRUE(box);
    words = box->text();
    for (QAbstractButton* button : box->buttons())
      if (button->text().contains(u"Turn down"_s)) button->click();
  });
  b.find<FeelPage>({})->take_log(file);
  ASSERT_TRUE(b.wait([&] { return b.find<FeelPage>({})->log_taken(); }));
  EXPECT_TRUE(words.contains(u"Roll shook"_s)) << words.toStdString();
  EXPECT_NEAR(*roll_gain(b), 0.56, 0.011);
  EXPECT_TRUE(b.window.document().rig().feel.learnt(Axis::roll));
  // A file that is none is said and changes nothing; where columns are missing it asks, and may be left.
  const Rig before = b.window.document().rig();
  { std::ofstream(file.toStdString()) << "t_s,roll_rate_deg_s\n0,1\n"; }
  b.find<FeelPage>({})->take_log(file);
  ASSERT_TRUE(b.wait([&] { return b.find<FeelPage>({})->log_taken(); }));
  { std::ofstream(file.toStdString()) << "t_s,throttle\n0,1\n"; }
  bool asked = false;
  b.in_sheet([&](QWidget& sheet) {
    asked = sheet.objectName() == u"numbers_dialog"_s;
    sheet.findChild<QPushButton*>(u"leave"_s)->click();
  });
  b.find<FeelPage>({})->take_log(file);
  ASSERT_TRUE(b.wait([&] { return b.find<FeelPage>({})->log_taken(); }));
  EXPECT_TRUE(asked);
  EXPECT_EQ(b.window.document().rig(), before);
}

TEST(FeelPage, TheTakeOffIsAskedForAndIsNotYetAGo) {
  Builder b({}, 0);
  ASSERT_TRUE(at_feel(b, "hedgerow"));
  EXPECT_FALSE(b.can_click(u"takeoff"_s));
  ASSERT_TRUE(b.click(u"list_launch"_s));
  EXPECT_TRUE(text(b, "feel_list").contains(u"Not yet"_s));
  EXPECT_TRUE(text(b, "feel_list").contains(u"Directions are not proven"_s));
  EXPECT_TRUE(text(b, "feel_list").contains(u"behind your hand"_s)) << "a pusher";
  b.type_into_sheet({{"wind", u"4"_s}, {"rough", u"yes"_s}});
  ASSERT_TRUE(b.click(u"takeoff"_s));
  EXPECT_EQ(b.window.document().rig().feel.takeoff.wind_m_s, 4);
  EXPECT_TRUE(b.window.document().rig().feel.takeoff.rough);
  ASSERT_TRUE(feel_of(b));
  EXPECT_TRUE(b.wait([&] { return text(b, "feel_list").contains(u"11 m/s"_s); })) << text(b, "feel_list").toStdString();
}

TEST(FeelPage, WithoutAMassItSaysWhatToDoFirst) {
  Builder b({}, 0);
  ASSERT_TRUE(at_feel(b, "hedgerow"));
  Rig rig = b.window.document().rig();
  rig.airframe.mass_kg.reset();
  rig.fit.frame_mass_kg.reset();
  b.window.document().edit(rig, u"Not weighed"_s);
  ASSERT_TRUE(feel_of(b));
  EXPECT_TRUE(
      b.wait([&] { return b.find<FeelView>(u"feel_view"_s)->accessibleDescription().contains(u"flying mass"_s); }));
}

TEST(FeelPage, AnotherProgramsLogIsToldItsColumnsOnce) {
  Builder b({}, 0);
  ASSERT_TRUE(at_feel(b, "hedgerow"));
  const QString file = b.folder.filePath(u"theirs.csv"_s);
  {
    std::ofstream log(file.toStdString());
    log << "Time(ms),gyro roll,note\n";
    for (int i = 0; i < 500; ++i) log << 20 * i << ',' << (i % 7) * 0.01 << ",fine\n";
  }
  auto* page = b.window.findChild<FeelPage*>();
  QString asked;
  b.in_sheet([&](QWidget& sheet) {
    asked = sheet.findChild<QLabel*>()->text();
    auto* time = sheet.findChild<QComboBox*>(u"unit_t_s"_s);
    time->setCurrentIndex(time->findText(u"milliseconds"_s));
    EXPECT_EQ(sheet.findChild<QComboBox*>(u"column_roll_rate_deg_s"_s)->currentText(), u"gyro roll"_s)
        << "the guess stands there";
    b.in_sheet([](QWidget& lesson) { lesson.close(); });
    sheet.findChild<QPushButton*>(u"take"_s)->click();
  });
  page->take_log(file);
  ASSERT_TRUE(b.wait([&] { return b.find<FeelPage>({})->log_taken(); }));
  EXPECT_TRUE(asked.contains(u"theirs.csv"_s)) << asked.toStdString();
  ASSERT_EQ(b.window.document().rig().feel.log_columns.size(), 2u);
  EXPECT_DOUBLE_EQ(b.window.document().rig().feel.log_columns[0].factor, 1e-3);
  // Known now: it is read without a question.
  ASSERT_TRUE(feel_of(b));
  QString told;
  b.in_sheet([&](QWidget& lesson) {
    told = lesson.objectName();
    lesson.close();
  });
  page->take_log(file);
  ASSERT_TRUE(b.wait([&] { return b.find<FeelPage>({})->log_taken(); }));
  EXPECT_EQ(told, u"lesson"_s);
}

TEST(FeelPage, LimitsWishesAndTheLawOfTheDialHaveBoxes) {
  Builder b({}, 0);
  ASSERT_TRUE(at_feel(b, "hedgerow"));
  b.type_into_sheet({{"bank_limit", u"35"_s}, {"want_roll", u"180"_s}});
  b.in_sheet([](QWidget& sheet) {
    EXPECT_EQ(sheet.findChild<QDoubleSpinBox*>(u"want_roll"_s)->suffix().trimmed(), u"°/s"_s);
  });
  ASSERT_TRUE(b.click(u"feel_more"_s));
  EXPECT_NEAR(*b.window.document().rig().feel.bank_limit_deg, 35, 1e-9);
  EXPECT_NEAR(*b.window.document().rig().feel.want_roll_deg_s, 180, 1e-9);
  EXPECT_FALSE(b.window.document().rig().feel.half_share);
  EXPECT_TRUE(b.window.document().rig().feel.gains.empty()) << "a sheet that asks sets no gain";
}

}  // namespace
}  // namespace rigging::app
