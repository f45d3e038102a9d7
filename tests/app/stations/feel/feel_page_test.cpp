#include "stations/feel/feel_page.h"

#include <QMessageBox>
#include <QPushButton>
#include <cmath>
#include <fstream>
#include <random>

#include "base/angle.h"
#include "bench_builder.h"

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
  EXPECT_TRUE(text(b, "feel_verdict").contains(QStringLiteral("Nothing is set yet")))
      << text(b, "feel_verdict").toStdString();
  ASSERT_TRUE(b.click(QStringLiteral("first_gains")));
  ASSERT_TRUE(feel_of(b));
  const double first = *roll_gain(b);
  EXPECT_NEAR(first, b.window.document().deferred()->feel_advice.first[0].place, 1e-12);
  EXPECT_EQ(b.window.document().rig().feel.gains.size(), 3u);
  EXPECT_TRUE(b.wait([&] { return !b.find<QPushButton>(QStringLiteral("first_gains"))->isEnabled(); }))
      << "it stands as advised";
  EXPECT_TRUE(text(b, "feel_verdict").contains(QStringLiteral("every speed"))) << text(b, "feel_verdict").toStdString();

  // Dragged far up it says that it shakes, and is set when let go.
  auto* view = b.find<FeelView>(QStringLiteral("feel_view"));
  const QPoint middle(view->width() / 2, view->height() / 2);
  QTest::mousePress(view, Qt::LeftButton, {}, middle);
  QMouseEvent move(QEvent::MouseMove, QPointF(middle.x(), 45), view->mapToGlobal(QPointF(middle.x(), 45)), Qt::NoButton,
                   Qt::LeftButton, {});
  QApplication::sendEvent(view, &move);
  EXPECT_TRUE(text(b, "feel_verdict").contains(QStringLiteral("may shake"))) << text(b, "feel_verdict").toStdString();
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
  auto* typed = b.find<QLineEdit>(QStringLiteral("typed_gain"));
  typed->setFocus();
  typed->selectAll();
  QTest::keyClicks(typed, QStringLiteral("130 %"));
  QTest::keyClick(typed, Qt::Key_Return);
  auto* refused = b.find<QLabel>(QStringLiteral("typed_refused"));
  EXPECT_TRUE(refused->isVisible() && refused->text().contains(QStringLiteral("0 to 100")))
      << refused->text().toStdString();
  EXPECT_EQ(typed->text(), QStringLiteral("130 %")) << "what does not fit stays in the box";
  typed->selectAll();
  QTest::keyClicks(typed, QStringLiteral("22 %"));
  QTest::keyClick(typed, Qt::Key_Return);
  EXPECT_NEAR(*roll_gain(b), 0.22, 1e-12);
  while (roll_gain(b)) b.window.document().undo();
  EXPECT_TRUE(b.window.document().rig().feel.gains.empty());
}

TEST(FeelPage, ADialIsReadByTheClockAndALinkageByItsThrow) {
  Builder b({}, 0);
  ASSERT_TRUE(at_feel(b, "heath"));
  ASSERT_TRUE(b.click(QStringLiteral("axis_pitch")));
  auto* typed = b.find<QLineEdit>(QStringLiteral("typed_gain"));
  QTest::keyClicks(typed, QStringLiteral("half past 9"));
  QTest::keyClick(typed, Qt::Key_Return);
  EXPECT_NEAR(*b.window.document().rig().feel.gain(Axis::pitch)->rate, 0.25, 1e-9);
  ASSERT_TRUE(b.click(QStringLiteral("axis_roll")));
  EXPECT_TRUE(b.find<QLineEdit>(QStringLiteral("typed_gain"))->isEnabled()) << "it rolls by the rudder";

  Rig rig = b.window.document().rig();
  rig.controller.kind = "fixed_mini";
  b.window.document().edit(rig, QStringLiteral("Another board"));
  ASSERT_TRUE(feel_of(b));
  ASSERT_TRUE(b.click(QStringLiteral("axis_pitch")));
  EXPECT_FALSE(b.can_click(QStringLiteral("first_gains")));
  EXPECT_TRUE(b.can_click(QStringLiteral("feel_holes")));
  EXPECT_TRUE(text(b, "feel_list").contains(QStringLiteral("throw")));
}

TEST(FeelPage, ALogIsReadTurnedDownAndLearntFrom) {
  Builder b({}, 0);
  ASSERT_TRUE(at_feel(b, "hedgerow"));
  Rig rig = b.window.document().rig();
  rig.feel.made_gain(Axis::roll).rate = 0.8;
  b.window.document().edit(rig, QStringLiteral("A firm roll"));
  ASSERT_TRUE(feel_of(b));
  const QString file = b.folder.filePath(QStringLiteral("flight.csv"));
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
      if (button->text().contains(QStringLiteral("Turn down"))) button->click();
  });
  b.find<FeelPage>({})->take_log(file);
  EXPECT_TRUE(words.contains(QStringLiteral("Roll shook"))) << words.toStdString();
  EXPECT_NEAR(*roll_gain(b), 0.56, 0.011);
  EXPECT_TRUE(b.window.document().rig().feel.learnt(Axis::roll));
  // A file that is none is said and changes nothing; where columns are missing it asks, and may be left.
  const Rig before = b.window.document().rig();
  { std::ofstream(file.toStdString()) << "t_s,roll_rate_deg_s\n0,1\n"; }
  b.find<FeelPage>({})->take_log(file);
  { std::ofstream(file.toStdString()) << "t_s,throttle\n0,1\n"; }
  bool asked = false;
  b.in_sheet([&](QWidget& sheet) {
    asked = sheet.objectName() == QStringLiteral("numbers_dialog");
    sheet.findChild<QPushButton*>(QStringLiteral("leave"))->click();
  });
  b.find<FeelPage>({})->take_log(file);
  EXPECT_TRUE(asked);
  EXPECT_EQ(b.window.document().rig(), before);
}

