#include "sheets/gauge_sheets.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "base/angle.h"
#include "base/number.h"
#include "base/units.h"
#include "fit/fit.h"
#include "power/power.h"
#include "senses/level.h"
#include "sheets/sketch.h"
#include "surfaces/air_loads.h"

namespace rigging {
namespace {

constexpr double most_chord_mm = 150;  // what fits beside its scale

/// Paper shrinks and printers scale: whoever measures with paper measures the paper first.
void ruler(Sketch& s) {
  const double y = 281;
  s.text(page::left, y - 4,
         "Check the printer: this line must be exactly 150 mm long. If not, print without fitting to the page.", 3,
         "font-weight=\"bold\"");
  s.line(page::left, y, page::left + 150, y, 0.3);
  for (int mm = 0; mm <= 150; ++mm)
    s.line(page::left + mm, y, page::left + mm,
           y + (mm % 10 == 0  ? 4
                : mm % 5 == 0 ? 3
                              : 1.8),
           mm % 10 == 0 ? 0.3 : 0.15);
  for (int cm = 0; cm <= 15; ++cm) s.text(page::left + 10 * cm, y + 7.5, std::to_string(10 * cm), 2.6, "", "middle");
}

void heading(Sketch& s, const Rig& rig, const std::string& title) {
  s.text(page::left, 20, title, 7, "font-weight=\"bold\"");
  s.fitted(page::right, 20, rig.name, 4.5, 90, "font-weight=\"bold\"", "end");
}

std::string first_page(const Reports& reports) {
  const Rig& rig = reports.rig();
  Sketch s(page::width_mm, page::height_mm);
  heading(s, rig, "Wedge and balance marks");
  // The wing lies on the wedge, and level is that of the floor under the board.
  const double angle = rig.sensing.level_nose_up_deg.value_or(usual_level_deg) + rig.airframe.incidence_deg;
  s.text(page::left, 34,
         "Level wedge, wing " + number_text(angle, 1) + "° nose up" +
             (rig.sensing.level_nose_up_deg ? "" : " (usual; set the angle at station senses)"),
         4.2, "font-weight=\"bold\"");
  s.text(page::left, 40,
         "Glue it on card and cut it out twice. On a level table, wing on the slopes with its leading edge at the", 3);
  s.text(page::left, 44.5,
         "high end, the model stands as it flies. A flat underside lies some 2° less than the line from edge to edge.",
         3);
  // The slope is drawn against the lower edge; a steep one gets a shorter base.
  const double base = std::min(175.0, 60 / std::tan(std::max(0.5, angle) * rad)), high = base * std::tan(angle * rad);
  const double foot = 53 + std::max(high, 4.0);
  s.line(page::left, foot, page::left + base, foot, 0.4);
  s.line(page::left, foot, page::left + base, foot - high, 0.4);
  s.line(page::left + base, foot, page::left + base, foot - high, 0.4);
  s.text(page::left + base + 2, foot - high / 2, number_text(high, 1) + " mm", 3);
  s.text(page::left + 30, foot + 5, "tail", 3);
  s.text(page::left + base - 8, foot + 5, "nose", 3, "", "end");

  const FitReport& fit = reports.fit();
  const double behind_edge = 1000 * (fit.balance.wanted.value - rig.airframe.wing_at_m),
               first = 1000 * (fit.balance.first_flight.value - rig.airframe.wing_at_m);
  double y = foot + 26;
  s.text(page::left, y, "Balance marks", 4.2, "font-weight=\"bold\"");
  s.text(page::left, y + 6,
         "Lay the thick end on the leading edge at the root, under the wing, one each side of the body; prick the "
         "marks through.",
         3);
  s.text(page::left, y + 10.5,
         "Balance on the first-flight mark first. The marks are computed: they do not replace the maker's or the "
         "builder's own.",
         3);
  y += 20;
  for (const char* side : {"left", "right"}) {
    const double longest = std::max({behind_edge, first, 20.0}) + 12;
    const double to = std::min(page::left + longest, page::right);
    s.box(page::left, y, to - page::left, 10, 0.3);
    s.box(page::left, y, 1.2, 10, 0.3, "#000000");
    s.text(page::left + 4, y + 6, std::string("under the ") + side + " wing, leading edge here", 2.6);
    for (const auto& [mm, name] : {std::pair{behind_edge, "wanted"}, {first, "first flight"}}) {
      if (mm < 0 || page::left + mm > to) continue;
      s.line(page::left + mm, y - 3, page::left + mm, y + 13, 0.35);
      s.text(page::left + mm, name[0] == 'w' ? y - 4 : y + 16.5, std::string(name) + " " + number_text(mm, 0), 2.6, "",
             "middle");
    }
    y += 30;
  }
  if (behind_edge < 0)
    s.text(page::left, y,
           "The wanted balance point lies ahead of the leading edge at the root: measure it from the nose, " +
               length_text(fit.balance.wanted.value) + ".",
           3);
  ruler(s);
  return s.finished();
}

struct Gauge {
  double chord_m;
  std::string names;
  double up_deg, down_deg;

