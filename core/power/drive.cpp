#include "power/drive.h"

#include <algorithm>
#include <cmath>

#include "base/number.h"

namespace rigging {
namespace {

constexpr double density_kg_m3 = 1.225, gravity_m_s2 = 9.80665;
constexpr double spread = 0.2;            // of the propeller coefficients
constexpr double cruise_share = 0.35;     // of the static current, common practice: 0.25 to 0.5
constexpr double controller_ohm = 0.004;  // on-resistance of a speed controller, typical

/// The part at the other end of a lead at `part`, if it belongs to `group`.
std::string neighbour(const Rig& rig, const Catalogue& catalogue, const std::string& part, PartGroup group) {
  for (const Lead& l : rig.leads)
    for (const auto& [here, there] : {std::pair{&l.from, &l.to}, {&l.to, &l.from}})
      if (here->part == part)
        if (const PartKind* k = kind_of(rig, catalogue, there->part); k && k->group == group) return there->part;
  return {};
}

}  // namespace

double thrust_coefficient(double p) { return 0.07 + 0.06 * p; }
double power_coefficient(double p) { return 0.018 + 0.045 * p; }

Motor static_point(const MotorFigures& m, const PropellerFigures& p, double volts, double ohm) {
  const double ratio = p.pitch_m / p.diameter_m;
  const double total = m.ohm + ohm, per_rev = 60 / m.rpm_per_v;  // volts per rev/s
  const double torque_power = power_coefficient(ratio) * density_kg_m3 * std::pow(p.diameter_m, 5);
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
  r.thrust_n = thrust_coefficient(ratio) * density_kg_m3 * low * low * std::pow(p.diameter_m, 4);
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
      const int node = network.node(m.controller, "battery");
      if (node >= 0)
        for (const Source& s :
             network.rails[static_cast<std::size_t>(network.rail_of[static_cast<std::size_t>(node)])].sources)
          if (s.ideal) m.battery = s.part;
    }
    d.motors.push_back(m);
  }
  if (d.motors.empty()) return std::nullopt;
  double amps = 0, thrust = 0;
  std::string working;
  for (Motor& m : d.motors) {
    const PartKind *motor = kind_of(rig, catalogue, m.motor), *propeller = kind_of(rig, catalogue, m.propeller),
                   *battery = kind_of(rig, catalogue, m.battery);
    if (!motor || !motor->motor || !propeller || !propeller->propeller || !battery || !battery->battery) continue;
    const int cells = battery->battery->cells + more_cells;
    const auto sharing = static_cast<double>(
        std::count_if(d.motors.begin(), d.motors.end(), [&](const Motor& o) { return o.battery == m.battery; }));
    const double volts = cells * battery->battery->nominal_cell_v,
                 ohm = cells * battery->battery->cell_milliohm / 1000 * sharing + controller_ohm;
    const Motor point = static_point(*motor->motor, *propeller->propeller, volts, ohm);
    m.amps = point.amps;
    m.rev_s = point.rev_s;
    m.watts = point.watts;
    m.thrust_n = point.thrust_n;
    amps += m.amps;
    thrust += m.thrust_n;
    working = number_text(volts, 1) + " V, " + number_text(1000 * (ohm + motor->motor->ohm), 0) + " mΩ, " +
              number_text(point.rev_s * 60, 0) + " rev/min";
  }
  const Power& power = rig.power;
  d.measured = power.static_a.has_value();
  if (power.static_a)
    d.static_current = {
        "Current at full throttle, model held", *power.static_a, "A", {}, {}, "as measured", "measured by the builder"};
  else
    d.static_current = {"Current at full throttle, model held",
                        amps,
                        "A",
                        amps * (1 - spread),
                        amps * (1 + spread),
                        "motor torque = propeller torque: " + working,
                        "direct-current motor model; propeller coefficients from memory, ±20 %"};
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
  else
    d.cruise_current = {"Drive current at cruise",
                        cruise_share * d.static_current.value,
                        "A",
                        0.25 * d.static_current.value,
                        0.5 * d.static_current.value,
                        "0.35 × " + number_text(d.static_current.value, 1) + " A",
                        "common practice, 0.25 to 0.5 of the static current"};
  return d;
}

}  // namespace rigging
