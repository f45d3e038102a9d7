#include "sheets/wiring_sheets.h"

#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "base/units.h"
#include "sheets/sketch.h"

namespace rigging {
namespace {

const char* ink_of(const std::string& strand) {
  if (strand == "minus") return "#2B1D14";
  if (strand == "plus") return "#B3261E";
  if (strand == "signal") return "#C28A12";
  if (strand == "transmit") return "#0E6E66";
  if (strand == "receive") return "#7A3B69";
  return "#44607A";
}

/// Smaller where it would not fit; a letter is about 0.56 of the size wide.
void fitted(Sketch& s, double x, double y, const std::string& text, double size, double room, const char* style = "") {
  const auto letters = std::count_if(text.begin(), text.end(), [](char c) { return (c & 0xc0) != 0x80; });
  s.text(x, y, text, std::min(size, room / (0.56 * static_cast<double>(std::max<std::ptrdiff_t>(1, letters)))), style);
}

}  // namespace

std::string plug_list_svg(const Rig& rig, const Catalogue& catalogue) {
  constexpr double w = 210, left = 14, right = 196, bottom = 285;
  Sketch s(w, 297);
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  s.text(left, 20, "Plug list", 7, "font-weight=\"bold\"");
  s.text(right, 20, rig.name, 4.5, "font-weight=\"bold\"", "end");
  s.text(right, 26, c ? c->name : rig.controller.kind, 3.2, "", "end");
  double y = 32;
  std::vector<std::string> cautions{
      "Propeller off. Battery out while anything is plugged or unplugged. Check plus and minus before the first "
      "power."};
  if (c && !c->minus_edge.empty())
    cautions.push_back("Minus (black or brown) of a servo plug: " + c->minus_edge +
                       ". Labels beside a row may be off by a pin: look at the wires.");
  for (const std::string& caution : cautions)
    for (const std::string& line : wrapped("! " + caution, 108)) {
      s.text(left, y, line, 3.1, "font-weight=\"bold\"");
      y += 4.4;
    }
  y += 3;
  const WiringReport report = analyze_wiring(rig, catalogue);
  const double rows = static_cast<double>(report.loom.size()) + static_cast<double>(rig.outputs.size()) + 5;
  const double pitch = std::clamp((bottom - y) / std::max(1.0, rows), 3.2, 6.2), size = std::min(3.1, pitch * 0.62);
  const double columns[] = {left, left + 7, left + 15, left + 62, left + 110, left + 132, left + 148};
  const char* heads[] = {"", "no.", "from", "to", "lead", "length", "remarks"};
  for (int i = 0; i < 7; ++i) s.text(columns[i], y, heads[i], size, "font-weight=\"bold\"");
  s.line(left, y + 1.4, right, y + 1.4, 0.4);
  y += pitch;
  int number = 0;
  for (const LoomRow& row : report.loom) {
    s.box(columns[0], y - size * 0.85, size, size, 0.25);
    s.text(columns[1], y, std::to_string(++number), size);
    fitted(s, columns[2], y, capital(row.from) + " · " + row.from_socket, size, 45);
    fitted(s, columns[3], y, capital(row.to) + " · " + row.to_socket, size, 46);
    s.text(columns[4], y, spoken(word(row.kind)), size);
    s.text(columns[5], y, length_text(row.length_m), size);
    s.text(columns[6], y, row.remarks, size, row.remarks.empty() ? "" : "font-weight=\"bold\"");
    s.line(left, y + pitch * 0.32, right, y + pitch * 0.32, 0.1);
    y += pitch;
  }
  if (report.loom.empty()) {
    s.text(columns[2], y, "No leads are planned yet.", size);
    y += pitch;
  }
  y += pitch;
  s.text(left, y, "Outputs", size * 1.15, "font-weight=\"bold\"");
  s.line(left, y + 1.4, right, y + 1.4, 0.4);
  y += pitch;
  for (const Output& o : rig.outputs) {
    std::string what;
    for (const Surface surface : o.surfaces) what += (what.empty() ? "" : " and ") + surface.spoken();
    if (what.empty()) what = rig.airframe.kind == AirframeKind::towed_glider ? "tow release" : "motor";
    const Terminal* t = c ? c->socket(o.socket) : nullptr;
    s.text(columns[2], y, t ? t->label : o.socket.empty() ? "receiver" : o.socket, size, "font-weight=\"bold\"");
    s.text(columns[3], y, capital(what), size);
    s.text(columns[4], y,
           number_text(o.rate_hz, 0) + " Hz" +
               (t && t->timer_group > 0 ? ", timer group " + std::to_string(t->timer_group) : ""),
           size);
    y += pitch;
  }
  s.text(left, 292, "Written down before the hatch closes. The configuration is made from this list.", 2.6);
  return s.finished();
}

std::string wiring_drawing_svg(const Rig& rig, const Catalogue& catalogue) {
  constexpr double width = 297, height = 210, head = 16;
  const WiringLayout layout = layout_wiring(rig, catalogue, width, height - head - 8);
  Sketch s(width, height);
  s.text(8, 11, "Wiring of " + rig.name, 5.5, "font-weight=\"bold\"");
  s.text(width - 8, 11, "numbers as in the plug list", 3, "", "end");
  s.svg += "<g transform=\"translate(0 " + number_text(head, 0) + ")\">\n";
  if (layout.board_w > 0) {
    s.box(layout.board_x, layout.board_y, layout.board_w, layout.board_h, 0.6);
    const double x = layout.board_x + layout.board_w / 2;
    const double y = layout.quiet_y;
    s.arrow(x, y + 2, x, y - 9, 0.5);
    const ControllerClass* c = catalogue.controller(rig.controller.kind);
    s.text(x, y + 6, c ? c->name : "", 3, "", "middle");
    s.text(x, y + 9.5, "arrow: nose", 2.4, "", "middle");
  }
  for (const WiringLayout::Curve& curve : layout.curves) {
    // Strands side by side; each keeps its own shape so that it can be followed.
    const double dx = curve.xy[6] - curve.xy[0], dy = curve.xy[7] - curve.xy[1],
                 size = std::max(1e-6, std::hypot(dx, dy));
    const double nx = -dy / size, ny = dx / size;
    for (std::size_t k = 0; k < curve.strands.size(); ++k) {
      const double off = (static_cast<double>(k) - (static_cast<double>(curve.strands.size()) - 1) / 2) * 0.75;
      double xy[8];
      for (int i = 0; i < 8; ++i) xy[i] = curve.xy[i] + off * (i % 2 == 0 ? nx : ny);
      s.curve(xy, 0.5, ink_of(curve.strands[k]));
    }
    const auto at = [&](double t, int i) {
      const double u = 1 - t;
      return u * u * u * curve.xy[i] + 3 * u * u * t * curve.xy[2 + i] + 3 * u * t * t * curve.xy[4 + i] +
             t * t * t * curve.xy[6 + i];
    };
    // Numbers sit at different shares of the way, so that neighbours do not hide each other.
    const double t = 0.28 + 0.11 * (curve.number % 5);
    s.svg += "<circle cx=\"" + number_text(at(t, 0), 2) + "\" cy=\"" + number_text(at(t, 1), 2) +
             "\" r=\"2.3\" fill=\"#fff\" stroke=\"#000\" stroke-width=\"0.25\"/>\n";
    s.text(at(t, 0), at(t, 1) + 0.95, std::to_string(curve.number), 2.7, "", "middle");
    if (curve.plus_removed) s.text(at(t, 0) + 3, at(t, 1) + 1, "red out", 2.3, "font-weight=\"bold\"");
    if (curve.crossed_wrongly) s.text(at(t, 0) + 3, at(t, 1) + 1, "! turned", 2.3, "font-weight=\"bold\"");
  }
  for (const WiringLayout::Box& b : layout.boxes) {
    s.box(b.x, b.y, b.w, b.h, 0.4, "#fff");
    fitted(s, b.x + 1.5, b.y + 3.6, capital(b.name), 2.9, b.w - 3, "font-weight=\"bold\"");
  }
  for (const WiringLayout::Spot& spot : layout.spots) {
    if (spot.on_board) {
      if (spot.pad)
        s.circle(spot.x, spot.y, 1.5, 0.35);
      else
        s.box(spot.x - 1.5, spot.y - 1.5, 3, 3, 0.35, "#fff");
      // Labels inside the board, away from the leads.
      const double x = spot.x - spot.out_x * 2.4, y = spot.y - spot.out_y * 3.0 + 0.8;
      s.text(x, y, spot.label, 2.1, "", spot.out_x < 0 ? "start" : spot.out_x > 0 ? "end" : "middle");
    } else {
      s.svg += "<circle cx=\"" + number_text(spot.x, 2) + "\" cy=\"" + number_text(spot.y, 2) +
               "\" r=\"0.9\" fill=\"#000\"/>\n";
      if (spot.out_x != 0)
        s.text(spot.x - spot.out_x * 1.8, spot.y + 0.8, spot.label, 2.3, "", spot.out_x > 0 ? "end" : "start");
      else
        s.text(spot.x, spot.y + 7.4, spot.label, 2.1, "", "middle");
    }
  }
  s.svg += "</g>\n";
  s.text(8, height - 4,
         "Wires: minus dark, plus red, signal ochre, data pair teal and plum. Propeller off and battery out while "
         "plugging.",
         2.7);
  return s.finished();
}

}  // namespace rigging
