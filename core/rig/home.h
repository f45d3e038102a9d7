#pragma once

#include <optional>
#include <string>
#include <vector>

#include "base/described.h"
#include "base/extra.h"
#include "base/words.h"

namespace rigging {

struct ModeChoice {
  int channel = 5;
  double from_us = 1000, to_us = 2000;
  std::string mode;
  Extra extra;
  bool operator==(const ModeChoice&) const = default;
};

/// What the controller does by itself when the link is gone: nothing decided, motor off and wings level, a circle where
/// it is, or back to where it was armed.
enum class LossAction { undecided, glide, circle, come_home };
/// What it does once it is home.
enum class OnArrival { circle, land };

/// Something high near the field, as seen from home.
struct FieldObstacle {
  std::string name;
  double bearing_deg = 0, distance_m = 0, height_m = 0;
  Extra extra;
  bool operator==(const FieldObstacle&) const = default;
};

struct Home {
  LossAction on_loss = LossAction::undecided;
  double hold_s = 1.5;                    ///< that it flies on before it acts (common practice)
  bool climb_first = false;               ///< to the return height in circles before it sets out; else on the way
  std::optional<double> height_m;         ///< of the way home, above it
  std::optional<double> circle_radius_m;  ///< over home
  OnArrival on_arrival = OnArrival::circle;
  std::optional<double> warn_v;              ///< of the whole battery under load: it or the pilot turns home there
  double wind_m_s = 5, wind_from_deg = 270;  ///< that the plan counts with
  std::optional<double> area_m;              ///< how far it is meant to fly
  std::vector<FieldObstacle> obstacles;
  std::string looked_up;  ///< which rules of the place and the club were looked up, in the builder's words
  Extra extra;
  bool operator==(const Home&) const = default;
};

template <>
const Members& Described<ModeChoice>::members();
template <>
const Members& Described<FieldObstacle>::members();
template <>
const Members& Described<Home>::members();

template <>
struct Words<LossAction> {
  using A = LossAction;
  static constexpr std::array<std::pair<A, std::string_view>, 4> list{
      {{A::undecided, "undecided"}, {A::glide, "glide"}, {A::circle, "circle"}, {A::come_home, "come_home"}}};
};
template <>
struct Words<OnArrival> {
  static constexpr std::array<std::pair<OnArrival, std::string_view>, 2> list{
      {{OnArrival::circle, "circle"}, {OnArrival::land, "land"}}};
};

}  // namespace rigging
