#pragma once

#include "rig/rig.h"

/// From pulse to servo arm to surface to millimetres, and back: the planar four-bar linkage.
namespace rigging {

/// The rig's linkage of a surface, or a usual one to begin with.
Linkage linkage_of(const Rig& rig, Surface surface);
/// The rig with this linkage in place of the one of its surface.
Rig with_linkage(Rig rig, const Linkage& linkage);

/// Where the four joints are, in the plane of the linkage: x aft from the servo's axis, y toward the side of the horn,
/// metres.
struct LinkagePose {
  double arm_deg = 0;                 ///< arm from square, toward the hinge positive
  double up_deg = 0;                  ///< surface, trailing edge up (rudder: right) positive
  double arm_x_m = 0, arm_y_m = 0;    ///< hole of the arm
  double horn_x_m = 0, horn_y_m = 0;  ///< hole of the horn
  double ratio = 0;                   ///< surface degrees per degree of arm, with the sign of the sense
  double rod_to_arm_deg = 90;         ///< angle between rod and arm, 0 to 90: small near the arm's dead centre
  double rod_to_horn_deg = 90;        ///< angle between rod and horn: small where the horn binds
};

/// Why a linkage has no pose, or none that can be used.
enum class LinkageFault {
  rod_too_short,     ///< arm and horn can't be joined: too far apart
  rod_too_long,      ///< they can't be joined: one lies inside the other's reach
  arm_dead_centre,   ///< arm and rod in one line: the surface turns back although the servo goes on
  horn_dead_centre,  ///< rod and horn in one line: it binds
  no_size            ///< an arm, rod or horn of no length
};

struct LinkageProblem {
  LinkageFault fault = LinkageFault::no_size;
  double arm_deg = 0;  ///< where it is met
  std::string words;
  bool operator==(const LinkageProblem&) const = default;
};

/// A linkage with its fixed measures worked out once. Solving a pose costs under a microsecond.
class FourBar {
 public:
  /// Errors: lengths that are not positive; a linkage without `base_m` whose rod can't make it neutral.
  static Result<FourBar> of(const Linkage& linkage);

  /// The surface for an arm angle, on the branch on which the linkage was built. Error: the rod can't join them there.
  tl::expected<LinkagePose, LinkageFault> pose(double arm_deg) const;
  /// The arm angle for a surface angle: the inverse, on the branch that holds the neutral. Error: out of reach.
  tl::expected<double, LinkageFault> arm_for(double up_deg) const;
  /// Servo axis to hinge along the chord.
  double base_m() const { return base_m_; }
  /// Change of rod length that makes the surface neutral at this arm angle, metres; longer is positive.
  double rod_change_for_neutral(double arm_deg) const;

 private:
  struct Spot {
    double x = 0, y = 0;
  };
  Spot arm_hole(double arm_rad) const;
  Spot horn_hole(double horn_rad) const;

