#pragma once

#include "catalogue/controller_class.h"

/// Which output may sit in which socket.
namespace rigging {

/// True if the output drives a motor or tow release and no surface.
bool drives_motor(const Output& output);
/// May the output go to the socket, for all that the class says? A socket kept for the aileron takes whatever else
/// rolls in its place, one for the elevator whatever else pitches, one for the rudder whatever else yaws.
bool socket_takes(const Terminal& socket, const Output& output);
/// Puts the outputs where the class wants them. What may stay stays, and so does what a lead holds in a socket that
/// there is; the rest goes in order to the first free socket that takes it, or has none. A motor whose lead stays on
/// the receiver has none.
void settle_in_sockets(Rig& rig, const ControllerClass& controller);

/// Numbers of the channels on which a class with positions of its own listens for its modes, the first first.
std::vector<int> mode_channels(const Rig& rig, const ControllerClass& controller);

}  // namespace rigging
