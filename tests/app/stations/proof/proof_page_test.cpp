#include <gtest/gtest.h>

#include <sys/wait.h>
#include <unistd.h>
#include <QPushButton>
#include <cmath>
#include <csignal>
#include <fstream>

#include "airframe/kinds.h"
#include "base/json.h"
#include "bench_builder.h"
#include "direction/from_rig.h"
#include "look/literals.h"
#include "places.h"
#include "rig/rig_file.h"
#include "stations/proof/proof_chain.h"

namespace rigging::app {
namespace {

TEST(ProofChain, WalksByKeysAndClicks) {
  ProofChain chain;
  const CheckFamily look{.id = "look"}, lead{.id = "lead", .by_station = true, .grouped = true, .many = "leads"};
  std::vector<CheckStatus> checks;
  for (int i = 0; i < 3; ++i)
    checks.push_back({{"look", "check" + std::to_string(i)}, &look, "x", static_cast<ProofState>(i), "", {}, true, ""});
  for (const ProofState s : {ProofState::fresh, ProofState::stale, ProofState::none})
    checks.push_back({{"lead", "l" + std::to_string(static_cast<int>(s))}, &lead, "x", s, "", {}, true, ""});
  chain.set_checks(checks);
  EXPECT_EQ(chain.sizeHint().height(), 4 * 46 + 8) << "all leads are one link";
  chain.set_current("look.check1");
  chain.show();
  QString chosen;
  QObject::connect(&chain, &ProofChain::chosen, [&](const QString& id) { chosen = id; });
  QTest::keyClick(&chain, Qt::Key_Down);
  EXPECT_EQ(chosen, u"look.check2"_s);
  QTest::keyClick(&chain, Qt::Key_Up);
  EXPECT_EQ(chosen, u"look.check0"_s);
  QTest::mouseClick(&chain, Qt::LeftButton, {}, QPoint(50, 2 * 46 + 20));
  EXPECT_EQ(chosen, u"look.check2"_s);
  QTest::mouseClick(&chain, Qt::LeftButton, {}, QPoint(50, 3 * 46 + 20));
  EXPECT_EQ(chosen, u"lead.l3"_s) << "to the lead that has gone stale";
  chain.set_current("lead.l0");
  QTest::keyClick(&chain, Qt::Key_Up);
  EXPECT_EQ(chosen, u"look.check2"_s);
}

ProofState state_of(Builder& b, const char* check) {
  const CheckStatus* c = find_check(b.window.document().review().checks, std::string(check));
  return c ? c->state : ProofState::none;
}

TEST(Proof, ALooseBoardIsSaidEverywhere) {
  Builder b({u"gyro_reversed:yaw"_s});
  b.window.start_demo();
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  // Nothing moves without the battery: that it is right can't have been seen.
  ASSERT_TRUE(b.click(u"as_shown"_s));
  EXPECT_EQ(state_of(b, "stick.roll"), ProofState::none);
  EXPECT_TRUE(b.find<QLabel>(u"foot_said"_s)->toolTip().contains(u"nothing can be seen"_s));
  ASSERT_TRUE(b.click(u"supply_battery"_s));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().sight().battery; }));
  Rig rig = b.window.document().rig();
  rig.controller.mounted = false;
  b.window.document().edit(rig, u"loose"_s);
  ASSERT_TRUE(b.click(u"as_shown"_s));
  EXPECT_EQ(state_of(b, "stick.roll"), ProofState::provisional);
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"fix_PROOF-03"_s); }));
  ASSERT_TRUE(b.click(u"fix_PROOF-03"_s));
  EXPECT_EQ(state_of(b, "stick.roll"), ProofState::stale);
  EXPECT_TRUE(b.window.document().rig().proofs[0].simulated);
}

