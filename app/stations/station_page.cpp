#include "stations/station_page.h"

#include "look/pieces.h"
#include "review/stations.h"

namespace rigging::app {

StationPage::StationPage(Station station, const PageContext& context)
    : document_(context.document), bench_(context.bench), station_(station) {
  connect(&document_, &RigDocument::changed, this, &StationPage::follow);
  connect(&Look::instance(), &Look::changed, this, &StationPage::follow);
}

void StationPage::set_current(bool current) {
  current_ = current;
  if (current_ && behind_) follow();
}

void StationPage::follow() {
  behind_ = !current_;
  if (current_) refresh();
}

QLabel* StationPage::heading() {
  QLabel* question = wrapping_words(13, true);
  question->setObjectName(QStringLiteral("station_question"));
  question->setText(QString::fromUtf8(entry_of(station_).question));
  return question;
}

}  // namespace rigging::app
