#include "ask/topics.h"

#include "ask/sayings.h"

namespace rigging {
namespace {

/// Its text is the answer.
Topic told(std::vector<std::string> phrases, std::string text, Station station, std::string subject) {
  return {std::move(phrases), std::move(text), station, std::move(subject), nullptr, AskedView::none, true};
}

/// Common practice.
Topic stick_mode(const std::string& number, const std::string& left, const std::string& right) {
  return told({"transmitter mode " + number, "stick mode " + number},
              "Mode " + number + ": " + left + " on the left stick, " + right +
                  " on the right. Rigging goes by what a stick does, not by where it is: nothing has to be set for it",
              Station::sticks, "");
}

}  // namespace

const std::vector<Topic>& all_topics() {
  using S = Station;
  using V = AskedView;
  static const std::vector<Topic> all{
      // Questions
      {{"stall speed", "how slow fly", "slowest speed", "slowest fly", "minimum speed"},
       "Stall speed: the flying mass is needed first",
       S::airframe,
       "airframe",
       say_stall},
      {{"cruise speed", "how fast fly", "fast cruise"},
       "Cruise speed: the flying mass is needed first",
       S::airframe,
       "airframe",
       say_cruise},
      {{"wing loading", "heavy wing"},
       "Wing loading: the flying mass is needed first",
       S::airframe,
       "airframe",
       say_loading},
      {{"fast land", "landing speed", "approach speed", "fast come in", "slow land"},
       "The speed to land at: the flying mass is needed first",
       S::airframe,
       "airframe",
       say_landing},
      {{"wing big", "wing enough", "wing too small", "enough wing"},
       "Whether the wing is enough: the flying mass is needed first",
       S::airframe,
       "airframe",
       say_loading},
      {{"wind limit", "how much wind", "windy fly", "too windy", "wind fly", "strong wind", "wind too much"},
       "How much wind: the flying mass is needed first",
       S::home,
       "",
       say_wind},
      {{"aspect ratio", "slender wing"}, "Aspect ratio", S::airframe, "airframe", say_aspect},
      told({"red wire", "what red wire", "red wire do", "middle wire", "plus wire"},
           "The red wire of a servo lead is plus: all plus pins of a rail are joined, so five volts on one are on all. "
           "Dark (black or brown) is minus, the third the signal. One source a rail: where a separate regulator or the "
           "board "
           "feeds it, the red wire of the speed controller's lead comes out and is isolated",
           S::wiring, ""),
      told({"aileron stuck", "elevator stuck", "rudder stuck", "surface stuck", "servo stuck", "surface jammed",
            "elevon stuck", "flaperon stuck", "tail stuck", "stuck"},
           "Battery out, and move it by hand without its rod. Stiff: hinge or rod binds. Free: battery in (propeller "
           "off), "
           "its plug in a socket that works: it moves there, then it is the output; else the servo or its lead",
           S::wiring, ""),
      told({"gps jumps", "position jumps", "satellite jumps", "home jumps", "gps wanders", "position wanders"},
           "The position jumps: few satellites or a poor sky, or video transmitter and camera beside its aerial. Away "
           "from "
           "them, on top, clear of carbon; let it stand still a few minutes at station senses and read its spread",
           S::senses, "sky"),
      told({"battery hot", "battery warm", "battery swells", "battery puffs", "pack hot"},
           "A battery that comes down hot gives more current than it can: a smaller or flatter propeller, a larger or "
           "fresher "
           "pack. Swollen it is not charged or flown again, and is got rid of as the local rules say",
           S::power, ""),
      told({"too sensitive", "sensitive", "twitchy", "too much throw", "reacts strongly", "touchy"},
           "Too sensitive: less throw by the holes (horn further out, arm further in) makes stick and correction "
           "gentler "
           "together; rates and expo in the transmitter only the stick. Station feel, Launch, says what full stick "
           "turns",
           S::surfaces, "linkage"),
      told({"servo arm long", "servo arm", "arm length", "which hole", "hole horn", "hole arm"},
           "The hole follows from the throw that is wanted: further in on the arm or further out on the horn is less "
           "throw, more force and finer steps. Station surfaces, Linkage, proposes the holes for a throw",
           S::surfaces, "linkage"),
      told({"two regulators", "second regulator", "another regulator"},
           "A second regulator takes what the first can't bear: camera and video, or all servos. One source a rail, "
           "grounds common; station power says how much is left on each",
           S::power, ""),
      {{"lead thick", "thick enough", "lead gauge", "thicker lead", "how thick", "lead thin"},
       "What each lead bears: gauge, current and drop, in the table of leads",
       S::wiring,
       ""},
      {{"where north", "true north", "magnetic north", "declination"},
       "Magnetic north at the field, and the compass that finds it",
       S::senses,
       "compass"},
      {{"receiver fit", "receiver suits", "receiver works board", "receiver match"},
       "What the receiver says, and which ports hear it",
       S::wiring,
       "receiver"},
      told(
          {"bind", "binding", "rebind"},
          "Transmitter and receiver a metre or so apart: too near fails. The receiver's button while it gets power, or "
          "by itself where it does that; then bind from the transmitter's menu, and store afterwards what it does on "
          "loss. Propeller off",
          S::proof, "prepare.bind"),
      told({"tail drops slow", "drops slow", "drops slow down", "wing drops", "wing drops slow", "falls slow",
            "nose drops slow"},
           "Near the stall a wing or the nose drops: more speed, and the nose down before anything else. Fly it slowly "
           "at a safe height and note at which throttle it lets go; balanced too far aft it drops sooner and harder",
           S::airframe, "airframe"),
      told({"servo slow", "servo too slow", "slow servo", "faster servo"},
           "A slow servo makes the loop shake earlier: the gain that stays calm falls with it. Station feel, What if, "
           "says "
           "by how much a faster one helps; its speed stands with its figures at station fit",
           S::feel, ""),
      told({"rolls level mode", "banks level mode", "leans level mode", "rolls right level mode",
            "rolls left level mode", "turns level mode", "level not level", "leans level", "banks level"},
           "It leans in level mode and not in manual: the level attitude was taken with a wing low, or the board sits "
           "crooked. Take level again at senses, wings true; if it leans in manual as well, trim that first",
           S::senses, "level"),
      told(
          {"controller connect", "board connect", "controller doesn connect", "board doesn connect", "no connection",
           "usb connect", "computer find board", "can connect", "connect controller", "board not found"},
          "No connection: a cable that carries data (many only charge), the permission to use the port, the right port "
          "in "
          "Bench › Connect. A lamp on the board says that it has power at all; a boot button held wakes its loader",
          S::proof, ""),
      told({"motor vibrates", "motor shakes", "propeller vibrates", "vibration motor", "propeller unbalanced",
            "balance propeller", "vibrates throttle"},
           "Battery out: look at the propeller for a nick, balance it, see that it runs true on its shaft, and the "
           "motor's "
           "screws. What is left shows in a log: station senses, From a flight, names where it shakes the board",
           S::senses, "vibration"),
      told(
          {"needs up elevator", "needs down elevator", "hold up elevator", "hold down elevator", "up trim", "down trim",
           "needs back stick", "needs elevator"},
          "Up elevator held at cruise, in manual: balanced too far forward, or the wing set too flat; down elevator: "
          "too far "
          "back or too steep. Look at the balance first, then trim at the pushrod. Only in level mode: it is the level "
          "angle",
          S::fit, "balance"),
      {{"controller suits", "class suits", "compare controllers", "compare classes", "compare boards", "side side",
        "choose controller"},
       "Classes of controllers side by side, for this aircraft",
       S::airframe,
       "controller"},
      {{"change board", "another board", "other board", "small board", "choose board", "different board"},
       "Another controller: choose it at airframe; leads and outputs move to sockets that it has",
       S::airframe,
       "controller"},
      {{"how long fly", "flight time", "endurance", "battery last", "minutes air", "battery empty", "long battery",
        "minutes left", "long stay", "stay up", "stay air"},
       "Flight time: motor, propeller, battery and flying mass are needed first",
       S::power,
       "",
       say_endurance},
      {{"balance point", "centre gravity", "center gravity", "cg", "where balance", "balances"},
       "Balance point: the bare airframe has to be weighed first",
       S::fit,
       "balance",
       say_balance},
      {{"nose heavy", "tail heavy", "nose weight", "battery forward"},
       "What brings it into balance: the bare airframe has to be weighed first",
       S::fit,
       "balance",
       say_advice},
      {{"thrust", "motor pull", "pull throttle", "strong enough motor", "enough power climb", "power weight"},
       "Thrust: motor, propeller, battery and wiring are needed first",
       S::power,
       "",
       say_thrust},
      {{"current", "amps full throttle", "how many amps", "motor draws"},
       "Current at full throttle: motor, propeller, battery and wiring are needed first",
       S::power,
       "",
       say_current},
      {{"regulator enough", "rail hold", "brown out", "brownout", "bec enough", "servos draw", "servo current",
        "regulator feed", "rail sag", "rail sags", "voltage sags", "how many servos", "feed servos",
        "regulator servos"},
       "Whether the rail holds, with servos stalled",
       S::power,
       "",
       say_brown_out},
      {{"not ready", "is ready", "say ready", "ready yet", "ready fly", "may fly", "can fly", "ready maiden",
        "first flight ready"},
       "What is still in the way of the first flight",
       S::proof,
       "",
       say_ready},
      {{"wrong", "problem", "snag", "missing"}, "What is in the way", S::proof, "", say_snags},
      {{"next", "next step"}, "What to do next", S::proof, "", say_next_thing},
      {{"still open", "open check", "before first flight", "check before flight", "remaining", "finish"},
       "The checks that are still open",
       S::proof,
       "",
       say_left_to_do},
      {{"weigh", "aircraft weigh", "all up weigh", "total weigh", "weigh altogether"},
       "How heavy it is: the flying mass is not known yet",
       S::airframe,
       "airframe",
       say_weight},
      {{"return high", "return height", "how high return", "return low", "return too low", "high return"},
       "How high it comes home",
       S::home,
       "",
       say_return_height},
      {{"glide", "glide far", "how far glide"}, "How far it glides", S::home, "", say_glide},
      {{"against wind", "return wind", "return against wind", "headwind"},
       "Whether it comes home in the planned wind",
       S::home,
       "",
       say_against_wind},
      {{"propeller suits", "best propeller", "propeller use", "propeller fits", "propeller take", "propeller need buy",
        "recommend propeller"},
       "Which propeller suits",
       S::power,
       "",
       say_suggestion},
      {{"voltage rail", "volt rail", "volt servo", "voltage servo"},
       "What each rail carries",
       S::power,
       "",
       say_rail_volts},
      {{"fast before shake", "speed shake", "shake speed", "begins shake"},
       "At which speed it begins to shake",
       S::feel,
       "",
       say_shaking},
      stick_mode("1", "pitch and yaw", "throttle and roll"),
      stick_mode("2", "throttle and yaw", "roll and pitch"),
      stick_mode("3", "roll and pitch", "throttle and yaw"),
      stick_mode("4", "throttle and roll", "pitch and yaw"),
      told({"heading off degrees", "compass off degrees", "heading turned", "heading opposite", "compass turned"},
           "A heading that is off by a quarter or half turn on every course is the compass's own turn: tell it how it "
           "sits "
           "(fit). "
           "Off by another amount on each course: calibrate it, and look at currents near by",
           S::senses, "compass"),
      told(
          {"after mounting", "mounted board check", "board glued"},
          "What was proven with the board loose is provisional: after mounting one flick an axis suffices, then level, "
          "and the "
          "compass where it moved with it",
          S::proof, ""),
      told({"bigger battery", "larger battery", "another battery", "smaller battery", "lighter battery"},
           "Say which: “use a 4S battery”, “4S 2200 mAh battery”. Weight, balance, voltage limits and flight time "
           "follow "
           "at once, "
           "and one undo takes it back",
           S::fit, ""),
      told({"capacitor", "need capacitor"},
           "A capacitor at the speed controller's battery pads takes the ripple off the supply of camera and video; at "
           "the "
           "servo rail it bridges milliseconds, not a stalled servo. Whether the rail holds is reckoned at power",
           S::power, ""),
      {{"buy", "shopping list", "order parts"}, "What to get before starting", S::fit, "to_get"},
      {{"plug list", "wiring list", "solder", "loom", "wire up", "leads list", "print wiring"},
       "The plug list and the wiring drawing",
       S::wiring,
       ""},
      {{"plan wiring", "where plug", "what plugs", "wiring drawing", "wiring diagram"},
       "What plugs in where",
       S::wiring,
       ""},
      {{"throw", "throws", "how far surface", "deflection", "degrees elevator"},
       "How far each surface moves",
       S::surfaces,
       ""},
      {{"channel order", "which channel", "channels"}, "What each channel does", S::sticks, ""},
      {{"gain", "gains", "first gains", "dial position"}, "How hard it may correct, and the first gains", S::feel, ""},
      {{"how far fly", "fly far"},
       "How far it flies, and home again: the flying mass, a drive and a battery are needed first",
       S::home,
       "",
       say_against_wind},
      {{"range", "come home", "reach", "way home"}, "From how far it comes home in this wind", S::home, ""},
      {{"low voltage", "battery low", "low battery", "battery alarm", "voltage threshold", "turn back voltage",
        "voltage land", "turn home itself", "voltage turn", "turn home when"},
       "At which voltage it has to turn home",
       S::home,
       "",
       say_turn_home},
      {{"modes", "mode switch", "flight modes", "switch positions"}, "What the switches do", S::home, ""},
      {{"failsafe", "lost link", "transmitter off", "link gone"},
       "What happens when the link goes",
       S::home,
       "",
       say_on_loss},
      {{"turn circle", "big circle", "wide circle", "size circle", "circle radius", "loiter", "bank angle"},
       "How wide it circles",
       S::home,
       ""},
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
      told(
          {"climbs throttle", "climb open throttle", "noses up throttle", "pitches up throttle", "balloons throttle",
           "rises throttle", "goes up full throttle", "climbs full throttle"},
          "It climbs when the throttle opens: thrust line (more down-thrust), or the speed that comes with it on a "
          "wing "
          "set "
          "too steep or balanced too far forward. Try it level at half and at full throttle, in manual: at once is the "
          "thrust "
          "line, after seconds the speed. Not a job for gain or trim",
          S::airframe, "airframe"),
      told(
          {"noses down throttle", "dives throttle", "sinks throttle", "nose down throttle", "nose full throttle",
           "noses full throttle", "pitches down throttle", "dives full throttle"},
          "It noses down when the throttle opens: the motor pulls above the middle of the drag, as on a high pusher or "
          "with "
          "too much down-thrust. Thrust line first, in manual; not a job for gain or trim",
          S::airframe, "airframe"),
      told({"turns throttle", "yaws throttle", "swings left throttle", "pulls left throttle", "rolls throttle",
            "rolls left throttle"},
           "It swings or rolls with the throttle: side-thrust, or the propeller's own torque. Set the shaft before the "
           "trim",
           S::airframe, "airframe"),
      told({"servo jitter", "servo jitters", "servo twitch", "one servo jitters", "servo shivers", "servo trembles"},
           "One servo jitters. Battery in, propeller off: exchange its lead with a neighbour's. Moves the jitter along "
           "with the "
           "servo, it is the servo or its lead; stays it at the socket, the output: an analogue servo at a fast pulse "
           "rate, or "
           "a poor minus",
           S::wiring, ""),
      told(
          {"servos twitch throttle", "twitch throttle", "servos jitter motor", "twitch motor", "jitter throttle",
           "twitches throttle"},
          "Servos twitch with the motor: propeller off, see whether the rail sags (power) or the receiver loses frames "
          "(sticks). Motor leads away from receiver and aerials, one minus for all",
          S::power, ""),
      told({"wags", "wags tail", "tail wags", "tail swings", "fishtails", "hunts yaw", "swings side"},
           "It wags its tail: gain on yaw too high, or the airframe's own Dutch roll. In manual: stops it, the gain "
           "goes "
           "down; "
           "goes it on, fin and dihedral are the cause, and some yaw correction helps",
           S::feel, "yaw"),
      told({"motor stutters", "motor stutter", "motor twitches", "motor jerks", "motor rough", "motor hesitates"},
           "The motor stutters. Propeller off, and take it by its cause: one of the three motor leads or its solder "
           "joint, "
           "an "
           "unset throttle range, timing that the motor does not like, a battery that sags until the speed controller "
           "cuts",
           S::power, ""),
      told({"motor beeps", "motor only beeps", "esc beeps", "just beeps"},
           "The motor only beeps: it gets no low throttle, or no pulses it knows. Throttle closed and read low at "
           "sticks, "
           "locked on purpose (arming), or the throttle range not set",
           S::sticks, ""),
      told({"motor cut", "motor stops air", "motor cut air", "power cut air", "motor dies", "motor stops"},
           "The motor cuts out: the speed controller protects the battery (sag at full throttle), itself (heat), or "
           "lost "
           "its "
           "pulses (failsafe). Current and sag at power say which is near",
           S::power, ""),
      told({"propeller wrong way", "motor wrong way", "motor turns wrong", "propeller spins wrong", "motor backwards",
            "propeller backwards"},
           "The motor turns the wrong way: battery out, exchange any two of its three leads. Its lettered side faces "
           "the "
           "direction of flight, on a pusher, too",
           S::power, ""),
      told({"crashed", "crash", "hard landing", "hit ground", "fell down", "came down hard", "landed hard"},
           "After a crash everything is new: battery out, look at airframe, leads, servo gears and the board's seat; "
           "weigh "
           "and "
           "balance again; then all direction checks, level and range, as before the first flight",
           S::proof, ""),
      told({"drops wing", "drop wing", "tip stall", "wing drops", "drops wing launch"},
           "It drops a wing: too slow for what is asked of it. Wings level, thrown flat and fast on middle rates, no "
           "climb "
           "before "
           "it has its speed; balance within its band. The take-off at feel reckons the throw",
           S::feel, "takeoff"),
      told({"flutters", "flutter", "surface buzzes air"},
           "Flutter: throttle off and slow at once; don't fly again before play is gone, the rod is stiff and straight "
           "and "
           "the "
           "hinge tight. Less speed is the only cure in the air",
           S::surfaces, ""),
      told({"surface dead", "aileron nothing", "aileron dead", "elevator nothing", "servo nothing",
            "one servo doesn move", "flap nothing", "surface nothing"},
           "One surface does nothing: its lead, its socket and that output alone. Move that one output by itself "
           "(surfaces); "
           "dark: lead or servo; moves: the mix",
           S::surfaces, ""),
      told({"both aileron up", "aileron together", "both up together", "ailerons same way", "both flaperon up",
            "aileron same direction"},
           "Both ailerons go the same way: one of the two outputs is reversed, or roll and flap are exchanged in the "
           "mix. "
           "The "
           "roll stick's check tells which",
           S::proof, "stick.roll"),
      told(
          {"rudder nothing", "yaw nothing", "rudder rate nothing", "yaw correction nothing"},
          "Correction shows in a rate mode only while the model turns: a quick flick of the nose, not a slow swing. In "
          "levelling yaw is not held at all. Then gain on yaw, then its output",
          S::proof, "correction.yaw"),
      told({"moves stand still", "surface move still", "surface drift bench", "surface move itself",
            "servos move alone", "surface creeps"},
           "Surfaces that creep while it stands still: in a levelling or holding mode that is normal on the bench, it "
           "is "
           "not "
           "level or has wound up. In rate: it was moved while it found its zero: unplug, keep still, plug in",
           S::senses, "still"),
      told({"hunts up down", "hunts level", "hunts pitch", "nose hunts", "porpoises level"},
           "It hunts slowly in level: levelling too strong against its rate gain, or the balance too far aft. Level "
           "down "
           "first",
           S::feel, "pitch"),
      {{"nose high level", "flies nose high", "tail low level", "nose low level", "flies tail low", "flies nose low"},
       "Correct the level attitude from what it did",
       S::senses,
       "level"},
      told({"horizon tilted", "horizon wrong", "horizon leans", "attitude wrong", "horizon crooked"},
           "The horizon leans: the board sits crooked and level was not taken, or it was moved while waking. Level is "
           "taken at "
           "senses, wings true",
           S::senses, "level"),
      told({"circle instead return", "circles instead", "doesn find home", "find home", "flies wrong home",
            "misses home", "return wrong direction", "circles straight"},
           "It does not find home: compass first (turned, or too near a current), then where home was taken (armed "
           "before "
           "a good "
           "fix), then wind above its cruise speed",
           S::senses, "compass"),
      told({"stalls circle", "stalls turn", "sinks circle", "stalls when circle"},
           "It stalls in the circle: too tight or too slow for its bank. A wider radius, more throttle in the modes "
           "that "
           "fly by "
           "themselves",
           S::home, ""),
      told({"battery zero", "voltage zero", "battery reads zero", "battery reads nothing", "no voltage shown",
            "battery voltage wrong"},
           "The battery reads zero: its sense lead sits in another socket than its own, or is not there", S::wiring,
           ""),
      {{"restarts flight", "restarts air", "board restarts", "reboots", "board resets", "lost power air"},
       "The board restarts: its supply sinks for a moment, by a servo that stalls or a thin lead",
       S::power,
       "",
       say_brown_out},
      told({"video dark transmit", "video goes dark", "video dark", "video cuts", "camera goes dark", "video lost"},
           "Video goes dark when something else works: its supply sags, or it is fed from the servo rail. A supply of "
           "its "
           "own, "
           "and its aerial away from the transmitter's",
           S::power, ""),
      {{"shakes", "shake high", "shake fast", "oscillates", "wobbles", "vibrates flight", "twitches flight",
        "porpoises"},
       "What shakes, at which speed, and how far to turn down",
       S::feel,
       ""},
      {{"won arm", "arm", "arming", "refuses arm", "motor doesn start", "motor won start", "motor dead", "motor start",
        "motor run", "motor spin", "motor doesn turn"},
       "Why it does not arm, one reason at a time",
       S::home,
       "",
       say_arms},
      {{"no satellites", "no gps", "no fix", "satellite fix", "gps find", "gps lock", "few satellites",
        "satellite poor"},
       "What the satellite receiver says, and why it finds none",
       S::senses,
       "sky"},
      {{"compass wrong", "compass wrong way", "compass points wrong way", "compass off", "compass place",
        "compass jumps", "heading wrong", "toilet bowl", "north wrong", "heading drifts"},
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
      {{"rolls left", "rolls right", "pulls left", "pulls right", "turns left", "turns right", "drifts", "hold stick",
        "trim"},
       "What it is trimmed with: linkage and centre before the transmitter",
       S::surfaces,
       ""},
      {{"climbs level", "sinks level", "loses height", "gains height", "doesn hold height"},
       "Correct the level attitude from what it did",
       S::senses,
       "level"},
      {{"board hot", "regulator hot", "regulator heat", "gets warm"},
       "How warm the regulators get",
       S::power,
       "",
       say_heat},
      {{"video noise", "no picture", "picture", "goggles dark", "camera dark"},
       "What feeds camera and video, and where the picture goes",
       S::wiring,
       ""},
      {{"gyro drifts", "horizon drifts", "attitude drifts", "bumped", "moved power"},
       "Was the board moved while it looked for its zero?",
       S::senses,
       "still"},
      {{"servo buzzes", "servo hums", "servo hot", "servo strong enough", "servo too weak"},
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
