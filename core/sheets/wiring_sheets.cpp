#include "sheets/wiring_sheets.h"

#include "base/number.h"
#include "base/polyline.h"
#include "base/units.h"
#include "sheets/sketch.h"

namespace rigging {
namespace {

constexpr double corner_mm = 1.6;

const char* ink_of(const std::string& strand) {
  if (strand == "minus") return "#2B1D14";
  if (strand == "plus") return "#B3261E";
  if (strand == "signal") return "#C28A12";
  if (strand == "transmit") return "#0E6E66";
  if (strand == "receive") return "#7A3B69";
  return "#44607A";
}

/// The list on as many pages as it needs, each with its cautions.
class PlugListPages {
 public:
  PlugListPages(const Rig& rig, const Catalogue& catalogue)
      : rig_(rig), class_(catalogue.controller(rig.controller.kind)) {
    turn_over();
  }
  void heads(const std::vector<std::pair<double, const char*>>& heads) {
    if (y_ + 3 * pitch > bottom) turn_over();
    for (const auto& [x, words] : heads) s_.text(x, y_, words, size, "font-weight=\"bold\"");
    s_.line(left, y_ + 1.4, right, y_ + 1.4, 0.4);
    y_ += pitch;
  }
  /// The height at which the next row stands, on a new page where this one is full.
  double row() {
    if (y_ > bottom) turn_over();
    const double at = y_;
    y_ += pitch;
    return at;
  }
  void gap() { y_ += pitch; }
  Sketch& sheet() { return s_; }
  std::vector<std::string> finished() {
    finish();
    return std::move(pages_);
  }

  static constexpr double left = 14, right = 196, bottom = 284, pitch = 5.6, size = 3.1;

 private:
  void finish() {
    s_.text(left, 292, "Written down before the hatch closes. The configuration is made from this list.", 2.6);
    pages_.push_back(s_.finished());
  }
  void turn_over() {
    if (y_ > 0) finish();
    s_ = Sketch(page::width_mm, page::height_mm);
    s_.text(left, 20, pages_.empty() ? "Plug list" : "Plug list, page " + std::to_string(pages_.size() + 1), 7,
            "font-weight=\"bold\"");
    s_.fitted(right, 20, rig_.name, 4.5, 110, "font-weight=\"bold\"", "end");
    s_.fitted(right, 26, class_ ? class_->name : rig_.controller.kind, 3.2, 110, "", "end");
    y_ = 32;
    std::vector<std::string> cautions{
        "Propeller off. Battery out while anything is plugged or unplugged. Check plus and minus before the first "
        "power."};
    if (class_ && !class_->minus_edge.empty())
      cautions.push_back("Minus (black or brown) of a servo plug: " + class_->minus_edge +
                         ". Labels beside a row may be off by a pin: look at the wires.");
    for (const std::string& caution : cautions)
      for (const std::string& line : wrapped("! " + caution, 98)) {
        s_.text(left, y_, line, 3.1, "font-weight=\"bold\"");
        y_ += 4.4;
      }
    y_ += 3;
  }

