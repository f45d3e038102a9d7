#pragma once

#include <memory>
#include <set>
#include <variant>

#include "checks/checks.h"
#include "direction/hand_card.h"
#include "edit/edit.h"
#include "hands/hands.h"
#include "signal/board_state.h"
#include "signal/motion.h"
#include "signal/signal.h"

/// Guided procedures: what to do now, what is heard, what follows. A procedure has no clock, no screen and no bench of
/// its own: time, samples, keys and looks come in as events, and what has to be done goes out as orders. One card shows
/// any of them, `rigging-cli play` walks through any from a script, and tests need no waiting.
namespace rigging {

// What a procedure shows
// -----------------------------------------------------------------------------------------------------------------

/// One thing that can be done now.
struct Action {
  std::string id;  ///< "throw_take"
  std::string label;
  std::string hint = {};
  bool main = false;  ///< the one that is most likely next
  bool enabled = true;
  bool needs_look = false;    ///< only once something was noted
  bool minor = false;         ///< beside the way; shown small
  bool takes_number = false;  ///< it wants the number that is asked for, typed
  bool elsewhere = false;     ///< the page offers it at the thing itself, with no button of its own
  bool operator==(const Action&) const = default;
};

/// One thing to note, with the few ways in which it can be seen.
struct LookRow {
  std::string id, name;
  std::vector<std::pair<int, std::string>> choices;
  std::optional<int> heard;  ///< what the controller itself says of it
  bool operator==(const LookRow&) const = default;
};

/// A number to type.
struct NumberAsked {
  struct Unit {
    std::string id, label;
    int decimals = 1;
    bool operator==(const Unit&) const = default;
  };
  std::string name;
  double least = 0, most = 0;
  std::vector<Unit> units;
  bool operator==(const NumberAsked&) const = default;
};

/// What can be drawn beside the words. A page draws what it can.
struct Picture {
  std::string caption, words;
  std::map<Surface, int> arrows;  ///< which way each should go, as in `required_direction`
  std::set<Surface> marked;       ///< what is spoken of
  std::set<Surface> leaning;      ///< move a little for other reasons, which is no fault
  struct Correction {
    double from_deg = 0;
    AnswerKind answer = AnswerKind::held;
    bool operator==(const Correction&) const = default;
  };
  std::optional<Axis> axis;              ///< of the command or rotation
  std::optional<Correction> correction;  ///< a rotation and how it is answered; a stick without
  std::optional<ChannelFunction> stick;  ///< to be held at `side`
  int side = 0;
  std::optional<double> pulse_us;  ///< where an output should stand
  /// How the model should be held: roll, pitch, yaw in degrees.
  std::optional<std::array<double, 3>> pose_deg;
  bool operator==(const Picture&) const = default;
};

struct Line {
  std::string words;
  bool strong = false;
  bool operator==(const Line&) const = default;
};

struct Card {
  std::string subject;  ///< which of several things it is about
  std::string title;    ///< may be empty
  std::string todo, remark, caution;
  std::string says;         ///< what follows from what was seen, in large letters
  std::vector<Line> lines;  ///< and in small ones
  std::string note;         ///< small print
  Picture picture;
  std::vector<LookRow> looks;
  int look = 0;  ///< changes when what is to be noted begins anew
  std::optional<NumberAsked> number;
  std::vector<Action> actions;
  bool busy = false;  ///< something is under way that wants to be told the time
  bool operator==(const Card&) const = default;

