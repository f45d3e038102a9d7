#pragma once

#include <gtest/gtest.h>

#include <QAbstractButton>
#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QLineEdit>
#include <QMouseEvent>
#include <QTemporaryDir>
#include <QTest>
#include <QThreadPool>
#include <QTimer>

#include "direction/mode_checks.h"
#include "feel/feel_checks.h"
#include "look/literals.h"
#include "places.h"
#include "rig/rig_file.h"
#include "shell/main_window.h"
#include "stations/proof/proof_page.h"
#include "stations/sticks/sticks_page.h"
#include "stations/surfaces/surfaces_page.h"

namespace rigging::app {

/// Programs under the sanitizers take their time, and so does whoever waits for them.
#ifdef __SANITIZE_ADDRESS__
inline constexpr int patience = 4;
#else
inline constexpr int patience = 1;
#endif

/// A patient builder in front of the window: clicks, types and looks at the bench, and knows nothing else.
class Builder {
 public:
  explicit Builder(QStringList faults = {}, int random = 2, unsigned seed = 8, bool by_the_wall = false)
      : clock(clock_here(by_the_wall)),
        window(*load_catalogue(in_source("/data/catalogue")), settings(faults, random, seed)) {
    window.show();
    EXPECT_TRUE(QTest::qWaitForWindowExposed(&window));
    window.activateWindow();  // without a window manager nobody else gives it the keyboard
    EXPECT_TRUE(QTest::qWaitForWindowActive(&window));
  }
  /// Where nobody looks on the bench's time is turned by whoever waits; in a real window it is the wall's.
  static Clock& clock_here(bool by_the_wall) {
    Clock::instance().take_by_hand(!by_the_wall && QGuiApplication::platformName() == u"offscreen"_s);
    return Clock::instance();
  }
  Settings settings(const QStringList& faults, int random, unsigned seed) {
    Settings s;
    s.data_folder = QString::fromStdString(in_source("/data"));
    s.state_folder = folder.path();
    s.demo_faults = faults;
    s.demo_random = random;
    s.demo_seed = seed;
    return s;
  }

  template <class T = QWidget>
  T* find(const QString& name) const {
    // The same card may stand on two pages: the one that is seen is meant.
    const auto all = window.findChildren<T*>(name);
    for (T* one : all)
      if (one->isVisible()) return one;
    return all.isEmpty() ? nullptr : all.first();
  }
  bool can_click(const QString& name) const {
    const auto* button = find<QAbstractButton>(name);
    return button && button->isVisible() && button->isEnabled();
  }
  bool click(const QString& name) {
    QApplication::processEvents();  // what was just shown has its place first, as for a hand
    if (!can_click(name)) return false;
    QTest::mouseClick(find<QAbstractButton>(name), Qt::LeftButton);
    QApplication::processEvents();
    return true;
  }
  /// A number into a box, as a hand types it, with Enter after it.
  void type(const char* box, const char* number) {
    auto* edit = find<QDoubleSpinBox>(QLatin1String(box));
    edit->setFocus();
    edit->selectAll();
    QTest::keyClicks(edit, QString::fromUtf8(number));
    QTest::keyClick(edit, Qt::Key_Return);
  }
  /// Lets time pass on the bench, for so long, or until it is so.
  template <class Done>
  void let_pass(int ms, Done&& done) {
    const double until_s = clock.now_s() + ms / 1000.0;
    wait([&] { return clock.now_s() >= until_s || done(); }, 2 * ms);
  }
  /// Until it is so, for so long on the bench's clock. What does not go by that clock (a program that starts, a job on
  /// another thread, a file) is given as long by the wall's.
  template <class Done>
  bool wait(Done&& done, int ms = 8000) {
    if (!clock.by_hand()) return QTest::qWaitFor(done, ms * patience);
    constexpr double turn_s = 0.01;
    constexpr int turns_a_frame = 4;  // as often as it is drawn
    QElapsedTimer by_the_wall;
    by_the_wall.start();
    const double until_s = clock.now_s() + ms / 1000.0;
    for (int turns = 0; !done(); ++turns) {
      const bool busy = window.bench().connecting() || QThreadPool::globalInstance()->activeThreadCount() > 0;
      const bool over = clock.now_s() >= until_s;
      if (over && by_the_wall.elapsed() > ms * patience) return false;
      if (busy || over)
        QTest::qWait(1);
      else
        clock.turn(turn_s);
      if (turns % turns_a_frame == 0) QApplication::processEvents();
    }
    return true;
  }
  /// Looks at a surface until it has stood where it is for so many looks: as long as that takes here.
  bool stands_still(Surface surface, int for_looks = 14) {
    double at = 1e9;
    int still = 0;
    const auto seen = QObject::connect(&window.bench(), &BenchLink::seen, &window, [&] {
      const auto it = window.bench().sight().deflections.find(surface);
      if (it == window.bench().sight().deflections.end()) return;
      still = std::abs(it->second - at) < 0.05 ? still + 1 : 0;
      at = it->second;
    });
    const bool stood = wait([&] { return still >= for_looks; });
    QObject::disconnect(seen);
    return stood;
  }
  /// Time as the receiver's frames tell it, µs.
  bool frames_for(double us) {
    if (!wait([&] { return !window.bench().frames().empty(); })) return false;
    const double from = window.bench().frames().back().t_us;
    return wait([&] { return window.bench().frames().back().t_us > from + us; }, 20000);
  }

