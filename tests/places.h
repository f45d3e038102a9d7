#pragma once

#include <string>

namespace rigging {

/// A file of the source by its place in it, as "/data/catalogue"; known to one object alone, so that all others are the
/// same in every clone.
std::string in_source(const std::string& place);
/// A program of this build by its name, as "rigging-cli".
std::string program(const std::string& name);

}  // namespace rigging
