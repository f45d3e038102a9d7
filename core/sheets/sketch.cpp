#include "sheets/sketch.h"

#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "base/words.h"

namespace rigging {

std::string escaped(const std::string& text) {
  // XML has no way to say control characters.
  std::string plain = text;
  for (char& c : plain)
    if (static_cast<unsigned char>(c) < 0x20 || c == 0x7f) c = ' ';
  return replaced(plain, {{"&", "&amp;"}, {"<", "&lt;"}, {">", "&gt;"}, {"\"", "&quot;"}});
}

std::vector<std::string> wrapped(const std::string& text, std::size_t most) {
  std::vector<std::string> lines{""};
  std::size_t letters = 0;
  for (std::size_t at = 0; at < text.size();) {
    const std::size_t end = std::min(text.find(' ', at), text.size());
    const std::string piece = text.substr(at, end - at);
    const auto length = static_cast<std::size_t>(
        std::count_if(piece.begin(), piece.end(), [](char ch) { return (ch & 0xc0) != 0x80; }));
    if (letters > 0 && letters + 1 + length > most) {
      lines.emplace_back();
      letters = 0;
    }
    if (letters > 0) {
      lines.back() += ' ';
      ++letters;
    }
    lines.back() += piece;
    letters += length;
    at = end + 1;
  }
  return lines;
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

void Sketch::circle(double x, double y, double r, double width) {
  svg += "<circle cx=\"" + number_text(x, 2) + "\" cy=\"" + number_text(y, 2) + "\" r=\"" + number_text(r, 2) +
         "\" fill=\"none\" stroke=\"#000\" stroke-width=\"" + number_text(width, 2) + "\"/>\n";
}

void Sketch::curve(const double (&xy)[8], double width, const std::string& colour, const char* more) {
  const auto n = [](double v) { return number_text(v, 2); };
  svg += "<path d=\"M" + n(xy[0]) + " " + n(xy[1]) + " C" + n(xy[2]) + " " + n(xy[3]) + " " + n(xy[4]) + " " +
         n(xy[5]) + " " + n(xy[6]) + " " + n(xy[7]) + "\" fill=\"none\" stroke=\"" + colour + "\" stroke-width=\"" +
         n(width) + "\" " + more + "/>\n";
}

}  // namespace rigging
