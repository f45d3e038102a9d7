#pragma once

#include <string_view>

#include "base/json_fwd.h"
#include "base/result.h"

namespace rigging::link {

/// Reads one CBOR value that fills `bytes`. Refuses what a peer that means no good could send: lengths beyond the end,
/// more than 32 levels, items of unknown length.
Result<Json> parse_cbor(std::string_view bytes, const std::string& where);

}  // namespace rigging::link
