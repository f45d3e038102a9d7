#include <gtest/gtest.h>

#include <bitset>
#include <cmath>
#include <numbers>
#include <random>

#include "base/number.h"
#include "signal/capture.h"
#include "signal/reception.h"

namespace rigging {
namespace {

ChannelFrame frame_of(std::mt19937& random, int channels, double least = 988, double most = 2012) {
  ChannelFrame f;
  f.channels = static_cast<std::uint8_t>(channels);
  for (int i = 0; i < channels; ++i)
    f.pulse_us[static_cast<std::size_t>(i)] =
        static_cast<float>(std::uniform_real_distribution<double>(least, most)(random));
  return f;
}

void near(const ChannelFrame& a, const ChannelFrame& b, double by) {
  ASSERT_GE(a.channels, b.channels);
  for (std::size_t i = 0; i < b.channels; ++i)
    EXPECT_NEAR(static_cast<double>(a.pulse_us[i]), static_cast<double>(b.pulse_us[i]), by) << i;
}

// Bits taken one by one from a string of the wire, least significant first: shares nothing with the decoder.
double channel_by_bits(const std::string& bytes, int channel) {
  std::string wire;
  for (std::size_t i = 1; i < 23; ++i) {
    std::string byte = std::bitset<8>(static_cast<unsigned char>(bytes[i])).to_string();
    wire += std::string(byte.rbegin(), byte.rend());
  }
  std::string bits = wire.substr(static_cast<std::size_t>(channel) * 11, 11);
  return 880 + 0.625 * static_cast<double>(std::bitset<11>(std::string(bits.rbegin(), bits.rend())).to_ulong());
}

TEST(InvertedSerial, EveryBitHasItsPlace) {
  std::mt19937 random(1);
  for (int round = 0; round < 200; ++round) {
    ChannelFrame sent = frame_of(random, 16);
    sent.lost = random() % 5 == 0;
    sent.failsafe = random() % 7 == 0;
    const std::string bytes = encode_inverted_serial(sent);
    ASSERT_EQ(bytes.size(), 25u);
    ByteDecoder decoder(Signal::inverted_serial);
    std::vector<ChannelFrame> got;
    decoder.feed(bytes, 0, got);
    decoder.finish(got);
    ASSERT_EQ(got.size(), 1u);
    near(got[0], sent, 0.3126);
    for (int i = 0; i < 16; ++i)
      EXPECT_DOUBLE_EQ(static_cast<double>(got[0].pulse_us[static_cast<std::size_t>(i)]), channel_by_bits(bytes, i));
    EXPECT_EQ(got[0].lost, sent.lost);
    EXPECT_EQ(got[0].failsafe, sent.failsafe);
    EXPECT_EQ(decoder.tally().lost, sent.lost ? 1u : 0u);
  }
}

// 1500 µs is the raw value 992, 1000 and 2000 µs are 192 and 1792 (common practice for this signal).
TEST(InvertedSerial, RoundPulsesAreRoundNumbers) {
  ChannelFrame f;
  f.channels = 16;
  f.pulse_us.fill(1500);
  std::string bytes = encode_inverted_serial(f);
  EXPECT_EQ(static_cast<unsigned char>(bytes[1]) | (static_cast<unsigned char>(bytes[2]) & 7) << 8, 992);
  f.pulse_us.fill(2000);
  bytes = encode_inverted_serial(f);
  EXPECT_EQ(static_cast<unsigned char>(bytes[1]) | (static_cast<unsigned char>(bytes[2]) & 7) << 8, 1792);
}

class Resync : public ::testing::TestWithParam<Signal> {};

TEST_P(Resync, FramesAreFoundAgainBehindGarbageInAnyPieces) {
  const Signal signal = GetParam();
  for (unsigned seed = 0; seed < 60; ++seed) {
    std::mt19937 random(seed);
    std::string bytes;
    std::vector<ChannelFrame> sent;
    std::vector<bool> follows_garbage;
    std::uint8_t counter = 0;
    for (int i = 0; i < 60; ++i) {
      const bool garbage = i % 10 == 5;
      if (garbage)
        for (unsigned n = 1 + random() % 70; n > 0; --n) bytes += static_cast<char>(random());
      sent.push_back(frame_of(random, 16));
      follows_garbage.push_back(garbage);
      bytes += signal == Signal::inverted_serial ? encode_inverted_serial(sent.back())
                                                 : encode_two_way(sent.back(), counter++);
    }
    ByteDecoder decoder(signal);
    std::vector<ChannelFrame> got;
    for (std::size_t at = 0; at < bytes.size();) {
      const std::size_t n = 1 + random() % 40;
      decoder.feed(std::string_view(bytes).substr(at, n), got);
      at += n;
    }
    decoder.finish(got);
    // Every frame comes out, in order; noise that looks like a frame may add one (the inverted signal has no check
    // sum).
    std::size_t matched = 0, at = 0;
    for (const ChannelFrame& g : got)
      for (std::size_t i = at; i < sent.size(); ++i)
        if (std::abs(g.pulse_us[3] - sent[i].pulse_us[3]) < 0.4f &&
            std::abs(g.pulse_us[9] - sent[i].pulse_us[9]) < 0.4f) {
          ++matched;
          at = i + 1;
          break;
        }
    EXPECT_GE(matched, sent.size() - (signal == Signal::inverted_serial ? 6u : 0u)) << "seed " << seed;
    EXPECT_LE(got.size(), sent.size() + (signal == Signal::inverted_serial ? 2u : 0u));
    EXPECT_GT(decoder.tally().skipped, 0u);
    EXPECT_GE(decoder.tally().resyncs, 3u);
  }
}
INSTANTIATE_TEST_SUITE_P(Both, Resync, ::testing::Values(Signal::inverted_serial, Signal::two_way_serial),
                         [](const auto& i) { return std::string(name_of(i.param)); });

// Sticks at rest repeat their bytes for ever, the marks of a frame among them: the wrong place would be held for ever,
// too.
TEST(InvertedSerial, AFrameInsideAFrameIsNotBelieved) {
  ChannelFrame f;
  f.channels = 16;
  f.pulse_us.fill(1500);
  std::string bytes = encode_inverted_serial(f);
  bytes[11] = 0x00;
  bytes[12] = 0x0F;  // bytes 12 … 11 look like a frame, over and over
  std::string many = bytes.substr(7);
  for (int i = 0; i < 50; ++i) many += bytes;
  ByteDecoder decoder(Signal::inverted_serial);
  std::vector<ChannelFrame> got;
  decoder.feed(many, got);
  decoder.finish(got);
  ASSERT_GE(got.size(), 50u);
  EXPECT_EQ(decoder.tally().skipped, 18u) << "only the cut first frame";
  EXPECT_NEAR(static_cast<double>(got[0].pulse_us[0]), 1500, 0.4);
}

TEST(InvertedSerial, SilenceEndsACutFrame) {
  std::mt19937 random(4);
  const ChannelFrame a = frame_of(random, 16), b = frame_of(random, 16);
  ByteDecoder decoder(Signal::inverted_serial);
  std::vector<ChannelFrame> got;
  decoder.feed(encode_inverted_serial(a), 0, got);
  decoder.feed(encode_inverted_serial(a).substr(0, 13), 9000, got);
  decoder.feed(encode_inverted_serial(b), 18000, got);
  decoder.finish(got);
  ASSERT_EQ(got.size(), 2u);
  near(got[1], b, 0.32);
  EXPECT_NEAR(got[1].t_us - got[0].t_us, 18000, 1);
  EXPECT_EQ(decoder.tally().damaged, 1u);
  EXPECT_EQ(decoder.tally().skipped, 13u);
}

TEST(InvertedSerial, NoiseGivesPracticallyNothing) {
  std::mt19937 random(9);
  std::string noise(1 << 20, '\0');
  for (char& c : noise) c = static_cast<char>(random());
  ByteDecoder decoder(Signal::inverted_serial);
  std::vector<ChannelFrame> got;
  decoder.feed(noise, got);
  decoder.finish(got);
  EXPECT_LT(got.size(), 40u);
  EXPECT_EQ(decoder.tally().skipped + 25 * got.size(), noise.size());
}

TEST(TwoWay, CountsMissingFramesAndReportsTheLink) {
  std::mt19937 random(2);
  ByteDecoder decoder(Signal::two_way_serial);
  std::vector<ChannelFrame> got;
  const ChannelFrame f = frame_of(random, 12);
  std::string damaged = encode_two_way(f, 14);
  damaged[9] = static_cast<char>(damaged[9] ^ 0x10);
  decoder.feed(encode_two_way(f, 250), got);
  decoder.feed(encode_two_way(f, 251), got);
  decoder.feed(encode_two_way(f, 2), got);  // 252, 253, 254, 255, 0, 1 are missing
  decoder.feed(encode_link_report({93, -71}), got);
  decoder.feed(damaged, got);
  decoder.finish(got);
  ASSERT_EQ(got.size(), 3u);
  EXPECT_EQ(decoder.tally().lost, 6u);
  EXPECT_EQ(decoder.tally().damaged, 1u);
  EXPECT_EQ(decoder.link_report(), (LinkReport{93, -71}));
  near(got[2], f, 0.2501);
  EXPECT_EQ(got[2].channels, 12);
}

// CRC-16 with polynomial 0x1021 and start value 0xFFFF over "123456789" is 0x29B1 (catalogued check value, from
// memory): here over a frame whose kind and length are that text's first two characters would not fit, so the sum of a
// real frame is computed bit by bit.
TEST(TwoWay, TheCheckSumIsTheDocumentedOne) {
  const auto sum = [](std::string_view bytes) {
    unsigned crc = 0xFFFF;
    for (const char c : bytes)
      for (int bit = 7; bit >= 0; --bit) {
        const bool top = (crc >> 15 & 1) != (static_cast<unsigned char>(c) >> bit & 1u);
        crc = (crc << 1 & 0xFFFF) ^ (top ? 0x1021u : 0u);
      }
    return crc;
  };
  EXPECT_EQ(sum("123456789"), 0x29B1u);
  const std::string frame = encode_link_report({100, -40});
  const unsigned expected = sum(std::string_view(frame).substr(2, frame.size() - 4));
  EXPECT_EQ(static_cast<unsigned char>(frame[frame.size() - 2]), expected >> 8);
  EXPECT_EQ(static_cast<unsigned char>(frame.back()), expected & 0xFF);
}

TEST(Pulses, WidthsOfEightLinesAndASummedLine) {
  std::mt19937 random(3);
  for (const Signal signal : {Signal::pulse, Signal::summed}) {
    EdgeDecoder decoder(signal);
    std::vector<ChannelFrame> sent, got;
    for (int i = 0; i < 50; ++i) {
      sent.push_back(frame_of(random, 8));
      for (const Edge& e :
           signal == Signal::pulse ? encode_pulses(sent.back(), i * 22500.0) : encode_summed(sent.back(), i * 22500.0))
        decoder.feed(e, got);
    }
    decoder.finish(got);
    // A summed line must be silent once before its place is known: the first frame is given up. The last one has no
    // pause behind it, but its channels are all there.
    const std::size_t first = signal == Signal::summed ? 1 : 0;
    ASSERT_EQ(got.size(), sent.size() - first) << name_of(signal);
    for (std::size_t i = 0; i < got.size(); ++i) near(got[i], sent[i + first], 1e-3);
    EXPECT_EQ(decoder.tally().damaged, 0u);
  }
}

TEST(Pulses, AGlitchSpoilsOneSummedFrameOnly) {
  std::mt19937 random(3);
  const ChannelFrame f = frame_of(random, 8);
  EdgeDecoder decoder(Signal::summed);
  std::vector<ChannelFrame> got;
  for (int i = 0; i < 10; ++i) {
    auto edges = encode_summed(f, i * 22500.0);
    if (i == 4) edges.insert(edges.begin() + 5, {{edges[4].t_us + 20, true, 0}, {edges[4].t_us + 25, false, 0}});
    for (const Edge& e : edges) decoder.feed(e, got);
  }
  decoder.finish(got);
  EXPECT_EQ(got.size(), 8u) << "all but the first, whose beginning was not seen, and the spoilt one";
  EXPECT_EQ(decoder.tally().damaged, 1u);
  for (const ChannelFrame& g : got) near(g, f, 1e-3);
}

TEST(Pulses, AMissingEdgeMakesNoGhostFrame) {
  std::mt19937 random(4);
  const ChannelFrame f = frame_of(random, 8, 1200, 1800);
  // One rising mark is lost somewhere: its two channels merge, into what looks like a pause or like a glitch.
  for (std::size_t lost = 1; lost < 8; ++lost)
    for (const int bad : {0, 1, 5}) {
      EdgeDecoder decoder(Signal::summed);
      std::vector<ChannelFrame> got;
      for (int i = 0; i < 12; ++i) {
        auto edges = encode_summed(f, i * 22500.0);
        if (i == bad)
          edges.erase(edges.begin() + static_cast<std::ptrdiff_t>(2 * lost),
                      edges.begin() + static_cast<std::ptrdiff_t>(2 * lost + 2));
        for (const Edge& e : edges) decoder.feed(e, got);
      }
      decoder.finish(got);
      EXPECT_GE(got.size(), 9u) << lost << ' ' << bad;
      for (const ChannelFrame& g : got) {
        EXPECT_EQ(g.channels, 8) << lost << ' ' << bad;
        near(g, f, 1e-3);
      }
    }
  // The same where each channel has a line of its own.
  EdgeDecoder lines(Signal::pulse);
  std::vector<ChannelFrame> got;
  for (int i = 0; i < 12; ++i) {
    auto edges = encode_pulses(f, i * 20000.0);
    if (i == 5) std::erase_if(edges, [](const Edge& e) { return e.line == 3 && !e.high; });
    for (const Edge& e : edges) lines.feed(e, got);
  }
  lines.finish(got);
  EXPECT_EQ(got.size(), 11u);
  for (const ChannelFrame& g : got) near(g, f, 1e-3);
  // A receiver that is set to fewer channels is believed after three frames.
  const ChannelFrame six = frame_of(random, 6, 1200, 1800);
  EdgeDecoder changed(Signal::summed);
  got.clear();
  for (int i = 0; i < 20; ++i)
    for (const Edge& e : encode_summed(i < 10 ? f : six, i * 22500.0)) changed.feed(e, got);
  changed.finish(got);
  EXPECT_EQ(got.back().channels, 6);
}

/// Bits of a serial line as levels, written bit by bit: start, eight data bits lowest first, even parity and two stop
/// bits, or one stop bit without parity.
void send(std::vector<std::pair<double, int>>& line, double t, const std::string& bytes, double bit_us, bool parity,
          bool idle_high) {
  const auto put = [&](int bit) {
    const int level = (bit != 0) == idle_high ? 1 : 0;
    if (line.empty() || line.back().second != level) line.emplace_back(t, level);
    t += bit_us;
  };
  for (const char c : bytes) {
    const auto value = static_cast<unsigned char>(c);
    put(0);
    int ones = 0;
    for (int i = 0; i < 8; ++i) {
      put(value >> i & 1);
      ones += value >> i & 1;
    }
    if (parity) put(ones % 2);
    put(1);
    if (parity) put(1);
  }
}

TEST(Capture, SerialSignalsMayBeGivenAsLevels) {
  std::mt19937 random(12);
  for (const Signal signal : {Signal::inverted_serial, Signal::two_way_serial})
    for (const bool turned : {false, true}) {
      const bool inverted = signal == Signal::inverted_serial;
      const double bit_us = inverted ? 10 : 1e6 / 420000;
      // The inverted signal rests low on the wire; behind an inverter it rests high.
      const bool idle_high = inverted == turned;
      std::vector<std::pair<double, int>> line{{0, idle_high ? 1 : 0}};
      std::vector<ChannelFrame> sent;
      for (int i = 0; i < 12; ++i) {
        sent.push_back(frame_of(random, 8));
        send(line, 500 + i * 14000.0,
             inverted ? encode_inverted_serial(sent.back()) : encode_two_way(sent.back(), static_cast<std::uint8_t>(i)),
             bit_us, inverted, idle_high);
      }
      std::string text = "t_us,wire\n";
      for (const auto& [t, level] : line) text += number_text(t, 6) + "," + std::to_string(level) + "\n";
      for (const std::optional<Signal> asked : {std::optional<Signal>(), std::optional(signal)}) {
        const auto read = read_capture(text, "c", asked);
        ASSERT_TRUE(read) << read.error().text();
        EXPECT_EQ(read->signal, signal);
        const Decoded d = decode(*read);
        ASSERT_EQ(d.frames.size(), sent.size()) << name_of(signal);
        EXPECT_EQ(d.tally.skipped, 0u);
        for (std::size_t i = 0; i < sent.size(); ++i) near(d.frames[i], sent[i], 0.32);
      }
    }
}

TEST(Capture, TextFormsComeBackAndTheSignalIsFoundOut) {
  std::mt19937 random(8);
  for (const Signal signal : {Signal::pulse, Signal::summed, Signal::inverted_serial, Signal::two_way_serial}) {
    Capture capture;
    capture.signal = signal;
    capture.timed = true;
    std::vector<ChannelFrame> sent;
    for (int i = 0; i < 30; ++i) {
      const ChannelFrame f = frame_of(random, 8);
      sent.push_back(f);
      const double t = 1000 + i * 22500.0;
      if (signal == Signal::inverted_serial) capture.chunks.push_back({t, encode_inverted_serial(f)});
      if (signal == Signal::two_way_serial)
        capture.chunks.push_back({t, encode_two_way(f, static_cast<std::uint8_t>(i))});
      for (const Edge& e : signal == Signal::pulse    ? encode_pulses(f, t)
                           : signal == Signal::summed ? encode_summed(f, t)
                                                      : std::vector<Edge>{})
        capture.edges.push_back(e);
    }
    const auto read = read_capture(capture_text(capture), "c", std::nullopt);
    ASSERT_TRUE(read) << read.error().text();
    EXPECT_EQ(read->signal, signal);
    const Decoded d = decode(*read);
    const std::size_t first = signal == Signal::summed ? 1 : 0;
    ASSERT_EQ(d.frames.size(), sent.size() - first) << name_of(signal);
    for (std::size_t i = 0; i < d.frames.size(); ++i) near(d.frames[i], sent[i + first], 0.32);
    EXPECT_NEAR(d.frames[5].t_us - d.frames[4].t_us, 22500, 10000);
    if (!capture.chunks.empty()) {
      std::string raw;
      for (const auto& c : capture.chunks) raw += c.bytes;
      const auto bare = read_capture(raw, "raw", std::nullopt);
      ASSERT_TRUE(bare);
      EXPECT_EQ(bare->signal, signal);
      EXPECT_EQ(decode(*bare).frames.size(), sent.size());
    }
  }
}

/// A stick that is moved steps as the hand goes: that is no jitter.
TEST(Reception, TheLastDigitOfAReceiverIsNoMove) {
  ChannelFrame now;
  now.channels = 2;
  now.pulse_us = {1500, 988};
  std::optional<ChannelFrame> drawn;
  EXPECT_FALSE(moved(drawn, nullptr));
  EXPECT_TRUE(moved(drawn, &now));
  drawn = now;
  EXPECT_TRUE(moved(drawn, nullptr));
  EXPECT_FALSE(moved(drawn, &now));
  now.pulse_us[1] = 989;
  EXPECT_FALSE(moved(drawn, &now));
  now.pulse_us[1] = 990;
  EXPECT_TRUE(moved(drawn, &now));
  now.pulse_us[1] = 988;
  now.channels = 3;
  EXPECT_TRUE(moved(drawn, &now));
}

TEST(Reception, AMovingStickIsNoWornGimbal) {
  for (const double frame_us : {9000.0, 22500.0})
    for (const double noise : {0.3, 8.0}) {
      std::mt19937 random(5);
      std::normal_distribution<double> jitter(0, noise);
      std::deque<ChannelFrame> frames;
      for (int i = 0; i < 400; ++i) {
        ChannelFrame f;
        f.t_us = i * frame_us;
        f.channels = 2;
        f.pulse_us[0] =
            static_cast<float>(1500 + 480 * std::sin(2 * std::numbers::pi * 0.8 * f.t_us / 1e6) + jitter(random));
        f.pulse_us[1] = static_cast<float>(1500 + jitter(random));
        frames.push_back(f);
      }
      const auto h = habits(frames);
      ASSERT_EQ(h.size(), 2u);
      EXPECT_TRUE(h[0].moved);
      EXPECT_FALSE(h[1].moved);
      for (const ChannelHabit& c : h) {
        EXPECT_NEAR(c.noise_us / noise, 1, 0.25) << c.channel << " at " << frame_us;
        EXPECT_EQ(c.words.empty(), noise < 1) << c.words;
      }
    }
}

TEST(Capture, BadOnesSayWhereAndWhatWasExpected) {
  struct Bad {
    std::string content;
    std::optional<Signal> signal;
    const char *where, *expected;
  };
  for (const Bad& bad : {Bad{"", {}, "c", "serial bytes"},
                         {"t_us,bytes\n0,0g\n", {}, "c:2", "bytes such as"},
                         {"t_us,bytes\n0,0f0\n", {}, "c:2", "two digits"},
                         {"t_us,bytes\nx,0f\n", {}, "c:2", "a number"},
                         {"t_us,bytes\n5,0f\n4,0f\n", {}, "c:3", "in order"},
                         {"t_us,bytes\n1e300,0f\n", {}, "c:2", "three years"},
                         {"t_s,bytes\n-1e308,0f\n", {}, "c:2", "three years"},
                         {"t_us,line_1\n0,2\n", {}, "column line_1", "0 or 1"},
                         {"t_us,line_1\n0,0\n5,1\n1,0\n", {}, "row 3", "in order"},
                         {"# nothing\n", {}, "c", "heading"},
                         {"t_us,line_1,line_2\n0,0,0\n", Signal::inverted_serial, "c", "one column"},
                         {std::string(4000, '\x55'), {}, "c", "capture of a receiver"},
                         {std::string(40, '\x55'), Signal::summed, "c", "a table"},
                         {"time,level\n0,0\n", {}, "c", ""}}) {
    const auto read = read_capture(bad.content, "c", bad.signal);
    ASSERT_FALSE(read) << bad.content.substr(0, 40);
    EXPECT_NE(read.error().where.find(bad.where), std::string::npos) << read.error().text();
    EXPECT_NE(read.error().text().find(bad.expected), std::string::npos) << read.error().text();
  }
}

// A trigger in the middle of a capture makes the times before it negative: common practice of logic analysers.
TEST(Capture, ByteTablesMayBeginBeforeZero) {
  const auto capture = read_capture("t_us,bytes\n-4000.5,0f 01\n-3880,02\n0,03\n", "c", Signal::inverted_serial);
  ASSERT_TRUE(capture) << capture.error().text();
  ASSERT_EQ(capture->chunks.size(), 3u);
  EXPECT_EQ(capture->chunks[0].t_us, -4000.5);
  EXPECT_FALSE(read_capture("t_us,bytes\n-4,0f\n-5,0f\n", "c", Signal::inverted_serial)) << "still in order";
}

// A thousand captures that are cut, doubled and scribbled over: each is refused in words or read within bounds. With
// the sanitizers this is the test that matters for files from elsewhere.
TEST(Capture, AnyDamageIsRefusedOrSurvived) {
  std::mt19937 random(11);
  const std::vector<std::string> whole{
      "t_us,bytes\n0,0f e0 03 1f 58 c0 07 16 b0 80 05 2c 60 01 0b f8 c0 07 00 00 00 00 00 00 00 00\n14000,0f e0 03\n",
      "t_s,a\n0.0,0\n0.001,1\n0.0025,0\n0.02,1\n0.0215,0\n", "# note\nt_us,ch1,ch2\n0,1,0\n1500,0,1\n3000,0,0\n",
      std::string("\x0f\xe0\x03\x1f\x58\xc0\x07\x16\xb0\x80\x05\x2c\x60\x01\x0b\xf8\xc0\x07\0\0\0\0\0\0\0", 25)};
  const char* const words[] = {"nan", "inf",   "-1e308", "1e308", "",         ",",
                               "\n",  "t_us,", "\"",     "0x",    "\xff\xfe", "999999999999999999999"};
  int read = 0;
  for (int run = 0; run < 1000; ++run) {
    std::string text = whole[random() % whole.size()];
    for (unsigned n = random() % 4; n > 0; --n) text += text;
    for (unsigned n = 1 + random() % 6; n > 0; --n) {
      const std::size_t at = random() % (text.size() + 1);
      switch (random() % 4) {
        case 0: text.insert(at, words[random() % std::size(words)]); break;
        case 1: text.erase(at, random() % 9); break;
        case 2:
          if (at < text.size()) text[at] = static_cast<char>(random());
          break;
        default: text.resize(at);
      }
      if (text.empty()) text = "x";
    }
    const auto signal = std::array<std::optional<Signal>, 5>{
        std::nullopt, Signal::pulse, Signal::summed, Signal::inverted_serial, Signal::two_way_serial}[random() % 5];
    const auto capture = read_capture(text, "c", signal);
    if (!capture) {
      EXPECT_FALSE(capture.error().what.empty());
      continue;
    }
    ++read;
    EXPECT_LE(capture->chunks.size() + capture->edges.size(), text.size() + 16);
    EXPECT_LE(decode(*capture).frames.size(), text.size());
    const std::string again = capture_text(*capture);
    EXPECT_LT(again.size(), 64 * text.size() + 256);
  }
  EXPECT_GT(read, 50);
}

}  // namespace
}  // namespace rigging
