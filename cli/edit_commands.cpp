#include <iostream>
#include <memory>

#include "command.h"
#include "edit/edit.h"
#include "opened.h"
#include "review/stations.h"
#include "rig/differing.h"
#include "rig/rig_file.h"

namespace rigging::cli {
namespace {

std::string usage() {
  std::string text = "An edit and its words:";
  for (const EditEntry& e : all_edits()) {
    text += "\n  " + e.name;
    for (const std::string& a : e.arguments) text += " " + a;
    text += ": " + e.help;
  }
  return text;
}

}  // namespace

void add_edit_command(CLI::App& app, Session& session) {
  struct Asked {
    std::string into, name;
    std::vector<std::string> words;
  };
  auto asked = std::make_shared<Asked>();
  auto* command =
      add_rig_command(app, session, "edit", "Change a rig as the screens do", [&session, asked](const Opened& o) {
        for (const EditEntry& e : all_edits()) {
          if (e.name != asked->name) continue;
          if (asked->words.size() != e.arguments.size()) {
            std::string expected = e.arguments.empty() ? "no words behind it" : "";
            for (const std::string& a : e.arguments) expected += (expected.empty() ? "" : " ") + a;
            return session.refuse(
                {"edit " + e.name, "has " + std::to_string(asked->words.size()) + " words", expected});
          }
          const auto made = e.apply(o.rig, o.catalogue, asked->words);
          if (!made) return session.refuse(made.error());
          if (const auto ok = can_be_kept(made->rig); !ok) return session.refuse(ok.error());
          if (!asked->into.empty())
            if (const auto ok = save_rig(made->rig, asked->into); !ok) return session.refuse(ok.error());
          if (session.json)
            return session.print(
                {{"edit", e.name}, {"label", made->label}, {"differing", differing_members(o.rig, made->rig)}});
          std::cout << made->label << '\n';
          return;
        }
        session.refuse({"edit", "there is no edit \"" + asked->name + "\"", "one that `edit --help` lists"});
      });
  command->add_option("EDIT", asked->name, usage())->required();
  command->add_option("WORDS", asked->words, "Its words");
  command->add_option("--into", asked->into, "Rig file to write; without it nothing is written")->check(a_name());
}

}  // namespace rigging::cli
