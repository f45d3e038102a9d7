#include "stations/planned/planned_page.h"

#include <QLabel>
#include <QVBoxLayout>

#include "look/look.h"
#include "review/stations.h"

namespace rigging::app {
PlannedPage::PlannedPage(Station station, RigDocument& document, QWidget* parent) : StationPage(document, parent) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(32, 48, 32, 32);
  auto* question = new QLabel(QString::fromUtf8(entry_of(station).question));
  question->setFont(Look::instance().text(16, true));
  question->setWordWrap(true);
  auto* line = new QLabel(QString::fromUtf8(entry_of(station).to_come));
  line->setProperty("soft", true);
  line->setWordWrap(true);
  layout->addWidget(question);
  layout->addWidget(line);
  layout->addStretch();
}

}  // namespace rigging::app
