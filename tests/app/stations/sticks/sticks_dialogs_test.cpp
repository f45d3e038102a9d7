#include <gtest/gtest.h>

#include <QComboBox>
#include <QDialog>
#include <QDoubleSpinBox>
#include <QTimer>

#include "base/json.h"
#include "bench_builder.h"

namespace rigging::app {
namespace {

TEST(ChannelsDialog, AChannelGetsItsJob) {
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::sticks));
  b.in_sheet([&](QWidget& sheet) {
    auto* dialog = &sheet;
    auto* box = dialog->findChild<QComboBox*>(QStringLiteral("function_7"));
    ASSERT_TRUE(box);
    box->setCurrentIndex(box->findData(QStringLiteral("arm")));
    Q_EMIT box->activated(box->currentIndex());
    static_cast<QDialog*>(dialog)->accept();
  });
  ASSERT_TRUE(b.click(QStringLiteral("channels_table")));
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
    ASSERT_TRUE(b.click(QStringLiteral("channels_table")));
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

}  // namespace
}  // namespace rigging::app
