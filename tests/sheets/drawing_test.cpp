#include <gtest/gtest.h>

#include <cmath>
#include <map>
#include <set>

#include "base/polyline.h"
#include "begin/begin.h"
#include "bench_rig.h"
#include "power/network.h"
#include "sheets/sketch.h"
#include "wiring/layout.h"
#include "wiring/lead_router.h"

namespace rigging {
namespace {

TEST(Mating, IsSymmetricAndFitsTheTable) {
  const auto all = Names<TerminalKind>::list;
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
    for (const T other : mates_of[data]) EXPECT_FALSE(carries_plus(other)) << name_of(data) << " " << name_of(other);
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

TEST(WiringLayout, LeadsBeginAndEndAtTheirSocketsAndLeaveOutward) {
  const Rig rig = demo("delta");
  const WiringLayout l = layout_wiring(rig, shipped(), 297, 186);
  ASSERT_EQ(l.lines.size(), rig.leads.size());
  for (const auto& line : l.lines) {
    const Lead& lead = *rig.lead(line.lead);
    const auto *a = l.spot(lead.from.part, lead.from.socket), *b = l.spot(lead.to.part, lead.to.socket);
    ASSERT_TRUE(a && b) << line.lead;
    ASSERT_GE(line.corners.size(), 2u);
    EXPECT_NEAR((line.corners.front() - Eigen::Vector2d(a->x, a->y)).norm(), 0, 1e-9) << line.lead;
    EXPECT_NEAR((line.corners.back() - Eigen::Vector2d(b->x, b->y)).norm(), 0, 1e-9) << line.lead;
    EXPECT_GT((line.corners[1] - line.corners[0]).dot(Eigen::Vector2d(a->out_x, a->out_y)), 0) << line.lead;
    for (std::size_t i = 1; i < line.corners.size(); ++i)
      EXPECT_NEAR((line.corners[i] - line.corners[i - 1]).cwiseAbs().minCoeff(), 0, 1e-9)
          << line.lead << ": at right angles";
  }
  const auto* s1 = l.spot("controller", "slot_1");
  ASSERT_TRUE(s1);
  EXPECT_EQ(l.nearest_board_spot(s1->x + 0.5, s1->y - 0.5, 3)->terminal, "slot_1");
  EXPECT_EQ(l.nearest_board_spot(-50, -50, 3), nullptr);
  EXPECT_EQ(l.spot("nobody", "slot_1"), nullptr);
}

/// How many millimetres of a lead lie inside a rectangle, in steps of a fifth.
double inside(const WiringLayout::Line& line, double x, double y, double w, double h) {
  constexpr double step = 0.2, edge = 0.05;
  double sum = 0;
  for (std::size_t i = 1; i < line.corners.size(); ++i) {
    const Eigen::Vector2d a = line.corners[i - 1], b = line.corners[i];
    for (double t = step / 2; t < (b - a).norm(); t += step) {
      const Eigen::Vector2d p = a + (b - a).normalized() * t;
      if (p.x() > x + edge && p.x() < x + w - edge && p.y() > y + edge && p.y() < y + h - edge) sum += step;
    }
  }
  return sum;
}

TEST(WiringLayout, LeadsRunRoundBoardPartsAndSocketsAndCrossSeldom) {
  const std::map<std::string, int> most_crossings{{"bramble", 7}, {"delta", 0}, {"heath", 0}, {"hedgerow", 4}};
  for (const auto& [name, most] : most_crossings)
    for (const auto& [w, h] : {std::pair{297.0, 186.0}, {200.0, 76.0}, {150.0, 60.0}, {120.0, 120.0}}) {
      const Rig rig = demo(name);
      const WiringLayout l = layout_wiring(rig, shipped(), w, h);
      SCOPED_TRACE(name + " on " + std::to_string(w));
      EXPECT_GE(l.width, w);
      EXPECT_NEAR(l.width / l.height, w / h, 1e-9) << "enlarged in proportion";
      if (w > 250) EXPECT_LE(l.crossings, most);
      EXPECT_LE(l.crossings, 16);
      EXPECT_EQ(l.shared_points, 0) << "each lead can be followed with a finger";
      for (const auto& line : l.lines) {
        const Lead& lead = *rig.lead(line.lead);
        const auto pad = [&](const LeadEnd& e) { return e.part == "controller" && l.spot(e.part, e.socket)->pad; };
        // To a pad on the face there is no way but over the face.
        if (!pad(lead.from) && !pad(lead.to))
          EXPECT_EQ(inside(line, l.board_x, l.board_y, l.board_w, l.board_h), 0) << line.lead;
        for (const auto& box : l.boxes)
          EXPECT_EQ(inside(line, box.x, box.y, box.w, box.h), 0) << line.lead << " over " << box.part;
        for (const auto& s : l.spots) {
          const bool own = (s.part == lead.from.part && s.terminal == lead.from.socket) ||
                           (s.part == lead.to.part && s.terminal == lead.to.socket);
          if (!own) EXPECT_EQ(inside(line, s.x - 1, s.y - 1, 2, 2), 0) << line.lead << " over " << s.label;
        }
        EXPECT_TRUE(line.sign.x() > 0 && line.sign.x() < l.width && line.sign.y() > 0 && line.sign.y() < l.height);
      }
      // Parts overlap neither each other nor the board, and stay on the sheet.
      for (const auto& a : l.boxes) {
        EXPECT_TRUE(a.x >= 0 && a.y >= 0 && a.x + a.w <= l.width && a.y + a.h <= l.height) << a.part;
        EXPECT_TRUE(a.x + a.w <= l.board_x || a.x >= l.board_x + l.board_w || a.y + a.h <= l.board_y ||
                    a.y >= l.board_y + l.board_h)
            << a.part;
        for (const auto& b : l.boxes)
          if (&a < &b)
            EXPECT_TRUE(a.x + a.w <= b.x || b.x + b.w <= a.x || a.y + a.h <= b.y || b.y + b.h <= a.y)
                << a.part << " on " << b.part;
      }
    }
}

// A servo's lead that was laid late once went round all the others.
TEST(WiringLayout, ServoLeadsGoStraightToTheirSockets) {
  NewAircraft b;
  b.kind = AirframeKind::v_tail, b.span_m = 2.4, b.mass_kg = 3.8, b.controller = "large_controller";
  const auto airframe = airframe_of(b);
  b.drive = suggest_drives(*airframe, shipped(), {}).front().kinds;
  b.servo = usual_servo(*airframe, shipped());
  b.receiver = usual_receiver(shipped(), b.controller);
  b.others =
      parts_in_words(shipped(), "satellite with compass, airspeed, recording camera, 5 V 5 A regulator, power module");
  const Rig rig = begin_rig(shipped(), b)->rig;
  int servos = 0;
  const WiringLayout layout = layout_wiring(rig, shipped(), 200, 81);
  for (const auto& line : layout.lines) {
    const Lead& lead = *rig.lead(line.lead);
    const PartKind* kind = kind_of(rig, shipped(), lead.from.part == "controller" ? lead.to.part : lead.from.part);
    if (!kind || kind->group != PartGroup::servo) continue;
    ++servos;
    double length = 0;
    for (std::size_t i = 1; i < line.corners.size(); ++i) length += (line.corners[i] - line.corners[i - 1]).lpNorm<1>();
    EXPECT_LE(length, 1.15 * (line.corners.back() - line.corners.front()).lpNorm<1>() + 8) << line.lead;
  }
  EXPECT_EQ(servos, 4);
}

TEST(WiringLayout, PartsStandAtTheEdgeWhereTheirSocketsAre) {
  const WiringLayout l = layout_wiring(demo("hedgerow"), shipped(), 297, 186);
  const auto box = [&](const char* part) {
    return *std::find_if(l.boxes.begin(), l.boxes.end(), [&](const auto& b) { return b.part == part; });
  };
  const auto servo = box("servo_flaperon_left");
  EXPECT_GT(servo.y, l.board_y + l.board_h) << "outputs sit at the rear edge, drawn below";
  EXPECT_GT(box("gps").x, l.board_x + l.board_w);
  EXPECT_LT(box("receiver").x, l.board_x);
  EXPECT_LT(servo.x, box("servo_flaperon_right").x) << "in the order of their sockets";
}

TEST(LeadRouter, GoesRoundAndCrossesOnlyWhereItMust) {
  LeadRouter r(20, 20);
  r.charge({8, 4}, {12, 14}, 100);
  r.join({{2, 9}, {1, 0}}, {{18, 9}, {-1, 0}});
  r.lay();
  ASSERT_EQ(r.routes().size(), 1u);
  for (const auto& p : r.routes()[0]) EXPECT_TRUE(p.x < 8 || p.x > 12 || p.y < 4 || p.y > 14) << p.x << " " << p.y;
  EXPECT_EQ(r.routes()[0].front(), (LeadRouter::Point{2, 9}));
  EXPECT_EQ(r.routes()[0].back(), (LeadRouter::Point{18, 9}));

  // Two that change sides must cross once, side by side they need not.
  LeadRouter crossed(20, 20), plain(20, 20);
  crossed.join({{0, 5}, {1, 0}}, {{19, 12}, {-1, 0}});
  crossed.join({{0, 12}, {1, 0}}, {{19, 5}, {-1, 0}});
  crossed.lay();
  EXPECT_EQ(crossed.crossings(), 1);
  EXPECT_EQ(crossed.shared_points(), 0);
  plain.join({{2, 5}, {1, 0}}, {{18, 5}, {-1, 0}});
  plain.join({{2, 6}, {1, 0}}, {{18, 6}, {-1, 0}});
  plain.lay();
  EXPECT_EQ(plain.crossings(), 0);
  EXPECT_EQ(plain.shared_points(), 0);
}

TEST(WiringLayout, AStrandBesideItsLeadKeepsItsDistanceAroundCorners) {
  const std::vector<Eigen::Vector2d> corners{{0, 0}, {10, 0}, {10, 20}};
  const auto line = beside(corners, 0.5);
  ASSERT_EQ(line.size(), 3u);
  EXPECT_NEAR((line[0] - Eigen::Vector2d(0, 0.5)).norm(), 0, 1e-12);
  EXPECT_NEAR((line[1] - Eigen::Vector2d(9.5, 0.5)).norm(), 0, 1e-12);
  EXPECT_NEAR((line[2] - Eigen::Vector2d(9.5, 20)).norm(), 0, 1e-12);
  EXPECT_EQ(beside(corners, 0), corners);
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
  s.bent({{0, 0}, {10, 0}, {10, 20}}, 2, 0.5, "#123456");
  const std::string svg = s.finished();
  EXPECT_NE(svg.find("width=\"148mm\" height=\"105mm\""), std::string::npos) << svg.substr(0, 200);
  EXPECT_NE(svg.find("A &amp; B"), std::string::npos);
  EXPECT_NE(svg.find("M0 0 L8 0 Q10 0 10 2 L10 20"), std::string::npos) << svg;
}

}  // namespace
}  // namespace rigging
