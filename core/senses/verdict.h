#pragma once

#include "base/words.h"

namespace rigging {

/// What is to be done with what was read: take it, take it for now, or read again. Later is worse.
enum class Verdict { good, usable, repeat };

template <>
struct Names<Verdict> {
  static constexpr std::array<std::pair<Verdict, std::string_view>, 3> list{
      {{Verdict::good, "good"}, {Verdict::usable, "usable"}, {Verdict::repeat, "repeat"}}};
};

}  // namespace rigging
