#pragma once

#include "catalogue/catalogue.h"
#include "rig/rig.h"

namespace rigging {

/// Version 1 of the rig file kept of a proof a fingerprint of sentences. This tells whether those sentences still hold,
/// and writes down what the proof depends on as places and values: a proof that was fresh stays fresh, one that was
/// stale stays stale and says why. Does nothing to a rig whose proofs are of this version.
Rig with_version_1_proofs(Rig rig, const Catalogue& catalogue);

/// A rig from its file, ready to work with, and the text that it was read from: one reading, so that both are of the
/// same moment.
struct RigAndText {
  Rig rig;
  std::string text;
};
Result<RigAndText> open_rig(const std::filesystem::path& path, const Catalogue& catalogue);

}  // namespace rigging
