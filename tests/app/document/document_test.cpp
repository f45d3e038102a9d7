#include <gtest/gtest.h>

#include <sys/wait.h>
#include <unistd.h>
#include <QMenu>
#include <QMessageBox>
#include <QProcess>
#include <QTimer>
#include <cmath>
#include <csignal>
#include <fstream>

#include "airframe/kinds.h"
#include "base/file.h"
#include "base/fingerprint.h"
#include "base/json.h"
#include "bench_builder.h"
#include "direction/from_rig.h"
#include "look/literals.h"
#include "places.h"
#include "rig/rig_file.h"

namespace rigging::app {
namespace {

TEST(Document, SaveOpenRecentAndTitle) {
  Builder b;
  const QString file = b.folder.filePath(u"kept.rig.json"_s);
  ASSERT_TRUE(b.window.document().save(file));
  EXPECT_FALSE(b.window.document().modified());
  Rig rig = b.window.document().rig();
  rig.name = "Kept";
  b.window.document().edit(rig, u"named"_s);
  EXPECT_TRUE(b.window.windowTitle().startsWith(u"Kept *"_s));
  QTest::keyClick(&b.window, Qt::Key_S, Qt::ControlModifier);
  EXPECT_EQ(load_rig(file.toStdString())->name, "Kept");
  EXPECT_FALSE(b.window.windowTitle().contains(QLatin1Char('*')));
  ASSERT_TRUE(b.window.open_file(file));
  QMenu* recent = nullptr;
  for (auto* menu : b.window.findChildren<QMenu*>())
    if (menu->title().contains(u"recent"_s)) recent = menu;
  ASSERT_TRUE(recent);
  Q_EMIT recent->aboutToShow();
  ASSERT_FALSE(recent->actions().isEmpty());
  EXPECT_EQ(recent->actions().first()->text(), file);
}

TEST(Document, OwnPartsComeWithTheRig) {
  Builder b;
  const QString file = b.folder.filePath(u"own.rig.json"_s);
  ASSERT_TRUE(b.window.document().save(file));
  ASSERT_TRUE(write_file_atomically(
      b.folder.filePath(u"own.parts.json"_s).toStdString(),
      R"({"format":"parts","version":1,"parts":[{"id":"mine","name":"Mine","group":"other","basis":"weighed"}]})"));
  ASSERT_TRUE(b.window.open_file(file));
  EXPECT_TRUE(b.window.document().catalogue().part("mine"));
  ASSERT_TRUE(b.window.open_file(QString::fromStdString(in_source("/data/demo/heath.rig.json"))));
  EXPECT_FALSE(b.window.document().catalogue().part("mine")) << "they belong to that rig alone";
}

TEST(Document, UnsavedWorkSurvivesAKill) {
  QTemporaryDir folder;
  const Catalogue catalogue = *load_catalogue(in_source("/data/catalogue"));
  const QString file = folder.filePath(u"a.rig.json"_s);
  ASSERT_TRUE(QFile::copy(QString::fromStdString(in_source("/data/demo/heath.rig.json")), file));
  // A child works on it and is killed in the middle, as by a power cut.
  const pid_t child = ::fork();
  if (child == 0) {
    RigDocument document(catalogue, folder.filePath(u"recovery"_s));
    if (!document.open(file)) _exit(1);
    Rig rig = document.rig();
    rig.name = "Heath glider, rebuilt";
    document.edit(rig, u"renamed"_s);
    document.write_recovery_copy();
    ::kill(::getpid(), SIGKILL);
  }
  int status = 0;
  ::waitpid(child, &status, 0);
  ASSERT_TRUE(WIFSIGNALED(status));
  RigDocument document(catalogue, folder.filePath(u"recovery"_s));
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
  EXPECT_FALSE(load_rig(file.toStdString())->unknown_members.members().contains("recovered_from"));
}

/// Work that a program of version 1 left behind keeps what was proven, whether it belongs to a file or not.
TEST(Document, ACopyOfVersion1IsRecoveredWithItsProofs) {
  const Catalogue catalogue = *load_catalogue(in_source("/data/catalogue"));
  const QString old = QString::fromStdString(in_source("/tests/rig/version_1/hedgerow.rig.json"));
  for (const bool has_a_file : {false, true}) {
    QTemporaryDir folder;
    const QString file = folder.filePath(u"a.rig.json"_s), copies = folder.filePath(u"copies"_s);
    ASSERT_TRUE(QFile::copy(old, file));
    ASSERT_TRUE(QDir().mkpath(copies));
    Json copy = *read_json_file(old.toStdString());
    ASSERT_EQ(copy["version"], 1);
    copy["name"] = "not saved yet";
    copy["recovered_from"] = has_a_file ? file.toStdString() : "";
    std::ofstream((copies + u"/0-left.rig.json"_s).toStdString()) << copy.dump();
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
  const QString file = b.folder.filePath(u"broken.rig.json"_s);
  std::ofstream(file.toStdString()) << R"({"format":"rig","version":1,"name":"x","airframe":{"kind":"sofa"}})";
  QString said;
  b.in_sheet([&](QWidget& sheet) {
    auto* box = qobject_cast<QMessageBox*>(&sheet);
    ASSERT_TRUE(box);
    said = box->text();
    box->accept();
  });
  EXPECT_FALSE(b.window.open_file(file));
  EXPECT_TRUE(said.contains(u"/airframe/kind"_s)) << said.toStdString();
  EXPECT_EQ(b.window.document().rig(), before);
}

/// Told to end, work that no copy has yet is copied at once, and stays for the next run.
TEST(Document, WhatIsNotSavedIsCopiedWhenItIsToldToEnd) {
  const Catalogue catalogue = *load_catalogue(in_source("/data/catalogue"));
  QTemporaryDir folder;
  const QString copies = folder.filePath(u"copies"_s);
  for (const bool edited : {false, true}) {
    RigDocument document(catalogue, copies);
    document.start_new(fresh_rig("Mine", AirframeKind::two_ailerons, "full_controller"));
    Rig rig = document.rig();
    rig.name = "Mine, worked on";
    if (edited) ASSERT_TRUE(document.edit(rig, u"renamed"_s));
    document.leave();
  }
  RigDocument next(catalogue, copies);
  const auto found = next.leftovers();
  ASSERT_EQ(found.size(), 1) << "of the one that was worked on";
  ASSERT_TRUE(next.recover(found[0]));
  EXPECT_EQ(next.rig().name, "Mine, worked on");
}

/// The program ends at a signal by itself: its temporary folders go, and its status says which one it was.
TEST(Document, ASignalEndsTheProgramInOrder) {
  for (const int signal : {SIGTERM, SIGHUP, SIGINT}) {
    QTemporaryDir home;
    const QString file = home.filePath(u"a.rig.json"_s), temporary = home.filePath(u"tmp"_s);
    ASSERT_TRUE(QDir().mkpath(temporary));
    ASSERT_TRUE(QFile::copy(QString::fromStdString(in_source("/data/demo/heath.rig.json")), file));
    QProcess program;
    QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
    environment.insert(u"HOME"_s, home.path());
    environment.insert(u"XDG_DATA_HOME"_s, home.filePath(u"data"_s));
    environment.insert(u"TMPDIR"_s, temporary);
    environment.insert(u"XDG_RUNTIME_DIR"_s, home.path());
    environment.insert(u"QT_QPA_PLATFORM"_s, u"offscreen"_s);
    program.setProcessEnvironment(environment);
    program.start(QString::fromStdString(rigging::program("rigging")), {u"--demo"_s});
    ASSERT_TRUE(program.waitForStarted());
    ASSERT_TRUE(QTest::qWaitFor([&] { return !QDir(temporary).isEmpty(); }, 60000));
    QTest::qWait(2000);
    ::kill(static_cast<pid_t>(program.processId()), signal);
    ASSERT_TRUE(program.waitForFinished(30000));
    EXPECT_EQ(program.exitStatus(), QProcess::NormalExit);
    EXPECT_EQ(program.exitCode(), 128 + signal);
    EXPECT_TRUE(QDir(temporary).isEmpty()) << QDir(temporary).entryList(QDir::AllEntries).join(u' ').toStdString();
  }
}

/// A rig that no file could hold is not taken into the document, and it is said why.
TEST(Document, WhatNoFileCanHoldIsRefusedWhereItIsEdited) {
  Builder b;
  b.window.start_demo();
  const Rig before = b.window.document().rig();
  QString said;
  QObject::connect(&b.window.document(), &RigDocument::refused, [&](const QString& words) { said = words; });
  Rig rig = before;
  rig.home.looked_up = std::string(2100, 'x');
  EXPECT_FALSE(b.window.document().edit(rig, u"too long"_s));
  EXPECT_TRUE(said.contains(u"2000 letters"_s)) << said.toStdString();
  EXPECT_EQ(b.window.document().rig(), before);
}

/// A safety copy that can't be read whole is opened as far as it goes; what could not be read stays on the disk.
TEST(Document, ADamagedCopyIsRecoveredAsFarAsItGoes) {
  const Catalogue catalogue = *load_catalogue(in_source("/data/catalogue"));
  QTemporaryDir folder;
  const QString copies = folder.filePath(u"copies"_s), copy = copies + u"/0-left.rig.json"_s;
  ASSERT_TRUE(QDir().mkpath(copies));
  Json json = *read_json_file(in_source("/data/demo/hedgerow.rig.json"));
  json["home"]["looked_up"] = std::string(2100, 'x');
  json["outputs"][0]["centre_us"] = 9000;
  std::ofstream(copy.toStdString()) << json.dump();
  RigDocument document(catalogue, copies);
  const auto found = document.leftovers();
  ASSERT_EQ(found.size(), 1);
  EXPECT_TRUE(found[0].problem.isEmpty()) << found[0].problem.toStdString();
  EXPECT_EQ(found[0].left_out.size(), 3) << "a text, a pulse, and the pulses that it leaves without a centre";
  ASSERT_TRUE(document.recover(found[0]));
  EXPECT_EQ(document.rig().home.looked_up.size(), 2000u);
  EXPECT_EQ(document.rig().outputs.size(), json["outputs"].size());
  EXPECT_TRUE(QFile::exists(copy + u".damaged"_s));
  // Cut in the middle.
  const std::string text = rig_text(*load_rig(in_source("/data/demo/hedgerow.rig.json")));
  std::ofstream(copy.toStdString()) << text.substr(0, text.size() / 2);
  const auto cut = document.leftovers();
  ASSERT_EQ(cut.size(), 1);
  EXPECT_TRUE(cut[0].problem.isEmpty());
  EXPECT_FALSE(cut[0].left_out.isEmpty());
}

/// A damaged file is offered as far as it goes, and so is what an interrupted save was about to say.
TEST(Document, ADamagedFileAndAnInterruptedSaveAreOffered) {
  Builder b;
  const QString file = b.folder.filePath(u"cut.rig.json"_s);
  const Rig whole = *load_rig(in_source("/data/demo/hedgerow.rig.json"));
  const std::string text = rig_text(whole);
  const auto choose = [&](const QString& button, const QString& sheet_name) {
    b.in_sheet([&b, button, sheet_name](QWidget& sheet) {
      EXPECT_EQ(sheet.objectName(), sheet_name);
      auto* box = qobject_cast<QMessageBox*>(&sheet);
      ASSERT_TRUE(box);
      for (QAbstractButton* each : box->buttons())
        if (each->objectName() == button) {
          b.in_sheet([](QWidget& left_out) {
            EXPECT_EQ(left_out.objectName(), u"left_out"_s);
            left_out.close();
          });
          return each->click();
        }
      ADD_FAILURE() << "no button " << button.toStdString();
      box->reject();
    });
  };
  std::ofstream(file.toStdString()) << text.substr(0, 2 * text.size() / 3);
  choose(u"open_part"_s, u"complaint"_s);
  EXPECT_TRUE(b.window.open_file(file));
  EXPECT_EQ(b.window.document().rig().parts.size(), whole.parts.size());
  EXPECT_TRUE(b.window.document().path().isEmpty()) << "nothing overwrites the damaged file";
}

/// What an interrupted save was about to say is offered until it is discarded, or stands in the file.
TEST(Document, WhatAnInterruptedSaveLeftIsOffered) {
  Builder b;
  const QString file = b.folder.filePath(u"cut.rig.json"_s);
  const Rig whole = *load_rig(in_source("/data/demo/hedgerow.rig.json"));
  const std::string text = rig_text(whole), draw = "0123456789abcdef",
                    beside = b.folder.path().toStdString() + "/.rigging-whole-" + draw + "-" +
                             Fingerprint().add("rigging").add(draw).add("cut.rig.json").text();
  std::ofstream(beside) << text;
  std::ofstream(file.toStdString()) << text.substr(0, text.size() / 2);
  const auto choose = [&](const QString& button) {
    b.in_sheet([button](QWidget& sheet) {
      EXPECT_EQ(sheet.objectName(), u"interrupted"_s);
      for (QAbstractButton* each : qobject_cast<QMessageBox*>(&sheet)->buttons())
        if (each->objectName() == button) return each->click();
      ADD_FAILURE() << "no button " << button.toStdString();
    });
  };
  choose(u"keep_both"_s);
  EXPECT_FALSE(b.window.open_file(file));
  choose(u"open_whole"_s);
  EXPECT_TRUE(b.window.open_file(file));
  EXPECT_EQ(b.window.document().rig(), whole);
  choose(u"discard_whole"_s);
  EXPECT_FALSE(b.window.open_file(file));
  EXPECT_FALSE(std::filesystem::exists(beside));
  // One that was stopped when all was written is no loss, and is not spoken of.
  std::ofstream(beside) << text;
  std::ofstream(file.toStdString()) << text;
  EXPECT_FALSE(interrupted_write(file.toStdString()));
  EXPECT_TRUE(b.window.open_file(file));
}

/// The own board goes with the rig to another place, or it is said that it can't.
TEST(Document, SavingElsewhereCarriesTheOwnPartsOrSaysThatItCannot) {
  const Catalogue catalogue = *load_catalogue(in_source("/data/catalogue"));
  QTemporaryDir folder;
  const auto parts = [](const char* id, const char* name) {
    return R"({"format":"parts","version":5,"parts":[{"id":")" + std::string(id) + R"(","name":")" + name +
           R"(","group":"other","basis":"weighed"}]})";
  };
  const auto put = [&](const char* name, const std::string& content) {
    std::ofstream(folder.filePath(QLatin1String(name)).toStdString()) << content;
  };
  const QString from = folder.filePath(u"a.rig.json"_s), to = folder.filePath(u"b.rig.json"_s);
  ASSERT_TRUE(QFile::copy(QString::fromStdString(in_source("/data/demo/heath.rig.json")), from));
  put("a.parts.json", parts("mine", "Mine"));
  RigDocument document(catalogue, folder.filePath(u"copies"_s));
  ASSERT_TRUE(document.open(from));
  put("b.parts.json", parts("mine", "Somebody's"));
  const auto refused = document.save(to);
  ASSERT_FALSE(refused);
  EXPECT_NE(refused.error().text().find("another part \"mine\""), std::string::npos) << refused.error().text();
  EXPECT_FALSE(QFile::exists(to));
  EXPECT_EQ(document.path(), from);
  put("b.parts.json", parts("theirs", "Theirs"));
  ASSERT_TRUE(document.save(to));
  Catalogue both = catalogue;
  ASSERT_TRUE(add_own_parts(both, folder.filePath(u"b.parts.json"_s).toStdString()));
  EXPECT_TRUE(both.part("mine"));
  EXPECT_TRUE(both.part("theirs"));
}

