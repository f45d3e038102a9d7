#include "ask/set_answers.h"

#include <algorithm>

#include "ask/finder.h"
#include "ask/sayings.h"
#include "ask/things.h"
#include "base/number.h"
#include "base/units.h"
#include "feel/gain_scale.h"
#include "language/typed.h"
#include "power/network.h"
#include "sticks/sticks.h"

namespace rigging {
namespace {

class SetAnswers : public Finder {
 public:
  using Finder::Finder;

  void find() {
    limits();
    mixes();
    switches();
    if (!in_.split.number.empty()) return;
    speaks();
    states();
    of_board();
    supplies();
    channels();
    gains();
    sums();
  }

 private:
  /// "is the receiver getting power": in each state of the supply.
  void fed() {
    if (!in_.asks() || in_.has({"rail"}) ||
        !in_.has({"power", "powered", "fed", "supply", "supplied", "live", "volts", "voltage"}))
      return;
    double fit = 0;
    const Part* p = part_named(of_,
                               without(in_.words, {"power", "powered", "fed", "supply", "supplied", "live", "gett",
                                                   "get", "enough", "volt", "voltage"}),
                               &fit);
    const ConsumerReport* c = p && fit >= 1 ? of_.review.reports.power().consumer(p->id) : nullptr;
    if (!c) return;
    const auto state = [&](SupplyState s) { return c->powered[static_cast<std::size_t>(s)] ? "fed" : "dark"; };
    const bool battery = c->powered[static_cast<std::size_t>(SupplyState::battery)];
    found_.answer(4.5,
                  capital(c->name) + " on USB alone: " + state(SupplyState::usb) +
                      "; with the battery in: " + state(SupplyState::battery) +
                      (battery ? ", at worst " + number_text(c->worst_v, 1) + " V of " + number_text(c->least_v, 1) +
                                     " V that it needs"
                               : std::string()),
                  Station::power, p->id);
  }

  /// "how fast can it go", "it rolls when I pitch".
  void others() {
    if (in_.has_row({"how", "fast"}) &&
        !in_.has({"land", "shake", "shakes", "servo", "stall", "slow", "climb", "climbs", "turn", "roll", "sink"})) {
      const auto& cruise = of_.review.reports.airframe().cruise_speed;
      std::string text = cruise ? "Cruise " + speed_text(cruise->value) : std::string();
      if (of_.deferred && of_.deferred->feel.missing.empty() && of_.deferred->feel.fast_m_s > 0)
        text += (text.empty() ? "Fastest" : ", fastest") + std::string(" level flight about ") +
                speed_text(of_.deferred->feel.fast_m_s);
      found_.answer(5, text, Station::airframe, "airframe");
    }
    if (!in_.asks() && in_.has({"when", "while"}) && in_.has({"rolls", "banks", "pitches", "yaws", "turns"}) &&
        in_.has({"pitch", "roll", "pull", "push", "elevator", "aileron"}) && !said(in_.words, "throttle"))
      found_.answer(
          3.4,
          "One command moves it on another axis: channels exchanged (sticks), the two halves unequal in throw or "
          "centre, or a lead or weight of one half wrong. The stick checks of station proof tell which",
          Station::proof);
    if (in_.has({"lamp", "light", "led", "blinks", "blinking", "flashing", "flashes", "tones", "beeps"}) && board() &&
        !board()->proof.lamps.empty() && !said(in_.words, "motor")) {
      std::vector<std::string> all;
      for (const Lamp& l : board()->proof.lamps) all.push_back(board()->with_leaflet(l.sign + ": " + l.meaning));
      found_.answer(4, "Signs of this class: " + in_a_row(all), Station::proof);
    }
  }

  /// "why is my receiver dark on USB".
  void supplies() {
    fed();
    others();
    if (!in_.has({"usb"})) return;
    double fit = 0;
    const Part* asked =
        part_named(of_, without(in_.words, {"usb", "dark", "dead", "alone", "off", "light", "work"}), &fit);
    found_.answer(5, say_on_usb_of(of_, fit >= 1 ? asked : nullptr), Station::power);
  }

