#pragma once

#include "rig/rig.h"

namespace rigging {

/// A kind of airframe: what moves on it and how it is mixed unless the builder says otherwise.
struct AirframeFacts {
  AirframeKind kind;
  std::string name;
  std::string sentence;
  std::vector<Surface> surfaces;
};

const AirframeFacts& facts_of(AirframeKind kind);

/// Outputs for the kind, in the order of the surfaces, Y-leads and the motor included. Weights are chosen so that a
/// positive weight lifts the trailing edge (moves it right, speeds the motor up) on a positive command; servo sense is
/// `reversed`.
std::vector<Output> default_outputs(AirframeKind kind);

/// A new rig: the usual outputs of its kind and the usual five channels.
Rig fresh_rig(std::string name, AirframeKind kind, std::string controller);

/// Gives the rig another kind. Outputs whose surfaces exist on the new kind keep their socket, ends and reversal;
/// sockets of surfaces that are gone are handed on in order; a surface that has no output gets one. Nothing but outputs
/// and linkages of surfaces that are gone is touched.
Rig with_kind(Rig rig, AirframeKind kind);

}  // namespace rigging
