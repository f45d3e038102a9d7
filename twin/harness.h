#pragma once

#include <set>

#include "catalogue/catalogue.h"
#include "power/power.h"
#include "rig/rig.h"
#include "supply.h"

namespace rigging::twin {

/// One lead that is not as the plan says.
struct LeadFault {
  enum class TypeInfo { pair_turned, plug_turned, red_missing, wrong_socket, other_baud, other_signal };
  TypeInfo kind = TypeInfo::pair_turned;
  std::string lead;
  std::string socket;  ///< where it sits, for a wrong one
};

/// "pair_turned:gps", "plug_turned:servo_rudder", "red_missing:esc_signal", "wrong_socket:module_sense,serial_3".
Result<LeadFault> lead_fault_from_text(const std::string& text, const Rig& rig, const Catalogue& catalogue);
std::string lead_fault_text(const LeadFault& fault);
/// Draws faults that show on this loom. The same seed draws the same.
std::vector<LeadFault> drawn_lead_faults(const Rig& rig, const Catalogue& catalogue, int count, unsigned seed);

/// The leads as they really are, and what follows: who is lit, who is heard, what the board measures. A rig without
/// leads is taken as wired well.
class Harness {
 public:
  Harness() = default;
  Harness(const Rig& planned, Catalogue catalogue, const std::vector<LeadFault>& faults);

  /// True when the rig plans its leads; otherwise everything reaches everything.
  bool laid() const { return laid_; }
  /// Puts supplies in. A plug that sits the wrong way round destroys its part as soon as its rail is live.
  void power(Supply supply);

  /// What the board's ports have been told since its last start.
  void told(std::vector<Port> ports, std::optional<Signal> signal);

  bool controller_powered() const { return !laid_ || powered("controller"); }
  bool servo_rail_powered() const;
  /// The receiver has supply and what it says reaches the board.
  bool receiver_heard() const;
  bool servo_works(Surface surface) const;
  enum class Line { silent, garbled, clear };
  /// How what a part of this kind says on its data pair arrives at the board: silent without supply or with the pair
  /// turned, garbled with another baud.
  Line line_of(PartGroup group) const;
  bool has(PartGroup group) const;
  /// What the board measures; 0 without a measuring lead in its socket.
  double battery_v() const;
  /// Per port of the board with a lead in it: true when data arrives.
  std::map<std::string, bool> ports() const;

  /// What eyes see of one lead with everything dark; an error while a supply is in, or when there is no such lead.
  Result<Json> inspect(const std::string& lead) const;
  /// Puts the lead as planned. What is destroyed stays destroyed.
  Result<void> mend(const std::string& lead);
  const std::set<std::string>& destroyed() const { return destroyed_; }

 private:
  bool powered(const std::string& part) const;
  bool talks(const Lead& lead) const;
  void settle();

  bool laid_ = false;
  Rig planned_, wired_;
  Catalogue catalogue_;
  Supply supply_;
  std::set<std::string> destroyed_, powered_;
  bool servo_rail_ = false;
};

}  // namespace rigging::twin
