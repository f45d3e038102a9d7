#include <algorithm>

#include "base/counted.h"
#include "direction/mode_checks.h"
#include "proof/proof_procedure.h"
#include "surfaces/surface_checks.h"

// What the card of the bench checks says; what it hears and decides is in proof_procedure.cpp.
namespace rigging {
namespace {

/// What the case counts as its surfaces.
std::vector<Surface> surfaces_of(const direction::Case& c) {
  std::vector<Surface> all;
  for (const auto& o : c.outputs) all.insert(all.end(), o.surfaces.begin(), o.surfaces.end());
  return all;
}

LookRow surface_row(Surface s) {
  LookRow row{s.name(), capital(s.label()), {}, {}};
  for (const int value : {1, -1, 0}) row.choices.emplace_back(value, motion_word(s, value));
  return row;
}

/// A class may show nothing of it, or the tool for it is not at hand: the rest need not wait.
Action later() {
  return {.id = "later",
          .label = "Later: on to the next",
          .hint = "It stays to be done, and the aircraft is not ready before",
          .minor = true};
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
    const bool by_axis = f.kind == FaultKind::gyro_reversed || f.kind == FaultKind::function_reversed ||
                         f.kind == FaultKind::transmitter_reversed || f.kind == FaultKind::transmitter_swapped;
    for (const auto& o : c.outputs)
      if (by_axis && o.mix[direction::at(index_of(f.axis))] != 0) all.insert(o.surfaces.begin(), o.surfaces.end());
  }
  return all;
}

}  // namespace

/// True when a look would prove something else than the rig: the card says so, and what to do first.
bool ProofProcedure::must_write_first(Card& card, const Scene& scene) {
  if (!board_differs(scene)) return false;
  card.says = "The controller holds something else than the rig.";
  card.lines = {
      {"A look would prove the board's settings, not these. Write the rig, or compare part by part on the "
       "bench below."}};
  card.looks.clear();
  card.actions.push_back({.id = "write_rig", .label = "Write the rig to the controller", .main = true});
  return true;
}

void ProofProcedure::add_looking(Card& card, const Scene& scene) const {
  if (must_write_first(card, scene)) return;
  if (direction_) card.actions.push_back({.id = "as_shown", .label = "Yes, all as shown", .main = true});
  card.actions.push_back(
      {.id = "note", .label = direction_ ? "No: this is what I saw" : "This is what I saw", .needs_look = true});
  if (scene.bench.hands)
    card.actions.push_back(
        {.id = "do_it", .label = "Do it on the simulated bench", .enabled = !steps_.busy(), .minor = true});
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
              : s.state == ProofState::stale ? "Gone stale. Since then:"
              : s.state == ProofState::fresh ? "Proven " + s.at
                                             : "What did you see?";
  if (asking_ != Asking::done) add_changes(card, s);
  card.lines.push_back(
      {asking_ == Asking::done ? "Any check can be done again." : "Watch the surface, not the stick. Say it aloud."});
  add_looking(card, scene);
  if (direction_->correction && asking_ == Asking::check && scene.controller)
    for (const Mode mode : look_modes(*scene.controller, direction_->axis))
      if (mode != direction_->observation.mode)
        card.actions.push_back({.id = "look_in:" + std::string(name_of(mode)),
                                .label = "Look in " + std::string(name_of(mode)) + " mode instead",
                                .minor = true});
}

void ProofProcedure::show_elsewhere(Card& card, const CheckStatus& s, const Scene& scene) const {
  const CheckCard c = card_of({scene.rig, scene.catalogue}, s.id);
  card.title = s.title;
  card.todo = c.before_power.empty() ? c.todo : c.before_power + " " + c.todo;
  card.caution = c.cautions.empty() ? "" : c.cautions.front();
  card.picture.words = "Should show: " + c.expected;
  card.remark = c.how;
  card.says = s.state == ProofState::stale ? "Gone stale. Since then:"
              : s.stands()                 ? "Proven " + s.at
              : s.holds                    ? "Not recorded yet."
                                           : "Not yet: " + s.why_not + ".";
  add_changes(card, s);
  const bool plans = !s.holds && s.family->counts_for;
  if (s.family->by_station || plans) {
    const std::string station(name_of(plans ? *s.family->counts_for : s.family->station));
    if (!plans) card.lines.push_back({"It is done and recorded at station " + station + "."});
    card.actions.push_back({.id = "to_station", .label = "Go to station " + station, .main = true});
    if (!s.stands()) card.actions.push_back(later());
  } else if (scene.bench.writing) {
    card.busy = true;
  } else if (s.holds && !must_write_first(card, scene)) {
    if (denied_ == s.id.text()) {
      card.says = "Then it is not proven.";
      card.lines = {
          {"Do it once more, step by step, and watch what comes first: switch, lamp, supply. What you saw can be "
           "asked in plain words (Ctrl+K). Until it shows as it should, it does not fly."}};
    }
    // What the link reads back nobody needs to be asked.
    const bool read = s.family->read_back && scene.bench.controller && scene.bench.read && scene.sets_over_link();
    if (read && !s.stands()) card.says = "The board holds just this: it was read over the link.";
    card.actions.push_back({.id = "record_card",
                            .label = s.family->guides ? "Done"
                                     : read           ? "Record it"
                                                      : "Yes, I saw it",
                            .main = true});
    if (!s.family->guides && !read) card.actions.push_back({.id = "not_so", .label = "No, it was not so"});
    if (scene.bench.hands && (s.id == flaps_droop || s.id == rudder_leans || s.id.family == mode_family))
      card.actions.push_back(
          {.id = "do_it", .label = "Do it on the simulated bench", .enabled = !steps_.busy(), .minor = true});
    if (!s.family->guides && !s.stands()) card.actions.push_back(later());
  }
}

