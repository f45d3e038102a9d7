#include <gtest/gtest.h>

#include <cmath>

#include "base/json.h"
#include "bench.h"
#include "bench_rig.h"
#include "direction/from_rig.h"
#include "rig/rig_file.h"
#include "senses/air.h"
#include "senses/gyro.h"
#include "senses/interference.h"
#include "senses/satellites.h"

/// What is wrong with the simulated sensors is hidden, and what core looks for finds it.
namespace rigging::twin {
namespace {

struct Sensing {
  Rig rig = *load_rig(in_source("/data/demo/hedgerow.rig.json"));
  Bench bench;
  explicit Sensing(std::vector<std::string> faults = {}, void (*change)(Rig&) = nullptr)
      : bench(made(rig, faults, change)) {
    bench.plug({false, true});
  }
  static Bench made(Rig& rig, const std::vector<std::string>& faults, void (*change)(Rig&)) {
    if (change) change(rig);
    SensesTruth truth = senses_of({rig, shipped()});
    for (const std::string& f : faults) {
      const auto ok = add_sense_fault(truth, f);
      EXPECT_TRUE(ok) << f;
    }
    const ControllerClass& c = *shipped().controller(rig.controller.kind);
    return Bench(rig, c, *truth_of(rig, c, {}), Harness(rig, shipped(), {}), truth);
  }
  BoardReadings read(double seconds) {
    BoardReadings all;
    for (int i = 0; i < seconds * 100; ++i) {
      bench.step(0.01);
      BoardReadings now = bench.take_readings();
      all.samples.insert(all.samples.end(), now.samples.begin(), now.samples.end());
      all.slow.insert(all.slow.end(), now.slow.begin(), now.slow.end());
      all.satellite_bytes += now.satellite_bytes;
    }
    return all;
  }
  GyroReport gyro() {
    Recording rates;
    for (const MotionSample& s : read(8).samples) {
      rates.t_s.push_back(s.t_s);
      rates.readings.add(s.rate_deg_s);
    }
    GyroOptions options;
    options.zeroed = true;
    return gyro_of(rates, options);
  }
};

TEST(TwinSenses, ABumpAtPowerUpIsFoundAndGoneAfterAStillStart) {
  Sensing s({"bumped"});
  s.read(1);
  EXPECT_EQ(s.gyro().verdict, Verdict::repeat);
  s.bench.plug({false, false});
  s.read(0.5);
  s.bench.plug({false, true});
  s.read(1);
  EXPECT_EQ(s.gyro().verdict, Verdict::good);
}

TEST(TwinSenses, OutAndInAgainWithinOneStepIsANewStart) {
  Sensing s({"bumped"});
  s.read(1);
  EXPECT_EQ(s.gyro().verdict, Verdict::repeat);
  s.bench.plug({false, false});
  s.bench.plug({false, true});
  s.read(1);
  EXPECT_EQ(s.gyro().verdict, Verdict::good);
}

TEST(TwinSenses, HandsThatMoveTheModelWhileItLooksForItsZeroSpoilItToo) {
  Sensing s;
  s.bench.hold({60, 0, 0});
  s.read(1);
  s.bench.hold({0, 0, 0});
  s.read(3);
  const GyroReport g = s.gyro();
  EXPECT_EQ(g.verdict, Verdict::repeat) << g.why;
}

TEST(TwinSenses, ASettingLeftOverKeepsItFromArmingUntilItIsSwitchedOff) {
  Sensing s({"left_over_airspeed"});
  s.read(1);
  EXPECT_EQ(s.bench.found().at(Sensor::airspeed), SensorState::missing);
  const auto refuses = [&](const char* sensor) {
    for (const BoardState::Refusal& r : s.bench.state().refuses)
      if (r.of == sensor) return true;
    return false;
  };
  EXPECT_TRUE(refuses("airspeed"));
  Rig mended = s.rig;
  mended.sensing.uses_airspeed = false;
  s.bench.configure(link::image_of(mended));
  EXPECT_FALSE(s.bench.found().count(Sensor::airspeed));
  EXPECT_FALSE(refuses("airspeed"));
}

TEST(TwinSenses, TheSkyIsFineSlowPoorOrNeverThere) {
  const auto after = [](const char* fault, double seconds) {
    Sensing s(fault ? std::vector<std::string>{fault} : std::vector<std::string>{});
    SatelliteReader reader;
    const auto fixes = reader.feed(s.read(seconds).satellite_bytes);
    EXPECT_EQ(reader.tally().damaged, 0u);
    EXPECT_EQ(reader.tally().foreign, 0u);
    EXPECT_GT(reader.tally().sentences, 20u);
    return standing(fixes);
  };
  const Standing fine = after(nullptr, 140);
  EXPECT_EQ(fine.verdict, Verdict::good) << fine.why;
  ASSERT_TRUE(fine.first_fix_s);
  EXPECT_NEAR(*fine.first_fix_s, 18, 1);
  EXPECT_EQ(after("sky_slow", 60).fixes, 0u);
  EXPECT_EQ(after("sky_never", 140).fixes, 0u);
  EXPECT_EQ(after("sky_poor", 140).verdict, Verdict::repeat);
}

TEST(TwinSenses, TheMotorsFieldIsThatOfTheLeads) {
  Sensing s;
  s.read(1);
  Recording field;
  std::vector<double> amps;
  double now_a = 0;
  for (const double throttle : {0.0, 0.5, 0.8, 1.0}) {
    s.bench.throttle(throttle);
    s.read(1);
    const BoardReadings r = s.read(3);
    std::size_t k = 0;
    for (const MotionSample& m : r.samples) {
      while (k < r.slow.size() && r.slow[k].t_s <= m.t_s) now_a = *r.slow[k++].current_a;
      if (!m.field_ut || k == 0) continue;
      field.t_s.push_back(m.t_s);
      field.readings.add(*m.field_ut);
      amps.push_back(now_a);
    }
  }
  const Interference f = interference_of(field, amps, 20, 20);
  const Point truth = s.bench.senses().truth().field_per_a;
  ASSERT_GT(f.most_a, 4);
  for (int axis = 0; axis < 3; ++axis) EXPECT_NEAR(f.per_a[axis], truth[axis], 4 * f.per_a_error[axis] + 0.01);
}

TEST(TwinSenses, ATubeThatLeaksAndHosesThatAreExchangedAreFound) {
  const auto airspeed = [](std::vector<std::string> faults) {
    Sensing s(std::move(faults), [](Rig& rig) {
      Part p;
      p.id = "pitot";
      p.kind = "airspeed_sensor";
      rig.parts.push_back(p);
    });
    std::vector<double> t, pa;
    const auto take = [&](double seconds) {
      for (const SlowReading& r : s.read(seconds).slow) {
        t.push_back(r.t_s);
        pa.push_back(r.pitot_pa.value_or(-999));
      }
    };
    take(5);
    s.bench.push_tube(400);
    take(12);
    s.bench.push_tube(0);
    take(3);
    return airspeed_of(t, pa);
  };
  EXPECT_EQ(airspeed({}).verdict, Verdict::good) << airspeed({}).why;
  EXPECT_GT(airspeed({"pitot_leak"}).lost_in_10s.value_or(0), 0.3);
  EXPECT_TRUE(airspeed({"hoses_exchanged"}).exchanged);
}

TEST(TwinSenses, LevelIsTheAttitudeThatItWasTold) {
  Sensing s({}, [](Rig& rig) {
    rig.sensing.level_nose_up_deg = 12;
    rig.sensing.level_right_down_deg = -10;
  });
  s.read(1);
  s.bench.mode(Mode::level);
  const auto furthest = [&] {
    double most = 0;
    for (const auto& [surface, deg] : s.bench.look().deflection)
      if (surface.kind != SurfaceKind::motor) most = std::max(most, std::abs(deg));
    return most;
  };
  s.bench.hold({0, 0, 0});
  s.read(3);
  const double flat = furthest();
  s.bench.hold({-10, 12, 0});
  s.read(3);
  EXPECT_GT(flat, 3);
  EXPECT_LT(furthest(), 1) << "held as it was told that level is, it corrects nothing";
}

TEST(TwinSenses, AnUnknownFaultSaysWhichThereAre) {
  SensesTruth truth;
  const auto no = add_sense_fault(truth, "haunted");
  ASSERT_FALSE(no);
  EXPECT_NE(no.error().text().find("sky_poor"), std::string::npos);
  for (const std::string& name : sense_fault_names()) EXPECT_TRUE(add_sense_fault(truth, name)) << name;
}

}  // namespace
}  // namespace rigging::twin