// A press of Space answers one question; the next one must not be answered by the same key unseen.
TEST(Proof, ASecondSpaceAnswersNothing) {
  Builder b({}, 0);
  ASSERT_TRUE(b.window.open_file(QString::fromStdString(in_source("/data/demo/hedgerow.rig.json"))));
  b.window.go(Station::proof);
  b.proof().go_to(u"stick.roll"_s);
  QApplication::processEvents();
  auto* yes = b.find<QPushButton>(u"as_shown"_s);
  ASSERT_TRUE(yes && yes->isVisible());
  const auto stands = [&] {
    int n = 0;
    for (const CheckStatus& c : b.window.document().review().checks) n += c.stands();
    return n;
  };
  const int before = stands();
  yes->setFocus();
  QTest::keyClick(yes, Qt::Key_Space);
  EXPECT_EQ(stands(), before + 1);
  QWidget* now = b.window.focusWidget();
  ASSERT_TRUE(now);
  EXPECT_TRUE(now->objectName().startsWith(u"saw_"_s)) << now->objectName().toStdString();
  QTest::keyClick(now, Qt::Key_Space);
  EXPECT_EQ(stands(), before + 1) << "it only notes one surface";
  // Tab walks from what was seen down the answers, and not away.
  QStringList walked;
  for (int i = 0; i < 14; ++i) {
    QTest::keyClick(b.window.focusWidget(), Qt::Key_Tab);
    walked << b.window.focusWidget()->objectName();
  }
  EXPECT_TRUE(walked.contains(u"as_shown"_s)) << walked.join(QLatin1Char(' ')).toStdString();
}

TEST(Proof, ALookCanBeTakenBack) {
  Builder b({u"gyro_reversed:yaw"_s});
  ASSERT_TRUE(b.open_demo_with_battery());
  ASSERT_TRUE(b.click(u"saw_flaperon_left_1"_s));
  ASSERT_TRUE(b.click(u"note"_s));
  EXPECT_NE(b.proof().procedure().asking(), ProofProcedure::Asking::check);
  ASSERT_TRUE(b.click(u"take_back"_s));
  EXPECT_EQ(b.proof().procedure().asking(), ProofProcedure::Asking::check);
  EXPECT_TRUE(b.window.document().rig().proofs.empty());
}

TEST(Proof, MisreadSurfacesAreNamedAndCanBeLookedAtAgain) {
  Builder b({u"gyro_reversed:yaw"_s});
  ASSERT_TRUE(b.open_demo_with_battery());
  // The same look, noted in two ways that can't both be.
  ASSERT_TRUE(b.click(u"as_shown"_s));
  EXPECT_EQ(state_of(b, "stick.roll"), ProofState::fresh);
  b.proof().go_to(u"stick.roll"_s);
  ASSERT_TRUE(b.click(u"saw_flaperon_left_1"_s));
  ASSERT_TRUE(b.click(u"saw_flaperon_right_-1"_s));
  ASSERT_TRUE(b.click(u"note"_s));
  EXPECT_EQ(b.proof().procedure().asking(), ProofProcedure::Asking::contradiction);
  ASSERT_TRUE(b.click(u"look_again"_s));
  EXPECT_EQ(b.proof().procedure().asking(), ProofProcedure::Asking::check);
  EXPECT_FALSE(b.proof().procedure().session().anything_seen());
}

TEST(Proof, StepsBeforeTheFirstCheckAreTickedOffOneAfterTheOther) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::proof));
  b.proof().go_to(u"prepare.bind"_s);
  QApplication::processEvents();
  for (const char* step : {"prepare.bind", "prepare.firmware", "prepare.defaults"}) {
    EXPECT_EQ(b.proof().procedure().checking(), step);
    ASSERT_TRUE(b.click(u"record_card"_s)) << step;
  }
  EXPECT_EQ(b.proof().procedure().checking(), "senses.gyro") << "then the first check: it is seen on USB";
  std::size_t done = 0;
  for (const CheckStatus& c : b.window.document().review().checks) done += c.id.family == "prepare" && c.stands();
  EXPECT_EQ(done, 3u);
}

TEST(Proof, AModeIsShownOnTheBenchAndACorrectionLookedAtInAnother) {
  Builder b;
  ASSERT_TRUE(b.open_demo_with_battery());
  b.proof().go_to(u"mode.level"_s);
  ASSERT_TRUE(b.click(u"do_it"_s));
  const Surface left{SurfaceKind::flaperon, Side::left};
  const auto moved = [&] {
    const auto& seen = b.window.bench().sight().deflections;
    const auto it = seen.find(left);
    return it != seen.end() && std::abs(it->second) > 3;
  };
  EXPECT_TRUE(b.wait([&] { return b.window.bench().sight().roll_deg > 25 && moved(); }, 9000))
      << "held, and its surface with it";
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"do_it"_s); }, 12000));
  ASSERT_TRUE(b.click(u"record_card"_s));
  b.proof().go_to(u"correction.roll"_s);
  QApplication::processEvents();
  const Mode best = b.proof().procedure().asked().mode;
  const QString other = best == Mode::rate ? u"look_in:level"_s : u"look_in:rate"_s;
  ASSERT_TRUE(b.click(other));
  EXPECT_NE(b.proof().procedure().asked().mode, best);
}

}  // namespace
}  // namespace rigging::app
