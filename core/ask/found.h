#pragma once

#include "ask/ask.h"

namespace rigging {

/// What was found to be meant, while it is being looked for.
struct Found {
  std::vector<Interpretation> all;

  void answer(double fit, std::string text, std::optional<Station> station = {}, std::string subject = {});
  /// An edit with what it does; one that can't be done says why.
  void deed(double fit, Result<Edit> edit, Station station, std::string subject = {});
  void refusal(double fit, const std::string& why, Station station, std::string subject = {});
};

}  // namespace rigging
