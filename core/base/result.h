#pragma once

#include <string>
#include <tl/expected.hpp>

namespace rigging {

/// What went wrong, where (file, path or line) and what was expected there.
struct Error {
  std::string where;
  std::string what;
  std::string expected;

  /// One line: "where: what; expected …". Parts that are empty are left out.
  std::string text() const {
    std::string line = where.empty() ? what : where + ": " + what;
    return expected.empty() ? line : line + "; expected " + expected;
  }
};

template <class T>
using Result = tl::expected<T, Error>;

inline tl::unexpected<Error> failure(std::string where, std::string what, std::string expected = {}) {
  return tl::make_unexpected(Error{std::move(where), std::move(what), std::move(expected)});
}

}  // namespace rigging
