#include <iostream>
#include <memory>

#include "base/json.h"
#include "command.h"
#include "direction/reason.h"

namespace rigging::cli {
namespace {

void print_text(const direction::Diagnosis& answer, const direction::Case& c) {
  if (answer.explanations.empty()) {
    std::cout << "No four or fewer permitted faults account for what was seen.\n";
    if (answer.contradictions.empty())
      std::cout << "Even with nothing seen the mix contradicts itself, and nothing that may be changed cures that.\n";
    else
      std::cout << "These can't be true together; look again:\n";
    for (const int i : answer.contradictions)
      std::cout << "  " << i << ": " << direction::observation_text(c.observations[static_cast<std::size_t>(i)], c)
                << '\n';
    return;
  }
  std::size_t shown = 0;
  for (const auto& e : answer.explanations) {
    if (++shown > 20) {
      std::cout << "… and " << answer.explanations.size() - 20 << " more\n";
      break;
    }
    std::cout << (answer.explanations.size() > 1 ? "- " : "") << direction::explanation_text(e, c) << '\n';
  }
  if (answer.equivalent) std::cout << "Nothing that can be looked at tells these apart: any one of them cures it.\n";
  if (answer.next) std::cout << "Look next: " << direction::observation_text(answer.next->observation, c) << ".\n";
}

}  // namespace

void add_directions(CLI::App& app, Session& session) {
  auto* command = app.add_subcommand("directions", "From what was seen to what is wrong");
  auto file = std::make_shared<std::string>();
  command->add_option("CASE", *file, "Case file (docs/command-line.md)")->required();
  add_json_flag(*command, session);
  command->callback([&session, file] {
    const auto json = read_json_file(*file);
    const auto c = json.and_then([&](const Json& j) { return direction::case_from_json(j, *file); });
    if (!c) return session.refuse(c.error());
    const direction::Diagnosis answer = direction::reason(*c);
    if (session.json)
      session.print(direction::answer_to_json(answer, *c));
    else
      print_text(answer, *c);
  });
}

}  // namespace rigging::cli
