#include "ask/movements.h"

#include <algorithm>

#include "airframe/airframe.h"
#include "ask/finder.h"
#include "ask/sayings.h"
#include "ask/things.h"
#include "base/number.h"
#include "direction/direction_checks.h"

namespace rigging {
namespace {

class Movements : public Finder {
 public:
  using Finder::Finder;

  void find() {
    if (!in_.split.number.empty()) return;
    directions();
    should_move();
  }

 private:
  struct Turning {
    Axis axis;
    bool positive;
  };
  /// What a stick is told to do, or what is done to the model.
  std::optional<Turning> turning(bool disturbance) const {
    const bool right = in_.has({"right"}), left = in_.has({"left"});
    const auto axis = axis_named(in_);
    if (disturbance) {
      if (in_.has({"nose"})) {
        if (in_.has({"down", "drop", "drops", "lower"})) return Turning{Axis::pitch, false};
        if (in_.has({"up", "lift", "lifts", "lifted", "raise", "raised"}) && !left && !right)
          return Turning{Axis::pitch, true};
        if (left != right) return Turning{Axis::yaw, right};
      }
      if (in_.has({"tail"}) && in_.has({"lift", "lifts", "lifted", "raise", "raised", "up"}))
        return Turning{Axis::pitch, false};
      if (in_.has({"wing"}) && left != right && in_.has({"lift", "lifts", "lifted", "raise", "raised", "up"}))
        return Turning{Axis::roll, left};
      if (in_.has({"wing"}) && left != right && in_.has({"drop", "drops", "lower", "down"}))
        return Turning{Axis::roll, right};
      if (in_.has({"swing", "swings", "swung", "yaw"}) && left != right) return Turning{Axis::yaw, right};
      if (in_.has({"tilt", "tilts", "tilted", "bank", "banks", "banked", "roll", "lean", "leans"}) && left != right)
        return Turning{Axis::roll, right};
      return {};
    }
    if (in_.has({"pull", "back"}) || (axis == Axis::pitch && in_.has({"up"}))) return Turning{Axis::pitch, true};
    if (in_.has({"forward"}) || (axis == Axis::pitch && in_.has({"down"})) || (in_.has({"push"}) && !left && !right))
      return Turning{Axis::pitch, false};
    if (left == right) return {};
    return Turning{axis && *axis != Axis::pitch ? *axis : Axis::roll, right};
  }

  /// "which way should the ailerons go when I push right", "what should the tail do when I lift the nose".
  void directions() {
    // "the elevator goes down when I pull": told, not asked.
    if (!in_.asks() &&
        (surfaces_named(of_, in_).empty() || !in_.has({"pull", "push", "stick"}) || !in_.has({"when", "if"})))
      return;
    const bool disturbance =
        (in_.has({"nose"}) && !in_.has({"stick"}) &&
         in_.has({"yaw", "push", "pushed", "turn", "turned", "move", "moved"})) ||
        in_.has({"tilt", "tilts", "tilted", "lift", "lifts", "lifted", "bank", "banks", "banked", "swing", "swings",
                 "swung", "raise", "raised", "drop", "drops", "lower", "lean", "leans"});
    const bool which = in_.has_row({"which", "way"}) || in_.has_row({"which", "direction"}) ||
                       in_.has_row({"what", "direction"}) || in_.has_row({"what", "way"}) ||
                       in_.has_row({"what", "should"}) || in_.has_row({"what", "happens"}) ||
                       in_.has_row({"what", "does"}) || in_.has_row({"how", "should"}) ||
                       in_.has_row({"should", "the"}) || (in_.begins({"why"}) && !surfaces_named(of_, in_).empty());
    if ((in_.asks() && !which) ||
        (!disturbance && !in_.has({"stick", "push", "pull", "right", "left", "up", "down", "back", "forward"})))
      return;
    const auto turned = turning(disturbance);
    if (!turned) return;
    std::vector<Surface> named = surfaces_named(of_, in_);
    std::vector<std::string> moves;
    for (const AxisAnswer& a : of_.review.reports.airframe().answers) {
      if (a.axis != turned->axis || a.direction == 0) continue;
      if (!named.empty() && std::find(named.begin(), named.end(), a.surface) == named.end()) continue;
      // The correction fights what was done to the model.
      const int sign = (turned->positive ? 1 : -1) * (disturbance ? -1 : 1);
      if (disturbance && a.surface.kind == SurfaceKind::motor && turned->axis != Axis::yaw) continue;
      moves.push_back(a.surface.label() + " " + motion_label(a.surface, a.direction * sign));
    }
    const std::string axis(name_of(turned->axis));
    const std::string sense(sense_word(turned->axis, turned->positive));
    const std::string done = disturbance ? turned->axis == Axis::roll  ? "Held banked to the " + sense
                                           : turned->axis == Axis::yaw ? "Nose swung to the " + sense
                                                                       : "Nose " + sense
                             : turned->axis == Axis::pitch
                                 ? std::string("Pitch stick ") + (turned->positive ? "back" : "forward")
                                 : capital(axis) + " stick to the " + sense;
    if (moves.empty())
      return found_.answer(5, done + ": nothing of what was named answers " + axis + " on this aircraft",
                           Station::proof);
    std::string how;
    if (disturbance && board())
      for (const ModeAnswer& m : board()->proof.modes)
        if (in_.has({name_of(m.mode)})) how = ". In " + std::string(name_of(m.mode)) + ": " + answer_words(m);
    if (!in_.asks()) how += ". The checks of station proof find what goes another way";
    found_.answer(5.5, done + ": " + in_a_row(moves) + how, Station::proof,
                  (disturbance ? "correction." : "stick.") + axis);
  }

  /// "the rudder moves when I roll": whether it should.
  void should_move() {
    if (in_.asks() || !in_.has({"when", "on", "with", "while"}) || !in_.has({"moves", "move", "goes", "answers"}))
      return;
    const auto surfaces = surfaces_named(of_, in_);
    if (surfaces.empty()) return;
    for (const Axis axis : all_axes) {
      if (!in_.has({name_of(axis)})) continue;
      const std::string stick = std::string(name_of(axis)) + " stick";
      for (const AxisAnswer& a : of_.review.reports.airframe().answers)
        if (a.axis == axis && a.direction != 0 && a.surface == surfaces.front())
          return found_.answer(4.6,
                               "So it should: on this aircraft " + a.surface.label() + " answers the " + stick +
                                   " (to the right, or back: " + motion_label(a.surface, a.direction) + ")",
                               Station::proof, "stick." + std::string(name_of(axis)));
      return found_.answer(4.6,
                           "It should not: nothing mixes " + std::string(name_of(axis)) + " into " +
                               surfaces.front().label() +
                               ". Channels exchanged (sticks), leads exchanged, or a weight in the mix",
                           Station::proof, "stick." + std::string(name_of(axis)));
    }
  }
};

}  // namespace

void find_movements(const AskedOf& of, const Sentence& sentence, Found& found) {
  Movements(of, sentence, found).find();
}

}  // namespace rigging
