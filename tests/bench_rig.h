#pragma once

#include <gtest/gtest.h>

#include "base/json.h"
#include "catalogue/catalogue.h"
#include "proof/measured_checks.h"
#include "rig/rig_file.h"
#include "surfaces/linkage.h"

namespace rigging {

inline const Catalogue& shipped() {
  static const Catalogue c = *load_catalogue(std::filesystem::path(RIGGING_SOURCE_DIR) / "data/catalogue");
  return c;
}

inline Rig demo(const std::string& name) {
  return *load_rig(std::filesystem::path(RIGGING_SOURCE_DIR) / "data/demo" / (name + ".rig.json"));
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
  if (Place* p = rig.place(part)) {
    p->x_m = -behind_m;
    p->y_m = right_m;
    p->z_m = down_m;
    return;
  }
  Place p;
  p.part = part;
  p.x_m = -behind_m;
  p.y_m = right_m;
  p.z_m = down_m;
  rig.places.push_back(p);
}

/// A surface read at its output's centre and ends.
inline void read_surface(Rig& rig, const char* surface, double low_deg, double centre_deg, double high_deg) {
  Linkage* l = rig.linkage(*surface_from_word(surface));
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

/// Sticks that land, surfaces that are flush and alike, a loss that was noticed: all of it recorded.
inline Rig measured(Rig rig) {
  read_sticks(rig);
  for (const Linkage& l : std::vector<Linkage>(rig.linkages)) {
    const bool lifts = rising_lifts(*rig.output_of(l.surface), l.surface) > 0;
    read_surface(rig, l.surface.word().c_str(), lifts ? -20 : 20, 0.2, lifts ? 20 : -20);
  }
  for (const auto check : {MeasuredCheck::sticks_calibrated, MeasuredCheck::loss_noticed,
                           MeasuredCheck::surfaces_centred, MeasuredCheck::throws_equal})
    rig = measured_proven(std::move(rig), shipped(), check, "2026-11-02T10:00:00Z", false);
  return rig;
}

}  // namespace rigging
