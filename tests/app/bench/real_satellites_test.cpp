#include <gtest/gtest.h>

#include <QComboBox>
#include <QElapsedTimer>
#include <QLabel>
#include <QTimer>

#include "bench/satellite_line.h"
#include "bench_builder.h"
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
  while (timer.elapsed() < 15000 && !line.state_words().contains(QStringLiteral("Sentences"))) {
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
  line.open(QStringLiteral("/dev/no-such-device"), 0);
  EXPECT_FALSE(line.is_open());
  EXPECT_TRUE(problem.contains(QStringLiteral("could not be opened")));
  SkyReceiver receiver(B57600);
  line.open(receiver.device(), 57600);
  ASSERT_TRUE(line.is_open());
  receiver.unplug();
  QElapsedTimer timer;
  timer.start();
  while (timer.elapsed() < 4000 && line.is_open()) QApplication::processEvents(QEventLoop::AllEvents, 20);
  EXPECT_FALSE(line.is_open());
  EXPECT_TRUE(problem.contains(QStringLiteral("is gone")));
}

TEST(RealSatellites, AreHeardThroughTheWindow) {
  SkyReceiver receiver(B57600);
  Builder b({}, 0, 8, true);  // a device keeps its own time
  ASSERT_TRUE(b.open("hedgerow", Station::senses));
  ASSERT_TRUE(b.click(QStringLiteral("side_sky")));
  bool refused = false;
  QTimer::singleShot(300, [&] {
    auto* dialog = QApplication::activeModalWidget();
    ASSERT_TRUE(dialog);
    auto* device = dialog->findChild<QComboBox*>(QStringLiteral("satellite_device"));
    auto* baud = dialog->findChild<QComboBox*>(QStringLiteral("satellite_baud"));
    auto* listen = dialog->findChild<QPushButton*>(QStringLiteral("satellite_listen"));
    ASSERT_TRUE(device && baud && listen);
    device->setEditText(receiver.device());
    baud->setEditText(QStringLiteral("fast"));
    listen->click();
    refused = dialog->isVisible() && dialog->findChild<QLabel*>(QStringLiteral("satellite_trouble"))->isVisible();
    baud->setCurrentIndex(0);
    listen->click();
  });
  ASSERT_TRUE(b.click(QStringLiteral("real_satellites")));
  EXPECT_TRUE(refused) << "a baud that is no number";
  ASSERT_TRUE(b.click(QStringLiteral("sky_begin")));
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
  EXPECT_TRUE(b.find<QLabel>(QStringLiteral("held_words"))->text().contains(QStringLiteral("57600")));
  ASSERT_TRUE(b.click(QStringLiteral("sky_enough")));
  EXPECT_FALSE(b.can_click(QStringLiteral("record_fix"))) << "by itself it says nothing of the lead to the board";
}

}  // namespace
}  // namespace rigging::app
