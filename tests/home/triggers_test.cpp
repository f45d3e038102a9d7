#include "home/triggers.h"

#include <gtest/gtest.h>

#include "home/edits.h"
#include "home/home_rigs.h"
#include "review/coded.h"
#include "review/deferred.h"
#include "settings/home_settings.h"

namespace rigging {
namespace {

const ControllerClass& class_of(const Rig& rig) { return *shipped().controller(rig.controller.kind); }

std::vector<TriggerFinding> judged(const Rig& rig) { return judge_triggers(rig, class_of(rig), home_of(rig)); }

Rig with(HomeTrigger on, TriggerAction does, std::optional<double> at = {}) {
  return set_trigger(comes_home(), on, does, at)->rig;
}

TEST(Triggers, NothingIsOfferedThatRestsOnWhatHasFailed) {
  const Rig rig = comes_home();
  const HomeReport r = home_of(rig);
  for (const HomeTrigger on : {HomeTrigger::no_fix, HomeTrigger::bad_compass})
    for (const TriggerAction a : trigger_choices(on, class_of(rig), r))
      EXPECT_TRUE(a == TriggerAction::warn || a == TriggerAction::glide) << name_of(on) << ' ' << name_of(a);
  Rig blind = rig;
  std::erase_if(blind.parts, [](const Part& p) {
    const PartKind* k = shipped().part(p.kind);
    return k && k->group == PartGroup::satellite_receiver;
  });
  const HomeReport b = home_of(blind);
  EXPECT_TRUE(trigger_choices(HomeTrigger::fence, class_of(blind), b).empty());
  for (const TriggerAction a : trigger_choices(HomeTrigger::low_battery, class_of(blind), b))
    EXPECT_NE(a, TriggerAction::come_home);
  blind.controller.kind = "inline_dial";
  EXPECT_TRUE(trigger_choices(HomeTrigger::low_battery, class_of(blind), home_of(blind)).empty());
}

TEST(Triggers, WhatDoesNotHoldIsFound) {
  EXPECT_TRUE(judged(comes_home()).empty());
  const auto lost = judged(with(HomeTrigger::no_fix, TriggerAction::come_home));
  ASSERT_EQ(lost.size(), 1u);
  EXPECT_TRUE(lost[0].gives_up);
  EXPECT_EQ(judged(with(HomeTrigger::fence, TriggerAction::come_home)).size(), 1u) << "how far?";
  EXPECT_EQ(judged(with(HomeTrigger::fence, TriggerAction::come_home, 500)).size(), 1u) << "within the area of 800 m";
  EXPECT_TRUE(judged(with(HomeTrigger::fence, TriggerAction::come_home, 900)).empty());
  EXPECT_EQ(judged(with(HomeTrigger::low_battery, TriggerAction::come_home)).size(), 1u) << "no voltage is set";
  const Rig rig = comes_home();
  const double way = *longest_way_s(rig, class_of(rig), home_of(rig));
  EXPECT_TRUE(judged(with(HomeTrigger::long_loss, TriggerAction::land, std::ceil(way) + 1)).empty());
  const auto soon = judged(with(HomeTrigger::long_loss, TriggerAction::land, std::floor(way) - 1));
  ASSERT_EQ(soon.size(), 1u);
  EXPECT_TRUE(soon[0].gives_up);
}

// The longest way by the triangle: 800 m against the gusts of the worst corner, and what is waited before.
TEST(Triggers, TheLongestWayIsThatAgainstTheWind) {
  const Rig rig = comes_home();
  const HomeReport r = home_of(rig);
  const double wind = r.worse.wind.speed_m_s, speed = r.performance.cruise_m_s.worse;
  EXPECT_NEAR(*longest_way_s(rig, class_of(rig), r), 800 / (speed - wind) + 1 + rig.home.loss_hold_s, 0.5);
}

TEST(Triggers, TheFixDoesWhatWorks) {
  const Rig rig = with(HomeTrigger::bad_compass, TriggerAction::circle);
  const auto snags = deferred_snags(rig, Station::home);
  const Snag* snag = coded(snags, "HOME-11");
  ASSERT_TRUE(snag && snag->fix);
  EXPECT_TRUE(judged(fixed_by(*snag->fix, rig)).empty());
}

TEST(Triggers, ALongLossEndsTheStory) {
  Rig rig = with(HomeTrigger::long_loss, TriggerAction::land, 400);
  rig.home.sounds_when_lost = true;
  const HomeReport r = home_of(rig);
  const auto told = loss_story(rig, shipped(), r, {300, 90, 60}, r.performance.capacity_mah.expected);
  ASSERT_GE(told.size(), 3u);
  const StoryStep& landing = told[told.size() - 2];
  EXPECT_EQ(landing.part, StoryPart::landing);
  EXPECT_NEAR(landing.from_s, 400, 1e-6);
  EXPECT_TRUE(landing.good);
  EXPECT_NE(told.back().what.find("sounds"), std::string::npos);
  // Before it is home it comes down where it is.
  rig.home.triggers[0].at = 30;
  const auto cut = loss_story(rig, shipped(), home_of(rig), {800, 90, 60}, 2000);
  EXPECT_FALSE(cut.back().good);
  EXPECT_GT(cut.back().to_m, 100);
}

TEST(HomeThrottle, OneThatSinksIsFoundAndWhatWasFlownCountsMore) {
  Rig rig = comes_home();
  const HomeReport r = home_of(rig);
  EXPECT_GT(r.performance.cruise_throttle, 0.2);
  EXPECT_LT(r.performance.cruise_throttle, 0.9);
  rig.home.cruise_throttle = r.performance.cruise_throttle - 0.2;
  const auto finds = [](const Rig& of) {
    const auto snags = deferred_snags(of, Station::home);
    return coded(snags, "HOME-12") != nullptr;
  };
  EXPECT_TRUE(finds(rig));
  rig.power.cruise_throttle = *rig.home.cruise_throttle;
  EXPECT_FALSE(finds(rig)) << "what was noted in flight is known better than what is reckoned";
}

TEST(HomeSettings, ListsAreListsAndSayWhatTheyExpect) {
  Rig rig;
  rig.modes = {{5, 900, 1300, "manual", {}}, {6, 1500.5, 2100, "return", {}}};
  rig.home.triggers.resize(2);
  rig.home.triggers[0].on = HomeTrigger::fence, rig.home.triggers[0].does = TriggerAction::come_home;
  rig.home.triggers[0].at = 500;
  rig.home.triggers[1].on = HomeTrigger::no_fix, rig.home.triggers[1].does = TriggerAction::warn;
  rig.home.goggles = {GogglesLine::volts, GogglesLine::height};
  Rig taken;
  for (const char* name : {"modes", "triggers", "goggles"}) {
    const Setting& s = *setting_named(SettingOf::board, name);
    const SettingValue value = s.get(rig, "");
    EXPECT_EQ(misfit(s, value), "") << name;
    s.set(taken, "", value);
    EXPECT_EQ(misfit(s, {}), "") << name << " may be absent";
    EXPECT_NE(misfit(s, std::string("manual 5 900 1300")), "") << name << " is no text";
    EXPECT_NE(misfit(s, SettingList(65, std::get<SettingList>(value).front())), "") << name << " has an end";
  }
  EXPECT_EQ(taken.modes, rig.modes);
  EXPECT_EQ(taken.home.triggers, rig.home.triggers);
  EXPECT_EQ(taken.home.goggles, rig.home.goggles);
  const Setting &modes = *setting_named(SettingOf::board, "modes"),
                &triggers = *setting_named(SettingOf::board, "triggers"),
                &goggles = *setting_named(SettingOf::board, "goggles");
  const std::string manual = "manual", fence = "fence";
  const SettingRow good{{"mode", manual}, {"channel", 5.0}, {"from_us", 900.0}, {"to_us", 1300.0}};
  EXPECT_EQ(misfit(modes, SettingList{good}), "");
  for (const auto& [name, value] : std::vector<std::pair<std::string, Value>>{{"channel", 0.0},
                                                                              {"channel", 5.5},
                                                                              {"channel", std::string("5")},
                                                                              {"from_us", 99999.0},
                                                                              {"from_us", 1300.0},
                                                                              {"until", 7.0}}) {
    SettingRow bad = good;
    bad[name] = value;
    EXPECT_NE(misfit(modes, SettingList{bad}), "") << name;
  }
  for (const SettingRow& bad : std::vector<SettingRow>{{},
                                                       {{"on", fence}},
                                                       {{"on", fence}, {"does", std::string("dance")}},
                                                       {{"on", std::string("moon")}, {"does", std::string("warn")}},
                                                       {{"on", fence}, {"does", std::string("warn")}, {"at", -1.0}}})
    EXPECT_NE(misfit(triggers, SettingList{bad}), "");
  EXPECT_NE(misfit(goggles, SettingList{{{"", std::string("moon")}}}), "");
  EXPECT_NE(misfit(goggles, SettingList{{{"line", std::string("volts")}}}), "");
}

TEST(WindRose, TheThresholdRisesWithTheWindUntilItDoesNotComeHome) {
  const Rig rig = comes_home();
  const HomeReport r = home_of(rig);
  const auto rose = wind_rose_of(rig, r);
  ASSERT_GT(rose.size(), 8u);
  for (std::size_t i = 1; i < rose.size(); ++i) {
    EXPECT_LE(rose[i].out_and_back_m, rose[i - 1].out_and_back_m + 1e-6);
    if (rose[i].turn_home_mah) {
      EXPECT_GT(*rose[i].turn_home_mah, *rose[i - 1].turn_home_mah);
    }
  }
  // In the planned wind it is the report's own threshold.
  EXPECT_NEAR(*rose[static_cast<std::size_t>(rig.home.wind_m_s)].turn_home_mah, r.turn_home_mah->value,
              0.002 * r.turn_home_mah->value);
  EXPECT_FALSE(rose.back().turn_home_mah);
}

}  // namespace
}  // namespace rigging
