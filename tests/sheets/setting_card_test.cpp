#include "sheets/setting_card.h"

#include <gtest/gtest.h>

#include <regex>

#include "airframe/kinds.h"
#include "bench_rig.h"
#include "sticks/sticks.h"

namespace rigging {
namespace {

std::string all(const std::vector<std::string>& pages) {
  std::string text;
  for (const std::string& p : pages) text += p;
  return text;
}

bool says(const std::string& svg, const std::string& words) { return svg.find(words) != std::string::npos; }

TEST(SettingCard, CarriesWhatIsToBeDialledIn) {
  Rig rig = demo("hedgerow");
  rig.radio.transmitter.also_serves = {"Heath & co"};
  Channel& roll = *rig.channel(ChannelFunction::roll);
  roll.low_us = 1100;
  roll.centre_us = 1510;
  roll.high_us = 1900;
  roll.inverted = true;
  const auto pages = setting_card_svg(rig, shipped());
  ASSERT_LE(pages.size(), 2u);
  EXPECT_TRUE(says(all(pages), "listens for inverted serial"));
  EXPECT_TRUE(says(all(pages), "SER 4"));
  EXPECT_TRUE(says(pages[0], "width=\"210mm\" height=\"297mm\""));
  const auto dial = dial_in(roll, rig.radio.transmitter, {}, true);
  ASSERT_TRUE(dial && dial->changes);
  EXPECT_TRUE(says(pages[0], shown_travel(rig.radio.transmitter, dial->travel_low_percent)));
  EXPECT_TRUE(says(pages[0], shown_sub_trim(rig.radio.transmitter, dial->sub_trim_us)));
  EXPECT_TRUE(says(pages[0], "reversed (!)")) << "it has to be turned round first";
  EXPECT_TRUE(says(pages[0], "Heath &amp; co")) << "names are text, not markup";
  EXPECT_TRUE(says(pages[0], "Propeller off"));
  EXPECT_TRUE(says(pages[0], "Left flaperon"));
  EXPECT_TRUE(says(pages[0], "12, 16")) << "arm and horn in millimetres";
}

TEST(SettingCard, SaysWhatLivesOnUsb) {
  EXPECT_TRUE(says(all(setting_card_svg(demo("bramble"), shipped())), "On USB alone the ports live"));
  EXPECT_TRUE(says(all(setting_card_svg(demo("hedgerow"), shipped())), "On USB alone only the processor lives"));
  EXPECT_FALSE(says(all(setting_card_svg(demo("heath"), shipped())), "On USB alone"));
}

TEST(SettingCard, SpeaksOfWhatTheClassCanSet) {
  const Rig inline_rig = demo("heath"), full = demo("hedgerow");
  EXPECT_TRUE(says(all(setting_card_svg(inline_rig, shipped())), "neither centre nor ends"));
  EXPECT_TRUE(says(all(setting_card_svg(demo("delta"), shipped())), "sets a centre, and no ends"));
  EXPECT_FALSE(says(all(setting_card_svg(full, shipped())), "This class sets"));
  Rig mini = demo("delta");
  mini.controller.kind = "fixed_mini";
  EXPECT_TRUE(says(all(setting_card_svg(mini, shipped())), "only when the sticks really reach 1000 and 2000"));
}

TEST(SettingCard, SaysWhatTheReadingsAskOfHands) {
  Rig rig = demo("hedgerow");
  // The trailing edge stands 6° low all along: rod or arm, not the centre.
  read_surface(rig, "inverted_v_left", -38, -6, 26);
  EXPECT_TRUE(says(all(setting_card_svg(rig, shipped())), "To do: "));
  read_surface(rig, "inverted_v_left", -20, 0, 20);
  EXPECT_FALSE(says(all(setting_card_svg(rig, shipped())), "To do: "));
}

TEST(SettingCard, ManyChannelsTakeMorePagesAndNothingRunsOffThem) {
  Rig rig = demo("hedgerow");
  rig.radio.transmitter.channels = 32;
  for (int n = 6; n <= 32; ++n) {
    Channel c;
    c.number = n;
    rig.radio.channels.push_back(c);
  }
  const auto pages = setting_card_svg(rig, shipped());
  EXPECT_GE(pages.size(), 2u);
  const std::regex at("<text x=\"([-0-9.]+)\" y=\"([-0-9.]+)\"");
  for (const std::string& page : pages)
    for (std::sregex_iterator it(page.begin(), page.end(), at), end; it != end; ++it) {
      EXPECT_LT(std::stod((*it)[1]), 200);
      EXPECT_LT(std::stod((*it)[2]), 285);
    }
  EXPECT_FALSE(setting_card_svg(Rig{}, shipped()).empty()) << "nothing to set is a card, too";
}

TEST(SettingCard, ListsWhatHandsSetOnTheBoardAndByWhat) {
  Rig rig = demo("hedgerow");
  rig.sensing.yaw_reversed = true;
  EXPECT_FALSE(says(all(setting_card_svg(rig, shipped())), "by hand")) << "this class is written over its link";
  Rig menu = rig;
  menu.controller.kind = "radio_stabilizer";
  const ControllerClass& c = *shipped().controller("radio_stabilizer");
  for (std::size_t i = 0; i < menu.outputs.size(); ++i)
    menu.outputs[i].socket = i < c.outputs.size() ? c.outputs[i].id : "";
  const std::string card = all(setting_card_svg(menu, shipped()));
  EXPECT_TRUE(says(card, "On the board, by hand"));
  EXPECT_TRUE(says(card, "yaw sensing"));
  EXPECT_TRUE(says(card, "roll weight")) << "all weights are one thing to a class";
  EXPECT_TRUE(says(card, ">menu<"));
  menu.sensing.yaw_reversed = false;
  EXPECT_FALSE(says(all(setting_card_svg(menu, shipped())), "yaw sensing")) << "as the board comes";
}

/// Common practice: how each class wants to be powered up, and what its lamps tell, go to the bench on paper.
TEST(SettingCard, SaysHowTheBoardBehaves) {
  const auto text = [](const char* kind) {
    std::string all;
    for (const std::string& page : setting_card_svg(fresh_rig("mine", AirframeKind::two_ailerons, kind), shipped()))
      all += page;
    return all;
  };
  EXPECT_NE(text("inline_level").find("still and level"), std::string::npos);
  EXPECT_NE(text("inline_level").find("Two-sided"), std::string::npos);
  EXPECT_EQ(text("inline_dial").find("Two-sided"), std::string::npos);
  EXPECT_NE(text("fixed_mini").find("an example"), std::string::npos);
  EXPECT_NE(text("large_controller").find("safety button"), std::string::npos);
  for (const ControllerClass& c : shipped().controllers) {
    const std::string all = text(c.id.c_str());
    for (const Lamp& lamp : c.proof.lamps)
      EXPECT_NE(all.find(lamp.sign.substr(1, 12)), std::string::npos) << c.id << ": " << lamp.sign;
  }
}

}  // namespace
}  // namespace rigging
