#pragma once

#include <QByteArray>
#include <QSize>
#include <QString>

#include "base/units.h"
#include "look/look.h"

namespace rigging::app {

/// What the builder chose for the window itself, kept from start to start beside the recovery copies.
struct Preferences {
  Theme theme = Theme::paper;
  UnitSystem units = UnitSystem::metric;
  double text_scale = 1;  ///< 0.8 to 1.6
  QByteArray window;      ///< place and size, as Qt saves them; empty at the first start

  bool operator==(const Preferences&) const = default;
};

/// The usual ones where there is no file, or none that can be read: choices are not worth a message.
Preferences read_preferences(const QString& folder);
/// How large text is at the first start: a screen of 1920 x 1080 gets larger text with its larger drawings.
double text_scale_for(QSize screen);
void write_preferences(const QString& folder, const Preferences& preferences);

}  // namespace rigging::app