  double chord_mm() const { return 1000 * chord_m; }
  double drawn_mm() const { return std::min(chord_mm(), most_chord_mm); }
  double arc_mm() const { return drawn_mm() + 3; }
};

constexpr int most_deg = 40;                 ///< that a gauge reads, each way
constexpr double head_mm = 16;               ///< of the words above a gauge
constexpr double column_mm = 87;             ///< two of them stand beside each other
constexpr double from_mm = 44, to_mm = 273;  ///< what a page has between its words and its ruler

double width_of(const Gauge& g) { return std::max(column_mm, g.arc_mm() + 20); }
double half_of(const Gauge& g) { return (g.arc_mm() + 7) * std::sin(most_deg * rad) + 2; }
double height_of(const Gauge& g) { return head_mm + 2 * half_of(g); }

std::string wanted_words(const Gauge& g) {
  std::string words;
  for (const auto& [deg, way] : {std::pair{g.up_deg, "up"}, {g.down_deg, "down"}})
    if (deg > 0) words += (words.empty() ? " Wanted: " : ", ") + number_text(deg, 1) + "° " + way;
  return words.empty() ? words : words + " (at the wedges).";
}

/// One gauge with its words, its upper left corner at `x`, `y`; a dashed line around it is for the scissors.
void draw_gauge(Sketch& s, const Gauge& g, double x, double y) {
  const double width = width_of(g), drawn = g.drawn_mm(), chord = g.chord_mm(), arc = g.arc_mm();
  s.fitted(x + 2, y + 5.5, capital(g.names), 4, width - 4, "font-weight=\"bold\"");
  s.fitted(x + 2, y + 10, "Hinge to trailing edge " + number_text(chord, 1) + " mm." + wanted_words(g), 2.8, width - 4);
  if (drawn < chord)
    s.fitted(x + 2, y + 14,
             "Too long for this paper: read " + number_text(drawn, 0) +
                 " mm from the hinge; the millimetres are those of the real edge.",
             2.8, width - 4, "font-weight=\"bold\"");
  const double cx = x + 8, cy = y + head_mm + half_of(g);
  // On a short chord the scales stand closer to the arc.
  const double k = std::clamp(arc / 60, 0.5, 1.0);
  const auto at = [&](double radius, double deg) {
    return std::pair{cx + radius * std::cos(deg * rad), cy - radius * std::sin(deg * rad)};
  };
  const auto ray = [&](double from, double to, double deg, double thick, const char* more = "") {
    const auto a = at(from, deg), b = at(to, deg);
    s.line(a.first, a.second, b.first, b.second, thick, more);
  };
  for (int deg = -most_deg; deg < most_deg; ++deg) {
    const auto a = at(arc, deg), b = at(arc, deg + 1);
    s.line(a.first, a.second, b.first, b.second, 0.3);
  }
  // Where a degree is too fine to be seen, every second one is drawn.
  const int step = arc * rad < 0.6 ? 2 : 1;
  for (int deg = -most_deg; deg <= most_deg; deg += step) {
    ray(arc, arc - k * (deg % 10 == 0 ? 9 : deg % 5 == 0 ? 6 : 3), deg, deg % 10 == 0 ? 0.35 : 0.15);
    if (deg % 10 == 0) {
      const auto t = at(arc + 2, deg);
      s.text(t.first, t.second + 1, number_text(std::abs(deg), 0) + "°", 3);
    }
  }
  // Millimetres at the real trailing edge.
  const int most_mm = static_cast<int>(throw_m(chord, most_deg));
  for (int mm = -most_mm; mm <= most_mm; ++mm) {
    if (mm % 5 != 0) continue;
    const double deg = throw_deg(chord, mm);
    ray(arc - 12 * k, arc - 15 * k, deg, 0.2);
    if (mm % 10 == 0) {
      const auto t = at(arc - 15 * k - 4, deg);
      s.text(t.first, t.second + 0.8, number_text(std::abs(mm), 0), 2.4, "", "middle");
    }
  }
  s.line(cx - 6, cy, cx + arc - 15 * k - 7, cy, 0.3);
  s.circle(cx, cy, 1.2, 0.3);
  s.text(cx - 5.5, cy + 4, "hinge", 2.4);
  // What is wanted is pointed at from outside the numbers, where nothing is written.
  for (const double deg : {g.up_deg, -g.down_deg}) {
    if (deg == 0 || std::abs(deg) > most_deg) continue;
    const auto tip = at(arc + 8.5, deg), a = at(arc + 11.5, deg + 70 / arc), b = at(arc + 11.5, deg - 70 / arc);
    s.line(tip.first, tip.second, a.first, a.second, 0.35);
    s.line(tip.first, tip.second, b.first, b.second, 0.35);
    s.line(a.first, a.second, b.first, b.second, 0.35);
  }
  const char* cut = "stroke-dasharray=\"1 1.5\"";
  const double bottom = y + height_of(g);
  s.line(x, y, x + width, y, 0.12, cut);
  s.line(x, bottom, x + width, bottom, 0.12, cut);
  s.line(x, y, x, bottom, 0.12, cut);
  s.line(x + width, y, x + width, bottom, 0.12, cut);
}

/// As many on a page as stand there, in rows.
std::vector<std::string> gauge_pages(const Rig& rig, const std::vector<Gauge>& gauges) {
  std::vector<std::string> pages;
  constexpr double gap = page::right - page::left - 2 * column_mm;
  for (std::size_t i = 0; i < gauges.size();) {
    Sketch s(page::width_mm, page::height_mm);
    heading(s, rig, "Throw gauges");
    s.text(
        page::left, 30,
        "Cut at the dashed lines. Hold the paper square to the hinge line, the small ring on the hinge, the long line "
        "on the",
        3);
    s.text(page::left, 34.5,
           "fixed chord: the edge points at degrees (outside) and at millimetres as a ruler at the edge reads them "
           "(inside).",
           3);
    double x = page::left, y = from_mm, row = 0;
    for (; i < gauges.size(); ++i) {
      const Gauge& g = gauges[i];
      if (x > page::left && x + width_of(g) > page::right + 0.01) x = page::left, y += row + gap, row = 0;
      if (y > from_mm && y + height_of(g) > to_mm) break;
      draw_gauge(s, g, x, y);
      row = std::max(row, height_of(g));
      x += width_of(g) + gap;
    }
    ruler(s);
    pages.push_back(s.finished());
  }
  return pages;
}

}  // namespace

std::vector<std::string> gauge_sheets_svg(const Reports& reports) {
  const Rig& rig = reports.rig();
  std::vector<std::string> pages{first_page(reports)};
  std::vector<Gauge> gauges;
  const SurfacesReport& surfaces = reports.surfaces();
  for (const SurfaceAnswer& a : surfaces.answers) {
    const Linkage* l = rig.linkage(a.surface);
    if (!shape_of(rig, a.surface) && !(l && l->chord_m)) continue;
    const double chord = chord_of(rig, a.surface);
    const double up = l ? l->want_up_deg.value_or(0) : 0, down = l ? l->want_down_deg.value_or(0) : 0;
    const auto same = std::find_if(gauges.begin(), gauges.end(), [&](const Gauge& g) {
      return std::abs(g.chord_m - chord) < 0.0005 && g.up_deg == up && g.down_deg == down;
    });
    if (same == gauges.end())
      gauges.push_back({chord, a.surface.label(), up, down});
    else
      same->names += ", " + a.surface.label();
  }
  for (std::string& page : gauge_pages(rig, gauges)) pages.push_back(std::move(page));
  return pages;
}

}  // namespace rigging
