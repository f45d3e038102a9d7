#include "ask/topics.h"

#include "base/number.h"
#include "base/units.h"
#include "begin/what_next.h"
#include "home/arming.h"
#include "power/drive_choice.h"
#include "power/network.h"

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
  if (!b.complete) return {};
  const std::string side = b.side() == BalanceSide::holds ? "Within its band" : capital(std::string(name_of(b.side())));
  return side + ": it balances at " + figure_text(b.balance_point) + ", wanted " + length_text(b.wanted.value) + ". " +
         b.to_wanted.words;
}
std::string thrust(const AskedOf& of) {
  const auto& d = of.review.reports.power().drive;
  if (!d || d->thrust.value <= 0) return {};
  return said_figure(d->thrust) +
         (d->thrust_to_weight ? ", " + number_text(d->thrust_to_weight->value, 2) + " of the weight" : "");
}
std::string stall(const AskedOf& of) { return said_figure(of.review.reports.airframe().stall_speed); }
std::string cruise(const AskedOf& of) { return said_figure(of.review.reports.airframe().cruise_speed); }
std::string landing(const AskedOf& of) {
  const auto& stall = of.review.reports.airframe().stall_speed;
  constexpr double approach = 1.3;
  return stall ? "It comes in at about " + speed_text(approach * stall->value) + ", 1.3 times the stall speed of " +
                     speed_text(stall->value)
               : std::string();
}
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

std::string in_a_row(const std::vector<std::string>& all, const char* between) {
  std::string text;
  for (const std::string& s : all) text += (text.empty() ? "" : between) + s;
  return text;
}
std::string weight(const AskedOf& of) {
  const Balance& b = of.review.reports.fit().balance;
  if (const auto& kg = of.rig.airframe.mass_kg)
    return "Flying mass: " + mass_text(*kg) +
           (b.complete ? "; the parts and the bare airframe add up to " + mass_text(b.total.value) : "");
  return b.complete ? "Parts and bare airframe: " + mass_text(b.total.value) : std::string();
}
}  // namespace