  /// "how many amps do the servos pull when stalled", "how far down does the elevator go", "what does the mode switch
  /// do".
  void sums() {
    if ((in_.has_row({"left", "to"}) || in_.has_row({"is", "left"}) || in_.has_row({"are", "left"})) &&
        !said(in_.words, "battery"))
      found_.answer(5, say_left_to_do(of_), Station::proof);
    if (!in_.asks()) return;
    const PowerReport& power = of_.review.reports.power();
    if (said(in_.words, "servo") && in_.has({"amps", "current", "ampere", "draw", "pull"}))
      for (const SourceReport& s : power.sources)
        if (s.supplies && !s.battery && power.servo_source_a > 0 && s.rating_a == power.servo_source_a) {
          const auto amps = [&](LoadCase c) { return number_text(s.amps[static_cast<std::size_t>(c)], 1) + " A"; };
          found_.answer(5,
                        "All servos moving: " + amps(LoadCase::all_moving) +
                            "; one of them stalled: " + amps(LoadCase::one_stalled) +
                            "; two: " + amps(LoadCase::two_stalled) + ", all else on that rail with it, of " +
                            number_text(s.rating_a, 1) + " A that " + s.name + " gives",
                        Station::power, s.part);
          break;
        }
    const auto surfaces = surfaces_named(of_, in_);
    if (!surfaces.empty() && in_.has({"far", "throw", "throws", "degrees", "travel"})) {
      std::vector<std::string> all;
      for (const Surface s : surfaces)
        if (const SurfaceAnswer* a = of_.review.reports.surfaces().answer(s); a && s.kind != SurfaceKind::motor) {
          std::vector<std::string> commands;
          for (const auto& [command, word] : Names<MixCommand>::list)
            if (const double deg = a->throw_deg[static_cast<std::size_t>(command)]; deg > 0.05)
              commands.push_back(degrees_text(deg) + " for full " + std::string(word));
          const bool rudder = s.kind == SurfaceKind::rudder;
          all.push_back(s.label() + " " + in_a_row(commands, ", ") + ", at its ends " + degrees_text(a->most_up_deg) +
                        (rudder ? " right and " : " up and ") + degrees_text(a->most_down_deg) +
                        (rudder ? " left" : " down") + (a->in_degrees ? "" : " (without a measured linkage)"));
        }
      found_.answer(4.6, capital(in_a_row(all)), Station::surfaces, surfaces.front().name());
    }
  }

  /// "can this servo take 7.4 volts", "what voltage does the receiver need".
  void limits() {
    if (!in_.asks() || !in_.has({"volt", "volts", "voltage", "v"}) ||
        !in_.has({"take", "stand", "bear", "bears", "need", "needs", "allowed", "most", "run", "maximum", "max"}))
      return;
    const auto what = without(in_.numberless, {"take", "stand", "bear", "bears", "need", "allowed", "most", "run",
                                               "maximum", "max", "volt", "voltage", "v"});
    double fit = 0;
    const Part* p = part_named(of_, what, &fit);
    if (!p || fit < 1) return;
    for (const ConsumerReport& c : of_.review.reports.power().consumers)
      if (c.part == p->id && c.most_v > 0) {
        const auto asked = typed_number(in_.split.number, "V");
        const bool given = asked && !in_.split.number.empty();
        return found_.answer(5.3,
                             (given ? *asked > c.most_v    ? "No: "
                                      : *asked < c.least_v ? "Too little: "
                                                           : "Yes: "
                                    : "") +
                                 c.name + " takes " + number_text(c.least_v, 1) + " to " + number_text(c.most_v, 1) +
                                 " V; with the battery in it sees up to " + number_text(c.rest_v, 1) + " V",
                             Station::power, p->id);
      }
  }

