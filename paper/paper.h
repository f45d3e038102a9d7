#pragma once

#include <QByteArray>
#include <QSizeF>
#include <filesystem>
#include <string>
#include <vector>

#include "base/result.h"

class QPainter;

/// Sheets on paper: what core/sheets draws as SVG becomes PDF pages. Needs no screen.
namespace rigging {

/// One page as large as the drawing says.
Result<void> write_pdf(const std::string& svg, const std::filesystem::path& file);
/// One page each.
Result<void> write_pdf(const std::vector<std::string>& svgs, const std::filesystem::path& file);

/// A sheet drawn as core/sheets writes it, to scale, its upper left corner at the painter's origin. Text stays text: on
/// paper made by a PDF engine it can be searched and copied. False when it is no drawing.
bool draw_sheet(QPainter& painter, const QByteArray& svg, double dots_per_mm);
/// How large a sheet is, in millimetres; empty when it is no drawing.
QSizeF sheet_size(const QByteArray& svg);

/// Makes the shipped typefaces known to the toolkit, once. "Rigging Text" and "Rigging Figures".
void add_shipped_fonts();

}  // namespace rigging
