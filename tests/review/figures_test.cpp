#include <gtest/gtest.h>

#include <cmath>

#include "base/json.h"
#include "bench_rig.h"
#include "fit/fit.h"
#include "power/power.h"
#include "review/review.h"

// Rules of the product that hold for every number and every rig.
namespace rigging {
namespace {

TEST(Figures, EveryNumberSaysWhereItCameFrom) {
  for (const char* name : {"hedgerow", "heath", "delta", "bramble"}) {
    const Rig rig = demo(name);
    const Review r = review(rig, shipped());
    for (const auto& figures : {r.reports.airframe().figures(), r.reports.power().figures(), r.reports.fit().figures()})
      for (const Figure& f : figures) {
        EXPECT_FALSE(f.name.empty() || f.formula.empty() || f.source.empty()) << name << ": " << f.name;
        EXPECT_TRUE(std::isfinite(f.value)) << f.name;
        EXPECT_EQ(f.least.has_value(), f.most.has_value()) << f.name << ": a band has two ends";
        if (f.least) {
          EXPECT_LE(*f.least, f.value + 1e-9) << f.name;
          EXPECT_GE(*f.most, f.value - 1e-9) << f.name;
        }
      }
  }
}

TEST(Figures, AnEstimateHasABandAndAMeasurementHasNone) {
  Rig rig = demo("heath");
  const PowerReport estimate = analyze_power(rig, shipped());
  EXPECT_TRUE(estimate.drive->static_current.least && estimate.drive->thrust.least && estimate.endurance->least);
  EXPECT_FALSE(estimate.drive->measured);
  rig.power.static_a = 15;
  rig.power.static_thrust_n = 7;
  rig.power.cruise_a = 5;
  const PowerReport measured = analyze_power(rig, shipped());
  EXPECT_FALSE(measured.drive->static_current.least || measured.drive->thrust.least || measured.endurance->least);
  EXPECT_EQ(measured.drive->static_current.value, 15);
  EXPECT_NEAR(measured.drive->thrust_to_weight->value, 7 / (*rig.airframe.mass_kg * 9.80665), 1e-9);
  EXPECT_GT(measured.endurance->value, 0);
}

TEST(DriveTrain, GrowsWithCellsDiameterAndPitch) {
  const MotorFigures motor{1000, 0.09, 0.6, 18, {}};
  const auto point = [&](double inches, double pitch, double volts) {
    PropellerFigures propeller;
    propeller.diameter_m = inches * 0.0254;
    propeller.pitch_m = pitch * 0.0254;
    return static_point(motor, propeller, volts, 0.02);
  };
  const Motor base = point(9, 5, 11.1);
  EXPECT_GT(point(10, 5, 11.1).amps, base.amps);
  EXPECT_LT(point(10, 5, 11.1).rev_s, base.rev_s);
  EXPECT_GT(point(9, 6, 11.1).amps, base.amps);
  EXPECT_GT(point(9, 5, 14.8).amps, base.amps);
  EXPECT_GT(point(9, 5, 14.8).thrust_n, base.thrust_n);
  // A propeller that is no burden leaves the motor at its free speed and its own current.
  const Motor free = point(1, 0.5, 11.1);
  EXPECT_NEAR(free.amps, 0.6, 0.05);
  EXPECT_NEAR(free.rev_s * 60, (11.1 - 0.6 * 0.11) * 1000, 60);
}

TEST(Leads, TheirUsualLengthAndGaugeAreThoseOfTheirKind) {
  for (const auto& [kind, name] : Names<LeadKind>::list) {
    Lead l;
    l.kind = kind;
    EXPECT_GT(lead_length_m(l), 0) << name;
    EXPECT_GT(lead_awg(l), 0) << name;
    const double usual = lead_ohm(l);
    l.length_m = 2 * lead_length_m(l);
    EXPECT_GT(lead_ohm(l), usual) << name;
    l.gauge_awg = lead_awg(l) + 6;
    EXPECT_GT(lead_ohm(l), 2 * usual) << name;
  }
  // Three gauge numbers halve the copper (common practice; the formula of ASTM B258 gives 0.4988).
  EXPECT_NEAR(copper_ohm_per_m(20) / copper_ohm_per_m(23), 0.5, 0.002);
}

TEST(Review, TheStationsShowHowTheyStand) {
  const auto state = [](const Rig& rig, Station s) {
    return review(rig, shipped()).stations[static_cast<std::size_t>(s)];
  };
  Rig rig = demo("hedgerow");
  for (const Station s : {Station::fit, Station::power, Station::wiring})
    EXPECT_EQ(state(rig, s), StationState::planned);
  rig.lead("gps")->pair_turned = true;
  EXPECT_EQ(state(rig, Station::wiring), StationState::snags);
  EXPECT_EQ(state(rig, Station::power), StationState::planned);
  Rig bare = rig;
  bare.parts.clear();
  bare.leads.clear();
  bare.mountings.clear();
  for (const Station s : {Station::fit, Station::power, Station::wiring})
    EXPECT_EQ(state(bare, s), StationState::unknown) << name_of(s);
}

}  // namespace
}  // namespace rigging
