#include "stations/entries.h"

#include "stations/airframe/airframe_page.h"
#include "stations/feel/feel_page.h"
#include "stations/fit/fit_page.h"
#include "stations/home/home_page.h"
#include "stations/planned/planned_page.h"
#include "stations/power/power_page.h"
#include "stations/proof/proof_page.h"
#include "stations/senses/senses_page.h"
#include "stations/sticks/sticks_page.h"
#include "stations/surfaces/surfaces_page.h"
#include "stations/wiring/wiring_page.h"

namespace rigging::app {
namespace {

template <class Page>
StationPage* make(const PageContext& context) {
  return new Page(context);
}

}  // namespace

std::vector<PageEntry>& page_entries() {
  static std::vector<PageEntry> all{{Station::airframe, make<AirframePage>}, {Station::fit, make<FitPage>},
                                    {Station::power, make<PowerPage>},       {Station::wiring, make<WiringPage>},
                                    {Station::sticks, make<SticksPage>},     {Station::surfaces, make<SurfacesPage>},
                                    {Station::senses, make<SensesPage>},     {Station::feel, make<FeelPage>},
                                    {Station::home, make<HomePage>},         {Station::proof, make<ProofPage>}};
  return all;
}

StationPage* make_page(Station station, const PageContext& context) {
  for (const PageEntry& e : page_entries())
    if (e.station == station) return e.make(context);
  return new PlannedPage(station, context);
}

}  // namespace rigging::app
