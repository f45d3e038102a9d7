#include <gtest/gtest.h>

#include <Eigen/Geometry>
#include <algorithm>
#include <numbers>
#include <random>

#include "base/json.h"
#include "direction/conflict.h"
#include "direction/evidence.h"
#include "direction/levelling.h"
#include "direction/reason.h"

namespace rigging::direction {
namespace {

Case read(const std::string& text) {
  const auto c = case_from_json(*parse_json(text, "case"), "case");
  EXPECT_TRUE(c) << c.error().text();
  return c ? *c : Case{};
}

const std::string elevator = R"("outputs":[{"id":"e","surface":"elevator","mix":{"pitch":1}}])";

TEST(Case, ObservationsGoThereAndBack) {
  const Case c = read("{" + elevator + R"(,"observations":[
    {"do":"stick","axis":"pitch","sense":"down","mode":"level","saw":{"elevator":"down"},"channels":{"pitch":"falls","yaw":"still"}},
    {"do":"drive","output":"e","pulse":"falls","saw":{"elevator":"still"}},
    {"do":"tilt","axis":"yaw","sense":"left","mode":"hold","saw":{}}]})");
  ASSERT_EQ(c.observations.size(), 3u);
  Json again = Json::array();
  for (const auto& o : c.observations) again.push_back(observation_to_json(o, c));
  const Case twice =
      read(Json{{"outputs", Json::parse("{" + elevator + "}")["outputs"]}, {"observations", again}}.dump());
  for (std::size_t i = 0; i < 3; ++i) EXPECT_EQ(observation_to_json(twice.observations[i], c), again[i]);
  EXPECT_EQ(c.observations[0].sense, -1);
  EXPECT_EQ(c.observations[0].channels[1], -1);
  EXPECT_FALSE(c.observations[0].channels[0]);
  EXPECT_EQ(observation_text(c.observations[1], c), "lower the pulse of output e alone");
}

TEST(Case, WhatMayBeAsked) {
  const auto questions = [](const std::string& may_ask) {
    return *read("{" + elevator + ",\"may_ask\":" + may_ask + "}").may_ask;
  };
  EXPECT_TRUE(questions("[]").empty());
  for (const Question& q : questions(R"(["channels"])"))
    EXPECT_TRUE(q.channels && !q.surfaces && q.observation.act == Act::stick);
  for (const Question& q : questions(R"(["stick"])")) EXPECT_TRUE(q.channels && q.surfaces);
  for (const Question& q : questions(R"(["drive"])")) EXPECT_TRUE(q.observation.act == Act::drive && q.surfaces);
  EXPECT_EQ(questions(R"(["tilt"])").size(), 6u) << "rate and level on three axes";
  const auto listed = questions(
      R"([{"do":"stick","axis":"pitch","sense":"up","channels":{}},{"do":"tilt","axis":"roll","sense":"left","mode":"hold"}])");
  ASSERT_EQ(listed.size(), 2u);
  EXPECT_TRUE(listed[0].channels && !listed[0].surfaces);
  EXPECT_TRUE(listed[1].surfaces && listed[1].observation.sense == -1);
}

TEST(Case, RemediesMirrorFaultsInJson) {
  const Case c = read(
      R"({"outputs":[{"id":"a","surface":"aileron_left","mix":{"roll":-1}},{"id":"b","surface":"aileron_right","mix":{"roll":1}}]})");
  Fault f;
  f.output = 0;
  f.other_output = 1;
  f.axis = Axis::roll;
  f.other_axis = Axis::yaw;
  f.surface = c.outputs[0].surfaces[0];
  f.turn = *turn_from_name("arrow_up_top_tail");
  const std::vector<std::pair<FaultKind, const char*>> expected{
      {FaultKind::leads_swapped, R"({"do":"swap_leads","outputs":["a","b"]})"},
      {FaultKind::transmitter_swapped, R"({"axes":["roll","yaw"],"do":"swap_transmitter"})"},
      {FaultKind::board_turned, R"({"do":"turn_board","rotation":"arrow_up_top_tail"})"},
      {FaultKind::linkage_opposed, R"({"do":"move_linkage","surface":"aileron_left"})"},
      {FaultKind::output_dead, R"({"do":"check_output","output":"a"})"},
      {FaultKind::gyro_reversed, R"({"axis":"roll","do":"flip_gyro"})"}};
  for (const auto& [kind, json] : expected) {
    f.kind = kind;
    EXPECT_EQ(remedy_to_json(f, c).dump(), json);
    EXPECT_EQ(fault_to_json(f, c)["kind"], name_of(kind));
    EXPECT_FALSE(fault_text(f, c).empty() || remedy_text(f, c).empty());
  }
}

