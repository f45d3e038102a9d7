#include "harness.h"
#include "base/json.h"

#include <gtest/gtest.h>

#include "bench_rig.h"
#include "direction/from_rig.h"
#include "link/client.h"
#include "ports.h"
#include "rig/rig_file.h"

// Leads that are not as planned, and what follows on the bench.
namespace rigging::twin {
namespace {

Harness with(const char* rig_name, const std::vector<std::string>& faults, Supply supply = {false, true}) {
  const Rig rig = demo(rig_name);
  std::vector<LeadFault> all;
  for (const std::string& text : faults) {
    const auto f = lead_fault_from_text(text, rig, shipped());
    EXPECT_TRUE(f) << f.error().text();
    if (f) {
      all.push_back(*f);
      EXPECT_EQ(lead_fault_text(*f), text);
    }
  }
  Harness harness(rig, shipped(), all);
  harness.power(supply);
  return harness;
}

constexpr Surface left_flaperon{SurfaceKind::flaperon, Side::left};

TEST(Harness, AsPlannedEverythingWorks) {
  for (const char* name : {"hedgerow", "heath", "delta", "bramble"}) {
    const Harness harness = with(name, {});
    EXPECT_TRUE(harness.controller_powered() && harness.servo_rail_powered() && harness.receiver_heard()) << name;
    for (const auto& [port, talks] : harness.ports()) EXPECT_TRUE(talks) << name << " " << port;
  }
  EXPECT_NEAR(with("hedgerow", {}).battery_v(), 16.8, 1e-9);
  const Harness usb = with("hedgerow", {}, {true, false});
  EXPECT_TRUE(usb.controller_powered());
  EXPECT_FALSE(usb.servo_rail_powered() || usb.receiver_heard());
  EXPECT_EQ(usb.battery_v(), 0);
  EXPECT_FALSE(with("hedgerow", {}, {false, false}).controller_powered());
}

TEST(Harness, ATurnedPairIsSilentAndNothingIsHarmed) {
  Harness harness = with("hedgerow", {"pair_turned:gps"});
  EXPECT_FALSE(harness.ports().at("serial_4"));
  EXPECT_TRUE(harness.ports().at("bus"));
  EXPECT_TRUE(harness.destroyed().empty());
  harness.power({});
  ASSERT_TRUE(harness.mend("gps"));
  harness.power({false, true});
  EXPECT_TRUE(harness.ports().at("serial_4"));
}

TEST(Harness, TheMeasuringLeadInTheWrongSocketReadsZero) {
  const Harness harness = with("hedgerow", {"wrong_socket:module_sense,serial_3"});
  EXPECT_EQ(harness.battery_v(), 0);
}

TEST(Harness, AMissingRedWireLeavesThingsDark) {
  EXPECT_FALSE(with("delta", {"red_missing:receiver"}).receiver_heard());
  EXPECT_FALSE(with("hedgerow", {"red_missing:servo_flaperon_left"}).servo_works(left_flaperon));
  EXPECT_TRUE(with("hedgerow", {"red_missing:servo_flaperon_left"}).servo_works({SurfaceKind::flaperon, Side::right}));
  // On the delta the speed controller feeds everything.
  const Harness unpowered = with("delta", {"red_missing:esc_signal"});
  EXPECT_FALSE(unpowered.servo_rail_powered() || unpowered.receiver_heard() || unpowered.controller_powered());
}

TEST(Harness, ATurnedPlugIsSeenBeforePowerOrDestroys) {
  Harness harness = with("hedgerow", {"plug_turned:servo_flaperon_left"}, {});
  const auto seen = harness.inspect("servo_flaperon_left");
  ASSERT_TRUE(seen);
  EXPECT_TRUE((*seen)["plug_turned"].get<bool>());
  EXPECT_TRUE(harness.destroyed().empty());
  Harness hasty = harness;
  ASSERT_TRUE(harness.mend("servo_flaperon_left"));
  harness.power({false, true});
  EXPECT_TRUE(harness.servo_works(left_flaperon));
  EXPECT_TRUE(harness.destroyed().empty());
  hasty.power({false, true});
  EXPECT_EQ(hasty.destroyed(), std::set<std::string>{"servo_flaperon_left"});
  hasty.power({});
  ASSERT_TRUE(hasty.mend("servo_flaperon_left"));
  hasty.power({false, true});
  EXPECT_FALSE(hasty.servo_works(left_flaperon)) << "what is destroyed stays destroyed";
}

TEST(Harness, LeadsAreHandledWithEverythingDark) {
  Harness harness = with("hedgerow", {});
  EXPECT_FALSE(harness.inspect("gps"));
  EXPECT_FALSE(harness.mend("gps"));
  harness.power({});
  EXPECT_TRUE(harness.inspect("gps"));
  EXPECT_FALSE(harness.inspect("no_such_lead"));
}

TEST(Harness, AnotherBaudIsSilentUntilItIsMended) {
  Harness harness = with("hedgerow", {"other_baud:gps"});
  EXPECT_FALSE(harness.ports().at("serial_4"));
  harness.power({});
  ASSERT_TRUE(harness.mend("gps"));
  harness.power({false, true});
  EXPECT_TRUE(harness.ports().at("serial_4"));
}

TEST(Harness, PortsTakeEffectAfterARestart) {
  Rig rig = demo("hedgerow");
  const ControllerClass& c = *shipped().controller(rig.controller.kind);
  Bench bench(rig, c, *truth_of(rig, c, {}), Harness(rig, shipped(), {}));
  bench.plug({false, true});
  ASSERT_TRUE(bench.harness().ports().at("serial_4"));
  ASSERT_TRUE(bench.harness().receiver_heard());
  for (Port& p : rig.ports)
    if (p.socket == "serial_4") p.baud = 9600;
  rig.radio.receiver_signal = Signal::summed;
  bench.step(0.02);
  bench.configure(link::image_of(rig));
  EXPECT_TRUE(bench.harness().ports().at("serial_4")) << "until it is started again";
  EXPECT_TRUE(bench.harness().receiver_heard());
  bench.plug({});
  bench.plug({false, true});
  EXPECT_FALSE(bench.harness().ports().at("serial_4"));
  EXPECT_FALSE(bench.harness().receiver_heard()) << "it listens for another signal than the receiver puts out";
}

TEST(Harness, AReceiverSetToAnotherOutputIsSilent) {
  Rig rig = demo("hedgerow");
  rig.part("receiver")->kind = "receiver_chosen";
  for (Lead& l : rig.leads)
    for (LeadEnd* e : {&l.from, &l.to})
      if (e->part == "receiver") e->socket = "out";
  const auto fault = lead_fault_from_text("other_signal:receiver", rig, shipped());
  ASSERT_TRUE(fault) << fault.error().text();
  Harness harness(rig, shipped(), {*fault});
  harness.power({false, true});
  EXPECT_FALSE(harness.receiver_heard());
  EXPECT_TRUE(harness.ports().at("serial_4"));
  Harness right(rig, shipped(), {});
  right.power({false, true});
  EXPECT_TRUE(right.receiver_heard());
}

TEST(Harness, AnOutputPassesItsChannelThrough) {
  Rig rig = demo("hedgerow");
  Output& o = rig.outputs.emplace_back();
  o.id = "pass_1";
  o.socket = "slot_8";
  o.passthrough_channel = 8;
  const ControllerClass& c = *shipped().controller(rig.controller.kind);
  Bench bench(rig, c, *truth_of(rig, c, {}), Harness(rig, shipped(), {}));
  bench.plug({false, true});
  for (const double position : {-1.0, 1.0}) {
    bench.radio().control(8, position);
    for (int i = 0; i < 100; ++i) bench.step(0.01);
    EXPECT_NEAR(bench.pulses().at("slot_8"), 1500 + 500 * position, 3);
  }
  bench.transmitter(false);
  for (int i = 0; i < 100; ++i) bench.step(0.01);
  EXPECT_EQ(bench.pulses().at("slot_8"), o.centre_us);
}

TEST(Harness, FaultsAreReadStrictly) {
  const Rig rig = demo("hedgerow");
  for (const char* bad :
       {"", "pair_turned", "spoon:gps", "pair_turned:nothing", "pair_turned:servo_flaperon_left", "plug_turned:gps",
        "wrong_socket:gps", "wrong_socket:gps,slot_99", "wrong_socket:servo_flaperon_left,slot_2"}) {
    const auto f = lead_fault_from_text(bad, rig, shipped());
    EXPECT_FALSE(f) << bad;
    if (!f) EXPECT_FALSE(f.error().expected.empty());
  }
}

TEST(Harness, DrawnFaultsShow) {
  for (const char* name : {"hedgerow", "heath", "delta", "bramble"})
    for (unsigned seed = 1; seed <= 20; ++seed) {
      const Rig rig = demo(name);
      const auto faults = drawn_lead_faults(rig, shipped(), 1, seed);
      ASSERT_EQ(faults.size(), 1u);
      const Harness right(rig, shipped(), {});
      Harness wrong(rig, shipped(), faults);
      const auto seen = wrong.inspect(faults[0].lead), plain = right.inspect(faults[0].lead);
      ASSERT_TRUE(seen && plain);
      EXPECT_NE(*seen, *plain) << lead_fault_text(faults[0]);
    }
}

TEST(Harness, TheBoardReportsItOverTheLink) {
  const Rig rig = demo("hedgerow");
  const ControllerClass& c = *shipped().controller(rig.controller.kind);
  const auto fault = lead_fault_from_text("pair_turned:gps", rig, shipped());
  Bench bench(rig, c, *truth_of(rig, c, {}), Harness(rig, shipped(), {*fault}));
  bench.plug({false, true});
  bench.step(0.5);
  Store store;
  ControllerPort port(bench, store, "1");
  link::Client client;
  Json reply;
  for (auto& item : client.feed(port.feed(client.ask("sensors").second))) reply = std::get<link::Reply>(item).body;
  EXPECT_EQ(reply["ports"]["serial_4"], false);
  EXPECT_EQ(reply["ports"]["serial_2"], true);
  EXPECT_NEAR(reply["battery_v"].get<double>(), 16.8, 1e-9);
  HandsPort hands(bench, {});
  link::Client eyes;
  for (auto& item : eyes.feed(hands.feed(eyes.ask("inspect", {{"lead", "gps"}}).second)))
    EXPECT_FALSE(std::get<link::Reply>(item).ok());
  bench.plug({});
  for (auto& item : eyes.feed(hands.feed(eyes.ask("inspect", {{"lead", "gps"}}).second)))
    EXPECT_TRUE(std::get<link::Reply>(item).body["pair_turned"].get<bool>());
}

}  // namespace
}  // namespace rigging::twin
