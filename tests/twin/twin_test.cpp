#include <gtest/gtest.h>

#include <cmath>

#include "airframe/kinds.h"
#include "base/json.h"
#include "bench_rig.h"
#include "direction/evidence.h"
#include "direction/from_rig.h"
#include "direction/reason.h"
#include "link/client.h"
#include "link/messages.h"
#include "ports.h"
#include "rig/rig_file.h"

namespace rigging::twin {
namespace {

struct Fixture {
  Rig rig;
  const ControllerClass& controller;
  direction::Case looks;
  std::vector<direction::Fault> faults;
  Bench bench;

  Fixture(const char* name, std::vector<direction::Fault> f) : Fixture(demo(name), std::move(f)) {}
  Fixture(Rig given, std::vector<direction::Fault> f)
      : rig(std::move(given)),
        controller(*shipped().controller(rig.controller.kind)),
        looks(direction::case_from_rig(rig, controller)),
        faults(std::move(f)),
        bench(rig, controller, *truth_of(rig, controller, faults)) {
    bench.plug({false, true});
    run(1);
  }
  void run(double seconds) {
    for (int i = 0; i < seconds * 100; ++i) bench.step(0.01);
  }
  /// What a patient pair of eyes notes while the observation is made: the furthest that each surface went.
  std::map<Surface, int> see(const direction::Observation& o) {
    bench.mode(o.act == direction::Act::tilt ? o.mode : Mode::manual);
    run(1.5);
    const auto before = bench.look();
    std::map<Surface, double> rest, furthest;
    for (const auto& [s, d] : before.deflection) rest[s] = furthest[s] = d;
    const ModeAnswer* answer = controller.mode(o.mode);
    const bool momentary =
        answer && (answer->answer == AnswerKind::momentary || answer->answer == AnswerKind::springs_back);
    if (o.act == direction::Act::stick) bench.stick(o.axis, o.sense);
    if (o.act == direction::Act::drive)
      EXPECT_TRUE(bench.drive(rig.output(looks.outputs[static_cast<std::size_t>(o.output)].id)->socket, o.sense * 0.8));
    if (o.act == direction::Act::tilt && momentary) bench.flick(o.axis, o.sense);
    if (o.act == direction::Act::tilt && !momentary) {
      std::array<double, 3> pose{};
      pose[static_cast<std::size_t>(index_of(o.axis))] = 35.0 * o.sense;
      bench.hold(pose);
    }
    for (int i = 0; i < 60; ++i) {
      bench.step(0.01);
      for (const auto& [s, d] : bench.look().deflection)
        if (std::abs(d - rest[s]) > std::abs(furthest[s] - rest[s])) furthest[s] = d;
    }
    bench.release();
    bench.stick(o.axis, 0);
    bench.hold({});
    run(3);
    std::map<Surface, int> motion;
    for (const auto& [s, d] : furthest)
      motion[s] = std::abs(d - rest[s]) < (s.kind == SurfaceKind::motor ? 0.1 : 3) ? 0 : d > rest[s] ? 1 : -1;
    return motion;
  }
};

// The simulated bench moves servos over time by pulses and mixers; the reasoner knows only signs. Both must show the
// same.
class BothAgree : public testing::TestWithParam<int> {};
TEST_P(BothAgree, OnEveryLookWithRandomFaults) {
  const char* name = std::array{"hedgerow", "delta", "heath"}[static_cast<std::size_t>(GetParam() % 3)];
  const Rig rig = demo(name);
  const ControllerClass& controller = *shipped().controller(rig.controller.kind);
  Fixture f(name, drawn_faults(rig, controller, 1 + GetParam() % 3, static_cast<unsigned>(GetParam())));
  ASSERT_FALSE(f.faults.empty());
  for (const auto& q : *f.looks.may_ask) {
    const auto predicted = direction::predict(f.looks, f.faults, q.observation);
    ASSERT_TRUE(predicted);
    const auto seen = f.see(q.observation);
    for (std::size_t i = 0; i < predicted->saw.size(); ++i)
      EXPECT_TRUE(direction::bit_of(seen.at(predicted->saw[i].surface)) & predicted->may_show[i])
          << seen.at(predicted->saw[i].surface) << ' ' << direction::observation_text(q.observation, f.looks) << ": "
          << predicted->saw[i].surface.name() << " with " << direction::fault_text(f.faults[0], f.looks);
  }
}
INSTANTIATE_TEST_SUITE_P(Seeds, BothAgree, testing::Range(1, 25));

/// Every stick in manual, every tilt in rate, with what is seen.
std::vector<direction::Observation> every_look(Fixture& f) {
  std::vector<direction::Observation> all;
  for (const Axis axis : all_axes)
    for (const auto act : {direction::Act::stick, direction::Act::tilt}) {
      direction::Observation o;
      o.act = act;
      o.axis = axis;
      o.mode = act == direction::Act::tilt ? Mode::rate : Mode::manual;
      for (const auto& [s, m] : f.see(o)) o.saw.push_back({s, m});
      all.push_back(std::move(o));
    }
  return all;
}

TEST(Twin, TheWholeLineFindsAndCuresRandomFaults) {
  for (unsigned seed = 1; seed <= 20; ++seed) {
    const Rig rig = demo("hedgerow");
    const ControllerClass& controller = *shipped().controller(rig.controller.kind);
    Fixture f("hedgerow", drawn_faults(rig, controller, 2, seed));
    Rig now = f.rig;
    int rounds = 0;
    for (; rounds < 8; ++rounds) {
      direction::Case c = direction::case_from_rig(now, controller);
      c.observations = every_look(f);
      direction::Diagnosis answer = direction::reason(c);
      for (int asked = 0; answer.next && asked < 12; ++asked) {
        direction::Observation o = answer.next->observation;
        if (answer.next->surfaces)
          for (const auto& [s, m] : f.see(o)) o.saw.push_back({s, m});
        if (answer.next->channels) {
          f.bench.stick(o.axis, o.sense);
          f.run(0.1);
          const auto heard = f.bench.channels();
          for (const Axis k : all_axes) {
            const double us = heard.at(std::string(name_of(k)));
            o.channels[static_cast<std::size_t>(index_of(k))] = us > 1600 ? 1 : us < 1400 ? -1 : 0;
          }
          f.bench.stick(o.axis, 0);
        }
        c.observations.push_back(o);
        answer = direction::reason(c);
      }
      ASSERT_FALSE(answer.explanations.empty()) << "seed " << seed;
      if (answer.explanations[0].faults.empty()) break;
      for (const auto& fault : answer.explanations[0].faults) {
        now = direction::remedied(now, fault, c, controller);
        const Remedy remedy = direction::remedy_of(fault.kind);
        if (!direction::is_setting(remedy, controller)) EXPECT_TRUE(f.bench.work(direction::work_for(fault, c)));
      }
      f.bench.configure(link::image_of(now));
    }
    EXPECT_LT(rounds, 4) << "seed " << seed;
  }
}

// Common practice: where both of a pair answer stick and correction the wrong way, their function is reversed. The
// controller can't be read: what the rig plans stays, the button brings the controller to it.
TEST(Twin, AFunctionThatTheControllerHasReversedIsFoundAndPressedRound) {
  const std::pair<const char*, AirframeKind> models[] = {{"fixed_wing", AirframeKind::flying_wing},
                                                         {"fixed_mini", AirframeKind::two_ailerons},
                                                         {"gesture_board", AirframeKind::flying_wing},
                                                         {"gesture_board", AirframeKind::two_ailerons}};
  for (const auto& [kind, airframe] : models)
    for (const Axis axis : {Axis::roll, Axis::pitch}) {
      SCOPED_TRACE(std::string(kind) + ' ' + std::string(name_of(airframe)) + ' ' + std::string(name_of(axis)));
      const ControllerClass& controller = *shipped().controller(kind);
      Rig rig;
      rig.controller.kind = kind;
      rig.airframe.kind = airframe;
      rig.outputs = default_outputs(airframe);
      for (std::size_t i = 0; i < rig.outputs.size() && i < controller.outputs.size(); ++i)
        rig.outputs[i].socket = controller.outputs[i].id;
      direction::Case c = direction::case_from_rig(rig, controller);
      direction::Fault fault;
      fault.kind = direction::FaultKind::function_reversed;
      fault.axis = axis;
      Fixture f(rig, {fault});
      if (const int lock = controller.sticks.unlock_channel) f.bench.radio().control(lock, 1);
      const auto look_at_all = [&] {
        c.observations = every_look(f);
        return direction::reason(c);
      };
      const direction::Diagnosis before = look_at_all();
      ASSERT_FALSE(before.explanations.empty());
      ASSERT_EQ(before.explanations[0].faults.size(), 1u);
      EXPECT_EQ(before.explanations[0].faults[0], fault);
      EXPECT_EQ(direction::remedied(rig, fault, c, controller).outputs, rig.outputs) << "the plan was right";
      ASSERT_TRUE(f.bench.work(direction::work_for(fault, c)));
      const direction::Diagnosis after = look_at_all();
      ASSERT_FALSE(after.explanations.empty());
      EXPECT_TRUE(after.explanations[0].faults.empty());
    }
}

TEST(Twin, FlapsDroopBothSidesByTheLever) {
  Rig rig = demo("hedgerow");
  Channel flap;
  flap.number = 6;
  flap.function = ChannelFunction::flap;
  rig.radio.channels.push_back(flap);
  Fixture f(rig, {});
  const auto flaperons = [&] {
    std::vector<double> all;
    for (const auto& [s, d] : f.bench.look().deflection)
      if (s.kind == SurfaceKind::flaperon) all.push_back(d);
    return all;
  };
  const auto up = flaperons();
  ASSERT_EQ(up.size(), 2u);
  f.bench.radio().control(6, 1);
  f.run(1);
  const auto down = flaperons();
  for (std::size_t i = 0; i < 2; ++i) EXPECT_LT(down[i], up[i] - 3);
  EXPECT_NEAR(down[0] - up[0], down[1] - up[1], 0.1);
}

TEST(Twin, BehavesAsAControllerDoes) {
  Fixture f("hedgerow", {});
  EXPECT_TRUE(f.bench.drive("slot_1", 0.5));
  EXPECT_FALSE(f.bench.drive("slot_9", 0.5));
  f.bench.throttle(1);
  f.run(0.05);
  EXPECT_FALSE(f.bench.drive("slot_1", 0.5)) << "throttle open";
  f.bench.throttle(0);
  f.run(0.05);
  f.bench.transmitter(false);
  f.run(0.2);
  EXPECT_TRUE(f.bench.channels().empty());
  f.bench.transmitter(true);
  f.bench.plug({true, false});
  f.run(0.5);
  EXPECT_TRUE(f.bench.channels().empty()) << "receiver dark on USB";
  EXPECT_FALSE(f.bench.look().servos_powered);
  const auto still = f.bench.look().deflection;
  f.bench.stick(Axis::roll, 1);
  f.run(0.5);
  EXPECT_EQ(f.bench.look().deflection, still) << "servos don't move on USB";
  EXPECT_FALSE(f.bench.drive("slot_1", 0.5));
  EXPECT_FALSE(f.bench.work({Remedy::reverse_output, {"out_1"}, {}, {}})) << "set over the link, not by hand";
}

/// A model of a class on the bench, battery in, every output in a socket of its own.
class OfClass {
 public:
  OfClass(const char* kind, AirframeKind airframe, std::optional<double> gain = {})
      : rig(with_sockets(kind, airframe, gain)),
        controller(*shipped().controller(kind)),
        bench(rig, controller, *truth_of(rig, controller, {})) {
    bench.plug({false, true});
    run(2);
  }
  void run(double s) {
    for (int i = 0; i < s * 100; ++i) bench.step(0.01);
  }
  double at(const char* surface) const {
    for (const auto& [s, d] : bench.look().deflection)
      if (s.name() == surface) return d;
    ADD_FAILURE() << surface;
    return 0;
  }
  /// The furthest that it goes while the model is flicked.
  double flicked(Axis axis, const char* surface) {
    bench.flick(axis, 1);
    double most = 0;
    for (int i = 0; i < 80; ++i) {
      bench.step(0.01);
      if (std::abs(at(surface)) > std::abs(most)) most = at(surface);
    }
    run(2);
    return most;
  }

