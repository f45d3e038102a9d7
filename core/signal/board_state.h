#pragma once

#include <string>
#include <vector>

#include "base/words.h"

namespace rigging {

/// Why a board does not arm.
enum class ArmingRefusal {
  no_battery,
  settling,
  moved_at_start,
  no_signal,
  throttle_open,
  sensor_missing,
  sensor_sick,
  no_fix,
  battery_low,
  flies_by_itself,
  safety_button
};

/// What a board is doing, as it tells it.
struct BoardState {
  struct Refusal {
    ArmingRefusal why = ArmingRefusal::no_battery;
    std::string of;  ///< the sensor, where it is about one
    bool operator==(const Refusal&) const = default;
  };
  std::string mode;              ///< that flies; while the link is gone: the one that was chosen last
  bool link_lost = false;        ///< it knows
  std::string on_loss;           ///< what it does about it now: "waits", or a `LossAction`; empty with the link there
  bool battery_low = false;      ///< under the voltage at which it turns home
  bool can_arm = false;          ///< it tells about arming at all
  std::vector<Refusal> refuses;  ///< all there are, the first to mend first
  int satellites = 0;
  bool operator==(const BoardState&) const = default;
};

template <>
struct Names<ArmingRefusal> {
  using R = ArmingRefusal;
  static constexpr std::array<std::pair<R, std::string_view>, 11> list{{{R::no_battery, "no_battery"},
                                                                        {R::settling, "settling"},
                                                                        {R::moved_at_start, "moved_at_start"},
                                                                        {R::no_signal, "no_signal"},
                                                                        {R::throttle_open, "throttle_open"},
                                                                        {R::sensor_missing, "sensor_missing"},
                                                                        {R::sensor_sick, "sensor_sick"},
                                                                        {R::no_fix, "no_fix"},
                                                                        {R::battery_low, "battery_low"},
                                                                        {R::flies_by_itself, "flies_by_itself"},
                                                                        {R::safety_button, "safety_button"}}};
};

}  // namespace rigging
