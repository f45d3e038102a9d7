#include "reports/reports.h"

namespace rigging {

/// With every report the sections of the document that it reads, those of the reports that go into it among them. A
/// test changes every value of every demo rig and looks for a report that should have been made again.
template <class Action>
void Reports::each_slot(State& of, const State& other, Action&& with) {
  static const Sections airframe = sections({"airframe", "outputs", "power"}),
                        surfaces = sections({"airframe", "outputs", "linkages", "saturation"}),
                        control_margins = sections({"outputs", "saturation"}),
                        loads = airframe | surfaces | sections({"parts"}),
                        power = loads | sections({"controller", "leads", "places"}),
                        fit = power | sections({"fit", "sensing"}),
                        wiring = sections({"controller", "parts", "places", "leads", "outputs", "airframe"}),
                        sticks =
                            sections({"airframe", "controller", "parts", "leads", "radio", "outputs", "modes", "home"});
  with(of.airframe, other.airframe, airframe);
  with(of.surfaces, other.surfaces, surfaces);
  with(of.control_margins, other.control_margins, control_margins);
  with(of.loads, other.loads, loads);
  with(of.power, other.power, power);
  with(of.fit, other.fit, fit);
  with(of.wiring, other.wiring, wiring);
  with(of.sticks, other.sticks, sticks);
  with(of.plan, other.plan, Sections().set());  // it holds the rig
}

Reports::Reports(const Rig& rig, const Catalogue& catalogue, const State* before) {
  auto state = std::make_shared<State>();
  state->rig = rig;
  state->catalogue = &catalogue;
  const Sections changed = before ? differing_sections(rig, before->rig) : Sections().set();
  each_slot(*state, before ? *before : *state, [&](auto& slot, const auto& former, const Sections& reads) {
    using Made = typename std::decay_t<decltype(slot)>::element_type;
    slot = (reads & changed).any() ? std::make_shared<Made>() : former;
  });
  state_ = std::move(state);
}

Reports::Reports(const Rig& rig, const Catalogue& catalogue) : Reports(rig, catalogue, nullptr) {}
Reports Reports::after(const Rig& rig) const { return Reports(rig, catalogue(), state_.get()); }

const AirframeReport& Reports::airframe() const {
  return once(state_->airframe, [&] { return analyze_airframe(rig()); });
}
const SurfacesReport& Reports::surfaces() const {
  return once(state_->surfaces, [&] { return analyze_surfaces(rig()); });
}
const ControlMargins& Reports::control_margins() const {
  return once(state_->control_margins, [&] {
    return ControlMargins{control_margin(rig()), control_margin(rig(), {.yaw = 1}), control_margin(rig(), {.flap = 1})};
  });
}
const std::vector<ServoLoad>& Reports::loads() const {
  return once(state_->loads, [&] { return analyze_loads(rig(), catalogue(), airframe(), surfaces()); });
}
const PowerReport& Reports::power() const {
  return once(state_->power, [&] { return analyze_power(rig(), catalogue(), {}, &loads()); });
}
const FitReport& Reports::fit() const {
  return once(state_->fit, [&] { return analyze_fit(rig(), catalogue(), airframe(), power()); });
}
const WiringReport& Reports::wiring() const {
  return once(state_->wiring, [&] { return analyze_wiring(rig(), catalogue()); });
}
const SticksReport& Reports::sticks() const {
  return once(state_->sticks, [&] { return analyze_sticks(rig(), catalogue()); });
}
const Plan& Reports::plan() const {
  return once(state_->plan, [&] { return plan_wiring(rig(), catalogue()); });
}

}  // namespace rigging
