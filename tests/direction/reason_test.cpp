#include "direction/reason.h"
#include "base/json.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <random>

#include "brute_force.h"
#include "direction/world.h"

namespace rigging::direction {
namespace {

Case read(const char* text) {
  const auto json = parse_json(text, "case");
  EXPECT_TRUE(json) << json.error().text();
  const auto c = case_from_json(*json, "case");
  EXPECT_TRUE(c) << c.error().text();
  return *c;
}

std::string only_fault(const Diagnosis& answer, const Case& c) {
  if (answer.explanations.size() != 1) return std::to_string(answer.explanations.size()) + " explanations";
  std::string text;
  for (const Fault& f : answer.explanations[0].faults) text += fault_to_json(f, c).dump();
  return text;
}

constexpr const char* elevons = R"("outputs":[
  {"id":"out_1","surface":"elevon_left","mix":{"roll":0.5,"pitch":0.5},"reversed":false},
  {"id":"out_2","surface":"elevon_right","mix":{"roll":0.5,"pitch":0.5},"reversed":false}])";

// The example of the command's format: the left elevon's roll weight has the same sign as the right one's, so one of
// the two is wrong, and the stick shows which.
TEST(Reason, NamesTheMixSignOfTheExample) {
  const Case c = read((std::string("{") + elevons + R"(,"observations":[
    {"do":"stick","axis":"roll","sense":"right","mode":"manual","saw":{"elevon_left":"up","elevon_right":"up"}},
    {"do":"stick","axis":"pitch","sense":"up","mode":"manual","saw":{"elevon_left":"up","elevon_right":"up"}}]})")
                          .c_str());
  const Diagnosis answer = reason(c);
  EXPECT_TRUE(answer.settled);
  EXPECT_FALSE(answer.equivalent);
  EXPECT_EQ(only_fault(answer, c), R"({"axis":"roll","kind":"mix_sign_wrong","output":"out_1"})");
}

struct FourOutcomes : testing::Test {
  Case with(const char* stick, const char* tilt, const char* channel) {
    return read((std::string(R"({"outputs":[{"id":"e","surface":"elevator","mix":{"pitch":1}}],
      "can":["reverse_output","flip_gyro","reverse_transmitter"],"observations":[
      {"do":"stick","axis":"pitch","sense":"up","mode":"manual","saw":{"elevator":")") +
                 stick + R"("},"channels":{"pitch":")" + channel + R"("}},
      {"do":"tilt","axis":"pitch","sense":"up","mode":"rate","saw":{"elevator":")" +
                 tilt + R"("}}]})")
                    .c_str());
  }
};

// Common practice: the four outcomes for an axis.
TEST_F(FourOutcomes, BothRight) {
  const Case c = with("up", "down", "rises");
  EXPECT_EQ(only_fault(reason(c), c), "");
}
TEST_F(FourOutcomes, BothWrongIsTheOutput) {
  const Case c = with("down", "up", "rises");
  EXPECT_EQ(only_fault(reason(c), c), R"({"kind":"output_reversed","output":"e"})");
}
TEST_F(FourOutcomes, OnlyTheCorrectionWrongIsTheSensing) {
  const Case c = with("up", "up", "rises");
  EXPECT_EQ(only_fault(reason(c), c), R"({"axis":"pitch","kind":"gyro_reversed"})");
}
TEST_F(FourOutcomes, OrServoAndTransmitterBothWhenTheChannelSaysSo) {
  const Case c = with("up", "up", "falls");
  EXPECT_EQ(only_fault(reason(c), c),
            R"({"kind":"output_reversed","output":"e"}{"axis":"pitch","kind":"transmitter_reversed"})");
}
TEST_F(FourOutcomes, OnlyTheStickWrongIsTheTransmitter) {
  const Case c = with("down", "down", "falls");
  EXPECT_EQ(only_fault(reason(c), c), R"({"axis":"pitch","kind":"transmitter_reversed"})");
}