/// Another program has written the file meanwhile: nobody's work goes without a word.
TEST(Document, AFileThatSomebodyElseChangedIsNotOverwrittenInSilence) {
  Builder b;
  const QString file = b.folder.filePath(u"shared.rig.json"_s);
  ASSERT_TRUE(QFile::copy(QString::fromStdString(in_source("/data/demo/heath.rig.json")), file));
  const auto theirs_written = [&] {
    Rig theirs = *load_rig(file.toStdString());
    theirs.airframe.span_m = 2.5;
    ASSERT_TRUE(save_rig(theirs, file.toStdString()));
  };
  const auto press = [&](const char* button) {
    QString said;
    b.in_sheet([&said, button](QWidget& sheet) {
      auto* box = qobject_cast<QMessageBox*>(&sheet);
      ASSERT_TRUE(box);
      said = box->informativeText();
      EXPECT_EQ(box->defaultButton(), box->button(QMessageBox::Cancel));
      if (auto* choice = box->findChild<QAbstractButton*>(QLatin1String(button)))
        choice->click();
      else
        box->reject();
    });
    for (auto* action : b.window.findChildren<QAction*>())
      if (action->shortcut() == QKeySequence(QKeySequence::Save)) action->trigger();
    return said;
  };
  const auto rename = [&](const char* name) {
    Rig rig = b.window.document().rig();
    rig.name = name;
    b.window.document().edit(rig, u"renamed"_s);
  };
  for (const char* button : {"nobody", "theirs", "mine"}) {
    ASSERT_TRUE(b.window.document().open(QString::fromStdString(in_source("/data/demo/delta.rig.json"))));
    QFile::remove(file);
    ASSERT_TRUE(QFile::copy(QString::fromStdString(in_source("/data/demo/heath.rig.json")), file));
    ASSERT_TRUE(b.window.document().open(file));
    rename("Mine");
    theirs_written();
    const QString said = press(button);
    EXPECT_TRUE(said.contains(u"airframe, span: 2500 mm in the file, 2000 mm here"_s) &&
                said.contains(u"name: Heath glider in the file, Mine here"_s))
        << said.toStdString();
    const Rig on_disk = *load_rig(file.toStdString());
    const std::string pressed = button;
    EXPECT_EQ(on_disk.airframe.span_m == 2.5, pressed != "mine") << button;
    EXPECT_EQ(on_disk.name == "Mine", pressed == "mine") << button;
    if (pressed == "theirs") {
      EXPECT_EQ(b.window.document().rig(), on_disk);
      b.window.document().undo();
    }
    EXPECT_EQ(b.window.document().rig().name, "Mine") << "nothing is lost: " << button;
  }
}

