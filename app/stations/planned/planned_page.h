#pragma once

#include "stations/station_page.h"

namespace rigging::app {

/// A station that is not built yet: its question and one honest line.
class PlannedPage : public StationPage {
  Q_OBJECT
 public:
  PlannedPage(Station station, RigDocument& document, QWidget* parent);
  void refresh() override {}
};

}  // namespace rigging::app
