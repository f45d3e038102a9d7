#include <gtest/gtest.h>

#include <cmath>
#include <functional>
#include <set>

#include "airframe/kinds.h"
#include "base/find.h"
#include "base/json.h"
#include "breaks.h"
#include "new_aircraft.h"
#include "wiring/plan.h"

// A good rig is broken in each way and must get exactly the snags it deserves. Most rules are common practice, so that
// there is no source to check them against; where a rule computes, the reference tests hold the sum.
namespace rigging {
namespace {

void kind_of_part(Rig& r, const std::string& id, const std::string& kind) {
  for (Part& p : r.parts)
    if (p.id == id) p.kind = kind;
}
void remove_lead(Rig& r, const std::string& id) {
  ASSERT_TRUE(r.lead(id)) << id;
  std::erase_if(r.leads, [&](const Lead& l) { return l.id == id; });
}
void to_socket(Rig& r, const std::string& lead, const std::string& socket) {
  ASSERT_TRUE(r.lead(lead)) << lead;
  Lead& l = *r.lead(lead);
  (l.from.part == "controller" ? l.from : l.to).socket = socket;
}
void servos(Rig& r, const std::string& kind) {
  for (Part& p : r.parts)
    if (p.kind.starts_with("servo_")) p.kind = kind;
}

class BreakThePlan : public testing::TestWithParam<Break> {};

TEST_P(BreakThePlan, GetsExactlyTheSnagsItDeserves) {
  Rig rig = good(GetParam().of);
  ASSERT_EQ(codes(rig), Set{}) << "the good rig is not good";
  GetParam().damage(rig);
  if (testing::Test::HasFatalFailure()) return;
  EXPECT_EQ(codes(rig), GetParam().deserved);
  const Review broken = review(rig, shipped());
  for (const Snag& s : broken.snags) {
    EXPECT_FALSE(s.what.empty() || s.why.empty() || s.remedy.empty() || s.source.empty() || s.subject.empty())
        << s.code;
    if (!s.fix || s.station == Station::proof) continue;
    const Rig fixed = fixed_by(*s.fix, rig);
    EXPECT_NE(fixed, rig) << s.code;
    EXPECT_LT(codes(fixed).count(s.code), codes(rig).count(s.code)) << s.code << ": " << s.fix->label;
  }
}

std::vector<Break> fit_breaks() {
  return {{"unknown kind", "hedgerow", [](Rig& r) { kind_of_part(r, "buzzer", "gong"); }, {"FIT-01"}},
          {"no place",
           "hedgerow",
           [](Rig& r) { std::erase_if(r.mountings, [](const Mounting& p) { return p.part == "buzzer"; }); },
           {"FIT-02"}},
          {"frame not weighed", "hedgerow", [](Rig& r) { r.fit.frame_mass_kg.reset(); }, {"FIT-03"}},
          {"frame not balanced", "hedgerow", [](Rig& r) { r.fit.frame_at_m.reset(); }, {"FIT-03"}},
          {"tail heavy", "hedgerow", [](Rig& r) { *r.fit.frame_at_m += 0.05; }, {"FIT-04"}},
          {"nose heavy", "hedgerow", [](Rig& r) { *r.fit.frame_at_m -= 0.03; }, {"FIT-05"}},
          {"leaning", "hedgerow", [](Rig& r) { r.fit.frame_side_m = 0.03; }, {"FIT-06"}},
          {"mass differs", "hedgerow", [](Rig& r) { r.airframe.mass_kg = 2.4; }, {"FIT-07"}},
          {"two in one place", "hedgerow", [](Rig& r) { put(r, "buzzer", 0.405, 0, 0); }, {"FIT-08"}},
          {"out of the bay", "hedgerow", [](Rig& r) { put(r, "buzzer", 0.36, 0.05, 0.02); }, {"FIT-09"}},
          {"no room for plugs",
           "hedgerow",
           [](Rig& r) {
             r.fit.bay->width_m = 0.05;
             put(r, "receiver", 0.33, -0.015, 0);
             put(r, "buzzer", 0.36, 0.018, -0.02);
           },
           {"FIT-10", "FIT-10"}},
          {"can't be told",
           "heath",
           [](Rig& r) { r.mounting("controller")->turn = *turn_from_name("arrow_right_top_up"); },
           {"FIT-10", "FIT-10", "FIT-11"}},
          {"half round, its switches as they were",
           "heath",
           [](Rig& r) { r.mounting("controller")->turn = *turn_from_name("arrow_tail_top_up"); },
           {"FIT-12"}},
          {"half round, undone by its switches",
           "heath",
           [](Rig& r) {
             r.mounting("controller")->turn = *turn_from_name("arrow_tail_top_up");
             r.sensing.roll_reversed = r.sensing.pitch_reversed = true;
           },
           {}},
          {"not told",
           "hedgerow",
           [](Rig& r) { r.mounting("controller")->turn = *turn_from_name("arrow_tail_top_up"); },
           {"FIT-12"}},
          {"askew", "hedgerow", [](Rig& r) { r.mounting("controller")->yaw_deg = 5; }, {"FIT-13"}},
          {"far from the balance",
           "hedgerow",
           [](Rig& r) {
             put(r, "controller", 0.574, 0.0, 0.0);
             for (Lead& l : r.leads) l.length_m.reset();
             *r.fit.frame_at_m -= 0.0002;
           },
           {"FIT-14"}},
          {"compass turned by currents",
           "hedgerow",
           [](Rig& r) {
             put(r, "gps", 0.33, 0.12, -0.03);
             for (Lead& l : r.leads) l.length_m.reset();
             r.fit.frame_side_m = 0.003;
           },
           {"FIT-15"}},
          {"compass at a buzzer",
           "hedgerow",
           [](Rig& r) {
             put(r, "buzzer", 0.42, 0.34, -0.03 + 0.02);
             for (Lead& l : r.leads)
               if (l.id == "buzzer") l.length_m = 0.6;
           },
           {"FIT-16"}},
          {"place not given", "hedgerow", [](Rig& r) { r.fit.latitude_deg.reset(); }, {"FIT-17"}},
          {"not looked at", "hedgerow", [](Rig& r) { std::erase(r.fit.confirmed, "barometer_covered"); }, {"FIT-18"}},
          {"satellites beside video",
           "hedgerow",
           [](Rig& r) {
             put(r, "video", 0.42, 0.30, -0.02);
             r.fit.frame_side_m -= 0.005;
           },
           {"FIT-19"}},
          {"receiver beside video",
           "hedgerow",
           [](Rig& r) {
             put(r, "receiver", 0.42, -0.24, 0);
             for (Lead& l : r.leads)
               if (l.id == "receiver") l.length_m = 0.5;
           },
           {"FIT-20"}},
          {"compass arrow",
           "hedgerow",
           [](Rig& r) { r.mounting("gps")->turn = *turn_from_name("arrow_right_top_up"); },
           {"FIT-21"}},
          {"a battery in free air",
           "hedgerow",
           [](Rig& r) { r.mounting("battery")->y_m = 0.25; },
           {"FIT-06", "FIT-26", "WIRING-25"}},
          {"a board far above",
           "heath",
           [](Rig& r) { r.mounting("controller")->z_m = -1; },
           {"FIT-26", "WIRING-25", "WIRING-25", "WIRING-25", "WIRING-25", "WIRING-25", "WIRING-25"}},
          {"no receiver",
           "delta",
           [](Rig& r) {
             const std::string id = "receiver";
             std::erase_if(r.parts, [&](const Part& p) { return p.id == id; });
             std::erase_if(r.mountings, [&](const Mounting& p) { return p.part == id; });
             std::erase_if(r.leads, [&](const Lead& l) { return l.from.part == id || l.to.part == id; });
           },
           {"FIT-25"}},
          {"no battery",
           "heath",
           [](Rig& r) {
             std::erase_if(r.parts, [](const Part& p) { return p.id == "battery"; });
             std::erase_if(r.mountings, [](const Mounting& p) { return p.part == "battery"; });
             remove_lead(r, "esc_battery");
             *r.fit.frame_at_m -= 0.040;
             r.airframe.mass_kg = 0.873;
           },
           {"FIT-22", "POWER-02", "POWER-14", "POWER-14", "POWER-26"}}};
}

std::vector<Break> power_breaks() {
  return {
      {"two sources",
       "hedgerow",
       [](Rig& r) {
         add_part(r, "bec", "regulator_5v_5a").mass_kg = 0;
         put(r, "bec", 0.3, 0.03, 0.03);
         add_lead(r, "bec_in", "bec", "in", "module", "esc", LeadKind::power);
         add_lead(r, "bec_out", "bec", "out", "controller", "slot_6");
       },
       {"POWER-01"}},
      {"nothing feeds the servos",
       "hedgerow",
       [](Rig& r) {
         for (Lead& l : r.leads)
           if (far_end(l, "esc", "servo")) l.plus_removed = true;
       },
       {"POWER-02"}},
      {"one stalled is too much",
       "delta",
       [](Rig& r) {
         servos(r, "servo_20g_metal");
         for (Part& p : r.parts)
           if (p.kind == "servo_20g_metal") p.mass_kg = p.id.find("elevon") != std::string::npos ? 0.013 : 0.005;
         kind_of_part(r, "esc", "esc_20_switching");
         for (Lead& l : r.leads) {
           l.gauge_awg = 14;
         }
       },
       {"FIT-07", "POWER-03"}},
      {"all moving is too much",
       "delta",
       [](Rig& r) {
         servos(r, "servo_40g_analogue");
         for (Part& p : r.parts)
           if (p.kind == "servo_40g_analogue") p.mass_kg = p.id.find("elevon") != std::string::npos ? 0.013 : 0.005;
         kind_of_part(r, "esc", "esc_10_linear");
         r.power.static_a = 9;
         for (Lead& l : r.leads) {
           l.gauge_awg = 14;
         }
         for (Mounting& p : r.mountings)
           if (p.part.starts_with("servo_")) p.z_m = 0;
         r.fit.bay.reset();
       },
       {"FIT-07", "POWER-04", "POWER-06", "POWER-07", "POWER-31", "POWER-32"}},
      {"a regulator that feeds nothing",
       "hedgerow",
       [](Rig& r) {
         add_part(r, "bec", "regulator_5v_5a").mass_kg = 0;
         put(r, "bec", 0.3, 0.03, 0.03);
         add_lead(r, "bec_in", "bec", "in", "module", "esc", LeadKind::power);
       },
       {"POWER-15"}},
      {"too many cells for everything",
       "heath",
       [](Rig& r) {
         kind_of_part(r, "battery", "battery_6s_5000");
         for (Part& p : r.parts)
           if (p.id == "battery") p.mass_kg = 0.115;
         r.fit.bay.reset();
         put(r, "battery", 0.10, 0, 0.06);
         r.lead("esc_battery")->length_m = 0.3;
         kind_of_part(r, "propeller", "propeller_5x4");
         for (Part& p : r.parts)
           if (p.id == "propeller") p.mass_kg = 0.006;
       },
       {"POWER-02", "POWER-08", "POWER-14", "POWER-14", "POWER-17", "POWER-18", "POWER-20", "POWER-31", "WIRING-33"}},
      {"two stalled are too much",
       "delta",
       [](Rig& r) {
         servos(r, "servo_12g_metal");
         for (Part& p : r.parts)
           if (p.kind == "servo_12g_metal") p.mass_kg = p.id.find("elevon") != std::string::npos ? 0.013 : 0.005;
         for (Lead& l : r.leads) l.gauge_awg = 14;
       },
       {"FIT-07", "POWER-05"}},
      {"an empty battery is too low",
       "hedgerow",
       [](Rig& r) {
         kind_of_part(r, "battery", "battery_2s_850");
         for (Part& p : r.parts)
           if (p.id == "battery") p.mass_kg = 0.51;
         for (Lead& l : r.leads)
           if (far_end(l, "esc", "servo")) l.plus_removed = true;
         add_part(r, "bec", "regulator_6v_5a").mass_kg = 0;
         put(r, "bec", 0.3, 0.03, 0.03);
         add_lead(r, "bec_in", "bec", "in", "module", "esc", LeadKind::power);
         add_lead(r, "bec_out", "bec", "out", "controller", "slot_6").gauge_awg = 20;
         r.power.static_a = 20;
         r.power.static_thrust_n = 10;
       },
       {"POWER-09", "POWER-31"}},
      {"the controller restarts",
       "delta",
       [](Rig& r) {
         Lead& l = *r.lead("esc_signal");
         l.gauge_awg = 30;
         l.length_m = 1.2;
       },
       {"POWER-10", "POWER-13", "POWER-13", "POWER-13", "POWER-13", "POWER-13", "WIRING-26"}},
      {"a thin margin",
       "hedgerow",
       [](Rig& r) {
         Lead& l = *r.lead("module_sense");
         l.gauge_awg = 30;
         l.length_m = 0.62;
       },
       {"POWER-11", "WIRING-26"}},
      {"video on the battery",
       "hedgerow",
       [](Rig& r) {
         r.lead("video_power")->to = {"module", "esc", {}};
       },
       {"POWER-12"}},
      {"the propeller back to front", "hedgerow", [](Rig& r) { r.power.propeller_faces_flight = false; }, {"POWER-22"}},
      {"blade tips close", "hedgerow", [](Rig& r) { r.power.clearance_m = 0.004; }, {"POWER-23"}},
      {"blades strike", "hedgerow", [](Rig& r) { r.power.clearance_m = -0.001; }, {"POWER-23"}},
      {"measured current too much for all",
       "heath",
       [](Rig& r) { r.power.static_a = 80; },
       {"POWER-16", "POWER-17", "POWER-18", "POWER-24", "WIRING-27", "WIRING-27"}},
      {"module overloaded",
       "hedgerow",
       [](Rig& r) {
         r.power.static_a = 65;
         kind_of_part(r, "motor", "motor_3520");
         for (Part& p : r.parts)
           if (p.id == "motor") p.mass_kg = 0.108;
         kind_of_part(r, "esc", "esc_60_switching");
         for (Part& p : r.parts)
           if (p.id == "esc") p.mass_kg = 0.039;
         for (Lead& l : r.leads)
           if (l.kind == LeadKind::power || l.kind == LeadKind::phase) l.gauge_awg = 9;
       },
       {"FIT-15", "POWER-17", "POWER-18", "POWER-19", "POWER-31"}},
      {"little thrust", "hedgerow", [](Rig& r) { r.power.static_thrust_n = 4; }, {"POWER-21"}},
      {"no propeller",
       "hedgerow",
       [](Rig& r) {
         std::erase_if(r.parts, [](const Part& p) { return p.id == "propeller"; });
         std::erase_if(r.mountings, [](const Mounting& p) { return p.part == "propeller"; });
         *r.fit.frame_at_m += 0.004;
       },
       {"POWER-26"}},
      {"no reserve", "hedgerow", [](Rig& r) { r.power.reserve_share = 0.05; }, {"POWER-27"}}};
}

std::vector<Break> wiring_breaks() {
  return {
      {"two on one port", "hedgerow", [](Rig& r) { to_socket(r, "gps", "serial_2"); }, {"WIRING-01"}},
      {"two on one power pad",
       "hedgerow",
       [](Rig& r) {
         std::string pad;
         for (const Lead& l : r.leads)
           if (l.id == "camera_power") pad = l.to.socket;
         to_socket(r, "video_power", pad);
       },
       {"WIRING-01"}},
      {"a servo on a video pad",
       "hedgerow",
       [](Rig& r) { to_socket(r, "servo_flaperon_left", "vid"); },
       {"WIRING-02", "WIRING-01", "POWER-14"}},
      {"a socket that is not there",
       "hedgerow",
       [](Rig& r) { to_socket(r, "gps", "serial_99"); },
       {"WIRING-03", "POWER-14"}},
      {"inverted serial on a plain port",
       "hedgerow",
       [](Rig& r) { to_socket(r, "receiver", "serial_1"); },
       {"WIRING-04"}},
      {"satellites on the bus", "hedgerow", [](Rig& r) { to_socket(r, "gps", "bus"); }, {"WIRING-05"}},
      {"compass off the bus", "hedgerow", [](Rig& r) { remove_lead(r, "gps_bus"); }, {"WIRING-06"}},
      {"pair turned", "hedgerow", [](Rig& r) { r.lead("gps")->pair_turned = true; }, {"WIRING-07"}},
      {"plug turned", "hedgerow", [](Rig& r) { r.lead("receiver")->plug_turned = true; }, {"WIRING-08"}},
      {"two rates in a group", "hedgerow", [](Rig& r) { r.outputs[0].rate_hz = 333; }, {"WIRING-09"}},
      {"analogue servo too fast",
       "hedgerow",
       [](Rig& r) {
         kind_of_part(r, "servo_flaperon_left", "servo_9g_analogue");
         for (Part& p : r.parts)
           if (p.id == "servo_flaperon_left") p.mass_kg = 0.0125;
         r.outputs[0].rate_hz = r.outputs[1].rate_hz = 333;
       },
       {"SURFACES-14", "WIRING-10"}},
      {"motor among servos",
       "hedgerow",
       [](Rig& r) {
         r.outputs[4].socket = "slot_5";
         r.outputs[0].socket = "slot_6";
         for (Lead& l : r.leads) {
           if (far_end(l, "esc", "servo")) l.to.socket = "slot_5";
           if (l.id == "servo_flaperon_left") l.to.socket = "slot_6";
         }
         r.outputs[2].socket = "slot_1";
         to_socket(r, "servo_inverted_v_left", "slot_1");
         r.outputs[3].socket = "slot_8";
         to_socket(r, "servo_inverted_v_right", "slot_8");
       },
       {"WIRING-11"}},
      {"pads run out",
       "hedgerow",
       [](Rig& r) {
         for (int i = 0; i < 2; ++i) {
           const std::string id = "cam_" + std::to_string(i);
           add_part(r, id, "camera_small").mass_kg = 0;
           put(r, id, 0.1, i ? 0.2 : -0.2, 0.1);
           add_lead(r, id + "_p", id, "power", "controller", i ? "gnd_1" : "gnd_2");
           add_lead(r, id + "_v", id, "video", "controller", "serial_1");
         }
       },
       {"FIT-26", "FIT-26", "POWER-14", "POWER-14", "WIRING-01", "WIRING-02", "WIRING-02", "WIRING-02", "WIRING-02",
        "WIRING-12"}},
      {"sense lead in the wrong socket",
       "hedgerow",
       [](Rig& r) { to_socket(r, "module_sense", "serial_3"); },
       {"WIRING-13"}},
      {"an output that mixes and passes a channel through",
       "hedgerow",
       [](Rig& r) { r.outputs[0].passthrough_channel = 8; },
       {"WIRING-37"}},
      {"a plug that nobody knows", "hedgerow", [](Rig& r) { r.part("battery")->plug = "no_such"; }, {"POWER-31"}},
      {"plugs that differ", "hedgerow", [](Rig& r) { r.part("battery")->plug = "plug_two_pin_90"; }, {"POWER-31"}},
      {"a plug too small for the current",
       "hedgerow",
       [](Rig& r) {
         for (const char* id : {"battery", "module"}) r.part(id)->plug = "plug_two_pin_10";
       },
       {"POWER-31", "POWER-32", "POWER-32"}},
      {"motor plugs that differ",
       "hedgerow",
       [](Rig& r) {
         r.part("motor")->motor_plug = "plug_round_20";
         r.part("esc")->motor_plug = "plug_round_35";
       },
       {"POWER-31", "POWER-32"}},
      {"a motor plug too small for the current",
       "hedgerow",
       [](Rig& r) { r.part("motor")->motor_plug = "plug_two_pin_10"; },
       {"POWER-32"}},
      {"a board on hook-and-loop",
       "hedgerow",
       [](Rig& r) { r.mounting("controller")->fixing = Fixing::hook_and_loop; },
       {"FIT-24"}},
      {"a battery on tape", "hedgerow", [](Rig& r) { r.mounting("battery")->fixing = Fixing::tape; }, {"FIT-24"}},
      {"a port told another baud",
       "hedgerow",
       [](Rig& r) { find_in(r.ports, [](const Port& p) { return p.socket == "serial_4"; })->baud = 9600; },
       {"WIRING-35"}},
      {"a port told another job", "hedgerow", [](Rig& r) { r.ports.back().job = PortJob::telemetry; }, {"WIRING-35"}},
      {"a port left over from another model",
       "hedgerow",
       [](Rig& r) {
         r.ports.emplace_back().socket = "serial_1";
         r.ports.back().job = PortJob::video_control;
       },
       {"WIRING-35"}},
      {"ports told nothing", "hedgerow", [](Rig& r) { r.ports.clear(); }, {"WIRING-35"}},
      {"the board listens for another signal",
       "hedgerow",
       [](Rig& r) { r.radio.receiver_signal = Signal::summed; },
       {"STICKS-20"}},
      {"the receiver puts out another signal than is heard",
       "hedgerow",
       [](Rig& r) {
         kind_of_part(r, "receiver", "receiver_chosen");
         for (Lead& l : r.leads)
           for (LeadEnd* e : {&l.from, &l.to})
             if (e->part == "receiver") e->socket = "out";
         r.part("receiver")->says = Signal::summed;
       },
       {"STICKS-20"}},
      {"a channel passed through that is also the mode",
       "hedgerow",
       [](Rig& r) {
         Output& o = r.outputs.emplace_back();
         o.id = "pass_1";
         o.socket = "slot_5";
         o.passthrough_channel = 5;
       },
       {"WIRING-37"}},
      {"a camera switch that nothing works",
       "hedgerow",
       [](Rig& r) {
         add_part(r, "pick", "camera_switch").mass_kg = 0;
         put(r, "pick", 0.2, 0.5, 0);
       },
       {"FIT-26", "WIRING-21", "WIRING-37"}},
      {"software port for nothing",
       "hedgerow",
       [](Rig& r) {
         kind_of_part(r, "gps", "satellite_plain");
         for (Part& p : r.parts)
           if (p.id == "gps") p.mass_kg = 0.014;
         remove_lead(r, "gps_bus");
         to_socket(r, "gps", "soft_1");
       },
       {"WIRING-14", "WIRING-35"}},
      {"software port too slow",
       "hedgerow",
       [](Rig& r) {
         to_socket(r, "gps", "soft_1");
         add_part(r, "b", "satellite_plain").mass_kg = 0;
         add_part(r, "c", "satellite_plain").mass_kg = 0;
         add_part(r, "d", "satellite_plain").mass_kg = 0;
         put(r, "b", 0.2, 0.5, 0);
         put(r, "c", 0.25, 0.5, 0);
         put(r, "d", 0.3, 0.5, 0);
         add_lead(r, "b", "b", "serial", "controller", "serial_1", LeadKind::four_way);
         add_lead(r, "c", "c", "serial", "controller", "serial_3", LeadKind::four_way);
         add_lead(r, "d", "d", "serial", "controller", "serial_4", LeadKind::four_way);
       },
       {"FIT-26", "FIT-26", "WIRING-15", "WIRING-35"}},
      {"throttle through the unit",
       "heath",
       [](Rig& r) {
         Lead& l = *r.lead("esc_signal");
         l.to = {"controller", "ail_left", {}};
       },
       {"WIRING-16"}},
      {"servo of no surface",
       "hedgerow",
       [](Rig& r) {
         for (Part& p : r.parts)
           if (p.id == "servo_flaperon_left") p.surface.reset();
       },
       {"WIRING-19", "WIRING-20"}},
      {"surface without a servo",
       "hedgerow",
       [](Rig& r) {
         std::erase_if(r.parts, [](const Part& p) { return p.id == "servo_flaperon_left"; });
         std::erase_if(r.mountings, [](const Mounting& p) { return p.part == "servo_flaperon_left"; });
         remove_lead(r, "servo_flaperon_left");
         r.fit.frame_side_m -= 0.006;
       },
       {"WIRING-20"}},
      {"plugged in nowhere", "hedgerow", [](Rig& r) { remove_lead(r, "buzzer"); }, {"WIRING-21"}},
      {"servo on another's output",
       "hedgerow",
       [](Rig& r) {
         to_socket(r, "servo_flaperon_left", "slot_2");
         to_socket(r, "servo_flaperon_right", "slot_1");
       },
       {"WIRING-22", "WIRING-22"}},
      {"lead too short", "hedgerow", [](Rig& r) { r.lead("gps")->length_m = 0.1; }, {"WIRING-25"}},
      {"lead too thin",
       "hedgerow",
       [](Rig& r) { r.lead("servo_flaperon_left")->gauge_awg = 30; },
       {"POWER-13", "WIRING-26"}},
      {"battery lead too thin", "hedgerow", [](Rig& r) { r.lead("module")->gauge_awg = 18; }, {"WIRING-27"}},
      {"speed controller without a signal",
       "hedgerow",
       [](Rig& r) { std::erase_if(r.leads, [](const Lead& l) { return far_end(l, "esc", "servo") != nullptr; }); },
       {"POWER-02", "WIRING-28"}},
      {"camera without a picture",
       "hedgerow",
       [](Rig& r) { std::erase_if(r.leads, [](const Lead& l) { return far_end(l, "camera", "video") != nullptr; }); },
       {"WIRING-29"}},
      {"satellites without data", "hedgerow", [](Rig& r) { remove_lead(r, "gps"); }, {"POWER-14", "WIRING-30"}},
      {"motor on a servo's socket",
       "hedgerow",
       [](Rig& r) {
         for (Lead& l : r.leads)
           if (far_end(l, "esc", "servo")) l.to.socket = "slot_5";
       },
       {"WIRING-31"}}};
}

INSTANTIATE_TEST_SUITE_P(Fit, BreakThePlan, testing::ValuesIn(fit_breaks()));
INSTANTIATE_TEST_SUITE_P(Power, BreakThePlan, testing::ValuesIn(power_breaks()));
INSTANTIATE_TEST_SUITE_P(Wiring, BreakThePlan, testing::ValuesIn(wiring_breaks()));

std::set<std::string> all_codes(const Rig& rig) {
  const Set some = codes(rig);
  return {some.begin(), some.end()};
}

TEST(Rules, OfInlineUnits) {
  Rig rig = demo("heath");
  rig.airframe.kind = AirframeKind::aileron_y_lead;
  rig.outputs = default_outputs(AirframeKind::aileron_y_lead);
  for (Output& o : rig.outputs)
    o.socket = o.surfaces.empty()                            ? ""
               : o.surfaces[0].kind == SurfaceKind::aileron  ? "ail_right"
               : o.surfaces[0].kind == SurfaceKind::elevator ? "ele"
                                                             : "rud";
  EXPECT_EQ(all_codes(rig).count("WIRING-17"), 1u);
  EXPECT_EQ(all_codes(rig).count("AIRFRAME-02"), 0u);
  for (Output& o : rig.outputs)
    if (o.socket == "ail_right") o.socket = "ail_left";
  EXPECT_EQ(all_codes(rig).count("WIRING-17"), 0u);
  // Something else in the inlet kept for a regulator.
  add_part(rig, "extra", "receiver_pulse_6");
  add_lead(rig, "extra", "extra", "ch1", "controller", "supply");
  EXPECT_EQ(all_codes(rig).count("WIRING-24"), 1u);
}

TEST(Rules, OfTheTowRelease) {
  Rig rig = demo("hedgerow");
  rig.airframe.kind = AirframeKind::towed_glider;
  rig.outputs = default_outputs(AirframeKind::towed_glider);
  int n = 0;
  for (Output& o : rig.outputs) o.socket = "slot_" + std::to_string(++n);
  EXPECT_EQ(all_codes(rig).count("WIRING-18"), 1u);
  const Output* tow = nullptr;
  for (const Output& o : rig.outputs)
    if (o.surfaces.empty()) tow = &o;
  ASSERT_TRUE(tow);
  add_part(rig, "release", "servo_9g_analogue");
  add_lead(rig, "release", "release", "plug", "controller", tow->socket);
  EXPECT_EQ(all_codes(rig).count("WIRING-18"), 0u);
}

TEST(Rules, OfYLeadsAndTwins) {
  Rig rig = demo("hedgerow");
  rig.airframe.kind = AirframeKind::aileron_y_lead;
  rig.outputs = default_outputs(AirframeKind::aileron_y_lead);
  int n = 0;
  for (Output& o : rig.outputs) o.socket = "slot_" + std::to_string(++n);
  std::erase_if(rig.parts, [](const Part& p) { return p.surface.has_value(); });
  std::erase_if(rig.mountings, [](const Mounting& p) { return p.part.starts_with("servo_"); });
  std::erase_if(rig.leads, [](const Lead& l) { return l.from.part.starts_with("servo_"); });
  for (const Output& o : rig.outputs)
    for (const Surface s : o.surfaces) add_part(rig, "servo_" + s.name(), "servo_9g_digital", s);
  EXPECT_EQ(all_codes(plan_wiring(rig, shipped()).rig).count("WIRING-23"), 1u);
  Rig twin = demo("hedgerow");
  add_part(twin, "propeller_2", "propeller_10x7");
  EXPECT_EQ(all_codes(twin).count("POWER-28"), 1u);
}

TEST(Rules, OfTheUsbPort) {
  Rig rig = demo("hedgerow");
  rig.controller.kind = "greedy";
  Catalogue c = shipped();
  ControllerClass greedy = *c.controller("full_controller");
  greedy.id = "greedy";
  greedy.loads[0].idle_a = greedy.loads[0].typical_a = greedy.loads[0].most_a = 0.7;
  c.controllers.push_back(greedy);
  const Review r = review(rig, c);
  EXPECT_EQ(std::count_if(r.snags.begin(), r.snags.end(), [](const Snag& s) { return s.code == "POWER-25"; }), 1);
}

TEST(Rules, AreManyAndTheirCodesDiffer) {
  std::set<std::string_view> seen;
  std::size_t planning = 0;
  for (const auto* rules : {&airframe_rules(), &fit_rules(), &power_rules(), &lead_rules(), &output_rules(),
                            &surfaces_rules(), &sticks_rules(), &senses_rules(), &proof_rules()})
    for (const Rule& r : *rules) EXPECT_TRUE(seen.insert(r.code).second) << r.code;
  planning = fit_rules().size() + power_rules().size() + lead_rules().size() + output_rules().size();
  EXPECT_GE(planning, 60u);
}

TEST(Rules, GoodRigsHaveNoSnagsAndAnEmptyOneIsNotFlooded) {
  for (const char* name : {"hedgerow", "heath", "delta"}) EXPECT_EQ(codes(good(name)), Set{}) << name;
  Rig empty;
  empty.controller.kind = "full_controller";
  const Review r = review(empty, shipped());
  for (const Snag& s : r.snags) EXPECT_NE(s.station, Station::wiring) << s.code << " " << s.what;
}

// What hears the sticks from nothing else needs a receiver on its list; a class that is one needs none beside it.
TEST(Rules, AListWithoutAReceiverIsSaid) {
  for (const ControllerClass& c : shipped().controllers) {
    auto begun = begin_rig(shipped(), new_aircraft(c.id));
    ASSERT_TRUE(begun) << c.id;
    const auto said = [&](const Rig& rig) {
      const auto snags = review(rig, shipped()).snags;
      return std::any_of(snags.begin(), snags.end(), [](const Snag& s) { return s.code == "FIT-25"; });
    };
    EXPECT_FALSE(said(begun->rig)) << c.id;
    const auto receivers = parts_of(begun->rig, shipped(), PartGroup::receiver);
    if (receivers.empty()) {
      EXPECT_EQ(c.id, "radio_stabilizer");
      continue;
    }
    const std::string id = receivers.front()->id;
    std::erase_if(begun->rig.parts, [&](const Part& p) { return p.id == id; });
    std::erase_if(begun->rig.leads, [&](const Lead& l) { return l.from.part == id || l.to.part == id; });
    std::erase_if(begun->rig.mountings, [&](const Mounting& m) { return m.part == id; });
    EXPECT_TRUE(said(begun->rig)) << c.id;
  }
}

}  // namespace
}  // namespace rigging
