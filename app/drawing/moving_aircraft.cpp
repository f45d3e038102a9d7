#include "drawing/moving_aircraft.h"

#include <algorithm>
#include <cmath>

namespace rigging::app {
namespace {

constexpr int frame_ms = 40;

/// How far the picture tilts for a correction: past where the class begins to answer.
double tilt_deg(const Picture& picture) {
  return !picture.correction ? 0 : picture.correction->from_deg > 0 ? picture.correction->from_deg + 10 : 26;
}

/// Rest, move, stay, return; 0 to 1.
double ramp(double s) {
  return s < 0.5 ? 0 : s < 0.9 ? (s - 0.5) / 0.4 : s < 2.4 ? 1 : s < 2.9 ? 1 - (s - 2.4) / 0.5 : 0;
}

/// The tilt leads and the answer follows in its own way.
double answer(const Picture::Correction& c, double tilt, double s) {
  if (c.answer == AnswerKind::runs_away) return s < 0.5 || s >= 2.9 ? 0 : std::min(1.4, (s - 0.5) * 0.9);
  if (c.from_deg > 0) return tilt > c.from_deg ? 1 : 0;
  if (c.answer == AnswerKind::held) return ramp(s);
  return s > 0.5 && s < 0.9    ? 1
         : s >= 0.9 && s < 1.5 ? std::exp(-(s - 0.9) * (c.answer == AnswerKind::springs_back ? 4 : 9))
                               : 0;
}

}  // namespace

MovingAircraft::MovingAircraft(QWidget* parent) : AircraftView(From::behind_above, parent) {
  connect(&timer_, &Ticks::timeout, this, &MovingAircraft::move);
}

bool MovingAircraft::fits(const Picture& p) { return !p.arrows.empty() || !p.marked.empty() || !p.caption.empty(); }

void MovingAircraft::show_picture(const Picture& picture) {
  picture_ = picture;
  const double reach = tilt_deg(picture_);
  set_reach(picture_.axis == Axis::roll ? reach : 0, picture_.axis == Axis::pitch ? reach : 0,
            picture_.axis == Axis::yaw ? reach : 0);
  set_caption(QString::fromStdString(picture_.caption));
  set_arrows(picture_.arrows);
  set_selected(picture_.marked);
  // What stands still needs no clock.
  picture_.arrows.empty() ? timer_.stop() : timer_.start(frame_ms);
  move();
}

void MovingAircraft::move() {
  if (timer_.is_active() && !isVisible()) return;
  phase_s_ += frame_ms / 1000.0;
  if (phase_s_ > 3.2) phase_s_ = 0;
  std::map<Surface, double> deflections;
  double tilt = 0;
  if (!picture_.arrows.empty()) {
    tilt = ramp(phase_s_) * tilt_deg(picture_);
    const double share = picture_.correction ? answer(*picture_.correction, tilt, phase_s_) : ramp(phase_s_);
    for (const auto& [surface, motion] : picture_.arrows) deflections[surface] = motion * 22 * share;
    for (const Surface s : picture_.leaning) deflections.try_emplace(s, 5 * ramp(phase_s_));
  }
  set_deflections(deflections);
  const auto axis = picture_.axis.value_or(Axis::roll);
  set_pose(axis == Axis::roll ? tilt : 0, axis == Axis::pitch ? tilt : 0, axis == Axis::yaw ? tilt : 0);
}

}  // namespace rigging::app
