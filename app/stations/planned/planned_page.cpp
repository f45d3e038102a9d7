#include "stations/planned/planned_page.h"

#include <QVBoxLayout>

#include "look/look.h"
#include "review/stations.h"

namespace rigging::app {

PlannedPage::PlannedPage(Station station, const PageContext& context) : StationPage(station, context) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(32, 48, 32, 32);
  QLabel* question = heading();
  question->setFont(Style::instance().text(16, true));
  auto* line = new QLabel(QString::fromUtf8(entry_of(station).to_come));
  line->setProperty("soft", true);
  line->setWordWrap(true);
  layout->addWidget(question);
  layout->addWidget(line);
  layout->addStretch();
}

}  // namespace rigging::app
