#include <gtest/gtest.h>

#include <QComboBox>
#include <QElapsedTimer>
#include <QLabel>
#include <QPushButton>

#include "bench_builder.h"
#include "pseudo_terminal.h"
#include "stations/sticks/signal_strip.h"
#include "stations/sticks/switch_bars.h"

namespace rigging::app {
namespace {

/// A receiver behind a serial device, played by the test.
class Receiver : public PseudoTerminal {
 public:
  explicit Receiver(Signal signal) : signal_(signal) {
    frame.channels = most_channels;
    frame.pulse_us.fill(1500);
  }
  void say() {
    write(signal_ == Signal::inverted_serial ? encode_inverted_serial(frame) : encode_two_way(frame, counter_++));
  }
  void noise() { write("\x01\x02\x03\x04\x05\x06\x07"); }

  ChannelFrame frame;

 private:
  Signal signal_;
  std::uint8_t counter_ = 0;
};

template <class Each, class Done>
bool until(Each&& each, Done&& done, int ms = 5000) {
  QElapsedTimer timer, last;
  timer.start();
  last.start();
  while (!done() && timer.elapsed() < ms) {
    if (last.elapsed() > 9) {
      each();
      last.restart();
    }
    QApplication::processEvents(QEventLoop::AllEvents, 5);
  }
  return done();
}

class Receivers : public testing::TestWithParam<Signal> {};

TEST_P(Receivers, AreHeardAtADeviceFrameByFrame) {
  Clock::instance().take_by_hand(false);  // a device keeps its own time
  Receiver receiver(GetParam());
  BenchLink bench;
  bench.listen_to({receiver.device(), GetParam(), 0});
  ASSERT_TRUE(bench.listening());
  EXPECT_FALSE(bench.simulated()) << "what is heard is real";
  receiver.frame.pulse_us[0] = 1712;
  receiver.frame.pulse_us[7] = 1100;
  ASSERT_TRUE(until([&] { receiver.say(); }, [&] { return bench.frames().size() > 20; }));
  EXPECT_NEAR(static_cast<double>(bench.frames().back().pulse_us[0]), 1712, 1);
  EXPECT_NEAR(static_cast<double>(bench.frames().back().pulse_us[7]), 1100, 1);
  EXPECT_EQ(bench.signal(), GetParam());
  EXPECT_EQ(bench.tally().damaged, 0u);
  EXPECT_FALSE(bench.silent());
  // Silence is told without anything that comes.
  int told = 0;
  QObject::connect(&bench, &BenchLink::frames_heard, [&](const auto& frames) { told += frames.empty(); });
  EXPECT_TRUE(until([] {}, [&] { return told > 0 && bench.silent(); }));
  // A pulled adapter is noticed.
  QString words;
  QObject::connect(&bench, &BenchLink::problem, [&](const QString& w) { words = w; });
  receiver.unplug();
  EXPECT_TRUE(until([] {}, [&] { return !bench.listening(); }));
  EXPECT_TRUE(words.contains(QStringLiteral("gone"))) << words.toStdString();
}
INSTANTIATE_TEST_SUITE_P(Signals, Receivers, testing::Values(Signal::inverted_serial, Signal::two_way_serial));

TEST(RealReceiver, IsListenedToFromTheSticksStation) {
  Receiver receiver(Signal::inverted_serial);
  Builder b({}, 2, 8, true);                      // a device keeps its own time
  ASSERT_TRUE(b.open("heath", Station::sticks));  // a class that shows nothing of what it receives
  b.in_sheet([&](QWidget& sheet) {
    auto* baud = sheet.findChild<QComboBox*>(QStringLiteral("receiver_baud"));
    sheet.findChild<QComboBox*>(QStringLiteral("receiver_device"))->setCurrentText(receiver.device());
    EXPECT_TRUE(sheet.findChild<QLabel*>(QStringLiteral("receiver_how"))->text().contains(QStringLiteral("inverts")));
    auto* go = sheet.findChild<QPushButton*>(QStringLiteral("receiver_listen"));
    auto* trouble = sheet.findChild<QLabel*>(QStringLiteral("receiver_trouble"));
    baud->setCurrentText(QStringLiteral("quick"));
    go->click();
    EXPECT_TRUE(trouble->text().contains(QStringLiteral("no baud"))) << trouble->text().toStdString();
    baud->setCurrentText(QStringLiteral("100000"));
    sheet.findChild<QComboBox*>(QStringLiteral("receiver_device"))->setCurrentText(QStringLiteral("/dev/no_such"));
    go->click();
    EXPECT_TRUE(trouble->text().contains(QStringLiteral("/dev/no_such"))) << trouble->text().toStdString();
    sheet.findChild<QComboBox*>(QStringLiteral("receiver_device"))->setCurrentText(receiver.device());
    go->click();
  });
  ASSERT_TRUE(b.click(QStringLiteral("real_receiver")));
  ASSERT_TRUE(b.window.bench().listening());
  auto* strip = b.find<SignalStrip>(QStringLiteral("signal_strip"));
  ASSERT_TRUE(until([&] { receiver.noise(); },
                    [&] { return strip->accessibleDescription().contains(QStringLiteral("no frame")); }))
      << strip->accessibleDescription().toStdString();
  receiver.frame.pulse_us[4] = 1988;
  ASSERT_TRUE(until([&] { receiver.say(); }, [&] { return b.window.bench().frames().size() > 30; }));
  EXPECT_TRUE(b.can_click(QStringLiteral("listen"))) << "its sticks can be found";
  auto* switches = b.find<SwitchBars>(QStringLiteral("switch_bars"));
  EXPECT_TRUE(switches->accessibleDescription().contains(QStringLiteral("1988")))
      << switches->accessibleDescription().toStdString();
}

}  // namespace
}  // namespace rigging::app
