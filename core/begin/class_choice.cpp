#include "begin/class_choice.h"

#include <algorithm>
#include <set>

#include "airframe/edits.h"
#include "airframe/kinds.h"
#include "base/units.h"
#include "fit/fit.h"
#include "home/modes.h"
#include "proof/hand_steps.h"
#include "sticks/edits.h"
#include "wiring/plan.h"

namespace rigging {
namespace {

std::string in_words(const std::vector<std::string>& all) {
  std::string words;
  for (std::size_t i = 0; i < all.size(); ++i) words += (i == 0 ? "" : i + 1 < all.size() ? ", " : " and ") + all[i];
  return words;
}

std::string counted(std::size_t n, const char* one, const char* many) {
  return std::to_string(n) + " " + (n == 1 ? one : many);
}

bool outputs_suffice(const Rig& rig, const ControllerClass& c) {
  return std::all_of(rig.outputs.begin(), rig.outputs.end(), [&](const Output& o) {
    return !o.socket.empty() || (o.surfaces.empty() && c.motor_may_bypass());
  });
}

void judge_surfaces(const Rig& with, const ControllerClass& c, ClassChoice& choice) {
  std::set<std::string> foreign, by_profile;
  const auto& drives = c.surfaces.drives;
  for (const Output& o : with.outputs)
    for (const Surface s : o.surfaces) {
      if (drives.empty() || std::find(drives.begin(), drives.end(), s.kind) != drives.end()) continue;
      const bool v = s.kind == SurfaceKind::vtail || s.kind == SurfaceKind::inverted_v;
      (c.surfaces.others_by_profile ? by_profile : foreign).insert(v ? "a V-tail" : label_of(name_of(s.kind)) + "s");
    }
  choice.drives = foreign.empty() && by_profile.empty() && outputs_suffice(with, c);
  if (!foreign.empty())
    choice.surfaces = "not made for " + in_words({foreign.begin(), foreign.end()});
  else if (!outputs_suffice(with, c))
    choice.surfaces =
        "too few outputs: " + std::to_string(c.outputs.size()) + " for " + std::to_string(with.outputs.size());
  else if (!by_profile.empty())
    choice.surfaces = in_words({by_profile.begin(), by_profile.end()}) + " with a profile from the computer";
  else
    choice.surfaces = "drives them all";
}

void judge_room(const Rig& with, const Catalogue& catalogue, const ControllerClass& c, ClassChoice& choice) {
  choice.room = length_text(c.length_mm / 1000) + " × " + length_text(c.width_mm / 1000) + " × " +
                length_text(c.height_mm / 1000) + ", " + mass_text(c.mass_kg);
  if (!with.mounting("controller")) return;
  for (const Clash& clash : find_clashes(with, catalogue))
    if (clash.part == "controller" || clash.other == "controller") {
      choice.fits = false;
      choice.room += "; where the board sits now: " + small(clash.words);
      return;
    }
  choice.room += "; fits where the board sits now";
}

void judge_senses(const ControllerClass& c, ClassChoice& choice) {
  std::vector<std::string> has{"gyro"};
  if (c.mode(Mode::level)) has.emplace_back("level");
  if (c.senses.has_barometer) has.emplace_back("barometer");
  if (c.senses.has_compass) has.emplace_back("compass");
  choice.senses = in_words(has);
  if (c.family != Family::flight_controller) return;
  std::vector<std::string> without;
  if (!c.senses.isolated) without.emplace_back("vibration isolation");
  if (!c.senses.spare) without.emplace_back("spare sensors");
  if (!c.senses.heated) without.emplace_back("heated sensors");
  if (!without.empty()) choice.senses += "; without " + in_words(without);
}

/// What the rig plans and this class does not have.
void judge_lost(const Rig& rig, const Catalogue& catalogue, const ControllerClass& c, const ControllerClass* now,
                ClassChoice& choice) {
  std::vector<std::string> modes;
  const auto has_mode = [&](const ControllerClass& x, const std::string& name) {
    const auto mode = from_name<Mode>(name);
    return (mode && x.mode(*mode)) || std::find(x.home.flies.begin(), x.home.flies.end(), name) != x.home.flies.end();
  };
  for (const ModeCase& m : mode_deck(rig, catalogue).cases)
    if (const std::string label = label_of(m.mode);
        !m.mode.empty() && !has_mode(c, m.mode) && std::find(modes.begin(), modes.end(), label) == modes.end())
      modes.push_back(label);
  if (!modes.empty()) choice.lost.push_back("mode " + in_words(modes));
  const LossAction acts = rig.home.on_loss;
  if (acts != LossAction::undecided &&
      std::find(c.home.on_loss.begin(), c.home.on_loss.end(), acts) == c.home.on_loss.end())
    choice.lost.push_back("“" + label_of(name_of(acts)) + "” on a lost link" +
                          (c.home.on_loss.empty() ? ": only what the receiver has stored" : ""));
  if (now && now->link && !c.link) choice.lost.emplace_back("reading and writing by Rigging: all is set by hand");
  if (now && now->surfaces.drives_one_output && !c.surfaces.drives_one_output)
    choice.lost.emplace_back("moving one output alone, the most telling look");
  if (c.feel.gain_by == GainBy::linkage && (!now || now->feel.gain_by != GainBy::linkage))
    choice.lost.emplace_back("a gain to set: the linkage sets it");
}

void judge_work(const Rig& rig, const Catalogue& catalogue, const Plan& plan, const ControllerClass& c,
                ClassChoice& choice) {
  if (!choice.now && plan.changes > 0)
    choice.work.push_back(counted(static_cast<std::size_t>(plan.changes), "lead", "leads") + " to lay anew");
  for (const Obstacle& o : plan.obstacles)
    if (rig.part(o.subject) && choice.work.size() < 5) choice.work.push_back("to solve: " + o.what);
  const auto turned = std::count_if(plan.rig.outputs.begin(), plan.rig.outputs.end(),
                                    [](const Output& o) { return !o.socket.empty() && o.reversed; });
  const char* set_by = c.link ? "written by Rigging over the link" : "by hand on the board or the transmitter";
  choice.work.push_back(std::string("settings ") + set_by);
  if (turned > 0 && !c.way("reversed") && !c.way("functions"))
    choice.work.push_back(counted(static_cast<std::size_t>(turned), "output", "outputs") +
                          " to turn round at the linkage");
  const CheckContext in(plan.rig, catalogue);
  std::size_t steps = 0;
  for (const std::string& id : prepare_checks().subjects(in)) steps += !id.empty();
  choice.work.push_back(counted(steps, "step", "steps") + " before the first check");
  if (!choice.now && !rig.proofs.empty())
    choice.work.push_back(counted(rig.proofs.size(), "proof", "proofs") +
                          " to do again, as far as the board was looked at");
  for (const std::string& tool : c.tools) choice.work.push_back("to get: " + small(tool));
}

}  // namespace

std::vector<ClassChoice> class_choices(const Rig& rig, const Catalogue& catalogue) {
  std::vector<ClassChoice> all;
  const ControllerClass* now = catalogue.controller(rig.controller.kind);
  for (const ControllerClass& c : catalogue.controllers) {
    ClassChoice choice;
    choice.id = c.id, choice.name = c.name, choice.now = now && now->id == c.id;
    Rig with = rig;
    if (!choice.now) {
      auto changed = change_class(rig, catalogue, c.id);
      if (!changed) continue;
      with = with_switch_channels(std::move(changed->rig), catalogue);
    }
    const Plan plan = plan_wiring(with, catalogue);
    judge_surfaces(plan.rig, c, choice);
    judge_room(with, catalogue, c, choice);
    judge_senses(c, choice);
    judge_lost(rig, catalogue, c, now, choice);
    judge_work(rig, catalogue, plan, c, choice);
    all.push_back(std::move(choice));
  }
  return all;
}

}  // namespace rigging
