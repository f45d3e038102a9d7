#pragma once

#include <CLI/CLI.hpp>

#include "base/json.h"
#include "base/units.h"

namespace rigging::cli {

enum ExitStatus { good = 0, found_wrong = 1, not_understood = 2, internal_fault = 3 };

/// What all commands share. A command's callback sets `status`.
struct Session {
  bool json = false;
  std::string units = "metric";
  int status = good;

  /// Prints the error on one line of standard error and sets the status.
  void refuse(const Error& error);
  void print(const Json& json) const;
};

/// Text that is not empty: a file that is to be written has a name.
CLI::Validator a_name();
/// A number within these, both included; "nan" is none.
CLI::Validator number_in(double least, double most);
void add_json_flag(CLI::App& command, Session& session);
void add_ask_commands(CLI::App& app, Session& session);
void add_begin_command(CLI::App& app, Session& session);
void add_directions(CLI::App& app, Session& session);
void add_declination(CLI::App& app, Session& session);
void add_feel_commands(CLI::App& app, Session& session);
void add_home_commands(CLI::App& app, Session& session);
void add_edit_command(CLI::App& app, Session& session);
void add_play_command(CLI::App& app, Session& session);
void add_rig_commands(CLI::App& app, Session& session);
void add_plan_commands(CLI::App& app, Session& session);
void add_sense_commands(CLI::App& app, Session& session);
void add_stick_commands(CLI::App& app, Session& session);
void add_surface_commands(CLI::App& app, Session& session);

}  // namespace rigging::cli
