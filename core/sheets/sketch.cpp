#include "sheets/sketch.h"

#include <algorithm>
#include <cmath>
#include <cstring>

#include "base/clean_text.h"
#include "base/number.h"
#include "base/polyline.h"
#include "base/words.h"

namespace rigging {

std::string escaped(const std::string& text) {
  // XML has no way to say control characters.
  return replaced(clean_text(text, text.size()), {{"&", "&amp;"}, {"<", "&lt;"}, {">", "&gt;"}, {"\"", "&quot;"}});
}

std::string sheets_below_each_other(const std::vector<std::string>& sheets) {
  if (sheets.size() == 1) return sheets.front();
  constexpr double gap_mm = 10;
  const auto attribute = [](const std::string& tag, const char* name) {
    const std::size_t at = tag.find(std::string(name) + "=\"");
    if (at == tag.npos) return 0.0;
    const std::size_t from = at + std::strlen(name) + 2;
    return number_of(tag.substr(from, tag.find_first_not_of("0123456789.", from) - from)).value_or(0);
  };
  double width = 0, height = 0;
  std::string inside;
  for (const std::string& svg : sheets) {
    const std::size_t from = svg.find('>') + 1, to = svg.rfind("</svg>");
    const std::string tag = svg.substr(0, from);
    inside += "<g transform=\"translate(0 " + number_text(height, 2) + ")\">" + svg.substr(from, to - from) + "</g>\n";
    width = std::max(width, attribute(tag, "width"));
    height += attribute(tag, "height") + gap_mm;
  }
  return Sketch(width, height - gap_mm).svg + inside + "</svg>\n";
}

Sketch::Sketch(double width_mm, double height_mm) {
  const std::string w = number_text(width_mm, 2), h = number_text(height_mm, 2);
  svg = "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"" + w + "mm\" height=\"" + h + "mm\" viewBox=\"0 0 " + w +
        " " + h + "\" font-family=\"Rigging Text\">\n<rect x=\"0\" y=\"0\" width=\"" + w + "\" height=\"" + h +
        "\" fill=\"#fff\"/>\n";
}

void Sketch::text(double x, double y, const std::string& s, double size, const char* style, const char* anchor) {
  svg += "<text x=\"" + number_text(x, 2) + "\" y=\"" + number_text(y, 2) + "\" font-size=\"" + number_text(size, 2) +
         "\" text-anchor=\"" + anchor + "\" " + style + ">" + escaped(s) + "</text>\n";
}

void Sketch::fitted(double x, double y, const std::string& s, double size, double room, const char* style,
                    const char* anchor) {
  constexpr double letter = 0.56, least = 0.66;  // of the size: how wide a letter is, how small text may get
  const auto begins = [](char c) { return (c & 0xc0) != 0x80; };
  const auto count = static_cast<double>(letters(s));
  const double fits = std::clamp(room / (letter * std::max(1.0, count)), least * size, size);
  const double most = room / (letter * fits);
  if (count <= most + 0.5) return text(x, y, s, fits, style, anchor);
  std::size_t at = 0;
  for (double n = 0; at < s.size() && n < most - 1; ++at) n += begins(s[at]) ? 1 : 0;
  while (at < s.size() && !begins(s[at])) ++at;
  text(x, y, s.substr(0, at) + "…", fits, style, anchor);
}

void Sketch::box(double x, double y, double w, double h, double line, const char* fill) {
  svg += "<rect x=\"" + number_text(x, 2) + "\" y=\"" + number_text(y, 2) + "\" width=\"" + number_text(w, 2) +
         "\" height=\"" + number_text(h, 2) + "\" fill=\"" + fill + "\" stroke=\"#000\" stroke-width=\"" +
         number_text(line, 2) + "\"/>\n";
}

void Sketch::arrow(double x1, double y1, double x2, double y2, double width) {
  const double size = std::hypot(x2 - x1, y2 - y1), ux = (x2 - x1) / size, uy = (y2 - y1) / size;
  line(x1, y1, x2 - 2 * ux, y2 - 2 * uy, width);
  svg += "<polygon points=\"" + number_text(x2, 2) + "," + number_text(y2, 2) + " " +
         number_text(x2 - 2.6 * ux - 1.2 * uy, 2) + "," + number_text(y2 - 2.6 * uy + 1.2 * ux, 2) + " " +
         number_text(x2 - 2.6 * ux + 1.2 * uy, 2) + "," + number_text(y2 - 2.6 * uy - 1.2 * ux, 2) + "\"/>\n";
}

void Sketch::line(double x1, double y1, double x2, double y2, double width, const char* more) {
  svg += "<line x1=\"" + number_text(x1, 2) + "\" y1=\"" + number_text(y1, 2) + "\" x2=\"" + number_text(x2, 2) +
         "\" y2=\"" + number_text(y2, 2) + "\" stroke=\"#000\" stroke-width=\"" + number_text(width, 2) + "\" " + more +
         "/>\n";
}

void Sketch::circle(double x, double y, double r, double width, const char* fill) {
  svg += "<circle cx=\"" + number_text(x, 2) + "\" cy=\"" + number_text(y, 2) + "\" r=\"" + number_text(r, 2) +
         "\" fill=\"" + fill + "\" stroke=\"#000\" stroke-width=\"" + number_text(width, 2) + "\"/>\n";
}

void Sketch::bent(const std::vector<Eigen::Vector2d>& corners, double round, double width, const std::string& colour) {
  if (corners.empty()) return;
  const auto n = [](const Eigen::Vector2d& p) { return number_text(p.x(), 2) + " " + number_text(p.y(), 2); };
  std::string path = "M" + n(corners.front());
  for (const Bend& b : bends(corners, round)) path += " L" + n(b.enter) + " Q" + n(b.corner) + " " + n(b.leave);
  svg += "<path d=\"" + path + " L" + n(corners.back()) + "\" fill=\"none\" stroke=\"" + colour + "\" stroke-width=\"" +
         number_text(width, 2) + "\"/>\n";
}

}  // namespace rigging
