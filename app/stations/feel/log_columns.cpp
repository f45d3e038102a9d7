#include "stations/feel/log_columns.h"

#include <algorithm>

#include "base/clean_text.h"
#include "base/csv.h"
#include "feel/edits.h"
#include "feel/flight_log.h"
#include "look/literals.h"
#include "stations/numbers_dialog.h"

namespace rigging::app {

bool log_names_unknown(const std::string& text, const std::vector<LogColumn>& told) {
  const std::vector<std::string> heading = heading_of(text);
  if (heading.size() < 2) return false;
  bool time = false, rate = false;
  for (const std::string& meaning : log_meanings()) {
    std::string name = meaning;
    for (const LogColumn& c : told)
      if (c.meaning == meaning) name = c.column;
    const bool there = std::find(heading.begin(), heading.end(), name) != heading.end();
    if (!there && name != meaning) return true;
    time = time || (there && meaning == "t_s");
    rate = rate || (there && meaning.ends_with("_rate_deg_s"));
  }
  return !time || !rate;
}

bool ask_log_columns(RigDocument& document, const std::string& text, const Error& why, QWidget* parent) {
  const std::vector<std::string> heading = heading_of(text);
  QStringList columns{u"not in it"_s};
  for (const std::string& c : heading) columns << QString::fromStdString(clean_text(c, 60));
  NumbersDialog dialog(
      u"Columns of this log"_s,
      u"%1. Say which column is what; this rig remembers it."_s.arg(QString::fromStdString(why.text())), parent);
  // One unit for all that is alike.
  struct Unit {
    std::string of;
    QString label;
    std::size_t at = 0;
  };
  std::vector<Unit> units{{"t_s", u"Time is in"_s},
                          {"roll_rate_deg_s", u"Rates are in"_s},
                          {"roll_stick", u"Sticks are in"_s},
                          {"roll_correction", u"Corrections are in"_s},
                          {"airspeed_m_s", u"Airspeed is in"_s},
                          {"throttle", u"Throttle is in"_s}};
  const auto unit_of = [&](const std::string& meaning) -> Unit& {
    for (Unit& u : units)
      if (u.of == meaning || (u.of.starts_with("roll") && meaning.ends_with(u.of.substr(4)))) return u;
    return units.front();
  };
  std::vector<std::size_t> at(log_meanings().size(), 0);
  for (std::size_t i = 0; i < at.size(); ++i) {
    const std::string& meaning = log_meanings()[i];
    std::optional<std::string> column = likely_column(meaning, heading);
    for (const LogColumn& known : document.rig().feel.log_columns)
      if (known.meaning == meaning) {
        column = known.column;
        const auto& choices = log_units(meaning);
        for (std::size_t k = 0; k < choices.size(); ++k)
          if (choices[k].offset == known.offset && choices[k].factor == known.factor) unit_of(meaning).at = k;
      }
    const auto found = std::find(heading.begin(), heading.end(), column.value_or(std::string()));
    if (column && found != heading.end()) at[i] = static_cast<std::size_t>(found - heading.begin()) + 1;
    QString label = QString::fromStdString(meaning_label(meaning));
    label[0] = label[0].toUpper();
    dialog.add(("column_" + meaning).c_str(), label, at[i], columns);
  }
  for (Unit& u : units) {
    QStringList names;
    for (const LogUnit& l : log_units(u.of)) names << QString::fromStdString(l.name);
    dialog.add(("unit_" + u.of).c_str(), u.label, u.at, names);
  }
  const std::vector<LogColumn> before = document.rig().feel.log_columns;
  bool taken = false;
  dialog.ask(document, [&]() -> Result<Edit> {
    std::vector<LogColumn> told;
    for (std::size_t i = 0; i < at.size(); ++i) {
      if (at[i] == 0) continue;
      const std::string& meaning = log_meanings()[i];
      const LogUnit& unit = log_units(meaning)[unit_of(meaning).at];
      told.push_back({meaning, heading[at[i] - 1], unit.offset, unit.factor, {}});
    }
    auto edit = with_log_columns(document.rig(), std::move(told));
    taken = edit.has_value();
    return edit;
  });
  return taken;
}

}  // namespace rigging::app
