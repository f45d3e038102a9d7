#pragma once

#include <filesystem>

#include "base/result.h"

namespace rigging::cli {

/// Drawings in SVG as the pages of one PDF. Made by the program rigging-paper, which is started for it: fonts and pages
/// need a windowing library, and no other command does.
Result<void> write_pdf(const std::vector<std::string>& svgs, const std::filesystem::path& file);

}  // namespace rigging::cli
