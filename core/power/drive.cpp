#include "power/drive.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <vector>

#include "airframe/drag.h"
#include "base/number.h"
#include "earth/gravity.h"

namespace rigging {
namespace {

constexpr double density_kg_m3 = 1.225, gravity_m_s2 = standard_gravity;
constexpr double spread = 0.2;             // of the propeller coefficients
constexpr double zero_thrust = 1.15;       // advance ratio without thrust over pitch ratio; from memory
constexpr double controller_yield = 0.95;  // of a speed controller at part throttle, typical
constexpr double cruise_share = 0.15;      // of the static current where the drag is not known; from memory
constexpr double controller_ohm = 0.004;   // on-resistance of a speed controller, typical

/// The part at the other end of a lead at `part`, if it belongs to `group`.
std::string neighbour(const Rig& rig, const Catalogue& catalogue, const std::string& part, PartGroup group) {
  for (const Lead& l : rig.leads)
    for (const auto& [here, there] : {std::pair{&l.from, &l.to}, {&l.to, &l.from}})
      if (here->part == part)
        if (const PartKind* k = kind_of(rig, catalogue, there->part); k && k->group == group) return there->part;
  return {};
}

/// The power leads from a speed controller to its battery, over a power module or a splice; nothing when there are
/// none.
std::vector<const Lead*> battery_leads(const Rig& rig, const Catalogue& catalogue, const std::string& controller) {
  std::map<std::string, std::vector<const Lead*>> way{{controller, {}}};
  for (std::size_t step = 0; step < rig.leads.size(); ++step)
    for (const Lead& l : rig.leads) {
      if (l.kind != LeadKind::power) continue;
      for (const auto& [here, there] : {std::pair{&l.from, &l.to}, {&l.to, &l.from}}) {
        const auto from = way.find(here->part);
        if (from == way.end() || way.count(there->part)) continue;
        std::vector<const Lead*> so_far = from->second;
        so_far.push_back(&l);
        if (const PartKind* k = kind_of(rig, catalogue, there->part); k && k->group == PartGroup::battery)
          return so_far;
        way[there->part] = std::move(so_far);
      }
    }
  return {};
}

}  // namespace

double thrust_coefficient(const PropellerFigures& p) {
  return (0.07 + 0.06 * p.pitch_m / p.diameter_m) * std::pow(p.blades / 2.0, 0.75) * (p.slow_fly ? 1.25 : 1);
}
double power_coefficient(const PropellerFigures& p) {
  return (0.018 + 0.045 * p.pitch_m / p.diameter_m) * std::pow(p.blades / 2.0, 0.85) * (p.slow_fly ? 1.35 : 1);
}

std::optional<double> amps_in_flight(const MotorFigures& m, const PropellerFigures& p, double volts, double thrust_n,
                                     double m_s) {
  const double still = zero_thrust * p.pitch_m / p.diameter_m;  // J0
  const double a = thrust_coefficient(p) * density_kg_m3 * std::pow(p.diameter_m, 4),
               b = a * m_s / (p.diameter_m * still);
  // CT0·ρ·D⁴·(n² − n·v / (D·J0)) = thrust
  const double n = (b + std::sqrt(b * b + 4 * a * thrust_n)) / (2 * a);
  const double share = m_s / (n * p.diameter_m) / still;
  const double shaft_w =
      power_coefficient(p) * (1 - 0.85 * share * share) * density_kg_m3 * std::pow(n, 3) * std::pow(p.diameter_m, 5);
  const double per_rev = 60 / m.rpm_per_v;  // volts per rev/s; torque per ampere is that over 2π
  const double amps = shaft_w / (n * per_rev) + m.no_load_a, at_motor_v = n * per_rev + amps * m.ohm;
  if (at_motor_v > volts) return std::nullopt;
  return amps * at_motor_v / (controller_yield * volts);
}

Motor static_point(const MotorFigures& m, const PropellerFigures& p, double volts, double ohm) {
  const double total = m.ohm + ohm, per_rev = 60 / m.rpm_per_v;  // volts per rev/s
  const double torque_power = power_coefficient(p) * density_kg_m3 * std::pow(p.diameter_m, 5);
  const auto current = [&](double n) { return (volts - n * per_rev) / total; };
  // Shaft power offered less power taken falls steadily with the speed above the point of most power; bisect between
  // rest and free running.
  double low = 0, high = volts / per_rev;
  for (int i = 0; i < 60; ++i) {
    const double n = (low + high) / 2;
    // Torques: kT·(I − I0) against CP·ρ·n²·D⁵ / 2π, with kT = per_rev / 2π.
    const double surplus = per_rev * (current(n) - m.no_load_a) - torque_power * n * n;
    (surplus > 0 ? low : high) = n;
  }
  Motor r;
  r.rev_s = low;
  r.amps = std::max(0.0, current(low));
  r.watts = r.amps * (volts - r.amps * ohm);
  r.thrust_n = thrust_coefficient(p) * density_kg_m3 * low * low * std::pow(p.diameter_m, 4);
  return r;
}

std::optional<Drive> analyze_drive(const Rig& rig, const Catalogue& catalogue, const Network& network, int more_cells) {
  Drive d;
  std::vector<const Part*> propellers;
  for (const Part& p : rig.parts)
    if (const PartKind* k = catalogue.part(p.kind); k && k->group == PartGroup::propeller) propellers.push_back(&p);
  for (const Part& p : rig.parts) {
    const PartKind* k = catalogue.part(p.kind);
    if (!k || !k->motor) continue;
    Motor m;
    m.motor = p.id;
    m.controller = neighbour(rig, catalogue, p.id, PartGroup::speed_controller);
    // Its own propeller by side, else in the order of the list.
    const auto own = std::find_if(propellers.begin(), propellers.end(),
                                  [&](const Part* q) { return q->surface && p.surface && *q->surface == *p.surface; });
    if (own != propellers.end())
      m.propeller = (*own)->id;
    else if (d.motors.size() < propellers.size())
      m.propeller = propellers[d.motors.size()]->id;
    if (!m.controller.empty()) {
      for (const Lead* l : battery_leads(rig, catalogue, m.controller)) {
        m.lead_ohm += lead_ohm(*l);
        m.lead_m += lead_length_m(*l);
      }
      const int node = network.node(m.controller, "battery");
      if (node >= 0)
        for (const Source& s :
             network.rails[static_cast<std::size_t>(network.rail_of[static_cast<std::size_t>(node)])].sources)
          if (s.ideal) m.battery = s.part;
    }
    d.motors.push_back(m);
  }
  if (d.motors.empty()) return std::nullopt;
  double amps = 0, full_amps = 0, thrust = 0, cruise = 0, cruise_least = 0, cruise_most = 0;
  std::string working, full_working, cruise_working;
  const auto speed = cruise_speed(rig.airframe);
  const Drag drag = speed ? drag_of(rig.airframe, speed->value) : Drag{};
  bool cruises = speed.has_value();
  for (Motor& m : d.motors) {
    const PartKind *motor = kind_of(rig, catalogue, m.motor), *propeller = kind_of(rig, catalogue, m.propeller),
                   *battery = kind_of(rig, catalogue, m.battery);
    if (!motor || !motor->motor || !propeller || !propeller->propeller || !battery || !battery->battery) continue;
    const int cells = battery->battery->cells + more_cells;
    const auto sharing = static_cast<double>(
        std::count_if(d.motors.begin(), d.motors.end(), [&](const Motor& o) { return o.battery == m.battery; }));
    const double volts = cells * battery->battery->nominal_cell_v, full_v = cells * battery->battery->full_cell_v,
                 ohm = (cells * battery->battery->cell_milliohm / 1000 + m.lead_ohm) * sharing + controller_ohm;
    const Motor point = static_point(*motor->motor, *propeller->propeller, volts, ohm);
    m.amps = point.amps;
    m.rev_s = point.rev_s;
    m.watts = point.watts;
    m.thrust_n = point.thrust_n;
    amps += m.amps;
    full_amps += static_point(*motor->motor, *propeller->propeller, full_v, ohm).amps;
    full_working = number_text(full_v, 1) + " V fresh, " + number_text(1000 * (ohm + motor->motor->ohm), 0) + " mΩ";
    thrust += m.thrust_n;
    if (cruises) {
      const auto flies = [&](double parasite) {
        const double asked =
            drag.at(speed->value, *rig.airframe.mass_kg, parasite) / static_cast<double>(d.motors.size());
        return amps_in_flight(*motor->motor, *propeller->propeller, volts, asked, speed->value);
      };
      const auto usual = flies(drag.parasite_m2), least = flies(drag.parasite_least_m2),
                 most = flies(drag.parasite_most_m2);
      cruises = usual.has_value();
      cruise += usual.value_or(0);
      cruise_least += (1 - spread / 2) * least.value_or(0);
      cruise_most += (1 + spread) * most.value_or(m.amps);
    }
    working = number_text(volts, 1) + " V, " + number_text(1000 * (ohm + motor->motor->ohm), 0) + " mΩ, " +
              number_text(point.rev_s * 60, 0) + " rev/min";
  }
  const Power& power = rig.power;
  d.measured = power.static_a.has_value();
  if (power.static_a) {
    d.static_current = {
        "Current at full throttle, model held", *power.static_a, "A", {}, {}, "as measured", "measured by the builder"};
    d.full_current = d.static_current;
    d.full_current.name = "Current at full throttle, as measured";
  } else {
    const auto estimated = [](const char* name, double a, const std::string& how) {
      return Figure{name,
                    a,
                    "A",
                    a * (1 - spread),
                    a * (1 + spread),
                    "motor torque = propeller torque: " + how,
                    "direct-current motor model; propeller coefficients from memory, ±20 %"};
    };
    d.static_current = estimated("Current at full throttle, model held", amps, working);
    d.full_current = estimated("Current at full throttle, fresh battery", full_amps, full_working);
  }
  if (power.static_thrust_n)
    d.thrust = {"Static thrust", *power.static_thrust_n, "N", {}, {}, "as measured", "measured by the builder"};
  else
    d.thrust = {"Static thrust",
                thrust,
                "N",
                thrust * (1 - spread),
                thrust * (1 + spread),
                "CT·ρ·n²·D⁴",
                "propeller coefficients from memory, ±20 %"};
  if (rig.airframe.mass_kg) {
    const double weight = *rig.airframe.mass_kg * gravity_m_s2, ratio = d.thrust.value / weight;
    d.thrust_to_weight = Figure{
        "Thrust to weight", ratio, "", {}, {}, number_text(d.thrust.value, 1) + " N / " + number_text(weight, 1) + " N",
        "definition"};
    if (d.thrust.least) d.thrust_to_weight->least = *d.thrust.least / weight;
    if (d.thrust.most) d.thrust_to_weight->most = *d.thrust.most / weight;
  }
  if (power.cruise_a)
    d.cruise_current = {"Drive current at cruise", *power.cruise_a, "A", {}, {}, "as flown", "flight record"};
  else if (cruises && cruise > 0)
    d.cruise_current = {"Drive current at cruise",
                        cruise,
                        "A",
                        cruise_least,
                        cruise_most,
                        number_text(drag.at(speed->value, *rig.airframe.mass_kg, drag.parasite_m2), 2) + " N at " +
                            number_text(speed->value, 1) + " m/s; " + drag.working,
                        "drag from geometry (Prandtl, Hoerner), propeller and motor at that thrust and speed; what "
                        "stands out and the propeller's fall over the advance ratio are from memory, band by both. The "
                        "current of one level flight at cruise, noted at station power, takes its place"};
  else
    d.cruise_current = {"Drive current at cruise",
                        cruise_share * d.static_current.value,
                        "A",
                        0.08 * d.static_current.value,
                        0.3 * d.static_current.value,
                        "0.15 × " + number_text(d.static_current.value, 1) + " A",
                        speed ? "the estimate of motor and propeller can't hold the cruise speed; 0.08 to 0.3 of the "
                                "static current, from memory"
                              : "without a flying mass: 0.08 to 0.3 of the static current, from memory"};
  return d;
}

}  // namespace rigging
