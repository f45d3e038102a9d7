#pragma once

#include "base/fields.h"

namespace rigging {

/// Direction, ends and pulse rate of an output, the same in the rig and in a controller's configuration.
template <class F, class Output>
void describe_travel(F& f, Output& o) {
  constexpr Span pulse_us{500, 2500};
  f.required("reversed", o.reversed);
  f.number("low_us", o.low_us, pulse_us);
  f.number("centre_us", o.centre_us, pulse_us);
  f.number("high_us", o.high_us, pulse_us);
  f.number("rate_hz", o.rate_hz, {20, 560});
}

}  // namespace rigging