/// It is said when it happens, not only when saving, however the other program writes its files.
TEST(Document, AFileThatChangesWhileItLiesOpenIsSaidAtOnce) {
  Builder b;
  const QString file = b.folder.filePath(u"shared.rig.json"_s);
  ASSERT_TRUE(QFile::copy(QString::fromStdString(in_source("/data/demo/heath.rig.json")), file));
  ASSERT_TRUE(b.window.document().open(file));
  int told = 0;
  QObject::connect(&b.window.document(), &RigDocument::file_changed, [&] { ++told; });
  Rig mine = b.window.document().rig();
  mine.name = "Mine";
  b.window.document().edit(mine, u"renamed"_s);
  ASSERT_TRUE(b.window.document().save(file));
  QTest::qWait(200);
  EXPECT_EQ(told, 0) << "what is written here is nobody else's";
  const auto said = [&] { return b.window.findChild<QLabel*>(u"foot_said"_s)->toolTip(); };
  for (const char* name : {"replaced", "replaced once more"}) {
    const int before = told;
    mine.name = name;
    ASSERT_TRUE(save_rig(mine, file.toStdString()));
    EXPECT_TRUE(QTest::qWaitFor([&] { return told > before; }, 5000)) << name;
    EXPECT_TRUE(said().contains(u"changed by somebody else"_s)) << said().toStdString();
  }
  const int before = told;
  std::ofstream(file.toStdString(), std::ios::app) << " ";
  EXPECT_TRUE(QTest::qWaitFor([&] { return told > before; }, 5000)) << "written in place";
}

