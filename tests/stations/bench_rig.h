#pragma once

#include "catalogue/catalogue.h"
#include "rig/rig_file.h"

namespace rigging {

inline const Catalogue& shipped() {
  static const Catalogue c = *load_catalogue(std::filesystem::path(RIGGING_SOURCE_DIR) / "data/catalogue");
  return c;
}

inline Rig demo(const std::string& name) { return *load_rig(std::filesystem::path(RIGGING_SOURCE_DIR) / "data/demo" / (name + ".rig.json")); }

inline Part& add_part(Rig& rig, const std::string& id, const std::string& kind, std::optional<Surface> surface = std::nullopt) {
  Part p;
  p.id = id;
  p.kind = kind;
  if (surface) p.surface = SurfaceName(*surface);
  rig.parts.push_back(p);
  return rig.parts.back();
}

inline Lead& add_lead(Rig& rig, const std::string& id, const std::string& from, const std::string& from_socket, const std::string& to, const std::string& to_socket, LeadKind kind = LeadKind::servo) {
  Lead l;
  l.id = id;
  l.from = {from, from_socket, Json::object()};
  l.to = {to, to_socket, Json::object()};
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

}  // namespace rigging
