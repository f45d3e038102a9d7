#include "stations/feel/log_reader.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>
#include <utility>

#include "base/file.h"
#include "feel/gain_scale.h"
#include "feel/learn.h"
#include "look/literals.h"
#include "look/pieces.h"
#include "stations/feel/log_columns.h"

namespace rigging::app {

LogReader::LogReader(RigDocument& document, QWidget* window) : QObject(window), document_(document), window_(window) {
  connect(&document_, &RigDocument::deferred_ready, this, &LogReader::tell_pending);
}

void LogReader::choose() {
  const QString file =
      QFileDialog::getOpenFileName(window_, u"A flight's log"_s, {}, u"Comma-separated (*.csv);;All files (*)"_s);
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
      if (g.rate) gains << said_of(std::string(name_of(g.axis)) + " " + scale.words(*g.rate));
    if (!gains.isEmpty()) words << u"Taken as flown with %1."_s.arg(gains.join(u", "_s));
  }
  QMessageBox box(window_);
  box.setObjectName(u"lesson"_s);
  box.setWindowTitle(simulated ? u"What the simulated flight told"_s : u"What the flight told"_s);
  box.setText(words.join(u"\n\n"_s));
  QPushButton* both = turns_down ? box.addButton(u"Turn down and learn"_s, QMessageBox::AcceptRole) : nullptr;
  QPushButton* only = learns ? box.addButton(u"Correct the model only"_s, QMessageBox::AcceptRole) : nullptr;
  box.addButton(turns_down || learns ? u"Leave all as it is"_s : u"Close"_s, QMessageBox::RejectRole);
  box.exec();
  if (box.clickedButton() && (box.clickedButton() == both || box.clickedButton() == only))
    document_.apply(take_lesson(document_.rig(), lesson, box.clickedButton() == both));
}

}  // namespace rigging::app
