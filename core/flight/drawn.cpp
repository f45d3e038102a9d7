#include "flight/drawn.h"

#include <random>

namespace rigging {

Aeroplane drawn_from(Aeroplane a, std::uint32_t seed) {
  std::mt19937 random(seed * 2654435761u + 7);
  const auto between = [&random](double least, double most) {
    std::uniform_real_distribution<double> even(0, 1);
    return least + (most - least) * (even(random) + even(random)) / 2;
  };
  Stability& s = a.stability;
  for (Banded* b : {&s.lift_alpha, &s.pitch_alpha, &s.pitch_q, &s.roll_beta, &s.roll_p, &s.yaw_beta, &s.yaw_r,
                    &a.inertia.roll, &a.inertia.pitch, &a.inertia.yaw})
    b->value = between(b->least, b->most);
  // What makes one surface stronger than expected does so for all: they are alike.
  const double strength = between(0, 1);
  for (ControlEffect& c : a.controls)
    for (double* e : {&c.lift, &c.side, &c.roll, &c.pitch, &c.yaw}) *e *= c.least + (c.most - c.least) * strength;
  return a;
}

}  // namespace rigging
