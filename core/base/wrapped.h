#pragma once

#include <cstddef>
#include <string>
#include <vector>

namespace rigging {

/// Breaks at spaces after at most `most` letters; a longer word stays whole.
std::vector<std::string> wrapped(const std::string& text, std::size_t most);

}  // namespace rigging
