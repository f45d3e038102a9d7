#include "stations/planned/planned_page.h"

#include <QLabel>
#include <QVBoxLayout>

#include "look/look.h"

namespace rigging::app {
namespace {

QString what_will_be_there(Station s) {
  switch (s) {
    case Station::fit:
      return QObject::tr("Not built yet. Here parts will be placed, and mass, balance and compass clearance computed.");
    case Station::power:
      return QObject::tr(
          "Not built yet. Here rails will be drawn as a graph and the current budget computed for each supply.");
    case Station::wiring:
      return QObject::tr("Not built yet. Here ports and leads will be planned, drawn and printed as a plug list.");
    case Station::sticks:
      return QObject::tr(
          "Not built yet. Here channel order, ends and centre will be measured and the travel to set computed.");
    case Station::senses:
      return QObject::tr("Not built yet. Here board rotation, accelerometer and compass will be calibrated.");
    case Station::feel:
      return QObject::tr("Not built yet. Here gains will be set against the flight model, with margins over speed.");
    case Station::home:
      return QObject::tr("Not built yet. Here the way home after a lost link will be planned and simulated.");
    case Station::logbook:
      return QObject::tr("Not built yet. Here flights will be written down and turned into the next change.");
    default: return {};
  }
}

}  // namespace

PlannedPage::PlannedPage(Station station, RigDocument& document, QWidget* parent) : StationPage(document, parent) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(32, 48, 32, 32);
  auto* question = new QLabel(QString::fromStdString(station_question(station)));
  question->setFont(Look::instance().text(16, true));
  question->setWordWrap(true);
  auto* line = new QLabel(what_will_be_there(station));
  line->setProperty("soft", true);
  line->setWordWrap(true);
  layout->addWidget(question);
  layout->addWidget(line);
  layout->addStretch();
}

}  // namespace rigging::app