  const Rig& rig_;
  const ControllerClass* class_;
  Sketch s_{page::width_mm, page::height_mm};
  double y_ = 0;
  std::vector<std::string> pages_;
};

}  // namespace

std::vector<std::string> plug_list_svg(const Rig& rig, const Catalogue& catalogue) {
  using P = PlugListPages;
  P pages(rig, catalogue);
  constexpr double tick = P::left, no = tick + 7, from = tick + 15, to = tick + 62, lead = tick + 110,
                   length = tick + 132, remarks = tick + 148;
  const WiringReport report = analyze_wiring(rig, catalogue);
  pages.heads({{no, "no."}, {from, "from"}, {to, "to"}, {lead, "lead"}, {length, "length"}, {remarks, "remarks"}});
  int number = 0;
  for (const HarnessRow& row : report.harness) {
    const double y = pages.row();
    Sketch& s = pages.sheet();
    s.box(tick, y - P::size * 0.85, P::size, P::size, 0.25);
    s.text(no, y, std::to_string(++number), P::size);
    s.fitted(from, y, capital(row.from) + " · " + row.from_socket, P::size, 45);
    s.fitted(to, y, capital(row.to) + " · " + row.to_socket, P::size, 46);
    s.text(lead, y, label_of(name_of(row.kind)), P::size);
    s.text(length, y, length_text(row.length_m), P::size);
    s.fitted(remarks, y, row.remarks, P::size, P::right - remarks, row.remarks.empty() ? "" : "font-weight=\"bold\"");
    s.line(P::left, y + P::pitch * 0.32, P::right, y + P::pitch * 0.32, 0.1);
  }
  if (report.harness.empty()) {
    const double y = pages.row();
    pages.sheet().text(from, y, "No leads are planned yet.", P::size);
  }
  pages.gap();
  pages.heads({{P::left, "Outputs"}});
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  for (const Output& o : rig.outputs) {
    std::string what;
    for (const Surface surface : o.surfaces) what += (what.empty() ? "" : " and ") + surface.label();
    if (what.empty()) what = rig.airframe.kind == AirframeKind::towed_glider ? "tow release" : "motor";
    const Terminal* t = c ? c->socket(o.socket) : nullptr;
    const double y = pages.row();
    Sketch& s = pages.sheet();
    s.fitted(from, y, t ? t->label : o.socket.empty() ? "receiver" : o.socket, P::size, 45, "font-weight=\"bold\"");
    s.fitted(to, y, capital(what), P::size, 46);
    s.text(lead, y,
           number_text(o.rate_hz, 0) + " Hz" +
               (t && t->timer_group > 0 ? ", timer group " + std::to_string(t->timer_group) : ""),
           P::size);
  }
  return pages.finished();
}

std::string wiring_drawing_svg(const Rig& rig, const Catalogue& catalogue) {
  constexpr double width = 297, height = 210, head = 16;
  // Laid out on a smaller sheet and enlarged: read at arm's length over an open hatch.
  constexpr double larger = 1.35;
  const WiringLayout layout = layout_wiring(rig, catalogue, width / larger, (height - head - 8) / larger);
  Sketch s(width, height);
  s.fitted(8, 11, "Wiring of " + rig.name, 5.5, width - 70, "font-weight=\"bold\"");
  s.text(width - 8, 11, "numbers as in the plug list", 3, "", "end");
  s.svg += "<g transform=\"translate(0 " + number_text(head, 0) + ") scale(" + number_text(width / layout.width, 4) +
           ")\">\n";
  if (layout.board_w > 0) {
    s.box(layout.board_x, layout.board_y, layout.board_w, layout.board_h, 0.6);
    const double x = layout.board_x + layout.board_w / 2;
    const double y = layout.quiet_y;
    s.arrow(x, y + 1, x, y - 8, 0.5);
    const ControllerClass* c = catalogue.controller(rig.controller.kind);
    s.fitted(x, y + 4.6, c ? c->name : "", 3, layout.board_w * 0.5, "", "middle");
    s.text(x, y + 7.8, "arrow: nose", 2.4, "", "middle");
  }
  for (const WiringLayout::Line& line : layout.lines) {
    // White beneath, so that the eye stays on one lead where two cross.
    const double strands = static_cast<double>(line.strands.size());
    s.bent(line.corners, corner_mm, 0.62 * strands + 0.7, "#fff");
    for (std::size_t k = 0; k < line.strands.size(); ++k) {
      const double off = (static_cast<double>(k) - (strands - 1) / 2) * 0.62;
      s.bent(beside(line.corners, off), corner_mm - off, 0.42, ink_of(line.strands[k]));
    }
  }
  for (const WiringLayout::Box& b : layout.boxes) {
    s.box(b.x, b.y, b.w, b.h, 0.4, "#fff");
    for (std::size_t i = 0; i < b.name.size(); ++i)
      s.fitted(b.x + 1.5, b.name_y + 2.6 + 3.0 * static_cast<double>(i), i == 0 ? capital(b.name[0]) : b.name[i], 2.7,
               b.w - 3, "font-weight=\"bold\"");
  }
  for (const WiringLayout::Spot& spot : layout.spots) {
    if (spot.on_board) {
      if (spot.pad)
        s.circle(spot.x, spot.y, 1, 0.35, "#fff");
      else
        s.box(spot.x - 1.2, spot.y - 1.2, 2.4, 2.4, 0.35, "#fff");
      // Labels inside the board, away from the leads.
      const double x = spot.x - spot.out_x * 2.0, y = spot.y - spot.out_y * (spot.inner ? 5.0 : 2.6) + 0.7;
      s.text(x, y, spot.label, 2.1, "", spot.out_x < 0 ? "start" : spot.out_x > 0 ? "end" : "middle");
    } else {
      s.svg += "<circle cx=\"" + number_text(spot.x, 2) + "\" cy=\"" + number_text(spot.y, 2) +
               "\" r=\"0.8\" fill=\"#000\"/>\n";
      if (spot.out_x != 0)
        s.text(spot.x - spot.out_x * 1.6, spot.y + 0.7, spot.label, 2.2, "", spot.out_x > 0 ? "end" : "start");
      else
        s.text(spot.x, spot.y - spot.out_y * 2.6 + 0.7, spot.label, 2.1, "", "middle");
    }
  }
  for (const WiringLayout::Line& line : layout.lines) {
    const double x = line.sign.x(), y = line.sign.y();
    s.circle(x, y, 1.8, 0.25, "#fff");
    s.text(x, y + 0.85, std::to_string(line.number), 2.4, "", "middle");
    const char* note = line.crossed_wrongly ? "! turned" : line.plus_removed ? "red out" : "";
    if (*note == 0) continue;
    s.box(x + 2, y - 1.4, 10.4, 2.8, 0.0, "#fff");
    s.text(x + 2.4, y + 0.9, note, 2.3, "font-weight=\"bold\"");
  }
  s.svg += "</g>\n";
  s.text(8, height - 4,
         "Wires: minus dark, plus red, signal ochre, data pair teal and plum. Propeller off and battery out while "
         "plugging.",
         2.7);
  return s.finished();
}

}  // namespace rigging
