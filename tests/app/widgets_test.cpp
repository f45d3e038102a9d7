#include <gtest/gtest.h>

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QImage>
#include <QLabel>
#include <QMenu>
#include <QMenuBar>
#include <QPushButton>
#include <cmath>

#include "airframe/kinds.h"
#include "base/json.h"
#include "bench_builder.h"
#include "drawing/aircraft_view.h"
#include "drawing/stick_square.h"
#include "look/look.h"
#include "look/units.h"
#include "rig/rig_file.h"
#include "shell/snag_panel.h"
#include "shell/station_strip.h"
#include "stations/proof/look_keys.h"
#include "stations/proof/proof_chain.h"

namespace rigging::app {
namespace {

/// Share of the pixels that differ.
double difference(const QImage& a, const QImage& b) {
  int different = 0;
  for (int y = 0; y < a.height(); ++y)
    for (int x = 0; x < a.width(); ++x) different += a.pixel(x, y) != b.pixel(x, y);
  return static_cast<double>(different) / (a.width() * a.height());
}

QImage picture(QWidget& widget) { return widget.grab().toImage(); }

TEST(AircraftView, DrawsEveryKindFromEverySide) {
  for (const auto& [kind, name] : Words<AirframeKind>::list)
    for (const auto from : {AircraftView::From::side, AircraftView::From::above, AircraftView::From::front,
                            AircraftView::From::behind_above}) {
      AircraftView view(from);
      view.resize(400, 300);
      const QImage empty = picture(view);
      Airframe airframe;
      airframe.kind = kind;
      view.set_panels(aircraft_panels(airframe));
      const double drawn = difference(picture(view), empty);
      EXPECT_GT(drawn, 0.01) << name;
      EXPECT_LT(drawn, 0.9) << name;
    }
}

TEST(AircraftView, ShowsDeflectionPoseArrowsAndSelection) {
  AircraftView view(AircraftView::From::behind_above);
  view.resize(500, 350);
  Airframe airframe;
  view.set_panels(aircraft_panels(airframe));
  const Surface aileron{SurfaceKind::aileron, Side::left};
  QImage last = picture(view);
  const auto changed = [&](const char* what) {
    const QImage now = picture(view);
    EXPECT_GT(difference(now, last), 0.0005) << what;
    last = now;
  };
  view.set_deflections({{aileron, 20}});
  changed("deflection");
  view.set_arrows({{aileron, 1}});
  changed("arrow");
  view.set_arrows({{aileron, -1}});
  changed("arrow the other way");
  view.set_selected({aileron});
  changed("selection");
  view.set_pose(25, 0, 0);
  changed("bank");
  view.set_caption(QStringLiteral("What you should see"));
  changed("caption");
}

TEST(AircraftView, SurfacesCanBePointedAt) {
  AircraftView view(AircraftView::From::above);
  view.resize(500, 400);
  view.set_panels(aircraft_panels(Airframe{}));
  view.set_pickable(true);
  view.show();
  std::set<Surface> picked;
  QObject::connect(&view, &AircraftView::picked, [&](Surface s) { picked.insert(s); });
  for (int x = 5; x < 500; x += 7)
    for (int y = 5; y < 400; y += 7) {
      QTest::mouseMove(&view, QPoint(x, y));
      QTest::mouseClick(&view, Qt::LeftButton, {}, QPoint(x, y));
    }
  EXPECT_TRUE(picked.count({SurfaceKind::aileron, Side::left}));
  EXPECT_TRUE(picked.count({SurfaceKind::aileron, Side::right}));
  EXPECT_TRUE(picked.count({SurfaceKind::elevator, Side::single}));
}

TEST(AircraftView, DraggingTurnsItAndLettingGoSetsItDown) {
  AircraftView view(AircraftView::From::behind_above);
  view.resize(400, 300);
  view.set_dragging_turns(true);
  view.show();
  double roll = 0, pitch = 0;
  bool down = false;
  QObject::connect(&view, &AircraftView::turned, [&](double r, double p) { roll = r, pitch = p; });
  QObject::connect(&view, &AircraftView::released, [&] { down = true; });
  QTest::mousePress(&view, Qt::LeftButton, {}, QPoint(200, 150));
  QMouseEvent move(QEvent::MouseMove, QPointF(250, 130), view.mapToGlobal(QPointF(250, 130)), Qt::LeftButton,
                   Qt::LeftButton, {});
  QApplication::sendEvent(&view, &move);
  EXPECT_NEAR(roll, 30, 0.1);
  EXPECT_NEAR(pitch, 12, 0.1);
  QTest::mouseRelease(&view, Qt::LeftButton, {}, QPoint(250, 130));
  EXPECT_TRUE(down);
}

TEST(StationStrip, EachStateHasAShapeOfItsOwn) {
  StationStrip strip;
  strip.resize(1200, 76);
  std::vector<QImage> pictures;
  for (int state = 0; state < 5; ++state) {
    std::array<StationState, 11> states;
    states.fill(static_cast<StationState>(state));
    strip.set_states(states);
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
  b.window.document().edit(rig, QStringLiteral("clash"));
  b.window.show();
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("fix_SURFACES-03")); }));
  b.window.go(Station::airframe);
  auto* fix = b.find<QPushButton>(QStringLiteral("fix_SURFACES-03"));
  for (auto* button : fix->parentWidget()->findChildren<QPushButton*>())
    if (button->text().startsWith(QStringLiteral("Take me there"))) QTest::mouseClick(button, Qt::LeftButton);
  EXPECT_EQ(b.window.station(), Station::surfaces);
  ASSERT_TRUE(b.click(QStringLiteral("fix_SURFACES-03")));
  std::set<std::string> sockets;
  for (const Output& o : b.window.document().rig().outputs) EXPECT_TRUE(sockets.insert(o.socket).second);
  EXPECT_TRUE(b.wait([&] { return !b.can_click(QStringLiteral("fix_SURFACES-03")); }));
  QTest::keyClick(&b.window, Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(b.window.document().rig(), rig) << "a fix can be taken back";
}

