#include <gtest/gtest.h>

#include <QDoubleSpinBox>
#include <QLabel>
#include <QPushButton>
#include <QTimer>

#include "airframe/kinds.h"
#include "base/json.h"
#include "bench_builder.h"
#include "home/modes.h"
#include "look/literals.h"
#include "places.h"
#include "stations/sticks/channels_dialog.h"
#include "stations/sticks/sticks_page.h"
#include "sticks/stick_checks.h"

namespace rigging::app {
namespace {

TEST(SticksPage, TheLossIsTriedAndRecorded) {
  Builder b;
  bring_up(b, 2);
  ASSERT_TRUE(b.click(u"try_loss"_s));
  EXPECT_EQ(b.find<QLabel>(u"sticks_todo"_s)->text(), u"Switch the transmitter off."_s);
  ASSERT_TRUE(b.click(u"transmitter"_s));
  ASSERT_TRUE(b.wait([&] { return b.find<QLabel>(u"sticks_lines"_s)->text().contains(u"Noticed"_s); }));
  const auto& proofs = b.window.document().rig().proofs;
  EXPECT_TRUE(std::any_of(proofs.begin(), proofs.end(), [](const Proof& p) { return p.check == loss_noticed; }));
  EXPECT_EQ(b.window.document().rig().radio.on_loss, OnLoss::flag);
}

TEST(SticksPage, AReceiverThatHidesTheLossIsFoundOut) {
  Builder b;
  bring_up(b, 2);
  ASSERT_TRUE(b.click(u"try_loss"_s));
  ASSERT_TRUE(b.click(u"try_loss"_s));
  EXPECT_EQ(b.window.document().rig().radio.on_loss, OnLoss::hold);
  const auto& snags = b.window.document().review().snags;
  EXPECT_TRUE(std::any_of(snags.begin(), snags.end(),
                          [](const Snag& s) { return s.code == "STICKS-11" && s.severity == Severity::grounds; }));
}

TEST(SticksPage, TheTransmitterIsDescribedOnce) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::sticks));
  b.type_into_sheet({{"rate_roll", u"60"_s}, {"also_serves", u"Heath, Delta"_s}, {"counts_us", u"yes"_s}});
  ASSERT_TRUE(b.click(u"transmitter_settings"_s));
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
  b.type_into_sheet({{"low_roll", u"-880"_s}, {"centre_roll", u"24"_s}, {"high_roll", u"880"_s}});
  ASSERT_TRUE(b.click(u"type_readings"_s));
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
  ASSERT_TRUE(b.click(u"find_switch"_s));
  for (const double position : {-1.0, 0.0, 1.0}) {
    b.window.bench().ask(hands::TurnControl{5, position});
    ASSERT_TRUE(b.frames_for(700000)) << "half a second in each, and a little";
  }
  ASSERT_TRUE(b.click(u"find_switch"_s));
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
  EXPECT_TRUE(b.find<QLabel>(u"sticks_todo"_s)->text().contains(u"type them in"_s));
  EXPECT_FALSE(b.can_click(u"listen"_s));
}

TEST(SticksPage, AColdTransmitterIsHeardToDrift) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::sticks));
  b.window.start_troubled_bench(1, {false, true, false});
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  ASSERT_TRUE(b.click(u"supply_battery"_s));
  ASSERT_TRUE(b.wait([&] { return b.window.bench().frames().size() > 20 && b.can_click(u"listen"_s); }));
  follow_sticks(b);
  const QString found = b.find<QLabel>(u"sticks_lines"_s)->text();
  EXPECT_TRUE(found.contains(u"Roll stick drifted by"_s)) << found.toStdString();
  EXPECT_TRUE(found.contains(u"warm up"_s)) << found.toStdString();
  EXPECT_FALSE(found.contains(u"worn"_s)) << found.toStdString();
}

