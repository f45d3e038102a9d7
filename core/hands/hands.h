#pragma once

#include <map>
#include <variant>

#include "base/json_fwd.h"
#include "base/result.h"
#include "hands/flight_plan.h"
#include "rig/feel.h"
#include "rig/outputs.h"
#include "rig/radio.h"
#include "rig/remedy.h"

/// What a builder's hands do at a bench and what eyes see there, as data: procedures ask for it, the application sends
/// it to simulated hands, the twin carries it out (docs/twin.md has the members).
namespace rigging::hands {

struct Supply {
  bool usb = false, battery = false;
};
/// One stick, −1 to 1; the throttle without an axis, 0 to 1.
struct Stick {
  std::optional<Axis> axis;
  double position = 0;
};
/// The model held at an attitude, degrees: pitch −90 to 90, roll and yaw −180 to 180.
struct Hold {
  double roll_deg = 0, pitch_deg = 0, yaw_deg = 0;
};
struct Flick {
  Axis axis = Axis::roll;
  int sense = 1;
};
struct ChooseMode {
  Mode mode = Mode::manual;
};
struct SwitchTransmitter {
  bool on = true;
};
/// A switch, slider or rotary control of a channel, −1 to 1.
struct TurnControl {
  int channel = 5;
  double position = 0;
};
/// The safety button of a board that has one, with the battery in.
struct PressButton {};
struct ReadTransmitter {};
/// Sets a channel in the transmitter: direction, sub-trim, travels.
struct Dial {
  Channel channel;
};
/// Turns the clevis; longer is positive.
struct Clevis {
  Surface surface;
  double turns = 0;
};
/// Sets the servo arm on its spline; toward the hinge is positive.
struct Tooth {
  Surface surface;
  int teeth = 0;
};
/// Sets an output on the board's own pages or keys, where it has no settings link.
struct SetOutput {
  Output output;
};
/// Looks at a lead with everything dark.
struct Inspect {
  std::string lead;
};
/// Puts a lead as planned, with everything dark.
struct Mend {
  std::string lead;
};
/// Undoes a wrong direction by hand: a remedy, and what it is about.
struct Work {
  Remedy remedy = Remedy::check_output;
  std::vector<std::string> outputs;  ///< one, or the two whose leads are exchanged
  std::vector<Axis> axes;            ///< one, or the two that are exchanged
  std::optional<Surface> surface;
};
/// Puts a pressure on the airspeed sensor's tube and holds it there, −2000 to 2000 Pa; 0 lets go.
struct PushTube {
  double pressure_pa = 0;
};
/// Turns a dial, a slider or keys of a gain, where the board has no settings link: 0 at least, 1 at most.
struct TurnGain {
  AxisGain gain;
};
/// Flies the model as it is built and set; what is kept of the flight is read with `ReadFlight`.
struct Fly {
  FlightPlan plan;
};
/// A piece of the last flight's log, from this byte on; answered with a `FlightPiece`.
struct ReadFlight {
  std::size_t from = 0;
};
/// Lets so much time pass on a bench whose time stands otherwise, seconds, 0 to 1.
struct PassTime {
  double s = 0;
};
/// Looks at the model; answered with a `Sight`.
struct Look {};

using Request = std::variant<Supply, Stick, Hold, Flick, ChooseMode, SwitchTransmitter, TurnControl, PressButton,
                             ReadTransmitter, Dial, Clevis, Tooth, SetOutput, Inspect, Mend, Work, PushTube, TurnGain,
                             Fly, ReadFlight, PassTime, Look>;

/// What eyes see of the model.
struct Sight {
  /// Degrees, trailing edge up (rudder: right) positive; motors −1 to 1.
  std::map<Surface, double> deflections;
  double roll_deg = 0, pitch_deg = 0, yaw_deg = 0;
  std::string lamp;
  bool servos_powered = false, usb = false, battery = false;
  std::vector<std::string> destroyed;  ///< parts that met the wrong polarity

  bool operator==(const Sight&) const = default;
};

/// The request's name on the wire: "supply".
std::string request_name(const Request& request);
/// Its members, without the name.
Json body_of(const Request& request);
/// Reads a request believing nothing: numbers are brought into their range. Errors: an unknown name, or a member
/// without which it means nothing.
Result<Request> request_of(const std::string& name, const Json& body);

/// A part of a flight's log in the columns of `Flight::csv`.
struct FlightPiece {
  std::size_t from = 0, size = 0;  ///< of the whole, bytes
  std::string text;
};
Json to_json(const FlightPiece& piece);
FlightPiece piece_of(const Json& body);

Json to_json(const Sight& sight);
Sight sight_of(const Json& body);
/// Settings as on a transmitter's screen; channels beyond 1 to 32 are left out.
Json to_json(const std::vector<Channel>& settings);
std::vector<Channel> settings_of(const Json& body);

}  // namespace rigging::hands
