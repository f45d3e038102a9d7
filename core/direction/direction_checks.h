#pragma once

#include "checks/checks.h"
#include "direction/case.h"

/// Directions: every stick moves its surfaces the right way, every correction fights the disturbance.
namespace rigging {

inline constexpr const char stick_family[] = "stick", correction_family[] = "correction";
inline const CheckId rudder_leans{"coordination", ""};

/// What is seen on one surface if all is well.
struct Expected {
  Surface surface;
  int motion = 0;  ///< as in `required_direction`
};

/// One of these checks as it is done on the bench.
struct DirectionCard : CheckCard {
  bool correction = false;
  Axis axis = Axis::roll;
  direction::Observation observation;  ///< what to do
  std::vector<Expected> looks;         ///< only surfaces that should move
  AnswerKind answer = AnswerKind::held;
  double from_deg = 0;
};

/// Only for checks of the two families, with a controller that the catalogue has. `look_in`: the mode in which a
/// correction is looked at, one of `look_modes`; else the one that shows it best.
DirectionCard direction_card(const CheckContext& context, const CheckId& id, std::optional<Mode> look_in = {});
/// What a mode does on the bench, one or two sentences.
std::string answer_words(const ModeAnswer& answer);
/// The modes that answer this axis, the best first.
std::vector<Mode> look_modes(const ControllerClass& controller, Axis axis);
bool is_direction(const CheckId& id);

CheckFamily stick_checks();
CheckFamily correction_checks();
/// On a class that holds rudder toward a held bank: right there, and wrong the other way round.
CheckFamily lean_check();

}  // namespace rigging
