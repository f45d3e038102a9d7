#include <cmath>
#include <random>

#include "base/json.h"
#include "cli/run_cli.h"

namespace rigging {
namespace {

/// Lines of a table, one for each step.
template <class Row>
std::string table(const char* head, int rows, Row&& row) {
  std::ostringstream text;
  text << head << '\n';
  for (int i = 0; i < rows; ++i) {
    bool first = true;
    for (const double v : row(i)) {
      text << (first ? "" : ",") << v;
      first = false;
    }
    text << '\n';
  }
  return text.str();
}

struct Noise {
  std::mt19937 random{11};
  double operator()(double sigma) { return std::normal_distribution<double>(0, sigma)(random); }
};

TEST(CliSenses, OrientationAnswersWhichTurnAndSaysWhenPosesCannotTell) {
  const Folder folder;
  // Arrow to the right: what lifts the nose shows on the board's y. Level z −9.8.
  const std::string told =
      folder.file("told.csv", "pose,ax,ay,az\nlevel,0,0,-9.8\nnose_up,0,-8.5,-4.9\nright_down,-8.4,0.2,-5\n");
  Ran ran = run("orientation " + told + " --json");
  ASSERT_EQ(ran.status, 0) << ran.err;
  const Json answer = Json::parse(ran.out);
  EXPECT_TRUE(answer["certain"].get<bool>());
  EXPECT_EQ(answer["turn"], answer["candidates"][0]);
  const std::string level_only = folder.file("level.csv", "pose,ax,ay,az\nlevel,0,0,-9.8\n");
  ran = run("orientation " + level_only + " --json");
  EXPECT_EQ(ran.status, 1);
  EXPECT_TRUE(Json::parse(ran.out)["turn"].is_null());
  EXPECT_EQ(run("orientation " + folder.file("bad.csv", "pose,ax,ay\nlevel,0,0\n")).status, 2);
}

TEST(CliSenses, CalibrationsAnswerInTheFixedFormat) {
  const Folder folder;
  Noise noise;
  const std::string six =
      folder.file("six.csv", table("t_s,ax,ay,az", 1200, [&](int i) {
                    const int face = i / 200;
                    double v[3] = {0.2, -0.1, 0.05};
                    v[face / 2] += (face % 2 ? 1 : -1) * 9.80665;
                    return std::array<double, 4>{i * 0.01, v[0] + noise(0.03), v[1] + noise(0.03), v[2] + noise(0.03)};
                  }));
  Ran ran = run("calibrate accel " + six + " --json");
  ASSERT_EQ(ran.status, 0) << ran.err;
  const Json accel = Json::parse(ran.out);
  for (const char* key : {"offset", "matrix", "residual_rms", "samples_used", "outliers", "coverage", "verdict", "why"})
    EXPECT_TRUE(accel.contains(key)) << key;
  EXPECT_EQ(accel["verdict"], "usable") << "six poses do not tell cross terms";
  EXPECT_NEAR(accel["offset"][0].get<double>(), 0.2, 0.02);
  const std::string turned =
      folder.file("turned.csv", table("t_s,mx,my,mz", 900, [&](int i) {
                    const double z = 1 - 2 * (i + 0.5) / 900, r = std::sqrt(1 - z * z), a = i * 2.4;
                    return std::array<double, 4>{i * 0.02, 48 * r * std::cos(a) + 12 + noise(0.3),
                                                 48 * r * std::sin(a) - 7 + noise(0.3), 48 * z + noise(0.3)};
                  }));
  ran = run("calibrate compass " + turned + " --json");
  ASSERT_EQ(ran.status, 0) << ran.err;
  EXPECT_EQ(Json::parse(ran.out)["verdict"], "good");
  EXPECT_NEAR(Json::parse(ran.out)["offset"][0].get<double>(), 12, 0.2);
}

TEST(CliSenses, GyroBarometerAirspeedAndInterferenceAreJudged) {
  const Folder folder;
  Noise noise;
  const auto gyro = [&](double zero) {
    return folder.file("gyro.csv", table("t_s,gx,gy,gz,temperature_c", 1000, [&](int i) {
                         return std::array<double, 5>{i * 0.01, zero + noise(0.08), noise(0.08), noise(0.08), 25};
                       }));
  };
  EXPECT_EQ(run("gyro " + gyro(0.1) + " --zeroed").status, 0);
  const Ran moved = run("gyro " + gyro(6) + " --zeroed --json");
  EXPECT_EQ(moved.status, 1);
  EXPECT_EQ(Json::parse(moved.out)["verdict"], "repeat");
  EXPECT_EQ(run("gyro " + gyro(6)).status, 0) << "before the zero is taken that is usual";

  const std::string height = folder.file("baro.csv", table("t_s,pressure_pa", 400, [&](int i) {
                                           return std::array<double, 2>{i * 0.05, 98000 + noise(2)};
                                         }));
  EXPECT_EQ(run("barometer " + height).status, 0);
  const std::string tube = folder.file("tube.csv", table("t_s,pitot_pa", 400, [&](int i) {
                                         const double t = i * 0.05;
                                         return std::array<double, 2>{t, (t > 4 && t < 16 ? 400 : 0) + noise(0.5)};
                                       }));
  const Ran airspeed = run("airspeed " + tube + " --cruise-m-s 15 --json");
  EXPECT_EQ(airspeed.status, 0) << airspeed.out;
  EXPECT_FALSE(Json::parse(airspeed.out)["exchanged"].get<bool>());
  EXPECT_EQ(run("barometer " + tube).status, 2) << "no pressure in it";

  const std::string motor =
      folder.file("motor.csv", table("t_s,mx,my,mz,current_a", 800, [&](int i) {
                    const double a = 5 * (i / 200);
                    return std::array<double, 5>{i * 0.02, 20 + 0.1 * a + noise(0.3), noise(0.3), 43 + noise(0.3), a};
                  }));
  const Ran interference = run("interference " + motor + " --full-a 20 --json");
  EXPECT_NEAR(Json::parse(interference.out)["per_a_ut"][0].get<double>(), 0.1, 0.01);
  EXPECT_EQ(run("interference " + motor).status, 2) << "the most current is needed";
}

TEST(CliSenses, LevelIsWorkedOutAndCorrected) {
  Ran ran = run("level " + demo + " --climb-m-s 0.4 --turn-deg-s -3 --json");
  ASSERT_EQ(ran.status, 0) << ran.err;
  const Json answer = Json::parse(ran.out);
  EXPECT_GT(answer["most_deg"].get<double>(), answer["nose_up_deg"].get<double>());
  EXPECT_LT(answer["from_climb"]["deg"].get<double>(), 0);
  EXPECT_GT(answer["from_turn"]["deg"].get<double>(), 0);
  EXPECT_EQ(run("level " + demo + " --climb-m-s 400").status, 2);
  EXPECT_EQ(run("level " + demo + " --climb-m-s nan").status, 2);
  EXPECT_EQ(run("declination --lat nan --lon 8 --date 2026").status, 2);
  EXPECT_EQ(run("level /no/such/rig.json").status, 2);
}

TEST(CliSenses, ProceduresOfTheStationPlayFromAScript) {
  const Folder folder;
  const std::string script = folder.file(
      "found.play",
      "bench controller=yes\nfound gyro=works accelerometer=works barometer=works compass=works satellites=works "
      "airspeed=missing\npress found_without_airspeed\n");
  const Ran ran = run("play " + demo + " found --script " + script + " --into " + folder / "out.rig.json");
  EXPECT_EQ(ran.status, 0) << ran.err << ran.out;
  std::ifstream file(folder / "out.rig.json");
  EXPECT_FALSE(Json::parse(file)["sensing"]["uses_airspeed"].get<bool>());
  const std::string bad = folder.file("bad.play", "found airspeed=tired\n");
  const Ran refused = run("play " + demo + " found --script " + bad);
  EXPECT_EQ(refused.status, 2);
  EXPECT_NE(refused.err.find("missing"), std::string::npos) << refused.err;
}

}  // namespace
}  // namespace rigging
