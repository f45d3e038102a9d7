#include <gtest/gtest.h>

#include <cmath>
#include <map>
#include <set>

#include "bench_rig.h"
#include "sheets/sketch.h"
#include "wiring/layout.h"

namespace rigging {
namespace {

TEST(Mating, IsSymmetricAndFitsTheTable) {
  const auto all = Words<TerminalKind>::list;
  std::map<TerminalKind, std::set<TerminalKind>> mates_of;
  for (const auto& [a, a_name] : all)
    for (const auto& [b, b_name] : all) {
      Terminal x, y;
      x.kind = a;
      y.kind = b;
      EXPECT_EQ(mates(x, y), mates(y, x)) << a_name << " " << b_name;
      if (mates(x, y)) mates_of[a].insert(b);
    }
  using T = TerminalKind;
  EXPECT_EQ(mates_of[T::inverted_serial], (std::set<T>{T::serial_inverting}))
      << "inverted serial needs a port that inverts (common practice)";
  EXPECT_EQ(mates_of[T::sense_output], (std::set<T>{T::sense_input}));
  EXPECT_EQ(mates_of[T::motor_in], (std::set<T>{T::motor_out}));
  EXPECT_EQ(mates_of[T::usb], std::set<T>{});
  EXPECT_EQ(mates_of[T::ground], std::set<T>{});
  EXPECT_TRUE(mates_of[T::output].count(T::supply)) << "a spare socket is a regulator's inlet (common practice)";
  // Plus never meets a wire that carries none by itself.
  for (const T data : {T::video_in, T::video_out, T::motor_in, T::motor_out})
    for (const T other : mates_of[data]) EXPECT_FALSE(carries_plus(other)) << word(data) << " " << word(other);
}

TEST(Mating, WhatATerminalAlsoServesAsCounts) {
  Terminal board, receiver;
  board.kind = TerminalKind::serial_inverting;
  receiver.kind = TerminalKind::summed_output;
  EXPECT_FALSE(mates(board, receiver));
  board.also = {TerminalKind::summed_input};
  EXPECT_TRUE(mates(board, receiver));
  EXPECT_TRUE(board.serves_as(TerminalKind::serial_inverting));
}

TEST(Strands, AreTheWiresThatALeadReallyHas) {
  const Rig rig = demo("hedgerow");
  const auto strands = [&](const std::string& id, bool red_out = false) {
    Lead l = *rig.lead(id);
    l.plus_removed = red_out;
    std::vector<std::string> words;
    for (const char* s : strands_of(l, terminal_of(rig, shipped(), l.from), terminal_of(rig, shipped(), l.to)))
      words.emplace_back(s);
    return words;
  };
  using W = std::vector<std::string>;
  EXPECT_EQ(strands("servo_flaperon_left"), (W{"minus", "plus", "signal"}));
  EXPECT_EQ(strands("esc_signal", true), (W{"minus", "signal"}));
  EXPECT_EQ(strands("gps"), (W{"minus", "plus", "transmit", "receive"}));
  EXPECT_EQ(strands("gps_bus"), (W{"minus", "transmit", "receive"})) << "the bus takes no plus of its own here";
  EXPECT_EQ(strands("esc_motor"), (W{"phase", "phase", "phase"}));
  EXPECT_EQ(strands("module"), (W{"minus", "plus"}));
  EXPECT_EQ(strands("video"), (W{"minus", "signal"}));
}

TEST(WiringLayout, SocketsKeepTheirOrderAndTheirEdge) {
  for (const ControllerClass& c : shipped().controllers) {
    Rig rig;
    rig.controller.kind = c.id;
    const WiringLayout l = layout_wiring(rig, shipped(), 200, 90);
    EXPECT_EQ(l.spots.size(), c.terminals().size()) << c.id;
    for (const Terminal* a : c.terminals())
      for (const Terminal* b : c.terminals()) {
        const auto *x = l.spot("controller", a->id), *y = l.spot("controller", b->id);
        ASSERT_TRUE(x && y);
        if (a->x_mm < b->x_mm) EXPECT_LT(x->x, y->x) << c.id;
        if (a->y_mm < b->y_mm) EXPECT_GT(x->y, y->y) << c.id << ": the board's rear is drawn below";
      }
    for (const auto& s : l.spots) EXPECT_NEAR(std::hypot(s.out_x, s.out_y), 1, 1e-12) << c.id << " " << s.terminal;
  }
}

TEST(WiringLayout, CurvesBeginAndEndAtTheirSockets) {
  const Rig rig = demo("delta");
  const WiringLayout l = layout_wiring(rig, shipped(), 297, 186);
  for (const auto& c : l.curves) {
    const Lead& lead = *rig.lead(c.lead);
    const auto *a = l.spot(lead.from.part, lead.from.socket), *b = l.spot(lead.to.part, lead.to.socket);
    ASSERT_TRUE(a && b) << c.lead;
    EXPECT_EQ(c.xy[0], a->x);
    EXPECT_EQ(c.xy[1], a->y);
    EXPECT_EQ(c.xy[6], b->x);
    EXPECT_EQ(c.xy[7], b->y);
    // It leaves outward.
    EXPECT_GE((c.xy[2] - c.xy[0]) * a->out_x + (c.xy[3] - c.xy[1]) * a->out_y, 0);
  }
  const auto* s1 = l.spot("controller", "s1");
  ASSERT_TRUE(s1);
  EXPECT_EQ(l.nearest_board_spot(s1->x + 0.5, s1->y - 0.5, 3)->terminal, "s1");
  EXPECT_EQ(l.nearest_board_spot(-50, -50, 3), nullptr);
  EXPECT_EQ(l.spot("nobody", "s1"), nullptr);
}

TEST(Sketch, WrapsAtSpacesAndCountsLettersNotBytes) {
  EXPECT_EQ(wrapped("one two three", 7), (std::vector<std::string>{"one two", "three"}));
  EXPECT_EQ(wrapped("µµµ µµµ", 7).size(), 1u);
  EXPECT_EQ(wrapped("", 7), std::vector<std::string>{""});
  EXPECT_EQ(wrapped("incomprehensibilities", 5).size(), 1u) << "a word is never broken";
  EXPECT_EQ(escaped("a < b & \"c\" > d"), "a &lt; b &amp; &quot;c&quot; &gt; d");
  EXPECT_EQ(escaped("a\x01"
                    "b\x1f\x7f"
                    "c"),
            "a b  c")
      << "XML can't say them";
  EXPECT_EQ(replaced("{a} and {a}", {{"{a}", "{a}x"}}), "{a}x and {a}x") << "what was put in is not replaced again";
}

TEST(Sketch, SaysItsSizeInMillimetres) {
  Sketch s(148, 105);
  s.text(1, 2, "A & B", 3);
  s.curve({0, 0, 1, 1, 2, 2, 3, 3}, 0.5, "#123456");
  const std::string svg = s.finished();
  EXPECT_NE(svg.find("width=\"148mm\" height=\"105mm\""), std::string::npos) << svg.substr(0, 200);
  EXPECT_NE(svg.find("A &amp; B"), std::string::npos);
  EXPECT_NE(svg.find("M0 0 C1 1 2 2 3 3"), std::string::npos) << svg;
}

}  // namespace
}  // namespace rigging
