#pragma once

#include <cstddef>
#include <string>
#include <string_view>
#include <vector>

namespace rigging {

/// How many letters a text in UTF-8 has.
std::size_t letters(std::string_view text);
/// The first ones of it, at most so many, never half a letter.
std::string_view first_letters(std::string_view text, std::size_t most);
/// Breaks at spaces after at most `most` letters; a longer word stays whole.
std::vector<std::string> wrapped(const std::string& text, std::size_t most);

}  // namespace rigging