TEST(Evidence, StatesAreCountedOnce) {
  EXPECT_EQ(transmitter_states(Abilities::all()).size(), 32u);
  Case c;
  const auto sensing = sensing_states(c);
  EXPECT_EQ(sensing.size(), 24u * 8u);
  int classes = 0;
  for (const auto& s : sensing) classes = std::max(classes, s.routing_class + 1);
  EXPECT_EQ(classes, 48) << "signed permutations of three axes";
  // By gravity four turns find "down" and share the classes of their routings; the other twenty are each their own.
  classes = 0;
  c.levels_by_gravity = true;
  for (const auto& s : sensing_states(c)) classes = std::max(classes, s.routing_class + 1);
  EXPECT_EQ(classes, 16 + 20 * 8);
  EXPECT_EQ(transmitter_states({}).size(), 1u);
  c.either_face = true;
  EXPECT_EQ(sensing_states(c).size(), 20u * 8u) << "four turns have the other face up and behave alike";
  c.can = {};
  EXPECT_EQ(sensing_states(c).size(), 1u);
}

// Down as rotation matrices of real angles make it, bank and pitch as flight mechanics defines them (Euler angles of
// ISO 1151-1), against the signs that the reasoning goes by.
TEST(Levelling, SeesWhatGravityDoesToTheSurfaces) {
  const auto vector = [](SignedAxis a) { return Eigen::Vector3d(a.sign * Eigen::Vector3d::Unit(a.axis)); };
  int told_apart = 0;
  for (const Turn& turn : all_turns()) {
    const Eigen::Vector3d x = vector(turn.arrow), z = -vector(turn.top), y = z.cross(x);
    Eigen::Matrix3d board;
    board << x.transpose(), y.transpose(), z.transpose();
    for (const Axis axis : all_axes)
      for (const int sense : {-1, 1})
        for (const auto& [roll, pitch] : {std::pair(1.0, 0.0), {0.0, 1.0}, {0.5, 0.5}, {0.5, -0.5}, {-0.3, 0.7}})
          for (const double deg : {12.0, 35.0, 60.0}) {
            const auto answer = [&](double tilted_deg) {
              const double rad = tilted_deg * std::numbers::pi / 180;
              const Eigen::Matrix3d model =
                  Eigen::AngleAxisd(rad, Eigen::Vector3d::Unit(static_cast<int>(axis))).toRotationMatrix();
              const Eigen::Vector3d down = board * model.transpose() * Eigen::Vector3d::UnitZ();
              const double bank = std::atan2(down.y(), down.z()), nose = -std::asin(std::clamp(down.x(), -1.0, 1.0));
              return -roll * std::clamp(bank, -0.7, 0.7) - pitch * std::clamp(nose, -0.7, 0.7);
            };
            const double moved = answer(sense * deg);
            const int motion = moved > 1e-6 ? 1 : moved < -1e-6 ? -1 : 0;
            const std::array<int, 3> pulse{roll > 0 ? 1 : roll < 0 ? -1 : 0, pitch > 0 ? 1 : pitch < 0 ? -1 : 0, 0};
            const SeenBits may = level_motions(turn, 0, axis, sense, pulse);
            EXPECT_TRUE(may & bit_of(motion)) << turn.name() << ' ' << name_of(axis) << ' ' << sense << ' ' << deg;
            if (finds_down(turn)) EXPECT_EQ(may, bit_of(motion)) << turn.name() << ' ' << name_of(axis);
            told_apart += may == bit_of(motion);
          }
  }
  EXPECT_GT(told_apart, 24 * 6 * 5 * 3 / 4) << "not everything may be called possible";
  // Arrow ahead, top down, and the controller not told: the right wing down makes it roll on to the right.
  const Turn upside_down = *turn_from_name("arrow_nose_top_down");
  EXPECT_FALSE(finds_down(upside_down));
  EXPECT_TRUE(level_motions(upside_down, 0, Axis::roll, 1, {1, 0, 0}) & bit_of(1));
  EXPECT_EQ(level_motions(upside_down, 0, Axis::pitch, 1, {0, 1, 0}), bit_of(-1)) << "pitch is still answered";
  EXPECT_EQ(level_motions(upside_down, 2, Axis::pitch, 1, {0, 1, 0}), bit_of(1));
}

TEST(Conflict, IsSmallestOnRandomProblems) {
  std::mt19937 random(21);
  for (int round = 0; round < 60; ++round) {
    // A problem is a few "cores"; a set is impossible if it holds one of them.
    std::vector<ObservationSet> cores;
    const int n = 9;
    for (unsigned k = 0; k < 1 + random() % 4; ++k) {
      ObservationSet core;
      for (unsigned i = 0; i < 2 + random() % 3; ++i) core.set(random() % n);
      cores.push_back(core);
    }
    const auto possible = [&](const ObservationSet& s) {
      return std::none_of(cores.begin(), cores.end(), [&](const ObservationSet& core) { return (core & ~s).none(); });
    };
    std::size_t smallest = n;
    for (const auto& core : cores) smallest = std::min(smallest, core.count());
    const auto found = smallest_conflict(n, possible);
    EXPECT_EQ(found.size(), smallest);
    ObservationSet set;
    for (const int i : found) set.set(static_cast<std::size_t>(i));
    EXPECT_FALSE(possible(set));
  }
  EXPECT_TRUE(smallest_conflict(4, [](const ObservationSet&) { return false; }).empty());
}

