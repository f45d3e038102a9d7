#include "flight/engine.h"

#include "power/power.h"

namespace rigging {

Engine engine_of(const Rig& rig, const Catalogue& catalogue, const Aeroplane& aeroplane) {
  const AirframeReport airframe = analyze_airframe(rig);
  const SurfacesReport surfaces = analyze_surfaces(rig);
  const std::vector<ServoLoad> loads = analyze_loads(rig, catalogue, airframe, surfaces);
  const PowerReport power = analyze_power(rig, catalogue, {}, &loads);
  Engine e;
  if (!power.drive || power.drive->thrust.value <= 0) return e;
  e.static_n = power.drive->thrust.value;
  e.free_m_s = 2 * aeroplane.cruise_m_s;
  for (const Motor& m : power.drive->motors)
    if (const PartKind* k = kind_of(rig, catalogue, m.propeller); k && k->propeller && m.rev_s > 0)
      e.free_m_s = 1.15 * k->propeller->pitch_m * 1.1 * m.rev_s;
  return e;
}

}  // namespace rigging
