#include "rig/feel.h"

#include "base/find.h"
#include "rig/ranges.h"

namespace rigging {
namespace {

constexpr Span share{0, 1}, factor{0.01, 100}, rate_deg_s{5, 1000}, wind_m_s{0, 40};

}  // namespace

const AxisGain* Feel::gain(Axis axis) const {
  return find_in(gains, [axis](const AxisGain& g) { return g.axis == axis; });
}
AxisGain& Feel::made_gain(Axis axis) {
  AxisGain* known = find_in(gains, [axis](const AxisGain& g) { return g.axis == axis; });
  if (known) return *known;
  AxisGain& made = gains.emplace_back();
  made.axis = axis;
  return made;
}
const LearnedGain* Feel::learnt(Axis axis) const {
  return find_in(learned, [axis](const LearnedGain& l) { return l.axis == axis; });
}

template <>
const Members& Described<AxisGain>::members() {
  static const Members all = Describe<AxisGain>()
                                 .needed("axis", &AxisGain::axis)  // places go by it
                                 .member("rate", &AxisGain::rate, share, "rate gain")
                                 .member("level", &AxisGain::level, share, "level gain")
                                 .member("stick", &AxisGain::stick, share, "direct stick share")
                                 .rest(&AxisGain::unknown_members);
  return all;
}

template <>
const Members& Described<LearnedGain>::members() {
  static const Members all = Describe<LearnedGain>()
                                 .needed("axis", &LearnedGain::axis)
                                 .needed("factor", &LearnedGain::factor, factor)
                                 .needed("least", &LearnedGain::least, factor)
                                 .needed("most", &LearnedGain::most, factor)
                                 .member("simulated", &LearnedGain::simulated)
                                 .rest(&LearnedGain::unknown_members);
  return all;
}

template <>
const Members& Described<LogColumn>::members() {
  static const Members all = Describe<LogColumn>()
                                 .needed("meaning", &LogColumn::meaning)
                                 .needed("column", &LogColumn::column)
                                 .member("offset", &LogColumn::offset, {-1e6, 1e6})
                                 .member("factor", &LogColumn::factor, {-1e6, 1e6})
                                 .rest(&LogColumn::unknown_members);
  return all;
}

template <>
const Members& Described<Takeoff>::members() {
  static const Members all = Describe<Takeoff>()
                                 .member("way", &Takeoff::way)
                                 .member("throw_m_s", &Takeoff::throw_m_s, {2, 20}, "speed of the throw")
                                 .member("run_m", &Takeoff::run_m, {1, 2000}, "ground to roll on")
                                 .member("tow_m_s", &Takeoff::tow_m_s, {3, 60}, "speed on tow")
                                 .member("wind_m_s", &Takeoff::wind_m_s, wind_m_s, "wind against")
                                 .member("crosswind_m_s", &Takeoff::crosswind_m_s, wind_m_s, "wind from the side")
                                 .member("steering", &Takeoff::steering)
                                 .member("rough", &Takeoff::rough, {}, "grass")
                                 .rest(&Takeoff::unknown_members);
  return all;
}

template <>
const Members& Described<Feel>::members() {
  static const Members all = Describe<Feel>()
                                 .member("gains", &Feel::gains)
                                 .member("start", &Feel::start)
                                 .member("half_share", &Feel::half_share, {0.02, 0.98}, "effect of the dial's middle")
                                 .member("bank_limit_deg", &Feel::bank_limit_deg, {5, 89}, "bank limit")
                                 .member("nose_limit_deg", &Feel::nose_limit_deg, {5, 89}, "nose limit")
                                 .member("want_roll_deg_s", &Feel::want_roll_deg_s, rate_deg_s, "wanted roll rate")
                                 .member("want_pitch_deg_s", &Feel::want_pitch_deg_s, rate_deg_s, "wanted pitch rate")
                                 .member("takeoff", &Feel::takeoff)
                                 .member("learned", &Feel::learned)
                                 .member("log_columns", &Feel::log_columns)
                                 .rest(&Feel::unknown_members);
  return all;
}

}  // namespace rigging
