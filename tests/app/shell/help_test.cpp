#include "shell/help_window.h"

#include <gtest/gtest.h>

#include <QDir>
#include <QRegularExpression>
#include <QTextBrowser>

#include "bench_builder.h"

namespace rigging::app {
namespace {

const QString manual = QStringLiteral(RIGGING_SOURCE_DIR "/docs/manual");

TEST(Help, F1OpensTheChapterOfTheStation) {
  Builder b;
  ASSERT_TRUE(b.open("heath", Station::fit));
  for (const auto& [station, begins] :
       {std::pair{Station::fit, "Fit"}, {Station::home, "Home"}, {Station::airframe, "Airframe"}}) {
    b.window.go(station);
    QTest::keyClick(&b.window, Qt::Key_F1);
    auto* text = b.window.findChild<QTextBrowser*>(QStringLiteral("help_text"));
    ASSERT_TRUE(text);
    EXPECT_TRUE(text->isVisible());
    EXPECT_TRUE(text->toPlainText().startsWith(QLatin1String(begins), Qt::CaseInsensitive))
        << text->toPlainText().left(40).toStdString();
    b.window.activateWindow();
  }
  ASSERT_TRUE(b.click(QStringLiteral("help_all")));
  EXPECT_TRUE(b.find<QTextBrowser>(QStringLiteral("help_text"))->toPlainText().startsWith(QStringLiteral("Manual")));
  ASSERT_TRUE(b.click(QStringLiteral("help_close")));
}

TEST(Help, EveryStationHasAChapterOrTheListOfThem) {
  HelpWindow help(manual, nullptr);
  for (const Station s : all_stations) {
    help.show_chapter(QString::fromLatin1(word(s).data()));
    EXPECT_GT(help.findChild<QTextBrowser*>()->toPlainText().size(), 300) << word(s);
  }
  EXPECT_FALSE(manual_folder(QStringLiteral(RIGGING_SOURCE_DIR "/data")).isEmpty());
  EXPECT_TRUE(manual_folder(QStringLiteral("/nowhere")).isEmpty());
  HelpWindow none({}, nullptr);
  none.show_chapter(QStringLiteral("fit"));
  EXPECT_TRUE(none.findChild<QTextBrowser*>()->toPlainText().contains(QStringLiteral("not installed")));
}

TEST(Help, LinksOfTheManualLeadSomewhere) {
  static const QRegularExpression link(QStringLiteral("\\]\\(([^)#]+)[^)]*\\)"));
  int followed = 0;
  for (const QFileInfo& chapter : QDir(manual).entryInfoList({QStringLiteral("*.md")})) {
    QFile file(chapter.filePath());
    ASSERT_TRUE(file.open(QIODevice::ReadOnly));
    for (auto it = link.globalMatch(QString::fromUtf8(file.readAll())); it.hasNext();) {
      const QString target = it.next().captured(1);
      if (target.startsWith(QStringLiteral("http"))) continue;
      EXPECT_TRUE(QFileInfo::exists(manual + QLatin1Char('/') + target))
          << chapter.fileName().toStdString() << ": " << target.toStdString();
      ++followed;
    }
  }
  EXPECT_GT(followed, 15);
}

}  // namespace
}  // namespace rigging::app
