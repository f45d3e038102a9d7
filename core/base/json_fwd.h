#pragma once

#include <nlohmann/json_fwd.hpp>

/// JSON values by name only: enough to pass them on, and cheap to include.
namespace rigging {

using Json = nlohmann::json;
/// Keeps the order in which members were written: for files that should compare well line by line.
using OrderedJson = nlohmann::ordered_json;

}  // namespace rigging
