#include <algorithm>
#include <cmath>
#include <utility>

#include "base/angle.h"
#include "base/number.h"
#include "earth/gravity.h"
#include "fit/compass.h"
#include "senses/inventory.h"
#include "senses/sense_checks.h"
#include "senses/sense_procedures.h"

namespace rigging {
namespace {

constexpr std::size_t most_readings = 6000;
constexpr std::size_t look_every = 40;  ///< readings of the compass between two looks at all of them
constexpr std::size_t judge_first = 400, judge_every = 200;  ///< readings until it may end by itself
constexpr double new_reading_ut = 0.8;                       ///< a reading nearer to the last says nothing new
constexpr double covered_enough = 0.7;                       ///< of all directions, before it ends by itself

}  // namespace

Orders CompassProcedure::hear(const Event& event, const Scene& scene) {
  if (const auto* pressed = std::get_if<Pressed>(&event)) return press(pressed->action, scene);
  if (!note_time(event)) return {};
  for (const MotionSample& s : std::get<MotionHeard>(event).samples) {
    if (!s.field_ut || recording_.size() >= most_readings) continue;
    const std::size_t n = recording_.size();
    if (n > 0 && (recording_.readings.at(n - 1) - *s.field_ut).norm() < new_reading_ut) continue;
    recording_.t_s.push_back(s.t_s);
    recording_.readings.add(*s.field_ut);
    forces_.push_back(s.force_m_s2);
    if (shows_map_) {
      now_in_ = gore_cell(so_far_.corrected(*s.field_ut));
      seen_[*now_in_] = true;
    }
  }
  if (recording_.size() >= looked_at_ + look_every) look_over();
  if (coverage_ >= covered_enough && recording_.size() >= judge_at_) {
    judge_at_ = recording_.size() + judge_every;
    found_ = calibrate_compass(recording_);
    if (found_->verdict == Verdict::good) return finish(scene);
  }
  return turn_on();
}

/// Simulated hands roll it over and back, with the nose at another height each time.
Orders CompassProcedure::turn_on() {
  constexpr int sweeps = 14;
  constexpr double sweep_s = 8.2;
  if (!running_ || sweep_ < 0 || (sweep_ > 0 && now_s_ - swept_s_ < sweep_s)) return {};
  if (sweep_ >= sweeps) {
    sweep_ = -1;
    return set_down();
  }
  const int k = sweep_++;
  swept_s_ = now_s_;
  return {AskHands{hands::Hold{k % 2 ? -179.0 : 179.0, 75.0 - 12.5 * k, 0}}};
}

void CompassProcedure::forget() {
  recording_ = {};
  forces_.clear();
  sits_.reset();
  std::fill(seen_.begin(), seen_.end(), false);
  now_in_.reset();
  so_far_ = {};
  looked_at_ = 0;
  judge_at_ = judge_first;
  coverage_ = 0;
  shows_map_ = false;
  found_.reset();
}

void CompassProcedure::look_over() {
  looked_at_ = recording_.size();
  so_far_ = fit_compass(recording_.readings, 600);
  std::fill(seen_.begin(), seen_.end(), false);
  const CompassReach reach = reach_of(so_far_, recording_.readings);
  coverage_ = reach.coverage;
  shows_map_ = reach.known;
  if (!shows_map_) {
    now_in_.reset();
    return;
  }
  for (std::size_t i = 0; i < recording_.size(); ++i)
    seen_[gore_cell(so_far_.corrected(recording_.readings.at(i)))] = true;
}

void CompassProcedure::look_around(const Scene& scene) {
  std::vector<Point> fields, forces;
  for (std::size_t i = 0; i < recording_.size(); ++i) {
    if (i < found_->bad.size() && found_->bad[i]) continue;
    fields.push_back(found_->corrected(recording_.readings.at(i)));
    forces.push_back(in_model(scene, forces_[i]));
  }
  sits_ = compass_turn(fields, forces);
}

/// What the place should say of the field, beside what was measured.
void CompassProcedure::add_earth(Card& card, const Scene& scene) const {
  const auto earth = earth_field(scene.rig, scene.catalogue);
  if (!earth) {
    card.lines.push_back(
        {"Where it flies is not given (Sky finds it): then strength and dip are held against the model.", false});
    return;
  }
  const double total = earth->total_nT / 1000;
  const bool strong = std::abs(found_->radius / total - 1) > 0.1;
  card.lines.push_back({"Here the earth has " + number_text(total, 1) + " µT; measured " +
                            number_text(found_->radius, 1) + " µT" +
                            (strong ? ": iron is near, indoors or in the ground. Do it again elsewhere." : "."),
                        strong});
  if (sits_ && sits_->turn) {
    const bool steep = std::abs(sits_->dip_deg - earth->inclination_deg) > 6;
    card.lines.push_back({"It should dip by " + number_text(earth->inclination_deg, 0) + "°; it dips by " +
                              number_text(sits_->dip_deg, 0) + "°" +
                              (steep ? ": iron is near, or the board is not level as told." : "."),
                          steep});
  }
  card.lines.push_back({"Magnetic north is " + number_text(std::abs(earth->declination_deg), 1) + "° " +
                            (earth->declination_deg < 0 ? "west" : "east") + " of true north here (declination).",
                        false});
}

Orders CompassProcedure::finish(const Scene& scene) {
  running_ = false;
  Orders orders;
  if (sweep_ >= 0) orders = set_down();
  sweep_ = -1;
  if (!found_ || found_->verdict == Verdict::repeat) return orders;
  look_around(scene);
  Edit edit{scene.rig, "Compass calibrated"};
  edit.rig.sensing.compass = correction_from(*found_);
  orders.emplace_back(ApplyEdit{std::move(edit)});
  return orders;
}

Orders CompassProcedure::press(const std::string& action, const Scene& scene) {
  if (action == "compass_begin") {
    forget();
    begin();
  } else if (action == "compass_hands" && running_) {
    sweep_ = 0;
    return turn_on();
  } else if (action == "compass_stop") {
    running_ = false;
    forget();
    if (std::exchange(sweep_, -1) >= 0) return set_down();
  } else if (action == "compass_enough") {
    found_ = calibrate_compass(recording_);
    return finish(scene);
  } else if (action == "compass_turn" && sits_ && sits_->turn) {
    const std::string part = sensor_part(scene.rig, scene.catalogue, Sensor::compass);
    Edit edit{scene.rig, "Compass: " + sits_->turn->label()};
    if (Mounting* p = edit.rig.mounting(part)) p->turn = TurnName(*sits_->turn);
    return {ApplyEdit{std::move(edit)}};
  } else if (action == "compass_place") {
    return {GoTo{Station::fit, sensor_part(scene.rig, scene.catalogue, Sensor::compass)}};
  }
  return write_or_record(action, compass_calibrated);
}

Card CompassProcedure::card(const Scene& scene) const {
  Card card;
  card.title = "Compass";
  card.busy = running_;
  const auto add = [&](Action a) { card.actions.push_back(std::move(a)); };
  const std::string part = sensor_part(scene.rig, scene.catalogue, Sensor::compass);
  if (running_) {
    card.todo = coverage_ < 0.3   ? "Turn the model slowly once round, level."
                : coverage_ < 0.6 ? "Now with the nose up, then down, and on either wing."
                                  : "Fill what is empty on the map.";
    card.remark = silent()                 ? "Nothing is heard from the board: is its supply in?"
                  : recording_.size() == 0 ? "No compass is heard."
                                           : number_text(coverage_ * 100, 0) + " % of all directions, " +
                                                 std::to_string(recording_.size()) + " readings.";
    card.caution =
        "Propeller off. Away from iron, cars, loudspeakers and reinforced floors; phone and tools out of the pockets.";
    if (found_) card.lines.push_back({found_->reasons(), false});
    if (scene.bench.hands)
      add({.id = "compass_hands",
           .label = sweep_ >= 0 ? "The simulated hands turn it" : "Turn it through all (simulated)",
           .hint = "The simulated hands roll the simulated model over and back, its nose at another height each time",
           .main = true,
           .enabled = sweep_ < 0});
    add({.id = "compass_enough",
         .label = "That is enough",
         .hint = "Judged by what was turned through",
         .enabled = recording_.size() >= 200});
    add({.id = "compass_stop", .label = "Stop", .hint = "What was taken is dropped"});
    return card;
  }
  const std::string no = part.empty() ? "There is no compass in this rig." : not_yet(scene);
  // What was kept before is not proven by a sitting that failed.
  const bool failed = found_ && found_->verdict == Verdict::repeat,
             kept = scene.rig.sensing.compass.has_value() && !failed;
  if (found_) {
    say_verdict(card, *found_,
                "Magnets and steel on board: " + number_text(found_->offset.norm(), 0) + " µT beside " +
                    number_text(found_->radius, 0) + " µT of the earth.");
    if (!failed) add_earth(card, scene);
    if (sits_ && part != "controller") {
      const Mounting* place = scene.rig.mounting(part);
      if (!sits_->turn) {
        card.lines.push_back({"How it sits: " + sits_->why, false});
      } else if (!place) {
        card.lines.push_back({"It sits with its " + sits_->turn->label() + ", and has no place in the rig.", true});
        add({.id = "compass_place", .label = "Give it a place", .hint = "At station fit"});
      } else if (const Turn planned = place->turn; !(planned == *sits_->turn)) {
        card.lines.push_back({"It sits with its " + sits_->turn->label() + "; the rig has it with its " +
                                  planned.label() + ". A wrong turn flies in circles.",
                              true});
        add({.id = "compass_turn", .label = "It sits so: tell the rig", .hint = "Its arrow, as the turning shows it"});
      } else {
        card.lines.push_back({"It sits as the rig has it: " + planned.label() + ".", false});
      }
    }
  } else {
    card.todo = !no.empty() ? no
                : kept      ? "It is calibrated. Again after parts or leads near it were moved."
                            : "Turn the model through all directions, out in the open.";
    if (no.empty()) {
      card.remark = "Everything on board that will fly, hatch closed. It ends by itself when enough was seen.";
      card.caution = "Propeller off. A free path around you.";
    }
  }
  add({.id = "compass_begin",
       .label = found_ || kept ? "Again" : "Begin",
       .hint = "Level once round first",
       .main = !kept,
       .enabled = no.empty()});
  add_ends(card, scene, compass_calibrated, kept);
  return card;
}

}  // namespace rigging
