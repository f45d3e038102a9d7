#pragma once

#include "checks/checks.h"

namespace rigging {

/// What is looked at with the transmitter off, with every switch in every position, before arming, and at a distance.
inline const CheckId loss_planned{"home.loss", ""}, positions_planned{"home.positions", ""},
    arming_waits{"home.arming", ""}, button_guards{"home.button", ""}, low_battery_warns{"home.low_battery", ""},
    range_tested{"home.range", ""};

std::vector<CheckFamily> home_checks();

/// What the surfaces and the motor do on the bench once it acts on the lost link.
std::string bench_words(LossAction action);

}  // namespace rigging
