#include "sheets/hand_card_sheet.h"

#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "sheets/sketch.h"

namespace rigging {
namespace {

/// The board seen from above, arrow up, with the sockets concerned drawn bold.
void sketch_board(Sketch& s, const ControllerClass& controller, const std::vector<std::string>& bold, double left,
                  double top, double side) {
  const double scale = side / std::max(controller.width_mm, controller.length_mm);
  const double w = controller.width_mm * scale, h = controller.length_mm * scale, x0 = left + (side - w) / 2;
  s.box(x0, top, w, h, 0.5);
  s.arrow(x0 + w / 2, top + h * 0.62, x0 + w / 2, top + h * 0.34, 0.5);
  s.text(x0 + w / 2, top + h * 0.7, "arrow: nose", 2.4, "", "middle");
  for (const Terminal& o : controller.outputs) {
    const bool marked = std::find(bold.begin(), bold.end(), o.id) != bold.end();
    const double x = x0 + o.x_mm * scale, y = top + h - o.y_mm * scale;
    const double half = std::min(2.2, w / static_cast<double>(controller.outputs.size()) / 3.2);
    s.box(x - half, y - 3, 2 * half, 5.4, marked ? 1.1 : 0.3, marked ? "#ddd" : "#fff");
    if (marked) s.text(x, y + 6.4, o.label, 3.2, "font-weight=\"bold\"", "middle");
  }
}

void sketch_transmitter(Sketch& s, const direction::Fault& f, double left, double top) {
  s.box(left + 2, top + 8, 40, 27, 0.5);
  s.line(left + 38, top + 8, left + 42, top - 2, 0.5);
  s.circle(left + 13, top + 20, 6, 0.4);
  s.circle(left + 31, top + 20, 6, 0.4);
  const bool upright = f.axis == Axis::pitch;
  const double x = left + (f.axis == Axis::yaw ? 13 : 31), y = top + 20;
  if (upright) {
    s.arrow(x, y, x, y - 5, 0.7);
    s.arrow(x, y, x, y + 5, 0.7);
  } else {
    s.arrow(x, y, x + 5, y, 0.7);
    s.arrow(x, y, x - 5, y, 0.7);
  }
  s.text(left + 22, top + 32, std::string(name_of(f.axis)) + " channel", 2.8, "", "middle");
  s.text(left + 22, top + 40, "stick sides vary by pilot", 2.2, "", "middle");
}

void sketch_linkage(Sketch& s, double left, double top) {
  s.box(left + 4, top + 16, 16, 10, 0.5);
  s.line(left + 12, top + 6, left + 12, top + 30, 1.2);
  s.line(left + 12, top + 30, left + 40, top + 30, 0.5, "stroke-dasharray=\"1.5 1\"");
  s.line(left + 12, top + 7, left + 40, top + 12, 0.7);
  s.circle(left + 12, top + 7, 1.2, 0.5);
  s.circle(left + 12, top + 29, 1.2, 0.5);
  s.text(left + 22, top + 5, "now", 2.6);
  s.text(left + 22, top + 35, "move the rod here", 2.6);
}

}  // namespace

std::string hand_card_svg(const HandCard& card, const Rig& rig, const ControllerClass& controller,
                          const direction::Case& c) {
  Sketch s(148, 105);
  s.box(3, 3, 142, 99, 0.4);
  double y = 12;
  for (const std::string& line : wrapped(card.title, 58)) {
    s.text(8, y, line, 4.6, "font-weight=\"bold\"");
    y += 6;
  }
  s.fitted(8, y, rig.name + " · " + controller.name, 2.9, 130);
  y += 5;
  for (const std::string& line : wrapped(card.because, 88)) {
    s.text(8, y, line, 2.9);
    y += 4;
  }
  y += 3;
  const double sketch_top = y;
  int number = 0;
  for (const std::string& step : card.steps) {
    ++number;
    s.circle(11, y - 1.1, 2.6, 0.4);
    s.text(11, y - 0.1, std::to_string(number), 3, "", "middle");
    for (const std::string& line : wrapped(step, 52)) {
      s.text(16, y, line, 3.2);
      y += 4.3;
    }
    y += 2;
  }
  const auto socket = [&](int index) {
    const Output* o = output_in(rig, c, index);
    return o ? o->socket : std::string();
  };
  switch (card.fault.kind) {
    case direction::FaultKind::transmitter_reversed:
    case direction::FaultKind::transmitter_swapped: sketch_transmitter(s, card.fault, 97, sketch_top); break;
    case direction::FaultKind::linkage_opposed: sketch_linkage(s, 97, sketch_top); break;
    default:
      sketch_board(s, controller, {socket(card.fault.output), socket(card.fault.other_output)}, 99, sketch_top - 2, 42);
  }
  double foot = 99 - 4.0 * static_cast<double>(card.cautions.size() - 1);
  s.line(3, foot - 5, 145, foot - 5, 0.3);
  for (const std::string& caution : card.cautions) {
    s.text(8, foot, "! " + caution, 3, "font-weight=\"bold\"");
    foot += 4;
  }
  return s.finished();
}

}  // namespace rigging
