#include "places.h"

namespace rigging {

std::string in_source(const std::string& place) { return RIGGING_SOURCE_DIR + place; }
std::string program(const std::string& name) { return RIGGING_BINARY_DIR "/bin/" + name; }

}  // namespace rigging
