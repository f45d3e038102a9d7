#include <algorithm>
#include <cmath>
#include <set>

#include "power/power.h"
#include "wiring/output_plan.h"

namespace rigging {
namespace {

using namespace plan_cost;

class Planner {
 public:
  Planner(const Rig& rig, const Catalogue& catalogue)
      : before_(rig), catalogue_(catalogue), controller_(catalogue.controller(rig.controller.kind)) {
    plan_.rig = rig;
    // A lead that leads nowhere is not kept, unless the builder insists.
    std::erase_if(plan_.rig.leads, [&](const Lead& l) {
      return !l.fixed && (!terminal_of(rig, catalogue, l.from) || !terminal_of(rig, catalogue, l.to));
    });
  }

  Plan take() {
    if (!controller_) {
      plan_.obstacles.push_back(
          {"controller", "No controller class \"" + before_.controller.kind + "\" is known", "AIRFRAME-01"});
      return std::move(plan_);
    }
    plan_outputs(plan_, *controller_);
    servos_and_motors();
    serial_ports();
    pulse_receivers();
    battery_side();
    two_wire();
    regulators();
    red_wires();
    feed_dark_rails();
    video_and_pads();
    red_wires();
    say_what_stays_dark();
    std::stable_sort(plan_.rig.leads.begin(), plan_.rig.leads.end(),
                     [](const Lead& a, const Lead& b) { return a.id < b.id; });
    for (const Choice& c : plan_.choices) plan_.changes += c.changed;
    return std::move(plan_);
  }

 private:
  Rig& rig() { return plan_.rig; }
  std::vector<const Part*> parts_of(PartGroup group) const {
    std::vector<const Part*> all;
    for (const Part& p : plan_.rig.parts)
      if (const PartKind* k = catalogue_.part(p.kind); k && k->group == group) all.push_back(&p);
    return all;
  }
  std::string name(const std::string& part) const { return part_name(plan_.rig, catalogue_, part); }
  const Terminal* terminal(const std::string& part, const std::string& id) const {
    return terminal_of(plan_.rig, catalogue_, {part, id, {}});
  }

  bool busy(const std::string& part, const std::string& socket) const {
    return std::any_of(plan_.rig.leads.begin(), plan_.rig.leads.end(),
                       [&](const Lead& l) { return settled_.count(l.id) && far_end(l, part, socket); });
  }
  /// Where the part's terminal goes now, at `other` or anywhere.
  const LeadEnd* goes(const std::string& part, const std::string& socket, const std::string& other = {}) const {
    for (const Lead& l : plan_.rig.leads)
      if (const LeadEnd* far = far_end(l, part, socket); far && (other.empty() || far->part == other)) return far;
    return nullptr;
  }
  bool is_fixed(const std::string& part, const std::string& socket) const {
    return std::any_of(plan_.rig.leads.begin(), plan_.rig.leads.end(),
                       [&](const Lead& l) { return l.fixed && far_end(l, part, socket); });
  }

  /// Lays the lead, moving one that starts there already, and says why.
  void connect(const std::string& part, const std::string& socket, const std::string& to, const std::string& to_socket,
               const std::string& why) {
    Lead* lead = nullptr;
    for (Lead& l : rig().leads)
      if (const LeadEnd* far = far_end(l, part, socket); far && far->part == to && far->socket == to_socket) lead = &l;
    const bool stays = lead != nullptr;
    if (!lead)
      for (Lead& l : rig().leads)
        if (!settled_.count(l.id) && !l.fixed && far_end(l, part, socket)) lead = &l;
    if (!lead) {
      Lead fresh;
      fresh.id = part;
      for (int n = 2; rig().lead(fresh.id); ++n) fresh.id = part + "_" + (n == 2 ? socket : socket + std::to_string(n));
      rig().leads.push_back(fresh);
      lead = &rig().leads.back();
    }
    if (!stays) {
      lead->from = {part, socket, {}};
      lead->to = {to, to_socket, {}};
      const Terminal *a = terminal(part, socket), *b = terminal(to, to_socket);
      if (a && b) lead->kind = usual_lead(*a, *b);
      // One lead that feeds a whole rail is made of thicker wire than a servo's.
      const PartKind* k = kind_of(plan_.rig, catalogue_, part);
      if (k && !k->feeds.empty() && lead->kind == LeadKind::servo && !lead->gauge_awg) lead->gauge_awg = 22;
    }
    settled_.insert(lead->id);
    const Terminal* t = terminal(to, to_socket);
    plan_.choices.push_back({part, socket, name(to) + " " + (t ? t->label : to_socket), why, !stays});
  }
  void obstacle(const std::string& subject, const std::string& what, const char* code) {
    plan_.obstacles.push_back({subject, what, code});
  }

