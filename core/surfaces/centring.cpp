#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <unsupported/Eigen/NonLinearOptimization>

#include "base/find.h"
#include "base/number.h"
#include "surfaces/linkage.h"

namespace rigging {
namespace {

constexpr double reading_deg = 0.2;  // how well a throw is read
// How far a linkage may be from what was measured on it, one standard deviation (common practice).
constexpr double arm_off_deg = 8, horn_off_deg = 8, travel_off_deg = 6, rod_off_m = 0.002;

Linkage moved(Linkage l, const Eigen::VectorXd& by) {
  l.arm_deg += by[0] * arm_off_deg;
  l.horn_deg += by[1] * horn_off_deg;
  l.servo_travel_deg += by[2] * travel_off_deg;
  l.rod_m += by[3] * rod_off_m;
  return l;
}

/// Residuals of the readings and the pull of the four parameters, in standard deviations.
struct Misfit {
  using Scalar = double;
  using InputType = Eigen::VectorXd;
  using ValueType = Eigen::VectorXd;
  using JacobianType = Eigen::MatrixXd;
  enum { InputsAtCompileTime = Eigen::Dynamic, ValuesAtCompileTime = Eigen::Dynamic };

  const Linkage& start;
  int sense;

  int inputs() const { return 4; }
  int values() const { return static_cast<int>(start.readings.size()) + 4; }
  int operator()(const Eigen::VectorXd& by, Eigen::VectorXd& off) const {
    const Linkage l = moved(start, by);
    const auto bar = FourBar::of(l);
    const auto n = static_cast<Eigen::Index>(start.readings.size());
    for (Eigen::Index i = 0; i < n; ++i) {
      const ThrowReading& r = start.readings[static_cast<std::size_t>(i)];
      const auto pose = bar ? bar->pose(arm_at(l, r.pulse_us, sense))
                            : tl::expected<LinkagePose, LinkageFault>(tl::make_unexpected(LinkageFault::no_size));
      off[i] = pose ? (pose->up_deg - r.up_deg) / reading_deg : 1e3;
    }
    off.tail(4) = by;
    return 0;
  }
};

constexpr double least_us = 900, most_us = 2100;  // what servos take without harm (common practice)
constexpr double tolerated_deg = 0.5;             // seen by nobody (common practice)
constexpr double most_throw_deg = 85;             // of any surface that is one

/// Ends that make the throws as wanted, or both as wide as the smaller one.
Result<void> ends_to_set(const Linkage& given, const Linkage& set, const FourBar& bar, int sense, Centring& c) {
  const auto reach = [&](double limit_us) {
    // As far as the linkage goes before it binds or turns back.
    double best = 0;
    for (int i = 1; i <= 60; ++i) {
      const double pulse = c.centre_us + (limit_us - c.centre_us) * i / 60;
      const auto pose = bar.pose(arm_at(set, pulse, sense));
      if (!pose || pose->rod_to_horn_deg < 12 || std::abs(pose->up_deg) > most_throw_deg ||
          std::abs(pose->up_deg) < std::abs(best))
        break;
      best = pose->up_deg;
    }
    return best;
  };
  const double at_low = reach(least_us), at_high = reach(most_us);
  const double most_up = std::max({at_low, at_high, 0.0}), most_down = std::max({-at_low, -at_high, 0.0});
  // Without a wish both throws become the smaller of what 1000 and 2000 µs give.
  const double equal = std::min(std::abs(reach(std::min(1000.0, c.centre_us - 100))),
                                std::abs(reach(std::max(2000.0, c.centre_us + 100))));
  const auto aim = [&](std::optional<double> want, double most, const char* side) {
    const double wish = want.value_or(equal);
    if (wish > most + 0.05)
      c.limits.push_back(number_text(wish, 1) + "° " + side + " can't be reached: " + number_text(most, 1) +
                         "° is all");
    return std::min(wish, most);
  };
  c.up_deg = aim(given.want_up_deg, most_up, "up");
  c.down_deg = aim(given.want_down_deg, most_down, "down");
  const auto up = pulse_for(set, c.up_deg, sense), down = pulse_for(set, -c.down_deg, sense);
  if (!up || !down) return tl::make_unexpected(!up ? up.error() : down.error());
  c.low_us = std::min(*up, *down);
  c.high_us = std::max(*up, *down);
  if (!(c.low_us < c.centre_us && c.centre_us < c.high_us))
    return failure("linkage of the " + given.surface.label(), "the ends do not enclose the centre",
                   "throws to both sides");
  return {};
}

/// What the output's own ends give, and what of the wish that leaves to arm and holes.
Result<void> ends_as_they_are(const Linkage& given, const Linkage& set, const FourBar& bar, int sense, const Output& o,
                              Centring& c) {
  c.low_us = o.low_us;
  c.high_us = o.high_us;
  const auto low = bar.pose(arm_at(set, o.low_us, sense)), high = bar.pose(arm_at(set, o.high_us, sense));
  if (!low || !high)
    return failure("linkage of the " + given.surface.label(),
                   "it stops before " + number_text(low ? o.high_us : o.low_us, 0) + " µs",
                   "a shorter arm or a longer horn: this class sends its full pulses");
  c.up_deg = std::max(low->up_deg, high->up_deg);
  c.down_deg = -std::min(low->up_deg, high->up_deg);
  if (const double most = std::max(c.up_deg, c.down_deg); most > most_throw_deg)
    return failure("linkage of the " + given.surface.label(), "would turn it by " + number_text(most, 0) + "°",
                   "a shorter arm or a longer horn: no surface goes beyond " + number_text(most_throw_deg, 0) + "°");
  const auto compare = [&](std::optional<double> want, double gives, const char* side) {
    if (want && std::abs(*want - gives) > tolerated_deg)
      c.limits.push_back("it goes " + number_text(gives, 1) + "° " + side + ", " + number_text(*want, 1) +
                         "° are wanted, and this class has no ends to set: choose other holes");
  };
  compare(given.want_up_deg, c.up_deg, "up");
  compare(given.want_down_deg, c.down_deg, "down");
  if (!given.want_up_deg && !given.want_down_deg && std::abs(c.up_deg - c.down_deg) > 2 * tolerated_deg)
    c.limits.push_back(
        "up and down differ by " + number_text(std::abs(c.up_deg - c.down_deg), 1) +
        "°, and this class has no ends to set: arm and horn square to the rod at neutral make them alike");
  return {};
}

/// Turns of the clevis that bring the surface to `want_deg` with the arm where it is.
double turns_for(const Linkage& l, double arm_deg, double want_deg, const FourBar& now) {
  const double flush = now.rod_change_for_neutral(arm_deg) / l.clevis_pitch_m;
  if (want_deg == 0) return flush;
  const auto off = [&](double turns) -> std::optional<double> {
    Linkage turned = l;
    turned.rod_m += turns * l.clevis_pitch_m;
    const auto bar = FourBar::of(turned);
    const auto pose =
        bar ? bar->pose(arm_deg) : tl::expected<LinkagePose, LinkageFault>(tl::make_unexpected(LinkageFault::no_size));
    return pose ? std::optional(pose->up_deg - want_deg) : std::nullopt;
  };
  // The angle grows or falls steadily with the rod's length near neutral: secant steps from flush.
  double a = flush, b = flush + 1;
  for (int i = 0; i < 20; ++i) {
    const auto at_a = off(a), at_b = off(b);
    if (!at_a || !at_b || *at_a == *at_b) return b;
    const double next = std::clamp(b - *at_b * (b - a) / (*at_b - *at_a), flush - 40, flush + 40);
    a = b;
    b = next;
    if (std::abs(b - a) < 1e-4) break;
  }
  return b;
}

}  // namespace

Result<Estimate> estimate(const Linkage& l) {
  const std::string where = "linkage of the " + l.surface.label();
  if (l.readings.size() < 3)
    return failure(where, std::to_string(l.readings.size()) + " readings", "at least three: both ends and the middle");
  std::vector<ThrowReading> sorted = l.readings;
  std::sort(sorted.begin(), sorted.end(), [](const auto& a, const auto& b) { return a.pulse_us < b.pulse_us; });
  const double swing = sorted.back().up_deg - sorted.front().up_deg;
  if (std::abs(swing) < 1 || sorted.back().pulse_us - sorted.front().pulse_us < 100)
    return failure(where, "the surface hardly moved over the readings", "readings at both ends of the travel");
  for (std::size_t i = 1; i < sorted.size(); ++i)
    if ((sorted[i].up_deg - sorted[i - 1].up_deg) * swing < -0.5 * std::abs(swing))
      return failure(where,
                     "it reads " + number_text(sorted[i - 1].up_deg, 1) + "° at " +
                         number_text(sorted[i - 1].pulse_us, 0) + " µs and " + number_text(sorted[i].up_deg, 1) +
                         "° at " + number_text(sorted[i].pulse_us, 0) + " µs: it turns back",
                     "readings that go one way; was one side read with the wrong sign?");

  // Where servo and hinge sit was measured when the linkage was laid out; readings do not move them.
  Linkage start = l;
  const auto laid_out = FourBar::of(l);
  if (!laid_out) return tl::make_unexpected(laid_out.error());
  start.base_m = laid_out->base_m();
  const int sense = swing > 0 ? 1 : -1;
  const Misfit misfit{start, sense};
  Eigen::NumericalDiff<Misfit, Eigen::Central> with_slopes(misfit);
  Eigen::LevenbergMarquardt<Eigen::NumericalDiff<Misfit, Eigen::Central>> fit(with_slopes);
  fit.parameters.maxfev = 400;
  Eigen::VectorXd by = Eigen::VectorXd::Zero(4);
  fit.minimize(by);
  Estimate e{moved(start, by), 0, sense};
  Eigen::VectorXd off(misfit.values());
  misfit(by, off);
  e.residual_deg =
      reading_deg * std::sqrt(off.head(off.size() - 4).squaredNorm() / static_cast<double>(l.readings.size()));
  if (e.residual_deg > 3)
    return failure(
        where,
        "the readings do not fit a linkage of these lengths (" + number_text(e.residual_deg, 1) + "° off on average)",
        "arm, rod and horn measured again, and readings with the right signs");
  return e;
}

Result<Centring> centre(const Linkage& given, const Output& o, OutputSettings can) {
  Linkage l = given;
  int sense = rising_lifts(o, l.surface);
  Centring c;
  if (given.readings.size() >= 3) {
    const auto e = estimate(given);
    if (!e) return tl::make_unexpected(e.error());
    l = e->linkage;
    c.reverse = e->sense != sense;
    sense = e->sense;
  }
  // On a Y-lead the output is set for its first surface; the others are brought to it by hand.
  const bool follows = o.surfaces.size() > 1 && !(o.surfaces.front() == given.surface);
  const bool wrong_way = c.reverse;
  if (follows) {
    can = {false, false, false};
    c.reverse = false;
    if (wrong_way)
      c.limits.push_back(
          "on this Y-lead it goes the wrong way: move its rod to the other side of the arm, or turn its servo round");
  } else if (wrong_way && !can.reverse) {
    c.reverse = false;
    c.limits.push_back(
        "it goes the other way than planned, and this class turns no single output round: if all surfaces of its "
        "function do, plan the function reversed; else turn the servo round, or move its rod to the other side of the "
        "arm");
  }
  const auto bar = FourBar::of(l);
  if (!bar) return tl::make_unexpected(bar.error());
  const double rest_arm = arm_at(l, o.centre_us, sense);
  const auto rest = bar->pose(rest_arm);
  if (!rest)
    return failure("linkage of the " + l.surface.label(), "at its centre the rod can't join arm and horn",
                   "a centre nearer to 1500 µs");
  c.neutral_now_deg = rest->up_deg;

  // Where the surface sat in flight: the output's centre makes it, or else the clevis.
  const double want = given.want_neutral_deg.value_or(0), by_hand = can.centre ? 0 : want;

  // Mechanics first: the spline, then the clevis, for an arm that stands where it does at rest; the centre, where there
  // is one, takes the rest.
  const double trim_deg = can.centre ? 2 : 0.3;
  constexpr double most_turns = 10;
  Linkage set = l;
  set.base_m = bar->base_m();
  const double middle_us = can.centre ? 1500 : o.centre_us;
  const double middle_arm = arm_at(l, middle_us, sense);
  if (const auto flush_arm = bar->arm_for(by_hand)) {
    const double off = *flush_arm - middle_arm;
    if (std::abs(off) > 0.6 * l.spline_tooth_deg) c.teeth = static_cast<int>(std::lround(off / l.spline_tooth_deg));
    set.arm_deg += c.teeth * l.spline_tooth_deg;
  }
  const auto on_tooth = FourBar::of(set);
  const auto middle = on_tooth ? on_tooth->pose(arm_at(set, middle_us, sense))
                               : tl::expected<LinkagePose, LinkageFault>(tl::make_unexpected(LinkageFault::no_size));
  if (middle && std::abs(middle->up_deg - by_hand) > trim_deg) {
    // By half turns, because the fork has two sides; a little more than half of one, or the hand would turn to and fro
    // for ever.
    const double exact = turns_for(set, arm_at(set, middle_us, sense), by_hand, *on_tooth);
    const double turns = std::abs(exact) < 0.3 ? 0 : std::round(2 * exact) / 2;
    if (std::abs(turns) > most_turns)
      c.limits.push_back("the rod would have to change by " + number_text(std::abs(turns), 1) +
                         " turns: it needs another length");
    c.clevis_turns = std::clamp(turns, -most_turns, most_turns);
    set.rod_m = l.rod_m + c.clevis_turns * l.clevis_pitch_m;
  }

  const auto now = FourBar::of(set);
  if (!now) return tl::make_unexpected(now.error());
  if (can.centre) {
    const auto flush = pulse_for(set, want, sense);
    if (!flush) return tl::make_unexpected(flush.error());
    c.centre_us = std::clamp(*flush, least_us + 100, most_us - 100);
    if (c.centre_us != *flush)
      c.limits.push_back("flush lies at " + number_text(*flush, 0) +
                         " µs, outside of what the output can be centred on");
  } else {
    c.centre_us = o.centre_us;
    const auto rest_after = now->pose(arm_at(set, o.centre_us, sense));
    if (rest_after && std::abs(rest_after->up_deg - want) > tolerated_deg)
      c.limits.push_back("half a turn of the clevis leaves it " + number_text(rest_after->up_deg - want, 1) +
                         "° off, and this class has no centre to set: a finer thread, or a rod that can be bent by a "
                         "hair, takes the rest");
  }
  const auto ends =
      can.ends ? ends_to_set(given, set, *now, sense, c) : ends_as_they_are(given, set, *now, sense, o, c);
  if (!ends) return tl::make_unexpected(ends.error());

  // Whoever reads a gauge to a tenth of a degree would else turn the same screw for ever.
  constexpr double near_flush_deg = 0.3, near_throw_deg = 0.4, near_alike_deg = 0.8, near_us = 6;
  const auto read_at = [&](double us) {
    return find_in(given.readings, [&](const ThrowReading& r) { return std::abs(r.pulse_us - us) <= 3; });
  };
  const auto *low = read_at(o.low_us), *rest_read = read_at(o.centre_us), *high = read_at(o.high_us);
  if (rest_read && !wrong_way) {
    bool ends_good =
        !can.ends || (std::abs(c.low_us - o.low_us) <= near_us && std::abs(c.high_us - o.high_us) <= near_us);
    if (can.ends && low && high) {
      const double read_up = std::max(low->up_deg, high->up_deg), read_down = -std::min(low->up_deg, high->up_deg);
      ends_good = given.want_up_deg || given.want_down_deg ? std::abs(read_up - c.up_deg) <= near_throw_deg &&
                                                                 std::abs(read_down - c.down_deg) <= near_throw_deg
                                                           : std::abs(read_up - read_down) <= near_alike_deg;
    }
    // Nothing left to do is settled, too, where arm and rod alone can do anything.
    const bool flush =
        std::abs(rest_read->up_deg - want) <= near_flush_deg || (!can.centre && c.teeth == 0 && c.clevis_turns == 0);
    c.settled = ends_good && flush;
  }
  if (c.settled) {
    c.teeth = 0;
    c.clevis_turns = 0;
    c.low_us = o.low_us;
    c.centre_us = o.centre_us;
    c.high_us = o.high_us;
    if (low && high) {
      c.up_deg = std::max(low->up_deg, high->up_deg);
      c.down_deg = -std::min(low->up_deg, high->up_deg);
    }
  }
  return c;
}

Linkage worked_over(Linkage l, const Centring& done) {
  // Servo and hinge stay where they are while rod and arm change.
  if (const auto bar = FourBar::of(l); bar && !l.base_m) l.base_m = bar->base_m();
  if (l.readings.size() >= 3)
    if (const auto e = estimate(l)) l = e->linkage;
  l.rod_m += done.clevis_turns * l.clevis_pitch_m;
  l.arm_deg += done.teeth * l.spline_tooth_deg;
  l.readings.clear();
  return l;
}

}  // namespace rigging
