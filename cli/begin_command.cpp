#include <filesystem>
#include <iostream>
#include <memory>

#include "airframe/kinds.h"
#include "base/data_folder.h"
#include "base/json.h"
#include "base/units.h"
#include "begin/begin.h"
#include "begin/what_next.h"
#include "command.h"
#include "language/typed.h"
#include "rig/rig_file.h"

namespace rigging::cli {
namespace {

struct Begin {
  std::string file, name, kind = "two_ailerons", motors = "one", controller = "full_controller", span, mass, drive,
                          receiver, parts;
  std::string propeller = "usual";
  bool bare = false, y_lead = false;
};

void begin(Session& session, const Begin& asked) {
  NewAircraft b;
  b.name = asked.name;
  const auto kind = from_name<AirframeKind>(asked.kind);
  if (!kind) return session.refuse({"--kind", "unknown word \"" + asked.kind + "\"", choice_of<AirframeKind>()});
  const auto motors = from_name<Motors>(asked.motors);
  if (!motors) return session.refuse({"--motors", "unknown word \"" + asked.motors + "\"", choice_of<Motors>()});
  b.kind = *kind;
  b.motors = *motors;
  const auto propeller = from_name<PropellerSide>(asked.propeller);
  if (!propeller)
    return session.refuse({"--propeller", "unknown word \"" + asked.propeller + "\"", choice_of<PropellerSide>()});
  b.propeller = *propeller;
  if (asked.y_lead && !can_join_ailerons(b.kind))
    return session.refuse({"--y-lead", "this kind has no pair of ailerons", "a kind with two ailerons"});
  b.ailerons_joined = asked.y_lead;
  b.controller = asked.controller;
  for (const auto& [text, unit, into] : {std::tuple{&asked.span, "m", &b.span_m}, {&asked.mass, "kg", &b.mass_kg}}) {
    if (text->empty()) continue;
    const auto value = typed_number(*text, unit);
    if (!value) return session.refuse(value.error());
    *into = *value;
  }
  const auto catalogue = load_catalogue(data_folder() / "catalogue");
  if (!catalogue) return session.refuse(catalogue.error());
  if (std::error_code unknown; std::filesystem::exists(asked.file, unknown))
    return session.refuse({asked.file, "exists already", "a new file name"});
  const auto airframe = airframe_of(b);
  if (!airframe) return session.refuse(airframe.error());
  std::vector<std::string> remarks;
  if (!asked.bare) {
    SaidDrive said = drive_in_words(*catalogue, asked.drive);
    remarks = said.remarks;
    b.others = std::move(said.others);
    const auto fitting = suggest_drives(*airframe, *catalogue, said.kinds, 1);
    b.drive = fitting.empty() ? said.kinds : fitting.front().kinds;
    b.servo = usual_servo(*airframe, *catalogue);
    if (asked.receiver.empty()) {
      b.receiver = usual_receiver(*catalogue, b.controller);
    } else {
      const auto found = find_kinds(*catalogue, asked.receiver);
      if (found.empty() || found.front().kind->group != PartGroup::receiver)
        return session.refuse(
            {"--receiver", "\"" + asked.receiver + "\" is no receiver that is known", "words of one"});
      b.receiver = found.front().kind->id;
    }
    for (SaidPart& part : parts_in_words(*catalogue, asked.parts)) {
      if (!part.remark.empty()) remarks.push_back(part.said + ": " + part.remark);
      b.others.push_back(std::move(part));
    }
  }
  auto edit = begin_rig(*catalogue, b);
  if (!edit) return session.refuse(edit.error());
  if (const auto ok = save_rig(edit->rig, asked.file); !ok) return session.refuse(ok.error());
  const auto next = what_next(edit->rig, *catalogue, review(edit->rig, *catalogue));
  if (session.json) {
    Json out{{"parts", edit->rig.parts.size()}, {"leads", edit->rig.leads.size()}, {"remarks", remarks}};
    out["guessed"] = edit->rig.airframe.guessed;
    for (const NextThing& n : next)
      out["next"].push_back({{"station", name_of(n.station)}, {"what", n.what}, {"why", n.why}});
    return session.print(out);
  }
  for (const std::string& r : remarks) std::cout << "Not quite: " << r << '\n';
  std::cout << edit->rig.parts.size() << " parts placed, " << edit->rig.leads.size() << " leads planned. Next:\n";
  for (const NextThing& n : next) std::cout << "  " << name_of(n.station) << ": " << n.what << '\n';
}

}  // namespace

void add_begin_command(CLI::App& app, Session& session) {
  auto asked = std::make_shared<Begin>();
  auto* command = app.add_subcommand("begin", "Write a new rig that is placed, fed and planned");
  command->add_option("FILE", asked->file, "Rig file to write")->required();
  command->add_option("--name", asked->name, "Name of the aircraft")->required();
  command->add_option("--kind", asked->kind, "Kind of airframe");
  command->add_option("--motors", asked->motors, "one, two or two_steering");
  command->add_option("--propeller", asked->propeller, "tractor, pusher, or as usual for the kind");
  command->add_flag("--y-lead", asked->y_lead, "Both ailerons hang on one output");
  command->add_option("--controller", asked->controller, "Controller class");
  command->add_option("--span", asked->span, "Span, in metres or with its unit: \"48 in\"");
  command->add_option("--mass", asked->mass, "Flying mass, in kilograms or with its unit");
  command->add_option("--drive", asked->drive,
                      "Motor, propeller, battery, speed controller in words; the rest is proposed");
  command->add_option("--receiver", asked->receiver, "In words; else one that the class hears");
  command->add_option("--with", asked->parts, "What else is on board, in words");
  command->add_flag("--bare", asked->bare, "No parts: sizes and outputs alone");
  add_json_flag(*command, session);
  command->callback([&session, asked] { begin(session, *asked); });
}

}  // namespace rigging::cli
