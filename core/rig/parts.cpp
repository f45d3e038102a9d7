#include "rig/parts.h"

#include "base/alignment.h"
#include "base/described.h"
#include "rig/ranges.h"

namespace rigging {

Eigen::Matrix3d alignment_of(const Mounting* p) {
  return p ? alignment_matrix(p->turn, p->roll_deg, p->pitch_deg, p->yaw_deg) : Eigen::Matrix3d::Identity();
}

template <>
const Members& Described<Part>::members() {
  static const Members all = Describe<Part>()
                                 .needed("id", &Part::id)
                                 .needed("kind", &Part::kind)
                                 .member("label", &Part::label)
                                 .member("surface", &Part::surface)
                                 .member("mass_kg", &Part::mass_kg, {0, 100}, "weighed")
                                 .member("says", &Part::says)
                                 .member("baud", &Part::baud, range::baud, "baud")
                                 .member("plug", &Part::plug)
                                 .member("motor_plug", &Part::motor_plug)
                                 .rest(&Part::unknown_members);
  return all;
}

template <>
const Members& Described<Mounting>::members() {
  static const Members all = Describe<Mounting>()
                                 .needed("part", &Mounting::part)
                                 .needed("x_m", &Mounting::x_m, range::place_m, "behind the nose")
                                 .needed("y_m", &Mounting::y_m, range::place_m, "right of the middle")
                                 .needed("z_m", &Mounting::z_m, range::place_m, "below the middle")
                                 .member("turn", &Mounting::turn)
                                 .member("roll_deg", &Mounting::roll_deg, range::small_deg, "roll")
                                 .member("pitch_deg", &Mounting::pitch_deg, range::small_deg, "pitch")
                                 .member("yaw_deg", &Mounting::yaw_deg, range::small_deg, "yaw")
                                 .member("fixing", &Mounting::fixing)
                                 .rest(&Mounting::unknown_members);
  return all;
}

template <>
const Members& Described<LeadEnd>::members() {
  static const Members all = Describe<LeadEnd>()
                                 .needed("part", &LeadEnd::part)
                                 .needed("socket", &LeadEnd::socket)
                                 .rest(&LeadEnd::unknown_members);
  return all;
}

template <>
const Members& Described<Lead>::members() {
  static const Members all = Describe<Lead>()
                                 .needed("id", &Lead::id)
                                 .needed("from", &Lead::from)
                                 .needed("to", &Lead::to)
                                 .member("kind", &Lead::kind)
                                 .member("length_m", &Lead::length_m, {0.005, 20}, "length")
                                 .member("gauge_awg", &Lead::gauge_awg, {0, 40}, "gauge")
                                 .member("plus_removed", &Lead::plus_removed, {}, "red wire out")
                                 .member("plug_turned", &Lead::plug_turned, {}, "plug turned")
                                 .member("pair_turned", &Lead::pair_turned, {}, "data pair turned")
                                 .member("apart", &Lead::apart, {}, "wires run apart")
                                 .member("fixed", &Lead::fixed, {}, "kept where it is")
                                 .rest(&Lead::unknown_members);
  return all;
}

}  // namespace rigging
