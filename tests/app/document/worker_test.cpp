#include "document/worker.h"

#include <gtest/gtest.h>

#include <QTest>
#include <semaphore>

#include "base/units.h"
#include "bench_rig.h"
#include "document/rig_document.h"
#include "look/literals.h"

namespace rigging::app {
namespace {

TEST(Worker, AnOutdatedResultIsDroppedEvenWhenItArrivesLast) {
  std::vector<int> arrived;
  std::binary_semaphore first_may_end(0), first_runs(0), first_ended(0);
  {
    Worker<int> worker([&](int n) { arrived.push_back(n); });
    worker.start([&](Progress& progress) -> std::optional<int> {
      first_runs.release();
      first_may_end.acquire();
      EXPECT_TRUE(progress.cancelled());
      first_ended.release();
      return 1;  // it does not look whether anybody still wants it
    });
    first_runs.acquire();
    worker.start([](Progress& progress) -> std::optional<int> {
      progress.at(0.5);
      return 2;
    });
    ASSERT_TRUE(QTest::qWaitFor([&] { return !arrived.empty(); }));
    first_may_end.release();
    first_ended.acquire();
    QCoreApplication::processEvents();
    EXPECT_EQ(arrived, std::vector<int>{2});
    EXPECT_EQ(worker.progress(), nullptr) << "nothing is under way";
  }
}

TEST(Worker, WhatIsCancelledTellsNothing) {
  std::vector<int> arrived;
  Worker<int> worker([&](int n) { arrived.push_back(n); });
  std::binary_semaphore runs(0), may_end(0), ended(0);
  worker.start([&](Progress& progress) -> std::optional<int> {
    progress.at(0.25);
    runs.release();
    may_end.acquire();
    const bool asked_to_stop = progress.cancelled();
    ended.release();
    return asked_to_stop ? std::nullopt : std::optional(7);
  });
  runs.acquire();
  ASSERT_TRUE(worker.progress());
  EXPECT_EQ(worker.progress()->share(), 0.25);
  worker.cancel();
  may_end.release();
  ended.acquire();
  QCoreApplication::processEvents();
  EXPECT_TRUE(arrived.empty());
}

TEST(Document, TheSecondTierFollowsTheRigAndIsGoneWhileItIsComputed) {
  QTemporaryDir folder;
  RigDocument document(shipped(), folder.path());
  document.start_new(demo("hedgerow"));
  EXPECT_EQ(document.deferred(), nullptr) << "computed, not there yet";
  ASSERT_TRUE(QTest::qWaitFor([&] { return document.deferred() != nullptr; }));
  const std::size_t linkages = document.rig().linkages.size();
  EXPECT_EQ(document.deferred()->linkages.size(), linkages);
  int told = 0;
  QObject::connect(&document, &RigDocument::deferred_ready, [&] { ++told; });
  Rig rig = document.rig();
  rig.linkages.pop_back();
  document.edit(rig, u"one less"_s);
  EXPECT_EQ(document.deferred(), nullptr);
  rig.linkages.pop_back();
  document.edit(rig, u"two less"_s);
  ASSERT_TRUE(QTest::qWaitFor([&] { return document.deferred() != nullptr; }));
  EXPECT_EQ(document.deferred()->linkages.size(), linkages - 2);
  EXPECT_EQ(told, 1) << "the one between was never asked for again";
}

TEST(Document, AnotherCatalogueAndOtherUnitsLeaveNothingOfTheReviewAsItWas) {
  QTemporaryDir folder;
  RigDocument document(shipped(), folder.path());
  document.start_new(demo("hedgerow"));
  const std::string metric = document.review().reports.loads().front().verdict;
  set_unit_system(UnitSystem::imperial);
  document.say_again();
  const std::string imperial = document.review().reports.loads().front().verdict;
  const std::string anew = review(document.rig(), document.catalogue()).reports.loads().front().verdict;
  set_unit_system(UnitSystem::metric);
  EXPECT_EQ(imperial, anew);
}

}  // namespace
}  // namespace rigging::app
