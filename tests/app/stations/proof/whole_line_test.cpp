#include <gtest/gtest.h>

#include <QDoubleSpinBox>
#include <QLabel>
#include <QProcess>

#include "base/json.h"
#include "bench_builder.h"
#include "direction/direction_checks.h"
#include "look/literals.h"
#include "places.h"
#include "rig/rig_file.h"

namespace rigging::app {
namespace {

/// The main job, with real events: find and fix two hidden faults, see the proofs turn fresh, change a weight, see the
/// right proof go stale.
void whole_line(Builder& b) {
  ASSERT_TRUE(b.open_demo_with_battery());
  EXPECT_TRUE(b.find<QLabel>(u"foot_link"_s)->text().contains(u"Simulated"_s));
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
  EXPECT_TRUE(b.find<QLabel>(u"foot_readiness"_s)->text().contains(u"proven"_s));
  // What the rig says is what the controller holds.
  ASSERT_TRUE(b.window.bench().board());
  EXPECT_TRUE(link::differences(link::image_of(b.window.document().rig()), *b.window.bench().board()).empty());

  QTest::keyClick(&b.window, Qt::Key_6, Qt::ControlModifier);
  EXPECT_EQ(b.window.station(), Station::surfaces);
  auto* weight = b.find<QDoubleSpinBox>(u"weight_out_3_yaw"_s);
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
  b.proof().go_to(u"stick.yaw"_s);
  EXPECT_FALSE(b.can_click(u"as_shown"_s));
  EXPECT_TRUE(b.can_click(u"write_rig"_s));

  const auto check = [&] {
    const QString file = b.folder.filePath(u"saved.rig.json"_s);
    EXPECT_TRUE(b.window.document().save(file));
    QProcess cli;
    cli.start(QString::fromStdString(program("rigging-cli")), {u"check"_s, file, u"--json"_s});
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
  Builder b({u"leads_swapped:out_3,out_4"_s, u"gyro_reversed:roll"_s});
  whole_line(b);
  // One was a setting, the other work by hand.
  EXPECT_TRUE(b.window.document().rig().sensing.roll_reversed);
}

TEST(WholeLine, ACardForAClassWithoutALink) {
  Builder b({u"output_reversed:out_2"_s});
  ASSERT_TRUE(b.window.open_file(QString::fromStdString(in_source("/data/demo/delta.rig.json"))));
  b.window.go(Station::proof);
  ASSERT_TRUE(b.click(u"bench_start"_s));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  ASSERT_TRUE(b.click(u"supply_battery"_s));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().sight().battery; }));
  for (int i = 0; i < 20 && b.proof().procedure().asking() != ProofProcedure::Asking::verdict; ++i) b.look();
  EXPECT_TRUE(b.find<QLabel>(u"proof_lines"_s)->text().contains(u"Tick reverse for ail 2"_s));
  EXPECT_FALSE(b.can_click(u"apply"_s)) << "there is nothing that Rigging could write";
  ASSERT_TRUE(b.click(u"by_hand"_s));
  EXPECT_TRUE(b.window.document().rig().output("out_2")->reversed);
  EXPECT_EQ(b.work_through(), 0) << "the hand-made change has cured it";
  EXPECT_EQ(find_check(b.window.document().review().checks, std::string("stick.roll"))->state, ProofState::provisional)
      << "the board lies loose";
}

}  // namespace
}  // namespace rigging::app
