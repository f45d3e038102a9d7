#include "base/data_folder.h"

namespace rigging {
namespace {

std::filesystem::path own_bin() {
  std::error_code ec;
  return std::filesystem::read_symlink("/proc/self/exe", ec).parent_path();
}

}  // namespace

std::filesystem::path data_folder(const std::filesystem::path& bin) {
  std::filesystem::path source = RIGGING_SOURCE_DATA;
  for (const auto& place :
       {bin / "data", bin.parent_path() / "data", bin.parent_path() / "share" / "rigging", source}) {
    std::error_code ec;
    if (std::filesystem::is_directory(place / "catalogue", ec)) return place;
  }
  return source;
}

std::filesystem::path data_folder() { return data_folder(own_bin()); }

std::filesystem::path program_beside(const std::string& name) {
  std::error_code ec;
  const auto beside = own_bin() / name;
  return std::filesystem::exists(beside, ec) ? beside : std::filesystem::path(name);
}

}  // namespace rigging
