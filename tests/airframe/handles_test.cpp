#include "airframe/handles.h"

#include <gtest/gtest.h>

#include "airframe/airframe.h"
#include "airframe/kinds.h"
#include "base/find.h"

namespace rigging {
namespace {

// From the second side: the outline of the changed aircraft has a corner where the hand let go.
TEST(OutlineHandles, TheCornerFollowsTheHandOnEveryKind) {
  for (const auto& [kind, name] : Names<AirframeKind>::list) {
    const Airframe airframe = fresh_rig("x", kind, "full_controller").airframe;
    const auto handles = outline_handles(airframe);
    SCOPED_TRACE(name);
    EXPECT_GE(handles.size(), 5u);
    EXPECT_TRUE(find_in(handles, [](const OutlineHandle& h) { return h.member == "span_m"; }));
    for (const OutlineHandle& h : handles) {
      SCOPED_TRACE(h.member);
      EXPECT_GE(h.at.y(), -1e-6);
      for (const OutlineHandle& other : handles)
        if (&h != &other) {
          EXPECT_GT((h.at - other.at).head<2>().norm(), 0.01) << "and " << other.member;
        }
      // Pulled by 20 mm along its own way.
      const Eigen::Vector2d by = h.moves.head<2>().normalized() * 0.02;
      double Airframe::*const of = h.member == "span_m"         ? &Airframe::span_m
                                   : h.member == "sweep_deg"    ? &Airframe::sweep_deg
                                   : h.member == "length_m"     ? &Airframe::length_m
                                   : h.member == "wing_at_m"    ? &Airframe::wing_at_m
                                   : h.member == "root_chord_m" ? &Airframe::root_chord_m
                                   : h.member == "tip_chord_m"  ? &Airframe::tip_chord_m
                                   : h.member == "tail_chord_m" ? &Airframe::tail_chord_m
                                                                : &Airframe::tail_span_m;
      Airframe changed = airframe;
      changed.*of = h.dragged(airframe.*of, by);
      double nearest = 1;
      for (const Panel& panel : aircraft_panels(changed))
        for (std::size_t i = 0; i < panel.corners.size(); ++i)
          for (const Point& p :
               {panel.corners[i], Point((panel.corners[i] + panel.corners[(i + 1) % panel.corners.size()]) / 2)})
            nearest = std::min(nearest, (p.head<2>() - h.at.head<2>() - by).norm());
      EXPECT_LT(nearest, 0.002) << "a sweep turns, which is straight to a tenth over 20 mm";
    }
  }
}

}  // namespace
}  // namespace rigging
