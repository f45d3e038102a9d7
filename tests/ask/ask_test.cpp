
#include <gtest/gtest.h>

#include "asked.h"

namespace rigging {
namespace {

struct Asked {
  const char* words;
  Station station;
  const char* says;  ///< part of the answer
};

std::vector<Interpretation> ask(const Rig& rig, std::string_view words) {
  const Review r = review(rig, shipped());
  return answers({rig, shipped(), r, nullptr, nullptr, nullptr, &shipped_knowledge()}, words);
}

// Natural words for what each station can do; the first answer is the one that is meant.
TEST(Ask, QuestionsAndComplaintsFindTheirPlace) {
  const Rig rig = demo("hedgerow");
  using S = Station;
  for (const Asked& a :
       std::initializer_list<Asked>{{"what is my stall speed", S::airframe, "Stall speed: "},
                                    {"how slow can it fly", S::airframe, "Stall speed: "},
                                    {"cruise speed?", S::airframe, "ruise speed"},
                                    {"what is the wing loading", S::airframe, "Wing loading"},
                                    {"wing area", S::airframe, "Wing area"},
                                    {"where is the neutral point", S::airframe, "Neutral point"},
                                    {"how long can I fly", S::power, "min"},
                                    {"how long does the battery last", S::power, "min"},
                                    {"endurance", S::power, "min"},
                                    {"where does it balance", S::fit, "Balance point"},
                                    {"what is my CG", S::fit, "Balance point"},
                                    {"is it tail heavy", S::fit, ""},
                                    {"static margin", S::fit, "Static margin"},
                                    {"how much thrust does it have", S::power, "hrust"},
                                    {"is the motor strong enough", S::power, "of the weight"},
                                    {"how many amps at full throttle", S::power, "A"},
                                    {"will the regulator be enough for the servos", S::power, ""},
                                    {"is the bec enough", S::power, ""},
                                    {"where does the receiver go", S::wiring, "Receiver"},
                                    {"where is the gps plugged in", S::wiring, "to controller"},
                                    {"where is the motor plugged", S::wiring, "Motor"},
                                    {"where do I plug in the buzzer", S::wiring, "Buzzer"},
                                    {"which socket does the camera use", S::wiring, "camera"},
                                    {"print the plug list", S::wiring, "plug list"},
                                    {"am I ready to fly", S::proof, "Not ready"},
                                    {"what is wrong", S::proof, "First of"},
                                    {"what do I have to buy", S::fit, "get"},
                                    {"how does the board have to sit", S::fit, "board"},
                                    {"how far can I fly and come home", S::home, "home"},
                                    {"what happens when I lose signal", S::home, "comes home at 60 m"},
                                    {"failsafe", S::home, "comes home at 60 m"},
                                    {"what do my switches do: flight modes", S::home, "manual"},
                                    {"at what voltage should I turn back? low voltage", S::home, "15 V"},
                                    {"how wide is the circle radius", S::home, "circle"},
                                    {"how do I do the range test", S::home, "reduced power"},
                                    {"the elevator goes the wrong way", S::proof, "Look at both"},
                                    {"left flaperon moves the wrong way", S::proof, "Look at both"},
                                    {"my aileron is reversed", S::proof, "Look at both"},
                                    {"the stabilizer fights me", S::proof, "correction"},
                                    {"it shakes in a dive", S::feel, "shakes"},
                                    {"the wing wobbles, it oscillates", S::feel, "shakes"},
                                    {"why does it not arm", S::home, "arm"},
                                    {"the motor won't start", S::home, "arm"},
                                    {"no satellites", S::senses, "satellite"},
                                    {"it gets no gps fix", S::senses, "satellite"},
                                    {"the compass is off", S::senses, "ompass"},
                                    {"my servos don't move", S::power, "USB"},
                                    {"the receiver is not heard", S::sticks, "receiver"},
                                    {"my sticks do nothing", S::sticks, "receiver"},
                                    {"stick is not centred", S::sticks, "transmitter"},
                                    {"it rolls left, I have to hold the stick", S::surfaces, "clevis"},
                                    {"it sinks in level", S::senses, "level"},
                                    {"there is no picture in the goggles", S::wiring, "picture"},
                                    {"the servo buzzes and gets hot", S::surfaces, "servo"},
                                    {"there is slop in the linkage", S::surfaces, "Play"},
                                    {"calibrate the compass", S::senses, "Turn the model"},
                                    {"calibrate esc", S::sticks, "speed controller"},
                                    {"rehearse the way home", S::home, "Rehearse"},
                                    {"what are my gains", S::feel, "not written down"},
                                    {"how far do the surfaces move? throws", S::surfaces, "surface"},
                                    {"channel order", S::sticks, "channel"},
                                    {"check the directions", S::proof, "direction"},
                                    {"read a log", S::feel, "log"}}) {
    const auto found = ask(rig, a.words);
    ASSERT_FALSE(found.empty()) << a.words;
    EXPECT_EQ(found.front().station, a.station) << a.words << ": " << found.front().text;
    EXPECT_NE(found.front().text.find(a.says), std::string::npos) << a.words << ": " << found.front().text;
    EXPECT_FALSE(found.front().edit) << a.words;
  }
}

TEST(Ask, DeedsAreSaidAndDone) {
  const Rig rig = demo("hedgerow");
  struct Wish {
    const char* words;
    bool (*done)(const Rig& before, const Rig& after);
  };
  for (const Wish& d : std::initializer_list<Wish>{
           {"set span 1.5 m", [](const Rig&, const Rig&r) { return r.airframe.span_m == 1.5; }},
           {"span 59 in", [](const Rig&, const Rig&r) { return std::abs(r.airframe.span_m - 1.4986) < 1e-9; }},
           {"make the span 1500", [](const Rig&, const Rig&r) { return r.airframe.span_m == 1.5; }},
           {"set the root chord to 28 cm",
            [](const Rig&, const Rig&r) { return std::abs(r.airframe.root_chord_m - 0.28) < 1e-9; }},
           {"flying mass 2,1 kg", [](const Rig&, const Rig&r) { return std::abs(*r.airframe.mass_kg - 2.1) < 1e-9; }},
           {"dihedral 3 degrees", [](const Rig&, const Rig&r) { return r.airframe.dihedral_deg == 3; }},
           {"bare airframe 900 g", [](const Rig&, const Rig&r) { return std::abs(*r.fit.frame_mass_kg - 0.9) < 1e-9; }},
           {"move the battery 20 mm back",
            [](const Rig&b,
               const Rig&r) { return std::abs(r.mounting("battery")->x_m - b.mounting("battery")->x_m + 0.02) < 1e-9; }},
           {"slide the battery forward 1 cm",
            [](const Rig&b,
               const Rig&r) { return std::abs(r.mounting("battery")->x_m - b.mounting("battery")->x_m - 0.01) < 1e-9; }},
           {"move the gps 50 mm to the right",
            [](const Rig&b, const Rig&r) { return std::abs(r.mounting("gps")->y_m - b.mounting("gps")->y_m - 0.05) < 1e-9; }},
           {"move the board 10 mm up",
            [](const Rig&b,
               const Rig
                   &r) { return std::abs(r.mounting("controller")->z_m - b.mounting("controller")->z_m + 0.01) < 1e-9; }},
           // Left and right may name the part that moves.
           {"move the left flaperon servo 20 mm back",
            [](const Rig& b, const Rig& r) {
              return std::abs(r.mounting("servo_flaperon_left")->x_m - b.mounting("servo_flaperon_left")->x_m + 0.02) < 1e-9 &&
                     r.mounting("servo_flaperon_left")->y_m == b.mounting("servo_flaperon_left")->y_m;
            }},
           {"reverse the left flaperon",
            [](const Rig&b, const Rig&r) { return r.output("out_1")->reversed != b.output("out_1")->reversed; }},
           {"reverse output 3",
            [](const Rig&b, const Rig&r) { return r.output("out_3")->reversed != b.output("out_3")->reversed; }},
           {"add a satellite receiver with compass",
            [](const Rig&b,
               const Rig
                   &r) { return r.parts.back().kind == "satellite_compass" && r.parts.size() == b.parts.size() + 1; }},
           {"add 5 V 3 A regulator", [](const Rig&, const Rig&r) { return r.parts.back().kind == "regulator_5v_3a"; }},
           {"add two 9g servos", [](const Rig&b, const Rig&r) { return r.parts.size() == b.parts.size() + 2; }},
           {"mirror the video transmitter",
            [](const Rig& b, const Rig& r) {
              return r.parts.size() == b.parts.size() + 1 && r.mounting(r.parts.back().id)->y_m == -b.mounting("video")->y_m;
            }},
           {"another camera", [](const Rig& b, const Rig& r) { return r.parts.back().kind == b.part("camera")->kind; }},
           {"remove the buzzer", [](const Rig&, const Rig&r) { return !r.part("buzzer"); }},
           {"take the camera out", [](const Rig&, const Rig&r) { return !r.part("camera"); }}}) {
    const auto found = ask(rig, d.words);
    ASSERT_FALSE(found.empty()) << d.words;
    ASSERT_TRUE(found.front().edit) << d.words << ": " << found.front().text;
    EXPECT_TRUE(d.done(rig, found.front().edit->rig)) << d.words << ": " << found.front().text;
    EXPECT_FALSE(found.front().text.empty());
  }
}

TEST(Ask, ViewsAreFound) {
  const Rig rig = demo("hedgerow");
  for (const auto& [words, view] : {std::pair{"imperial", AskedView::imperial},
                                    {"show inches please", AskedView::imperial},
                                    {"metric", AskedView::metric},
                                    {"larger text", AskedView::larger},
                                    {"I can't read this, bigger letters", AskedView::larger},
                                    {"dark theme", AskedView::dark},
                                    {"theme for sunlight", AskedView::field},
                                    {"undo", AskedView::undo},
                                    {"save the rig", AskedView::save},
                                    {"begin a new aircraft", AskedView::begin},
                                    {"start the bench", AskedView::bench}}) {
    const auto found = ask(rig, words);
    ASSERT_FALSE(found.empty()) << words;
    EXPECT_EQ(found.front().view, view) << words << ": " << found.front().text;
  }
}

TEST(Ask, WhatCannotBeIsSaidAndWhatIsNoneIsNothing) {
  const Rig rig = demo("hedgerow");
  const auto far = ask(rig, "set span 500 m");
  ASSERT_FALSE(far.empty());
  EXPECT_FALSE(far.front().edit);
  EXPECT_NE(far.front().text.find("Not possible"), std::string::npos) << far.front().text;
  const auto heavy = ask(rig, "set span 2 kg");
  ASSERT_FALSE(heavy.empty());
  EXPECT_FALSE(heavy.front().edit) << heavy.front().text;
  for (const char* nothing : {"", "   ", "the of my", "bake a cake", "%s%n", "<b>x</b>"})
    EXPECT_TRUE(ask(rig, nothing).empty()) << nothing;
  EXPECT_TRUE(ask(rig, std::string(100000, 'x')).empty());
}

}  // namespace
}  // namespace rigging
