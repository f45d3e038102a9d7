#pragma once

#include "airframe/airframe.h"
#include "power/power.h"

namespace rigging {

struct MassItem {
  std::string part, name;
  double mass_kg = 0;
  Point at;  ///< metres, body axes with the nose at x = 0
  bool placed = false, weighed = false;
  bool airframe = false;  ///< the bare airframe, without anything that is listed
  bool operator==(const MassItem&) const = default;
};

/// What to do to reach a wanted balance point.
struct BalanceAdvice {
  std::string words;
  std::optional<double> battery_to_m;  ///< middle of the battery behind the nose
  std::optional<double> weight_kg;     ///< else: weight to add …
  double weight_at_m = 0;              ///< … behind the nose
  bool operator==(const BalanceAdvice&) const = default;
};

/// Where it balances, against the band that is allowed; a micrometre beyond counts as on it.
enum class BalanceSide { unknown, nose_heavy, holds, tail_heavy };
template <>
struct Names<BalanceSide> {
  static constexpr std::array<std::pair<BalanceSide, std::string_view>, 4> list{
      {{BalanceSide::unknown, "unknown"},
       {BalanceSide::nose_heavy, "nose-heavy"},
       {BalanceSide::holds, "holds"},
       {BalanceSide::tail_heavy, "tail-heavy"}}};
};

struct Balance {
  std::vector<MassItem> items;  ///< the frame first
  Figure total;
  Figure balance_point;                      ///< behind the nose
  Figure lateral;                            ///< right of the middle
  Figure wanted, first_flight;               ///< behind the nose
  double band_front_m = 0, band_back_m = 0;  ///< allowed
  Figure static_margin;                      ///< as it is, share of the mean chord in percent
  BalanceAdvice to_wanted, to_first_flight;
  std::string lateral_advice;
  bool complete = false;  ///< frame weighed and balanced, every part placed
  /// Where it balances behind the nose, metres; where it is wanted to while that is not known.
  double likely_m() const { return complete ? balance_point.value : wanted.value; }
  BalanceSide side() const;
  bool operator==(const Balance&) const = default;
};

/// A current in a lead, as the compass feels it.
struct CurrentPath {
  std::string lead, name;
  Point a, b;
  double amps = 0;
  double spacing_m = 0;  ///< between plus and minus
  bool single = false;   ///< they run apart: each counts as a conductor of its own
  bool operator==(const CurrentPath&) const = default;
};

struct CompassPath {
  CurrentPath path;
  double distance_m = 0;  ///< nearest point of the lead to the compass
  double field_ut = 0;    ///< at the compass, worst direction
  double error_deg = 0;
  double least_distance_m = 0;  ///< of a long lead with this current and spacing, for less than two degrees
  bool operator==(const CompassPath&) const = default;
};

/// What the leads' fields make of a compass. `so_far`: it holds with what is known, and the motor's current is not.
enum class CompassVerdict { holds, so_far, too_near, points_nowhere };

struct CompassReport {
  std::string part;  ///< which part carries the compass; "controller" for one on the board
  Point at;
  Figure horizontal;               ///< of the earth, µT
  std::vector<CompassPath> paths;  ///< worst first; without the part's own leads
  Figure error;                    ///< all leads together, worst direction, degrees
  CompassVerdict verdict = CompassVerdict::holds;
  bool operator==(const CompassReport&) const = default;
};

/// Parts that overlap, stick out of the bay or stand outside of the airframe.
struct Clash {
  enum class What { overlap, out_of_bay, plug_room, outside };
  What what = What::overlap;
  std::string part, other;  ///< other is empty where it is no part
  std::string words;
  bool operator==(const Clash&) const = default;
};

struct Alignment {
  Turn turn;
  double roll_deg = 0, pitch_deg = 0, yaw_deg = 0;
  Eigen::Matrix3d matrix;    ///< model = matrix · board
  bool told = false;         ///< the controller is set to this turn
  bool by_switches = false;  ///< arrow to the tail, and the class' switches undo it
  bool can_be_told = false;
  bool small_matters = false;  ///< the small angles exceed what a level calibration takes up
  bool operator==(const Alignment&) const = default;
};

/// One line of what to get before starting.
struct ToGet {
  std::string what;
  int count = 1;
  std::string why;
  bool operator==(const ToGet&) const = default;
};

struct FitReport {
  Balance balance;
  Alignment board;
  std::vector<CompassReport> compasses;
  std::vector<CurrentPath> currents;
  std::vector<Clash> clashes;
  std::vector<ToGet> to_get;
  std::vector<Figure> figures() const;
  bool operator==(const FitReport&) const = default;
};

/// As it was weighed, else by its kind, kg; nothing where neither is known.
std::optional<double> mass_of(const Part& part, const Catalogue& catalogue);

/// What overlaps (the first 500 pairs), sticks out of the bay, stands outside of the airframe, or leaves no room for
/// plugs, of all that has a place and a size.
std::vector<Clash> find_clashes(const Rig& rig, const Catalogue& catalogue);

/// Things that only the builder can see; ticked in `fit.confirmed`.
struct Confirmation {
  std::string word;
  std::string text;
};
/// Those that this rig asks for.
std::vector<Confirmation> confirmations(const Rig& rig, const Catalogue& catalogue);

FitReport analyze_fit(const Rig& rig, const Catalogue& catalogue, const AirframeReport& airframe,
                      const PowerReport& power);

/// Middle of a part, metres in body axes.
Point point_of(const Mounting& place);

/// Field in µT of a straight conductor from a to b at p: Biot–Savart, μ0·I/(4πd)·(cos θ1 − cos θ2). Zero on the line
/// itself.
Point field_of_segment_ut(Point a, Point b, double amps, Point p);
/// Plus and minus `spacing_m` apart, lying so that p feels the most.
double field_of_pair_ut(const CurrentPath& path, Point p);
/// Worst heading error in degrees of a disturbing field against the earth's horizontal one: asin(B/H),
/// `points_nowhere_deg` when it is larger.
double heading_error_deg(double disturbing_ut, double horizontal_ut);
/// What `heading_error_deg` gives where the disturbance is as strong as the earth: any heading can be read.
inline constexpr double points_nowhere_deg = 180;
/// Distance from a long pair at which its field is worth `error_deg`: √(μ0·I·s / (2π·H·sin ε)).
double least_distance_m(double amps, double spacing_m, double horizontal_ut, double error_deg);
/// The same for a single conductor, whose field falls with the distance alone.
double least_distance_single_m(double amps, double horizontal_ut, double error_deg);
/// Worst heading error at a point, for drawing the cloud.
double error_at(const FitReport& report, Point p, double horizontal_ut);

inline constexpr double wanted_compass_error_deg = 2;

}  // namespace rigging