/// A copy knows what its file held: what somebody wrote there since then is not overwritten in silence.
TEST(Document, RecoveredWorkAsksBeforeItOverwritesANewerFile) {
  const Catalogue catalogue = *load_catalogue(in_source("/data/catalogue"));
  for (const bool changed : {false, true}) {
    QTemporaryDir folder;
    const QString file = folder.filePath(u"a.rig.json"_s), copies = folder.filePath(u"c"_s);
    ASSERT_TRUE(QFile::copy(QString::fromStdString(in_source("/data/demo/heath.rig.json")), file));
    ASSERT_TRUE(QDir().mkpath(copies));
    const QString copy = copies + u"/kept.rig.json"_s;
    {
      RigDocument first(catalogue, copies);
      ASSERT_TRUE(first.open(file));
      Rig rig = first.rig();
      rig.name = "unsaved";
      first.edit(rig, u"renamed"_s);
      first.write_recovery_copy();
      const auto written = QDir(copies).entryInfoList({u"*.rig.json"_s}, QDir::Files);
      ASSERT_EQ(written.size(), 1);
      ASSERT_TRUE(QFile::copy(written[0].filePath(), copies + u"/kept"_s));
    }
    ASSERT_TRUE(QFile::rename(copies + u"/kept"_s, copy));
    if (changed) {
      Rig theirs = *load_rig(file.toStdString());
      theirs.airframe.span_m = 2.5;
      ASSERT_TRUE(save_rig(theirs, file.toStdString()));
    }
    RigDocument second(catalogue, copies);
    int told = 0;
    QObject::connect(&second, &RigDocument::file_changed, [&] { ++told; });
    const auto left = second.leftovers();
    ASSERT_EQ(left.size(), 1);
    ASSERT_TRUE(second.recover(left[0]));
    EXPECT_EQ(second.rig().name, "unsaved");
    EXPECT_EQ(second.changed_on_disk(), changed);
    EXPECT_EQ(told, changed ? 1 : 0);
  }
}

