#include <gtest/gtest.h>

#include "asked.h"
#include "new_aircraft.h"
#include "rig/rig_file.h"

/// Sentences of several days, each written down before the answers were looked at.
namespace rigging {
namespace {

struct Line {
  const char* words;
  const char* says;  ///< part of the first answer
};

void expect_heard(const char* of, std::initializer_list<Line> all) {
  const Rig rig = demo(of);
  for (const Line& h : all) {
    const auto found = answers_to(rig, h.words);
    ASSERT_FALSE(found.empty()) << h.words;
    EXPECT_NE(found.front().text.find(h.says), std::string::npos) << h.words << ": " << found.front().text;
  }
}

TEST(Spoken, QuestionsAreAnsweredWithTheirNumber) {
  expect_heard("hedgerow", {{"can this servo take 7.4 volts", "Yes: "},
                            {"can this servo take 12 volts", "No: "},
                            {"what is the pulse rate of the servos", "50 Hz"},
                            {"is the compass too close to the battery lead", "turn the compass by"},
                            {"what tools do I need", "To get: "},
                            {"which port does the gps use", "SER 4"},
                            {"is the motor too big", "suits: "},
                            {"what happens if I fit a 10x5 propeller", "10 × 5 inch suits: "},
                            {"how many channels do I need", "channels ("},
                            {"how fast does it roll", "roll "},
                            {"what is the mix of output 2", "Output 2: roll"},
                            {"will it make it home from 800 m", "800 m: yes"},
                            {"will it make it home from 30 km", "not surely"},
                            {"what is still unproven", "checks are left"},
                            {"is the accelerometer calibrated", "not proven yet"},
                            {"what is on channel 8", "hannel 8"},
                            {"how big is the servo", " mm × "},
                            {"what is the heaviest part", "Battery"},
                            {"how far is the receiver from the controller", "from middle to middle"},
                            {"does this board have a compass", "no compass of its own"},
                            {"how is my board mounted", "arrow to the nose, top up"},
                            {"is anything stale", "Nothing is stale"},
                            {"is 3 kg too heavy", "At 3000 g it stalls"},
                            {"how far can it go on one battery", "in all until the reserve"},
                            {"does the battery fit", "nothing overlaps"},
                            {"what angle should level be", "nose up"},
                            {"how fast does it climb", "m/s"}});
  expect_heard("heath", {{"the rudder moves when I roll", "So it should"},
                         {"the elevator moves when I roll", "It should not"},
                         {"what size is the wing", "Wing: span 2000 mm"},
                         {"can I leave out the compass", "there is no compass"},
                         {"what's the battery internal resistance", "mΩ each cell"},
                         {"which switch arms it", "no arming of its own"}});
}

TEST(Spoken, ComplaintsAreAnsweredWithWhatToLookAt) {
  expect_heard("bramble", {{"my plane rolls right by itself", "clevis"},
                           {"my gps doesn't find satellites", "clear sky"},
                           {"the elevator is slow", "slow servo"},
                           {"why are the servos dead", "On USB alone"},
                           {"which wire is minus", "black or brown"},
                           {"the nose drops when I close the throttle", "keeps its speed"},
                           {"it loses height in turns", "holds the turn"},
                           {"one motor runs faster", "Two motors that differ"},
                           {"the motor runs when I arm", "Propeller off"},
                           {"both elevons go the same way when I roll", "same way"},
                           {"right stick makes the left wing drop", "Do not fly"},
                           {"it flies backwards when coming home", "wind"},
                           {"it doesn't come back", "does not come home"},
                           {"my throttle is reversed", "set in the transmitter"},
                           {"when do I put the propeller on", "last, at the field"}});
}

TEST(Spoken, DeedsAreDone) {
  const Rig rig = demo("hedgerow");
  struct Done {
    const char* words;
    bool (*done)(const Rig&);
  };
  for (const Done& d : std::initializer_list<Done>{
           {"make the wing 1.4 m", [](const Rig& r) { return r.airframe.span_m == 1.4; }},
           {"set output 1 centre to 1520", [](const Rig& r) { return r.output("out_1")->centre_us == 1520; }},
           {"limit output 3 to 1900", [](const Rig& r) { return r.output("out_3")->high_us == 1900; }},
           {"turn the yaw gain off", [](const Rig& r) { return r.feel.gain(Axis::yaw)->rate == 0; }},
           {"set low voltage to 14.5", [](const Rig& r) { return r.home.turn_home_v == 14.5; }},
           {"the airframe weighs 600 grams", [](const Rig& r) { return r.fit.frame_mass_kg == 0.6; }},
           {"make the receiver 12 g", [](const Rig& r) { return r.part("receiver")->mass_kg == 0.012; }},
           {"weigh the model at 1350 g", [](const Rig& r) { return r.airframe.mass_kg == 1.35; }},
           {"make it land at home", [](const Rig& r) { return r.home.on_arrival == OnArrival::land; }},
           {"glide when the link is lost", [](const Rig& r) { return r.home.on_loss == LossAction::glide; }},
           {"put return on channel 8",
            [](const Rig& r) {
              return std::any_of(r.radio.channels.begin(), r.radio.channels.end(), [](const Channel& c) {
                return c.number == 8 && c.function == ChannelFunction::return_home;
              });
            }},
           {"set the area to 300 m", [](const Rig& r) { return r.home.area_m == 300; }},
           {"set lead 3 to 200 mm",
            [](const Rig& r) {
              return r.lead(review(r, shipped()).reports.wiring().harness[2].lead)->length_m == 0.2;
            }},
           {"set the wait to 2 seconds", [](const Rig& r) { return r.home.loss_hold_s == 2; }},
           {"set the fence to 300 m", [](const Rig& r) {
              return r.home.triggers.back().on == HomeTrigger::fence && r.home.triggers.back().at == 300;
            }}}) {
    const auto found = answers_to(rig, d.words);
    ASSERT_FALSE(found.empty()) << d.words;
    ASSERT_TRUE(found.front().edit) << d.words << ": " << found.front().text;
    EXPECT_TRUE(d.done(found.front().edit->rig)) << d.words << ": " << found.front().text;
  }
}

// A sentence that is nearly a deed is none.
TEST(Spoken, NothingIsSilentlyAnother) {
  const Rig rig = demo("hedgerow");
  for (const char* words : {"the tail is 60 cm from the wing", "less elevator", "use a 7S 9000 battery",
                            "roll rate 180 degrees per second", "limit output 3 to 4000"})
    for (const Interpretation& a : answers_to(rig, words)) EXPECT_FALSE(a.edit) << words << ": " << a.text;
}

TEST(Spoken, WorkOnAThingTakesItsProofsBack) {
  const Rig fresh = demo("hedgerow");
  const auto before = answers_to(fresh, "I glued the horn on again");
  ASSERT_FALSE(before.empty());
  EXPECT_FALSE(before.front().edit);
  EXPECT_NE(before.front().text.find("still to be taken"), std::string::npos) << before.front().text;

  const auto proven = with_proof(fresh, shipped(), {"stick", "roll"}, "2026-01-01T00:00:00Z", false);
  ASSERT_TRUE(proven);
  const auto after = answers_to(*proven, "I glued the horn on again");
  ASSERT_FALSE(after.empty());
  ASSERT_TRUE(after.front().edit) << after.front().text;
  EXPECT_TRUE(after.front().edit->rig.proofs.empty());
  // The camera moves no surface.
  for (const Interpretation& a : answers_to(*proven, "I changed the camera")) EXPECT_FALSE(a.edit) << a.text;
}

TEST(Spoken, WhatIfDoesNothing) {
  const Rig rig = demo("hedgerow");
  const auto found = answers_to(rig, "what happens if I remove the satellite receiver");
  ASSERT_FALSE(found.empty());
  EXPECT_FALSE(found.front().edit);
  EXPECT_TRUE(found.front().text.starts_with("Tried on a copy: ")) << found.front().text;
  EXPECT_NE(found.front().text.find("snags more: "), std::string::npos) << found.front().text;
  // Home is told with it, not only the port.
  EXPECT_NE(found.front().text.find("home"), std::string::npos) << found.front().text;
}

// Where nothing else is understood the manual is quoted, or nothing is said.
TEST(Spoken, TheManualIsQuotedOrSilent) {
  const auto passages = passages_of(
      "# Head\n\n![p](x.png)\n\nThe **blue** [marmot](m.md) whistles at noon. It sleeps at night.\n\n| a | b |\n",
      "fit");
  ASSERT_EQ(passages.size(), 1u);
  EXPECT_EQ(passages[0].text(), "The blue marmot whistles at noon. It sleeps at night.");
  const Rig rig = demo("hedgerow");
  const Review checked = review(rig, shipped());
  const auto asked = [&](const char* words) {
    return answers({rig, shipped(), checked, nullptr, nullptr, &passages, nullptr}, words);
  };
  const auto found = asked("when does a marmot whistle");
  ASSERT_EQ(found.size(), 1u);
  EXPECT_EQ(found[0].text, "From the manual, fit: The blue marmot whistles at noon. It sleeps at night.");
  EXPECT_EQ(found[0].station, Station::fit);
  EXPECT_TRUE(asked("when does a marmot swim").empty());
  EXPECT_FALSE(shipped_manual().empty());
  EXPECT_TRUE(passages_beside("/nonexistent").empty());
}

// Every kind on every class: what is offered can be written and read again, and nothing falls over.
TEST(Spoken, OnEveryKindAndClassADeedLeavesARigThatCanBeRead) {
  const char* sentences[] = {"make it a tractor",
                             "it is a flying wing",
                             "no rudder",
                             "swap outputs 1 and 2",
                             "reverse the aileron",
                             "turn the yaw gain off",
                             "set output 1 centre to 1520",
                             "fix it",
                             "I changed the receiver",
                             "make it land at home",
                             "set the fence to 300 m",
                             "remove the receiver",
                             "what happens if I remove the receiver",
                             "put mode on channel 7",
                             "servo rate 100 Hz",
                             "put the rudder on output 2",
                             "use a 3S battery",
                             "more differential",
                             "what is the mix of output 1",
                             "is the roll stick proven",
                             "the board is upside down"};
  std::size_t deeds = 0;
  for (const auto& [kind, word] : Names<AirframeKind>::list)
    for (const ControllerClass& c : shipped().controllers) {
      const auto begun = begin_rig(shipped(), new_aircraft(c.id, kind));
      ASSERT_TRUE(begun) << word << " " << c.id;
      const Review checked = review(begun->rig, shipped());
      for (const char* words : sentences)
        for (const Interpretation& a : answers(
                 {begun->rig, shipped(), checked, nullptr, &shipped_terms(), &shipped_manual(), &shipped_knowledge()},
                 words)) {
          EXPECT_FALSE(a.text.empty()) << words;
          if (!a.edit) continue;
          ++deeds;
          const auto read = rig_from_text(rig_text(a.edit->rig), "rig");
          ASSERT_TRUE(read) << word << " " << c.id << " " << words << ": " << read.error().text();
          EXPECT_EQ(*read, a.edit->rig) << word << " " << c.id << " " << words;
        }
    }
  EXPECT_GT(deeds, 1000u);
}

TEST(Spoken, WhatTheClassCannotDoIsRefusedAndWhatIsMissingIsSaid) {
  for (const char* words : {"make it land at home", "come home when the link is lost"}) {
    const auto found = answers_to(demo("delta"), words);
    ASSERT_FALSE(found.empty()) << words;
    EXPECT_FALSE(found.front().edit) << words;
    EXPECT_NE(found.front().text.find("does nothing by itself"), std::string::npos) << found.front().text;
  }
  const auto without = answers_to(demo("delta"), "what happens if I remove the receiver");
  ASSERT_FALSE(without.empty());
  EXPECT_NE(without.front().text.find("more: The list of parts has no receiver"), std::string::npos)
      << without.front().text;
}

TEST(Topics, BrokenFilesSayWhere) {
  ASSERT_GT(shipped_knowledge().all().size(), 100u);
  const auto refused = [](const char* topic) {
    const auto read = topics_of(std::string("{\"topics\": [") + topic + "]}", "t.json");
    return read ? std::string() : read.error().text();
  };
  EXPECT_EQ(refused(R"({"phrases": ["a b"], "text": "c", "station": "fit"})"), "");
  EXPECT_NE(refused(R"({"phrases": [], "text": "c", "station": "fit"})").find("topics/0/phrases"), std::string::npos);
  EXPECT_NE(refused(R"({"phrases": ["a"], "text": "c", "station": "fit", "says": "x"})").find("\"x\" is no saying"),
            std::string::npos);
  EXPECT_NE(refused(R"({"phrases": ["a"], "text": "c"})").find("leads nowhere"), std::string::npos);
  EXPECT_NE(refused(R"({"phrases": ["a"], "text": "c", "station": "kitchen"})").find("station"), std::string::npos);
}

}  // namespace
}  // namespace rigging
