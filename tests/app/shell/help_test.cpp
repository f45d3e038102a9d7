#include "shell/help_window.h"

#include <gtest/gtest.h>

#include <QAction>
#include <QDir>
#include <QHelpEvent>
#include <QRegularExpression>
#include <QSvgWidget>
#include <QTextBrowser>
#include <QToolTip>
#include <set>

#include "bench_builder.h"
#include "look/literals.h"
#include "places.h"
#include "shell/glossary.h"
#include "shell/sheet_dialog.h"

namespace rigging::app {
namespace {

const QString manual = QString::fromStdString(in_source("/docs/manual"));

TEST(Help, F1OpensTheChapterOfTheStation) {
  Builder b;
  ASSERT_TRUE(b.open("heath", Station::fit));
  for (const auto& [station, begins] :
       {std::pair{Station::fit, "Fit"}, {Station::home, "Home"}, {Station::airframe, "Airframe"}}) {
    b.window.go(station);
    QTest::keyClick(&b.window, Qt::Key_F1);
    auto* text = b.window.findChild<QTextBrowser*>(u"help_text"_s);
    ASSERT_TRUE(text);
    EXPECT_TRUE(text->isVisible());
    EXPECT_TRUE(text->toPlainText().startsWith(QLatin1String(begins), Qt::CaseInsensitive))
        << text->toPlainText().left(40).toStdString();
    b.window.activateWindow();
  }
  ASSERT_TRUE(b.click(u"help_all"_s));
  EXPECT_TRUE(b.find<QTextBrowser>(u"help_text"_s)->toPlainText().startsWith(u"Manual"_s));
  ASSERT_TRUE(b.click(u"help_close"_s));
}

TEST(Help, EveryStationHasAChapterOrTheListOfThem) {
  HelpWindow help(manual, nullptr);
  for (const Station s : all_stations()) {
    help.show_chapter(QString::fromLatin1(name_of(s).data()));
    EXPECT_GT(help.findChild<QTextBrowser*>()->toPlainText().size(), 300) << name_of(s);
  }
  EXPECT_FALSE(manual_folder(QString::fromStdString(in_source("/data"))).isEmpty());
  EXPECT_TRUE(manual_folder(u"/nowhere"_s).isEmpty());
  HelpWindow none({}, nullptr);
  none.show_chapter(u"fit"_s);
  EXPECT_TRUE(none.findChild<QTextBrowser*>()->toPlainText().contains(u"not installed"_s));
}

TEST(Help, LinksOfTheManualLeadSomewhere) {
  static const QRegularExpression link(u"\\]\\(([^)#]+)[^)]*\\)"_s);
  int followed = 0;
  for (const QFileInfo& chapter : QDir(manual).entryInfoList({u"*.md"_s})) {
    QFile file(chapter.filePath());
    ASSERT_TRUE(file.open(QIODevice::ReadOnly));
    for (auto it = link.globalMatch(QString::fromUtf8(file.readAll())); it.hasNext();) {
      const QString target = it.next().captured(1);
      if (target.startsWith(u"http"_s)) continue;
      EXPECT_TRUE(QFileInfo::exists(manual + QLatin1Char('/') + target))
          << chapter.fileName().toStdString() << ": " << target.toStdString();
      ++followed;
    }
  }
  EXPECT_GT(followed, 15);
}

// A term is explained where it stands, and what it says is what the manual says.
TEST(Glossary, ExplainsTheTermsOfASentence) {
  const Glossary glossary(manual_folder(QString::fromStdString(in_source("/data"))));
  ASSERT_GT(glossary.terms().size(), 50u);
  const auto words = [&](const char* sentence) {
    QStringList all;
    for (const Glossary::Term& t : glossary.terms_in(QString::fromUtf8(sentence))) all << t.word;
    return all.join(QLatin1Char(' '));
  };
  EXPECT_EQ(words("Wanted static margin, percent of the mean chord"), u"static margin mean chord"_s);
  EXPECT_EQ(words("Both elevons and the Rudder"), u"elevon rudder"_s) << "plurals and capitals";
  EXPECT_EQ(words("gained generated pitch"), QString()) << "no part of a word";
  EXPECT_EQ(words("pitch of the propeller"), u"pitch of the propeller"_s);
  EXPECT_LE(glossary.terms_in(u"aileron elevator rudder elevon flaperon"_s).size(), 3u);
  // Nothing is explained by itself or twice.
  std::set<QString> seen;
  for (const Glossary::Term& t : glossary.terms()) {
    EXPECT_TRUE(seen.insert(t.word).second) << t.word.toStdString();
    EXPECT_FALSE(t.meaning.startsWith(t.word, Qt::CaseInsensitive)) << t.word.toStdString();
  }
  EXPECT_TRUE(Glossary(u"/nonexistent"_s).terms_in(u"elevon"_s).empty());
}

TEST(Glossary, ShowsUnderARestingPointer) {
  Builder b;
  QLabel label(u"Wanted static margin"_s);
  label.show();
  QHelpEvent rests(QEvent::ToolTip, QPoint(3, 3), label.mapToGlobal(QPoint(3, 3)));
  QApplication::sendEvent(&label, &rests);
  const auto hint = [] {
    QString seen;
    for (const QWidget* w : QApplication::topLevelWidgets())
      if (const auto* tip = qobject_cast<const QLabel*>(w); tip && tip->inherits("QTipLabel") && tip->isVisible()) {
        EXPECT_EQ(tip->textFormat(), Qt::PlainText);
        seen = tip->text();
      }
    return seen;
  };
  EXPECT_TRUE(hint().startsWith(u"static margin: distance from"_s)) << hint().toStdString();
  EXPECT_TRUE(hint().simplified().contains(u"neutral point"_s)) << hint().toStdString();
  // A hint from a file is shown as it is, in lines that are read at a glance.
  label.setToolTip(u"<b>bold</b> "_s + u"and on "_s.repeated(30));
  QApplication::sendEvent(&label, &rests);
  EXPECT_TRUE(hint().startsWith(u"<b>bold</b> and on"_s)) << hint().toStdString();
  for (const QString& line : hint().split(QLatin1Char('\n'))) EXPECT_LE(line.size(), 64);
  QToolTip::hideText();
}

TEST(RigMenu, PrintsEverySheet) {
  Builder b;
  ASSERT_TRUE(b.window.open_file(QString::fromStdString(in_source("/data/demo/hedgerow.rig.json"))));
  QAction* all = nullptr;
  for (QAction* a : b.window.findChildren<QAction*>())
    if (a->text().remove(QLatin1Char('&')) == u"All sheets…"_s) all = a;
  ASSERT_TRUE(all);
  EXPECT_EQ(all->shortcut(), QKeySequence(QKeySequence::Print));
  int pictures = 0;
  QTimer::singleShot(0, [&] {
    auto* dialog = qobject_cast<SheetDialog*>(QApplication::activeModalWidget());
    ASSERT_TRUE(dialog);
    pictures = static_cast<int>(dialog->findChildren<QSvgWidget*>().size());
    dialog->accept();
  });
  all->trigger();
  EXPECT_GE(pictures, 5) << "drawing, list, card and gauges";
}

}  // namespace
}  // namespace rigging::app
