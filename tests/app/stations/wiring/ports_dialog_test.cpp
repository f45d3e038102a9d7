#include <gtest/gtest.h>

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

#include "bench_builder.h"

namespace rigging::app {
namespace {

void choose(QWidget& sheet, const QString& box, const char* word) {
  auto* combo = sheet.findChild<QComboBox*>(box);
  ASSERT_TRUE(combo) << box.toStdString();
  const int at = combo->findData(QLatin1String(word));
  ASSERT_GE(at, 0) << word;
  combo->setCurrentIndex(at);
  Q_EMIT combo->activated(at);
  QApplication::processEvents();
}

TEST(PortsDialog, TellsJobBaudAndSignalAndPutsThemRight) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::wiring));
  const auto rig = [&]() -> const Rig& { return b.window.document().rig(); };
  const auto words = [](QWidget& sheet) { return sheet.findChild<QLabel*>(QStringLiteral("ports_words"))->text(); };
  b.in_sheet([&](QWidget& sheet) {
    EXPECT_TRUE(words(sheet).contains(QStringLiteral("restart")));
    choose(sheet, QStringLiteral("job_serial_1"), "telemetry");
    ASSERT_TRUE(rig().port("serial_1"));
    EXPECT_EQ(rig().port("serial_1")->job, PortJob::telemetry);
    auto* baud = sheet.findChild<QComboBox*>(QStringLiteral("baud_serial_4"));
    ASSERT_TRUE(baud);
    baud->setCurrentText(QStringLiteral("57 600"));
    Q_EMIT baud->lineEdit()->editingFinished();
    QApplication::processEvents();
    EXPECT_EQ(rig().port("serial_4")->baud, 57600);
    baud = sheet.findChild<QComboBox*>(QStringLiteral("baud_serial_4"));
    baud->setCurrentText(QStringLiteral("fast"));
    Q_EMIT baud->lineEdit()->editingFinished();
    EXPECT_TRUE(words(sheet).contains(QStringLiteral("no baud"))) << words(sheet).toStdString();
    EXPECT_EQ(rig().port("serial_4")->baud, 57600) << "nothing is lost";
    choose(sheet, QStringLiteral("heard_as"), "summed");
    EXPECT_EQ(rig().radio.heard_as, Signal::summed);
    sheet.findChild<QPushButton*>(QStringLiteral("ports_follow"))->click();
    QApplication::processEvents();
    EXPECT_EQ(rig().radio.heard_as, Signal::inverted_serial);
    EXPECT_EQ(rig().port("serial_4")->baud, 115200);
    EXPECT_FALSE(rig().port("serial_1"));
    static_cast<QDialog*>(&sheet)->accept();
  });
  ASSERT_TRUE(b.click(QStringLiteral("set_ports")));
}

TEST(PortsDialog, AReceiverWhoseOutputIsChosenIsSaidSilent) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::wiring));
  b.edit([](Rig& rig) {
    rig.part("receiver")->kind = "receiver_chosen";
    for (Lead& l : rig.leads)
      for (LeadEnd* e : {&l.from, &l.to})
        if (e->part == "receiver") e->socket = "out";
  });
  b.in_sheet([&](QWidget& sheet) {
    choose(sheet, QStringLiteral("receiver_says"), "summed");
    EXPECT_EQ(b.window.document().rig().part("receiver")->says, Signal::summed);
    bool said = false;
    for (const QLabel* l : sheet.findChildren<QLabel*>())
      said = said || l->text().contains(QStringLiteral("listens for inverted serial"));
    EXPECT_TRUE(said);
    static_cast<QDialog*>(&sheet)->accept();
  });
  ASSERT_TRUE(b.click(QStringLiteral("set_ports")));
}

TEST(PortsDialog, AClassThatKnowsItsPortsSaysSo) {
  Builder b;
  ASSERT_TRUE(b.open("heath", Station::wiring));
  b.in_sheet([&](QWidget& sheet) {
    EXPECT_FALSE(sheet.findChild<QPushButton*>(QStringLiteral("ports_follow"))->isEnabled());
    static_cast<QDialog*>(&sheet)->accept();
  });
  ASSERT_TRUE(b.click(QStringLiteral("set_ports")));
}

}  // namespace
}  // namespace rigging::app
