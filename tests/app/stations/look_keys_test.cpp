#include <gtest/gtest.h>

#include <QPushButton>
#include <QTest>

#include "stations/look_keys.h"

namespace rigging::app {
namespace {

TEST(LookKeys, OneAnswerARowAndItCanBeTakenBack) {
  LookKeys keys;
  keys.show();
  const std::vector<std::pair<int, std::string>> ways{{1, "up"}, {-1, "down"}, {0, "still"}};
  keys.ask({{"elevator", "Elevator", ways, {}}, {"rudder", "Rudder", ways, {}}, {"channel_roll", "Roll", ways, {}}});
  const auto press = [&](const char* name) {
    QTest::mouseClick(keys.findChild<QPushButton*>(QLatin1String(name)), Qt::LeftButton);
  };
  EXPECT_TRUE(keys.seen().empty());
  press("saw_elevator_1");
  press("saw_elevator_-1");
  press("saw_rudder_0");
  const std::map<std::string, int> seen{{"elevator", -1}, {"rudder", 0}};
  EXPECT_EQ(keys.seen(), seen) << "the last key counts";
  press("saw_rudder_0");
  EXPECT_EQ(keys.seen().count("rudder"), 0u) << "pressed twice is not looked at";
  keys.hear({{"elevator", "", ways, {}}, {"rudder", "", ways, 1}, {"channel_roll", "", ways, -1}});
  const std::map<std::string, int> heard{{"channel_roll", -1}, {"elevator", -1}, {"rudder", 1}};
  EXPECT_EQ(keys.seen(), heard) << "what the controller says is pressed for the builder";
  keys.ask({});
  EXPECT_TRUE(keys.seen().empty());
}

}  // namespace
}  // namespace rigging::app
