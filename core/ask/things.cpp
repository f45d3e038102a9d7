#include "ask/things.h"

#include <algorithm>

#include "airframe/airframe.h"
#include "base/number.h"
#include "power/network.h"

namespace rigging {

const Part* part_named(const AskedOf& of, const std::vector<std::string>& words, double* how_well) {
  const Part* best = nullptr;
  double fit = 0;
  for (const Part& p : of.rig.parts) {
    const PartKind* k = of.catalogue.part(p.kind);
    double own = names(words, part_name(of.rig, of.catalogue, p.id));
    if (k) own = std::max({own, names(words, label_of(name_of(k->group))), names(words, k->name) - 0.2});
    if (k && k->group == PartGroup::satellite_receiver && said(words, "satellite")) own = std::max(own, 1.6);
    if (own > fit) fit = own, best = &p;
  }
  if (how_well) *how_well = fit;
  return best;
}

std::vector<const Part*> parts_of(const AskedOf& of, PartGroup group) {
  std::vector<const Part*> all;
  for (const Part& p : of.rig.parts)
    if (const PartKind* k = of.catalogue.part(p.kind); k && k->group == group) all.push_back(&p);
  return all;
}

namespace {

bool surface_kind_said(const std::string& word) {
  return std::any_of(Names<SurfaceKind>::list.begin(), Names<SurfaceKind>::list.end(),
                     [&](const auto& known) { return like(word, std::string(known.second)); });
}

}  // namespace

std::vector<Surface> surfaces_named(const AskedOf& of, const Sentence& sentence) {
  const auto& words = sentence.words;
  // "when I push right" says nothing of which aileron.
  const auto side_said = [&](std::string_view side) {
    constexpr std::size_t reach = 4;
    for (std::size_t i = 0; i < sentence.all.size(); ++i)
      // "the right throw" is no side.
      if (sentence.all[i] == side &&
          (i + 1 == sentence.all.size() || (!like(sentence.all[i + 1], "throw") && sentence.all[i + 1] != "way")))
        for (std::size_t k = i + 1; k < std::min(i + reach, sentence.all.size()); ++k)
          if (const std::string& w = sentence.all[k]; like(w, "aileron") || like(w, "elevator") || like(w, "rudder") ||
                                                      like(w, "servo") || like(w, "half") || surface_kind_said(w))
            return true;
    return false;
  };
  const bool left = side_said("left"), right = side_said("right"), both = left == right;
  const auto on_side = [&](Surface s) { return both || s.side == Side::single || (s.side == Side::left) == left; };
  std::vector<Surface> all, by_name, by_axis;
  for (const Output& o : of.rig.outputs)
    for (const Surface s : o.surfaces)
      if (s.kind != SurfaceKind::motor && std::find(all.begin(), all.end(), s) == all.end()) all.push_back(s);
  const bool v = said(words, "vtail") || sentence.has_row({"inverted", "v"});
  for (const Surface s : all)
    if (said(words, std::string(name_of(s.kind))) ||
        (v && (s.kind == SurfaceKind::vtail || s.kind == SurfaceKind::inverted_v)))
      if (on_side(s)) by_name.push_back(s);
  if (!by_name.empty()) return by_name;
  for (const auto& [word, axis] : {std::pair{"aileron", Axis::roll}, {"elevator", Axis::pitch}, {"rudder", Axis::yaw}})
    if (said(words, word))
      for (const AxisAnswer& a : of.review.reports.airframe().answers)
        if (a.axis == axis && a.direction != 0 && a.surface.kind != SurfaceKind::motor && on_side(a.surface))
          by_axis.push_back(a.surface);
  return by_axis;
}

std::optional<Axis> axis_named(const Sentence& sentence) {
  for (const auto& [word, axis] : {std::pair{"roll", Axis::roll},
                                   {"pitch", Axis::pitch},
                                   {"yaw", Axis::yaw},
                                   {"aileron", Axis::roll},
                                   {"elevator", Axis::pitch},
                                   {"rudder", Axis::yaw}})
    if (said(sentence.words, word)) return axis;
  return {};
}

std::vector<const Output*> outputs_numbered(const AskedOf& of, const Sentence& sentence) {
  std::vector<const Output*> all;
  for (const std::string& w : sentence.all)
    if (is_digit(w.front()))
      for (const Output& o : of.rig.outputs)
        if (o.id.substr(o.id.find_last_of('_') + 1) == w) all.push_back(&o);
  return all;
}

std::string socket_label(const AskedOf& of, const std::string& socket) {
  const ControllerClass* board = of.review.reports.controller();
  const Terminal* t = board ? board->terminal(socket) : nullptr;
  return t && !t->label.empty() ? t->label : socket;
}

double names_otherwise(const std::vector<std::string>& asked, const std::string& section, const std::string& member) {
  const std::string place = section + "/" + member;
  double best = 0;
  for (const auto& [known, words] : {std::pair{"home/return_height_m", "return height"},
                                     {"home/return_height_m", "home height"},
                                     {"home/return_height_m", "height come home"},
                                     {"airframe/span_m", "wing"},
                                     {"airframe/tail_arm_m", "tail wing"},
                                     {"airframe/length_m", "fuselage"},
                                     {"home/loss_hold_s", "wait"},
                                     {"home/circle_radius_m", "circle radius"},
                                     {"home/turn_home_v", "turn return voltage"},
                                     {"home/wind_m_s", "wind speed"},
                                     {"home/area_m", "flying area"},
                                     {"home/area_m", "area"},
                                     {"fit/frame_mass_kg", "empty weight"},
                                     {"power/reserve_share", "reserve"},
                                     {"airframe/wing_at_m", "long nose"},
                                     {"airframe/fast_m_s", "top speed"},
                                     {"airframe/mass_kg", "take off weight"}})
    if (place == known) best = std::max(best, names(asked, words));
  return best;
}

}  // namespace rigging
