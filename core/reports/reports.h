#pragma once

#include <memory>
#include <mutex>

#include "fit/fit.h"
#include "rig/sections.h"
#include "sticks/sticks.h"
#include "surfaces/air_loads.h"
#include "wiring/plan.h"

namespace rigging {

/// What the sticks leave to the stabilizer: plainly, and with full yaw or full flap held.
struct ControlMargins {
  ControlMargin plain, with_yaw, with_flaps;
  bool operator==(const ControlMargins&) const = default;
};

/// What the stations from airframe to sticks work out of one rig: each report made once, when it is first asked for,
/// whoever asks. A value: copies share what is made, also between threads. Holds the rig; the catalogue must outlive
/// it, and the choice of units stay as it is.
class Reports {
 public:
  Reports(const Rig& rig, const Catalogue& catalogue);
  /// Of the rig after an edit: what reads none of the sections that differ is shared, not made again.
  Reports after(const Rig& rig) const;

  const Rig& rig() const { return state_->rig; }
  const Catalogue& catalogue() const { return *state_->catalogue; }
  /// Null when the rig names a class that the catalogue does not have.
  const ControllerClass* controller() const { return catalogue().controller(rig().controller.kind); }

  const AirframeReport& airframe() const;
  const SurfacesReport& surfaces() const;
  const ControlMargins& control_margins() const;
  /// Of each servo in flight.
  const std::vector<ServoLoad>& loads() const;
  const PowerReport& power() const;
  const FitReport& fit() const;
  const WiringReport& wiring() const;
  const SticksReport& sticks() const;
  /// Of the wiring, as it would be made now.
  const Plan& plan() const;

 private:
  template <class T>
  struct Once {
    std::once_flag flag;
    T made;
  };
  /// Made when it is asked for, of the rig that asks first: those that share it agree in all that it reads.
  template <class T>
  using Slot = std::shared_ptr<Once<T>>;
  struct State {
    Rig rig;
    const Catalogue* catalogue;
    Slot<AirframeReport> airframe;
    Slot<SurfacesReport> surfaces;
    Slot<ControlMargins> control_margins;
    Slot<std::vector<ServoLoad>> loads;
    Slot<PowerReport> power;
    Slot<FitReport> fit;
    Slot<WiringReport> wiring;
    Slot<SticksReport> sticks;
    Slot<Plan> plan;
  };
  /// Calls `with` for each slot of one state, the same of another, and the sections that its report reads.
  template <class Action>
  static void each_slot(State& of, const State& other, Action&& with);
  template <class T, class Make>
  static const T& once(const Slot<T>& slot, Make&& make) {
    std::call_once(slot->flag, [&] { slot->made = make(); });
    return slot->made;
  }
  Reports(const Rig& rig, const Catalogue& catalogue, const State* before);

  std::shared_ptr<const State> state_;
};

}  // namespace rigging
