#include "home/home_procedures.h"

#include <algorithm>
#include <cmath>

#include "base/number.h"
#include "home/arming.h"
#include "home/home_checks.h"

namespace rigging {
namespace {

constexpr double patience_s = 15;  ///< until a loss that the board does not tell of is called hidden
constexpr int told_enough = 2;     ///< states told since a switch stands, until one counts for it
constexpr int wrong_enough = 4;  ///< as often in a row: the pulses may be heard later than what the board makes of them
constexpr double near_us = 60;   ///< a pulse so near to a position is that position

std::string not_yet(const Scene& scene) {
  if (!scene.controller) return "This class is not in the catalogue.";
  if (!scene.bench.controller)
    return "Connect the controller, or start the bench below: USB and battery, propeller off. Without a link, station "
           "proof takes what eyes saw.";
  if (!scene.bench.battery && scene.bench.hands)
    return "The receiver needs the battery: plug it in below. Propeller off.";
  if (scene.bench.differs && scene.sets_over_link())
    return "The controller holds something else than the rig: write the rig first, or a look would prove the board's "
           "settings.";
  return {};
}

bool tells_state(const Scene& scene) { return scene.controller && scene.controller->home.tells_state; }

Action write_first(const Scene& scene) {
  return {
      .id = "write_home", .label = "Write the rig to the controller", .main = true, .enabled = !scene.bench.writing};
}

bool must_write(const Scene& scene) { return scene.bench.controller && scene.bench.differs && scene.sets_over_link(); }

std::string acting_words(const std::string& acts) {
  if (acts == "waits") return "It knows, and waits.";
  if (acts == "glide") return "It glides, wings level.";
  if (acts == "circle") return "It circles.";
  if (acts == "come_home") return "It comes home.";
  return acts.empty() ? "It does not say that the link is gone." : "It does what it came with.";
}

/// What comes before is done: only then the next step is offered as such.
bool its_turn(const Scene& scene, std::initializer_list<CheckId> before) {
  return std::all_of(before.begin(), before.end(), [&](const CheckId& id) {
    const CheckStatus* s = find_check(scene.checks, id);
    return !s || s->stands();
  });
}

const char* propeller_off = "Propeller off. Hold the model where nothing can catch the surfaces or the shaft.";

}  // namespace

// Transmitter off
// -----------------------------------------------------------------------------------------------------------------

Orders LossProcedure::hear(const Event& event, const Scene& scene) {
  if (const auto* time = std::get_if<Time>(&event)) {
    now_s_ = time->s;
    return steps_.due(now_s_);
  }
  if (const auto* told = std::get_if<StateTold>(&event)) {
    if (doing_ != Doing::nothing && told->link_lost && !state_.link_lost) lost_s_ = now_s_;
    if (doing_ != Doing::nothing && !told->on_loss.empty() && told->on_loss != "waits" && acted_ != told->on_loss) {
      acted_ = told->on_loss;
      acted_s_ = now_s_;
    }
    state_ = *told;
    if (doing_ == Doing::waits && state_.link_lost) doing_ = Doing::lost;
    if (doing_ == Doing::lost && !state_.link_lost) doing_ = Doing::back;
  } else if (std::holds_alternative<SceneChanged>(event)) {
    if (!scene.bench.controller && doing_ != Doing::nothing) doing_ = Doing::nothing, steps_.drop();
  } else if (const auto* pressed = std::get_if<Pressed>(&event)) {
    return press(pressed->action, scene);
  }
  return {};
}

Orders LossProcedure::press(const std::string& action, const Scene& scene) {
  if (action == "write_home") return {WriteBoard{}};
  if (action == "loss_begin" || action == "loss_do") {
    doing_ = Doing::waits;
    began_s_ = now_s_, lost_s_ = acted_s_ = 0;
    acted_.clear();
    if (action == "loss_do") {
      const double acts = scene.controller ? scene.controller->home.notices_after_s + scene.rig.home.loss_hold_s : 3;
      steps_.drop();
      steps_.add(0, AskHands{hands::ChooseMode{Mode::level}});
      steps_.add(0.3, AskHands{hands::SwitchTransmitter{false}});
      steps_.add(acts + 1, AskHands{hands::Hold{30, 0, 0}});
      steps_.add(2, AskHands{hands::Hold{0, 25, 0}});
      steps_.add(2, AskHands{hands::Hold{}});
      steps_.add(0.8, AskHands{hands::SwitchTransmitter{true}});
      steps_.add(0.3, AskHands{hands::ChooseMode{Mode::manual}});
      steps_.begin(now_s_);
    }
  } else if (action == "loss_stop") {
    doing_ = Doing::nothing;
    const bool off = steps_.busy();
    steps_.drop();
    if (off) return {AskHands{hands::SwitchTransmitter{true}}, AskHands{hands::Hold{}}};
  } else if (action == "loss_seen") {
    doing_ = Doing::nothing;
    return {Record{loss_planned, "Transmitter off: as planned."}};
  } else if (action == "loss_to_sticks") {
    return {GoTo{Station::sticks, {}}};
  }
  return {};
}

Card LossProcedure::card(const Scene& scene) const {
  Card card;
  card.title = "Transmitter off";
  card.caution = propeller_off;
  card.busy = doing_ != Doing::nothing;
  const auto add = [&](Action a) { card.actions.push_back(std::move(a)); };
  const CheckStatus* check = find_check(scene.checks, loss_planned);
  if (!check) {
    card.todo = scene.controller && scene.controller->home.on_loss.empty()
                    ? "This class does nothing of its own when the link goes: the loss is tried at station sticks."
                    : "Nothing is planned to be looked at.";
    add({.id = "loss_to_sticks", .label = "Go to station sticks", .main = true});
    return card;
  }
  if (!check->holds) {
    card.todo = "First: " + check->why_not + ".";
    return card;
  }
  const CheckCard what = card_of({scene.rig, scene.catalogue}, loss_planned);
  const std::string no = not_yet(scene);
  card.todo = no.empty() ? what.todo : no;
  card.picture.words = "Should show: " + what.expected;
  if (!no.empty()) {
    if (must_write(scene)) add(write_first(scene));
    return card;
  }
  const double should_s = scene.controller->home.notices_after_s + scene.rig.home.loss_hold_s;
  if (doing_ == Doing::nothing) {
    card.says = check->stands()                     ? "Proven " + check->at
                : check->state == ProofState::stale ? "Gone stale. Since then:"
                                                    : "Not tried yet.";
    add_changes(card, *check);
    card.remark = tells_state(scene)
                      ? "The controller says itself what it does; what motor and surfaces do, only eyes can say."
                      : "This class does not say what it does: watch motor, lamp and surfaces.";
    add({.id = "loss_begin",
         .label = "I switch the transmitter off now",
         .main = !scene.bench.hands && !check->stands()});
    if (scene.bench.hands)
      add({.id = "loss_do",
           .label = "Do it on the simulated bench",
           .hint = "Off, a tilt each way, and on again",
           .main = !check->stands()});
    return card;
  }
  const std::string planned(name_of(scene.rig.home.on_loss));
  const bool as_planned = acted_ == planned;
  if (tells_state(scene)) {
    card.says = acted_.empty() ? acting_words(state_.on_loss) : acting_words(acted_);
    if (doing_ == Doing::waits && now_s_ - began_s_ > patience_s)
      card.lines.push_back({"After " + number_text(patience_s, 0) +
                                " s it still says nothing. Is the transmitter off? Then the receiver hides the loss: "
                                "try it at station sticks.",
                            true});
    if (!acted_.empty())
      card.lines.push_back({as_planned ? "That is the plan. It began " + number_text(acted_s_ - lost_s_, 1) +
                                             " s after it knew; planned " + "are " +
                                             number_text(scene.rig.home.loss_hold_s, 1) + " s."
                                       : "Planned is: " + acting_words(planned),
                            !as_planned});
    if (doing_ == Doing::back) card.lines.push_back({"The link is back, and it flies " + state_.mode + ".", false});
  } else {
    card.says = "Watch motor and surfaces for " + number_text(should_s + 2, 0) + " s.";
  }
  const bool seen = !tells_state(scene) ? now_s_ - began_s_ > should_s : as_planned;
  card.remark = seen ? "Did the motor stop, or stay off, and did the surfaces do what should show?" : "";
  add({.id = "loss_seen", .label = "Yes, motor and surfaces too", .main = true, .enabled = seen && !steps_.busy()});
  add({.id = "loss_stop", .label = "No, or stop", .hint = "Nothing is recorded"});
  return card;
}

// Every position
// -----------------------------------------------------------------------------------------------------------------

std::optional<std::vector<std::size_t>> PositionsProcedure::standing() const {
  std::vector<std::size_t> at;
  for (const SwitchLine& s : deck_.switches) {
    const auto pulse = pulse_us_.find(s.channel);
    if (pulse == pulse_us_.end()) return std::nullopt;
    std::size_t nearest = 0;
    for (std::size_t i = 0; i < s.positions.size(); ++i)
      if (std::abs(s.positions[i].pulse_us - pulse->second) < std::abs(s.positions[nearest].pulse_us - pulse->second))
        nearest = i;
    if (s.positions.empty() || std::abs(s.positions[nearest].pulse_us - pulse->second) > near_us) return std::nullopt;
    at.push_back(nearest);
  }
  return at;
}

void PositionsProcedure::judge(const Scene& scene) {
  const auto at = standing();
  if (!at) {
    stands_.clear();
    return;
  }
  if (*at != stands_) {
    stands_ = *at;
    told_ = told_other_ = 0;
    return;
  }
  if (!listens_ || told_ < told_enough || state_.mode.empty() || must_write(scene)) return;
  const ModeCase* c = deck_.at(stands_);
  if (!c || c->mode.empty()) return;
  for (std::size_t k = 0; k < stands_.size(); ++k) {
    const Position p{deck_.switches[k].channel, stands_[k]};
    // With several switches only what this one chooses is seen of it.
    const std::string& own = deck_.switches[k].positions[stands_[k]].mode;
    if (!own.empty() && own != c->mode && state_.mode == c->mode) continue;
    if (state_.mode == c->mode) {
      seen_.insert(p);
      wrong_.erase(p);
    } else if ((own == c->mode || own.empty()) && told_other_ >= wrong_enough) {
      seen_.erase(p);
      wrong_[p] = state_.mode;
    }
  }
}

Orders PositionsProcedure::hear(const Event& event, const Scene& scene) {
  if (const auto* time = std::get_if<Time>(&event)) {
    now_s_ = time->s;
    return steps_.due(now_s_);
  }
  if (const auto* frames = std::get_if<FramesHeard>(&event)) {
    if (!frames->frames.empty()) {
      const ChannelFrame& f = frames->frames.back();
      for (int n = 1; n <= f.channels; ++n)
        pulse_us_[n] = static_cast<double>(f.pulse_us[static_cast<std::size_t>(n - 1)]);
    }
    judge(scene);
  } else if (const auto* told = std::get_if<StateTold>(&event)) {
    state_ = *told;
    ++told_;
    const ModeCase* c = deck_.at(stands_);
    told_other_ = c && state_.mode != c->mode ? told_other_ + 1 : 0;
    judge(scene);
  } else if (std::holds_alternative<SceneChanged>(event)) {
    ModeDeck deck = mode_deck(scene.rig, scene.catalogue);
    if (deck.switches != deck_.switches) seen_.clear(), wrong_.clear();
    deck_ = std::move(deck);
    if (!scene.bench.controller) listens_ = false, steps_.drop(), state_ = {};
  } else if (const auto* pressed = std::get_if<Pressed>(&event)) {
    return press(pressed->action);
  }
  return {};
}

Orders PositionsProcedure::press(const std::string& action) {
  if (action == "write_home") return {WriteBoard{}};
  if (action == "positions_begin" || action == "positions_do") {
    listens_ = true;
    seen_.clear();
    wrong_.clear();
    if (action == "positions_do") {
      steps_.drop();
      // Each switch through its positions, the others at their first.
      for (const SwitchLine& s : deck_.switches) {
        const auto count = static_cast<double>(std::max<std::size_t>(2, s.positions.size()) - 1);
        for (std::size_t i = 0; i < s.positions.size(); ++i)
          steps_.add(i == 0 ? 0.2 : 1.5,
                     AskHands{hands::TurnControl{s.channel, 2 * static_cast<double>(i) / count - 1}});
        steps_.add(1.5, AskHands{hands::TurnControl{s.channel, -1}});
      }
      steps_.begin(now_s_);
    }
  } else if (action == "positions_stop") {
    listens_ = false;
    steps_.drop();
  } else if (action == "positions_seen" || action == "positions_record") {
    listens_ = false;
    return {Record{positions_planned, "Every position gives its mode."}};
  }
  return {};
}

Card PositionsProcedure::card(const Scene& scene) const {
  Card card;
  card.title = "Every switch through every position";
  card.caution = "Propeller off: some modes open the throttle by themselves.";
  card.busy = listens_;
  const auto add = [&](Action a) { card.actions.push_back(std::move(a)); };
  const CheckStatus* check = find_check(scene.checks, positions_planned);
  if (!check) {
    card.todo = deck_.fixed ? "This class has its modes on positions of its own: each is looked at at station proof."
                            : "No switch position chooses a mode yet: lay them out first.";
    return card;
  }
  if (!check->holds) {
    card.todo = "First: " + check->why_not + ".";
    return card;
  }
  const std::string no = not_yet(scene);
  card.todo = no.empty() ? "Move every switch through all of its positions, the others at their first." : no;
  std::size_t all = 0;
  for (const SwitchLine& s : deck_.switches)
    for (std::size_t i = 0; i < s.positions.size(); ++i) {
      const Position p{s.channel, i};
      const std::string& mode = s.positions[i].mode;
      std::string words = "Channel " + std::to_string(s.channel) + " at " + number_text(s.positions[i].pulse_us, 0) +
                          " µs, " + (mode.empty() ? "off" : mode) + ": ";
      ++all;
      const auto wrong = wrong_.find(p);
      card.lines.push_back({words + (wrong != wrong_.end() ? "gives " + wrong->second
                                     : seen_.count(p)      ? "seen"
                                                           : "not yet"),
                            wrong != wrong_.end()});
    }
  if (!no.empty()) {
    if (must_write(scene)) add(write_first(scene));
    return card;
  }
  if (!tells_state(scene)) {
    card.says = check->stands() ? "Proven " + check->at : "This class does not tell its mode: look at its lamp.";
    add({.id = "positions_seen", .label = "Yes, each gave its mode", .main = true});
    return card;
  }
  const bool done = seen_.size() == all && wrong_.empty(), turn = its_turn(scene, {loss_planned});
  card.says = !wrong_.empty() ? "One is not as planned."
              : done          ? "Every position gives its mode."
              : listens_      ? "Now: " + (state_.mode.empty() ? std::string("nothing") : state_.mode) + ". " +
                               std::to_string(seen_.size()) + " of " + std::to_string(all) + " seen."
              : check->stands() ? "Proven " + check->at
                                : "Not looked at yet.";
  if (!wrong_.empty())
    card.remark = "Read the settings back: the board holds other ranges, or the switch is on another channel.";
  if (done) add({.id = "positions_record", .label = "Record it", .main = true, .enabled = !steps_.busy()});
  if (listens_ && !done)
    add({.id = "positions_stop", .label = "Stop"});
  else
    add({.id = "positions_begin",
         .label = done ? "Once more" : "Begin",
         .main = !done && !scene.bench.hands && turn,
         .enabled = !steps_.busy()});
  if (scene.bench.hands && !listens_)
    add({.id = "positions_do", .label = "Do it on the simulated bench", .main = turn && !done && !check->stands()});
  return card;
}

// Arming
// -----------------------------------------------------------------------------------------------------------------

Orders ArmingProcedure::hear(const Event& event, const Scene& scene) {
  if (const auto* time = std::get_if<Time>(&event)) {
    now_s_ = time->s;
    return steps_.due(now_s_);
  }
  if (const auto* told = std::get_if<StateTold>(&event)) {
    const auto refuses = [&](ArmingRefusal why) {
      return std::any_of(told->refuses.begin(), told->refuses.end(), [why](const auto& r) { return r.why == why; });
    };
    // Only with the rest in order is it this that keeps it.
    refused_without_place_ = refused_without_place_ || (told->can_arm && refuses(ArmingRefusal::no_fix));
    refused_without_button_ = refused_without_button_ || (told->can_arm && refuses(ArmingRefusal::safety_button));
    state_ = *told;
  } else if (std::holds_alternative<SceneChanged>(event)) {
    if (!scene.bench.controller) {
      state_.reset();
      steps_.drop();
      refused_without_place_ = refused_without_button_ = false;
    }
  } else if (const auto* pressed = std::get_if<Pressed>(&event)) {
    if (pressed->action == "arming_record") return {Record{arming_waits, "It waits for its position before it arms."}};
    if (pressed->action == "button_record") return {Record{button_guards, "The safety button guards the motor."}};
    if (pressed->action == "arming_anew") {
      steps_.drop();
      steps_.add(0, AskHands{hands::Supply{}});
      steps_.add(1, AskHands{hands::Supply{scene.bench.usb, true}});
      steps_.begin(now_s_);
    }
    if (pressed->action == "press_button") return {AskHands{hands::PressButton{}}};
    if (pressed->action == "write_home") return {WriteBoard{}};
    if (pressed->action == "arming_go" && state_ && !state_->refuses.empty())
      return {GoTo{reason_of(state_->refuses.front(), scene.rig).station, {}}};
  }
  return {};
}

Card ArmingProcedure::card(const Scene& scene) const {
  Card card;
  card.title = "Why does it not arm?";
  card.caution = "Propeller off: once it is armed the motor can start.";
  const auto add = [&](Action a) { card.actions.push_back(std::move(a)); };
  const std::vector<std::string> needs = arming_needs(scene.rig, scene.catalogue);
  if (needs.empty()) {
    card.todo =
        "This class locks no motor: with the battery in and the throttle open it runs. Propeller off until the "
        "last.";
    return card;
  }
  const auto say_needs = [&] {
    card.remark = "What it needs, in this order:";
    for (std::size_t i = 0; i < needs.size(); ++i)
      card.lines.push_back({std::to_string(i + 1) + ". " + needs[i] + ".", false});
  };
  if (!scene.controller->home.checks_before_arming) {
    card.todo = scene.controller->with_leaflet(scene.controller->sticks.arming);
    say_needs();
    return card;
  }
  if (!scene.rig.home.checks_before_arming)
    card.lines.push_back({"The checks before arming are switched off: what follows is not all.", true});
  if (!scene.bench.controller || !state_) {
    card.todo = "Connect the controller, or start the bench below: it is asked here.";
    say_needs();
    return card;
  }
  if (must_write(scene)) {
    card.todo = not_yet(scene);
    add(write_first(scene));
    return card;
  }
  const bool turn = its_turn(scene, {loss_planned, positions_planned});
  if (state_->refuses.empty()) {
    card.says = "Nothing keeps it from arming.";
    if (needs_place(scene.rig))
      card.remark = "It uses " + std::to_string(state_->satellites) + " satellites: home is where it is armed.";
    card.todo = "Propeller off. " + needs.back() + ": the motor can start.";
  } else {
    const ArmingReason first = reason_of(state_->refuses.front(), scene.rig);
    card.todo = first.words + " " + first.remedy;
    if (const std::size_t more = state_->refuses.size() - 1; more > 0) {
      card.remark =
          more == 1 ? "After that there is one more:" : "After that there are " + std::to_string(more) + " more:";
      for (std::size_t i = 1; i < state_->refuses.size(); ++i)
        card.lines.push_back({reason_of(state_->refuses[i], scene.rig).words, false});
    }
    const bool button = state_->refuses.front().why == ArmingRefusal::safety_button;
    if (button && scene.bench.hands)
      add({.id = "press_button", .label = "Press the button (simulated)", .main = turn});
    else if (first.station != Station::home)
      add({.id = "arming_go", .label = "Go to station " + std::string(name_of(first.station)), .main = turn});
  }
  card.busy = steps_.busy();
  bool anew = false;
  const auto ends = [&](const CheckId& id, const char* action, const char* label, bool refused, ArmingRefusal why) {
    const CheckStatus* check = find_check(scene.checks, id);
    if (!check || !check->holds) return;
    const bool now =
        std::any_of(state_->refuses.begin(), state_->refuses.end(), [why](const auto& r) { return r.why == why; });
    if (check->stands())
      card.lines.push_back({check->title + ": proven " + check->at + ".", false});
    else if (refused && !now)
      add({.id = action, .label = label, .hint = "It was refused without, and is not any more", .main = turn});
    else if (!refused && !now && state_->refuses.empty())
      anew = true;
  };
  ends(arming_waits, "arming_record", "Record: it waited for its position", refused_without_place_,
       ArmingRefusal::no_fix);
  ends(button_guards, "button_record", "Record: the button guards it", refused_without_button_,
       ArmingRefusal::safety_button);
  // That it waits is only seen where there is something to wait for.
  if (anew) {
    card.lines.push_back(
        {"It has all it wants already. Battery and USB out and in again, and look here at once: it must "
         "refuse first.",
         true});
    if (scene.bench.hands)
      add({.id = "arming_anew", .label = "Out and in again (simulated)", .main = turn, .enabled = !steps_.busy()});
  }
  return card;
}

}  // namespace rigging
