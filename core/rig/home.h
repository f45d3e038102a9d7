#pragma once

#include <optional>
#include <string>

#include "base/described.h"
#include "base/extra.h"

namespace rigging {

struct ModeChoice {
  int channel = 5;
  double from_us = 1000, to_us = 2000;
  std::string mode;
  Extra extra;
  bool operator==(const ModeChoice&) const = default;
};

struct Home {
  std::string on_loss;  ///< what happens when the link goes, in the words of the home station
  std::optional<double> height_m;
  Extra extra;
  bool operator==(const Home&) const = default;
};

template <>
const Members& Described<ModeChoice>::members();
template <>
const Members& Described<Home>::members();

}  // namespace rigging
