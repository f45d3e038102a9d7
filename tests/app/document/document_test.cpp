#include <gtest/gtest.h>

#include <sys/wait.h>
#include <unistd.h>
#include <QMenu>
#include <QMessageBox>
#include <QTimer>
#include <cmath>
#include <csignal>
#include <fstream>

#include "airframe/kinds.h"
#include "base/json.h"
#include "bench_builder.h"
#include "direction/from_rig.h"
#include "rig/rig_file.h"

namespace rigging::app {
namespace {

TEST(Document, SaveOpenRecentAndTitle) {
  Builder b;
  const QString file = b.folder.filePath(QStringLiteral("kept.rig.json"));
  ASSERT_TRUE(b.window.document().save(file));
  EXPECT_FALSE(b.window.document().modified());
  Rig rig = b.window.document().rig();
  rig.name = "Kept";
  b.window.document().edit(rig, QStringLiteral("named"));
  EXPECT_TRUE(b.window.windowTitle().startsWith(QStringLiteral("Kept *")));
  QTest::keyClick(&b.window, Qt::Key_S, Qt::ControlModifier);
  EXPECT_EQ(load_rig(file.toStdString())->name, "Kept");
  EXPECT_FALSE(b.window.windowTitle().contains(QLatin1Char('*')));
  ASSERT_TRUE(b.window.open_file(file));
  QMenu* recent = nullptr;
  for (auto* menu : b.window.findChildren<QMenu*>())
    if (menu->title().contains(QStringLiteral("recent"))) recent = menu;
  ASSERT_TRUE(recent);
  Q_EMIT recent->aboutToShow();
  ASSERT_FALSE(recent->actions().isEmpty());
  EXPECT_EQ(recent->actions().first()->text(), file);
}

TEST(Document, OwnPartsComeWithTheRig) {
  Builder b;
  const QString file = b.folder.filePath(QStringLiteral("own.rig.json"));
  ASSERT_TRUE(b.window.document().save(file));
  ASSERT_TRUE(write_file_atomically(
      b.folder.filePath(QStringLiteral("own.parts.json")).toStdString(),
      R"({"format":"parts","version":1,"parts":[{"id":"mine","name":"Mine","group":"other","basis":"weighed"}]})"));
  ASSERT_TRUE(b.window.open_file(file));
  EXPECT_TRUE(b.window.document().catalogue().part("mine"));
  ASSERT_TRUE(b.window.open_file(QStringLiteral(RIGGING_SOURCE_DIR "/data/demo/heath.rig.json")));
  EXPECT_FALSE(b.window.document().catalogue().part("mine")) << "they belong to that rig alone";
}

TEST(Document, UnsavedWorkSurvivesAKill) {
  QTemporaryDir folder;
  const Catalogue catalogue = *load_catalogue(RIGGING_SOURCE_DIR "/data/catalogue");
  const QString file = folder.filePath(QStringLiteral("a.rig.json"));
  ASSERT_TRUE(QFile::copy(QStringLiteral(RIGGING_SOURCE_DIR "/data/demo/heath.rig.json"), file));
  // A child works on it and is killed in the middle, as by a power cut.
  const pid_t child = ::fork();
  if (child == 0) {
    RigDocument document(catalogue, folder.filePath(QStringLiteral("recovery")));
    if (!document.open(file)) _exit(1);
    Rig rig = document.rig();
    rig.name = "Heath glider, rebuilt";
    document.edit(rig, QStringLiteral("renamed"));
    document.write_recovery_copy();
    ::kill(::getpid(), SIGKILL);
  }
  int status = 0;
  ::waitpid(child, &status, 0);
  ASSERT_TRUE(WIFSIGNALED(status));
  RigDocument document(catalogue, folder.filePath(QStringLiteral("recovery")));
  const auto found = document.leftovers();
  ASSERT_EQ(found.size(), 1);
  EXPECT_EQ(found[0].of, file);
  ASSERT_TRUE(document.recover(found[0]));
  EXPECT_EQ(document.rig().name, "Heath glider, rebuilt");
  EXPECT_TRUE(document.modified());
  document.undo();
  EXPECT_EQ(document.rig().name, "Heath glider") << "what was on the disk is one step back";
  document.redo();
  ASSERT_TRUE(document.save(file));
  EXPECT_TRUE(document.leftovers().isEmpty());
  EXPECT_FALSE(load_rig(file.toStdString())->extra.members().contains("recovered_from"));
}

/// Work that a program of version 1 left behind keeps what was proven, whether it belongs to a file or not.
TEST(Document, ACopyOfVersion1IsRecoveredWithItsProofs) {
  const Catalogue catalogue = *load_catalogue(RIGGING_SOURCE_DIR "/data/catalogue");
  const QString old = QStringLiteral(RIGGING_SOURCE_DIR "/tests/rig/version_1/hedgerow.rig.json");
  for (const bool has_a_file : {false, true}) {
    QTemporaryDir folder;
    const QString file = folder.filePath(QStringLiteral("a.rig.json")),
                  copies = folder.filePath(QStringLiteral("copies"));
    ASSERT_TRUE(QFile::copy(old, file));
    ASSERT_TRUE(QDir().mkpath(copies));
    Json copy = *read_json_file(old.toStdString());
    ASSERT_EQ(copy["version"], 1);
    copy["name"] = "not saved yet";
    copy["recovered_from"] = has_a_file ? file.toStdString() : "";
    std::ofstream((copies + QStringLiteral("/0-left.rig.json")).toStdString()) << copy.dump();
    RigDocument document(catalogue, copies);
    const auto found = document.leftovers();
    ASSERT_EQ(found.size(), 1);
    EXPECT_EQ(found[0].of, has_a_file ? file : QString());
    ASSERT_TRUE(document.recover(found[0]));
    EXPECT_EQ(document.rig().name, "not saved yet");
    for (const char* check : {"stick.roll", "correction.yaw", "sticks.calibrated", "surfaces.centred", "lead.gps"}) {
      const CheckStatus* status = find_check(document.review().checks, std::string(check));
      ASSERT_TRUE(status) << check;
      EXPECT_EQ(status->state, ProofState::fresh) << check;
    }
  }
}

TEST(Document, ABrokenFileIsRefusedAndNothingIsLost) {
  Builder b;
  b.window.start_demo();
  const Rig before = b.window.document().rig();
  const QString file = b.folder.filePath(QStringLiteral("broken.rig.json"));
  std::ofstream(file.toStdString()) << R"({"format":"rig","version":1,"name":"x","airframe":{"kind":"sofa"}})";
  QString said;
  b.in_sheet([&](QWidget& sheet) {
    auto* box = qobject_cast<QMessageBox*>(&sheet);
    ASSERT_TRUE(box);
    said = box->text();
    box->accept();
  });
  EXPECT_FALSE(b.window.open_file(file));
  EXPECT_TRUE(said.contains(QStringLiteral("/airframe/kind"))) << said.toStdString();
  EXPECT_EQ(b.window.document().rig(), before);
}

TEST(Document, ClosingAsksForUnsavedWork) {
  Builder b;
  Rig rig = b.window.document().rig();
  rig.name = "Kept";
  b.window.document().edit(rig, QStringLiteral("renamed"));
  b.in_sheet([](QWidget& sheet) { QTest::keyClick(&sheet, Qt::Key_Escape); });
  EXPECT_FALSE(b.window.close());
  EXPECT_TRUE(b.window.isVisible());
}

}  // namespace
}  // namespace rigging::app
