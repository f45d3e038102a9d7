#include "proof/version_1.h"

#include <gtest/gtest.h>

#include <fstream>
#include <sstream>

#include "base/json.h"
#include "bench_rig.h"
#include "places.h"
#include "rig/rig_file.h"

namespace rigging {
namespace {

const std::filesystem::path folder = in_source("/tests/rig/version_1");

/// Rigs as version 1 wrote them, with every check proven, as they were and changed afterwards; states.txt says how
/// version 1 saw each proof.
TEST(Version1, EveryProofOpensAsItWas) {
  std::ifstream in(folder / "states.txt");
  int rigs = 0, fresh = 0, stale = 0;
  for (std::string line; std::getline(in, line);) {
    std::istringstream words(line);
    std::string name, word_of;
    words >> name;
    name.pop_back();
    const auto opened = open_rig(folder / (name + ".rig.json"), shipped());
    ASSERT_TRUE(opened) << opened.error().text();
    ++rigs;
    const auto checks = check_statuses(opened->rig, shipped());
    while (words >> word_of) {
      const auto at = word_of.find('=');
      const CheckStatus* check = find_check(checks, word_of.substr(0, at));
      ASSERT_TRUE(check) << word_of;
      EXPECT_EQ(name_of(check->state), word_of.substr(at + 1))
          << name << " " << check->id.text() << " " << check->because();
      EXPECT_EQ(check->because().empty(), check->state != ProofState::stale) << check->because();
      fresh += check->state == ProofState::fresh;
      stale += check->state == ProofState::stale;
    }
    // Once taken over it is a rig of this version, and stays as it is.
    const auto again = rig_from_json(*parse_json(rig_text(opened->rig), "x"), "x");
    ASSERT_TRUE(again) << again.error().text();
    EXPECT_EQ(*again, opened->rig);
    for (const Proof& p : opened->rig.proofs) EXPECT_TRUE(p.fingerprint.empty());
    EXPECT_EQ(opened->rig.parts.at(0).mass_kg, 0.4) << "a weighed mass was no member in version 1";
  }
  EXPECT_EQ(rigs, 6);
  EXPECT_GT(fresh, 60);
  EXPECT_GT(stale, 12);
}

TEST(Version1, WhatChangesAfterwardsAgesTheProof) {
  Rig rig = open_rig(folder / "hedgerow.rig.json", shipped())->rig;
  EXPECT_EQ(status_of(rig, {stick_family, "roll"}).state, ProofState::fresh);
  rig.outputs[0].reversed = true;
  const CheckStatus roll = status_of(rig, {stick_family, "roll"});
  EXPECT_EQ(roll.state, ProofState::stale);
  EXPECT_NE(roll.because().find("out_1"), std::string::npos) << roll.because();
}

}  // namespace
}  // namespace rigging
