#pragma once

#include <QDoubleSpinBox>

#include "base/described.h"
#include "base/units.h"
#include "base/words.h"
#include "look/literals.h"
#include "look/number_box.h"

namespace rigging::app {

/// The label of a described member: "Root chord".
inline QString spoken_label(const Member& m) { return QString::fromStdString(capital(m.label)); }

/// How numbers of this member stand in a box: its unit as chosen, and the decimals that go with it.
inline Shown shown_in_box(const Member& m) {
  Shown s = shown(unit_of_name(m.name));
  if (s.unit == "°") s.places = 1;
  return s;
}

/// Range, unit and decimals (so many `finer`) of the box come from the member's description; so no range stands twice.
inline void show_member(QDoubleSpinBox& box, const Member& m, double value, int finer = 0) {
  const Shown s = shown_in_box(m);
  const QString unit = QString::fromUtf8(s.unit.data(), static_cast<qsizetype>(s.unit.size()));
  box.setDecimals(s.places + finer);
  box.setSuffix(unit.isEmpty() || unit == u"°"_s ? unit : QLatin1Char(' ') + unit);
  box.setRange(m.span.least * s.factor, m.span.most * s.factor);
  box.setValue(value * s.factor);
}

/// As `show_member`, for one that may be not known: that stands at zero, below the range.
inline void show_member_or_unknown(NumberBox& box, const Member& m, std::optional<double> value) {
  Member from_zero = m;
  from_zero.span.least = 0;
  box.set_least_known(m.span.least * shown_in_box(m).factor);
  show_member(box, from_zero, value.value_or(0));
}

/// What a number typed into such a box is in the document.
inline double stored_value(const Member& m, double typed) { return typed / shown_in_box(m).factor; }

}  // namespace rigging::app
