#pragma once

#include "stations/station_page.h"

namespace rigging::app {

/// A station in the application: which one, and how its page is made. Everything else that the window needs is asked of
/// the page itself.
struct PageEntry {
  Station station = Station::airframe;
  StationPage* (*make)(const PageContext&) = nullptr;
};

/// The stations that have a page. Open until the window is made: a test can add to it.
std::vector<PageEntry>& page_entries();

/// The page of the station; of one that is not built yet its question and one honest line.
StationPage* make_page(Station station, const PageContext& context);

}  // namespace rigging::app