TEST(Reason, NothingSeenNothingWrong) {
  const Diagnosis answer = reason(read("{" + elevator + "}"));
  ASSERT_EQ(answer.explanations.size(), 1u);
  EXPECT_TRUE(answer.explanations[0].faults.empty());
  EXPECT_TRUE(answer.settled);
  EXPECT_FALSE(answer.equivalent);
}

TEST(Reason, AMixThatNoRemedyCuresIsSaidWithoutAnyLook) {
  const Diagnosis answer = reason(
      read(R"({"outputs":[{"id":"a","surface":"vtail_left","mix":{"pitch":1,"yaw":-1}}],"can":["reverse_output"]})"));
  EXPECT_TRUE(answer.explanations.empty());
  EXPECT_FALSE(answer.settled);
  EXPECT_TRUE(answer.contradictions.empty());
}

TEST(Reason, AnInconsistentMixHasTwoCuresUntilItIsLookedAt) {
  const Diagnosis answer =
      reason(read(R"({"outputs":[{"id":"a","surface":"vtail_right","mix":{"pitch":1,"yaw":1}}]})"));
  ASSERT_EQ(answer.explanations.size(), 2u);
  for (const auto& e : answer.explanations) EXPECT_EQ(e.faults[0].kind, FaultKind::mix_sign_wrong);
  EXPECT_TRUE(answer.next);
}

TEST(Reason, AThreeWayExchangeOfLeadsCountsTwo) {
  // Each stick moves the next surface.
  const Case c = read(
      R"({"outputs":[{"id":"a","surface":"elevator","mix":{"pitch":1}},{"id":"b","surface":"rudder","mix":{"yaw":1}},{"id":"c","surface":"aileron_left","mix":{"roll":1}}],
    "can":["swap_leads"],"observations":[
    {"do":"drive","output":"a","pulse":"rises","saw":{"elevator":"still","rudder":"right"}},
    {"do":"drive","output":"b","pulse":"rises","saw":{"rudder":"still","aileron_left":"down"}},
    {"do":"drive","output":"c","pulse":"rises","saw":{"aileron_left":"still","elevator":"up"}}]})");
  const Diagnosis answer = reason(c);
  ASSERT_EQ(answer.explanations.size(), 1u);
  ASSERT_EQ(answer.explanations[0].faults.size(), 2u);
  // Carried out in order they must bring every lead home.
  std::vector<int> lead{1, 2, 0};
  for (const Fault& f : answer.explanations[0].faults)
    std::swap(lead[static_cast<std::size_t>(f.output)], lead[static_cast<std::size_t>(f.other_output)]);
  EXPECT_EQ(lead, (std::vector<int>{0, 1, 2}));
}

TEST(Reason, LevelHasNoYawAnswerAndManualNone) {
  const auto faults = [](const char* observation) {
    const Diagnosis a = reason(read(
        std::string(
            R"({"outputs":[{"id":"r","surface":"rudder","mix":{"yaw":1}}],"can":["check_output","flip_gyro"],"observations":[)") +
        observation + "]}"));
    return a.explanations.empty() ? -1 : static_cast<int>(a.explanations[0].faults.size());
  };
  EXPECT_EQ(faults(R"({"do":"tilt","axis":"yaw","sense":"right","mode":"level","saw":{"rudder":"still"}})"), 0);
  EXPECT_EQ(faults(R"({"do":"tilt","axis":"yaw","sense":"right","mode":"level","saw":{"rudder":"left"}})"), -1);
  EXPECT_EQ(faults(R"({"do":"tilt","axis":"yaw","sense":"right","mode":"manual","saw":{"rudder":"left"}})"), -1);
  EXPECT_EQ(faults(R"({"do":"tilt","axis":"yaw","sense":"right","mode":"hold","saw":{"rudder":"left"}})"), 0);
  EXPECT_EQ(faults(R"({"do":"tilt","axis":"yaw","sense":"right","mode":"rate","saw":{"rudder":"right"}})"), 1);
  EXPECT_EQ(faults(R"({"do":"tilt","axis":"yaw","sense":"right","mode":"rate","saw":{"rudder":"still"}})"), 1);
}

TEST(Reason, CostOnlyOrdersEquals) {
  const Diagnosis answer = reason(read(
      "{" + elevator +
      R"(,"observations":[{"do":"stick","axis":"pitch","sense":"up","mode":"manual","saw":{"elevator":"down"}}]})"));
  ASSERT_GT(answer.explanations.size(), 2u);
  EXPECT_EQ(answer.explanations[0].faults[0].kind, FaultKind::output_reversed);
  for (std::size_t i = 1; i < answer.explanations.size(); ++i) {
    EXPECT_LE(answer.explanations[i - 1].cost, answer.explanations[i].cost);
    EXPECT_EQ(answer.explanations[i].faults.size(), 1u);
  }
}

}  // namespace
}  // namespace rigging::direction
