#include "stations/home/home_sheets.h"

#include <algorithm>

#include "base/number.h"
#include "base/units.h"
#include "home/edits.h"
#include "home/triggers.h"
#include "look/pieces.h"
#include "stations/numbers_dialog.h"

namespace rigging::app {
namespace {

constexpr double foot_m = 0.3048;

QString tr(const char* text) { return QObject::tr(text); }

QString trigger_name(HomeTrigger trigger) {
  switch (trigger) {
    case HomeTrigger::low_battery: return tr("The battery gets low");
    case HomeTrigger::fence: return tr("It flies too far");
    case HomeTrigger::no_fix: return tr("It loses its position");
    case HomeTrigger::bad_compass: return tr("Its compass goes wrong");
    case HomeTrigger::bad_airspeed: return tr("Its airspeed sensor fails");
    case HomeTrigger::long_loss: return tr("The link stays away");
  }
  return {};
}

QString shown_name(GogglesLine line) {
  switch (line) {
    case GogglesLine::volts: return tr("Volts of the battery");
    case GogglesLine::amps: return tr("Amps");
    case GogglesLine::used_charge: return tr("Charge used");
    case GogglesLine::height: return tr("Height");
    case GogglesLine::speed: return tr("Speed");
    case GogglesLine::way_home: return tr("Where home is");
    case GogglesLine::distance: return tr("How far home is");
    case GogglesLine::mode: return tr("Mode");
    case GogglesLine::link: return tr("How good the link is");
    case GogglesLine::flight_time: return tr("Time in the air");
    case GogglesLine::warnings: return tr("Warnings");
  }
  return {};
}

/// Undecided, yes, no.
std::size_t at_of(const std::optional<bool>& v) { return !v ? 0 : *v ? 1 : 2; }
std::optional<bool> flag_at(std::size_t at) { return at == 0 ? std::nullopt : std::optional(at == 1); }

}  // namespace

double field_unit_m() { return unit_system() == UnitSystem::imperial ? foot_m : 1; }
QString field_unit() { return unit_system() == UnitSystem::imperial ? tr("ft") : tr("m"); }

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
      tr("What stands high"),
      tr("As seen from home, heights above it. The same name again changes it. Measured roughly is enough: "
         "%1 are kept clear.")
          .arg(said_of(field_text(clears_by_m))),
      window);
  const double per = 1 / field_unit_m();
  dialog.add("obstacle_name", tr("What"), o.name, tr("church, mast, trees"));
  dialog.add("obstacle_bearing", {tr("Bearing"), tr("°"), 0, 360, 0, 1}, o.bearing_deg);
  dialog.add("obstacle_distance", {tr("Distance"), field_unit(), 0, 20000 * per, 0, per}, o.distance_m);
  dialog.add("obstacle_height", {tr("Height above home"), field_unit(), -500 * per, 3000 * per, 0, per}, o.height_m);
  if (!document.rig().home.obstacles.empty()) dialog.add("obstacle_away", tr("Take away what has this name"), away);
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
      tr("What else makes it act by itself"),
      tr("Beside a lost link. Only what can work with what is fitted is offered.") +
          (way ? tr(" From the edge of the area it is home within %1 s.").arg(*way, 0, 'f', 0) : QString()),
      window);
  struct Row {
    HomeTrigger on;
    std::vector<TriggerAction> can;
    std::size_t at = 0;
    std::optional<double> number;
  };
  std::vector<Row> rows;
  for (const auto& [on, name] : Words<HomeTrigger>::list)
    if (auto can = trigger_choices(on, *c, report); !can.empty()) rows.push_back({on, std::move(can), 0, {}});
  for (Row& row : rows) {
    const TriggerChoice* now = trigger_choice(home, row.on);
    QStringList names{tr("not in the plan")};
    for (std::size_t i = 0; i < row.can.size(); ++i) {
      names << said_of(action_spoken(row.can[i]));
      if (now && now->does == row.can[i]) row.at = i + 1;
    }
    if (now) row.number = now->at;
    const std::string id = "trigger_" + std::string(word(row.on));
    dialog.add(id.c_str(), trigger_name(row.on), row.at, names);
    const double per = 1 / field_unit_m();
    if (row.on == HomeTrigger::fence)
      dialog.add("fence_at",
                 NumbersDialog::with_unknown({tr("   further than"), field_unit(), 10, 50000 * per, 0, per}),
                 row.number, tr("not told"));
    if (row.on == HomeTrigger::long_loss)
      dialog.add("long_loss_at", NumbersDialog::with_unknown({tr("   longer than"), tr("s"), 5, 3600, 0, 1}),
                 row.number, tr("not told"));
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
      tr("While it flies by itself"),
      (!known                                 ? tr("The throttle that holds height is noted in level flight by hand.")
       : document.rig().power.cruise_throttle ? tr("In level flight %1 % were noted (station power).")
                                                    .arg(100 * report.performance.cruise_throttle, 0, 'f', 0)
                                              : tr("By its drag it takes about %1 % throttle to hold its height at "
                                                   "cruise (estimate, ±%2). Better: fly it by "
                                                   "hand, and note it at station power.")
                                                    .arg(100 * report.performance.cruise_throttle, 0, 'f', 0)
                                                    .arg(100 * throttle_band, 0, 'f', 0)) +
          tr(" Levelling alone holds no height."),
      window);
  const auto percent = [](const QString& label) {
    return NumbersDialog::with_unknown({label, QStringLiteral("%"), 0, 100, 0, 100});
  };
  dialog.add("cruise_throttle", percent(tr("Throttle at cruise")), made.cruise_throttle, tr("not set"));
  auto adds = at_of(made.adds_throttle), tow = at_of(made.opens_tow), sounds = at_of(made.sounds_when_lost);
  dialog.add("adds_throttle", tr("The throttle stick then"), adds,
             {tr("not decided"), tr("adds to it"), tr("does nothing")});
  dialog.add("landing_throttle", percent(tr("Throttle while it lands")), made.landing_throttle, tr("closed"));
  if (document.rig().release)
    dialog.add("opens_tow", tr("The tow release, link gone"), tow,
               {tr("not decided"), tr("opens"), tr("stays latched")});
  if (const ControllerClass* c = document.controller(); c && c->home.sounds)
    dialog.add("sounds_when_lost", tr("Lost, it"), sounds,
               {tr("not decided"), tr("sounds until found"), tr("is silent")});
  if (const ControllerClass* c = document.controller(); c && c->home.checks_before_arming)
    dialog.add("arming_checks", tr("Checks before it arms"), made.arming_checks);
  dialog.ask(document, [&] {
    made.adds_throttle = flag_at(adds), made.opens_tow = flag_at(tow), made.sounds_when_lost = flag_at(sounds);
    return set_home(document.rig(), made, "While it flies by itself");
  });
}

void ask_goggles(RigDocument& document, QWidget* window) {
  Home made = document.rig().home;
  NumbersDialog dialog(tr("In the goggles"),
                       tr("Few lines are read, many are not. One page without anything keeps the view free."), window);
  constexpr std::size_t count = Words<GogglesLine>::list.size();
  std::array<bool, count> on{};
  for (std::size_t i = 0; i < count; ++i) {
    const GogglesLine line = Words<GogglesLine>::list[i].first;
    on[i] = std::find(made.shows.begin(), made.shows.end(), line) != made.shows.end();
    const std::string id = "shows_" + std::string(word(line));
    dialog.add(id.c_str(), shown_name(line), on[i]);
  }
  dialog.add("clear_page", tr("One page with nothing over the picture"), made.clear_page);
  dialog.ask(document, [&] {
    made.shows.clear();
    for (std::size_t i = 0; i < count; ++i)
      if (on[i]) made.shows.push_back(Words<GogglesLine>::list[i].first);
    return set_home(document.rig(), made, "In the goggles");
  });
}

}  // namespace rigging::app
