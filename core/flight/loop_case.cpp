#include <cmath>

#include "base/fields.h"
#include "flight/loop.h"

namespace rigging {

namespace {
// Far beyond what flies, and no further: a loop of seconds of delay and thousands of swings a second has no end of
// crossings.
constexpr Span per_second{-1e3, 1e3}, hertz{0.05, 2e3};
constexpr double least_told = 1e-6, least_lag_s = 1e-4;  ///< what is not nothing
}  // namespace

template <>
const Members& Described<LoopCasePlant>::members() {
  static const Members all = Describe<LoopCasePlant>()
                                 .needed("lp_per_s", &LoopCasePlant::lp_per_s, per_second)
                                 .needed("ldelta_per_s2", &LoopCasePlant::ldelta_per_s2, {-1e5, 1e5})
                                 .done();
  return all;
}

template <>
const Members& Described<LoopCaseServo>::members() {
  static const Members all = Describe<LoopCaseServo>()
                                 .member("lag_s", &LoopCaseServo::lag_s, {0, 10})
                                 .member("natural_hz", &LoopCaseServo::natural_hz, hertz)
                                 .member("damping", &LoopCaseServo::damping, {0.01, 10})
                                 .done();
  return all;
}

template <>
const Members& Described<LoopCaseLaw>::members() {
  static const Members all = Describe<LoopCaseLaw>()
                                 .needed("rate_gain", &LoopCaseLaw::rate_gain, {-1e3, 1e3})
                                 .member("level_per_s", &LoopCaseLaw::level_per_s, {0, 1e3})
                                 .member("stick_rad", &LoopCaseLaw::stick_rad, {-3, 3})
                                 .done();
  return all;
}

template <>
const Members& Described<LoopCase>::members() {
  static const Members all = Describe<LoopCase>()
                                 .needed("plant", &LoopCase::plant)
                                 .member("servo", &LoopCase::servo)
                                 .member("lowpass_hz", &LoopCase::lowpass_hz, hertz)
                                 .member("delay_s", &LoopCase::delay_s, {0, 2})
                                 .needed("law", &LoopCase::law)
                                 .done();
  return all;
}

Result<Loop> loop_from_json(const Json& json, const std::string& file) {
  const auto c = read_exactly<LoopCase>(json, file);
  if (!c) return tl::make_unexpected(c.error());
  const std::pair<const char*, double> told[] = {{"/plant/lp_per_s", c->plant.lp_per_s},
                                                 {"/plant/ldelta_per_s2", c->plant.ldelta_per_s2},
                                                 {"/servo/lag_s", c->servo ? c->servo->lag_s.value_or(0) : 0},
                                                 {"/delay_s", c->delay_s},
                                                 {"/law/rate_gain", c->law.rate_gain},
                                                 {"/law/level_per_s", c->law.level_per_s}};
  for (const auto& [place, value] : told)
    if (value != 0 && std::abs(value) < least_told)
      return failure(file + ": " + place, "is too small to tell anything", "0, or a millionth and more");
  if (c->servo && c->servo->lag_s && *c->servo->lag_s > 0 && *c->servo->lag_s < least_lag_s)
    return failure(file + ": /servo/lag_s", "is too short for a servo", "0, or a tenth of a millisecond and more");
  Loop loop;
  loop.plant = RatePlant::roll(c->plant.lp_per_s, c->plant.ldelta_per_s2);
  if (const auto& s = c->servo) {
    const bool lag = s->lag_s.has_value(), second = s->natural_hz || s->damping;
    if (lag == second || (second && !(s->natural_hz && s->damping)))
      return failure(file + ": /servo", lag ? "is told in two ways" : "is not told whole",
                     "lag_s, or natural_hz and damping");
    if (lag)
      loop.servo_lag(*s->lag_s);
    else
      loop.servo(*s->natural_hz, *s->damping);
  }
  if (c->lowpass_hz) loop.lowpass(*c->lowpass_hz);
  loop.delay_s = c->delay_s;
  loop.rate_gain = c->law.rate_gain;
  loop.level_per_s = c->law.level_per_s;
  loop.stick_rad = c->law.stick_rad.value_or(0);
  return loop;
}

}  // namespace rigging
