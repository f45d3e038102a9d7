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
};

std::string gauge_page(const Rig& rig, const Gauge& g) {
  Sketch s(page::width_mm, page::height_mm);
  heading(s, rig, "Throw gauge");
  const double chord = 1000 * g.chord_m, drawn = std::min(chord, most_chord_mm);
  s.fitted(page::left, 28, capital(g.names), 4.2, 180, "font-weight=\"bold\"");
  s.text(page::left, 34,
         "Hinge to trailing edge " + number_text(chord, 1) +
             " mm. Cut outside the numbers. Hold the paper square to the hinge line, its centre on the hinge,",
         3);
  s.text(page::left, 38.5,
         "the long line on the fixed chord: the edge points at degrees (outside) and millimetres as a ruler reads them "
         "(inside).",
         3);
  if (drawn < chord)
    s.text(page::left, 43,
           "Too long for this paper: read at " + number_text(drawn, 0) +
               " mm from the hinge; the millimetres are those of the real edge.",
           3, "font-weight=\"bold\"");
  const double cx = page::left + 8, cy = 158, arc = drawn + 3;
  const auto at = [&](double radius, double deg) {
    return std::pair{cx + radius * std::cos(deg * rad), cy - radius * std::sin(deg * rad)};
  };
  const int most = 40;
  for (int deg = -most; deg < most; ++deg) {
    const auto a = at(arc, deg), b = at(arc, deg + 1);
    s.line(a.first, a.second, b.first, b.second, 0.3);
  }
  for (int deg = -most; deg <= most; ++deg) {
    const auto a = at(arc, deg), b = at(arc - (deg % 10 == 0 ? 9 : deg % 5 == 0 ? 6 : 3), deg);
    s.line(a.first, a.second, b.first, b.second, deg % 10 == 0 ? 0.35 : 0.15);
    if (deg % 10 == 0) {
      const auto t = at(arc + 2, deg);
      s.text(t.first, t.second + 1, number_text(std::abs(deg), 0) + "°", 3);
    }
  }
  // Millimetres at the real trailing edge.
  for (int mm = -static_cast<int>(throw_m(chord, most)); mm <= static_cast<int>(throw_m(chord, most)); ++mm) {
    if (mm % 5 != 0) continue;
    const double deg = throw_deg(chord, mm);
    const auto a = at(arc - 12, deg), b = at(arc - 15, deg);
    s.line(a.first, a.second, b.first, b.second, 0.2);
    if (mm % 10 == 0) {
      const auto t = at(arc - 21, deg);
      s.text(t.first, t.second + 0.8, number_text(std::abs(mm), 0), 2.4, "", "middle");
    }
  }
  s.line(cx - 8, cy, cx + arc, cy, 0.3);
  s.circle(cx, cy, 1.2, 0.3);
  s.text(cx + 2, cy - 2, "hinge", 2.6);
  for (const auto& [deg, name] : {std::pair{g.up_deg, "wanted up"}, {-g.down_deg, "wanted down"}}) {
    if (deg == 0 || std::abs(deg) > most) continue;
    const auto a = at(12, deg), b = at(arc - 24, deg);
    s.line(a.first, a.second, b.first, b.second, 0.35, "stroke-dasharray=\"3 2\"");
    s.text(b.first - 26, b.second + (deg > 0 ? -2 : 4), std::string(name) + " " + number_text(std::abs(deg), 1) + "°",
           2.8);
  }
  ruler(s);
  return s.finished();
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
  for (const Gauge& g : gauges) pages.push_back(gauge_page(rig, g));
  return pages;
}

}  // namespace rigging
