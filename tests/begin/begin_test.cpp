#include "begin/begin.h"

#include <gtest/gtest.h>

#include "airframe/kinds.h"
#include "base/find.h"
#include "begin/what_next.h"
#include "bench_rig.h"
#include "fit/fit.h"
#include "fit/usual_places.h"
#include "new_aircraft.h"
#include "power/network.h"
#include "review/grouped.h"
#include "review/review.h"
#include "wiring/lead_checks.h"
#include "wiring/plan.h"

namespace rigging {
namespace {

struct First {
  const char* name;
  AirframeKind kind;
  double span_m, mass_kg;
  const char *controller, *drive, *others;
};

/// As a builder would tell them.
const First firsts[] = {
    {"wing", AirframeKind::flying_wing, 1.2, 1.1, "full_controller", "",
     "camera, 200 mW video, satellite with compass, buzzer"},
    {"motor glider", AirframeKind::motor_glider, 1.5, 0.9, "inline_dial", "", ""},
    {"small wing", AirframeKind::flying_wing, 0.7, 0.3, "fixed_wing", "", ""},
    {"twin", AirframeKind::twin_differential, 1.6, 1.9, "full_controller", "", "satellite with compass"},
    {"wing, not weighed", AirframeKind::flying_wing, 1.2, 0, "full_controller", "",
     "camera, 200 mW video, satellite with compass, buzzer"},
    {"surveyor", AirframeKind::v_tail, 2.4, 3.8, "large_controller", "",
     "satellite with compass, airspeed, recording camera, 5 V 5 A regulator, power module"}};

Rig begun(const First& f) {
  NewAircraft b;
  b.name = f.name, b.kind = f.kind, b.span_m = f.span_m, b.controller = f.controller;
  if (f.mass_kg > 0) b.mass_kg = f.mass_kg;
  const auto airframe = airframe_of(b);
  const auto drives = suggest_drives(*airframe, shipped(), drive_in_words(shipped(), f.drive).kinds);
  EXPECT_FALSE(drives.empty()) << f.name;
  if (!drives.empty()) b.drive = drives.front().kinds;
  b.servo = usual_servo(*airframe, shipped());
  b.receiver = usual_receiver(shipped(), f.controller);
  b.others = parts_in_words(shipped(), f.others);
  auto edit = begin_rig(shipped(), b);
  EXPECT_TRUE(edit) << f.name;
  return edit ? edit->rig : Rig{};
}

TEST(Begin, FiveFirstRigsArePlacedFedAndPlanned) {
  for (const First& f : firsts) {
    const Rig rig = begun(f);
    EXPECT_EQ(rig.mountings.size(), rig.parts.size() + 1) << f.name;
    EXPECT_TRUE(find_clashes(rig, shipped()).empty()) << f.name;
    // Of two drives each thing has its side and its own name.
    std::set<std::string> names;
    for (const Part& p : rig.parts) {
      const std::string name = part_name(rig, shipped(), p.id);
      EXPECT_TRUE(names.insert(name).second) << f.name << ": another " << name;
    }
    const Plan plan = plan_wiring(rig, shipped());
    for (const Obstacle& o : plan.obstacles) ADD_FAILURE() << f.name << ": " << o.what;
    EXPECT_EQ(plan.changes, 0) << f.name << ": planned already";
    const Review r = review(rig, shipped());
    for (const ConsumerReport& c : r.reports.power().consumers)
      EXPECT_TRUE(c.powered[static_cast<std::size_t>(SupplyState::battery)]) << f.name << ": dark " << c.name;
    const auto groups = grouped(r.snags);
    for (const Snag& s : r.snags)
      EXPECT_FALSE(s.code == "FIT-15" || s.code.starts_with("WIRING") || s.code.starts_with("POWER-0"))
          << f.name << " " << s.code << " " << s.what;
    EXPECT_LT(groups.size(), 8u) << f.name;
    if (groups.size() >= 8)
      for (const SnagGroup& g : groups)
        ADD_FAILURE() << f.name << " " << g.first().code << " " << g.first().what << " " << g.more();
    for (const Snag& s : r.snags) EXPECT_NE(s.severity, Severity::grounds) << f.name << " " << s.code << " " << s.what;
  }
}

TEST(Begin, WhatTheClassHasNoPortForIsSaidOnceAndNotFed) {
  First first{"too much", AirframeKind::v_tail, 2.4, 3.8, "radio_stabilizer", "", "satellite with compass, pitot"};
  const Rig rig = begun(first);
  std::multiset<std::string> told;
  for (const Snag& s : review(rig, shipped()).snags)
    if (s.code.starts_with("WIRING") || s.code == "POWER-14") {
      told.insert(s.code);
      ASSERT_TRUE(s.fix) << s.code << " " << s.what;
      EXPECT_NE(s.what.find(" has no "), std::string::npos) << s.what;
      EXPECT_EQ(fixed_by(*s.fix, rig).parts.size(), rig.parts.size() - 1) << s.what;
    }
  EXPECT_EQ(told, (std::multiset<std::string>{"WIRING-21", "WIRING-21"})) << "said, and not that they are dark as well";
  for (const Obstacle& o : plan_wiring(rig, shipped()).obstacles) EXPECT_NE(o.code, "POWER-14") << o.what;
  // A class with the ports has nothing to say.
  first.controller = "full_controller";
  for (const Snag& s : review(begun(first), shipped()).snags) EXPECT_NE(s.code, "WIRING-21") << s.what;
}

TEST(Begin, WhatNextIsThreeThings) {
  for (const First& f : firsts) {
    const Rig rig = begun(f);
    const auto next = what_next(rig, shipped(), review(rig, shipped()));
    ASSERT_EQ(next.size(), 3u) << f.name;
    EXPECT_NE(next.front().what.find("guess"), std::string::npos) << f.name;
  }
  const Rig bare = begin_rig(shipped(), {})->rig;
  const auto next = what_next(bare, shipped(), review(bare, shipped()));
  ASSERT_EQ(next.size(), 3u);
  EXPECT_EQ(next.front().station, Station::fit) << "nothing is on board";
}

TEST(Begin, EverythingCanBeLeftOpen) {
  const auto edit = begin_rig(shipped(), {});
  ASSERT_TRUE(edit);
  EXPECT_TRUE(edit->rig.parts.empty());
  EXPECT_FALSE(edit->rig.outputs.empty());
  EXPECT_GT(std::count(edit->rig.airframe.guessed.begin(), edit->rig.airframe.guessed.end(), "span_m"), 0);
}

TEST(Begin, WhatIsOutOfRangeIsRefused) {
  NewAircraft b;
  b.span_m = 200;
  EXPECT_FALSE(airframe_of(b));
  EXPECT_FALSE(begin_rig(shipped(), b));
  b.span_m = 1.2;
  b.mass_kg = -1;
  EXPECT_FALSE(begin_rig(shipped(), b));
  b.mass_kg = 1.2;
  b.measures = {{"wing_colour", 1}};
  EXPECT_FALSE(begin_rig(shipped(), b));
  b.measures.clear();
  b.receiver = "none_such";
  EXPECT_FALSE(begin_rig(shipped(), b));
  b.receiver.clear();
  b.controller = "none_such";
  EXPECT_FALSE(begin_rig(shipped(), b));
}

// For every class that hears a receiver of its own there is one that it hears.
TEST(Begin, TheReceiverSuitsTheClass) {
  for (const ControllerClass& c : shipped().controllers) {
    const std::string id = usual_receiver(shipped(), c.id);
    if (id.empty()) continue;
    Rig rig = fresh_rig("A", AirframeKind::two_ailerons, c.id);
    Part p;
    p.id = "rx", p.kind = id;
    rig.parts.push_back(p);
    for (const Obstacle& o : plan_wiring(rig, shipped()).obstacles)
      EXPECT_NE(o.subject, "rx") << c.id << ": " << o.what;
  }
  EXPECT_EQ(usual_receiver(shipped(), "full_controller"), "receiver_two_way");
}

// Nothing that is said of the drive vanishes or becomes something else in silence.
TEST(BeginDrive, WhatIsSaidIsTakenOrSaidNotToBe) {
  const auto kinds = [](const char* words) { return drive_in_words(shipped(), words); };
  EXPECT_EQ(kinds("40 A").kinds.speed_controller, "esc_40_switching");
  EXPECT_TRUE(kinds("40 A").others.empty());
  EXPECT_EQ(shipped().part(kinds("4S 3000 mAh").kinds.battery)->battery->cells, 4);
  EXPECT_FALSE(kinds("4S 3000 mAh").remarks.empty());
  EXPECT_EQ(shipped().part(kinds("4S").kinds.battery)->battery->cells, 4);
  EXPECT_EQ(kinds("4S cylindrical").kinds.battery, "battery_4s_7000_cylindrical");
  const auto all = kinds("2814, 9x6, 4S 5000 mAh, 40 A");
  EXPECT_EQ(all.kinds.motor, "motor_2814");
  EXPECT_EQ(all.kinds.propeller, "propeller_9x6");
  EXPECT_EQ(all.kinds.battery, "battery_4s_5000");
  EXPECT_EQ(all.kinds.speed_controller, "esc_40_switching");
  EXPECT_TRUE(all.remarks.empty());
  EXPECT_FALSE(kinds("flux").remarks.empty());
  // Of two that are as near, the one that bears what its speed controller passes; what is known stays.
  EXPECT_EQ(kinds("950 kV motor, 9 x 6, 4S 3000 mAh, 40 A").kinds.motor, "motor_2814");
  EXPECT_EQ(kinds("950 kV motor, 20 A").kinds.motor, "motor_2212");
  EXPECT_EQ(kinds("1000 kV motor, 40 A").kinds.motor, "motor_2212");
}

// Video without a pad to take from gets a regulator of its own, and no row that the class keeps for something else.
TEST(Begin, VideoIsFedOnEveryClassAndNotByTheRailThatServosPullDown) {
  std::size_t apart = 0;
  for (const ControllerClass& c : shipped().controllers)
    for (const char* words : {"600 mW video transmitter, camera", "200 mW video transmitter, recording camera"}) {
      NewAircraft a = new_aircraft(c.id, c.id == "fixed_wing" ? AirframeKind::flying_wing : AirframeKind::rudder_only);
      a.propeller = PropellerSide::pusher;
      a.drive = drive_in_words(shipped(), "3S 2200 mAh, 40 A, 9x6").kinds;
      a.others = parts_in_words(shipped(), words);
      const auto begun = begin_rig(shipped(), a);
      ASSERT_TRUE(begun) << c.id << ": " << begun.error().text();
      const auto battery = parts_of(begun->rig, shipped(), PartGroup::battery);
      ASSERT_FALSE(battery.empty()) << c.id;
      for (const Snag& s : review(begun->rig, shipped()).snags) {
        if (s.code != "POWER-13" && s.code != "POWER-14" && s.code != "WIRING-24" && s.code != "WIRING-29") continue;
        const PartKind* k = kind_of(begun->rig, shipped(), s.subject);
        const bool video = k && (k->group == PartGroup::camera || k->group == PartGroup::video_transmitter);
        // There no ground pad is left for a second regulator: one snag would come for the other, so it is said.
        if (c.id == "small_controller" && s.code == "POWER-13") continue;
        EXPECT_FALSE(video) << c.id << ", " << words << ": " << s.code << " " << s.what;
      }
      for (const Lead& l : begun->rig.leads)
        if (const LeadEnd* far = far_end(l, "video_transmitter", "power"))
          apart += kind_of(begun->rig, shipped(), far->part) != nullptr &&
                   kind_of(begun->rig, shipped(), far->part)->group == PartGroup::regulator;
    }
  EXPECT_GE(apart, 10u);
}

// A towed glider comes with the servo of its release, on the motor's output or, where the throttle bypasses the
// stabilizer, on the receiver's throttle channel.
TEST(Begin, ATowedGliderComesWithItsRelease) {
  std::size_t on_board = 0, on_receiver = 0;
  for (const ControllerClass& c : shipped().controllers) {
    NewAircraft a = new_aircraft(c.id, AirframeKind::towed_glider);
    a.drive = drive_in_words(shipped(), "2S 1300 mAh").kinds;
    const auto begun = begin_rig(shipped(), a);
    ASSERT_TRUE(begun) << c.id;
    EXPECT_EQ(parts_of(begun->rig, shipped(), PartGroup::servo).size(), 5u) << c.id;
    bool said = false;
    for (const Snag& s : review(begun->rig, shipped()).snags) said = said || s.code == "WIRING-18";
    const Part* release = begun->rig.part("servo");
    ASSERT_TRUE(release) << c.id;
    EXPECT_EQ(part_name(begun->rig, shipped(), release->id), "release servo");
    for (const Lead& l : begun->rig.leads)
      if (const LeadEnd* far = far_end(l, release->id)) {
        EXPECT_FALSE(said) << c.id;
        EXPECT_NE(lead_card(begun->rig, shipped(), l).expected.find("lets go at full throttle"), std::string::npos);
        ++(far->part == "controller" ? on_board : on_receiver);
        EXPECT_EQ(far->part == "controller", !c.motor_bypasses()) << c.id;
      }
  }
  EXPECT_GE(on_board, 4u);
  EXPECT_EQ(on_receiver, 3u) << "inline units and the screen board";
}

}  // namespace
}  // namespace rigging
