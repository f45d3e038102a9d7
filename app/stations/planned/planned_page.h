#pragma once

#include "stations/station_page.h"

namespace rigging::app {

/// A station that is not built yet: its question and one honest line.
class PlannedPage : public StationPage {
  Q_OBJECT
 public:
  PlannedPage(Station station, const PageContext& context);

 protected:
  void refresh() override {}
};

}  // namespace rigging::app
