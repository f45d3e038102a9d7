#include <exception>
#include <iostream>

#include "run.h"

#include "command.h"
#include "printable.h"

namespace rigging::cli {

int run(int argc, const char* const* argv) {
  const Printable out(std::cout), errors(std::cerr);
  Session session;
  CLI::App app{"Rigging on the command line"};
  app.set_version_flag("--version", RIGGING_VERSION);
  app.require_subcommand(1);
  app.add_option("--units", session.units,
                 "metric or imperial: how numbers are said in sentences; those of JSON are always SI")
      ->check(CLI::IsMember({"metric", "imperial"}))
      ->each([](const std::string& units) {
        set_unit_system(units == "imperial" ? UnitSystem::imperial : UnitSystem::metric);
      });
  add_directions(app, session);
  add_rig_commands(app, session);
  add_begin_command(app, session);
  add_edit_command(app, session);
  add_ask_commands(app, session);
  add_play_command(app, session);
  add_plan_commands(app, session);
  add_stick_commands(app, session);
  add_surface_commands(app, session);
  add_sense_commands(app, session);
  add_feel_commands(app, session);
  add_home_commands(app, session);
  add_declination(app, session);
  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& error) {
    if (error.get_exit_code() == 0) return app.exit(error);
    std::cerr << "rigging-cli: " << error.what() << '\n';
    return not_understood;
  } catch (const std::exception& error) {
    std::cerr << "rigging-cli: internal fault: " << error.what() << '\n';
    return internal_fault;
  }
  return session.status;
}

}  // namespace rigging::cli
