#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "base/result.h"

/// Sheets on paper: what core/sheets draws as SVG becomes PDF pages. Needs no screen.
namespace rigging {

/// One page as large as the drawing says.
Result<void> write_pdf(const std::string& svg, const std::filesystem::path& file);
/// One page each.
Result<void> write_pdf(const std::vector<std::string>& svgs, const std::filesystem::path& file);

/// Makes the shipped typefaces known to the toolkit, once. "Rigging Text" and "Rigging Figures".
void add_shipped_fonts();

}  // namespace rigging
