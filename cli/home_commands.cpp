#include <iostream>
#include <memory>

#include "base/file.h"
#include "base/number.h"
#include "base/units.h"
#include "command.h"
#include "home/arming.h"
#include "home/field_files.h"
#include "home/home.h"
#include "home/modes.h"
#include "home/rehearsal.h"
#include "home/way_home.h"
#include "opened.h"
#include "rig/rig_file.h"

namespace rigging::cli {
namespace {

void wayhome(const std::string& file, Session& session) {
  const auto c = read_json_file(file).and_then([&](const Json& j) { return home_case_from_json(j, file); });
  if (!c) return session.refuse(c.error());
  const WayHome w = way_home(*c);
  if (session.json) {
    const auto with_track = [&w](double value) { return w.track ? Json(value) : Json(); };
    const Track t = w.track.value_or(Track{});
    return session.print({{"arrives", w.arrives},
                          {"keeps_reserve", w.keeps_reserve},
                          {"heading_deg", with_track(t.heading_deg)},
                          {"drift_deg", with_track(t.drift_deg)},
                          {"ground_m_s", with_track(t.ground_m_s)},
                          {"climb_s", with_track(w.climb_s)},
                          {"way_s", with_track(w.way_s)},
                          {"used_mah", with_track(w.used_mah)},
                          {"left_mah", with_track(w.left_mah)},
                          {"least_radius_m", with_track(w.least_radius_m)},
                          {"bank_needed_deg", with_track(w.bank_needed_deg)},
                          {"why", w.why}});
  }
  std::cout << w.why << '\n';
  if (!w.track) return;
  std::cout << "  heads " << number_text(w.track->heading_deg, 0) << "°, drifts " << number_text(w.track->drift_deg, 1)
            << "°, " << number_text(w.track->ground_m_s, 1) << " m/s over the ground\n  takes "
            << number_text(w.used_mah, 0) << " mAh in " << number_text(w.way_s, 0) << " s, "
            << number_text(w.climb_s, 0) << " s of it climbing\n  turns within " << number_text(w.least_radius_m, 0)
            << " m in still air; its circle needs " << number_text(w.bank_needed_deg, 0) << "° of bank\n";
}

void reach(const std::string& file, int bearings, Session& session) {
  const auto c = read_json_file(file).and_then([&](const Json& j) { return reach_case_from_json(j, file); });
  if (!c) return session.refuse(c.error());
  Json json{{"bearings", Json::array()}};
  for (const HomeReach& r : reach_of(*c, bearings)) {
    json["bearings"].push_back(
        {{"bearing_deg", r.bearing_deg}, {"reach_m", r.reach_m}, {"out_and_back_m", r.out_and_back_m}});
    if (!session.json)
      std::cout << number_text(r.bearing_deg, 0) << "°: comes home from " << number_text(r.reach_m, 0)
                << " m, out and back " << number_text(r.out_and_back_m, 0) << " m\n";
  }
  if (session.json) session.print(json);
}

void modes(const Opened& o, Session& session) {
  const ModeDeck deck = mode_deck(o.rig, o.catalogue);
  if (!deck.findings.empty()) session.status = found_wrong;
  Json json{
      {"switches", Json::array()}, {"cases", Json::array()}, {"findings", Json::array()}, {"missing", deck.missing}};
  for (const SwitchLine& s : deck.switches) {
    Json line{{"channel", s.channel}, {"measured", s.measured}, {"positions", Json::array()}};
    for (const SwitchPosition& p : s.positions)
      line["positions"].push_back({{"pulse_us", p.pulse_us}, {"mode", p.mode}, {"guard_us", p.guard_us}});
    json["switches"].push_back(line);
  }
  for (const ModeCase& c : deck.cases)
    json["cases"].push_back({{"positions", c.positions},
                             {"mode", c.mode},
                             {"words", mode_words(c.mode)},
                             {"moves_to_manual", c.moves_to_manual}});
  for (const ModeFinding& f : deck.findings)
    json["findings"].push_back({{"trouble", name_of(f.trouble)}, {"channel", f.channel}, {"words", f.words}});
  if (session.json) return session.print(json);
  if (deck.switches.empty()) std::cout << "No switch position chooses a mode.\n";
  for (const ModeCase& c : deck.cases) {
    for (std::size_t k = 0; k < c.positions.size(); ++k)
      std::cout << "channel " << deck.switches[k].channel << " at "
                << number_text(deck.switches[k].positions[c.positions[k]].pulse_us, 0) << " µs  ";
    std::cout << (c.mode.empty() ? "nothing" : c.mode) << ": " << mode_words(c.mode) << '\n';
  }
  for (const ModeFinding& f : deck.findings) std::cout << "  " << f.words << '\n';
  for (const std::string& m : deck.missing) std::cout << "  For a first flight there is no " << m << ".\n";
}

struct FailsafeOptions {
  std::optional<double> distance_m;
  double bearing_deg = 0, left_share = 0.5;
};

void failsafe(const Opened& o, const FailsafeOptions& options, Session& session) {
  const FeelReport feel = analyze_feel({o.rig, o.catalogue});
  const HomeReport r = analyze_home({o.rig, o.catalogue}, feel);
  if (!r.missing.empty()) return session.refuse({"failsafe", r.missing, ""});
  const HomePlace place{options.distance_m.value_or(o.rig.home.area_m.value_or(300)), options.bearing_deg,
                        r.return_height_m / 2};
  const double left = options.left_share * r.performance.capacity_mah.expected;
  const std::vector<StoryStep> story = loss_story(o.rig, o.catalogue, r, place, left);
  bool good = true;
  for (const StoryStep& s : story) good = good && s.good;
  session.status = good ? cli::good : found_wrong;
  if (session.json) {
    Json json{{"words", r.words},
              {"return_height_m", r.return_height_m},
              {"circle_radius_m", r.circle_radius_m},
              {"least_circle_m", r.least_circle_m},
              {"turn_home_mah", r.turn_home_mah ? Json(r.turn_home_mah->value) : Json()},
              {"turn_home_v", r.turn_home_v ? Json(r.turn_home_v->value) : Json()},
              {"left_mah", left},
              {"figures", Json::array()},
              {"story", Json::array()}};
    for (const Figure& f : r.performance.figures) json["figures"].push_back(figure_json(f));
    for (const StoryStep& s : story)
      json["story"].push_back({{"title", s.title},
                               {"what", s.what},
                               {"good", s.good},
                               {"from_s", s.from_s},
                               {"to_s", s.to_s},
                               {"from_m", s.from_m},
                               {"to_m", s.to_m},
                               {"from_height_m", s.from_height_m},
                               {"to_height_m", s.to_height_m},
                               {"used_mah", s.used_mah}});
    return session.print(json);
  }
  for (const std::string& w : r.words) std::cout << w << '\n';
  std::cout << "The link goes " << field_text(place.distance_m) << " from home, bearing "
            << number_text(place.bearing_deg, 0) << "°, with " << number_text(left, 0) << " mAh:\n";
  for (const StoryStep& s : story)
    std::cout << "  " << number_text(s.from_s, 0) << " s  " << s.title << (s.good ? "" : " (!)") << ": " << s.what
              << '\n';
}

struct RehearseOptions {
  int count = 200;
  std::uint32_t seed = 1;
};

void rehearse_rig(const Opened& o, const RehearseOptions& options, Session& session) {
  const HomeReport r = analyze_home({o.rig, o.catalogue}, analyze_feel({o.rig, o.catalogue}));
  Progress progress;
  const auto table = rehearse_many(o.rig, o.catalogue, r, options.count, options.seed, progress);
  if (!table) return session.refuse(table.error());
  session.status = table->home == table->flown ? cli::good : found_wrong;
  Json json{{"simulated", true},
            {"flown", table->flown},
            {"home", table->home},
            {"kept_reserve", table->kept_reserve},
            {"failed", Json::array()}};
  for (const RehearsalTable::Line& l : table->failed) {
    const RehearsalCase& c = l.first;
    json["failed"].push_back({{"end", name_of(l.end)},
                              {"count", l.count},
                              {"words", l.words},
                              {"distance_m", c.place.distance_m},
                              {"bearing_deg", c.place.bearing_deg},
                              {"height_m", c.place.height_m},
                              {"left_mah", c.left_mah},
                              {"wind_m_s", c.wind.speed_m_s},
                              {"wind_from_deg", c.wind.from_deg}});
  }
  if (session.json) return session.print(json);
  std::cout << "Simulated: " << table->home << " of " << table->flown << " come home, " << table->kept_reserve
            << " with the reserve kept.\n";
  for (const RehearsalTable::Line& l : table->failed)
    std::cout << "  " << l.count << " " << label_of(name_of(l.end)) << ". The first: lost "
              << field_text(l.first.place.distance_m) << " out at " << number_text(l.first.place.bearing_deg, 0)
              << "°, " << field_text(l.first.place.height_m) << " up, " << number_text(l.first.left_mah, 0)
              << " mAh, wind " << speed_text(l.first.wind.speed_m_s) << ". " << l.words << '\n';
}

void arming(const Opened& o, Session& session) {
  const std::vector<std::string> needs = arming_needs(o.rig, o.catalogue);
  Json refusals = Json::array();
  for (const auto& [why, name] : Names<ArmingRefusal>::list) {
    const ArmingReason r = reason_of(
        {why, why == ArmingRefusal::sensor_missing || why == ArmingRefusal::sensor_sick ? "airspeed" : ""}, o.rig);
    refusals.push_back({{"why", name}, {"words", r.words}, {"remedy", r.remedy}});
  }
  if (session.json)
    return session.print({{"needs", needs}, {"checks_on", o.rig.home.checks_before_arming}, {"refusals", refusals}});
  if (needs.empty()) std::cout << "This class locks no motor.\n";
  for (std::size_t i = 0; i < needs.size(); ++i) std::cout << i + 1 << ". " << needs[i] << ".\n";
}

struct FieldOptions {
  double left_share = 0.5;
  bool gpx = false;
  std::string into;
};

void field(const Opened& o, const FieldOptions& options, Session& session) {
  const HomeReport r = analyze_home({o.rig, o.catalogue}, analyze_feel({o.rig, o.catalogue}));
  const double left = options.left_share * r.performance.capacity_mah.expected;
  const ReachBand band =
      r.missing.empty() ? reach_band(r, left, {o.rig.home.wind_m_s, o.rig.home.wind_from_deg}) : ReachBand{};
  const auto text = options.gpx ? reach_gpx(o.rig, r, band, left) : reach_geojson(o.rig, r, band, left);
  if (!text) return session.refuse(text.error());
  if (options.into.empty()) return static_cast<void>(std::cout << *text);
  if (const auto ok = write_file_atomically(options.into, *text); !ok) return session.refuse(ok.error());
}

struct TrackOptions {
  std::string file, into;
};

void track(const Opened& o, const TrackOptions& options, Session& session) {
  const auto read = read_file(options.file).and_then([&](const std::string& text) {
    return track_from_gpx(text, options.file, o.rig);
  });
  if (!read) return session.refuse(read.error());
  const auto made = area_from_track(o.rig, *read);
  if (!made) return session.refuse(made.error());
  if (!options.into.empty())
    if (const auto ok = save_rig(made->rig, options.into); !ok) return session.refuse(ok.error());
  if (session.json)
    return session.print({{"name", read->name},
                          {"points", read->places.size()},
                          {"farthest_m", read->farthest_m},
                          {"area_m", *made->rig.home.area_m},
                          {"latitude_deg", *made->rig.fit.latitude_deg},
                          {"longitude_deg", *made->rig.fit.longitude_deg}});
  std::cout << made->label << ": " << field_text(read->farthest_m) << " from home at most, area "
            << field_text(*made->rig.home.area_m) << '\n';
}

void wind_rose(const Opened& o, Session& session) {
  const HomeReport r = analyze_home({o.rig, o.catalogue}, analyze_feel({o.rig, o.catalogue}));
  if (!r.missing.empty()) return session.refuse({"windrose", r.missing, ""});
  Json json{{"area_m", o.rig.home.area_m ? Json(*o.rig.home.area_m) : Json()}, {"winds", Json::array()}};
  for (const RoseLine& line : wind_rose_of(o.rig, r)) {
    json["winds"].push_back({{"wind_m_s", line.wind_m_s},
                             {"out_and_back_m", line.out_and_back_m},
                             {"turn_home_mah", line.turn_home_mah ? Json(*line.turn_home_mah) : Json()},
                             {"turn_home_v", line.turn_home_v ? Json(*line.turn_home_v) : Json()},
                             {"least_circle_m", line.least_circle_m ? Json(*line.least_circle_m) : Json()}});
    if (session.json) continue;
    std::cout << speed_text(line.wind_m_s) << ": out and back " << field_text(line.out_and_back_m);
    if (line.turn_home_v)
      std::cout << ", turn home at " << number_text(*line.turn_home_v, 1) << " V ("
                << number_text(*line.turn_home_mah, 0) << " mAh)";
    else if (o.rig.home.area_m)
      std::cout << ", does not come home from the edge of the area";
    std::cout << '\n';
  }
  if (session.json) session.print(json);
}

}  // namespace

void add_home_commands(CLI::App& app, Session& session) {
  const auto file = std::make_shared<std::string>();
  const auto bearings = std::make_shared<int>(usual_bearings);
  auto* way = app.add_subcommand("wayhome", "The way home from one place, in closed form");
  way->add_option("CASE", *file, "Case file (docs/command-line.md)")->required();
  add_json_flag(*way, session);
  way->callback([&session, file] { wayhome(*file, session); });
  auto* ring = app.add_subcommand("reach", "From how far it comes home, round the compass");
  ring->add_option("CASE", *file, "Case file (docs/command-line.md)")->required();
  ring->add_option("--bearings", *bearings, "How many, 36 to 720")->check(CLI::Range(36, 720));
  add_json_flag(*ring, session);
  ring->callback([&session, file, bearings] { reach(*file, *bearings, session); });
  add_rig_command(app, session, "modes", "What every combination of switch positions does",
                  [&session](const Opened& o) { modes(o, session); });
  const auto many = std::make_shared<RehearseOptions>();
  auto* rehearses =
      add_rig_command(app, session, "rehearse", "Cuts the link many times in simulation, and says what comes home",
                      [&session, many](const Opened& o) { rehearse_rig(o, *many, session); });
  rehearses->add_option("--count", many->count, "How often, 1 to 10000")->check(CLI::Range(1, 10000));
  rehearses->add_option("--seed", many->seed, "The same seed draws the same");
  add_rig_command(app, session, "arming", "What has to be so before the motor is unlocked",
                  [&session](const Opened& o) { arming(o, session); });
  add_rig_command(app, session, "windrose", "Reach and threshold in every wind, from whatever side it comes",
                  [&session](const Opened& o) { wind_rose(o, session); });
  const auto map = std::make_shared<FieldOptions>();
  auto* writes = add_rig_command(
      app, session, "field", "The reach on the earth, as GeoJSON or GPX",
      [&session, map](const Opened& o) { field(o, *map, session); }, false);
  writes->add_option("--left", map->left_share, "Share of the charge, 0 to 1")->check(number_in(0, 1));
  writes->add_flag("--gpx", map->gpx, "GPX 1.1 instead of GeoJSON");
  writes->add_option("--into", map->into, "File to write; else to standard output")->check(a_name());
  const auto flown = std::make_shared<TrackOptions>();
  auto* tracks = add_rig_command(app, session, "track", "Takes the area from a track in GPX",
                                 [&session, flown](const Opened& o) { track(o, *flown, session); });
  tracks->add_option("FILE", flown->file, "GPX 1.1")->required();
  tracks->add_option("--into", flown->into, "Rig file to write; without it nothing is written")->check(a_name());
  const auto options = std::make_shared<FailsafeOptions>();
  auto* story =
      add_rig_command(app, session, "failsafe", "What happens from the lost link to the ground, as the rig plans it",
                      [&session, options](const Opened& o) { failsafe(o, *options, session); });
  story->add_option("--distance", options->distance_m, "From home, m; else the planned area's edge")
      ->check(number_in(0, 100000));
  story->add_option("--bearing", options->bearing_deg, "As seen from home, degrees")->check(number_in(-360, 360));
  story->add_option("--left", options->left_share, "Share of the charge, 0 to 1")->check(number_in(0, 1));
}

}  // namespace rigging::cli
