#pragma once

#include "drawing/aircraft_view.h"
#include "procedure/procedure.h"
#include "time/clock.h"

namespace rigging::app {

/// The aircraft as a card's picture has it: how surfaces should answer a stick or a rotation, over and over, or which
/// surfaces are spoken of.
class MovingAircraft : public AircraftView {
  Q_OBJECT
 public:
  explicit MovingAircraft(QWidget* parent = nullptr);
  void show_picture(const Picture& picture);
  /// Anything for this view is in it.
  static bool fits(const Picture& picture);

 private:
  void move();

  Picture picture_;
  Ticks timer_;
  double phase_s_ = 0;
};

}  // namespace rigging::app
