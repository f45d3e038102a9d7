#include "wiring/lead_checks.h"

#include "rig/path.h"

namespace rigging {

LeadCard lead_card(const Rig& rig, const Catalogue& catalogue, const Lead& l) {
  LeadCard card;
  card.lead = l.id;
  const auto end = [&](const LeadEnd& e) {
    const Terminal* t = terminal_of(rig, catalogue, e);
    return part_name(rig, catalogue, e.part) + " " + (t ? t->label : e.socket);
  };
  card.title = capital(end(l.from)) + " to " + end(l.to);
  const ControllerClass* c = catalogue.controller(rig.controller.kind);
  const bool at_board = far_end(l, "controller") != nullptr;
  const LeadEnd& board = l.from.part == "controller" ? l.from : l.to;
  const LeadEnd& other = l.from.part == "controller" ? l.to : l.from;
  if (at_board) card.socket = board.socket;
  card.before_power = "Battery and USB out. Follow the lead from end to end" +
                      std::string(at_board ? ": it sits in " + end(board) : "") + ".";
  switch (l.kind) {
    case LeadKind::servo:
    case LeadKind::y_lead:
      card.before_power += " Dark wire to minus" +
                           (at_board && c && !c->minus_edge.empty() ? " (" + c->minus_edge + ")" : std::string()) + ".";
      break;
    case LeadKind::power: card.before_power += " Plus to plus, minus to minus: measure it."; break;
    case LeadKind::four_way:
    case LeadKind::two_plus_two:
    case LeadKind::six_way: card.before_power += " Transmit goes to receive; plus and minus measured."; break;
    default: break;
  }
  card.before_power += l.plus_removed ? " Its red wire is out and isolated." : "";
  const PartKind* k = kind_of(rig, catalogue, other.part);
  const Part* part = rig.part(other.part);
  card.cautions = {"Propeller off before any power. Battery last in, first out."};
  const PartGroup group = k ? k->group : PartGroup::other;
  if (group == PartGroup::servo && part && !part->surface) {
    card.todo = "Battery in, the hook empty. Open the throttle and close it again.";
    card.expected = "The release lets go at full throttle and latches at closed, and nothing else moves.";
  } else if (at_board && group == PartGroup::servo) {
    card.evidence = LeadEvidence::surface_moves;
    const std::string surface = part ? part->surface->label() : "servo";
    card.todo = "Battery in. Move the stick of the " + surface + ", or drive its output alone.";
    card.expected = "The " + surface + " moves, and nothing else hangs on it.";
  } else if (at_board && group == PartGroup::receiver && c && !c->sticks.reads_channels) {
    card.todo = "Transmitter on, battery in. Move the sticks one after the other.";
    card.expected = "What this lead carries moves its surfaces, and no other.";
  } else if (at_board && (group == PartGroup::receiver || group == PartGroup::satellite_receiver ||
                          group == PartGroup::compass || group == PartGroup::airspeed)) {
    card.evidence = LeadEvidence::port_talks;
    card.todo = group == PartGroup::receiver ? "Transmitter on, battery in. Read the channels."
                                             : "Battery in. Read what the board hears on this port.";
    card.expected = "Data arrives.";
  } else if (at_board && group == PartGroup::power_module) {
    card.evidence = LeadEvidence::voltage_read;
    card.todo = "Battery in. Compare the voltage that the board reads with a meter.";
    card.expected = "Both agree; zero means the wrong socket.";
  } else if (group == PartGroup::camera || group == PartGroup::video_transmitter) {
    card.evidence = LeadEvidence::picture_shown;
    card.todo = "Antenna on the video transmitter first, air over it, then the battery.";
    card.expected = at_board ? "A picture, with the board's figures in it where they belong." : "A picture.";
  } else if (group == PartGroup::speed_controller || l.kind == LeadKind::phase) {
    card.todo = "Propeller off. Battery in, throttle closed: tones. Arm, open a little.";
    card.expected = "The motor turns the right way.";
  } else {
    card.todo = "Battery in.";
    card.expected = "What hangs on it lights up or moves.";
  }
  return card;
}

namespace {

std::vector<std::string> leads(const CheckContext& in) {
  std::vector<std::string> ids;
  for (const Lead& l : in.rig.leads) ids.push_back(l.id);
  return ids;
}

std::vector<std::string> places(const CheckContext& in, const std::string& id) {
  std::vector<std::string> all;
  for (const char* member : {"plus_removed", "plug_turned", "pair_turned"})
    all.push_back(path_of({"leads", id, member}));
  if (const Lead* l = in.rig.lead(id))
    for (const auto& [name, end] : {std::pair{"from", &l->from}, {"to", &l->to}}) {
      for (const char* member : {"part", "socket"}) all.push_back(path_of({"leads", id, name, member}));
      all.push_back(end->part == "controller" ? "controller/kind" : path_of({"parts", end->part, "kind"}));
    }
  return all;
}

CheckCard card(const CheckContext& in, const std::string& id) {
  const Lead* l = in.rig.lead(id);
  return l ? lead_card(in.rig, in.catalogue, *l) : LeadCard{};
}

}  // namespace

CheckFamily lead_checks() {
  return {.id = lead_family,
          .station = Station::wiring,
          .until_mounted = false,
          .by_station = true,
          .grouped = true,
          .one = "lead",
          .many = "leads",
          .subjects = leads,
          .depends_on = places,
          .card = card};
}

}  // namespace rigging
