#pragma once

#include "aeroplane.h"
#include "hands/hands.h"
#include "harness.h"
#include "link/image.h"
#include "senses.h"
#include "signal/board_state.h"
#include "surfaces/surfaces.h"
#include "transmitter.h"

namespace rigging::twin {

/// Everything on the bench, moved forward in time by whoever owns it: transmitter, receiver, controller, servos, and
/// the model that is held in the hand. It has no clock of its own.
class Bench {
 public:
  Bench(Rig rig, ControllerClass controller, Truth truth, Harness harness = {}, SensesTruth senses = {});

  /// Seconds, 0 to 1.
  void step(double dt_s);

  // What hands do.
  void plug(Supply supply);
  void hold(const std::array<double, 3>& pose_deg) {
    wanted_pose_ = pose_deg;
    flick_left_ = 0;
    comes_back_ = false;
  }
  void flick(Axis axis, int sense);
  void stick(Axis axis, double position) { radio_.stick(*from_name<ChannelFunction>(name_of(axis)), position); }
  void throttle(double position) { radio_.stick(ChannelFunction::throttle, 2 * position - 1); }
  /// By its switch where the plan has one for it; else told to the board.
  void mode(Mode m);
  void turn_control(int channel, double position);
  void press_button() { button_pressed_ = supply_.battery; }
  void transmitter(bool on) { radio_.on(on); }
  Transmitter& radio() { return radio_; }
  /// Turns the clevis of a surface; longer is positive. Only with the supply out, as the other works on the linkage.
  Result<void> clevis(Surface surface, double turns);
  /// Sets an output by hand, on the pages or keys of a class without a settings link, as far as the class can.
  Result<void> set_output(const std::string& id, bool reversed, double low_us, double centre_us, double high_us);
  /// Sets a servo arm on another tooth, toward the hinge positive.
  Result<void> tooth(Surface surface, int teeth);
  /// Turns a gain by hand, on a class without a settings link.
  Result<void> turn_gain(const AxisGain& gain);
  /// Carries out one remedy by hand. Settings can be changed by hand only on classes without a link.
  Result<void> work(const hands::Work& asked);

  // What eyes see.
  struct Sight {
    std::vector<std::pair<Surface, double>>
        deflection;  ///< degrees, trailing edge up (rudder: right) positive; motors −1 to 1
    std::array<double, 3> pose_deg{};
    std::string lamp;
    bool servos_powered = false;
  };
  Sight look() const;

  // What the controller knows.
  const link::Image& image() const { return image_; }
  /// Ports and the receiver's signal take effect with the next start where the class says so.
  void configure(link::Image image);
  bool awake() const { return awake_for_s_ > 0; }
  bool settled() const { return awake_for_s_ > 0.4; }
  bool receiver_powered() const { return supply_.battery && harness_.receiver_heard(); }
  /// Frames arrive, and none says that the link is gone.
  bool receiver_lit() const;
  /// Where the class locks its motor on a channel: until that is switched over.
  bool motor_locked() const;
  const Harness& harness() const { return harness_; }
  Harness& harness() { return harness_; }
  /// Pulses as received, 1000 to 2000 µs, by function; empty while the receiver is dark or the transmitter off.
  std::map<std::string, double> channels() const;
  std::map<std::string, double> pulses() const { return pulses_; }
  std::array<double, 3> rates_deg_s() const { return sensed_rate_; }
  Senses& senses() { return senses_; }
  /// Everything that the board's sensors say, its satellite receiver's line with it.
  BoardReadings take_readings();
  /// What the board finds of its sensors, and what it was told to use and does not find.
  std::map<Sensor, SensorState> found() const;
  void push_tube(double pressure_pa) { senses_.push_tube(pressure_pa); }
  /// Moves one socket alone; `level` −1 to 1. An error says why not.
  Result<void> drive(const std::string& socket, double level);
  void release() { driven_.clear(); }
  /// What it says of itself.
  BoardState state() const;

  const Rig& rig() const { return rig_; }
  /// What the configuration sets.
  const Rig& set() const { return set_; }
  const Truth& truth() const { return truth_; }
  const Senses& senses() const { return senses_; }
  const Transmitter& radio() const { return radio_; }
  /// What the controller takes a frame for.
  Command taken_for(const ChannelFrame& frame) const;
  /// −1 where the controller senses an axis the wrong way round.
  int sensing_sign(Axis axis) const;
  /// Where a surface stands with its servo at this pulse, degrees, trailing edge up (rudder: right).
  double surface_deg(Surface surface, double servo_us) const;
  bool finds_place() const { return satellites_.has_fix(); }
  const ControllerClass& controller() const { return controller_; }
  const Supply& supply() const { return supply_; }

 private:
  /// The linkage of a surface, for a hand that works on it.
  Result<Linkage*> within_reach(const char* work, Surface surface);
  std::array<double, 3> in_its_axes(const std::array<double, 3>& body) const;
  std::array<double, 3> sensed(const std::array<double, 3>& body) const;
  std::array<double, 2> leaning() const;
  Command corrections() const;
  /// Share of the travel for a degree a second, a degree of tilt and a degree turned since, as set and by the law of
  /// its class; without gains as it came.
  struct Strength {
    double rate = 0, tilt = 0, held = 0;
  };
  Strength strength(Axis axis) const;
  /// What flies: a mode that was told, or what its switches choose by its ranges.
  std::string flown_mode() const;
  /// With the link gone for this long: "waits", what it was set to do, or nothing where it does not know or can't.
  std::string acts_on_loss() const;
  std::vector<BoardState::Refusal> refusals() const;
  bool battery_low() const;
  std::string chosen_by(const ChannelFrame& frame) const;
  /// What the controller takes the channels for; nothing without a signal.
  std::optional<Command> commanded() const;

  Rig rig_;
  ControllerClass controller_;
  Truth truth_;
  Harness harness_;
  /// What hands have set goes into the configuration.
  void keep() { image_ = link::image_of(set_); }

  link::Image image_;
  Rig set_;  ///< what the configuration sets
  Supply supply_;
  double awake_for_s_ = 0;
  std::array<double, 3> pose_{}, wanted_pose_{}, sensed_rate_{}, runaway_{}, hold_{};
  double flick_left_ = 0;
  bool comes_back_ = false;  ///< from a flick
  Axis flick_axis_ = Axis::roll;
  int flick_sense_ = 1;
  Mode mode_ = Mode::manual;
  bool told_mode_ = false;   ///< `mode_` goes before the switches
  std::string chosen_mode_;  ///< that the switches chose last
  bool button_pressed_ = false, heard_ = false;
  double lost_for_s_ = 0;
  Transmitter radio_;
  Senses senses_;
  Satellites satellites_;
  std::string driven_;
  double drive_level_ = 0;
  std::map<std::string, double> pulses_;
  std::map<Surface, double> servo_us_;  ///< where each servo stands, as the pulse that holds it there; motors −1 to 1
};

/// Lets seconds pass, in steps that are fine enough for everything on the bench.
void pass_time(Bench& bench, double s);

}  // namespace rigging::twin
