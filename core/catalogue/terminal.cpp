#include "catalogue/terminal.h"

#include <algorithm>

namespace rigging {
namespace {

constexpr std::pair<TerminalKind, TerminalKind> pairs[] = {
    {TerminalKind::output, TerminalKind::pulse_input},
    {TerminalKind::summed_output, TerminalKind::summed_input},
    {TerminalKind::inverted_serial, TerminalKind::serial_inverting},
    {TerminalKind::serial, TerminalKind::serial},
    {TerminalKind::serial, TerminalKind::serial_inverting},
    {TerminalKind::two_wire, TerminalKind::two_wire},
    {TerminalKind::sense_output, TerminalKind::sense_input},
    {TerminalKind::video_out, TerminalKind::video_in},
    {TerminalKind::battery_out, TerminalKind::battery_in},
    {TerminalKind::motor_out, TerminalKind::motor_in},
    {TerminalKind::power, TerminalKind::power_in},
    {TerminalKind::supply, TerminalKind::power_in},
    {TerminalKind::output, TerminalKind::power_in},
    {TerminalKind::supply, TerminalKind::output},
    {TerminalKind::supply, TerminalKind::pulse_input},
    {TerminalKind::supply, TerminalKind::power},
    {TerminalKind::battery_out, TerminalKind::power_in},
    {TerminalKind::switched, TerminalKind::switched_in}};

}  // namespace

bool Terminal::serves_as(TerminalKind wanted) const {
  return kind == wanted || std::find(also.begin(), also.end(), wanted) != also.end();
}

bool mates(const Terminal& a, const Terminal& b) {
  return std::any_of(std::begin(pairs), std::end(pairs), [&](const auto& p) {
    return (a.serves_as(p.first) && b.serves_as(p.second)) || (a.serves_as(p.second) && b.serves_as(p.first));
  });
}

bool carries_plus(TerminalKind kind) {
  switch (kind) {
    case TerminalKind::ground:
    case TerminalKind::video_in:
    case TerminalKind::video_out:
    case TerminalKind::motor_in:
    case TerminalKind::motor_out: return false;
    default: return true;
  }
}

}  // namespace rigging
