#include "link/frame.h"
#include "base/json.h"

#include <gtest/gtest.h>

#include <random>

#include "link/client.h"

namespace rigging::link {
namespace {

std::string bytes(std::initializer_list<int> values) {
  std::string out;
  for (const int v : values) out += static_cast<char>(v);
  return out;
}

// Check value of CRC-32 (IEEE 802.3).
TEST(Frame, CrcCheckValue) { EXPECT_EQ(crc32("123456789"), 0xCBF43926u); }

// Cheshire and Baker, "Consistent Overhead Byte Stuffing", IEEE/ACM Transactions on Networking 7 (1999): the rule's own
// cases.
TEST(Frame, CobsExamples) {
  const auto both = [](const std::string& plain, const std::string& stuffed) {
    EXPECT_EQ(cobs_encode(plain), stuffed);
    EXPECT_EQ(*cobs_decode(stuffed), plain);
  };
  both(bytes({0}), bytes({1, 1}));
  both(bytes({0, 0}), bytes({1, 1, 1}));
  both(bytes({0x11, 0x22, 0, 0x33}), bytes({3, 0x11, 0x22, 2, 0x33}));
  both(bytes({0x11, 0x22, 0x33, 0x44}), bytes({5, 0x11, 0x22, 0x33, 0x44}));
  both(bytes({0x11, 0, 0, 0}), bytes({2, 0x11, 1, 1, 1}));
  std::string run;
  for (int i = 1; i <= 254; ++i) run += static_cast<char>(i);
  both(run, '\xff' + run);
  both('\0' + run, bytes({1, 0xff}) + run);
  both(run + '\xff', '\xff' + run + bytes({2, 0xff}));
}

TEST(Frame, CobsRoundTripsAndRefusesNonsense) {
  std::mt19937 random(3);
  for (int round = 0; round < 500; ++round) {
    std::string plain(random() % 700, 'x');
    for (char& c : plain) c = static_cast<char>(random() % 3 ? random() % 256 : 0);
    const std::string stuffed = cobs_encode(plain);
    EXPECT_EQ(stuffed.find('\0'), std::string::npos);
    EXPECT_EQ(*cobs_decode(stuffed), plain);
  }
  EXPECT_FALSE(cobs_decode(bytes({5, 1, 1})));
  EXPECT_FALSE(cobs_decode(bytes({3, 0, 1})));
}

// RFC 8949, appendix A.
TEST(Frame, CborExamples) {
  const auto encoded = [](const Json& json) {
    std::string out;
    Json::to_cbor(json, out);
    return out;
  };
  EXPECT_EQ(encoded(1000000), bytes({0x1a, 0x00, 0x0f, 0x42, 0x40}));
  EXPECT_EQ(encoded(-1000), bytes({0x39, 0x03, 0xe7}));
  EXPECT_EQ(encoded("IETF"), bytes({0x64, 0x49, 0x45, 0x54, 0x46}));
  EXPECT_EQ(encoded({{"a", 1}, {"b", {2, 3}}}), bytes({0xa2, 0x61, 0x61, 0x01, 0x61, 0x62, 0x82, 0x02, 0x03}));
  EXPECT_EQ(encoded(Json::binary({1, 2, 3, 4})), bytes({0x44, 0x01, 0x02, 0x03, 0x04}));
}

TEST(Frame, ComesThroughInAnyPieces) {
  const Json message{{"id", 7}, {"do", "read"}, {"x", Json::binary({0, 0, 255, 0})}};
  const std::string wire = encode_frame(message);
  for (std::size_t cut = 0; cut <= wire.size(); ++cut) {
    FrameReader reader;
    reader.feed(std::string_view(wire).substr(0, cut));
    reader.feed(std::string_view(wire).substr(cut));
    ASSERT_FALSE(reader.empty());
    const Received received = reader.take();
    EXPECT_EQ(std::get<Json>(received), message);
    EXPECT_TRUE(reader.empty());
  }
}

TEST(Frame, AnyFlippedBitIsNoticedAndTheNextFrameStillArrives) {
  const std::string wire = encode_frame({{"id", 1}, {"do", "hello"}}), next = encode_frame({{"id", 2}, {"do", "read"}});
  for (std::size_t i = 0; i < wire.size(); ++i)
    for (int bit = 0; bit < 8; ++bit) {
      std::string hurt = wire;
      hurt[i] = static_cast<char>(hurt[i] ^ (1 << bit));
      FrameReader reader;
      reader.feed(hurt + '\0' + next);
      int good = 0;
      Json last;
      while (!reader.empty()) {
        const Received r = reader.take();
        if (const Json* message = std::get_if<Json>(&r)) {
          ++good;
          last = *message;
        }
      }
      EXPECT_EQ(good, 1) << "byte " << i << " bit " << bit;
      EXPECT_EQ(last["id"], 2);
    }
}

TEST(Frame, GarbageAndEndlessFramesAreSurvived) {
  std::mt19937 random(9);
  FrameReader reader;
  for (int i = 0; i < 200000; ++i) reader.feed(std::string(1, static_cast<char>(random() % 256)));
  int good = 0, bad = 0;
  while (!reader.empty()) (std::holds_alternative<Json>(reader.take()) ? good : bad)++;
  EXPECT_EQ(good, 0);
  EXPECT_GT(bad, 100);
  reader.feed('\0' + std::string(500000, 'a') + '\0' + encode_frame({{"id", 5}}));
  bool too_long = false;
  while (!reader.empty()) {
    const Received r = reader.take();
    if (const Error* e = std::get_if<Error>(&r))
      too_long = too_long || e->what.find("without an end") != std::string::npos;
    else
      EXPECT_EQ(std::get<Json>(r)["id"], 5);
  }
  EXPECT_TRUE(too_long);
}

TEST(Client, ReportsForeignRepliesAndKeepsIts) {
  Client client;
  client.ask("hello");
  client.ask("read");
  auto got = client.feed(encode_frame({{"id", 99}, {"ok", true}}) + encode_frame({{"id", 2}, {"ok", true}}) +
                         encode_frame({{"id", 2}, {"ok", true}}) + encode_frame({{"id", 1}, {"ok", "maybe"}}) +
                         encode_frame({{"ok", true}}));
  ASSERT_EQ(got.size(), 5u);
  EXPECT_TRUE(std::holds_alternative<Error>(got[0])) << "an id nobody asked";
  EXPECT_EQ(std::get<Reply>(got[1]).request, "read");
  EXPECT_TRUE(std::holds_alternative<Error>(got[2])) << "answered twice";
  EXPECT_TRUE(std::holds_alternative<Error>(got[3])) << "ok is no truth value";
  EXPECT_TRUE(std::holds_alternative<Error>(got[4]));
  EXPECT_EQ(client.open_requests(), 1u);
}

}  // namespace
}  // namespace rigging::link
