#include <gtest/gtest.h>

#include <sys/wait.h>
#include <unistd.h>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMessageBox>
#include <QPrinter>
#include <QPushButton>
#include <QRegularExpression>
#include <QTimer>

#include <cmath>
#include <csignal>
#include <fstream>

#include "bench/differences_dialog.h"
#include "bench_builder.h"
#include "direction/from_rig.h"
#include "drawing/aircraft_view.h"
#include "drawing/stick_square.h"
#include "look/look.h"
#include "look/units.h"
#include "rig/rig_file.h"
#include "shell/sheet_dialog.h"

namespace rigging::app {
namespace {

void press(Builder& b, Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
  QTest::keyClick(QApplication::focusWidget() ? QApplication::focusWidget() : &b.window, key, modifiers);
  QApplication::processEvents();
}

TEST(Window, StationsByKeyboardAndEachHasItsQuestion) {
  Builder b;
  const Qt::Key keys[] = {Qt::Key_1, Qt::Key_2, Qt::Key_3, Qt::Key_4, Qt::Key_5,    Qt::Key_6,
                          Qt::Key_7, Qt::Key_8, Qt::Key_9, Qt::Key_0, Qt::Key_Minus};
  for (const Station s : all_stations) {
    press(b, keys[static_cast<int>(s)], Qt::ControlModifier);
    EXPECT_EQ(b.window.station(), s);
  }
  auto* strip = b.find(QStringLiteral("station_strip"));
  strip->setFocus();
  QTest::keyClick(strip, Qt::Key_Left);
  EXPECT_EQ(b.window.station(), Station::proof);
  QTest::mouseClick(strip, Qt::LeftButton, {}, QPoint(80, 40));
  EXPECT_EQ(b.window.station(), Station::airframe);
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
  EXPECT_TRUE(b.find(QStringLiteral("snag_panel"))->isAncestorOf(QApplication::focusWidget()));
}

TEST(Window, EveryControlHasAName) {
  Builder b;
  for (const Station s : {Station::airframe, Station::surfaces, Station::proof}) {
    b.window.go(s);
    for (QWidget* w : b.window.findChildren<QWidget*>()) {
      if (!w->isVisible() || !(w->focusPolicy() & Qt::TabFocus) || w->objectName().startsWith(QStringLiteral("qt_")) ||
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

TEST(Airframe, DimensionsKindAndUndo) {
  Builder b;
  b.window.go(Station::airframe);
  auto* span = b.find<QDoubleSpinBox>(QStringLiteral("dimension_0"));
  span->setFocus();
  span->selectAll();
  for (const char key : std::string("2500")) QTest::keyClick(span, key);
  QTest::keyClick(span, Qt::Key_Return);
  EXPECT_DOUBLE_EQ(b.window.document().rig().airframe.span_m, 2.5);
  auto* kind = b.find<QComboBox>(QStringLiteral("airframe_kind"));
  kind->setFocus();
  QTest::keyClick(kind, Qt::Key_End);
  Q_EMIT kind->activated(kind->currentIndex());
  EXPECT_EQ(b.window.document().rig().airframe.kind, AirframeKind::towed_glider);
  press(b, Qt::Key_Z, Qt::ControlModifier);
  press(b, Qt::Key_Z, Qt::ControlModifier);
  EXPECT_DOUBLE_EQ(b.window.document().rig().airframe.span_m, 1.4);
  EXPECT_FALSE(b.window.document().history().can_undo());
  press(b, Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_DOUBLE_EQ(b.window.document().rig().airframe.span_m, 2.5);
}

TEST(Airframe, ShowsWhatAnswersAndItsWorking) {
  Builder b;
  b.window.start_demo();
  b.window.go(Station::airframe);
  ASSERT_TRUE(b.click(QStringLiteral("answers_yaw")));
  const QString words = b.find<QLabel>(QStringLiteral("answer_words"))->text();
  EXPECT_TRUE(words.contains(QStringLiteral("eft inverted V-tail half trailing edge down"))) << words.toStdString();
  EXPECT_TRUE(words.contains(QStringLiteral("right inverted V-tail half trailing edge up")));
  const QString metric = b.find<QLabel>(QStringLiteral("airframe_figures"))->text();
  EXPECT_TRUE(metric.contains(QStringLiteral("41.4")));
  ASSERT_TRUE(b.click(QStringLiteral("show_working")));
  set_unit_system(UnitSystem::imperial);
  Q_EMIT b.window.document().changed();
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("airframe_figures"))->text().contains(QStringLiteral("ft²")));
  EXPECT_NEAR(b.find<QDoubleSpinBox>(QStringLiteral("dimension_0"))->value(), 70.87, 0.01);
  EXPECT_DOUBLE_EQ(b.window.document().rig().airframe.span_m, 1.8) << "a switch of units changes no rig";
  set_unit_system(UnitSystem::metric);
}

TEST(Surfaces, StickMovesWhatItShouldAndSaturationShows) {
  Builder b;
  b.window.start_demo();
  b.window.go(Station::surfaces);
  auto* square = b.find<StickSquare>(QStringLiteral("stick_square"));
  square->setFocus();
  for (int i = 0; i < 10; ++i) QTest::keyClick(square, Qt::Key_Right);
  EXPECT_NEAR(square->command().roll, 1, 1e-9);
  auto* weight = b.find<QDoubleSpinBox>(QStringLiteral("weight_out_1_roll"));
  weight->setValue(-140);
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("saturation"))->text().contains(QStringLiteral("saturates")));
  ASSERT_TRUE(b.click(QStringLiteral("reverse_out_1")));
  EXPECT_TRUE(b.window.document().rig().output("out_1")->reversed);
}

TEST(Ask, GoesThereOrDoesIt) {
  Builder b;
  b.window.start_demo();
  QTimer::singleShot(200, [&] {
    auto* line = QApplication::activeModalWidget()->findChild<QLineEdit*>(QStringLiteral("ask_line"));
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

TEST(Proof, MisreadSurfacesAreNamedAndCanBeLookedAtAgain) {
  Builder b({QStringLiteral("gyro_reversed:yaw")});
  ASSERT_TRUE(b.open_demo_with_battery());
  // The same look, noted in two ways that can't both be.
  ASSERT_TRUE(b.click(QStringLiteral("as_shown")));
  EXPECT_EQ(b.window.document().review().checks[0].state, ProofState::fresh);
  b.proof().go_to(QStringLiteral("stick.roll"));
  ASSERT_TRUE(b.click(QStringLiteral("saw_flaperon_left_1")));
  ASSERT_TRUE(b.click(QStringLiteral("saw_flaperon_right_-1")));
  ASSERT_TRUE(b.click(QStringLiteral("note")));
  EXPECT_EQ(b.proof().asking(), ProofPage::Asking::contradiction);
  ASSERT_TRUE(b.click(QStringLiteral("look_again")));
  EXPECT_EQ(b.proof().asking(), ProofPage::Asking::check);
  EXPECT_FALSE(b.proof().session().anything_seen());
}

TEST(Bench, TheModelIsHeldByKeys) {
  Builder b({QStringLiteral("gyro_reversed:yaw")});
  ASSERT_TRUE(b.open_demo_with_battery());
  auto* view = b.find(QStringLiteral("bench_panel"))->findChild<AircraftView*>();
  view->setFocus();
  for (int i = 0; i < 3; ++i) QTest::keyClick(view, Qt::Key_Right);
  QTest::keyClick(view, Qt::Key_Up);
  EXPECT_TRUE(b.wait([&] { return b.window.bench().sight().roll_deg > 29 && b.window.bench().sight().pitch_deg > 9; }));
  QTest::keyClick(view, Qt::Key_Home);
  EXPECT_TRUE(b.wait([&] { return std::abs(b.window.bench().sight().roll_deg) < 1; }));
}

TEST(Bench, TheTransmitterCanBeSwitchedOff) {
  Builder b({QStringLiteral("gyro_reversed:yaw")});
  ASSERT_TRUE(b.open_demo_with_battery());
  ASSERT_TRUE(b.wait([&] { return !b.window.bench().channels().empty(); }));
  ASSERT_TRUE(b.click(QStringLiteral("transmitter")));
  EXPECT_TRUE(b.wait([&] {
    return b.window.bench().channels().empty() &&
           b.find<QLabel>(QStringLiteral("heard"))->text().contains(QStringLiteral("dark"));
  }));
  ASSERT_TRUE(b.click(QStringLiteral("transmitter")));
  EXPECT_TRUE(b.wait([&] { return !b.window.bench().channels().empty(); }));
}

TEST(Bench, WithoutSupplyNothingMovesAndItIsSaid) {
  Builder b;
  b.window.start_demo();
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  ASSERT_TRUE(b.click(QStringLiteral("do_it")));
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("foot_said"))->toolTip().contains(QStringLiteral("Propeller off")));
  EXPECT_TRUE(b.click(QStringLiteral("bench_start")));
  EXPECT_FALSE(b.window.bench().hands_connected());
}

TEST(Bench, DifferencesAreShownAndSettledPartByPart) {
  Builder b({QStringLiteral("gyro_reversed:yaw")});
  ASSERT_TRUE(b.open_demo_with_battery());
  ASSERT_TRUE(b.wait([&] { return b.window.bench().board().has_value(); }));
  Rig rig = b.window.document().rig();
  rig.outputs[0].reversed = true;
  rig.outputs[1].high_us = 1900;
  b.window.document().edit(rig, QStringLiteral("two parts"));
  ASSERT_TRUE(b.can_click(QStringLiteral("bench_compare")));
  QTimer::singleShot(300, [] {
    auto* dialog = QApplication::activeModalWidget();
    ASSERT_TRUE(dialog);
    QTest::mouseClick(dialog->findChild<QAbstractButton*>(QStringLiteral("board_is_right_output s1")), Qt::LeftButton,
                      {}, QPoint(8, 8));
    QTest::mouseClick(dialog->findChild<QAbstractButton*>(QStringLiteral("make_agree")), Qt::LeftButton);
  });
  b.click(QStringLiteral("bench_compare"));
  ASSERT_TRUE(b.wait([&] {
    return !b.window.bench().writing() && link::configured(*b.window.bench().board()).outputs[1].high_us == 1900;
  }));
  EXPECT_FALSE(b.window.document().rig().outputs[0].reversed) << "the board was right";
  EXPECT_EQ(b.window.document().rig().outputs[1].high_us, 1900) << "the rig was right";
}

TEST(Bench, ATwinThatDiesIsNoticed) {
  Builder b;
  ASSERT_TRUE(b.open_demo_with_battery());
  bool lost = false;
  QObject::connect(&b.window.bench(), &BenchLink::state_changed, [&] { lost = !b.window.bench().hands_connected(); });
  b.window.bench().write(link::image_of(b.window.document().rig()));
  b.window.bench().stop();
  EXPECT_TRUE(lost);
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("foot_link"))->text().contains(QStringLiteral("No bench")));
}

TEST(Document, UnsavedWorkSurvivesAKill) {
  QTemporaryDir folder;
  const Catalogue catalogue = *load_catalogue(RIGGING_SOURCE_DIR "/data/catalogue");
  const QString file = folder.filePath(QStringLiteral("a.rig.json"));
  ASSERT_TRUE(QFile::copy(QStringLiteral(RIGGING_SOURCE_DIR "/data/demo/heath.rig.json"), file));
  // A child works on it and is killed in the middle, as by a power cut.
  const pid_t child = ::fork();
  if (child == 0) {
    RigDocument document(catalogue, folder.filePath(QStringLiteral("recovery")));
    if (!document.open(file)) _exit(1);
    Rig rig = document.rig();
    rig.name = "Heath glider, rebuilt";
    document.edit(rig, QStringLiteral("renamed"));
    document.write_recovery_copy();
    ::kill(::getpid(), SIGKILL);
  }
  int status = 0;
  ::waitpid(child, &status, 0);
  ASSERT_TRUE(WIFSIGNALED(status));
  RigDocument document(catalogue, folder.filePath(QStringLiteral("recovery")));
  const auto found = document.leftovers();
  ASSERT_EQ(found.size(), 1);
  EXPECT_EQ(found[0].of, file);
  ASSERT_TRUE(document.recover(found[0]));
  EXPECT_EQ(document.rig().name, "Heath glider, rebuilt");
  EXPECT_TRUE(document.modified());
  document.undo();
  EXPECT_EQ(document.rig().name, "Heath glider") << "what was on the disk is one step back";
  document.redo();
  ASSERT_TRUE(document.save(file));
  EXPECT_TRUE(document.leftovers().isEmpty());
  EXPECT_FALSE(load_rig(file.toStdString())->extra.members().contains("recovered_from"));
}

TEST(Document, ABrokenFileIsRefusedAndNothingIsLost) {
  Builder b;
  b.window.start_demo();
  const Rig before = b.window.document().rig();
  const QString file = b.folder.filePath(QStringLiteral("broken.rig.json"));
  std::ofstream(file.toStdString()) << R"({"format":"rig","version":1,"name":"x","airframe":{"kind":"sofa"}})";
  QString said;
  QTimer::singleShot(200, [&] {
    auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
    ASSERT_TRUE(box);
    said = box->text();
    box->accept();
  });
  EXPECT_FALSE(b.window.open_file(file));
  EXPECT_TRUE(said.contains(QStringLiteral("/airframe/kind"))) << said.toStdString();
  EXPECT_EQ(b.window.document().rig(), before);
}

TEST(Document, ClosingAsksForUnsavedWork) {
  Builder b;
  Rig rig = b.window.document().rig();
  rig.name = "Kept";
  b.window.document().edit(rig, QStringLiteral("renamed"));
  QTimer::singleShot(200, [] { QTest::keyClick(QApplication::activeModalWidget(), Qt::Key_Escape); });
  EXPECT_FALSE(b.window.close());
  EXPECT_TRUE(b.window.isVisible());
}

TEST(HandCards, BecomeAPdf) {
  Builder b;
  ASSERT_TRUE(b.window.open_file(QStringLiteral(RIGGING_SOURCE_DIR "/data/demo/heath.rig.json")));
  const ControllerClass& c = *b.window.document().controller();
  const auto looks = direction::case_from_rig(b.window.document().rig(), c);
  direction::Fault f;
  f.kind = direction::FaultKind::gyro_reversed;
  f.axis = Axis::yaw;
  SheetDialog dialog(QStringLiteral("Hand cards"),
                     hand_card_sheets(b.window.document(), {hand_card(b.window.document().rig(), c, f, looks)}),
                     nullptr);
  const QString path = b.folder.filePath(QStringLiteral("cards.pdf"));
  ASSERT_TRUE(dialog.write_pdf(path));
  QFile pdf(path);
  ASSERT_TRUE(pdf.open(QIODevice::ReadOnly));
  EXPECT_TRUE(pdf.readAll().startsWith("%PDF"));
  EXPECT_FALSE(dialog.write_pdf(QStringLiteral("/nonexistent/cards.pdf")));
}

/// Points per millimetre, across and along, at which a PDF draws: the product of the scales in the content of its first
/// page.
std::pair<double, double> scale_of(const QString& path) {
  QFile file(path);
  if (!file.open(QIODevice::ReadOnly)) return {};
  const QByteArray pdf = file.readAll();
  for (qsizetype at = pdf.indexOf("stream\n"); at >= 0; at = pdf.indexOf("stream\n", at + 7)) {
    if (at >= 3 && pdf.mid(at - 3, 3) == "end") continue;
    // Qt's reader wants the length before the deflated bytes.
    const QString content = QString::fromLatin1(
        qUncompress(QByteArray::fromHex("00100000") + pdf.mid(at + 7, pdf.indexOf("endstream", at) - at - 7)));
    static const QRegularExpression scale(QStringLiteral("([0-9.]+) 0 0 (-?[0-9.]+) 0 [0-9.]+ cm"));
    auto found = scale.globalMatch(content);
    double x = 1, y = 1;
    int count = 0;
    while (found.hasNext() && count < 2) {
      const auto m = found.next();
      x *= m.captured(1).toDouble();
      y *= std::abs(m.captured(2).toDouble());
      ++count;
    }
    if (count == 2) return {x, y};
  }
  return {};
}

// A millimetre is 72 / 25.4 points: by definition of both. Gauges are of no use otherwise.
TEST(Sheets, AreDrawnTrueToScaleWhateverTheMargins) {
  Builder b;
  SheetDialog dialog(QStringLiteral("Gauges"), gauge_sheets(b.window.document()), nullptr);
  const double exact = 72 / 25.4;
  const auto check = [&](const QString& path) {
    const auto [across, along] = scale_of(path);
    EXPECT_NEAR(across, exact, 1e-4 * exact) << path.toStdString();
    EXPECT_NEAR(along, exact, 1e-4 * exact) << path.toStdString();
  };
  const QString kept = b.folder.filePath(QStringLiteral("kept.pdf"));
  ASSERT_TRUE(dialog.write_pdf(kept));
  check(kept);
  for (const double margin : {0.0, 12.0}) {
    const QString printed = b.folder.filePath(QStringLiteral("printed-%1.pdf").arg(margin));
    QPrinter printer(QPrinter::HighResolution);
    printer.setOutputFormat(QPrinter::PdfFormat);
    printer.setOutputFileName(printed);
    printer.setPageMargins(QMarginsF(margin, margin, margin, margin), QPageLayout::Millimeter);
    dialog.print(printer);
    check(printed);
  }
}

TEST(Snags, ReadingsThatAreMissingLeadToTheirStation) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::airframe));
  const auto follow = [&](const char* station) {
    for (QPushButton* button : b.window.findChildren<QPushButton*>())
      if (button->isVisible() && button->text().contains(QStringLiteral("PROOF-07")) && button->parentWidget()) {
        const auto labels = button->parentWidget()->findChildren<QLabel*>();
        if (std::none_of(labels.begin(), labels.end(),
                         [&](const QLabel* l) { return l->text().contains(QLatin1String(station)); }))
          continue;
        QTest::mouseClick(button, Qt::LeftButton);
        return true;
      }
    return false;
  };
  ASSERT_TRUE(follow("station sticks"));
  EXPECT_EQ(b.window.station(), Station::sticks);
  ASSERT_TRUE(follow("station surfaces"));
  EXPECT_EQ(b.window.station(), Station::surfaces);
  EXPECT_TRUE(b.find<QWidget>(QStringLiteral("throws_todo"))->isVisible()) << "on the side where throws are read";
}

