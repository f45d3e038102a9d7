#include "ask/topics.h"

#include "base/number.h"
#include "base/units.h"

namespace rigging {
namespace {

std::string said_figure(const std::optional<Figure>& f) { return f ? f->name + ": " + figure_text(*f) : std::string(); }

std::string endurance(const AskedOf& of) {
  return of.review.reports.power().drive ? said_figure(of.review.reports.power().endurance) : std::string();
}
std::string balance(const AskedOf& of) {
  const Balance& b = of.review.reports.fit().balance;
  return b.complete ? said_figure(b.balance_point) + "; wanted: " + length_text(b.wanted.value) : std::string();
}
std::string advice(const AskedOf& of) {
  const Balance& b = of.review.reports.fit().balance;
  return b.complete ? b.to_wanted.words : std::string();
}
std::string thrust(const AskedOf& of) {
  const auto& d = of.review.reports.power().drive;
  if (!d || d->thrust.value <= 0) return {};
  return said_figure(d->thrust) +
         (d->thrust_to_weight ? ", " + number_text(d->thrust_to_weight->value, 2) + " of the weight" : "");
}
std::string stall(const AskedOf& of) { return said_figure(of.review.reports.airframe().stall_speed); }
std::string cruise(const AskedOf& of) { return said_figure(of.review.reports.airframe().cruise_speed); }
std::string loading(const AskedOf& of) { return said_figure(of.review.reports.airframe().wing_loading); }
std::string ready(const AskedOf& of) { return of.review.readiness.words; }
std::string current(const AskedOf& of) {
  const auto& d = of.review.reports.power().drive;
  return d && d->full_current.value > 0 ? said_figure(d->full_current) : std::string();
}
std::string brown_out(const AskedOf& of) { return said_figure(of.review.reports.power().brown_out_margin); }
std::string snags(const AskedOf& of) {
  return of.review.snags.empty()
             ? std::string()
             : "First of " + std::to_string(of.review.snags.size()) + ": " + of.review.snags.front().what;
}

}  // namespace

const std::vector<Topic>& all_topics() {
  using S = Station;
  using V = AskedView;
  static const std::vector<Topic> all{
      // Questions
      {{"stall speed", "how slow fly", "slowest", "minimum speed"},
       "Stall speed: the flying mass is needed first",
       S::airframe,
       "airframe",
       stall},
      {{"cruise speed", "how fast fly", "fast cruise"},
       "Cruise speed: the flying mass is needed first",
       S::airframe,
       "airframe",
       cruise},
      {{"wing loading", "heavy wing"},
       "Wing loading: the flying mass is needed first",
       S::airframe,
       "airframe",
       loading},
      {{"how long fly", "flight time", "endurance", "battery last", "minutes air"},
       "Flight time: motor, propeller, battery and flying mass are needed first",
       S::power,
       "",
       endurance},
      {{"balance point", "centre gravity", "center gravity", "cg", "where balance", "balances"},
       "Balance point: the bare airframe has to be weighed first",
       S::fit,
       "balance",
       balance},
      {{"nose heavy", "tail heavy", "nose weight", "battery forward", "where battery"},
       "What brings it into balance: the bare airframe has to be weighed first",
       S::fit,
       "balance",
       advice},
      {{"thrust", "strong enough motor", "enough power climb", "power weight"},
       "Thrust: motor, propeller, battery and wiring are needed first",
       S::power,
       "",
       thrust},
      {{"current", "amps full throttle", "how many amps", "motor draws"},
       "Current at full throttle: motor, propeller, battery and wiring are needed first",
       S::power,
       "",
       current},
      {{"regulator enough", "rail hold", "brown out", "brownout", "bec enough", "servos draw", "servo current"},
       "Whether the rail holds, with servos stalled",
       S::power,
       "",
       brown_out},
      {{"ready fly", "may fly", "can fly", "ready maiden", "first flight ready"},
       "What is still in the way of the first flight",
       S::proof,
       "",
       ready},
      {{"wrong", "problem", "snag", "missing", "next"}, "What is in the way", S::proof, "", snags},
      {{"buy", "shopping list", "order parts"}, "What to get before starting", S::fit, "to_get"},
      {{"plug list", "wiring list", "solder", "loom", "wire up", "leads list", "print wiring"},
       "The plug list and the wiring drawing",
       S::wiring,
       ""},
      {{"plan wiring", "where plug", "what plugs"}, "What plugs in where", S::wiring, ""},
      {{"throw", "throws", "how far surface", "deflection", "degrees elevator"},
       "How far each surface moves",
       S::surfaces,
       ""},
      {{"channel order", "which channel", "channels"}, "What each channel does", S::sticks, ""},
      {{"gain", "gains", "first gains", "dial position"}, "How hard it may correct, and the first gains", S::feel, ""},
      {{"how far fly", "range", "come home", "reach", "way home"},
       "From how far it comes home in this wind",
       S::home,
       ""},
      {{"low voltage", "battery alarm", "voltage threshold", "turn back voltage"},
       "At which voltage it has to turn home",
       S::home,
       ""},
      {{"modes", "mode switch", "flight modes", "switch positions"}, "What the switches do", S::home, ""},
      {{"failsafe", "loss link", "lose signal", "lost signal", "signal lost", "transmitter off"},
       "What happens when the link goes",
       S::home,
       ""},
      {{"turn circle", "circle radius", "loiter", "bank angle"}, "How wide it circles", S::home, ""},
      {{"mount board", "board position", "board way up", "which way board", "arrow nose", "board sit"},
       "How the board sits, and what it is told",
       S::fit,
       "controller"},
      {{"level attitude", "level angle", "nose up angle"}, "The level attitude for cruise", S::senses, "level"},
      {{"range test", "range check"}, "The range test with reduced power", S::home, ""},
      {{"stable", "stability pitch"}, "How stable it is in pitch: the static margin", S::fit, "balance"},
      // Complaints
      {{"wrong way", "reversed", "opposite", "moves wrong", "goes wrong direction", "backwards surface"},
       "Which way each surface has to move: the checks of station proof find what is reversed",
       S::proof,
       ""},
      {{"correction wrong", "gyro wrong", "fights me", "stabilizer wrong", "makes worse", "correct wrong way"},
       "Does the correction fight the disturbance? The checks of station proof find it",
       S::proof,
       ""},
      {{"shakes", "oscillates", "wobbles", "vibrates flight", "twitches flight", "porpoises"},
       "What shakes, at which speed, and how far to turn down",
       S::feel,
       ""},
      {{"won arm", "arm", "arming", "refuses arm", "motor doesn start", "motor won start", "motor dead", "motor start"},
       "Why it does not arm, one reason at a time",
       S::home,
       ""},
      {{"no satellites", "no gps", "no fix", "gps lock", "few satellites", "satellite poor"},
       "What the satellite receiver says, and why it finds none",
       S::senses,
       "sky"},
      {{"compass wrong", "compass off", "heading wrong", "toilet bowl", "north wrong", "heading drifts"},
       "Calibrate the compass, and what disturbs it",
       S::senses,
       "compass"},
      {{"servos don move", "servo dead", "servos dead", "servo still", "surfaces don move", "servo move usb",
        "no servo power"},
       "What is fed from USB, from the battery, and what stays dark",
       S::power,
       ""},
      {{"receiver not heard", "no receiver", "receiver silent", "sticks nothing", "no signal receiver",
        "transmitter not heard", "doesn react sticks"},
       "Does the controller hear the receiver?",
       S::sticks,
       ""},
      {{"stick not centred", "centre off", "subtrim", "sub trim", "endpoints", "travel", "1500"},
       "What to set in the transmitter so that the pulses are right",
       S::sticks,
       ""},
      {{"rolls left", "rolls right", "pulls left", "pulls right", "drifts", "hold stick", "trim"},
       "What it is trimmed with: linkage and centre before the transmitter",
       S::surfaces,
       ""},
      {{"climbs level", "sinks level", "loses height", "gains height", "doesn hold height"},
       "Correct the level attitude from what it did",
       S::senses,
       "level"},
      {{"board hot", "regulator hot", "regulator heat", "gets warm"}, "How warm the regulators get", S::power, ""},
      {{"video noise", "no picture", "picture", "goggles dark", "camera dark"},
       "What feeds camera and video, and where the picture goes",
       S::wiring,
       ""},
      {{"gyro drifts", "horizon drifts", "attitude drifts", "bumped", "moved power"},
       "Was the board moved while it looked for its zero?",
       S::senses,
       "still"},
      {{"servo buzzes", "servo hot", "servo strong enough", "servo too weak"},
       "What each servo has to hold in the air",
       S::surfaces,
       ""},
      {{"slop", "play", "loose linkage"}, "Play in a linkage, and what it allows", S::surfaces, ""},
      {{"holds last", "receiver holds"}, "A receiver that holds its last values hides the loss", S::home, ""},
      // Deeds that lead to a place
      {{"calibrate compass"}, "Calibrate the compass", S::senses, "compass"},
      {{"calibrate accelerometer", "calibrate level"}, "Calibrate the accelerometer", S::senses, "accelerometer"},
      {{"calibrate esc", "calibrate speed controller", "throttle range"},
       "Calibrate the speed controller: propeller off",
       S::sticks,
       ""},
      {{"rehearse", "rehearse way home", "simulate loss"}, "Rehearse the way home", S::home, ""},
      {{"fly simulation", "simulate flight"}, "Fly it in simulation", S::feel, ""},
      {{"read log", "open log", "import log"}, "Read a flight's log", S::feel, ""},
      {{"directions", "check directions", "control check"}, "The direction checks", S::proof, ""},
      // Views
      {{"imperial", "inches", "ounces"}, "Imperial units", S::airframe, "", nullptr, V::imperial},
      {{"metric", "millimetres", "grams"}, "Metric units", S::airframe, "", nullptr, V::metric},
      {{"dark", "night"}, "Dark theme", S::airframe, "", nullptr, V::dark},
      {{"paper theme", "light theme", "paper"}, "Paper theme", S::airframe, "", nullptr, V::paper},
      {{"sunlight", "field theme", "bright sun", "outside"},
       "Field theme for sunlight",
       S::airframe,
       "",
       nullptr,
       V::field},
      {{"larger text", "bigger text", "bigger letters", "larger letters", "can read"},
       "Larger text",
       S::airframe,
       "",
       nullptr,
       V::larger},
      {{"smaller text", "smaller letters"}, "Smaller text", S::airframe, "", nullptr, V::smaller},
      {{"undo", "take back"}, "Undo the last edit", S::airframe, "", nullptr, V::undo},
      {{"redo"}, "Do it again", S::airframe, "", nullptr, V::redo},
      {{"save"}, "Save the rig", S::airframe, "", nullptr, V::save},
      {{"new aircraft", "begin aircraft", "new rig", "start new"},
       "Begin a new aircraft",
       S::airframe,
       "",
       nullptr,
       V::begin},
      {{"start bench", "simulated bench"}, "Start the simulated bench", S::airframe, "", nullptr, V::bench}};
  return all;
}

}  // namespace rigging
