#pragma once

#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

/// The manual as sentences that can be searched and quoted.
namespace rigging {

/// One paragraph of a chapter, without its marks for print: no links, no bold, no pictures.
struct Passage {
  std::string chapter;                 ///< its file's name without an ending: "wiring"
  std::vector<std::string> sentences;  ///< in their order
  std::string text() const;
};

std::vector<Passage> passages_of(std::string_view chapter, const std::string& name);
/// Where the manual that belongs to a data folder is: beside the data where it is installed, else in the source tree.
/// Empty without one.
std::filesystem::path manual_beside(const std::filesystem::path& data_folder);
/// Every chapter but the glossary and the list of chapters; empty without a manual.
std::vector<Passage> passages_beside(const std::filesystem::path& data_folder);

}  // namespace rigging
