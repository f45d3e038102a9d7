#pragma once

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "base/json.h"
#include "rig/remedy.h"

/// Kinds of parts, described by what they can do. Reads data/catalogue and, beside a rig, the user's own file.
namespace rigging {

enum class Family { flight_controller, stabilizer };

/// What a surface does while the model is held tilted or turned, in one mode.
enum class AnswerKind { none, momentary, held, springs_back, runs_away };

struct OutputSocket {
  std::string id;
  std::string label;
  int timer_group = 1;      ///< outputs of one group share a pulse rate
  double x_mm = 0, y_mm = 0;  ///< on the board, arrow up, from its left rear corner
  Json extra = Json::object();
  bool operator==(const OutputSocket&) const = default;
};

enum class PortKind { serial, serial_inverting, two_wire, input_pulse, input_summed, analogue_sense, usb };

struct Port {
  std::string id;
  std::string label;
  PortKind kind = PortKind::serial;
  double x_mm = 0, y_mm = 0;
  Json extra = Json::object();
  bool operator==(const Port&) const = default;
};

/// One cure for a wrong direction that this class really offers.
struct Cure {
  Remedy remedy = Remedy::reverse_output;
  bool over_link = false;  ///< Rigging can write it; otherwise the steps are for the hand
  /// Steps of the hand card. {output}, {socket}, {axis}, {surface}, {other}, {rotation} stand for what is concerned.
  std::vector<std::string> steps;
  Json extra = Json::object();
  bool operator==(const Cure&) const = default;
};

struct ModeAnswer {
  Mode mode = Mode::manual;
  AnswerKind answer = AnswerKind::none;
  double from_deg = 0;  ///< answers only when tilted further than this
  std::string note;
  Json extra = Json::object();
  bool operator==(const ModeAnswer&) const = default;
};

struct Lamp {
  std::string sign;
  std::string meaning;
  Json extra = Json::object();
  bool operator==(const Lamp&) const = default;
};

struct ControllerClass {
  std::string id;
  std::string name;
  std::string summary;
  Family family = Family::stabilizer;
  bool link = false;                 ///< settings over a byte link
  bool reads_channels = false;       ///< shows what it receives
  bool drives_one_output = false;    ///< moves one output alone on request
  bool axis_sensing_reversible = false;
  bool stick_direction_in_transmitter = false;
  bool can_be_turned = false;        ///< can be told that it sits turned
  double width_mm = 30, length_mm = 40;
  std::vector<std::string> inputs;
  std::vector<OutputSocket> outputs;
  std::vector<Port> ports;
  std::vector<Cure> cures;
  std::vector<ModeAnswer> modes;
  Mode bench_mode = Mode::rate;  ///< shows the correction best on the bench
  bool rudder_into_bank = false;     ///< holds rudder toward a held bank: no fault
  std::string gains;
  std::string level;
  std::string arming;
  std::vector<Lamp> lamps;
  Json extra = Json::object();
  bool operator==(const ControllerClass&) const = default;

  const Cure* cure(Remedy remedy) const;
  const ModeAnswer* mode(Mode mode) const;
  const OutputSocket* socket(const std::string& socket_id) const;
  /// Remedies that can be had with this class, on the board, on the model or in the transmitter.
  Abilities abilities() const;
};

enum class PartGroup { servo, receiver, speed_controller, regulator, battery, satellite_receiver, compass, camera, video_transmitter, motor, other };

/// A kind of part: thin for now, grown by the stations that compute with it.
struct PartKind {
  std::string id;
  std::string name;
  PartGroup group = PartGroup::other;
  std::optional<double> mass_kg;
  std::string basis;  ///< where the figures come from
  Json extra = Json::object();
  bool operator==(const PartKind&) const = default;
};

struct Catalogue {
  std::vector<ControllerClass> controllers;
  std::vector<PartKind> parts;

  const ControllerClass* controller(const std::string& id) const;
  const PartKind* part(const std::string& id) const;
};

/// Reads every file of the folder: controllers/*.json and parts/*.json. Ids must differ.
Result<Catalogue> load_catalogue(const std::filesystem::path& folder);

/// Adds the user's own parts: `{"format":"parts","version":1,"parts":[…],"controllers":[…]}`. An id that exists already is an error.
Result<void> add_own_parts(Catalogue& catalogue, const std::filesystem::path& file);

/// "model.rig.json" has its own parts in "model.parts.json" beside it.
std::filesystem::path own_parts_path(const std::filesystem::path& rig_file);

}  // namespace rigging

namespace rigging {
template <>
struct Words<Family> {
  static constexpr std::array<std::pair<Family, std::string_view>, 2> list{
      {{Family::flight_controller, "flight_controller"}, {Family::stabilizer, "stabilizer"}}};
};
template <>
struct Words<AnswerKind> {
  using A = AnswerKind;
  static constexpr std::array<std::pair<A, std::string_view>, 5> list{{{A::none, "none"},
                                                                       {A::momentary, "momentary"},
                                                                       {A::held, "held"},
                                                                       {A::springs_back, "springs_back"},
                                                                       {A::runs_away, "runs_away"}}};
};
template <>
struct Words<PortKind> {
  using P = PortKind;
  static constexpr std::array<std::pair<P, std::string_view>, 7> list{{{P::serial, "serial"},
                                                                       {P::serial_inverting, "serial_inverting"},
                                                                       {P::two_wire, "two_wire"},
                                                                       {P::input_pulse, "input_pulse"},
                                                                       {P::input_summed, "input_summed"},
                                                                       {P::analogue_sense, "analogue_sense"},
                                                                       {P::usb, "usb"}}};
};
template <>
struct Words<PartGroup> {
  using G = PartGroup;
  static constexpr std::array<std::pair<G, std::string_view>, 11> list{{{G::servo, "servo"},
                                                                        {G::receiver, "receiver"},
                                                                        {G::speed_controller, "speed_controller"},
                                                                        {G::regulator, "regulator"},
                                                                        {G::battery, "battery"},
                                                                        {G::satellite_receiver, "satellite_receiver"},
                                                                        {G::compass, "compass"},
                                                                        {G::camera, "camera"},
                                                                        {G::video_transmitter, "video_transmitter"},
                                                                        {G::motor, "motor"},
                                                                        {G::other, "other"}}};
};
}  // namespace rigging