// Common practice: where functions are reversed and no single output, a pair that is wrong in stick and correction is
// one reversed function, on every output that carries it; leads are suspected until the eyes have followed them.
TEST(Reason, AFunctionIsReversedOnAllItsOutputs) {
  const std::string text = R"({"outputs":[{"id":"l","surface":"aileron_left","mix":{"roll":-1}},
      {"id":"r","surface":"aileron_right","mix":{"roll":1}},{"id":"e","surface":"elevator","mix":{"pitch":1}}],
      "can":["reverse_function","swap_leads","check_output","move_linkage","reverse_transmitter"],
      "may_ask":["stick","tilt"],"observations":[
      {"do":"stick","axis":"roll","sense":"right","mode":"manual","saw":{"aileron_left":"up","aileron_right":"down"}},
      {"do":"stick","axis":"pitch","sense":"up","mode":"manual","saw":{"elevator":"up"}},
      {"do":"tilt","axis":"roll","sense":"right","mode":"rate","saw":{"aileron_left":"down","aileron_right":"up"}})";
  const Case open = read((text + "]}").c_str());
  const Diagnosis before = reason(open);
  ASSERT_EQ(before.explanations.size(), 2u);
  EXPECT_EQ(fault_to_json(before.explanations[0].faults[0], open).dump(),
            R"({"axis":"roll","kind":"function_reversed"})");
  EXPECT_EQ(remedy_to_json(before.explanations[0].faults[0], open).dump(),
            R"({"axis":"roll","do":"reverse_function"})");
  EXPECT_EQ(before.explanations[1].faults[0].kind, FaultKind::leads_swapped);
  EXPECT_TRUE(before.equivalent) << "neither stick nor tilt tells exchanged leads from it";
  const Case looked = read((text + R"(,{"do":"inspect","outputs":["l","r"],"found":"as_planned"}]})").c_str());
  const Diagnosis after = reason(looked);
  EXPECT_TRUE(after.settled);
  EXPECT_FALSE(after.equivalent);
  EXPECT_EQ(only_fault(after, looked), R"({"axis":"roll","kind":"function_reversed"})");
  EXPECT_EQ(observation_to_json(looked.observations.back(), looked).dump(),
            R"({"do":"inspect","found":"as_planned","outputs":["l","r"]})");
}

// Common practice: a pair that is wrong in stick and correction has its function turned round; leads are named alone
// once one output driven alone, or eyes, say so.
TEST(Reason, OfAPairTheFunctionStandsBeforeItsLeads) {
  const std::string ailerons = R"({"outputs":[{"id":"l","surface":"aileron_left","mix":{"roll":-1}},
      {"id":"r","surface":"aileron_right","mix":{"roll":1}}],"can":["reverse_output","swap_leads"],"observations":[
      {"do":"stick","axis":"roll","sense":"right","mode":"manual","saw":{"aileron_left":"up","aileron_right":"down"}},
      {"do":"tilt","axis":"roll","sense":"right","mode":"rate","saw":{"aileron_left":"down","aileron_right":"up"}})";
  const Case open = read((ailerons + "]}").c_str());
  const Diagnosis first = reason(open);
  ASSERT_EQ(first.explanations.size(), 2u);
  ASSERT_EQ(first.explanations[0].faults.size(), 2u);
  for (const Fault& f : first.explanations[0].faults) EXPECT_EQ(f.kind, FaultKind::output_reversed);
  EXPECT_EQ(first.explanations[1].faults[0].kind, FaultKind::leads_swapped);
  EXPECT_FALSE(first.settled);
  ASSERT_TRUE(first.next);
  EXPECT_EQ(first.next->observation.act, Act::drive);
  const Case other =
      read((ailerons +
            R"(,{"do":"drive","output":"l","pulse":"rises","saw":{"aileron_left":"still","aileron_right":"up"}}]})")
               .c_str());
  const Diagnosis exchanged = reason(other);
  EXPECT_TRUE(exchanged.settled);
  ASSERT_EQ(exchanged.explanations.size(), 1u);
  EXPECT_EQ(exchanged.explanations[0].faults[0].kind, FaultKind::leads_swapped);
  const Case own =
      read((ailerons +
            R"(,{"do":"drive","output":"l","pulse":"rises","saw":{"aileron_left":"down","aileron_right":"still"}}]})")
               .c_str());
  const Diagnosis reversed = reason(own);
  EXPECT_TRUE(reversed.settled);
  ASSERT_EQ(reversed.explanations.size(), 1u);
  for (const Fault& f : reversed.explanations[0].faults) EXPECT_EQ(f.kind, FaultKind::output_reversed);
}

