#include "flight/engine.h"

namespace rigging {

Engine engine_of(const Reports& reports, const Aeroplane& aeroplane) {
  const PowerReport& power = reports.power();
  Engine e;
  if (!power.drive || power.drive->thrust.value <= 0) return e;
  e.static_n = power.drive->thrust.value;
  e.free_m_s = 2 * aeroplane.cruise_m_s;
  for (const Motor& m : power.drive->motors)
    if (const PartKind* k = kind_of(reports.rig(), reports.catalogue(), m.propeller); k && k->propeller && m.rev_s > 0)
      e.free_m_s = 1.15 * k->propeller->pitch_m * 1.1 * m.rev_s;
  return e;
}

}  // namespace rigging
