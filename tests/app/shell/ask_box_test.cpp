#include <gtest/gtest.h>

#include <sys/wait.h>
#include <unistd.h>
#include <QLabel>
#include <QLineEdit>
#include <QTimer>
#include <cmath>
#include <csignal>
#include <fstream>

#include "bench_builder.h"
#include "direction/from_rig.h"
#include "look/literals.h"
#include "rig/rig_file.h"

namespace rigging::app {
namespace {

TEST(Ask, GoesThereOrDoesIt) {
  Builder b;
  b.window.start_demo();
  b.in_sheet([&](QWidget& sheet) {
    auto* line = sheet.findChild<QLineEdit*>(u"ask_line"_s);
    QTest::keyClicks(line, u"reverse left flap"_s);
    QTest::keyClick(line, Qt::Key_Return);
  });
  press(b, Qt::Key_K, Qt::ControlModifier);
  EXPECT_TRUE(b.window.document().rig().output("out_1")->reversed);
  int found = 0;
  for (const NamedAction& d : b.window.named_actions()) found += fit_of(u"where motor"_s, d) > 0;
  EXPECT_GE(found, 1);
  EXPECT_EQ(fit_of(u"bake a cake"_s, b.window.named_actions().first()), 0);
}

/// A name alone records nothing about the real model; and what Enter will do stands there whole.
TEST(Ask, ANameIsNoRecordAndEnterSaysWhatItWillDo) {
  Builder b;
  b.window.start_demo();
  const Rig before = b.window.document().rig();
  int seen = 0;
  const auto asked = [&](const QString& words, const QString& says, bool enter) {
    b.in_sheet([&, words, says, enter](QWidget& sheet) {
      auto* line = sheet.findChild<QLineEdit*>(u"ask_line"_s);
      QTest::keyClicks(line, words);
      const QString foretold = sheet.findChild<QLabel*>(u"ask_foretold"_s)->text();
      EXPECT_TRUE(foretold.contains(says)) << words.toStdString() << ": " << foretold.toStdString();
      ++seen;
      if (enter) return QTest::keyClick(line, Qt::Key_Return);
      sheet.close();
    });
    b.window.ask_box()->exec();
  };
  asked(u"my board"_s, u"opens “Describe my own board”"_s, false);
  EXPECT_EQ(b.window.document().rig(), before);
  asked(u"board loose"_s, u"changes the rig: “The board lies loose on the bench”"_s, true);
  EXPECT_FALSE(b.window.document().rig().controller.mounted);
  asked(u"write the rig to the controller"_s, u"writes the settings"_s, false);
  EXPECT_EQ(seen, 3);
}

}  // namespace
}  // namespace rigging::app
