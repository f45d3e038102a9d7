#include "senses/still_procedures.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "airframe/airframe.h"
#include "base/angle.h"
#include "base/number.h"
#include "base/units.h"
#include "fit/fit.h"
#include "power/power.h"
#include "reports/reports.h"
#include "senses/sense_checks.h"

namespace rigging {
namespace {

constexpr double gyro_read_s = 6;
constexpr double most_level_deg = 20, most_step_deg = 4;

/// What a lamp does, of a class that shows no readings.
void add_lamps(Card& card, const ControllerClass& c) {
  for (const Lamp& l : c.proof.lamps)
    if (l.tells == LampTells::settling || l.tells == LampTells::ready || l.tells == LampTells::fault)
      card.lines.push_back({c.with_leaflet(capital(l.sign) + ": " + l.meaning + "."), false});
}

const char* how_to_wake(const ControllerClass& c) {
  switch (c.senses.power_up) {
    case PowerUp::still_and_level:
      return "Unplug, set the model down still, in the attitude in which it flies level, and plug in again. Hands off.";
    case PowerUp::still:
      return "Unplug, set the model down still (it need not be level), and plug in again. Hands off.";
    case PowerUp::anyhow: break;
  }
  return "Set the model down. Hands off.";
}

}  // namespace

// What is there
// -----------------------------------------------------------------------------------------------------------------

Rig FoundProcedure::as_heard(const Rig& rig) const {
  Rig heard = rig;
  heard.sensing.reported.clear();
  for (const auto& [sensor, state] : states_) {
    ReportedSensor r;
    r.sensor = sensor;
    r.state = state;
    heard.sensing.reported.push_back(r);
  }
  return heard;
}

Orders FoundProcedure::hear(const Event& event, const Scene& scene) {
  if (const auto* found = std::get_if<SensorsFound>(&event)) {
    states_ = found->states;
  } else if (const auto* pressed = std::get_if<Pressed>(&event)) {
    if (pressed->action == "found_keep") return {ApplyEdit{Edit{as_heard(scene.rig), "What the board finds"}}};
    if (pressed->action == "write_found") return {WriteBoard{}};
    if (const std::string without = "found_without_"; pressed->action.starts_with(without))
      if (const auto sensor = from_name<Sensor>(pressed->action.substr(without.size())))
        return {ApplyEdit{use_sensor(as_heard(scene.rig), *sensor, false)}};
  } else if (std::holds_alternative<SceneChanged>(event) && !scene.bench.controller) {
    states_.clear();
  }
  return {};
}

Card FoundProcedure::card(const Scene& scene) const {
  Card card;
  card.title = "What the board finds";
  const std::string no = not_yet(scene);
  if (!no.empty() || states_.empty()) {
    card.todo = no.empty() ? "The board is being asked." : no;
    if (scene.controller && !scene.controller->senses.shows_motion) add_lamps(card, *scene.controller);
    return card;
  }
  const Rig heard = as_heard(scene.rig);
  const std::vector<InventoryLine> lines = inventory_of(heard, scene.catalogue);
  std::size_t wrong = 0;
  const InventoryLine* left_over = nullptr;
  for (const InventoryLine& l : lines) {
    const bool right = l.finding == Finding::as_planned;
    wrong += right ? 0 : 1;
    card.lines.push_back({l.words + (l.remedy.empty() ? "." : ". " + l.remedy), !right});
    if (l.finding == Finding::left_over && !left_over) left_over = &l;
  }
  card.says = wrong == 0   ? "As planned."
              : wrong == 1 ? "One is not as planned."
                           : std::to_string(wrong) + " are not as planned.";
  const bool kept = heard.sensing.reported == scene.rig.sensing.reported;
  if (wrong > 0 && scene.bench.usb && !scene.bench.battery)
    card.remark = "On USB alone much stays dark on many boards: look again with the battery in, propeller off.";
  if (left_over)
    card.actions.push_back({.id = "found_without_" + std::string(name_of(left_over->sensor)),
                            .label = "Tell it that there is none",
                            .hint = "The setting is switched off; it must be written to the board",
                            .main = true});
  if (scene.bench.differs) card.actions.push_back(write_action(scene, "found", !left_over));
  card.actions.push_back({.id = "found_keep",
                          .label = kept ? "Kept" : "Keep it in the rig",
                          .hint = "What is not as planned becomes a snag",
                          .main = !left_over && !scene.bench.differs && !kept,
                          .enabled = !kept});
  return card;
}

// Still at power-up
// -----------------------------------------------------------------------------------------------------------------

Orders GyroProcedure::hear(const Event& event, const Scene& scene) {
  if (const auto* pressed = std::get_if<Pressed>(&event)) return press(pressed->action, scene);
  if (!note_time(event)) return {};
  const auto& heard = std::get<MotionHeard>(event);
  for (const SlowReading& s : heard.slow) {
    warmth_c_ = s.temperature_c;
    warm_known_ = true;
  }
  for (const MotionSample& s : heard.samples) {
    rates_.t_s.push_back(s.t_s);
    rates_.readings.add(s.rate_deg_s);
    if (warm_known_) options_.temperature_c.push_back(warmth_c_);
  }
  if (rates_.size() > 1 && rates_.t_s.back() - rates_.t_s.front() >= gyro_read_s) {
    running_ = false;
    options_.zeroed = true;
    if (options_.temperature_c.size() != rates_.size()) options_.temperature_c.clear();
    found_ = gyro_of(rates_, options_);
  }
  return {};
}

void GyroProcedure::drop_readings() {
  rates_ = {};
  options_ = {};
  warm_known_ = false;
}

Orders GyroProcedure::press(const std::string& action, const Scene& scene) {
  if (action == "gyro_begin") {
    drop_readings();
    found_.reset();
    begin();
  } else if (action == "gyro_stop") {
    running_ = false;
    found_.reset();
  } else if (action == "gyro_replug") {
    found_.reset();
    const bool battery = scene.bench.battery, usb = scene.bench.usb || !battery;
    return {AskHands{hands::Hold{}}, AskHands{hands::Supply{false, false}}, AskHands{hands::Supply{usb, battery}}};
  } else if (action == "gyro_proof") {
    return {GoTo{Station::proof, wakes_still.text()}};
  }
  return write_or_record(action, gyro_still);
}

Card GyroProcedure::card(const Scene& scene) const {
  Card card;
  card.title = "Still at power-up";
  card.busy = running_;
  const auto add = [&](Action a) { card.actions.push_back(std::move(a)); };
  if (scene.controller && !scene.controller->senses.shows_motion) {
    card.todo = how_to_wake(*scene.controller);
    card.remark = "This class shows no readings. What its lamp does tells:";
    card.caution = "Propeller off.";
    add_lamps(card, *scene.controller);
    card.lines.push_back({"And the surfaces stand still while the model does.", false});
    if (find_check(scene.checks, wakes_still))
      add({.id = "gyro_proof",
           .label = "Look, and record it at proof",
           .hint = "The card of this check",
           .main = true});
    return card;
  }
  if (running_) {
    const double read = rates_.size() < 2 ? 0 : rates_.t_s.back() - rates_.t_s.front();
    card.todo = "Hands off the model.";
    card.remark = silent() ? "Nothing is heard from the board: is its supply in?"
                           : number_text(read, 0) + " of " + number_text(gyro_read_s, 0) + " s read.";
    add({.id = "gyro_stop", .label = "Stop", .hint = "What was read is dropped"});
    return card;
  }
  const std::string no = not_yet(scene);
  const bool good = found_ && found_->verdict != Verdict::repeat;
  if (found_) {
    card.says = found_->verdict == Verdict::good     ? "It was still."
                : found_->verdict == Verdict::usable ? "Nearly."
                                                     : "Not still.";
    card.lines.push_back({found_->why, false});
    if (!good && scene.controller) card.todo = how_to_wake(*scene.controller);
    if (!good && scene.bench.hands)
      add({.id = "gyro_replug",
           .label = "Plug in again, still (simulated)",
           .hint = "The simulated hands set the model down, unplug and plug in",
           .main = true});
  } else {
    card.todo = !no.empty() ? no : how_to_wake(*scene.controller);
    if (no.empty()) {
      card.remark = "The zero that it takes then is what it steers by. Wait for its lamp, then read it.";
      card.caution = "Propeller off.";
    }
  }
  add({.id = "gyro_begin",
       .label = found_ ? "Read again" : "Read it",
       .hint = "Six seconds, the model at rest",
       .main = !good && !(found_ && scene.bench.hands),
       .enabled = no.empty()});
  add_ends(card, scene, gyro_still, good);
  return card;
}

// Level
// -----------------------------------------------------------------------------------------------------------------

LevelReport LevelProcedure::level_of(const Scene& scene) {
  return analyze_level(scene.rig.airframe, scene.reports->airframe(), scene.reports->fit().balance.likely_m());
}

Orders LevelProcedure::hear(const Event& event, const Scene& scene) {
  if (const auto* pressed = std::get_if<Pressed>(&event)) return press(*pressed, scene);
  if (!note_time(event)) return {};
  for (const MotionSample& s : std::get<MotionHeard>(event).samples) {
    watch_.feed(s);
    if (!watch_.still()) continue;
    running_ = false;
    const auto& correction = scene.rig.sensing.accelerometer;
    const Point force = correction ? ellipsoid_of(*correction).corrected(watch_.force()) : watch_.force();
    const auto pose = pose_for(in_model(scene, force));
    if (std::abs(pose[0]) > most_level_deg || std::abs(pose[1]) > most_level_deg) {
      said_ = "It stands with the nose at " + degrees_text(pose[1]) + " and a bank of " + degrees_text(pose[0]) +
              ": that is no attitude to fly level in. Find how the board sits first (Turn).";
      return {};
    }
    Edit edit{scene.rig, "Level as it stands"};
    edit.rig.sensing.level_nose_up_deg = std::round(pose[1] * 10) / 10;
    edit.rig.sensing.level_right_down_deg = std::round(pose[0] * 10) / 10;
    said_ = "Taken as it stands.";
    return {ApplyEdit{std::move(edit)}};
  }
  return {};
}

Orders LevelProcedure::press(const Pressed& pressed, const Scene& scene) {
  const std::string& action = pressed.action;
  const LevelReport level = level_of(scene);
  if (action == "level_take" && level.nose_up) {
    Edit edit{scene.rig, "Level as worked out"};
    edit.rig.sensing.level_nose_up_deg = std::round(level.nose_up->value * 10) / 10;
    said_.clear();
    return {ApplyEdit{std::move(edit)}};
  }
  if (action == "level_usual") {
    Edit edit{scene.rig, "Level as usual"};
    edit.rig.sensing.level_nose_up_deg = usual_level_deg;
    said_.clear();
    return {ApplyEdit{std::move(edit)}};
  }
  if (action == "level_stands") {
    said_.clear();
    begin();
  } else if (action == "level_stop") {
    running_ = false;
  } else if (action == "level_wedge") {
    const LevelReport& l = level;
    const double nose = scene.rig.sensing.level_nose_up_deg.value_or(l.nose_up ? l.nose_up->value : usual_level_deg);
    return {AskHands{hands::Hold{0, nose, 0}}};
  } else if (action == "level_climbed") {
    asks_ = Asks::climb;
  } else if (action == "level_turned") {
    asks_ = Asks::turn;
  } else if (action == "level_back") {
    asks_ = Asks::nothing;
  } else if (action == "level_correct") {
    return corrected(pressed, scene);
  } else if (action == "level_proof") {
    return {GoTo{Station::proof, level_stored.text()}};
  }
  return write_or_record(action, level_told);
}

Orders LevelProcedure::corrected(const Pressed& pressed, const Scene& scene) {
  const bool pitch = asks_ == Asks::climb;
  const double sign = pressed.unit == "sank" || pressed.unit == "left" ? -1 : 1;
  asks_ = Asks::nothing;
  const AirframeReport& airframe = scene.reports->airframe();
  const auto change = pitch ? level_from_climb(scene.rig.airframe, airframe, sign * pressed.number)
                            : level_from_turn(scene.rig.airframe, sign * pressed.number);
  if (!change) {
    said_ = "The flying mass is needed first.";
    return {};
  }
  said_ = change->why;
  if (change->deg == 0) return {};
  Edit edit{scene.rig, pitch ? "Level corrected from height" : "Level corrected from a turn"};
  auto& member = pitch ? edit.rig.sensing.level_nose_up_deg : edit.rig.sensing.level_right_down_deg;
  const LevelReport level = level_of(scene);
  const double was = member.value_or(pitch && level.nose_up ? level.nose_up->value : 0);
  // Not further at once: what moved it may have been a thermal.
  const double step = std::clamp(change->deg, -most_step_deg, most_step_deg);
  const double now = std::clamp(std::round((was + step) * 10) / 10, -most_level_deg, most_level_deg);
  member = now;
  said_ +=
      " Level goes from " + degrees_text(was) + " to " + degrees_text(now) + (pitch ? " nose up" : " right wing down") +
      (std::abs(change->deg) > most_step_deg ? ", not further at once: fly the same again." : ": fly the same again.");
  return {ApplyEdit{std::move(edit)}};
}

Card LevelProcedure::card(const Scene& scene) const {
  Card card;
  card.title = "Level";
  card.busy = running_;
  const auto add = [&](Action a) { card.actions.push_back(std::move(a)); };
  const bool by_link = scene.controller && scene.controller->senses.shows_motion;
  const bool levels = scene.controller && scene.controller->mode(Mode::level);
  if (!levels) {
    card.todo = "This class does not level: nothing is to be set.";
    return card;
  }
  if (asks_ != Asks::nothing) {
    const bool pitch = asks_ == Asks::climb;
    card.todo =
        pitch ? "Throttle at cruise and elevator trim in the middle; then in self-level, hands off the sticks: how "
                "did the height change?"
              : "Trims of ailerons and rudder in the middle; then in self-level, hands off the sticks: how fast did it "
                "turn?";
    card.remark =
        pitch ? "Over half a minute at least, both into and with the wind." : "A full circle in 60 s is 6° a second.";
    card.number =
        pitch ? NumberAsked{"Metres a second", 0, 10, {{"climbed", "climbed", 1}, {"sank", "sank", 1}}}
              : NumberAsked{"Degrees a second", 0, 60, {{"right", "to the right", 1}, {"left", "to the left", 1}}};
    add({.id = "level_correct",
         .label = "Correct level by it",
         .hint = "The sign is worked out",
         .main = true,
         .takes_number = true});
    add({.id = "level_back", .label = "Back", .hint = "Nothing is changed"});
    return card;
  }
  const LevelReport l = level_of(scene);
  const auto& told = scene.rig.sensing.level_nose_up_deg;
  card.picture.pose_deg = std::array<double, 3>{0, told.value_or(l.nose_up ? l.nose_up->value : usual_level_deg), 0};
  if (running_) {
    card.todo = "Prop the model as it flies level: on its wedge, wings level.";
    card.remark = unsteady("Leave it alone for a second.");
    if (card.remark.empty()) card.remark = "It is taken once it is still.";
    if (scene.bench.hands)
      add({.id = "level_wedge",
           .label = "Prop it so (simulated)",
           .hint = "The simulated hands prop it",
           .main = true});
    add({.id = "level_stop", .label = "Stop", .hint = "Level stays as it was"});
    return card;
  }
  if (l.nose_up) {
    card.says = number_text(l.nose_up->value, 1) + "° nose up" + (told ? ", told " + degrees_text(*told) + "." : ".");
    card.lines.push_back({"Worked out, " + degrees_text(*l.nose_up->least) + " to " + degrees_text(*l.nose_up->most) +
                              ": " + l.nose_up->formula + ", at " + figure_text(*l.speed) + ".",
                          false});
    card.lines.push_back({l.beside, false});
    if (scene.rig.airframe.section == WingSection::unknown)
      card.lines.push_back(
          {"The wing's section is not known, which makes the band wide: Wing and cruise… takes it.", false});
  } else {
    card.todo = l.first;
    card.remark = "Usual: 2 to 5° nose up." + (told ? " Told: " + degrees_text(*told) + "." : std::string());
  }
  if (const auto& right = scene.rig.sensing.level_right_down_deg; right && *right != 0)
    card.lines.push_back({"Right wing " + degrees_text(std::abs(*right)) + (*right > 0 ? " down." : " up."), false});
  if (!said_.empty()) card.lines.push_back({said_, true});
  if (!by_link && !scene.controller->senses.level.empty())
    card.lines.push_back({scene.controller->with_leaflet(scene.controller->senses.level) +
                              (scene.controller->senses.stores_level ? " The wedge is on the gauge sheet." : ""),
                          false});
  const double worked_out = l.nose_up ? std::round(l.nose_up->value * 10) / 10 : 0;
  if (l.nose_up && (!told || std::abs(*told - worked_out) > 0.05))
    add({.id = "level_take",
         .label = "Set " + degrees_text(worked_out),
         .hint = "As worked out from wing, mass and speed",
         .main = !told});
  if (!l.nose_up && !told)
    add({.id = "level_usual", .label = "Set the usual 3°", .hint = "To be corrected in flight", .main = true});
  if (by_link)
    add({.id = "level_stands",
         .label = "Take it as it stands…",
         .hint = "Prop the model as it flies level; the board reads it",
         .enabled = not_yet(scene).empty()});
  add({.id = "level_climbed",
       .label = "It climbed or sank…",
       .hint = "Correct it from a flight in self-level",
       .minor = true});
  add({.id = "level_turned", .label = "It turned…", .hint = "Correct it from a flight in self-level", .minor = true});
  if (by_link)
    add_ends(card, scene, level_told, told.has_value());
  else if (told && find_check(scene.checks, level_stored))
    add({.id = "level_proof",
         .label = "Store it, and record it at proof",
         .hint = "The card of this check",
         .main = true});
  return card;
}

}  // namespace rigging
