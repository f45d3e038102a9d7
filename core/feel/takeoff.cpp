#include "feel/takeoff.h"

#include <algorithm>
#include <cmath>

#include "airframe/planform.h"
#include "base/angle.h"
#include "base/number.h"
#include "base/units.h"
#include "direction/direction_checks.h"
#include "earth/gravity.h"

namespace rigging {
namespace {

constexpr double arm_m = 1.2, hand_height_m = 1.8;  ///< common practice
/// A pusher's throttle comes after it has left the hand: until a pilot, or a launch mode, has seen it and opens, and
/// until the propeller turns. From memory; the later one is what is counted with.
constexpr double reacts_s = 0.3, reacts_late_s = 0.7, spool_s = 0.3, spool_late_s = 0.6;
constexpr double low_enough_m = 1.2;                            ///< of that height, that it may sink
constexpr double strip_friction = 0.05, grass_friction = 0.12;  ///< from memory
constexpr double strong_crosswind = 0.2;                        ///< of the stall speed (common practice)
constexpr double roll_step_s = 0.005, longest_roll_s = 20;

std::string digits(double v, int places = 0) { return number_text(v, places); }

/// Metres that it sinks from a level throw until it flies, more than five told as five. What the wing does not carry
/// yet, falls; drag of lift that is not there does not pull. Full thrust is there after `waits_s` and `spools_s` more.
double sinks_from_hand(const Engine& engine, const Drag& drag, double mass_kg, double stall_m_s, double thrown_m_s,
                       double needed_m_s, double waits_s, double spools_s) {
  const double weight = mass_kg * standard_gravity;
  double v = thrown_m_s, sinks = 0, drop = 0;
  for (double t = 0; t < longest_roll_s && v < needed_m_s && drop <= 5; t += roll_step_s) {
    const double carried = std::min(1.0, v * v / (stall_m_s * stall_m_s));
    const double q = air_density_kg_m3 / 2 * v * v;
    const double held =
        drag.parasite_m2 * q + drag.induced_per_m2 * carried * carried * weight * weight / std::max(q, 1.0);
    const double open = std::clamp(spools_s > 0 ? (t - waits_s) / spools_s : 1.0, 0.0, 1.0);
    v += roll_step_s * (open * engine.thrust_n(1, v) - held) / mass_kg;
    sinks += roll_step_s * standard_gravity * (1 - carried);
    drop += roll_step_s * sinks;
  }
  return drop;
}

}  // namespace

TakeoffAdvice advise_takeoff(const Rig& rig, const FeelReport& r, const Engine& engine, const Drag& drag,
                             const Balance& balance, const std::vector<CheckStatus>& checks,
                             const std::vector<std::string>& grounded) {
  TakeoffAdvice a;
  std::string open, stale;
  for (const CheckStatus& c : checks) {
    if (!is_direction(c.id) || c.state == ProofState::fresh) continue;
    std::string& list = c.state == ProofState::stale ? stale : open;
    list += (list.empty() ? "" : ", ") + c.title;
  }
  if (!open.empty()) a.not_yet.push_back("Directions are not proven: " + open + ". Prove them at station proof.");
  if (!stale.empty()) a.not_yet.push_back("Proven once and gone stale: " + stale + ". Look again at station proof.");
  if (balance.side() == BalanceSide::unknown)
    a.not_yet.push_back("The balance point is not known: weigh the frame and place every part at station fit.");
  else if (balance.side() != BalanceSide::holds)
    a.not_yet.push_back("It balances outside of its band: " + digits(1000 * balance.balance_point.value) +
                        " mm behind the nose. Station fit says what to move.");
  for (const std::string& why : grounded) a.not_yet.push_back(why + ".");
  if (!r.missing.empty()) {
    a.not_yet.push_back(r.missing);
    return a;
  }

  const Aeroplane& plane = r.aeroplane;
  const Takeoff& t = rig.feel.takeoff;
  const double stall = plane.stall_m_s, mass = plane.mass_kg, weight = mass * standard_gravity;
  const double climbing = 1.2 * stall;
  const double spare = engine.thrust_n(1, climbing) - drag.at(climbing, mass, drag.parasite_m2);
  a.climb_deg = std::asin(std::clamp(spare / weight, -1.0, 1.0)) / rad;
  const bool motor = engine.static_n > 0;
  const auto hold_back = [&](const std::string& why) { a.not_yet.push_back(why); };
  const auto accelerates = [&](double v) {
    return (engine.thrust_n(1, v) - drag.at(std::max(v, 1.0), mass, drag.parasite_m2)) / mass;
  };

  switch (t.way) {
    case TakeoffWay::hand: {
      const double thrown = t.throw_m_s.value_or(usual_throw_m_s);
      a.needed_m_s = 1.1 * stall;
      a.speed_m_s = thrown + t.wind_m_s;
      a.push_m_s2 = thrown * thrown / (2 * arm_m);
      const bool late = motor && propeller_behind(rig.airframe);
      const auto sink = [&](double waits, double spools) {
        return sinks_from_hand(engine, drag, mass, stall, a.speed_m_s, a.needed_m_s, waits, spools);
      };
      a.drop_m = late ? sink(reacts_late_s, spool_late_s) : sink(0, 0);
      const std::string sinks =
          late ? digits(sink(reacts_s, spool_s), 1) + " to " + digits(a.drop_m, 1) : digits(a.drop_m, 1);
      a.lines.push_back("It leaves the hand at " + speed_text(a.speed_m_s) + " through the air; it stalls below " +
                        speed_text(stall) + " and flies from " + speed_text(a.needed_m_s) +
                        (a.speed_m_s >= a.needed_m_s ? ": it flies at once."
                         : late ? ". With throttle " + digits(reacts_s, 1) + " to " + digits(reacts_late_s, 1) +
                                      " s after the hand it sinks " + sinks + " m until then."
                                : ". It sinks " + sinks + " m until then."));
      if (a.drop_m > low_enough_m)
        hold_back("From the hand it sinks " + (a.drop_m > 5 ? std::string("all") : sinks + " m") + " of the " +
                  digits(hand_height_m, 1) + " m that there are: wait for wind, throw harder, or build it lighter.");
      if (motor)
        a.lines.push_back("A launch mode has to notice a push of about " + digits(a.push_m_s2) + " m/s² for " +
                          digits(2 * arm_m / thrown, 2) + " s, and nothing that carrying it makes.");
      a.cautions.push_back(!motor ? "Hold it where it balances; level wings, an even push, and follow through."
                           : propeller_behind(rig.airframe)
                               ? "The propeller turns behind your hand: throttle only once it has "
                                 "left the hand, and let go forward, never back over the arc."
                               : "Hold it behind the propeller, hand and sleeve clear of its arc; "
                                 "throw with the arc ahead of your fingers.");
      a.cautions.push_back(
          "Level wings, nose a little up, into the wind. Middle rates. Somebody else at the sticks, if you can.");
      break;
    }
    case TakeoffWay::ground: {
      a.needed_m_s = 1.2 * stall;
      const double friction = t.rough ? grass_friction : strip_friction;
      double v = std::min(t.wind_m_s, a.needed_m_s);
      for (double s = 0; s < longest_roll_s && v < a.needed_m_s; s += roll_step_s) {
        const double carried = 0.3 * std::min(1.0, v * v / (stall * stall));  // rolling level, it carries little
        const double faster = accelerates(v) - friction * standard_gravity * (1 - carried);
        if (faster < 0.05) {
          a.run_m = 1e9;
          break;
        }
        v += roll_step_s * faster;
        a.run_m += roll_step_s * (v - t.wind_m_s);
      }
      a.speed_m_s = a.needed_m_s;
      if (a.run_m > 1e8)
        hold_back(std::string("On this ground it never gets fast enough: ") +
                  (motor ? "a smoother strip, more thrust or the hand." : "it has no motor."));
      else
        a.lines.push_back("It runs about " + digits(a.run_m) + " m until " + speed_text(a.needed_m_s) +
                          " through the air; twice that is room.");
      if (t.run_m && a.run_m < 1e8 && *t.run_m < 2 * a.run_m)
        hold_back("There are " + digits(*t.run_m) + " m, and " + digits(2 * a.run_m) + " m are room enough.");
      if (t.crosswind_m_s > strong_crosswind * stall)
        hold_back("Crosswind of " + speed_text(t.crosswind_m_s) + " is more than a fifth of the stall speed" +
                  (t.steering == Steering::none ? ", and nothing steers it on the ground."
                                                : ": wait, or turn into the wind."));
      else if (t.steering == Steering::none)
        a.lines.push_back("Nothing steers it on the ground until the rudder bites: straight into the wind.");
      a.lines.push_back("Manual, or rate at its first gain: levelling fights the wheels.");
      a.cautions.push_back(
          "Nobody ahead or in the plane of the propeller. Hold it by the tail until the run is clear.");
      break;
    }
    case TakeoffWay::tow:
      a.needed_m_s = 1.3 * stall;
      a.speed_m_s = t.tow_m_s.value_or(a.needed_m_s);
      a.lines.push_back("It needs " + speed_text(a.needed_m_s) + " on the line; the tug has to fly that slowly.");
      if (t.tow_m_s && *t.tow_m_s < a.needed_m_s)
        hold_back("A tow of " + speed_text(*t.tow_m_s) + " is too slow: it stalls below " + speed_text(stall) + ".");
      if (t.tow_m_s && plane.dive_m_s > 0 && *t.tow_m_s > 0.8 * plane.dive_m_s)
        hold_back("A tow of " + speed_text(*t.tow_m_s) + " is too fast for its gains and its linkages.");
      a.cautions.push_back("Try the release under load on the ground first. Agree on who lets go, and when.");
      break;
    case TakeoffWay::height:
      a.needed_m_s = 1.2 * stall;
      a.speed_m_s = t.wind_m_s;
      a.drop_m = std::max(0.0, (a.needed_m_s * a.needed_m_s - t.wind_m_s * t.wind_m_s) / (2 * standard_gravity));
      a.lines.push_back("From rest it falls " + digits(a.drop_m, 1) +
                        " m until it flies: so much free air must be below it, and as much again to pull out.");
      a.cautions.push_back("Nobody below. Hands off the arc until it has gone.");
      break;
  }
  if (motor && a.climb_deg < 5)
    hold_back("At full throttle it climbs " + digits(a.climb_deg, 1) + "° only: too little to clear anything.");
  else if (motor)
    a.lines.push_back("At full throttle it climbs up to " + digits(a.climb_deg) + "°: ask for half of it.");
  a.go = a.not_yet.empty();
  return a;
}

}  // namespace rigging
