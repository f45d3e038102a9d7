#include "ask/found.h"

namespace rigging {

void Found::answer(double fit, std::string text, std::optional<Station> station, std::string subject) {
  if (fit <= 0 || text.empty()) return;
  Interpretation a;
  a.text = std::move(text), a.fit = fit, a.station = station, a.subject = std::move(subject);
  all.push_back(std::move(a));
}

void Found::deed(double fit, Result<Edit> edit, Station station, std::string subject) {
  if (!edit) return refusal(fit, edit.error().text(), station, std::move(subject));
  answer(fit, edit->label, station, std::move(subject));
  all.back().edit = std::move(*edit);
}

void Found::refusal(double fit, const std::string& why, Station station, std::string subject) {
  answer(fit, "Not possible: " + why, station, std::move(subject));
}

}  // namespace rigging
