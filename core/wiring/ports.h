#pragma once

#include "edit/edit.h"

/// How the board's ports have to be set, as its leads say: a lead decides what hangs on a port.
namespace rigging {

/// What the receiver's socket can say: one signal, or several of which one is chosen in the transmitter.
std::vector<Signal> signals_of(const Terminal& receiver_socket);
/// What it says there: the chosen one, else the first.
std::optional<Signal> says(const Part& receiver, const Terminal& socket);
/// True when a port of the board can take it.
bool takes(const Terminal& port, Signal signal);
/// True for a class that hears the sticks from a receiver beside it; false for one that is the receiver.
bool hears_a_receiver(const ControllerClass& controller);
/// "inverted serial", "summed pulse".
std::string signal_label(Signal signal);

/// What the fitted receiver says to the board, or would say; nothing without a receiver.
std::optional<Signal> receiver_signal(const Rig& rig, const Catalogue& catalogue);

/// Worth having, and the model flies without: one wire that brings or takes figures.
bool worth_having(const Terminal& part_socket);

/// What a part would need of the class to be of any use, "serial port" or "two-wire bus", where the class has none of
/// it; empty where it can be plugged in, or does something without data too.
std::string port_lacking(const ControllerClass& controller, const PartKind& kind);

/// True for a port of the board that can be told a job.
bool can_be_told(const Terminal& port);
/// The job that a part's socket gives to the port it is plugged into.
PortJob job_of(const PartKind& kind, const Terminal& part_socket);

/// The baud that the part really speaks.
std::optional<double> baud_of(const Part& part, const PartKind& kind);

/// The ports of the board that have a job, in the order of the class. Empty for a class that sets none.
std::vector<Port> ports_wanted(const Rig& rig, const Catalogue& catalogue);
/// Sets every port, and what the board is told of the receiver's signal, as the leads say.
void ports_follow(Rig& rig, const Catalogue& catalogue);
Edit tell_ports(const Rig& rig, const Catalogue& catalogue);

/// One port set by hand: its job, baud and direction. Errors: no such port; a class that sets none; a baud that the
/// port can't make.
Result<Edit> set_port(const Rig& rig, const Catalogue& catalogue, const Port& port);
/// What a receiver is set to put out, in the transmitter. Errors: no such part; a signal that it has not.
Result<Edit> receiver_says(const Rig& rig, const Catalogue& catalogue, const std::string& part, Signal signal);

/// Why the board hears nothing, or not what it should, through this lead; empty while all is told well. Looks at what
/// the board is told, not at the wires.
std::string deaf_because(const Rig& rig, const Catalogue& catalogue, const Lead& lead);

}  // namespace rigging
