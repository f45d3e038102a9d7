#include <iostream>
#include <memory>

#include "airframe/kinds.h"
#include "base/data_folder.h"
#include "base/file.h"
#include "base/json.h"
#include "base/number.h"
#include "catalogue/sockets.h"
#include "command.h"
#include "direction/direction_checks.h"
#include "direction/from_rig.h"
#include "direction/reason.h"
#include "link/image.h"
#include "opened.h"
#include "review/deferred.h"
#include "review/review.h"
#include "rig/differing.h"
#include "rig/rig_file.h"
#include "sheets/hand_card_sheet.h"

namespace rigging::cli {
namespace {

const char* mark(Severity s) { return s == Severity::grounds ? "[#]" : s == Severity::fix_first ? "[/]" : "( )"; }

void check(const Opened& o, Session& session) {
  Review r = review(o.rig, o.catalogue);
  Progress progress;
  if (const auto late = deferred_review({o.rig, o.catalogue}, progress)) r.snags = with_deferred(r.snags, late->snags);
  if (session.json) {
    session.print(review_to_json(o.rig, r));
  } else {
    std::cout << o.rig.name << ": " << r.readiness.words << '\n';
    for (const Snag& s : r.snags) {
      std::string why = s.why;
      std::replace(why.begin(), why.end(), '\n', ' ');
      std::cout << mark(s.severity) << ' ' << s.code << ' ' << s.what << ". " << why << " " << s.remedy << '\n';
    }
    for (const CheckStatus& c : r.checks)
      std::cout << "    " << c.title << ": " << name_of(c.state) << (c.changes.empty() ? "" : " (" + c.because() + ")")
                << '\n';
  }
  session.status = r.readiness.ready ? good : found_wrong;
}

void airframe(const Opened& o, Session& session) {
  const AirframeReport r = analyze_airframe(o.rig);
  if (session.json) {
    Json json{{"kind", name_of(o.rig.airframe.kind)},
              {"figures", Json::array()},
              {"surfaces", Json::array()},
              {"answers", Json::array()}};
    for (const Figure& f : r.figures()) json["figures"].push_back(figure_json(f));
    for (const SurfaceSize& s : r.surfaces)
      json["surfaces"].push_back({{"name", s.name},
                                  {"span_m", s.span_m},
                                  {"root_chord_m", s.root_chord_m},
                                  {"tip_chord_m", s.tip_chord_m},
                                  {"mean_chord_m", s.mean_chord_m},
                                  {"area_m2", s.area_m2},
                                  {"at_m", s.at_m},
                                  {"quarter_chord_m", s.quarter_m},
                                  {"lift_share", s.lift_share},
                                  {"guessed", s.guessed}});
    for (const AxisAnswer& a : r.answers)
      json["answers"].push_back({{"surface", a.surface.name()},
                                 {"axis", name_of(a.axis)},
                                 {"positive_command", motion_word(a.surface, a.direction)}});
    return session.print(json);
  }
  std::cout << facts_of(o.rig.airframe.kind).name << '\n';
  for (const SurfaceSize& s : r.surfaces)
    std::cout << "  " << capital(s.name) << ": span " << length_text(s.span_m) << ", chord "
              << length_text(s.root_chord_m) << " to " << length_text(s.tip_chord_m) << ", root " << length_text(s.at_m)
              << " behind the nose" << (s.guessed ? ", partly guessed" : "") << '\n';
  for (const Figure& f : r.figures()) {
    std::cout << "  " << f.name << ": " << figure_text(f) << "  = " << f.formula << '\n';
  }
}

void surfaces(const Opened& o, const Command& command, Session& session) {
  const SurfacesReport r = analyze_surfaces(o.rig);
  Json json{{"outputs", Json::array()}, {"surfaces", Json::array()}, {"saturated_share", r.saturated_share}};
  // Pulses are what the controller sends after sharing; asked and saturated are what was asked of it.
  const Command kept = shared(o.rig.outputs, command, o.rig.saturation);
  json["sharing"] = name_of(o.rig.saturation);
  for (const Output& out : o.rig.outputs) {
    OutputState s = mixed(out, command);
    s.pulse_us = mixed(out, kept).pulse_us;
    json["outputs"].push_back(
        {{"output", s.output}, {"asked", s.asked}, {"pulse_us", s.pulse_us}, {"saturated", s.saturated}});
    if (!session.json)
      std::cout << s.output << ": " << number_text(s.pulse_us, 1) << " µs" << (s.saturated ? ", saturated" : "")
                << '\n';
  }
  for (const SurfaceAnswer& a : r.answers) {
    json["surfaces"].push_back({{"surface", a.surface.name()},
                                {"output", a.output},
                                {"roll", a.share[0]},
                                {"pitch", a.share[1]},
                                {"yaw", a.share[2]},
                                {"worst_sum", a.worst_sum}});
    if (!session.json)
      std::cout << a.surface.label() << ": roll " << number_text(100 * a.share[0], 0) << " %, pitch "
                << number_text(100 * a.share[1], 0) << " %, yaw " << number_text(100 * a.share[2], 0) << " %\n";
  }
  if (session.json) session.print(json);
}

void compare(const Opened& a, const std::string& other, Session& session) {
  const auto b = open(other);
  if (!b) return session.refuse(b.error());
  const auto places = differing_members(a.rig, b->rig);
  if (session.json)
    session.print({{"differing", places}});
  else
    for (const Differing& d : differing_words(a.rig, b->rig))
      std::cout << d.place << ": " << d.a << " / " << d.b << '\n';
  session.status = places.empty() ? good : found_wrong;
}

void proof(const Opened& o, Session& session) {
  const CheckContext context(o.rig, o.catalogue);
  if (!context.controller)
    return session.refuse(
        {"controller/kind", "\"" + o.rig.controller.kind + "\" is not in the catalogue", "a known class"});
  Json json{{"checks", Json::array()}};
  for (const CheckStatus& s : check_statuses(o.rig, o.catalogue)) {
    const CheckCard card = card_of(context, s.id);
    Json line{{"check", s.id.text()},
              {"station", name_of(s.family->station)},
              {"state", name_of(s.state)},
              {"because", s.because()},
              {"before_power", card.before_power},
              {"todo", card.todo},
              {"how", card.how},
              {"should_show", card.expected},
              {"holds", s.holds},
              {"why_not", s.why_not},
              {"cautions", card.cautions}};
    if (is_direction(s.id)) {
      const DirectionCard directions = direction_card(context, s.id);
      Json expected = Json::object();
      for (const Expected& e : directions.looks) expected[e.surface.name()] = motion_word(e.surface, e.motion);
      line["expected"] = expected;
      line["mode"] = name_of(directions.observation.mode);
    }
    json["checks"].push_back(std::move(line));
    if (session.json) continue;
    std::cout << s.title << ": " << name_of(s.state) << "\n  ";
    if (!card.before_power.empty()) std::cout << card.before_power << "\n  ";
    std::cout << card.todo << "\n  Should show: " << card.expected << '\n';
    if (!card.how.empty()) std::cout << "  " << card.how << '\n';
  }
  if (session.json) session.print(json);
}

void hand_card_sheet(const Opened& o, const std::string& case_file, const std::string& into, Session& session) {
  const ControllerClass* controller = o.catalogue.controller(o.rig.controller.kind);
  if (!controller)
    return session.refuse(
        {"controller/kind", "\"" + o.rig.controller.kind + "\" is not in the catalogue", "a known class"});
  const auto json = read_json_file(case_file);
  if (!json) return session.refuse(json.error());
  // What was seen is read against this rig: outputs, abilities and looks come from it.
  const direction::Case of_rig = direction::case_from_rig(o.rig, *controller);
  Json whole = *json;
  if (!whole.is_object()) return session.refuse({case_file, "is not an object", "an object with \"observations\""});
  whole["outputs"] = Json::array();
  for (const auto& out : of_rig.outputs) {
    Json mix = Json::object(), names = Json::array();
    for (const Axis axis : all_axes)
      if (out.mix[static_cast<std::size_t>(index_of(axis))] != 0)
        mix[std::string(name_of(axis))] = out.mix[static_cast<std::size_t>(index_of(axis))];
    for (const Surface s : out.surfaces) names.push_back(s.name());
    whole["outputs"].push_back({{"id", out.id}, {"surfaces", names}, {"mix", mix}, {"reversed", out.reversed}});
  }
  auto c = direction::case_from_json(whole, case_file);
  if (!c) return session.refuse(c.error());
  c->can = of_rig.can;
  c->may_ask = of_rig.may_ask;
  const direction::Diagnosis answer = direction::reason(*c);
  if (!answer.settled || answer.explanations.empty()) {
    session.refuse({case_file, "what was seen does not settle what is wrong",
                    "observations as asked for by rigging-cli directions"});
    return;
  }
  int number = 0;
  for (const auto& fault : answer.explanations.front().faults) {
    const std::string path = into + "/hand-card-" + std::to_string(++number) + ".svg";
    const auto ok =
        write_file_atomically(path, hand_card_svg(hand_card(o.rig, *controller, fault, *c), o.rig, *controller, *c));
    if (!ok) return session.refuse(ok.error());
    std::cout << path << '\n';
  }
}

}  // namespace

void add_rig_commands(CLI::App& app, Session& session) {
  const auto with_rig = [&](const char* name, const char* help, std::function<void(const Opened&)> action,
                            bool json = true) {
    return add_rig_command(app, session, name, help, std::move(action), json);
  };
  with_rig("check", "Snags, proofs and readiness", [&session](const Opened& o) { check(o, session); });
  with_rig("airframe", "Areas, speeds and what answers what", [&session](const Opened& o) { airframe(o, session); });
  with_rig("proof", "The bench checks and what each should show", [&session](const Opened& o) { proof(o, session); });

  auto command = std::make_shared<Command>();
  auto* s = with_rig("surfaces", "Pulses and surfaces for a command",
                     [&session, command](const Opened& o) { surfaces(o, *command, session); });
  s->add_option("--roll", command->roll, "-1 left to 1 right")->check(number_in(-1.0, 1.0));
  s->add_option("--pitch", command->pitch, "-1 nose down to 1 nose up")->check(number_in(-1.0, 1.0));
  s->add_option("--yaw", command->yaw, "-1 left to 1 right")->check(number_in(-1.0, 1.0));
  s->add_option("--throttle", command->throttle, "0 closed to 1 full")->check(number_in(0.0, 1.0));
  s->add_option("--flap", command->flap, "0 to 1")->check(number_in(0.0, 1.0));

  auto other = std::make_shared<std::string>();
  auto* c =
      with_rig("compare", "Where two rigs differ", [&session, other](const Opened& o) { compare(o, *other, session); });
  c->add_option("OTHER", *other, "Another rig file")->required();

  auto seen = std::make_shared<std::string>(), into = std::make_shared<std::string>(".");
  auto* sheet = with_rig(
      "hand-card", "Cards for what hands must do, from what was seen",
      [&session, seen, into](const Opened& o) { hand_card_sheet(o, *seen, *into, session); }, false);
  sheet->add_option("CASE", *seen, "Observations, as for directions; outputs are taken from the rig")->required();
  sheet->add_option("--into", *into, "Folder for the SVG files")->check(a_name());

  auto* schema = app.add_subcommand("schema", "Print the JSON Schema of rig or parts files");
  auto schema_of = std::make_shared<std::string>();
  schema->add_option("WHAT", *schema_of, "rig or parts")->required();
  schema->callback([&session, schema_of] {
    if (*schema_of != "rig" && *schema_of != "parts")
      return session.refuse({"WHAT", "unknown file \"" + *schema_of + "\"", "rig or parts"});
    std::cout << (*schema_of == "rig" ? rig_schema() : parts_schema()).dump(1) << '\n';
  });

  struct New {
    std::string name, kind = "two_ailerons", controller = "full_controller", file;
  };
  auto fresh = std::make_shared<New>();
  auto* create = app.add_subcommand("new", "Write a new rig with the usual outputs of its kind");
  create->add_option("FILE", fresh->file, "Rig file to write")->required();
  create->add_option("--name", fresh->name, "Name of the aircraft")->required();
  create->add_option("--kind", fresh->kind, "Kind of airframe");
  create->add_option("--controller", fresh->controller, "Controller class");
  create->callback([&session, fresh] {
    const auto kind = from_name<AirframeKind>(fresh->kind);
    if (!kind) return session.refuse({"--kind", "unknown word \"" + fresh->kind + "\"", choice_of<AirframeKind>()});
    const auto catalogue = load_catalogue(data_folder() / "catalogue");
    if (!catalogue) return session.refuse(catalogue.error());
    const ControllerClass* controller = catalogue->controller(fresh->controller);
    if (!controller)
      return session.refuse({"--controller", "unknown class \"" + fresh->controller + "\"", "an id of the catalogue"});
    if (std::error_code unknown; std::filesystem::exists(fresh->file, unknown))
      return session.refuse({fresh->file, "exists already", "a new file name"});
    Rig rig = fresh_rig(fresh->name, *kind, fresh->controller);
    settle_in_sockets(rig, *controller);
    if (const auto ok = save_rig(rig, fresh->file); !ok) session.refuse(ok.error());
  });
}

}  // namespace rigging::cli