  ProofPage& proof() const { return *window.findChild<ProofPage*>(); }

  /// A demo rig by its name, on a station.
  bool open(const char* rig, Station station) {
    if (!window.open_file(QString::fromStdString(in_source("/data/demo/%1.rig.json")).arg(QLatin1String(rig))))
      return false;
    window.go(station);
    return true;
  }
  void edit(const std::function<void(Rig&)>& change) {
    Rig rig = window.document().rig();
    change(rig);
    window.document().edit(std::move(rig), u"a test's doing"_s);
  }
  /// Does something once, as soon as it can be done; also while a sheet is open.
  void when(std::function<bool()> can, std::function<void()> action) {
    auto* timer = new QTimer(&window);
    QObject::connect(timer, &QTimer::timeout, &window, [timer, can = std::move(can), action = std::move(action)] {
      if (!can()) return;
      timer->stop();
      timer->deleteLater();
      action();
    });
    timer->start(5);
  }
  /// Does something with the sheet that the next click or key opens.
  void in_sheet(std::function<void(QWidget&)> action) {
    const auto open = [] {
      const QWidget* sheet = QApplication::activeModalWidget();
      return sheet && sheet->isVisible() && sheet->objectName() != QLatin1String("progress");
    };
    when(open, [action = std::move(action)] { action(*QApplication::activeModalWidget()); });
  }
  /// Types into the sheet that the next click opens, and takes it; `after` sees what it says when it was refused.
  void type_into_sheet(std::vector<std::pair<const char*, QString>> entries, std::function<void(QWidget&)> after = {}) {
    in_sheet([this, entries = std::move(entries), after = std::move(after)](QWidget& sheet) {
      QWidget* dialog = &sheet;
      for (const auto& [name, text] : entries) {
        if (auto* number = dialog->findChild<QDoubleSpinBox*>(QLatin1String(name)))
          number->setValue(text.toDouble());
        else if (auto* line = dialog->findChild<QLineEdit*>(QLatin1String(name)))
          line->setText(text);
        else if (auto* tick = dialog->findChild<QCheckBox*>(QLatin1String(name)))
          tick->setChecked(text == u"yes"_s);
        else if (auto* choice = dialog->findChild<QComboBox*>(QLatin1String(name));
                 choice && choice->findText(text) >= 0)
          choice->setCurrentIndex(choice->findText(text));
        else
          ADD_FAILURE() << "no entry " << name;
      }
      // Refused, it opens again at once, and is looked at then.
      const auto refused = [dialog] { return dialog->findChild<QLabel*>(u"refusal"_s)->isVisible(); };
      if (after) when(refused, [dialog, after] { after(*dialog); });
      dialog->findChild<QAbstractButton*>(u"take"_s)->click();
    });
  }

  bool open_demo_with_battery() {
    window.start_demo();
    return wait([&] { return window.bench().hands_connected(); }) && click(u"supply_battery"_s) &&
           wait([&] { return window.bench().controller_answers() || !window.document().controller()->link; });
  }

  /// Leaves for later what other stations record: takes the next check in the chain that is done here.
  void stay_at_proof() {
    const CheckStatus* now = find_check(window.document().review().checks, proof().procedure().checking());
    if (proof().procedure().asking() != ProofProcedure::Asking::check || !now || !now->family->by_station) return;
    for (const CheckStatus& c : window.document().review().checks)
      if (!c.family->by_station && !c.family->guides && !c.stands())
        return proof().go_to(QString::fromStdString(c.id.text()));
  }

