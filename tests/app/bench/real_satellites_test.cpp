#include <gtest/gtest.h>

#include <QComboBox>
#include <QElapsedTimer>
#include <QLabel>
#include <QTimer>

#include "bench/satellite_line.h"
#include "bench_builder.h"
#include "look/literals.h"
#include "pseudo_terminal.h"
#include "senses/sentence.h"
#include "stations/senses/senses_page.h"

namespace rigging::app {
namespace {

/// A satellite receiver behind a serial device, played by the test, that can be read at one baud only.
class SkyReceiver : public PseudoTerminal {
 public:
  explicit SkyReceiver(speed_t baud) : baud_(baud) {}
  /// One second's sentences; garbage for who listens with another baud.
  void say() {
    const int second = second_++ % 60;
    std::string bytes = sentence("GPGGA,1200" + std::string(second < 10 ? "0" : "") + std::to_string(second) +
                                 ".00,5025.9260,N,00807.4040,E,1,11,0.9,230.0,M,47.0,M,,");
    if (speed() != baud_)
      for (char& c : bytes) c = static_cast<char>(static_cast<unsigned char>(c) * 37 + 0x81);
    write(bytes);
  }

 private:
  speed_t baud_;
  int second_ = 0;
};

TEST(RealSatellites, TheBaudIsFoundFromWhatArrives) {
  Clock::instance().take_by_hand(false);  // a device keeps its own time
  SkyReceiver receiver(B9600);
  SatelliteLine line;
  std::string heard;
  QObject::connect(&line, &SatelliteLine::heard, [&](const std::string& bytes) { heard += bytes; });
  line.open(receiver.device(), 0);
  ASSERT_TRUE(line.is_open());
  EXPECT_EQ(line.baud(), 57600);
  QElapsedTimer timer;
  timer.start();
  int ticks = 0;
  while (timer.elapsed() < 15000 && !line.state_words().contains(u"Sentences"_s)) {
    if (++ticks % 20 == 0) receiver.say();
    QApplication::processEvents(QEventLoop::AllEvents, 5);
    QThread::msleep(5);
  }
  EXPECT_EQ(line.baud(), 9600) << line.state_words().toStdString();
  EXPECT_NE(heard.find("$GPGGA"), std::string::npos);
}

TEST(RealSatellites, NothingThereAndGoneAgainAreSaid) {
  Clock::instance().take_by_hand(false);  // a device keeps its own time
  SatelliteLine line;
  QString problem;
  QObject::connect(&line, &SatelliteLine::problem, [&](const QString& words) { problem = words; });
  line.open(u"/dev/no-such-device"_s, 0);
  EXPECT_FALSE(line.is_open());
  EXPECT_TRUE(problem.contains(u"could not be opened"_s));
  SkyReceiver receiver(B57600);
  line.open(receiver.device(), 57600);
  ASSERT_TRUE(line.is_open());
  receiver.unplug();
  QElapsedTimer timer;
  timer.start();
  while (timer.elapsed() < 4000 && line.is_open()) QApplication::processEvents(QEventLoop::AllEvents, 20);
  EXPECT_FALSE(line.is_open());
  EXPECT_TRUE(problem.contains(u"is gone"_s));
}

TEST(RealSatellites, AreHeardThroughTheWindow) {
  SkyReceiver receiver(B57600);
  Builder b({}, 0, 8, true);  // a device keeps its own time
  ASSERT_TRUE(b.open("hedgerow", Station::senses));
  ASSERT_TRUE(b.click(u"side_sky"_s));
  bool refused = false;
  QTimer::singleShot(300, [&] {
    auto* dialog = QApplication::activeModalWidget();
    ASSERT_TRUE(dialog);
    auto* device = dialog->findChild<QComboBox*>(u"satellite_device"_s);
    auto* baud = dialog->findChild<QComboBox*>(u"satellite_baud"_s);
    auto* listen = dialog->findChild<QPushButton*>(u"satellite_listen"_s);
    ASSERT_TRUE(device && baud && listen);
    device->setEditText(receiver.device());
    baud->setEditText(u"fast"_s);
    listen->click();
    refused = dialog->isVisible() && dialog->findChild<QLabel*>(u"satellite_trouble"_s)->isVisible();
    baud->setCurrentIndex(0);
    listen->click();
  });
  ASSERT_TRUE(b.click(u"real_satellites"_s));
  EXPECT_TRUE(refused) << "a baud that is no number";
  ASSERT_TRUE(b.click(u"sky_begin"_s));
  const auto& p = b.window.findChild<SensesPage*>()->procedure<SkyProcedure>(SensesPage::sky);
  QElapsedTimer timer;
  timer.start();
  int ticks = 0;
  while (timer.elapsed() < 12000 && p.standing().fixes < 12) {
    if (++ticks % 10 == 0) receiver.say();
    QApplication::processEvents(QEventLoop::AllEvents, 5);
    QThread::msleep(5);
  }
  EXPECT_GE(p.standing().fixes, 12u);
  EXPECT_TRUE(b.find<QLabel>(u"held_words"_s)->text().contains(u"57600"_s));
  ASSERT_TRUE(b.click(u"sky_enough"_s));
  EXPECT_FALSE(b.can_click(u"record_fix"_s)) << "by itself it says nothing of the lead to the board";
}

}  // namespace
}  // namespace rigging::app