// Elevons with roll alone wrong, and a mix that agrees with the sign table: two reversals would turn pitch round as
// well, so the leads remain; on a class that reverses functions the function stands first.
TEST(Reason, OfElevonsTwoReversalsDoNotExplainOneCommand) {
  const std::string text = R"({"outputs":[
      {"id":"l","surface":"elevon_left","mix":{"roll":-0.5,"pitch":0.5}},
      {"id":"r","surface":"elevon_right","mix":{"roll":0.5,"pitch":0.5}}],"may_ask":["stick","tilt"],"observations":[
      {"do":"stick","axis":"roll","sense":"right","mode":"manual","saw":{"elevon_left":"up","elevon_right":"down"}},
      {"do":"stick","axis":"pitch","sense":"up","mode":"manual","saw":{"elevon_left":"up","elevon_right":"up"}},
      {"do":"tilt","axis":"roll","sense":"right","mode":"rate","saw":{"elevon_left":"down","elevon_right":"up"}},
      {"do":"tilt","axis":"pitch","sense":"up","mode":"rate","saw":{"elevon_left":"down","elevon_right":"down"}}],"can":)";
  const Diagnosis leads = reason(read((text + R"(["reverse_output","flip_mix","swap_leads"]})").c_str()));
  ASSERT_EQ(leads.explanations.size(), 1u);
  EXPECT_EQ(leads.explanations[0].faults[0].kind, FaultKind::leads_swapped);
}

TEST(Reason, ADisagreementWithTheEyesIsNamed) {
  const Case c = read(R"({"outputs":[{"id":"l","surface":"aileron_left","mix":{"roll":-1}},
      {"id":"r","surface":"aileron_right","mix":{"roll":1}}],"can":["swap_leads"],"observations":[
      {"do":"drive","output":"l","pulse":"rises","saw":{"aileron_left":"still","aileron_right":"up"}},
      {"do":"inspect","outputs":["l"],"found":"as_planned"}]})");
  const Diagnosis answer = reason(c);
  EXPECT_TRUE(answer.explanations.empty());
  EXPECT_EQ(answer.contradictions, (std::vector<int>{0, 1}));
}

TEST(Reason, InspectIsReadStrictly) {
  const auto refused = [](const char* observation) {
    const auto json = parse_json(std::string(R"({"outputs":[{"id":"e","surface":"elevator","mix":{"pitch":1}}],
      "observations":[)") + observation +
                                     "]}",
                                 "case");
    EXPECT_TRUE(json) << observation;
    return json && !case_from_json(*json, "case");
  };
  EXPECT_TRUE(refused(R"({"do":"inspect","outputs":["e"]})"));
  EXPECT_TRUE(refused(R"({"do":"inspect","outputs":["e"],"found":"fine"})"));
  EXPECT_TRUE(refused(R"({"do":"inspect","outputs":["x"],"found":"as_planned"})"));
  EXPECT_TRUE(refused(R"({"do":"inspect","found":"as_planned"})"));
  EXPECT_TRUE(refused(R"({"do":"inspect","outputs":["e"],"found":"as_planned","saw":{"elevator":"up"}})"));
  EXPECT_TRUE(refused(R"({"do":"inspect","surfaces":["rudder"],"found":"as_planned"})"));
  EXPECT_TRUE(refused(R"({"do":"stick","axis":"pitch","sense":"up","found":"as_planned"})"));
  EXPECT_FALSE(
      refused(R"({"do":"inspect","outputs":["e"],"surfaces":["elevator"],"board":true,"found":"as_planned"})"));
}

// Common practice: a board that is turned and still right-handed reverses two axes, never one alone.
TEST(Reason, ATurnedBoardReversesTwoAxes) {
  for (const Turn& turn : all_turns()) {
    int determinant = 1;
    std::array<bool, 3> used{};
    int inversions = 0;
    std::vector<int> order;
    for (int axis = 0; axis < 3; ++axis) {
      const SignedAxis s = turn.sensed(axis);
      determinant *= s.sign;
      EXPECT_FALSE(used[static_cast<std::size_t>(s.axis)]);
      used[static_cast<std::size_t>(s.axis)] = true;
      for (const int before : order) inversions += before > s.axis;
      order.push_back(s.axis);
    }
    EXPECT_EQ(determinant * (inversions % 2 ? -1 : 1), 1) << turn.name();
    EXPECT_EQ(turn_from_name(turn.name()), turn);
  }
  EXPECT_EQ(all_turns().size(), 24u);
}

TEST(Reason, YLeadWithOneSideWrongAsksForTheLinkage) {
  const Case c =
      read(R"({"outputs":[{"id":"a","surfaces":["aileron_left","aileron_right"],"mix":{"roll":1}}],"observations":[
    {"do":"stick","axis":"roll","sense":"right","mode":"manual","saw":{"aileron_left":"up","aileron_right":"up"}}]})");
  const Diagnosis answer = reason(c);
  EXPECT_EQ(only_fault(answer, c), R"({"kind":"linkage_opposed","surface":"aileron_left"})");
}