TEST(ProofChain, WalksByKeysAndClicks) {
  ProofChain chain;
  const CheckFamily look{.id = "look"}, lead{.id = "lead", .by_station = true, .many = "leads"};
  std::vector<CheckStatus> checks;
  for (int i = 0; i < 3; ++i)
    checks.push_back({{"look", "check" + std::to_string(i)}, &look, "x", static_cast<ProofState>(i), "", "", true, ""});
  for (const ProofState s : {ProofState::fresh, ProofState::stale, ProofState::none})
    checks.push_back({{"lead", "l" + std::to_string(static_cast<int>(s))}, &lead, "x", s, "", "", true, ""});
  chain.set_checks(checks);
  EXPECT_EQ(chain.sizeHint().height(), 4 * 46 + 8) << "all leads are one link";
  chain.set_current("look.check1");
  chain.show();
  QString chosen;
  QObject::connect(&chain, &ProofChain::chosen, [&](const QString& id) { chosen = id; });
  QTest::keyClick(&chain, Qt::Key_Down);
  EXPECT_EQ(chosen, QStringLiteral("look.check2"));
  QTest::keyClick(&chain, Qt::Key_Up);
  EXPECT_EQ(chosen, QStringLiteral("look.check0"));
  QTest::mouseClick(&chain, Qt::LeftButton, {}, QPoint(50, 2 * 46 + 20));
  EXPECT_EQ(chosen, QStringLiteral("look.check2"));
  QTest::mouseClick(&chain, Qt::LeftButton, {}, QPoint(50, 3 * 46 + 20));
  EXPECT_EQ(chosen, QStringLiteral("lead.l3")) << "to the lead that has gone stale";
  chain.set_current("lead.l0");
  QTest::keyClick(&chain, Qt::Key_Up);
  EXPECT_EQ(chosen, QStringLiteral("look.check2"));
}

