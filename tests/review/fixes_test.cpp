#include <gtest/gtest.h>

#include <random>

#include "airframe/kinds.h"
#include "begin/begin.h"
#include "bench_rig.h"
#include "review/review.h"

namespace rigging {
namespace {

/// A rig of any kind with any class, begun as a builder would who takes what is usual; nothing of it is chosen to fit.
Rig drawn(std::mt19937& random, AirframeKind kind, const std::string& controller) {
  NewAircraft told;
  told.name = "Stray";
  told.kind = kind;
  told.controller = controller;
  const double span_m = std::uniform_real_distribution<double>(0.6, 2.6)(random);
  told.span_m = span_m;
  if (random() % 4) told.mass_kg = 0.55 * span_m * span_m;
  const auto airframe = airframe_of(told);
  if (const auto drives = suggest_drives(*airframe, shipped(), {}); !drives.empty()) told.drive = drives.front().kinds;
  told.servo = usual_servo(*airframe, shipped());
  told.receiver = usual_receiver(shipped(), controller);
  if (random() % 2)
    told.others = parts_in_words(shipped(), "camera, video transmitter, satellite with compass, buzzer");
  const auto edit = begin_rig(shipped(), told);
  EXPECT_TRUE(edit) << name_of(kind) << " with " << controller;
  return edit ? edit->rig : Rig{};
}

/// Every fix that is offered on the way, in any order: it changes the rig, its snag is gone, and there is an end to it.
TEST(Fixes, MendTheirSnagOnRigsOfEveryKindAndClass) {
  std::mt19937 random(31);
  int carried_out = 0;
  for (const auto& [kind, name] : Names<AirframeKind>::list)
    for (const ControllerClass& c : shipped().controllers) {
      Rig rig = drawn(random, kind, c.id);
      const std::string of = std::string(name) + " with " + c.id;
      int steps = 0;
      for (;; ++steps) {
        ASSERT_LT(steps, 40) << of << " has no end";
        const Review now = review(rig, shipped());
        std::vector<const Snag*> fixable;
        for (const Snag& s : now.snags)
          if (s.fix) fixable.push_back(&s);
        if (fixable.empty()) break;
        const Snag& s = *fixable[random() % fixable.size()];
        const auto edit = s.fix->edit(rig, shipped());
        ASSERT_TRUE(edit) << of << ", " << s.code << ": " << edit.error().text();
        ASSERT_NE(edit->rig, rig) << of << ", " << s.code << " " << s.subject << ": " << s.fix->label;
        for (const Snag& left : review(edit->rig, shipped()).snags)
          ASSERT_FALSE(left.code == s.code && left.subject == s.subject && left.what == s.what)
              << of << ", " << s.code << " " << s.subject << ": " << s.fix->label;
        rig = edit->rig;
        ++carried_out;
      }
    }
  EXPECT_GT(carried_out, 1000);
}

}  // namespace
}  // namespace rigging
