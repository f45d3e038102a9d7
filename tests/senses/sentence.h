#pragma once

#include <cstdio>
#include <string>

namespace rigging {

/// "$GPGGA,…*47" with its line end: a sentence of NMEA 0183 with its check sum.
inline std::string sentence(const std::string& body) {
  unsigned sum = 0;
  for (const char c : body) sum ^= static_cast<unsigned char>(c);
  char end[8];
  std::snprintf(end, sizeof end, "*%02X\r\n", sum);
  return "$" + body + end;
}

}  // namespace rigging
