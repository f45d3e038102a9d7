#include "sticks/sticks_procedure.h"

#include <algorithm>
#include <cmath>

#include "base/find.h"
#include "base/number.h"
#include "sticks/edits.h"
#include "sticks/stick_checks.h"

namespace rigging {
namespace {

/// Of the stick that gives it; nothing for the throttle.
std::optional<Axis> axis_of(ChannelFunction function) { return from_name<Axis>(name_of(function)); }

std::string listed(const std::vector<double>& pulses_us) {
  std::string text;
  for (const double us : pulses_us) text += (text.empty() ? "" : ", ") + number_text(us, 0);
  return text;
}

}  // namespace

std::optional<ChannelFunction> stick_again(const std::string& action) {
  constexpr std::string_view again = "again_";
  return action.starts_with(again) ? from_name<ChannelFunction>(std::string_view(action).substr(again.size()))
                                   : std::nullopt;
}

std::vector<ChannelFunction> sticks_needed(const SticksReport& report) {
  std::vector<ChannelFunction> list;
  for (const ChannelFunction f :
       {ChannelFunction::roll, ChannelFunction::pitch, ChannelFunction::throttle, ChannelFunction::yaw})
    if (find_in(report.budget, [&](const BudgetLine& b) { return b.function == f && b.needed; })) list.push_back(f);
  return list;
}

bool SticksProcedure::shows(const Scene& scene) {
  return scene.controller && (scene.controller->sticks.reads_channels || scene.bench.direct);
}

bool SticksProcedure::can_listen(const Scene& scene) { return shows(scene) && scene.bench.hears; }

bool SticksProcedure::changes() const {
  return std::any_of(report_.channels.begin(), report_.channels.end(),
                     [](const ChannelLine& l) { return l.dial && l.dial->changes; });
}

bool SticksProcedure::wrong_way() const {
  return std::any_of(report_.channels.begin(), report_.channels.end(),
                     [](const ChannelLine& l) { return l.dial && l.dial->turn_round; });
}

std::vector<std::string> SticksProcedure::limits() const {
  std::vector<std::string> all;
  for (const ChannelLine& l : report_.channels)
    if (l.dial)
      for (const std::string& limit : l.dial->limits)
        all.push_back(capital(function_label(l.channel.function)) + ": " + limit + ".");
  return all;
}

Orders SticksProcedure::hear(const Event& event, const Scene& scene) {
  Orders orders = take(event, scene);
  for (Order& o : led_hands()) orders.push_back(std::move(o));
  return orders;
}

Orders SticksProcedure::led_hands() {
  Orders orders;
  if (switched_off_ && doing_ != Doing::loss) {
    switched_off_ = false;
    orders.emplace_back(AskHands{hands::SwitchTransmitter{true}});
  }
  if (!led_) return orders;
  std::optional<std::pair<ChannelFunction, int>> wanted;
  if (doing_ == Doing::sticks && setup_ && setup_->stick()) wanted = {*setup_->stick(), setup_->side()};
  led_ = doing_ == Doing::sticks;
  if (wanted == held_) return orders;
  const auto move = [&](ChannelFunction f, int side) {
    // The throttle rests closed.
    orders.emplace_back(AskHands{hands::Stick{axis_of(f), static_cast<double>(axis_of(f) ? side : std::max(side, 0))}});
  };
  if (held_ && (!wanted || wanted->first != held_->first)) move(held_->first, 0);
  if (wanted) move(wanted->first, wanted->second);
  held_ = wanted;
  return orders;
}

Orders SticksProcedure::take(const Event& event, const Scene& scene) {
  if (std::holds_alternative<SceneChanged>(event)) {
    report_ = analyze_sticks(scene.rig, scene.catalogue);
    forget_undone(scene.rig.radio);
  } else if (const auto* time = std::get_if<Time>(&event)) {
    now_s_ = time->s;
    if (doing_ == Doing::loss && can_listen(scene) && now_s_ - last_frame_s_ > silent_after_s)
      return loss_seen(OnLoss::no_pulses, scene);
  } else if (const auto* pressed = std::get_if<Pressed>(&event)) {
    return press(pressed->action, scene);
  } else if (const auto* frames = std::get_if<FramesHeard>(&event)) {
    return heard(frames->frames, scene);
  } else if (const auto* shown = std::get_if<TransmitterShown>(&event)) {
    if (Edit edit = with_transmitter_screen(scene.rig, shown->settings); edit.rig.radio != scene.rig.radio) {
      result_of_.reset();  // what was dialled is only shown as it came out
      return {ApplyEdit{std::move(edit)}};
    }
  }
  return {};
}

void SticksProcedure::tell(std::string result) {
  result_ = std::move(result);
  result_of_.reset();
}

void SticksProcedure::forget_undone(const Radio& radio) {
  if (!result_of_)
    result_of_ = radio;  // the change that the result came with
  else if (radio != *result_of_)
    result_.clear();
}

Orders SticksProcedure::press(const std::string& action, const Scene& scene) {
  if (action == "listen") {
    if (doing_ == Doing::nothing) return listen(unread(scene.rig), scene.rig);
    if (doing_ == Doing::sticks && setup_ && !setup_->readings().empty()) return sticks_found(scene);
    stop();
  } else if (action == "stick_hands" && doing_ == Doing::sticks) {
    led_ = true;
    held_.reset();
  } else if (action == "loss_hands" && doing_ == Doing::loss) {
    switched_off_ = true;
    return {AskHands{hands::SwitchTransmitter{false}}};
  } else if (action == "stick_supply") {
    return {AskHands{hands::Supply{scene.bench.usb, true}}};
  } else if (action == "listen_all") {
    return listen(sticks_needed(report_), scene.rig);
  } else if (const auto one = stick_again(action); one && doing_ == Doing::nothing) {
    return listen({*one}, scene.rig);
  } else if (action == "listen_again") {
    if (setup_) setup_->again();
  } else if (action == "dial_in") {
    return dial(scene);
  } else if (action == "learn_ends") {
    if (auto edit = learn_ends(scene.rig)) return {ApplyEdit{std::move(*edit)}};
  } else if (action == "write_channels") {
    return {WriteBoard{}};
  } else if (action == "record_calibrated") {
    return {Record{sticks_calibrated}};
  } else if (action == "loss_hidden") {
    return loss_seen(OnLoss::hold, scene);
  } else if (action == "find_switch") {
    if (doing_ == Doing::a_switch) return switch_found(scene);
    std::vector<int> taken;
    for (const Channel& c : scene.rig.radio.channels)
      if (is_stick(c.function)) taken.push_back(c.number);
    switch_.emplace(std::move(taken));
    doing_ = Doing::a_switch;
    result_.clear();
  } else if (action == "try_loss") {
    if (doing_ == Doing::loss) {
      const OnLoss before = scene.rig.radio.on_loss;
      return loss_seen(can_listen(scene) ? OnLoss::hold : before == OnLoss::hold ? OnLoss::unknown : before, scene);
    }
    doing_ = Doing::loss;
    last_frame_s_ = now_s_;
    result_.clear();
  }
  return {};
}

/// What is left to listen to: what was not read yet, or everything where nothing is missing.
std::vector<ChannelFunction> SticksProcedure::unread(const Rig& rig) const {
  std::vector<ChannelFunction> missing;
  for (const ChannelFunction f : sticks_needed(report_))
    if (const Channel* c = rig.channel(f); !c || !c->low_us || !c->high_us) missing.push_back(f);
  return missing.empty() ? sticks_needed(report_) : missing;
}

Orders SticksProcedure::listen(std::vector<ChannelFunction> sticks, const Rig& rig) {
  std::vector<StickReading> others;
  for (const ChannelFunction f : sticks_needed(report_))
    if (const Channel* c = rig.channel(f);
        c && c->low_us && std::find(sticks.begin(), sticks.end(), f) == sticks.end()) {
      others.emplace_back().function = f;
      others.back().channel = c->number;
    }
  setup_.emplace(std::move(sticks), std::move(others));
  doing_ = Doing::sticks;
  result_.clear();
  // Eyes on the transmitter's screen: what was set while listening belongs to what is heard.
  return {AskHands{hands::ReadTransmitter{}}};
}

void SticksProcedure::stop() {
  doing_ = Doing::nothing;
  setup_.reset();
  switch_.reset();
}

Orders SticksProcedure::heard(const std::vector<ChannelFrame>& frames, const Scene& scene) {
  frames_come_ = !frames.empty() || (frames_come_ && now_s_ - last_frame_s_ <= silent_after_s);
  if (!frames.empty()) last_frame_s_ = now_s_;
  if (doing_ == Doing::sticks && setup_) {
    for (const ChannelFrame& f : frames) setup_->feed(f);
    if (setup_->done()) return sticks_found(scene);
  } else if (doing_ == Doing::a_switch && switch_) {
    for (const ChannelFrame& f : frames) switch_->feed(f);
  } else if (doing_ == Doing::loss && !frames.empty() && frames.back().failsafe) {
    return loss_seen(OnLoss::flag, scene);
  }
  return {};
}

Orders SticksProcedure::sticks_found(const Scene& scene) {
  std::string result;
  for (const StickFinding& f : setup_->findings()) result += (result.empty() ? "" : "\n") + f.words;
  const auto readings = setup_->readings();
  const bool whole = setup_->done();
  if (!whole) {
    std::string kept;
    for (const StickReading& r : readings) kept += (kept.empty() ? "" : ", ") + function_label(r.function);
    result += (result.empty() ? "" : "\n") + ("Kept: " + kept + ". Listening goes on with the rest.");
  }
  tell(std::move(result));
  stop();
  return {ApplyEdit{
      {with_readings(scene.rig, readings),
       whole && readings.size() > 1 ? "Sticks read" : capital(function_label(readings.front().function)) + " read"}}};
}

Orders SticksProcedure::switch_found(const Scene& scene) {
  const int channel = switch_->channel();
  const auto positions = switch_->positions();
  stop();
  if (channel == 0) {
    tell("No channel but the sticks' moved.");
    return {};
  }
  tell("Channel " + std::to_string(channel) + " rests at " + listed(positions) + " µs.");
  return {ApplyEdit{with_positions(scene.rig, channel, positions)}};
}

Orders SticksProcedure::loss_seen(OnLoss behaviour, const Scene& scene) {
  const bool hidden = behaviour == OnLoss::hold, heard = can_listen(scene);
  stop();
  // With frames still coming, or nothing that tells, the loss stays hidden; else it was heard, or the builder saw it.
  tell(hidden ? "The receiver repeats its last values: the loss stays hidden. Store another behaviour in the "
                "receiver, after binding."
       : behaviour == OnLoss::flag && heard      ? "Noticed: the receiver reports the loss."
       : behaviour == OnLoss::no_pulses && heard ? "Noticed: the receiver fell silent."
                                                 : "Noticed: motor and lamp told.");
  Orders orders;
  if (behaviour != scene.rig.radio.on_loss) {
    Edit edit{scene.rig, hidden ? "Loss of the link tried: hidden" : "Loss of the link tried"};
    edit.rig.radio.on_loss = behaviour;
    orders.emplace_back(ApplyEdit{std::move(edit)});
  }
  if (!hidden) orders.emplace_back(Record{loss_noticed});
  return orders;
}

Orders SticksProcedure::dial(const Scene& scene) {
  Orders orders;
  Edit edit{scene.rig, {}};
  for (const ChannelLine& l : report_.channels) {
    if (!l.dial || !l.dial->changes) continue;
    Channel* c = find_in(edit.rig.radio.channels, [&](const Channel& x) { return x.number == l.channel.number; });
    if (!c) continue;
    *c = dialled(*c, *l.dial);
    orders.emplace_back(AskHands{hands::Dial{*c}});
  }
  if (orders.empty()) return {};
  edit.label = "Dialled in: " + std::to_string(orders.size()) + " channels";
  std::string result = "Listen once more: only what is heard counts.";
  for (const std::string& other : scene.rig.radio.transmitter.also_serves)
    result += " This memory also flies " + other + ": look at it, too.";
  tell(std::move(result));
  orders.emplace_back(ApplyEdit{std::move(edit)});
  return orders;
}

std::string SticksProcedure::facts(const Rig& rig) const {
  std::string text;
  const auto add = [&](const std::string& sentence) { text += (text.empty() ? "" : " ") + sentence; };
  for (const BudgetLine& b : report_.budget)
    if (b.needed && b.channel == 0) add("No channel for " + std::string(name_of(b.function)) + ": " + b.words + ".");
  add(std::to_string(report_.free_channels) + " of " + std::to_string(rig.radio.transmitter.channels) +
      " channels free.");
  for (const LossLine& l : report_.losses)
    if (l.chosen) add(l.words);
  for (const std::string& a : report_.authority) add(a + ".");
  return text;
}

void SticksProcedure::say_next(Card& card, const Scene& scene) const {
  const ControllerClass* c = scene.controller;
  if (doing_ == Doing::sticks && setup_) {
    card.todo = setup_->todo();
    card.remark = setup_->remark().empty()
                      ? "Step " + std::to_string(setup_->steps_done() + 1) + " of " + std::to_string(setup_->steps())
                      : setup_->remark();
    card.picture.stick = setup_->stick();
    card.picture.side = setup_->side();
  } else if (doing_ == Doing::a_switch && switch_) {
    card.todo = "Flip one switch through all its positions, half a second in each.";
    card.remark = switch_->channel() == 0
                      ? "Nothing moved yet."
                      : "Channel " + std::to_string(switch_->channel()) + ": " + listed(switch_->positions()) + " µs";
  } else if (doing_ == Doing::loss) {
    card.todo = "Switch the transmitter off.";
    card.remark = !can_listen(scene) ? "Propeller off. The motor must stop, and the lamp should tell."
                  : frames_come_     ? "Frames still come as if nothing had happened. If that stays so with the "
                                       "transmitter off, the receiver hides the loss."
                                     : "";
  } else if (!changes() && !report_.all_land && !shows(scene)) {
    card.todo = "Read the pulses and type them in.";
    card.remark =
        "This class does not show what it receives: a servo tester or a logic analyser does (rigging-cli decode reads "
        "its captures).";
  } else if (report_.all_land) {
    card.todo = "The sticks land.";
    card.remark =
        "Low, centre and high are within " + number_text(scene.rig.radio.transmitter.tolerance_us, 0) + " µs.";
  } else if (changes()) {
    card.todo = "Dial in what stands beside the rulers.";
    card.remark = wrong_way() ? "Trim levers in the middle; directions first, then sub-trim and travel."
                              : "Trim levers in the middle, then sub-trim and travel of each channel.";
  } else if (!scene.bench.hears) {
    card.todo = "Nothing is heard yet.";
    card.remark = c->sticks.reads_full > 0
                      ? "Type what the test page shows, or start the bench below."
                      : "Transmitter on first, throttle low, then the battery. The bench below plays both.";
  } else {
    card.todo = report_.all_read ? "Nearly: let the controller learn the rest, or listen again."
                                 : "Move one stick at a time while Rigging listens.";
    card.remark = "It finds order, direction, centre and ends by itself.";
  }
}

void SticksProcedure::add_actions(Card& card, const Scene& scene) const {
  const ControllerClass* c = scene.controller;
  const bool busy = doing_ != Doing::nothing, hears = can_listen(scene), dials = changes();
  const auto add = [&](Action a) { card.actions.push_back(std::move(a)); };
  if (c && doing_ != Doing::a_switch && (shows(scene) || doing_ == Doing::loss))
    add({.id = "listen",
         .label = doing_ == Doing::sticks || doing_ == Doing::loss           ? "Stop"
                  : report_.all_read || dials                                ? "Listen again"
                  : unread(scene.rig).size() < sticks_needed(report_).size() ? "Listen to the rest"
                                                                             : "Listen to the sticks",
         .hint = "Finds order, direction, centre and ends while you move one stick at a time",
         .main = !busy && hears && !dials && !report_.all_land,
         .enabled = hears || doing_ == Doing::loss});
  if (!busy && !hears && scene.bench.hands && !scene.bench.battery)
    add({.id = "stick_supply",
         .label = "Battery in (simulated)",
         .hint = "On the simulated bench; on a real one the transmitter first, propeller off",
         .main = true});
  if (doing_ == Doing::sticks && scene.bench.hands)
    add({.id = "stick_hands",
         .label = led_ ? "The simulated hands move them" : "Move them so (simulated)",
         .hint = "The simulated hands do what the card says, stick by stick",
         .main = true,
         .enabled = !led_});
  if (doing_ == Doing::loss && scene.bench.hands)
    add({.id = "loss_hands",
         .label = switched_off_ ? "It is off (simulated)" : "Switch it off (simulated)",
         .hint = "The simulated hands switch the transmitter off, and on again afterwards",
         .main = true,
         .enabled = !switched_off_});
  if (doing_ == Doing::sticks && setup_ && setup_->steps_done() > 1)
    add({.id = "listen_again",
         .label = "That stick again",
         .hint = "Takes back the last stick and asks for it once more"});
  if (!busy && dials)
    add({.id = "dial_in",
         .label = "Dialled in",
         .hint = "What is shown beside the rulers is set in the transmitter now",
         .main = true});
  if (!busy && c && c->sticks.learns_ends && report_.all_read && !report_.all_land && !wrong_way() &&
      (!limits().empty() || !dials))
    add({.id = "learn_ends",
         .label = "Let the controller learn these ends",
         .hint = "Takes what was read for the ends of each channel, written with the next configuration"});
  const bool writes = !busy && scene.bench.differs && report_.all_read && !scene.bench.writing;
  if (writes)
    add({.id = "write_channels",
         .label = "Write to the controller",
         .hint = "The controller takes each channel for what was found",
         .main = report_.all_land});
  const CheckStatus* calibrated = find_check(scene.checks, sticks_calibrated);
  const bool records = !busy && report_.all_land && calibrated && !calibrated->stands();
  if (records)
    add({.id = "record_calibrated",
         .label = "Record: sticks calibrated",
         .hint = "A proof that goes stale when order, direction, sub-trim or travel change",
         .main = !writes});
  const CheckStatus* noticed = find_check(scene.checks, loss_noticed);
  const bool tries = !busy && !writes && !records && report_.all_land && noticed && !noticed->stands();
  if (doing_ == Doing::loss && !hears)
    add({.id = "loss_hidden",
         .label = "Nothing tells",
         .hint = "The motor goes on, or no lamp shows that the link is gone"});
  if (!busy && hears)
    for (const ChannelFunction f : sticks_needed(report_))
      if (const Channel* read = scene.rig.channel(f); read && read->low_us)
        add({.id = "again_" + std::string(name_of(f)),
             .label = capital(function_label(f)) + " again",
             .hint = "Listens to this stick alone",
             .elsewhere = true});
  add({.id = "find_switch",
       .label = doing_ == Doing::a_switch ? "That was all" : "Find a switch",
       .hint = "Flip it through all its positions, half a second in each",
       .enabled = hears && (!busy || doing_ == Doing::a_switch),
       .minor = true});
  add({.id = "try_loss",
       .label = doing_ != Doing::loss ? "Try the loss"
                : hears               ? "It is off, frames still come"
                                      : "It told me",
       .hint = "Transmitter off: does the controller notice?",
       .main = tries || (doing_ == Doing::loss && switched_off_ && hears),
       .enabled = (hears || (c && !shows(scene))) && (!busy || doing_ == Doing::loss),
       .minor = !tries && doing_ != Doing::loss});
}

Card SticksProcedure::card(const Scene& scene) const {
  Card card;
  card.busy = doing_ != Doing::nothing;
  say_next(card, scene);
  if (doing_ == Doing::sticks || (!card.busy && can_listen(scene) && !report_.all_land && !changes()))
    card.caution = "Propeller off, model held: the throttle will be opened.";
  if (!result_.empty()) card.lines.push_back({result_});
  if (doing_ == Doing::sticks && setup_)
    for (const StickReading& r : setup_->readings())
      card.lines.push_back({"✓ " + capital(function_label(r.function)) + ", channel " + std::to_string(r.channel) +
                            ": " +
                            listed(r.centre_us ? std::vector<double>{r.low_us, *r.centre_us, r.high_us}
                                               : std::vector<double>{r.low_us, r.high_us}) +
                            " µs"});
  for (const std::string& limit : limits()) card.lines.push_back({limit});
  card.note = facts(scene.rig);
  add_actions(card, scene);
  return card;
}

}  // namespace rigging
