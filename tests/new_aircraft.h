#pragma once

#include "begin/begin.h"
#include "bench_rig.h"

namespace rigging {

/// One of each kind and class as somebody begins it who has told little: a receiver that the class hears, small servos.
inline NewAircraft new_aircraft(const std::string& controller, AirframeKind kind = AirframeKind::two_ailerons) {
  NewAircraft a;
  a.name = "Random";
  a.kind = kind;
  a.controller = controller;
  a.span_m = 1.3, a.mass_kg = 1.25;
  a.receiver = usual_receiver(shipped(), controller);
  a.servo = "servo_9g_analogue";
  return a;
}

}  // namespace rigging
