#pragma once

#include <functional>
#include <string>
#include <vector>

#include "review/rules.h"

/// What the rules of leads and of outputs share.
namespace rigging::rules::wiring {

std::string name(const Inspection& in, const std::string& part);
const Terminal* terminal(const Inspection& in, const LeadEnd& end);
std::string at(const Inspection& in, const LeadEnd& end);
PartGroup group_of(const Inspection& in, const std::string& part);
/// Every lead that touches the controller, with both ends in order.
struct Touch {
  const Lead* lead;
  const LeadEnd *board, *other;
  const Terminal *socket, *end;  ///< null when unknown
};
std::vector<Touch> touches(const Inspection& in);
/// The lead's end at the controller, moved to another socket.
Fix move_end(const Touch& t, const Terminal& to);
/// Does any lead touch the part?
bool plugged(const Inspection& in, const std::string& part);
bool socket_used(const Inspection& in, const std::string& socket);
/// To plan the wiring; nothing where the plan would change nothing, or has no place for the subject.
std::optional<Fix> replan(const Inspection& in, const std::string& subject, const std::string& label);
/// What the plan says of a subject that finds no place; null when it has none to say.
const Obstacle* obstacle_of(const Inspection& in, const std::string& subject);

}  // namespace rigging::rules::wiring
