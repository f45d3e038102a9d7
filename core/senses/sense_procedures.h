#pragma once

#include "procedure/procedure.h"
#include "senses/calibration.h"
#include "senses/compass_turn.h"
#include "senses/orientation.h"
#include "senses/pose_watch.h"

namespace rigging {

/// What all procedures of the station have in common: the readings come by themselves, and are missed aloud.
class SenseProcedure : public Procedure {
 public:
  bool running() const { return running_; }
  bool listens_to_motion() const override { return running_; }

 protected:
  /// The readings of this event are in; false when it was another event.
  bool note_time(const Event& event);
  /// The board started anew: what was read before is of another start and does not count.
  virtual void drop_readings() {}
  bool silent() const { return now_s_ - heard_s_ > 1.5; }
  /// What stands in the way of a pose, `how` to hold it when it moves; empty when nothing does.
  std::string unsteady(const std::string& how) const;
  void begin();
  /// A direction of the board in the model's axes, as the rig has the board placed.
  static Point in_model(const Scene& scene, const Point& board);
  static Action write_action(const Scene& scene, const std::string& name, bool main);
  /// Simulated hands set the model down again.
  static Orders set_down();
  /// Verdict, why, and what it means; `means` is said of what was kept.
  static void say_verdict(Card& card, const Calibration& found, const std::string& means);
  /// What keeps it from beginning; empty when nothing does.
  static std::string not_yet(const Scene& scene);
  /// The buttons at the end: write, record; `main` of what comes next.
  static void add_ends(Card& card, const Scene& scene, const CheckId& check, bool can_record);
  static Orders write_or_record(const std::string& action, const CheckId& check);

  PoseWatch watch_;
  bool running_ = false;
  double now_s_ = 0, heard_s_ = 0;
  double steady_s_ = 0;  ///< when it last did not move
  double board_s_ = 0;   ///< the board's own time, of its last reading
};

/// Which of the 24 turns (and which small angles) the board sits in, told by holding the model level and tilted.
class RotationProcedure : public SenseProcedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override;
  Card card(const Scene& scene) const override;
  const std::optional<Orientation>& found() const { return found_; }
  const std::vector<HeldPose>& poses() const { return held_; }

 private:
  Orders press(const std::string& action, const Scene& scene);
  void take(const Point& force);
  Pose asked_ = Pose::level;
  bool led_ = false;  ///< simulated hands hold what is asked for
  std::vector<HeldPose> held_;
  std::optional<Orientation> found_;
};

/// Offset, scale and cross terms from still poses, taken by themselves while hands turn the model.
class AccelerometerProcedure : public SenseProcedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override;
  Card card(const Scene& scene) const override;
  const std::optional<Calibration>& found() const { return found_; }
  const std::vector<StillPose>& poses() const { return poses_; }

 private:
  Orders press(const std::string& action, const Scene& scene);
  Orders finish(const Scene& scene);
  /// The direction, board axes, that is furthest from all poses so far.
  Point next_direction() const;
  Orders hold(const Scene& scene);

  std::vector<StillPose> poses_;
  std::optional<Calibration> found_;
  bool led_ = false;                  ///< simulated hands go on from pose to pose
  std::optional<std::size_t> asked_;  ///< how many poses there were when they were last asked
};

/// Hard and soft iron from a turn through all directions.
class CompassProcedure : public SenseProcedure {
 public:
  Orders hear(const Event& event, const Scene& scene) override;
  Card card(const Scene& scene) const override;
  const std::optional<Calibration>& found() const { return found_; }
  const Recording& recording() const { return recording_; }
  const std::optional<CompassTurn>& sits() const { return sits_; }
  /// By `gore_cell`, of what was read so far.
  const std::vector<bool>& seen() const { return seen_; }
  std::optional<std::size_t> now_in() const { return now_in_; }

 private:
  Orders press(const std::string& action, const Scene& scene);
  Orders finish(const Scene& scene);
  void forget();
  void look_over();
  Orders turn_on();
  /// How it sits, and what the place should say: of the whole recording.
  void look_around(const Scene& scene);
  void add_earth(Card& card, const Scene& scene) const;
  Recording recording_;
  std::vector<Point> forces_;  ///< what held the model up at each reading, board axes
  std::optional<CompassTurn> sits_;
  std::vector<bool> seen_ = std::vector<bool>(gores * bands);
  std::optional<std::size_t> now_in_;
  SphereFit so_far_;
  bool shows_map_ = false;  ///< where on the sphere a reading lies is known
  std::size_t looked_at_ = 0, judge_at_ = 0;
  double coverage_ = 0;
  int sweep_ = -1;      ///< of simulated hands that turn it; −1: they do not
  double swept_s_ = 0;  ///< when the last began
  std::optional<Calibration> found_;
};

/// Roll and pitch, degrees, in which the model has to be held so that what holds it up points along `direction` (model
/// axes, any length but zero).
std::array<double, 3> pose_for(const Point& direction);
/// The same for a pose by its name, tilts by 60°.
std::array<double, 3> pose_for(Pose pose);

SensorCorrection correction_from(const Calibration& calibration);
Ellipsoid ellipsoid_of(const SensorCorrection& correction);

}  // namespace rigging
