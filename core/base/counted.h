#pragma once

#include <cstddef>
#include <string>

namespace rigging {

/// "1 look", "3 looks".
inline std::string counted(std::size_t n, const std::string& one) {
  return std::to_string(n) + " " + one + (n == 1 ? "" : "s");
}

}  // namespace rigging