  void servos_and_motors() {
    for (const Part* p : parts_of(PartGroup::servo)) {
      if (is_fixed(p->id, "plug")) {
        keep(p->id, "plug");
        continue;
      }
      const Output* o = output_for(rig(), catalogue_, *p);
      if (!o) {
        obstacle(p->id, capital(name(p->id)) + " belongs to no surface of this airframe: say which surface it works",
                 "WIRING-19");
        continue;
      }
      if (o->socket.empty()) continue;
      connect(p->id, "plug", "controller", o->socket, "output " + o->id + " drives it");
      if (o->surfaces.size() > 1)
        for (Lead& l : rig().leads)
          if (l.from.part == p->id && l.to.socket == o->socket) l.kind = LeadKind::y_lead;
    }
    for (const Part* p : parts_of(PartGroup::speed_controller)) {
      // Its motor: the one with the same side, else in order.
      if (!is_fixed(p->id, "motor")) {
        const Part* mine = nullptr;
        for (const Part* m : parts_of(PartGroup::motor))
          if (!busy(m->id, "phases") && (!mine || (m->surface && p->surface && *m->surface == *p->surface))) mine = m;
        if (mine) connect(p->id, "motor", mine->id, "phases", "its motor");
      } else {
        keep(p->id, "motor");
      }
      if (is_fixed(p->id, "servo")) {
        keep(p->id, "servo");
        continue;
      }
      const Output* o = output_for(rig(), catalogue_, *p);
      if (controller_->surfaces.motor_bypasses || (o && o->socket.empty())) {
        if (const auto [rx, ch] = receiver_channel(ChannelFunction::throttle); !rx.empty())
          connect(p->id, "servo", rx, ch, "the throttle lead stays on the receiver");
        else
          obstacle(p->id, "The throttle has to stay on the receiver, and the receiver has no pulse output for it",
                   "WIRING-16");
      } else if (o) {
        connect(p->id, "servo", "controller", o->socket, "the motor's output");
      } else {
        obstacle(p->id, capital(name(p->id)) + " has no output: the rig has no throttle output for it", "WIRING-28");
      }
    }
  }

  void keep(const std::string& part, const std::string& socket) {
    for (const Lead& l : rig().leads)
      if (const LeadEnd* far = far_end(l, part, socket); far && !settled_.count(l.id)) {
        settled_.insert(l.id);
        const Terminal* t = terminal(far->part, far->socket);
        plan_.choices.push_back(
            {part, socket, name(far->part) + " " + (t ? t->label : far->socket), "kept by hand", false});
      }
  }

  /// The receiver and its pulse output that carries a function, if there is one.
  std::pair<std::string, std::string> receiver_channel(ChannelFunction f) const {
    for (const Channel& c : plan_.rig.radio.channels)
      if (c.function == f)
        for (const Part* rx : parts_of(PartGroup::receiver))
          if (const Terminal* t = terminal(rx->id, "ch" + std::to_string(c.number));
              t && t->kind == TerminalKind::output)
            return {rx->id, t->id};
    return {};
  }