TEST(LookKeys, OneAnswerARowAndItCanBeTakenBack) {
  LookKeys keys;
  keys.show();
  direction::Observation asked;
  asked.axis = Axis::pitch;
  const Surface elevator{SurfaceKind::elevator, Side::single}, rudder{SurfaceKind::rudder, Side::single};
  keys.ask(asked, {elevator, rudder}, true);
  const auto press = [&](const char* name) {
    QTest::mouseClick(keys.findChild<QPushButton*>(QLatin1String(name)), Qt::LeftButton);
  };
  EXPECT_FALSE(keys.anything_pressed());
  press("saw_elevator_1");
  press("saw_elevator_-1");
  press("saw_rudder_0");
  press("saw_channel_roll_1");
  auto seen = keys.observation();
  ASSERT_EQ(seen.saw.size(), 2u);
  EXPECT_EQ(seen.saw[0].motion, -1) << "the last key counts";
  EXPECT_EQ(seen.saw[1].motion, 0);
  EXPECT_EQ(seen.channels[0], 1);
  EXPECT_FALSE(seen.channels[1]);
  press("saw_rudder_0");
  EXPECT_EQ(keys.observation().saw.size(), 1u) << "pressed twice is not looked at";
  keys.hear({{"roll", 1500}, {"pitch", 2000}, {"yaw", 1001}});
  seen = keys.observation();
  EXPECT_EQ(seen.channels[0], 0);
  EXPECT_EQ(seen.channels[1], 1);
  EXPECT_EQ(seen.channels[2], -1);
  EXPECT_EQ(seen.axis, Axis::pitch);
}

TEST(Units, ConvertAtTheScreenOnly) {
  Units& u = Units::instance();
  set_unit_system(UnitSystem::metric);
  EXPECT_EQ(u.figure({"x", 0.2311, "m", {}, {}, "", ""}), QStringLiteral("231 mm"));
  EXPECT_EQ(u.figure({"x", 8.59, "m/s", 7.9, 9.5, "", ""}), QStringLiteral("8.6 (7.9–9.5) m/s"));
  set_unit_system(UnitSystem::imperial);
  // International yard and pound agreement of 1959: 1 in = 25.4 mm, 1 lb = 0.45359237 kg.
  EXPECT_DOUBLE_EQ(u.length_out(0.0254), 1);
  EXPECT_NEAR(u.mass_out(0.45359237), 16, 1e-9);
  EXPECT_DOUBLE_EQ(u.length_in(u.length_out(1.234)), 1.234);
  EXPECT_EQ(u.figure({"x", 0.3048, "m/s", {}, {}, "", ""}), QStringLiteral("1 ft/s"));
  EXPECT_EQ(u.figure({"x", 4.882427636383051, "kg/m²", {}, {}, "", ""}), QStringLiteral("1 lb/ft²"));
  EXPECT_EQ(u.figure({"x", 7.8, "", {}, {}, "", ""}), QStringLiteral("7.8"));
  set_unit_system(UnitSystem::metric);
}

TEST(Document, SaveOpenRecentAndTitle) {
  Builder b;
  const QString file = b.folder.filePath(QStringLiteral("kept.rig.json"));
  ASSERT_TRUE(b.window.document().save(file));
  EXPECT_FALSE(b.window.document().modified());
  Rig rig = b.window.document().rig();
  rig.name = "Kept";
  b.window.document().edit(rig, QStringLiteral("named"));
  EXPECT_TRUE(b.window.windowTitle().startsWith(QStringLiteral("Kept *")));
  QTest::keyClick(&b.window, Qt::Key_S, Qt::ControlModifier);
  EXPECT_EQ(load_rig(file.toStdString())->name, "Kept");
  EXPECT_FALSE(b.window.windowTitle().contains(QLatin1Char('*')));
  ASSERT_TRUE(b.window.open_file(file));
  QMenu* recent = nullptr;
  for (auto* menu : b.window.findChildren<QMenu*>())
    if (menu->title().contains(QStringLiteral("recent"))) recent = menu;
  ASSERT_TRUE(recent);
  Q_EMIT recent->aboutToShow();
  ASSERT_FALSE(recent->actions().isEmpty());
  EXPECT_EQ(recent->actions().first()->text(), file);
}