TEST(Document, WhatWasSavedAndThenUndoneIsAskedForWhenLeaving) {
  Builder b;
  const QString file = b.folder.filePath(u"a.rig.json"_s);
  ASSERT_TRUE(QFile::copy(QString::fromStdString(in_source("/data/demo/heath.rig.json")), file));
  ASSERT_TRUE(b.window.document().open(file));
  Rig rig = b.window.document().rig();
  rig.name = "Once more";
  b.window.document().edit(rig, u"renamed"_s);
  ASSERT_TRUE(b.window.document().save(file));
  b.window.document().undo();
  EXPECT_TRUE(b.window.document().unsaved_work());
  b.in_sheet([](QWidget& sheet) { QTest::keyClick(&sheet, Qt::Key_Escape); });
  EXPECT_FALSE(b.window.close());
}

/// Safety copies: whose they are, that they come in time, and that nothing of them overwrites anything.
TEST(Document, SafetyCopiesAreOfTheRightAircraft) {
  QTemporaryDir folder;
  const Catalogue catalogue = *load_catalogue(in_source("/data/catalogue"));
  const QString copies = folder.filePath(u"copies"_s);
  ASSERT_TRUE(QDir().mkpath(copies));
  const auto left = [&](const char* name, const std::string& of, bool broken = false) {
    Json copy = *read_json_file(in_source("/data/demo/heath.rig.json"));
    copy["name"] = "unsaved";
    copy["recovered_from"] = of;
    std::ofstream((copies + QLatin1Char('/') + QLatin1String(name)).toStdString()) << (broken ? "{" : copy.dump());
  };
  // A name without a folder could be any aircraft's.
  left("a.rig.json", "plane.rig.json");
  left("b.rig.json", "", true);
  RigDocument document(catalogue, copies);
  auto found = document.leftovers();
  ASSERT_EQ(found.size(), 2) << "what can't be read is said, not passed over";
  for (const auto& l : found) {
    EXPECT_TRUE(l.of.isEmpty());
    EXPECT_EQ(l.problem.isEmpty(), l.copy.endsWith(u"a.rig.json"_s));
    if (l.problem.isEmpty()) ASSERT_TRUE(document.recover(l));
  }
  EXPECT_TRUE(document.path().isEmpty());
  EXPECT_TRUE(document.unsaved_work()) << "it is in no file: leaving asks";
  // As long as somebody works on it, it is no leftover, whatever the number of his process.
  RigDocument neighbour(catalogue, copies);
  found = neighbour.leftovers();
  ASSERT_EQ(found.size(), 1);
  EXPECT_FALSE(found[0].problem.isEmpty());
  // A copy whose original is broken can be opened all the same.
  const QString broken = folder.filePath(u"broken.rig.json"_s);
  std::ofstream(broken.toStdString()) << "{";
  left("c.rig.json", broken.toStdString());
  bool opened = false;
  for (const auto& l : neighbour.leftovers())
    if (l.of == broken) opened = neighbour.recover(l).has_value();
  EXPECT_TRUE(opened);
  EXPECT_EQ(neighbour.rig().name, "unsaved");
  EXPECT_TRUE(neighbour.path().isEmpty());
}

