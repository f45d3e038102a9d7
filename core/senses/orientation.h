#pragma once

#include <optional>
#include <string>
#include <vector>

#include "base/point.h"
#include "base/result.h"
#include "base/turn.h"
#include "base/words.h"

/// How the board really sits, told by what its accelerometer reads while hands hold the model.
namespace rigging {

/// How the model is held: level, or tilted 30 to 90° that way, as well as hands can.
enum class Pose { level, nose_up, nose_down, right_down, left_down, upside_down };

template <>
struct Names<Pose> {
  static constexpr std::array<std::pair<Pose, std::string_view>, 6> list{{{Pose::level, "level"},
                                                                          {Pose::nose_up, "nose_up"},
                                                                          {Pose::nose_down, "nose_down"},
                                                                          {Pose::right_down, "right_down"},
                                                                          {Pose::left_down, "left_down"},
                                                                          {Pose::upside_down, "upside_down"}}};
};

/// What an accelerometer reads in **its own** axes while the model rests in a pose, m/s². Sitting as `none` and level
/// it reads (0, 0, −9.8): what holds the model up pushes along −z.
struct HeldPose {
  Pose pose = Pose::level;
  Point force = {0, 0, 0};
};

/// Columns pose, ax, ay, az, many rows a pose, m/s². One reading per pose: the median of its rows. Errors: a pose
/// without a name known here, no rows, readings that are in units of g.
Result<std::vector<HeldPose>> parse_poses(std::string_view text, const std::string& name);

struct Orientation {
  std::optional<Turn> turn;      ///< none when these poses cannot tell
  std::vector<Turn> candidates;  ///< all that fit about as well, the best first; none when nothing fits
  /// What is left over after the turn, degrees, as in `Place`; absent where nothing tells it. Hands hold to a few
  /// degrees, and these are no better.
  std::optional<double> roll_deg, pitch_deg, yaw_deg;
  double misfit_deg = 0;           ///< the worst pose of the best candidate
  std::optional<Pose> would_tell;  ///< the pose that would tell the candidates apart
  std::string why;

  bool certain() const { return turn.has_value(); }
};

/// Which of the 24 turns these readings come from. Each pose is known to about 12° (common practice: hands), a tilt to
/// lie between 25 and 100°; a turn whose squared misfit is more than eight of these units above the best is out. Poses
/// that contradict each other (misfit over 40°) give no candidate.
Orientation orientation_from(const std::vector<HeldPose>& poses);

/// What the accelerometer of a board that sits so reads in the pose held exactly, tilted by 60°: unit length.
Point reading_in(Pose pose, const Turn& turn);

}  // namespace rigging
