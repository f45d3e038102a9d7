#include <gtest/gtest.h>

#include <cmath>
#include <map>

#include "base/json.h"
#include "bench.h"
#include "bench_rig.h"
#include "places.h"

// The twin has a mixer of its own, and the application's linkage. So here stand a third mixer and another linkage,
// written from the descriptions in docs/ alone, and a table of what must go which way: a sign that is wrong in the
// shared code is seen.
namespace rigging::twin {
namespace {

struct Sticks {
  double roll = 0, pitch = 0, yaw = 0;
};

/// 1 is full travel on full command; what is beyond an end stops there.
double pulse_us(const Json& output, const Sticks& s) {
  const Json& mix = output["mix"];
  const auto weight = [&](const char* name) { return mix.contains(name) ? mix[name].get<double>() : 0.0; };
  double share = weight("roll") * s.roll + weight("pitch") * s.pitch + weight("yaw") * s.yaw;
  share = std::max(-1.0, std::min(1.0, share));
  if (output["reversed"].get<bool>()) share = -share;
  const double centre = output["centre_us"].get<double>();
  return centre +
         share * (share > 0 ? output["high_us"].get<double>() - centre : centre - output["low_us"].get<double>());
}

/// Deflection, trailing edge up positive, for an arm that has turned by `turn_deg` toward the hinge: the horn's angle
/// is found by halving until the rod has its length.
double linkage_up_deg(const Json& l, double turn_deg) {
  constexpr double degree = 3.14159265358979 / 180;
  const auto number = [&](const char* name, double usual) { return l.contains(name) ? l[name].get<double>() : usual; };
  const double arm = l["arm_m"].get<double>(), rod = l["rod_m"].get<double>(), horn = l["horn_m"].get<double>();
  const double arm0 = number("arm_deg", 0), horn0 = number("horn_deg", 0), drop = number("drop_m", 0);
  const double side = l.contains("crossed") && l["crossed"].get<bool>() ? -1 : 1;
  const auto arm_x = [&](double a) { return arm * std::sin(a * degree); };
  const auto arm_y = [&](double a) { return drop + side * arm * std::cos(a * degree); };
  const auto horn_x = [&](double b) { return horn * std::sin(b * degree); };
  const auto horn_y = [&](double b) { return horn * std::cos(b * degree); };
  double base = number("base_m", 0);
  if (base == 0) {  // such that the surface is neutral with the arm at rest
    const double rise = horn_y(horn0) - arm_y(arm0);
    base = arm_x(arm0) - horn_x(horn0) + std::sqrt(rod * rod - rise * rise);
  }
  const double a = arm0 + turn_deg;
  const auto too_long = [&](double b) { return std::hypot(base + horn_x(b) - arm_x(a), horn_y(b) - arm_y(a)) - rod; };
  double low = horn0 - 80, high = horn0 + 80;
  for (int i = 0; i < 60; ++i) {
    const double middle = (low + high) / 2;
    (too_long(middle) > 0 ? high : low) = middle;
  }
  return (low + high) / 2 - horn0;
}

/// Which way each surface must go, in words and by eye (trade of the bench): roll right, nose up, nose right.
const std::map<std::string, std::array<int, 3>> must_go{
    {"aileron_left", {-1, 0, 0}},   {"aileron_right", {1, 0, 0}}, {"flaperon_left", {-1, 0, 0}},
    {"flaperon_right", {1, 0, 0}},  {"elevon_left", {-1, 1, 0}},  {"elevon_right", {1, 1, 0}},
    {"elevator", {0, 1, 0}},        {"rudder", {0, 0, 1}},        {"inverted_v_left", {0, 1, -1}},
    {"inverted_v_right", {0, 1, 1}}};

TEST(Independent, AnotherMixerAndLinkageMoveTheSurfacesAlike) {
  int compared = 0, signs = 0;
  for (const char* name : {"hedgerow", "heath", "delta", "bramble"}) {
    const Rig rig = demo(name);
    const Json file =
        *read_json_file(std::filesystem::path(in_source("/data/demo")) / (std::string(name) + ".rig.json"));
    const ControllerClass& controller = *shipped().controller(rig.controller.kind);
    for (const Sticks s : {Sticks{1, 0, 0},
                           {-0.6, 0, 0},
                           {0, 1, 0},
                           {0, -0.5, 0},
                           {0, 0, 1},
                           {0, 0, -0.8},
                           {0.7, 0.7, 0},
                           {0, 0.8, 0.8}}) {
      Bench bench(rig, controller, *truth_of(rig, controller, {}));
      bench.plug({false, true});
      bench.mode(Mode::manual);
      bench.stick(Axis::roll, s.roll);
      bench.stick(Axis::pitch, s.pitch);
      bench.stick(Axis::yaw, s.yaw);
      for (int i = 0; i < 200; ++i) bench.step(0.01);
      for (const auto& [surface, seen] : bench.look().deflection) {
        const auto must = must_go.find(surface.name());
        if (must == must_go.end()) continue;
        const Json* output = nullptr;
        for (const Json& o : file["outputs"])
          for (const Json& on : o.value("surfaces", Json::array()))
            if (on == surface.name()) output = &o;
        ASSERT_TRUE(output) << surface.name();
        // One command alone: the way it must go is known without any computing.
        const std::array<double, 3> asked{s.roll, s.pitch, s.yaw};
        int alone = -1, commands = 0;
        for (int axis = 0; axis < 3; ++axis)
          if (asked[static_cast<std::size_t>(axis)] != 0) alone = axis, ++commands;
        const char* axes[] = {"roll", "pitch", "yaw"};
        int sign = 0;
        if (commands == 1 && (*output)["mix"].contains(axes[alone]))
          sign = must->second[static_cast<std::size_t>(alone)] * (asked[static_cast<std::size_t>(alone)] > 0 ? 1 : -1);
        if (sign != 0) {
          EXPECT_GT(seen * sign, 2) << name << " " << surface.name() << " " << axes[alone];
          ++signs;
        }
        // How far: by the other mixer and linkage. The servo turns the way that brings the surface where it goes.
        const double moved_us = pulse_us(*output, s) - 1500;
        const Json* linkage = nullptr;
        if (file.contains("linkages"))
          for (const Json& l : file["linkages"])
            if (l["surface"] == surface.name()) linkage = &l;
        if (!linkage) {
          EXPECT_NEAR(std::abs(seen), std::abs(moved_us) / 500 * 25, 0.4) << name << " " << surface.name();
        } else {
          const double turn = std::abs(moved_us) / 500 * (*linkage)["servo_travel_deg"].get<double>();
          EXPECT_NEAR(seen, linkage_up_deg(*linkage, seen > 0 ? turn : -turn), 0.3) << name << " " << surface.name();
        }
        ++compared;
      }
    }
  }
  EXPECT_GT(compared, 60);
  EXPECT_GT(signs, 25);
}

}  // namespace
}  // namespace rigging::twin
