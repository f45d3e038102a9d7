#pragma once

#include <functional>

#include "base/figure.h"
#include "catalogue/catalogue.h"
#include "command.h"
#include "reports/reports.h"
#include "rig/rig.h"

namespace rigging::cli {

/// A rig with the catalogue that goes with it: the shipped one and the user's own parts beside the file.
struct Opened {
  Rig rig;
  Catalogue catalogue;

  /// Of the rig, as it stands and as long as this does.
  Reports reports() const { return {rig, catalogue}; }
};

Result<Opened> open(const std::string& file);

Json figure_json(const Figure& figure);

/// A command that takes a rig file. `json`: it can answer in JSON.
CLI::App* add_rig_command(CLI::App& app, Session& session, const char* name, const char* help,
                          std::function<void(const Opened&)> action, bool json = true);

}  // namespace rigging::cli
