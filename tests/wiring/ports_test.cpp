#include <gtest/gtest.h>

#include "airframe/kinds.h"
#include "base/find.h"
#include "bench_rig.h"
#include "link/image.h"
#include "power/power.h"
#include "wiring/edits.h"
#include "wiring/plan.h"
#include "wiring/ports.h"

namespace rigging {
namespace {

/// A wing with everything that can hang on a port.
Rig with_video() {
  Rig rig = fresh_rig("ports", AirframeKind::flying_wing, "full_controller");
  add_drive(rig);
  add_part(rig, "receiver", "receiver_serial_inverted_telemetry");
  add_part(rig, "gps", "satellite_compass");
  add_part(rig, "video", "video_digital");
  return plan_wiring(rig, shipped()).rig;
}

const Port* port_for(const Rig& rig, PortJob job) {
  return find_in(rig.ports, [&](const Port& p) { return p.job == job; });
}

TEST(Ports, ThePlanTellsThemWhatHangsOnThem) {
  const Rig rig = with_video();
  const Port* receiver = port_for(rig, PortJob::receiver);
  ASSERT_TRUE(receiver);
  EXPECT_EQ(receiver->direction, PortDirection::listens);
  EXPECT_FALSE(receiver->baud) << "the signal has a baud of its own";
  EXPECT_EQ(shipped().controller("full_controller")->terminal(receiver->socket)->kind, TerminalKind::serial_inverting);
  const Port* satellites = port_for(rig, PortJob::satellite_receiver);
  ASSERT_TRUE(satellites);
  EXPECT_EQ(satellites->baud, 115200);
  const Port* back = port_for(rig, PortJob::telemetry);
  ASSERT_TRUE(back);
  EXPECT_EQ(back->direction, PortDirection::speaks) << "one wire, away from the board";
  ASSERT_TRUE(port_for(rig, PortJob::display));
  EXPECT_EQ(port_for(rig, PortJob::display)->direction, PortDirection::both);
  EXPECT_EQ(rig.radio.receiver_signal, Signal::inverted_serial);
  for (const Lead& l : rig.leads) EXPECT_EQ(deaf_because(rig, shipped(), l), "") << l.id;
}

TEST(Ports, TheReturnWireGoesWithoutBeforeAnythingThatIsNeeded) {
  Rig rig = with_video();
  for (const char* id : {"gps_2", "gps_3"}) add_part(rig, id, "satellite_plain");
  rig.leads.clear();
  const Plan plan = plan_wiring(rig, shipped());
  // Receiver, three satellite receivers and the video unit share five ports: the return wire finds none.
  EXPECT_FALSE(port_for(plan.rig, PortJob::telemetry));
  EXPECT_TRUE(find_in(plan.obstacles, [](const Obstacle& o) { return o.code == "WIRING-36"; }));
  EXPECT_FALSE(find_in(plan.obstacles, [](const Obstacle& o) { return o.code == "WIRING-01"; }));
  EXPECT_EQ(plan.rig.ports.size(), 5u);
}

TEST(Ports, ALeadThatIsMovedTakesItsJobAlong) {
  const Rig rig = with_video();
  const Port before = *port_for(rig, PortJob::satellite_receiver);
  const ControllerClass& c = *shipped().controller("full_controller");
  const Terminal* free =
      find_in(c.ports, [&](const Terminal& t) { return t.kind == TerminalKind::serial && !rig.port(t.id); });
  ASSERT_TRUE(free);
  std::string lead;
  for (const Lead& l : rig.leads)
    if (const LeadEnd* far = far_end(l, "controller", before.socket)) lead = far ? l.id : "";
  const auto moved = plug(rig, shipped(), lead, free->id);
  ASSERT_TRUE(moved);
  EXPECT_EQ(port_for(moved->rig, PortJob::satellite_receiver)->socket, free->id);
  EXPECT_FALSE(moved->rig.port(before.socket));
}

TEST(Ports, SayWhyTheBoardIsDeaf) {
  Rig rig = with_video();
  const Port at = *port_for(rig, PortJob::satellite_receiver);
  const Lead* lead = find_in(rig.leads, [&](const Lead& l) { return far_end(l, "controller", at.socket) != nullptr; });
  ASSERT_TRUE(lead);
  const auto with = [&](auto&& change) {
    Rig other = rig;
    change(*find_in(other.ports, [&](const Port& p) { return p.socket == at.socket; }), *other.part("gps"));
    return deaf_because(other, shipped(), *other.lead(lead->id));
  };
  EXPECT_NE(with([](Port& p, Part&) { p.baud = 57600; }).find("57600"), std::string::npos);
  EXPECT_NE(with([](Port&, Part& gps) { gps.baud = 9600; }).find("speaks 9600"), std::string::npos);
  EXPECT_NE(with([](Port& p, Part&) { p.job = PortJob::display; }).find("told display"), std::string::npos);
  EXPECT_NE(with([](Port& p, Part&) { p.direction = PortDirection::speaks; }).find("speaks only"), std::string::npos);
  // Half a bit in ten may be off (8N1).
  EXPECT_EQ(with([](Port& p, Part&) { p.baud = 117500; }), "");
  EXPECT_NE(with([](Port& p, Part&) { p.baud = 121000; }), "");
}

TEST(Ports, AReceiverSetToAnotherOutputIsSilent) {
  Rig rig = fresh_rig("chosen", AirframeKind::flying_wing, "full_controller");
  add_part(rig, "battery", "battery_3s_2200");
  add_part(rig, "receiver", "receiver_chosen");
  rig = plan_wiring(rig, shipped()).rig;
  const Lead& lead = *find_in(rig.leads, [](const Lead& l) { return far_end(l, "receiver") != nullptr; });
  EXPECT_EQ(receiver_signal(rig, shipped()), Signal::inverted_serial);
  EXPECT_EQ(deaf_because(rig, shipped(), lead), "");
  const auto summed = receiver_says(rig, shipped(), "receiver", Signal::summed);
  ASSERT_TRUE(summed);
  EXPECT_EQ(receiver_signal(summed->rig, shipped()), Signal::summed);
  EXPECT_NE(deaf_because(summed->rig, shipped(), lead).find("listens for inverted serial"), std::string::npos);
  // One pin takes either, once the board is told.
  const Edit told = tell_ports(summed->rig, shipped());
  EXPECT_EQ(told.rig.radio.receiver_signal, Signal::summed);
  EXPECT_EQ(deaf_because(told.rig, shipped(), lead), "");
  EXPECT_FALSE(receiver_says(rig, shipped(), "receiver", Signal::pulse)) << "it has no such output";
  EXPECT_FALSE(receiver_says(rig, shipped(), "battery", Signal::summed));
}

TEST(Ports, AreRefusedInWords) {
  const Rig rig = with_video();
  const auto refused = [&](const Port& p) {
    const auto edit = set_port(rig, shipped(), p);
    return edit ? std::string() : edit.error().text();
  };
  Port p;
  p.socket = "slot_1";
  EXPECT_NE(refused(p).find("no serial port"), std::string::npos);
  p.socket = "soft_1";
  p.job = PortJob::telemetry;
  p.baud = 115200;
  EXPECT_NE(refused(p).find("at most 57600"), std::string::npos);
  p.baud = 57600;
  EXPECT_EQ(refused(p), "");
  Rig mini = fresh_rig("mini", AirframeKind::flying_wing, "fixed_wing");
  EXPECT_FALSE(set_port(mini, shipped(), p));
  EXPECT_TRUE(ports_wanted(mini, shipped()).empty());
}

TEST(Ports, StandInTheImageAndAreTakenOverOneByOne) {
  const Rig rig = with_video();
  const Port at = *port_for(rig, PortJob::satellite_receiver);
  Rig other = rig;
  find_in(other.ports, [&](const Port& p) { return p.socket == at.socket; })->baud = 9600;
  other.radio.receiver_signal = Signal::summed;
  std::erase_if(other.ports, [](const Port& p) { return p.job == PortJob::telemetry; });
  const auto found = link::differences(link::image_of(rig), link::image_of(other));
  ASSERT_EQ(found.size(), 3u);
  const auto words_of = [&](const std::string& part) {
    const auto* d = find_in(found, [&](const link::Difference& x) { return x.part == part; });
    return d ? d->words : std::string("(none)");
  };
  EXPECT_EQ(words_of("port " + at.socket), "baud 9600 on the board, 115200 in the rig");
  EXPECT_EQ(words_of("receiver_signal"), "receiver's signal summed on the board, inverted serial in the rig");
  const std::string back = "port " + port_for(rig, PortJob::telemetry)->socket;
  EXPECT_EQ(words_of(back), "not used on the board, used in the rig");
  const Rig taken = link::with_board_parts(rig, link::image_of(other), {"port " + at.socket, back});
  EXPECT_EQ(taken.port(at.socket)->baud, 9600);
  EXPECT_FALSE(port_for(taken, PortJob::telemetry));
  EXPECT_EQ(taken.radio.receiver_signal, Signal::inverted_serial) << "not asked for";
}

TEST(PassChannel, GivesAnOutputThatStaysWithTheAirframesChanges) {
  Rig rig = with_video();
  const auto edit = pass_channel(rig, shipped(), 8);
  ASSERT_TRUE(edit);
  const Output* o = edit->rig.output("pass_1");
  ASSERT_TRUE(o);
  EXPECT_EQ(o->passthrough_channel, 8);
  EXPECT_FALSE(o->socket.empty());
  EXPECT_FALSE(drives_motor(*o)) << "no mix, and no motor";
  EXPECT_TRUE(with_kind(edit->rig, AirframeKind::v_tail).output("pass_1"));
  EXPECT_FALSE(pass_channel(rig, shipped(), 0));
  EXPECT_FALSE(pass_channel(rig, shipped(), 33));
  EXPECT_FALSE(pass_channel(fresh_rig("m", AirframeKind::flying_wing, "fixed_wing"), shipped(), 8));
  // A camera switch hangs on it, and both cameras on the switch.
  Rig two = edit->rig;
  add_part(two, "front", "camera_small");
  add_part(two, "back", "camera_small");
  add_part(two, "pick", "camera_switch");
  const Plan plan = plan_wiring(two, shipped());
  const auto goes = [&](const char* part, const char* socket) {
    for (const Lead& l : plan.rig.leads)
      if (const LeadEnd* far = far_end(l, part, socket)) return far->part + " " + far->socket;
    return std::string();
  };
  EXPECT_EQ(goes("pick", "control"), "controller " + plan.rig.output("pass_1")->socket);
  EXPECT_EQ(goes("front", "video"), "pick in_a");
  EXPECT_EQ(goes("back", "video"), "pick in_b");
  EXPECT_EQ(goes("pick", "out"), "controller cam");
}

TEST(Regulator, ComesInByAReceiverPortThatCarriesTheRailsPlus) {
  Rig rig = fresh_rig("gestures", AirframeKind::two_ailerons, "gesture_board");
  add_drive(rig, "battery_3s_2200", "esc_40_isolated");
  add_part(rig, "regulator", "regulator_5v_5a");
  add_part(rig, "receiver", "receiver_two_way");
  const Plan plan = plan_wiring(rig, shipped());
  const auto goes = [&](const char* part, const char* socket) {
    for (const Lead& l : plan.rig.leads)
      if (const LeadEnd* far = far_end(l, part, socket)) return far->socket;
    return std::string();
  };
  EXPECT_EQ(goes("receiver", "pair"), "small_1") << "the plain port for the receiver";
  EXPECT_EQ(goes("regulator", "out"), "small_2") << "all five outputs are taken";
}

TEST(RedWires, BothSchoolsOfAnInlineUnitLeaveOneSourceARail) {
  Rig rig = fresh_rig("inline", AirframeKind::two_ailerons, "inline_dial");
  add_drive(rig);
  add_part(rig, "receiver", "receiver_pulse");
  add_part(rig, "regulator", "regulator_5v_5a");
  for (const Surface s : facts_of(AirframeKind::two_ailerons).surfaces)
    add_part(rig, "servo_" + s.name(), "servo_9g_digital", s);
  rig = plan_wiring(rig, shipped()).rig;
  const auto reds_out = [](const Rig& r) {
    std::size_t inputs = 0, drive = 0;
    for (const Lead& l : r.leads) {
      if (l.plus_removed && far_end(l, "receiver") && far_end(l, "controller")) ++inputs;
      if (l.plus_removed && far_end(l, "esc") && far_end(l, "receiver")) ++drive;
    }
    return std::pair(inputs, drive);
  };
  const auto alive = [](const Rig& r) {
    const PowerReport p = analyze_power(r, shipped());
    const auto sources = [&](const char* part) { return p.source(part) && p.source(part)->worst_a() > 0; };
    for (const ConsumerReport& c : p.consumers) EXPECT_TRUE(c.powered[1]) << c.name;
    return std::pair(sources("esc"), sources("regulator"));
  };
  const auto apart = red_wires(rig, shipped(), true), joined = red_wires(rig, shipped(), false);
  ASSERT_TRUE(apart && joined) << apart.error().text();
  EXPECT_EQ(reds_out(apart->rig), std::pair(std::size_t{3}, std::size_t{0}));
  EXPECT_EQ(reds_out(joined->rig), std::pair(std::size_t{0}, std::size_t{1}));
  EXPECT_EQ(alive(apart->rig), std::pair(true, true)) << "each on its own";
  EXPECT_EQ(alive(joined->rig), std::pair(false, true)) << "the regulator feeds all";
  EXPECT_EQ(plan_wiring(apart->rig, shipped()).rig, apart->rig) << "the plan keeps what was chosen";
  EXPECT_FALSE(red_wires(demo("hedgerow"), shipped(), true));
}

}  // namespace
}  // namespace rigging
