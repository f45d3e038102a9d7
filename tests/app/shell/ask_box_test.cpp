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
#include "rig/rig_file.h"

namespace rigging::app {
namespace {

TEST(Ask, GoesThereOrDoesIt) {
  Builder b;
  b.window.start_demo();
  b.in_sheet([&](QWidget& sheet) {
    auto* line = sheet.findChild<QLineEdit*>(QStringLiteral("ask_line"));
    QTest::keyClicks(line, QStringLiteral("reverse left flap"));
    QTest::keyClick(line, Qt::Key_Return);
  });
  press(b, Qt::Key_K, Qt::ControlModifier);
  EXPECT_TRUE(b.window.document().rig().output("out_1")->reversed);
  int found = 0;
  for (const Request& d : b.window.requests()) found += fit_of(QStringLiteral("where motor"), d) > 0;
  EXPECT_GE(found, 1);
  EXPECT_EQ(fit_of(QStringLiteral("bake a cake"), b.window.requests().first()), 0);
}

}  // namespace
}  // namespace rigging::app
