#include "link/image.h"
#include "base/json.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <fstream>
#include <random>

#include "link/cbor.h"
#include "link/client.h"
#include "places.h"
#include "rig/rig_file.h"
#include "settings/settings.h"

namespace rigging::link {
namespace {

Rig demo() { return *load_rig(in_source("/data/demo/hedgerow.rig.json")); }

/// A controller that answers as told: the request at which it goes wrong, and how.
struct Controller {
  std::string bad_at;
  Json bad_reply;
  std::string held;
  std::string staged;

  Json answer(const std::string& what, const Json& body) {
    if (what == bad_at) return bad_reply;
    if (what == "stage") staged.append(body["bytes"].get_binary().begin(), body["bytes"].get_binary().end());
    if (what == "commit") held = staged;
    if (what == "read")
      return {{"ok", true},
              {"image", Json::binary(std::vector<std::uint8_t>(held.begin(), held.end()))},
              {"hash", image_hash(held)}};
    return {{"ok", true}};
  }
};

WriteTransaction play(Controller& controller, const Image& image) {
  WriteTransaction transaction(image);
  int steps = 0;
  while (auto request = transaction.next()) {
    Reply reply{1, request_name(*request), controller.answer(request_name(*request), body_of(*request))};
    transaction.answered(reply);
    EXPECT_LT(++steps, 50);
  }
  return transaction;
}

// Who writes a client from the document alone finds every setting in it: by its name, or by the ending of its sensor's.
TEST(Image, TheDocumentNamesEverySetting) {
  std::ifstream file(in_source("/docs/link-protocol.md"));
  const std::string text{std::istreambuf_iterator<char>(file), {}};
  ASSERT_FALSE(text.empty());
  for (const Setting& s : settings()) {
    std::string name = s.name;
    for (const std::string sensor : {"accelerometer_", "compass_"})
      if (name.starts_with(sensor) && name != "compass_reversed") name = name.substr(sensor.size());
    EXPECT_NE(text.find('`' + name + '`'), std::string::npos) << s.name;
  }
}

// RFC 8949: what the document says of widths, on the bytes themselves.
TEST(Image, NumbersAreFloatsOfTheLeastExactWidth) {
  Rig rig = demo();
  rig.outputs[0].low_us = 1000.5, rig.outputs[0].mix.flap = 0.3;
  const std::string bytes = image_bytes(image_of(rig));
  const auto after = [&](const std::string& name) {
    const auto at = bytes.find(name);
    EXPECT_NE(at, std::string::npos) << name;
    return static_cast<unsigned char>(bytes[at + name.size()]);
  };
  EXPECT_EQ(after("low_us"), 0xfa) << "1000.5 is exact in 32 bits";
  EXPECT_EQ(after("flap"), 0xfb) << "0.3 is not";
  EXPECT_EQ(after("centre_us"), 0xfa) << "a whole number is a float as well";
}

TEST(WriteTransaction, StagesVerifiesCommitsAndReadsBack) {
  Controller controller;
  const Image image = image_of(demo());
  EXPECT_TRUE(play(controller, image).done());
  EXPECT_EQ(controller.held, image_bytes(image));
}

TEST(WriteTransaction, StopsAtTheFirstRefusalAndSaysWhich) {
  for (const char* step : {"stage_begin", "stage", "verify", "commit", "read"}) {
    Controller controller{step, {{"ok", false}, {"refused", "not today"}}, "", ""};
    const WriteTransaction t = play(controller, image_of(demo()));
    EXPECT_TRUE(t.failed()) << step;
    EXPECT_NE(t.problem().find("not today"), std::string::npos) << t.problem();
    EXPECT_NE(t.problem().find(label_of(step)), std::string::npos) << t.problem();
    EXPECT_FALSE(t.next());
    if (std::string(step) != "read") EXPECT_TRUE(controller.held.empty()) << "nothing was committed";
  }
}

TEST(WriteTransaction, WhatIsReadBackMustBeWhatWasWritten) {
  std::string other = image_bytes(image_of(demo()));
  other.back() = static_cast<char>(other.back() ^ 1);
  for (const Json& reply :
       {Json{{"ok", true}, {"image", Json::binary(std::vector<std::uint8_t>(other.begin(), other.end()))}},
        Json{{"ok", true}}, Json{{"ok", true}, {"image", "text"}}}) {
    Controller controller{"read", reply, "", ""};
    const WriteTransaction t = play(controller, image_of(demo()));
    EXPECT_TRUE(t.failed());
    EXPECT_NE(t.problem().find("read back"), std::string::npos);
  }
}

TEST(Image, HostileBytesAreRefusedWithAReason) {
  const std::string good = image_bytes(image_of(demo()));
  ASSERT_TRUE(image_from_bytes(good, "x"));
  std::mt19937 random(13);
  int refused = 0;
  for (int round = 0; round < 3000; ++round) {
    std::string hurt = good;
    for (unsigned k = 0; k < 1 + random() % 4; ++k) hurt[random() % hurt.size()] = static_cast<char>(random());
    if (random() % 3 == 0) hurt.resize(random() % hurt.size());
    const auto image = image_from_bytes(hurt, "x");
    if (!image) {
      ++refused;
      EXPECT_FALSE(image.error().what.empty());
    } else {
      for (const Output& o : configured(*image).outputs) EXPECT_LT(o.low_us, o.high_us);
    }
  }
  EXPECT_GT(refused, 500);
}

TEST(Cbor, WhatAPeerThatMeansNoGoodCouldSendIsRefused) {
  const auto refused = [](std::string bytes) { return !parse_cbor(bytes, "x"); };
  EXPECT_TRUE(refused(std::string(30000, static_cast<char>(0x81)))) << "nested without end";
  EXPECT_TRUE(refused(std::string(30000, static_cast<char>(0xa1))));
  EXPECT_TRUE(refused("\x9b\x7f\xff\xff\xff\xff\xff\xff\xff")) << "an array longer than the world";
  EXPECT_TRUE(refused("\xbb\x7f\xff\xff\xff\xff\xff\xff\xff"));
  EXPECT_TRUE(refused("\x7b\x7f\xff\xff\xff\xff\xff\xff\xff"));
  EXPECT_TRUE(refused("\x9f\x01\xff")) << "unknown length";
  EXPECT_TRUE(refused("\xa1\x01\x02")) << "a key that is no text";
  EXPECT_TRUE(refused("\x62\xff\xfe\x01")) << "something behind the value";
  EXPECT_TRUE(refused(""));
  EXPECT_EQ(*parse_cbor("\xa1\x61\x61\x82\x01\x20", "x"), Json::parse(R"({"a":[1,-1]})"));
  std::mt19937 random(4);
  for (int round = 0; round < 20000; ++round) {
    std::string bytes(random() % 40, 'x');
    for (char& c : bytes) c = static_cast<char>(random());
    if (const auto json = parse_cbor(bytes, "x")) (void)json->dump(-1, ' ', false, Json::error_handler_t::replace);
  }
}

TEST(Image, BytesDoNotDependOnTheOrderInTheRig) {
  Rig rig = demo();
  const std::string bytes = image_bytes(image_of(rig));
  std::reverse(rig.outputs.begin(), rig.outputs.end());
  std::reverse(rig.radio.channels.begin(), rig.radio.channels.end());
  EXPECT_EQ(image_bytes(image_of(rig)), bytes);
  rig.outputs[0].centre_us = 1501;
  EXPECT_NE(image_hash(image_bytes(image_of(rig))), image_hash(bytes));
  rig = demo();
  rig.radio.channels[0].sub_trim_us = 12;
  rig.name = "Another";
  EXPECT_EQ(image_bytes(image_of(rig)), bytes) << "what the controller does not hold is no part of it";
}

/// Boards of before: two settings have other names, lists are texts. What they hold is read, and they are written to in
/// their own words; nothing gets lost on the way.
TEST(Image, ProtocolOneIsReadAndWritten) {
  Rig rig = demo();
  rig.modes = {{5, 900, 1300, "manual", {}}, {6, 1500.5, 2100, "return", {}}};
  rig.home.triggers = {{HomeTrigger::fence, TriggerAction::come_home, 500, {}},
                       {HomeTrigger::no_fix, TriggerAction::warn, {}, {}}};
  rig.home.goggles = {GogglesLine::volts, GogglesLine::height};
  rig.saturation = Saturation::roll_first;
  rig.outputs[0].passthrough_channel = 7;
  const Image image = image_of(rig);
  const std::string old = image_bytes(image, 1);
  const Json json = Json::from_cbor(old);
  EXPECT_EQ(json["modes"], "manual 5 900 1300; return 6 1500.5 2100");
  EXPECT_EQ(json["triggers"], "fence come_home 500; no_fix warn");
  EXPECT_EQ(json["goggles"], "volts; height");
  EXPECT_EQ(json["sharing"], "roll_first");
  EXPECT_FALSE(json.contains("saturation"));
  for (const Json& output : json["outputs"])
    if (output["socket"] == rig.outputs[0].socket) EXPECT_EQ(output["passes"], 7);
  const auto back = image_from_bytes(old, "x");
  ASSERT_TRUE(back) << back.error().text();
  EXPECT_EQ(*back, image);
  EXPECT_EQ(image_bytes(*back, 1), old);

  const Json now = Json::from_cbor(image_bytes(image));
  EXPECT_EQ(now["modes"][1], (Json{{"mode", "return"}, {"channel", 6}, {"from_us", 1500.5}, {"to_us", 2100}}));
  EXPECT_EQ(now["goggles"], (Json{"volts", "height"}));
  EXPECT_EQ(now["saturation"], "roll_first");

  for (const char* bad : {"", ";", "manual", "manual 5 900", "manual 0 900 1300", "manual 5.5 900 1300",
                          "manual 5 900 nan", "manual 5 900 99999", "manual 5 900 1300 7", "manual 5 1300 900"}) {
    Json hurt = json;
    hurt["modes"] = bad;
    std::string bytes;
    Json::to_cbor(hurt, bytes);
    const auto refused = image_from_bytes(bytes, "x");
    ASSERT_FALSE(refused) << bad;
    EXPECT_NE(refused.error().where.find("/modes"), std::string::npos) << bad;
  }
}

/// Every setting of the table, changed by itself: it is found, said, taken over, and nothing else is.
TEST(Image, EverySettingIsFoundSaidAndTakenOverByItself) {
  const Rig rig = demo();
  const Image here = image_of(rig);
  Rig lists;
  lists.modes = {{7, 900, 1300, "manual", {}}, {8, 1500, 2100, "return", {}}};
  lists.home.triggers = {{HomeTrigger::fence, TriggerAction::come_home, 500, {}},
                         {HomeTrigger::no_fix, TriggerAction::warn, {}, {}}};
  lists.home.goggles = {GogglesLine::volts, GogglesLine::height};
  int tried = 0;
  for (const Setting& s : settings()) {
    const std::string subject = s.of == SettingOf::output    ? "slot_1"
                                : s.of == SettingOf::port    ? "serial_4"
                                : s.of == SettingOf::channel ? "2"
                                                             : "";
    const SettingId id{s.of, subject, s.name};
    Image board = here;
    const SettingValue now = here.value(id);
    SettingValue other;
    if (s.kind == SettingKind::flag)
      other = std::holds_alternative<bool>(now) ? !std::get<bool>(now) : true;
    else if (s.name == "low_us" || s.name == "centre_us" || s.name == "high_us")
      other = s.name == "low_us" ? 1010.0 : s.name == "high_us" ? 1990.0 : 1510.0;
    else if (s.kind == SettingKind::number)
      other = std::holds_alternative<double>(now) && std::get<double>(now) == s.span.least ? s.span.most : s.span.least;
    else
      other = s.kind == SettingKind::list   ? s.get(lists, "")
              : s.kind == SettingKind::name ? SettingValue("arrow_tail_top_up")
                                            : SettingValue(s.words.back());
    for (std::size_t k = 0; (other == now || other == s.usual) && k < s.words.size(); ++k) other = s.words[k];
    ASSERT_EQ(misfit(s, other), "") << s.name;
    board.values[id] = other;
    // The bytes carry it.
    const auto again = image_from_bytes(image_bytes(board), "x");
    ASSERT_TRUE(again) << s.name << ": " << again.error().text();
    EXPECT_EQ(*again, board) << s.name;
    const auto found = differences(here, board);
    ASSERT_EQ(found.size(), 1u) << s.name;
    EXPECT_EQ(found[0].settings, (std::vector<SettingId>{id})) << s.name;
    EXPECT_NE(found[0].words.find(value_words(s, other)), std::string::npos) << found[0].words;
    const Rig taken = with_board_parts(rig, board, {found[0].part});
    EXPECT_EQ(image_of(taken).value(id), other) << s.name;
    // A learned end makes its fellows learned, too, where they were read.
    if (s.of != SettingOf::channel || s.name == "function")
      EXPECT_TRUE(differences(image_of(taken), board).empty()) << s.name;
    EXPECT_TRUE(differences(image_of(with_board_parts(rig, board, {})), here).empty());
    ++tried;
  }
  EXPECT_GE(tried, 20);
}

TEST(Image, ABoardWithMoreOrFewerOutputsIsTakenOver) {
  const Rig rig = demo();
  Rig other = rig;
  other.outputs.erase(other.outputs.begin());
  Output extra;
  extra.id = "of the board";
  extra.socket = "slot_8";
  extra.mix.flap = 0.5;
  other.outputs.push_back(extra);
  const Image board = image_of(other);
  const auto found = differences(image_of(rig), board);
  ASSERT_EQ(found.size(), 2u);
  EXPECT_EQ(found[0].words, "not used on the board, used in the rig");
  EXPECT_EQ(found[1].words, "used on the board, not used in the rig");
  const Rig grown = with_board_parts(rig, board, {"output slot_8"});
  ASSERT_EQ(grown.outputs.size(), rig.outputs.size() + 1);
  EXPECT_EQ(grown.outputs.back().mix.flap, 0.5);
  EXPECT_NE(grown.outputs.back().id, rig.outputs.back().id);
  EXPECT_TRUE(rig_from_json(Json::parse(rig_text(grown)), "x")) << "the grown rig can be saved and read";
}

}  // namespace
}  // namespace rigging::link
