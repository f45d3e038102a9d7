#include "home/modes.h"

#include <gtest/gtest.h>

#include "base/find.h"
#include "bench_rig.h"
#include "home/edits.h"
#include "review/review.h"

namespace rigging {
namespace {

Channel switched(int number, Control control) {
  Channel c;
  c.number = number;
  c.function = ChannelFunction::other;
  c.control = control;
  return c;
}

bool finds(const ModeDeck& deck, ModeTrouble trouble) {
  return std::any_of(deck.findings.begin(), deck.findings.end(),
                     [&](const ModeFinding& f) { return f.trouble == trouble; });
}

/// A three-position switch with manual, level and circle, and return on a switch of its own.
Rig first_flight() {
  Rig rig = demo("hedgerow");
  std::erase_if(rig.radio.channels, [](const Channel& c) { return c.number >= 5; });
  rig.radio.channels.push_back(switched(5, Control::three_position));
  rig.radio.channels.push_back(switched(6, Control::two_position));
  rig.modes = {{5, 900, 1250, "manual", {}},
               {5, 1250, 1750, "level", {}},
               {5, 1750, 2100, "circle", {}},
               {6, 1500, 2100, "return", {}}};
  return rig;
}

TEST(Modes, TheSetForTheFirstFlightHasNothingAgainstIt) {
  const ModeDeck deck = mode_deck(first_flight(), shipped());
  ASSERT_EQ(deck.switches.size(), 2u);
  ASSERT_EQ(deck.cases.size(), 6u);
  EXPECT_EQ(deck.at({0, 0})->mode, "manual");
  EXPECT_EQ(deck.at({1, 0})->mode, "level");
  EXPECT_EQ(deck.at({2, 0})->mode, "circle");
  for (std::size_t k = 0; k < 3; ++k) EXPECT_EQ(deck.at({k, 1})->mode, "return") << "it goes before all else";
  EXPECT_TRUE(deck.missing.empty());
  EXPECT_EQ(deck.at({1, 0})->moves_to_manual, 1);
  EXPECT_EQ(deck.at({1, 1})->moves_to_manual, 2) << "from return it is taken back first";
  EXPECT_TRUE(deck.findings.empty()) << deck.findings.front().words;
  // Where a second switch has to be off for manual, a stabilized mode is two movements away.
  Rig rig = first_flight();
  rig.modes[3].mode = "rate";
  EXPECT_TRUE(finds(mode_deck(rig, shipped()), ModeTrouble::far_from_manual));
}

TEST(Modes, EveryTroubleIsFound) {
  Rig rig = first_flight();
  rig.modes[1].from_us = 1520;  // the middle position falls through
  ModeDeck deck = mode_deck(rig, shipped());
  EXPECT_TRUE(finds(deck, ModeTrouble::unreachable));
  rig = first_flight();
  rig.modes[2].from_us = 1600;
  EXPECT_TRUE(finds(mode_deck(rig, shipped()), ModeTrouble::overlapping));
  rig = first_flight();
  rig.modes[0].to_us = rig.modes[1].from_us = 1480;
  EXPECT_TRUE(finds(mode_deck(rig, shipped()), ModeTrouble::at_the_edge));
  rig = first_flight();
  rig.modes[0].mode = "rate";
  deck = mode_deck(rig, shipped());
  EXPECT_TRUE(finds(deck, ModeTrouble::no_manual));
  EXPECT_EQ(deck.missing, std::vector<std::string>{"manual"});
  rig = first_flight();
  rig.modes[3].from_us = 900, rig.modes[3].to_us = 1500;
  EXPECT_TRUE(finds(mode_deck(rig, shipped()), ModeTrouble::power_up));
  rig = first_flight();
  rig.modes.pop_back();
  rig.modes.erase(rig.modes.begin() + 1);
  deck = mode_deck(rig, shipped());
  EXPECT_TRUE(finds(deck, ModeTrouble::empty_position));
  EXPECT_EQ(deck.missing, (std::vector<std::string>{"level", "return on a switch of its own"}));
  rig.modes.clear();
  EXPECT_TRUE(mode_deck(rig, shipped()).switches.empty());
}

TEST(Modes, TheFirstFlightsSwitchesAreLaidOutInOneEdit) {
  const auto made = lay_out_first_flight(demo("hedgerow"), shipped());
  ASSERT_TRUE(made) << made.error().text();
  ModeDeck deck = mode_deck(made->rig, shipped());
  EXPECT_TRUE(deck.findings.empty()) << deck.findings.front().words;
  EXPECT_TRUE(deck.missing.empty()) << deck.missing.front();
  // Measured positions count.
  Rig measured = demo("hedgerow");
  for (Channel& c : measured.radio.channels)
    if (c.function == ChannelFunction::mode) c.positions_us = {1010, 1400, 1985};
  deck = mode_deck(lay_out_first_flight(measured, shipped())->rig, shipped());
  EXPECT_TRUE(deck.findings.empty());
  EXPECT_NEAR(deck.switches[0].positions[1].guard_us, 195, 1);
  // Without a satellite receiver there is no return, and nothing that needs a place.
  Rig blind = demo("hedgerow");
  std::erase_if(blind.parts, [](const Part& p) { return p.kind == "satellite_compass"; });
  const auto laid = lay_out_first_flight(blind, shipped());
  ASSERT_TRUE(laid);
  for (const ModeChoice& m : laid->rig.modes) EXPECT_FALSE(is_automatic(m.mode));
  EXPECT_FALSE(lay_out_first_flight(demo("heath"), shipped())) << "its modes are where the class has them";
  Rig full = demo("hedgerow");
  full.radio.transmitter.channels = static_cast<int>(full.radio.channels.size());
  EXPECT_FALSE(lay_out_first_flight(full, shipped()));
}

// Modes that keep the height come after levelling and before what flies by itself (common practice), and want a
// barometer.
TEST(Modes, KeepingTheHeightHasItsPlaceInTheOrder) {
  Rig rig = demo("hedgerow");
  const int channel = rig.modes.front().channel;
  rig.modes = {{channel, 900, 1300, "manual", {}},
               {channel, 1300, 1700, "level", {}},
               {channel, 1700, 2100, "heading_height", {}}};
  ModeDeck deck = mode_deck(rig, shipped());
  EXPECT_TRUE(
      std::any_of(deck.cases.begin(), deck.cases.end(), [](const ModeCase& c) { return c.mode == "heading_height"; }));
  for (const ModeFinding& f : deck.findings) EXPECT_NE(f.trouble, ModeTrouble::not_of_class) << f.words;
  EXPECT_FALSE(is_automatic("heading_height")) << "the sticks still steer";
  EXPECT_NE(mode_words("level_height").find("barometer"), std::string::npos);
  const auto lacks = [](const Rig& r, const Catalogue& c) {
    const Review all = review(r, c);
    return std::any_of(all.snags.begin(), all.snags.end(), [](const Snag& s) { return s.code == "HOME-16"; });
  };
  EXPECT_FALSE(lacks(rig, shipped()));
  Catalogue without = shipped();
  for (ControllerClass& c : without.controllers) c.senses.has_barometer = false;
  EXPECT_TRUE(lacks(rig, without));
  // A class that has no such mode says so.
  rig.controller.kind = "pc_mini";
  deck = mode_deck(rig, shipped());
  EXPECT_TRUE(std::any_of(deck.findings.begin(), deck.findings.end(),
                          [](const ModeFinding& f) { return f.trouble == ModeTrouble::not_of_class; }));
}

}  // namespace
}  // namespace rigging
