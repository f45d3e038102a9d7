#include <gtest/gtest.h>

#include <QComboBox>
#include <QDialog>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QLineEdit>
#include <QTimer>

#include "base/json.h"
#include "bench_builder.h"
#include "look/literals.h"

namespace rigging::app {
namespace {

TEST(ChannelsDialog, AChannelGetsItsJob) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::sticks));
  b.in_sheet([&](QWidget& sheet) {
    auto* dialog = &sheet;
    auto* box = dialog->findChild<QComboBox*>(u"function_7"_s);
    ASSERT_TRUE(box);
    box->setCurrentIndex(box->findData(u"arm"_s));
    Q_EMIT box->activated(box->currentIndex());
    static_cast<QDialog*>(dialog)->accept();
  });
  ASSERT_TRUE(b.click(u"channels_table"_s));
  ASSERT_TRUE(b.window.document().rig().channel(ChannelFunction::arm));
  EXPECT_EQ(b.window.document().rig().channel(ChannelFunction::arm)->number, 7);
}

TEST(ChannelsDialog, WhatTheTransmitterIsSetToIsTypedAsItCounts) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::sticks));
  const auto type = [&](const char* box, double value) {
    b.in_sheet([&, box, value](QWidget& sheet) {
      auto* dialog = &sheet;
      auto* spin = dialog->findChild<QDoubleSpinBox*>(QLatin1String(box));
      ASSERT_TRUE(spin) << box;
      spin->setValue(value);
      static_cast<QDialog*>(dialog)->accept();
    });
    ASSERT_TRUE(b.click(u"channels_table"_s));
  };
  type("travel_low_1", 95);
  type("sub_trim_1", -2);
  const Channel* roll = b.window.document().rig().channel(ChannelFunction::roll);
  EXPECT_EQ(roll->travel_low_percent, 95);
  EXPECT_EQ(roll->sub_trim_us, -10) << "2 % of 500 µs";
  b.edit([](Rig& rig) { rig.radio.transmitter.counts = TravelUnit::us; });
  type("travel_high_1", 540);
  EXPECT_EQ(b.window.document().rig().channel(ChannelFunction::roll)->travel_high_percent, 108);
}

TEST(TypedReadings, SwitchesAndTheTransmittersOwnScreen) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::sticks));
  const auto rig = [&]() -> const Rig& { return b.window.document().rig(); };
  const auto channel = [&](int n) -> const Channel& {
    for (const Channel& c : rig().radio.channels)
      if (c.number == n) return c;
    ADD_FAILURE() << "no channel " << n;
    return rig().radio.channels.front();
  };
  const auto type = [&](QWidget& sheet, const char* name, const QString& text) {
    if (auto* line = sheet.findChild<QLineEdit*>(QLatin1String(name))) return line->setText(text);
    auto* spin = sheet.findChild<QDoubleSpinBox*>(QLatin1String(name));
    ASSERT_TRUE(spin) << name;
    spin->setValue(text.toDouble());
  };
  b.in_sheet([&](QWidget& sheet) {
    type(sheet, "positions_5", u"988 1500 2011"_s);
    static_cast<QDialog*>(&sheet)->accept();
  });
  ASSERT_TRUE(b.click(u"type_readings"_s));
  EXPECT_EQ(channel(5).positions_us, (std::vector<double>{988, 1500, 2011}));
  EXPECT_EQ(channel(5).control, Control::three_position);
  EXPECT_FALSE(rig().channel(ChannelFunction::roll)->low_us) << "what nobody has read is not made up";
  // A stick that was read in part is asked for again, with what was typed still there.
  QString refused;
  b.in_sheet([&](QWidget& sheet) {
    type(sheet, "low_roll", u"1010"_s);
    QTimer::singleShot(400, &sheet, [&] {
      for (const QLabel* l : sheet.findChildren<QLabel*>())
        if (l->text().contains(u"read in part"_s)) refused = l->text();
      EXPECT_EQ(sheet.findChild<QDoubleSpinBox*>(u"low_roll"_s)->value(), 1010);
      static_cast<QDialog*>(&sheet)->reject();
    });
    static_cast<QDialog*>(&sheet)->accept();
  });
  ASSERT_TRUE(b.click(u"type_readings"_s));
  EXPECT_FALSE(refused.isEmpty());
  // In percent of the travel: 100 % are 500 µs on this transmitter.
  b.in_sheet([&](QWidget& sheet) {
    type(sheet, "low_roll", u"-98"_s);
    type(sheet, "centre_roll", u"1"_s);
    type(sheet, "high_roll", u"102"_s);
    type(sheet, "positions_5", u"-100 0 100"_s);
    static_cast<QDialog*>(&sheet)->accept();
  });
  ASSERT_TRUE(b.click(u"type_screen"_s));
  const Channel* roll = rig().channel(ChannelFunction::roll);
  EXPECT_EQ(roll->low_us, 1010);
  EXPECT_EQ(roll->centre_us, 1505);
  EXPECT_EQ(roll->high_us, 2010);
  EXPECT_EQ(channel(5).positions_us, (std::vector<double>{1000, 1500, 2000}));
}

}  // namespace
}  // namespace rigging::app
