#include <gtest/gtest.h>

#include "ask/sentence.h"
#include "asked.h"

/// What builders say, and what they have to hear: the sentences were written before the code that answers them.
namespace rigging {
namespace {

struct Heard {
  const char* words;
  const char* says;  ///< part of the answer
};

TEST(Sentences, AQuestionInTheMiddleChangesNothing) {
  for (const char* name : {"hedgerow", "heath", "bramble", "delta"}) {
    const Rig rig = demo(name);
    for (const char* words :
         {"turn the nose left, which way does the rudder go", "if I flip it, which way goes the elevon",
          "which direction should the rudder move when I yaw the nose left"})
      for (const Interpretation& a : answers_to(rig, words)) EXPECT_FALSE(a.edit) << name << ": " << a.text;
  }
}

/// Yaw the nose left: the stabilizer fights it, so rudder and halves go as for right stick, partly to the right.
TEST(Sentences, ANoseThatIsYawedIsADisturbance) {
  const auto found = answers_to(demo("heath"), "which direction should the rudder move when I yaw the nose left");
  ASSERT_FALSE(found.empty());
  EXPECT_NE(found.front().text.find("Nose swung to the left"), std::string::npos) << found.front().text;
  EXPECT_NE(found.front().text.find("right"), std::string::npos) << found.front().text;
}

TEST(Sentences, ASwitchedDirectionIsNoExchangeOfLeads) {
  const auto found = answers_to(demo("heath"), "switch elevator direction");
  ASSERT_FALSE(found.empty());
  ASSERT_TRUE(found.front().edit) << found.front().text;
  EXPECT_TRUE(found.front().edit->rig.output_of({SurfaceKind::elevator, Side::single})->reversed !=
              demo("heath").output_of({SurfaceKind::elevator, Side::single})->reversed);
}

TEST(Sentences, AreNamedCarriedAndMovedAsTold) {
  const Rig rig = demo("heath");
  const auto named = answers_to(rig, "call it Long Magpie");
  ASSERT_TRUE(!named.empty() && named.front().edit);
  EXPECT_EQ(named.front().edit->rig.name, "Long Magpie");
  const auto moved = answers_to(rig, "put the battery 20 mm further back");
  ASSERT_TRUE(!moved.empty() && moved.front().edit) << (moved.empty() ? "" : moved.front().text);
  const auto carried = answers_to(rig, "can it lift a 200 g camera");
  ASSERT_FALSE(carried.empty());
  EXPECT_NE(carried.front().text.find("stalls"), std::string::npos) << carried.front().text;
}

/// A supposition is said to be one, and stands below what goes by the name; one wrong letter is said, too.
TEST(Sentences, WhatIsSupposedSaysSo) {
  const Rig rig = demo("heath");
  const auto near = answers_to(rig, "the spring winds make it jump about on short final");
  for (const Interpretation& a : near)
    if (a.text.starts_with("Perhaps: ")) EXPECT_TRUE(a.quoted);
  const auto spelled = answers_to(rig, "gps jmups");
  ASSERT_FALSE(spelled.empty());
  EXPECT_TRUE(spelled.front().text.starts_with("Read as ")) << spelled.front().text;
  EXPECT_TRUE(answers_to(rig, "bake a cake with cherries").empty());
}

/// What holds a word of a topic and is about something else is supposed at most; what denies is not what affirms.
TEST(Sentences, AWordOfATopicIsNotTheTopic) {
  const Rig rig = demo("hedgerow");
  for (const Interpretation& a : answers_to(rig, "rename switch SA to arming"))
    EXPECT_TRUE(a.text.starts_with("Perhaps: ")) << a.text;
  const auto runs = answers_to(rig, "the motor won't stop");
  ASSERT_FALSE(runs.empty());
  EXPECT_TRUE(runs.front().text.starts_with("Hands and face out of the propeller's plane")) << runs.front().text;
  for (const Interpretation& a : answers_to(rig, "why can't I press ready"))
    EXPECT_NE(a.view, AskedView::larger) << a.text;
  // Beside what is sure nothing is supposed.
  for (const Interpretation& a : answers_to(rig, "how much current does the servo rail take"))
    EXPECT_FALSE(a.text.starts_with("Perhaps: ")) << a.text;
}

/// A topic that tells and says gives both, the sentence and its number.
TEST(Topics, TellAndSayTheirNumber) {
  const auto found = answers_to(demo("hedgerow"), "my esc is hot");
  ASSERT_FALSE(found.empty());
  EXPECT_NE(found.front().text.find("smaller propeller"), std::string::npos) << found.front().text;
  EXPECT_NE(found.front().text.find(" A"), std::string::npos) << found.front().text;
}

TEST(Sentences, AreAnsweredWithWhatIsSo) {
  const Rig rig = demo("hedgerow");
  for (const Heard& h : std::initializer_list<Heard>{{"why is my receiver dark on USB", "no fault"},
                                                     {"what is expo", "softly about its middle"},
                                                     {"what is left to do", "checks are left"},
                                                     {"show me lead 7", "Lead 7: "},
                                                     {"my transmitter is mode 2", "throttle and yaw on the left stick"},
                                                     {"what prop should I use", "Propeller"},
                                                     {"what happens when I lose the link", "comes home at 60 m"},
                                                     {"it climbs when I open the throttle", "thrust line"},
                                                     {"one servo jitters", "exchange its lead"},
                                                     {"it wags its tail", "yaw"},
                                                     {"the motor stutters", "motor leads"},
                                                     {"what does stale mean", "changed since"},
                                                     {"I crashed it", "direction checks"},
                                                     {"how heavy is it", "1920 g"},
                                                     {"what is a brown-out", "starts anew"},
                                                     {"will the controller brown out", "Margin to a restart"},
                                                     {"explain static margin", "distance from the balance point"},
                                                     {"what is my static margin", "12 %"},
                                                     {"what's a BEC", "Regulator: "},
                                                     {"difference between rate mode and level mode", "Level mode: "},
                                                     {"what is the span", "1800 mm"},
                                                     {"how many servos are there", "4 servos"},
                                                     {"which propeller is on it", "9 × 6"},
                                                     {"where does the battery have to go", "behind the nose"},
                                                     {"which socket is the elevator in", "OUT 3"},
                                                     {"what is plugged into output 3", "inverted V-tail"},
                                                     {"what does the mode switch do", "manual"},
                                                     {"which channel is the flight mode switch on", "channel 5"},
                                                     {"how far down does the elevator go", "for full pitch"},
                                                     {"when does it turn home by itself", "15 V"},
                                                     {"how high does it come home", "60 m"},
                                                     {"how many amps do the servos pull when stalled", "stalled"},
                                                     {"what are the first gains", "For the first flight"},
                                                     {"which lead is longest", "900 mm"},
                                                     {"how much does the battery weigh", "by its kind"},
                                                     {"the compass points the wrong way", "compass"},
                                                     {"how fast can it go", "fastest level flight"},
                                                     {"the lamp keeps blinking", "Signs of this class"}}) {
    const auto found = answers_to(rig, h.words);
    ASSERT_FALSE(found.empty()) << h.words;
    EXPECT_NE(found.front().text.find(h.says), std::string::npos) << h.words << ": " << found.front().text;
    EXPECT_FALSE(found.front().edit) << h.words;
  }
}

struct Wanted {
  const char* words;
  bool (*done)(const Rig& before, const Rig& after);
};

TEST(Sentences, DoWhatTheySay) {
  const Rig rig = demo("hedgerow");
  const auto kind = [](const Rig& r, const char* part) { return shipped().part(r.part(part)->kind); };
  static const auto battery = [](const Rig& r) { return *shipped().part(r.part("battery")->kind)->battery; };
  EXPECT_TRUE(kind(rig, "battery"));
  for (const Wanted& w : std::initializer_list<Wanted>{
           {"use a 3S battery", [](const Rig&, const Rig&r) { return battery(r).cells == 3; }},
           {"turn the roll gain down to 6",
            [](const Rig&, const Rig&r) { return std::abs(*r.feel.gain(Axis::roll)->rate - 0.06) < 1e-9; }},
           {"set the return height to 80 m", [](const Rig&, const Rig&r) { return *r.home.return_height_m == 80; }},
           {"return at 70 metres", [](const Rig&, const Rig&r) { return *r.home.return_height_m == 70; }},
           {"swap outputs 3 and 4",
            [](const Rig&b, const Rig&r) {
              return r.output("out_3")->socket == b.output("out_4")->socket &&
                     r.output("out_4")->socket == b.output("out_3")->socket;
            }},
           {"swap the left and right aileron",
            [](const Rig&b, const Rig&r) { return r.output("out_1")->socket == b.output("out_2")->socket; }},
           {"more differential",
            [](const Rig&, const Rig&r) { return std::abs(r.output("out_1")->mix.roll_differential) > 0.09; }},
           {"put the receiver in the wing", [](const Rig&, const Rig&r) { return r.mounting("receiver")->y_m > 0.1; }},
           {"the battery weighs 210 g", [](const Rig&, const Rig&r) { return r.part("battery")->mass_kg == 0.21; }},
           {"reverse the left aileron",
            [](const Rig&b, const Rig&r) { return r.output("out_1")->reversed != b.output("out_1")->reversed; }},
           {"the motor is 95 g", [](const Rig&, const Rig&r) { return r.part("motor")->mass_kg == 0.095; }},
           {"make the reserve 25 percent", [](const Rig&, const Rig&r) { return r.power.reserve_share == 0.25; }},
           {"it weighs 1.4 kg", [](const Rig&, const Rig&r) { return r.airframe.mass_kg == 1.4; }},
           {"make it a tractor",
            [](const Rig&, const Rig&r) { return r.airframe.propeller == PropellerSide::tractor; }},
           {"warn at 3.5 V per cell", [](const Rig&, const Rig&r) { return *r.home.turn_home_v == 14; }},
           {"I have 12 channels", [](const Rig&, const Rig&r) { return r.radio.transmitter.channels == 12; }},
           {"the span is 1.4 m not 1.2", [](const Rig&, const Rig&r) { return r.airframe.span_m == 1.4; }},
           {"turn the board upside down", [](const Rig&, const Rig&r) {
              return r.mounting("controller")->turn.top == SignedAxis{2, 1};
            }}}) {
    const auto found = answers_to(rig, w.words);
    ASSERT_FALSE(found.empty()) << w.words;
    ASSERT_TRUE(found.front().edit) << w.words << ": " << found.front().text;
    EXPECT_TRUE(w.done(rig, found.front().edit->rig)) << w.words << ": " << found.front().text;
  }
}

/// By so much, from where it stands.
TEST(Sentences, CountFromWhatIs) {
  const Rig rig = demo("hedgerow");
  const auto done = [&](const char* words) {
    const auto found = answers_to(rig, words);
    EXPECT_TRUE(!found.empty() && found.front().edit) << words;
    return !found.empty() && found.front().edit ? found.front().edit->rig : rig;
  };
  const auto kind = [](const Rig& r) { return *shipped().part(r.part("battery")->kind); };
  EXPECT_NEAR(*done("make it 100 g heavier").airframe.mass_kg, *rig.airframe.mass_kg + 0.1, 1e-9);
  EXPECT_NEAR(*done("the battery is 30 g lighter").part("battery")->mass_kg, *kind(rig).mass_kg - 0.03, 1e-9);
  EXPECT_EQ(kind(done("use one cell less")).battery->cells, kind(rig).battery->cells - 1);
  EXPECT_EQ(*done("set the home altitude to 85 m").home.return_height_m, 85);
  EXPECT_EQ(done("change the name to Long Magpie").name, "Long Magpie");
  const auto arrow = [&](const char* words) { return done(words).mounting("controller")->turn.arrow; };
  EXPECT_EQ(arrow("rotate the board 90 degrees to the right"), (SignedAxis{1, 1}));
  EXPECT_EQ(arrow("turn the board 90 degrees left"), (SignedAxis{1, -1}));
  EXPECT_EQ(arrow("turn the board 180 degrees"), (SignedAxis{0, -1}));
  EXPECT_EQ(arrow("turn the board round by 180 degrees"), (SignedAxis{0, -1})) << "once, not twice";
  EXPECT_EQ(done("change the airframe to flying wing").airframe.kind, AirframeKind::flying_wing);
}

// What can't be done as it was said is refused, not silently done otherwise.
TEST(Sentences, NothingSaidBecomesSomethingElse) {
  Rig rig = demo("hedgerow");
  for (const char* words :
       {"4S 3000 mAh battery", "set capacity to 3000 mAh", "use a 7S battery", "less differential",
        "lower the roll gain a bit", "raise the pitch gain by 10 %", "rotate the board by 45 degrees",
        "rotate the board by 90 degrees", "set the return height to 90 km", "show me lead 400"}) {
    const auto found = answers_to(rig, words);
    ASSERT_FALSE(found.empty()) << words;
    EXPECT_FALSE(found.front().edit) << words << ": " << found.front().text;
  }
  // What a closed throttle does is not what an open one does; a slow servo is no stall.
  for (const auto& [words, not_this] :
       {std::pair{"it dives when I close the throttle", "opens"}, {"the servo is too slow", "Stall"}})
    for (const Interpretation& a : answers_to(rig, words))
      EXPECT_EQ(a.text.find(not_this), std::string::npos) << words << ": " << a.text;
  const auto nearest = answers_to(rig, "set capacity to 3000 mAh");
  EXPECT_NE(nearest.front().text.find("four cells"), std::string::npos) << nearest.front().text;
  rig.feel.made_gain(Axis::roll).rate = 0.04;
  const auto up = answers_to(rig, "turn the roll gain down to 6");
  EXPECT_FALSE(up.front().edit) << up.front().text;
  // A question changes nothing, whatever it speaks of.
  for (const char* words : {"should I turn the roll gain down to 6", "is 30 % differential too much",
                            "what if the link is lost and I circle", "how do I swap outputs 3 and 4 back"})
    for (const Interpretation& a : answers_to(rig, words)) EXPECT_FALSE(a.edit) << words << ": " << a.text;
  ASSERT_FALSE(answers_to(rig, "could you swap outputs 3 and 4").empty());
  EXPECT_TRUE(answers_to(rig, "could you swap outputs 3 and 4").front().edit);
}

/// What each surface does for a command, by the conventions of the trade (common practice): right roll, the right
/// trailing edge up; nose up, elevators up and a canard down; right yaw, a rudder right, of an upright V the right half
/// down, of an inverted one up.
int by_the_trade(Surface s, Axis axis) {
  const int side = s.side == Side::right ? 1 : s.side == Side::left ? -1 : 0;
  const bool v = s.kind == SurfaceKind::vtail || s.kind == SurfaceKind::inverted_v;
  if (axis == Axis::roll) return s.kind == SurfaceKind::rudder ? 1 : v ? 0 : side;
  if (axis == Axis::pitch) return s.kind == SurfaceKind::canard ? -1 : s.kind == SurfaceKind::rudder ? 0 : 1;
  if (s.kind == SurfaceKind::rudder) return 1;
  return s.kind == SurfaceKind::vtail ? -side : s.kind == SurfaceKind::inverted_v ? side : 0;
}

// On every kind of airframe, in both senses, by stick and by disturbance.
TEST(Sentences, WhichWayItGoesIsRightOnEveryKind) {
  struct Case {
    const char* words;
    Axis axis;
    int command;  ///< what the surfaces should answer like
  };
  int seen = 0;
  for (const auto& [kind, word] : Names<AirframeKind>::list) {
    const Rig rig = fresh_at_1200_g("full_controller", kind);
    for (const Case& c :
         std::initializer_list<Case>{{"which way do the surfaces go when I push the roll stick right", Axis::roll, 1},
                                     {"which way does everything go with the roll stick left", Axis::roll, -1},
                                     {"which way should they go when I pull back", Axis::pitch, 1},
                                     {"which way should they go when I push forward", Axis::pitch, -1},
                                     {"which way on right yaw stick", Axis::yaw, 1},
                                     {"what should happen when I lift the left wing", Axis::roll, -1},
                                     {"what should happen when I tilt it left", Axis::roll, 1},
                                     {"what should the tail do when I lift the nose", Axis::pitch, -1},
                                     {"what should happen when the nose drops", Axis::pitch, 1},
                                     {"what should happen when I swing the nose left", Axis::yaw, 1}}) {
      const auto found = answers_to(rig, c.words);
      ASSERT_FALSE(found.empty()) << word << ": " << c.words;
      const std::string& text = found.front().text;
      for (const Output& o : rig.outputs)
        for (const Surface s : o.surfaces) {
          if (s.kind == SurfaceKind::motor) continue;
          const std::size_t at = text.find(s.label() + " trailing");
          const std::size_t capital_at = text.find(": " + s.label() + " trailing");
          const std::size_t place = capital_at != std::string::npos ? capital_at + 2 : at;
          if (place == std::string::npos) continue;
          const int expected = by_the_trade(s, c.axis) * c.command;
          if (expected == 0) continue;
          ++seen;
          EXPECT_EQ(text.compare(place, s.label().size() + 1 + motion_label(s, expected).size(),
                                 s.label() + " " + motion_label(s, expected)),
                    0)
              << word << ": " << c.words << ": " << text << ", expected " << motion_label(s, expected);
        }
    }
  }
  EXPECT_GT(seen, 150);
}

// On a first rig nothing is weighed: the parts alone are not the aircraft, and a guess is called one.
TEST(Sentences, AFirstRigIsNotAnsweredAsIfItWereWeighed) {
  Rig rig = fresh_at_1200_g("full_controller");
  rig.airframe.guessed.emplace_back("mass_kg");
  for (const char* words : {"how heavy is it", "how much does it weigh"}) {
    const auto found = answers_to(rig, words);
    ASSERT_FALSE(found.empty());
    EXPECT_NE(found.front().text.find("a guess"), std::string::npos) << found.front().text;
    EXPECT_NE(found.front().text.find("bare airframe is still to be weighed"), std::string::npos);
  }
  // One word of "thrust to weight" does not ask for it.
  for (const char* words : {"how heavy is it", "weight"})
    EXPECT_EQ(answers_to(demo("hedgerow"), words).front().text.find("Thrust"), std::string::npos) << words;
  const Rig glider = fresh_at_1200_g("full_controller", AirframeKind::towed_glider);
  EXPECT_NE(answers_to(glider, "what prop should I use").front().text.find("no propeller"), std::string::npos);
  for (const Interpretation& a : answers_to(glider, "make it a pusher")) EXPECT_FALSE(a.edit) << a.text;
}

TEST(Sentences, OneSpellingForWhatGoesByManyNames) {
  EXPECT_EQ(meant_words("the speed controllers"), meant_words("ESC"));
  EXPECT_EQ(meant_words("my lipo packs"), (std::vector<std::string>{"battery", "battery"}));
  EXPECT_EQ(meant_words("centre of gravity"), meant_words("CG"));
  EXPECT_NE(meant_words("video transmitter"), meant_words("transmitter"));
  EXPECT_EQ(meant_words("which way does it come home"), (std::vector<std::string>{"way", "return"}));
}

TEST(Terms, OfAChapter) {
  const auto terms =
      terms_of("# Head\n- **one**: first.\n- **two**, **2**, **II**: second: more\n- no term\n- **open: x\n");
  ASSERT_EQ(terms.size(), 2u);
  EXPECT_EQ(terms[0].words, std::vector<std::string>{"one"});
  EXPECT_EQ(terms[0].meaning, "first.");
  EXPECT_EQ(terms[1].words, (std::vector<std::string>{"two", "2", "II"}));
  EXPECT_EQ(terms[1].meaning, "second: more");
  EXPECT_TRUE(terms_beside("/nonexistent").empty());
}

// Written before the answers were looked at; what the first one says.
TEST(Sentences, MoreComplaintsAndDeedsAreUnderstood) {
  const Rig rig = demo("hedgerow");
  const std::pair<const char*, const char*> said[] = {
      {"how much wind can it take", "It cruises at"},
      {"what does the red wire do", "servo lead is plus"},
      {"the left aileron is stuck", "Battery out, and move it by hand"},
      {"the gps jumps about", "The position jumps"},
      {"the battery comes down hot", "more current than it can"},
      {"my servo is too slow", "slow servo makes the loop shake"},
      {"the controller does not connect", "a cable that carries data"},
      {"the motor vibrates", "balance it"},
      {"it needs up elevator all the time", "balanced too far forward"},
      {"how do I bind", "a metre or so apart"},
      {"my elevator is too sensitive", "less throw by the holes"},
      {"how long should the servo arm be", "The hole follows from the throw"},
      {"what does provisional mean", "board loose on the bench"},
      {"why does it say not ready", "Not ready"},
      {"how long can I stay up", "Endurance at cruise"},
      {"what is the aspect ratio", "Aspect ratio"},
      {"set the bank limit to 40 degrees", "bank limit: 40"},
      {"turn the board around", "arrow to the tail"},
      {"direct stick 60 % on roll", "direct stick: 60 %"},
      {"make it a tractor", "It is a tractor"}};
  for (const auto& [sentence, says] : said) {
    const auto found = answers_to(rig, sentence);
    ASSERT_FALSE(found.empty()) << sentence;
    EXPECT_NE(found.front().text.find(says), std::string::npos) << sentence << ": " << found.front().text;
  }
}

}  // namespace
}  // namespace rigging
