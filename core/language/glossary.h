#pragma once

#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

/// Terms of the trade and what they mean, as the manual's chapter has them, one to a line:
/// "- **balance point**, **CG**: where the aircraft hangs level."
namespace rigging {

struct Term {
  std::vector<std::string> words;  ///< the term itself, then what builders also say
  std::string meaning;
};

/// Lines of another form are left out.
std::vector<Term> terms_of(std::string_view chapter);
/// Of the manual that belongs to a data folder: beside the data where it is installed, else in the source tree. Empty
/// without one.
std::vector<Term> terms_beside(const std::filesystem::path& data_folder);

}  // namespace rigging
