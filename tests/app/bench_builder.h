#pragma once

#include <QAbstractButton>
#include <QApplication>
#include <QCheckBox>
#include <QDoubleSpinBox>
#include <QElapsedTimer>
#include <QLineEdit>
#include <QTemporaryDir>
#include <QTest>
#include <QTimer>

#include "shell/main_window.h"
#include "stations/proof/proof_page.h"

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
  explicit Builder(QStringList faults = {}, int random = 2, unsigned seed = 8)
      : window(*load_catalogue(RIGGING_SOURCE_DIR "/data/catalogue"), settings(faults, random, seed)) {
    window.show();
    EXPECT_TRUE(QTest::qWaitForWindowExposed(&window));
    window.activateWindow();  // without a window manager nobody else gives it the keyboard
    EXPECT_TRUE(QTest::qWaitForWindowActive(&window));
  }
  Settings settings(const QStringList& faults, int random, unsigned seed) {
    Settings s;
    s.data_folder = QStringLiteral(RIGGING_SOURCE_DIR "/data");
    s.state_folder = folder.path();
    s.demo_faults = faults;
    s.demo_random = random;
    s.demo_seed = seed;
    return s;
  }

  template <class T = QWidget>
  T* find(const QString& name) const {
    return window.findChild<T*>(name);
  }
  bool can_click(const QString& name) const {
    const auto* button = find<QAbstractButton>(name);
    return button && button->isVisible() && button->isEnabled();
  }
  bool click(const QString& name) {
    if (!can_click(name)) return false;
    QTest::mouseClick(find<QAbstractButton>(name), Qt::LeftButton);
    QApplication::processEvents();
    return true;
  }
  template <class Done>
  bool wait(Done&& done, int ms = 8000) {
    return QTest::qWaitFor(done, ms * patience);
  }
  ProofPage& proof() const { return *window.findChild<ProofPage*>(); }

  /// A demo rig by its name, on a station.
  bool open(const char* rig, Station station) {
    if (!window.open_file(QStringLiteral(RIGGING_SOURCE_DIR "/data/demo/%1.rig.json").arg(QLatin1String(rig))))
      return false;
    window.go(station);
    return true;
  }
  void edit(const std::function<void(Rig&)>& change) {
    Rig rig = window.document().rig();
    change(rig);
    window.document().edit(std::move(rig), QStringLiteral("a test's doing"));
  }
  /// Types into the sheet that the next click opens, and takes it; `after` sees what it says when it was refused.
  void type_into_sheet(std::vector<std::pair<const char*, QString>> entries, std::function<void(QWidget&)> after = {}) {
    QTimer::singleShot(150, &window, [entries = std::move(entries), after = std::move(after)] {
      QWidget* dialog = QApplication::activeModalWidget();
      ASSERT_TRUE(dialog);
      for (const auto& [name, text] : entries) {
        if (auto* number = dialog->findChild<QDoubleSpinBox*>(QLatin1String(name)))
          number->setValue(text.toDouble());
        else if (auto* line = dialog->findChild<QLineEdit*>(QLatin1String(name)))
          line->setText(text);
        else if (auto* tick = dialog->findChild<QCheckBox*>(QLatin1String(name)))
          tick->setChecked(text == QStringLiteral("yes"));
        else
          ADD_FAILURE() << "no entry " << name;
      }
      // Refused, it opens again at once, and is looked at then.
      if (after) QTimer::singleShot(80, dialog, [dialog, after] { after(*dialog); });
      dialog->findChild<QAbstractButton*>(QStringLiteral("take"))->click();
    });
  }

  bool open_demo_with_battery() {
    window.start_demo();
    return wait([&] { return window.bench().hands_connected(); }) && click(QStringLiteral("supply_battery")) &&
           wait([&] { return window.bench().controller_answers() || !window.document().controller()->link; });
  }

  /// Does what the card says, watches, and presses the keys for what moved.
  void look() {
    ASSERT_TRUE(wait([&] { return can_click(QStringLiteral("do_it")); }, 9000));
    std::map<Surface, double> furthest;
    click(QStringLiteral("do_it"));
    QElapsedTimer timer;
    timer.start();
    while (timer.elapsed() < 1300) {
      QTest::qWait(15);
      for (const auto& [s, d] : window.bench().sight().deflections)
        if (std::abs(d) > std::abs(furthest[s])) furthest[s] = d;
    }
    ++looks;
    for (const auto& [s, d] : furthest) {
      const int motion = std::abs(d) < 3 ? 0 : d > 0 ? 1 : -1;
      click(QStringLiteral("saw_%1_%2").arg(QString::fromStdString(s.word())).arg(motion));
    }
    ASSERT_TRUE(click(QStringLiteral("note")));
    wait([&] { return can_click(QStringLiteral("do_it")) || proof().asking() != ProofPage::Asking::check; }, 9000);
  }

  /// Walks the checks to the end. Returns how many faults were cured.
  int work_through() {
    int cured = 0;
    for (int step = 0; step < 60; ++step) {
      switch (proof().asking()) {
        case ProofPage::Asking::done: return cured;
        case ProofPage::Asking::check:
        case ProofPage::Asking::question: look(); break;
        case ProofPage::Asking::verdict: {
          if (click(QStringLiteral("apply"))) {
            ++cured;
            wait([&] { return !window.bench().writing(); });
          }
          if (proof().asking() == ProofPage::Asking::verdict && click(QStringLiteral("by_hand"))) ++cured;
          QTest::qWait(150);
          break;
        }
        case ProofPage::Asking::contradiction:
          // Seen too hastily: look again.
          click(QStringLiteral("look_again"));
          break;
      }
      if (testing::Test::HasFatalFailure()) return cured;
    }
    return -1;
  }

  QTemporaryDir folder;
  MainWindow window;
  int looks = 0;
};

}  // namespace rigging::app
