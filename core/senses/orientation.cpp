#include "senses/orientation.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <map>

#include "base/alignment.h"
#include "base/angle.h"
#include "base/clean_text.h"
#include "base/csv.h"
#include "base/number.h"

namespace rigging {
namespace {

constexpr double hands_deg = 12;                         ///< how well a pose is held
constexpr double flattest_deg = 25, steepest_deg = 100;  ///< a tilt is somewhere between
constexpr double about_as_well = 8;                      ///< of squared misfit, in units of `hands_deg`
constexpr double contradicts_deg = 40;

/// Where the force on the model points when it is tilted all the way over, model axes; zero for the two flat poses.
Point toward(Pose pose) {
  switch (pose) {
    case Pose::nose_up: return {1, 0, 0};
    case Pose::nose_down: return {-1, 0, 0};
    case Pose::right_down: return {0, -1, 0};
    case Pose::left_down: return {0, 1, 0};
    case Pose::level:
    case Pose::upside_down: break;
  }
  return {0, 0, 0};
}

bool tilted(Pose pose) { return pose != Pose::level && pose != Pose::upside_down; }

Point flat(Pose pose) { return {0, 0, pose == Pose::upside_down ? 1.0 : -1.0}; }

Point held(Pose pose, double tilt_deg) {
  if (!tilted(pose)) return flat(pose);
  return toward(pose) * std::sin(tilt_deg * rad) + flat(pose) * std::cos(tilt_deg * rad);
}

double between_deg(const Point& a, const Point& b) { return std::atan2(a.cross(b).norm(), a.dot(b)) / rad; }

/// How far the direction (model axes, unit) is from the nearest way in which this pose can be held.
double misfit_deg(Pose pose, const Point& direction) {
  if (!tilted(pose)) return between_deg(direction, flat(pose));
  const double tilt = std::atan2(direction.dot(toward(pose)), -direction.z()) / rad;
  if (tilt >= flattest_deg && tilt <= steepest_deg) return between_deg(direction, held(pose, tilt));
  return std::min(between_deg(direction, held(pose, flattest_deg)), between_deg(direction, held(pose, steepest_deg)));
}

struct Match {
  Turn turn;
  double squares = 0, worst_deg = 0;
  Pose worst = Pose::level;
};

std::vector<Match> ranked(const std::vector<HeldPose>& poses) {
  std::vector<Match> all;
  for (const Turn& turn : all_turns()) {
    Match fit{turn};
    const Eigen::Matrix3d m = alignment_matrix(turn);
    for (const HeldPose& p : poses) {
      const double off = misfit_deg(p.pose, m * p.force.normalized());
      fit.squares += off * off / (hands_deg * hands_deg);
      if (off > fit.worst_deg) {
        fit.worst_deg = off;
        fit.worst = p.pose;
      }
    }
    all.push_back(fit);
  }
  std::stable_sort(all.begin(), all.end(), [](const Match& a, const Match& b) { return a.squares < b.squares; });
  return all;
}

/// The small rotation that is left: least squares on what each pose says exactly of a direction. A flat pose says both
/// of its slopes, a tilt only that it leans to no other side; tilts are held half as well.
void small_angles(const std::vector<HeldPose>& poses, Orientation& result) {
  const Eigen::Matrix3d square = alignment_matrix(*result.turn);
  Point angles = {0, 0, 0};
  Eigen::Matrix3d normal;
  for (int round = 0; round < 8; ++round) {
    normal.setZero();
    Point right_side = {0, 0, 0};
    const Eigen::Matrix3d now = alignment_matrix(Turn{}, angles.x() / rad, angles.y() / rad, angles.z() / rad);
    const auto add = [&](const Point& along, const Point& direction, double weight) {
      // A small rotation w changes the direction by w × direction.
      const Point slope = direction.cross(along);
      normal += weight * slope * slope.transpose();
      right_side -= weight * along.dot(direction) * slope;
    };
    for (const HeldPose& p : poses) {
      const Point direction = now * (square * p.force.normalized());
      if (tilted(p.pose)) {
        add(toward(p.pose).cross(Point::UnitZ()), direction, 0.25);
      } else {
        add(Point::UnitX(), direction, 1);
        add(Point::UnitY(), direction, 1);
      }
    }
    const Eigen::SelfAdjointEigenSolver<Eigen::Matrix3d> solver(normal);
    Point step = {0, 0, 0};
    for (int i = 0; i < 3; ++i)
      if (solver.eigenvalues()[i] > 0.01)
        step += solver.eigenvectors().col(i) * solver.eigenvectors().col(i).dot(right_side) / solver.eigenvalues()[i];
    const Eigen::Matrix3d next = (step.norm() > 0 ? Eigen::AngleAxisd(step.norm(), step.normalized()).toRotationMatrix()
                                                  : Eigen::Matrix3d::Identity()) *
                                 now;
    angles = {std::atan2(next(2, 1), next(2, 2)), -std::asin(std::clamp(next(2, 0), -1.0, 1.0)),
              std::atan2(next(1, 0), next(0, 0))};
    if (step.norm() < 1e-10) break;
  }
  // An angle is told when no direction that nothing tells has a share in it.
  const Eigen::SelfAdjointEigenSolver<Eigen::Matrix3d> solver(normal);
  std::optional<double>* const out[] = {&result.roll_deg, &result.pitch_deg, &result.yaw_deg};
  for (int axis = 0; axis < 3; ++axis) {
    double untold = 0;
    for (int i = 0; i < 3; ++i)
      if (solver.eigenvalues()[i] <= 0.01) untold += std::pow(solver.eigenvectors()(axis, i), 2);
    if (untold < 0.05) *out[axis] = angles[axis] / rad;
  }
}

/// The pose that leaves the smallest largest group of candidates that read alike in it.
std::optional<Pose> telling_pose(const std::vector<Turn>& candidates, const std::vector<HeldPose>& poses) {
  std::optional<Pose> best;
  std::size_t least = candidates.size();
  for (const auto& known : Names<Pose>::list) {
    const Pose pose = known.first;
    if (std::any_of(poses.begin(), poses.end(), [pose](const HeldPose& h) { return h.pose == pose; })) continue;
    std::size_t largest = 0;
    for (const Turn& a : candidates)
      largest = std::max(
          largest, static_cast<std::size_t>(std::count_if(candidates.begin(), candidates.end(), [&](const Turn& b) {
            return between_deg(reading_in(pose, a), reading_in(pose, b)) < 45;
          })));
    if (largest < least) {
      least = largest;
      best = pose;
    }
  }
  return best;
}

std::string pose_words(const std::vector<HeldPose>& poses) {
  std::vector<std::string> names;
  for (const HeldPose& p : poses) {
    const std::string name = label_of(name_of(p.pose));
    if (std::find(names.begin(), names.end(), name) == names.end()) names.push_back(name);
  }
  std::string text;
  for (std::size_t i = 0; i < names.size(); ++i)
    text += (i == 0 ? "" : i + 1 == names.size() ? " and " : ", ") + names[i];
  return text;
}

}  // namespace

Point reading_in(Pose pose, const Turn& turn) { return alignment_matrix(turn).transpose() * held(pose, 60); }

Orientation orientation_from(const std::vector<HeldPose>& poses) {
  Orientation result;
  std::vector<HeldPose> usable;
  for (const HeldPose& p : poses)
    if (p.force.norm() > 1e-9 && p.force.allFinite()) usable.push_back(p);
  if (usable.empty()) {
    result.why = "No pose was read.";
    result.would_tell = Pose::level;
    return result;
  }
  const std::vector<Match> fits = ranked(usable);
  result.misfit_deg = fits.front().worst_deg;
  if (result.misfit_deg > contradicts_deg) {
    result.why = "No way of sitting explains all of these: " + std::string(label_of(name_of(fits.front().worst))) +
                 " is off by " + number_text(result.misfit_deg, 0) +
                 "° even in the best. Was it held as it is called? Tilts are 30 to 90°, one at a time.";
    return result;
  }
  for (const Match& f : fits)
    if (f.squares - fits.front().squares < about_as_well) result.candidates.push_back(f.turn);
  if (result.candidates.size() > 1) {
    result.would_tell = telling_pose(result.candidates, usable);
    result.why = number_text(static_cast<double>(result.candidates.size()), 0) +
                 " ways of sitting fit about as well with " + pose_words(usable) + " alone" +
                 (result.would_tell ? ": hold it " + std::string(label_of(name_of(*result.would_tell))) + " as well."
                                    : ": hold these poses again, more clearly.");
    return result;
  }
  result.turn = fits.front().turn;
  small_angles(usable, result);
  const auto second = std::min_element(fits.begin() + 1, fits.end(),
                                       [](const Match& a, const Match& b) { return a.worst_deg < b.worst_deg; });
  result.why = capital(pose_words(usable)) + ": " + result.turn->label() + ", within " +
               number_text(result.misfit_deg, 0) + "°; every other way is off by " + number_text(second->worst_deg, 0) +
               "° or more.";
  return result;
}

Result<std::vector<HeldPose>> parse_poses(std::string_view text, const std::string& name) {
  const auto table = parse_number_table(text, name, "pose");
  if (!table) return tl::make_unexpected(table.error());
  const int x = table->column("ax"), y = table->column("ay"), z = table->column("az");
  if (table->column("pose") < 0 || x < 0 || y < 0 || z < 0)
    return failure(name, "columns are missing", "pose, ax, ay, az");
  std::map<Pose, std::array<std::vector<double>, 3>> rows;
  for (std::size_t i = 0; i < table->rows.size(); ++i) {
    const auto pose = from_name<Pose>(table->words[i]);
    if (!pose)
      return failure(name + ", row " + std::to_string(i + 1), "\"" + clean_text(table->words[i], 40) + "\" is no pose",
                     choice_of<Pose>());
    const int columns[] = {x, y, z};
    for (std::size_t axis = 0; axis < 3; ++axis)
      rows[*pose][axis].push_back(table->rows[i][static_cast<std::size_t>(columns[axis])]);
  }
  if (rows.empty()) return failure(name, "no rows", "several rows a pose");
  std::vector<HeldPose> poses;
  for (auto& [pose, axes] : rows) {
    HeldPose held_pose{pose};
    for (std::size_t axis = 0; axis < 3; ++axis) {
      auto& values = axes[axis];
      const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
      std::nth_element(values.begin(), middle, values.end());
      held_pose.force[static_cast<Eigen::Index>(axis)] = *middle;
    }
    const double size = held_pose.force.norm();
    if (size < 6 || size > 14)
      return failure(name, std::string(label_of(name_of(pose))) + " reads " + number_text(size, 2) + " m/s² in all",
                     size > 0.6 && size < 1.4 ? "m/s², not units of g" : "about 9.8 m/s² at rest");
    poses.push_back(held_pose);
  }
  return poses;
}

}  // namespace rigging
