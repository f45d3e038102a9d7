#include "stations/home/home_sheets.h"

#include <algorithm>

#include "base/number.h"
#include "base/units.h"
#include "home/edits.h"
#include "home/triggers.h"
#include "look/literals.h"
#include "look/pieces.h"
#include "stations/numbers_dialog.h"

namespace rigging::app {
namespace {

constexpr double foot_m = 0.3048;

QString trigger_name(HomeTrigger trigger) {
  switch (trigger) {
    case HomeTrigger::low_battery: return u"The battery gets low"_s;
    case HomeTrigger::fence: return u"It flies too far"_s;
    case HomeTrigger::no_fix: return u"It loses its position"_s;
    case HomeTrigger::bad_compass: return u"Its compass goes wrong"_s;
    case HomeTrigger::bad_airspeed: return u"Its airspeed sensor fails"_s;
    case HomeTrigger::long_loss: return u"The link stays away"_s;
  }
  return {};
}

QString shown_name(GogglesLine line) {
  switch (line) {
    case GogglesLine::volts: return u"Volts of the battery"_s;
    case GogglesLine::amps: return u"Amps"_s;
    case GogglesLine::used_charge: return u"Charge used"_s;
    case GogglesLine::height: return u"Height"_s;
    case GogglesLine::speed: return u"Speed"_s;
    case GogglesLine::way_home: return u"Where home is"_s;
    case GogglesLine::distance: return u"How far home is"_s;
    case GogglesLine::mode: return u"Mode"_s;
    case GogglesLine::link: return u"How good the link is"_s;
    case GogglesLine::flight_time: return u"Time in the air"_s;
    case GogglesLine::warnings: return u"Warnings"_s;
  }
  return {};
}

/// Undecided, yes, no.
std::size_t at_of(const std::optional<bool>& v) { return !v ? 0 : *v ? 1 : 2; }
std::optional<bool> flag_at(std::size_t at) { return at == 0 ? std::nullopt : std::optional(at == 1); }

}  // namespace

double field_unit_m() { return unit_system() == UnitSystem::imperial ? foot_m : 1; }
QString field_unit() { return unit_system() == UnitSystem::imperial ? u"ft"_s : u"m"_s; }

void change_home(RigDocument& document, const QString& label, const std::function<void(Home&)>& how) {
  Home home = document.rig().home;
  how(home);
  if (home == document.rig().home) return;
  document.apply(set_home(document.rig(), home, label.toStdString()));
}

void ask_obstacle(RigDocument& document, QWidget* window) {
  FieldObstacle o;
  bool away = false;
  NumbersDialog dialog(
      u"What stands high"_s,
      u"As seen from home, heights above it. The same name again changes it. Measured roughly is enough: "
      "%1 are kept clear."_s.arg(said_of(field_text(clears_by_m))),
      window);
  const double per = 1 / field_unit_m();
  dialog.add("obstacle_name", u"What"_s, o.name, u"church, mast, trees"_s);
  dialog.add("obstacle_bearing", {u"Bearing"_s, u"°"_s, 0, 360, 0, 1}, o.bearing_deg);
  dialog.add("obstacle_distance", {u"Distance"_s, field_unit(), 0, 20000 * per, 0, per}, o.distance_m);
  dialog.add("obstacle_height", {u"Height above home"_s, field_unit(), -500 * per, 3000 * per, 0, per}, o.height_m);
  if (!document.rig().home.obstacles.empty()) dialog.add("obstacle_away", u"Take away what has this name"_s, away);
  dialog.ask(document, [&]() -> Result<Edit> {
    return away ? take_obstacle_away(document.rig(), o.name) : put_obstacle(document.rig(), o);
  });
}

void ask_triggers(RigDocument& document, const HomeReport& report, QWidget* window) {
  const ControllerClass* c = document.controller();
  if (!c) return;
  const Home& home = document.rig().home;
  const auto way = longest_way_s(document.rig(), *c, report);
  NumbersDialog dialog(
      u"What else makes it act by itself"_s,
      u"Beside a lost link. Only what can work with what is fitted is offered."_s +
          (way ? u" From the edge of the area it is home within %1 s."_s.arg(*way, 0, 'f', 0) : QString()),
      window);
  struct Row {
    HomeTrigger on;
    std::vector<TriggerAction> can;
    std::size_t at = 0;
    std::optional<double> number;
  };
  std::vector<Row> rows;
  for (const auto& [on, name] : Names<HomeTrigger>::list)
    if (auto can = trigger_choices(on, *c, report); !can.empty()) rows.push_back({on, std::move(can), 0, {}});
  for (Row& row : rows) {
    const TriggerChoice* now = trigger_choice(home, row.on);
    QStringList names{u"not in the plan"_s};
    for (std::size_t i = 0; i < row.can.size(); ++i) {
      names << said_of(action_spoken(row.can[i]));
      if (now && now->does == row.can[i]) row.at = i + 1;
    }
    if (now) row.number = now->at;
    const std::string id = "trigger_" + std::string(name_of(row.on));
    dialog.add(id.c_str(), trigger_name(row.on), row.at, names);
    const double per = 1 / field_unit_m();
    if (row.on == HomeTrigger::fence)
      dialog.add("fence_at", NumbersDialog::with_unknown({u"   further than"_s, field_unit(), 10, 50000 * per, 0, per}),
                 row.number, u"not told"_s);
    if (row.on == HomeTrigger::long_loss)
      dialog.add("long_loss_at", NumbersDialog::with_unknown({u"   longer than"_s, u"s"_s, 5, 3600, 0, 1}), row.number,
                 u"not told"_s);
  }
  dialog.ask(document, [&]() -> Result<Edit> {
    Home made = home;
    for (const Row& row : rows) {
      const auto it = std::find_if(made.triggers.begin(), made.triggers.end(),
                                   [&](const TriggerChoice& t) { return t.on == row.on; });
      if (row.at == 0) {
        // What can't work and stands there goes too: it was not chosen again.
        if (it != made.triggers.end()) made.triggers.erase(it);
        continue;
      }
      TriggerChoice t = it != made.triggers.end() ? *it : TriggerChoice{};
      t.on = row.on, t.does = row.can[row.at - 1];
      t.at = row.on == HomeTrigger::fence || row.on == HomeTrigger::long_loss ? row.number : std::nullopt;
      if (it != made.triggers.end())
        *it = t;
      else
        made.triggers.push_back(t);
    }
    return set_home(document.rig(), made, "What else makes it act");
  });
}

void ask_by_itself(RigDocument& document, const HomeReport& report, QWidget* window) {
  Home made = document.rig().home;
  const bool known = report.missing.empty();
  NumbersDialog dialog(
      u"While it flies by itself"_s,
      (!known ? u"The throttle that holds height is noted in level flight by hand."_s
       : document.rig().power.cruise_throttle
           ? u"In level flight %1 % were noted (station power)."_s.arg(100 * report.performance.cruise_throttle, 0, 'f',
                                                                       0)
           : u"By its drag it takes about %1 % throttle to hold its height at "
             "cruise (estimate, ±%2). Better: fly it by "
             "hand, and note it at station power."_s.arg(100 * report.performance.cruise_throttle, 0, 'f', 0)
                 .arg(100 * throttle_band, 0, 'f', 0)) +
          u" Levelling alone holds no height."_s,
      window);
  const auto percent = [](const QString& label) {
    return NumbersDialog::with_unknown({label, u"%"_s, 0, 100, 0, 100});
  };
  dialog.add("cruise_throttle", percent(u"Throttle at cruise"_s), made.cruise_throttle, u"not set"_s);
  auto adds = at_of(made.adds_throttle), tow = at_of(made.opens_tow), sounds = at_of(made.sounds_when_lost);
  dialog.add("adds_throttle", u"The throttle stick then"_s, adds,
             {u"not decided"_s, u"adds to it"_s, u"does nothing"_s});
  dialog.add("landing_throttle", percent(u"Throttle while it lands"_s), made.landing_throttle, u"closed"_s);
  if (document.rig().release)
    dialog.add("opens_tow", u"The tow release, link gone"_s, tow, {u"not decided"_s, u"opens"_s, u"stays latched"_s});
  if (const ControllerClass* c = document.controller(); c && c->home.sounds)
    dialog.add("sounds_when_lost", u"Lost, it"_s, sounds, {u"not decided"_s, u"sounds until found"_s, u"is silent"_s});
  if (const ControllerClass* c = document.controller(); c && c->home.checks_before_arming)
    dialog.add("checks_before_arming", u"Checks before it arms"_s, made.checks_before_arming);
  dialog.ask(document, [&] {
    made.adds_throttle = flag_at(adds), made.opens_tow = flag_at(tow), made.sounds_when_lost = flag_at(sounds);
    return set_home(document.rig(), made, "While it flies by itself");
  });
}

void ask_goggles(RigDocument& document, QWidget* window) {
  Home made = document.rig().home;
  NumbersDialog dialog(u"In the goggles"_s,
                       u"Few lines are read, many are not. One page without anything keeps the view free."_s, window);
  constexpr std::size_t count = Names<GogglesLine>::list.size();
  std::array<bool, count> on{};
  for (std::size_t i = 0; i < count; ++i) {
    const GogglesLine line = Names<GogglesLine>::list[i].first;
    on[i] = std::find(made.goggles.begin(), made.goggles.end(), line) != made.goggles.end();
    const std::string id = "shows_" + std::string(name_of(line));
    dialog.add(id.c_str(), shown_name(line), on[i]);
  }
  dialog.add("clear_page", u"One page with nothing over the picture"_s, made.clear_page);
  dialog.ask(document, [&] {
    made.goggles.clear();
    for (std::size_t i = 0; i < count; ++i)
      if (on[i]) made.goggles.push_back(Names<GogglesLine>::list[i].first);
    return set_home(document.rig(), made, "In the goggles");
  });
}

}  // namespace rigging::app