  const Action* action(std::string_view id) const;
};

/// What changed since the check was proven, a line each; nothing where it is not stale.
void add_changes(Card& card, const CheckStatus& check);

// What it hears
// -----------------------------------------------------------------------------------------------------------------

/// Seconds, from any beginning; never backward.
struct Time {
  double s = 0;
};
/// An action of the card was chosen, with the number where one is asked for.
struct Pressed {
  std::string action;
  double number = 0;
  std::string unit = {};
  std::string subject = {};  ///< of the action "choose", which every procedure that has a subject hears
};
/// What was noted: a choice per row; rows that were not looked at are absent.
struct Looked {
  std::string action;
  std::map<std::string, int> seen;
};
/// Frames of the receiver's wire since the last time, oldest first; may be none.
struct FramesHeard {
  std::vector<ChannelFrame> frames;
};
/// What the controller says that it hears, µs.
struct ChannelsHeard {
  std::map<std::string, double> us;
};
/// Where the surfaces stand, degrees, trailing edge up (rudder: right) positive.
struct SurfacesSeen {
  std::map<Surface, double> deg;
};
/// What stands on the transmitter's screen.
struct TransmitterShown {
  std::vector<Channel> settings;
};
/// Readings of the board's own sensors.
using MotionHeard = BoardReadings;
/// What the board says that it has, or looks for.
struct SensorsFound {
  std::map<Sensor, SensorState> states;
};
/// What the board does now, and why it does not arm; told some four times a second.
using StateTold = BoardState;
/// Rig, checks or bench are others than before.
struct SceneChanged {};

using Event = std::variant<Time, Pressed, Looked, FramesHeard, ChannelsHeard, SurfacesSeen, TransmitterShown,
                           MotionHeard, SensorsFound, StateTold, SceneChanged>;

/// How the bench stands.
struct BenchState {
  bool controller = false;  ///< it answers
  bool read = false;        ///< its settings were read
  bool differs = false;     ///< the board holds other settings than the rig
  bool writing = false;
  bool hands = false;  ///< simulated hands do what the builder's would
  bool usb = false, battery = false;
  bool hears = false;   ///< the receiver has supply and its wire is heard
  bool direct = false;  ///< it is a receiver itself that is heard, at a device of its own
  bool operator==(const BenchState&) const = default;
};

class Reports;

/// What a procedure can look at.
struct Scene {
  const Rig& rig;
  const Catalogue& catalogue;
  const ControllerClass* controller;  ///< null when the catalogue does not have it
  const Reports* reports;             ///< of `rig`; null only where a procedure looks ahead at a rig of its own making
  const std::vector<CheckStatus>& checks;
  std::string_view readiness;  ///< one sentence
  BenchState bench = {};

  bool sets_over_link() const { return controller && controller->link; }
};

// What it wants done
// -----------------------------------------------------------------------------------------------------------------

struct ApplyEdit {
  Edit edit;
};
/// Records the check as passed; `said` is told when it was.
struct Record {
  CheckId check;
  std::string said = {};
};
/// Writes the rig to the controller.
struct WriteBoard {};
/// Drives one output, −1 to 1; the controller lets go by itself when nobody goes on asking.
struct DriveOutput {
  std::string socket;
  double level = 0;
};
struct ReleaseOutputs {};
/// Something for hands; without simulated ones it is the builder's own to do, as the card says.
struct AskHands {
  hands::Request request;
};
struct Say {
  std::string words;
};
struct GoTo {
  Station station = Station::airframe;
  std::string subject;
};
struct ShowHandCards {
  std::vector<HandCard> cards;
};

using Order =
    std::variant<ApplyEdit, Record, WriteBoard, DriveOutput, ReleaseOutputs, AskHands, Say, GoTo, ShowHandCards>;
using Orders = std::vector<Order>;

class Procedure {
 public:
  Procedure() = default;
  virtual ~Procedure() = default;
  Procedure(const Procedure&) = delete;
  Procedure& operator=(const Procedure&) = delete;

  /// Hears one event; what has to be done is to be carried out in this order, each on the rig that the one before left.
  /// `SceneChanged` comes first of all, after every `Change` and `Record` (done or refused), and whenever the scene
  /// shows something else.
  virtual Orders hear(const Event& event, const Scene& scene) = 0;
  virtual Card card(const Scene& scene) const = 0;
  /// Readings of the sensors come often, and only those who listen are told.
  virtual bool listens_to_motion() const { return false; }
  virtual bool listens_to_state() const { return false; }
};

/// A procedure that a station offers.
struct ProcedureEntry {
  std::string id;       ///< "throws": on the command line, and for what the card is called
  std::string name;     ///< "Read the throws with a gauge"
  std::string subject;  ///< what its subject is, for the usage: "SURFACE"; empty for none
  std::unique_ptr<Procedure> (*make)() = nullptr;
};

/// Of the whole house, in the order of the work (review/stations.cpp).
std::vector<ProcedureEntry> all_procedures();

}  // namespace rigging