  /// "what baud does the receiver use", "at which rate do the servos run".
  void speaks() {
    if (!in_.asks()) return;
    if (in_.has({"baud"})) {
      double fit = 0;
      const Part* p = part_named(of_, without(in_.words, {"baud", "use", "rate", "run", "speak"}), &fit);
      if (p && fit >= 1)
        for (const Lead& l : of_.rig.leads)
          for (const LeadEnd* end : {&l.from, &l.to})
            for (const Port& port : of_.rig.ports)
              if ((l.from.part == p->id || l.to.part == p->id) && end->part == "controller" &&
                  end->socket == port.socket)
                return found_.answer(
                    5,
                    socket_label(of_, port.socket) + ", where " + part_name(of_.rig, of_.catalogue, p->id) +
                        " is, is told " +
                        (port.baud ? number_text(*port.baud, 0) + " baud" : "no baud: it finds its own"),
                    Station::wiring, p->id);
    }
    if (in_.has({"pulse", "hz", "hertz"}) && in_.has({"rate", "fast", "often", "hz", "hertz"})) {
      std::vector<std::string> all;
      for (const Output& o : of_.rig.outputs)
        for (const Surface s : o.surfaces) all.push_back(s.label() + " " + number_text(o.rate_hz, 0) + " Hz");
      if (!all.empty()) found_.answer(5.2, "Pulses: " + in_a_row(all, ", "), Station::wiring);
    }
  }

  /// "which channel is the mode switch on".
  void channels() {
    if ((!said(in_.words, "channel") && !in_.has_row({"which", "switch"})) || !in_.has({"which", "what"})) return;
    for (const Channel& c : of_.rig.radio.channels) {
      const double fit =
          std::max(names(without(in_.words, {"channel", "switch", "stick"}), function_label(c.function)),
                   names(without(in_.words, {"channel", "switch", "stick"}), label_of(name_of(c.function))));
      if (fit >= 1.5)
        found_.answer(3 + fit, capital(function_label(c.function)) + ": channel " + std::to_string(c.number),
                      Station::sticks);
    }
  }

  /// "what is the roll gain", "what are the first gains", "how do I set the roll gain".
  void gains() {
    if (!said(in_.words, "gain") || !in_.asks() || !board()) return;
    const auto axis = axis_named(in_);
    const GainScale scale(*board(), of_.rig.feel.half_share);
    if (in_.has({"first", "start", "begin", "maiden"}) && !in_.has({"shakes", "shake"}))
      if (const std::string first = say_first_gains(of_); !first.empty()) return found_.answer(5, first, Station::feel);
    if (in_.has({"set", "change", "adjust"}) && in_.has({"how", "where"}))
      return found_.answer(4.5, "Gains: " + board()->feel.gains, Station::feel);
    std::vector<std::string> all;
    for (const Axis a : all_axes)
      if (!axis || a == *axis) {
        const AxisGain* g = of_.rig.feel.gain(a);
        all.push_back(std::string(name_of(a)) + " " +
                      (!scale.settable() ? "by the linkage alone"
                       : !g || !g->rate  ? "not written down yet"
                                         : scale.words(*g->rate)));
      }
    found_.answer(3.2 + (axis ? 0.6 : 0), "Gains: " + in_a_row(all, ", "), Station::feel,
                  axis ? std::string(name_of(*axis)) : "");
  }

  /// "what does the mode switch do", "which mode is on position 1", "what is on channel 8".
  void switches() {
    if (!in_.asks()) return;
    if (said(in_.words, "mode") && (in_.has({"switch", "switches"}) || in_.has_row({"which", "modes"})) &&
        !said(in_.words, "channel")) {
      std::vector<std::string> all;
      for (const ModeChoice& m : of_.rig.modes)
        all.push_back("channel " + std::to_string(m.channel) + " at " + number_text(m.from_us, 0) + "–" +
                      number_text(m.to_us, 0) + " µs " + m.mode);
      if (!all.empty()) found_.answer(4.2, capital(in_a_row(all)), Station::home);
    }
    if (!said(in_.words, "channel") || in_.split.number.empty()) return;
    const auto number = number_of(in_.split.number);
    for (const Channel& c : of_.rig.radio.channels)
      if (number && *number == c.number)
        return found_.answer(5, "Channel " + std::to_string(c.number) + ": " + function_label(c.function),
                             Station::sticks);
    if (number && in_.has({"what", "which"}) && *number >= 1)
      found_.answer(4, "Nothing is on channel " + number_text(*number, 0) + " in this rig", Station::sticks);
  }

