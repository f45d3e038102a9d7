#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QMessageBox>
#include <QPushButton>

#include "base/file.h"
#include "document/folders.h"
#include "document/replace_question.h"
#include "look/literals.h"
#include "shell/main_window.h"

// What the window does with files: opening, saving, what somebody else has written, the recent ones, what an earlier
// run left behind.
namespace rigging::app {

void MainWindow::ask_open() {
  if (!may_leave()) return;
  const QString path = QFileDialog::getOpenFileName(this, u"Open a rig"_s, remembered_folder(u"rig"_s),
                                                    u"Rigs (*.rig.json);;All files (*)"_s);
  if (!path.isEmpty()) open_file(path);
}

void MainWindow::complain(const QString& title, const Error& error) {
  QMessageBox box(QMessageBox::Warning, title, QString::fromStdString(error.text()), QMessageBox::Ok, this);
  box.setObjectName(u"complaint"_s);
  box.exec();
}

bool MainWindow::open_file(const QString& path) {
  const auto ok = document_.open(path);
  if (ok) {
    is_demo_ = false;
    bench_.stop();
    foot_->say({});
    remember(path);
    go(station_);
    if (const auto left = interrupted_write(path.toStdString())) offer_interrupted(path, *left);
    return true;
  }
  if (const auto left = interrupted_write(path.toStdString())) return offer_interrupted(path, *left);
  // A file that is there and broken may still say most of what it said.
  QMessageBox box(QMessageBox::Warning, u"This rig could not be opened"_s, QString::fromStdString(ok.error().text()),
                  QMessageBox::Ok, this);
  box.setObjectName(u"complaint"_s);
  if (QFileInfo(path).isFile())
    box.addButton(u"Open what can be read"_s, QMessageBox::ActionRole)->setObjectName(u"open_part"_s);
  box.exec();
  return box.clickedButton() && box.clickedButton()->objectName() == u"open_part"_s && open_part_of(path);
}

bool MainWindow::open_part_of(const QString& path) {
  const auto left_out = document_.open_what_can_be_read(path);
  if (!left_out) {
    complain(u"Nothing of it can be read"_s, left_out.error());
    return false;
  }
  is_demo_ = false;
  bench_.stop();
  go(station_);
  say_left_out(*left_out);
  return true;
}

void MainWindow::say_left_out(const QStringList& left_out) {
  if (left_out.isEmpty()) return foot_->say(u"All of it could be read. Save it under a name."_s);
  QMessageBox box(QMessageBox::Information, u"Not all of it could be read"_s,
                  u"What is open now lacks what could not be read: look it through before you save it. Left out or "
                  "shortened:"_s,
                  QMessageBox::Ok, this);
  box.setObjectName(u"left_out"_s);
  constexpr int most = 8;
  QString list = u"• "_s + left_out.mid(0, most).join(u"\n• "_s);
  if (left_out.size() > most) list += u"\nand %1 more"_s.arg(left_out.size() - most);
  box.setInformativeText(list);
  box.exec();
}

/// A save in the place of a file with several names was stopped in the middle: what it was about to say is whole.
bool MainWindow::offer_interrupted(const QString& path, const std::filesystem::path& left) {
  QMessageBox box(QMessageBox::Question, u"A save was interrupted"_s,
                  u"A save of %1 was stopped in the middle. The file may be cut; what was to be saved stands whole "
                  "beside it."_s.arg(path),
                  QMessageBox::NoButton, this);
  box.setObjectName(u"interrupted"_s);
  box.addButton(u"Open what was to be saved"_s, QMessageBox::AcceptRole)->setObjectName(u"open_whole"_s);
  box.addButton(u"Keep both for now"_s, QMessageBox::RejectRole)->setObjectName(u"keep_both"_s);
  box.addButton(u"Discard what was to be saved"_s, QMessageBox::DestructiveRole)->setObjectName(u"discard_whole"_s);
  box.exec();
  const QString chosen = box.clickedButton() ? box.clickedButton()->objectName() : QString();
  const QString beside = QString::fromStdString(left.string());
  if (chosen == u"discard_whole"_s) QFile::remove(beside);
  return chosen == u"open_whole"_s && open_part_of(beside);
}

bool MainWindow::may_leave() {
  if (!document_.unsaved_work()) return true;
  QMessageBox box(QMessageBox::Question, u"Unsaved work"_s, u"%1 has unsaved changes."_s.arg(document_.title()),
                  QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, this);
  box.setObjectName(u"unsaved"_s);
  const int answer = box.exec();
  return answer == QMessageBox::Discard || (answer == QMessageBox::Save && save());
}

bool MainWindow::save() {
  if (document_.path().isEmpty()) return save_as();
  if (document_.changed_on_disk())
    if (const auto said = settle_with_file()) return *said;
  if (const auto ok = document_.save(document_.path()); !ok) {
    complain(u"The rig could not be saved"_s, ok.error());
    return false;
  }
  foot_->say(u"Saved %1"_s.arg(document_.path()));
  return true;
}

/// Somebody else has written the file: theirs, mine or a copy is for the builder to say. Nothing: mine, over theirs.
std::optional<bool> MainWindow::settle_with_file() {
  QMessageBox box(QMessageBox::Warning, u"The file has changed"_s,
                  u"%1 was changed by another program or window since it was opened here."_s.arg(document_.path()),
                  QMessageBox::Cancel, this);
  box.setObjectName(u"changed_on_disk"_s);
  if (const auto differing = document_.differs_from_disk()) {
    constexpr std::size_t most = 8;
    QString differs;
    for (std::size_t i = 0; i < std::min(most, differing->size()); ++i) {
      const Differing& d = (*differing)[i];
      differs += u"• %1: %2 in the file, %3 here"_s.arg(QString::fromStdString(d.place), QString::fromStdString(d.a),
                                                        QString::fromStdString(d.b)) +
                 QLatin1Char('\n');
    }
    if (differing->size() > most) differs += u"and %1 more"_s.arg(differing->size() - most);
    if (differing->empty()) differs = u"It says the same as what is open here."_s;
    box.setInformativeText(u"What differs:\n%1"_s.arg(differs));
  } else {
    box.setInformativeText(
        u"It can't be read as a rig now: %1"_s.arg(QString::fromStdString(differing.error().text())));
  }
  auto* mine = box.addButton(u"Write mine over it"_s, QMessageBox::DestructiveRole);
  auto* theirs = box.addButton(u"Take theirs"_s, QMessageBox::ActionRole);
  auto* copy = box.addButton(u"Save mine as a copy…"_s, QMessageBox::ActionRole);
  mine->setObjectName(u"mine"_s);
  theirs->setObjectName(u"theirs"_s);
  copy->setObjectName(u"copy"_s);
  box.setDefaultButton(QMessageBox::Cancel);  // who presses Enter without reading overwrites nothing
  box.exec();
  if (box.clickedButton() == mine) return std::nullopt;
  if (box.clickedButton() == copy) return save_as();
  if (box.clickedButton() == theirs) {
    if (const auto ok = document_.take_from_disk(); !ok) {
      complain(u"The file could not be taken over"_s, ok.error());
      return false;
    }
    foot_->say(u"What the file says is open now; undo brings yours back"_s);
    return true;
  }
  return false;
}

bool MainWindow::save_as() {
  QString path = QFileDialog::getSaveFileName(
      this, u"Save the rig"_s,
      in_remembered_folder(u"rig"_s,
                           document_.title().toLower().replace(QLatin1Char(' '), QLatin1Char('-')) + u".rig.json"_s),
      u"Rigs (*.rig.json)"_s);
  if (path.isEmpty()) return false;
  const QString chosen = path;
  if (!path.endsWith(QLatin1String(".json")))
    path += path.endsWith(QLatin1String(".rig")) ? u".json"_s : u".rig.json"_s;
  if (!may_replace(this, path, chosen)) return false;
  if (const auto ok = document_.save(path); !ok) {
    complain(u"The rig could not be saved"_s, ok.error());
    return false;
  }
  remember(path);
  foot_->say(u"Saved %1"_s.arg(path));
  return true;
}

QStringList MainWindow::recent() const {
  QFile file(settings_.state_folder + u"/recent"_s);
  if (!file.open(QIODevice::ReadOnly)) return {};
  return QString::fromUtf8(file.readAll()).split(QLatin1Char('\n'), Qt::SkipEmptyParts);
}

void MainWindow::remember(const QString& path) {
  remember_folder(u"rig"_s, path);
  QStringList list = recent();
  const QString whole = QFileInfo(path).absoluteFilePath();
  list.removeAll(whole);
  list.prepend(whole);
  QDir().mkpath(settings_.state_folder);
  (void)write_file_atomically((settings_.state_folder + u"/recent"_s).toStdString(),
                              list.mid(0, 10).join(QLatin1Char('\n')).toStdString());
}

void MainWindow::offer_recovery() {
  const auto found = document_.leftovers();
  if (found.isEmpty()) return;
  auto* layout = new QHBoxLayout(recovery_bar_);
  layout->setContentsMargins(16, 6, 16, 6);
  const auto& first = found.front();
  const QString whose = first.of.isEmpty() ? u"a rig that was never saved"_s : first.of;
  QString said = u"Unsaved work from an earlier run is still here: %1"_s.arg(whose);
  if (!first.left_out.isEmpty()) said += u", but for what can't be read of it: %1"_s.arg(first.left_out.front());
  if (first.left_out.size() > 1) said += u", and %1 more"_s.arg(first.left_out.size() - 1);
  if (!first.problem.isEmpty())
    said = u"A safety copy of an earlier run can't be read: %1. It stays at %2 until you discard it."_s.arg(
        first.problem, first.copy);
  auto* words = new QLabel(said);
  words->setWordWrap(true);
  layout->addWidget(words, 1);
  if (first.problem.isEmpty()) {
    auto* recover = new QPushButton(u"Recover it"_s);
    recover->setObjectName(u"recover"_s);
    layout->addWidget(recover);
    connect(recover, &QPushButton::clicked, this, [this, first] {
      // What is open is somebody's work, too.
      if (!may_leave()) return;
      const auto ok = document_.recover(first);
      recovery_bar_->hide();
      if (ok) go(station_);  // what was begun anew is not what is open now
      if (!ok)
        complain(u"The work could not be recovered"_s, ok.error());
      else if (!first.left_out.isEmpty())
        say_left_out(first.left_out);
    });
  }
  auto* discard = new QPushButton(u"Discard it"_s);
  discard->setObjectName(u"discard"_s);
  layout->addWidget(discard);
  connect(discard, &QPushButton::clicked, this, [this, first] {
    document_.discard(first);
    recovery_bar_->hide();
  });
  recovery_bar_->show();
}

}  // namespace rigging::app
