#pragma once

#include <QString>

#include "base/figure.h"

namespace rigging::app {

enum class UnitSystem { metric, imperial };

/// SI inside, the builder's units at the screen.
class Units {
 public:
  static Units& instance() {
    static Units units;
    return units;
  }
  UnitSystem system = UnitSystem::metric;
  bool metric() const { return system == UnitSystem::metric; }

  /// Lengths on the bench: millimetres or inches.
  double length_out(double metres) const { return metric() ? metres * 1000 : metres / 0.0254; }
  double length_in(double shown) const { return metric() ? shown / 1000 : shown * 0.0254; }
  QString length_unit() const { return metric() ? QStringLiteral("mm") : QStringLiteral("in"); }
  /// Masses: grams or ounces (avoirdupois).
  double mass_out(double kg) const { return metric() ? kg * 1000 : kg / 0.028349523125; }
  double mass_in(double shown) const { return metric() ? shown / 1000 : shown * 0.028349523125; }
  QString mass_unit() const { return metric() ? QStringLiteral("g") : QStringLiteral("oz"); }

  /// "12.0 mm" or "0.47 in".
  QString length(double metres) const {
    return QStringLiteral("%1 %2").arg(length_out(metres), 0, 'f', metric() ? 1 : 2).arg(length_unit());
  }
  /// Torques at a servo: newton centimetres or ounce inches.
  double torque_out(double nm) const { return metric() ? nm * 100 : nm * 141.6119; }
  QString torque_unit() const { return metric() ? QStringLiteral("N·cm") : QStringLiteral("oz·in"); }
  double speed_out(double m_s) const { return metric() ? m_s : m_s / 0.3048; }
  QString speed_unit() const { return metric() ? QStringLiteral("m/s") : QStringLiteral("ft/s"); }

  /// "8.6 m/s" or "28 ft/s"; estimates with their band.
  QString figure(const Figure& f) const;
};

}  // namespace rigging::app
