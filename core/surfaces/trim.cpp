#include "surfaces/trim.h"

#include <algorithm>
#include <cmath>

#include "base/find.h"
#include "base/number.h"
#include "rig/path.h"
#include "surfaces/linkage.h"
#include "surfaces/surfaces.h"

namespace rigging {

std::string trim_words(const ControllerClass& c) {
  const std::string mode(name_of(c.surfaces.trims_in));
  switch (c.surfaces.trim) {
    case TrimKeeping::never: return {};
    case TrimKeeping::by_itself:
      return "Automatic trim moves the centres of the outputs while " + mode +
             " mode flies straight and level, and keeps "
             "them every " +
             number_text(c.surfaces.trim_every_s, 0) +
             " s. Board and rig then differ rightly: take the centres over from the board.";
    case TrimKeeping::on_request:
      return "It stores the trim that was flown in " + mode +
             " mode when it is told to; the transmitter's trims go back to the middle then.";
  }
  return {};
}

std::optional<double> read_at(const Linkage& l, double pulse_us) {
  std::vector<ThrowReading> sorted = l.readings;
  std::sort(sorted.begin(), sorted.end(), [](const auto& a, const auto& b) { return a.pulse_us < b.pulse_us; });
  for (std::size_t i = 1; i < sorted.size(); ++i) {
    const ThrowReading &a = sorted[i - 1], &b = sorted[i];
    if (pulse_us < a.pulse_us || pulse_us > b.pulse_us || b.pulse_us - a.pulse_us < 1) continue;
    return a.up_deg + (b.up_deg - a.up_deg) * (pulse_us - a.pulse_us) / (b.pulse_us - a.pulse_us);
  }
  return std::nullopt;
}

Rig with_flown_trim(const Rig& before, Rig after) {
  constexpr double most_trim_us = 150;
  for (Output& o : after.outputs) {
    const Output* was = before.output(o.id);
    if (!was || o.surfaces.empty() || was->centre_us == o.centre_us ||
        std::abs(was->centre_us - o.centre_us) > most_trim_us)
      continue;
    Output same = o;
    same.centre_us = was->centre_us;
    if (!(same == *was)) continue;  // more than a trim
    for (const Surface s : o.surfaces)
      if (Linkage* l = after.linkage(s))
        if (const auto deg = read_at(*l, o.centre_us)) {
          l->want_neutral_deg = std::clamp(std::round(*deg * 100) / 100, -30.0, 30.0);
          // The lines between the readings say what a gauge would read there.
          l->readings.push_back({o.centre_us, *l->want_neutral_deg, {}});
        }
    const std::string centre = path_of({"outputs", o.id, "centre_us"});
    for (Proof& p : after.proofs) {
      const auto it = p.depends_on.find(centre);
      if (it == p.depends_on.end() || it->second != Value(was->centre_us)) continue;
      it->second = o.centre_us;
      for (const Surface s : o.surfaces)
        if (const Linkage* l = after.linkage(s); l && l->want_neutral_deg)
          p.depends_on[path_of({"linkages", s.name(), "want_neutral_deg"})] = *l->want_neutral_deg;
    }
  }
  return after;
}

}  // namespace rigging
