#pragma once

#include <functional>

#include "document/rig_document.h"
#include "home/home.h"

/// The rarely typed parts of the plan for home, each on a small sheet of its own.
namespace rigging::app {

/// A length of the field in the unit of the user: metres or feet.
double field_unit_m();
QString field_unit();

/// One edit of the plan; nothing where nothing changes.
void change_home(RigDocument& document, const QString& label, const std::function<void(Home&)>& how);

void ask_obstacle(RigDocument& document, QWidget* window);
/// What else makes it act by itself; only what can work is offered.
void ask_triggers(RigDocument& document, const HomeReport& report, QWidget* window);
/// Throttle, tow release, alarm and checks while it flies by itself.
void ask_by_itself(RigDocument& document, const HomeReport& report, QWidget* window);
void ask_goggles(RigDocument& document, QWidget* window);

}  // namespace rigging::app
