#pragma once

#include "edit/edit.h"
#include "wiring/plan.h"

namespace rigging {

/// Moves the board's end of a lead to another socket. An output follows its leads (`outputs_follow`).
Result<Edit> plug(const Rig& rig, const Catalogue& catalogue, const std::string& lead, const std::string& socket);
/// A lead that ends at the part ends at this socket of the board with its other end. Errors: no such lead, no such
/// socket.
Result<Edit> lead_to_board(const Rig& rig, const Catalogue& catalogue, const std::string& lead, const std::string& part,
                           const std::string& socket);
/// A new lead from a part's terminal to a socket of the board, of the kind that the terminal carries. Errors: no such
/// terminal or socket.
Result<Edit> connect(const Rig& rig, const Catalogue& catalogue, const std::string& part, const std::string& terminal,
                     const std::string& socket);
/// The output's timer group sends its servos no more pulses than this, hertz. Errors: no such output; out of range.
Result<Edit> limit_rate(const Rig& rig, const Catalogue& catalogue, const std::string& output, double hz);
/// Every lead and output where the plan puts it.
Result<Edit> plan_all(const Rig& rig, const Catalogue& catalogue);
/// The same, of a plan that is made already.
Edit take_plan(const Plan& plan);
/// An output into another socket, with the leads that hang on it. An output that sits there already goes to the socket
/// that becomes free, with its own. Errors: no such output; no output socket of this class; a socket that is taken, for
/// an output that has none to give.
Result<Edit> plug_output(const Rig& rig, const Catalogue& catalogue, const std::string& output,
                         const std::string& socket);

/// Where a class leaves the choice: the throttle lead on the receiver, or through the board; the plan follows. Errors:
/// a class that leaves none; motors that steer, which the board has to mix; no motor.
Result<Edit> throttle_lead(const Rig& rig, const Catalogue& catalogue, bool on_receiver);

/// An output that passes a channel through, unmixed: for a camera switch, lights, a retract. Errors: a class that
/// can't; a channel beyond 1 to 32; no socket free.
Result<Edit> pass_channel(const Rig& rig, const Catalogue& catalogue, int channel);

/// Both schools of a unit between receiver and servos that has a regulator of its own. Apart: the red wire of every
/// lead from the receiver comes out, the receiver stays on the speed controller's regulator. Joined: they stay in, and
/// the speed controller's comes out. Errors: no such unit, or not both sources.
Result<Edit> red_wires(const Rig& rig, const Catalogue& catalogue, bool apart);

std::vector<EditEntry> wiring_edits();

}  // namespace rigging
