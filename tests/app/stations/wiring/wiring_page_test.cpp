#include <gtest/gtest.h>

#include <QLabel>
#include <QMenu>
#include <QTableWidget>
#include <QTimer>
#include <cmath>
#include <set>

#include "bench_builder.h"
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
  auto* view = b.find<WiringView>(QStringLiteral("wiring_view"));
  drag(view, view->at_socket("serial_4"), view->at_socket("serial_3"));
  EXPECT_EQ(rig().lead("gps")->to.socket, "serial_3");
  EXPECT_EQ(view->traced(), "gps");
  EXPECT_TRUE(text("chosen_lead").contains(QStringLiteral("SER 3")));
  // On a port that can't serve it: a conflict, said and drawn.
  drag(view, view->at_socket("serial_2"), view->at_socket("serial_1"));
  EXPECT_EQ(rig().lead("receiver")->to.socket, "serial_1");
  bool said = false;
  for (const Snag& s : b.window.document().review().snags) said = said || s.code == "WIRING-04";
  EXPECT_TRUE(said);
  ASSERT_TRUE(b.click(QStringLiteral("plan_wiring")));
  EXPECT_EQ(rig().lead("receiver")->to.socket, "serial_2");
  EXPECT_TRUE(text("plan_words").contains(QStringLiteral("One thing"))) << text("plan_words").toStdString();
  // Dropped on nothing: nothing happens.
  drag(view, view->at_socket("serial_2"), QPointF(view->width() - 5, view->height() - 5));
  EXPECT_EQ(rig().lead("receiver")->to.socket, "serial_2");
  // A servo's plug takes its output along.
  drag(view, view->at_socket("s1"), view->at_socket("s5"));
  EXPECT_EQ(rig().lead("servo_flaperon_left")->to.socket, "s5");
  EXPECT_EQ(rig().output("out_1")->socket, "s5");
  QTest::keyClick(view, Qt::Key_Down);
  EXPECT_FALSE(view->traced().empty());
}

TEST_F(Planning, TheDeedsOfALeadAreAtTheLead) {
  b.window.go(Station::wiring);
  QApplication::processEvents();
  auto* view = b.find<WiringView>(QStringLiteral("wiring_view"));
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
  take(view, at.toPoint(), QStringLiteral("Keep here"));
  EXPECT_TRUE(rig().lead("gps")->fixed);
  auto* table = b.find<QTableWidget>(QStringLiteral("loom"));
  const QPoint row = table->visualItemRect(table->item(0, 1)).center();
  const std::string first = table->item(0, 0)->data(Qt::UserRole).toString().toStdString();
  take(table, row, QStringLiteral("Red wire out"));
  EXPECT_NE(rig().lead(first)->plus_removed,
            load_rig(in_source("/data/demo/hedgerow.rig.json"))->lead(first)->plus_removed);
  EXPECT_EQ(view->traced(), first);
}

TEST_F(Planning, TheLoomIsSortedEditedAndChecked) {
  b.window.go(Station::wiring);
  auto* table = b.find<QTableWidget>(QStringLiteral("loom"));
  ASSERT_EQ(table->rowCount(), static_cast<int>(rig().leads.size()));
  table->sortByColumn(4, Qt::DescendingOrder);
  EXPECT_TRUE(table->item(0, 4)->text().startsWith(QStringLiteral("900")))
      << "sorted by number, not by digits: " << table->item(0, 4)->text().toStdString();
  const std::string lead = table->item(0, 0)->data(Qt::UserRole).toString().toStdString();
  table->item(0, 4)->setText(QStringLiteral("950"));
  EXPECT_NEAR(*rig().lead(lead)->length_m, 0.95, 1e-9);
  const Rig before = rig();
  table->item(1, 5)->setText(QStringLiteral("thick"));
  EXPECT_EQ(rig(), before);
  EXPECT_TRUE(text("plan_words").contains(QStringLiteral("thick")) &&
              text("plan_words").contains(QStringLiteral("0 to 40")));
  table->selectRow(2);
  ASSERT_TRUE(b.click(QStringLiteral("lead_fixed")));
  ASSERT_TRUE(b.click(QStringLiteral("lead_red_out")));
  int fixed = 0;
  for (const Lead& l : rig().leads) fixed += l.fixed && l.plus_removed;
  EXPECT_EQ(fixed, 1);
}

TEST_F(Planning, ThePlanStartsFromNothing) {
  Rig bare = rig();
  bare.leads.clear();
  b.window.document().edit(bare, QStringLiteral("all leads out"));
  b.window.go(Station::wiring);
  ASSERT_TRUE(b.click(QStringLiteral("plan_wiring")));
  EXPECT_EQ(rig().leads.size(), 17u);
  for (const Snag& s : b.window.document().review().snags) EXPECT_NE(s.severity, Severity::grounds) << s.code << s.what;
  EXPECT_TRUE(text("plan_words").contains(QStringLiteral("things placed")));
}