TEST(FootLine, WhatAnEditMakesUntrueIsNotSaidAnyMore) {
  Builder b;
  ASSERT_TRUE(b.open_demo_with_battery());
  auto* said = b.find<QLabel>(QStringLiteral("foot_said"));
  ASSERT_TRUE(b.wait([&] { return said->toolTip() == QStringLiteral("Board and rig agree."); }))
      << said->toolTip().toStdString();
  b.edit([](Rig& rig) { rig.output("out_1")->centre_us = 1520; });
  EXPECT_EQ(said->toolTip(), QString());
}

TEST(Look, ThemesKeepContrast) {
  // WCAG 2.1 relative luminance; 4.5 : 1 for text.
  const auto luminance = [](QColor c) {
    const auto part = [](double v) { return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
    return 0.2126 * part(c.redF()) + 0.7152 * part(c.greenF()) + 0.0722 * part(c.blueF());
  };
  const auto contrast = [&](QColor a, QColor b) {
    const double x = luminance(a), y = luminance(b);
    return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
  };
  for (const Theme theme : {Theme::paper, Theme::field, Theme::dark}) {
    Look::instance().set_theme(theme);
    const Inks& i = inks();
    for (const QColor& ink : {i.ink, i.soft, i.teal, i.rust, i.ochre, i.slate, i.moss})
      for (const QColor& ground : {i.paper, i.sheet})
        EXPECT_GE(contrast(ink, ground), 4.5) << ink.name().toStdString() << " on " << ground.name().toStdString();
    EXPECT_GE(contrast(i.sheet, i.teal), 4.5);
    EXPECT_GE(contrast(i.soft, i.wash), 4.5);
  }
  Look::instance().set_theme(Theme::paper);
}

}  // namespace
}  // namespace rigging::app
