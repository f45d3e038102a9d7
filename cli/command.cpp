#include "command.h"

#include <iostream>

#include "base/clean_text.h"
#include "base/json.h"
#include "base/number.h"

namespace rigging::cli {

void Session::refuse(const Error& error) {
  // What was given may be megabytes; where and what was expected stand at the ends.
  constexpr std::size_t most = 600;
  std::cerr << "rigging-cli: " << clean_text(error.text(), most) << '\n';
  status = not_understood;
}

void Session::print(const Json& value) const {
  std::cout << value.dump(2, ' ', false, Json::error_handler_t::replace) << '\n';
}

void add_json_flag(CLI::App& command, Session& session) {
  command.add_flag("--json", session.json, "Print JSON instead of text");
}

CLI::Validator a_name() {
  return {[](const std::string& text) { return text.empty() ? std::string("a name is expected") : std::string(); },
          "NAME"};
}

CLI::Validator number_in(double least, double most) {
  const std::string range = number_text(least, 3) + " to " + number_text(most, 3);
  return {[least, most, range](const std::string& text) {
            const auto v = number_of(text);
            return v && *v >= least && *v <= most ? std::string() : "\"" + text + "\" is no number from " + range;
          },
          range};
}

}  // namespace rigging::cli
