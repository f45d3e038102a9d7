#include <gtest/gtest.h>

#include <regex>

#include <algorithm>
#include <random>
#include <set>

#include "airframe/kinds.h"
#include "base/wrapped.h"
#include "bench_rig.h"
#include "review/review.h"
#include "sheets/wiring_sheets.h"
#include "wiring/edits.h"
#include "wiring/plan.h"

namespace rigging {
namespace {

std::multiset<std::string> serious(const Rig& rig) {
  std::multiset<std::string> all;
  const Review r = review(rig, shipped());
  for (const Snag& s : r.snags)
    if (s.severity != Severity::worth_knowing && (s.station == Station::wiring || s.code == "POWER-01" ||
                                                  s.code == "POWER-02" || s.station == Station::surfaces))
      all.insert(s.code);
  return all;
}

/// A rig with every part of a class, and no lead.
Rig bare(AirframeKind kind, const std::string& controller, const std::string& receiver) {
  Rig rig = fresh_rig("typed in from nothing", kind, controller);
  add_drive(rig, "battery_3s_1300");
  add_part(rig, "receiver", receiver);
  for (const Surface s : facts_of(kind).surfaces)
    if (s.kind != SurfaceKind::motor) add_part(rig, "servo_" + s.name(), "servo_9g_digital", s);
  return rig;
}

const Lead* between(const Rig& rig, const std::string& a, const std::string& b) {
  for (const Lead& l : rig.leads)
    if (const LeadEnd* far = far_end(l, a); far && far->part == b) return &l;
  return nullptr;
}

TEST(Plan, ChangesNothingWhereEverythingHasItsPlace) {
  for (const char* name : {"hedgerow", "heath", "delta", "bramble"}) {
    const Plan p = plan_wiring(demo(name), shipped());
    EXPECT_EQ(p.changes, 0) << name;
    EXPECT_TRUE(p.obstacles.empty()) << name;
    EXPECT_EQ(p.rig, demo(name)) << name;
  }
}

TEST(Plan, FromNothingBreaksNoRuleOnEveryClassAndKind) {
  const std::pair<const char*, const char*> classes[] = {{"full_controller", "receiver_serial_inverted"},
                                                         {"full_controller", "receiver_two_way"},
                                                         {"full_controller", "receiver_summed"},
                                                         {"fixed_mini", "receiver_serial_inverted"},
                                                         {"fixed_mini", "receiver_two_way"},
                                                         {"fixed_wing", "receiver_summed"},
                                                         {"small_controller", "receiver_serial_inverted"},
                                                         {"large_controller", "receiver_two_way"},
                                                         {"inline_level", "receiver_pulse_6"},
                                                         {"gesture_board", "receiver_serial_inverted"},
                                                         {"screen_keys", "receiver_pulse"},
                                                         {"screen_keys", "receiver_summed"},
                                                         {"pc_mini", "receiver_summed"},
                                                         {"inline_dial", "receiver_pulse"}};
  int planned = 0;
  for (const auto& [controller, receiver] : classes)
    for (const auto& [kind, kind_name] : Names<AirframeKind>::list) {
      if (kind == AirframeKind::towed_glider || kind == AirframeKind::twin_differential) continue;
      Rig rig = bare(kind, controller, receiver);
      const Plan p = plan_wiring(rig, shipped());
      // A class that is made for other surfaces says so by its own rule.
      if (const auto& drives = shipped().controller(controller)->surfaces.drives; !drives.empty()) {
        bool made_for_it = true;
        for (const Surface s : facts_of(kind).surfaces)
          made_for_it = made_for_it && std::find(drives.begin(), drives.end(), s.kind) != drives.end();
        EXPECT_EQ(serious(p.rig).count("SURFACES-21") == 0, made_for_it) << controller << " " << kind_name;
        if (!made_for_it) continue;
      }
      for (const Obstacle& o : p.obstacles) EXPECT_FALSE(o.what.empty() || o.code.empty());
      // A rail that the parts on hand can't feed breaks no rule of the leads.
      if (std::any_of(p.obstacles.begin(), p.obstacles.end(), [](const Obstacle& o) { return o.code != "POWER-14"; }))
        continue;
      ++planned;
      EXPECT_EQ(serious(p.rig), std::multiset<std::string>{}) << controller << " " << receiver << " " << kind_name;
      EXPECT_EQ(plan_wiring(p.rig, shipped()).changes, 0)
          << "a plan carried out is a plan at rest: " << controller << " " << kind_name;
      for (const Choice& c : p.choices) EXPECT_FALSE(c.why.empty());
    }
  EXPECT_GT(planned, 80);
}

/// A builder's first rig: nothing in it may stay dark without being said.
TEST(Plan, LeavesNothingDarkOrSaysSo) {
  Rig rig = fresh_rig("typed in from nothing", AirframeKind::flying_wing, "full_controller");
  add_part(rig, "battery", "battery_4s_2200");
  add_part(rig, "esc", "esc_40_isolated");
  add_part(rig, "motor", "motor_2216");
  add_part(rig, "regulator", "regulator_5v_5a");
  add_part(rig, "receiver", "receiver_two_way");
  add_part(rig, "gps", "satellite_compass");
  add_part(rig, "camera", "camera_small");
  add_part(rig, "video", "video_200");
  for (const Surface s : facts_of(rig.airframe.kind).surfaces)
    if (s.kind != SurfaceKind::motor) add_part(rig, "servo_" + s.name(), "servo_12g_metal", s);
  for (const Part& p : rig.parts) ASSERT_TRUE(shipped().part(p.kind)) << p.kind;
  const Plan plan = plan_wiring(rig, shipped());
  const PowerReport power = analyze_power(plan.rig, shipped());
  std::set<std::string> unpowered;
  for (const ConsumerReport& c : power.consumers)
    if (!c.powered[static_cast<std::size_t>(SupplyState::battery)]) unpowered.insert(c.part);
  std::set<std::string> said;
  for (const Obstacle& o : plan.obstacles) said.insert(o.what);
  EXPECT_FALSE(unpowered.count("receiver")) << "a second lead of the regulator feeds the five-volt rail";
  EXPECT_FALSE(unpowered.count("controller"));
  EXPECT_FALSE(unpowered.count("gps"));
  for (const std::string& part : unpowered)
    EXPECT_TRUE(std::any_of(said.begin(), said.end(), [&](const std::string& w) {
      return small(w).find(part_name(rig, shipped(), part)) != std::string::npos;
    })) << part;
  const auto leads = std::count_if(plan.rig.leads.begin(), plan.rig.leads.end(), [](const Lead& l) {
    const LeadEnd* far = far_end(l, "regulator", "out");
    return far && far->part == "controller";
  });
  EXPECT_EQ(leads, 2);
  // Without any source what stays dark is said, with what to get.
  std::erase_if(rig.parts, [](const Part& p) { return p.id == "regulator"; });
  const Plan poor = plan_wiring(rig, shipped());
  EXPECT_TRUE(std::any_of(poor.obstacles.begin(), poor.obstacles.end(),
                          [](const Obstacle& o) { return o.code == "POWER-14"; }));
  const Review r = review(poor.rig, shipped());
  EXPECT_TRUE(std::any_of(r.snags.begin(), r.snags.end(), [](const Snag& s) {
    return s.code == "POWER-14" && s.severity == Severity::grounds && s.subject == "receiver";
  }));
}

/// A regulator that feeds a part of its own keeps its lead: a dark rail gets one beside it.
TEST(Plan, ALeadThatFeedsSomethingIsNotTakenForADarkRail) {
  Rig rig = fresh_rig("mine", AirframeKind::flying_wing, "full_controller");
  add_part(rig, "battery", "battery_4s_2200");
  add_part(rig, "receiver", "receiver_two_way");
  add_part(rig, "camera", "camera_small");
  add_part(rig, "bec", "regulator_5v_3a");
  add_lead(rig, "camera_power", "bec", "out", "camera", "power");
  const Plan plan = plan_wiring(rig, shipped());
  const Lead* kept = plan.rig.lead("camera_power");
  ASSERT_TRUE(kept);
  EXPECT_TRUE(far_end(*kept, "bec", "out") && far_end(*kept, "bec", "out")->part == "camera");
  const PowerReport power = analyze_power(plan.rig, shipped());
  EXPECT_TRUE(power.consumer("receiver")->powered[static_cast<std::size_t>(SupplyState::battery)]);
  EXPECT_TRUE(plan.obstacles.empty());
  EXPECT_EQ(plan_wiring(plan.rig, shipped()).changes, 0);
}

TEST(Plan, AReceiverThatNoInputTakesIsToldSo) {
  const Plan plan = plan_wiring(bare(AirframeKind::flying_wing, "fixed_wing", "receiver_pulse"), shipped());
  EXPECT_TRUE(std::any_of(plan.obstacles.begin(), plan.obstacles.end(), [](const Obstacle& o) {
    return o.subject == "receiver" && o.what.find("No input") != std::string::npos;
  }));
}

TEST(Plan, ASatelliteReceiverDoesNotCrossTheBoard) {
  Rig rig = fresh_rig("mine", AirframeKind::flying_wing, "full_controller");
  add_part(rig, "gps", "satellite_compass");
  put(rig, "controller", 0.4);
  const auto port_for = [&](double side) {
    Rig r = rig;
    put(r, "gps", 0.4, side, 0);
    const Plan plan = plan_wiring(r, shipped());
    for (const Lead& l : plan.rig.leads)
      for (const auto& [here, there] : {std::pair{&l.from, &l.to}, {&l.to, &l.from}})
        if (here->part == "gps" && there->part == "controller")
          if (const Terminal* t = shipped().controller("full_controller")->terminal(there->socket);
              t->kind != TerminalKind::two_wire)
            return t->x_mm;
    return -1.0;
  };
  const double left = port_for(-0.4), right = port_for(0.4);
  EXPECT_GE(left, 0);
  EXPECT_LT(left, right);
}

TEST(Plan, KeepsWhatIsFixedAndSaysSo) {
  Rig rig = demo("hedgerow");
  Lead& gps = *rig.lead("gps");
  gps.to.socket = "serial_3";
  gps.fixed = true;
  rig.output("out_1")->socket = "slot_6";
  rig.output("out_1")->fixed = true;
  const Plan p = plan_wiring(rig, shipped());
  EXPECT_TRUE(p.obstacles.empty());
  EXPECT_EQ(p.rig.lead("gps")->to.socket, "serial_3");
  EXPECT_EQ(p.rig.output("out_1")->socket, "slot_6");
  EXPECT_EQ(p.rig.lead("servo_flaperon_left")->to.socket, "slot_6") << "the servo follows its output";
  const auto kept = std::find_if(p.choices.begin(), p.choices.end(),
                                 [](const Choice& c) { return c.subject == "gps" && c.end == "serial"; });
  ASSERT_NE(kept, p.choices.end());
  EXPECT_EQ(kept->why, "kept by hand");
}

TEST(Plan, GivesRatesTheirOwnGroups) {
  Rig rig = demo("hedgerow");
  rig.output("out_5")->rate_hz = 400;
  rig.output("out_3")->rate_hz = rig.output("out_4")->rate_hz = 333;
  rig.output("out_5")->socket = "slot_2";
  rig.output("out_2")->socket = "slot_7";
  const Plan p = plan_wiring(rig, shipped());
  ASSERT_TRUE(p.obstacles.empty());
  const WiringReport planned = analyze_wiring(p.rig, shipped());
  for (const TimerGroup& g : planned.groups) {
    EXPECT_EQ(g.rates_hz.size(), 1u);
    EXPECT_FALSE(g.motor && g.servo);
  }
  // Three rates and a fourth that finds no group.
  rig.output("out_2")->rate_hz = 100;
  rig.output("out_1")->rate_hz = 50;
  const Plan none = plan_wiring(rig, shipped());
  ASSERT_FALSE(none.obstacles.empty());
  EXPECT_EQ(none.obstacles.front().code, "WIRING-09");
}

TEST(Plan, ManyRatesOnManyGroupsAreAnsweredAtOnce) {
  // Twelve outputs at twelve rates on a board of twelve groups of one: too many ways to try, and yet each finds a
  // group.
  Catalogue c = shipped();
  ControllerClass board = *c.controller("full_controller");
  board.id = "many";
  board.outputs.clear();
  for (int i = 0; i < 12; ++i) {
    Terminal t;
    t.id = t.label = "slot_" + std::to_string(i + 1);
    t.net = "servo";
    t.timer_group = i + 1;
    board.outputs.push_back(t);
  }
  c.controllers.push_back(board);
  Rig rig;
  rig.controller.kind = "many";
  for (int i = 0; i < 12; ++i) {
    Output o;
    o.id = "out_" + std::to_string(i);
    o.rate_hz = 50 + 10 * i;
    o.surfaces = {all_surfaces()[static_cast<std::size_t>(i)]};
    rig.outputs.push_back(o);
  }
  const Plan p = plan_wiring(rig, c);
  EXPECT_TRUE(p.obstacles.empty()) << p.obstacles.front().what;
  std::set<std::string> sockets;
  for (const Output& o : p.rig.outputs) EXPECT_TRUE(sockets.insert(o.socket).second) << o.id;
}

TEST(Plan, MotorsShareAGroupOnlyWhenTheyMust) {
  // One group for everything, as on small boards: the motor shares it at the same rate.
  const Plan p = plan_wiring(bare(AirframeKind::flying_wing, "fixed_wing", "receiver_serial_inverted"), shipped());
  EXPECT_TRUE(p.obstacles.empty());
  Rig fast = bare(AirframeKind::flying_wing, "fixed_wing", "receiver_serial_inverted");
  for (Output& o : fast.outputs)
    if (drives_motor(o)) o.rate_hz = 400;
  const Plan none = plan_wiring(fast, shipped());
  ASSERT_EQ(none.obstacles.size(), 1u);
  EXPECT_EQ(none.obstacles.front().code, "WIRING-09");
}

/// Common practice: on a wing the left elevon sits where the aileron is named, the right one where the elevator is.
TEST(Plan, ElevonsGoWhereTheClassNamesAileronAndElevator) {
  const Plan p = plan_wiring(bare(AirframeKind::flying_wing, "pc_mini", "receiver_serial_inverted"), shipped());
  const ControllerClass& c = *shipped().controller("pc_mini");
  const auto serves = [&](const char* surface) {
    const Output* o = p.rig.output_of(*surface_from_name(surface));
    const Terminal* t = o ? c.socket(o->socket) : nullptr;
    return t ? t->serves : std::string();
  };
  EXPECT_EQ(serves("elevon_left"), "aileron_left");
  EXPECT_EQ(serves("elevon_right"), "elevator");
}

/// Common practice: the five outputs of the gesture board carry a model with two ailerons, in its fixed order.
TEST(Plan, TheGestureBoardCarriesTwoAilerons) {
  const Plan p = plan_wiring(bare(AirframeKind::two_ailerons, "gesture_board", "receiver_serial_inverted"), shipped());
  EXPECT_TRUE(p.obstacles.empty());
  std::map<std::string, std::string> on;
  for (const Output& o : p.rig.outputs) on[o.socket] = o.surfaces.empty() ? "motor" : o.surfaces.front().name();
  EXPECT_EQ(on, (std::map<std::string, std::string>{{"slot_1", "motor"},
                                                    {"slot_2", "aileron_left"},
                                                    {"slot_3", "aileron_right"},
                                                    {"slot_4", "elevator"},
                                                    {"slot_5", "rudder"}}));
}

/// A board that takes the battery feeds its own rail, so that the speed controller's red wire comes out, and gives the
/// battery on at its edge.
TEST(Plan, ABoardThatTakesTheBatteryFeedsItself) {
  const Plan p =
      plan_wiring(bare(AirframeKind::flying_wing, "small_controller", "receiver_serial_inverted"), shipped());
  for (const Obstacle& o : p.obstacles) ADD_FAILURE() << o.what;
  const Lead* battery = between(p.rig, "battery", "controller");
  ASSERT_TRUE(battery);
  EXPECT_TRUE(far_end(*battery, "battery") && far_end(*battery, "battery")->socket == "battery");
  EXPECT_FALSE(between(p.rig, "battery", "esc"));
  bool edge = false, signal = false;
  for (const Lead& l : p.rig.leads)
    if (const LeadEnd* far = far_end(l, "esc"); far && far->part == "controller") {
      edge = edge || far->socket == "esc_a";
      if (far->socket.starts_with("s")) {
        signal = true;
        EXPECT_TRUE(l.plus_removed) << "one source a rail";
      }
    }
  EXPECT_TRUE(edge && signal);
  EXPECT_EQ(serious(p.rig), std::multiset<std::string>{});
}

/// Where a class leaves the choice the throttle lead goes either way, and says so where it leaves none.
TEST(Plan, TheThrottleLeadGoesEitherWay) {
  Rig rig = bare(AirframeKind::two_ailerons, "radio_stabilizer", "receiver_pulse");
  rig.outputs.back().socket = "slot_8";
  const auto board = throttle_lead(rig, shipped(), false), receiver = throttle_lead(rig, shipped(), true);
  ASSERT_TRUE(board) << board.error().text();
  ASSERT_TRUE(receiver) << receiver.error().text();
  EXPECT_FALSE(board->rig.outputs.back().socket.empty());
  EXPECT_TRUE(receiver->rig.outputs.back().socket.empty());
  EXPECT_TRUE(between(receiver->rig, "esc", "receiver"));
  EXPECT_EQ(plan_wiring(receiver->rig, shipped()).changes, 0);
  EXPECT_FALSE(throttle_lead(demo("hedgerow"), shipped(), true));
  EXPECT_FALSE(throttle_lead(demo("heath"), shipped(), false));
  Rig steered = rig;
  steered.outputs.back().mix.yaw = 0.3;
  EXPECT_FALSE(throttle_lead(steered, shipped(), true)) << "only the board can mix them";
}

TEST(Plan, SaysWhatMakesItImpossible) {
  Rig inverted = bare(AirframeKind::two_ailerons, "screen_keys", "receiver_serial_inverted");
  const Plan a = plan_wiring(inverted, shipped());
  ASSERT_FALSE(a.obstacles.empty());
  std::set<std::string> why;
  for (const Obstacle& o : a.obstacles) why.insert(o.code);
  EXPECT_EQ(why, (std::set<std::string>{"POWER-14", "WIRING-04", "WIRING-16"}))
      << "no input for its signal, no throttle channel for the motor, so that its regulator feeds nothing either";
  Rig many = demo("hedgerow");
  for (int i = 0; i < 5; ++i) add_part(many, "gps_" + std::to_string(i), "satellite_plain");
  const Plan b = plan_wiring(many, shipped());
  ASSERT_FALSE(b.obstacles.empty());
  EXPECT_EQ(b.obstacles.front().code, "WIRING-01");
  Rig pads = demo("hedgerow");
  for (int i = 0; i < 5; ++i) add_part(pads, "light_" + std::to_string(i), "lights_strip");
  const Plan c = plan_wiring(pads, shipped());
  ASSERT_FALSE(c.obstacles.empty());
  EXPECT_EQ(c.obstacles.front().code, "WIRING-12");
  EXPECT_EQ(plan_wiring(Rig{}, shipped()).obstacles.front().code, "AIRFRAME-01");
}

TEST(Plan, EmulatedPortsOnlyWhenTheHardwareIsTaken) {
  Rig rig = demo("hedgerow");
  // Two more slow satellite receivers: SER 1 and SER 3 are free.
  add_part(rig, "plain_1", "satellite_plain");
  add_part(rig, "plain_2", "satellite_plain");
  Plan p = plan_wiring(rig, shipped());
  ASSERT_TRUE(p.obstacles.empty());
  for (const Lead& l : p.rig.leads) EXPECT_FALSE(far_end(l, "controller", "soft_1")) << l.id;
  add_part(p.rig, "plain_3", "satellite_plain");
  p = plan_wiring(p.rig, shipped());
  ASSERT_TRUE(p.obstacles.empty());
  EXPECT_TRUE(std::any_of(p.rig.leads.begin(), p.rig.leads.end(),
                          [](const Lead& l) { return far_end(l, "controller", "soft_1"); }));
}

TEST(Plan, OneSourceARail) {
  Rig rig = bare(AirframeKind::two_ailerons, "full_controller", "receiver_serial_inverted");
  add_part(rig, "bec", "regulator_5v_5a");
  const Plan p = plan_wiring(rig, shipped());
  ASSERT_TRUE(p.obstacles.empty());
  const Lead* esc = between(p.rig, "esc", "controller");
  ASSERT_NE(esc, nullptr);
  EXPECT_TRUE(esc->plus_removed);
  EXPECT_FALSE(between(p.rig, "bec", "controller")->plus_removed);
  EXPECT_EQ(serious(p.rig), std::multiset<std::string>{});
}

TEST(Plan, InlineUnitsLeaveTheThrottleOnTheReceiver) {
  const Plan p = plan_wiring(bare(AirframeKind::motor_glider, "inline_dial", "receiver_pulse"), shipped());
  ASSERT_TRUE(p.obstacles.empty()) << p.obstacles.front().what;
  EXPECT_NE(between(p.rig, "esc", "receiver"), nullptr);
  EXPECT_EQ(between(p.rig, "esc", "controller"), nullptr);
  for (const Output& o : p.rig.outputs)
    if (o.surfaces.empty()) EXPECT_TRUE(o.socket.empty());
}

TEST(Plan, ARandomlyPluggedLoomIsPutRight) {
  std::mt19937 random(7);
  const ControllerClass& c = *shipped().controller("full_controller");
  for (int round = 0; round < 40; ++round) {
    Rig rig = demo("hedgerow");
    const auto all = c.terminals();
    for (Lead& l : rig.leads)
      if (l.to.part == "controller" && random() % 2) l.to.socket = all[random() % all.size()]->id;
    std::vector<std::string> sockets;
    for (const Output& o : rig.outputs) sockets.push_back(o.socket);
    std::shuffle(sockets.begin(), sockets.end(), random);
    for (std::size_t i = 0; i < sockets.size(); ++i) rig.outputs[i].socket = sockets[i];
    const Plan p = plan_wiring(rig, shipped());
    EXPECT_TRUE(p.obstacles.empty()) << round;
    EXPECT_EQ(serious(p.rig), std::multiset<std::string>{}) << round;
  }
}

/// Every assignment tried: the least cost there is.
double brute(const std::vector<std::vector<double>>& cost, std::size_t row, std::vector<bool>& taken) {
  if (row == cost.size()) return 0;
  double best = forbidden + brute(cost, row + 1, taken);
  for (std::size_t k = 0; k < cost[row].size(); ++k) {
    if (taken[k] || cost[row][k] >= forbidden) continue;
    taken[k] = true;
    best = std::min(best, cost[row][k] + brute(cost, row + 1, taken));
    taken[k] = false;
  }
  return best;
}

TEST(Assignment, IsTheCheapestThereIs) {
  std::mt19937 random(11);
  for (int round = 0; round < 400; ++round) {
    const std::size_t rows = 1 + random() % 5, columns = 1 + random() % 6;
    std::vector<std::vector<double>> cost(rows, std::vector<double>(columns));
    for (auto& row : cost)
      for (double& c : row) c = random() % 4 == 0 ? forbidden : static_cast<double>(random() % 30);
    const auto got = cheapest_assignment(cost);
    double sum = 0;
    std::set<int> used;
    for (std::size_t i = 0; i < rows; ++i) {
      if (got[i] < 0) {
        sum += forbidden;
        continue;
      }
      EXPECT_TRUE(used.insert(got[i]).second);
      EXPECT_LT(cost[i][static_cast<std::size_t>(got[i])], forbidden);
      sum += cost[i][static_cast<std::size_t>(got[i])];
    }
    std::vector<bool> taken(columns, false);
    EXPECT_NEAR(sum, brute(cost, 0, taken), 1e-6) << round;
  }
  EXPECT_TRUE(cheapest_assignment({}).empty());
}

TEST(Wiring, TheLoomAndWhatIsFree) {
  const WiringReport w = analyze_wiring(demo("hedgerow"), shipped());
  EXPECT_EQ(w.harness.size(), demo("hedgerow").leads.size());
  EXPECT_EQ(w.free_outputs, (std::vector<std::string>{"slot_5", "slot_6", "slot_8"}));
  EXPECT_EQ(w.free_ports, (std::vector<std::string>{"serial_1", "serial_3"}));
  EXPECT_EQ(w.power_pads, 2);
  EXPECT_EQ(w.power_pads_needed, 2);
  EXPECT_EQ(w.ground_pads_needed, 2);
}

TEST(WiringSheets, SayEveryLeadAndEscapeWhatIsTyped) {
  Rig rig = demo("hedgerow");
  rig.name = "Tom & <Co>";
  const std::string list = plug_list_svg(rig, shipped()).front(), drawing = wiring_drawing_svg(rig, shipped());
  for (const std::string& svg : {list, drawing}) {
    EXPECT_NE(svg.find("Tom &amp; &lt;Co&gt;"), std::string::npos);
    EXPECT_EQ(svg.find("Tom & <"), std::string::npos);
    EXPECT_NE(svg.find("Propeller off"), std::string::npos);
    EXPECT_NE(svg.find("</svg>"), std::string::npos);
  }
  const WiringReport report = analyze_wiring(rig, shipped());
  for (const HarnessRow& row : report.harness) EXPECT_NE(list.find(row.to_socket), std::string::npos) << row.to_socket;
  EXPECT_NE(plug_list_svg(Rig{}, shipped()).front().find("No leads"), std::string::npos);
}

// Nothing leaves the page, however many leads there are and however long their names.
TEST(WiringSheets, ManyLeadsTakeMorePagesAndLongNamesKeepToTheirColumns) {
  Rig rig = demo("hedgerow");
  rig.name = std::string(200, 'n');
  for (Part& p : rig.parts) p.label = "a part with a very long name that goes on and on " + p.id;
  const Lead model = rig.leads.front();
  for (int i = 0; i < 120; ++i) {
    rig.leads.push_back(model);
    rig.leads.back().id = "more_" + std::to_string(i);
  }
  const std::vector<std::string> pages = plug_list_svg(rig, shipped());
  EXPECT_EQ(pages.size(), 4u) << "137 leads, some 44 on a page";
  int ticks = 0;
  for (const std::string& page : pages) {
    EXPECT_NE(page.find("Propeller off"), std::string::npos) << "the cautions stand on each";
    const std::regex text(
        "<text x=\"([-\\d.]+)\" y=\"([-\\d.]+)\" font-size=\"([-\\d.]+)\" text-anchor=\"(\\w+)\" [^>]*>([^<]*)<");
    for (std::sregex_iterator it(page.begin(), page.end(), text), end; it != end; ++it) {
      const std::string words = (*it)[5];
      const double x = std::stod((*it)[1]), y = std::stod((*it)[2]),
                   wide = 0.56 * std::stod((*it)[3]) * static_cast<double>(letters(words));
      EXPECT_LT(y, 297) << words;
      EXPECT_LT((*it)[4] == "end" ? wide : x + wide, 211) << words;
    }
    for (std::size_t at = page.find("width=\"3.1\""); at != page.npos; at = page.find("width=\"3.1\"", at + 1)) ++ticks;
  }
  EXPECT_EQ(ticks, static_cast<int>(rig.leads.size())) << "a box to tick for every lead";
}

TEST(Plug, TheOutputFollowsItsLead) {
  const Rig rig = demo("hedgerow");
  std::string free;
  for (const std::string& s : analyze_wiring(rig, shipped()).free_outputs) free = s;
  ASSERT_FALSE(free.empty());
  int followed = 0;
  for (const Lead& l : rig.leads) {
    const LeadEnd* far = far_end(l, "controller");
    const Output* o = far && rig.part(far->part) ? output_for(rig, shipped(), *rig.part(far->part)) : nullptr;
    if (!o) continue;
    EXPECT_EQ(socket_by_leads(rig, shipped(), *o), o->socket) << l.id;
    const auto made = plug(rig, shipped(), l.id, free);
    ASSERT_TRUE(made) << made.error().text();
    const bool alone = servos_on(rig, shipped(), o->socket).size() < 2;
    EXPECT_EQ(made->rig.output(o->id)->socket, alone ? free : o->socket) << l.id;
    followed += alone;
  }
  EXPECT_GE(followed, 4);
}

TEST(Plug, AnOutputStaysWhenAnotherSitsThere) {
  const Rig rig = demo("hedgerow");
  const std::string one = rig.output("out_1")->socket, two = rig.output("out_2")->socket;
  Rig crossed = rig;
  for (Lead& l : crossed.leads)
    if (LeadEnd& end = l.from.part == "controller" ? l.from : l.to; end.part == "controller")
      end.socket = end.socket == one ? two : end.socket == two ? one : end.socket;
  Rig both = crossed;
  outputs_follow(both, shipped());
  EXPECT_EQ(both.output("out_1")->socket, two) << "two that exchange their places do not stand in each other's way";
  EXPECT_EQ(both.output("out_2")->socket, one);
  const auto lead = std::find_if(rig.leads.begin(), rig.leads.end(),
                                 [&](const Lead& l) { return far_end(l, "controller", one) != nullptr; });
  ASSERT_NE(lead, rig.leads.end());
  const auto made = plug(rig, shipped(), lead->id, two);
  ASSERT_TRUE(made);
  EXPECT_EQ(made->rig.outputs, rig.outputs);
}

// A motor of a pair has an output of its own: its speed controller's plug takes it along, and the other one's socket
// is the wrong one.
TEST(Plug, MotorsOfAPairAreToldApart) {
  Rig rig = fresh_rig("two motors", AirframeKind::twin_differential, "full_controller");
  for (const Side side : {Side::left, Side::right}) {
    const std::string id = side == Side::left ? "esc_left" : "esc_right";
    add_part(rig, id, "esc_30_switching", Surface{SurfaceKind::motor, side});
    const Output* o = output_for(rig, shipped(), *rig.part(id));
    ASSERT_TRUE(o) << id;
    EXPECT_EQ(o->surfaces.front().side, side);
    Lead lead;
    lead.id = id;
    lead.from = {id, "servo", {}};
    lead.to = {"controller", o->socket, {}};
    rig.leads.push_back(lead);
  }
  const auto snagged = [](const Rig& r) {
    std::set<std::string> all;
    for (const Snag& s : review(r, shipped()).snags)
      if (s.code == "WIRING-22") all.insert(s.subject);
    return all;
  };
  EXPECT_TRUE(snagged(rig).empty());
  const std::string left = rig.leads[0].to.socket;
  const auto moved = plug(rig, shipped(), "esc_left", "slot_8");
  ASSERT_TRUE(moved) << moved.error().text();
  EXPECT_EQ(output_for(moved->rig, shipped(), moved->rig.parts[0])->socket, "slot_8");
  std::swap(rig.leads[0].to.socket, rig.leads[1].to.socket);
  EXPECT_EQ(snagged(rig), (std::set<std::string>{"esc_left", "esc_right"}));
}

TEST(PlugOutput, TakesItsLeadsAlongAndExchangesWhatSatThere) {
  const Rig rig = demo("hedgerow");
  const std::string one = rig.output("out_1")->socket, two = rig.output("out_2")->socket;
  const auto at_board = [](const Rig& r, const std::string& socket) {
    std::set<std::string> parts;
    for (const Lead& l : r.leads)
      for (const auto& [end, other] : {std::pair{&l.from, &l.to}, {&l.to, &l.from}})
        if (end->part == "controller" && end->socket == socket) parts.insert(other->part);
    return parts;
  };
  const auto made = plug_output(rig, shipped(), "out_1", two);
  ASSERT_TRUE(made) << made.error().text();
  EXPECT_EQ(made->rig.output("out_1")->socket, two);
  EXPECT_EQ(made->rig.output("out_2")->socket, one);
  EXPECT_FALSE(at_board(rig, one).empty());
  EXPECT_EQ(at_board(made->rig, two), at_board(rig, one)) << "the servo's plug goes with its output";
  EXPECT_EQ(at_board(made->rig, one), at_board(rig, two));
  EXPECT_EQ(plug_output(made->rig, shipped(), "out_1", one)->rig, rig) << "and back";
  EXPECT_FALSE(plug_output(rig, shipped(), "out_9", two));
  EXPECT_FALSE(plug_output(rig, shipped(), "out_1", "serial_3")) << "no output socket";
  Rig loose = rig;
  loose.output("out_1")->socket.clear();
  EXPECT_FALSE(plug_output(loose, shipped(), "out_1", two)) << "out_2 would be left without any";
  EXPECT_TRUE(plug_output(loose, shipped(), "out_1", one)) << "its leads wait there";
  // No snag that was not there before: what leads and outputs say goes on agreeing.
  const auto codes = [](const Rig& r) {
    std::multiset<std::string> all;
    for (const Snag& s : review(r, shipped()).snags)
      if (s.station == Station::wiring) all.insert(s.code);
    return all;
  };
  EXPECT_EQ(codes(made->rig), codes(rig));
}

}  // namespace
}  // namespace rigging