  double arm_m_ = 0, rod_m_ = 0, horn_m_ = 0, base_m_ = 0, drop_m_ = 0;
  double neutral_horn_rad_ = 0;
  double arm_side_ = 1;                       ///< −1 when the arm stands to the other side
  double push_sense_ = 1;                     ///< +1 when pushing lifts
  double horn_branch_ = 1, arm_branch_ = -1;  ///< which of the two ways of joining
};

/// Arm angle at a pulse: `servo_travel_deg` per 500 µs, `arm_deg` at 1500 µs. `sense` +1: a rising pulse lifts the
/// surface.
double arm_at(const Linkage& linkage, double pulse_us, int sense);
double pulse_at(const Linkage& linkage, double arm_deg, int sense);

/// What the linkage does over the whole pulse range.
struct LinkageCurve {
  struct Point {
    double pulse_us;
    LinkagePose pose;
  };
  std::vector<Point> points;                  ///< every 10 µs from `low_us` to `high_us`, as far as it can be moved
  double neutral_deg = 0;                     ///< at the centre pulse
  double most_up_deg = 0, most_down_deg = 0;  ///< both positive when the neutral lies between
  double differential = 1;                    ///< up throw over down throw about the neutral at the centre
  double deg_per_us = 0;                      ///< at the centre
  std::vector<LinkageProblem> problems;
};
Result<LinkageCurve> trace(const Linkage& linkage, const Output& output);

/// Pulse at which the surface stands at `up_deg`, within the linkage's monotonic range. Error: out of reach, with the
/// nearest angle.
Result<double> pulse_for(const Linkage& linkage, double up_deg, int sense);

/// Straight distance of the trailing edge from its neutral place, as a ruler reads it: 2·chord·sin(angle / 2).
double throw_m(double chord_m, double deg);
double throw_deg(double chord_m, double distance_m);

/// +1 when a rising pulse of this output lifts this surface of it on an aircraft built right. On a Y-lead each side has
/// its own.
int rising_lifts(const Output& output, Surface surface);

// Choosing holes
// -----------------------------------------------------------------------------------------------------------------

struct HoleChoice {
  double arm_m = 0, horn_m = 0;
  double up_deg = 0, down_deg = 0;  ///< at the ends of the pulse range
  double travel_percent = 100;      ///< of the pulse range that gives the wanted throw; over 100 when it can't
  double step_deg = 0;              ///< that one dead band of the servo moves the surface
  double force = 1;  ///< servo torque to hinge moment: hinge moment held per servo torque, at the wanted throw
  bool reaches = false;
  std::string remark;
};

/// All combinations of the linkage's holes for a wanted throw, best first: those that reach it, with the most of the
/// servo's travel used (finest steps, most force). `dead_band_us` of the servo. Errors: no holes given, or a wanted
/// throw of 0 or over 85°.
Result<std::vector<HoleChoice>> choose_holes(const Linkage& linkage, const Output& output, double want_deg,
                                             double dead_band_us);

/// The linkage with other holes: servo and hinge stay, the rod is cut so that the surface is flush at 1500 µs. Errors
/// as of `FourBar::of`.
Result<Linkage> with_holes(Linkage linkage, double arm_m, double horn_m);

// Estimating
// -----------------------------------------------------------------------------------------------------------------------

struct Estimate {
  Linkage linkage;          ///< with arm, horn and travel as the readings say
  double residual_deg = 0;  ///< root mean square over the readings
  int sense = 1;            ///< +1: a rising pulse lifts the surface
};

/// The linkage that explains the readings best: arm, horn and servo travel are fitted, lengths kept, with a mild pull
/// to what was measured before. Errors: fewer than three readings, or readings that rise and fall.
Result<Estimate> estimate(const Linkage& linkage);

/// What a class of controller lets its outputs be set to; where it does not, arm, rod and holes have to do it.
struct OutputSettings {
  bool centre = true, ends = true;
  bool reverse = true;  ///< one output by itself; some classes reverse a whole function instead
};

/// What to set so that the surface is flush and its throws are as wanted.
struct Centring {
  double neutral_now_deg = 0;  ///< at the output's centre
  int teeth = 0;               ///< to set the servo arm on its spline, toward the hinge positive
  double clevis_turns = 0;     ///< whole half turns; lengthening the rod positive
  double low_us = 1000, centre_us = 1500, high_us = 2000;  ///< after arm and clevis
  bool reverse = false;                                    ///< the output's direction has to be turned round
  double up_deg = 0, down_deg = 0;                         ///< throws that will be there
  std::vector<std::string> limits;                         ///< what can't be reached
  bool settled = false;  ///< as read at centre and ends it is near enough: nothing has to change
};
/// `want_up_deg`, `want_down_deg` of the linkage or, where absent, the smaller of both throws. A
/// servo arm that is more than half a tooth off goes on another tooth, the clevis takes what is then over two degrees,
/// the centre the rest. On a Y-lead the output is set for its first surface; every other is brought to it by hand, and
/// one that goes the wrong way is a limit. Without a centre to set, the clevis takes all that half a turn can; without
/// ends, pulses stay and what that leaves is a limit; so is a servo that goes the other way than planned where no
/// single output can be turned round.
Result<Centring> centre(const Linkage& linkage, const Output& output, OutputSettings can = {});
/// The linkage after hands have done what the centring says; its readings are forgotten.
Linkage worked_over(Linkage linkage, const Centring& done);

}  // namespace rigging