  // ── ports ────────────────────────────────────────────────────────────────────────────────────────────────────────
  void serial_ports() {
    struct Wanting {
      const Part* part;
      const Terminal* end;
    };
    std::vector<Wanting> wanting;
    for (const Part& p : rig().parts) {
      const PartKind* k = catalogue_.part(p.kind);
      if (!k) continue;
      for (const Terminal& t : k->terminals) {
        const bool data = t.kind == TerminalKind::serial || t.kind == TerminalKind::inverted_serial ||
                          t.kind == TerminalKind::summed_output;
        if (!data) continue;
        if (is_fixed(p.id, t.id))
          keep(p.id, t.id);
        else
          wanting.push_back({&p, &t});
      }
    }
    std::vector<const Terminal*> ports;
    for (const Terminal& t : controller_->ports)
      if (t.kind == TerminalKind::serial || t.kind == TerminalKind::serial_inverting ||
          t.serves_as(TerminalKind::summed_input))
        if (!busy("controller", t.id)) ports.push_back(&t);
    std::vector<std::vector<double>> cost;
    for (const Wanting& w : wanting) {
      const PartKind* k = catalogue_.part(w.part->kind);
      const LeadEnd* now = goes(w.part->id, w.end->id, "controller");
      std::vector<double> row;
      for (std::size_t i = 0; i < ports.size(); ++i) {
        const Terminal& t = *ports[i];
        double c = now && now->socket == t.id ? 0 : moved + order * static_cast<double>(i) + way_cost(*w.part, t);
        const bool kept_for_other = !t.serves.empty() && t.serves != word(k->group) &&
                                    !(k->group == PartGroup::receiver && w.end->kind == TerminalKind::summed_output);
        const bool too_slow = t.most_baud > 0 && k->serial && k->serial->baud > t.most_baud;
        if (!mates(*w.end, t) || kept_for_other || too_slow) c = forbidden;
        if (t.emulated) c += emulated;
        if (t.kind == TerminalKind::serial_inverting && w.end->kind == TerminalKind::serial && t.serves.empty())
          c += inverter_wasted;
        row.push_back(c);
      }
      cost.push_back(std::move(row));
    }
    if (!cost.empty() && !ports.empty()) {
      const auto got = cheapest_assignment(cost);
      for (std::size_t i = 0; i < wanting.size(); ++i) {
        const Wanting& w = wanting[i];
        if (got[i] >= 0) {
          const Terminal& t = *ports[static_cast<std::size_t>(got[i])];
          const char* why = w.end->kind == TerminalKind::inverted_serial
                                ? "it can invert its input, as this receiver needs"
                            : w.end->kind == TerminalKind::summed_output ? "it takes all channels on one wire"
                            : t.emulated ? "the hardware ports are taken: this one costs processor time"
                                         : "a free hardware port for the data pair";
          connect(w.part->id, w.end->id, "controller", t.id, why);
          continue;
        }
        no_port(*w.part, *w.end, ports);
      }
      return;
    }
    for (const Wanting& w : wanting) no_port(*w.part, *w.end, ports);
  }

  /// How far the lead has to go across the board, as a cost: metres from the socket to where the part lies.
  double way_cost(const Part& part, const Terminal& socket) const {
    const Place *board = plan_.rig.place("controller"), *there = plan_.rig.place(part.id);
    if (!board || !there || board->turn != Turn{}) {
      // Where nothing has a place yet: on the side on which its other lead ends, if it has one.
      constexpr double other_side = 0.1;
      const PartKind* k = catalogue_.part(part.kind);
      const bool on_bus = k && std::any_of(k->terminals.begin(), k->terminals.end(),
                                           [](const Terminal& t) { return t.kind == TerminalKind::two_wire; });
      for (const Terminal& t : controller_->ports)
        if (on_bus && t.kind == TerminalKind::two_wire && t.side != socket.side) return other_side;
      return 0;
    }
    const double ahead = (socket.y_mm - controller_->length_mm / 2) / 1000,
                 right = (socket.x_mm - controller_->width_mm / 2) / 1000;
    return std::hypot(there->x_m - board->x_m - ahead, there->y_m - board->y_m - right);
  }

