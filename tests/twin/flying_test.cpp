#include "flying.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "base/angle.h"
#include "bench_rig.h"
#include "direction/from_rig.h"
#include "feel/advice.h"
#include "feel/edits.h"
#include "feel/flown.h"
#include "feel/flyer.h"
#include "hands/hands.h"
#include "mixer.h"
#include "ports.h"

namespace rigging::twin {
namespace {

const ControllerClass& class_of(const Rig& rig) { return *shipped().controller(rig.controller.kind); }

Rig with_first_gains(const char* name) {
  const Rig rig = demo(name);
  const auto set = set_first_gains(rig, shipped(), advise_feel(rig, shipped(), analyze_feel({rig, shipped()})));
  return set ? set->rig : rig;
}

Bench alive(const Rig& rig, const std::vector<direction::Fault>& faults = {}) {
  const Truth truth = *truth_of(rig, class_of(rig), faults);
  SensesTruth senses = senses_of({rig, shipped()});
  sit_as(senses, rig, truth.board);
  Bench bench(rig, class_of(rig), truth, {}, senses);
  bench.plug({false, true});
  for (int i = 0; i < 100; ++i) bench.step(0.01);
  return bench;
}

double rms(const std::vector<double>& v) {
  double sum = 0;
  for (const double x : v) sum += x * x;
  return std::sqrt(sum / static_cast<double>(v.size()));
}

TEST(TwinMixer, AgreesWithRiggingsOwnOnAnything) {
  std::mt19937 random(3);
  const auto between = [&random](double a, double b) { return std::uniform_real_distribution(a, b)(random); };
  for (int k = 0; k < 4000; ++k) {
    std::vector<Output> outputs(4);
    for (Output& o : outputs) {
      o.mix.roll = between(-1, 1), o.mix.pitch = between(-1, 1), o.mix.yaw = random() % 2 ? between(-1, 1) : 0;
      o.mix.flap = random() % 3 ? 0 : between(-1, 1);
      o.mix.roll_differential = random() % 2 ? between(-1, 1) : 0;
      o.reversed = random() % 2;
      o.low_us = between(900, 1200), o.centre_us = between(1400, 1600), o.high_us = between(1800, 2100);
    }
    outputs[3].mix = Mix{};
    outputs[3].mix.throttle = 1;
    const auto sharing = static_cast<Saturation>(random() % 4);
    const Command c{between(-1.5, 1.5), between(-1.5, 1.5), between(-1, 1), between(0, 1), between(0, 1)};
    std::vector<double> pulses;
    Mixer(outputs, sharing).pulses(c, pulses);
    const Command rest = shared(outputs, c, sharing);
    for (std::size_t i = 0; i < outputs.size(); ++i)
      ASSERT_NEAR(pulses[i], mixed(outputs[i], rest).pulse_us, 1e-6) << k << " output " << i;
  }
}

TEST(TwinFlight, FliesAsThePlanSaysWhenNothingDiffers) {
  // The twin's law, mixer, pulses and linkages against the planned flight's degrees: written apart, the same gusts.
  for (const char* name : {"hedgerow", "bramble"}) {
    const Rig rig = with_first_gains(name);
    FlyOptions o;
    o.mode = Mode::rate;
    o.wind_m_s = 4;
    o.seconds = 12;
    const auto planned = rigging::fly(rig, shipped(), o);
    const auto flown = fly(alive(rig), flying_of({rig, shipped()}), o);
    ASSERT_TRUE(planned) << planned.error().text();
    ASSERT_TRUE(flown) << flown.error().text();
    for (std::size_t k = 0; k < 2; ++k)
      EXPECT_NEAR(rms(flown->rate_deg_s[k]) / rms(planned->rate_deg_s[k]), 1, 0.15) << name << " axis " << k;
    EXPECT_NEAR(flown->motion.back().height(), planned->motion.back().height(), 8) << name;
  }
}

TEST(TwinFlight, TheBoardFliesWhatWasWrittenToItAndNotWhatTheRigSays) {
  Rig rig = with_first_gains("hedgerow");
  Bench bench = alive(rig);
  FlyOptions o;
  o.wind_m_s = 5;
  o.seconds = 10;
  const FlyingTruth air = flying_of({rig, shipped()});
  const auto before = fly(bench, air, o);
  Rig firm = rig;
  firm.feel.made_gain(Axis::roll).rate = 0.9;
  const auto same = fly(bench, air, o);
  ASSERT_TRUE(before && same);
  EXPECT_EQ(before->csv(), same->csv()) << "a rig that is edited changes no board";
  bench.configure(link::with_gains(bench.image(), link::image_of(firm)));
  const auto after = fly(bench, air, o);
  ASSERT_TRUE(after);
  double was = 0, is = 0;
  for (std::size_t i = 0; i < before->size(); ++i) was += std::abs(before->correction[0][i]);
  for (std::size_t i = 0; i < after->size(); ++i) is += std::abs(after->correction[0][i]);
  EXPECT_GT(is, 1.5 * was);
}

TEST(TwinFlight, AReversedSenseOrATurnedBoardTurnsItOver) {
  Rig rig = with_first_gains("hedgerow");
  rig.feel.made_gain(Axis::roll).rate = 0.8;
  FlyOptions o;
  o.mode = Mode::level;
  o.wind_m_s = 3;
  o.seconds = 15;
  const auto turned = [&](const std::string& fault) {
    const auto c = direction::case_from_rig(rig, class_of(rig));
    std::vector<direction::Fault> faults;
    if (!fault.empty()) faults.push_back(*fault_from_text(fault, c));
    const auto flight = fly(alive(rig, faults), flying_of({rig, shipped()}), o);
    return flight ? seen_in(*flight, nullptr, nullptr).worst_bank_deg : -1;
  };
  const double right = turned("");
  EXPECT_GE(right, 0);
  EXPECT_LT(right, 35);
  EXPECT_GT(turned("gyro_reversed:roll"), 80);
  EXPECT_GT(turned("board_turned:arrow_tail_top_up"), 80);
}

TEST(TwinFlight, ABadLevelShowsInTheHeightAndAGoodOneCuresIt) {
  Rig rig = with_first_gains("hedgerow");
  const FlyingTruth air = flying_of({rig, shipped()});
  FlyOptions o;
  o.mode = Mode::level;
  o.pilot = false;
  o.seconds = 20;
  const auto climb = [&](double level_nose_up_deg) {
    Rig told = rig;
    told.sensing.level_nose_up_deg = level_nose_up_deg;
    const auto f = fly(alive(told), air, o);
    EXPECT_TRUE(f);
    return f ? seen_in(*f, nullptr, nullptr).climb_m : 0;
  };
  const double right = climb(air.cruise_nose_up_deg), low = climb(air.cruise_nose_up_deg - 4),
               high = climb(air.cruise_nose_up_deg + 4);
  EXPECT_LT(low, right - 4);
  EXPECT_GT(high, right + 2);
}

TEST(TwinFlight, WhatCantFlySaysWhy) {
  const Rig rig = with_first_gains("hedgerow");
  FlyOptions o;
  o.seconds = 1;
  Bench unpowered(rig, class_of(rig), *truth_of(rig, class_of(rig), {}), {}, senses_of({rig, shipped()}));
  EXPECT_FALSE(fly(unpowered, flying_of({rig, shipped()}), o));
  Rig empty = rig;
  empty.airframe.mass_kg.reset();
  empty.fit.frame_mass_kg.reset();
  EXPECT_FALSE(flying_of({empty, shipped()}).cannot.empty());
  FlyingTruth t = flying_of({rig, shipped()}), same = t;
  make_different(t, 4);
  make_different(same, 4);
  EXPECT_EQ(t.aeroplane, same.aeroplane);
  EXPECT_NE(t.aeroplane, flying_of({rig, shipped()}).aeroplane);
}

TEST(TwinFlight, ItsLogComesOverTheHandsInPiecesAndReadsBack) {
  const Rig rig = with_first_gains("hedgerow");
  Bench bench = alive(rig);
  HandsPort port(bench, {}, flying_of({rig, shipped()}));
  int id = 0;
  const auto ask = [&](const hands::Request& request) {
    Json body = hands::body_of(request);
    body["do"] = hands::request_name(request);
    body["id"] = ++id;
    link::FrameReader reader;
    reader.feed(port.feed(link::encode_frame(body)));
    return std::get<Json>(reader.take());
  };
  EXPECT_FALSE(ask(hands::ReadFlight{})["ok"].get<bool>()) << "nothing has flown yet";
  FlightPlan plan;
  plan.seconds = 6;
  plan.wind_m_s = 3;
  plan.sticks = {{1, 2, Axis::roll, 0.4}};
  const Json done = ask(hands::Fly{plan});
  ASSERT_TRUE(done["ok"].get<bool>()) << done.dump();
  EXPECT_TRUE(done["simulated"].get<bool>());
  std::string text;
  while (text.size() < done["size"].get<std::size_t>()) {
    const hands::FlightPiece piece = hands::piece_of(ask(hands::ReadFlight{text.size()}));
    ASSERT_FALSE(piece.text.empty());
    text += piece.text;
  }
  const auto flight = flight_from_csv(text, "it");
  ASSERT_TRUE(flight) << flight.error().text();
  EXPECT_EQ(flight->size(), 601u);
  EXPECT_GT(*std::max_element(flight->stick[0].begin(), flight->stick[0].end()), 0.35);
  const auto straight = fly(bench, flying_of({rig, shipped()}), plan);
  ASSERT_TRUE(straight);
  EXPECT_NEAR(flight->motion[500].bank(), straight->motion[500].bank(), 1e-4);
  EXPECT_TRUE(parse_flight_log(text, "it"));
  EXPECT_FALSE(flight_from_csv("t_s,roll_rate_deg_s\n0,1\n", "it"));
}

TEST(TwinFlight, AModelThatDiffersStillCorrectsByThePercentThatWasWritten) {
  // The law of a dial is what nobody knows; a percentage is a percentage.
  const Rig rig = with_first_gains("hedgerow");
  FlyOptions o;
  o.wind_m_s = 4;
  o.seconds = 10;
  const auto planned = rigging::fly(rig, shipped(), o);
  FlyingTruth air = flying_of({rig, shipped()});
  make_different(air, 3);
  const auto flown = fly(alive(rig), air, o);
  ASSERT_TRUE(planned && flown);
  const auto firmness = [](const Flight& f) { return rms(f.correction[0]) / rms(f.rate_deg_s[0]); };
  EXPECT_NEAR(firmness(*flown) / firmness(*planned), 1, 0.2);
}

TEST(TwinFlight, GainsAreTurnedByHandWhereThereIsNoLink) {
  Rig rig = demo("heath");
  Bench bench = alive(rig);
  ASSERT_TRUE(bench.turn_gain({Axis::pitch, 0.5, {}, {}, {}}));
  EXPECT_DOUBLE_EQ(*bench.set().feel.gain(Axis::pitch)->rate, 0.5);
  Bench linked = alive(demo("hedgerow"));
  EXPECT_FALSE(linked.turn_gain({Axis::pitch, 0.5, {}, {}, {}}));
}

// Hands off: the twin's own law and the planned one, written apart, hold the height at which the sticks were let go,
// and the heading where the mode says so. A tug at the pitch stick changes the height, and it holds the new one.
TEST(TwinFlight, AModeThatKeepsHeightAndHeadingDoesSo) {
  Rig rig = with_first_gains("hedgerow");
  // How well it holds goes by how firmly it levels.
  for (const Axis axis : {Axis::roll, Axis::pitch}) rig.feel.made_gain(axis).level = 0.6;
  for (const Mode mode : {Mode::level_height, Mode::heading_height}) {
    FlyOptions o;
    o.mode = mode, o.wind_m_s = 3, o.seconds = 60;
    o.sticks = {{5, 8, Axis::pitch, 0.8}, {5, 6, Axis::roll, 0.5}};
    const auto planned = rigging::fly(rig, shipped(), o);
    const auto flown = fly(alive(rig), flying_of({rig, shipped()}), o);
    ASSERT_TRUE(planned) << planned.error().text();
    ASSERT_TRUE(flown) << flown.error().text();
    for (const Flight* f : {&*planned, &*flown}) {
      const char* who = f == &*planned ? "planned" : "twin";
      EXPECT_EQ(f->end, "") << who;
      const std::vector<double> heights = f->heights();
      EXPECT_GT(heights.back(), heights.front() + 2) << who << ": the stick asked for a climb";
      const auto from = static_cast<std::size_t>(25 / f->step_s);
      double least = 1e9, most = -1e9, least_turn = 0, most_turn = 0;
      for (std::size_t i = from; i < heights.size(); ++i) {
        least = std::min(least, heights[i]), most = std::max(most, heights[i]);
        const double turned = std::remainder(f->motion[i].heading() - f->motion[from].heading(), 2 * pi);
        least_turn = std::min(least_turn, turned), most_turn = std::max(most_turn, turned);
      }
      EXPECT_LT(most - least, 8) << who << " " << name_of(mode);
      if (mode == Mode::heading_height) EXPECT_LT(most_turn - least_turn, 25 * rad) << who;
    }
  }
}

}  // namespace
}  // namespace rigging::twin
