#include "proof/proof_procedure.h"

#include <algorithm>
#include <cmath>

namespace rigging {
namespace {

/// What the case counts as its surfaces.
std::vector<Surface> surfaces_of(const direction::Case& c) {
  std::vector<Surface> all;
  for (const auto& o : c.outputs) all.insert(all.end(), o.surfaces.begin(), o.surfaces.end());
  return all;
}

LookRow surface_row(Surface s) {
  LookRow row{s.word(), capital(s.spoken()), {}, {}};
  for (const int value : {1, -1, 0}) row.choices.emplace_back(value, motion_word(s, value));
  if (s.kind == SurfaceKind::rudder)
    row.choices = {{1, "right ▶"}, {-1, "◀ left"}, {0, "still"}};
  else if (s.kind != SurfaceKind::motor)
    row.choices = {{1, "▲ up"}, {-1, "▼ down"}, {0, "still"}};
  return row;
}

std::string channel_id(Axis axis) { return "channel_" + std::string(word(axis)); }

bool same_look(const direction::Observation& a, const direction::Observation& b) {
  return a.act == b.act && a.axis == b.axis && a.sense == b.sense && a.mode == b.mode && a.output == b.output;
}

/// The surfaces that a fault concerns.
std::set<Surface> concerned(const std::vector<direction::Fault>& faults, const direction::Case& c) {
  using direction::FaultKind;
  std::set<Surface> all;
  for (const auto& f : faults) {
    if (f.kind == FaultKind::linkage_opposed) {
      all.insert(f.surface);
      continue;
    }
    for (const int output : {f.output, f.other_output})
      if (output >= 0)
        all.insert(c.outputs[direction::at(output)].surfaces.begin(), c.outputs[direction::at(output)].surfaces.end());
    const bool by_axis = f.kind == FaultKind::gyro_reversed || f.kind == FaultKind::transmitter_reversed ||
                         f.kind == FaultKind::transmitter_swapped;
    for (const auto& o : c.outputs)
      if (by_axis && o.mix[direction::at(index_of(f.axis))] != 0) all.insert(o.surfaces.begin(), o.surfaces.end());
  }
  return all;
}

}  // namespace

bool ProofProcedure::board_differs(const Scene& scene) {
  return scene.bench.controller && scene.sets_over_link() && scene.bench.differs && !scene.bench.writing;
}

void ProofProcedure::restart(const Scene& scene) {
  session_rig_ = scene.rig;
  session_ = scene.controller ? BenchSession(scene.rig, *scene.controller) : BenchSession();
}

void ProofProcedure::follow(const Scene& scene) {
  const Rig& rig = scene.rig;
  // Looks count only for the aircraft on which they were made.
  if (rig.outputs != session_rig_.outputs || rig.sensing != session_rig_.sensing ||
      !(rig.radio == session_rig_.radio) || !(rig.controller == session_rig_.controller) ||
      !(rig.airframe.kind == session_rig_.airframe.kind)) {
    if (rig.controller.kind != session_rig_.controller.kind) by_hand_.clear();
    restart(scene);
  }
  session_rig_ = rig;
}

void ProofProcedure::decide(const Scene& scene) {
  const auto to_do = [](const CheckStatus& c) { return is_direction(c.id) && !c.stands(); };
  if (fallback_ || !find_check(scene.checks, current_)) current_.clear();
  fallback_ = false;
  if (current_.empty())
    if (const auto next = std::find_if(scene.checks.begin(), scene.checks.end(), to_do); next != scene.checks.end())
      current_ = next->id.text();
  if (current_.empty() && !scene.checks.empty()) {
    current_ = scene.checks.front().id.text();
    fallback_ = true;
  }
  const bool open = std::any_of(scene.checks.begin(), scene.checks.end(), to_do);
  const bool contradiction = session_.anything_seen() && session_.answer().explanations.empty();
  asking_ = !by_hand_.empty() || session_.diagnosed() ? Asking::verdict
            : contradiction                           ? Asking::contradiction
            : session_.wrong()                        ? Asking::question
            : open                                    ? Asking::check
                                                      : Asking::done;
  const CheckStatus* now = find_check(scene.checks, current_);
  // What its own station records, and what comes from a later one, is told and led to.
  elsewhere_ = now && !is_direction(now->id) && (asking_ == Asking::check || asking_ == Asking::done);
  direction_.reset();
  direction::Observation next = asked_;
  if (asking_ == Asking::question) {
    next = session_.answer().next->observation;
  } else if (now && !elsewhere_ && scene.controller && (asking_ == Asking::check || asking_ == Asking::done)) {
    direction_ = direction_card({scene.rig, scene.catalogue}, now->id);
    next = direction_->observation;
  }
  if (!same_look(next, asked_)) {
    ++look_;
    heard_.clear();
  }
  asked_ = next;
}

Orders ProofProcedure::hear(const Event& event, const Scene& scene) {
  Orders orders;
  if (const auto* time = std::get_if<Time>(&event)) {
    now_s_ = time->s;
    return steps_due();
  }
  if (const auto* channels = std::get_if<ChannelsHeard>(&event)) {
    hear_channels(channels->us);
    return {};
  }
  if (std::holds_alternative<SceneChanged>(event)) {
    follow(scene);
  } else if (const auto* pressed = std::get_if<Pressed>(&event)) {
    orders = press(*pressed, scene);
  } else if (const auto* looked = std::get_if<Looked>(&event)) {
    direction::Observation seen = asked_;
    for (const auto& [id, value] : looked->seen) {
      if (const auto surface = surface_from_word(id)) seen.saw.push_back({*surface, value});
      for (const Axis axis : all_axes)
        if (id == channel_id(axis)) seen.channels[direction::at(index_of(axis))] = value;
    }
    orders = note(std::move(seen), scene);
  } else {
    return {};
  }
  // What changes the rig is followed by what the scene then shows.
  const bool pending = std::any_of(orders.begin(), orders.end(), [](const Order& o) {
    return std::holds_alternative<Change>(o) || std::holds_alternative<Record>(o);
  });
  if (!pending) decide(scene);
  return orders;
}

Orders ProofProcedure::press(const Pressed& pressed, const Scene& scene) {
  const std::string& action = pressed.action;
  const CheckStatus* now = find_check(scene.checks, current_);
  if (action == "choose") {
    if (!find_check(scene.checks, pressed.subject)) return {};
    current_ = pressed.subject;
    fallback_ = false;
    if (session_.wrong() || !session_.answer().contradictions.empty()) session_.forget();
  } else if (action == "as_shown" && direction_) {
    direction::Observation seen = asked_;
    for (const Expected& e : direction_->looks) seen.saw.push_back({e.surface, e.motion});
    return note(std::move(seen), scene);
  } else if (action == "to_station" && now) {
    return {GoTo{now->family->station, now->id.subject}};
  } else if (action == "record_card" && now) {
    return {Record{now->id}};
  } else if (action == "apply") {
    return apply(scene);
  } else if (action == "by_hand") {
    return by_hand(scene);
  } else if (action == "hand_card") {
    return show_cards(scene);
  } else if (action == "write_rig") {
    return {WriteBoard{}};
  } else if (action == "look_again") {
    session_.drop_contradictions();
  } else if (action == "take_back") {
    session_.take_back_last();
  } else if (action == "do_it") {
    if (!scene.bench.battery)
      return {Say{"The servos have no supply. Propeller off, then plug the battery in on the bench below."}};
    plan_steps(scene);
    return steps_due();
  }
  return {};
}

Orders ProofProcedure::note(direction::Observation seen, const Scene& scene) {
  if (!scene.controller) return {};
  const CheckStatus* now = find_check(scene.checks, current_);
  const bool passed = direction_ && now && as_expected(*direction_, seen);
  session_.add(std::move(seen));
  ++look_;
  heard_.clear();
  if (!passed || session_.wrong() || session_.answer().explanations.empty()) return {};
  current_.clear();
  return {Record{now->id, "Proven: " + now->title}};
}

Orders ProofProcedure::apply(const Scene& scene) {
  if (!scene.controller || session_.answer().explanations.empty()) return {};
  const direction::Case c = session_.looks();
  CuredRig done = cured(scene.rig, *scene.controller, c, session_.answer().explanations.front());
  by_hand_ = done.by_hand;
  by_hand_case_ = c;
  const bool settings = done.rig.outputs != scene.rig.outputs || done.rig.sensing != scene.rig.sensing;
  session_.forget();
  Orders orders{Change{{std::move(done.rig), std::move(done.label)}}};
  if (scene.sets_over_link() && settings) {
    if (scene.bench.controller)
      orders.emplace_back(WriteBoard{});
    else
      orders.emplace_back(Say{"No controller answers: the rig is changed, the board is not. Connect and write it."});
  }
  return orders;
}

Orders ProofProcedure::by_hand(const Scene& scene) {
  Orders orders;
  if (by_hand_.empty()) orders = apply(scene);
  for (const auto& f : by_hand_) orders.emplace_back(AskHands{direction::work_for(f, by_hand_case_)});
  by_hand_.clear();
  session_.forget();
  orders.emplace_back(Say{"Now look again."});
  return orders;
}

Orders ProofProcedure::show_cards(const Scene& scene) const {
  if (!scene.controller) return {};
  const bool waiting = !by_hand_.empty();
  if (!waiting && session_.answer().explanations.empty()) return {};
  ShowHandCards shown;
  for (const auto& f : waiting ? by_hand_ : session_.answer().explanations.front().faults)
    shown.cards.push_back(hand_card(scene.rig, *scene.controller, f, waiting ? by_hand_case_ : session_.looks()));
  return {std::move(shown)};
}

void ProofProcedure::plan_steps(const Scene& scene) {
  if (!steps_.empty()) return;
  const direction::Observation o = asked_;
  const auto hand = [&](double after_s, hands::Request request) {
    steps_.push_back({after_s, AskHands{std::move(request)}});
  };
  const ModeAnswer* answer = scene.controller ? scene.controller->mode(o.mode) : nullptr;
  hand(0, hands::ChooseMode{o.act == direction::Act::drive ? Mode::manual : o.mode});
  if (o.act == direction::Act::stick) {
    hand(0.15, hands::Stick{o.axis, static_cast<double>(o.sense)});
    hand(2.2, hands::Stick{o.axis, 0});
  } else if (o.act == direction::Act::drive) {
    const Output* output = scene.rig.output(session_.looks().outputs[direction::at(o.output)].id);
    steps_.push_back({0.15, DriveOutput{output ? output->socket : "", 0.8 * o.sense}});
    steps_.push_back({2, ReleaseOutputs{}});
  } else if (answer && (answer->answer == AnswerKind::momentary || answer->answer == AnswerKind::springs_back)) {
    hand(0.2, hands::Flick{o.axis, o.sense});
    hand(1.5, hands::Flick{o.axis, o.sense});
    hand(1.4, hands::Hold{});
  } else {
    const double deg = o.sense * std::max(30.0, (answer ? answer->from_deg : 0) + 8);
    hand(0.2,
         hands::Hold{o.axis == Axis::roll ? deg : 0, o.axis == Axis::pitch ? deg : 0, o.axis == Axis::yaw ? deg : 0});
    hand(2.6, hands::Hold{});
  }
  hand(0.7, hands::ChooseMode{Mode::manual});
  last_step_s_ = now_s_;
}

Orders ProofProcedure::steps_due() {
  Orders orders;
  while (!steps_.empty() && now_s_ >= last_step_s_ + steps_.front().after_s) {
    last_step_s_ += steps_.front().after_s;
    orders.push_back(std::move(steps_.front().order));
    steps_.erase(steps_.begin());
  }
  return orders;
}

void ProofProcedure::hear_channels(const std::map<std::string, double>& us) {
  // The controller itself says what it hears while the stick is held.
  if (asking_ != Asking::question || asked_.act != direction::Act::stick || steps_.empty()) return;
  const bool moved = std::any_of(
      us.begin(), us.end(), [](const auto& c) { return c.first != "throttle" && std::abs(c.second - 1500) > 300; });
  if (!moved) return;
  for (const Axis axis : all_axes)
    if (const auto it = us.find(std::string(word(axis))); it != us.end())
      heard_[channel_id(axis)] = it->second > 1600 ? 1 : it->second < 1400 ? -1 : 0;
}

void ProofProcedure::add_looking(Card& card, const Scene& scene) const {
  if (board_differs(scene)) {
    card.says = "The controller holds something else than the rig.";
    card.lines = {
        {"A look would prove the board's settings, not these. Write the rig, or compare part by part on the "
         "bench below."}};
    card.looks.clear();
    card.actions.push_back({.id = "write_rig", .label = "Write the rig to the controller", .main = true});
    return;
  }
  if (direction_) card.actions.push_back({.id = "as_shown", .label = "Yes, all as shown", .main = true});
  card.actions.push_back({.id = "note", .label = "This is what I saw", .needs_look = true});
  if (scene.bench.hands)
    card.actions.push_back(
        {.id = "do_it", .label = "Do it on the simulated bench", .enabled = steps_.empty(), .minor = true});
}

void ProofProcedure::show_check(Card& card, const CheckStatus& s, const Scene& scene) const {
  card.title = s.title;
  card.todo = direction_->todo;
  card.remark = direction_->how;
  card.caution = direction_->cautions.front();
  card.picture.caption = "What you should see";
  card.picture.words = direction_->expected;
  card.picture.axis = direction_->axis;
  if (direction_->correction) card.picture.correction = Picture::Correction{direction_->from_deg, direction_->answer};
  // Some units lean the rudder into a held bank: shown, so that nobody takes it for a fault.
  if (direction_->correction && direction_->axis == Axis::roll && scene.controller->proof.rudder_into_bank)
    for (const Output& o : scene.rig.outputs)
      for (const Surface surface : o.surfaces)
        if (surface.kind == SurfaceKind::rudder) card.picture.leaning.insert(surface);
  for (const Expected& e : direction_->looks) {
    card.picture.arrows[e.surface] = e.motion;
    card.looks.push_back(surface_row(e.surface));
  }
  card.says = asking_ == Asking::done        ? std::string(scene.readiness) + "."
              : s.state == ProofState::stale ? "Gone stale: " + s.because
              : s.state == ProofState::fresh ? "Proven " + s.at
                                             : "What did you see?";
  card.lines = {
      {asking_ == Asking::done ? "Any check can be done again." : "Watch the surface, not the stick. Say it aloud."}};
  add_looking(card, scene);
}

void ProofProcedure::show_elsewhere(Card& card, const CheckStatus& s, const Scene& scene) const {
  const CheckCard c = card_of({scene.rig, scene.catalogue}, s.id);
  card.title = s.title;
  card.todo = c.before_power.empty() ? c.todo : c.before_power + " " + c.todo;
  card.caution = c.cautions.empty() ? "" : c.cautions.front();
  card.picture.words = "Should show: " + c.expected;
  card.remark = c.how;
  card.says = s.state == ProofState::stale ? "Gone stale: " + s.because
              : s.stands()                 ? "Proven " + s.at
              : s.holds                    ? "Not recorded yet."
                                           : "Not yet: " + s.why_not + ".";
  const std::string station(word(s.family->station));
  if (s.family->by_station) {
    card.lines = {{"It is done and recorded at station " + station + "."}};
    card.actions.push_back({.id = "to_station", .label = "Go to station " + station, .main = true});
  } else if (s.holds) {
    card.actions.push_back({.id = "record_card", .label = "Yes, I saw it", .main = true});
  }
}

void ProofProcedure::show_question(Card& card, const Scene& scene) const {
  const direction::Question& q = *session_.answer().next;
  const direction::Case& c = session_.looks();
  card.title = "Something is wrong. One more look tells more.";
  card.todo = capital(direction::observation_text(asked_, c)) + ".";
  const ModeAnswer* answer =
      asked_.act == direction::Act::tilt && scene.controller ? scene.controller->mode(asked_.mode) : nullptr;
  if (asked_.act == direction::Act::drive)
    card.remark = "Only this one output is moved: it shows what is plugged where, and which way it turns.";
  else if (answer && answer->answer == AnswerKind::momentary)
    card.remark = "Momentary: a quick flick shows it best.";
  card.caution = "Propeller off. Stand clear of its arc.";
  card.picture.caption = "Watch every surface that moves, and those that should not";
  card.picture.words = q.channels && q.surfaces ? "Note the surfaces, and what the controller hears."
                       : q.channels             ? "Read what the controller hears."
                                                : "Note every surface you can; leave open what you did not look at.";
  const auto& accounts = session_.answer().explanations;
  card.says = std::to_string(accounts.size()) + " accounts still fit.";
  for (std::size_t i = 0; i < std::min<std::size_t>(3, accounts.size()); ++i) {
    std::string faults;
    for (const auto& f : accounts[i].faults)
      faults += (faults.empty() ? "Perhaps " : " and ") + direction::fault_text(f, c);
    card.lines.push_back({faults});
  }
  if (accounts.size() > 3) card.lines.push_back({"or one of " + std::to_string(accounts.size() - 3) + " others."});
  if (q.surfaces)
    for (const Surface s : surfaces_of(c)) card.looks.push_back(surface_row(s));
  if (q.channels)
    for (const Axis axis : all_axes) {
      LookRow row{
          channel_id(axis), "Channel " + std::string(word(axis)), {{1, "rises"}, {-1, "falls"}, {0, "still"}}, {}};
      if (const auto it = heard_.find(row.id); it != heard_.end()) row.heard = it->second;
      card.looks.push_back(std::move(row));
    }
  add_looking(card, scene);
}

void ProofProcedure::show_verdict(Card& card, const Scene& scene) const {
  if (!scene.controller) return;
  const bool waiting = !by_hand_.empty();
  const direction::Case& c = waiting ? by_hand_case_ : session_.looks();
  const auto& faults = waiting ? by_hand_ : session_.answer().explanations.front().faults;
  std::string wrong;
  bool writes = false;
  int n = 0;
  const auto add_step = [&](const std::string& step) { card.lines.push_back({std::to_string(++n) + ". " + step}); };
  for (const auto& f : faults) {
    wrong += (wrong.empty() ? "" : "; and ") + direction::fault_text(f, c);
    const HandCard hand = hand_card(scene.rig, *scene.controller, f, c);
    if (hand.over_link && scene.controller->link && !waiting) {
      writes = true;
      add_step(capital(direction::remedy_text(f, c)) + ": Rigging writes it to the controller.");
    } else {
      for (const std::string& step : hand.steps) add_step(step);
      if (card.caution.empty() && !hand.cautions.empty()) card.caution = hand.cautions.front();
    }
  }
  card.title = waiting ? "Now by hand" : "Found it";
  card.picture.marked = concerned(faults, c);
  if (!card.picture.marked.empty()) card.picture.caption = "What it concerns";
  card.says = capital(wrong) + ".";
  if (!waiting && session_.answer().equivalent)
    card.lines.push_back({"Nothing that can be looked at tells this apart from " +
                          std::to_string(session_.answer().explanations.size() - 1) +
                          " other accounts; this one is the likeliest."});
  if (!waiting && writes)
    card.actions.push_back({.id = "apply",
                            .label = scene.bench.controller ? "Apply, and write it to the controller" : "Apply",
                            .main = true});
  if (waiting || !writes) {
    card.actions.push_back({.id = "by_hand", .label = "I have done it by hand", .main = true});
    card.actions.push_back({.id = "hand_card", .label = "Show the hand card"});
  }
}

void ProofProcedure::show_contradiction(Card& card) const {
  const direction::Case& c = session_.looks();
  card.title = "Two looks disagree";
  card.says = "What was noted can't all be true, whatever is wrong. Most often a surface was misread.";
  card.lines = {{"Look again at:"}};
  for (const int i : session_.answer().contradictions) {
    const auto& o = c.observations[direction::at(i)];
    std::string seen;
    for (const auto& s : o.saw)
      seen += (seen.empty() ? "" : ", ") + s.surface.spoken() + " " + std::string(motion_word(s.surface, s.motion));
    card.lines.push_back({"• " + capital(direction::observation_text(o, c)) + ": " + seen});
  }
  card.actions.push_back({.id = "look_again", .label = "Forget those and look again", .main = true});
}

Card ProofProcedure::card(const Scene& scene) const {
  Card card;
  card.subject = current_;
  card.look = look_;
  card.busy = !steps_.empty();
  const CheckStatus* now = find_check(scene.checks, current_);
  if (now && elsewhere_) {
    show_elsewhere(card, *now, scene);
    return card;
  }
  if (!now || (!scene.controller && asking_ != Asking::contradiction)) {
    card.title =
        scene.controller ? "Nothing to check: no output drives a surface." : "The controller class is not known.";
    return card;
  }
  switch (asking_) {
    case Asking::check:
    case Asking::done: show_check(card, *now, scene); break;
    case Asking::question: show_question(card, scene); break;
    case Asking::verdict: show_verdict(card, scene); break;
    case Asking::contradiction: show_contradiction(card); break;
  }
  if (session_.anything_seen() && by_hand_.empty())
    card.actions.push_back({.id = "take_back", .label = "Take back my last look", .minor = true});
  if (session_.anything_seen())
    card.note = std::to_string(session_.looks().observations.size()) + " looks count in this sitting.";
  return card;
}

}  // namespace rigging