  void no_port(const Part& part, const Terminal& end, const std::vector<const Terminal*>& ports) {
    const bool any_mate = std::any_of(ports.begin(), ports.end(), [&](const Terminal* t) { return mates(end, *t); });
    const std::string who = capital(name(part.id));
    const PartKind* kind = catalogue_.part(part.kind);
    const bool never = std::none_of(controller_->ports.begin(), controller_->ports.end(),
                                    [&](const Terminal& t) { return mates(end, t); });
    if (never && kind && kind->group == PartGroup::receiver) {
      // Another of its outlets may do.
      for (const Terminal& t : kind->terminals)
        if (std::any_of(controller_->ports.begin(), controller_->ports.end(),
                        [&](const Terminal& port) { return t.kind != end.kind && mates(t, port); }))
          return;
      obstacle(part.id,
               "No input of the " + controller_->name + " takes the " + spoken(word(end.kind)) + " signal of the " +
                   name(part.id) + ": it needs another receiver, or one that can be set to " + inputs_in_words(),
               end.kind == TerminalKind::inverted_serial ? "WIRING-04" : "WIRING-02");
      return;
    }
    if (!any_mate && end.kind == TerminalKind::inverted_serial)
      obstacle(part.id, who + " needs a port that inverts its input, and the " + controller_->name + " has none free",
               "WIRING-04");
    else if (!any_mate)
      obstacle(part.id,
               who + " needs a " + spoken(word(end.kind)) + " port, and the " + controller_->name + " has none free",
               end.kind == TerminalKind::serial ? "WIRING-05" : "WIRING-02");
    else
      obstacle(part.id, who + " finds no free port: more parts than ports, and a port does one job", "WIRING-01");
  }

  std::string inputs_in_words() const {
    std::string all;
    for (const std::string& i : controller_->inputs) all += (all.empty() ? "" : " or ") + i;
    return all;
  }

  void pulse_receivers() {
    const bool per_channel = std::any_of(controller_->ports.begin(), controller_->ports.end(), [](const Terminal& t) {
      return t.kind == TerminalKind::pulse_input && t.serves != "regulator";
    });
    if (!per_channel) {
      for (const Part* rx : parts_of(PartGroup::receiver))
        if (const PartKind* k = catalogue_.part(rx->kind);
            k && std::all_of(k->terminals.begin(), k->terminals.end(),
                             [](const Terminal& t) { return t.kind == TerminalKind::output; }))
          obstacle(rx->id,
                   "No input of the " + controller_->name + " takes the pulses per channel of the " + name(rx->id) +
                       ": it needs a receiver that gives " + inputs_in_words(),
                   "WIRING-02");
      return;
    }
    bool pulse_receiver = false;
    for (const Part* rx : parts_of(PartGroup::receiver))
      if (const PartKind* k = catalogue_.part(rx->kind)) {
        const bool summed = std::any_of(k->terminals.begin(), k->terminals.end(),
                                        [](const Terminal& t) { return t.kind != TerminalKind::output; });
        pulse_receiver = pulse_receiver || !summed;
      }
    if (!pulse_receiver) return;
    for (const Terminal& t : controller_->ports) {
      if (t.kind != TerminalKind::pulse_input) continue;
      const auto f = from_word<ChannelFunction>(t.serves);
      if (!f) continue;
      const auto axis = *f == ChannelFunction::roll    ? std::optional(Axis::roll)
                        : *f == ChannelFunction::pitch ? std::optional(Axis::pitch)
                        : *f == ChannelFunction::yaw   ? std::optional(Axis::yaw)
                                                       : std::nullopt;
      const bool wanted = !axis || std::any_of(rig().outputs.begin(), rig().outputs.end(),
                                               [&](const Output& o) { return o.mix.of(*axis) != 0; });
      const auto [rx, ch] = receiver_channel(*f);
      if (!wanted) continue;
      if (rx.empty()) {
        if (axis) obstacle("controller", "No receiver output carries " + t.serves + " to " + t.label, "WIRING-02");
        continue;
      }
      if (busy(rx, ch)) continue;
      connect(rx, ch, "controller", t.id, "channel for " + t.serves);
    }
  }

