#pragma once

#include <vector>

#include "rig/outputs.h"
#include "surfaces/surfaces.h"

namespace rigging::twin {

/// The controller's own mixer. Written apart from Rigging's, so that each checks the other.
class Mixer {
 public:
  Mixer(const std::vector<Output>& outputs, Saturation sharing) : outputs_(&outputs), saturation_(sharing) {}

  /// Pulse of each output in their order, µs; what passes a channel through gets its centre.
  void pulses(Command asked, std::vector<double>& out) const;

 private:
  const std::vector<Output>* outputs_;
  Saturation saturation_;
};

}  // namespace rigging::twin
