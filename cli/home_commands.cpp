#include <iostream>
#include <memory>

#include "base/number.h"
#include "command.h"
#include "home/way_home.h"

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
}

}  // namespace rigging::cli
