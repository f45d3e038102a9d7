#include "fit/outside.h"

#include <algorithm>
#include <boost/geometry.hpp>
#include <boost/geometry/geometries/box.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/geometries/polygon.hpp>
#include <limits>

#include "airframe/airframe.h"
#include "airframe/planform.h"

namespace rigging {

double clear_of_aircraft(const std::vector<Panel>& panels, const Airframe& airframe, const PartRoom& room) {
  namespace bg = boost::geometry;
  using Flat2 = bg::model::d2::point_xy<double>;
  if (panels.empty()) return 0;
  const bg::model::box<Flat2> seen{{room.least.x(), room.least.y()}, {room.most.x(), room.most.y()}};
  const double half_body = body_of(airframe).half_height_m;
  double beside = std::numeric_limits<double>::infinity(), top = -half_body, bottom = half_body;
  for (const Panel& panel : panels) {
    bg::model::polygon<Flat2> outline;
    for (const Point& corner : panel.corners) {
      bg::append(outline, Flat2(corner.x(), corner.y()));
      top = std::min(top, corner.z()), bottom = std::max(bottom, corner.z());
    }
    bg::correct(outline);
    beside = std::min(beside, bg::distance(seen, outline));
  }
  return std::max({0.0, beside, top - room.most.z(), room.least.z() - bottom});
}

}  // namespace rigging
