#include "shell/preferences.h"

#include <gtest/gtest.h>

#include <QTemporaryDir>

#include "base/file.h"
#include "bench_builder.h"
#include "look/literals.h"
#include "places.h"

namespace rigging::app {
namespace {

TEST(Preferences, AreKeptFromStartToStart) {
  QTemporaryDir folder;
  const Preferences mine{Theme::dark, UnitSystem::imperial, 1.3, QByteArray("\x01\x02\xff", 3)};
  write_preferences(folder.path(), mine);
  EXPECT_EQ(read_preferences(folder.path()), mine);
  // A folder that is not there yet is made.
  write_preferences(folder.filePath(u"a/b"_s), mine);
  EXPECT_EQ(read_preferences(folder.filePath(u"a/b"_s)), mine);
}

TEST(Preferences, WhatCannotBeReadIsTheUsual) {
  QTemporaryDir folder;
  const auto with = [&](const char* text) {
    EXPECT_TRUE(write_file_atomically((folder.path() + u"/preferences.json"_s).toStdString(), text));
    return read_preferences(folder.path());
  };
  EXPECT_EQ(read_preferences(folder.path()), Preferences{});
  for (const char* broken :
       {"", "{", "[1]", "\"dark\"", "{\"theme\":5,\"units\":[],\"text_scale\":\"large\",\"window\":7}"})
    EXPECT_EQ(with(broken), Preferences{}) << broken;
  EXPECT_EQ(with("{\"text_scale\":400}").text_scale, 2) << "the menu must stay within reach";
  EXPECT_EQ(with("{\"text_scale\":-3}").text_scale, 0.8);
}

TEST(Preferences, ALargerScreenStartsWithLargerText) {
  EXPECT_EQ(text_scale_for({1280, 800}), 1);
  EXPECT_EQ(text_scale_for({1024, 700}), 1);
  EXPECT_NEAR(text_scale_for({1920, 1080}), 1.2, 1e-12);
  EXPECT_NEAR(text_scale_for({3840, 2160}), 1.4, 1e-12) << "the strip of stations must keep its words";
}

TEST(Preferences, TheWindowComesBackAsItWasLeft) {
  QTemporaryDir folder;
  Settings settings;
  settings.data_folder = QString::fromStdString(in_source("/data"));
  settings.state_folder = folder.path();
  const auto window = [&] {
    auto w = std::make_unique<MainWindow>(*load_catalogue(in_source("/data/catalogue")), settings);
    w->show();
    EXPECT_TRUE(QTest::qWaitForWindowExposed(w.get()));
    return w;
  };
  auto first = window();
  first->resize(1100, 740);
  QApplication::processEvents();
  Style::instance().set_text_scale(1.2);
  first->close();
  EXPECT_EQ(read_preferences(folder.path()).text_scale, 1.2);
  Style::instance().set_text_scale(1);
  first.reset();
  EXPECT_EQ(window()->size(), QSize(1100, 740));
}

// Names come from files, and may be anything.
TEST(PlainText, ALabelShowsWhatItIsGiven) {
  QTemporaryDir folder;
  QLabel label;
  label.setText(u"<b>bold</b><img src='file:///etc/hostname'>"_s);
  label.show();
  EXPECT_TRUE(QTest::qWaitForWindowExposed(&label));
  EXPECT_EQ(label.textFormat(), Qt::PlainText);
  EXPECT_GT(label.sizeHint().width(), QFontMetrics(label.font()).horizontalAdvance(u"<b>bold</b>"_s));
  // No label of the window is left to guess, with a rig whose names try it.
  Builder b;
  ASSERT_TRUE(b.open("hedgerow", Station::fit));
  b.edit([](Rig& rig) {
    rig.name = "<h1>name</h1>";
    for (Part& p : rig.parts) p.label = "<b>" + p.id + "</b><img src='x'>";
    rig.controller.firmware = "<table><tr><td>1</td></tr></table>";
  });
  for (const Station s : all_stations()) {
    b.window.go(s);
    QApplication::processEvents();
    for (const QLabel* l : b.window.findChildren<QLabel*>())
      if (l->isVisible()) {
        EXPECT_NE(l->textFormat(), Qt::AutoText) << l->text().left(80).toStdString();
        if (l->textFormat() == Qt::RichText)
          EXPECT_FALSE(l->text().contains(u"<img"_s)) << l->text().left(200).toStdString();
      }
  }
}

}  // namespace
}  // namespace rigging::app