TEST(Reason, EquivalentWhenNothingThatMayBeAskedTellsApart) {
  const Case c = read(
      R"({"outputs":[{"id":"e","surface":"elevator","mix":{"pitch":1}}],"can":["reverse_output","move_linkage"],"may_ask":["stick"],"observations":[
    {"do":"stick","axis":"pitch","sense":"up","mode":"manual","saw":{"elevator":"down"}}]})");
  const Diagnosis answer = reason(c);
  EXPECT_GT(answer.explanations.size(), 1u);
  EXPECT_TRUE(answer.settled);
  EXPECT_TRUE(answer.equivalent);
  EXPECT_FALSE(answer.next);
}

TEST(Reason, ContradictionNamesTheTwoThatDisagree) {
  const Case c = read(
      R"({"outputs":[{"id":"e","surface":"elevator","mix":{"pitch":1}},{"id":"r","surface":"rudder","mix":{"yaw":1}}],"observations":[
    {"do":"stick","axis":"yaw","sense":"right","mode":"manual","saw":{"rudder":"right"}},
    {"do":"stick","axis":"pitch","sense":"up","mode":"manual","saw":{"elevator":"up"}},
    {"do":"stick","axis":"pitch","sense":"down","mode":"manual","saw":{"elevator":"up"}}]})");
  const Diagnosis answer = reason(c);
  EXPECT_TRUE(answer.explanations.empty());
  EXPECT_FALSE(answer.settled);
  EXPECT_EQ(answer.contradictions, (std::vector<int>{1, 2}));
}

/// Random aircraft, faults and looks; some looks are spoiled.
class Draw {
 public:
  explicit Draw(unsigned seed) : random_(seed) {}
  int below(int n) { return static_cast<int>(random_() % static_cast<unsigned>(n)); }

  Case aircraft() {
    static const std::vector<std::vector<std::pair<std::vector<const char*>, std::array<double, 3>>>> kinds{
        {{{"elevon_left"}, {-.5, .5, 0}}, {{"elevon_right"}, {.5, .5, 0}}},
        {{{"aileron_left", "aileron_right"}, {1, 0, 0}}, {{"elevator"}, {0, 1, 0}}},
        {{{"vtail_left"}, {0, .5, .5}}, {{"vtail_right"}, {0, .5, -.5}}},
        {{{"inverted_v_left"}, {0, .5, -.5}}, {{"inverted_v_right"}, {0, .5, .5}}},
        {{{"rudder"}, {.6, 0, 1}}, {{"elevator"}, {0, 1, 0}}},
        {{{"motor_left"}, {0, 0, .3}}, {{"motor_right"}, {0, 0, -.3}}},
        {{{"taileron_left"}, {-.25, 1, 0}}, {{"taileron_right"}, {.25, 1, 0}}, {{"canard"}, {0, -1, 0}}},
        {{{"aileron_left"}, {-1, 0, 0}}, {{"aileron_right"}, {1, 0, 0}}, {{"rudder"}, {0, 0, 1}}}};
    Case c;
    int id = 0;
    for (const auto& [names, mix] : kinds[static_cast<std::size_t>(below(static_cast<int>(kinds.size())))]) {
      CaseOutput o;
      o.id = "out_" + std::to_string(++id);
      for (const char* name : names) o.surfaces.push_back(*surface_from_name(name));
      o.mix = mix;
      o.reversed = below(2);
      const int flip = below(4) == 0 ? -1 : 1;
      for (double& w : o.mix) w *= flip;
      c.outputs.push_back(o);
    }
    if (below(3) == 0)
      for (int r = 0; r < 9; ++r)
        if (below(4) == 0) c.can.remove(static_cast<Remedy>(r));
    // Classes that reverse functions reverse no single output; the reasoning must bear both at once.
    if (below(3) == 0) {
      c.can.add(Remedy::reverse_function);
      if (below(4) != 0) c.can.remove(Remedy::reverse_output);
      c.mix_is_plan = below(2) == 0;
    }
    return c;
  }

