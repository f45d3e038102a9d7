#include "stations/feel/log_reader.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>
#include <utility>

#include "base/file.h"
#include "document/folders.h"
#include "feel/gain_scale.h"
#include "feel/learn.h"
#include "look/literals.h"
#include "look/pieces.h"
#include "stations/feel/log_columns.h"

namespace rigging::app {

namespace {
constexpr std::size_t most_bytes = std::size_t{512} << 20, beginning_bytes = std::size_t{1} << 18;
}

LogReader::LogReader(RigDocument& document, QWidget* window)
    : QObject(window),
      document_(document),
      window_(window),
      reading_([this](Read read) { hear(std::move(read)); }),
      judging_([this](std::pair<FlightLesson, bool> made) { show(made.first, made.second); }),
      progress_(
          window,
          [this]() -> std::optional<double> {
            const Progress* now = reading_.progress() ? reading_.progress() : judging_.progress();
            return now ? std::optional(now->share()) : std::nullopt;
          },
          [this] {
            reading_.cancel();
            judging_.cancel();
            Q_EMIT said(u"The log was not read."_s);
          }) {
  connect(&document_, &RigDocument::deferred_ready, this, &LogReader::judge_pending);
}

void LogReader::choose() {
  const QString file = QFileDialog::getOpenFileName(window_, u"A flight's log"_s, remembered_folder(u"log"_s),
                                                    u"Comma-separated (*.csv);;All files (*)"_s);
  if (!file.isEmpty()) read(file);
}

void LogReader::read(const QString& file) {
  progress_.follow(u"Reading %1"_s.arg(QFileInfo(file).fileName()));
  reading_.start([file, columns = document_.rig().feel.log_columns](Progress& progress) -> std::optional<Read> {
    auto text = read_file(file.toStdString(), most_bytes);
    if (!text) return Read{file, {}, tl::make_unexpected(text.error())};
    auto log = parse_flight_log(*text, QFileInfo(file).fileName().toStdString(), columns, &progress);
    if (progress.cancelled()) return std::nullopt;
    return Read{file, text->substr(0, beginning_bytes), std::move(log)};
  });
}

void LogReader::hear(Read read) {
  if (read.log) return tell(*read.log, false);
  // Another program's log: its columns are told once, and remembered with the rig.
  if (log_names_unknown(read.beginning, document_.rig().feel.log_columns) &&
      ask_log_columns(document_, read.beginning, read.log.error(), window_))
    return this->read(read.file);
  Q_EMIT said(said_of(read.log.error().text()));
}

void LogReader::tell(const FlightLog& log, bool simulated) {
  untold_.emplace(log, simulated);
  judge_pending();
}

void LogReader::judge_pending() {
  const DeferredReview* d = document_.deferred();
  if (!untold_ || !d) return;
  progress_.follow(u"Looking for what swings"_s);
  judging_.start([told = *std::exchange(untold_, std::nullopt), rig = document_.rig(),
                  catalogue = document_.shared_catalogue(),
                  feel = d->feel](Progress& progress) -> std::optional<std::pair<FlightLesson, bool>> {
    auto lesson = lesson_of(rig, *catalogue, feel, told.first, told.second, &progress);
    if (progress.cancelled()) return std::nullopt;
    return std::pair(std::move(lesson), told.second);
  });
}

void LogReader::show(const FlightLesson& lesson, bool simulated) {
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
