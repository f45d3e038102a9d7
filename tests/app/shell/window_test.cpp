#include <gtest/gtest.h>

#include <sys/wait.h>
#include <unistd.h>
#include <QImage>
#include <QLineEdit>
#include <cmath>
#include <csignal>
#include <fstream>
#include <map>

#include "airframe/kinds.h"
#include "base/json.h"
#include "bench_builder.h"
#include "direction/from_rig.h"
#include "look/literals.h"
#include "look/look.h"
#include "rig/rig_file.h"

namespace rigging::app {
namespace {

TEST(Window, StandsAnyRig) {
  Builder b;
  const auto walk = [&](const Rig& rig) {
    b.window.document().start_new(rig);
    for (const Station s : {Station::airframe, Station::surfaces, Station::proof}) {
      b.window.go(s);
      QApplication::processEvents();
    }
    // Every check can be answered, rightly and wrongly, and nothing falls over.
    const auto checks = b.window.document().review().checks;
    for (const CheckStatus& c : checks) {
      b.proof().go_to(QString::fromStdString(c.id.text()));
      b.click(u"as_shown"_s);
    }
    for (const char* wrong : {"saw_rudder_-1", "saw_elevon_left_1", "saw_aileron_left_1", "saw_elevator_-1"})
      b.click(QLatin1String(wrong));
    b.click(u"note"_s);
    for (const char* name : {"apply", "by_hand", "look_again", "take_back"}) b.click(QLatin1String(name));
    b.window.named_actions();
  };
  // Every kind and every class, but not every pair: that takes a minute.
  const auto& classes = b.window.document().catalogue().controllers;
  std::size_t turn = 0;
  for (const auto& [kind, name] : Names<AirframeKind>::list) {
    const ControllerClass c = classes[turn++ % classes.size()];
    Rig rig;
    rig.name = name;
    rig.controller.kind = c.id;
    rig.airframe.kind = kind;
    rig.outputs = default_outputs(kind);
    for (std::size_t i = 0; i < rig.outputs.size(); ++i)
      rig.outputs[i].socket = i < c.outputs.size() ? c.outputs[i].id : "";
    walk(rig);
  }
  Rig odd;
  odd.controller.kind = "a class that nobody knows";
  walk(odd);
  odd.outputs = default_outputs(AirframeKind::tailerons_canards);
  for (Output& o : odd.outputs) {
    o.socket = "nowhere";
    o.mix.roll = o.mix.pitch = o.mix.yaw = 2;
  }
  walk(odd);
  odd.controller.kind = "full_controller";
  odd.airframe.span_m = 20;
  odd.airframe.root_chord_m = 0.01;
  odd.airframe.sweep_deg = 75;
  walk(odd);
}

TEST(Themes, EveryStationStandsInEach) {
  Builder b;
  b.window.start_demo();
  for (const Theme theme : {Theme::field, Theme::dark, Theme::paper}) {
    Style::instance().set_theme(theme);
    for (const Station s : all_stations()) {
      b.window.go(s);
      QApplication::processEvents();
      const QImage shot = picture(b.window);
      EXPECT_EQ(shot.pixelColor(3, 400), inks().paper) << "the sheet keeps its paper";
    }
  }
}

TEST(Window, StationsByKeyboardAndEachHasItsQuestion) {
  Builder b;
  const Qt::Key keys[] = {Qt::Key_1, Qt::Key_2, Qt::Key_3, Qt::Key_4, Qt::Key_5, Qt::Key_6,
                          Qt::Key_7, Qt::Key_8, Qt::Key_9, Qt::Key_0, Qt::Key_L};
  for (const Station s : all_stations()) {
    press(b, keys[static_cast<int>(s)], Qt::ControlModifier);
    EXPECT_EQ(b.window.station(), s);
  }
  auto* strip = b.find(u"station_strip"_s);
  strip->setFocus();
  QTest::keyClick(strip, Qt::Key_Left);
  EXPECT_EQ(b.window.station(), Station::proof);
  QTest::mouseClick(strip, Qt::LeftButton, {}, QPoint(80, 40));
  EXPECT_EQ(b.window.station(), Station::airframe);
}

TEST(Window, MinusAndPlusAreForTheSizeOfTheText) {
  Builder b;
  const double usual = Style::instance().text_scale();
  press(b, Qt::Key_Minus, Qt::ControlModifier);
  EXPECT_NEAR(Style::instance().text_scale(), usual - 0.1, 1e-9);
  press(b, Qt::Key_Plus, Qt::ControlModifier);
  press(b, Qt::Key_Equal, Qt::ControlModifier);
  EXPECT_NEAR(Style::instance().text_scale(), usual + 0.1, 1e-9);
  Style::instance().set_text_scale(usual);
}

TEST(Window, PanesAndSnagsByKeyboard) {
  Builder b;
  b.window.go(Station::surfaces);
  QList<QWidget*> visited;
  for (int i = 0; i < 3; ++i) {
    press(b, Qt::Key_F6);
    EXPECT_FALSE(visited.contains(QApplication::focusWidget()));
    visited << QApplication::focusWidget();
  }
  press(b, Qt::Key_F8);
  EXPECT_TRUE(b.find(u"snag_panel"_s)->isAncestorOf(QApplication::focusWidget()));
}

TEST(Window, EveryControlHasAName) {
  Builder b;
  for (const Station s : {Station::airframe, Station::surfaces, Station::proof}) {
    b.window.go(s);
    for (QWidget* w : b.window.findChildren<QWidget*>()) {
      if (!w->isVisible() || !(w->focusPolicy() & Qt::TabFocus) || w->objectName().startsWith(u"qt_"_s) ||
          qobject_cast<QLineEdit*>(w))
        continue;
      const auto* button = qobject_cast<QAbstractButton*>(w);
      EXPECT_TRUE(!w->accessibleName().isEmpty() || (button && !button->text().isEmpty()) || w->inherits("QScrollArea"))
          << w->metaObject()->className() << ' ' << w->objectName().toStdString();
    }
  }
}

TEST(Window, FitsTheWorkingSizeAndTheSmallest) {
  Builder b;
  ASSERT_TRUE(b.open_demo_with_battery());
  for (const QSize size : {QSize(1280, 800), QSize(1024, 700)}) {
    b.window.resize(size);
    QApplication::processEvents();
    EXPECT_EQ(b.window.size(), size) << "something asks for more room";
    for (const char* name : {"as_shown", "do_it", "supply_battery"}) {
      const auto* w = b.find(QLatin1String(name));
      const QRect shown(w->mapTo(&b.window, QPoint(0, 0)), w->size());
      EXPECT_TRUE(QRect(QPoint(0, 0), size).contains(shown)) << name << " at " << size.width();
    }
  }
}

// Text that is made larger while the window is open has on every station the sizes that it would have had from the
// beginning.
TEST(Window, LargerTextTakesHoldAtOnceEverywhere) {
  using Sizes = std::map<std::string, double>;
  const auto sizes = [](bool at_once) {
    constexpr double larger = 2;
    if (!at_once) Style::instance().set_text_scale(larger);
    Builder b;
    EXPECT_TRUE(b.open("hedgerow", Station::airframe));
    for (const auto& [station, name] : Names<Station>::list) {
      b.window.go(station);
      QApplication::processEvents();
    }
    if (at_once) Style::instance().set_text_scale(larger);
    QApplication::processEvents();
    Sizes all;
    for (const QWidget* w : b.window.findChildren<QWidget*>())
      if (!w->objectName().isEmpty() && !w->objectName().startsWith(u"qt_"_s))
        all[w->objectName().toStdString()] = std::round(10 * w->font().pointSizeF()) / 10;
    Style::instance().set_text_scale(1);
    return all;
  };
  const Sizes now = sizes(true), before = sizes(false);
  EXPECT_GT(now.size(), 200u);
  for (const auto& [name, points] : before)
    if (const auto it = now.find(name); it != now.end()) EXPECT_NEAR(it->second, points, 0.15) << name;
}

}  // namespace
}  // namespace rigging::app
