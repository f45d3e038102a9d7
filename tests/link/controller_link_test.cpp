#include "link/controller_link.h"

#include <gtest/gtest.h>

#include <functional>
#include <set>

#include "bench_rig.h"

namespace rigging::link {
namespace {

/// A controller that lies, forgets and falls silent as it is told to. Shares no code with the simulated bench.
class Peer {
 public:
  /// What it does with a request: answer, say nothing after doing it, say nothing and not do it, or answer nonsense.
  enum class Way { answer, refuse, lose_reply, lose_request, nonsense, wrong_id };
  std::function<Way(const std::string& what, int count)> way = [](const std::string&, int) { return Way::answer; };
  std::string held;
  std::map<std::string, int> asked;
  bool settings = true;
  int protocol = protocol_version;
  bool strict = false;  ///< refuses to be greeted by any other protocol

  std::string feed(std::string_view bytes) {
    std::string out;
    reader_.feed(bytes);
    while (!reader_.empty()) {
      const Received received = reader_.take();
      const Json* request = std::get_if<Json>(&received);
      if (!request) continue;
      const std::string what = text_member(*request, "do");
      const Way w = way(what, ++asked[what]);
      if (w == Way::lose_request) continue;
      Json reply = w == Way::nonsense ? Json{{"ok", true}, {"image", 7}, {"protocol", "old"}} : answer(*request, what);
      if (w == Way::refuse) reply = {{"ok", false}, {"refused", "no supply"}};
      reply["id"] = (*request)["id"];
      if (w == Way::wrong_id) reply["id"] = 100000 + (*request)["id"].get<int>();
      if (w != Way::lose_reply) out += encode_frame(reply);
    }
    return out;
  }

 private:
  Json answer(const Json& r, const std::string& what) {
    const auto refuse = [](const char* why) { return Json{{"ok", false}, {"refused", why}}; };
    if (what == "hello") {
      const int spoken = static_cast<int>(number_member(r, "protocol", 0));
      if (strict && spoken != protocol) return refuse("another protocol is spoken here");
      return to_json(HelloReply{std::min(spoken, protocol), "full_controller", "1.2", true, 0, settings});
    }
    if (what == "read") return to_json(ImageReply{held, image_hash(held)});
    if (what == "stage_begin") {
      staged_.clear();
      open_ = true;
      return {{"ok", true}};
    }
    if (what == "stage") {
      if (!open_ || number_member(r, "offset", -1) != static_cast<double>(staged_.size()))
        return refuse("out of order");
      staged_ += *bytes_member(r, "bytes");
      return {{"ok", true}};
    }
    if (what == "verify") return image_hash(staged_) == text_member(r, "hash") ? Json{{"ok", true}} : refuse("hash");
    if (what == "commit") {
      if (!open_) return refuse("nothing to commit");
      held = staged_;
      open_ = false;
      return {{"ok", true}};
    }
    if (what == "channels") return to_json(ChannelsReply{{{"roll", 1500}}, false});
    if (what == "sensors") return to_json(SensorsReply{{}, 16.1, {{"serial_1", true}}});
    if (what == "state") return to_json(StateReply{"level", false, "", false, true, {{ArmingRefusal::no_fix, ""}}, 3});
    if (what == "motion") return to_json(MotionReply{{MotionSample{}}});
    if (what == "receiver") return to_json(ReceiverReply{});
    return {{"ok", true}};
  }

  FrameReader reader_;
  std::string staged_;
  bool open_ = false;
};

/// Link and peer, a hundredth of a second at a time.
struct Talk {
  Peer peer;
  ControllerLink link;
  double now_s = 0;
  std::vector<LinkEvent> events;

