#include "senses/air_procedures.h"

#include <algorithm>
#include <cmath>

#include "airframe/airframe.h"
#include "airframe/drag.h"
#include "base/number.h"
#include "fit/fit.h"
#include "power/power.h"
#include "reports/reports.h"
#include "senses/inventory.h"
#include "senses/sense_checks.h"

namespace rigging {
namespace {

constexpr std::size_t enough_fixes = 90, most_fixes = 20000;
constexpr double cover_s = 5, push_s = 17, air_s = 20, no_tube_s = 15;
constexpr double pushed_by_hands_pa = 400;
constexpr double run_s = 22, ramp_s = 4;  ///< of each step of the throttle
constexpr double usual_full_a = 20;       ///< where no current is known

std::string lines_of(Verdict v, const std::string& why) { return capital(std::string(name_of(v))) + ". " + why; }

}  // namespace

// Satellites
// -----------------------------------------------------------------------------------------------------------------

Orders SkyProcedure::hear(const Event& event, const Scene& scene) {
  if (const auto* pressed = std::get_if<Pressed>(&event)) return press(pressed->action, scene);
  if (!note_time(event)) return {};
  const std::string& bytes = std::get<MotionHeard>(event).satellite_bytes;
  if (bytes.empty()) return {};
  heard_s_ = now_s_;
  for (const SatelliteFix& f : reader_.feed(bytes))
    if (fixes_.size() < most_fixes) fixes_.push_back(f);
  standing_ = rigging::standing(fixes_);
  if (standing_.fixes >= enough_fixes && standing_.verdict == Verdict::good) {
    running_ = false;
    done_ = true;
  }
  return {};
}

Orders SkyProcedure::press(const std::string& action, const Scene& scene) {
  if (action == "sky_begin") {
    reader_ = {};
    fixes_.clear();
    standing_ = {};
    done_ = false;
    began_s_ = now_s_;
    begin();
  } else if (action == "sky_stop") {
    running_ = done_ = false;
    fixes_.clear();
    standing_ = {};
  } else if (action == "sky_enough") {
    running_ = false;
    done_ = true;
  } else if (action == "sky_field" && standing_.fixes > 0) {
    Edit edit{scene.rig, "It flies here"};
    Fit& fit = edit.rig.fit;
    fit.latitude_deg = std::round(standing_.latitude_deg * 1e5) / 1e5;
    fit.longitude_deg = std::round(standing_.longitude_deg * 1e5) / 1e5;
    fit.altitude_km = std::round(standing_.height_m) / 1000;
    return {ApplyEdit{std::move(edit)}};
  }
  return write_or_record(action, fix_seen);
}

Card SkyProcedure::card(const Scene& scene) const {
  Card card;
  card.title = "Satellite receiver";
  card.busy = running_;
  const auto add = [&](Action a) { card.actions.push_back(std::move(a)); };
  const std::string part = sensor_part(scene.rig, scene.catalogue, Sensor::satellites);
  if (running_) {
    card.todo = "Leave the model alone, under a clear sky.";
    card.remark = reader_.tally().bytes == 0 && now_s_ - began_s_ > 2.5
                      ? std::string(
                            "Nothing arrives: no supply (look at its lamp), or the data pair is crossed: transmit "
                            "goes to receive.") +
                            (scene.bench.usb && !scene.bench.battery ? " On USB alone it is dark on many boards." : "")
                      : line_words(reader_.tally());
    if (standing_.fixes > 0)
      card.lines.push_back({standing_.why, false});
    else if (reader_.tally().sentences > 0)
      card.lines.push_back(
          {"No fix yet. A cold receiver needs a minute, some five; indoors it may never come.", false});
    add({.id = "sky_enough",
         .label = "That is enough",
         .hint = "Judged by what was heard",
         .enabled = standing_.fixes >= 5});
    add({.id = "sky_stop", .label = "Stop", .hint = "What was heard is dropped"});
    return card;
  }
  std::string no;
  if (part.empty())
    no = "There is no satellite receiver in this rig.";
  else if (!scene.controller || !scene.controller->senses.shows_motion || !scene.bench.controller)
    no = "Connect the controller, or listen to the receiver by itself (Real receiver… below).";
  const bool good = done_ && standing_.verdict != Verdict::repeat;
  if (done_) {
    card.says = standing_.verdict == Verdict::good     ? "A good home."
                : standing_.verdict == Verdict::usable ? "Usable."
                                                       : "Not yet.";
    card.lines.push_back({standing_.why, false});
    if (standing_.first_fix_s && *standing_.first_fix_s >= 1)
      card.lines.push_back(
          {"The first fix came " + number_text(*standing_.first_fix_s, 0) + " s after listening began.", false});
    if (!good) card.todo = "Wait longer, away from walls and trees, the video transmitter off; then again.";
  } else {
    card.todo = !no.empty() ? no : "Set the model down outdoors, with a clear sky, and leave it alone.";
    if (no.empty()) card.remark = "Home is where it is when it is armed: it is worth as much as the fix is then.";
    if (no.empty()) card.caution = "Propeller off.";
  }
  add({.id = "sky_begin",
       .label = done_ ? "Again" : "Listen",
       .hint = "Until the position stands still enough",
       .main = !good,
       .enabled = !part.empty()});
  if (done_ && standing_.fixes > 0)
    add({.id = "sky_field", .label = "It flies here", .hint = "For gravity, the magnetic field and the way home"});
  // By itself it says nothing of the lead to the board.
  if (good && !scene.bench.controller)
    card.lines.push_back({"Heard by itself: what the check is about is heard through the controller.", false});
  add_ends(card, scene, fix_seen, good && scene.bench.controller);
  return card;
}

// The air
// -----------------------------------------------------------------------------------------------------------------

AirProcedure::Step AirProcedure::step() const {
  const double read = pitot_t_s_.size() < 2 ? 0 : pitot_t_s_.back() - pitot_t_s_.front();
  return read < cover_s ? Step::cover : read < push_s ? Step::push : Step::let_go;
}

Orders AirProcedure::hear(const Event& event, const Scene& scene) {
  if (const auto* pressed = std::get_if<Pressed>(&event)) return press(pressed->action, scene);
  if (!note_time(event)) return {};
  for (const SlowReading& s : std::get<MotionHeard>(event).slow) {
    if (s.pressure_pa) {
      t_s_.push_back(s.t_s);
      pressure_pa_.push_back(*s.pressure_pa);
    }
    if (s.pitot_pa) {
      pitot_t_s_.push_back(s.t_s);
      pitot_pa_.push_back(*s.pitot_pa);
    }
  }
  const auto length = [](const std::vector<double>& t) { return t.size() < 2 ? 0 : t.back() - t.front(); };
  Orders orders;
  if (!pitot_t_s_.empty() && step() != asked_) {
    asked_ = step();
    if (scene.bench.hands)
      orders.emplace_back(AskHands{hands::PushTube{asked_ == Step::push ? pushed_by_hands_pa : 0}});
  }
  if (pitot_t_s_.empty() ? length(t_s_) >= no_tube_s : length(pitot_t_s_) >= air_s) {
    running_ = false;
    if (!t_s_.empty()) barometer_ = barometer_of(t_s_, pressure_pa_);
    const auto cruise = cruise_speed(scene.rig.airframe);
    if (!pitot_t_s_.empty()) airspeed_ = airspeed_of(pitot_t_s_, pitot_pa_, cruise ? cruise->value : 12);
  }
  return orders;
}

void AirProcedure::drop_readings() {
  t_s_.clear();
  pressure_pa_.clear();
  pitot_t_s_.clear();
  pitot_pa_.clear();
}

Orders AirProcedure::press(const std::string& action, const Scene& scene) {
  if (action != "air_begin" && action != "air_stop") return {};
  drop_readings();
  barometer_.reset();
  airspeed_.reset();
  const bool pushed = asked_ == Step::push;
  asked_ = Step::cover;
  if (action == "air_begin")
    begin();
  else
    running_ = false;
  return pushed && scene.bench.hands ? Orders{AskHands{hands::PushTube{0}}} : Orders{};
}

Card AirProcedure::card(const Scene& scene) const {
  Card card;
  card.title = "Barometer and airspeed";
  card.busy = running_;
  const auto add = [&](Action a) { card.actions.push_back(std::move(a)); };
  const bool tube = !sensor_part(scene.rig, scene.catalogue, Sensor::airspeed).empty();
  if (running_) {
    if (pitot_t_s_.empty())
      card.todo = "Leave the model alone.";
    else
      card.todo = asked_ == Step::cover  ? "Cover the tube loosely with the hand."
                  : asked_ == Step::push ? "Now push: a finger or a syringe on the front hose, gently, and hold it."
                                         : "Let go.";
    card.remark = silent() ? "Nothing is heard from the board: is its supply in?"
                           : number_text(t_s_.size() < 2 ? 0 : t_s_.back() - t_s_.front(), 0) + " s read.";
    if (!pitot_t_s_.empty()) card.caution = "Never blow hard: a breath is more than any speed that flies.";
    add({.id = "air_stop", .label = "Stop", .hint = "What was read is dropped"});
    return card;
  }
  const std::string no = not_yet(scene);
  if (barometer_)
    card.lines.push_back(
        {"Barometer: " + lines_of(barometer_->verdict, barometer_->why), barometer_->verdict == Verdict::repeat});
  if (airspeed_)
    card.lines.push_back(
        {"Airspeed: " + lines_of(airspeed_->verdict, airspeed_->why), airspeed_->verdict == Verdict::repeat});
  if (barometer_ || airspeed_) {
    const bool well = (!barometer_ || barometer_->verdict != Verdict::repeat) &&
                      (!airspeed_ || airspeed_->verdict != Verdict::repeat);
    card.says = well ? "Sound." : "Not sound.";
  } else {
    card.todo = !no.empty() ? no
                : tube      ? "Cover the tube, push, let go: twenty seconds."
                            : "Leave the model at rest, indoors, for fifteen seconds.";
    if (no.empty()) card.remark = "Barometer under open-cell foam, out of wind and sun.";
  }
  add({.id = "air_begin",
       .label = card.says.empty() ? "Begin" : "Again",
       .hint = "It ends by itself",
       .main = card.says != "Sound.",
       .enabled = no.empty()});
  return card;
}

// The motor
// -----------------------------------------------------------------------------------------------------------------

Orders MotorProcedure::hear(const Event& event, const Scene& scene) {
  if (const auto* pressed = std::get_if<Pressed>(&event)) return press(pressed->action, scene);
  if (!note_time(event)) return {};
  const auto& heard = std::get<MotionHeard>(event);
  auto slow = heard.slow.begin();
  for (const MotionSample& s : heard.samples) {
    // What was measured slowly stands until it is measured again.
    for (; slow != heard.slow.end() && slow->t_s <= s.t_s; ++slow)
      if (slow->current_a) now_a_ = slow->current_a;
    forces_.t_s.push_back(s.t_s);
    forces_.readings.add(s.force_m_s2);
    if (s.field_ut && now_a_) {
      fields_.t_s.push_back(s.t_s);
      fields_.readings.add(*s.field_ut);
      amps_.push_back(*now_a_);
    }
  }
  for (; slow != heard.slow.end(); ++slow)
    if (slow->current_a) now_a_ = slow->current_a;
  if (read_s() >= run_s) return finish(scene);
  if (!by_hands_) return {};
  const double wanted = std::min(1.0, std::floor(read_s() / ramp_s) / 4);
  if (wanted == throttle_) return {};
  throttle_ = wanted;
  return {AskHands{hands::Stick{std::nullopt, wanted}}};
}

Orders MotorProcedure::finish(const Scene& scene) {
  running_ = false;
  vibration_ = vibration_of(forces_);
  // Where it shakes, what a filter well below the strongest would leave and cost.
  if (vibration_->verdict != Verdict::good && !vibration_->peaks.empty()) {
    VibrationOptions options;
    options.filter_hz = std::clamp(vibration_->peaks.front().hz / 2.5, 5.0, 0.4 * vibration_->rate_hz);
    vibration_ = vibration_of(forces_, options);
  }
  if (fields_.size() > 0) {
    const FitReport& fit = scene.reports->fit();
    double full_a = 0, horizontal_ut = 20;
    for (const CurrentPath& c : fit.currents) full_a = std::max(full_a, c.amps);
    if (!fit.compasses.empty()) horizontal_ut = fit.compasses.front().horizontal.value;
    interference_ = interference_of(fields_, amps_, full_a > 1 ? full_a : usual_full_a, horizontal_ut);
  }
  throttle_ = 0;
  return by_hands_ ? Orders{AskHands{hands::Stick{std::nullopt, 0}}} : Orders{};
}

void MotorProcedure::drop_readings() {
  forces_ = fields_ = {};
  amps_.clear();
  now_a_.reset();
}

Orders MotorProcedure::press(const std::string& action, const Scene& scene) {
  if (action == "motor_begin" || action == "motor_run") {
    drop_readings();
    vibration_.reset();
    interference_.reset();
    throttle_ = 0;
    by_hands_ = action == "motor_run";
    begin();
  } else if (action == "motor_stop") {
    running_ = false;
    vibration_.reset();
    interference_.reset();
    throttle_ = 0;
    if (by_hands_) return {AskHands{hands::Stick{std::nullopt, 0}}};
  } else if (action == "motor_enough") {
    return finish(scene);
  } else if (action == "motor_take_off" && interference_) {
    Edit edit{scene.rig, "The motor's field taken off"};
    CurrentField f = scene.rig.sensing.motor_field.value_or(CurrentField{});
    f.x_ut_per_a = interference_->per_a.x();
    f.y_ut_per_a = interference_->per_a.y();
    f.z_ut_per_a = interference_->per_a.z();
    edit.rig.sensing.motor_field = f;
    return {ApplyEdit{std::move(edit)}};
  } else if (action == "write_motor") {
    return {WriteBoard{}};
  }
  return {};
}

Card MotorProcedure::card(const Scene& scene) const {
  Card card;
  card.title = "Motor: shaking, and the compass";
  card.busy = running_;
  const auto add = [&](Action a) { card.actions.push_back(std::move(a)); };
  if (running_) {
    card.todo = "Open the throttle in four steps to full, then close it.";
    card.remark = silent() ? "Nothing is heard from the board: is its supply in?"
                           : number_text(read_s(), 0) + " of " + number_text(run_s, 0) + " s" +
                                 (now_a_ ? ", " + number_text(*now_a_, 1) + " A." : ". No current is measured.");
    card.caution = "Propeller off. Hold the model down; nothing near the shaft. Stop if it smells or howls.";
    add({.id = "motor_enough", .label = "That is enough", .hint = "Judged by what was read", .enabled = read_s() >= 5});
    add({.id = "motor_stop", .label = "Stop", .hint = "What was read is dropped"});
    return card;
  }
  std::string no = not_yet(scene);
  if (no.empty() && !scene.bench.battery && scene.bench.hands)
    no = "The motor needs the battery: plug it in below. Propeller off.";
  if (vibration_) {
    card.lines.push_back(
        {"Shaking: " + lines_of(vibration_->verdict, vibration_->why), vibration_->verdict == Verdict::repeat});
    if (const auto& f = vibration_->filter)
      card.lines.push_back({"A low-pass at " + number_text(f->cut_hz, 0) + " Hz would leave " +
                                number_text(f->peak_left * 100, 0) +
                                " % of the strongest and delay every correction by " +
                                number_text(f->delay_s * 1000, 1) + " ms: mend the mounting first.",
                            false});
    card.lines.push_back(
        {"A hundred readings a second fold what shakes faster than 50 Hz to another place; and on the bench the "
         "propeller's imbalance is missing: a flight log has it.",
         false});
  }
  if (interference_)
    card.lines.push_back({"Compass: " + lines_of(interference_->verdict, interference_->why),
                          interference_->verdict == Verdict::repeat});
  if (vibration_ || interference_) {
    const bool well = (!vibration_ || vibration_->verdict == Verdict::good) &&
                      (!interference_ || interference_->verdict == Verdict::good);
    card.says = well ? "Calm." : "See below.";
  } else {
    card.todo = no.empty() ? "Run the motor up without a propeller, the model held down." : no;
    card.remark =
        no.empty() ? "Little current flows without a propeller: what the compass feels at full is an estimate." : "";
  }
  if (no.empty()) card.caution = "Propeller off: take it off now, and look again.";
  if (interference_ && interference_->verdict != Verdict::good && interference_->most_a > 0 &&
      interference_->per_a.norm() > 0)
    add({.id = "motor_take_off",
         .label = "Take it off by current",
         .hint = "The controller then takes off what the current adds; kept in the rig",
         .main = interference_->verdict == Verdict::usable && !scene.bench.differs});
  if (scene.bench.controller && scene.bench.differs && scene.rig.sensing.motor_field)
    add(write_action(scene, "motor", true));
  if (scene.bench.hands)
    add({.id = "motor_run",
         .label = "Run it up (simulated)",
         .hint = "The simulated hands open the throttle in steps",
         .main = !vibration_,
         .enabled = no.empty()});
  else
    add({.id = "motor_begin",
         .label = "Begin",
         .hint = "Then open the throttle in four steps",
         .main = !vibration_,
         .enabled = no.empty()});
  return card;
}

}  // namespace rigging
