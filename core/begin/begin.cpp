#include "begin/begin.h"

#include <algorithm>
#include <cmath>

#include "airframe/edits.h"
#include "airframe/kinds.h"
#include "airframe/planform.h"
#include "airframe/proportions.h"
#include "base/fields.h"
#include "base/find.h"
#include "base/number.h"
#include "begin/feeding.h"
#include "catalogue/sockets.h"
#include "fit/edits.h"
#include "fit/fit.h"
#include "fit/free_room.h"
#include "fit/usual_places.h"
#include "review/review.h"
#include "sticks/edits.h"
#include "wiring/plan.h"

namespace rigging {
namespace {

constexpr double usual_span_m = 1.2;

void add_drive(Rig& rig, const Catalogue& catalogue, const DriveKinds& kinds) {
  const bool pair = has_two_motors(rig.airframe);
  const PartKind *battery = catalogue.part(kinds.battery), *motor = catalogue.part(kinds.motor),
                 *propeller = catalogue.part(kinds.propeller), *controller = catalogue.part(kinds.speed_controller);
  if (battery) add_one(rig, *battery);
  for (const Side side : {Side::left, Side::right}) {
    const auto at = pair ? std::optional(Surface{SurfaceKind::motor, side}) : std::nullopt;
    if (controller) add_one(rig, *controller, at);
    if (motor) add_one(rig, *motor, at);
    if (propeller) {
      const PartKind* other = side == Side::right && pair ? other_handed(catalogue, *propeller) : nullptr;
      add_one(rig, other ? *other : *propeller, at);
    }
    if (!pair) break;
  }
}

/// Says some rule something of this part?
bool says(const Rig& rig, const Catalogue& catalogue, std::string_view code, const std::string& part) {
  const Review r = review(rig, catalogue);
  return std::any_of(r.snags.begin(), r.snags.end(),
                     [&](const Snag& s) { return s.code == code && s.subject == part; });
}

/// A compass that currents or the motor would turn goes further out in the wing, as far as it takes.
void clear_compasses(Rig& rig, const Catalogue& catalogue) {
  const HalfSurface wing = planform_of(rig.airframe).wing;
  for (const Part& p : std::vector<Part>(rig.parts)) {
    const PartKind* k = catalogue.part(p.kind);
    if (!k || !k->magnetic_sensor || !says(rig, catalogue, "FIT-15", p.id)) continue;
    const std::size_t clashes = find_clashes(rig, catalogue).size();
    for (const double share : {0.45, 0.5, 0.55, 0.6, 0.65, 0.7, 0.75, 0.8}) {
      Rig moved = rig;
      Mounting* place = moved.mounting(p.id);
      const Point at = point_in_wing(wing, 1, share, 0.35);
      place->x_m = at.x(), place->y_m = at.y(), place->z_m = at.z();
      if (find_clashes(moved, catalogue).size() > clashes || says(moved, catalogue, "FIT-15", p.id)) continue;
      rig = std::move(moved);
      break;
    }
  }
}

/// A class that listens for its lock has a switch for it.
void unlock(Rig& rig, const ControllerClass& c) {
  const int lock = c.sticks.unlock_channel;
  if (lock == 0 || find_in(rig.radio.channels, [&](const Channel& x) { return x.number == lock; })) return;
  Channel channel;
  channel.number = lock;
  channel.function = ChannelFunction::arm;
  rig.radio.channels.push_back(channel);
}

/// A unit with an input for each channel and none for a mode has no mode switch.
void no_mode_switch(Rig& rig, const ControllerClass& c) {
  const auto any = [&](auto&& test) { return std::any_of(c.ports.begin(), c.ports.end(), test); };
  const bool by_pulses =
      any([](const Terminal& t) { return t.kind == TerminalKind::pulse_input && from_name<Axis>(t.serves); });
  if (by_pulses && !any([](const Terminal& t) { return t.serves.starts_with("mode"); }))
    std::erase_if(rig.radio.channels, [](const Channel& x) { return x.function == ChannelFunction::mode; });
}

}  // namespace

Result<Airframe> airframe_of(const NewAircraft& b) {
  if (b.span_m && !(*b.span_m >= 0.1 && *b.span_m <= 20))
    return failure("span", number_text(*b.span_m, 2) + " m is out of its range", "0.1 to 20 m");
  Airframe a = usual_airframe(b.kind, b.span_m.value_or(usual_span_m));
  if (!b.span_m) a.guessed.emplace_back("span_m");
  a.motors = b.motors;
  a.propeller = b.propeller;
  a.ailerons_joined = b.ailerons_joined && can_join_ailerons(b.kind);
  if (b.mass_kg) {
    a.mass_kg = b.mass_kg;
    std::erase(a.guessed, "mass_kg");
  }
  for (const auto& [name, value] : b.measures) {
    const Member* m = Described<Airframe>::members().named(name);
    if (!m || m->type != &number_type()) return failure(name, "is no measure of an airframe", "such as root_chord_m");
    *static_cast<double*>(m->in(&a)) = value;
    std::erase(a.guessed, name);
  }
  a = with_guesses_following(std::move(a));
  if (const auto ok = in_range(a, "airframe"); !ok) return tl::make_unexpected(ok.error());
  return a;
}

std::string usual_servo(const Airframe& airframe, const Catalogue& catalogue) {
  const double kg = airframe.mass_kg.value_or(1);
  const char* id = kg <= 0.35  ? "servo_5g_analogue"
                   : kg < 1.5  ? "servo_9g_analogue"
                   : kg <= 2.5 ? "servo_12g_metal"
                               : "servo_20g_metal";
  return catalogue.part(id) ? id : "";
}

std::string usual_receiver(const Catalogue& catalogue, const std::string& controller) {
  const Rig bare = fresh_rig("", AirframeKind::two_ailerons, controller);
  const auto heard = [&](const PartKind& k) {
    Rig rig = bare;
    const std::string id = add_one(rig, k);
    const Plan plan = plan_wiring(rig, catalogue);
    return std::none_of(plan.obstacles.begin(), plan.obstacles.end(),
                        [&](const Obstacle& o) { return o.subject == id || o.subject == "controller"; }) &&
           std::any_of(plan.rig.leads.begin(), plan.rig.leads.end(),
                       [&](const Lead& l) { return l.from.part == id || l.to.part == id; });
  };
  const ControllerClass* c = catalogue.controller(controller);
  // Where the throttle lead stays on the receiver, that one has to have outputs.
  if (const PartKind* k = catalogue.part("receiver_pulse"); c && c->motor_bypasses() && k && heard(*k)) return k->id;
  for (const char* first : {"receiver_two_way", "receiver_serial_inverted", "receiver_summed", "receiver_pulse"})
    if (const PartKind* k = catalogue.part(first); k && heard(*k)) return first;
  for (const PartKind& k : catalogue.parts)
    if (k.group == PartGroup::receiver && heard(k)) return k.id;
  return {};
}

SaidDrive drive_in_words(const Catalogue& catalogue, std::string_view words) {
  SaidDrive drive;
  const auto drives = [](const PartKind* k) {
    return k && (k->group == PartGroup::motor || k->group == PartGroup::propeller || k->group == PartGroup::battery ||
                 k->group == PartGroup::speed_controller);
  };
  for (SaidPart& part : parts_in_words(catalogue, words)) {
    // "40 A" alone: where the drive is asked for it is one of the drive's, a speed controller first.
    if (!drives(part.kind)) {
      const PartKind* better = nullptr;
      for (const FoundKind& f : find_kinds(catalogue, part.said))
        if (f.exact && f.unknown.empty() && drives(f.kind) &&
            (!better || (better->group != PartGroup::speed_controller && f.kind->group == PartGroup::speed_controller)))
          better = f.kind;
      if (better) part.kind = better, part.remark.clear();
    }
    drive.pieces.push_back(part);
    std::string* id = nullptr;
    switch (part.kind ? part.kind->group : PartGroup::other) {
      case PartGroup::motor: id = &drive.kinds.motor; break;
      case PartGroup::propeller: id = &drive.kinds.propeller; break;
      case PartGroup::battery: id = &drive.kinds.battery; break;
      case PartGroup::speed_controller: id = &drive.kinds.speed_controller; break;
      default: break;
    }
    if (!part.remark.empty()) drive.remarks.push_back(part.said + ": " + part.remark);
    if (id)
      *id = part.kind->id;
    else if (part.kind)
      drive.others.push_back(std::move(part));
  }
  // Of motors that come about as near to what was said, the one that bears what the speed controller passes.
  constexpr double about_as_near = 0.1;
  const PartKind* esc = catalogue.part(drive.kinds.speed_controller);
  for (SaidPart& piece : drive.pieces) {
    if (!piece.kind || piece.kind->group != PartGroup::motor || piece.remark.empty() || !esc || !esc->drive) continue;
    const auto apart = [&](const PartKind& k) { return std::abs(std::log(k.motor->amps / esc->drive->amps)); };
    double nearest = 0;
    for (const FoundKind& f : find_kinds(catalogue, piece.said)) {
      if (f.kind->group != PartGroup::motor || !f.kind->motor || !f.unknown.empty()) continue;
      nearest = std::max(nearest, f.fit);
      if (f.fit >= nearest - about_as_near && apart(*f.kind) < apart(*piece.kind)) piece.kind = f.kind;
    }
    drive.kinds.motor = piece.kind->id;
  }
  return drive;
}

Result<Edit> begin_rig(const Catalogue& catalogue, const NewAircraft& b) {
  const ControllerClass* c = catalogue.controller(b.controller);
  if (!c) return failure(b.controller, "is no controller class that is known", "an id of the catalogue");
  const auto airframe = airframe_of(b);
  if (!airframe) return tl::make_unexpected(airframe.error());
  Edit edit{fresh_rig(b.name, b.kind, b.controller), "Begun: " + (b.name.empty() ? "a new aircraft" : b.name)};
  Rig& rig = edit.rig;
  if (b.motors != Motors::one && b.kind != AirframeKind::towed_glider && b.kind != AirframeKind::twin_differential)
    rig = with_motors(std::move(rig), b.motors);
  if (b.ailerons_joined && can_join_ailerons(b.kind)) rig = with_joined_ailerons(std::move(rig), true);
  const Motors motors = rig.airframe.motors;
  rig.airframe = *airframe;
  rig.airframe.motors = motors;
  if (rig.airframe.kind == AirframeKind::towed_glider) rig.feel.takeoff.way = TakeoffWay::tow;
  settle_in_sockets(rig, *c);
  unlock(rig, *c);
  no_mode_switch(rig, *c);
  rig = with_switch_channels(std::move(rig), catalogue);

  add_drive(rig, catalogue, b.drive);
  for (const std::string* id : {&b.receiver, &b.servo})
    if (!id->empty() && !catalogue.part(*id))
      return failure(*id, "is no kind of part that is known", "an id of the catalogue");
  if (!b.servo.empty())
    for (const Surface s : surfaces_of(rig.airframe))
      if (s.kind != SurfaceKind::motor) add_one(rig, *catalogue.part(b.servo), s);
  // The tow release, on the motor's output.
  if (!b.servo.empty() && b.kind == AirframeKind::towed_glider) add_one(rig, *catalogue.part(b.servo));
  if (!b.receiver.empty()) add_one(rig, *catalogue.part(b.receiver));
  for (const SaidPart& said : b.others)
    for (int i = 0; said.kind && i < said.count; ++i) add_one(rig, *said.kind);
  if (rig.parts.empty()) return edit;
  feed_all(rig, catalogue);
  clear_compasses(rig, catalogue);
  // Which socket is nearest is known only now.
  rig = plan_wiring(rig, catalogue).rig;
  return edit;
}

}  // namespace rigging
