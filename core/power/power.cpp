#include "power/power.h"

#include <algorithm>
#include <bit>
#include <cmath>

#include "airframe/planform.h"
#include "base/find.h"
#include "base/number.h"
#include "power/solver.h"

namespace rigging {
namespace {

constexpr double burst_s = 10, warming_s = 40;  // everything moving; a small regulator on its board; common practice

std::string verdict_of(const SourceReport& s) {
  const auto a = [](double v) { return number_text(v, 1) + " A"; };
  const double one = s.amps[static_cast<std::size_t>(LoadCase::one_stalled)],
               two = s.amps[static_cast<std::size_t>(LoadCase::two_stalled)];
  const std::string of = " of " + a(s.rating_a);
  if (!s.supplies) return "gives nothing: another source is stronger or its inlet is dark";
  if (s.battery)
    return a(two) + ", fresh " + a(s.fresh_a) + of +
           " at full throttle: " + (s.fresh_a <= s.rating_a ? "holds" : "too much");
  if (two <= s.rating_a) return a(two) + of + " with two servos stalled: holds";
  if (one <= s.rating_a) return a(one) + of + " with one servo stalled holds, " + a(two) + " with two does not";
  const double moving = s.amps[static_cast<std::size_t>(LoadCase::all_moving)];
  if (moving <= s.rating_a) return a(one) + of + " with one servo stalled: too much";
  return a(moving) + of + " with everything moving: too much";
}

/// A motor at rest draws its stall current until it turns: the servos on a rail that one stick starts together, on top
/// of what the rail draws in flight.
double starting(const Rig& rig, const Network& net, int rail, double flown_a) {
  double most = 0;
  for (const Axis axis : all_axes) {
    double sum = 0;
    for (const Draw& d : net.draws) {
      const Part* part = d.servo && net.rail_of[static_cast<std::size_t>(d.node)] == rail ? rig.part(d.part) : nullptr;
      const Output* o = part && part->surface ? rig.output_of(*part->surface) : nullptr;
      if (o && o->mix.of(axis) != 0) sum += d.load.most_a - d.load.idle_a;
    }
    most = std::max(most, sum);
  }
  return most > 0 ? flown_a + most : 0;
}

/// What a set of draws asks with everything moving and the greediest servo stalled.
double asked(const Network& net, const std::vector<std::size_t>& draws) {
  double sum = 0, extra = 0;
  for (const std::size_t i : draws) {
    const double moving = drawn(net.draws[i].load, net.draws[i].servo, LoadCase::all_moving);
    sum += moving;
    if (net.draws[i].servo) extra = std::max(extra, net.draws[i].load.most_a - moving);
  }
  return sum + extra;
}

std::optional<Advice> advice_for(const Rig& rig, const Catalogue& catalogue, const PowerReport& r) {
  const Network& net = r.network;
  for (const SourceReport& s : r.sources) {
    if (s.battery || !s.overloaded()) continue;
    std::vector<std::size_t> movable;
    double fixed_a = 0;
    for (std::size_t i = 0; i < net.draws.size(); ++i) {
      if (net.rails[static_cast<std::size_t>(net.rail_of[static_cast<std::size_t>(net.draws[i].node)])].name != s.rail)
        continue;
      if (net.draws[i].part == "controller")
        fixed_a += drawn(net.draws[i].load, false, LoadCase::all_moving);
      else
        movable.push_back(i);
    }
    // What the rail feeds onward (the board's own supply) stays.
    fixed_a += std::max(0.0, s.worst_a() - asked(net, movable) - fixed_a);
    if (movable.empty() || movable.size() > 16) continue;
    const PartKind* regulator = nullptr;
    unsigned best = 0;
    int best_rank = 1 << 30;
    for (unsigned set = 1; set < 1u << movable.size(); ++set) {
      const int size = std::popcount(set);
      if (size * 100 > best_rank) continue;
      std::vector<std::size_t> moved, left;
      int rank = size * 100;
      for (std::size_t k = 0; k < movable.size(); ++k) {
        const std::size_t i = movable[k];
        (set >> k & 1 ? moved : left).push_back(i);
        // Camera and video rather than servos; the receiver stays with the board if it can.
        const PartKind* kind = kind_of(rig, catalogue, net.draws[i].part);
        if (set >> k & 1) rank += kind && kind->group == PartGroup::receiver ? 10 : net.draws[i].servo ? 2 : 1;
      }
      if (rank >= best_rank || fixed_a + asked(net, left) > s.rating_a) continue;
      const double need = asked(net, moved);
      const PartKind* fits = nullptr;
      for (const PartKind& k : catalogue.parts)
        if (k.group == PartGroup::regulator && !k.feeds.empty() && k.feeds[0].amps >= need &&
            std::abs(k.feeds[0].volts - 5) < 0.3 && k.feeds[0].kind == FeedKind::switching)
          if (!fits || k.feeds[0].amps < fits->feeds[0].amps) fits = &k;
      if (!fits) continue;
      best = set;
      best_rank = rank;
      regulator = fits;
    }
    if (!regulator) continue;
    Advice a;
    a.overloaded = s.part;
    a.regulator_kind = regulator->id;
    std::string names;
    for (std::size_t k = 0; k < movable.size(); ++k)
      if (best >> k & 1) {
        a.move.push_back(net.draws[movable[k]].part);
        names += (names.empty() ? "" : ", ") + part_name(rig, catalogue, a.move.back());
      }
    a.words = "Feed " + names + " from a second regulator (" + regulator->name +
              "), grounds common: then both hold with a servo stalled.";
    return a;
  }
  return std::nullopt;
}

}  // namespace

const SourceReport* PowerReport::source(const std::string& part) const {
  return find_in(sources, [&](const SourceReport& s) { return s.part == part; });
}

const ConsumerReport* PowerReport::consumer(const std::string& part) const {
  return find_in(consumers, [&](const ConsumerReport& c) { return c.part == part; });
}

namespace {

void add_held_servos(const Rig& rig, const Catalogue& catalogue, const std::vector<ServoLoad>& loads, PowerReport& r) {
  double least = 0, most = 0, speed = 0;
  int servos = 0;
  std::string rail;
  for (const ServoLoad& l : loads) {
    const Part* part = rig.part(l.servo);
    const ConsumerReport* consumer = part ? r.consumer(part->id) : nullptr;
    const PartKind* kind = part ? catalogue.part(part->kind) : nullptr;
    if (!consumer || !kind || !kind->servo) continue;
    ++servos;
    least += l.fast.amps_low;
    most += l.fast.amps_high;
    speed = l.fast.speed_m_s;
    rail = consumer->rail;
  }
  if (servos == 0) return;
  for (const SourceReport& s : r.sources)
    if (s.supplies && s.rail == rail && (!s.battery || r.servo_source_a == 0)) r.servo_source_a = s.rating_a;
  r.servos_held = Figure{"Servos held at full throw in fast flight",
                         (least + most) / 2,
                         "A",
                         least,
                         most,
                         std::to_string(servos) + " servos at " + number_text(speed, 1) +
                             " m/s, idle + (stall − idle) · torque asked / torque there",
                         "hinge moments of thin aerofoil theory, 0.5 to 1.2 times"};
}

}  // namespace

std::vector<Figure> PowerReport::figures() const {
  std::vector<Figure> all;
  for (const auto* f :
       {&battery_full, &battery_empty, &sag, &controller_least, &brown_out_margin, &servos_held, &endurance})
    if (*f) all.push_back(**f);
  // Without its propeller, battery or speed controller nothing is known of it: nought would be a wrong number.
  if (drive && (drive->static_current.value > 0 || drive->thrust.value > 0)) {
    all.insert(all.end(), {drive->static_current, drive->full_current, drive->thrust});
    if (drive->thrust_to_weight) all.push_back(*drive->thrust_to_weight);
    all.push_back(drive->cruise_current);
  }
  for (const SourceReport& s : sources)
    for (const auto* f : {&s.heat_flown, &s.heat, &s.junction_flown, &s.junction_burst, &s.junction})
      if (*f) all.push_back(**f);
  return all;
}

namespace {

/// The battery of the rail that gives most of the drive current, else the first.
std::string main_battery(const Rig& rig, const Catalogue& catalogue, const Network& net) {
  std::string found;
  double most = -1;
  for (const Rail& rail : net.rails)
    for (const Source& s : rail.sources)
      if (const PartKind* k = s.ideal ? kind_of(rig, catalogue, s.part) : nullptr;
          k && k->battery && rail.drive_share > most) {
        found = s.part;
        most = rail.drive_share;
      }
  return found;
}

}  // namespace

PowerReport analyze_power(const Rig& rig, const Catalogue& catalogue, const WhatIf& what_if,
                          const std::vector<ServoLoad>* loads) {
  PowerReport r;
  r.network = network_of(rig, catalogue, what_if.without);
  const BatteryFigures* battery = nullptr;
  r.battery = main_battery(rig, catalogue, r.network);
  for (Rail& rail : r.network.rails)
    for (Source& s : rail.sources)
      if (const PartKind* k = s.ideal && s.part == r.battery ? kind_of(rig, catalogue, s.part) : nullptr;
          k && k->battery) {
        battery = &*k->battery;
        s.volts += what_if.more_cells * battery->nominal_cell_v;
        s.ohm += what_if.more_cells * battery->cell_milliohm / 1000;
      }
  const Network& net = r.network;
  r.drive = analyze_drive(rig, catalogue, net, what_if.more_cells);
  const double full_a = r.drive ? r.drive->static_current.value : 0,
               cruise_a = r.drive ? r.drive->cruise_current.value : 0;
  for (const SupplyState state : {SupplyState::usb, SupplyState::battery, SupplyState::both})
    r.states[static_cast<std::size_t>(state)] = solve(net, state, LoadCase::idle, 1, 0).rails;
  for (const LoadCase e :
       {LoadCase::idle, LoadCase::typical, LoadCase::all_moving, LoadCase::one_stalled, LoadCase::two_stalled})
    r.load_cases[static_cast<std::size_t>(e)] =
        solve(net, SupplyState::battery, e, 1, e == LoadCase::typical ? cruise_a : full_a,
              e == LoadCase::one_stalled || e == LoadCase::two_stalled ? what_if.stalled : std::vector<std::string>{});
  const Solution& worst = r.load_cases[static_cast<std::size_t>(LoadCase::two_stalled)];
  const double full_share = battery ? battery->full_cell_v / battery->nominal_cell_v : 1,
               empty_share = battery ? battery->empty_cell_v / battery->nominal_cell_v : 1;
  // Empty under load: the cell voltage is named under load, so that the sag must not count twice.
  const Solution full = solve(net, SupplyState::battery, LoadCase::idle, full_share, 0),
                 empty = solve(net, SupplyState::battery, LoadCase::idle, empty_share, 0);
  const Solution hot = solve(net, SupplyState::battery, LoadCase::all_moving, full_share, 0),
                 flown = solve(net, SupplyState::battery, LoadCase::typical, full_share, 0);

  for (std::size_t q = 0; q < net.rails.size(); ++q)
    for (std::size_t k = 0; k < net.rails[q].sources.size(); ++k) {
      const Source& s = net.rails[q].sources[k];
      if (s.kind == FeedKind::diode || s.part == "computer") continue;
      SourceReport report;
      report.part = s.part;
      report.name = part_name(rig, catalogue, s.part);
      report.rail = net.rails[q].name;
      report.kind = s.kind;
      report.battery = s.ideal;
      report.rating_a = s.amps;
      report.least_in_v = s.least_in_v;
      report.most_in_v = s.most_in_v;
      report.supplies = worst.rails[q].source == static_cast<int>(k);
      for (std::size_t e = 0; e < 5; ++e) report.amps[e] = report.supplies ? r.load_cases[e].rails[q].amps : 0;
      if (!s.ideal && full.rails[static_cast<std::size_t>(s.rail_before)].live) {
        report.highest_in_v = full.node_v[static_cast<std::size_t>(s.node_before)];
        report.lowest_in_v = empty.rails[static_cast<std::size_t>(s.rail_before)].live
                                 ? empty.node_v[static_cast<std::size_t>(s.node_before)]
                                 : 0;
      }
      if (s.kind == FeedKind::linear && report.supplies && hot.rails[q].live && hot.rails[q].amps > 0) {
        const auto heat_in = [&](const Solution& at) {
          return std::max(0.0, at.node_v[static_cast<std::size_t>(s.node_before)] - at.rails[q].volts) *
                 at.rails[q].amps;
        };
        const double moving_w = heat_in(hot), flown_w = heat_in(flown);
        const auto heat = [&](const char* when, double watts, const Solution& at, const char* how) {
          return Figure{"Heat in " + report.name + when,
                        watts,
                        "W",
                        {},
                        {},
                        "(" + number_text(at.node_v[static_cast<std::size_t>(s.node_before)], 2) + " V − " +
                            number_text(at.rails[q].volts, 2) + " V) × " + number_text(at.rails[q].amps, 2) + " A",
                        std::string("(Vin − Vout)·I, full battery, ") + how};
        };
        report.heat = heat("", moving_w, hot, "everything moving");
        report.heat_flown = heat(", flown", flown_w, flown, "servos moving a quarter of the time");
        if (s.k_per_w > 0) {
          const auto junction = [&](const char* when, double watts, const std::string& how) {
            return Figure{"Junction of " + report.name + when,
                          rig.power.ambient_c + watts * s.k_per_w,
                          "°C",
                          {},
                          {},
                          number_text(rig.power.ambient_c, 0) + " °C + " + number_text(watts, 2) + " W × " +
                              number_text(s.k_per_w, 0) + " K/W",
                          how + "; the limit is " + number_text(s.most_junction_c, 0) + " °C"};
          };
          report.junction = junction("", moving_w, "ambient + P·θJA, everything moving");
          report.junction_flown = junction(", flown", flown_w, "ambient + P·θJA, servos moving a quarter of the time");
          report.junction_burst = junction(" after ten seconds of everything moving",
                                           flown_w + (moving_w - flown_w) * (1 - std::exp(-burst_s / warming_s)),
                                           "ambient + P·θJA, with a time constant of 40 s (common practice)");
        }
      }
      if (report.supplies) report.starting_a = starting(rig, net, static_cast<int>(q), report.amps[1]);
      if (s.ideal && report.supplies)
        report.fresh_a = report.amps[static_cast<std::size_t>(LoadCase::two_stalled)] +
                         (r.drive ? net.rails[q].drive_share *
                                        std::max(0.0, r.drive->full_current.value - r.drive->static_current.value)
                                  : 0);
      report.verdict = verdict_of(report);
      r.sources.push_back(std::move(report));
    }

  for (std::size_t i = 0; i < net.draws.size(); ++i) {
    const Draw& d = net.draws[i];
    const auto node = static_cast<std::size_t>(d.node), q = static_cast<std::size_t>(net.rail_of[node]);
    ConsumerReport c{d.part,
                     part_name(rig, catalogue, d.part),
                     net.rails[q].name,
                     d.load.idle_a,
                     d.load.typical_a,
                     d.load.most_a,
                     d.load.least_v,
                     d.load.most_v,
                     {},
                     worst.node_v[node],
                     full.node_v[node]};
    for (std::size_t s = 0; s < 3; ++s) c.powered[s] = r.states[s][q].live;
    r.consumers.push_back(std::move(c));
  }

  for (const Draw& d : net.draws) {
    if (d.part != "controller" ||
        !worst.rails[static_cast<std::size_t>(net.rail_of[static_cast<std::size_t>(d.node)])].live)
      continue;
    const double v = worst.node_v[static_cast<std::size_t>(d.node)];
    r.controller_least = Figure{"Least voltage at the controller",
                                v,
                                "V",
                                {},
                                {},
                                "source less the drop over leads and contacts, two servos stalled",
                                "Kirchhoff; copper at 20 °C, ASTM B258"};
    r.brown_out_margin = Figure{"Margin to a restart",
                                v - d.load.least_v,
                                "V",
                                {},
                                {},
                                number_text(v, 2) + " V − " + number_text(d.load.least_v, 2) + " V",
                                "least voltage of the class"};
  }
  if (battery) {
    const int cells = battery->cells + what_if.more_cells;
    r.battery_full = Figure{"Battery, full",
                            cells * battery->full_cell_v,
                            "V",
                            {},
                            {},
                            std::to_string(cells) + " × " + number_text(battery->full_cell_v, 2) + " V",
                            "cell chemistry"};
    r.battery_empty = Figure{"Battery, empty under load",
                             cells * battery->empty_cell_v,
                             "V",
                             {},
                             {},
                             std::to_string(cells) + " × " + number_text(battery->empty_cell_v, 2) + " V",
                             "common practice"};
    for (std::size_t q = 0; q < net.rails.size(); ++q) {
      const RailState& w = worst.rails[q];
      if (w.source < 0 || net.rails[q].sources[static_cast<std::size_t>(w.source)].part != r.battery) continue;
      const double ohm = net.rails[q].sources[static_cast<std::size_t>(w.source)].ohm;
      r.sag = Figure{"Battery sag at full throttle",
                     ohm * w.amps,
                     "V",
                     {},
                     {},
                     number_text(w.amps, 1) + " A × " + number_text(1000 * ohm, 0) + " mΩ",
                     "Ohm's law; internal resistance of warm cells"};
      const double typical = r.load_cases[static_cast<std::size_t>(LoadCase::typical)].rails[q].amps;
      // What a motor draws in cruise is not known without its propeller: what is left would last for days.
      const bool cruise_known =
          r.drive ? r.drive->cruise_current.value > 0 : parts_of(rig, catalogue, PartGroup::motor).empty();
      if (typical > 0 && cruise_known) {
        const double usable_ah = battery->capacity_ah * (1 - rig.power.reserve_share);
        r.endurance = Figure{"Endurance at cruise",
                             60 * usable_ah / typical,
                             "min",
                             {},
                             {},
                             number_text(battery->capacity_ah, 2) + " Ah × " +
                                 number_text(1 - rig.power.reserve_share, 2) + " / " + number_text(typical, 2) + " A",
                             "capacity less the reserve"};
        if (r.drive && r.drive->cruise_current.least) {
          const double rest = typical - r.drive->cruise_current.value;
          r.endurance->least = 60 * usable_ah / (rest + *r.drive->cruise_current.most);
          r.endurance->most = 60 * usable_ah / (rest + *r.drive->cruise_current.least);
        }
      }
    }
  }
  for (const ConsumerReport& c : r.consumers) {
    const PartKind* k = kind_of(rig, catalogue, c.part);
    if (k && k->group == PartGroup::receiver && c.powered[1] && !c.powered[0] && net.node("controller", "usb") >= 0)
      r.explanations.push_back("On USB alone " + c.name + " stays dark: USB feeds the processor, not the " + c.rail +
                               ". No fault.");
  }
  for (const SourceReport& s : r.sources) {
    const PartKind* k = kind_of(rig, catalogue, s.part);
    if (k && k->group == PartGroup::power_module && s.supplies && s.rail != "servo rail")
      r.explanations.push_back("The power module feeds the " + s.rail +
                               ", not the servo rail: servos need a source of their own.");
  }
  for (const Part& p : rig.parts)
    if (const PartKind* k = catalogue.part(p.kind); k && k->propeller)
      r.explanations.push_back("Seen from behind, " + part_name(rig, catalogue, p.id) + " turns " +
                               (k->propeller->left_handed ? "against the clock" : "with the clock") +
                               ", lettered side toward the direction of flight." +
                               (propeller_pushes(rig.airframe)
                                    ? " On a pusher the shaft points aft: the motor runs the other way round than in a "
                                      "nose. Exchange two of its three leads if it blows forward."
                                    : ""));
  for (const Rail& rail : net.rails) {
    const auto diodes = std::count_if(rail.sources.begin(), rail.sources.end(),
                                      [](const Source& s) { return s.kind == FeedKind::diode; });
    if (diodes > 1)
      r.explanations.push_back(
          capital(rail.name) + " has " + std::to_string(diodes) +
          " inputs kept apart by diodes: several sources are allowed there, the highest feeds it.");
  }
  r.advice = advice_for(rig, catalogue, r);
  if (loads)
    add_held_servos(rig, catalogue, *loads, r);
  else
    add_held_servos(rig, catalogue, analyze_loads(rig, catalogue, analyze_airframe(rig), analyze_surfaces(rig)), r);
  return r;
}

}  // namespace rigging
