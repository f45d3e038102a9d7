#include <iostream>
#include <memory>

#include "base/json.h"
#include "base/number.h"
#include "command.h"
#include "earth/gravity.h"
#include "senses/calibration.h"
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
    for (const Turn& t : o.candidates) std::cout << "  " << t.name() << ": " << t.spoken() << '\n';
    return;
  }
  Json json{
      {"turn", o.turn ? Json(o.turn->name()) : Json()},
      {"certain", o.certain()},
      {"candidates", Json::array()},
      {"small_deg",
       {{"roll", optional_json(o.roll_deg)}, {"pitch", optional_json(o.pitch_deg)}, {"yaw", optional_json(o.yaw_deg)}}},
      {"misfit_deg", o.misfit_deg},
      {"would_tell", o.would_tell ? Json(word(*o.would_tell)) : Json()},
      {"why", o.why}};
  for (const Turn& t : o.candidates) json["candidates"].push_back(t.name());
  session.print(json);
}

void say(const Calibration& c, Session& session) {
  session.status = c.verdict == Verdict::repeat ? found_wrong : good;
  std::string why;
  for (const std::string& w : c.why) why += (why.empty() ? "" : " ") + w;
  if (!session.json) {
    std::cout << capital(std::string(word(c.verdict))) << ": " << why << '\n';
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
            {"verdict", word(c.verdict)},
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
    std::cout << line_words(t) << '\n' << capital(std::string(word(s.verdict))) << ": " << s.why << '\n';
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
                 {"height_m", s.height_m},
                 {"home_m", s.home_m},
                 {"verdict", word(s.verdict)},
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
    std::cout << capital(std::string(word(v.verdict))) << ": " << v.why << '\n';
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
            {"verdict", word(v.verdict)},
            {"why", v.why}};
  for (const Peak& p : v.peaks) json["peaks"].push_back({{"hz", p.hz}, {"amplitude_m_s2", p.amplitude}});
  if (v.filter)
    json["filter"] = {{"cut_hz", v.filter->cut_hz}, {"peak_left", v.filter->peak_left}, {"delay_s", v.filter->delay_s}};
  session.print(json);
}

}  // namespace

void add_sense_commands(CLI::App& app, Session& session) {
  struct Given {
    std::string file;
    double latitude = 0, altitude_m = 0, field_ut = 0;
    VibrationOptions vibration;
  };
  auto given = std::make_shared<Given>();
  auto* turn = app.add_subcommand("orientation", "How the board sits, from readings in a few poses");
  turn->add_option("FILE", given->file, "CSV: pose, ax, ay, az in m/s², board axes")->required();
  add_json_flag(*turn, session);
  turn->callback([&session, given] { orientation(given->file, session); });

  auto* shaking = app.add_subcommand("vibration", "How much the board shakes, where, and what a filter would cost");
  shaking->add_option("FILE", given->file, "CSV: t_s, ax, ay, az in m/s²")->required();
  shaking->add_option("--shaft-hz", given->vibration.shaft_hz, "Turns of the motor a second")
      ->check(CLI::Range(0.0, 2000.0));
  shaking->add_option("--filter-hz", given->vibration.filter_hz, "A low-pass of second order to be judged")
      ->check(CLI::Range(1.0, 2000.0));
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
                       ->check(CLI::Range(-90.0, 90.0));
  accel->add_option("--alt-m", given->altitude_m, "Height above the WGS 84 ellipsoid in metres")
      ->check(CLI::Range(-1000.0, 20000.0))
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
      ->check(CLI::Range(10.0, 100.0));
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
