#include "review/review.h"

#include <algorithm>

#include "base/find.h"
#include "base/json.h"
#include "review/rules.h"

namespace rigging {
namespace {

Readiness readiness_of(const Rig& rig, const Review& r) {
  const auto count = [&](Severity s) {
    return std::count_if(r.snags.begin(), r.snags.end(), [&](const Snag& n) { return n.severity == s; });
  };
  const auto directions = [&](ProofState s) {
    return std::count_if(r.checks.begin(), r.checks.end(), [&](const CheckStatus& c) { return c.state == s; });
  };
  const auto in = [&](ProofState s) {
    return directions(s) + std::count_if(r.measured.begin(), r.measured.end(),
                                         [&](const MeasuredStatus& m) { return m.standing.state == s; });
  };
  const auto fresh = in(ProofState::fresh), all = static_cast<std::ptrdiff_t>(r.checks.size() + r.measured.size());
  Readiness ready;
  ready.ready = count(Severity::grounds) == 0 && fresh == all && !r.checks.empty() && rig.loose_ends.empty();
  if (ready.ready) {
    const bool simulated =
        std::any_of(rig.proofs.begin(), rig.proofs.end(), [](const Proof& p) { return p.simulated; });
    ready.words = "Sticks, surfaces and directions proven" + std::string(simulated ? " (simulated bench)" : "") + ": " +
                  std::to_string(fresh) + " of " + std::to_string(all) + " checks fresh, nothing grounds it";
    return ready;
  }
  const auto add = [&](std::ptrdiff_t n, const std::string& one, const std::string& many) {
    if (n > 0) ready.words += (ready.words.empty() ? "" : ", ") + std::to_string(n) + " " + (n == 1 ? one : many);
  };
  add(count(Severity::grounds), "thing grounds it", "things ground it");
  add(in(ProofState::none), "check to do", "checks to do");
  add(in(ProofState::stale), "proof gone stale", "proofs gone stale");
  add(in(ProofState::provisional), "proof provisional", "proofs provisional");
  add(static_cast<std::ptrdiff_t>(rig.loose_ends.size()), "loose end", "loose ends");
  if (ready.words.empty()) ready.words = "nothing to prove yet";
  const bool directions_proven =
      !r.checks.empty() && directions(ProofState::fresh) == static_cast<std::ptrdiff_t>(r.checks.size());
  ready.words = (directions_proven ? "Directions proven; not ready: " : "Not ready: ") + ready.words;
  return ready;
}

StationState state_of(Station station, const Rig& rig, const Review& r) {
  const bool read = station == Station::sticks && r.sticks.all_read;
  const bool about_parts = station == Station::fit || station == Station::power || station == Station::wiring;
  const bool built = station == Station::airframe || station == Station::surfaces || station == Station::proof ||
                     read || (about_parts && !rig.parts.empty());
  const auto serious = std::any_of(r.snags.begin(), r.snags.end(), [&](const Snag& s) {
    return s.station == station && s.severity != Severity::worth_knowing;
  });
  if (station == Station::proof) {
    const auto any = [&](ProofState s) {
      return std::any_of(r.checks.begin(), r.checks.end(), [&](const CheckStatus& c) { return c.state == s; });
    };
    if (any(ProofState::stale)) return StationState::stale;
    if (!r.checks.empty() &&
        std::all_of(r.checks.begin(), r.checks.end(),
                    [](const CheckStatus& c) { return c.state == ProofState::fresh; }) &&
        !serious)
      return StationState::proven;
    return serious ? StationState::snags : StationState::unknown;
  }
  if (serious) return StationState::snags;
  if (!built) return StationState::unknown;
  if (station == Station::wiring && !r.leads.empty()) {
    const auto is = [&](ProofState s) { return [s](const LeadStatus& l) { return l.standing.state == s; }; };
    if (std::any_of(r.leads.begin(), r.leads.end(), is(ProofState::stale))) return StationState::stale;
    return std::all_of(r.leads.begin(), r.leads.end(), is(ProofState::fresh)) ? StationState::proven
                                                                              : StationState::planned;
  }
  if (station != Station::sticks && station != Station::surfaces) return StationState::planned;
  const auto state = [&](MeasuredCheck check) {
    const MeasuredStatus* m = find_in(r.measured, [&](const MeasuredStatus& x) { return x.check == check; });
    return m ? m->standing.state : ProofState::none;
  };
  const bool sticks = station == Station::sticks;
  const std::array pair{state(sticks ? MeasuredCheck::sticks_calibrated : MeasuredCheck::surfaces_centred),
                        state(sticks ? MeasuredCheck::loss_noticed : MeasuredCheck::throws_equal)};
  if (std::count(pair.begin(), pair.end(), ProofState::stale) > 0) return StationState::stale;
  // A surface is proven when it was measured and every stick check on it is.
  const bool moves_right =
      sticks || (!r.checks.empty() && std::all_of(r.checks.begin(), r.checks.end(), [](const CheckStatus& c) {
        return c.check.kind != CheckKind::stick || c.state == ProofState::fresh;
      }));
  const bool measured = std::count(pair.begin(), pair.end(), ProofState::fresh) == 2;
  return measured && moves_right ? StationState::proven : StationState::planned;
}

}  // namespace

Snag& Findings::add(Severity severity, std::string subject, std::string what, std::string why, std::string remedy) {
  return snags_.emplace_back(Snag{std::string(code_),
                                  severity,
                                  station_,
                                  std::move(subject),
                                  std::move(what),
                                  std::move(why),
                                  std::move(remedy),
                                  source_,
                                  {}});
}

Review review(const Rig& rig, const Catalogue& catalogue) {
  Review r;
  r.airframe = analyze_airframe(rig);
  r.surfaces = analyze_surfaces(rig);
  r.loads = analyze_loads(rig, catalogue, r.airframe, r.surfaces);
  r.power = analyze_power(rig, catalogue, {}, &r.loads);
  r.fit = analyze_fit(rig, catalogue, r.airframe, r.power);
  r.wiring = analyze_wiring(rig, catalogue);
  r.sticks = analyze_sticks(rig, catalogue);
  r.measured = measured_statuses(rig, catalogue);
  const ControllerClass* controller = catalogue.controller(rig.controller.kind);
  r.leads = lead_statuses(rig);
  if (controller) r.checks = check_statuses(rig, *controller);
  const Inspection inspection{rig, catalogue, controller, r};
  std::vector<Snag> snags;
  for (const auto* rules : {&airframe_rules(), &fit_rules(), &power_rules(), &wiring_rules(), &sticks_rules(),
                            &surfaces_rules(), &senses_rules(), &proof_rules()})
    for (const Rule& rule : *rules) {
      Findings found(rule.code, rule.station, rule.source, snags);
      rule.inspect(inspection, found);
    }
  std::stable_sort(snags.begin(), snags.end(), [](const Snag& a, const Snag& b) { return a.severity < b.severity; });
  r.snags = std::move(snags);
  r.readiness = readiness_of(rig, r);
  for (const Station s : all_stations) r.stations[static_cast<std::size_t>(s)] = state_of(s, rig, r);
  return r;
}

Json review_to_json(const Rig& rig, const Review& r) {
  Json json{{"ready", r.readiness.ready},    {"words", r.readiness.words},  {"snags", Json::array()},
            {"stale_proofs", Json::array()}, {"loose_ends", Json::array()}, {"checks", Json::array()}};
  for (const Snag& s : r.snags)
    json["snags"].push_back({{"code", s.code},
                             {"severity", word(s.severity)},
                             {"station", word(s.station)},
                             {"subject", s.subject},
                             {"what", s.what},
                             {"why", s.why},
                             {"remedy", s.remedy},
                             {"source", s.source},
                             {"fixable", s.fix.has_value()}});
  for (const CheckStatus& c : r.checks) {
    json["checks"].push_back({{"check", c.check.id}, {"state", word(c.state)}, {"at", c.at}});
    if (c.state == ProofState::stale) json["stale_proofs"].push_back({{"check", c.check.id}, {"because", c.because}});
  }
  json["leads"] = Json::array();
  for (const LeadStatus& l : r.leads) {
    json["leads"].push_back({{"lead", l.lead}, {"state", word(l.standing.state)}, {"at", l.standing.at}});
    if (l.standing.state == ProofState::stale)
      json["stale_proofs"].push_back({{"check", "lead." + l.lead}, {"because", l.standing.because}});
  }
  json["measured"] = Json::array();
  for (const MeasuredStatus& m : r.measured) {
    json["measured"].push_back({{"check", m.id},
                                {"state", word(m.standing.state)},
                                {"at", m.standing.at},
                                {"holds", m.holds},
                                {"why_not", m.why_not}});
    if (m.standing.state == ProofState::stale)
      json["stale_proofs"].push_back({{"check", m.id}, {"because", m.standing.because}});
  }
  for (const LooseEnd& l : rig.loose_ends) json["loose_ends"].push_back({{"id", l.id}, {"text", l.text}});
  return json;
}

Station place_of(const Snag& snag) {
  const auto dot = snag.subject.find('.');
  if (snag.station != Station::proof || dot == std::string::npos) return snag.station;
  return from_word<Station>(snag.subject.substr(0, dot)).value_or(snag.station);
}

std::string station_question(Station station) {
  switch (station) {
    case Station::airframe: return "What am I building, and with which controller?";
    case Station::fit: return "Where does everything go, which way up?";
    case Station::power: return "Will the five-volt rail hold?";
    case Station::wiring: return "What plugs in where?";
    case Station::sticks: return "Does the controller hear what I mean?";
    case Station::surfaces: return "Does everything move the right way, by the right amount?";
    case Station::senses: return "Does it know which way is up and north?";
    case Station::feel: return "How hard may it correct?";
    case Station::home: return "What happens when the link goes?";
    case Station::proof: return "Is it ready?";
    case Station::logbook: return "What did the flight tell me?";
  }
  return {};
}

}  // namespace rigging