  std::vector<Fault> faults(const Case& c, int count) {
    const auto all = brute::possible_faults(c);
    std::vector<Fault> chosen;
    for (int i = 0; i < 60 && static_cast<int>(chosen.size()) < count && !all.empty(); ++i) {
      const Fault& f = all[static_cast<std::size_t>(below(static_cast<int>(all.size())))];
      const bool once = f.kind == FaultKind::board_turned || f.kind == FaultKind::transmitter_swapped;
      if (std::none_of(chosen.begin(), chosen.end(),
                       [&](const Fault& g) { return g == f || (once && g.kind == f.kind); }))
        chosen.push_back(f);
    }
    return chosen;
  }

  Observation look(const Case& c) {
    Observation o;
    o.act = static_cast<Act>(below(3));
    o.axis = static_cast<Axis>(below(3));
    o.sense = below(2) ? 1 : -1;
    o.mode = static_cast<Mode>(below(4));
    if (o.act == Act::drive) o.output = below(static_cast<int>(c.outputs.size()));
    return o;
  }

  /// The case's mix gets the wrong signs that the faults say, then looks are taken.
  Case seen(Case c, const std::vector<Fault>& faults, int looks, bool spoil) {
    for (const Fault& f : faults) {
      if (f.kind == FaultKind::mix_sign_wrong)
        c.outputs[static_cast<std::size_t>(f.output)].mix[static_cast<std::size_t>(f.axis)] *= -1;
      if (f.kind == FaultKind::function_reversed && !c.mix_is_plan)
        for (CaseOutput& o : c.outputs) o.mix[static_cast<std::size_t>(f.axis)] *= -1;
      if (f.kind == FaultKind::output_reversed) c.outputs[static_cast<std::size_t>(f.output)].reversed ^= true;
    }
    for (int i = 0; i < looks; ++i) {
      Observation o = look(c);
      if (!brute::show(c, faults, o)) continue;
      std::erase_if(o.saw, [&](const Seen&) { return below(3) == 0; });
      for (auto& channel : o.channels)
        if (below(2)) channel.reset();
      if (spoil && !o.saw.empty() && below(3) == 0) o.saw[0].motion = below(3) - 1;
      c.observations.push_back(o);
    }
    if (below(3) == 0) c.observations.push_back(inspected(c, faults));
    return c;
  }

  /// Eyes that follow what is as planned, and leave out the rest.
  Observation inspected(const Case& c, const std::vector<Fault>& faults) {
    Observation o;
    o.act = Act::inspect;
    o.board = below(2) == 0;
    for (std::size_t i = 0; i < c.outputs.size(); ++i) {
      const auto is = [&](const Fault& f) {
        return f.kind == FaultKind::leads_swapped &&
               (f.output == static_cast<int>(i) || f.other_output == static_cast<int>(i));
      };
      if (below(2) == 0 && std::none_of(faults.begin(), faults.end(), is)) o.leads.push_back(static_cast<int>(i));
      for (const Surface s : c.outputs[i].surfaces)
        if (below(2) == 0 && std::none_of(faults.begin(), faults.end(), [&](const Fault& f) {
              return f.kind == FaultKind::linkage_opposed && f.surface == s;
            }))
          o.horns.push_back(s);
    }
    for (const Fault& f : faults) o.board = o.board && f.kind != FaultKind::board_turned;
    return o;
  }

 private:
  std::mt19937 random_;
};

/// Of the fewest faults: a function that stands before the leads of its pair counts one more.
std::set<brute::Key> keys(const Diagnosis& answer, const Case& c) {
  std::set<brute::Key> all;
  std::size_t fewest = 99;
  for (const Explanation& e : answer.explanations) fewest = std::min(fewest, e.faults.size());
  for (const Explanation& e : answer.explanations) {
    if (e.faults.size() > fewest) {
      EXPECT_EQ(e.faults.size(), fewest + 1);
      EXPECT_TRUE(std::any_of(answer.explanations.begin(), answer.explanations.end(), [&](const Explanation& other) {
        return other.cost > e.cost && std::any_of(other.faults.begin(), other.faults.end(),
                                                  [](const Fault& f) { return f.kind == FaultKind::leads_swapped; });
      })) << explanation_text(e, c);
      continue;
    }
    EXPECT_TRUE(all.insert(brute::key_of(e.faults, c)).second) << "listed twice: " << explanation_text(e, c);
  }
  return all;
}

class Exactness : public testing::TestWithParam<int> {};