  /// "is the accelerometer calibrated", "are the sticks proven".
  void states() {
    if (!in_.begins({"is", "are", "was", "were", "did", "have", "has"}) ||
        !in_.has({"calibrated", "proven", "done", "checked", "tested", "looked", "check", "test", "calibrate"}))
      return;
    const auto what = without(in_.words, {"calibrated", "proven", "done", "checked", "tested", "looked", "check",
                                          "test", "calibrate", "already", "yet"});
    if (what.empty()) return;
    const CheckStatus* best = nullptr;
    double fit = 0;
    for (const CheckStatus& c : of_.review.checks)
      for (const std::string& name :
           {c.title, c.family ? c.family->name : std::string(), c.id.family + " " + c.id.subject})
        if (const double own = names(what, name); own > fit) fit = own, best = &c;
    if (!best || fit < 1) return;
    found_.answer(
        5,
        best->title + ": " +
            (best->state == ProofState::none          ? "not proven yet"
             : best->state == ProofState::stale       ? "stale" + (best->changes.empty() ? "" : ", " + best->because())
             : best->state == ProofState::provisional ? "provisional, until the board is mounted"
                                                      : "proven"),
        best->family ? best->family->station : Station::proof, best->id.subject);
  }

  /// "does this board have a compass", "how is my board mounted".
  void of_board() {
    if (!said(in_.words, "board") || !in_.asks() || !board()) return;
    const SensesAbilities& s = board()->senses;
    if (in_.has({"mounted", "mount", "turned", "sits", "way"})) {
      const Mounting* place = of_.rig.mounting("controller");
      if (place)
        found_.answer(4.3,
                      "It sits " + place->turn.label() + ", " + length_text(-place->x_m) + " behind the nose" +
                          (of_.rig.controller.mounted ? ", mounted" : ", still loose"),
                      Station::fit, "controller");
    }
    if (in_.has({"compass", "barometer", "gps", "sensors"}))
      found_.answer(4.3,
                    board()->name + (s.has_compass ? " has a compass" : " has no compass of its own") +
                        (s.has_barometer ? ", has a barometer" : ", no barometer") +
                        "; a compass may sit in a satellite receiver, too",
                    Station::senses);
  }

  /// "what is the mix of output 2", "what pulse does the left aileron get".
  void mixes() {
    if (!in_.asks() || !in_.has({"mix", "pulse", "centre", "ends"})) return;
    std::vector<const Output*> outputs = outputs_numbered(of_, in_);
    for (const Surface s : surfaces_named(of_, in_))
      if (const Output* o = of_.rig.output_of(s)) outputs.push_back(o);
    std::vector<std::string> all;
    for (const Output* o : outputs) {
      std::string text;
      const Mix& mix = o->mix;
      for (const auto& [word, weight] : {std::pair{"roll", mix.roll},
                                         {"pitch", mix.pitch},
                                         {"yaw", mix.yaw},
                                         {"throttle", mix.throttle},
                                         {"flap", mix.flap}})
        if (weight != 0)
          text += (text.empty() ? "" : ", ") + std::string(word) + " " + number_text(100 * weight, 0) + " %";
      all.push_back("output " + o->id.substr(o->id.find_last_of('_') + 1) + ": " + (text.empty() ? "no mix" : text) +
                    "; centre " + number_text(o->centre_us, 0) + ", ends " + number_text(o->low_us, 0) + " and " +
                    number_text(o->high_us, 0) + " µs" + (o->reversed ? ", reversed" : ""));
    }
    if (!all.empty()) found_.answer(5.4, capital(in_a_row(all)), Station::surfaces, outputs.front()->id);
  }
};

}  // namespace

void find_set_answers(const AskedOf& of, const Sentence& sentence, Found& found) {
  SetAnswers(of, sentence, found).find();
}

}  // namespace rigging
