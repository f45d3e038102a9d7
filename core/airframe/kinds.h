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

/// Has it a motor on either wing?
bool has_two_motors(const Airframe& airframe);
/// Has it a pair of ailerons that could hang on one lead?
bool can_join_ailerons(AirframeKind kind);
/// Do both of its ailerons hang on one output?
bool joins_ailerons(const Airframe& airframe);
/// What moves on it: the surfaces of its kind, and the motors of a pair.
std::vector<Surface> surfaces_of(const Airframe& airframe);

/// Outputs for the kind, in the order of the surfaces, Y-leads and the motor included. Weights are chosen so that a
/// positive weight lifts the trailing edge (moves it right, speeds the motor up) on a positive command; servo sense is
/// `reversed`.
std::vector<Output> default_outputs(const Airframe& airframe);
inline std::vector<Output> default_outputs(AirframeKind kind) {
  Airframe airframe;
  airframe.kind = kind;
  return default_outputs(airframe);
}

/// A new rig: the usual outputs of its kind and the usual five channels.
Rig fresh_rig(std::string name, AirframeKind kind, std::string controller);

/// Gives the rig another kind. Outputs whose surfaces exist on the new kind keep their socket, ends and reversal;
/// sockets of surfaces that are gone are handed on in order; a surface that has no output gets one. Nothing but outputs
/// and linkages of surfaces that are gone is touched.
Rig with_kind(Rig rig, AirframeKind kind);
/// The same for ailerons on one output or on two.
Rig with_joined_ailerons(Rig rig, bool joined);
/// The same for its motors: one gives its socket to the left one of a pair, and the other way round; steering gives a
/// pair the usual yaw weights, and takes them.
Rig with_motors(Rig rig, Motors motors);

}  // namespace rigging