TEST_F(Planning, SheetsAreKeptAsPdfAndSvg) {
  SheetDialog dialog(
      QStringLiteral("Wiring"),
      {{QStringLiteral("Plug list"),
        QString::fromStdString(plug_list_svg(rig(), b.window.document().catalogue()).front())},
       {QStringLiteral("Drawing"), QString::fromStdString(wiring_drawing_svg(rig(), b.window.document().catalogue()))}},
      nullptr);
  const QString pdf = b.folder.filePath(QStringLiteral("w.pdf"));
  ASSERT_TRUE(dialog.write_pdf(pdf));
  QFile file(pdf);
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  const QByteArray bytes = file.readAll();
  EXPECT_TRUE(bytes.startsWith("%PDF"));
  EXPECT_EQ(bytes.count("/Type /Page\n") + bytes.count("/Type /Page "), 2);
  ASSERT_TRUE(dialog.write_svg(b.folder.filePath(QStringLiteral("w.svg"))));
  EXPECT_TRUE(QFile::exists(b.folder.filePath(QStringLiteral("w-2.svg"))));
  EXPECT_FALSE(dialog.write_pdf(QStringLiteral("/nowhere/at/all.pdf")));
}

TEST_F(Planning, LeadsAreLookedAtTriedAndProven) {
  b.window.go(Station::wiring);
  auto* page = b.window.findChild<WiringPage*>();
  const auto state = [&] {
    return find_check(b.window.document().review().checks, CheckId{lead_family, "gps"})->state;
  };
  page->go_to(QStringLiteral("gps"));
  EXPECT_EQ(state(), ProofState::none);
  const QString before = text("lead_check");
  EXPECT_TRUE(text("lead_check").contains(QStringLiteral("Propeller off")));
  EXPECT_FALSE(b.can_click(QStringLiteral("lead_inspect"))) << "no bench, nothing to look at";
  ASSERT_TRUE(b.click(QStringLiteral("lead_right")));
  EXPECT_EQ(state(), ProofState::fresh);
  EXPECT_NE(text("lead_check"), before) << "and the page says so";
  // Moved afterwards: stale, said as a snag; looked at again: proven.
  Rig moved = rig();
  moved.lead("gps")->to.socket = "serial_3";
  b.window.document().edit(moved, QStringLiteral("moved"));
  EXPECT_EQ(state(), ProofState::stale);
  EXPECT_TRUE(text("lead_check").contains(QStringLiteral("SER 3"))) << "and what changed";
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
  b.window.document().edit(other, QStringLiteral("span"));
  EXPECT_EQ(state(), ProofState::fresh);
}

TEST(PlanningBench, ATurnedPairAndAWrongSocketAreFoundAndPutRight) {
  Builder b;
  Settings s = b.settings({QStringLiteral("gyro_reversed:yaw")}, 0, 1);
  s.demo_lead_faults = {QStringLiteral("pair_turned:gps"), QStringLiteral("wrong_socket:module_sense,serial_3")};
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
  const auto text = [&] { return window.findChild<QLabel*>(QStringLiteral("lead_check"))->text(); };
  page->go_to(QStringLiteral("gps"));
  ASSERT_TRUE(b.wait([&] { return window.findChild<QPushButton*>(QStringLiteral("wiring_battery"))->isVisible(); }));
  click("wiring_battery");
  ASSERT_TRUE(b.wait([&] { return text().contains(QStringLiteral("hears nothing")); })) << text().toStdString();
  page->go_to(QStringLiteral("module_sense"));
  ASSERT_TRUE(b.wait([&] { return text().contains(QStringLiteral("reads 0 V")); })) << text().toStdString();
  EXPECT_FALSE(window.findChild<QPushButton*>(QStringLiteral("lead_inspect"))->isEnabled())
      << "not while the battery is in";
  click("wiring_battery");
  ASSERT_TRUE(b.wait([&] { return window.findChild<QPushButton*>(QStringLiteral("lead_inspect"))->isEnabled(); }));
  click("lead_inspect");
  ASSERT_TRUE(b.wait([&] { return text().contains(QStringLiteral("it sits in SER 3")); })) << text().toStdString();
  click("lead_mend");
  ASSERT_TRUE(b.wait([&] { return text().contains(QStringLiteral("as planned")); })) << text().toStdString();
  page->go_to(QStringLiteral("gps"));
  click("lead_inspect");
  ASSERT_TRUE(b.wait([&] { return text().contains(QStringLiteral("data pair is turned")); }));
  click("lead_mend");
  ASSERT_TRUE(b.wait([&] { return text().contains(QStringLiteral("as planned")); }));
  click("wiring_battery");
  ASSERT_TRUE(b.wait([&] { return text().contains(QStringLiteral("hears data")); }));
  click("lead_right");
  EXPECT_EQ(window.document().rig().proofs.back().check.text(), "lead.gps");
  EXPECT_TRUE(window.document().rig().proofs.back().simulated);
  page->go_to(QStringLiteral("module_sense"));
  ASSERT_TRUE(b.wait([&] { return text().contains(QStringLiteral("reads 16.8 V")); })) << text().toStdString();
  window.bench().stop();
}

}  // namespace
}  // namespace rigging::app
