#include <iostream>
#include <memory>

#include "base/json.h"
#include "base/number.h"
#include "command.h"
#include "earth/gravity.h"
#include "senses/calibration.h"
#include "senses/orientation.h"

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

}  // namespace

void add_sense_commands(CLI::App& app, Session& session) {
  struct Given {
    std::string file;
    double latitude = 0, altitude_m = 0, field_ut = 0;
  };
  auto given = std::make_shared<Given>();
  auto* turn = app.add_subcommand("orientation", "How the board sits, from readings in a few poses");
  turn->add_option("FILE", given->file, "CSV: pose, ax, ay, az in m/s², board axes")->required();
  add_json_flag(*turn, session);
  turn->callback([&session, given] { orientation(given->file, session); });

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