TEST(FeelPage, TheTakeOffIsAskedForAndIsNotYetAGo) {
  Builder b({}, 0);
  ASSERT_TRUE(at_feel(b, "hedgerow"));
  EXPECT_FALSE(b.can_click(QStringLiteral("takeoff")));
  ASSERT_TRUE(b.click(QStringLiteral("list_launch")));
  EXPECT_TRUE(text(b, "feel_list").contains(QStringLiteral("Not yet")));
  EXPECT_TRUE(text(b, "feel_list").contains(QStringLiteral("Directions are not proven")));
  EXPECT_TRUE(text(b, "feel_list").contains(QStringLiteral("behind your hand"))) << "a pusher";
  b.type_into_sheet({{"wind", QStringLiteral("4")}, {"rough", QStringLiteral("yes")}});
  ASSERT_TRUE(b.click(QStringLiteral("takeoff")));
  EXPECT_EQ(b.window.document().rig().feel.takeoff.wind_m_s, 4);
  EXPECT_TRUE(b.window.document().rig().feel.takeoff.rough);
  ASSERT_TRUE(feel_of(b));
  EXPECT_TRUE(b.wait([&] { return text(b, "feel_list").contains(QStringLiteral("11 m/s")); }))
      << text(b, "feel_list").toStdString();
}

TEST(FeelPage, WithoutAMassItSaysWhatToDoFirst) {
  Builder b({}, 0);
  ASSERT_TRUE(at_feel(b, "hedgerow"));
  Rig rig = b.window.document().rig();
  rig.airframe.mass_kg.reset();
  rig.fit.frame_mass_kg.reset();
  b.window.document().edit(rig, QStringLiteral("Not weighed"));
  ASSERT_TRUE(feel_of(b));
  EXPECT_TRUE(b.wait([&] {
    return b.find<FeelView>(QStringLiteral("feel_view"))
        ->accessibleDescription()
        .contains(QStringLiteral("flying mass"));
  }));
}

TEST(FeelPage, AnotherProgramsLogIsToldItsColumnsOnce) {
  Builder b({}, 0);
  ASSERT_TRUE(at_feel(b, "hedgerow"));
  const QString file = b.folder.filePath(QStringLiteral("theirs.csv"));
  {
    std::ofstream log(file.toStdString());
    log << "Time(ms),gyro roll,note\n";
    for (int i = 0; i < 500; ++i) log << 20 * i << ',' << (i % 7) * 0.01 << ",fine\n";
  }
  auto* page = b.window.findChild<FeelPage*>();
  QString asked;
  b.in_sheet([&](QWidget& sheet) {
    asked = sheet.findChild<QLabel*>()->text();
    auto* time = sheet.findChild<QComboBox*>(QStringLiteral("unit_t_s"));
    time->setCurrentIndex(time->findText(QStringLiteral("milliseconds")));
    EXPECT_EQ(sheet.findChild<QComboBox*>(QStringLiteral("column_roll_rate_deg_s"))->currentText(),
              QStringLiteral("gyro roll"))
        << "the guess stands there";
    b.in_sheet([](QWidget& lesson) { lesson.close(); });
    sheet.findChild<QPushButton*>(QStringLiteral("take"))->click();
  });
  page->take_log(file);
  EXPECT_TRUE(asked.contains(QStringLiteral("theirs.csv"))) << asked.toStdString();
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
  EXPECT_EQ(told, QStringLiteral("lesson"));
}

TEST(FeelPage, LimitsWishesAndTheLawOfTheDialHaveBoxes) {
  Builder b({}, 0);
  ASSERT_TRUE(at_feel(b, "hedgerow"));
  b.type_into_sheet({{"bank_limit", QStringLiteral("35")}, {"want_roll", QStringLiteral("180")}});
  b.in_sheet([](QWidget& sheet) {
    EXPECT_EQ(sheet.findChild<QDoubleSpinBox*>(QStringLiteral("want_roll"))->suffix().trimmed(), QStringLiteral("°/s"));
  });
  ASSERT_TRUE(b.click(QStringLiteral("feel_more")));
  EXPECT_NEAR(*b.window.document().rig().feel.bank_limit_deg, 35, 1e-9);
  EXPECT_NEAR(*b.window.document().rig().feel.want_roll_deg_s, 180, 1e-9);
  EXPECT_FALSE(b.window.document().rig().feel.half_share);
  EXPECT_TRUE(b.window.document().rig().feel.gains.empty()) << "a sheet that asks sets no gain";
}

}  // namespace
}  // namespace rigging::app