TEST_P(Exactness, FindsExactlyWhatTryingEverythingFinds) {
  Draw draw(static_cast<unsigned>(GetParam()));
  for (int round = 0; round < 12; ++round) {
    Case c = draw.aircraft();
    c = draw.seen(c, draw.faults(c, draw.below(4)), 1 + draw.below(7), draw.below(3) == 0);
    const Diagnosis answer = reason(c);
    Json json{{"observations", Json::array()}};
    for (const auto& o : c.observations) json["observations"].push_back(observation_to_json(o, c));
    // Three faults keep the slow reference within seconds; deeper answers only need to be deeper.
    const auto slow = brute::explain(c, 3);
    if (slow.empty()) {
      for (const Explanation& e : answer.explanations) EXPECT_EQ(e.faults.size(), 4u);
    } else {
      EXPECT_EQ(keys(answer, c), slow) << json.dump(1);
    }
    for (const Explanation& e : answer.explanations)
      for (const Observation& o : c.observations) {
        const auto outcome = predict(c, e.faults, o);
        ASSERT_TRUE(outcome);
        for (const Seen& s : o.saw)
          EXPECT_TRUE(std::any_of(outcome->saw.begin(), outcome->saw.end(),
                                  [&](const Seen& p) { return p.surface == s.surface && p.motion == s.motion; }));
      }
  }
}
INSTANTIATE_TEST_SUITE_P(Seeds, Exactness, testing::Range(1, 41));

TEST(Exactness, FourFaultsOnTwoOutputs) {
  Draw draw(77);
  int deep = 0;
  for (int round = 0; round < 400 && deep < 3; ++round) {
    Case c = draw.aircraft();
    if (c.outputs.size() > 2) continue;
    c = draw.seen(c, draw.faults(c, 4), 12, false);
    const Diagnosis answer = reason(c);
    if (answer.explanations.empty() || answer.explanations[0].faults.size() != 4) continue;
    ++deep;
    EXPECT_EQ(keys(answer, c), brute::explain(c, 4));
  }
  EXPECT_EQ(deep, 3);
}

TEST(Exactness, SmallestContradictionIsSmallest) {
  Draw draw(5);
  int contradictory = 0;
  for (int round = 0; round < 4000 && contradictory < 8; ++round) {
    Case c = draw.aircraft();
    c.can.remove(Remedy::turn_board);  // keeps the slow reference quick
    c.can.remove(Remedy::check_output);
    c = draw.seen(c, draw.faults(c, draw.below(2)), 5, true);
    const Diagnosis answer = reason(c);
    if (!answer.explanations.empty() || answer.contradictions.empty() || c.observations.size() > 5) continue;
    ++contradictory;
    std::size_t smallest = 99;
    for (unsigned bits = 1; bits < 1u << c.observations.size(); ++bits) {
      Case part = c;
      part.observations.clear();
      for (std::size_t i = 0; i < c.observations.size(); ++i)
        if (bits >> i & 1) part.observations.push_back(c.observations[i]);
      if (part.observations.size() < smallest && brute::explain(part, 4).empty()) smallest = part.observations.size();
    }
    EXPECT_EQ(answer.contradictions.size(), smallest);
    Case named = c;
    named.observations.clear();
    for (const int i : answer.contradictions) named.observations.push_back(c.observations[static_cast<std::size_t>(i)]);
    EXPECT_TRUE(brute::explain(named, 4).empty());
  }
  EXPECT_GE(contradictory, 4);
}

// Asking what is proposed, again and again, must end with the truth among the answers.
TEST(NextObservation, LeadsToTheTruthAndAlwaysSplits) {
  for (unsigned seed = 1; seed <= 60; ++seed) {
    Draw draw(seed);
    const Case start = draw.aircraft();
    const auto truth = draw.faults(start, 1 + draw.below(2));
    Case c = draw.seen(start, truth, 0, false);
    Observation probe;
    if (!brute::show(c, truth, probe)) continue;
    int asked = 0;
    for (Diagnosis answer = reason(c); answer.next || asked == 0; answer = reason(c)) {
      Observation o = answer.next ? answer.next->observation : probe;
      ASSERT_TRUE(brute::show(c, truth, o));
      if (o.act != Act::stick) o.channels = {};
      c.observations.push_back(o);
      ASSERT_LT(++asked, 20);
    }
    const Diagnosis last = reason(c);
    ASSERT_FALSE(last.explanations.empty());
    EXPECT_LE(last.explanations[0].faults.size(), truth.size());
  }
}

