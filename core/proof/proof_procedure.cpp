#include "proof/proof_procedure.h"
#include "direction/mode_checks.h"

#include <algorithm>
#include <cmath>

#include "home/home_checks.h"
#include "surfaces/surface_checks.h"
#include "wiring/lead_checks.h"
#include "wiring/wiring.h"

namespace rigging {
namespace {

const std::string look_in = "look_in:";
constexpr const char* no_supply =
    "The servos have no supply: nothing can be seen. Propeller off, then plug the battery in on the bench below.";

bool same_look(const direction::Observation& a, const direction::Observation& b) {
  return a.act == b.act && a.leads == b.leads && a.horns == b.horns && a.board == b.board && a.axis == b.axis &&
         a.sense == b.sense && a.mode == b.mode && a.output == b.output;
}

/// The outputs all of whose leads have a fresh proof: they were followed with the eyes, one for each surface.
std::optional<direction::Observation> proven_leads(const Scene& scene, const direction::Case& c) {
  direction::Observation seen;
  seen.act = direction::Act::inspect;
  for (std::size_t i = 0; i < c.outputs.size(); ++i) {
    const Output* output = scene.rig.output(c.outputs[i].id);
    std::size_t proven = 0;
    bool all = output != nullptr;
    for (const Lead& l : scene.rig.leads) {
      const LeadEnd* far = far_end(l, "controller");
      const Part* part = far ? scene.rig.part(far->part) : nullptr;
      if (!part || output_for(scene.rig, scene.catalogue, *part) != output) continue;
      const CheckStatus* check = find_check(scene.checks, CheckId{lead_family, l.id});
      all = all && check && check->state == ProofState::fresh;
      ++proven;
    }
    if (all && proven == c.outputs[i].surfaces.size()) seen.leads.push_back(static_cast<int>(i));
  }
  return seen.leads.empty() ? std::nullopt : std::optional(seen);
}

/// The exchange of leads in a list of faults, when neither lead was looked at nor its output driven alone. Null else.
const direction::Fault* unseen_exchange(const std::vector<direction::Fault>& faults, const direction::Case& c) {
  for (const direction::Fault& f : faults) {
    if (f.kind != direction::FaultKind::leads_swapped) continue;
    const bool driven = std::any_of(c.observations.begin(), c.observations.end(), [&](const auto& o) {
      return o.act == direction::Act::drive && !o.saw.empty() && (o.output == f.output || o.output == f.other_output);
    });
    if (!driven) return &f;
  }
  return nullptr;
}

/// A stick that goes the wrong way is the transmitter's fault, or that of every servo it moves: before the transmitter
/// is blamed the channel is read, or else the correction looked at. Nothing when that was done or can't be.
std::optional<direction::Question> unread_channel(const std::vector<direction::Fault>& faults, const direction::Case& c,
                                                  Mode bench_mode) {
  for (const direction::Fault& f : faults) {
    if (f.kind != direction::FaultKind::transmitter_reversed) continue;
    const auto axis = direction::at(index_of(f.axis));
    if (std::any_of(c.observations.begin(), c.observations.end(), [&](const auto& o) {
          return o.channels[axis] || (o.act == direction::Act::tilt && o.axis == f.axis && !o.saw.empty());
        }))
      continue;
    std::optional<direction::Question> best;
    for (const direction::Question& q : c.may_ask ? *c.may_ask : c.all_questions()) {
      if (q.observation.axis != f.axis) continue;
      if (q.observation.act == direction::Act::stick && q.channels) {
        best = q;
        best->surfaces = false;
        return best;
      }
      if (q.observation.act == direction::Act::tilt && !(levels_wings(q.observation.mode) && f.axis == Axis::yaw) &&
          (!best || q.observation.mode == bench_mode))
        best = q;
    }
    if (best) return best;
  }
  return std::nullopt;
}

}  // namespace

bool ProofProcedure::board_unseen() const {
  if (!by_hand_.empty() || session_.answer().explanations.empty()) return false;
  const auto& faults = session_.answer().explanations.front().faults;
  return std::any_of(faults.begin(), faults.end(),
                     [](const direction::Fault& f) { return f.kind == direction::FaultKind::board_turned; });
}

Procedure* ProofProcedure::reader(const Scene& scene) const {
  const CheckStatus* now = find_check(scene.checks, current_);
  if (!now || !elsewhere_ || !now->holds || !scene.bench.controller) return nullptr;
  return now->id == loss_planned ? loss_.get() : now->id == positions_planned ? positions_.get() : nullptr;
}

std::size_t ProofProcedure::left_for_later(const Scene& scene) const {
  return static_cast<std::size_t>(std::count_if(scene.checks.begin(), scene.checks.end(), [&](const CheckStatus& c) {
    return !c.stands() && later_.count(c.id) > 0;
  }));
}

std::string ProofProcedure::channel_row(Axis axis) { return "channel_" + std::string(name_of(axis)); }

bool ProofProcedure::board_differs(const Scene& scene) {
  return scene.bench.controller && scene.sets_over_link() && scene.bench.differs && !scene.bench.writing;
}

void ProofProcedure::restart(const Scene& scene) {
  session_rig_ = scene.rig;
  session_ = scene.controller ? BenchSession(scene.rig, *scene.controller) : BenchSession();
  known_.reset();
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
  auto known = scene.controller ? proven_leads(scene, session_.looks()) : std::nullopt;
  if (known.has_value() != known_.has_value() || (known && known->leads != known_->leads)) {
    known_ = known;
    session_.know(std::move(known));
  }
}

void ProofProcedure::decide(const Scene& scene) {
  const auto to_do = [](const CheckStatus& c) { return !c.family->guides && !c.stands(); };
  // What was led to a station and came back proven is done with.
  const CheckStatus* led_to = find_check(scene.checks, waited_for_);
  if (led_to && led_to->stands() && current_ == waited_for_) {
    last_ = current_;
    current_.clear();
  }
  if (fallback_ || !find_check(scene.checks, current_)) current_.clear();
  fallback_ = false;
  if (current_.empty()) {
    // On from where one is, and round.
    const CheckStatus* before = find_check(scene.checks, last_);
    const std::size_t all = scene.checks.size(),
                      from = before ? static_cast<std::size_t>(before - scene.checks.data()) + 1 : 0;
    for (std::size_t i = 0; i < all && current_.empty(); ++i)
      if (const CheckStatus& c = scene.checks[(from + i) % all]; to_do(c)) current_ = c.id.text();
    // Of one axis the stick before the correction, also where it went stale in between.
    if (const CheckStatus* c = find_check(scene.checks, current_); c && c->id.family == correction_family)
      if (const CheckStatus* stick = find_check(scene.checks, CheckId{stick_family, c->id.subject});
          stick && to_do(*stick))
        current_ = stick->id.text();
    // What nobody chose waits at its own station, or for nothing: another is taken as soon as one does.
    const CheckStatus* taken = find_check(scene.checks, current_);
    fallback_ = !taken || taken->family->by_station;
    if (!taken && all > 0) current_ = scene.checks.front().id.text();
  }
  const CheckStatus* at = find_check(scene.checks, current_);
  const bool read = at && (at->family->by_station || at->id == loss_planned || at->id == positions_planned);
  waited_for_ = read && !at->stands() ? current_ : std::string();
  const bool open = std::any_of(scene.checks.begin(), scene.checks.end(),
                                [&](const CheckStatus& c) { return to_do(c) && !c.family->by_station; });
  unreasoned_ = unreasoned_ && session_.answer().too_many;
  const bool contradiction =
      session_.answer().too_many ? unreasoned_ : session_.anything_seen() && session_.answer().explanations.empty();
  question_ = session_.answer().next;
  leads_unseen_ = false;
  if (by_hand_.empty() && session_.diagnosed())
    if (const direction::Fault* f = unseen_exchange(session_.answer().explanations.front().faults, session_.looks())) {
      leads_unseen_ = true;
      if (scene.controller && scene.controller->surfaces.drives_one_output) {
        question_.emplace();
        question_->observation.act = direction::Act::drive;
        question_->observation.output = f->output;
      }
    }
  if (by_hand_.empty() && session_.diagnosed() && !question_)
    question_ = unread_channel(session_.answer().explanations.front().faults, session_.looks(),
                               scene.controller ? scene.controller->proof.bench_mode : Mode::rate);
  asking_ = by_hand_.empty() && session_.diagnosed() && question_ ? Asking::question
            : !by_hand_.empty() || session_.diagnosed()           ? Asking::verdict
            : contradiction                                       ? Asking::contradiction
            : session_.wrong()                                    ? Asking::question
            : open                                                ? Asking::check
                                                                  : Asking::done;
  const CheckStatus* now = find_check(scene.checks, current_);
  // What its own station records, and what comes from a later one, is told and led to.
  elsewhere_ = now && !is_direction(now->id) && (asking_ == Asking::check || asking_ == Asking::done);
  direction_.reset();
  direction::Observation next = asked_;
  if (asking_ == Asking::question) {
    next = question_->observation;
  } else if (now && !elsewhere_ && scene.controller && (asking_ == Asking::check || asking_ == Asking::done)) {
    direction_ = direction_card({scene.rig, scene.catalogue}, now->id, look_in_);
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
  const auto add = [&orders](Orders&& more) { std::move(more.begin(), more.end(), std::back_inserter(orders)); };
  if (!std::holds_alternative<Pressed>(event) && !std::holds_alternative<Looked>(event))
    for (const auto& own : {loss_.get(), positions_.get()}) add(own->hear(event, scene));
  if (const auto* time = std::get_if<Time>(&event)) {
    now_s_ = time->s;
    add(steps_.due(now_s_));
    return orders;
  }
  if (const auto* channels = std::get_if<ChannelsHeard>(&event)) {
    hear_channels(channels->us);
    return orders;
  }
  if (std::holds_alternative<SceneChanged>(event)) {
    follow(scene);
  } else if (const auto* pressed = std::get_if<Pressed>(&event)) {
    Procedure* own = pressed->action == "choose" || pressed->action == "later" ? nullptr : reader(scene);
    orders = own ? own->hear(event, scene) : press(*pressed, scene);
  } else if (const auto* looked = std::get_if<Looked>(&event)) {
    direction::Observation seen = asked_;
    for (const auto& [id, value] : looked->seen) {
      if (const auto surface = surface_from_name(id)) seen.saw.push_back({*surface, value});
      for (const Axis axis : all_axes)
        if (id == channel_row(axis)) seen.channels[direction::at(index_of(axis))] = value;
    }
    orders = note(std::move(seen), scene);
  } else {
    return orders;
  }
  // What changes the rig is followed by what the scene then shows.
  const bool pending = std::any_of(orders.begin(), orders.end(), [](const Order& o) {
    return std::holds_alternative<ApplyEdit>(o) || std::holds_alternative<Record>(o);
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
    look_in_.reset();
    fallback_ = false;
    if (session_.wrong() || !session_.answer().contradictions.empty()) session_.forget();
  } else if (action == "as_shown" && direction_) {
    direction::Observation seen = asked_;
    for (const Expected& e : direction_->looks) seen.saw.push_back({e.surface, e.motion});
    return note(std::move(seen), scene);
  } else if (action.starts_with(look_in) && direction_) {
    const auto mode = from_name<Mode>(action.substr(look_in.size()));
    const auto can = scene.controller ? look_modes(*scene.controller, direction_->axis) : std::vector<Mode>{};
    if (mode && std::find(can.begin(), can.end(), *mode) != can.end()) look_in_ = mode;
  } else if (action == "to_station" && now) {
    // A plan that is missing is made at the station that the check counts for.
    const bool plans = !now->holds && now->family->counts_for;
    return {GoTo{plans ? *now->family->counts_for : now->family->station,
                 now->id.subject.empty() ? now->id.text() : now->id.subject}};
  } else if (action == "later" && now) {
    // All of its kind: who leaves the leads for later leaves them all.
    for (const CheckStatus& c : scene.checks)
      if (c.family == now->family) {
        last_ = c.id.text();
        if (!c.stands()) later_.insert(c.id);
      }
    current_.clear();
  } else if (action == "not_so" && now) {
    denied_ = now->id.text();
    if (!now->stands() && now->state != ProofState::stale) return {};
    // What was proven once is not so any more.
    return {ApplyEdit{{without_proofs(scene.rig, now->id.family, now->id.subject), "Not so: " + now->title}}};
  } else if (action == "record_card" && now) {
    const CheckId done = now->id;
    denied_.clear();
    last_ = current_;
    if (!now->family->guides) {
      current_.clear();  // on to what is still to do
    } else {
      // On to the next step of the same kind.
      const auto next = std::find_if(scene.checks.begin(), scene.checks.end(), [&](const CheckStatus& c) {
        return c.family == now->family && !(c.id == done) && !c.stands();
      });
      current_ = next == scene.checks.end() ? std::string() : next->id.text();
    }
    return {Record{done}};
  } else if (action == "apply") {
    return apply(scene);
  } else if (action == "by_hand") {
    return by_hand(scene);
  } else if (action == "hand_card") {
    return show_cards(scene);
  } else if (action == "write_rig") {
    return {WriteBoard{}};
  } else if (action == "as_planned") {
    if (auto seen = as_planned()) return note(std::move(*seen), scene);
  } else if (action == "look_again") {
    if (session_.answer().too_many) session_.forget();
    session_.drop_contradictions();
  } else if (action == "take_back") {
    session_.take_back_last();
  } else if (action == "do_it") {
    if (!scene.bench.battery) return {Say{no_supply}};
    plan_steps(scene);
    return steps_.due(now_s_);
  }
  return {};
}

Orders ProofProcedure::note(direction::Observation seen, const Scene& scene) {
  if (!scene.controller) return {};
  // A proof needs conditions in which the thing could be seen.
  if (seen.act != direction::Act::inspect && scene.bench.hands && !scene.bench.battery) return {Say{no_supply}};
  const CheckStatus* now = find_check(scene.checks, current_);
  const bool passed = direction_ && now && as_expected(*direction_, seen);
  // A rudder that leans into a bank is neither a roll answer nor a fault: it has a check of its own.
  if (scene.controller->proof.rudder_into_bank && seen.act == direction::Act::tilt && seen.axis == Axis::roll)
    std::erase_if(seen.saw, [&](const auto& s) {
      const Output* o = scene.rig.output_of(s.surface);
      return o && o->mix.yaw != 0 && o->mix.roll == 0;
    });
  session_.add(std::move(seen));
  ++look_;
  heard_.clear();
  unreasoned_ = session_.answer().too_many && !passed;
  if (!passed || session_.wrong() || (session_.answer().explanations.empty() && !session_.answer().too_many)) return {};
  last_ = current_;
  current_.clear();
  look_in_.reset();
  return {Record{now->id, "Proven: " + now->title}};
}

std::optional<direction::Observation> ProofProcedure::as_planned() const {
  if (session_.answer().explanations.empty()) return std::nullopt;
  direction::Observation seen;
  seen.act = direction::Act::inspect;
  for (const direction::Fault& f : session_.answer().explanations.front().faults) {
    if (f.kind == direction::FaultKind::leads_swapped) seen.leads.insert(seen.leads.end(), {f.output, f.other_output});
    if (f.kind == direction::FaultKind::linkage_opposed && f.surface.kind != SurfaceKind::motor)
      seen.horns.push_back(f.surface);
    seen.board = seen.board || f.kind == direction::FaultKind::board_turned;
  }
  // What the likeliest account leaves alone may still be what tells it apart from the others.
  if (seen.leads.empty() && session_.answer().equivalent)
    for (const direction::Explanation& e : session_.answer().explanations)
      for (const direction::Fault& f : e.faults)
        if (f.kind == direction::FaultKind::leads_swapped)
          for (const int output : {f.output, f.other_output})
            if (std::find(seen.leads.begin(), seen.leads.end(), output) == seen.leads.end())
              seen.leads.push_back(output);
  const bool says = !seen.leads.empty() || !seen.horns.empty() || seen.board;
  return says ? std::optional(seen) : std::nullopt;
}

Orders ProofProcedure::apply(const Scene& scene) {
  if (!scene.controller || session_.answer().explanations.empty()) return {};
  const direction::Case c = session_.looks();
  RepairedRig done = repaired(scene.rig, *scene.controller, c, session_.answer().explanations.front());
  by_hand_ = done.by_hand;
  by_hand_case_ = c;
  const bool settings = done.rig.outputs != scene.rig.outputs || done.rig.sensing != scene.rig.sensing;
  session_.forget();
  Orders orders{ApplyEdit{{std::move(done.rig), std::move(done.label)}}};
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
  if (steps_.busy()) return;
  const direction::Observation o = asked_;
  const auto hand = [&](double after_s, hands::Request request) { steps_.add(after_s, AskHands{std::move(request)}); };
  const ModeAnswer* answer = scene.controller ? scene.controller->mode(o.mode) : nullptr;
  if (current_ == flaps_droop.text()) {
    const Channel* flap = scene.rig.channel(ChannelFunction::flap);
    if (!flap) return;
    hand(0, hands::ChooseMode{Mode::manual});
    hand(0.15, hands::TurnControl{flap->number, 1});
    hand(2.6, hands::TurnControl{flap->number, -1});
    steps_.begin(now_s_);
    return;
  }
  if (const CheckStatus* now = find_check(scene.checks, current_); now && now->id.family == mode_family) {
    const Mode mode = from_name<Mode>(now->id.subject).value_or(Mode::manual);
    const ModeAnswer* shows = scene.controller ? scene.controller->mode(mode) : nullptr;
    const int locked_on = scene.controller ? scene.controller->sticks.unlock_channel : 0;
    const bool unlocks = shows && shows->motor_unlocked && locked_on > 0;
    if (unlocks) hand(0, hands::TurnControl{locked_on, 1});
    hand(0, hands::ChooseMode{mode});
    hand(0.2, hands::Flick{Axis::roll, 1});
    hand(1.5, hands::Hold{30, 0, 0});
    hand(2, hands::Hold{0, 30, 0});
    hand(2, hands::Hold{});
    hand(0.7, hands::ChooseMode{Mode::manual});
    if (unlocks) hand(0, hands::TurnControl{locked_on, -1});
    steps_.begin(now_s_);
    return;
  }
  if (current_ == rudder_leans.text()) {
    hand(0, hands::ChooseMode{Mode::level});
    hand(0.15, hands::Hold{30, 0, 0});
    hand(3, hands::Hold{});
    hand(1, hands::ChooseMode{Mode::manual});
    steps_.begin(now_s_);
    return;
  }
  // Where the stabilized modes sleep with the motor locked, it is unlocked for the look alone.
  const bool unlock = o.act == direction::Act::tilt && answer && answer->motor_unlocked;
  const int lock = scene.controller ? scene.controller->sticks.unlock_channel : 0;
  if (unlock) hand(0, hands::TurnControl{lock, 1});
  hand(0, hands::ChooseMode{o.act == direction::Act::drive ? Mode::manual : o.mode});
  if (o.act == direction::Act::stick) {
    hand(0.15, hands::Stick{o.axis, static_cast<double>(o.sense)});
    hand(2.2, hands::Stick{o.axis, 0});
  } else if (o.act == direction::Act::drive) {
    const Output* output = scene.rig.output(session_.looks().outputs[direction::at(o.output)].id);
    steps_.add(0.15, DriveOutput{output ? output->socket : "", 0.8 * o.sense});
    steps_.add(2, ReleaseOutputs{});
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
  if (unlock) hand(0, hands::TurnControl{lock, -1});
  steps_.begin(now_s_);
}

void ProofProcedure::hear_channels(const std::map<std::string, double>& us) {
  // The controller itself says what it hears while the stick is held.
  if (asking_ != Asking::question || asked_.act != direction::Act::stick || !steps_.busy()) return;
  const bool moved = std::any_of(
      us.begin(), us.end(), [](const auto& c) { return c.first != "throttle" && std::abs(c.second - 1500) > 300; });
  if (!moved) return;
  for (const Axis axis : all_axes)
    if (const auto it = us.find(std::string(name_of(axis))); it != us.end())
      heard_[channel_row(axis)] = it->second > 1600 ? 1 : it->second < 1400 ? -1 : 0;
}

}  // namespace rigging
