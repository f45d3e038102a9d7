#pragma once

#include <gtest/gtest.h>

#include "airframe/kinds.h"
#include "base/json.h"
#include "catalogue/catalogue.h"
#include "checks/checks.h"
#include "direction/direction_checks.h"
#include "direction/mode_checks.h"
#include "feel/feel_checks.h"
#include "home/home_checks.h"
#include "places.h"
#include "proof/hand_steps.h"
#include "review/deferred.h"
#include "rig/rig_file.h"
#include "senses/sense_checks.h"
#include "sticks/stick_checks.h"
#include "surfaces/linkage.h"
#include "surfaces/surface_checks.h"
#include "wiring/lead_checks.h"

namespace rigging {

inline const Catalogue& shipped() {
  static const Catalogue c = *load_catalogue(in_source("/data/catalogue"));
  return c;
}

inline Rig demo(const std::string& name) {
  return *load_rig(std::filesystem::path(in_source("/data/demo")) / (name + ".rig.json"));
}

inline Rig fresh_at_1200_g(const char* controller, AirframeKind kind = AirframeKind::two_ailerons) {
  Rig rig = fresh_rig("A", kind, controller);
  rig.airframe.mass_kg = 1.2;
  return rig;
}

/// The rig after a fix; one that refuses is a fault of the rule that offered it.
inline Rig fixed_by(const Fix& fix, const Rig& rig, const Catalogue& catalogue = shipped()) {
  const auto edit = fix.edit(rig, catalogue);
  EXPECT_TRUE(edit) << fix.label << ": " << (edit ? "" : edit.error().text());
  return edit ? edit->rig : rig;
}

/// What the rules of a station's second tier find.
inline std::vector<Snag> deferred_snags(const Rig& rig, Station station, const Catalogue& catalogue = shipped()) {
  Progress progress;
  auto made = deferred_review({rig, catalogue}, progress);
  std::vector<Snag> snags = made ? std::move(made->snags) : std::vector<Snag>();
  std::erase_if(snags, [&](const Snag& s) { return s.station != station; });
  return snags;
}

inline Part& add_part(Rig& rig, const std::string& id, const std::string& kind,
                      std::optional<Surface> surface = std::nullopt) {
  Part p;
  p.id = id;
  p.kind = kind;
  if (surface) p.surface = SurfaceName(*surface);
  rig.parts.push_back(p);
  return rig.parts.back();
}

inline Lead& add_lead(Rig& rig, const std::string& id, const std::string& from, const std::string& from_socket,
                      const std::string& to, const std::string& to_socket, LeadKind kind = LeadKind::servo) {
  Lead l;
  l.id = id;
  l.from = {from, from_socket, {}};
  l.to = {to, to_socket, {}};
  l.kind = kind;
  rig.leads.push_back(l);
  return rig.leads.back();
}

inline void put(Rig& rig, const std::string& part, double behind_m, double right_m = 0, double down_m = 0) {
  if (Mounting* p = rig.mounting(part)) {
    p->x_m = -behind_m;
    p->y_m = right_m;
    p->z_m = down_m;
    return;
  }
  Mounting p;
  p.part = part;
  p.x_m = -behind_m;
  p.y_m = right_m;
  p.z_m = down_m;
  rig.mountings.push_back(p);
}

/// A surface read at its output's centre and ends.
inline void read_surface(Rig& rig, const char* surface, double low_deg, double centre_deg, double high_deg) {
  Linkage* l = rig.linkage(*surface_from_name(surface));
  ASSERT_TRUE(l) << surface;
  const Output& o = *rig.output_of(l->surface);
  l->readings = {{o.low_us, low_deg, {}}, {o.centre_us, centre_deg, {}}, {o.high_us, high_deg, {}}};
}

inline void read_sticks(Rig& rig, double low_us = 1000, double centre_us = 1500, double high_us = 2000) {
  for (const auto f : {ChannelFunction::roll, ChannelFunction::pitch, ChannelFunction::throttle, ChannelFunction::yaw})
    if (Channel* c = rig.channel(f)) {
      c->low_us = low_us;
      c->centre_us = centre_us;
      c->high_us = high_us;
    }
}

/// What drives a model: battery, speed controller, motor.
inline void add_drive(Rig& rig, const char* battery = "battery_3s_2200", const char* esc = "esc_30_switching") {
  add_part(rig, "battery", battery);
  add_part(rig, "esc", esc);
  add_part(rig, "motor", "motor_2212");
}

/// Recorded, or as it was when it can't be.
inline Rig proven(Rig rig, const CheckId& id, const std::string& at = "2026-11-02T10:00:00Z", bool simulated = false) {
  auto with = with_proof(rig, shipped(), id, at, simulated);
  return with ? *with : rig;
}

/// Every check recorded that these families have on this rig.
inline Rig all_proven(Rig rig, const std::vector<std::string>& families, bool simulated = false) {
  for (const CheckStatus& c : check_statuses(rig, shipped()))
    if (std::find(families.begin(), families.end(), c.id.family) != families.end())
      rig = proven(std::move(rig), c.id, "2026-11-01T10:00:00Z", simulated);
  return rig;
}
inline Rig directions_proven(Rig rig, bool simulated = false) {
  return all_proven(std::move(rig), {stick_family, correction_family, mode_family, gain_ends.family, put_back_family},
                    simulated);
}

inline CheckStatus status_of(const Rig& rig, const CheckId& id) {
  const auto all = check_statuses(rig, shipped());
  const CheckStatus* found = find_check(all, id);
  if (!found) ADD_FAILURE() << "no check " << id.text();
  return found ? *found : CheckStatus{};
}

/// Sticks that land, surfaces that are flush and alike, a loss that was noticed, leads followed, senses calibrated,
/// first gains set: all of it recorded.
inline Rig measured(Rig rig) {
  read_sticks(rig);
  for (const Linkage& l : std::vector<Linkage>(rig.linkages)) {
    const bool lifts = rising_lifts(*rig.output_of(l.surface), l.surface) > 0;
    read_surface(rig, l.surface.name().c_str(), lifts ? -20 : 20, 0.2, lifts ? 20 : -20);
  }
  SensorCorrection a_little;
  a_little.offset_x = 0.1;
  rig.sensing.accelerometer = rig.sensing.compass = a_little;
  rig.sensing.level_nose_up_deg = 3;
  for (const Axis axis : all_axes) rig.feel.made_gain(axis).rate = 0.1;
  return all_proven(std::move(rig), {sticks_calibrated.family,
                                     loss_noticed.family,
                                     surfaces_centred.family,
                                     throws_equal.family,
                                     lead_family,
                                     rotation_known.family,
                                     accelerometer_calibrated.family,
                                     compass_calibrated.family,
                                     gyro_still.family,
                                     level_told.family,
                                     fix_seen.family,
                                     wakes_still.family,
                                     level_stored.family,
                                     first_gains_set.family,
                                     positions_planned.family,
                                     loss_planned.family,
                                     arming_waits.family,
                                     button_guards.family,
                                     low_battery_warns.family,
                                     range_tested.family});
}

}  // namespace rigging
