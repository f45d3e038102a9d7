#include "shell/preferences.h"

#include <QDir>
#include <algorithm>
#include <cmath>

#include "base/file.h"
#include "base/json.h"
#include "look/literals.h"

namespace rigging::app {
namespace {

std::filesystem::path file_in(const QString& folder) { return (folder + u"/preferences.json"_s).toStdString(); }

}  // namespace

Preferences read_preferences(const QString& folder) {
  Preferences p;
  const auto text = read_file(file_in(folder));
  if (!text) return p;
  const Json json = Json::parse(*text, nullptr, false);
  if (!json.is_object()) return p;
  const auto word = [&](const char* name) {
    const auto it = json.find(name);
    return it != json.end() && it->is_string() ? it->get<std::string>() : std::string();
  };
  p.theme = word("theme") == "field" ? Theme::field : word("theme") == "dark" ? Theme::dark : Theme::paper;
  p.units = word("units") == "imperial" ? UnitSystem::imperial : UnitSystem::metric;
  if (const auto it = json.find("text_scale"); it != json.end() && it->is_number())
    p.text_scale = std::clamp(it->get<double>(), 0.8, 2.0);
  p.window = QByteArray::fromBase64(QByteArray::fromStdString(word("window")));
  return p;
}

double text_scale_for(QSize screen) {
  // The window is laid out for 1280 × 800; half of what the screen has more goes into the text.
  const double more = std::min(screen.width() / 1280.0, screen.height() / 800.0) - 1;
  return std::clamp(std::round((1 + more / 2) * 10) / 10, 1.0, 1.4);
}

void write_preferences(const QString& folder, const Preferences& p) {
  const Json json{{"theme", p.theme == Theme::field  ? "field"
                            : p.theme == Theme::dark ? "dark"
                                                     : "paper"},
                  {"units", p.units == UnitSystem::imperial ? "imperial" : "metric"},
                  {"text_scale", p.text_scale},
                  {"window", p.window.toBase64().toStdString()}};
  QDir().mkpath(folder);
  (void)write_file_atomically(file_in(folder), json.dump(1));
}

}  // namespace rigging::app
