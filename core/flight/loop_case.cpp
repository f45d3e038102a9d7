#include "base/fields.h"
#include "flight/loop.h"

namespace rigging {

namespace {
constexpr Span per_second{-1e5, 1e5}, seconds{0, 100}, hertz{1e-3, 1e5};
}

template <>
const Members& Described<LoopCasePlant>::members() {
  static const Members all = Describe<LoopCasePlant>()
                                 .needed("lp_per_s", &LoopCasePlant::lp_per_s, per_second)
                                 .needed("ldelta_per_s2", &LoopCasePlant::ldelta_per_s2, {-1e6, 1e6})
                                 .done();
  return all;
}

template <>
const Members& Described<LoopCaseServo>::members() {
  static const Members all = Describe<LoopCaseServo>()
                                 .member("lag_s", &LoopCaseServo::lag_s, seconds)
                                 .member("natural_hz", &LoopCaseServo::natural_hz, hertz)
                                 .member("damping", &LoopCaseServo::damping, {1e-3, 100})
                                 .done();
  return all;
}

template <>
const Members& Described<LoopCaseLaw>::members() {
  static const Members all = Describe<LoopCaseLaw>()
                                 .needed("rate_gain", &LoopCaseLaw::rate_gain, {-1e4, 1e4})
                                 .member("level_per_s", &LoopCaseLaw::level_per_s, {0, 1e4})
                                 .done();
  return all;
}

template <>
const Members& Described<LoopCase>::members() {
  static const Members all = Describe<LoopCase>()
                                 .needed("plant", &LoopCase::plant)
                                 .member("servo", &LoopCase::servo)
                                 .member("lowpass_hz", &LoopCase::lowpass_hz, hertz)
                                 .member("delay_s", &LoopCase::delay_s, seconds)
                                 .needed("law", &LoopCase::law)
                                 .done();
  return all;
}

Result<Loop> loop_from_json(const Json& json, const std::string& file) {
  const auto c = read_exactly<LoopCase>(json, file);
  if (!c) return tl::make_unexpected(c.error());
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
  return loop;
}

}  // namespace rigging
