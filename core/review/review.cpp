#include "review/review.h"

#include <algorithm>

#include "base/find.h"
#include "base/json.h"
#include "direction/direction_checks.h"
#include "proof/hand_steps.h"
#include "review/rules.h"
#include "review/stations.h"

namespace rigging {
namespace {

Readiness readiness_of(const Rig& rig, const Review& r) {
  const auto grounding =
      std::count_if(r.snags.begin(), r.snags.end(), [](const Snag& n) { return n.severity == Severity::grounds; });
  const auto in = [&](ProofState s) {
    return std::count_if(r.checks.begin(), r.checks.end(),
                         [&](const CheckStatus& c) { return c.state == s && !c.family->guides; });
  };
  const auto fresh = in(ProofState::fresh), all = std::count_if(r.checks.begin(), r.checks.end(),
                                                                [](const CheckStatus&c) { return !c.family->guides; });
  const auto loose = static_cast<std::ptrdiff_t>(rig.loose_ends.size() + r.due.size());
  // Without directions nothing is driven yet, and nothing is ready.
  const auto directions =
      std::count_if(r.checks.begin(), r.checks.end(), [](const CheckStatus& c) { return is_direction(c.id); });
  Readiness ready;
  ready.ready = grounding == 0 && fresh == all && directions > 0 && loose == 0;
  if (ready.ready) {
    const bool simulated =
        std::any_of(rig.proofs.begin(), rig.proofs.end(), [](const Proof& p) { return p.simulated; });
    ready.words = "Leads, sticks, surfaces and directions proven" + std::string(simulated ? " (simulated bench)" : "") +
                  ": " + std::to_string(fresh) + " of " + std::to_string(all) + " checks fresh, nothing grounds it";
    return ready;
  }
  const auto add = [&](std::ptrdiff_t n, const std::string& one, const std::string& many) {
    if (n > 0) ready.words += (ready.words.empty() ? "" : ", ") + std::to_string(n) + " " + (n == 1 ? one : many);
  };
  add(grounding, "thing grounds it", "things ground it");
  add(in(ProofState::none), "check to do", "checks to do");
  add(in(ProofState::stale), "proof gone stale", "proofs gone stale");
  add(in(ProofState::provisional), "proof provisional", "proofs provisional");
  add(loose, "loose end", "loose ends");
  if (ready.words.empty()) ready.words = "nothing to prove yet";
  const auto proven = std::count_if(r.checks.begin(), r.checks.end(), [](const CheckStatus& c) {
    return is_direction(c.id) && c.state == ProofState::fresh;
  });
  ready.words =
      (directions > 0 && proven == directions ? "Directions proven; not ready: " : "Not ready: ") + ready.words;
  return ready;
}

StationState state_of(const StationEntry& entry, const Rig& rig, const Review& r) {
  const bool serious = std::any_of(r.snags.begin(), r.snags.end(), [&](const Snag& s) {
    return s.station == entry.station && s.severity != Severity::worth_knowing;
  });
  const bool started = !entry.started || entry.started(rig, r);
  // What no lead feeds is the wiring's business, too, whichever station says so.
  const bool dark =
      entry.station == Station::wiring && started &&
      std::any_of(r.reports.power().consumers.begin(), r.reports.power().consumers.end(),
                  [](const ConsumerReport& c) { return !c.powered[static_cast<std::size_t>(SupplyState::battery)]; });
  std::vector<ProofState> own, all;
  for (const CheckStatus& c : r.checks) {
    if (c.family->guides) continue;
    if (c.family->station == entry.station) own.push_back(c.state);
    if (c.family->station == entry.station || c.family->counts_for == entry.station) all.push_back(c.state);
  }
  const auto every = [](const std::vector<ProofState>& states, ProofState s) {
    return !states.empty() && std::all_of(states.begin(), states.end(), [s](ProofState x) { return x == s; });
  };
  const bool stale = std::count(own.begin(), own.end(), ProofState::stale) > 0;
  // The proof station says what has gone stale before it says what is missing.
  if (entry.station == Station::proof && stale) return StationState::stale;
  if (serious || dark) return StationState::snags;
  if (every(all, ProofState::fresh)) return StationState::proven;
  if (!started) return StationState::unknown;
  return stale ? StationState::stale : StationState::planned;
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

namespace {

/// What can't be judged before anything is wired: one snag says so for all of them.
bool waits_for_wiring(const Rig& rig, std::string_view code) {
  if (!rig.leads.empty()) return false;
  for (const std::string_view c : {"POWER-02", "POWER-14", "POWER-26", "WIRING-06", "WIRING-13", "WIRING-21"})
    if (code == c) return true;
  return false;
}

/// What rests on the reports: checks, snags, readiness, the state of each station.
Review concluded(Reports reports) {
  Review r{std::move(reports)};
  const Rig& rig = r.reports.rig();
  const Catalogue& catalogue = r.reports.catalogue();
  r.checks = check_statuses(rig, catalogue);
  r.due = due_loose_ends({rig, catalogue});
  std::vector<Snag> snags = found_by_rules({r.reports, r.checks, r.due}, Tier::at_once);
  if (std::any_of(snags.begin(), snags.end(), [](const Snag& s) { return s.code == nothing_wired_code; }))
    std::erase_if(snags, [&](const Snag& s) { return waits_for_wiring(rig, s.code); });
  std::stable_sort(snags.begin(), snags.end(), [](const Snag& a, const Snag& b) { return a.severity < b.severity; });
  r.snags = std::move(snags);
  r.readiness = readiness_of(rig, r);
  r.stations.resize(station_count());
  for (const StationEntry& e : stations()) r.stations[static_cast<std::size_t>(e.station)] = state_of(e, rig, r);
  return r;
}

}  // namespace

std::vector<Snag> found_by_rules(const Inspection& inspection, Tier tier) {
  std::vector<Snag> snags;
  for (const StationEntry& entry : stations())
    for (const Rule& rule : entry.rules) {
      if (rule.tier != tier) continue;
      Findings found(rule.code, rule.station, rule.source, snags);
      rule.inspect(inspection, found);
    }
  return snags;
}

Fix sets(std::string label, std::vector<PlacedValue> values) {
  auto edit = [label, values = std::move(values)](const Rig& rig, const Catalogue&) {
    std::vector<std::pair<std::string, Json>> all;
    for (const auto& [place, value] : values)
      all.emplace_back(place, std::visit([](const auto& v) { return Json(v); }, value));
    return set_values(rig, all).map([&](Edit made) { return Edit{std::move(made.rig), label}; });
  };
  return {std::move(label), std::move(edit)};
}

Review review(const Rig& rig, const Catalogue& catalogue) { return concluded(Reports(rig, catalogue)); }
Review review_after(const Rig& rig, const Review& before) { return concluded(before.reports.after(rig)); }

std::vector<Snag> only_in(const std::vector<Snag>& one, const std::vector<Snag>& other) {
  std::vector<Snag> all;
  for (const Snag& s : one)
    if (s.station != Station::proof && std::none_of(other.begin(), other.end(), [&](const Snag& o) {
          return o.code == s.code && o.subject == s.subject;
        }))
      all.push_back(s);
  return all;
}

Json review_to_json(const Rig& rig, const Review& r) {
  Json json{{"ready", r.readiness.ready},    {"words", r.readiness.words},  {"snags", Json::array()},
            {"stale_proofs", Json::array()}, {"loose_ends", Json::array()}, {"checks", Json::array()}};
  for (const Snag& s : r.snags)
    json["snags"].push_back({{"code", s.code},
                             {"severity", name_of(s.severity)},
                             {"station", name_of(s.station)},
                             {"subject", s.subject},
                             {"what", s.what},
                             {"why", s.why},
                             {"remedy", s.remedy},
                             {"source", s.source},
                             {"fixable", s.fix.has_value()}});
  for (const CheckStatus& c : r.checks) {
    json["checks"].push_back({{"check", c.id.text()},
                              {"family", c.id.family},
                              {"subject", c.id.subject},
                              {"station", name_of(c.family->station)},
                              {"state", name_of(c.state)},
                              {"at", c.at},
                              {"holds", c.holds},
                              {"why_not", c.why_not}});
    if (c.state == ProofState::stale)
      json["stale_proofs"].push_back({{"check", c.id.text()}, {"because", c.because()}});
  }
  std::vector<LooseEnd> loose = rig.loose_ends;
  loose.insert(loose.end(), r.due.begin(), r.due.end());
  for (const LooseEnd& l : loose) json["loose_ends"].push_back({{"id", l.id}, {"text", l.text}});
  return json;
}

Station station_of(const Review& r, const Snag& snag) {
  const CheckStatus* check = snag.station == Station::proof ? find_check(r.checks, snag.subject) : nullptr;
  return check && check->family->by_station ? check->family->station : snag.station;
}

}  // namespace rigging