TEST(NextObservation, LeavesTheSmallestLargestGroup) {
  Draw draw(11);
  int asked = 0;
  for (int round = 0; round < 300; ++round) {
    Case c = draw.aircraft();
    c = draw.seen(c, draw.faults(c, 1 + draw.below(2)), 2, false);
    const Diagnosis answer = reason(c);
    if (!answer.next || answer.explanations.size() > 60) continue;
    ++asked;
    const auto largest = [&](Observation o) {
      std::map<std::string, int> groups;
      int most = 0;
      for (const Explanation& e : answer.explanations) {
        o.saw.clear();
        o.channels = {};
        EXPECT_TRUE(brute::show(c, e.faults, o));
        most = std::max(most, ++groups[observation_to_json(o, c).dump()]);
      }
      return most;
    };
    int least = 1 << 30;
    for (const Axis axis : all_axes)
      for (const Act act : {Act::stick, Act::tilt})
        for (const Mode mode : {Mode::rate, Mode::level, Mode::hold}) {
          Observation o;
          o.act = act;
          o.axis = axis;
          o.mode = mode;
          least = std::min(least, largest(o));
        }
    for (int k = 0; k < static_cast<int>(c.outputs.size()); ++k) {
      Observation o;
      o.act = Act::drive;
      o.output = k;
      least = std::min(least, largest(o));
    }
    EXPECT_EQ(largest(answer.next->observation), least);
  }
  EXPECT_GT(asked, 50);
}

struct BadCase {
  const char* text;
  const char* says;
};
void PrintTo(const BadCase& c, std::ostream* out) { *out << c.says; }
class Refused : public testing::TestWithParam<BadCase> {};
TEST_P(Refused, SaysWhereAndWhatWasExpected) {
  const auto json = parse_json(GetParam().text, "case.json");
  const auto c = json.and_then([](const Json& j) { return case_from_json(j, "case.json"); });
  ASSERT_FALSE(c);
  EXPECT_NE(c.error().text().find(GetParam().says), std::string::npos) << c.error().text();
  EXPECT_NE(c.error().text().find("case.json"), std::string::npos);
}
INSTANTIATE_TEST_SUITE_P(
    Cases, Refused,
    testing::Values(
        BadCase{"{", "case.json:1:2"}, BadCase{"[]", "an object"}, BadCase{R"({"outputs":[]})", "at least one output"},
        BadCase{R"({"outputs":[{"id":"a","surface":"elevator","mix":{"roll":1}}]})", "can't serve roll"},
        BadCase{R"({"outputs":[{"id":"a","surface":"aileron","mix":{"roll":1}}]})", "unknown surface"},
        BadCase{R"({"outputs":[{"id":"a","surface":"elevator","mix":{"pitch":"x"}}]})", "/outputs/0/mix/pitch"},
        BadCase{
            R"({"outputs":[{"id":"a","surface":"elevator","mix":{"pitch":1}},{"id":"a","surface":"rudder","mix":{"yaw":1}}]})",
            "used twice"},
        BadCase{R"({"outputs":[{"id":"a","surface":"elevator","mix":{"pitch":1}}],"can":["fly"]})",
                "unknown word \"fly\""},
        BadCase{
            R"({"outputs":[{"id":"a","surface":"elevator","mix":{"pitch":1}}],"observations":[{"do":"tilt","axis":"pitch","sense":"up"}]})",
            "\"mode\" is missing"},
        BadCase{
            R"({"outputs":[{"id":"a","surface":"elevator","mix":{"pitch":1}}],"observations":[{"do":"stick","axis":"pitch","sense":"right"}]})",
            "up or down"},
        BadCase{
            R"({"outputs":[{"id":"a","surface":"elevator","mix":{"pitch":1}}],"observations":[{"do":"stick","axis":"pitch","sense":"up","saw":{"elevator":"left"}}]})",
            "up, down or still"},
        BadCase{
            R"({"outputs":[{"id":"a","surface":"elevator","mix":{"pitch":1}}],"observations":[{"do":"drive","output":"b","pulse":"rises"}]})",
            "no output \"b\""},
        BadCase{R"({"outputs":[{"id":"a","id":"b","surface":"elevator","mix":{"pitch":1}}]})", "given twice"}));

}  // namespace
}  // namespace rigging::direction
