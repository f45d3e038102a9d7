#pragma once

#include "ask/ask.h"

/// Answers with their number, of this rig; empty where it is not known.
namespace rigging {

std::string in_a_row(const std::vector<std::string>& all, const char* between = "; ");

/// By its name in the file of topics: "stall" is `say_stall`; null for none.
std::string (*saying_named(std::string_view name))(const AskedOf&);
std::vector<std::string> saying_names();

std::string say_endurance(const AskedOf& of);
std::string say_balance(const AskedOf& of);
std::string say_advice(const AskedOf& of);
std::string say_thrust(const AskedOf& of);
std::string say_stall(const AskedOf& of);
std::string say_cruise(const AskedOf& of);
std::string say_landing(const AskedOf& of);
std::string say_loading(const AskedOf& of);
std::string say_ready(const AskedOf& of);
std::string say_current(const AskedOf& of);
std::string say_brown_out(const AskedOf& of);
std::string say_snags(const AskedOf& of);
std::string say_weight(const AskedOf& of);
/// The checks that do not stand yet, counted and the first of them named.
std::string say_left_to_do(const AskedOf& of);
std::string say_next_thing(const AskedOf& of);
std::string say_on_loss(const AskedOf& of);
std::string say_return_height(const AskedOf& of);
std::string say_turn_home(const AskedOf& of);
std::string say_wind(const AskedOf& of);
std::string say_aspect(const AskedOf& of);
std::string say_glide(const AskedOf& of);
std::string say_against_wind(const AskedOf& of);
std::string say_suggestion(const AskedOf& of);
std::string say_arms(const AskedOf& of);
std::string say_shaking(const AskedOf& of);
std::string say_rail_volts(const AskedOf& of);
std::string say_heat(const AskedOf& of);
/// Whether what feeds the servos is enough, or wants another regulator.
std::string say_servo_source(const AskedOf& of);
/// What stays dark on USB alone, and what does not; of one part where it is given.
std::string say_on_usb(const AskedOf& of);
std::string say_on_usb_of(const AskedOf& of, const Part* only);
std::string say_climb(const AskedOf& of);
std::string say_level(const AskedOf& of);
/// Which ways the class may sit.
std::string say_other_way_up(const AskedOf& of);
/// Proofs that went stale, and why.
std::string say_stale(const AskedOf& of);
std::string say_compass(const AskedOf& of);
std::string say_to_get(const AskedOf& of);
/// How the class's set-up mode is entered, where it has one.
std::string say_set_up(const AskedOf& of);
std::string say_landing_itself(const AskedOf& of);
std::string say_first_gains(const AskedOf& of);
/// The holes that give each wanted throw.
std::string say_holes(const AskedOf& of);
/// Whether it gets into the air as it is planned, and in which mode.
std::string say_takeoff(const AskedOf& of);
/// How fast full stick turns it, by axis.
std::string say_turning(const AskedOf& of);
/// Functions that need a channel, against those of the transmitter.
std::string say_channels(const AskedOf& of);
/// Which axis begins to shake first as it is set, or would.
std::string say_shakes_first(const AskedOf& of);
/// Parts that overlap or stick out.
std::string say_clashes(const AskedOf& of);
std::string say_battery(const AskedOf& of);
std::string say_climb_first(const AskedOf& of);
std::string say_at_cruise(const AskedOf& of);
/// Kilometres flown at cruise until the reserve.
std::string say_distance(const AskedOf& of);
/// What the servos hold in the air, against what they can.
std::string say_servo_loads(const AskedOf& of);
std::string say_unequal(const AskedOf& of);

}  // namespace rigging
