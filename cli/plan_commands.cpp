#include <iostream>
#include <memory>

#include "base/file.h"
#include "base/json.h"
#include "base/number.h"
#include "base/units.h"
#include "begin/class_choice.h"
#include "command.h"
#include "fit/fit.h"
#include "opened.h"
#include "pdf.h"
#include "power/power.h"
#include "review/review.h"
#include "rig/rig_file.h"
#include "sheets/gauge_sheets.h"
#include "sheets/setting_card.h"
#include "sheets/wiring_sheets.h"
#include "wiring/plan.h"
#include "wiring/routing.h"

namespace rigging::cli {
namespace {

void optional_figure(Json& json, const char* key, const std::optional<Figure>& f) {
  if (f) json[key] = figure_json(*f);
}

Json efforts_json(const std::array<double, 5>& amps) {
  Json json = Json::object();
  for (const auto& [effort, name] : Names<LoadCase>::list)
    json[std::string(name) + "_a"] = amps[static_cast<std::size_t>(effort)];
  return json;
}

void classes(const Opened& o, Session& session) {
  const auto all = class_choices(o.rig, o.catalogue);
  if (session.json) {
    Json json = Json::array();
    for (const ClassChoice& c : all)
      json.push_back({{"id", c.id},
                      {"name", c.name},
                      {"now", c.now},
                      {"drives", c.drives},
                      {"fits", c.fits},
                      {"surfaces", c.surfaces},
                      {"room", c.room},
                      {"senses", c.senses},
                      {"lost", c.lost},
                      {"work", c.work}});
    return session.print({{"classes", json}});
  }
  for (const ClassChoice& c : all) {
    std::cout << c.name << (c.now ? " (now)" : "") << "\n  surfaces: " << c.surfaces << "\n  room: " << c.room
              << "\n  senses: " << c.senses << '\n';
    for (const std::string& l : c.lost) std::cout << "  lost: " << l << '\n';
    for (const std::string& w : c.work) std::cout << "  work: " << w << '\n';
  }
}

void routing(const Opened& o, Session& session) {
  const Routing r = routing_of(o.rig, o.catalogue);
  if (session.json) {
    Json lines = Json::array();
    for (const RouteLine& l : r.lines)
      lines.push_back({{"output", l.output},
                       {"socket", l.socket},
                       {"label", l.label},
                       {"what", l.what},
                       {"channel", l.channel > 0 ? Json(l.channel) : Json()},
                       {"extra", l.extra}});
    return session.print({{"lines", lines},
                          {"clashes", r.clashes},
                          {"freed_channel", r.freed > 0 ? Json(r.freed) : Json()},
                          {"roll_percent", r.roll_percent ? Json(*r.roll_percent) : Json()}});
  }
  if (r.lines.empty()) std::cout << "This class routes nothing: every socket has its function.\n";
  for (const RouteLine& l : r.lines)
    std::cout << "  " << l.label << " <- channel " << (l.channel > 0 ? std::to_string(l.channel) : "?") << ": "
              << l.what << " (" << l.words << ")\n";
  for (const std::string& clash : r.clashes) std::cout << clash << '\n';
  if (!r.freed_words.empty()) std::cout << r.freed_words << '\n';
  if (r.roll_percent)
    std::cout << "Tail halves: " << number_text(*r.roll_percent, 0) << " % of the aileron throw for roll.\n";
}

void power(const Opened& o, const WhatIf& what_if, Session& session) {
  for (const auto* list : {&what_if.stalled, &what_if.without})
    for (const std::string& part : *list)
      if (!o.rig.part(part))
        return session.refuse({"--stall or --without", "\"" + part + "\" is no part of this rig", "the id of a part"});
  const PowerReport r = analyze_power(o.rig, o.catalogue, what_if);
  if (!session.json) {
    for (const SourceReport& s : r.sources)
      std::cout << capital(s.name) << (s.battery ? "" : " on the " + s.rail) << ": " << s.verdict << '\n';
    for (const Figure& f : r.figures())
      std::cout << "  " << f.name << ": " << figure_text(f) << "  = " << f.formula << '\n';
    for (const std::string& e : r.explanations) std::cout << "  " << e << '\n';
    if (r.advice) std::cout << r.advice->words << '\n';
    return;
  }
  Json json{{"rails", Json::array()},
            {"sources", Json::array()},
            {"consumers", Json::array()},
            {"explanations", r.explanations}};
  for (std::size_t q = 0; q < r.network.rails.size(); ++q) {
    const Rail& rail = r.network.rails[q];
    Json parts = Json::array(), states = Json::object();
    for (const int n : rail.nodes)
      parts.push_back(r.network.nodes[static_cast<std::size_t>(n)].part + "." +
                      r.network.nodes[static_cast<std::size_t>(n)].net);
    for (const auto& [state, name] : Names<SupplyState>::list) {
      const RailState& s = r.states[static_cast<std::size_t>(state)][q];
      states[std::string(name)] = {
          {"live", s.live},
          {"fed_by", s.source < 0 ? Json() : Json(rail.sources[static_cast<std::size_t>(s.source)].part)},
          {"volts", s.volts}};
    }
    json["rails"].push_back({{"name", rail.name}, {"joins", parts}, {"states", states}});
  }
  for (const SourceReport& s : r.sources) {
    Json j{{"part", s.part},         {"rail", s.rail},         {"kind", s.battery ? "battery" : name_of(s.kind)},
           {"supplies", s.supplies}, {"rating_a", s.rating_a}, {"amps", efforts_json(s.amps)},
           {"verdict", s.verdict}};
    if (s.lowest_in_v)
      j["inlet_v"] = {
          {"lowest", *s.lowest_in_v}, {"highest", *s.highest_in_v}, {"least", s.least_in_v}, {"most", s.most_in_v}};
    optional_figure(j, "heat", s.heat);
    optional_figure(j, "junction", s.junction);
    optional_figure(j, "junction_burst", s.junction_burst);
    optional_figure(j, "heat_flown", s.heat_flown);
    optional_figure(j, "junction_flown", s.junction_flown);
    if (s.battery) j["fresh_a"] = s.fresh_a;
    if (s.starting_a > 0) j["starting_a"] = s.starting_a;
    json["sources"].push_back(std::move(j));
  }
  for (const ConsumerReport& c : r.consumers) {
    Json powered = Json::object();
    for (const auto& [state, name] : Names<SupplyState>::list)
      powered[std::string(name)] = c.powered[static_cast<std::size_t>(state)];
    json["consumers"].push_back({{"part", c.part},
                                 {"rail", c.rail},
                                 {"idle_a", c.idle_a},
                                 {"typical_a", c.typical_a},
                                 {"most_a", c.most_a},
                                 {"least_v", c.least_v},
                                 {"most_v", c.most_v},
                                 {"worst_v", c.worst_v},
                                 {"rest_v", c.rest_v},
                                 {"lit", powered}});
  }
  optional_figure(json, "controller_least", r.controller_least);
  optional_figure(json, "brown_out_margin", r.brown_out_margin);
  optional_figure(json, "battery_full", r.battery_full);
  optional_figure(json, "battery_empty", r.battery_empty);
  optional_figure(json, "sag", r.sag);
  optional_figure(json, "endurance", r.endurance);
  optional_figure(json, "servos_held", r.servos_held);
  if (r.drive) {
    json["drive"] = {{"static_current", figure_json(r.drive->static_current)},
                     {"full_current", figure_json(r.drive->full_current)},
                     {"thrust", figure_json(r.drive->thrust)},
                     {"cruise_current", figure_json(r.drive->cruise_current)}};
    optional_figure(json["drive"], "thrust_to_weight", r.drive->thrust_to_weight);
  }
  if (r.advice)
    json["advice"] = {{"overloaded", r.advice->overloaded},
                      {"move", r.advice->move},
                      {"regulator", r.advice->regulator_kind},
                      {"text", r.advice->words}};
  session.print(json);
}

Json advice_json(const BalanceAdvice& a) {
  Json j{{"text", a.words}};
  if (a.battery_to_m) j["battery_to_m"] = *a.battery_to_m;
  if (a.weight_kg) {
    j["weight_kg"] = *a.weight_kg;
    j["weight_at_m"] = a.weight_at_m;
  }
  return j;
}

void fit(const Opened& o, Session& session) {
  const FitReport r = analyze_fit(o.rig, o.catalogue, analyze_airframe(o.rig), analyze_power(o.rig, o.catalogue));
  const Balance& b = r.balance;
  if (!session.json) {
    for (const Figure& f : r.figures()) std::cout << f.name << ": " << figure_text(f) << "  = " << f.formula << '\n';
    std::cout << "Allowed " << length_text(b.band_front_m) << " to " << length_text(b.band_back_m) << " behind the nose"
              << (b.complete ? "" : " (something has no mass or place yet)") << '\n';
    std::cout << "To the wanted point: " << b.to_wanted.words << "\nFor the first flight: " << b.to_first_flight.words
              << '\n';
    if (!b.lateral_advice.empty()) std::cout << b.lateral_advice << '\n';
    for (const CompassReport& c : r.compasses)
      for (const CompassPath& p : c.paths)
        std::cout << "  " << p.path.name << ": " << number_text(p.path.amps, 1) << " A at " << length_text(p.distance_m)
                  << ", " << number_text(p.error_deg, 2) << "°; keep " << length_text(p.least_distance_m) << '\n';
    for (const Clash& s : r.clashes) std::cout << s.words << '\n';
    for (const ToGet& t : r.to_get) std::cout << "  " << t.count << " × " << t.what << " (" << t.why << ")\n";
    return;
  }
  Json json{{"mass_kg", b.total.value},
            {"balance_m", b.balance_point.value},
            {"lateral_m", b.lateral.value},
            {"wanted_m", b.wanted.value},
            {"first_flight_m", b.first_flight.value},
            {"band_front_m", b.band_front_m},
            {"band_back_m", b.band_back_m},
            {"static_margin_percent", b.static_margin.value},
            {"complete", b.complete},
            {"to_wanted", advice_json(b.to_wanted)},
            {"to_first_flight", advice_json(b.to_first_flight)},
            {"lateral_advice", b.lateral_advice}};
  for (const char* list : {"items", "figures", "compasses", "clashes", "to_get", "confirm"}) json[list] = Json::array();
  for (const MassItem& i : b.items)
    json["items"].push_back({{"part", i.part},
                             {"name", i.name},
                             {"mass_kg", i.mass_kg},
                             {"behind_nose_m", -i.at.x()},
                             {"right_m", i.at.y()},
                             {"down_m", i.at.z()},
                             {"placed", i.placed},
                             {"weighed", i.weighed}});
  for (const Figure& f : r.figures()) json["figures"].push_back(figure_json(f));
  json["board"] = {{"turn", r.board.turn.name()},
                   {"matrix",
                    [&] {
                      Json rows = Json::array();
                      for (const auto row : r.board.matrix.rowwise()) rows.push_back({row[0], row[1], row[2]});
                      return rows;
                    }()},
                   {"told", r.board.told},
                   {"can_be_told", r.board.can_be_told}};
  for (const CompassReport& c : r.compasses) {
    Json paths = Json::array();
    for (const CompassPath& p : c.paths)
      paths.push_back({{"lead", p.path.lead},
                       {"name", p.path.name},
                       {"amps", p.path.amps},
                       {"spacing_m", p.path.spacing_m},
                       {"distance_m", p.distance_m},
                       {"field_ut", p.field_ut},
                       {"error_deg", p.error_deg},
                       {"least_distance_m", p.least_distance_m}});
    json["compasses"].push_back(
        {{"part", c.part}, {"horizontal_ut", c.horizontal.value}, {"error_deg", c.error.value}, {"leads", paths}});
  }
  for (const Clash& s : r.clashes) json["clashes"].push_back({{"part", s.part}, {"other", s.other}, {"text", s.words}});
  for (const ToGet& t : r.to_get) json["to_get"].push_back({{"what", t.what}, {"count", t.count}, {"why", t.why}});
  for (const Confirmation& c : confirmations(o.rig, o.catalogue)) {
    const auto& ticks = o.rig.fit.confirmed;
    json["confirm"].push_back({{"word", c.word},
                               {"text", c.text},
                               {"confirmed", std::find(ticks.begin(), ticks.end(), c.word) != ticks.end()}});
  }
  session.print(json);
}

Json loom_json(const WiringReport& r) {
  Json harness = Json::array();
  for (const HarnessRow& row : r.harness)
    harness.push_back({{"lead", row.lead},
                       {"from", row.from},
                       {"from_socket", row.from_socket},
                       {"to", row.to},
                       {"to_socket", row.to_socket},
                       {"kind", name_of(row.kind)},
                       {"length_m", row.length_m},
                       {"awg", row.awg},
                       {"remarks", row.remarks}});
  return harness;
}

void wiring(const Opened& o, Session& session) {
  const WiringReport r = analyze_wiring(o.rig, o.catalogue);
  if (!session.json) {
    for (const HarnessRow& row : r.harness)
      std::cout << row.lead << ": " << row.from << " " << row.from_socket << " to " << row.to << " " << row.to_socket
                << ", " << label_of(name_of(row.kind)) << ", " << length_text(row.length_m) << ", "
                << number_text(row.awg, 0) << " AWG" << (row.remarks.empty() ? "" : ", " + row.remarks) << '\n';
    return;
  }
  Json groups = Json::array();
  for (const TimerGroup& g : r.groups)
    groups.push_back(
        {{"group", g.group}, {"outputs", g.outputs}, {"rates_hz", g.rates_hz}, {"motor", g.motor}, {"servo", g.servo}});
  session.print({{"loom", loom_json(r)},
                 {"timer_groups", groups},
                 {"power_pads", r.power_pads},
                 {"power_pads_needed", r.power_pads_needed},
                 {"ground_pads", r.ground_pads},
                 {"ground_pads_needed", r.ground_pads_needed},
                 {"free_ports", r.free_ports},
                 {"free_outputs", r.free_outputs}});
}

void plan(const Opened& o, const std::string& into, Session& session) {
  const Plan p = plan_wiring(o.rig, o.catalogue);
  if (!into.empty())
    if (const auto ok = save_rig(p.rig, into); !ok) return session.refuse(ok.error());
  if (session.json) {
    Json json{{"complete", p.obstacles.empty()}, {"changes", p.changes},
              {"choices", Json::array()},        {"obstacles", Json::array()},
              {"outputs", Json::array()},        {"loom", loom_json(analyze_wiring(p.rig, o.catalogue))}};
    for (const Choice& c : p.choices)
      json["choices"].push_back(
          {{"subject", c.subject}, {"end", c.end}, {"goes_to", c.goes_to}, {"why", c.why}, {"changed", c.changed}});
    for (const Obstacle& b : p.obstacles)
      json["obstacles"].push_back({{"subject", b.subject}, {"what", b.what}, {"code", b.code}});
    for (const Output& out : p.rig.outputs) json["outputs"].push_back({{"output", out.id}, {"socket", out.socket}});
    session.print(json);
  } else {
    for (const Choice& c : p.choices)
      std::cout << (c.changed ? "* " : "  ") << c.subject << (c.end.empty() ? "" : " " + c.end) << " → " << c.goes_to
                << ": " << c.why << '\n';
    for (const Obstacle& b : p.obstacles) std::cout << "! " << b.code << ' ' << b.what << '\n';
  }
  session.status = p.obstacles.empty() ? good : found_wrong;
}

void sheet(const Opened& o, const std::string& what, const std::string& into, Session& session) {
  std::vector<std::string> pages;
  if (what == "plug-list")
    pages = plug_list_svg(o.rig, o.catalogue);
  else if (what == "wiring")
    pages = {wiring_drawing_svg(o.rig, o.catalogue)};
  else if (what == "gauges")
    pages = gauge_sheets_svg({o.rig, o.catalogue});
  else if (what == "settings")
    pages = setting_card_svg(o.rig, o.catalogue);
  else
    return session.refuse({"SHEET", "unknown sheet \"" + what + "\"", "plug-list, wiring, gauges or settings"});
  if (into.ends_with(".pdf")) {
    if (const auto ok = write_pdf(pages, into); !ok) return session.refuse(ok.error());
  } else if (into.ends_with(".svg")) {
    for (std::size_t i = 0; i < pages.size(); ++i) {
      // Several pages are several files: name-1.svg, name-2.svg.
      const std::string name =
          pages.size() == 1 ? into : into.substr(0, into.size() - 4) + "-" + std::to_string(i + 1) + ".svg";
      if (const auto ok = write_file_atomically(name, pages[i]); !ok) return session.refuse(ok.error());
      if (pages.size() > 1) std::cout << name << '\n';
    }
    if (pages.size() > 1) return;
  } else {
    return session.refuse({"--into", "\"" + into + "\" is neither SVG nor PDF", "a name that ends in .svg or .pdf"});
  }
  std::cout << into << '\n';
}

}  // namespace

void add_plan_commands(CLI::App& app, Session& session) {
  auto what_if = std::make_shared<WhatIf>();
  auto* p = add_rig_command(app, session, "power", "Rails, budget, heat, brown-out, endurance and drive train",
                            [&session, what_if](const Opened& o) { power(o, *what_if, session); });
  p->add_option("--stall", what_if->stalled, "These servos are stalled, in place of the greediest");
  p->add_option("--without", what_if->without, "These parts are taken out");
  p->add_option("--more-cells", what_if->more_cells, "Cells more (or fewer) in the battery")
      ->check(CLI::Range(-10, 10));
  add_rig_command(app, session, "classes", "Classes of controllers side by side, for this aircraft",
                  [&session](const Opened& o) { classes(o, session); });
  add_rig_command(app, session, "routing", "Which channel each socket carries, where that is told in a menu",
                  [&session](const Opened& o) { routing(o, session); });
  add_rig_command(app, session, "fit", "Mass, balance, board position and compass clearance",
                  [&session](const Opened& o) { fit(o, session); });
  add_rig_command(app, session, "wiring", "The loom, timer groups, pads and what is free",
                  [&session](const Opened& o) { wiring(o, session); });
  auto into = std::make_shared<std::string>();
  auto* plan_command = add_rig_command(app, session, "plan", "Where every lead goes, and why",
                                       [&session, into](const Opened& o) { plan(o, *into, session); });
  plan_command->add_option("--into", *into, "Rig file to write with the plan carried out")->check(a_name());
  auto what = std::make_shared<std::string>(), file = std::make_shared<std::string>();
  auto* s = add_rig_command(
      app, session, "sheet", "Print sheets: plug-list, wiring, gauges or settings, as SVG or PDF",
      [&session, what, file](const Opened& o) { sheet(o, *what, *file, session); }, false);
  s->add_option("SHEET", *what, "plug-list, wiring, gauges or settings")->required();
  s->add_option("--into", *file, "File to write, .svg or .pdf")->required()->check(a_name());
}

}  // namespace rigging::cli
