#include "proof/hand_steps.h"

#include <algorithm>

#include "base/find.h"
#include "direction/direction_checks.h"
#include "wiring/routing.h"

namespace rigging {
namespace {

bool concerns(const CheckContext& in, const HandStep& s) {
  switch (s.only_for) {
    case StepFor::all: break;
    case StepFor::mixes: return mixes_by_profile(in.rig, *in.controller);
    case StepFor::arms: return in.rig.channel(ChannelFunction::arm) != nullptr;
  }
  return true;
}

std::vector<std::string> steps_at(const CheckContext& in, StepTime when) {
  std::vector<std::string> all;
  if (in.controller)
    for (const HandStep& s : in.controller->steps)
      if (s.when == when && concerns(in, s)) all.push_back(s.id);
  return all;
}

const HandStep* step_of(const CheckContext& in, const std::string& id) {
  return in.controller ? find_in(in.controller->steps, [&](const HandStep& s) { return s.id == id; }) : nullptr;
}

CheckCard step_card(const CheckContext& in, const std::string& id) {
  CheckCard card;
  const HandStep* s = step_of(in, id);
  if (!s) return card;
  card.title = s->title;
  int n = 0;
  for (const std::string& line : s->steps)
    card.todo += (n == 0 ? "" : " ") + (s->steps.size() > 1 ? std::to_string(n + 1) + ". " : std::string()) + line, ++n;
  if (id == "inputs")
    for (const RouteLine& l : routing_of(in.rig, in.catalogue).lines)
      card.todo += "\n" + l.label + " ← channel " + (l.channel > 0 ? std::to_string(l.channel) : "?") + ": " + l.what +
                   (l.extra ? " (" + l.words + ")" : "");
  card.todo = in.controller->with_leaflet(std::move(card.todo));
  card.expected = in.controller->with_leaflet(s->expected);
  card.cautions = s->cautions;
  return card;
}

std::vector<std::string> step_places(const CheckContext&, const std::string& id) {
  std::vector<std::string> places{"controller/kind"};
  // Another airframe wants other mixes.
  if (id == "profile" || id == "type") places.push_back("airframe/kind");
  // A new version of the firmware comes with its own defaults.
  if (id == "defaults" || id == "firmware") places.push_back("controller/firmware");
  return places;
}

CheckFamily family(const char* id) {
  CheckFamily f;
  f.id = id;
  f.station = Station::proof;
  f.until_mounted = false;
  f.grouped = true;
  f.one = "step";
  f.many = "steps";
  f.depends_on = step_places;
  f.card = step_card;
  return f;
}

std::string proven_at(const Rig& rig, const CheckId& id) {
  const Proof* p = find_in(rig.proofs, [&](const Proof& x) { return x.check == id; });
  return p ? p->at : std::string();
}

/// When a correction was proven last; empty when none was.
std::string last_correction(const Rig& rig) {
  std::string last;
  for (const Proof& p : rig.proofs)
    if (p.check.family == correction_family) last = std::max(last, p.at);
  return last;
}

}  // namespace

bool mixes_by_profile(const Rig& rig, const ControllerClass& controller) {
  return std::any_of(rig.outputs.begin(), rig.outputs.end(), [&](const Output& o) {
    return std::any_of(o.surfaces.begin(), o.surfaces.end(),
                       [&](Surface s) { return controller.needs_profile(s.kind); });
  });
}

CheckFamily prepare_checks() {
  CheckFamily f = family(prepare_family);
  f.guides = true;
  f.many = "before the first check";
  f.subjects = [](const CheckContext& in) { return steps_at(in, StepTime::before); };
  return f;
}

CheckFamily put_back_checks() {
  CheckFamily f = family(put_back_family);
  f.guides = true;  // what is due shows as a loose end
  f.many = "put back after it";
  f.subjects = [](const CheckContext& in) { return steps_at(in, StepTime::after_corrections); };
  return f;
}

std::vector<LooseEnd> due_loose_ends(const CheckContext& in) {
  std::vector<LooseEnd> due;
  if (!in.controller) return due;
  std::string entered;  // when something before this step was done
  const std::string corrected = last_correction(in.rig);
  for (const HandStep& s : in.controller->steps) {
    if (!concerns(in, s)) continue;
    const bool before = s.when == StepTime::before;
    const CheckId id{before ? prepare_family : put_back_family, s.id};
    const std::string done = proven_at(in.rig, id);
    const std::string since = before ? entered : corrected;
    if (!s.until_then.empty() && !since.empty() && done < since) due.push_back({id.text(), s.until_then, since, {}});
    // Binding enters nothing that would have to be left.
    if (before && s.id != "bind") entered = std::max(entered, done);
  }
  return due;
}

}  // namespace rigging
