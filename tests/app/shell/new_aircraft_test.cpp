#include "shell/new_aircraft_page.h"

#include <gtest/gtest.h>

#include <QComboBox>
#include <QLineEdit>
#include <QListWidget>

#include "airframe/kinds.h"
#include "bench_builder.h"
#include "fit/fit.h"
#include "look/literals.h"
#include "look/measure_edit.h"
#include "review/grouped.h"
#include "wiring/plan.h"

namespace rigging::app {
namespace {

/// What a builder tells, as it is typed.
struct Told {
  const char* name;
  AirframeKind kind;
  const char *span, *mass, *controller, *drive, *others;
};

const Told firsts[] = {
    {"Fen", AirframeKind::flying_wing, "1.2 m", "1.1 kg", "full_controller", "",
     "camera, 200 mW video, satellite with compass, buzzer"},
    {"Larch", AirframeKind::motor_glider, "1,5 m", "900 g", "inline_dial", "", ""},
    {"Wren", AirframeKind::flying_wing, "700", "300", "fixed_wing", "2S 850 mAh", ""},
    {"Pair", AirframeKind::twin_differential, "63 in", "1.9 kg", "full_controller", "", "gps with compass"},
    {"Mere", AirframeKind::v_tail, "2.4", "3.8", "large_controller", "",
     "satellite with compass, airspeed, recording camera, 5V 5A regulator"}};

/// Clicks and keys, as they are counted.
struct Hand {
  Builder& b;
  int clicks = 0, keys = 0;

