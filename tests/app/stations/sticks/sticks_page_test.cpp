#include <gtest/gtest.h>

#include <QDoubleSpinBox>
#include <QLabel>
#include <QPushButton>
#include <QTimer>

#include "base/json.h"
#include "bench_builder.h"
#include "places.h"
#include "stations/sticks/sticks_page.h"
#include "sticks/stick_checks.h"

namespace rigging::app {
namespace {

TEST(SticksPage, TheLossIsTriedAndRecorded) {
  Builder b;
  bring_up(b, 2);
  ASSERT_TRUE(b.click(QStringLiteral("try_loss")));
  EXPECT_EQ(b.find<QLabel>(QStringLiteral("sticks_todo"))->text(), QStringLiteral("Switch the transmitter off."));
  ASSERT_TRUE(b.click(QStringLiteral("transmitter")));
  ASSERT_TRUE(b.wait(
      [&] { return b.find<QLabel>(QStringLiteral("sticks_lines"))->text().contains(QStringLiteral("Noticed")); }));
  const auto& proofs = b.window.document().rig().proofs;
  EXPECT_TRUE(std::any_of(proofs.begin(), proofs.end(), [](const Proof& p) { return p.check == loss_noticed; }));
  EXPECT_EQ(b.window.document().rig().radio.on_loss, OnLoss::flag);
}

TEST(SticksPage, AReceiverThatHidesTheLossIsFoundOut) {
  Builder b;
  bring_up(b, 2);
  ASSERT_TRUE(b.click(QStringLiteral("try_loss")));
  ASSERT_TRUE(b.click(QStringLiteral("try_loss")));
  EXPECT_EQ(b.window.document().rig().radio.on_loss, OnLoss::hold);
  const auto& snags = b.window.document().review().snags;
  EXPECT_TRUE(std::any_of(snags.begin(), snags.end(),
                          [](const Snag& s) { return s.code == "STICKS-11" && s.severity == Severity::grounds; }));
}

TEST(SticksPage, TheTransmitterIsDescribedOnce) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::sticks));
  b.type_into_sheet({{"rate_roll", QStringLiteral("60")},
                     {"also_serves", QStringLiteral("Heath, Delta")},
                     {"counts_us", QStringLiteral("yes")}});
  ASSERT_TRUE(b.click(QStringLiteral("transmitter_settings")));
  const Radio& radio = b.window.document().rig().radio;
  EXPECT_EQ(radio.transmitter.also_serves, (std::vector<std::string>{"Heath", "Delta"}));
  EXPECT_EQ(radio.transmitter.counts, TravelUnit::us);
  std::set<std::string> codes;
  for (const Snag& s : b.window.document().review().snags) codes.insert(s.code);
  EXPECT_TRUE(codes.count("STICKS-13") && codes.count("STICKS-15"));
}

TEST(SticksPage, ReadingsOfATestPageAreTyped) {
  Builder b;
  ASSERT_TRUE(b.window.open_file(QString::fromStdString(in_source("/data/demo/hedgerow.rig.json"))));
  b.edit([](Rig& rig) { rig.controller.kind = "screen_keys"; });
  b.window.go(Station::sticks);
  b.type_into_sheet({{"low_roll", QStringLiteral("-880")},
                     {"centre_roll", QStringLiteral("24")},
                     {"high_roll", QStringLiteral("880")}});
  ASSERT_TRUE(b.click(QStringLiteral("type_readings")));
  const Channel* roll = b.window.document().rig().channel(ChannelFunction::roll);
  EXPECT_NEAR(roll->low_us.value_or(0), 1060, 1e-9);
  EXPECT_NEAR(roll->centre_us.value_or(0), 1512, 1e-9);
  const auto& lines = b.window.document().review().reports.sticks().channels;
  ASSERT_TRUE(lines.front().dial);
  EXPECT_NEAR(lines.front().dial->sub_trim_us, -12, 1e-9);
}

TEST(SticksPage, ASwitchIsFound) {
  Builder b;
  bring_up(b, 2);
  ASSERT_TRUE(b.click(QStringLiteral("find_switch")));
  for (const double position : {-1.0, 0.0, 1.0}) {
    b.window.bench().ask(hands::TurnControl{5, position});
    ASSERT_TRUE(b.frames_for(700000)) << "half a second in each, and a little";
  }
  ASSERT_TRUE(b.click(QStringLiteral("find_switch")));
  const Channel* mode = b.window.document().rig().channel(ChannelFunction::mode);
  ASSERT_TRUE(mode);
  ASSERT_EQ(mode->positions_us.size(), 3u);
  EXPECT_NEAR(mode->positions_us[0], 1000, 1);
  EXPECT_NEAR(mode->positions_us[1], 1500, 1);
  EXPECT_NEAR(mode->positions_us[2], 2000, 1);
  EXPECT_EQ(mode->control, Control::three_position);
}

