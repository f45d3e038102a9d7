#pragma once

#include "catalogue/catalogue.h"
#include "reports/reports.h"
#include "rig/rig.h"

namespace rigging {

/// Paper tools true to scale, one page each of 210 × 297 mm: a ruler to check the printer on every page, a level wedge
/// for the nose-up angle and balance marks on the first, then throw gauges, one for each chord among the surfaces
/// (pairs share one), several on a page where they are small.
std::vector<std::string> gauge_sheets_svg(const Reports& reports);

}  // namespace rigging