  Rig rig;
  const ControllerClass& controller;
  Bench bench;

 private:
  static Rig with_sockets(const char* kind, AirframeKind airframe, std::optional<double> gain) {
    Rig r;
    if (gain)
      for (const Axis axis : all_axes) r.feel.made_gain(axis).rate = r.feel.made_gain(axis).level = *gain;
    r.controller.kind = kind;
    r.airframe.kind = airframe;
    r.outputs = default_outputs(airframe);
    for (std::size_t i = 0; i < r.outputs.size(); ++i) r.outputs[i].socket = "slot_" + std::to_string(i + 1);
    return r;
  }
};

// The law of the class by hand: a flick of 130° a second is answered with rate · gain / full_at_deg_s of a travel of
// 25°, a tilt with tilt · gain / full_at_deg, up to the authority.
TEST(Twin, TheBenchAnswersByTheGainsThatAreSet) {
  for (const double gain : {0.02, 0.25, 0.5, 1.0}) {
    OfClass m("pc_mini", AirframeKind::two_ailerons, gain);
    const FeelAbilities& f = m.controller.feel;
    const double effect = f.half_share == 0.5 ? gain : std::pow(gain, std::log(f.half_share) / std::log(0.5));
    const double most = 25 * std::min(0.9, f.authority);
    m.bench.mode(Mode::rate);
    EXPECT_NEAR(std::abs(m.flicked(Axis::roll, "aileron_left")), std::min(most, 25 * 130 * effect / f.full_at_deg_s), 1)
        << gain;
    m.bench.mode(Mode::level);
    m.bench.hold({20, 0, 0});
    m.run(4);
    EXPECT_NEAR(m.at("aileron_left"), std::min(most, 25 * 20 * effect / f.full_at_deg), 1) << gain;
    // Moved by hand as it is: what turns is sensed, however it is turned.
    m.bench.mode(Mode::rate);
    m.bench.hold({0, 0, 0});
    m.run(0.3);
    EXPECT_NEAR(std::abs(m.at("aileron_left")), std::min(most, 25 * 45 * effect / f.full_at_deg_s), 1) << gain;
  }
}

// Common practice, as every class is said to behave on the bench.
TEST(Twin, TheGestureBoardHoldsFromSmallTilts) {
  OfClass m("gesture_board", AirframeKind::flying_wing);
  m.bench.mode(Mode::level);
  m.bench.hold({15, 0, 0});
  m.run(3);
  EXPECT_GT(m.at("elevon_left"), 3) << "right wing down: the left elevon goes up";
  m.run(3);
  EXPECT_GT(m.at("elevon_left"), 3) << "and holds";
}

TEST(Twin, TheFixedBoardSleepsUntilTheMotorIsUnlocked) {
  OfClass m("fixed_wing", AirframeKind::flying_wing);
  m.bench.mode(Mode::rate);
  EXPECT_EQ(m.flicked(Axis::roll, "elevon_left"), 0) << "locked: it sleeps";
  m.bench.throttle(0.5);
  m.run(1);
  const std::string motor = m.rig.outputs.back().socket;
  ASSERT_TRUE(m.rig.outputs.back().mix.throttle != 0);
  EXPECT_NEAR(m.bench.pulses().at(motor), 1000, 1) << "locked: the motor only beeps";
  m.bench.radio().control(7, 1);
  m.run(1);
  EXPECT_GT(m.bench.pulses().at(motor), 1300);
  m.bench.throttle(0);
  m.run(1);
  EXPECT_GT(m.flicked(Axis::roll, "elevon_left"), 3);
}

TEST(Twin, TheFixedBoardsLevellingRunsAwayFromAStandstill) {
  OfClass m("fixed_wing", AirframeKind::flying_wing);
  m.bench.radio().control(7, 1);
  m.bench.mode(Mode::level);
  m.run(3);
  double most = 0;
  for (const char* elevon : {"elevon_left", "elevon_right"}) most = std::max(most, std::abs(m.at(elevon)));
  EXPECT_GT(most, 15) << "the model stands still and level";
}

TEST(Twin, TheLevellingDialUnitLeansTheRudderIntoTheBank) {
  OfClass m("inline_level", AirframeKind::two_ailerons);
  m.bench.mode(Mode::level);
  m.bench.hold({30, 0, 0});
  m.run(3);
  EXPECT_GT(m.at("rudder"), 2) << "trailing edge right, toward the low right wing";
  EXPECT_GT(m.at("aileron_left"), 5) << "and it levels";
  OfClass rate_only("inline_dial", AirframeKind::two_ailerons);
  rate_only.bench.mode(Mode::rate);
  rate_only.bench.hold({30, 0, 0});
  rate_only.run(4);
  EXPECT_EQ(rate_only.at("rudder"), 0) << "the rate-only variant does not";
}

TEST(Twin, LampsAreThoseOfTheClass) {
  OfClass m("fixed_wing", AirframeKind::flying_wing);
  EXPECT_EQ(m.bench.look().lamp, "steady: ready");
  m.bench.transmitter(false);
  m.run(3);
  EXPECT_NE(m.bench.look().lamp.find("no signal"), std::string::npos) << m.bench.look().lamp;
}

/// Plays a whole write against a port over a wire that is cut after `cut` bytes. Returns what the controller then
/// holds.
link::Image held_after_cut(const link::Image& old_image, const link::Image& wanted, std::size_t cut,
                           std::size_t& total) {
  const Rig rig = demo("hedgerow");
  const ControllerClass& controller = *shipped().controller(rig.controller.kind);
  Bench bench(rig, controller, *truth_of(rig, controller, {}));
  bench.plug({false, true});
  bench.step(0.5);
  bench.configure(old_image);
  Store store;
  store.save(link::image_bytes(old_image));
  ControllerPort port(bench, store, "1");
  link::Client client;
  link::WriteTransaction transaction(wanted);
  total = 0;
  while (auto request = transaction.next()) {
    std::string wire = client.ask(*request).second;
    const bool cut_here = total + wire.size() > cut;
    if (cut_here) wire.resize(cut - total);
    total += wire.size();
    const std::string reply = port.feed(wire);
    if (cut_here) break;
    for (auto& item : client.feed(reply)) transaction.answered(std::get<link::Reply>(item));
  }
  port.disconnected();
  // Power off and on: what the store holds must be what the controller worked with.
  Store after(store.memory());
  EXPECT_EQ(*after.load(), link::image_bytes(bench.image()));
  return bench.image();
}

TEST(Transaction, ACutAtAnyByteLeavesTheOldOrTheNew) {
  const Rig rig = demo("hedgerow");
  Rig changed = rig;
  changed.outputs[0].reversed = true;
  changed.outputs[3].mix.yaw = -0.3;
  changed.sensing.board = *turn_from_name("arrow_left_top_up");
  const link::Image before = link::image_of(rig), after = link::image_of(changed);
  std::size_t whole = 0;
  EXPECT_EQ(held_after_cut(before, after, static_cast<std::size_t>(-1), whole), after);
  ASSERT_GT(whole, 500u);
  int old_ones = 0, new_ones = 0;
  for (std::size_t cut = 0; cut <= whole; ++cut) {
    std::size_t sent = 0;
    const link::Image held = held_after_cut(before, after, cut, sent);
    if (held == before)
      ++old_ones;
    else if (held == after)
      ++new_ones;
    else
      FAIL() << "a mixture after " << cut << " bytes";
  }
  EXPECT_GT(old_ones, 400);
  EXPECT_GT(new_ones, 0);
}

TEST(Transaction, PowerFailingAtAnyByteOfTheStoreLeavesTheOldOrTheNew) {
  Store store;
  store.save("the first configuration");
  store.save("the second configuration, longer than the first");
  EXPECT_EQ(store.load(), "the second configuration, longer than the first");
  const std::string third = "the third";
  for (std::size_t bytes = 0; bytes <= third.size() + 12; ++bytes) {
    Store failing(store.memory());
    failing.save(third, bytes);
    const auto loaded = Store(failing.memory()).load();
    ASSERT_TRUE(loaded);
    EXPECT_EQ(*loaded, bytes == third.size() + 12 ? third : "the second configuration, longer than the first") << bytes;
  }
  EXPECT_FALSE(Store("garbage").load());
}

struct PortFixture : testing::Test {
  explicit PortFixture(const char* rig = "hedgerow") : f{rig, {}} {}
  Fixture f;
  Store store;
  ControllerPort port{f.bench, store, "0.9.2"};
  link::Client client;
  link::Reply ask(const std::string& what, Json body = Json::object()) {
    for (auto& item : client.feed(port.feed(client.ask(what, std::move(body)).second)))
      if (auto* reply = std::get_if<link::Reply>(&item)) return *reply;
    ADD_FAILURE() << "no reply to " << what;
    return {};
  }
};

TEST_F(PortFixture, RefusesAndSaysWhy) {
  EXPECT_NE(ask("hello", {{"protocol", 0}}).refused().find("protocol 1"), std::string::npos);
  EXPECT_TRUE(ask("hello", {{"protocol", 1}}).ok());
  EXPECT_EQ(ask("commit", {{"hash", "x"}}).refused(), "nothing verified to commit");
  EXPECT_EQ(ask("stage", {{"offset", 0}}).refused(), "nothing was begun");
  EXPECT_FALSE(ask("stage_begin", {{"size", 1e9}, {"hash", "x"}}).ok());
  EXPECT_FALSE(ask("stage_begin", {{"size", "many"}}).ok());
  EXPECT_TRUE(ask("stage_begin", {{"size", 4}, {"hash", "x"}}).ok());
  EXPECT_NE(ask("stage", {{"offset", 2}, {"bytes", Json::binary({1, 2})}}).refused().find("out of order"),
            std::string::npos);
  EXPECT_TRUE(ask("stage", {{"offset", 0}, {"bytes", Json::binary({1, 2})}}).ok());
  EXPECT_NE(ask("stage", {{"offset", 2}, {"bytes", Json::binary({1, 2, 3})}}).refused().find("more bytes"),
            std::string::npos);
  EXPECT_FALSE(ask("verify", {{"hash", "x"}}).ok());
  EXPECT_FALSE(ask("dance").ok());
  const auto state = link::state_reply(ask("state").body);
  ASSERT_TRUE(state) << state.error().text();
  EXPECT_TRUE(state->can_arm);
  EXPECT_EQ(state->refuses.back().why, ArmingRefusal::no_fix);
  // Bytes that pass their hash but are no configuration.
  const std::string junk = "junk";
  EXPECT_TRUE(ask("stage_begin", {{"size", 4}, {"hash", link::image_hash(junk)}}).ok());
  EXPECT_TRUE(ask("stage", {{"offset", 0}, {"bytes", Json::binary({'j', 'u', 'n', 'k'})}}).ok());
  EXPECT_FALSE(ask("verify", {{"hash", link::image_hash(junk)}}).ok());
  Rig elsewhere = f.rig;
  elsewhere.outputs[0].socket = "slot_99";
  link::WriteTransaction transaction(link::image_of(elsewhere));
  while (auto request = transaction.next())
    transaction.answered(ask(link::request_name(*request), link::body_of(*request)));
  EXPECT_TRUE(transaction.failed());
  EXPECT_NE(transaction.problem().find("slot_99"), std::string::npos);
}

struct MiniBoardPort : PortFixture {
  MiniBoardPort() : PortFixture("delta") {}
};

TEST_F(MiniBoardPort, HasNoSettingsToReadOrWrite) {
  const auto hello = ask("hello", {{"protocol", 1}});
  EXPECT_EQ(hello.body["settings"], false);
  for (const char* what : {"read", "stage_begin", "stage", "verify", "commit"})
    EXPECT_NE(ask(what, {{"size", 4}, {"hash", "x"}}).refused().find("no settings over a link"), std::string::npos)
        << what;
  EXPECT_TRUE(ask("channels").ok()) << "the rest answers";
}

TEST_F(PortFixture, SurvivesDamagedFramesAndCountsThem) {
  std::string hurt = client.ask("read").second;
  hurt[3] = static_cast<char>(hurt[3] ^ 0x10);
  EXPECT_TRUE(port.feed(hurt).empty());
  EXPECT_TRUE(port.feed("\x01\x02\x03foreign words on the line\0" + std::string(1, '\0')).empty());
  EXPECT_EQ(ask("hello", {{"protocol", 1}}).body["damaged_frames"], port.damaged_frames());
  EXPECT_GE(port.damaged_frames(), 1);
}

TEST(Differences, AreSaidInWordsAndTakenPartByPart) {
  const Rig rig = demo("hedgerow");
  Rig other = rig;
  other.outputs[0].reversed = true;
  other.outputs[1].high_us = 1900;
  other.sensing.yaw_reversed = true;
  other.radio.channels[4].function = ChannelFunction::gain;
  const link::Image board = link::image_of(other);
  const auto found = link::differences(link::image_of(rig), board);
  ASSERT_EQ(found.size(), 4u);
  EXPECT_EQ(found[0].part, "output slot_1");
  using link::SettingId;
  EXPECT_EQ(found[0].settings, (std::vector<SettingId>{{SettingOf::output, "slot_1", "reversed"}}));
  EXPECT_EQ(found[1].settings, (std::vector<SettingId>{{SettingOf::output, "slot_2", "high_us"}}));
  EXPECT_EQ(found[2].settings, (std::vector<SettingId>{{SettingOf::board, "", "yaw_reversed"}}));
  EXPECT_EQ(found[3].settings, (std::vector<SettingId>{{SettingOf::channel, "5", "function"}}));
  EXPECT_NE(found[1].words.find("1900 µs on the board, 2000 µs in the rig"), std::string::npos) << found[1].words;
  const Rig half = link::with_board_parts(rig, board, {"output slot_1", "channel 5"});
  EXPECT_TRUE(half.outputs[0].reversed);
  EXPECT_EQ(half.outputs[1].high_us, 2000);
  EXPECT_EQ(link::differences(link::image_of(half), board).size(), 2u);
  std::vector<std::string> all;
  for (const auto& d : found) all.push_back(d.part);
  EXPECT_EQ(link::image_of(link::with_board_parts(rig, board, all)), board);
  EXPECT_TRUE(link::differences(board, board).empty());
  EXPECT_EQ(*link::image_from_bytes(link::image_bytes(board), "x"), board);
}

TEST(Faults, AreReadFromWords) {
  const Rig rig = demo("hedgerow");
  const auto c = direction::case_from_rig(rig, *shipped().controller(rig.controller.kind));
  for (const char* good : {"output_reversed:out_1", "leads_swapped:out_2,out_1", "gyro_reversed:yaw",
                           "transmitter_swapped:roll,yaw", "board_turned:arrow_tail_top_up", "output_dead:out_3",
                           "linkage_opposed:flaperon_left", "mix_sign_wrong:out_3,yaw"})
    EXPECT_TRUE(fault_from_text(good, c)) << good;
  for (const char* bad :
       {"", "output_reversed", "output_reversed:", "output_reversed:out_9", "leads_swapped:out_1,out_1",
        "gyro_reversed:up", "board_turned:none", "linkage_opposed:rudder", "sabotage:out_1"})
    EXPECT_FALSE(fault_from_text(bad, c)) << bad;
}

TEST(Twin, ABadlySetTransmitterIsBadAndSoundsAsTheWireSays) {
  const Rig rig = demo("hedgerow");
  const ControllerClass& controller = *shipped().controller(rig.controller.kind);
  for (const Signal signal : {Signal::inverted_serial, Signal::two_way_serial, Signal::summed, Signal::pulse}) {
    Truth truth = *truth_of(rig, controller, {});
    truth.signal = signal;
    set_badly(truth, rig, 5);
    Bench bench(rig, controller, truth);
    bench.plug({false, true});
    for (int i = 0; i < 60; ++i) bench.step(0.01);
    const Transmitter::Wire wire = bench.radio().take_wire();
    EXPECT_EQ(wire.signal, signal);
    std::vector<ChannelFrame> frames;
    if (!wire.chunks.empty()) {
      ByteDecoder decoder(signal);
      for (const auto& [t_us, bytes] : wire.chunks) decoder.feed(bytes, t_us, frames);
      decoder.finish(frames);
      EXPECT_EQ(decoder.tally().skipped, 0u);
    } else {
      EdgeDecoder decoder(signal);
      for (const Edge& e : wire.edges) decoder.feed(e, frames);
    }
    ASSERT_GT(frames.size(), 15u) << name_of(signal);
    int off = 0;
    for (int c = 0; c < 4; ++c)
      off += std::abs(frames.back().pulse_us[static_cast<std::size_t>(c)] - (c == 2 ? 1000.0f : 1500.0f)) > 3;
    EXPECT_GE(off, 3) << "centres are off, or the order is";
  }
}

TEST(Twin, HandsSetWhatTheClassLetsThem) {
  const Rig rig = demo("delta");
  const auto bench_of = [&](const char* kind) {
    Rig r = rig;
    r.controller.kind = kind;
    const ControllerClass& c = *shipped().controller(kind);
    return std::make_unique<Bench>(r, c, *truth_of(r, c, {}));
  };
  auto mini = bench_of("pc_mini");
  EXPECT_TRUE(mini->set_output("out_1", true, 1000, 1520, 2000));
  EXPECT_TRUE(link::configured(mini->image()).outputs.front().reversed);
  EXPECT_EQ(link::configured(mini->image()).outputs.front().centre_us, 1520);
  EXPECT_NE(mini->set_output("out_1", true, 1100, 1520, 2000).error().text().find("no ends"), std::string::npos);
  EXPECT_FALSE(mini->set_output("out_9", false, 1000, 1500, 2000));
  EXPECT_FALSE(mini->set_output("out_1", false, 1600, 1500, 2000)) << "ends enclose the centre";
  EXPECT_TRUE(bench_of("screen_keys")->set_output("out_1", false, 1100, 1520, 1900));
  EXPECT_NE(bench_of("gesture_board")->set_output("out_1", false, 1000, 1510, 2000).error().text().find("no centre"),
            std::string::npos);
  EXPECT_NE(
      bench_of("full_controller")->set_output("out_1", false, 1000, 1510, 2000).error().text().find("over its link"),
      std::string::npos);
}

TEST(Twin, AColdGimbalDriftsUntilItIsWarm) {
  const Rig rig = demo("hedgerow");
  const ControllerClass& controller = *shipped().controller(rig.controller.kind);
  Truth truth = *truth_of(rig, controller, {});
  truth.gimbals[0].drift_us_s = 0.2;
  Bench bench(rig, controller, truth);
  bench.plug({false, true});
  const auto after = [&](double seconds) {
    for (double t = 0; t < seconds; t += 0.02) bench.step(0.02);
    return bench.radio().heard()->pulse_us[static_cast<std::size_t>(truth.gimbals[0].channel - 1)];
  };
  const float cold = after(1), warming = after(60), warm = after(120), later = after(30);
  EXPECT_NEAR(warming - cold, 12, 1);
  EXPECT_NEAR(warm - cold, 24, 1);
  EXPECT_NEAR(later, warm, 0.5);
}

TEST(Twin, ReceiversLoseTheLinkEachInTheirWay) {
  for (const OnLoss way : {OnLoss::flag, OnLoss::no_pulses, OnLoss::hold, OnLoss::preset}) {
    Rig rig = demo("hedgerow");
    rig.radio.on_loss = way;
    const ControllerClass& controller = *shipped().controller(rig.controller.kind);
    Bench bench(rig, controller, *truth_of(rig, controller, {}));
    bench.plug({false, true});
    bench.throttle(0.5);
    bench.stick(Axis::roll, 0.4);
    for (int i = 0; i < 60; ++i) bench.step(0.01);
    EXPECT_NEAR(bench.channels().at("throttle"), 1500, 1);
    bench.transmitter(false);
    for (int i = 0; i < 60; ++i) bench.step(0.01);
    const bool hidden = way == OnLoss::hold || way == OnLoss::preset;
    EXPECT_EQ(bench.receiver_lit(), hidden) << name_of(way);
    if (way == OnLoss::hold) EXPECT_NEAR(bench.channels().at("throttle"), 1500, 1) << "the motor would go on";
    if (way == OnLoss::preset) EXPECT_NEAR(bench.channels().at("throttle"), 1000, 1);
    if (!hidden) EXPECT_TRUE(bench.channels().empty());
    EXPECT_NEAR(bench.pulses().at("slot_7"), way == OnLoss::hold ? 1500 : 1000, 1) << "what the motor hears";
  }
}

TEST(Twin, LinkagesAreBentAndHandsStraightenThemOnlyWithTheBatteryOut) {
  const Rig rig = demo("hedgerow");
  const ControllerClass& controller = *shipped().controller(rig.controller.kind);
  Truth truth = *truth_of(rig, controller, {});
  make_crooked(truth, rig, shipped(), 3);
  Bench bench(rig, controller, truth);
  bench.plug({false, true});
  for (int i = 0; i < 100; ++i) bench.step(0.01);
  double worst = 0;
  for (const auto& [s, d] : bench.look().deflection)
    if (s.kind != SurfaceKind::motor) worst = std::max(worst, std::abs(d));
  EXPECT_GT(worst, 3) << "something real to find";
  const Surface left = *surface_from_name("flaperon_left");
  EXPECT_FALSE(bench.clevis(left, 1));
  bench.plug({false, false});
  EXPECT_TRUE(bench.clevis(left, 1));
  EXPECT_FALSE(bench.clevis(left, -500)) << "no rod is that short";
  EXPECT_FALSE(bench.tooth(*surface_from_name("rudder"), 1)) << "no such linkage";
}

TEST(ControllerPort, TheReceiversWireGoesThroughTheLink) {
  Fixture f("hedgerow", {});
  Store store("");
  ControllerPort port(f.bench, store, "1");
  link::Client client;
  f.run(0.5);
  int chunks = 0;
  for (auto& item : client.feed(port.feed(client.ask("receiver").second)))
    if (auto* reply = std::get_if<link::Reply>(&item)) {
      EXPECT_TRUE(reply->ok());
      EXPECT_EQ(text_member(reply->body, "signal"), "inverted_serial");
      chunks = static_cast<int>(reply->body["chunks"].size());
    }
  EXPECT_NEAR(chunks, 55, 2) << "half a second at 9 ms";
}

}  // namespace
}  // namespace rigging::twin