TEST(Document, SteadyEditsAreCopiedAllTheSameAndAFullDiskIsSaid) {
  QTemporaryDir folder;
  const QString copies = folder.filePath(u"copies"_s);
  const Catalogue catalogue = *load_catalogue(in_source("/data/catalogue"));
  RigDocument document(catalogue, copies);
  int edits = 0;
  QTimer typing;
  QObject::connect(&typing, &QTimer::timeout, [&] {
    Rig rig = document.rig();
    rig.name = "edit " + std::to_string(++edits);
    document.edit(rig, u"typed"_s);
  });
  typing.start(50);
  EXPECT_TRUE(
      QTest::qWaitFor([&] { return !QDir(copies).entryList({u"*.rig.json"_s}, QDir::Files).isEmpty(); }, 20000));
  EXPECT_TRUE(typing.isActive()) << "while the edits went on";
  typing.stop();
  // A folder that can't be there stands for a disk that is full.
  std::ofstream(folder.filePath(u"file"_s).toStdString()) << "no folder";
  RigDocument full(catalogue, folder.filePath(u"file/copies"_s));
  int said = 0;
  QObject::connect(&full, &RigDocument::refused, [&](const QString&) { ++said; });
  for (const char* name : {"one", "two"}) {
    Rig rig = full.rig();
    rig.name = name;
    full.edit(rig, u"typed"_s);
    full.write_recovery_copy();
  }
  EXPECT_EQ(said, 1) << "once, not at every edit";
}

