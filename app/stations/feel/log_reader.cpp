#include "stations/feel/log_reader.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>
#include <utility>

#include "base/json.h"
#include "feel/gain_scale.h"
#include "feel/learn.h"
#include "look/pieces.h"
#include "stations/feel/log_columns.h"

namespace rigging::app {

LogReader::LogReader(RigDocument& document, QWidget* window) : QObject(window), document_(document), window_(window) {
  connect(&document_, &RigDocument::deferred_ready, this, &LogReader::tell_pending);
}

void LogReader::choose() {
  const QString file =
      QFileDialog::getOpenFileName(window_, tr("A flight's log"), {}, tr("Comma-separated (*.csv);;All files (*)"));
  if (!file.isEmpty()) read(file);
}

void LogReader::read(const QString& file) {
  const auto text = read_file(file.toStdString(), std::size_t{1} << 30);
  if (!text) return Q_EMIT said(said_of(text.error().text()));
  const std::string name = QFileInfo(file).fileName().toStdString();
  auto log = parse_flight_log(*text, name, document_.rig().feel.log_columns);
  // Another program's log: its columns are told once, and remembered with the rig.
  if (!log && log_names_unknown(*text, document_.rig().feel.log_columns) &&
      ask_log_columns(document_, *text, log.error(), window_))
    log = parse_flight_log(*text, name, document_.rig().feel.log_columns);
  if (!log) return Q_EMIT said(said_of(log.error().text()));
  tell(*log, false);
}

void LogReader::tell(const FlightLog& log, bool simulated) {
  untold_.emplace(log, simulated);
  tell_pending();
}

void LogReader::tell_pending() {
  const DeferredReview* d = document_.deferred();
  if (!untold_ || !d) return;
  const auto [log, simulated] = *std::exchange(untold_, std::nullopt);
  const FlightLesson lesson = lesson_of(document_.rig(), document_.catalogue(), d->feel, log, simulated);
  QStringList words;
  bool turns_down = false, learns = false;
  for (const AxisLesson& l : lesson.axes) {
    words << said_of(l.words);
    turns_down = turns_down || l.place;
    learns = learns || l.after;
  }
  // What it says of the loop holds for the gains that were flown.
  if (const ControllerClass* c = document_.controller(); c && learns) {
    const GainScale scale(*c, document_.rig().feel.half_share);
    QStringList gains;
    for (const AxisGain& g : document_.rig().feel.gains)
      if (g.rate) gains << said_of(std::string(word(g.axis)) + " " + scale.words(*g.rate));
    if (!gains.isEmpty()) words << tr("Taken as flown with %1.").arg(gains.join(QStringLiteral(", ")));
  }
  QMessageBox box(window_);
  box.setObjectName(QStringLiteral("lesson"));
  box.setWindowTitle(simulated ? tr("What the simulated flight told") : tr("What the flight told"));
  box.setText(words.join(QStringLiteral("\n\n")));
  QPushButton* both = turns_down ? box.addButton(tr("Turn down and learn"), QMessageBox::AcceptRole) : nullptr;
  QPushButton* only = learns ? box.addButton(tr("Correct the model only"), QMessageBox::AcceptRole) : nullptr;
  box.addButton(turns_down || learns ? tr("Leave all as it is") : tr("Close"), QMessageBox::RejectRole);
  box.exec();
  if (box.clickedButton() && (box.clickedButton() == both || box.clickedButton() == only))
    document_.apply(take_lesson(document_.rig(), lesson, box.clickedButton() == both));
}

}  // namespace rigging::app