  // ── battery side ─────────────────────────────────────────────────────────────────────────────────────────────────
  void battery_side() {
    const auto batteries = parts_of(PartGroup::battery), modules = parts_of(PartGroup::power_module);
    if (batteries.empty()) return;
    std::string from = batteries.front()->id, outlet = "main";
    if (!modules.empty()) {
      const std::string module = modules.front()->id;
      connect(module, "battery", from, outlet, "it measures what the battery gives");
      const auto sense = std::find_if(controller_->ports.begin(), controller_->ports.end(),
                                      [](const Terminal& t) { return t.kind == TerminalKind::sense_input; });
      if (sense != controller_->ports.end())
        connect(module, "sense", "controller", sense->id,
                "the socket for measuring; in another one the voltage reads zero");
      else
        obstacle(module, "The " + controller_->name + " has no socket for a measuring lead", "WIRING-13");
      from = module;
      outlet = "esc";
    }
    // A distribution board splits it; without one several leads share the outlet.
    std::vector<std::string> outlets;
    for (const Part& p : rig().parts)
      if (const Terminal* in = terminal(p.id, "in");
          in && in->kind == TerminalKind::battery_in && terminal(p.id, "out_1")) {
        connect(p.id, "in", from, outlet, "splits the battery's lead");
        from = p.id;
        const PartKind* k = catalogue_.part(p.kind);
        for (const Terminal& t : k->terminals)
          if (t.kind == TerminalKind::battery_out) outlets.push_back(t.id);
        break;
      }
    std::size_t next = 0;
    const auto take = [&] { return outlets.empty() ? outlet : outlets[std::min(next++, outlets.size() - 1)]; };
    for (const Part* p : parts_of(PartGroup::speed_controller)) {
      if (is_fixed(p->id, "battery"))
        keep(p->id, "battery");
      else
        connect(p->id, "battery", from, take(), "drive current");
    }
    for (const Part* p : parts_of(PartGroup::regulator)) {
      if (is_fixed(p->id, "in"))
        keep(p->id, "in");
      else
        connect(p->id, "in", from, take(), "its inlet");
    }
    battery_outlet_ = {from, outlets.empty() ? outlet : outlets.back()};
  }

  void two_wire() {
    const auto bus = std::find_if(controller_->ports.begin(), controller_->ports.end(),
                                  [](const Terminal& t) { return t.kind == TerminalKind::two_wire; });
    for (const Part& p : std::vector<Part>(rig().parts)) {
      const PartKind* k = catalogue_.part(p.kind);
      if (!k) continue;
      for (const Terminal& t : k->terminals) {
        if (t.kind != TerminalKind::two_wire) continue;
        if (bus != controller_->ports.end())
          connect(p.id, t.id, "controller", bus->id, "clock and data, a bus that several parts share");
        else if (k->group == PartGroup::compass || k->group == PartGroup::airspeed)
          obstacle(p.id, capital(name(p.id)) + " needs a two-wire bus, and the " + controller_->name + " has none",
                   "WIRING-06");
      }
    }
  }

