#include "feel/edits.h"

#include "base/fields.h"
#include "base/number.h"
#include "feel/gain_scale.h"
#include "language/typed.h"

namespace rigging {
namespace {

Result<GainScale> scale_of(const Rig& rig, const Catalogue& catalogue) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c) return failure("controller", "no class is chosen", "a class of controller");
  GainScale scale(*c, rig.feel.half_share);
  if (!scale.settable())
    return failure("gain", "with this class the linkage sets it", "another throw, at station surfaces");
  return scale;
}

Result<Edit> gain_edit(const Rig& rig, const Catalogue& catalogue, const std::vector<std::string>& given) {
  const auto axis = from_name<Axis>(given[0]);
  if (!axis) return failure("gain", "\"" + given[0] + "\" is no axis", choice_of<Axis>());
  return set_gain_in_words(rig, catalogue, *axis, given[1]);
}

Result<Edit> first_gains_edit(const Rig& rig, const Catalogue& catalogue, const std::vector<std::string>& given) {
  const auto start = from_name<StartAt>(given[0]);
  if (!start) return failure("first-gains", "\"" + given[0] + "\"", choice_of<StartAt>());
  const Rig begun = start_at(rig, *start).rig;
  const FeelReport report = analyze_feel({begun, catalogue});
  if (!report.missing.empty()) return failure("first-gains", report.missing, "");
  return set_first_gains(begun, catalogue, advise_feel(begun, catalogue, report));
}

}  // namespace

Result<Edit> set_gain(const Rig& rig, const Catalogue& catalogue, Axis axis, double place) {
  const auto scale = scale_of(rig, catalogue);
  if (!scale) return tl::make_unexpected(scale.error());
  if (!(place >= 0 && place <= 1))
    return failure("gain", "is outside of what can be set", scale->words(0) + " to " + scale->words(1));
  Edit e{rig, capital(std::string(name_of(axis))) + " gain: " + scale->words(place)};
  // One switch serves all axes.
  for (const Axis other : all_axes)
    if (other == axis || scale->by() == GainBy::strengths) e.rig.feel.made_gain(other).rate = place;
  return e;
}

Result<Edit> set_gain_in_words(const Rig& rig, const Catalogue& catalogue, Axis axis, const std::string& words) {
  const auto scale = scale_of(rig, catalogue);
  if (!scale) return tl::make_unexpected(scale.error());
  const auto place = scale->read(words);
  if (!place) return tl::make_unexpected(place.error());
  return set_gain(rig, catalogue, axis, *place);
}

Result<Edit> set_direct_stick(const Rig& rig, const Catalogue& catalogue, Axis axis, double share) {
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  if (!c || !c->feel.sets_stick)
    return failure("direct stick", "is no setting of this class: its stick works as in manual",
                   "a class that sets the direct stick share");
  if (!(share >= 0 && share <= 1))
    return failure("direct stick", number_text(100 * share, 0) + " %", "0 to 100 % of the throw");
  Edit e{rig, capital(std::string(name_of(axis))) + " direct stick: " + number_text(100 * share, 0) + " %"};
  e.rig.feel.made_gain(axis).stick = share;
  return e;
}

Result<Edit> set_first_gains(const Rig& rig, const Catalogue& catalogue, const FeelAdvice& advice) {
  if (advice.first.empty()) return failure("gains", "there is nothing to set", "an axis whose gain can be set");
  Edit e{rig, "Gains for the first flight"};
  for (const FirstGain& f : advice.first) {
    auto one = set_gain(e.rig, catalogue, f.axis, f.place);
    if (!one) return one;
    e.rig = std::move(one->rig);
  }
  return e;
}

Edit forget_simulated(const Rig& rig) {
  Edit e{rig, "What the simulation told is forgotten"};
  std::erase_if(e.rig.feel.learned, [](const LearnedGain& k) { return k.simulated; });
  return e;
}

Edit start_at(const Rig& rig, StartAt start) {
  Edit e{rig, start == StartAt::least ? "Begin with least gain" : "Begin with half gain"};
  e.rig.feel.start = start;
  return e;
}

Result<Edit> wish_feel(const Rig& rig, Feel feel) {
  std::erase_if(feel.gains, [](const AxisGain& g) { return g.says_nothing(); });
  if (const auto ok = in_range(feel, "feel"); !ok) return tl::make_unexpected(ok.error());
  Edit e{rig, "More of the feel"};
  e.rig.feel = std::move(feel);
  return e;
}

Result<Edit> plan_takeoff(const Rig& rig, const Takeoff& takeoff) {
  if (const auto ok = in_range(takeoff, "feel/takeoff"); !ok) return tl::make_unexpected(ok.error());
  Edit e{rig, "How it takes off"};
  e.rig.feel.takeoff = takeoff;
  return e;
}

Result<Edit> with_log_columns(const Rig& rig, std::vector<LogColumn> columns) {
  bool time = false, rate = false;
  for (const LogColumn& c : columns) {
    time = time || c.meaning == "t_s";
    rate = rate || c.meaning.ends_with("_rate_deg_s");
  }
  if (!time || !rate)
    return failure("columns", time ? "no rate of any axis is chosen" : "no time is chosen", "time and a rate");
  Edit e{rig, "Columns of a log"};
  e.rig.feel.log_columns = std::move(columns);
  return e;
}

std::vector<EditEntry> feel_edits() {
  return {{"gain", "How hard an axis is corrected, in the words of the class", {"AXIS", "PLACE"}, gain_edit},
          {"direct-stick",
           "How much of the throw the stick gives by itself in a stabilized mode (feed forward)",
           {"AXIS", "PERCENT"},
           [](const Rig& rig, const Catalogue& catalogue, const std::vector<std::string>& given) -> Result<Edit> {
             const auto axis = from_name<Axis>(given[0]);
             if (!axis) return failure("direct-stick", "\"" + given[0] + "\" is no axis", choice_of<Axis>());
             const auto percent = typed_number(given[1], "%");
             if (!percent) return tl::make_unexpected(percent.error());
             return set_direct_stick(rig, catalogue, *axis, *percent / 100);
           }},
          {"first-gains", "Gains for the first flight", {"least|half"}, first_gains_edit}};
}

}  // namespace rigging
