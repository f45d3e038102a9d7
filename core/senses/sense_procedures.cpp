#include "senses/sense_procedures.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "base/alignment.h"
#include "base/angle.h"
#include "base/counted.h"
#include "base/number.h"
#include "earth/gravity.h"
#include "senses/sense_checks.h"

namespace rigging {
namespace {

constexpr double askew_deg = 6;  ///< hands hold to a few degrees: less is not said to be askew

const char* how_to_hold(Pose pose) {
  switch (pose) {
    case Pose::level: return "Set the model down level, or hold it so.";
    case Pose::nose_up: return "Now the nose up, by about 60°.";
    case Pose::nose_down: return "Now the nose down, by about 60°.";
    case Pose::right_down: return "Now the right wing down, by about 60°.";
    case Pose::left_down: return "Now the left wing down, by about 60°.";
    case Pose::upside_down: return "Now upside down.";
  }
  return "";
}

bool apart(const Point& a, const Point& b) {
  return a.normalized().dot(b.normalized()) < std::cos(pose_apart_deg * rad);
}

/// Where a wing has to point, in words.
std::string hold_words(const std::array<double, 3>& pose) {
  const double roll = pose[0], pitch = pose[1];
  const auto by = [](double deg) { return number_text(std::abs(deg), 0) + "°"; };
  if (std::abs(pitch) > 75) return pitch > 0 ? "Nose straight up." : "Nose straight down.";
  std::string text;
  if (std::abs(roll) > 165)
    text = "Upside down";
  else if (std::abs(roll) > 15)
    text = std::string(roll > 0 ? "Right" : "Left") + " wing down by " + by(roll);
  if (std::abs(pitch) > 15)
    text += std::string(text.empty() ? "Nose " : ", nose ") + (pitch > 0 ? "up" : "down") + " by " + by(pitch);
  return text.empty() ? "Level." : text + ".";
}

}  // namespace

std::array<double, 3> pose_for(const Point& direction) {
  const Point f = direction.normalized();
  return {std::atan2(-f.y(), -f.z()) / rad, std::asin(std::clamp(f.x(), -1.0, 1.0)) / rad, 0};
}

std::array<double, 3> pose_for(Pose pose) { return pose_for(reading_in(pose, Turn{})); }

SensorCorrection correction_from(const Calibration& c) {
  SensorCorrection s;
  s.offset_x = c.offset.x();
  s.offset_y = c.offset.y();
  s.offset_z = c.offset.z();
  s.scale_x = c.matrix(0, 0);
  s.scale_y = c.matrix(1, 1);
  s.scale_z = c.matrix(2, 2);
  s.cross_xy = c.matrix(0, 1);
  s.cross_xz = c.matrix(0, 2);
  s.cross_yz = c.matrix(1, 2);
  return s;
}

Ellipsoid ellipsoid_of(const SensorCorrection& c) {
  Ellipsoid e;
  e.offset = {c.offset_x, c.offset_y, c.offset_z};
  e.matrix << c.scale_x, c.cross_xy, c.cross_xz, c.cross_xy, c.scale_y, c.cross_yz, c.cross_xz, c.cross_yz, c.scale_z;
  return e;
}

// In common
// -----------------------------------------------------------------------------------------------------------------

bool SenseProcedure::note_time(const Event& event) {
  if (const auto* time = std::get_if<Time>(&event)) now_s_ = time->s;
  const auto* motion = std::get_if<MotionHeard>(&event);
  if (!motion) return false;
  if (!motion->samples.empty()) {
    heard_s_ = now_s_;
    if (motion->samples.front().t_s < board_s_) drop_readings();
    board_s_ = motion->samples.back().t_s;
  }
  if (!watch_.moving()) steady_s_ = now_s_;
  return running_;
}

Point SenseProcedure::in_model(const Scene& scene, const Point& board) {
  return alignment_of(scene.rig.mounting("controller")) * board;
}

std::string SenseProcedure::unsteady(const std::string& how) const {
  if (silent()) return "Nothing is heard from the board: is its supply in?";
  if (!watch_.moving()) return {};
  constexpr double doubtful_s = 8;
  return "It moves. " + how +
         (now_s_ - steady_s_ > doubtful_s ? " If it is still, its zero is wrong: look at Still." : "");
}

std::string SenseProcedure::not_yet(const Scene& scene) {
  if (!scene.controller) return "This class is not in the catalogue.";
  if (!scene.controller->senses.shows_motion)
    return "This class does not show what its sensors read: its lamp and the checks at station proof tell.";
  if (!scene.bench.controller) return "Connect the controller, or start the bench below: USB will do.";
  return {};
}

Action SenseProcedure::write_action(const Scene& scene, const std::string& name, bool main) {
  return {.id = "write_" + name,
          .label = scene.bench.writing ? "Writing…" : "Write to the controller",
          .hint = "The controller keeps it, and reads it back",
          .main = main,
          .enabled = !scene.bench.writing};
}

void SenseProcedure::add_ends(Card& card, const Scene& scene, const CheckId& check, bool can_record) {
  const std::string name = check.family.substr(check.family.find('.') + 1);
  const CheckStatus* status = find_check(scene.checks, check);
  if (!status) return;
  const bool recorded = status->state == ProofState::fresh || status->state == ProofState::provisional;
  if (scene.bench.controller && scene.bench.differs)
    card.actions.push_back(write_action(scene, name, can_record && !recorded));
  if (can_record && !recorded && !(scene.bench.controller && scene.bench.differs))
    card.actions.push_back({.id = "record_" + name,
                            .label = "Record it",
                            .hint = "As proven, until what it rests on changes",
                            .main = true});
  if (recorded)
    card.note = status->state == ProofState::fresh ? "Recorded." : "Recorded; provisional until the board is mounted.";
}

void SenseProcedure::begin() {
  running_ = true;
  watch_.reset();
  heard_s_ = steady_s_ = now_s_;
}

Orders SenseProcedure::set_down() { return {AskHands{hands::Hold{}}}; }

void SenseProcedure::say_verdict(Card& card, const Calibration& found, const std::string& means) {
  card.says = found.verdict == Verdict::good ? "Good." : found.verdict == Verdict::usable ? "Usable." : "Again.";
  card.lines.push_back({found.reasons(), false});
  if (found.verdict != Verdict::repeat) card.lines.push_back({means, false});
  card.todo = found.verdict == Verdict::repeat ? "Do it again: nothing of this was kept."
                                               : "Kept in the rig. The controller has to know it, too.";
}

Orders SenseProcedure::write_or_record(const std::string& action, const CheckId& check) {
  if (action.starts_with("write_")) return {WriteBoard{}};
  if (action.starts_with("record_")) return {Record{check}};
  return {};
}

// Rotation
// -----------------------------------------------------------------------------------------------------------------

Orders RotationProcedure::hear(const Event& event, const Scene& scene) {
  if (const auto* pressed = std::get_if<Pressed>(&event)) return press(pressed->action, scene);
  if (!note_time(event)) return {};
  for (const MotionSample& s : std::get<MotionHeard>(event).samples) {
    watch_.feed(s);
    if (!watch_.still() ||
        std::any_of(held_.begin(), held_.end(), [&](const HeldPose& h) { return !apart(h.force, watch_.force()); }))
      continue;
    take(watch_.force());
    if (!running_) return set_down();
  }
  return {};
}

void RotationProcedure::take(const Point& force) {
  led_ = false;
  held_.push_back({asked_, force});
  found_ = orientation_from(held_);
  const auto has = [&](Pose p) {
    return std::any_of(held_.begin(), held_.end(), [p](const HeldPose& h) { return h.pose == p; });
  };
  // Two poses may tell; the third checks that they were held as they are called.
  for (const Pose p : {Pose::level, Pose::nose_up, Pose::right_down})
    if (!has(p)) {
      asked_ = p;
      return;
    }
  if (!found_->certain() && found_->would_tell && !has(*found_->would_tell)) {
    asked_ = *found_->would_tell;
    return;
  }
  running_ = false;
}

Orders RotationProcedure::press(const std::string& action, const Scene& scene) {
  if (action == "rotation_begin") {
    held_.clear();
    found_.reset();
    asked_ = Pose::level;
    led_ = false;
    begin();
  } else if (action == "rotation_stop") {
    running_ = false;
    held_.clear();
    found_.reset();
  } else if (action == "rotation_hold") {
    led_ = true;
    const auto pose = pose_for(asked_);
    return {AskHands{hands::Hold{pose[0], pose[1], pose[2]}}};
  } else if (action == "rotation_set" && found_ && found_->turn) {
    Edit edit{scene.rig, "Board: " + found_->turn->label()};
    edit.rig.sensing.board = TurnName(*found_->turn);
    if (Mounting* p = edit.rig.mounting("controller")) p->turn = TurnName(*found_->turn);
    return {ApplyEdit{std::move(edit)}};
  } else if (action == "rotation_sits" && found_ && found_->turn) {
    Edit edit{scene.rig, "Board sits with its " + found_->turn->label()};
    if (Mounting* p = edit.rig.mounting("controller")) p->turn = TurnName(*found_->turn);
    return {ApplyEdit{std::move(edit)}};
  } else if (action == "rotation_place") {
    return {GoTo{Station::fit, "controller"}};
  }
  return write_or_record(action, rotation_known);
}

Card RotationProcedure::card(const Scene& scene) const {
  Card card;
  card.title = "How the board sits";
  card.busy = running_;
  const auto add = [&](Action a) { card.actions.push_back(std::move(a)); };
  if (running_) {
    card.todo = how_to_hold(asked_);
    card.remark = unsteady("Hold it still for a second.");
    if (card.remark.empty())
      card.remark = held_.empty() ? "Hold it still for a second: it is taken by itself."
                                  : std::to_string(held_.size()) + " of 3 taken. The next is taken by itself.";
    card.caution = "Propeller off. Nothing in the way of the surfaces.";
    card.picture.pose_deg = pose_for(asked_);
    if (scene.bench.hands)
      add({.id = "rotation_hold",
           .label = led_ ? "The simulated hands hold it" : "Hold it so (simulated)",
           .hint = "The simulated hands hold the simulated model as it is asked for",
           .main = true,
           .enabled = !led_});
    add({.id = "rotation_stop", .label = "Stop", .hint = "What was taken is dropped"});
    return card;
  }
  const std::string no = not_yet(scene);
  if (!found_) {
    card.todo = no.empty() ? "Hold the model level, nose up, then right wing down." : no;
    card.remark = no.empty() ? "As well as hands can; which of the 24 ways the board sits in follows by itself." : "";
    if (no.empty()) card.caution = "Propeller off.";
    add({.id = "rotation_begin", .label = "Begin", .hint = "Level first", .main = true, .enabled = no.empty()});
    add_ends(card, scene, rotation_known, false);
    return card;
  }
  card.says = found_->turn ? capital(found_->turn->label()) : "These poses do not tell.";
  card.lines.push_back({found_->why, false});
  bool good = false;
  if (found_->turn) {
    const Turn told = scene.rig.sensing.board;
    const Mounting* place = scene.rig.mounting("controller");
    const bool face = scene.controller && scene.controller->senses.either_face;
    const auto same = [&](const Turn& a, const Turn& b) { return face ? a.face_up() == b.face_up() : a == b; };
    const bool told_so = same(*found_->turn, told), planned = place && same(*found_->turn, place->turn);
    double most = 0;
    for (const auto& small : {found_->roll_deg, found_->pitch_deg, found_->yaw_deg})
      if (small) most = std::max(most, std::abs(*small));
    if (most > askew_deg)
      card.lines.push_back({"It seems askew by " + number_text(most, 0) +
                                "°, if the model was held as asked: look at it, and level is stored by itself later.",
                            false});
    good = told_so && planned;
    if (good) {
      card.todo = "The controller is told the same.";
    } else if (told_so && place) {
      card.todo = "The controller is told the same; the plan has it " + place->turn.label() + ".";
      add({.id = "rotation_sits", .label = "It sits so", .hint = "The drawing follows the board", .main = true});
    } else if (told_so) {
      card.todo = "The controller is told the same. Say at station fit where it sits, and it can be recorded.";
      add({.id = "rotation_place", .label = "Place it at fit", .hint = "The board has no place yet", .main = true});
    } else if (scene.controller && scene.controller->senses.can_be_turned) {
      card.todo = "The controller is told: " + told.label() + ". It would correct the wrong way.";
      add({.id = "rotation_set",
           .label = "Tell it so",
           .hint = "Setting and drawing follow how it really sits",
           .main = true});
    } else {
      card.todo = "This class can't be told. Mount it with its " + told.label() + ", then do this again.";
    }
  } else {
    card.todo = "Again, one tilt at a time.";
  }
  add({.id = "rotation_begin", .label = "Again", .hint = "Level, nose up, right wing down", .enabled = no.empty()});
  add_ends(card, scene, rotation_known, good);
  return card;
}

// Accelerometer
// -----------------------------------------------------------------------------------------------------------------

Orders AccelerometerProcedure::hear(const Event& event, const Scene& scene) {
  if (const auto* pressed = std::get_if<Pressed>(&event)) return press(pressed->action, scene);
  if (!note_time(event)) return {};
  for (const MotionSample& s : std::get<MotionHeard>(event).samples) {
    watch_.feed(s);
    if (!watch_.still() ||
        std::any_of(poses_.begin(), poses_.end(), [&](const StillPose& p) { return !apart(p.mean, watch_.force()); }))
      continue;
    poses_.push_back({0, watch_.samples(), watch_.force(), watch_.spread(), s.t_s});
    const Fit& here = scene.rig.fit;
    found_ = calibrate_poses(
        poses_, here.latitude_deg ? normal_gravity(*here.latitude_deg, here.altitude_km * 1000) : standard_gravity);
    if (found_->verdict == Verdict::good) return finish(scene);
  }
  return led_ && running_ && asked_ != poses_.size() ? hold(scene) : Orders{};
}

Orders AccelerometerProcedure::hold(const Scene& scene) {
  asked_ = poses_.size();
  const auto pose = pose_for(in_model(scene, next_direction()));
  return {AskHands{hands::Hold{pose[0], pose[1], pose[2]}}};
}

Point AccelerometerProcedure::next_direction() const {
  // Faces first, then edges: what tells most comes first.
  std::vector<Point> wanted;
  for (int a = 0; a < 3; ++a)
    for (const double s : {-1.0, 1.0}) wanted.push_back(Point::Unit((a + 2) % 3) * s);
  for (int a = 0; a < 3; ++a)
    for (const double s : {-1.0, 1.0})
      for (const double t : {-1.0, 1.0})
        wanted.push_back((Point::Unit(a) * s + Point::Unit((a + 1) % 3) * t).normalized());
  for (const Point& w : wanted)
    if (std::all_of(poses_.begin(), poses_.end(), [&](const StillPose& p) { return apart(p.mean, w); })) return w;
  return {0, 0, -1};
}

Orders AccelerometerProcedure::finish(const Scene& scene) {
  running_ = false;
  led_ = false;
  if (!found_ || found_->verdict == Verdict::repeat) return {};
  Edit edit{scene.rig, "Accelerometer calibrated"};
  edit.rig.sensing.accelerometer = correction_from(*found_);
  Orders orders = set_down();
  orders.emplace_back(ApplyEdit{std::move(edit)});
  return orders;
}

Orders AccelerometerProcedure::press(const std::string& action, const Scene& scene) {
  if (action == "accel_begin") {
    poses_.clear();
    found_.reset();
    asked_.reset();
    begin();
  } else if (action == "accel_stop") {
    running_ = led_ = false;
    poses_.clear();
    found_.reset();
  } else if (action == "accel_enough") {
    return finish(scene);
  } else if (action == "accel_hold") {
    return hold(scene);
  } else if (action == "accel_hands" && running_) {
    led_ = true;
    return hold(scene);
  }
  return write_or_record(action, accelerometer_calibrated);
}

Card AccelerometerProcedure::card(const Scene& scene) const {
  Card card;
  card.title = "Accelerometer";
  card.busy = running_;
  const auto add = [&](Action a) { card.actions.push_back(std::move(a)); };
  if (running_) {
    const auto pose = pose_for(in_model(scene, next_direction()));
    card.todo = hold_words(pose);
    card.remark = unsteady("Hold or prop it still for a second.");
    if (card.remark.empty())
      card.remark = counted(poses_.size(), "pose") + " taken. Any still pose that is new counts.";
    card.caution = "Propeller off.";
    card.picture.pose_deg = pose;
    if (found_ && poses_.size() >= 6) card.lines.push_back({found_->reasons(), false});
    if (scene.bench.hands) {
      add({.id = "accel_hands",
           .label = led_ ? "The simulated hands go on" : "Through all of them (simulated)",
           .hint = "The simulated hands hold the simulated model as it is asked for, pose after pose",
           .main = true,
           .enabled = !led_});
      add({.id = "accel_hold",
           .label = "Hold it so (simulated)",
           .hint = "The simulated hands hold the simulated model as it is asked for",
           .enabled = !led_});
    }
    if (found_ && found_->verdict == Verdict::usable)
      add({.id = "accel_enough",
           .label = "That is enough",
           .hint = "Usable: what is not told stays at its usual value"});
    add({.id = "accel_stop", .label = "Stop", .hint = "What was taken is dropped"});
    return card;
  }
  const std::string no = not_yet(scene);
  // What was kept before is not proven by a sitting that failed.
  const bool failed = found_ && found_->verdict == Verdict::repeat,
             kept = scene.rig.sensing.accelerometer.has_value() && !failed;
  if (found_) {
    say_verdict(card, *found_,
                "Zero off by " + number_text(found_->offset.norm(), 2) +
                    " m/s²: levelled by it the model would lean by " +
                    number_text(std::atan2(found_->offset.head<2>().norm(), standard_gravity) / rad, 1) + "°.");
  } else {
    card.todo = !no.empty() ? no
                : kept      ? "It is calibrated. Again after the board was exchanged."
                            : "Hold the model still in many directions: on its wheels, nose, tail, wings, back.";
    if (no.empty())
      card.remark = "Still poses are taken by themselves. Six are usable; with the slanting ones between, good.";
  }
  add({.id = "accel_begin",
       .label = found_ || kept ? "Again" : "Begin",
       .hint = "Level first; any order will do",
       .main = !kept,
       .enabled = no.empty()});
  add_ends(card, scene, accelerometer_calibrated, kept);
  return card;
}

// Compass
// -----------------------------------------------------------------------------------------------------------------

}  // namespace rigging
