#pragma once

#include <cstddef>
#include <string>
#include <string_view>

namespace rigging {

/// Text from elsewhere, fit to be shown on one line: control characters become spaces, what is no UTF-8 a question
/// mark. Longer than `most_bytes` it keeps head and tail in equal parts with " … " between, never half a letter.
std::string clean_text(std::string_view text, std::size_t most_bytes);

}  // namespace rigging
