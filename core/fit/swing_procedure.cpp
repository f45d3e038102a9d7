#include "fit/swing_procedure.h"

#include <algorithm>

#include "base/find.h"
#include "base/number.h"
#include "fit/swing.h"

namespace rigging {
namespace {

constexpr double least_ten_s = 2, most_ten_s = 200;
constexpr double metres_of_inch = 0.0254;

double metres(const Pressed& p) { return p.number * (p.unit == "in" ? metres_of_inch : 0.01); }

std::vector<NumberAsked::Unit> lengths() { return {{"cm", "cm", 1}, {"in", "in", 2}}; }

}  // namespace

Orders SwingProcedure::hear(const Event& event, const Scene& scene) {
  if (const auto* time = std::get_if<Time>(&event)) now_s_ = time->s;
  if (const auto* pressed = std::get_if<Pressed>(&event)) return press(*pressed, scene);
  return {};
}

Orders SwingProcedure::press(const Pressed& pressed, const Scene& scene) {
  const std::string& action = pressed.action;
  if (action == "swing_roll" || action == "swing_pitch" || action == "swing_yaw") {
    axis_ = *from_name<Axis>(action.substr(6));
    asks_ = Asks::apart, began_s_.reset(), said_.clear();
  } else if (action == "swing_apart") {
    apart_m_ = metres(pressed), asks_ = Asks::length;
  } else if (action == "swing_length") {
    length_m_ = metres(pressed), asks_ = Asks::swings;
  } else if (action == "swing_start") {
    began_s_ = now_s_;
  } else if (action == "swing_stop" && began_s_) {
    return take(now_s_ - *began_s_, scene);
  } else if (action == "swing_typed") {
    return take(pressed.number, scene);
  } else if (action == "swing_again") {
    asks_ = Asks::apart, began_s_.reset(), said_.clear();
  }
  return {};
}

Orders SwingProcedure::take(double ten_s, const Scene& scene) {
  began_s_.reset();
  if (!(ten_s >= least_ten_s && ten_s <= most_ten_s)) {
    said_ = number_text(ten_s, 1) + " s is no time for ten swings to and fro: 2 to 200 s. Once more.";
    return {};
  }
  auto edit = take_swing(scene.rig, scene.catalogue, axis_, apart_m_, length_m_, ten_s / 10);
  if (!edit) {
    said_ = edit.error().text();
    return {};
  }
  asks_ = Asks::nothing, said_.clear();
  return {ApplyEdit{std::move(*edit)}};
}

Card SwingProcedure::card(const Scene& scene) const {
  Card card;
  card.title = "Swing test";
  card.caution = "Propeller off, battery strapped in. Tie the strings to what holds, with something soft below.";
  card.picture.pose_deg = axis_ == Axis::roll    ? std::array<double, 3>{0, 90, 0}
                          : axis_ == Axis::pitch ? std::array<double, 3>{90, 0, 0}
                                                 : std::array<double, 3>{0, 0, 0};
  card.picture.axis = axis_;
  card.busy = began_s_.has_value();
  const auto add = [&](Action a) { card.actions.push_back(std::move(a)); };
  switch (asks_) {
    case Asks::apart:
      card.todo = hanging_words(axis_) + ". How far apart are the strings?";
      card.remark = "Ready to fly, upright strings of one length; the wider apart, the better it tells.";
      card.number = NumberAsked{"Between the strings", 2, 300, lengths()};
      add({.id = "swing_apart", .label = "So far apart", .main = true, .takes_number = true});
      break;
    case Asks::length:
      card.todo = "How long are the strings?";
      card.remark = "From where they are tied above to where they hold the model.";
      card.number = NumberAsked{"Length of a string", 20, 600, lengths()};
      add({.id = "swing_length", .label = "So long", .main = true, .takes_number = true});
      add({.id = "swing_again", .label = "Back", .hint = "The strings' distance once more"});
      break;
    case Asks::swings:
      card.todo = began_s_ ? "Count ten swings to and fro, then stop."
                           : "Turn it a little about the upright line, a hand's breadth at the tip, and let go.";
      card.remark = "It has to turn, not to sway. Start and stop as it passes the middle the same way.";
      if (began_s_) {
        add({.id = "swing_stop", .label = "Ten", .hint = "It has swung to and fro ten times", .main = true});
      } else {
        card.number = NumberAsked{"Seconds for ten swings", least_ten_s, most_ten_s, {{"s", "s", 1}}};
        add({.id = "swing_start", .label = "It swings: start the clock"});
        add({.id = "swing_typed",
             .label = "Take these seconds",
             .hint = "Ten swings by your own watch",
             .main = true,
             .takes_number = true});
      }
      add({.id = "swing_again", .label = "Back", .hint = "The strings once more"});
      break;
    case Asks::nothing: card.remark = "Twice the same within a twentieth is a good test."; break;
  }
  if (!said_.empty()) card.lines.push_back({said_, true});
  const auto swung = [&](Axis axis) {
    return find_in(scene.rig.fit.swings, [axis](const Swing& s) { return s.axis == axis; });
  };
  for (const Swing& s : scene.rig.fit.swings) {
    const Figure f = swung_inertia(s);
    const std::string words = f.name + ": " + number_text(f.value, 4) + " kg·m² (" + number_text(*f.least, 4) + " to " +
                              number_text(*f.most, 4) + ")" +
                              (counts(s, scene.rig) ? "." : ", with another mass than now: it does not count.");
    if (asks_ == Asks::nothing && s.axis == axis_)
      card.says = words;
    else
      card.lines.push_back({words, s.axis == axis_});
  }
  const auto next = std::find_if(all_axes.begin(), all_axes.end(), [&](Axis axis) { return !swung(axis); });
  for (const Axis axis : all_axes)
    if (axis != axis_ || asks_ == Asks::nothing)
      add({.id = "swing_" + std::string(name_of(axis)),
           .label = std::string(axis == axis_ ? "Once more" : "About the " + std::string(name_of(axis)) + " axis"),
           .hint = axis == axis_ ? "The same axis again" : "The test of another axis",
           .main = asks_ == Asks::nothing && next != all_axes.end() && axis == *next,
           .minor = asks_ != Asks::nothing});
  card.note = "It takes the place of the guess from the drawing in margins, gains and flights.";
  return card;
}

}  // namespace rigging