  void type(const char* field, const char* text) {
    auto* line = b.find<QLineEdit>(QLatin1String(field));
    ASSERT_TRUE(line) << field;
    QTest::mouseClick(line, Qt::LeftButton);
    ++clicks;
    QTest::keyClicks(line, QString::fromUtf8(text));
    keys += static_cast<int>(qstrlen(text));
  }
  void choose(const char* box, const char* data) {
    auto* combo = b.find<QComboBox>(QLatin1String(box));
    combo->setCurrentIndex(combo->findData(QLatin1String(data)));
    ++clicks, ++clicks;
  }
  void pick_kind(AirframeKind kind) {
    auto* kinds = b.find<QListWidget>(u"begin_kinds"_s);
    for (int i = 0; i < kinds->count(); ++i)
      if (kinds->item(i)->data(Qt::UserRole).toInt() == static_cast<int>(kind)) {
        kinds->scrollToItem(kinds->item(i));
        QTest::mouseClick(kinds->viewport(), Qt::LeftButton, {}, kinds->visualItemRect(kinds->item(i)).center());
      }
    ++clicks;
  }
};

void expect_begun(Builder& b, const Told& told) {
  const Rig& rig = b.window.document().rig();
  EXPECT_EQ(rig.name, told.name);
  EXPECT_EQ(rig.airframe.kind, told.kind);
  EXPECT_EQ(rig.controller.kind, told.controller);
  EXPECT_EQ(rig.mountings.size(), rig.parts.size() + 1) << told.name << ": everything has a place";
  EXPECT_TRUE(find_clashes(rig, b.window.document().catalogue()).empty()) << told.name;
  const Plan plan = plan_wiring(rig, b.window.document().catalogue());
  EXPECT_TRUE(plan.obstacles.empty()) << told.name << ": " << plan.obstacles.front().what;
  EXPECT_EQ(plan.changes, 0) << told.name;
  for (const ConsumerReport& c : b.window.document().review().reports.power().consumers)
    EXPECT_TRUE(c.powered[static_cast<std::size_t>(SupplyState::battery)]) << told.name << ": dark " << c.name;
  // The second tier may add some.
  EXPECT_TRUE(b.wait([&] { return b.window.document().deferred() != nullptr; }, 20000));
  const auto cards = grouped(b.window.document().snags());
  EXPECT_LT(cards.size(), 8u) << told.name;
  if (cards.size() >= 8)
    for (const SnagGroup& g : cards) ADD_FAILURE() << told.name << " " << g.first().code << " " << g.first().what;
  EXPECT_TRUE(b.window.document().unsaved_work()) << "what was put on paper is somebody's work";
}

void PrintTo(const Told& t, std::ostream* out) { *out << t.name; }
class FirstRig : public testing::TestWithParam<Told> {};

TEST_P(FirstRig, IsBuiltFromNothingThroughTheWindow) {
  const Told& told = GetParam();
  Builder b;
  b.window.begin();
  Hand hand{b};
  hand.type("begin_name", told.name);
  hand.pick_kind(told.kind);
  hand.type("begin_span", told.span);
  hand.type("begin_mass", told.mass);
  hand.choose("begin_controller", told.controller);
  if (*told.drive) hand.type("begin_drive", told.drive);
  if (*told.others) hand.type("begin_others", told.others);
  EXPECT_EQ(b.find<QLabel>(u"begin_problem"_s)->text(), QString());
  EXPECT_EQ(b.find<QLabel>(u"begin_drive_words"_s)->text(), QString());
  ASSERT_TRUE(b.click(u"begin_take"_s));
  ++hand.clicks;
  expect_begun(b, told);
  EXPECT_LT(hand.clicks, 20);
  RecordProperty("clicks", hand.clicks);
  RecordProperty("keys", hand.keys);
  // What next: three things, and one key leads to the first.
  for (const char* key : {"next_1", "next_2", "next_3"}) EXPECT_TRUE(b.can_click(QLatin1String(key))) << key;
  ASSERT_TRUE(b.click(u"next_1"_s));
  EXPECT_EQ(b.window.station(), Station::airframe) << "the guesses are measured first";
  // One undo takes it all back.
  b.window.document().undo();
  EXPECT_TRUE(b.window.document().rig().parts.empty());
}

INSTANTIATE_TEST_SUITE_P(NewAircraft, FirstRig, testing::ValuesIn(firsts),
                         [](const auto& i) { return std::string(i.param.name); });

TEST(NewAircraft, TheKeyboardAloneDoesIt) {
  Builder b;
  b.window.begin();
  const auto tab_to = [&](const char* name) {
    for (int i = 0; i < 40; ++i) {
      if (const QWidget* now = QApplication::focusWidget(); now && now->objectName() == QLatin1String(name))
        return true;
      QTest::keyClick(QApplication::focusWidget(), Qt::Key_Tab);
    }
    return false;
  };
  const auto type = [&](const char* text) { QTest::keyClicks(QApplication::focusWidget(), QString::fromUtf8(text)); };
  ASSERT_TRUE(QApplication::focusWidget());
  EXPECT_EQ(QApplication::focusWidget()->objectName(), u"begin_name"_s);
  type("Fen");
  ASSERT_TRUE(tab_to("begin_kinds"));
  type("Flying");
  ASSERT_TRUE(tab_to("begin_span"));
  type("1.2 m");
  ASSERT_TRUE(tab_to("begin_mass"));
  type("1.1 kg");
  ASSERT_TRUE(tab_to("begin_controller"));
  ASSERT_TRUE(tab_to("begin_others"));
  type("camera, 200 mW video, satellite with compass, buzzer");
  ASSERT_TRUE(tab_to("begin_take"));
  QTest::keyClick(QApplication::focusWidget(), Qt::Key_Space);
  expect_begun(b, firsts[0]);
  ASSERT_TRUE(tab_to("next_1"));
  QTest::keyClick(QApplication::focusWidget(), Qt::Key_Space);
  EXPECT_EQ(b.window.station(), Station::airframe);
}

TEST(NewAircraft, WhatIsNotUnderstoodStaysAndSaysWhy) {
  Builder b;
  b.window.begin();
  Hand hand{b};
  hand.type("begin_span", "1.2 furlongs");
  EXPECT_TRUE(b.find<QLabel>(u"begin_problem"_s)->text().contains(u"furlongs"_s));
  EXPECT_FALSE(b.can_click(u"begin_take"_s));
  auto* span = b.find<MeasureEdit>(u"begin_span"_s);
  EXPECT_EQ(span->text(), u"1.2 furlongs"_s);
  span->clear();
  hand.type("begin_span", "1200 kg");
  EXPECT_FALSE(b.can_click(u"begin_take"_s));
  span->selectAll();
  hand.type("begin_span", "");
  QTest::keyClick(span, Qt::Key_A, Qt::ControlModifier);
  QTest::keyClicks(span, u"48\""_s);
  EXPECT_TRUE(b.can_click(u"begin_take"_s));
  EXPECT_NEAR(*span->value(), 1.2192, 1e-9);
  hand.type("begin_others", "flux capacitor, video 250 mW, <b>camera</b>");
  const QString others = b.find<QLabel>(u"begin_others_words"_s)->text();
  EXPECT_TRUE(others.contains(u"left out"_s)) << others.toStdString();
  EXPECT_TRUE(others.contains(u"nearest"_s)) << others.toStdString();
  hand.type("begin_drive", "2300 kV motor, 9x6, 3S 1300");
  EXPECT_TRUE(b.find<QLabel>(u"begin_drive_words"_s)->text().contains(u"The motor bears"_s));
}

TEST(NewAircraft, ABoardOfOnesOwnIsDescribedFirst) {
  Builder b;
  b.window.begin();
  Hand hand{b};
  hand.type("begin_name", "Own");
  hand.choose("begin_controller", "");
  ASSERT_TRUE(b.click(u"begin_take"_s));
  ASSERT_TRUE(b.window.document().save(b.folder.filePath(u"own.rig.json"_s)));
  bool described = false;
  b.in_sheet([&](QWidget& sheet) {
    described = sheet.objectName() == u"board_dialog"_s;
    static_cast<QDialog&>(sheet).reject();
  });
  b.find<QPushButton>(u"next_1"_s)->click();
  EXPECT_TRUE(described);
  EXPECT_EQ(b.window.station(), Station::wiring);
}

TEST(NewAircraft, FitsTheSmallestSize) {
  Builder b;
  b.window.begin();
  for (const QSize size : {QSize(1280, 800), QSize(1024, 700)}) {
    b.window.resize(size);
    QApplication::processEvents();
    EXPECT_EQ(b.window.size(), size) << "something asks for more room";
    for (const char* name : {"begin_take", "begin_name", "begin_others", "begin_drive", "begin_leave"}) {
      const auto* w = b.find(QLatin1String(name));
      const QRect shown(w->mapTo(&b.window, QPoint(0, 0)), w->size());
      EXPECT_TRUE(QRect(QPoint(0, 0), size).contains(shown)) << name << " at " << size.width();
    }
  }
  if (const QByteArray file = qgetenv("RIGGING_PICTURE"); !file.isEmpty())
    b.window.grab().save(QString::fromUtf8(file));
}

TEST(NewAircraft, NothingIsLostThatIsOpen) {
  Builder b;
  ASSERT_TRUE(b.open("heath", Station::fit));
  const Rig before = b.window.document().rig();
  b.window.begin();
  ASSERT_TRUE(b.click(u"begin_leave"_s));
  EXPECT_EQ(b.window.station(), Station::fit);
  EXPECT_EQ(b.window.document().rig(), before);
}

// What is typed above moves nothing below, what was understood stands below it piece by piece, and what was told stays
// when the sheet is left and come back to.
TEST(NewAircraft, TypingMovesNothingAndLeavingKeeps) {
  Builder b;
  b.window.begin();
  Hand hand{b};
  const auto top = [&](const char* name) { return b.find(QLatin1String(name))->mapTo(&b.window, QPoint(0, 0)).y(); };
  const int drive = top("begin_drive"), list = top("begin_drives");
  hand.type("begin_others", "camera, 200 mW video");
  hand.type("begin_drive", "4S 3000 mAh");
  EXPECT_EQ(top("begin_drive"), drive);
  EXPECT_EQ(top("begin_drives"), list);
  const QString read = b.find<QLabel>(u"begin_drive_read"_s)->text();
  EXPECT_TRUE(read.contains(u"4S 3000"_s)) << read.toStdString();
  hand.type("begin_name", "Kept");
  ASSERT_TRUE(b.click(u"begin_leave"_s));
  b.window.begin();
  EXPECT_EQ(b.find<QLineEdit>(u"begin_name"_s)->text(), u"Kept"_s);
  EXPECT_EQ(b.find<QLineEdit>(u"begin_drive"_s)->text(), u"4S 3000 mAh"_s);
}

TEST(NewAircraft, RigsThatWereOpenAreOffered) {
  Builder b;
  b.window.begin();
  EXPECT_FALSE(b.find(u"begin_recent"_s)->isVisible()) << "none was open yet";
  b.window.document().start_new(fresh_rig("Before", AirframeKind::v_tail, "full_controller"));
  const QString file = b.folder.filePath(u"before.rig.json"_s);
  ASSERT_TRUE(b.window.document().save(file));
  ASSERT_TRUE(b.window.open_file(file));
  ASSERT_TRUE(b.window.open_file(QString::fromStdString(in_source("/data/demo/heath.rig.json"))));
  b.window.begin();
  auto* recent = b.find<QComboBox>(u"begin_recent"_s);
  ASSERT_TRUE(recent->isVisible());
  recent->setCurrentIndex(recent->findData(file));
  Q_EMIT recent->activated(recent->currentIndex());
  EXPECT_EQ(b.window.document().title(), u"Before"_s);
}

TEST(NewAircraft, TabGoesWhereTheEyeGoes) {
  Builder b;
  b.window.begin();
  b.find(u"begin_name"_s)->setFocus();
  QStringList seen;
  for (int i = 0; i < 12; ++i) {
    seen << QApplication::focusWidget()->objectName();
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_Tab);
    QApplication::processEvents();
  }
  QStringList wanted{u"begin_name"_s, u"begin_span"_s, u"begin_mass"_s};
  EXPECT_EQ(seen.mid(0, 3), wanted) << seen.join(u' ').toStdString();
  for (const auto& [before, after] : {std::pair{u"begin_mass"_s, u"begin_controller"_s},
                                      {u"begin_controller"_s, u"begin_receiver"_s},
                                      {u"begin_receiver"_s, u"begin_others"_s},
                                      {u"begin_others"_s, u"begin_drive"_s},
                                      {u"begin_drive"_s, u"begin_drives"_s}})
    EXPECT_LT(seen.indexOf(before), seen.indexOf(after)) << seen.join(u' ').toStdString();
}

}  // namespace
}  // namespace rigging::app
