#include "surfaces/throws_procedure.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

#include "base/number.h"
#include "base/units.h"
#include "surfaces/air_loads.h"
#include "surfaces/edits.h"
#include "surfaces/surface_checks.h"
#include "surfaces/surfaces.h"

namespace rigging {
namespace {

constexpr std::array<double, 5> levels{0, -1, -0.5, 0.5, 1};  // the centre first: it is what is seen

bool drives(const Scene& scene) { return scene.controller && scene.controller->surfaces.drives_one_output; }

/// The controller drives an output for the asking now.
bool drives_now(const Scene& scene) { return drives(scene) && scene.bench.controller && scene.bench.battery; }

std::string moved_words(double deg, const char* way, const char* other) {
  return number_text(std::abs(deg), 1) + "° " + (deg >= 0 ? way : other);
}

Orders hold_sticks(const Command& c) {
  return {AskHands{hands::Stick{Axis::roll, c.roll}}, AskHands{hands::Stick{Axis::pitch, c.pitch}},
          AskHands{hands::Stick{Axis::yaw, c.yaw}}};
}

}  // namespace

Orders ThrowsProcedure::hear(const Event& event, const Scene& scene) {
  if (const auto* time = std::get_if<Time>(&event)) {
    now_s_ = time->s;
    eyes_on_ = eyes_on_ && state_ == State::reading && scene.bench.hands;
    if (eyes_on_ && settled()) return take(std::round(still_deg_ * 10) / 10, scene);
  } else if (const auto* seen = std::get_if<SurfacesSeen>(&event)) {
    if (const auto it = seen->deg.find(surface_); it != seen->deg.end()) watch(it->second);
  } else if (const auto* pressed = std::get_if<Pressed>(&event)) {
    return press(*pressed, scene);
  } else if (std::holds_alternative<SceneChanged>(event) && state_ == State::answered &&
             scene.rig.output_of(surface_)) {
    const bool same = linkage_of(scene.rig, surface_).readings == judged_;
    if (rests_ && !same) {
      state_ = State::idle;
      answer_.reset();
      problem_.clear();
    }
    rests_ = same;
  } else if (std::holds_alternative<SceneChanged>(event) && !scene.rig.output_of(surface_)) {
    // What is read must be there: the first hinged surface, until one is chosen.
    if (const auto all = hinged(scene.rig); !all.empty()) return choose(all.front(), scene);
  }
  return {};
}

Orders ThrowsProcedure::press(const Pressed& pressed, const Scene& scene) {
  const std::string& action = pressed.action;
  if (action == "choose") {
    const auto surface = surface_from_name(pressed.subject);
    if (!surface || *surface == surface_) return {};
    to_read_.clear();
    Orders orders = choose(*surface, scene);
    if (std::erase(read_, *surface) > 0) judge(scene.rig, scene);
    return orders;
  }
  if (action == "throw_all") return begin_all(scene);
  if (action == "throw_next") return next_read(scene);
  if (action == "throw_begin") {
    to_read_.clear();
    return begin(scene);
  }
  if (action == "throw_take")
    return take(pressed.unit == "edge" ? throw_deg(chord_of(scene.rig, surface_), pressed.number / shown("m").factor)
                                       : pressed.number,
                scene);
  if (action == "throw_sure" && state_ == State::doubted) return finish(scene);
  if (action == "throw_eyes_all") {
    eyes_on_ = true;
    return {};
  }
  if (action == "throw_eyes") return take(std::round(still_deg_ * 10) / 10, scene);
  if (action == "throw_supply") return {AskHands{hands::Supply{scene.bench.usb, true}}};
  if (action == "throw_hands") return by_hand(scene);
  if (action == "throw_set") return set(scene, false);
  if (action == "throw_set_keep") return set(scene, true);
  if (action == "throw_write") return {WriteBoard{}};
  if (action == "record_centred") return {Record{surfaces_centred}};
  if (action == "record_throws") return {Record{throws_equal}};
  return {};
}

Orders ThrowsProcedure::choose(Surface surface, const Scene& scene) {
  Orders orders = let_go(scene);
  surface_ = surface;
  state_ = State::idle;
  readings_.clear();
  answer_.reset();
  problem_.clear();
  return orders;
}

double ThrowsProcedure::level(const Scene& scene) const {
  if (state_ != State::reading) return 0;
  const Output* o = scene.rig.output_of(surface_);
  return levels[at_] * (drives(scene) || !o ? 1 : stick_reach(*o));
}

std::optional<double> ThrowsProcedure::pulse_us(const Scene& scene) const {
  const Output* o = scene.rig.output_of(surface_);
  return o ? std::optional(output_pulse_us(*o, level(scene))) : std::nullopt;
}

void ThrowsProcedure::watch(double deg) {
  constexpr double jitter_deg = 0.4;  // of a noisy gimbal that works the surface
  ++looks_;
  if (std::abs(deg - still_deg_) <= jitter_deg) return;
  still_since_s_ = now_s_;
  still_deg_ = deg;
}

bool ThrowsProcedure::settled() const {
  constexpr double still_s = 0.25;
  constexpr int least_looks = 4;
  return looks_ >= least_looks && now_s_ - still_since_s_ > still_s;
}

Orders ThrowsProcedure::drive_there(const Scene& scene) {
  looks_ = 0;
  still_since_s_ = now_s_;
  const Output* o = scene.rig.output_of(surface_);
  if (!o) return {};
  Orders orders;
  if (drives(scene)) {
    if (!scene.bench.controller) return {};
    orders.emplace_back(DriveOutput{o->socket, level(scene)});
  } else {
    // The simulated hands hold the sticks as the builder would.
    const auto hold = sticks_for(scene.rig, *o, level(scene));
    if (!hold || !scene.bench.hands) return {};
    orders = hold_sticks(*hold);
    orders.insert(orders.begin(), AskHands{hands::ChooseMode{Mode::manual}});
  }
  drove_ = true;
  return orders;
}

Orders ThrowsProcedure::let_go(const Scene& scene) {
  if (!std::exchange(drove_, false)) return {};
  return drives(scene) ? Orders{ReleaseOutputs{}} : hold_sticks({});
}

Orders ThrowsProcedure::begin(const Scene& scene) {
  state_ = State::reading;
  at_ = 0;
  readings_.clear();
  answer_.reset();
  problem_.clear();
  return drive_there(scene);
}

/// Every hinged surface one after the other; what the readings ask for comes after the last.
Orders ThrowsProcedure::begin_all(const Scene& scene) {
  to_read_ = hinged(scene.rig);
  read_.clear();
  if (to_read_.empty()) return {};
  Orders orders = choose(to_read_.front(), scene);
  to_read_.erase(to_read_.begin());
  const Orders driven = begin(scene);
  orders.insert(orders.end(), driven.begin(), driven.end());
  return orders;
}

/// What was read in the sitting, one surface after the other.
Orders ThrowsProcedure::next_read(const Scene& scene) {
  if (read_.empty()) return {};
  const Surface next = read_.front();
  read_.erase(read_.begin());
  Orders orders = choose(next, scene);
  judge(scene.rig, scene);
  return orders;
}

/// What the readings that the rig holds of this surface ask for.
void ThrowsProcedure::judge(const Rig& rig, const Scene& scene) {
  const Output* o = rig.output_of(surface_);
  if (!o) return;
  state_ = State::answered;
  judged_ = linkage_of(rig, surface_).readings;
  rests_ = false;
  if (const auto c = centre(linkage_of(rig, surface_), *o, settable(scene.controller)))
    answer_ = *c;
  else
    problem_ = c.error().text();
}

Orders ThrowsProcedure::take(double up_deg, const Scene& scene) {
  const auto pulse = pulse_us(scene);
  if (state_ != State::reading || !pulse) return {};
  readings_.push_back({*pulse, up_deg, {}});
  if (++at_ < levels.size()) return drive_there(scene);
  // A surface that reads the same everywhere has not moved, or was not read.
  constexpr double same_deg = 0.25;
  const auto [least, most] =
      std::minmax_element(readings_.begin(), readings_.end(),
                          [](const ThrowReading& a, const ThrowReading& b) { return a.up_deg < b.up_deg; });
  if (most->up_deg - least->up_deg > same_deg) return finish(scene);
  state_ = State::doubted;
  at_ = 0;
  return let_go(scene);
}

Orders ThrowsProcedure::finish(const Scene& scene) {
  at_ = 0;
  Orders orders = let_go(scene);
  Edit edit = throws_read(scene.rig, surface_, readings_);
  const Rig with_readings = edit.rig;
  orders.emplace_back(ApplyEdit{std::move(edit)});
  if (to_read_.empty() && read_.empty()) {
    judge(with_readings, scene);
    return orders;
  }
  read_.push_back(surface_);
  Scene after{with_readings, scene.catalogue, scene.controller, nullptr, scene.checks, scene.readiness, scene.bench};
  Orders more;
  if (to_read_.empty()) {
    more = next_read(after);
  } else {
    const Surface next = to_read_.front();
    to_read_.erase(to_read_.begin());
    more = choose(next, after);
    const Orders driven = begin(after);
    more.insert(more.end(), driven.begin(), driven.end());
  }
  orders.insert(orders.end(), more.begin(), more.end());
  return orders;
}

Orders ThrowsProcedure::by_hand(const Scene& scene) {
  if (!answer_) return {};
  Orders orders;
  const auto ask = [&](hands::Request request) { orders.emplace_back(AskHands{std::move(request)}); };
  // The simulated hands do as the builder's do: battery out, arm and clevis, battery in.
  if (scene.bench.battery) ask(hands::Supply{scene.bench.usb, false});
  if (answer_->teeth != 0) ask(hands::Tooth{surface_, answer_->teeth});
  if (answer_->clevis_turns != 0) ask(hands::Clevis{surface_, answer_->clevis_turns});
  if (scene.bench.battery) ask(hands::Supply{scene.bench.usb, true});
  Edit edit = arm_and_rod_set(scene.rig, surface_, *answer_);
  judged_ = linkage_of(edit.rig, surface_).readings;
  rests_ = false;
  orders.emplace_back(ApplyEdit{std::move(edit)});
  answer_->teeth = 0;
  answer_->clevis_turns = 0;
  return orders;
}

std::string ThrowsProcedure::makes_stale(const Scene& scene, bool keep_throws) const {
  const Rig then = (keep_throws ? centre_and_ends_set_keeping_throws(scene.rig, surface_, *answer_)
                                : centre_and_ends_set(scene.rig, surface_, *answer_))
                       .rig;
  std::map<const CheckFamily*, std::vector<std::string>> lost;
  for (const CheckStatus& c : check_statuses(then, scene.catalogue))
    if (const CheckStatus* now = find_check(scene.checks, c.id); now && now->stands() && !c.stands())
      lost[c.family].push_back(c.title);
  std::string words;
  for (const auto& [family, titles] : lost) {
    const bool many = titles.size() > 1 && family && !family->many.empty();
    words += (words.empty() ? "" : ", ") +
             (many ? std::to_string(titles.size()) + " " + family->many : small(titles.front()));
  }
  return words.empty() ? words : "It makes stale, to be looked at again: " + words + ".";
}

Orders ThrowsProcedure::set(const Scene& scene, bool keep_throws) {
  if (!answer_ || !scene.rig.output_of(surface_)) return {};
  Edit edit = keep_throws ? centre_and_ends_set_keeping_throws(scene.rig, surface_, *answer_)
                          : centre_and_ends_set(scene.rig, surface_, *answer_);
  answer_.reset();
  state_ = State::idle;
  Orders orders;
  // Without a settings link the builder sets it on the board's own pages or keys; simulated hands do the same.
  if (scene.controller && !scene.controller->link)
    orders.emplace_back(AskHands{hands::SetOutput{*edit.rig.output_of(surface_)}});
  orders.emplace_back(ApplyEdit{std::move(edit)});
  return orders;
}

bool ThrowsProcedure::mechanical() const {
  return answer_ && state_ != State::reading && (answer_->teeth != 0 || answer_->clevis_turns != 0);
}

bool ThrowsProcedure::settings(const Output* o) const {
  if (!answer_ || !o || state_ == State::reading || mechanical()) return false;
  return answer_->reverse || std::abs(o->low_us - answer_->low_us) > 1 ||
         std::abs(o->centre_us - answer_->centre_us) > 1 || std::abs(o->high_us - answer_->high_us) > 1;
}

void ThrowsProcedure::say_reading(Card& card, const Output& o, const Scene& scene) const {
  const double at = levels[at_];
  const bool all = drives(scene) || stick_reach(o) > 0.999;
  const std::string place = at == 0    ? "its centre"
                            : at == -1 ? (all ? "its low end" : "the lowest the sticks give")
                            : at == 1  ? (all ? "its high end" : "the highest the sticks give")
                                       : "half way";
  card.todo = "Read the " + surface_.label() + " at " + place + ": " +
              number_text(output_pulse_us(o, level(scene)), 0) + " µs.";
  const std::string count = "Reading " + std::to_string(at_ + 1) + " of " + std::to_string(levels.size()) +
                            (to_read_.empty() ? ""
                                              : ", then " + std::to_string(to_read_.size()) +
                                                    (to_read_.size() == 1 ? " more surface" : " more surfaces")) +
                            ", against flush; down counts negative.";
  if (drives_now(scene)) {
    card.remark = "The controller drives it there. " + count;
  } else if (drives(scene)) {
    card.remark = "The controller drives it there once it has supply: connect, battery in. " + count;
  } else if (const auto hold = sticks_for(scene.rig, o, level(scene))) {
    card.remark = sticks_label(*hold) + ", in manual, throttle closed. " +
                  (scene.bench.hands && scene.bench.battery ? "The simulated hands do. " : "") + count;
  } else {
    card.remark = hold.error().text();
  }
}

void ThrowsProcedure::say_result(Card& card, const Scene& scene) const {
  const std::string name = surface_.label();
  if (state_ == State::doubted) {
    card.todo = "All " + std::to_string(readings_.size()) + " readings of the " + name + " are the same.";
    card.remark =
        scene.bench.hands && !scene.bench.battery
            ? "The battery is out: nothing moves."
            : "A surface that is driven from end to end moves: is the battery in, the plug in its socket, the "
              "rod on its arm? Was each reading typed?";
  } else if (!problem_.empty()) {
    card.todo = "The readings of the " + name + " can't be used.";
    if (scene.bench.hands && !scene.bench.battery) card.remark = "The battery is out: nothing moves.";
    card.lines = {{problem_}};
  } else if (answer_) {
    card.todo = "What the readings say of the " + name;
  } else if (const auto read = read_throws(scene.rig, surface_)) {
    card.todo = "The " + name + " reads " +
                (std::abs(read->neutral_deg) < 0.05 ? "flush" : moved_words(read->neutral_deg, "up", "down")) +
                " at neutral, " + moved_words(read->up_deg, "up", "down") + ", " +
                moved_words(read->down_deg, "down", "up") + ".";
  } else {
    card.todo = "Read the " + name + " with a throw gauge.";
    card.remark = scene.bench.differs && drives_now(scene)
                      ? "The board holds other settings than the rig: write first, so that it drives where the "
                        "readings belong."
                      : "Five readings tell the real linkage: what the arm, the rod and the output have to change.";
  }
}

void ThrowsProcedure::add_answer(Card& card, const Output& o, const Scene& scene) const {
  const Centring& a = *answer_;
  const auto plural = [](double n, const char* one, const char* many) { return std::abs(n) == 1 ? one : many; };
  card.lines.push_back({std::abs(a.neutral_now_deg) < 0.05
                            ? "It stands flush at its centre."
                            : "It stands " + number_text(a.neutral_now_deg, 1) + "° off at its centre."});
  if (a.teeth != 0)
    card.lines.push_back({"Set the servo arm " + std::to_string(std::abs(a.teeth)) + " " +
                              plural(a.teeth, "tooth", "teeth") + (a.teeth > 0 ? " toward" : " away from") +
                              " the hinge.",
                          true});
  if (a.clevis_turns != 0)
    card.lines.push_back({std::string("Make the rod ") + (a.clevis_turns > 0 ? "longer" : "shorter") + " by " +
                              number_text(std::abs(a.clevis_turns), 1) + " " + plural(a.clevis_turns, "turn", "turns") +
                              " of the clevis.",
                          true});
  if (a.reverse)
    card.lines.push_back({"Reverse its output (" + o.id + ")" +
                              ": a rising pulse moves this servo the other way than the output is set for. The mix "
                              "stays as it is.",
                          true});
  if (std::abs(o.low_us - a.low_us) > 1 || std::abs(o.centre_us - a.centre_us) > 1 ||
      std::abs(o.high_us - a.high_us) > 1)
    card.lines.push_back({(mechanical() ? "Then low " : "Low ") + number_text(a.low_us, 0) + ", centre " +
                          number_text(a.centre_us, 0) + ", high " + number_text(a.high_us, 0) + " µs give " +
                          number_text(a.up_deg, 1) + "° up and " + number_text(a.down_deg, 1) + "° down."});
  if (const Linkage* l = scene.rig.linkage(surface_); l && (l->want_up_deg || l->want_down_deg) && !a.settled)
    card.lines.push_back({"That is the travel that is wanted of it, all commands together: " +
                          (l->want_up_deg ? number_text(*l->want_up_deg, 0) + "° up" : std::string()) +
                          (l->want_up_deg && l->want_down_deg ? ", " : "") +
                          (l->want_down_deg ? number_text(*l->want_down_deg, 0) + "° down" : std::string()) + "."});
  if (settings(&o) || mechanical()) {
    // What a setting does to authority is said before it is made.
    const CommandThrows t = command_throws(scene.rig, surface_, a);
    std::string words;
    for (const auto& [command, name] : Names<MixCommand>::list) {
      const auto i = static_cast<std::size_t>(command);
      if (t.now_deg[i] <= 0) continue;
      words += (words.empty() ? "Full " : ", full ") + std::string(name) + " then moves it " +
               number_text(t.then_deg[i], 1) + "° (now " + number_text(t.now_deg[i], 1) + "°, as read" +
               (t.falls() ? "; kept: " + number_text(t.kept_deg[i], 1) + "°" : std::string()) + ")";
    }
    if (!words.empty()) card.lines.push_back({words + ".", t.falls()});
    if (settings(&o))
      if (const std::string stale = makes_stale(scene, t.falls()); !stale.empty()) card.lines.push_back({stale});
  }
  if (!mechanical() && !settings(&o))
    card.lines.push_back({a.limits.empty() ? "Nothing has to change." : "Nothing more can be set."});
  for (const std::string& limit : a.limits) card.lines.push_back({capital(limit) + "."});
}

bool ThrowsProcedure::none_read(const Rig& rig) {
  const auto all = hinged(rig);
  return std::none_of(all.begin(), all.end(), [&](const Surface& s) { return read_throws(rig, s).has_value(); });
}

void ThrowsProcedure::add_actions(Card& card, const Scene& scene) const {
  const Output* o = scene.rig.output_of(surface_);
  const bool reading = state_ == State::reading, by_hands = mechanical(), sets = settings(o);
  const auto add = [&](Action a) { card.actions.push_back(std::move(a)); };
  const auto waits = [&](const CheckId& id) {
    const CheckStatus* c = find_check(scene.checks, id);
    return c && !reading && c->holds && !c->stands();
  };
  const auto stands = [&](const CheckId& id) {
    const CheckStatus* c = find_check(scene.checks, id);
    return !c || c->stands();
  };
  const bool done = stands(surfaces_centred) && stands(throws_equal);
  // What was found is recorded once nothing of it is left to be done.
  const bool records = !by_hands && !sets && !scene.bench.differs && (waits(surfaces_centred) || waits(throws_equal));
  if (reading) {
    add({.id = "throw_take",
         .label = "Take this reading",
         .hint = "Notes the reading and goes on",
         .main = !scene.bench.hands,
         .takes_number = true});
    if (scene.bench.hands) {
      add({.id = "throw_eyes_all",
           .label = eyes_on_ ? "The simulated gauge is read" : "Read on by the simulated gauge",
           .hint = "Eyes on the simulated model at this place and at all that follow, to a tenth of a degree",
           .main = true,
           .enabled = !eyes_on_});
      add({.id = "throw_eyes",
           .label = "This place alone",
           .hint = "Eyes on the simulated model, to a tenth of a degree",
           .enabled = !eyes_on_ && settled()});
    }
  }
  if (state_ == State::doubted)
    add({.id = "throw_sure",
         .label = "It did not move: keep the readings",
         .hint = "They are noted as they are",
         .minor = true});
  if (!reading) {
    if (by_hands)
      add({.id = "throw_hands",
           .label = "Arm and rod are set",
           .hint = "The battery comes out first: a servo that moves pinches",
           .main = true});
    if (sets) {
      const bool falls = command_throws(scene.rig, surface_, *answer_).falls();
      if (falls)
        add({.id = "throw_set_keep",
             .label = "Set them, and keep the throws",
             .hint = "Raises the weights, so that every command moves as far as now where the travel allows it",
             .main = true});
      add({.id = "throw_set",
           .label = falls ? "Set centre and ends, less throw" : "Set centre and ends",
           .hint = "Into the rig; written to the controller with the next button",
           .main = !falls});
    }
    if (!by_hands && !sets && scene.bench.differs && !scene.bench.writing)
      add({.id = "throw_write",
           .label = "Write to the controller",
           .hint = "The board takes what the rig says",
           .main = true});
    if (!read_.empty())
      add({.id = "throw_next",
           .label = "Next: the " + read_.front().label(),
           .hint = "What its readings ask for",
           .main = !by_hands && !sets && !records && !done});
    if (o && !by_hands && !sets && !(scene.bench.differs && drives_now(scene)) && read_.empty() &&
        hinged(scene.rig).size() > 1)
      add({.id = "throw_all",
           .label = "Read all surfaces",
           .hint = "Five readings of each, one surface after the other; what they ask for comes after the last",
           .main = none_read(scene.rig)});
    if (o && !by_hands && !sets && !(scene.bench.differs && drives_now(scene)))
      add({.id = "throw_begin",
           .label =
               read_throws(scene.rig, surface_) || state_ == State::doubted ? "Read it again" : "Read this surface",
           .hint = "Five readings: flush, both ends and half way",
           .main = !records && !done && read_.empty() && (!none_read(scene.rig) || hinged(scene.rig).size() == 1)});
  }
  for (const auto& [id, action, label, hint] :
       {std::tuple{&surfaces_centred, "record_centred", "Record: surfaces centred", "All surfaces were read flush"},
        {&throws_equal, "record_throws", "Record: throws as wanted",
         "All throws were read as wanted, left and right alike"}}) {
    const CheckStatus* c = find_check(scene.checks, *id);
    if (!c) continue;
    if (waits(*id))
      add({.id = action,
           .label = label,
           .hint = hint,
           .main = records && (*id == surfaces_centred || !waits(surfaces_centred))});
    card.note += (card.note.empty() ? "" : "\n") + c->title + ": " +
                 (c->stands() ? std::string(name_of(c->state))
                  : c->holds  ? "holds, not recorded"
                              : c->why_not) +
                 ".";
  }
  // Last, so that nothing moves under the hand when it goes.
  if (scene.bench.hands && !scene.bench.battery)
    add({.id = "throw_supply",
         .label = "Battery in (simulated)",
         .hint = "The simulated servos stand still without it"});
}

Card ThrowsProcedure::card(const Scene& scene) const {
  Card card;
  const Output* o = scene.rig.output_of(surface_);
  if (surface_.kind == SurfaceKind::motor) o = nullptr;
  card.subject = surface_.name();
  card.busy = state_ == State::reading;
  if (!o) {
    card.todo = "Choose a surface.";
  } else if (card.busy) {
    say_reading(card, *o, scene);
    card.picture.pulse_us = pulse_us(scene);
    card.number = NumberAsked{
        "Reading at the trailing edge",
        -200,
        200,
        {{"deg", "degrees, up positive", 1},
         {"edge", std::string(shown("m").unit) + " at the edge, up positive", std::max(1, shown("m").places)}}};
  } else {
    say_result(card, scene);
    if (answer_ && problem_.empty()) add_answer(card, *o, scene);
  }
  add_actions(card, scene);
  if (mechanical())
    card.caution = "Battery out before a finger goes near the arm.";
  else if (card.busy || card.action("throw_supply") || card.action("throw_begin"))
    card.caution = "Propeller off. Fingers clear of the linkage while it moves.";
  return card;
}

}  // namespace rigging
