#include <gtest/gtest.h>

#include <QCheckBox>
#include <QLabel>
#include <QMenu>
#include <QSvgRenderer>
#include <QTableWidget>
#include <QTimer>
#include <cmath>
#include <set>

#include "bench_builder.h"
#include "look/literals.h"
#include "places.h"
#include "rig/rig_file.h"
#include "sheets/wiring_sheets.h"
#include "shell/sheet_dialog.h"
#include "stations/wiring/wiring_page.h"
#include "wiring/lead_checks.h"

namespace rigging::app {
namespace {

TEST_F(Planning, ALeadIsTracedAndItsEndMoved) {
  b.window.go(Station::wiring);
  QApplication::processEvents();
  auto* view = b.find<WiringView>(u"wiring_view"_s);
  drag(view, view->at_socket("serial_4"), view->at_socket("serial_3"));
  EXPECT_EQ(rig().lead("gps")->to.socket, "serial_3");
  EXPECT_EQ(view->traced(), "gps");
  EXPECT_TRUE(text("chosen_lead").contains(u"SER 3"_s));
  // On a port that can't serve it: a conflict, said and drawn.
  drag(view, view->at_socket("serial_2"), view->at_socket("serial_1"));
  EXPECT_EQ(rig().lead("receiver")->to.socket, "serial_1");
  bool said = false;
  for (const Snag& s : b.window.document().review().snags) said = said || s.code == "WIRING-04";
  EXPECT_TRUE(said);
  ASSERT_TRUE(b.click(u"plan_wiring"_s));
  EXPECT_EQ(rig().lead("receiver")->to.socket, "serial_2");
  EXPECT_TRUE(text("plan_words").contains(u"One thing"_s)) << text("plan_words").toStdString();
  // Dropped on nothing: nothing happens.
  drag(view, view->at_socket("serial_2"), QPointF(view->width() - 5, view->height() - 5));
  EXPECT_EQ(rig().lead("receiver")->to.socket, "serial_2");
  // A servo's plug takes its output along.
  drag(view, view->at_socket("slot_1"), view->at_socket("slot_5"));
  EXPECT_EQ(rig().lead("servo_flaperon_left")->to.socket, "slot_5");
  EXPECT_EQ(rig().output("out_1")->socket, "slot_5");
  QTest::keyClick(view, Qt::Key_Down);
  EXPECT_FALSE(view->traced().empty());
}

TEST_F(Planning, TheDeedsOfALeadAreAtTheLead) {
  b.window.go(Station::wiring);
  QApplication::processEvents();
  auto* view = b.find<WiringView>(u"wiring_view"_s);
  const QPointF at = view->at_socket("serial_4") + QPointF(14, 0);
  ASSERT_EQ(view->lead_under(at), "gps");
  ASSERT_FALSE(rig().lead("gps")->fixed);
  const auto take = [&](QWidget* where, QPoint pos, const QString& deed) {
    QTimer::singleShot(0, [&] {
      auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
      ASSERT_TRUE(menu);
      for (QAction* a : menu->actions())
        if (a->text() == deed) a->trigger();
      menu->close();
    });
    Q_EMIT where->customContextMenuRequested(pos);
  };
  take(view, at.toPoint(), u"Keep here"_s);
  EXPECT_TRUE(rig().lead("gps")->fixed);
  auto* table = b.find<QTableWidget>(u"loom"_s);
  const QPoint row = table->visualItemRect(table->item(0, 1)).center();
  const std::string first = table->item(0, 0)->data(Qt::UserRole).toString().toStdString();
  take(table, row, u"Red wire out"_s);
  EXPECT_NE(rig().lead(first)->plus_removed,
            load_rig(in_source("/data/demo/hedgerow.rig.json"))->lead(first)->plus_removed);
  EXPECT_EQ(view->traced(), first);
}

TEST_F(Planning, TheLoomIsSortedEditedAndChecked) {
  b.window.go(Station::wiring);
  auto* table = b.find<QTableWidget>(u"loom"_s);
  ASSERT_EQ(table->rowCount(), static_cast<int>(rig().leads.size()));
  table->sortByColumn(4, Qt::DescendingOrder);
  EXPECT_TRUE(table->item(0, 4)->text().startsWith(u"900"_s))
      << "sorted by number, not by digits: " << table->item(0, 4)->text().toStdString();
  const std::string lead = table->item(0, 0)->data(Qt::UserRole).toString().toStdString();
  table->item(0, 4)->setText(u"950"_s);
  EXPECT_NEAR(*rig().lead(lead)->length_m, 0.95, 1e-9);
  const Rig before = rig();
  table->item(1, 5)->setText(u"thick"_s);
  EXPECT_EQ(rig(), before);
  EXPECT_TRUE(text("plan_words").contains(u"thick"_s) && text("plan_words").contains(u"0 to 40"_s));
  table->selectRow(2);
  ASSERT_TRUE(b.click(u"lead_fixed"_s));
  ASSERT_TRUE(b.click(u"lead_red_out"_s));
  int fixed = 0;
  for (const Lead& l : rig().leads) fixed += l.fixed && l.plus_removed;
  EXPECT_EQ(fixed, 1);
}

TEST_F(Planning, ThePlanStartsFromNothing) {
  Rig bare = rig();
  bare.leads.clear();
  b.window.document().edit(bare, u"all leads out"_s);
  b.window.go(Station::wiring);
  ASSERT_TRUE(b.click(u"plan_wiring"_s));
  EXPECT_EQ(rig().leads.size(), 17u);
  for (const Snag& s : b.window.document().review().snags) EXPECT_NE(s.severity, Severity::grounds) << s.code << s.what;
  EXPECT_TRUE(text("plan_words").contains(u"things placed"_s));
}

TEST_F(Planning, SheetsAreKeptAsPdfAndSvg) {
  SheetDialog dialog(
      u"Wiring"_s,
      {{u"Plug list"_s, QString::fromStdString(plug_list_svg(rig(), b.window.document().catalogue()).front())},
       {u"Drawing"_s, QString::fromStdString(wiring_drawing_svg(rig(), b.window.document().catalogue()))}},
      nullptr);
  const QString pdf = b.folder.filePath(u"w.pdf"_s);
  ASSERT_TRUE(dialog.write_pdf(pdf));
  QFile file(pdf);
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  const QByteArray bytes = file.readAll();
  EXPECT_TRUE(bytes.startsWith("%PDF"));
  EXPECT_EQ(bytes.count("/Type /Page\n") + bytes.count("/Type /Page "), 2);
  ASSERT_TRUE(dialog.write_svg(b.folder.filePath(u"w.svg"_s)));
  EXPECT_FALSE(QFile::exists(b.folder.filePath(u"w-2.svg"_s))) << "one file unless asked";
  QSvgRenderer both(b.folder.filePath(u"w.svg"_s));
  ASSERT_TRUE(both.isValid());
  EXPECT_GT(both.viewBoxF().height(), 297 + 10) << "below each other";
  dialog.findChild<QCheckBox*>(u"sheets_apart"_s)->setChecked(true);
  ASSERT_TRUE(dialog.write_svg(b.folder.filePath(u"w.svg"_s)));
  EXPECT_TRUE(QFile::exists(b.folder.filePath(u"w-2.svg"_s)));
  EXPECT_FALSE(dialog.write_pdf(u"/nowhere/at/all.pdf"_s));
}

TEST_F(Planning, LeadsAreLookedAtTriedAndProven) {
  b.window.go(Station::wiring);
  auto* page = b.window.findChild<WiringPage*>();
  const auto state = [&] {
    return find_check(b.window.document().review().checks, CheckId{lead_family, "gps"})->state;
  };
  page->go_to(u"gps"_s);
  EXPECT_EQ(state(), ProofState::none);
  const QString before = text("lead_check");
  EXPECT_TRUE(text("lead_check").contains(u"Propeller off"_s));
  EXPECT_FALSE(b.can_click(u"lead_inspect"_s)) << "no bench, nothing to look at";
  ASSERT_TRUE(b.click(u"lead_right"_s));
  EXPECT_EQ(state(), ProofState::fresh);
  EXPECT_NE(text("lead_check"), before) << "on to a lead that is still to be looked at";
  page->go_to(u"gps"_s);
  EXPECT_TRUE(text("lead_check").contains(u"Proven"_s)) << "and the page says so";
  // Moved afterwards: stale, said as a snag; looked at again: proven.
  Rig moved = rig();
  moved.lead("gps")->to.socket = "serial_3";
  b.window.document().edit(moved, u"moved"_s);
  EXPECT_EQ(state(), ProofState::stale);
  EXPECT_TRUE(text("lead_check").contains(u"SER 3"_s)) << "and what changed";
  bool said = false;
  for (const Snag& s : b.window.document().review().snags) said = said || s.code == "WIRING-32";
  EXPECT_TRUE(said);
  EXPECT_EQ(b.window.document().review().stations[static_cast<std::size_t>(Station::wiring)], StationState::snags);
  b.window.document().undo();
  EXPECT_EQ(state(), ProofState::fresh);
  // What does not touch the lead leaves the proof alone.
  Rig other = rig();
  other.airframe.span_m += 0.1;
  other.lead("gps")->length_m = 0.6;
  b.window.document().edit(other, u"span"_s);
  EXPECT_EQ(state(), ProofState::fresh);
}

TEST(PlanningBench, ATurnedPairAndAWrongSocketAreFoundAndPutRight) {
  Builder b;
  Settings s = b.settings({u"gyro_reversed:yaw"_s}, 0, 1);
  s.demo_lead_faults = {u"pair_turned:gps"_s, u"wrong_socket:module_sense,serial_3"_s};
  MainWindow window(*load_catalogue(in_source("/data/catalogue")), s);
  window.show();
  window.start_demo();
  ASSERT_TRUE(b.wait([&] { return window.bench().hands_connected(); }));
  window.go(Station::wiring);
  auto* page = window.findChild<WiringPage*>();
  const auto click = [&](const char* name) {
    auto* button = window.findChild<QPushButton*>(QLatin1String(name));
    ASSERT_TRUE(button && button->isVisible() && button->isEnabled()) << name;
    QTest::mouseClick(button, Qt::LeftButton);
  };
  const auto text = [&] { return window.findChild<QLabel*>(u"lead_check"_s)->text(); };
  page->go_to(u"gps"_s);
  ASSERT_TRUE(b.wait([&] { return window.findChild<QPushButton*>(u"wiring_battery"_s)->isVisible(); }));
  click("wiring_battery");
  ASSERT_TRUE(b.wait([&] { return text().contains(u"hears nothing"_s); })) << text().toStdString();
  page->go_to(u"module_sense"_s);
  ASSERT_TRUE(b.wait([&] { return text().contains(u"reads 0 V"_s); })) << text().toStdString();
  EXPECT_FALSE(window.findChild<QPushButton*>(u"lead_inspect"_s)->isEnabled()) << "not while the battery is in";
  click("wiring_battery");
  ASSERT_TRUE(b.wait([&] { return window.findChild<QPushButton*>(u"lead_inspect"_s)->isEnabled(); }));
  click("lead_inspect");
  ASSERT_TRUE(b.wait([&] { return text().contains(u"it sits in SER 3"_s); })) << text().toStdString();
  click("lead_mend");
  ASSERT_TRUE(b.wait([&] { return text().contains(u"as planned"_s); })) << text().toStdString();
  page->go_to(u"gps"_s);
  click("lead_inspect");
  ASSERT_TRUE(b.wait([&] { return text().contains(u"data pair is turned"_s); }));
  click("lead_mend");
  ASSERT_TRUE(b.wait([&] { return text().contains(u"as planned"_s); }));
  click("wiring_battery");
  ASSERT_TRUE(b.wait([&] { return text().contains(u"hears data"_s); }));
  click("lead_right");
  EXPECT_EQ(window.document().rig().proofs.back().check.text(), "lead.gps");
  EXPECT_TRUE(window.document().rig().proofs.back().simulated);
  page->go_to(u"module_sense"_s);
  ASSERT_TRUE(b.wait([&] { return text().contains(u"reads 16.8 V"_s); })) << text().toStdString();
  window.bench().stop();
}

}  // namespace
}  // namespace rigging::app