  void video_and_pads() {
    const auto pad = [&](TerminalKind kind) -> const Terminal* {
      for (const Terminal& t : controller_->pads)
        if (t.kind == kind && !busy("controller", t.id)) return &t;
      return nullptr;
    };
    // Keep what is on a pad already where it is: settle those first.
    const auto group_parts = [&](PartGroup g) {
      std::vector<std::string> ids;
      for (const Part* p : parts_of(g)) ids.push_back(p->id);
      return ids;
    };
    const auto cameras = group_parts(PartGroup::camera), transmitters = group_parts(PartGroup::video_transmitter);
    const auto place = [&](const std::string& part, const std::string& end, TerminalKind kind, const std::string& why) {
      if (is_fixed(part, end)) {
        keep(part, end);
        return true;
      }
      if (const LeadEnd* now = goes(part, end, "controller"))
        if (const Terminal* t = terminal("controller", now->socket);
            t && t->kind == kind && !busy("controller", t->id)) {
          connect(part, end, "controller", std::string(t->id), why);
          return true;
        }
      if (const Terminal* t = pad(kind)) {
        connect(part, end, "controller", t->id, why);
        return true;
      }
      return false;
    };
    for (std::size_t i = 0; i < cameras.size(); ++i) {
      if (!terminal(cameras[i], "video")) continue;
      if (!place(cameras[i], "video", TerminalKind::video_in, "the board writes its figures into the picture") &&
          i < transmitters.size())
        connect(cameras[i], "video", transmitters[i], "video", "picture straight to the transmitter");
    }
    for (const std::string& v : transmitters)
      if (terminal(v, "video") && !goes_settled(v, "video"))
        place(v, "video", TerminalKind::video_out, "picture with the board's figures");
    for (const std::string& b : group_parts(PartGroup::buzzer))
      if (!place(b, "pad", TerminalKind::switched, "the pad that switches a small load"))
        obstacle(b, "The " + controller_->name + " has no pad that switches a buzzer", "WIRING-12");

    // Power for whatever takes plus by its own lead.
    std::vector<std::pair<std::string, std::string>> takers;
    for (const Part& p : rig().parts) {
      const PartKind* k = catalogue_.part(p.kind);
      if (!k || k->group == PartGroup::other) continue;
      for (const Terminal& t : k->terminals)
        if (t.kind == TerminalKind::power_in) takers.emplace_back(p.id, t.id);
    }
    // Those that sit on a pad or regulator already go first, so that nothing pushes them off.
    std::stable_sort(takers.begin(), takers.end(), [&](const auto& a, const auto& b) {
      return (goes(a.first, a.second) != nullptr) > (goes(b.first, b.second) != nullptr);
    });
    for (const auto& [part, end] : takers) {
      const PartKind* k = kind_of(plan_.rig, catalogue_, part);
      if (is_fixed(part, end)) {
        keep(part, end);
        continue;
      }
      const Load* load = k->loads.empty() ? nullptr : &k->loads.front();
      if (const LeadEnd* now = goes(part, end); now && now->part != "controller" && terminal(now->part, now->socket)) {
        connect(part, end, std::string(now->part), std::string(now->socket), "it is fed from there already");
        continue;
      }
      if (load && load->least_v > 5.6) {
        if (battery_outlet_.first.empty())
          obstacle(part, capital(name(part)) + " needs battery voltage, and the rig has no battery", "POWER-13");
        else
          connect(part, end, battery_outlet_.first, battery_outlet_.second, "it needs battery voltage");
        continue;
      }
      if (place(part, end, TerminalKind::power, "a free power pad")) continue;
      if (!spare(part, end))
        obstacle(part,
                 capital(name(part)) +
                     " finds no power pad: a distribution board, a spliced lead or a second regulator is needed",
                 "WIRING-12");
    }
  }

  bool goes_settled(const std::string& part, const std::string& socket) const {
    return std::any_of(plan_.rig.leads.begin(), plan_.rig.leads.end(),
                       [&](const Lead& l) { return settled_.count(l.id) && far_end(l, part, socket); });
  }

  /// A spliced lead's free outlet, or a spare output socket, for plus and minus alone.
  bool spare(const std::string& part, const std::string& end) {
    for (const Part& p : rig().parts)
      if (const PartKind* k = catalogue_.part(p.kind); k && k->group == PartGroup::other)
        for (const Terminal& t : k->terminals)
          if (t.kind == TerminalKind::power && !busy(p.id, t.id)) {
            connect(part, end, p.id, std::string(t.id), "the spliced lead has an outlet free");
            return true;
          }
    for (const Terminal& t : controller_->outputs)
      if (!busy("controller", t.id) && t.serves.empty() &&
          std::none_of(rig().outputs.begin(), rig().outputs.end(), [&](const Output& o) { return o.socket == t.id; })) {
        connect(part, end, "controller", t.id, "a spare output socket gives plus and minus");
        return true;
      }
    return false;
  }

