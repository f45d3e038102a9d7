#include <gtest/gtest.h>

#include "base/json.h"
#include "bench_builder.h"
#include "look/literals.h"
#include "look/look.h"
#include "stations/sticks/reach_rulers.h"
#include "stations/sticks/signal_strip.h"

namespace rigging::app {
namespace {

TEST(ReachRulers, InkSaysWhetherAStickLands) {
  ReachRulers rulers;
  rulers.resize(700, 80);
  ChannelLine line;
  line.channel.function = ChannelFunction::roll;
  line.verdict = "not read yet";
  rulers.set_lines({line}, Transmitter{});
  EXPECT_EQ(pixels(rulers, inks().rust) + pixels(rulers, inks().moss), 0);
  EXPECT_GT(pixels(rulers, inks().slate), 50) << "the wanted ticks";
  line.read = true;
  line.channel.low_us = 1060;
  line.channel.centre_us = 1500;
  line.channel.high_us = 1930;
  line.state = ChannelLine::State::off;
  rulers.set_lines({line}, Transmitter{});
  EXPECT_GT(pixels(rulers, inks().rust), 100);
  line.state = ChannelLine::State::lands;
  rulers.set_lines({line}, Transmitter{});
  EXPECT_EQ(pixels(rulers, inks().rust), 0);
  EXPECT_GT(pixels(rulers, inks().moss), 100);
  EXPECT_EQ(pixels(rulers, inks().teal), 0) << "nothing is heard yet";
  ChannelFrame now;
  now.channels = 4;
  now.pulse_us.fill(1300);
  rulers.set_now(&now);
  EXPECT_GT(pixels(rulers, inks().teal), 10) << "where the stick is";
  EXPECT_TRUE(rulers.accessibleDescription().contains(u"roll stick: not read yet"_s));
}

TEST(SignalStrip, LostFramesAndGapsAreSeen) {
  SignalStrip strip;
  strip.resize(600, 90);
  strip.set_channels({{1, u"roll"_s}});
  std::deque<ChannelFrame> frames;
  for (int i = 0; i < 800; ++i) {
    ChannelFrame f;
    f.channels = 4;
    f.t_us = i * 9000.0 + (i > 400 ? 900000 : 0);
    f.pulse_us.fill(1500);
    frames.push_back(f);
  }
  strip.set_frames(&frames, u"words"_s);
  EXPECT_EQ(pixels(strip, inks().rust), 0);
  const int whole = pixels(strip, inks().ink);
  EXPECT_GT(whole, 300);
  for (int i = 100; i < 140; ++i) frames[static_cast<std::size_t>(i)].lost = true;
  strip.set_frames(&frames, u"words"_s);
  EXPECT_GT(pixels(strip, inks().rust), 30);
  EXPECT_EQ(strip.accessibleDescription(), u"words"_s);
  strip.set_frames(nullptr, QString());
  EXPECT_LT(pixels(strip, inks().ink), whole / 4) << "nothing heard, nothing drawn";
}

}  // namespace
}  // namespace rigging::app