void ProofProcedure::show_question(Card& card, const Scene& scene) const {
  const direction::Question& q = *question_;
  const direction::Case& c = session_.looks();
  card.title = "Not yet: one more look.";
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
  card.says =
      "Something is wrong. " + (accounts.size() == 1 ? std::string("One account fits, and wants to be seen.")
                                                     : std::to_string(accounts.size()) + " accounts still fit.");
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
          channel_row(axis), "Channel " + std::string(name_of(axis)), {{1, "rises"}, {-1, "falls"}, {0, "still"}}, {}};
      if (const auto it = heard_.find(row.id); it != heard_.end()) row.heard = it->second;
      card.looks.push_back(std::move(row));
    }
  add_looking(card, scene);
  if (leads_unseen_)
    card.actions.push_back({.id = "as_planned", .label = "I looked, and it is as planned", .minor = true});
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
  const bool looks_at_board = board_unseen();
  const bool looks_first = leads_unseen_ || looks_at_board || (!waiting && session_.answer().equivalent);
  card.title = waiting          ? "Now by hand"
               : leads_unseen_  ? "Not yet: follow the leads with your eyes"
               : looks_at_board ? "Not yet: look at how the board sits"
               : looks_first    ? "Not yet for sure"
                                : "Found it";
  card.picture.marked = concerned(faults, c);
  if (!card.picture.marked.empty()) card.picture.caption = "What it concerns";
  card.says = (looks_first ? "Perhaps " + wrong : capital(wrong)) + ".";
  if (leads_unseen_)
    card.lines.insert(card.lines.begin(),
                      {"Battery out. Follow each of these leads from its servo to its socket before you move one."});
  if (looks_at_board)
    card.lines.insert(
        card.lines.begin(),
        {"Look at the board itself. Only if it sits like that is the rest to be done: a controller that is "
         "told of a turn that is not there would level toward it, even on its back."});
  if (!waiting && session_.answer().equivalent)
    card.lines.push_back({"Nothing that can be looked at tells this apart from " +
                          counted(session_.answer().explanations.size() - 1, "other account") +
                          "; this one is the likeliest."});
  if (!waiting && writes)
    card.actions.push_back({.id = "apply",
                            .label = looks_at_board           ? "It sits like that: tell the controller"
                                     : scene.bench.controller ? "Apply, and write it to the controller"
                                                              : "Apply",
                            .main = !looks_at_board});
  if (!waiting && as_planned())
    card.actions.push_back(
        {.id = "as_planned", .label = "I looked, and it is as planned", .main = leads_unseen_ || looks_at_board});
  if (!waiting && !leads_unseen_ && as_planned() && !as_planned()->leads.empty())
    card.lines.push_back(
        {"Have your eyes followed the leads already? Say so below: it rules out that they are exchanged."});
  if (waiting || !writes) {
    card.actions.push_back(
        {.id = "by_hand", .label = "I have done it by hand", .main = !leads_unseen_ && !looks_at_board});
    card.actions.push_back({.id = "hand_card", .label = "Show the hand card"});
  }
}

void ProofProcedure::show_contradiction(Card& card) const {
  const direction::Case& c = session_.looks();
  if (session_.answer().too_many) {
    card.title = "More outputs than can be reasoned about";
    card.says = "What was seen is not as it should be, and this aircraft has more than " +
                std::to_string(direction::most_outputs) +
                " outputs with surfaces: nothing can be worked out from all of them together.";
    card.lines = {{"Drive each output alone, and compare its surface with the plan: lead, direction, mix."}};
    card.actions.push_back({.id = "look_again", .label = "Forget the looks", .main = true});
    return;
  }
  card.title = "Two looks disagree";
  card.says = "What was noted can't all be true, whatever is wrong. Most often a surface was misread.";
  card.lines = {{"Look again at:"}};
  for (const int i : session_.answer().contradictions) {
    const auto& o = c.observations[direction::at(i)];
    std::string seen;
    for (const auto& s : o.saw)
      seen += (seen.empty() ? "" : ", ") + s.surface.label() + " " + std::string(motion_word(s.surface, s.motion));
    card.lines.push_back({"• " + capital(direction::observation_text(o, c)) + ": " + seen});
  }
  card.actions.push_back({.id = "look_again", .label = "Forget those and look again", .main = true});
}

Card ProofProcedure::card(const Scene& scene) const {
  Card card;
  card.subject = current_;
  card.look = look_;
  card.busy = steps_.busy();
  const CheckStatus* now = find_check(scene.checks, current_);
  if (now && elsewhere_) {
    if (const Procedure* own = reader(scene)) {
      card = own->card(scene);
      card.subject = current_;
      card.title = now->title;
      if (!now->stands() && !card.busy) card.actions.push_back(later());
    } else {
      show_elsewhere(card, *now, scene);
    }
    if (const std::size_t n = left_for_later(scene)) card.note = counted(n, "check") + " left for later.";
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
  if (session_.anything_seen()) card.note = counted(session_.looks_made(), "look") + " taken in this sitting.";
  if (const std::size_t n = left_for_later(scene))
    card.note += (card.note.empty() ? "" : " ") + counted(n, "check") + " left for later.";
  return card;
}

}  // namespace rigging
