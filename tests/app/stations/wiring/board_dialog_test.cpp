#include <gtest/gtest.h>

#include <QComboBox>
#include <QFileDialog>
#include <QLineEdit>
#include <QMessageBox>
#include <fstream>

#include "base/json.h"
#include "bench_builder.h"
#include "look/literals.h"
#include "places.h"
#include "stations/members_editor.h"
#include "stations/wiring/board_view.h"
#include "wiring/plan.h"

namespace rigging::app {
namespace {

/// A builder with a board that no catalogue has.
class MyBoard : public testing::Test {
 protected:
  void SetUp() override {
    ASSERT_TRUE(QFile::copy(QString::fromStdString(in_source("/data/demo/hedgerow.rig.json")), file()));
    ASSERT_TRUE(b.window.open_file(file()));
    b.window.go(Station::wiring);
  }
  QString file() const { return b.folder.filePath(u"mine.rig.json"_s); }
  /// Opens the sheet, and does something with it.
  void in_board(std::function<void(QWidget&)> action) {
    b.in_sheet(std::move(action));
    ASSERT_TRUE(b.click(u"my_board"_s));
  }
  static QString complaint(QWidget& sheet) { return sheet.findChild<QLabel*>(u"board_complaint"_s)->text(); }
  static void press(QWidget& sheet, const char* button) {
    auto* push = sheet.findChild<QAbstractButton*>(QLatin1String(button));
    ASSERT_TRUE(push && push->isEnabled()) << button << ": " << complaint(sheet).toStdString();
    push->click();
  }
  static void type(QWidget& sheet, const QString& pointer, const QString& text) {
    auto* members = sheet.findChild<MembersEditor*>();
    members->choose(pointer);
    QTest::keyClick(members, Qt::Key_Return);
    QWidget* value = nullptr;
    for (auto* w : members->findChildren<QWidget*>(u"member_value"_s))
      if (w->isVisible()) value = w;
    ASSERT_TRUE(value) << pointer.toStdString();
    if (auto* box = qobject_cast<QComboBox*>(value))
      box->setCurrentText(text);
    else if (auto* number = qobject_cast<QDoubleSpinBox*>(value))
      number->setValue(text.toDouble());
    else
      qobject_cast<QLineEdit*>(value)->setText(text);
    QTest::keyClick(value, Qt::Key_Return);
    QApplication::processEvents();
  }
  Builder b;
};

TEST_F(MyBoard, IsMadeInTheWindowAndUsedByPlanDrawingAndFile) {
  in_board([&](QWidget& sheet) {
    auto* members = sheet.findChild<MembersEditor*>();
    auto* view = sheet.findChild<BoardView*>();
    sheet.findChild<QLineEdit*>(u"board_id"_s)->setText(u"attic"_s);
    sheet.findChild<QLineEdit*>(u"board_name"_s)->setText(u"Attic board"_s);
    type(sheet, u"/width_mm"_s, u"40"_s);
    // A ninth output beside the others, on a timer of its own.
    members->choose(u"/outputs"_s);
    press(sheet, "member_add");
    EXPECT_EQ(members->chosen(), u"/outputs/8"_s);
    type(sheet, u"/outputs/8/label"_s, u"extra"_s);
    type(sheet, u"/outputs/8/timer_group"_s, u"4"_s);
    const OrderedJson& made = members->value()["outputs"];
    EXPECT_GT(std::hypot(made[8]["x_mm"].get<double>() - made[7]["x_mm"].get<double>(),
                         made[8]["y_mm"].get<double>() - made[7]["y_mm"].get<double>()),
              1.9)
        << "it does not lie on the one that it began as";
    // Dragged to the left edge.
    const QPointF from = view->spot(u"/outputs/8"_s);
    const QPointF to = view->spot(u"/ports/1"_s) + QPointF(0, 20);
    QTest::mousePress(view, Qt::LeftButton, {}, from.toPoint());
    QMouseEvent move(QEvent::MouseMove, to, view->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, {});
    QApplication::sendEvent(view, &move);
    QTest::mouseRelease(view, Qt::LeftButton, {}, to.toPoint());
    QApplication::processEvents();
    // A lamp as it really blinks.
    type(sheet, u"/proof/lamps/0/sign"_s, u"five short ones"_s);

    press(sheet, "board_keep");
  });
  const RigDocument& document = b.window.document();
  const ControllerClass* mine = document.controller();
  ASSERT_TRUE(mine);
  EXPECT_EQ(mine->id, "attic");
  EXPECT_EQ(mine->name, "Attic board");
  EXPECT_EQ(mine->width_mm, 40);
  ASSERT_EQ(mine->outputs.size(), 9u);
  EXPECT_EQ(mine->outputs[8].label, "extra");
  EXPECT_EQ(mine->outputs[8].timer_group, 4);
  EXPECT_EQ(mine->outputs[8].side, "left") << "where it was dragged to";
  EXPECT_NEAR(mine->outputs[8].x_mm, 2, 1);
  EXPECT_EQ(mine->proof.lamps[0].sign, "five short ones");
  EXPECT_TRUE(mine->steps_for(Remedy::swap_leads)) << "what every class can";
  // Used like a shipped one: the fast motor finds the new timer group, the drawing shows it.
  b.edit([](Rig& rig) {
    for (Output& o : rig.outputs)
      if (drives_motor(o)) o.rate_hz = 400;
  });
  ASSERT_TRUE(b.click(u"plan_wiring"_s));
  for (const Output& o : document.rig().outputs)
    if (drives_motor(o)) EXPECT_NE(mine->socket(o.socket)->timer_group, 1) << o.socket;
  // In another run, from the files alone.
  ASSERT_TRUE(b.window.document().save(file()));
  ASSERT_TRUE(b.window.open_file(QString::fromStdString(in_source("/data/demo/delta.rig.json"))));
  EXPECT_FALSE(document.catalogue().controller("attic")) << "it belongs to that rig";
  ASSERT_TRUE(b.window.open_file(file()));
  ASSERT_TRUE(document.controller());
  EXPECT_EQ(document.controller()->outputs.size(), 9u);
  // Saved elsewhere the board goes with it.
  QDir(b.folder.path()).mkpath(u"other"_s);
  const QString elsewhere = b.folder.filePath(u"other/copy.rig.json"_s);
  ASSERT_TRUE(b.window.document().save(elsewhere));
  ASSERT_TRUE(b.window.open_file(elsewhere));
  EXPECT_TRUE(document.controller()) << "nothing is left behind";
  // And on the bench: the twin is built from it.
  b.window.go(Station::proof);
  ASSERT_TRUE(b.click(u"bench_start"_s));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  ASSERT_TRUE(b.click(u"supply_battery"_s));
  EXPECT_TRUE(b.wait([&] { return b.window.bench().kind() == u"attic"_s; }));
}

TEST_F(MyBoard, WhatDoesNotFitIsSaidAndNotKept) {
  in_board([&](QWidget& sheet) {
    auto* keep = sheet.findChild<QAbstractButton*>(u"board_keep"_s);
    EXPECT_TRUE(keep->isEnabled()) << complaint(sheet).toStdString();
    type(sheet, u"/outputs/0/x_mm"_s, u"300"_s);
    EXPECT_TRUE(complaint(sheet).contains(u"lies beside the board"_s)) << complaint(sheet).toStdString();
    EXPECT_FALSE(keep->isEnabled());
    type(sheet, u"/outputs/0/x_mm"_s, u"4"_s);
    EXPECT_TRUE(keep->isEnabled()) << complaint(sheet).toStdString();
    type(sheet, u"/outputs/0/id"_s, u"slot_2"_s);
    EXPECT_TRUE(complaint(sheet).contains(u"twice"_s)) << complaint(sheet).toStdString();
    type(sheet, u"/outputs/0/id"_s, u"slot_1"_s);
    type(sheet, u"/outputs/0/timer_group"_s, u"0"_s);
    EXPECT_TRUE(complaint(sheet).isEmpty()) << "numbers stay within their range: " << complaint(sheet).toStdString();
    type(sheet, u"/feeds/0/from"_s, u"nowhere"_s);
    EXPECT_TRUE(complaint(sheet).contains(u"on which nothing is"_s)) << complaint(sheet).toStdString();
    type(sheet, u"/feeds/0/from"_s, u"usb"_s);
    sheet.findChild<QLineEdit*>(u"board_id"_s)->setText(u"full_controller"_s);
    press(sheet, "board_keep");
    EXPECT_TRUE(complaint(sheet).contains(u"is there already"_s)) << complaint(sheet).toStdString();
    QTest::keyClick(&sheet, Qt::Key_Escape);
  });
  EXPECT_EQ(b.window.document().rig().controller.kind, "full_controller");
  EXPECT_FALSE(QFile::exists(b.folder.filePath(u"mine.parts.json"_s)));
}

TEST_F(MyBoard, EntriesComeAndGoAndKeysMoveThem) {
  in_board([&](QWidget& sheet) {
    auto* members = sheet.findChild<MembersEditor*>();
    auto* view = sheet.findChild<BoardView*>();
    const auto count = [&](const char* list) { return members->value()[list].size(); };
    const auto pads = count("pads");
    members->choose(u"/pads/0"_s);
    press(sheet, "member_remove");
    EXPECT_EQ(count("pads"), pads - 1);
    press(sheet, "member_add");
    press(sheet, "member_add");
    EXPECT_EQ(count("pads"), pads + 1);
    EXPECT_TRUE(complaint(sheet).isEmpty()) << complaint(sheet).toStdString();
    Q_EMIT view->chosen(u"/outputs/0"_s);
    view->choose(u"/outputs/0"_s);
    const double before = members->value()["outputs"][0]["x_mm"];
    QTest::keyClick(view, Qt::Key_Right);
    EXPECT_NEAR(members->value()["outputs"][0]["x_mm"].get<double>(), before + 0.5, 0.26);
    QTest::keyClick(&sheet, Qt::Key_Escape);
  });
  EXPECT_FALSE(b.window.document().modified());
}

TEST(MyBoardFile, NeedsARigWithAFile) {
  Builder b;
  b.window.document().start_new(*load_rig(in_source("/data/demo/hedgerow.rig.json")));
  b.window.go(Station::wiring);
  ASSERT_TRUE(b.click(u"my_board"_s));
  EXPECT_TRUE(b.find<QLabel>(u"plan_words"_s)->text().contains(u"Save the rig first"_s));
}

}  // namespace
}  // namespace rigging::app