std::string left_to_do(const AskedOf& of) {
  std::vector<std::string> open;
  for (const CheckStatus& c : of.review.checks)
    if (!c.stands() && !(c.family && c.family->guides)) open.push_back(c.title);
  if (open.empty()) return of.review.readiness.words;
  const std::size_t n = open.size();
  if (n > 4) open.resize(4);
  return std::to_string(n) + (n == 1 ? " check is" : " checks are") + " left: " + in_a_row(open, ", ") +
         (n > 4 ? " and " + std::to_string(n - 4) + " more" : "");
}
namespace {

std::string next_thing(const AskedOf& of) {
  const auto next = what_next(of.rig, of.catalogue, of.review);
  return next.empty() ? left_to_do(of) : "Next: " + next.front().what + ". " + next.front().why;
}
std::string on_loss(const AskedOf& of) {
  const Home& h = of.rig.home;
  if (of.deferred && of.deferred->home.missing.empty() && !of.deferred->home.can_act)
    return "This controller does nothing by itself when the link is gone: what the receiver puts out then counts. "
           "Motor "
           "off, surfaces at rest, is stored in it after binding";
  const std::string wait = "After " + number_text(h.loss_hold_s, 1) + " s without a frame ";
  switch (h.on_loss) {
    case LossAction::undecided: return "Nothing is decided for a lost link yet: decide it at home";
    case LossAction::glide: return wait + "the motor stops and it glides with level wings";
    case LossAction::circle: return wait + "it circles where it is";
    case LossAction::come_home:
      return wait + "it comes home" + (h.return_height_m ? " at " + field_text(*h.return_height_m) : std::string()) +
             (h.on_arrival == OnArrival::land ? " and lands" : " and circles there");
  }
  return {};
}
std::string return_height(const AskedOf& of) {
  return of.rig.home.return_height_m ? "It comes home at " + field_text(*of.rig.home.return_height_m)
                                     : "No height of the way home is set yet";
}
std::string turn_home(const AskedOf& of) {
  const Home& h = of.rig.home;
  std::string text = h.turn_home_v ? "Turns home at " + number_text(*h.turn_home_v, 1) + " V under load"
                                   : std::string("No voltage is set at which it turns home");
  if (of.deferred && of.deferred->home.turn_home_v)
    text += "; from the edge of the planned area it needs " + figure_text(*of.deferred->home.turn_home_v);
  return text;
}
std::string glide(const AskedOf& of) {
  if (!of.deferred || of.deferred->home.performance.glide_ratio <= 0) return {};
  const HomePerformance& p = of.deferred->home.performance;
  return "Motor off it glides about " + number_text(p.glide_ratio, 0) + " m for each metre of height, at " +
         speed_text(p.glide_m_s) + ", without wind";
}
std::string against_wind(const AskedOf& of) {
  if (!of.deferred || !of.deferred->home.missing.empty()) return {};
  const HomeReport& h = of.deferred->home;
  if (!h.can_act)
    return "This controller does not come home by itself. Flown by hand, in the planned wind of " +
           speed_text(of.rig.home.wind_m_s) + ", it surely goes out and back " + field_text(h.surely_out_and_back_m);
  if (h.blown_away())
    return "Not in the planned wind of " + speed_text(of.rig.home.wind_m_s) + ": it cruises at " +
           speed_text(h.performance.cruise_m_s.expected) + " and comes home from downwind alone";
  return "In the planned wind of " + speed_text(of.rig.home.wind_m_s) + " it surely goes out and back " +
         field_text(h.surely_out_and_back_m) + ", whatever side the wind comes from";
}
std::string suggestion(const AskedOf& of) {
  if (!of.rig.airframe.mass_kg) return "The flying mass is needed first, to say what suits";
  DriveKinds chosen;
  std::string fitted;
  for (const Part& p : of.rig.parts)
    if (const PartKind* k = of.catalogue.part(p.kind)) {
      if (k->group == PartGroup::motor) chosen.motor = k->id;
      if (k->group == PartGroup::battery) chosen.battery = k->id;
      if (k->group == PartGroup::speed_controller) chosen.speed_controller = k->id;
      if (k->group == PartGroup::propeller) fitted = k->name;
    }
  DriveKinds now = chosen;
  for (const Part& p : of.rig.parts)
    if (const PartKind* k = of.catalogue.part(p.kind); k && k->group == PartGroup::propeller) now.propeller = k->id;
  if (!fitted.empty() && !chosen.motor.empty() && !chosen.battery.empty()) {
    const DriveChoice judged = judge_drive(of.rig.airframe, of.catalogue, now);
    if (judged.wrong.empty()) return fitted + ", which is on it, suits: " + judged.words;
  }
  const auto best = suggest_drives(of.rig.airframe, of.catalogue, chosen, 1);
  if (best.empty()) return "No propeller that is known suits motor, battery and speed controller as they are";
  const PartKind* k = of.catalogue.part(best.front().kinds.propeller);
  return (k ? k->name : best.front().kinds.propeller) + ": " + best.front().words;
}
std::string arms(const AskedOf& of) {
  const auto needs = arming_needs(of.rig, of.catalogue);
  return needs.empty() ? std::string() : "Before it arms: " + in_a_row(needs, "; ");
}
std::string shaking(const AskedOf& of) {
  if (!of.deferred) return {};
  std::vector<std::string> all;
  for (const AxisFeel& a : of.deferred->feel.axes)
    if (a.may_shake_from_m_s)
      all.push_back(std::string(name_of(a.axis)) + " may begin at " + speed_text(*a.may_shake_from_m_s));
  return all.empty() ? std::string() : "With the gains as they are set: " + in_a_row(all, ", ");
}
std::string rail_volts(const AskedOf& of) {
  std::vector<std::string> all;
  const PowerReport& p = of.review.reports.power();
  const auto& rails = p.load_cases[static_cast<std::size_t>(LoadCase::idle)].rails;
  for (std::size_t i = 0; i < p.network.rails.size() && i < rails.size(); ++i)
    if (rails[i].live) all.push_back(p.network.rails[i].name + " " + number_text(rails[i].volts, 1) + " V");
  return all.empty() ? std::string() : "With the battery in: " + in_a_row(all, ", ");
}
std::string heat(const AskedOf& of) {
  std::vector<std::string> all;
  for (const SourceReport& s : of.review.reports.power().sources)
    if (s.heat_flown && s.junction_flown)
      all.push_back(s.name + ", as flown: " + figure_text(*s.heat_flown) + ", " + figure_text(*s.junction_flown));
    else if (s.supplies && !s.battery && s.kind == FeedKind::switching)
      all.push_back(s.name + " switches: it makes little heat");
  return in_a_row(all, "; ");
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
      {{"fast land", "landing speed", "approach speed", "fast come in", "slow land"},
       "The speed to land at: the flying mass is needed first",
       S::airframe,
       "airframe",
       landing},
      {{"wing big", "wing enough", "wing too small", "enough wing"},
       "Whether the wing is enough: the flying mass is needed first",
       S::airframe,
       "airframe",
       loading},
      {{"change board", "another board", "other board", "small board", "choose board", "different board"},
       "Another controller: choose it at airframe; leads and outputs move to sockets that it has",
       S::airframe,
       "controller"},
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
      {{"nose heavy", "tail heavy", "nose weight", "battery forward"},
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
      {{"wrong", "problem", "snag", "missing"}, "What is in the way", S::proof, "", snags},
      {{"next", "next step"}, "What to do next", S::proof, "", next_thing},
      {{"still open", "open check", "before first flight", "check before flight", "remaining", "finish"},
       "The checks that are still open",
       S::proof,
       "",
       left_to_do},
      {{"weigh", "aircraft weigh", "all up weigh", "total weigh", "weigh altogether"},
       "How heavy it is: the flying mass is not known yet",
       S::airframe,
       "airframe",
       weight},
      {{"return high", "return height", "how high return", "return low", "return too low", "high return"},
       "How high it comes home",
       S::home,
       "",
       return_height},
      {{"glide", "glide far", "how far glide"}, "How far it glides", S::home, "", glide},
      {{"against wind", "return wind", "return against wind", "headwind"},
       "Whether it comes home in the planned wind",
       S::home,
       "",
       against_wind},
      {{"propeller suits", "best propeller", "propeller use", "propeller fits", "propeller take", "propeller need buy",
        "recommend propeller"},
       "Which propeller suits",
       S::power,
       "",
       suggestion},
      {{"voltage rail", "volt rail", "volt servo", "voltage servo"},
       "What each rail carries",
       S::power,
       "",
       rail_volts},
      {{"fast before shake", "speed shake", "shake speed", "begins shake"},
       "At which speed it begins to shake",
       S::feel,
       "",
       shaking},
      {{"transmitter mode 1", "stick mode 1"},
       "Mode 1: pitch and yaw on the left stick, throttle and roll on the right. Rigging goes by what a stick does, "
       "not "
       "by where it is: nothing has to be set for it",
       S::sticks,
       "",
       nullptr,
       V::none,
       true},
      {{"transmitter mode 2", "stick mode 2"},
       "Mode 2: throttle and yaw on the left stick, roll and pitch on the right. Rigging goes by what a stick does, "
       "not "
       "by where it is: nothing has to be set for it",
       S::sticks,
       "",
       nullptr,
       V::none,
       true},
      {{"transmitter mode 3", "stick mode 3"},
       "Mode 3: roll and pitch on the left stick, throttle and yaw on the right. Rigging goes by what a stick does, "
       "not "
       "by where it is: nothing has to be set for it",
       S::sticks,
       "",
       nullptr,
       V::none,
       true},
      {{"transmitter mode 4", "stick mode 4"},
       "Mode 4: throttle and roll on the left stick, pitch and yaw on the right. Rigging goes by what a stick does, "
       "not "
       "by where it is: nothing has to be set for it",
       S::sticks,
       "",
       nullptr,
       V::none,
       true},
      {{"heading off degrees", "compass off degrees", "heading turned", "heading opposite", "compass turned"},
       "A heading that is off by a quarter or half turn on every course is the compass's own turn: tell it how it sits "
       "(fit). "
       "Off by another amount on each course: calibrate it, and look at currents near by",
       S::senses,
       "compass",
       nullptr,
       V::none,
       true},
      {{"after mounting", "mounted board check", "board glued"},
       "What was proven with the board loose is provisional: after mounting one flick an axis suffices, then level, "
       "and the "
       "compass where it moved with it",
       S::proof,
       "",
       nullptr,
       V::none,
       true},
      {{"bigger battery", "larger battery", "another battery", "smaller battery", "lighter battery"},
       "Say which: “use a 4S battery”, “4S 2200 mAh battery”. Weight, balance, voltage limits and flight time follow "
       "at once, "
       "and one undo takes it back",
       S::fit,
       "",
       nullptr,
       V::none,
       true},
      {{"capacitor", "need capacitor"},
       "A capacitor at the speed controller's battery pads takes the ripple off the supply of camera and video; at the "
       "servo rail it bridges milliseconds, not a stalled servo. Whether the rail holds is reckoned at power",
       S::power,
       "",
       nullptr,
       V::none,
       true},
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
      {{"low voltage", "battery alarm", "voltage threshold", "turn back voltage", "voltage land", "turn home itself",
        "voltage turn", "turn home when"},
       "At which voltage it has to turn home",
       S::home,
       "",
       turn_home},
      {{"modes", "mode switch", "flight modes", "switch positions"}, "What the switches do", S::home, ""},
      {{"failsafe", "lost link", "transmitter off", "link gone"},
       "What happens when the link goes",
       S::home,
       "",
       on_loss},
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
      {{"climbs throttle", "climb open throttle", "noses up throttle", "pitches up throttle", "balloons throttle",
        "rises throttle", "goes up full throttle", "climbs full throttle"},
       "It climbs when the throttle opens: thrust line (more down-thrust), or the speed that comes with it on a wing "
       "set "
       "too steep or balanced too far forward. Try it level at half and at full throttle, in manual: at once is the "
       "thrust "
       "line, after seconds the speed. Not a job for gain or trim",
       S::airframe,
       "airframe",
       nullptr,
       V::none,
       true},
      {{"noses down throttle", "dives throttle", "sinks throttle", "nose down throttle", "nose full throttle",
        "noses full throttle", "pitches down throttle", "dives full throttle"},
       "It noses down when the throttle opens: the motor pulls above the middle of the drag, as on a high pusher or "
       "with "
       "too much down-thrust. Thrust line first, in manual; not a job for gain or trim",
       S::airframe,
       "airframe",
       nullptr,
       V::none,
       true},
      {{"turns throttle", "yaws throttle", "swings left throttle", "pulls left throttle", "rolls throttle",
        "rolls left throttle"},
       "It swings or rolls with the throttle: side-thrust, or the propeller's own torque. Set the shaft before the "
       "trim",
       S::airframe,
       "airframe",
       nullptr,
       V::none,
       true},
      {{"servo jitter", "servo jitters", "servo twitch", "one servo jitters", "servo shivers", "servo trembles"},
       "One servo jitters. Battery in, propeller off: exchange its lead with a neighbour's. Moves the jitter along "
       "with the "
       "servo, it is the servo or its lead; stays it at the socket, the output: an analogue servo at a fast pulse "
       "rate, or "
       "a poor minus",
       S::wiring,
       "",
       nullptr,
       V::none,
       true},
      {{"servos twitch throttle", "twitch throttle", "servos jitter motor", "twitch motor", "jitter throttle",
        "twitches throttle"},
       "Servos twitch with the motor: propeller off, see whether the rail sags (power) or the receiver loses frames "
       "(sticks). Motor leads away from receiver and aerials, one minus for all",
       S::power,
       "",
       nullptr,
       V::none,
       true},
      {{"wags", "wags tail", "tail wags", "tail swings", "fishtails", "hunts yaw", "swings side"},
       "It wags its tail: gain on yaw too high, or the airframe's own Dutch roll. In manual: stops it, the gain goes "
       "down; "
       "goes it on, fin and dihedral are the cause, and some yaw correction helps",
       S::feel,
       "yaw",
       nullptr,
       V::none,
       true},
      {{"motor stutters", "motor stutter", "motor twitches", "motor jerks", "motor rough", "motor hesitates"},
       "The motor stutters. Propeller off, and take it by its cause: one of the three motor leads or its solder joint, "
       "an "
       "unset throttle range, timing that the motor does not like, a battery that sags until the speed controller cuts",
       S::power,
       "",
       nullptr,
       V::none,
       true},
      {{"motor beeps", "motor only beeps", "esc beeps", "just beeps"},
       "The motor only beeps: it gets no low throttle, or no pulses it knows. Throttle closed and read low at sticks, "
       "locked on purpose (arming), or the throttle range not set",
       S::sticks,
       "",
       nullptr,
       V::none,
       true},
      {{"motor cut", "motor stops air", "motor cut air", "power cut air", "motor dies", "motor stops"},
       "The motor cuts out: the speed controller protects the battery (sag at full throttle), itself (heat), or lost "
       "its "
       "pulses (failsafe). Current and sag at power say which is near",
       S::power,
       "",
       nullptr,
       V::none,
       true},
      {{"propeller wrong way", "motor wrong way", "motor turns wrong", "propeller spins wrong", "motor backwards",
        "propeller backwards"},
       "The motor turns the wrong way: battery out, exchange any two of its three leads. Its lettered side faces the "
       "direction of flight, on a pusher, too",
       S::power,
       "",
       nullptr,
       V::none,
       true},
      {{"crashed", "crash", "hard landing", "hit ground", "fell down", "came down hard", "landed hard"},
       "After a crash everything is new: battery out, look at airframe, leads, servo gears and the board's seat; weigh "
       "and "
       "balance again; then all direction checks, level and range, as before the first flight",
       S::proof,
       "",
       nullptr,
       V::none,
       true},
      {{"drops wing", "drop wing", "tip stall", "wing drops", "drops wing launch"},
       "It drops a wing: too slow for what is asked of it. Wings level, thrown flat and fast on middle rates, no climb "
       "before "
       "it has its speed; balance within its band. The take-off at feel reckons the throw",
       S::feel,
       "takeoff",
       nullptr,
       V::none,
       true},
      {{"flutters", "flutter", "surface buzzes air"},
       "Flutter: throttle off and slow at once; don't fly again before play is gone, the rod is stiff and straight and "
       "the "
       "hinge tight. Less speed is the only cure in the air",
       S::surfaces,
       "",
       nullptr,
       V::none,
       true},
      {{"surface dead", "aileron nothing", "aileron dead", "elevator nothing", "servo nothing", "one servo doesn move",
        "flap nothing", "surface nothing"},
       "One surface does nothing: its lead, its socket and that output alone. Move that one output by itself "
       "(surfaces); "
       "dark: lead or servo; moves: the mix",
       S::surfaces,
       "",
       nullptr,
       V::none,
       true},
      {{"both aileron up", "aileron together", "both up together", "ailerons same way", "both flaperon up",
        "aileron same direction"},
       "Both ailerons go the same way: one of the two outputs is reversed, or roll and flap are exchanged in the mix. "
       "The "
       "roll stick's check tells which",
       S::proof,
       "stick.roll",
       nullptr,
       V::none,
       true},
      {{"rudder nothing", "yaw nothing", "rudder rate nothing", "yaw correction nothing"},
       "Correction shows in a rate mode only while the model turns: a quick flick of the nose, not a slow swing. In "
       "levelling yaw is not held at all. Then gain on yaw, then its output",
       S::proof,
       "correction.yaw",
       nullptr,
       V::none,
       true},
      {{"moves stand still", "surface move still", "surface drift bench", "surface move itself", "servos move alone",
        "surface creeps"},
       "Surfaces that creep while it stands still: in a levelling or holding mode that is normal on the bench, it is "
       "not "
       "level or has wound up. In rate: it was moved while it found its zero: unplug, keep still, plug in",
       S::senses,
       "still",
       nullptr,
       V::none,
       true},
      {{"hunts up down", "hunts level", "hunts pitch", "nose hunts", "porpoises level"},
       "It hunts slowly in level: levelling too strong against its rate gain, or the balance too far aft. Level down "
       "first",
       S::feel,
       "pitch",
       nullptr,
       V::none,
       true},
      {{"nose high level", "flies nose high", "tail low level", "nose low level", "flies tail low", "flies nose low"},
       "Correct the level attitude from what it did",
       S::senses,
       "level"},
      {{"horizon tilted", "horizon wrong", "horizon leans", "attitude wrong", "horizon crooked"},
       "The horizon leans: the board sits crooked and level was not taken, or it was moved while waking. Level is "
       "taken at "
       "senses, wings true",
       S::senses,
       "level",
       nullptr,
       V::none,
       true},
      {{"circle instead return", "circles instead", "doesn find home", "find home", "flies wrong home", "misses home",
        "return wrong direction", "circles straight"},
       "It does not find home: compass first (turned, or too near a current), then where home was taken (armed before "
       "a good "
       "fix), then wind above its cruise speed",
       S::senses,
       "compass",
       nullptr,
       V::none,
       true},
      {{"stalls circle", "stalls turn", "sinks circle", "stalls when circle"},
       "It stalls in the circle: too tight or too slow for its bank. A wider radius, more throttle in the modes that "
       "fly by "
       "themselves",
       S::home,
       "",
       nullptr,
       V::none,
       true},
      {{"battery zero", "voltage zero", "battery reads zero", "battery reads nothing", "no voltage shown",
        "battery voltage wrong"},
       "The battery reads zero: its sense lead sits in another socket than its own, or is not there",
       S::wiring,
       "",
       nullptr,
       V::none,
       true},
      {{"restarts flight", "restarts air", "board restarts", "reboots", "board resets", "lost power air"},
       "The board restarts: its supply sinks for a moment, by a servo that stalls or a thin lead",
       S::power,
       "",
       brown_out},
      {{"video dark transmit", "video goes dark", "video dark", "video cuts", "camera goes dark", "video lost"},
       "Video goes dark when something else works: its supply sags, or it is fed from the servo rail. A supply of its "
       "own, "
       "and its aerial away from the transmitter's",
       S::power,
       "",
       nullptr,
       V::none,
       true},
      {{"shakes", "oscillates", "wobbles", "vibrates flight", "twitches flight", "porpoises"},
       "What shakes, at which speed, and how far to turn down",
       S::feel,
       ""},
      {{"won arm", "arm", "arming", "refuses arm", "motor doesn start", "motor won start", "motor dead", "motor start",
        "motor run", "motor spin", "motor doesn turn"},
       "Why it does not arm, one reason at a time",
       S::home,
       "",
       arms},
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
       heat},
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
