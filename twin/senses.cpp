#include "senses.h"

#include <Eigen/Geometry>

#include "base/alignment.h"
#include "base/angle.h"
#include "earth/gravity.h"
#include "fit/fit.h"
#include "link/messages.h"

namespace rigging::twin {
namespace {

constexpr double period_s = 0.01;
/// North, east and down of a place in the middle latitudes, µT.
const Point earth_ut{20, 0, 43};
constexpr double shaking = 0.4;  ///< of a hand that turns the model at 100° a second, m/s²

}  // namespace

SensesTruth senses_of(const Rig& rig, const Catalogue& catalogue) {
  SensesTruth truth;
  if (const Place* p = rig.place("controller"))
    truth.board = alignment_matrix(p->turn, p->roll_deg, p->pitch_deg, p->yaw_deg);
  truth.compass = truth.board;
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  truth.has_compass = c && c->senses.has_compass;
  for (const Part& p : rig.parts)
    if (const PartKind* k = catalogue.part(p.kind); k && k->magnetic_sensor) {
      truth.has_compass = true;
      if (const Place* at = rig.place(p.id))
        truth.compass = alignment_matrix(at->turn, at->roll_deg, at->pitch_deg, at->yaw_deg);
    }
  return truth;
}

void make_poor(SensesTruth& truth, unsigned seed) {
  std::mt19937 random(seed * 2654435761u + 77u);
  std::normal_distribution<double> normal(0, 1);
  const auto vector = [&](double sigma) -> Point {
    return Point(normal(random), normal(random), normal(random)) * sigma;
  };
  truth.force_offset = vector(0.25);
  truth.rate_offset = vector(0.5);
  truth.field_offset = vector(18);
  for (int i = 0; i < 3; ++i)
    for (int k = 0; k <= i; ++k) {
      truth.force(i, k) = truth.force(k, i) = (i == k ? 1 : 0) + normal(random) * (i == k ? 0.015 : 0.004);
      truth.iron(i, k) = truth.iron(k, i) = (i == k ? 1 : 0) + normal(random) * 0.04;
    }
}

Point Senses::noise(double sigma) {
  std::normal_distribution<double> normal(0, sigma);
  return {normal(random_), normal(random_), normal(random_)};
}

void Senses::step(double dt, const Eigen::Matrix3d& attitude, bool awake) {
  now_s_ += dt;
  since_s_ += dt;
  if (now_s_ < next_s_) return;
  next_s_ = now_s_ + period_s - 1e-9;
  const Eigen::AngleAxisd turned(before_.transpose() * attitude);
  const Point rate = turned.axis() * (turned.angle() / std::max(since_s_, 1e-6) / rad);
  before_ = attitude;
  since_s_ = 0;
  if (!awake) {
    samples_.clear();
    return;
  }
  MotionSample s;
  s.t_s = now_s_;
  const Point force = attitude.transpose() * Point(0, 0, -standard_gravity) + noise(shaking * rate.norm() / 100);
  s.force_m_s2 = truth_.force * (truth_.board.transpose() * force) + truth_.force_offset + noise(truth_.force_noise);
  s.rate_deg_s = truth_.board.transpose() * rate + truth_.rate_offset + noise(truth_.rate_noise);
  if (truth_.has_compass)
    s.field_ut = truth_.iron * (truth_.compass.transpose() * (attitude.transpose() * earth_ut)) + truth_.field_offset +
                 noise(truth_.field_noise);
  samples_.push_back(s);
  if (samples_.size() > link::most_motion_samples) samples_.erase(samples_.begin());
}

}  // namespace rigging::twin
