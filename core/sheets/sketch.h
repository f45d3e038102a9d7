#pragma once

#include <Eigen/Core>
#include <string>
#include <utility>
#include <vector>

#include "base/wrapped.h"

namespace rigging {

/// An A4 page, upright, and where its text begins and ends; millimetres.
namespace page {
inline constexpr double width_mm = 210, height_mm = 297, left = 15, right = 195;
}  // namespace page

/// Sheets of one `Sketch` each as one drawing, below each other with a gap of 10 mm.
std::string sheets_below_each_other(const std::vector<std::string>& sheets);

/// For text inside XML and HTML.
std::string escaped(const std::string& text);

/// Builds an SVG drawing in millimetres, in black on white unless a colour is given.
class Sketch {
 public:
  std::string svg;

  Sketch(double width_mm, double height_mm);
  std::string finished() const { return svg + "</svg>\n"; }
  void text(double x, double y, const std::string& s, double size, const char* style = "",
            const char* anchor = "start");
  /// In no more than `room` millimetres: smaller where it would not fit, down to two thirds, then cut with "…".
  void fitted(double x, double y, const std::string& s, double size, double room, const char* style = "",
              const char* anchor = "start");
  void box(double x, double y, double w, double h, double line, const char* fill = "none");
  /// With a solid tip: markers are beyond SVG Tiny, which many programs stop at.
  void arrow(double x1, double y1, double x2, double y2, double width);
  void line(double x1, double y1, double x2, double y2, double width, const char* more = "");
  void circle(double x, double y, double r, double width, const char* fill = "none");
  /// Straight from corner to corner, each rounded by `round` where its two sides are long enough.
  void bent(const std::vector<Eigen::Vector2d>& corners, double round, double width, const std::string& colour);
};

}  // namespace rigging
