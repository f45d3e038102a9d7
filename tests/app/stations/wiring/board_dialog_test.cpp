#include <gtest/gtest.h>

#include <QComboBox>
#include <QFileDialog>
#include <QLineEdit>
#include <QMessageBox>
#include <fstream>

#include "base/json.h"
#include "bench_builder.h"
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
  QString file() const { return b.folder.filePath(QStringLiteral("mine.rig.json")); }
  /// Opens the sheet, and does something with it.
  void in_board(std::function<void(QWidget&)> action) {
    b.in_sheet(std::move(action));
    ASSERT_TRUE(b.click(QStringLiteral("my_board")));
  }
  static QString complaint(QWidget& sheet) {
    return sheet.findChild<QLabel*>(QStringLiteral("board_complaint"))->text();
  }
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
    for (auto* w : members->findChildren<QWidget*>(QStringLiteral("member_value")))
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
    sheet.findChild<QLineEdit*>(QStringLiteral("board_id"))->setText(QStringLiteral("attic"));
    sheet.findChild<QLineEdit*>(QStringLiteral("board_name"))->setText(QStringLiteral("Attic board"));
    type(sheet, QStringLiteral("/width_mm"), QStringLiteral("40"));
    // A ninth output beside the others, on a timer of its own.
    members->choose(QStringLiteral("/outputs"));
    press(sheet, "member_add");
    EXPECT_EQ(members->chosen(), QStringLiteral("/outputs/8"));
    type(sheet, QStringLiteral("/outputs/8/label"), QStringLiteral("extra"));
    type(sheet, QStringLiteral("/outputs/8/timer_group"), QStringLiteral("4"));
    const OrderedJson& made = members->value()["outputs"];
    EXPECT_GT(std::hypot(made[8]["x_mm"].get<double>() - made[7]["x_mm"].get<double>(),
                         made[8]["y_mm"].get<double>() - made[7]["y_mm"].get<double>()),
              1.9)
        << "it does not lie on the one that it began as";
    // Dragged to the left edge.
    const QPointF from = view->spot(QStringLiteral("/outputs/8"));
    const QPointF to = view->spot(QStringLiteral("/ports/1")) + QPointF(0, 20);
    QTest::mousePress(view, Qt::LeftButton, {}, from.toPoint());
    QMouseEvent move(QEvent::MouseMove, to, view->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, {});
    QApplication::sendEvent(view, &move);
    QTest::mouseRelease(view, Qt::LeftButton, {}, to.toPoint());
    QApplication::processEvents();
    // A lamp as it really blinks.
    type(sheet, QStringLiteral("/proof/lamps/0/sign"), QStringLiteral("five short ones"));

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
  EXPECT_TRUE(mine->cure(Remedy::swap_leads)) << "what every class can";
  // Used like a shipped one: the fast motor finds the new timer group, the drawing shows it.
  b.edit([](Rig& rig) {
    for (Output& o : rig.outputs)
      if (drives_motor(o)) o.rate_hz = 400;
  });
  ASSERT_TRUE(b.click(QStringLiteral("plan_wiring")));
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
  QDir(b.folder.path()).mkpath(QStringLiteral("other"));
  const QString elsewhere = b.folder.filePath(QStringLiteral("other/copy.rig.json"));
  ASSERT_TRUE(b.window.document().save(elsewhere));
  ASSERT_TRUE(b.window.open_file(elsewhere));
  EXPECT_TRUE(document.controller()) << "nothing is left behind";
  // And on the bench: the twin is built from it.
  b.window.go(Station::proof);
  ASSERT_TRUE(b.click(QStringLiteral("bench_start")));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  ASSERT_TRUE(b.click(QStringLiteral("supply_battery")));
  EXPECT_TRUE(b.wait([&] { return b.window.bench().kind() == QStringLiteral("attic"); }));
}

TEST_F(MyBoard, WhatDoesNotFitIsSaidAndNotKept) {
  in_board([&](QWidget& sheet) {
    auto* keep = sheet.findChild<QAbstractButton*>(QStringLiteral("board_keep"));
    EXPECT_TRUE(keep->isEnabled()) << complaint(sheet).toStdString();
    type(sheet, QStringLiteral("/outputs/0/x_mm"), QStringLiteral("300"));
    EXPECT_TRUE(complaint(sheet).contains(QStringLiteral("lies beside the board"))) << complaint(sheet).toStdString();
    EXPECT_FALSE(keep->isEnabled());
    type(sheet, QStringLiteral("/outputs/0/x_mm"), QStringLiteral("4"));
    EXPECT_TRUE(keep->isEnabled()) << complaint(sheet).toStdString();
    type(sheet, QStringLiteral("/outputs/0/id"), QStringLiteral("s2"));
    EXPECT_TRUE(complaint(sheet).contains(QStringLiteral("twice"))) << complaint(sheet).toStdString();
    type(sheet, QStringLiteral("/outputs/0/id"), QStringLiteral("s1"));
    type(sheet, QStringLiteral("/outputs/0/timer_group"), QStringLiteral("0"));
    EXPECT_TRUE(complaint(sheet).isEmpty()) << "numbers stay within their range: " << complaint(sheet).toStdString();
    type(sheet, QStringLiteral("/feeds/0/from"), QStringLiteral("nowhere"));
    EXPECT_TRUE(complaint(sheet).contains(QStringLiteral("on which nothing is"))) << complaint(sheet).toStdString();
    type(sheet, QStringLiteral("/feeds/0/from"), QStringLiteral("usb"));
    sheet.findChild<QLineEdit*>(QStringLiteral("board_id"))->setText(QStringLiteral("full_controller"));
    press(sheet, "board_keep");
    EXPECT_TRUE(complaint(sheet).contains(QStringLiteral("is there already"))) << complaint(sheet).toStdString();
    QTest::keyClick(&sheet, Qt::Key_Escape);
  });
  EXPECT_EQ(b.window.document().rig().controller.kind, "full_controller");
  EXPECT_FALSE(QFile::exists(b.folder.filePath(QStringLiteral("mine.parts.json"))));
}

TEST_F(MyBoard, EntriesComeAndGoAndKeysMoveThem) {
  in_board([&](QWidget& sheet) {
    auto* members = sheet.findChild<MembersEditor*>();
    auto* view = sheet.findChild<BoardView*>();
    const auto count = [&](const char* list) { return members->value()[list].size(); };
    const auto pads = count("pads");
    members->choose(QStringLiteral("/pads/0"));
    press(sheet, "member_remove");
    EXPECT_EQ(count("pads"), pads - 1);
    press(sheet, "member_add");
    press(sheet, "member_add");
    EXPECT_EQ(count("pads"), pads + 1);
    EXPECT_TRUE(complaint(sheet).isEmpty()) << complaint(sheet).toStdString();
    Q_EMIT view->chosen(QStringLiteral("/outputs/0"));
    view->choose(QStringLiteral("/outputs/0"));
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
  ASSERT_TRUE(b.click(QStringLiteral("my_board")));
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("plan_words"))->text().contains(QStringLiteral("Save the rig first")));
}

}  // namespace
}  // namespace rigging::app
