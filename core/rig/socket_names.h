#pragma once

#include <string>

#include "base/json_fwd.h"

/// Sockets of the shipped classes had other ids in rigs that were written before: what is "slot_3" now was "s3", what
/// is "data_a" was "uart_a". Classes that a builder described keep what the builder called them.
namespace rigging {

/// The id as it is now; any other text as it stands.
std::string current_socket(const std::string& id);
/// The id as it was: what proofs of version 1 rest on.
std::string former_socket(const std::string& id);

/// Brings up all sockets of the board in a rig's JSON, its proofs included.
void bring_sockets_up(Json& rig);

}  // namespace rigging
