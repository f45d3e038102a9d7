#pragma once

#include "ask/ask.h"

/// Answers with their number, of this rig; empty where it is not known.
namespace rigging {

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

}  // namespace rigging
