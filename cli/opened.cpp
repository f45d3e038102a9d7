#include "opened.h"

#include <memory>

#include "base/data_folder.h"
#include "base/file.h"
#include "base/json.h"
#include "proof/version_1.h"
#include "rig/rig_file.h"

namespace rigging::cli {

Result<Opened> open(const std::string& file) {
  auto catalogue = load_catalogue(data_folder() / "catalogue");
  if (!catalogue) return tl::make_unexpected(catalogue.error());
  std::error_code unknown;
  if (const auto own = own_parts_path(file); std::filesystem::exists(own, unknown))
    if (const auto ok = add_own_parts(*catalogue, own); !ok) return tl::make_unexpected(ok.error());
  auto rig = open_rig(file, *catalogue);
  if (!rig) {
    if (const auto left = interrupted_write(file))
      rig.error().expected += "; what an interrupted save was about to say stands whole in " + left->string();
    return tl::make_unexpected(rig.error());
  }
  return Opened{std::move(rig->rig), std::move(*catalogue)};
}

Json figure_json(const Figure& f) {
  Json json{{"name", f.name}, {"value", f.value}, {"unit", f.unit}, {"formula", f.formula}, {"source", f.source}};
  if (f.least) json["least"] = *f.least;
  if (f.most) json["most"] = *f.most;
  return json;
}

CLI::App* add_rig_command(CLI::App& app, Session& session, const char* name, const char* help,
                          std::function<void(const Opened&)> action, bool json) {
  auto* command = app.add_subcommand(name, help);
  auto file = std::make_shared<std::string>();
  command->add_option("RIG", *file, "Rig file")->required();
  if (json) add_json_flag(*command, session);
  command->callback([&session, file, action = std::move(action)] {
    const auto opened = open(*file);
    if (!opened) return session.refuse(opened.error());
    action(*opened);
  });
  return command;
}

}  // namespace rigging::cli
