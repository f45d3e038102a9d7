#include "command.h"

#include "base/json.h"

#include <iostream>

namespace rigging::cli {

void Session::refuse(const Error& error) {
  std::string line = error.text();
  for (char& c : line)
    if (static_cast<unsigned char>(c) < 0x20) c = ' ';
  std::cerr << "rigging-cli: " << line << '\n';
  status = not_understood;
}

void Session::print(const Json& value) const {
  std::cout << value.dump(2, ' ', false, Json::error_handler_t::replace) << '\n';
}

void add_json_flag(CLI::App& command, Session& session) {
  command.add_flag("--json", session.json, "Print JSON instead of text");
}

}  // namespace rigging::cli
