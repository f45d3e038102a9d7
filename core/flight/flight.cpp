#include "flight/flight.h"

#include <algorithm>
#include <cmath>

#include "base/angle.h"
#include "base/csv.h"
#include "base/number.h"
#include "flight/wind.h"

namespace rigging {
namespace {

constexpr int kept_usually = 10, kept_of_rehearsals = 100;  ///< ticks from one line of the flight to the next
constexpr int hand_every = 5;                               ///< and from one movement of the hands to the next
/// Hands: stick for a radian of bank or nose, no faster than a third of a second, looking ahead nearly as far.
constexpr double hand_bank = 0.6, hand_nose = 1.2, hand_lag_s = 0.35, looks_ahead_s = 0.3;
/// Against climbing and sinking: nose for a metre a second, at once and, as trimming does, for every second of it.
constexpr double nose_per_m_s = 0.03, trimmed_per_m = 0.02, most_trimmed = 0.3;
/// Throttle for a metre a second, at once and for every second of it.
constexpr double throttle_per_m_s = 0.12, throttle_per_m = 0.06;
constexpr double lowest_wind_m = 2;  ///< the wind's profile does not go below
constexpr double throw_height_m = 1.7, throw_bank_deg = 15, throw_nose_deg = 10;

/// The flight's series under the names of a log.
template <class F>
auto series_of(F& f) {
  std::vector<std::pair<std::string, decltype(&f.throttle)>> all;
  for (const auto& [what, of] :
       {std::pair{"_rate_deg_s", &f.rate_deg_s}, {"_stick", &f.stick}, {"_correction", &f.correction}})
    for (const Axis axis : all_axes)
      all.emplace_back(std::string(name_of(axis)) + what, &(*of)[static_cast<std::size_t>(index_of(axis))]);
  all.emplace_back("airspeed_m_s", &f.airspeed_m_s);
  all.emplace_back("throttle", &f.throttle);
  return all;
}
/// Behind them; attitude comes as angles.
constexpr std::array<const char*, 6> places{"north_m", "east_m", "height_m", "bank_deg", "nose_up_deg", "heading_deg"};

}  // namespace

Flight run_flight(const FlightModel& model, FlightBoard& board, const FlightPlan& plan, Progress* progress) {
  const Aeroplane& a = model.aeroplane();
  const double speed = plan.m_s > 0 ? plan.m_s : a.cruise_m_s;
  // Trimmed for its airspeed, which the throttle holds; a dive and a throw find their own.
  const bool holds_speed = !plan.thrown && plan.nose_down_deg == 0;
  const LevelFlight level = holds_speed ? model.level_at(speed) : LevelFlight{0, model.cruise_throttle()};
  Motion m = plan.thrown ? Motion::straight(plan.throw_m_s, throw_height_m, throw_bank_deg * rad, throw_nose_deg * rad)
                         : Motion::straight(speed, plan.height_m, 0, level.alpha, plan.heading_deg * rad);
  if (!plan.thrown) m.u = speed * std::cos(level.alpha), m.w = speed * std::sin(level.alpha);
  m.north = plan.north_m, m.east = plan.east_m;
  const double towards = plan.steady_from_deg * rad + pi;
  const auto steady = [&](double height) -> Air {
    if (plan.steady_wind_m_s == 0) return {};
    const double m_s = plan.steady_wind_m_s * std::pow(std::max(height, lowest_wind_m) / 10, plan.wind_exponent);
    Air air;
    air.north = m_s * std::cos(towards), air.east = m_s * std::sin(towards);
    return air;
  };
  // It flies in the air, and is carried along.
  const Air at_first = steady(m.height());
  const double ch = std::cos(m.heading()), sh = std::sin(m.heading());
  const double along = at_first.north * ch + at_first.east * sh;
  m.u += along * std::cos(level.alpha), m.w += along * std::sin(level.alpha);
  m.v += at_first.east * ch - at_first.north * sh;
  const int kept = plan.rehearses() ? kept_of_rehearsals : kept_usually;
  Turbulence gusts(plan.seed, plan.wind_m_s, m.height(), speed, a.span_m);
  const double nose_wanted = -plan.nose_down_deg * rad, kept_heading = m.heading();
  std::array<double, 3> hand{}, stick{};
  double trimmed = 0, v = speed;
  double throttle = level.throttle, held_throttle = level.throttle;
  Flight flight;
  if (holds_speed) flight.asked_m_s = speed, flight.level = level;
  flight.step_s = kept * flight_tick_s;
  flight.lowest_m = m.height();
  const auto steps = static_cast<int>(plan.seconds / flight_tick_s);
  for (int i = 0; i <= steps; ++i) {
    const double t = i * flight_tick_s;
    Air air = steady(m.height());
    if (plan.wind_m_s > 0) gusts.step(flight_tick_s, air);
    if (i % hand_every == 0) {
      v = model.incidence(m, air).airspeed;
      std::array<double, 3> wanted{};
      const double climbs = !plan.pilot || plan.nose_down_deg > 0 || plan.thrown ? 0 : m.climb_m_s();
      trimmed = std::clamp(trimmed - hand_every * flight_tick_s * trimmed_per_m * climbs, -most_trimmed, most_trimmed);
      const double nose = nose_wanted + level.alpha + trimmed - nose_per_m_s * climbs;
      if (keeps_height(plan.mode)) {
        // The board keeps the height: hands off.
      } else if (plan.mode == Mode::level) {
        wanted[1] = board.nose_limit_rad() > 0 ? std::clamp(nose / board.nose_limit_rad(), -1.0, 1.0) : 0;
      } else if (plan.pilot) {
        const double aside = std::remainder(m.heading() - kept_heading, 2 * pi);
        wanted[0] = std::clamp(-hand_bank * (m.bank() + looks_ahead_s * m.p + 0.5 * aside), -0.5, 0.5);
        wanted[1] = std::clamp(hand_nose * (nose - m.nose_up() - looks_ahead_s * m.q) + trimmed, -0.5, 0.5);
      }
      for (std::size_t k = 0; k < 3; ++k) hand[k] += hand_every * flight_tick_s / hand_lag_s * (wanted[k] - hand[k]);
      stick = hand;
      for (const StickMove& s : plan.sticks)
        if (t >= s.from_s && t < s.to_s) stick[static_cast<std::size_t>(index_of(s.axis))] = s.at;
      for (double& s : stick) s = std::clamp(s, -1.0, 1.0);
      if (holds_speed && plan.pilot) {
        const double more = hand_every * flight_tick_s * throttle_per_m * (speed - v);
        if (const double next = held_throttle + more; next > 0 && next < 1) held_throttle = next;
      }
      throttle = plan.thrown ? 1 : std::clamp(held_throttle + throttle_per_m_s * (speed - v), 0.0, 1.0);
    }
    const FlightBoard::Response answer =
        board.step({m, v, stick, throttle, !plan.rehearses() || t < *plan.link_lost_s});
    const bool empty = plan.left_mah > 0 && flight.used_mah >= plan.left_mah;
    if (!empty) flight.used_mah += answer.amps * flight_tick_s / 3.6;
    if (i % kept == 0) {
      flight.motion.push_back(m);
      flight.airspeed_m_s.push_back(v);
      flight.throttle.push_back(answer.throttle);
      const std::array<double, 3> rates{m.p, m.q, m.r};
      for (std::size_t k = 0; k < 3; ++k) {
        flight.rate_deg_s[k].push_back(rates[k] / rad);
        flight.stick[k].push_back(stick[k]);
        flight.correction[k].push_back(board.correction()[k]);
      }
      flight.lowest_m = std::min(flight.lowest_m, m.height());
      if (progress) {
        progress->at(t / plan.seconds);
        if (progress->cancelled()) return flight;
      }
      if (m.height() <= 0) {
        flight.end = "It reached the ground after " + number_text(t, 1) + " s.";
        break;
      }
      if (board.over()) break;
    }
    Deflection surfaces = answer.surfaces;
    surfaces.pitch += level.pitch;
    model.step(m, surfaces, empty ? 0 : answer.throttle, air, flight_tick_s);
  }
  return flight;
}

std::vector<double> Flight::heights() const {
  std::vector<double> all;
  for (const Motion& m : motion) all.push_back(m.height());
  return all;
}

std::string Flight::csv() const {
  std::string text = "t_s";
  const auto series = series_of(*this);
  for (const auto& [series_name, values] : series) text += ',' + series_name;
  for (const char* p : places) text += std::string(",") + p;
  text += '\n';
  for (std::size_t i = 0; i < size(); ++i) {
    text += number_text(static_cast<double>(i) * step_s, 3);
    const auto add = [&](double v) { text += ',' + number_text(v, 4); };
    for (const auto& [series_name, values] : series) add((*values)[i]);
    const Motion& m = motion[i];
    for (const double v : {m.north, m.east, m.height(), m.bank() / rad, m.nose_up() / rad, m.heading() / rad}) add(v);
    text += '\n';
  }
  return text;
}

Result<Flight> flight_from_csv(std::string_view text, const std::string& name) {
  const auto table = parse_number_table(text, name);
  if (!table) return tl::make_unexpected(table.error());
  const auto column = [&](const std::string& wanted) -> Result<std::size_t> {
    const int at = table->column(wanted);
    if (at < 0) return failure(name, "column \"" + wanted + "\" is missing", "a flight as Rigging writes it");
    return static_cast<std::size_t>(at);
  };
  Flight flight;
  if (const int t = table->column("t_s"); t >= 0 && table->rows.size() > 1) {
    const double step = table->rows[1][static_cast<std::size_t>(t)] - table->rows[0][static_cast<std::size_t>(t)];
    if (step > 0) flight.step_s = step;
  }
  for (const auto& [wanted, values] : series_of(flight)) {
    const auto at = column(wanted);
    if (!at) return tl::make_unexpected(at.error());
    for (const auto& row : table->rows) values->push_back(row[*at]);
  }
  std::array<std::size_t, places.size()> where{};
  for (std::size_t i = 0; i < places.size(); ++i) {
    const auto at = column(places[i]);
    if (!at) return tl::make_unexpected(at.error());
    where[i] = *at;
  }
  for (const auto& row : table->rows) {
    const std::size_t i = flight.motion.size();
    Motion m = Motion::straight(flight.airspeed_m_s[i], row[where[2]], row[where[3]] * rad, row[where[4]] * rad,
                                row[where[5]] * rad);
    m.north = row[where[0]], m.east = row[where[1]];
    m.p = flight.rate_deg_s[0][i] * rad, m.q = flight.rate_deg_s[1][i] * rad, m.r = flight.rate_deg_s[2][i] * rad;
    flight.lowest_m = i == 0 ? m.height() : std::min(flight.lowest_m, m.height());
    flight.motion.push_back(m);
  }
  return flight;
}

}  // namespace rigging
