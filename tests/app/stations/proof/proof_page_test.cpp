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
    checks.push_back({{"look", "check" + std::to_string(i)}, &look, "x", static_cast<ProofState>(i), "", "", true, ""});
  for (const ProofState s : {ProofState::fresh, ProofState::stale, ProofState::none})
    checks.push_back({{"lead", "l" + std::to_string(static_cast<int>(s))}, &lead, "x", s, "", "", true, ""});
  chain.set_checks(checks);
  EXPECT_EQ(chain.sizeHint().height(), 4 * 46 + 8) << "all leads are one link";
  chain.set_current("look.check1");
  chain.show();
  QString chosen;
  QObject::connect(&chain, &ProofChain::chosen, [&](const QString& id) { chosen = id; });
  QTest::keyClick(&chain, Qt::Key_Down);
  EXPECT_EQ(chosen, QStringLiteral("look.check2"));
  QTest::keyClick(&chain, Qt::Key_Up);
  EXPECT_EQ(chosen, QStringLiteral("look.check0"));
  QTest::mouseClick(&chain, Qt::LeftButton, {}, QPoint(50, 2 * 46 + 20));
  EXPECT_EQ(chosen, QStringLiteral("look.check2"));
  QTest::mouseClick(&chain, Qt::LeftButton, {}, QPoint(50, 3 * 46 + 20));
  EXPECT_EQ(chosen, QStringLiteral("lead.l3")) << "to the lead that has gone stale";
  chain.set_current("lead.l0");
  QTest::keyClick(&chain, Qt::Key_Up);
  EXPECT_EQ(chosen, QStringLiteral("look.check2"));
}

TEST(Proof, ALooseBoardIsSaidEverywhere) {
  Builder b({QStringLiteral("gyro_reversed:yaw")});
  b.window.start_demo();
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  Rig rig = b.window.document().rig();
  rig.controller.mounted = false;
  b.window.document().edit(rig, QStringLiteral("loose"));
  ASSERT_TRUE(b.click(QStringLiteral("as_shown")));
  EXPECT_EQ(b.window.document().review().checks[0].state, ProofState::provisional);
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("fix_PROOF-03")); }));
  ASSERT_TRUE(b.click(QStringLiteral("fix_PROOF-03")));
  EXPECT_EQ(b.window.document().review().checks[0].state, ProofState::stale);
  EXPECT_TRUE(b.window.document().rig().proofs[0].simulated);
}

// A press of Space answers one question; the next one must not be answered by the same key unseen.
TEST(Proof, ASecondSpaceAnswersNothing) {
  Builder b({}, 0);
  ASSERT_TRUE(b.window.open_file(QString::fromStdString(in_source("/data/demo/hedgerow.rig.json"))));
  b.window.go(Station::proof);
  QApplication::processEvents();
  auto* yes = b.find<QPushButton>(QStringLiteral("as_shown"));
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
  EXPECT_TRUE(now->objectName().startsWith(QStringLiteral("saw_"))) << now->objectName().toStdString();
  QTest::keyClick(now, Qt::Key_Space);
  EXPECT_EQ(stands(), before + 1) << "it only notes one surface";
  // Tab walks from what was seen down the answers, and not away.
  QStringList walked;
  for (int i = 0; i < 14; ++i) {
    QTest::keyClick(b.window.focusWidget(), Qt::Key_Tab);
    walked << b.window.focusWidget()->objectName();
  }
  EXPECT_TRUE(walked.contains(QStringLiteral("as_shown"))) << walked.join(QLatin1Char(' ')).toStdString();
}

TEST(Proof, ALookCanBeTakenBack) {
  Builder b({QStringLiteral("gyro_reversed:yaw")});
  b.window.start_demo();
  ASSERT_TRUE(b.click(QStringLiteral("saw_flaperon_left_1")));
  ASSERT_TRUE(b.click(QStringLiteral("note")));
  EXPECT_NE(b.proof().procedure().asking(), ProofProcedure::Asking::check);
  ASSERT_TRUE(b.click(QStringLiteral("take_back")));
  EXPECT_EQ(b.proof().procedure().asking(), ProofProcedure::Asking::check);
  EXPECT_TRUE(b.window.document().rig().proofs.empty());
}

TEST(Proof, MisreadSurfacesAreNamedAndCanBeLookedAtAgain) {
  Builder b({QStringLiteral("gyro_reversed:yaw")});
  ASSERT_TRUE(b.open_demo_with_battery());
  // The same look, noted in two ways that can't both be.
  ASSERT_TRUE(b.click(QStringLiteral("as_shown")));
  EXPECT_EQ(b.window.document().review().checks[0].state, ProofState::fresh);
  b.proof().go_to(QStringLiteral("stick.roll"));
  ASSERT_TRUE(b.click(QStringLiteral("saw_flaperon_left_1")));
  ASSERT_TRUE(b.click(QStringLiteral("saw_flaperon_right_-1")));
  ASSERT_TRUE(b.click(QStringLiteral("note")));
  EXPECT_EQ(b.proof().procedure().asking(), ProofProcedure::Asking::contradiction);
  ASSERT_TRUE(b.click(QStringLiteral("look_again")));
  EXPECT_EQ(b.proof().procedure().asking(), ProofProcedure::Asking::check);
  EXPECT_FALSE(b.proof().procedure().session().anything_seen());
}

TEST(Proof, StepsBeforeTheFirstCheckAreTickedOffOneAfterTheOther) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::proof));
  b.proof().go_to(QStringLiteral("prepare.bind"));
  QApplication::processEvents();
  for (const char* step : {"prepare.bind", "prepare.firmware", "prepare.defaults"}) {
    EXPECT_EQ(b.proof().procedure().checking(), step);
    ASSERT_TRUE(b.click(QStringLiteral("record_card"))) << step;
  }
  EXPECT_EQ(b.proof().procedure().checking(), "stick.roll") << "then the first check";
  std::size_t done = 0;
  for (const CheckStatus& c : b.window.document().review().checks) done += c.id.family == "prepare" && c.stands();
  EXPECT_EQ(done, 3u);
}

TEST(Proof, AModeIsShownOnTheBenchAndACorrectionLookedAtInAnother) {
  Builder b;
  ASSERT_TRUE(b.open_demo_with_battery());
  b.proof().go_to(QStringLiteral("mode.level"));
  ASSERT_TRUE(b.click(QStringLiteral("do_it")));
  const Surface left{SurfaceKind::flaperon, Side::left};
  const auto moved = [&] {
    const auto& seen = b.window.bench().sight().deflections;
    const auto it = seen.find(left);
    return it != seen.end() && std::abs(it->second) > 3;
  };
  EXPECT_TRUE(b.wait([&] { return b.window.bench().sight().roll_deg > 25 && moved(); }, 9000))
      << "held, and its surface with it";
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("do_it")); }, 12000));
  ASSERT_TRUE(b.click(QStringLiteral("record_card")));
  b.proof().go_to(QStringLiteral("correction.roll"));
  QApplication::processEvents();
  const Mode best = b.proof().procedure().asked().mode;
  const QString other = best == Mode::rate ? QStringLiteral("look_in:level") : QStringLiteral("look_in:rate");
  ASSERT_TRUE(b.click(other));
  EXPECT_NE(b.proof().procedure().asked().mode, best);
}

}  // namespace
}  // namespace rigging::app
