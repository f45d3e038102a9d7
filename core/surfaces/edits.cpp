#include "surfaces/edits.h"

#include <algorithm>
#include <cmath>

#include "base/fields.h"
#include "base/json.h"
#include "base/number.h"
#include "base/units.h"
#include "direction/from_rig.h"
#include "rig/path.h"

namespace rigging {
namespace {

/// "left flaperon (out_1)", "motor (out_5)".
std::string output_label(const Output& o) {
  std::string name;
  for (const Surface s : o.surfaces) name += (name.empty() ? "" : " and ") + s.label();
  return (name.empty() ? "motor" : name) + " (" + o.id + ")";
}

/// "Roll weight of left elevon (out_1) and right elevon (out_2) set to 50 %".
std::string weight_words(const std::string& command, const std::vector<const Output*>& outputs, double weight) {
  std::string names;
  for (const Output* o : outputs) names += (names.empty() ? "" : " and ") + output_label(*o);
  return capital(command) + " weight of " + names + " set to " + number_text(100 * weight, 0) + " %";
}

}  // namespace

Result<Edit> reverse(const Rig& rig, const std::string& output) {
  Edit edit{rig, ""};
  Output* o = edit.rig.output(output);
  if (!o) return failure(output, "is no output of this rig", "the id of an output");
  o->reversed = !o->reversed;
  edit.label = "Reverse " + output_label(*o);
  return edit;
}

Result<Edit> measure_release(const Rig& rig, const Release& release) {
  if (const auto ok = in_range(release, "release"); !ok) return tl::make_unexpected(ok.error());
  Edit edit{rig, "Tow release measured"};
  edit.rig.release = release;
  return edit;
}

Result<Edit> remove_output(const Rig& rig, const std::string& output) {
  const Output* o = rig.output(output);
  if (!o) return failure(output, "is no output of this rig", "the id of an output");
  Edit edit{rig, "Without " + output_label(*o)};
  std::erase_if(edit.rig.outputs, [&](const Output& x) { return x.id == output; });
  return edit;
}

Result<Edit> reverse_axis(const Rig& rig, Axis axis) {
  const std::string name(name_of(axis));
  if (std::none_of(rig.outputs.begin(), rig.outputs.end(), [&](const Output& o) { return o.mix.of(axis) != 0; }))
    return failure(name, "is mixed into no output", "an axis that an output mixes");
  // Half an elevon's command turned round leaves no servo that could be right. What the board does is another matter:
  // there the function is pressed round when the bench says so, and the plan stays.
  for (const Output& o : rig.outputs)
    for (const Axis other : all_axes)
      if (other != axis && o.mix.of(axis) != 0 && o.mix.of(other) != 0)
        return failure(name, "is mixed with " + std::string(name_of(other)) + " on " + output_label(o),
                       "a function that its outputs do not share; on the board it is reversed when the proof station "
                       "says so, without a change of the plan");
  Edit edit{rig, "Reverse the " + name + " function"};
  direction::reverse_function(edit.rig.outputs, axis);
  return edit;
}

Result<Edit> flip_weight(const Rig& rig, const std::string& output, Axis axis) {
  Edit edit{rig, ""};
  Output* o = edit.rig.output(output);
  if (!o) return failure(output, "is no output of this rig", "the id of an output");
  if (o->mix.of(axis) == 0)
    return failure(output, "has no " + std::string(name_of(axis)) + " weight", "an axis that it mixes");
  o->mix.of(axis) *= -1;
  edit.label = "Flip the " + std::string(name_of(axis)) + " weight of " + output_label(*o);
  return edit;
}

Result<Edit> set_weight(const Rig& rig, const std::string& output, const std::string& command, double weight) {
  auto edit = set_value(rig, path_of({"outputs", output, "mix", command}), weight);
  if (const Output* o = rig.output(output); edit && o) edit->label = weight_words(command, {o}, weight);
  return edit;
}

Result<Edit> set_share(const Rig& rig, const std::string& output, MixCommand command, double weight) {
  auto edit = set_weight(rig, output, std::string(name_of(command)), weight);
  if (!edit) return edit;
  auto shared = with_share(rig, output, command, weight);
  if (!shared) return tl::make_unexpected(shared.error());
  std::vector<const Output*> changed{rig.output(output)};
  for (const Output& o : rig.outputs)
    if (o.id != output && *shared->output(o.id) != o) changed.push_back(&o);
  return Edit{std::move(*shared), weight_words(std::string(name_of(command)), changed, weight)};
}

Result<Edit> set_throw(const Rig& rig, Surface surface, MixCommand command, double degrees) {
  auto wished = with_throw(rig, surface, command, degrees);
  if (!wished) return tl::make_unexpected(wished.error());
  return Edit{std::move(*wished), "Full " + std::string(name_of(command)) + " moves the " + surface.label() + " by " +
                                      number_text(degrees, 1) + "°"};
}

Result<Edit> set_differential(const Rig& rig, double less_down) {
  if (!(less_down >= 0 && less_down <= 1)) return failure("differential", "is " + number_text(less_down, 3), "0 to 1");
  return Edit{with_differential(rig, less_down), "Aileron differential " + number_text(100 * less_down, 0) + " %"};
}

Result<Edit> measure_linkage(const Rig& rig, Linkage linkage) {
  const std::string name = "linkage of the " + linkage.surface.label();
  if (const auto ok = in_range(linkage, name); !ok) return tl::make_unexpected(ok.error());
  linkage.base_m.reset();
  linkage.readings.clear();
  if (const auto built = FourBar::of(linkage); !built) return tl::make_unexpected(built.error());
  return Edit{with_linkage(rig, linkage), capital(name) + " measured"};
}

Result<Edit> list_holes(const Rig& rig, const Linkage& linkage) {
  if (const auto ok = in_range(linkage, "linkage of the " + linkage.surface.label()); !ok)
    return tl::make_unexpected(ok.error());
  return Edit{with_linkage(rig, linkage), "Holes of the " + linkage.surface.label()};
}

Result<Edit> use_holes(const Rig& rig, Surface surface, double arm_m, double horn_m) {
  const auto moved = with_holes(linkage_of(rig, surface), arm_m, horn_m);
  if (!moved) return tl::make_unexpected(moved.error());
  if (const auto ok = in_range(*moved, "linkage of the " + surface.label()); !ok)
    return tl::make_unexpected(ok.error());
  return Edit{with_linkage(rig, *moved), "Holes of the " + surface.label() + ": arm " + length_text(arm_m, 1) +
                                             ", horn " + length_text(horn_m, 1)};
}

Edit throws_read(const Rig& rig, Surface surface, std::vector<ThrowReading> readings) {
  Linkage l = linkage_of(rig, surface);
  l.readings = std::move(readings);
  return {with_linkage(rig, l), "Throws of the " + surface.label() + " read"};
}

Edit arm_and_rod_set(const Rig& rig, Surface surface, const Centring& done) {
  return {with_linkage(rig, worked_over(linkage_of(rig, surface), done)),
          "Arm and rod of the " + surface.label() + " set"};
}

bool CommandThrows::falls() const {
  for (std::size_t i = 0; i < now_deg.size(); ++i)
    if (then_deg[i] < 0.95 * now_deg[i] - 0.05) return true;
  return false;
}

namespace {

/// The rig with the surface's linkage as its readings say, so that what is said goes by what was seen.
Rig as_read(Rig rig, Surface surface) {
  if (Linkage* l = rig.linkage(surface))
    if (const auto e = estimate(*l)) *l = e->linkage;
  return rig;
}

/// The weight with which a throw that has become smaller is what it was, as far as the whole travel goes.
double raised(double weight, double now_deg, double then_deg) {
  if (then_deg <= 0 || then_deg >= now_deg) return weight;
  return std::clamp(std::round(1000 * weight * now_deg / then_deg) / 1000, -1.0, 1.0);
}

}  // namespace

CommandThrows command_throws(const Rig& rig, Surface surface, const Centring& wanted) {
  CommandThrows t;
  const Rig now = as_read(rig, surface);
  Rig then = now;
  if (Linkage* l = then.linkage(surface)) *l = worked_over(*l, wanted);
  Output* o = then.output(rig.output_of(surface)->id);
  o->low_us = wanted.low_us;
  o->centre_us = wanted.centre_us;
  o->high_us = wanted.high_us;
  for (const auto& [command, name] : Names<MixCommand>::list) {
    const auto i = static_cast<std::size_t>(command);
    const double weight = o->mix.*weight_of(command);
    if (weight == 0) continue;
    t.now_deg[i] = throw_for(now, *now.output_of(surface), surface, command);
    t.then_deg[i] = throw_for(then, *o, surface, command);
    Output kept = *o;
    kept.mix.*weight_of(command) = raised(weight, t.now_deg[i], t.then_deg[i]);
    t.kept_deg[i] = throw_for(then, kept, surface, command);
  }
  return t;
}

Edit centre_and_ends_set_keeping_throws(const Rig& rig, Surface surface, const Centring& wanted) {
  const CommandThrows t = command_throws(rig, surface, wanted);
  Edit e = centre_and_ends_set(rig, surface, wanted);
  e.label += ", throws kept";
  Output* o = e.rig.output(rig.output_of(surface)->id);
  for (const auto& [command, name] : Names<MixCommand>::list) {
    const auto i = static_cast<std::size_t>(command);
    double& weight = o->mix.*weight_of(command);
    weight = raised(weight, t.now_deg[i], t.then_deg[i]);
  }
  return e;
}

Edit centre_and_ends_set(const Rig& rig, Surface surface, const Centring& wanted) {
  Edit e{rig, "Centre and ends of the " + surface.label()};
  Output* o = e.rig.output(rig.output_of(surface)->id);
  if (wanted.reverse) o->reversed = !o->reversed;
  o->low_us = std::round(wanted.low_us);
  o->centre_us = std::round(wanted.centre_us);
  o->high_us = std::round(wanted.high_us);
  if (Linkage* l = e.rig.linkage(surface)) *l = worked_over(*l, Centring{});
  return e;
}

Result<Edit> trim_flown(const Rig& rig, const TrimFlight& flight) {
  Edit e{rig, "Trim flight noted"};
  for (const auto& [surface, deg] : flight.sat_deg) {
    Linkage* l = e.rig.linkage(surface);
    if (!l) return failure(surface.label(), "has no linkage yet", "a surface whose linkage was measured");
    l->want_neutral_deg = deg == 0 ? std::nullopt : std::optional(deg);
    if (const auto ok = in_range(*l, "linkages/" + surface.name()); !ok) return tl::make_unexpected(ok.error());
  }
  e.rig.power.cruise_throttle = flight.cruise_throttle;
  if (const auto ok = in_range(e.rig.power, "power"); !ok) return tl::make_unexpected(ok.error());
  return e;
}

namespace {

/// The first surface of this kind, and its output.
std::pair<const Output*, Surface> first_of(const Rig& rig, SurfaceKind kind) {
  for (const Output& o : rig.outputs)
    for (const Surface s : o.surfaces)
      if (s.kind == kind) return {&o, s};
  return {nullptr, {}};
}

double roll_throw(const Rig& rig, SurfaceKind kind) {
  const auto [output, surface] = first_of(rig, kind);
  return output ? throw_for(rig, *output, surface, MixCommand::roll) : 0;
}

}  // namespace

std::optional<double> tail_mix_percent(const Rig& rig) {
  const double wing = roll_throw(rig, SurfaceKind::aileron);
  if (wing <= 0 || !first_of(rig, SurfaceKind::taileron).first) return std::nullopt;
  return 100 * roll_throw(rig, SurfaceKind::taileron) / wing;
}

Result<Edit> set_tail_mix(const Rig& rig, double percent) {
  if (!(percent >= 0 && percent <= 150))
    return failure("tail mix", number_text(percent, 0) + " % is no share of the ailerons' throw", "0 to 150");
  if (!tail_mix_percent(rig))
    return failure("tail mix", "needs ailerons, and tail halves that can roll", "an airframe with both");
  auto thrown = with_throw(rig, first_of(rig, SurfaceKind::taileron).second, MixCommand::roll,
                           roll_throw(rig, SurfaceKind::aileron) * percent / 100);
  if (!thrown) return tl::make_unexpected(thrown.error());
  return Edit{std::move(*thrown), "Tail halves get " + number_text(percent, 0) + " % of the ailerons' throw"};
}

namespace {

Result<Surface> surface_named(const std::string& name) {
  const auto surface = surface_from_name(name);
  if (!surface) return failure(name, "is no surface", "the word of a surface, such as aileron_left");
  return *surface;
}

Result<double> number_given(const std::string& text, const char* what) {
  const auto number = number_of(text);
  if (!number) return failure(what, "\"" + text + "\" is no number", "a number");
  return *number;
}

Result<Edit> weight_edit(const Rig& rig, const Catalogue&, const std::vector<std::string>& given) {
  const auto weight = number_given(given[2], "weight");
  if (!weight) return tl::make_unexpected(weight.error());
  return set_weight(rig, given[0], given[1], *weight);
}

Result<Edit> throw_edit(const Rig& rig, const Catalogue&, const std::vector<std::string>& given) {
  const auto surface = surface_named(given[0]);
  if (!surface) return tl::make_unexpected(surface.error());
  const auto command = from_name<MixCommand>(given[1]);
  if (!command) return failure(given[1], "is no command", choice_of<MixCommand>());
  const auto degrees = number_given(given[2], "throw");
  if (!degrees) return tl::make_unexpected(degrees.error());
  return set_throw(rig, *surface, *command, *degrees);
}

Result<Edit> differential_edit(const Rig& rig, const Catalogue&, const std::vector<std::string>& given) {
  const auto share = number_given(given[0], "differential");
  if (!share) return tl::make_unexpected(share.error());
  return set_differential(rig, *share);
}

Result<Edit> holes_edit(const Rig& rig, const Catalogue&, const std::vector<std::string>& given) {
  const auto surface = surface_named(given[0]);
  if (!surface) return tl::make_unexpected(surface.error());
  const auto arm = number_given(given[1], "arm"), horn = number_given(given[2], "horn");
  if (!arm || !horn) return tl::make_unexpected((!arm ? arm : horn).error());
  return use_holes(rig, *surface, *arm, *horn);
}

}  // namespace

std::vector<EditEntry> surfaces_edits() {
  return {
      {"weight",
       "The weight of one command on an output; 1 is full travel",
       {"OUTPUT", "COMMAND", "SHARE"},
       weight_edit},
      {"throw",
       "Weights such that the full command moves a surface so many degrees",
       {"SURFACE", "COMMAND", "DEGREES"},
       throw_edit},
      {"tail-mix",
       "How far the tail halves roll, percent of the ailerons' throw",
       {"PERCENT"},
       [](const Rig& rig, const Catalogue&, const std::vector<std::string>& given) -> Result<Edit> {
         const auto percent = number_given(given[0], "tail mix");
         if (!percent) return tl::make_unexpected(percent.error());
         return set_tail_mix(rig, *percent);
       }},
      {"flown-centre",
       "Where a surface sat in straight and level flight, degrees up (0: flush)",
       {"SURFACE", "DEGREES"},
       [](const Rig& rig, const Catalogue&, const std::vector<std::string>& given) -> Result<Edit> {
         const auto surface = surface_named(given[0]);
         if (!surface) return tl::make_unexpected(surface.error());
         const auto degrees = number_given(given[1], "flown centre");
         if (!degrees) return tl::make_unexpected(degrees.error());
         return trim_flown(rig, {{{*surface, *degrees}}, rig.power.cruise_throttle});
       }},
      {"differential", "How much less the down-going aileron moves, 0 to 1", {"SHARE"}, differential_edit},
      {"holes", "Other holes of arm and horn, metres; the rod is cut to fit", {"SURFACE", "ARM", "HORN"}, holes_edit},
      {"reverse",
       "Turn an output round, with every command on it",
       {"OUTPUT"},
       [](const Rig& rig, const Catalogue&, const std::vector<std::string>& given) { return reverse(rig, given[0]); }},
      {"reverse-function",
       "Turn a command round on every output, as a class does that reverses functions",
       {"AXIS"},
       [](const Rig& rig, const Catalogue&, const std::vector<std::string>& given) -> Result<Edit> {
         const auto axis = from_name<Axis>(given[0]);
         if (!axis) return failure(given[0], "is no axis", choice_of<Axis>());
         return reverse_axis(rig, *axis);
       }},
      {"flip",
       "Change the sign of one command's weight",
       {"OUTPUT", "AXIS"},
       [](const Rig& rig, const Catalogue&, const std::vector<std::string>& given) -> Result<Edit> {
         const auto axis = from_name<Axis>(given[1]);
         if (!axis) return failure(given[1], "is no axis", choice_of<Axis>());
         return flip_weight(rig, given[0], *axis);
       }}};
}

}  // namespace rigging
