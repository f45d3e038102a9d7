#include "wiring/lead_checks.h"
#include "base/json.h"

#include <gtest/gtest.h>

#include <set>

#include "bench_rig.h"
#include "review/review.h"
#include "wiring/plan.h"

namespace rigging {
namespace {

CheckId lead(const std::string& id) { return {lead_family, id}; }

TEST(LeadCards, EveryLeadOfEveryDemoSaysWhatToDoAndWhatToSee) {
  for (const char* name : {"hedgerow", "heath", "delta", "bramble"}) {
    const Rig rig = demo(name);
    std::set<std::string> titles;
    for (const Lead& l : rig.leads) {
      const LeadCard card = lead_card(rig, shipped(), l);
      EXPECT_TRUE(titles.insert(card.title).second) << card.title << " names two leads";
      EXPECT_TRUE(card.before_power.starts_with("Battery and USB out")) << l.id;
      EXPECT_FALSE(card.todo.empty() || card.expected.empty() || card.cautions.empty()) << l.id;
      EXPECT_NE(card.cautions.front().find("Propeller off"), std::string::npos);
      EXPECT_EQ(card.socket.empty(), far_end(l, "controller") == nullptr) << l.id;
    }
  }
}

// Where the class shows no channels, nobody is sent to read them.
TEST(LeadCards, AReceiverIsReadOnlyWhereTheClassShowsIt) {
  for (const char* of : {"heath", "hedgerow"}) {
    const Rig rig = demo(of);
    const bool reads = shipped().controller(rig.controller.kind)->sticks.reads_channels;
    std::size_t seen = 0;
    for (const Lead& l : rig.leads)
      if (const LeadEnd* far = far_end(l, "controller")) {
        const PartKind* k = kind_of(rig, shipped(), far->part);
        if (!k || k->group != PartGroup::receiver) continue;
        const LeadCard card = lead_card(rig, shipped(), l);
        EXPECT_EQ(card.todo.find("Read the channels") != std::string::npos, reads) << of << ": " << card.todo;
        EXPECT_EQ(card.evidence == LeadEvidence::port_talks, reads);
        ++seen;
      }
    EXPECT_GT(seen, 0u) << of;
  }
}

TEST(LeadCards, TheEvidenceFitsThePart) {
  const Rig rig = demo("hedgerow");
  const auto evidence = [&](const char* lead) { return lead_card(rig, shipped(), *rig.lead(lead)).evidence; };
  EXPECT_EQ(evidence("servo_flaperon_left"), LeadEvidence::surface_moves);
  EXPECT_EQ(evidence("gps"), LeadEvidence::port_talks);
  EXPECT_EQ(evidence("receiver"), LeadEvidence::port_talks);
  EXPECT_EQ(evidence("module_sense"), LeadEvidence::voltage_read);
  EXPECT_EQ(evidence("video"), LeadEvidence::picture_shown);
  EXPECT_EQ(evidence("buzzer"), LeadEvidence::eyes);
  EXPECT_NE(lead_card(rig, shipped(), *rig.lead("servo_flaperon_left")).expected.find("left flaperon moves"),
            std::string::npos);
  EXPECT_NE(lead_card(rig, shipped(), *rig.lead("gps")).before_power.find("Transmit goes to receive"),
            std::string::npos);
  EXPECT_NE(lead_card(rig, shipped(), *rig.lead("video_power")).todo.find("Antenna"), std::string::npos)
      << "before any power";
}

TEST(LeadProofs, GoStaleWhenAndOnlyWhenTheLeadChanges) {
  Rig rig = demo("hedgerow");
  EXPECT_EQ(status_of(rig, lead("gps")).state, ProofState::none);
  for (const Lead& l : demo("hedgerow").leads) rig = proven(rig, lead(l.id), "2026-11-01T10:00:00Z", false);
  EXPECT_EQ(review(rig, shipped()).stations[static_cast<std::size_t>(Station::wiring)], StationState::proven);
  const auto stale = [&](const std::function<void(Rig&)>& change) {
    Rig changed = rig;
    change(changed);
    std::set<std::string> ids;
    for (const CheckStatus& s : check_statuses(changed, shipped()))
      if (s.state == ProofState::stale) {
        ids.insert(s.id.subject);
        EXPECT_FALSE(s.because().empty());
      }
    return ids;
  };
  using Ids = std::set<std::string>;
  EXPECT_EQ(stale([](Rig& r) { r.lead("gps")->to.socket = "serial_3"; }), Ids{"gps"});
  EXPECT_EQ(stale([](Rig& r) { r.lead("receiver")->pair_turned = true; }), Ids{"receiver"});
  EXPECT_EQ(stale([](Rig& r) { r.lead("esc_signal")->plus_removed = true; }), Ids{"esc_signal"});
  // Another battery: the leads that hang on it.
  EXPECT_EQ(stale([](Rig& r) {
              for (Part& p : r.parts)
                if (p.id == "battery") p.kind = "battery_4s_2200";
            }),
            Ids{"module"});
  EXPECT_EQ(stale([](Rig& r) { r.controller.kind = "pc_mini"; }).size(), 14u) << "all that touch the board";
  // None of these changes a lead.
  EXPECT_EQ(stale([](Rig& r) { r.lead("gps")->length_m = 0.7; }), Ids{});
  EXPECT_EQ(stale([](Rig& r) { r.lead("gps")->fixed = true; }), Ids{});
  EXPECT_EQ(stale([](Rig& r) { r.mounting("gps")->y_m = 0.2; }), Ids{});
  EXPECT_EQ(stale([](Rig& r) { r.outputs[0].reversed = true; }), Ids{});
  // Back again: fresh again.
  Rig there = rig;
  there.lead("gps")->to.socket = "serial_3";
  there.lead("gps")->to.socket = rig.lead("gps")->to.socket;
  EXPECT_EQ(status_of(there, lead("gps")).state, ProofState::fresh);
}

TEST(LeadProofs, SaySoInTheReviewAndNeverOfLeadsThatAreNotThere) {
  Rig rig = demo("hedgerow");
  const Rig same = proven(rig, lead("no_such_lead"), "2026-11-01T10:00:00Z", false);
  EXPECT_EQ(same, rig);
  rig = proven(rig, lead("gps"), "2026-11-01T10:00:00Z", true);
  ASSERT_EQ(rig.proofs.size(), 1u);
  EXPECT_TRUE(rig.proofs[0].simulated);
  EXPECT_EQ(rig.proofs[0].check, lead("gps"));
  const Json json = review_to_json(rig, review(rig, shipped()));
  int fresh = 0;
  for (const Json& c : json["checks"]) fresh += c["state"] == "fresh";
  EXPECT_EQ(fresh, 1);
  rig.lead("gps")->to.socket = "serial_3";
  const Json after = review_to_json(rig, review(rig, shipped()));
  ASSERT_EQ(after["stale_proofs"].size(), 1u);
  EXPECT_EQ(after["stale_proofs"][0]["check"], "lead.gps");
  EXPECT_NE(after["stale_proofs"][0]["because"].get<std::string>().find("serial_3"), std::string::npos);
  // Twice looked at: one proof.
  rig = proven(proven(rig, lead("gps"), "2026-11-02T10:00:00Z"), lead("gps"), "2026-11-03T10:00:00Z");
  EXPECT_EQ(rig.proofs.size(), 1u);
  EXPECT_EQ(rig.proofs[0].at, "2026-11-03T10:00:00Z");
}

TEST(LeadProofs, SurviveTheFile) {
  Rig rig = proven(demo("heath"), lead("esc_signal"), "2026-11-01T10:00:00Z", false);
  const auto again = rig_from_json(*parse_json(rig_text(rig), "x"), "x");
  ASSERT_TRUE(again);
  EXPECT_EQ(*again, rig);
  EXPECT_EQ(status_of(*again, lead("esc_signal")).state, ProofState::fresh);
}

}  // namespace
}  // namespace rigging
