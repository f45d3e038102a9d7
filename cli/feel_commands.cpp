#include <cmath>
#include <iostream>
#include <memory>

#include "base/angle.h"
#include "base/file.h"
#include "base/number.h"
#include "command.h"
#include "feel/advice.h"
#include "feel/flown.h"
#include "feel/flyer.h"
#include "feel/oscillation.h"
#include "flight/axis_plant.h"
#include "flight/loop.h"
#include "opened.h"
#include "review/deferred.h"
#include "review/review.h"

namespace rigging::cli {
namespace {

Json or_null(const std::optional<double>& v) { return v ? Json(*v) : Json(); }

void loop(const std::string& file, Session& session) {
  const auto json = read_json_file(file);
  const auto l = json.and_then([&](const Json& j) { return loop_from_json(j, file); });
  if (!l) return session.refuse(l.error());
  const LoopMargins m = margins_of(*l);
  // A loop that runs away without swinging does not shake.
  const bool shakes = m.onset && m.onset->hz > 0;
  const std::optional<double> turns = m.stable ? full_stick_rate(*l) : std::nullopt;
  if (session.json) {
    Json all = {{"stable", m.stable},
                {"gain_margin_db", or_null(m.gain_margin_db)},
                {"shakes_at_rate_gain", shakes ? Json(m.onset->rate_gain) : Json()},
                {"shakes_at_hz", shakes ? Json(m.onset->hz) : Json()},
                {"phase_margin_deg", or_null(m.phase_margin_deg)},
                {"crossover_hz", or_null(m.crossover_hz)}};
    if (l->stick_rad != 0) all["full_stick_rate_rad_s"] = or_null(turns);
    return session.print(all);
  }
  std::cout << (m.stable ? "Calm." : "Not stable.") << '\n';
  if (shakes)
    std::cout << "  shakes from a rate gain of " << number_text(m.onset->rate_gain, 4) << " on, at "
              << number_text(m.onset->hz, 2) << " Hz\n";
  else if (m.onset)
    std::cout << "  runs away from a rate gain of " << number_text(m.onset->rate_gain, 4) << " on\n";
  if (m.gain_margin_db) std::cout << "  gain margin " << number_text(*m.gain_margin_db, 1) << " dB\n";
  if (m.phase_margin_deg)
    std::cout << "  phase margin " << number_text(*m.phase_margin_deg, 1) << "° at " << number_text(*m.crossover_hz, 2)
              << " Hz\n";
  if (turns) std::cout << "  full stick turns at " << number_text(*turns, 4) << " rad/s\n";
}

Json point_json(const MarginPoint& p) {
  return {{"airspeed_m_s", p.m_s},
          {"shakes_at_gain_s", p.shakes_s},
          {"shakes_least_s", p.shakes_least_s},
          {"shakes_most_s", p.shakes_most_s},
          {"shakes_at_hz", p.hz},
          {"calm_gain_s", p.calm_s}};
}

void margins(const Opened& o, Session& session) {
  const FeelReport r = analyze_feel({o.rig, o.catalogue});
  const ControllerClass* c = o.catalogue.controller(o.rig.controller.kind);
  if (!r.missing.empty() || !c) return session.refuse({"margins", r.missing, ""});
  const GainScale scale(*c, o.rig.feel.half_share);
  Json json{{"fast_m_s", r.fast_m_s}, {"axes", Json::array()}};
  for (const AxisFeel& a : r.axes) {
    Json line{{"axis", name_of(a.axis)}, {"why_not", a.why_not}};
    if (a.known()) {
      line["gain_at_most_s"] = a.path.full_gain_s;
      line["gain_s"] = a.gain_s > 0 ? Json(a.gain_s) : Json();
      line["shakes_from_m_s"] = or_null(a.shakes_from_m_s);
      line["may_shake_from_m_s"] = or_null(a.may_shake_from_m_s);
      line["calm_place"] = a.calm_place;
      line["figures"] = Json::array();
      for (const Figure& f : a.path.figures) line["figures"].push_back(figure_json(f));
      for (const auto& [name, curve] : {std::pair{"rate", &a.rate}, {"level", &a.level}}) {
        line[name] = Json::array();
        for (const MarginPoint& p : *curve) line[name].push_back(point_json(p));
      }
    }
    json["axes"].push_back(line);
  }
  if (session.json) return session.print(json);
  for (const AxisFeel& a : r.axes) {
    std::cout << capital(std::string(name_of(a.axis))) << ": ";
    if (!a.known()) {
      std::cout << a.why_not << '\n';
      continue;
    }
    std::cout << "calm at " << number_text(r.fast_m_s, 1) << " m/s up to " << number_text(a.calm_gain_s, 3) << " s";
    if (scale.settable())
      std::cout << (a.calm_place > 1 ? ", more than it can be set to" : ", " + scale.words(a.calm_place));
    std::cout << "; shakes from " << number_text(a.shakes_gain_s, 3) << " s on at " << number_text(a.shakes_hz, 1)
              << " Hz\n";
    for (const MarginPoint& p : {a.stricter().front(), a.stricter()[a.stricter().size() / 2], a.stricter().back()})
      std::cout << "  at " << number_text(p.m_s, 1) << " m/s: calm to " << number_text(p.calm_s, 3) << " s, shakes at "
                << number_text(p.shakes_s, 3) << " (" << number_text(p.shakes_least_s, 3) << "–"
                << number_text(p.shakes_most_s, 3) << ") s, " << number_text(p.hz, 1) << " Hz\n";
    if (a.shakes_from_m_s) std::cout << "  as set it shakes from " << number_text(*a.shakes_from_m_s, 1) << " m/s on\n";
  }
}

void advise(const Opened& o, Session& session) {
  const Review checked = review(o.rig, o.catalogue);
  const FeelReport r = analyze_feel(checked.reports);
  if (!r.missing.empty()) return session.refuse({"advise", r.missing, ""});
  const FeelAdvice a = advise_feel(o.rig, o.catalogue, r);
  DeferredReview deferred;
  deferred.feel = r;
  deferred.engine = engine_of(checked.reports, r.aeroplane);
  const TakeoffAdvice off = takeoff_advice(checked, deferred);
  if (session.json) {
    Json json{{"first", Json::array()}, {"steps", Json::array()}, {"throws", Json::array()}, {"bench", a.bench},
              {"rates", a.rates},       {"launch", a.launch},     {"cautions", a.cautions}};
    json["takeoff"] = {{"go", off.go},
                       {"not_yet", off.not_yet},
                       {"lines", off.lines},
                       {"cautions", off.cautions},
                       {"speed_m_s", off.speed_m_s},
                       {"needed_m_s", off.needed_m_s},
                       {"drop_m", off.drop_m},
                       {"run_m", off.run_m},
                       {"climb_deg", off.climb_deg},
                       {"push_m_s2", off.push_m_s2}};
    for (const FirstGain& f : a.first)
      json["first"].push_back({{"axis", name_of(f.axis)}, {"place", f.place}, {"set", f.set}, {"why", f.why}});
    for (const GainStep& s : a.steps)
      json["steps"].push_back({{"axis", name_of(s.axis)},
                               {"place", s.place},
                               {"set", s.set},
                               {"airspeed_m_s", s.m_s},
                               {"watch", s.watch},
                               {"back_off", s.back_off}});
    for (const FeelAdvice::Throw& t : a.throws)
      json["throws"].push_back({{"axis", name_of(t.axis)}, {"share", t.share}, {"words", t.words}});
    return session.print(json);
  }
  const auto list = [](const char* title, const std::vector<std::string>& lines) {
    if (lines.empty()) return;
    std::cout << title << '\n';
    for (const std::string& l : lines) std::cout << "  " << l << '\n';
  };
  list("Cautions", a.cautions);
  std::vector<std::string> first, steps, throws;
  for (const FirstGain& f : a.first)
    first.push_back(capital(std::string(name_of(f.axis))) + ": " + f.set + ". " + f.why);
  for (const GainStep& s : a.steps)
    steps.push_back(capital(std::string(name_of(s.axis))) + ": " + s.set + ", at " + number_text(s.m_s, 1) +
                    " m/s. Watch for " + s.watch + ". " + s.back_off);
  for (const FeelAdvice::Throw& t : a.throws)
    if (throws.empty() || throws.back() != t.words) throws.push_back(t.words);
  list("First flight", first);
  list(first.empty() ? "The linkage sets the gain" : "Less throw makes it less", throws);
  list("On the bench", a.bench);
  list("Rates", a.rates);
  list(off.go ? "Take-off: go, says the plan" : "Take-off: not yet", off.not_yet);
  list("At the take-off", off.cautions);
  list("Numbers of the take-off", off.lines);
  list("Launch", a.launch);
  list("Then, one a flight", steps);
}

Json episode_json(const Episode& e) {
  return {{"axis", name_of(e.axis)},
          {"from_s", e.from_s},
          {"to_s", e.to_s},
          {"frequency_hz", e.frequency_hz},
          {"amplitude_deg_s", e.amplitude_deg_s},
          {"kind", name_of(e.kind)},
          {"why", e.why}};
}

struct FlyWords {
  FlyOptions options;
  std::string mode = "rate", csv, tug;
  int others = 0;
  std::vector<std::string> reversed;
};

void fly_command(const Opened& o, const FlyWords& words, Session& session) {
  FlyOptions options = words.options;
  const auto mode = from_name<Mode>(words.mode);
  if (!mode) return session.refuse({"--mode", "\"" + words.mode + "\"", choice_of<Mode>()});
  options.mode = *mode;
  for (const std::string& r : words.reversed) {
    const auto axis = from_name<Axis>(r);
    if (!axis) return session.refuse({"--reversed", "\"" + r + "\"", choice_of<Axis>()});
    options.truth.reversed[static_cast<std::size_t>(index_of(*axis))] = true;
  }
  if (!words.tug.empty()) {
    const auto axis = from_name<Axis>(words.tug);
    if (!axis) return session.refuse({"--tug", "\"" + words.tug + "\"", choice_of<Axis>()});
    options.sticks = tug_at(*axis);
  }
  Progress progress;
  const auto band = fly_band(o.rig, o.catalogue, options, words.others, progress);
  if (!band) return session.refuse(band.error());
  const Flight* flight = &band->expected;
  if (!words.csv.empty())
    if (const auto written = write_file_atomically(words.csv, flight->csv()); !written)
      return session.refuse(written.error());
  const Seen& seen = band->seen;
  session.status = flight->end.empty() ? good : found_wrong;
  const double seconds = static_cast<double>(flight->size()) * flight->step_s;
  if (session.json) {
    Json json{{"simulated", true},
              {"seconds", seconds},
              {"end", flight->end},
              {"lowest_m", flight->lowest_m},
              {"airspeed_m_s", seen.airspeed_m_s},
              {"asked_m_s", flight->asked_m_s},
              {"words", seen.words},
              {"axes", Json::array()},
              {"episodes", Json::array()}};
    for (const Axis axis : all_axes) {
      const auto i = static_cast<std::size_t>(index_of(axis));
      json["axes"].push_back(
          {{"axis", name_of(axis)}, {"rate_rms_deg_s", seen.rms_deg_s[i]}, {"most_correction", seen.correction[i]}});
    }
    for (const Episode& e : seen.episodes) json["episodes"].push_back(episode_json(e));
    if (band->others > 0) json["others"] = {{"flown", band->others}, {"shook", band->shook}, {"ended", band->ended}};
    return session.print(json);
  }
  std::cout << "Simulated, " << number_text(seconds, 1) << " s. " << seen.words << '\n';
  for (const Episode& e : seen.episodes)
    std::cout << "  " << name_of(e.axis) << ", " << name_of(e.kind) << ": " << e.why << '\n';
  if (band->others > 0)
    std::cout << "  Of " << band->others << " that it may turn out to be, " << band->shook << " shook and "
              << band->ended << " came to the ground.\n";
}

void oscillation(const std::string& file, Session& session) {
  const auto text = read_file(file, std::size_t{512} << 20);
  if (!text) return session.refuse(text.error());
  const auto log = parse_flight_log(*text, file);
  if (!log) return session.refuse(log.error());
  const std::vector<Episode> episodes = oscillations_in(*log);
  if (session.json) {
    Json json{{"episodes", Json::array()}};
    for (const Episode& e : episodes) json["episodes"].push_back(episode_json(e));
    return session.print(json);
  }
  if (episodes.empty()) std::cout << "Nothing but gusts and the stick.\n";
  for (const Episode& e : episodes)
    std::cout << number_text(e.from_s, 1) << " to " << number_text(e.to_s, 1) << " s, " << name_of(e.axis) << ", "
              << name_of(e.kind) << ": " << e.why << '\n';
}

void flight(const Opened& o, Session& session) {
  const Reports r = o.reports();
  const auto plane = aeroplane_of(o.rig, o.catalogue, r.airframe(), r.fit().balance);
  if (!plane) return session.refuse(plane.error());
  const auto controls = axis_controls(*plane, r.surfaces());
  const double speeds[] = {1.3 * plane->stall_m_s, plane->cruise_m_s, plane->dive_m_s};
  if (!session.json) {
    std::cout << number_text(plane->mass_kg, 3) << " kg, balance point " << number_text(1000 * plane->balance_m, 0)
              << " mm behind the nose"
              << (plane->balance_assumed ? ", as wanted: not everything is weighed and placed" : "") << '\n';
    for (const Figure& f : plane->figures()) std::cout << "  " << f.name << ": " << figure_text(f) << '\n';
    return;
  }
  Json json{{"mass_kg", plane->mass_kg},
            {"balance_m", plane->balance_m},
            {"balance_assumed", plane->balance_assumed},
            {"stall_m_s", plane->stall_m_s},
            {"cruise_m_s", plane->cruise_m_s},
            {"dive_m_s", plane->dive_m_s},
            {"figures", Json::array()},
            {"axes", Json::array()}};
  for (const Figure& f : plane->figures()) json["figures"].push_back(figure_json(f));
  for (const Axis axis : all_axes) {
    const AxisControl& c = controls[static_cast<std::size_t>(index_of(axis))];
    Json line{{"axis", name_of(axis)},
              {"throw_deg", c.throw_rad / rad},
              {"effect_per_rad", c.effect},
              {"by_motors", c.by_motors},
              {"at", Json::array()}};
    if (c.throw_rad > 0)
      for (const double v : speeds) {
        const RatePlant p = plant_of(*plane, c, axis, v);
        line["at"].push_back({{"airspeed_m_s", v}, {"numerator", p.numerator()}, {"denominator", p.denominator()}});
      }
    json["axes"].push_back(line);
  }
  session.print(json);
}

}  // namespace

void add_feel_commands(CLI::App& app, Session& session) {
  const auto file = std::make_shared<std::string>();
  auto* command = app.add_subcommand("loop", "Margins of one axis of a stabilizer as a linear loop");
  command->add_option("CASE", *file, "Case file (docs/command-line.md)")->required();
  add_json_flag(*command, session);
  command->callback([&session, file] { loop(*file, session); });

  add_rig_command(app, session, "flight", "The aeroplane in numbers: inertia, derivatives, what each axis answers",
                  [&session](const Opened& o) { flight(o, session); });

  add_rig_command(app, session, "margins", "Where each axis begins to shake, against airspeed",
                  [&session](const Opened& o) { margins(o, session); });
  add_rig_command(app, session, "advise", "Gains for the first flight, and the steps from there",
                  [&session](const Opened& o) { advise(o, session); });

  const auto words = std::make_shared<FlyWords>();
  auto* flies = add_rig_command(app, session, "fly", "A flight in simulation, with the stabilizer as it is set",
                                [&session, words](const Opened& o) { fly_command(o, *words, session); });
  flies->add_option("--mode", words->mode, "manual, rate, level or hold");
  flies->add_option("--seconds", words->options.seconds, "How long")->check(number_in(0.1, 600));
  flies->add_option("--airspeed", words->options.m_s, "Airspeed held by the throttle, m/s")->check(number_in(3, 100));
  flies->add_option("--wind", words->options.wind_m_s, "Wind whose gusts it flies in, m/s")->check(number_in(0, 30));
  flies->add_option("--seed", words->options.seed, "Of the gusts");
  flies->add_option("--nose-down", words->options.nose_down_deg, "A dive, degrees below level")
      ->check(number_in(0, 80));
  flies->add_option("--reversed", words->reversed, "Axis whose correction works the wrong way, for showing it");
  flies->add_option("--tug", words->tug, "Axis whose stick is tugged at and let go");
  flies->add_option("--others", words->others, "How many aircraft out of the bands fly as well")
      ->check(CLI::Range(0, 200));
  flies->add_flag("--thrown", words->options.thrown, "From the hand");
  flies->add_option("--csv", words->csv, "Writes the flight as a log");

  command = app.add_subcommand("oscillation", "What shakes in a log of a flight, and why");
  command->add_option("FILE", *file, "Log as comma-separated numbers (docs/command-line.md)")->required();
  add_json_flag(*command, session);
  command->callback([&session, file] { oscillation(*file, session); });
}

}  // namespace rigging::cli