TEST(SticksPage, ALossIsSeenByEyeWhereNothingIsHeard) {
  Builder b;
  ASSERT_TRUE(b.open("heath", Station::sticks));
  const auto fresh = [&] {
    const CheckStatus* c = find_check(b.window.document().review().checks, loss_noticed);
    return c && c->stands();
  };
  ASSERT_TRUE(b.click(u"try_loss"_s));
  EXPECT_TRUE(b.find<QLabel>(u"sticks_remark"_s)->text().contains(u"Propeller off"_s));
  ASSERT_TRUE(b.click(u"loss_hidden"_s));
  EXPECT_EQ(b.window.document().rig().radio.on_loss, OnLoss::hold);
  EXPECT_FALSE(fresh());
  ASSERT_TRUE(b.click(u"try_loss"_s));
  ASSERT_TRUE(b.click(u"try_loss"_s)) << "it told me";
  EXPECT_NE(b.window.document().rig().radio.on_loss, OnLoss::hold);
  EXPECT_TRUE(fresh());
  EXPECT_FALSE(b.window.document().rig().proofs.back().simulated) << "no simulated bench was there";
  // Changing one's mind records nothing, and takes along what was said of it.
  const auto noticed = [&] { return b.find<QLabel>(u"sticks_lines"_s)->text().contains(u"Noticed:"_s); };
  EXPECT_TRUE(noticed());
  b.window.document().undo();
  b.window.document().undo();
  EXPECT_FALSE(noticed());
  ASSERT_TRUE(b.click(u"try_loss"_s));
  ASSERT_TRUE(b.click(u"listen"_s)) << "stop";
  EXPECT_FALSE(fresh());
}

TEST(SticksPage, ReadingsThatCanNotBeAreRefusedInTheSheetAndKept) {
  Builder b;
  ASSERT_TRUE(b.open("heath", Station::sticks));
  const Rig before = b.window.document().rig();
  QString why, kept;
  b.type_into_sheet({{"low_pitch", u"1600"_s}, {"centre_pitch", u"1510"_s}, {"high_pitch", u"1520"_s}},
                    [&](QWidget& dialog) {
                      why = dialog.findChild<QLabel*>(u"refusal"_s)->text();
                      kept = dialog.findChild<QDoubleSpinBox*>(u"low_pitch"_s)->text();
                      dialog.findChild<QPushButton*>(u"leave"_s)->click();
                    });
  ASSERT_TRUE(b.click(u"type_readings"_s));
  EXPECT_TRUE(why.startsWith(u"Pitch stick"_s)) << why.toStdString();
  EXPECT_TRUE(kept.startsWith(u"1600"_s)) << kept.toStdString();
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
  EXPECT_TRUE(b.find<QLabel>(u"sticks_todo"_s)->text().startsWith(u"Dial in"_s));
  const auto& lines = b.window.document().review().reports.sticks().channels;
  ASSERT_TRUE(lines.front().dial);
  // This class wants 125 % of travel: 625 µs to each side, where 490 were read with 100 %.
  EXPECT_NEAR(lines.front().dial->travel_high_percent, 100 * 625 / 490.0, 0.3);
  b.in_sheet([&](QWidget& sheet) {
    auto* dialog = &sheet;
    EXPECT_EQ(dialog->windowTitle(), u"Settings card"_s);
    dialog->findChild<QPushButton*>(u"close"_s)->click();
  });
  ASSERT_TRUE(b.click(u"settings_card"_s));
}

// Two mode channels on one switch: told in the sheet, and station home shows only how that switch can stand.
TEST(Sticks, TwoModeChannelsMayMoveWithOneSwitch) {
  Builder b;
  Rig rig = fresh_rig("S", AirframeKind::two_ailerons, "screen_keys");
  Channel more;
  more.number = 6, more.function = ChannelFunction::mode;
  rig.radio.channels.push_back(more);
  b.window.document().start_new(rig);
  EXPECT_EQ(mode_deck(b.window.document().rig(), b.window.document().catalogue()).cases.size(), 9u);
  ChannelsDialog dialog(b.window.document(), &b.window);
  auto* with = dialog.findChild<QComboBox*>(u"with_6"_s);
  ASSERT_TRUE(with);
  with->setCurrentIndex(with->findData(5));
  Q_EMIT with->activated(with->currentIndex());
  EXPECT_EQ(b.window.document().rig().radio.channels.back().with_channel, 5);
  EXPECT_EQ(mode_deck(b.window.document().rig(), b.window.document().catalogue()).cases.size(), 3u);
}

}  // namespace
}  // namespace rigging::app