  Talk() { peer.held = image_bytes(image_of(demo("hedgerow"))); }
  void step(double seconds) {
    for (const double end = now_s + seconds; now_s < end; now_s += 0.01) {
      link.tick(now_s);
      link.received(peer.feed(link.take_bytes()), now_s);
      for (LinkEvent& e : link.take_events()) events.push_back(std::move(e));
    }
  }
  template <class E>
  int count() const {
    return static_cast<int>(
        std::count_if(events.begin(), events.end(), [](const LinkEvent& e) { return std::holds_alternative<E>(e); }));
  }
  template <class E>
  const E& last() const {
    static const E none{};
    for (auto it = events.rbegin(); it != events.rend(); ++it)
      if (const auto* e = std::get_if<E>(&*it)) return *e;
    return none;
  }
};

using Way = Peer::Way;

TEST(ControllerLink, GreetsReadsAndPolls) {
  Talk run;
  run.link.opened(0);
  run.step(1);
  EXPECT_TRUE(run.link.answers());
  EXPECT_EQ(run.link.hello()->firmware, "1.2");
  EXPECT_EQ(run.count<Greeted>(), 1);
  EXPECT_EQ(run.count<BoardRead>(), 1);
  EXPECT_GT(run.count<ChannelsReply>(), 10);
  EXPECT_EQ(run.last<SensorsReply>().battery_v, 16.1);
  EXPECT_EQ(run.last<StateReply>().mode, "level");
  EXPECT_EQ(run.last<StateReply>().satellites, 3);
  EXPECT_EQ(run.last<StateReply>().refuses.at(0).why, ArmingRefusal::no_fix);
  EXPECT_EQ(run.count<Problem>(), 0);
}

/// A board of before is read and written in its own words, also one that knows no other; one that had no supply when it
/// was greeted speaks what it can once it has.
TEST(ControllerLink, ABoardOfProtocolOneIsReadAndWritten) {
  for (const bool strict : {false, true}) {
    Talk run;
    run.peer.protocol = 1;
    run.peer.strict = strict;
    const Image image = image_of(demo("hedgerow"));
    run.peer.held = image_bytes(image, 1);
    run.link.opened(0);
    run.step(2);
    ASSERT_TRUE(run.link.answers()) << strict;
    EXPECT_EQ(run.link.hello()->protocol, 1);
    EXPECT_EQ(run.last<BoardRead>().image, image);
    Rig changed = demo("hedgerow");
    changed.saturation = Saturation::roll_first;
    changed.modes.pop_back();
    run.link.write(image_of(changed), run.now_s);
    run.step(2);
    EXPECT_TRUE(run.last<Written>().good) << run.last<Written>().words;
    EXPECT_EQ(run.last<Written>().image, image_of(changed));
    EXPECT_EQ(run.peer.held, image_bytes(image_of(changed), 1));
    EXPECT_EQ(run.count<Greeted>(), 1);
    EXPECT_EQ(run.count<Problem>(), 0);
  }
  for (int refused = 1; refused < 4; ++refused) {
    Talk run;
    run.peer.way = [&](const std::string& what, int count) {
      return what == "hello" && count <= refused ? Way::refuse : Way::answer;
    };
    run.link.opened(0);
    run.step(4);
    ASSERT_TRUE(run.link.answers()) << refused;
    EXPECT_EQ(run.link.hello()->protocol, protocol_version) << refused;
    EXPECT_EQ(run.count<Greeted>(), 1);
  }
}

TEST(ControllerLink, ALostGreetingIsRepeated) {
  Talk run;
  run.peer.way = [](const std::string& what, int count) {
    return what == "hello" && count <= 5 ? Way::lose_request : Way::answer;
  };
  run.link.opened(0);
  run.step(1);
  EXPECT_FALSE(run.link.answers());
  run.step(3);
  EXPECT_TRUE(run.link.answers());
  EXPECT_EQ(run.peer.asked["hello"], 6);
}

TEST(ControllerLink, LostRepliesDoNotStopThePolling) {
  Talk run;
  run.link.opened(0);
  run.step(0.5);
  run.peer.way = [](const std::string& what, int count) {
    return what == "channels" && count % 3 ? Way::lose_reply : Way::answer;
  };
  run.events.clear();
  run.step(10);
  EXPECT_TRUE(run.link.answers());
  EXPECT_GT(run.count<ChannelsReply>(), 4);
  EXPECT_GT(run.count<ReceiverReply>(), 100) << "the others go on meanwhile";
  EXPECT_EQ(run.count<FellSilent>(), 0);
}

TEST(ControllerLink, SilenceIsNoticedAndTheReturnToo) {
  Talk run;
  run.link.opened(0);
  run.step(0.5);
  bool dead = true;
  run.peer.way = [&](const std::string&, int) { return dead ? Way::lose_request : Way::answer; };
  run.step(3);
  EXPECT_FALSE(run.link.answers()) << "nobody says that the controller answers when it does not";
  EXPECT_EQ(run.count<FellSilent>(), 1);
  dead = false;
  run.step(1);
  EXPECT_TRUE(run.link.answers());
  EXPECT_EQ(run.count<Greeted>(), 2);
}

/// Each step of a write loses its reply, or never arrives, once: in the end the board holds what was meant.
TEST(ControllerLink, AWriteSurvivesWhateverIsLostOnce) {
  for (const char* step : {"stage_begin", "stage", "verify", "commit", "read"})
    for (const Way how : {Way::lose_reply, Way::lose_request, Way::wrong_id}) {
      Talk run;
      run.link.opened(0);
      run.step(0.5);
      const int before = run.peer.asked[step];
      run.peer.way = [&](const std::string& what, int count) {
        return what == step && count == before + 1 ? how : Way::answer;
      };
      Rig rig = demo("hedgerow");
      rig.outputs[0].reversed = true;
      const Image image = image_of(rig);
      run.link.write(image, run.now_s);
      EXPECT_TRUE(run.link.writing());
      run.step(6);
      ASSERT_EQ(run.count<Written>(), 1) << step;
      EXPECT_TRUE(run.last<Written>().good) << step << ": " << run.last<Written>().words;
      EXPECT_EQ(run.last<Written>().image, image);
      EXPECT_EQ(run.peer.held, image_bytes(image)) << step;
      EXPECT_FALSE(run.link.writing());
    }
}

TEST(ControllerLink, AWriteThatIsNeverAnsweredEnds) {
  for (const char* step : {"stage_begin", "stage", "verify", "commit"}) {
    Talk run;
    run.link.opened(0);
    run.step(0.5);
    run.peer.way = [&](const std::string& what, int) { return what == step ? Way::lose_request : Way::answer; };
    const std::string before = run.peer.held;
    Rig rig = demo("hedgerow");
    rig.outputs[0].reversed = true;
    run.link.write(image_of(rig), run.now_s);
    run.step(30);
    ASSERT_EQ(run.count<Written>(), 1) << step;
    EXPECT_FALSE(run.last<Written>().good) << step;
    EXPECT_FALSE(run.last<Written>().words.empty());
    EXPECT_EQ(run.peer.held, before) << "the controller keeps what it had";
    EXPECT_TRUE(run.link.answers()) << "the rest of the link goes on";
  }
}

TEST(ControllerLink, NonsenseIsSaidAndBelievedNowhere) {
  Talk run;
  run.peer.way = [](const std::string& what, int) { return what == "hello" ? Way::nonsense : Way::answer; };
  run.link.opened(0);
  run.step(1);
  EXPECT_FALSE(run.link.answers());
  EXPECT_GT(run.count<Problem>(), 0);
  run.peer.way = [](const std::string& what, int) { return what == "read" ? Way::nonsense : Way::answer; };
  run.step(1);
  EXPECT_TRUE(run.link.answers());
  EXPECT_EQ(run.count<BoardRead>(), 0);
}

TEST(ControllerLink, ReadingsOfTheSensorsComeAndBadOnesAreLeftOut) {
  Talk run;
  run.link.opened(0);
  run.step(0.5);
  EXPECT_GT(run.count<MotionReply>(), 3);
  const Json good = to_json(MotionReply{{MotionSample{1, {0, 0, -9.8}, {1, 2, 3}, Point(20, 0, 43)}, MotionSample{}}});
  const auto back = motion_reply(good);
  ASSERT_TRUE(back);
  ASSERT_EQ(back->samples.size(), 2u);
  EXPECT_EQ(back->samples[0].field_ut->z(), 43);
  EXPECT_FALSE(back->samples[1].field_ut);
  EXPECT_FALSE(motion_reply(Json{{"ok", true}}));
  const auto some =
      motion_reply(Json{{"samples", {1, "x", {1, 2}, {1, 2, 3, 4, 5, 6, "7"}, {1, 2, 3, 4, 5, 6, 1e300}}}});
  ASSERT_TRUE(some);
  EXPECT_TRUE(some->samples.empty());
}

TEST(ControllerLink, WhatIsAskedOnPurposeIsAskedAgainAndThenGivenUp) {
  Talk run;
  run.link.opened(0);
  run.step(0.5);
  run.peer.way = [](const std::string& what, int count) {
    return what == "drive" && count < 3 ? Way::lose_reply : Way::answer;
  };
  run.link.drive("slot_1", 0.5, run.now_s);
  run.step(4);
  EXPECT_EQ(run.peer.asked["drive"], 3);
  EXPECT_EQ(run.count<Problem>(), 0);
  run.peer.way = [](const std::string& what, int) { return what == "release" ? Way::lose_reply : Way::answer; };
  run.link.release(run.now_s);
  run.step(6);
  EXPECT_EQ(run.peer.asked["release"], 4);
  EXPECT_EQ(run.count<Problem>(), 1);
}

TEST(ControllerLink, AClassWithoutSettingsIsNotRead) {
  Talk run;
  run.peer.settings = false;
  run.link.opened(0);
  run.step(1);
  EXPECT_TRUE(run.link.answers());
  EXPECT_EQ(run.peer.asked["read"], 0);
}

TEST(ControllerLink, AStreamThatGoesAwayEndsAWriteAndSaysSo) {
  Talk run;
  run.link.opened(0);
  run.step(0.5);
  run.peer.way = [](const std::string& what, int) { return what == "commit" ? Way::lose_request : Way::answer; };
  run.link.write(image_of(demo("hedgerow")), run.now_s);
  run.step(0.05);
  run.link.closed();
  for (LinkEvent& e : run.link.take_events()) run.events.push_back(std::move(e));
  EXPECT_FALSE(run.last<Written>().good);
  EXPECT_FALSE(run.link.answers());
  run.link.opened(run.now_s);
  run.step(0.5);
  EXPECT_TRUE(run.link.answers());
}

// A board may say anything of itself, and a wire may carry any time: none of it may fill the rig or the memory.
TEST(Replies, WhatIsTooLongOrOutOfTimeIsLeftOut) {
  const auto hello =
      hello_reply({{"protocol", 1}, {"kind", "full_controller"}, {"firmware", std::string(20000, 'v') + "\n"}});
  ASSERT_TRUE(hello);
  EXPECT_LT(hello->firmware.size(), 60u);
  EXPECT_EQ(hello->firmware.find('\n'), std::string::npos);
  const double never = std::numeric_limits<double>::infinity();
  const auto wire = receiver_reply(
      {{"signal", "pulse"},
       {"dark", false},
       {"chunks", {{{"t_us", 1e308}, {"bytes", Json::binary({1})}}, {{"t_us", 5}, {"bytes", Json::binary({2})}}}},
       {"edges", {{1e308, true, 0}, {never, true, 0}, {7, true, 0}}}});
  ASSERT_TRUE(wire);
  ASSERT_EQ(wire->chunks.size(), 1u);
  EXPECT_EQ(wire->chunks[0].first, 5);
  ASSERT_EQ(wire->edges.size(), 1u);
  EXPECT_EQ(wire->edges[0].t_us, 7);
}

}  // namespace
}  // namespace rigging::link