TEST(SticksPage, AClassThatShowsNothingTakesTypedReadings) {
  Builder b;
  ASSERT_TRUE(b.open("heath", Station::sticks));
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("sticks_todo"))->text().contains(QStringLiteral("type them in")));
  EXPECT_FALSE(b.can_click(QStringLiteral("listen")));
}

TEST(SticksPage, AColdTransmitterIsHeardToDrift) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::sticks));
  b.window.start_troubled_bench(1, {false, true, false});
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  ASSERT_TRUE(b.click(QStringLiteral("supply_battery")));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().frames().size() > 20 && b.can_click(QStringLiteral("listen")); }));
  follow_sticks(b);
  const QString found = b.find<QLabel>(QStringLiteral("sticks_lines"))->text();
  EXPECT_TRUE(found.contains(QStringLiteral("Roll stick drifted by"))) << found.toStdString();
  EXPECT_TRUE(found.contains(QStringLiteral("warm up"))) << found.toStdString();
  EXPECT_FALSE(found.contains(QStringLiteral("worn"))) << found.toStdString();
}

TEST(SticksPage, ALossIsSeenByEyeWhereNothingIsHeard) {
  Builder b;
  ASSERT_TRUE(b.open("heath", Station::sticks));
  const auto fresh = [&] {
    const CheckStatus* c = find_check(b.window.document().review().checks, loss_noticed);
    return c && c->stands();
  };
  ASSERT_TRUE(b.click(QStringLiteral("try_loss")));
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("sticks_remark"))->text().contains(QStringLiteral("Propeller off")));
  ASSERT_TRUE(b.click(QStringLiteral("loss_hidden")));
  EXPECT_EQ(b.window.document().rig().radio.on_loss, OnLoss::hold);
  EXPECT_FALSE(fresh());
  ASSERT_TRUE(b.click(QStringLiteral("try_loss")));
  ASSERT_TRUE(b.click(QStringLiteral("try_loss"))) << "it told me";
  EXPECT_NE(b.window.document().rig().radio.on_loss, OnLoss::hold);
  EXPECT_TRUE(fresh());
  EXPECT_FALSE(b.window.document().rig().proofs.back().simulated) << "no simulated bench was there";
  // Changing one's mind records nothing, and takes along what was said of it.
  const auto noticed = [&] {
    return b.find<QLabel>(QStringLiteral("sticks_lines"))->text().contains(QStringLiteral("Noticed:"));
  };
  EXPECT_TRUE(noticed());
  b.window.document().undo();
  b.window.document().undo();
  EXPECT_FALSE(noticed());
  ASSERT_TRUE(b.click(QStringLiteral("try_loss")));
  ASSERT_TRUE(b.click(QStringLiteral("listen"))) << "stop";
  EXPECT_FALSE(fresh());
}

TEST(SticksPage, ReadingsThatCanNotBeAreRefusedInTheSheetAndKept) {
  Builder b;
  ASSERT_TRUE(b.open("heath", Station::sticks));
  const Rig before = b.window.document().rig();
  QString why, kept;
  b.type_into_sheet({{"low_pitch", QStringLiteral("1600")},
                     {"centre_pitch", QStringLiteral("1510")},
                     {"high_pitch", QStringLiteral("1520")}},
                    [&](QWidget& dialog) {
                      why = dialog.findChild<QLabel*>(QStringLiteral("refusal"))->text();
                      kept = dialog.findChild<QDoubleSpinBox*>(QStringLiteral("low_pitch"))->text();
                      dialog.findChild<QPushButton*>(QStringLiteral("leave"))->click();
                    });
  ASSERT_TRUE(b.click(QStringLiteral("type_readings")));
  EXPECT_TRUE(why.startsWith(QStringLiteral("Pitch stick"))) << why.toStdString();
  EXPECT_TRUE(kept.startsWith(QStringLiteral("1600"))) << kept.toStdString();
  EXPECT_EQ(b.window.document().rig(), before);
}

TEST(SticksPage, TypedReadingsTellWhatToDialAndTheCardIsPrinted) {
  Builder b;
  ASSERT_TRUE(b.open("delta", Station::sticks));
  b.edit([](Rig& rig) {
    rig.controller.kind = "gesture_board";
    for (Channel& c : rig.radio.channels) {
      c.low_us = 1010;
      c.centre_us = 1500;
      c.high_us = 1990;
    }
  });
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("sticks_todo"))->text().startsWith(QStringLiteral("Dial in")));
  const auto& lines = b.window.document().review().reports.sticks().channels;
  ASSERT_TRUE(lines.front().dial);
  // This class wants 125 % of travel: 625 µs to each side, where 490 were read with 100 %.
  EXPECT_NEAR(lines.front().dial->travel_high_percent, 100 * 625 / 490.0, 0.3);
  b.in_sheet([&](QWidget& sheet) {
    auto* dialog = &sheet;
    EXPECT_EQ(dialog->windowTitle(), QStringLiteral("Settings card"));
    dialog->findChild<QPushButton*>(QStringLiteral("close"))->click();
  });
  ASSERT_TRUE(b.click(QStringLiteral("settings_card")));
}

}  // namespace
}  // namespace rigging::app
