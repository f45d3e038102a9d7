#include <gtest/gtest.h>

#include <sys/wait.h>
#include <unistd.h>
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

}  // namespace
}  // namespace rigging::app
