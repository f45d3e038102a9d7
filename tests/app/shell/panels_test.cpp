#include <gtest/gtest.h>

#include <sys/wait.h>
#include <unistd.h>
#include <QImage>
#include <QLabel>
#include <QPushButton>
#include <cmath>
#include <csignal>
#include <fstream>

#include "airframe/kinds.h"
#include "base/json.h"
#include "bench_builder.h"
#include "direction/from_rig.h"
#include "look/literals.h"
#include "rig/rig_file.h"
#include "shell/snag_panel.h"
#include "shell/station_strip.h"

namespace rigging::app {
namespace {

TEST(StationStrip, EachStateHasAShapeOfItsOwn) {
  StationStrip strip;
  strip.resize(1200, 76);
  std::vector<QImage> pictures;
  for (int state = 0; state < 5; ++state) {
    strip.set_states(std::vector(station_count(), static_cast<StationState>(state)));
    // Shape must do without ink: compare in grey.
    pictures.push_back(picture(strip).convertToFormat(QImage::Format_Grayscale8));
    for (std::size_t i = 0; i + 1 < pictures.size(); ++i)
      EXPECT_GT(difference(pictures[i], pictures.back()), 0.001) << i << " and " << state;
  }
}

TEST(SnagPanel, FixesFromTheCardAndTakesThere) {
  Builder b;
  Rig rig = b.window.document().rig();
  rig.outputs[1].socket = rig.outputs[0].socket;
  b.window.document().edit(rig, u"clash"_s);
  b.window.show();
  ASSERT_TRUE(b.wait([&] { return b.can_click(u"fix_SURFACES-03"_s); }));
  b.window.go(Station::airframe);
  auto* fix = b.find<QPushButton>(u"fix_SURFACES-03"_s);
  for (auto* button : fix->parentWidget()->findChildren<QPushButton*>())
    if (button->text().startsWith(u"Take me there"_s)) QTest::mouseClick(button, Qt::LeftButton);
  EXPECT_EQ(b.window.station(), Station::surfaces);
  ASSERT_TRUE(b.click(u"fix_SURFACES-03"_s));
  std::set<std::string> sockets;
  for (const Output& o : b.window.document().rig().outputs) EXPECT_TRUE(sockets.insert(o.socket).second);
  EXPECT_TRUE(b.wait([&] { return !b.can_click(u"fix_SURFACES-03"_s); }));
  QTest::keyClick(&b.window, Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(b.window.document().rig(), rig) << "a fix can be taken back";
}

TEST(Snags, ReadingsThatAreMissingLeadToTheirStation) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::airframe));
  const auto follow = [&](const char* station) {
    for (QPushButton* button : b.window.findChildren<QPushButton*>())
      if (button->isVisible() && button->objectName() == u"there_PROOF-07"_s) {
        const auto labels =
            button->parentWidget()->parentWidget()->findChildren<QLabel*>(QString(), Qt::FindDirectChildrenOnly);
        if (std::none_of(labels.begin(), labels.end(),
                         [&](const QLabel* l) { return l->text().contains(QLatin1String(station)); }))
          continue;
        QTest::mouseClick(button, Qt::LeftButton);
        return true;
      }
    return false;
  };
  // One card for all that are to be read; it unfolds.
  ASSERT_TRUE(b.click(u"more_PROOF-07"_s));
  ASSERT_TRUE(follow("station sticks"));
  EXPECT_EQ(b.window.station(), Station::sticks);
  ASSERT_TRUE(follow("station surfaces"));
  EXPECT_EQ(b.window.station(), Station::surfaces);
  EXPECT_TRUE(b.find<QWidget>(u"throws_todo"_s)->isVisible()) << "on the side where throws are read";
}

TEST(Ask, AProcedureComesUpWhereItHasItsPlace) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::airframe));
  int run = 0;
  for (const auto& [name, station, part] :
       {std::tuple{"Read the throws with a gauge", Station::surfaces, "throws_todo"},
        {"Walk through the bench checks", Station::proof, "proof_todo"},
        {"Listen to the sticks, find switches, try the loss", Station::sticks, "sticks_todo"}})
    for (const NamedAction& r : b.window.named_actions())
      if (r.text == QLatin1String(name)) {
        r.act();
        ++run;
        EXPECT_EQ(b.window.station(), station);
        EXPECT_TRUE(b.find<QWidget>(QLatin1String(part))->isVisible()) << part;
      }
  EXPECT_EQ(run, 3);
}

TEST(FootLine, WhatAnEditMakesUntrueIsNotSaidAnyMore) {
  Builder b;
  ASSERT_TRUE(b.open_demo_with_battery());
  auto* said = b.find<QLabel>(u"foot_said"_s);
  ASSERT_TRUE(b.wait([&] { return said->toolTip() == u"Board and rig agree."_s; })) << said->toolTip().toStdString();
  b.edit([](Rig& rig) { rig.output("out_1")->centre_us = 1520; });
  EXPECT_EQ(said->toolTip(), QString());
}

}  // namespace
}  // namespace rigging::app
