#include <gtest/gtest.h>

#include <QComboBox>
#include <QElapsedTimer>
#include <QLabel>
#include <QPushButton>

#include "bench_builder.h"
#include "look/literals.h"
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
  EXPECT_TRUE(words.contains(u"gone"_s)) << words.toStdString();
}
INSTANTIATE_TEST_SUITE_P(Signals, Receivers, testing::Values(Signal::inverted_serial, Signal::two_way_serial));

TEST(RealReceiver, IsListenedToFromTheSticksStation) {
  Receiver receiver(Signal::inverted_serial);
  Builder b({}, 2, 8, true);                      // a device keeps its own time
  ASSERT_TRUE(b.open("heath", Station::sticks));  // a class that shows nothing of what it receives
  b.in_sheet([&](QWidget& sheet) {
    auto* baud = sheet.findChild<QComboBox*>(u"receiver_baud"_s);
    sheet.findChild<QComboBox*>(u"receiver_device"_s)->setCurrentText(receiver.device());
    EXPECT_TRUE(sheet.findChild<QLabel*>(u"receiver_how"_s)->text().contains(u"inverts"_s));
    auto* go = sheet.findChild<QPushButton*>(u"receiver_listen"_s);
    auto* trouble = sheet.findChild<QLabel*>(u"receiver_trouble"_s);
    baud->setCurrentText(u"quick"_s);
    go->click();
    EXPECT_TRUE(trouble->text().contains(u"no baud"_s)) << trouble->text().toStdString();
    baud->setCurrentText(u"100000"_s);
    sheet.findChild<QComboBox*>(u"receiver_device"_s)->setCurrentText(u"/dev/no_such"_s);
    go->click();
    EXPECT_TRUE(trouble->text().contains(u"/dev/no_such"_s)) << trouble->text().toStdString();
    sheet.findChild<QComboBox*>(u"receiver_device"_s)->setCurrentText(receiver.device());
    go->click();
  });
  ASSERT_TRUE(b.click(u"real_receiver"_s));
  ASSERT_TRUE(b.window.bench().listening());
  auto* strip = b.find<SignalStrip>(u"signal_strip"_s);
  ASSERT_TRUE(until([&] { receiver.noise(); }, [&] { return strip->accessibleDescription().contains(u"no frame"_s); }))
      << strip->accessibleDescription().toStdString();
  receiver.frame.pulse_us[4] = 1988;
  ASSERT_TRUE(until([&] { receiver.say(); }, [&] { return b.window.bench().frames().size() > 30; }));
  EXPECT_TRUE(b.can_click(u"listen"_s)) << "its sticks can be found";
  auto* switches = b.find<SwitchBars>(u"switch_bars"_s);
  EXPECT_TRUE(switches->accessibleDescription().contains(u"1988"_s)) << switches->accessibleDescription().toStdString();
}

}  // namespace
}  // namespace rigging::app