TEST(Document, NoFileNameEndsTheProgram) {
  Builder b;
  const QString loop = b.folder.filePath(u"loop.parts.json"_s);
  ASSERT_EQ(::symlink(loop.toStdString().c_str(), loop.toStdString().c_str()), 0);
  const QString rig = b.folder.filePath(u"loop.rig.json"_s);
  ASSERT_TRUE(QFile::copy(QString::fromStdString(in_source("/data/demo/heath.rig.json")), rig));
  (void)b.window.document().open(rig);
  const QString longest = b.folder.filePath(QString(250, QLatin1Char('n')) + u".rig.json"_s);
  EXPECT_FALSE(b.window.document().save(longest)) << "255 letters are all a name can have";
  const QString fits = b.folder.filePath(QString(246, QLatin1Char('n')));
  EXPECT_TRUE(b.window.document().save(fits));
  EXPECT_TRUE(b.window.document().open(fits));
}

TEST(Document, ClosingAsksForUnsavedWork) {
  Builder b;
  Rig rig = b.window.document().rig();
  rig.name = "Kept";
  b.window.document().edit(rig, u"renamed"_s);
  b.in_sheet([](QWidget& sheet) { QTest::keyClick(&sheet, Qt::Key_Escape); });
  EXPECT_FALSE(b.window.close());
  EXPECT_TRUE(b.window.isVisible());
}

}  // namespace
}  // namespace rigging::app
