#include <iostream>
#include <memory>

#include "airframe/airframe.h"
#include "base/csv.h"
#include "base/file.h"
#include "base/json.h"
#include "base/number.h"
#include "command.h"
#include "earth/gravity.h"
#include "fit/fit.h"
#include "opened.h"
#include "power/power.h"
#include "senses/air.h"
#include "senses/calibration.h"
#include "senses/gyro.h"
#include "senses/interference.h"
#include "senses/level.h"
#include "senses/orientation.h"
#include "senses/satellites.h"
#include "senses/vibration.h"

namespace rigging::cli {
namespace {

Json point_json(const Point& p) { return {p.x(), p.y(), p.z()}; }

Json optional_json(const std::optional<double>& v) { return v ? Json(*v) : Json(); }

void orientation(const std::string& file, Session& session) {
  const auto text = read_file(file);
  if (!text) return session.refuse(text.error());
  const auto poses = parse_poses(*text, file);
  if (!poses) return session.refuse(poses.error());
  const Orientation o = orientation_from(*poses);
  session.status = o.certain() ? good : found_wrong;
  if (!session.json) {
    std::cout << o.why << '\n';
    for (const Turn& t : o.candidates) std::cout << "  " << t.name() << ": " << t.label() << '\n';
    return;
  }
  Json json{
      {"turn", o.turn ? Json(o.turn->name()) : Json()},
      {"certain", o.certain()},
      {"candidates", Json::array()},
      {"small_deg",
       {{"roll", optional_json(o.roll_deg)}, {"pitch", optional_json(o.pitch_deg)}, {"yaw", optional_json(o.yaw_deg)}}},
      {"misfit_deg", o.misfit_deg},
      {"would_tell", o.would_tell ? Json(name_of(*o.would_tell)) : Json()},
      {"why", o.why}};
  for (const Turn& t : o.candidates) json["candidates"].push_back(t.name());
  session.print(json);
}

void say(const Calibration& c, Session& session) {
  session.status = c.verdict == Verdict::repeat ? found_wrong : good;
  const std::string why = c.reasons();
  if (!session.json) {
    std::cout << capital(std::string(name_of(c.verdict))) << ": " << why << '\n';
    if (c.samples_used > 0)
      std::cout << "  offset " << number_text(c.offset.x(), 3) << ' ' << number_text(c.offset.y(), 3) << ' '
                << number_text(c.offset.z(), 3) << '\n';
    return;
  }
  Json json{{"offset", point_json(c.offset)},
            {"matrix", Json::array()},
            {"residual_rms", c.residual_rms},
            {"samples_used", c.samples_used},
            {"outliers", c.outliers},
            {"coverage", c.coverage},
            {"verdict", name_of(c.verdict)},
            {"why", why},
            {"length", c.radius},
            {"offset_error", point_json(c.offset_error)},
            {"direction_error_deg", c.direction_error_deg}};
  for (int row = 0; row < 3; ++row) json["matrix"].push_back(point_json(c.matrix.row(row)));
  session.print(json);
}

void satellites(const std::string& file, Session& session) {
  const auto text = read_file(file);
  if (!text) return session.refuse(text.error());
  SatelliteReader reader;
  const Standing s = standing(reader.feed(*text));
  const SatelliteTally& t = reader.tally();
  session.status = s.verdict == Verdict::repeat ? found_wrong : good;
  if (!session.json) {
    std::cout << line_words(t) << '\n' << capital(std::string(name_of(s.verdict))) << ": " << s.why << '\n';
    return;
  }
  session.print({{"line", line_words(t)},
                 {"sentences", t.sentences},
                 {"damaged", t.damaged},
                 {"foreign_bytes", t.foreign},
                 {"fixes", s.fixes},
                 {"first_fix_s", optional_json(s.first_fix_s)},
                 {"satellites", s.satellites},
                 {"hdop", s.hdop > 0 ? Json(s.hdop) : Json()},
                 {"latitude_deg", s.fixes ? Json(s.latitude_deg) : Json()},
                 {"longitude_deg", s.fixes ? Json(s.longitude_deg) : Json()},
                 {"r50_m", s.r50_m},
                 {"r95_m", s.r95_m},
                 {"height_m", s.height_spread_m},
                 {"home_m", s.home_m},
                 {"verdict", name_of(s.verdict)},
                 {"why", s.why}});
}

void vibration(const std::string& file, const VibrationOptions& options, Session& session) {
  const auto text = read_file(file);
  if (!text) return session.refuse(text.error());
  const auto recording = parse_recording(*text, file, {"ax", "ay", "az"});
  if (!recording) return session.refuse(recording.error());
  const Vibration v = vibration_of(*recording, options);
  session.status = v.verdict == Verdict::repeat ? found_wrong : good;
  if (!session.json) {
    std::cout << capital(std::string(name_of(v.verdict))) << ": " << v.why << '\n';
    std::cout << "  On the bench the propeller is off, and its imbalance missing: a flight log has it.\n";
    for (const Peak& p : v.peaks)
      std::cout << "  " << number_text(p.hz, 1) << " Hz  " << number_text(p.amplitude, 2) << " m/s²\n";
    if (v.filter)
      std::cout << "  a low-pass at " << number_text(v.filter->cut_hz, 0) << " Hz leaves "
                << number_text(v.filter->peak_left * 100, 0) << " % of the strongest and costs "
                << number_text(v.filter->delay_s * 1000, 1) << " ms\n";
    return;
  }
  Json json{{"rate_hz", v.rate_hz},
            {"rms_m_s2", v.rms},
            {"clipped_share", v.clipped_share},
            {"peaks", Json::array()},
            {"folded_hz", optional_json(v.folded_hz)},
            {"filter", nullptr},
            {"verdict", name_of(v.verdict)},
            {"why", v.why}};
  for (const Peak& p : v.peaks) json["peaks"].push_back({{"hz", p.hz}, {"amplitude_m_s2", p.amplitude}});
  if (v.filter)
    json["filter"] = {{"cut_hz", v.filter->cut_hz}, {"peak_left", v.filter->peak_left}, {"delay_s", v.filter->delay_s}};
  session.print(json);
}

/// One column of a table of numbers; an error where it is missing.
Result<std::vector<double>> column_of(const std::string& text, const std::string& file, const std::string& name) {
  const auto table = parse_number_table(text, file);
  if (!table) return tl::make_unexpected(table.error());
  const int at = table->column(name);
  if (at < 0) return failure(file, "column " + name + " is missing", "a column " + name);
  std::vector<double> all;
  for (const auto& row : table->rows) {
    const double v = row[static_cast<std::size_t>(at)];
    if (name == "t_s" && !all.empty() && v < all.back())
      return failure(file + ", row " + std::to_string(all.size() + 1), "time goes backward", "t_s that rises");
    if (std::abs(v) > 1e12)
      return failure(file + ", row " + std::to_string(all.size() + 1), name + " is " + number_text(v, 0),
                     "a reading that can be one");
    all.push_back(v);
  }
  if (name == "t_s")
    if (const auto ok = lasts_as_long_as_it_may(all, file); !ok) return tl::make_unexpected(ok.error());
  return all;
}

/// Verdict and sentence on one line, or the whole as JSON.
void say_judged(Session& session, Verdict verdict, const std::string& why, Json json) {
  session.status = verdict == Verdict::repeat ? found_wrong : good;
  if (!session.json) {
    std::cout << capital(std::string(name_of(verdict))) << ": " << why << '\n';
    return;
  }
  json["verdict"] = name_of(verdict);
  json["why"] = why;
  session.print(json);
}

void gyro(const std::string& file, bool zeroed, Session& session) {
  const auto text = read_file(file);
  if (!text) return session.refuse(text.error());
  const auto recording = parse_recording(*text, file, {"gx", "gy", "gz"});
  if (!recording) return session.refuse(recording.error());
  GyroOptions options;
  options.zeroed = zeroed;
  if (const auto warmth = column_of(*text, file, "temperature_c")) options.temperature_c = *warmth;
  const GyroReport g = gyro_of(*recording, options);
  Json json{{"rate_hz", g.rate_hz},
            {"still_s", g.still_s},
            {"zero_deg_s", point_json(g.zero_deg_s)},
            {"zero_error_deg_s", point_json(g.zero_error_deg_s)},
            {"noise_deg_s", point_json(g.noise_deg_s)},
            {"density_deg_s_rthz", point_json(g.density)},
            {"wander_deg_s", optional_json(g.wander_deg_s)},
            {"drift_deg_s_per_c", g.drift_deg_s_per_c ? point_json(*g.drift_deg_s_per_c) : Json()},
            {"allan", Json::array()},
            {"moved", Json::array()}};
  for (const AllanPoint& p : g.allan)
    json["allan"].push_back({{"tau_s", p.tau_s}, {"deviation_deg_s", p.deviation_deg_s}});
  for (const Moved& m : g.moved)
    json["moved"].push_back({{"from_s", m.from_s}, {"to_s", m.to_s}, {"most_deg_s", m.most_deg_s}});
  say_judged(session, g.verdict, g.why, std::move(json));
}

void barometer(const std::string& file, Session& session) {
  const auto text = read_file(file);
  if (!text) return session.refuse(text.error());
  const auto t = column_of(*text, file, "t_s"), pressure = column_of(*text, file, "pressure_pa");
  if (!t) return session.refuse(t.error());
  if (!pressure) return session.refuse(pressure.error());
  const BarometerReport b = barometer_of(*t, *pressure);
  say_judged(
      session, b.verdict, b.why,
      {{"held_s", b.held_s}, {"noise_m", b.noise_m}, {"drift_m_per_min", b.drift_m_per_min}, {"wander_m", b.wander_m}});
}

void airspeed(const std::string& file, double cruise_m_s, Session& session) {
  const auto text = read_file(file);
  if (!text) return session.refuse(text.error());
  const auto t = column_of(*text, file, "t_s"), pitot = column_of(*text, file, "pitot_pa");
  if (!t) return session.refuse(t.error());
  if (!pitot) return session.refuse(pitot.error());
  const AirspeedReport a = airspeed_of(*t, *pitot, cruise_m_s);
  say_judged(session, a.verdict, a.why,
             {{"zero_pa", a.zero_pa},
              {"zero_m_s", a.zero_m_s},
              {"noise_pa", a.noise_pa},
              {"least_m_s", a.least_m_s},
              {"pushed_pa", optional_json(a.pushed_pa)},
              {"exchanged", a.exchanged},
              {"lost_in_10s", optional_json(a.lost_in_10s)}});
}

void interference(const std::string& file, double full_a, double horizontal_ut, Session& session) {
  const auto text = read_file(file);
  if (!text) return session.refuse(text.error());
  const auto recording = parse_recording(*text, file, {"mx", "my", "mz"});
  if (!recording) return session.refuse(recording.error());
  const auto amps = column_of(*text, file, "current_a");
  if (!amps) return session.refuse(amps.error());
  const Interference f = interference_of(*recording, *amps, full_a, horizontal_ut);
  say_judged(session, f.verdict, f.why,
             {{"per_a_ut", point_json(f.per_a)},
              {"per_a_error_ut", point_json(f.per_a_error)},
              {"full_ut", f.full_ut},
              {"heading_deg", f.heading_deg},
              {"heading_least_deg", f.heading_least_deg},
              {"heading_most_deg", f.heading_most_deg},
              {"left_deg", f.left_deg},
              {"estimate", f.estimate},
              {"distance_factor", f.distance_factor}});
}

Json change_json(const LevelChange& c) {
  return {{"deg", c.deg}, {"least_deg", c.least}, {"most_deg", c.most}, {"why", c.why}};
}

void level(const Opened& opened, std::optional<double> climb_m_s, std::optional<double> turn_deg_s, Session& session) {
  const Rig& rig = opened.rig;
  const AirframeReport airframe = analyze_airframe(rig);
  const FitReport fit = analyze_fit(rig, opened.catalogue, airframe, analyze_power(rig, opened.catalogue));
  const LevelReport l = analyze_level(rig.airframe, airframe, fit.balance.likely_m());
  const auto pitch = climb_m_s ? level_from_climb(rig.airframe, airframe, *climb_m_s) : std::nullopt;
  const auto roll = turn_deg_s ? level_from_turn(rig.airframe, *turn_deg_s) : std::nullopt;
  session.status = l.nose_up ? good : found_wrong;
  if (!session.json) {
    if (!l.nose_up) {
      std::cout << l.first << '\n';
      return;
    }
    std::cout << level_text(l) << " nose up: " << l.nose_up->formula << ".\n" << l.beside << '\n';
    const auto say = [](const LevelChange& c, const char* to) {
      if (c.deg != 0) std::cout << "Add " << number_text(c.deg, 1) << to;
      std::cout << c.why << '\n';
    };
    if (pitch) say(*pitch, "° to level. ");
    if (roll) say(*roll, "° to the right wing down. ");
    return;
  }
  session.print({{"nose_up_deg", l.nose_up ? Json(l.nose_up->value) : Json()},
                 {"least_deg", l.nose_up ? optional_json(l.nose_up->least) : Json()},
                 {"most_deg", l.nose_up ? optional_json(l.nose_up->most) : Json()},
                 {"wing_deg", l.nose_up ? Json(l.wing_deg) : Json()},
                 {"wing_lift", l.wing_lift ? Json(l.wing_lift->value) : Json()},
                 {"speed_m_s", l.speed ? Json(l.speed->value) : Json()},
                 {"told_deg", optional_json(rig.sensing.level_nose_up_deg)},
                 {"beside", l.beside},
                 {"first", l.first},
                 {"from_climb", pitch ? change_json(*pitch) : Json()},
                 {"from_turn", roll ? change_json(*roll) : Json()}});
}

}  // namespace

void add_sense_commands(CLI::App& app, Session& session) {
  struct Given {
    std::string file;
    double latitude = 0, altitude_m = 0, field_ut = 0, cruise_m_s = 12, full_a = 0, horizontal_ut = 20;
    bool zeroed = false;
    std::optional<double> climb_m_s, turn_deg_s;
    VibrationOptions vibration;
  };
  auto given = std::make_shared<Given>();
  auto* turn = app.add_subcommand("orientation", "How the board sits, from readings in a few poses");
  turn->add_option("FILE", given->file, "CSV: pose, ax, ay, az in m/s², board axes")->required();
  add_json_flag(*turn, session);
  turn->callback([&session, given] { orientation(given->file, session); });

  auto* still = app.add_subcommand("gyro", "Zero, noise, wander and drift of a gyro at rest, and whether it was moved");
  still->add_option("FILE", given->file, "CSV: t_s, gx, gy, gz in °/s, and temperature_c where there is one")
      ->required();
  still->add_flag("--zeroed", given->zeroed, "As the board says them after it took its zero");
  add_json_flag(*still, session);
  still->callback([&session, given] { gyro(given->file, given->zeroed, session); });

  auto* height = app.add_subcommand("barometer", "Noise and drift of a barometer at rest");
  height->add_option("FILE", given->file, "CSV: t_s, pressure_pa")->required();
  add_json_flag(*height, session);
  height->callback([&session, given] { barometer(given->file, session); });

  auto* pitot = app.add_subcommand("airspeed", "Zero, leak and hoses of an airspeed sensor");
  pitot->add_option("FILE", given->file, "CSV: t_s, pitot_pa: covered for 3 s, pushed and held for 10, let go")
      ->required();
  pitot->add_option("--cruise-m-s", given->cruise_m_s, "For what an offset means")->check(number_in(3.0, 150.0));
  add_json_flag(*pitot, session);
  pitot->callback([&session, given] { airspeed(given->file, given->cruise_m_s, session); });

  auto* motor = app.add_subcommand("interference", "What the motor's current does to the compass");
  motor->add_option("FILE", given->file, "CSV: t_s, mx, my, mz in µT, current_a; the model still")->required();
  motor->add_option("--full-a", given->full_a, "The most current that flies")
      ->required()
      ->check(number_in(1.0, 1000.0));
  motor
      ->add_option("--horizontal-ut", given->horizontal_ut,
                   "Horizontal field of the place in µT, as `declination` says it")
      ->check(number_in(1.0, 45.0));
  add_json_flag(*motor, session);
  motor->callback([&session, given] { interference(given->file, given->full_a, given->horizontal_ut, session); });

  auto* attitude = add_rig_command(
      app, session, "level", "The attitude that the board should take for level",
      [&session, given](const Opened& opened) { level(opened, given->climb_m_s, given->turn_deg_s, session); });
  attitude->add_option("--climb-m-s", given->climb_m_s, "What it climbed in self-level at cruise; sinking is negative")
      ->check(number_in(-30.0, 30.0));
  attitude
      ->add_option("--turn-deg-s", given->turn_deg_s, "How fast it turned with the sticks at rest; right is positive")
      ->check(number_in(-90.0, 90.0));

  auto* shaking = app.add_subcommand("vibration", "How much the board shakes, where, and what a filter would cost");
  shaking->add_option("FILE", given->file, "CSV: t_s, ax, ay, az in m/s²")->required();
  shaking->add_option("--shaft-hz", given->vibration.shaft_hz, "Turns of the motor a second")
      ->check(number_in(0.0, 2000.0));
  shaking->add_option("--filter-hz", given->vibration.filter_hz, "A low-pass of second order to be judged")
      ->check(number_in(1.0, 2000.0));
  add_json_flag(*shaking, session);
  shaking->callback([&session, given] { vibration(given->file, given->vibration, session); });

  auto* gps =
      app.add_subcommand("gps", "What a satellite receiver that stands still says, and how good a home it makes");
  gps->add_option("FILE", given->file, "Sentences of NMEA 0183 as they came over the line")->required();
  add_json_flag(*gps, session);
  gps->callback([&session, given] { satellites(given->file, session); });

  auto* calibrate = app.add_subcommand("calibrate", "Offset and matrix of an accelerometer or a compass");
  calibrate->require_subcommand(1);
  auto* accel = calibrate->add_subcommand("accel", "From still poses with motion in between");
  accel->add_option("FILE", given->file, "CSV: t_s, ax, ay, az in m/s²")->required();
  auto* latitude = accel->add_option("--lat", given->latitude, "Latitude in degrees: gravity of the place")
                       ->check(number_in(-90.0, 90.0));
  accel->add_option("--alt-m", given->altitude_m, "Height above the WGS 84 ellipsoid in metres")
      ->check(number_in(-1000.0, 20000.0))
      ->needs(latitude);
  add_json_flag(*accel, session);
  accel->callback([&session, given, latitude] {
    const auto text = read_file(given->file);
    if (!text) return session.refuse(text.error());
    const auto recording = parse_recording(*text, given->file, {"ax", "ay", "az"}, standard_gravity);
    if (!recording) return session.refuse(recording.error());
    say(calibrate_accelerometer(
            *recording, latitude->empty() ? standard_gravity : normal_gravity(given->latitude, given->altitude_m)),
        session);
  });
  auto* compass = calibrate->add_subcommand("compass", "From a turn through all directions");
  compass->add_option("FILE", given->file, "CSV: t_s, mx, my, mz in µT")->required();
  compass->add_option("--field-ut", given->field_ut, "Total field of the place in µT, as `declination` says it")
      ->check(number_in(10.0, 100.0));
  add_json_flag(*compass, session);
  compass->callback([&session, given] {
    const auto text = read_file(given->file);
    if (!text) return session.refuse(text.error());
    const auto recording = parse_recording(*text, given->file, {"mx", "my", "mz"});
    if (!recording) return session.refuse(recording.error());
    say(calibrate_compass(*recording, given->field_ut), session);
  });
}

}  // namespace rigging::cli
