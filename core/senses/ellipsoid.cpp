#include "senses/ellipsoid.h"

namespace rigging {

Nine Ellipsoid::unusual() const {
  Nine all;
  all << offset, matrix.diagonal() - Point::Ones(), matrix(0, 1), matrix(0, 2), matrix(1, 2);
  return all;
}

void Ellipsoid::change(const Nine& step) {
  offset += step.head<3>();
  matrix.diagonal() += step.segment<3>(3);
  matrix(0, 1) = matrix(1, 0) = matrix(0, 1) + step[6];
  matrix(0, 2) = matrix(2, 0) = matrix(0, 2) + step[7];
  matrix(1, 2) = matrix(2, 1) = matrix(1, 2) + step[8];
}

Nine Ellipsoid::length_slopes(const Point& reading) const {
  const Point d = reading - offset, u = (matrix * d).normalized();
  Nine slopes;
  slopes << -(matrix * u), u.cwiseProduct(d), u.x() * d.y() + u.y() * d.x(), u.x() * d.z() + u.z() * d.x(),
      u.y() * d.z() + u.z() * d.y();
  return slopes;
}

Nine Usual::information() const {
  const auto of = [](double sigma) { return sigma > 0 ? 1 / (sigma * sigma) : 0; };
  Nine all;
  all << Point::Constant(of(offset)), Point::Constant(of(scale)), Point::Constant(of(cross));
  return all;
}

}  // namespace rigging
