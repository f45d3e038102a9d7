#include "shell/screenshots.h"

#include <QApplication>
#include <QComboBox>
#include <QDir>
#include <QElapsedTimer>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <iostream>

#include "base/data_folder.h"
#include "drawing/stick_square.h"
#include "feel/edits.h"
#include "look/literals.h"
#include "look/look.h"
#include "shell/main_window.h"
#include "shell/sheet_dialog.h"
#include "stations/fit/fit_page.h"
#include "stations/home/reach_chart.h"
#include "stations/home/story_strip.h"
#include "stations/members_editor.h"
#include "stations/proof/proof_page.h"
#include "stations/sticks/sticks_page.h"
#include "stations/surfaces/surfaces_page.h"
#include "stations/wiring/board_dialog.h"
#include "stations/wiring/board_view.h"
#include "stations/wiring/wiring_page.h"

namespace rigging::app {
namespace {

void wait(int ms) {
  QElapsedTimer timer;
  timer.start();
  while (timer.elapsed() < ms) QApplication::processEvents(QEventLoop::AllEvents, 20);
}

template <class Done>
bool wait_for(Done&& done, int ms) {
  QElapsedTimer timer;
  timer.start();
  while (!done() && timer.elapsed() < ms) QApplication::processEvents(QEventLoop::AllEvents, 20);
  return done();
}

}  // namespace

int take_screenshots(MainWindow& window, const QString& folder) {
  if (!QDir().mkpath(folder)) {
    std::cerr << "rigging: " << folder.toStdString() << " can't be made\n";
    return 2;
  }
  bool good = true;
  const auto shoot = [&](QWidget& what, const char* name) {
    const QString path = folder + QLatin1Char('/') + QLatin1String(name) + u".png"_s;
    if (!what.grab().save(path)) {
      std::cerr << "rigging: " << path.toStdString() << " can't be written\n";
      good = false;
    }
  };
  const auto click = [&](const char* name) {
    if (auto* button = window.findChild<QPushButton*>(QLatin1String(name));
        button && button->isVisible() && button->isEnabled())
      button->click();
    wait(60);
  };
  window.start_demo();
  if (!wait_for([&] { return window.bench().hands_connected(); }, 4000)) return 1;
  click("supply_battery");
  wait_for([&] { return window.bench().controller_answers(); }, 3000);

  window.go(Station::airframe);
  click("answers_pitch");
  wait(200);
  shoot(window, "airframe");

  window.go(Station::fit);
  if (auto* fit = window.findChild<FitPage*>()) fit->go_to(u"gps"_s);
  wait(200);
  shoot(window, "fit");
  window.go(Station::power);
  click("effort_one_stalled");
  wait(200);
  shoot(window, "power");
  window.go(Station::wiring);
  if (auto* wiring = window.findChild<WiringPage*>()) wiring->go_to(u"gps"_s);
  wait(200);
  shoot(window, "wiring");
  SheetDialog sheets(u"Plug list and wiring"_s, wiring_sheets(window.document()), &window);
  sheets.show();
  wait(120);
  shoot(sheets, "sheets");
  sheets.hide();

  BoardDialog board(window.document(), &window);
  board.findChild<BoardView*>()->choose(u"/outputs/2"_s);
  board.findChild<MembersEditor*>()->choose(u"/outputs/2"_s);
  board.show();
  wait(120);
  shoot(board, "my-board");
  board.hide();

  window.go(Station::surfaces);
  if (auto* square = window.findChild<StickSquare*>(u"stick_square"_s)) Q_EMIT square->moved(0.6, 0.8);
  wait(200);
  shoot(window, "surfaces");

  // A firm setting, so that the picture has something to say; the rig of the bench stays as it was.
  window.go(Station::feel);
  wait_for([&] { return window.document().deferred() != nullptr; }, 3000);
  if (const auto firm = set_gain(window.document().rig(), window.document().catalogue(), Axis::roll, 0.3); firm) {
    window.document().apply(firm);
    wait_for([&] { return window.document().deferred() != nullptr; }, 3000);
    wait(200);
    shoot(window, "feel");
    // Two settings in the same air: the firm one, and what is advised.
    const auto flown = [&] {
      const auto* words = window.findChild<QLabel*>(u"fly_words"_s);
      wait_for([&] { return words->text().startsWith(u"As planned"_s); }, 10000);
    };
    click("fly_it");
    window.findChild<QComboBox*>(u"fly_speed"_s)->setCurrentIndex(1);
    click("fly_plan");
    flown();
    window.document().undo();
    wait_for([&] { return window.document().deferred() != nullptr; }, 3000);
    click("first_gains");
    wait_for([&] { return window.document().deferred() != nullptr; }, 3000);
    wait(200);
    click("fly_plan");
    flown();
    wait(200);
    shoot(window, "fly");
    click("fly_it");
    window.document().undo();
  }

  window.go(Station::home);
  wait_for([&] { return window.document().deferred() != nullptr; }, 3000);
  if (auto* chart = window.findChild<ReachChart*>()) {
    chart->set_place(650, 75);
    Q_EMIT chart->place_moved(650, 75);
  }
  if (auto* strip = window.findChild<StoryStrip*>()) {
    strip->set_at(30);
    Q_EMIT strip->scrubbed(30);
  }
  wait(200);
  shoot(window, "home");

  window.go(Station::proof);
  wait(1500);
  shoot(window, "proof-check");
  // Answer as the bench shows, until something is found.
  auto* proof = window.findChild<ProofPage*>();
  for (int step = 0; step < 12 && proof->procedure().asking() != ProofProcedure::Asking::verdict; ++step) {
    click("do_it");
    std::map<Surface, double> extreme;
    const auto watch = [&] {
      for (const auto& [s, d] : window.bench().sight().deflections)
        if (std::abs(d) > std::abs(extreme[s])) extreme[s] = d;
    };
    QElapsedTimer timer;
    timer.start();
    while (timer.elapsed() < 1100) {
      wait(20);
      watch();
    }
    for (const auto& [s, d] : extreme) {
      const int motion = std::abs(d) < 3 ? 0 : d > 0 ? 1 : -1;
      click(qPrintable(u"saw_%1_%2"_s.arg(QString::fromStdString(s.name())).arg(motion)));
    }
    wait_for([&] { return window.findChild<QPushButton*>(u"do_it"_s)->isEnabled(); }, 6000);
    click("note");
  }
  wait(100);
  shoot(window, "proof-found");

  window.start_troubled_bench(4, {.bad_sticks = true, .crooked = true, .poor_senses = true});
  window.go(Station::senses);
  wait_for([&] { return window.bench().hands_connected(); }, 4000);
  click("supply_usb");
  wait_for([&] { return window.bench().controller_answers(); }, 4000);
  click("rotation_begin");
  wait_for([&] { return window.findChild<QPushButton*>(u"rotation_hold"_s) != nullptr; }, 2000);
  wait(1500);
  click("rotation_hold");
  wait(600);
  shoot(window, "senses");
  click("rotation_stop");
  window.bench().ask(hands::Hold{});
  wait(1500);
  window.go(Station::sticks);
  wait_for([&] { return window.bench().hands_connected(); }, 4000);
  click("supply_battery");
  wait_for([&] { return window.bench().signal().has_value(); }, 4000);
  wait(300);
  click("listen");
  auto* sticks = window.findChild<SticksPage*>();
  wait_for(
      [&] {
        const auto& setup = sticks->procedure().listening();
        if (!setup) return true;
        for (const Axis axis : all_axes)
          window.bench().ask(hands::Stick{axis, setup->stick() && name_of(*setup->stick()) == name_of(axis)
                                                    ? static_cast<double>(setup->side())
                                                    : 0});
        window.bench().ask(
            hands::Stick{std::nullopt, setup->stick() == ChannelFunction::throttle && setup->side() > 0 ? 1.0 : 0.0});
        return false;
      },
      30000);
  wait(200);
  shoot(window, "sticks");
  window.go(Station::surfaces);
  if (auto* surfaces = window.findChild<SurfacesPage*>()) {
    surfaces->show_surface(*surface_from_name("flaperon_left"));
    click("side_linkage");
    wait(200);
    shoot(window, "surfaces-linkage");
    click("side_throws");
    click("throw_write");
    wait_for([&] { return !window.bench().writing(); }, 3000);
    wait(300);
    click("throw_begin");
    for (int i = 0; i < 5; ++i) {
      wait(900);
      click("throw_eyes");
    }
    wait(200);
    shoot(window, "surfaces-throws");
  }

  window.open_file(QString::fromStdString((data_folder() / "demo" / "delta.rig.json").string()));
  const ControllerClass* controller = window.document().controller();
  if (controller) {
    const auto c = direction::case_from_rig(window.document().rig(), *controller);
    direction::Fault f;
    f.kind = direction::FaultKind::output_reversed;
    f.output = 1;
    SheetDialog dialog(u"Hand cards"_s,
                       hand_card_sheets(window.document(), {hand_card(window.document().rig(), *controller, f, c)}),
                       &window);
    dialog.show();
    wait(120);
    shoot(dialog, "hand-card");
    dialog.hide();
  }
  const auto ask = window.ask_box();
  ask->show();
  ask->findChild<QLineEdit*>()->setText(u"move the battery 20 mm back"_s);
  wait(60);
  shoot(*ask, "ask-box");
  ask->hide();
  window.begin();
  const auto type = [&](const char* field, const char* words) {
    auto* line = window.findChild<QLineEdit*>(QLatin1String(field));
    line->setText(QString::fromUtf8(words));
    Q_EMIT line->textEdited(line->text());
  };
  type("begin_name", "Fen");
  window.findChild<QListWidget*>(u"begin_kinds"_s)->setCurrentRow(static_cast<int>(AirframeKind::flying_wing));
  type("begin_span", "1.2 m");
  type("begin_others", "camera, 200 mW video, satellite with compass, buzzer");
  wait(120);
  shoot(window, "beginning");
  window.bench().stop();
  return good ? 0 : 1;
}

}  // namespace rigging::app
