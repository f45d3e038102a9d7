#pragma once

#include "power/power.h"

/// Plugs on battery and motor leads: do they go together, and do they bear the current?
namespace rigging {

/// Where a lead joins two things that both bring a plug of their own.
struct PlugJoint {
  std::string giver, taker;                             ///< parts; the giver's plug has sleeves, the taker's pins
  const PartKind *giving = nullptr, *taking = nullptr;  ///< kinds of plug; null where it is soldered or made to fit
  bool phases = false;                                  ///< the three leads of a motor
  double amps = 0;                                      ///< at full throttle
  double bears_a = 0;                                   ///< the weaker of the two, continuous; 0 when not known
  bool fits() const { return !giving || !taking || giving == taking; }
};

/// Of every lead that carries the battery's current, and of those to the motors: there each of the three contacts is
/// held against the motor's battery current, which is a fifth more than flows in it on average (two of three conduct).
/// `power`: of the same rig.
std::vector<PlugJoint> plug_joints(const Rig& rig, const Catalogue& catalogue, const PowerReport& power);

}  // namespace rigging
