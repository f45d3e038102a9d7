#include <array>
#include <ctime>
#include <iostream>
#include <memory>
#include <sstream>

#include "base/file.h"
#include "command.h"
#include "opened.h"
#include "play/script.h"
#include "review/stations.h"
#include "rig/rig_file.h"
#include "signal/capture.h"

namespace rigging::cli {
namespace {

struct PlayOptions {
  std::string procedure, subject, script, into;
};

/// The script's lines; one that plays a capture becomes a line for each frame of it.
Result<std::vector<std::pair<std::string, std::string>>> script_lines(const std::string& file) {
  std::vector<std::pair<std::string, std::string>> lines;
  const auto content = read_file(file, 64u << 20);
  if (!content) return tl::make_unexpected(content.error());
  std::istringstream in(*content);
  int number = 0;
  for (std::string line; std::getline(in, line);) {
    const std::string where = file + ":" + std::to_string(++number);
    std::istringstream words(line);
    std::string first, name;
    words >> first >> name;
    if (first != "capture") {
      lines.emplace_back(line, where);
      continue;
    }
    const auto path = std::filesystem::path(file).parent_path() / name;
    const auto bytes = read_file(path, 1u << 30);
    if (!bytes) return tl::make_unexpected(bytes.error());
    const auto capture = read_capture(*bytes, path.string(), std::nullopt);
    if (!capture) return tl::make_unexpected(capture.error());
    if (!capture->timed) return failure(where, "the capture has no times", "a table that begins with t_us or t_s");
    for (const ChannelFrame& f : decode(*capture).frames) {
      std::ostringstream frame;
      frame << "frame";
      for (std::size_t i = 0; i < f.channels; ++i) frame << ' ' << f.pulse_us[i];
      frame << (f.lost ? " lost" : "") << (f.failsafe ? " failsafe" : "");
      lines.emplace_back("time " + std::to_string(f.t_us * 1e-6), where);
      lines.emplace_back(frame.str(), where);
    }
  }
  return lines;
}

std::string utc_now() {
  const std::time_t now = std::time(nullptr);
  std::tm utc{};
  gmtime_r(&now, &utc);
  std::array<char, 32> text{};
  std::strftime(text.data(), text.size(), "%Y-%m-%dT%H:%M:%SZ", &utc);
  return text.data();
}

void play(const Opened& o, const PlayOptions& options, Session& session) {
  const std::vector<ProcedureEntry> all = all_procedures();
  const auto entry =
      std::find_if(all.begin(), all.end(), [&](const ProcedureEntry& p) { return p.id == options.procedure; });
  if (entry == all.end())
    return session.refuse(
        {"play", "there is no procedure \"" + options.procedure + "\"", "one that `play --help` lists"});
  ProcedurePlayer player(o.rig, o.catalogue, *entry, utc_now());
  Json json{{"procedure", entry->id}, {"heard", Json::array()}};
  std::vector<std::pair<std::string, std::string>> lines;
  if (!options.subject.empty()) lines.emplace_back("choose " + options.subject, "the subject");
  if (!options.script.empty()) {
    auto script = script_lines(options.script);
    if (!script) return session.refuse(script.error());
    lines.insert(lines.end(), script->begin(), script->end());
  }
  if (!session.json) std::cout << card_text(player.card());
  for (const auto& [line, where] : lines) {
    const auto heard = player.play(line, where);
    if (!heard) return session.refuse(heard.error());
    if (session.json) {
      if (heard->card_changed || !heard->done.empty())
        json["heard"].push_back(
            {{"line", where}, {"event", line}, {"done", heard->done}, {"card", card_to_json(player.card())}});
      continue;
    }
    for (const std::string& done : heard->done) std::cout << "* " << done << '\n';
    if (heard->card_changed) std::cout << '\n' << card_text(player.card());
  }
  if (!options.into.empty())
    if (const auto ok = save_rig(player.rig(), options.into); !ok) return session.refuse(ok.error());
  if (!session.json) return;
  json["card"] = card_to_json(player.card());
  session.print(json);
}

std::string procedures() {
  std::string text = "A procedure and its subject:";
  for (const ProcedureEntry& p : all_procedures())
    text += "\n  " + p.id + (p.subject.empty() ? "" : " [" + p.subject + "]") + ": " + p.name;
  return text;
}

}  // namespace

void add_play_command(CLI::App& app, Session& session) {
  auto options = std::make_shared<PlayOptions>();
  auto* command = add_rig_command(app, session, "play", "Walk through a guided procedure from a script",
                                  [&session, options](const Opened& o) { play(o, *options, session); });
  command->add_option("PROCEDURE", options->procedure, procedures())->required();
  command->add_option("SUBJECT", options->subject, "What it is about");
  command->add_option("--script", options->script, "Events, one a line; the first card alone without it");
  command->add_option("--into", options->into, "Rig file to write with what was changed and recorded")->check(a_name());
}

}  // namespace rigging::cli
