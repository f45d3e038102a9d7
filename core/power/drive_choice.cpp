#include "power/drive_choice.h"

#include <algorithm>
#include <cmath>

#include "airframe/drag.h"
#include "airframe/kinds.h"
#include "base/number.h"
#include "base/units.h"
#include "earth/gravity.h"
#include "power/drive.h"

namespace rigging {
namespace {

constexpr double lead_and_controller_ohm = 0.012;  // of a short pair of battery leads and a speed controller, typical
constexpr double controller_room = 1.2;            // rating over the most it is asked for, common practice
constexpr double battery_share = 0.3;              // of the flying mass at most, common practice
constexpr double pitch_speed_room = 1.25;          // over the cruise speed, common practice
constexpr double figures_spread = 1.22;            // of the current: what may come out of the estimate
constexpr double kept_share = 0.2;

struct DriveParts {
  const PartKind *motor = nullptr, *propeller = nullptr, *battery = nullptr, *controller = nullptr;
};

double kg_of(const PartKind* k) { return k ? k->mass_kg.value_or(0) : 0; }

/// What one combination does; kinds must have their figures.
struct Pull {
  double thrust_n = 0, full_a = 0, pitch_speed_m_s = 0;  ///< of one motor
};
Pull pull_of(const DriveParts& k, int motors) {
  const BatteryFigures& b = *k.battery->battery;
  const double ohm = b.cells * b.cell_milliohm / 1000 * motors + lead_and_controller_ohm;
  const Motor half = static_point(*k.motor->motor, *k.propeller->propeller, b.cells * b.nominal_cell_v, ohm),
              full = static_point(*k.motor->motor, *k.propeller->propeller, b.cells * b.full_cell_v, ohm);
  return {half.thrust_n, full.amps, half.rev_s * k.propeller->propeller->pitch_m};
}

std::string a_text(double amps) { return number_text(amps, amps < 10 ? 1 : 0) + " A"; }

void judge_combination(DriveChoice& c, const Airframe& airframe, const DriveParts& k) {
  const BatteryFigures& b = *k.battery->battery;
  const double kg = *airframe.mass_kg;
  const Pull p = pull_of(k, c.motors);
  c.thrust_n = p.thrust_n * c.motors;
  c.thrust_to_weight = c.thrust_n / (kg * standard_gravity);
  c.full_a = p.full_a * c.motors;
  c.pitch_speed_m_s = p.pitch_speed_m_s;
  c.mass_kg = kg_of(k.battery) + c.motors * (kg_of(k.motor) + kg_of(k.propeller) + kg_of(k.controller));
  const auto speed = cruise_speed(airframe);
  if (speed) {
    const double asked =
        drag_of(airframe, speed->value).at(speed->value, kg, drag_of(airframe, speed->value).parasite_m2);
    if (const auto amps = amps_in_flight(*k.motor->motor, *k.propeller->propeller, b.cells * b.nominal_cell_v,
                                         asked / c.motors, speed->value))
      c.cruise_a = *amps * c.motors;
    if (c.cruise_a > 0) c.minutes = 60 * (1 - kept_share) * b.capacity_ah / c.cruise_a;
  }
  const auto wrong = [&](std::string words) { c.wrong.push_back(std::move(words)); };
  if (p.full_a > k.motor->motor->amps)
    wrong("the motor bears " + a_text(k.motor->motor->amps) + " and would draw " + a_text(p.full_a));
  if (c.full_a > b.amps) wrong("the battery gives " + a_text(b.amps) + " and would be asked for " + a_text(c.full_a));
  if (k.controller && k.controller->drive) {
    const DriveFigures& d = *k.controller->drive;
    if (p.full_a > d.amps)
      wrong("the speed controller bears " + a_text(d.amps) + " and would pass " + a_text(p.full_a));
    if (b.cells < d.least_cells || b.cells > d.most_cells)
      wrong("the speed controller is made for " + std::to_string(d.least_cells) + " to " +
            std::to_string(d.most_cells) + " cells, the battery has " + std::to_string(b.cells));
  }
  if (speed && c.cruise_a <= 0)
    wrong("it does not push hard enough at cruise speed");
  else if (speed && c.pitch_speed_m_s < speed->value)
    wrong("the propeller pushes no more at " + speed_text(c.pitch_speed_m_s) + ", and it cruises at " +
          speed_text(speed->value));
  if (kg_of(k.battery) > 0.5 * kg) wrong("the battery alone is over half of the flying mass");
  c.words = number_text(c.thrust_n, 1) + " N, " + number_text(c.thrust_to_weight, 2) + " of the weight; " +
            a_text(c.full_a) + " at most";
  if (c.minutes > 0) c.words += "; about " + number_text(c.minutes, 0) + " min at cruise";
}

std::vector<const PartKind*> drive_kinds_of(const Catalogue& catalogue, PartGroup group, const std::string& chosen) {
  std::vector<const PartKind*> all;
  for (const PartKind& k : catalogue.parts)
    if (k.group == group && (chosen.empty() || k.id == chosen)) all.push_back(&k);
  return all;
}

/// The least that bears it, with room; one that feeds servos before one that does not. Null when none does.
const PartKind* controller_for(const std::vector<const PartKind*>& all, double amps, int cells) {
  const PartKind* best = nullptr;
  const auto worse = [](const PartKind* k) {
    const bool linear =
        std::any_of(k->feeds.begin(), k->feeds.end(), [](const Feed& f) { return f.kind == FeedKind::linear; });
    return (k->feeds.empty() ? 2 : linear ? 1 : 0) * 1000 + k->drive->amps;
  };
  for (const PartKind* k : all)
    if (k->drive && k->drive->amps >= controller_room * amps && cells >= k->drive->least_cells &&
        cells <= k->drive->most_cells && (!best || worse(k) < worse(best)))
      best = k;
  return best;
}

}  // namespace

double usual_thrust_to_weight(AirframeKind kind) {
  using A = AirframeKind;
  switch (kind) {
    case A::motor_glider:
    case A::towed_glider: return 0.45;
    case A::flying_wing:
    case A::flying_wing_rudders:
    case A::canard_delta:
    case A::tailerons:
    case A::tailerons_canards: return 0.9;
    default: return 0.7;
  }
}

const PartKind* other_handed(const Catalogue& catalogue, const PartKind& propeller) {
  for (const PartKind& k : catalogue.parts)
    if (propeller.propeller && k.propeller && k.propeller->left_handed != propeller.propeller->left_handed &&
        k.propeller->diameter_m == propeller.propeller->diameter_m &&
        k.propeller->pitch_m == propeller.propeller->pitch_m && k.propeller->blades == propeller.propeller->blades)
      return &k;
  return nullptr;
}

DriveChoice judge_drive(const Airframe& airframe, const Catalogue& catalogue, const DriveKinds& kinds) {
  DriveChoice c;
  c.kinds = kinds;
  c.motors = has_two_motors(airframe) ? 2 : 1;
  const DriveParts k{catalogue.part(kinds.motor), catalogue.part(kinds.propeller), catalogue.part(kinds.battery),
                     catalogue.part(kinds.speed_controller)};
  if (!k.motor || !k.motor->motor) c.wrong.emplace_back("no motor yet");
  if (!k.propeller || !k.propeller->propeller) c.wrong.emplace_back("no propeller yet");
  if (!k.battery || !k.battery->battery) c.wrong.emplace_back("no battery yet");
  if (!airframe.mass_kg) c.wrong.emplace_back("the flying mass is not known yet");
  if (c.wrong.empty()) judge_combination(c, airframe, k);
  return c;
}

std::vector<DriveChoice> suggest_drives(const Airframe& airframe, const Catalogue& catalogue, const DriveKinds& chosen,
                                        std::size_t most) {
  std::vector<std::pair<double, DriveChoice>> good;
  if (!airframe.mass_kg || airframe.kind == AirframeKind::towed_glider) return {};
  const int motors = has_two_motors(airframe) ? 2 : 1;
  const double kg = *airframe.mass_kg, wanted = usual_thrust_to_weight(airframe.kind);
  const auto speed = cruise_speed(airframe);
  const auto controllers = drive_kinds_of(catalogue, PartGroup::speed_controller, chosen.speed_controller);
  for (const PartKind* battery : drive_kinds_of(catalogue, PartGroup::battery, chosen.battery)) {
    if (!battery->battery || (chosen.battery.empty() && kg_of(battery) > battery_share * kg)) continue;
    for (const PartKind* motor : drive_kinds_of(catalogue, PartGroup::motor, chosen.motor))
      for (const PartKind* propeller : drive_kinds_of(catalogue, PartGroup::propeller, chosen.propeller)) {
        if (!motor->motor || !propeller->propeller) continue;
        // Left-handed ones are for the other side of a pair.
        if (propeller->propeller->left_handed && chosen.propeller.empty()) continue;
        const DriveParts k{motor, propeller, battery, nullptr};
        const Pull p = pull_of(k, motors);
        // Not pressed to the limit: the figures are good to a fifth.
        if (figures_spread * p.full_a > motor->motor->amps ||
            figures_spread * p.full_a * motors > battery->battery->amps)
          continue;
        const double ratio = p.thrust_n * motors / (kg * standard_gravity);
        if (ratio < 0.85 * wanted || (speed && p.pitch_speed_m_s < pitch_speed_room * speed->value)) continue;
        const PartKind* controller = controller_for(controllers, p.full_a, battery->battery->cells);
        if (!controller) continue;
        DriveChoice c;
        c.kinds = {motor->id, propeller->id, battery->id, controller->id};
        c.motors = motors;
        judge_combination(c, airframe, {motor, propeller, battery, controller});
        if (!c.wrong.empty()) continue;
        // Minutes count; so do a motor heavier than it must be and thrust beyond what the kind wants.
        double score = std::sqrt(c.minutes) - 8 * std::max(0.0, c.mass_kg / kg - 0.35) -
                       2 * std::max(0.0, ratio - 1.6 * wanted) - 4 * motors * kg_of(motor) / kg;
        // A propeller for much faster flight works badly when slow; a pair is best of either hand.
        if (speed) score -= 1.5 * std::max(0.0, p.pitch_speed_m_s / speed->value - 2.2);
        if (motors == 2 && !other_handed(catalogue, *propeller)) score -= 2;
        good.emplace_back(score, std::move(c));
      }
  }
  std::stable_sort(good.begin(), good.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
  // Three of one motor are no choice.
  std::vector<DriveChoice> best;
  for (auto& scored : good) {
    DriveChoice& c = scored.second;
    const bool alike = std::any_of(best.begin(), best.end(), [&](const DriveChoice& o) {
      return o.kinds.motor == c.kinds.motor && o.kinds.battery == c.kinds.battery;
    });
    if (alike) continue;
    best.push_back(std::move(c));
    if (best.size() == most) break;
  }
  return best;
}

}  // namespace rigging
