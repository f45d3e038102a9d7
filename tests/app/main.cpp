#include <gtest/gtest.h>

#include <QApplication>

#include "look/literals.h"
#include "look/look.h"

using namespace rigging::app;

int main(int argc, char** argv) {
  if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  testing::InitGoogleTest(&argc, argv);
  QApplication application(argc, argv);
  QApplication::setStyle(u"Fusion"_s);
  rigging::app::Style::instance();
  return RUN_ALL_TESTS();
}