  /// Does what the card says, watches, and presses the keys for what moved.
  void look() {
    stay_at_proof();
    // A class that shows no readings is watched waking and levelling first.
    const auto wakes = [&] { return proof().procedure().checking().starts_with("senses."); };
    for (int i = 0; i < 2 && wakes(); ++i) ASSERT_TRUE(click(u"record_card"_s));
    stay_at_proof();
    ASSERT_TRUE(wait([&] { return can_click(u"do_it"_s); }, 9000));
    std::map<Surface, double> furthest;
    click(u"do_it"_s);
    // So many looks outlast what hands do; a slow machine looks more slowly.
    int looked = 0;
    const auto seen = QObject::connect(&window.bench(), &BenchLink::seen, &window, [&] {
      ++looked;
      for (const auto& [s, d] : window.bench().sight().deflections)
        if (std::abs(d) > std::abs(furthest[s])) furthest[s] = d;
    });
    // On a busy machine hands have not even begun after so many looks.
    const auto moved = [&] {
      return std::any_of(furthest.begin(), furthest.end(), [](const auto& s) { return std::abs(s.second) >= 3; });
    };
    wait([&] { return looked >= 45 && (moved() || can_click(u"do_it"_s)); }, 20000);
    QObject::disconnect(seen);
    ++looks;
    for (const auto& [s, d] : furthest) {
      const int motion = std::abs(d) < 3 ? 0 : d > 0 ? 1 : -1;
      click(u"saw_%1_%2"_s.arg(QString::fromStdString(s.name())).arg(motion));
    }
    ASSERT_TRUE(click(u"note"_s));
    wait([&] { return can_click(u"do_it"_s) || proof().procedure().asking() != ProofProcedure::Asking::check; }, 9000);
  }

  /// Plans the gains for the first flight, as the card asks, and comes back.
  void plan_gains() {
    ASSERT_TRUE(click(u"to_station"_s));
    ASSERT_TRUE(wait([&] { return can_click(u"first_gains"_s); }));
    ASSERT_TRUE(click(u"first_gains"_s));
    window.go(Station::proof);
  }

  /// Walks the checks to the end. Returns how many faults were cured.
  int work_through() {
    int repaired = 0;
    for (int step = 0; step < 60; ++step) {
      stay_at_proof();
      switch (proof().procedure().asking()) {
        case ProofProcedure::Asking::done: return repaired;
        case ProofProcedure::Asking::check:
          if (proof().procedure().checking() == first_gains_set.text() && can_click(u"to_station"_s)) {
            plan_gains();
            break;
          }
          if (can_click(u"write_rig"_s)) {
            EXPECT_TRUE(click(u"write_rig"_s));
            EXPECT_TRUE(wait([&] { return !window.bench().writing() && !can_click(u"write_rig"_s); }));
            break;
          }
          // What the board tells of itself is read, and then recorded.
          if (click(u"loss_do"_s)) {
            EXPECT_TRUE(wait([&] { return click(u"loss_seen"_s); }, 30000));
            break;
          }
          if (click(u"positions_seen"_s)) break;
          if (click(u"positions_do"_s)) {
            EXPECT_TRUE(wait([&] { return click(u"positions_record"_s); }, 60000));
            break;
          }
          if (can_click(u"record_card"_s)) {
            // One that eyes alone can say: done on the bench, then recorded.
            // Modes take long to be shown, and have a test of their own.
            const bool mode = proof().procedure().checking().starts_with(mode_family);
            if (!mode && click(u"do_it"_s)) let_pass(12000, [&] { return can_click(u"do_it"_s); });
            EXPECT_TRUE(click(u"record_card"_s));
            break;
          }
          [[fallthrough]];
        case ProofProcedure::Asking::question: look(); break;
        case ProofProcedure::Asking::verdict: {
          if (click(u"apply"_s)) {
            ++repaired;
            wait([&] { return !window.bench().writing(); });
          }
          if (proof().procedure().asking() == ProofProcedure::Asking::verdict && click(u"by_hand"_s)) ++repaired;
          wait([&] {
            return proof().procedure().asking() != ProofProcedure::Asking::verdict || can_click(u"apply"_s) ||
                   can_click(u"by_hand"_s);
          });
          break;
        }
        case ProofProcedure::Asking::contradiction:
          // Seen too hastily: look again.
          click(u"look_again"_s);
          break;
      }
      if (testing::Test::HasFatalFailure()) return repaired;
    }
    return -1;
  }