  void regulators() {
    for (const Part& p : std::vector<Part>(rig().parts))
      if (const PartKind* k = catalogue_.part(p.kind); k && k->group == PartGroup::other && terminal(p.id, "in") &&
                                                       terminal(p.id, "in")->kind == TerminalKind::power_in &&
                                                       !goes_settled(p.id, "in")) {
        for (const Terminal& t : controller_->pads)
          if (t.kind == TerminalKind::power && !busy("controller", t.id)) {
            connect(p.id, "in", "controller", t.id, "one pad feeds several");
            break;
          }
      }
    for (const Part* p : parts_of(PartGroup::regulator)) {
      const std::string id = p->id;
      if (is_fixed(id, "out")) {
        keep(id, "out");
        continue;
      }
      // One that feeds parts of its own by their leads needs no inlet on the board.
      if (std::any_of(plan_.rig.leads.begin(), plan_.rig.leads.end(), [&](const Lead& l) {
            const LeadEnd* far = far_end(l, id, "out");
            return far && far->part != "controller" && terminal(far->part, far->socket);
          }))
        continue;
      if (const LeadEnd* now = goes(id, "out");
          now && now->part == "controller" && terminal("controller", now->socket) && !busy("controller", now->socket)) {
        connect(id, "out", "controller", std::string(now->socket), "it is there already");
        continue;
      }
      const Terminal* inlet = nullptr;
      for (const Terminal& t : controller_->ports)
        if (t.serves == "regulator" && !busy("controller", t.id)) inlet = &t;
      for (const Terminal& t : controller_->outputs)
        if (!inlet && !busy("controller", t.id) && t.serves.empty() &&
            std::none_of(rig().outputs.begin(), rig().outputs.end(), [&](const Output& o) { return o.socket == t.id; }))
          inlet = &t;
      if (inlet)
        connect(id, "out", "controller", inlet->id, "a spare socket as the inlet of the servo rail");
      else
        obstacle(id, "No socket is free as the inlet of " + name(id), "WIRING-01");
    }
  }

  /// Small things that will want plus from a pad of this net; they are not laid yet.
  bool pads_wanted(const std::string& net) const {
    const bool pads = std::any_of(controller_->pads.begin(), controller_->pads.end(),
                                  [&](const Terminal& t) { return t.kind == TerminalKind::power && t.net == net; });
    return pads && std::any_of(plan_.rig.parts.begin(), plan_.rig.parts.end(), [&](const Part& p) {
             const PartKind* k = catalogue_.part(p.kind);
             return k && k->group != PartGroup::other && !k->loads.empty() && k->loads.front().least_v <= 5.6 &&
                    std::any_of(k->terminals.begin(), k->terminals.end(), [&](const Terminal& t) {
                      return t.kind == TerminalKind::power_in && !goes_settled(p.id, t.id);
                    });
           });
  }

  /// A net of the board that has consumers and no source gets a second lead of a regulator that has room for it.
  void feed_dark_rails() {
    std::set<std::string> tried;
    for (std::size_t round = 0; round < 4; ++round) {
      const Network net = network_of(rig(), catalogue_);
      const Solution lit = solve(net, SupplyState::battery, Effort::all_moving, 1, 0);
      const Rail* dark = nullptr;
      std::string board_net;
      double asked = 0;
      for (std::size_t q = 0; q < net.rails.size() && !dark; ++q) {
        if (lit.rails[q].live) continue;
        std::string here;
        for (const int node : net.rails[q].nodes)
          if (net.nodes[static_cast<std::size_t>(node)].part == "controller")
            here = net.nodes[static_cast<std::size_t>(node)].net;
        if (here.empty() || here == "usb" || tried.count(here)) continue;
        double most = 0;
        for (const Draw& d : net.draws)
          if (net.rail_of[static_cast<std::size_t>(d.node)] == static_cast<int>(q)) most += d.load.typical_a;
        if (most <= 0 && !pads_wanted(here)) continue;
        dark = &net.rails[q];
        board_net = here;
        asked = most;
      }
      if (!dark) return;
      tried.insert(board_net);
      // Where plus can enter: a pad, or a socket that nothing else needs.
      const Terminal* inlet = nullptr;
      for (const auto* list : {&controller_->pads, &controller_->outputs})
        for (const Terminal& t : *list)
          if (!inlet && t.net == board_net && !busy("controller", t.id) &&
              (t.kind == TerminalKind::power || (t.kind == TerminalKind::output && t.serves.empty())) &&
              std::none_of(rig().outputs.begin(), rig().outputs.end(),
                           [&](const Output& o) { return o.socket == t.id; }))
            inlet = &t;
      if (!inlet) continue;
      const Part* giver = nullptr;
      double most_room = asked;
      for (std::size_t q = 0; q < net.rails.size(); ++q)
        for (std::size_t k = 0; k < net.rails[q].sources.size(); ++k) {
          const Source& s = net.rails[q].sources[k];
          const PartKind* kind = kind_of(plan_.rig, catalogue_, s.part);
          if (!kind || kind->group != PartGroup::regulator || lit.rails[q].source != static_cast<int>(k)) continue;
          if (s.volts > 5.6 || s.amps - lit.rails[q].amps < most_room) continue;
          most_room = s.amps - lit.rails[q].amps;
          giver = plan_.rig.part(s.part);
        }
      // One that is not plugged in anywhere yet will do, too.
      for (const Part* p : parts_of(PartGroup::regulator))
        if (const PartKind* k = catalogue_.part(p->kind);
            !giver && !k->feeds.empty() && k->feeds.front().volts <= 5.6 && !goes_settled(p->id, "out"))
          giver = p;
      if (!giver) continue;
      connect(std::string(giver->id), "out", "controller", inlet->id,
              "a second lead: nothing else feeds the " + dark->name);
    }
  }

