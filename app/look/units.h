#pragma once

#include <QString>

#include "base/figure.h"
#include "base/units.h"
#include "look/literals.h"

namespace rigging::app {

/// SI inside, the builder's units in boxes and on drawings: base/units.h for widgets.
class Units {
 public:
  static Units& instance() {
    static Units units;
    return units;
  }
  bool metric() const { return unit_system() == UnitSystem::metric; }

  /// Lengths on the bench: millimetres or inches.
  double length_out(double metres) const { return metres * shown("m").factor; }
  double length_in(double value) const { return value / shown("m").factor; }
  QString length_unit() const { return unit("m"); }
  /// Masses: grams or ounces (avoirdupois).
  double mass_out(double kg) const { return kg * shown("kg").factor; }
  double mass_in(double value) const { return value / shown("kg").factor; }
  QString mass_unit() const { return unit("kg"); }
  /// Torques at a servo: newton centimetres or ounce inches.
  double torque_out(double nm) const { return nm * shown("N·m").factor; }
  QString torque_unit() const { return unit("N·m"); }
  double speed_out(double m_s) const { return m_s * shown("m/s").factor; }
  QString speed_unit() const { return unit("m/s"); }

  /// "12.0 mm" or "0.47 in".
  QString length(double metres) const {
    return u"%1 %2"_s.arg(length_out(metres), 0, 'f', metric() ? 1 : 2).arg(length_unit());
  }
  /// "8.6 m/s" or "28 ft/s"; estimates with their band.
  QString figure(const Figure& f) const { return QString::fromStdString(figure_text(f)); }

 private:
  QString unit(const char* si) const {
    const auto name = shown(si).unit;
    return QString::fromUtf8(name.data(), static_cast<qsizetype>(name.size()));
  }
};

}  // namespace rigging::app
