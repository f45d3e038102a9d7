#pragma once

#include <string>
#include <vector>

#include "checks/checks.h"
#include "feel/feel.h"
#include "flight/dynamics.h"

namespace rigging {

/// Go, or not yet and why.
struct TakeoffAdvice {
  bool go = false;
  std::vector<std::string> not_yet;   ///< each with what to do
  std::vector<std::string> lines;     ///< what the numbers say
  std::vector<std::string> cautions;  ///< where the hand moves
  /// Numbers behind it; 0 where they do not apply.
  double speed_m_s = 0;   ///< through the air when it leaves hand, ground or line
  double needed_m_s = 0;  ///< to fly: 1.1 times the stall speed from the hand, 1.2 from the ground, 1.3 from a tow
  double drop_m = 0;      ///< it sinks so far after the hand, until it flies; the most of a band
  double run_m = 0;       ///< on the ground until it flies
  double climb_deg = 0;   ///< at full throttle and 1.2 times the stall speed
  double push_m_s2 = 0;   ///< that a throw makes: what a launch mode has to notice
};

/// How it gets into the air, as the rig says (feel/takeoff), with full throttle: of a pusher from the hand only after
/// it has left it, 0.3 to 0.7 s for who opens it and 0.3 to 0.6 s until it pulls (from memory), of which the later
/// counts. A point that is pulled, dragged and carried: lift goes with the square of the speed at the wing's highest
/// coefficient, drag as in airframe/drag.h, rolling friction 0.05 on a strip, 0.12 in grass (from memory). Hands throw
/// at 7 m/s over 1.2 m of arm, from 1.8 m above ground (common practice).
///
/// Never a go with a direction that is not proven, a proof of one that went stale, a balance that is not known or lies
/// outside of its band, or anything that grounds the rig (`grounded`: its words).
TakeoffAdvice advise_takeoff(const Rig& rig, const FeelReport& report, const Engine& engine, const Drag& drag,
                             const Balance& balance, const std::vector<CheckStatus>& checks,
                             const std::vector<std::string>& grounded);

}  // namespace rigging
