#include <exception>
#include <iostream>

#include "command.h"

int main(int argc, char** argv) {
  using namespace rigging::cli;
  Session session;
  CLI::App app{"Rigging on the command line"};
  app.require_subcommand(1);
  add_directions(app, session);
  add_rig_commands(app, session);
  add_plan_commands(app, session);
  add_stick_commands(app, session);
  add_surface_commands(app, session);
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