  QTemporaryDir folder;
  Clock& clock;
  MainWindow window;
  int looks = 0;
};

/// Share of the pixels that differ.
inline double difference(const QImage& a, const QImage& b) {
  int different = 0;
  for (int y = 0; y < a.height(); ++y)
    for (int x = 0; x < a.width(); ++x) different += a.pixel(x, y) != b.pixel(x, y);
  return static_cast<double>(different) / (a.width() * a.height());
}

inline QImage picture(QWidget& widget) { return widget.grab().toImage(); }

inline void press(Builder& b, Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
  QTest::keyClick(QApplication::focusWidget() ? QApplication::focusWidget() : &b.window, key, modifiers);
  QApplication::processEvents();
}

/// Hands that do what the card says, and nothing else.
inline void follow_sticks(Builder& b) {
  auto* page = b.window.findChild<SticksPage*>();
  const auto asked = [page] {
    const auto& listening = page->procedure().listening();
    return listening ? QString::fromStdString(listening->todo()) : QString();
  };
  QString last;
  ASSERT_TRUE(b.click(u"listen"_s));
  ASSERT_TRUE(b.wait(
      [&] {
        const QString todo = asked();
        if (todo.isEmpty()) return true;
        if (todo == last) return false;
        last = todo;
        const auto at = [&](const char* word) { return todo.contains(QLatin1String(word)); };
        const double to = at("right and hold") || at("back") || at("Open") ? 1
                          : at("left and hold") || at("forward")           ? -1
                                                                           : 0;
        for (const Axis axis : all_axes) {
          const bool meant = todo.contains(u"%1 stick"_s.arg(QLatin1String(name_of(axis).data())));
          b.window.bench().ask(hands::Stick{axis, meant ? to : 0});
        }
        b.window.bench().ask(hands::Stick{std::nullopt, at("Open") ? 1.0 : 0.0});
        return false;
      },
      40000 * patience))
      << asked().toStdString();
}

inline void bring_up(Builder& b, unsigned seed) {
  ASSERT_TRUE(b.window.open_file(QString::fromStdString(in_source("/data/demo/hedgerow.rig.json"))));
  b.window.start_troubled_bench(seed, {true, false, true});
  b.window.go(Station::sticks);
  ASSERT_TRUE(b.wait([&] { return b.window.bench().hands_connected(); }));
  ASSERT_TRUE(b.click(u"supply_battery"_s));
  ASSERT_TRUE(b.wait(
      [&] { return b.window.bench().signal() && b.window.bench().frames().size() > 20 && b.can_click(u"listen"_s); }));
}

/// Reads one surface and does what is said, until nothing has to change.
inline void straighten(Builder& b, Surface surface) {
  auto* page = b.window.findChild<SurfacesPage*>();
  auto* box = b.find<QComboBox>(u"surface_box"_s);
  const int index = box->findData(QString::fromStdString(surface.name()));
  ASSERT_GE(index, 0) << surface.name();
  box->setCurrentIndex(index);
  Q_EMIT box->activated(index);
  for (int round = 0; round < 5; ++round) {
    ASSERT_TRUE(b.wait([&] { return b.can_click(u"throw_begin"_s) && b.window.bench().sight().battery; }))
        << b.find<QLabel>(u"throws_lines"_s)->text().toStdString();
    ASSERT_TRUE(b.click(u"throw_begin"_s));
    while (page->throws().state() == ThrowsProcedure::State::reading) {
      ASSERT_TRUE(b.wait([&] { return b.can_click(u"throw_eyes"_s); })) << "the servo takes its time";
      ASSERT_TRUE(b.click(u"throw_eyes"_s));
    }
    ASSERT_TRUE(page->throws().answer()) << b.find<QLabel>(u"throws_lines"_s)->text().toStdString();
    bool anything = false;
    if (b.click(u"throw_hands"_s)) {
      anything = true;
      ASSERT_TRUE(b.wait([&] { return b.window.bench().sight().servos_powered; }));
      ASSERT_TRUE(b.stands_still(surface));
    }
    if (b.click(u"throw_set"_s)) {
      anything = true;
      if (b.window.document().controller()->link) {
        b.let_pass(3000, [&] { return b.can_click(u"throw_write"_s); });
        b.click(u"throw_write"_s);
        ASSERT_TRUE(b.wait([&] {
          return b.window.bench().board() &&
                 link::differences(link::image_of(b.window.document().rig()), *b.window.bench().board()).empty();
        }));
      }
    }
    if (!anything) break;
  }
}

/// How many pixels of exactly this ink a widget shows.
inline int pixels(QWidget& widget, const QColor& ink) {
  const QImage image = widget.grab().toImage();
  int count = 0;
  for (int y = 0; y < image.height(); ++y)
    for (int x = 0; x < image.width(); ++x) count += image.pixelColor(x, y) == ink;
  return count;
}

/// The demo aircraft in a window, for the stations that plan.
class Planning : public testing::Test {
 protected:
  void SetUp() override { b.window.document().start_new(*load_rig(in_source("/data/demo/hedgerow.rig.json"))); }
  const Rig& rig() { return b.window.document().rig(); }
  void drag(QWidget* view, QPointF from, QPointF to) {
    QTest::mousePress(view, Qt::LeftButton, {}, from.toPoint());
    QTest::mouseMove(view, ((from + to) / 2).toPoint());
    // A move with the button held, as a hand makes it.
    QMouseEvent move(QEvent::MouseMove, to, view->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, {});
    QApplication::sendEvent(view, &move);
    QTest::mouseRelease(view, Qt::LeftButton, {}, to.toPoint());
    QApplication::processEvents();
  }
  QString text(const char* label) { return b.find<QLabel>(QLatin1String(label))->text(); }

  Builder b;
};

}  // namespace rigging::app
