#include <gtest/gtest.h>

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

#include "bench_builder.h"
#include "look/literals.h"

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
  const auto words = [](QWidget& sheet) { return sheet.findChild<QLabel*>(u"ports_words"_s)->text(); };
  b.in_sheet([&](QWidget& sheet) {
    EXPECT_TRUE(words(sheet).contains(u"restart"_s));
    choose(sheet, u"job_serial_1"_s, "telemetry");
    ASSERT_TRUE(rig().port("serial_1"));
    EXPECT_EQ(rig().port("serial_1")->job, PortJob::telemetry);
    auto* baud = sheet.findChild<QComboBox*>(u"baud_serial_4"_s);
    ASSERT_TRUE(baud);
    baud->setCurrentText(u"57 600"_s);
    Q_EMIT baud->lineEdit()->editingFinished();
    QApplication::processEvents();
    EXPECT_EQ(rig().port("serial_4")->baud, 57600);
    baud = sheet.findChild<QComboBox*>(u"baud_serial_4"_s);
    baud->setCurrentText(u"fast"_s);
    Q_EMIT baud->lineEdit()->editingFinished();
    EXPECT_TRUE(words(sheet).contains(u"no baud"_s)) << words(sheet).toStdString();
    EXPECT_EQ(rig().port("serial_4")->baud, 57600) << "nothing is lost";
    choose(sheet, u"receiver_signal"_s, "summed");
    EXPECT_EQ(rig().radio.receiver_signal, Signal::summed);
    sheet.findChild<QPushButton*>(u"ports_follow"_s)->click();
    QApplication::processEvents();
    EXPECT_EQ(rig().radio.receiver_signal, Signal::inverted_serial);
    EXPECT_EQ(rig().port("serial_4")->baud, 115200);
    EXPECT_FALSE(rig().port("serial_1"));
    static_cast<QDialog*>(&sheet)->accept();
  });
  ASSERT_TRUE(b.click(u"set_ports"_s));
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
    choose(sheet, u"receiver_says"_s, "summed");
    EXPECT_EQ(b.window.document().rig().part("receiver")->says, Signal::summed);
    bool said = false;
    for (const QLabel* l : sheet.findChildren<QLabel*>())
      said = said || l->text().contains(u"listens for inverted serial"_s);
    EXPECT_TRUE(said);
    static_cast<QDialog*>(&sheet)->accept();
  });
  ASSERT_TRUE(b.click(u"set_ports"_s));
}

TEST(PortsDialog, AClassThatKnowsItsPortsSaysSo) {
  Builder b;
  ASSERT_TRUE(b.open("heath", Station::wiring));
  b.in_sheet([&](QWidget& sheet) {
    EXPECT_FALSE(sheet.findChild<QPushButton*>(u"ports_follow"_s)->isEnabled());
    static_cast<QDialog*>(&sheet)->accept();
  });
  ASSERT_TRUE(b.click(u"set_ports"_s));
}

}  // namespace
}  // namespace rigging::app