  void say_what_stays_dark() {
    if (parts_of(PartGroup::battery).empty()) return;
    const Network net = network_of(rig(), catalogue_);
    const Solution lit = solve(net, SupplyState::battery, Effort::idle, 1, 0);
    for (std::size_t q = 0; q < net.rails.size(); ++q) {
      if (lit.rails[q].live) continue;
      std::set<std::string> names;
      std::string first;
      double asked = 0;
      for (const Draw& d : net.draws)
        if (net.rail_of[static_cast<std::size_t>(d.node)] == static_cast<int>(q)) {
          names.insert(name(d.part));
          if (first.empty()) first = d.part;
          asked += d.load.most_a;
        }
      if (names.empty()) continue;
      std::string who;
      for (const std::string& n : names) who += (who.empty() ? "" : ", ") + n;
      const PartKind* fits = nullptr;
      for (const PartKind& k : catalogue_.parts)
        if (k.group == PartGroup::regulator && !k.feeds.empty() && k.feeds.front().kind == FeedKind::switching &&
            std::abs(k.feeds.front().volts - 5) < 0.3 && k.feeds.front().amps >= asked &&
            (!fits || k.feeds.front().amps < fits->feeds.front().amps))
          fits = &k;
      obstacle(first,
               capital(who) + (names.size() > 1 ? " stay" : " stays") + " dark: nothing feeds " +
                   (net.rails[q].nodes.size() > 1 ? "the " + net.rails[q].name : "it") + ". " +
                   (fits ? "Get a source for it (" + fits->name + "), grounds common" : "It needs a source of its own"),
               "POWER-14");
    }
  }

  /// One source a rail: the regulator, else the first speed controller, keeps its red wire.
  void red_wires() {
    const Network joined = network_of(rig(), catalogue_);
    for (const Rail& rail : joined.rails) {
      std::vector<const Source*> givers;
      for (const Source& s : rail.sources)
        if (s.kind == FeedKind::linear || s.kind == FeedKind::switching) givers.push_back(&s);
      if (givers.size() < 2) continue;
      const auto rank = [&](const Source* s) {
        const PartKind* k = kind_of(rig(), catalogue_, s->part);
        return k && k->group == PartGroup::regulator ? 0 : k && k->group == PartGroup::power_module ? 1 : 2;
      };
      std::stable_sort(givers.begin(), givers.end(),
                       [&](const Source* a, const Source* b) { return rank(a) < rank(b); });
      for (std::size_t i = 1; i < givers.size(); ++i)
        for (Lead& l : rig().leads)
          if (const LeadEnd* far = far_end(l, givers[i]->part); far && !l.fixed && !l.plus_removed) {
            const LeadEnd& near = far == &l.to ? l.from : l.to;
            const Terminal* t = terminal(near.part, near.socket);
            if (!t || joined.node(near.part, t->net) != givers[i]->node) continue;
            l.plus_removed = true;
            plan_.choices.push_back({givers[i]->part, near.socket, "red wire out",
                                     name(givers[0]->part) + " feeds this rail: one source a rail", true});
          }
    }
  }

  const Rig& before_;
  const Catalogue& catalogue_;
  const ControllerClass* controller_;
  Plan plan_;
  std::set<std::string> settled_;
  std::pair<std::string, std::string> battery_outlet_;
};

}  // namespace

Plan plan_wiring(const Rig& rig, const Catalogue& catalogue) { return Planner(rig, catalogue).take(); }

}  // namespace rigging
