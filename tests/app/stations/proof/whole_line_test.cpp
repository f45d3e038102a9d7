#include <gtest/gtest.h>

#include <QDoubleSpinBox>
#include <QLabel>
#include <QProcess>

#include "base/json.h"
#include "bench_builder.h"
#include "direction/direction_checks.h"
#include "places.h"
#include "rig/rig_file.h"

namespace rigging::app {
namespace {

/// The main job, with real events: find and fix two hidden faults, see the proofs turn fresh, change a weight, see the
/// right proof go stale.
void whole_line(Builder& b) {
  ASSERT_TRUE(b.open_demo_with_battery());
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("foot_link"))->text().contains(QStringLiteral("Simulated")));
  EXPECT_GE(b.work_through(), 1);
  const Review& review = b.window.document().review();
  EXPECT_EQ(review.readiness.words, "Directions proven; not ready: 27 checks to do")
      << "17 leads and ten readings are still to do";
  for (const CheckStatus& c : review.checks)
    EXPECT_EQ(c.state, is_direction(c.id) || c.id.family == mode_family || c.id == first_gains_set ||
                               c.id.family.starts_with("home.")
                           ? ProofState::fresh
                           : ProofState::none)
        << c.id.text();
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("foot_readiness"))->text().contains(QStringLiteral("proven")));
  // What the rig says is what the controller holds.
  ASSERT_TRUE(b.window.bench().board());
  EXPECT_TRUE(link::differences(link::image_of(b.window.document().rig()), *b.window.bench().board()).empty());

  QTest::keyClick(&b.window, Qt::Key_6, Qt::ControlModifier);
  EXPECT_EQ(b.window.station(), Station::surfaces);
  auto* weight = b.find<QDoubleSpinBox>(QStringLiteral("weight_out_3_yaw"));
  ASSERT_TRUE(weight);
  weight->setFocus();
  weight->selectAll();
  for (const char key : std::string("40")) QTest::keyClick(weight, key);
  QTest::keyClick(weight, Qt::Key_Return);
  std::set<std::string> stale;
  for (const CheckStatus& c : b.window.document().review().checks)
    if (c.state == ProofState::stale) stale.insert(c.id.text());
  EXPECT_EQ(stale, (std::set<std::string>{"stick.yaw", "correction.yaw"}));

  // The controller does not hold the new weight yet: a look would prove nothing about the rig, so none is taken.
  b.window.go(Station::proof);
  EXPECT_FALSE(b.can_click(QStringLiteral("as_shown")));
  EXPECT_TRUE(b.can_click(QStringLiteral("write_rig")));

  const auto check = [&] {
    const QString file = b.folder.filePath(QStringLiteral("saved.rig.json"));
    EXPECT_TRUE(b.window.document().save(file));
    QProcess cli;
    cli.start(QString::fromStdString(program("rigging-cli")),
              {QStringLiteral("check"), file, QStringLiteral("--json")});
    cli.waitForFinished();
    return Json::parse(cli.readAllStandardOutput().toStdString());
  };
  Json told = check();
  EXPECT_FALSE(told["ready"]);
  EXPECT_EQ(told["stale_proofs"].size(), 2u);
  QTest::keyClick(&b.window, Qt::Key_Z, Qt::ControlModifier);
  told = check();
  EXPECT_EQ(told["words"], "Directions proven; not ready: 27 checks to do");
  EXPECT_TRUE(told["stale_proofs"].empty());
}

TEST(WholeLine, TwoHiddenFaultsAreFoundAndFixed) {
  Builder b({}, 2, 6);
  whole_line(b);
}

TEST(WholeLine, LeadsExchangedAndSensingReversed) {
  Builder b({QStringLiteral("leads_swapped:out_3,out_4"), QStringLiteral("gyro_reversed:roll")});
  whole_line(b);
  // One was a setting, the other work by hand.
  EXPECT_TRUE(b.window.document().rig().sensing.roll_reversed);
}

TEST(WholeLine, ACardForAClassWithoutALink) {
  Builder b({QStringLiteral("output_reversed:out_2")});
  ASSERT_TRUE(b.window.open_file(QString::fromStdString(in_source("/data/demo/delta.rig.json"))));
  b.window.go(Station::proof);
  ASSERT_TRUE(b.click(QStringLiteral("bench_start")));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  ASSERT_TRUE(b.click(QStringLiteral("supply_battery")));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().sight().battery; }));
  for (int i = 0; i < 20 && b.proof().procedure().asking() != ProofProcedure::Asking::verdict; ++i) b.look();
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("proof_lines"))->text().contains(QStringLiteral("Tick reverse for ail 2")));
  EXPECT_FALSE(b.can_click(QStringLiteral("apply"))) << "there is nothing that Rigging could write";
  ASSERT_TRUE(b.click(QStringLiteral("by_hand")));
  EXPECT_TRUE(b.window.document().rig().output("out_2")->reversed);
  EXPECT_EQ(b.work_through(), 0) << "the hand-made change has cured it";
  EXPECT_EQ(find_check(b.window.document().review().checks, std::string("stick.roll"))->state, ProofState::provisional)
      << "the board lies loose";
}

}  // namespace
}  // namespace rigging::app