TEST(Document, OwnPartsComeWithTheRig) {
  Builder b;
  const QString file = b.folder.filePath(QStringLiteral("own.rig.json"));
  ASSERT_TRUE(b.window.document().save(file));
  ASSERT_TRUE(write_file_atomically(
      b.folder.filePath(QStringLiteral("own.parts.json")).toStdString(),
      R"({"format":"parts","version":1,"parts":[{"id":"mine","name":"Mine","group":"other","basis":"weighed"}]})"));
  ASSERT_TRUE(b.window.open_file(file));
  EXPECT_TRUE(b.window.document().catalogue().part("mine"));
  ASSERT_TRUE(b.window.open_file(QStringLiteral(RIGGING_SOURCE_DIR "/data/demo/heath.rig.json")));
  EXPECT_FALSE(b.window.document().catalogue().part("mine")) << "they belong to that rig alone";
}

TEST(Airframe, AnotherClassKeepsPlugsWhereItCan) {
  Builder b;
  b.window.start_demo();
  b.window.go(Station::airframe);
  auto* classes = b.find<QComboBox>(QStringLiteral("controller_kind"));
  classes->setCurrentIndex(classes->findData(QStringLiteral("screen_keys")));
  Q_EMIT classes->activated(classes->currentIndex());
  EXPECT_EQ(b.window.document().rig().controller.kind, "screen_keys");
  for (const Output& o : b.window.document().rig().outputs)
    EXPECT_TRUE(b.window.document().controller()->socket(o.socket)) << o.id;
  auto* mass = b.find<QDoubleSpinBox>(QStringLiteral("mass"));
  mass->setValue(0);
  EXPECT_FALSE(b.window.document().rig().airframe.mass_kg);
}

TEST(Proof, ALooseBoardIsSaidEverywhere) {
  Builder b({QStringLiteral("gyro_reversed:yaw")});
  b.window.start_demo();
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  Rig rig = b.window.document().rig();
  rig.controller.mounted = false;
  b.window.document().edit(rig, QStringLiteral("loose"));
  ASSERT_TRUE(b.click(QStringLiteral("as_shown")));
  EXPECT_EQ(b.window.document().review().checks[0].state, ProofState::provisional);
  ASSERT_TRUE(b.wait([&] { return b.can_click(QStringLiteral("fix_PROOF-03")); }));
  ASSERT_TRUE(b.click(QStringLiteral("fix_PROOF-03")));
  EXPECT_EQ(b.window.document().review().checks[0].state, ProofState::stale);
  EXPECT_TRUE(b.window.document().rig().proofs[0].simulated);
}

TEST(Proof, ALookCanBeTakenBack) {
  Builder b({QStringLiteral("gyro_reversed:yaw")});
  b.window.start_demo();
  ASSERT_TRUE(b.click(QStringLiteral("saw_flaperon_left_1")));
  ASSERT_TRUE(b.click(QStringLiteral("note")));
  EXPECT_NE(b.proof().asking(), ProofPage::Asking::check);
  ASSERT_TRUE(b.click(QStringLiteral("take_back")));
  EXPECT_EQ(b.proof().asking(), ProofPage::Asking::check);
  EXPECT_TRUE(b.window.document().rig().proofs.empty());
}

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
      b.click(QStringLiteral("as_shown"));
    }
    for (const char* wrong : {"saw_rudder_-1", "saw_elevon_left_1", "saw_aileron_left_1", "saw_elevator_-1"})
      b.click(QLatin1String(wrong));
    b.click(QStringLiteral("note"));
    for (const char* name : {"apply", "by_hand", "look_again", "take_back"}) b.click(QLatin1String(name));
    b.window.requests();
  };
  // Every kind and every class, but not every pair: that takes a minute.
  const auto& classes = b.window.document().catalogue().controllers;
  std::size_t turn = 0;
  for (const auto& [kind, name] : Words<AirframeKind>::list) {
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
    Look::instance().set_theme(theme);
    for (const Station s : all_stations) {
      b.window.go(s);
      QApplication::processEvents();
      const QImage shot = picture(b.window);
      EXPECT_EQ(shot.pixelColor(3, 400), inks().paper) << "the sheet keeps its paper";
    }
  }
}

}  // namespace
}  // namespace rigging::app
