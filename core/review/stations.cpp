#include "review/stations.h"

#include <algorithm>

#include "airframe/edits.h"
#include "direction/direction_checks.h"
#include "direction/mode_checks.h"
#include "feel/edits.h"
#include "feel/feel_checks.h"
#include "fit/edits.h"
#include "fit/swing_procedure.h"
#include "home/edits.h"
#include "home/home_checks.h"
#include "home/home_procedures.h"
#include "proof/edits.h"
#include "proof/hand_steps.h"
#include "proof/proof_procedure.h"
#include "senses/air_procedures.h"
#include "senses/sense_checks.h"
#include "senses/still_procedures.h"
#include "sticks/edits.h"
#include "sticks/stick_checks.h"
#include "sticks/sticks_procedure.h"
#include "surfaces/edits.h"
#include "surfaces/release.h"
#include "surfaces/surface_checks.h"
#include "surfaces/throws_procedure.h"
#include "wiring/edits.h"
#include "wiring/lead_checks.h"

namespace rigging {
namespace {

template <class T>
std::vector<T> joined(std::vector<T> all, const std::vector<T>& more) {
  all.insert(all.end(), more.begin(), more.end());
  return all;
}

bool has_parts(const Rig& rig, const Review&) { return !rig.parts.empty(); }
bool sticks_read(const Rig&, const Review& r) { return r.reports.sticks().all_read; }
bool senses_known(const Rig& rig, const Review&) {
  return rig.sensing.accelerometer || rig.sensing.compass || rig.sensing.level_nose_up_deg ||
         !rig.sensing.reported.empty();
}
bool gains_known(const Rig& rig, const Review&) { return !rig.feel.gains.empty() || !rig.feel.learned.empty(); }
bool loss_decided(const Rig& rig, const Review&) { return rig.home.on_loss != LossAction::undecided; }
bool never(const Rig&, const Review&) { return false; }

template <class P>
std::unique_ptr<Procedure> make() {
  return std::make_unique<P>();
}

StationEntry planned(Station station, const char* question, const char* to_come) {
  StationEntry e;
  e.station = station;
  e.question = question;
  e.started = never;
  e.to_come = to_come;
  return e;
}

std::vector<StationEntry> built() {
  using S = Station;
  std::vector<StationEntry> all;
  all.push_back({.station = S::airframe,
                 .question = "What am I building, and with which controller?",
                 .rules = airframe_rules(),
                 .edits = airframe_edits()});
  all.push_back({.station = S::fit,
                 .question = "Where does everything go, which way up?",
                 .rules = fit_rules(),
                 .edits = fit_edits(),
                 .procedures = {{"swing", "Swing test: how hard it is to turn", "", make<SwingProcedure>}},
                 .started = has_parts});
  all.push_back(
      {.station = S::power, .question = "Will the five-volt rail hold?", .rules = power_rules(), .started = has_parts});
  all.push_back({.station = S::wiring,
                 .question = "What plugs in where?",
                 .rules = joined(lead_rules(), output_rules()),
                 .checks = {lead_checks()},
                 .edits = wiring_edits(),
                 .started = has_parts});
  all.push_back(
      {.station = S::sticks,
       .question = "Does the controller hear what I mean?",
       .rules = sticks_rules(),
       .checks = hearing_checks(),
       .edits = sticks_edits(),
       .procedures = {{"sticks", "Listen to the sticks, find switches, try the loss", "", make<SticksProcedure>}},
       .started = sticks_read});
  all.push_back({.station = S::surfaces,
                 .question = "Does everything move the right way, by the right amount?",
                 .rules = surfaces_rules(),
                 .checks = throw_checks(),
                 .edits = surfaces_edits(),
                 .procedures = {{"throws", "Read the throws with a gauge", "SURFACE", make<ThrowsProcedure>}}});
  all.push_back({.station = S::senses,
                 .question = "Does it know which way is up and north?",
                 .rules = senses_rules(),
                 .checks = sense_checks(),
                 .procedures = {{"found", "What the board finds", "", make<FoundProcedure>},
                                {"gyro", "Still at power-up", "", make<GyroProcedure>},
                                {"rotation", "Find how the board sits", "", make<RotationProcedure>},
                                {"accelerometer", "Calibrate the accelerometer", "", make<AccelerometerProcedure>},
                                {"level", "Set the level attitude", "", make<LevelProcedure>},
                                {"compass", "Calibrate the compass", "", make<CompassProcedure>},
                                {"motor", "Run the motor: shaking, and the compass", "", make<MotorProcedure>},
                                {"sky", "Listen to the satellite receiver", "", make<SkyProcedure>},
                                {"air", "Look at barometer and airspeed", "", make<AirProcedure>}},
                 .started = senses_known});
  all.push_back({.station = S::feel,
                 .question = "How hard may it correct?",
                 .rules = feel_rules(),
                 .edits = feel_edits(),
                 .started = gains_known});
  all.push_back({.station = S::home,
                 .question = "What happens when the link goes?",
                 .rules = home_rules(),
                 .edits = home_edits(),
                 .procedures = {{"loss", "Transmitter off: does it do what is planned?", "", make<LossProcedure>},
                                {"positions", "Every switch through every position", "", make<PositionsProcedure>},
                                {"arming", "Why does it not arm?", "", make<ArmingProcedure>}},
                 .started = loss_decided});
  all.push_back(
      {.station = S::proof,
       .question = "Is it ready?",
       .rules = proof_rules(),
       .checks = joined(std::vector<CheckFamily>{stick_checks(), flap_check(), correction_checks(), lean_check(),
                                                 mode_checks(), gain_check(), release_check(), put_back_checks()},
                        joined(joined(feel_checks(), home_checks()), std::vector<CheckFamily>{prepare_checks()})),
       .edits = proof_edits(),
       .procedures = {{"proof", "Walk through the bench checks", "CHECK", make<ProofProcedure>}},
       .started = never});
  all.push_back(planned(S::logbook, "What did the flight tell me?",
                        "Not built yet. Here flights will be written down and turned into the next change."));
  return all;
}

/// What is found early throws nothing away that was measured: what can be seen on USB, the leads, the sticks, a look at
/// the directions, then centres and throws, the corrections, level, and gains back down; the loss once for all that
/// want it; then under the sky (common practice).
std::size_t turn_of(const std::string& family) {
  static const std::vector<std::string> order{prepare_family,
                                              gyro_still.family,
                                              rotation_known.family,
                                              accelerometer_calibrated.family,
                                              lead_family,
                                              sticks_calibrated.family,
                                              wakes_still.family,
                                              stick_family,
                                              flaps_droop.family,
                                              surfaces_centred.family,
                                              throws_equal.family,
                                              tow_release.family,
                                              correction_family,
                                              rudder_leans.family,
                                              mode_family,
                                              gain_ends.family,
                                              level_told.family,
                                              level_stored.family,
                                              correction_amount.family,
                                              put_back_family,
                                              first_gains_set.family,
                                              barely_moves.family,
                                              loss_noticed.family,
                                              loss_planned.family,
                                              positions_planned.family,
                                              button_guards.family,
                                              low_battery_warns.family,
                                              compass_calibrated.family,
                                              fix_seen.family,
                                              arming_waits.family,
                                              range_tested.family};
  return static_cast<std::size_t>(std::find(order.begin(), order.end(), family) - order.begin());
}

}  // namespace

std::vector<StationEntry>& stations() {
  static std::vector<StationEntry> all = built();
  return all;
}

const StationEntry& entry_of(Station station) {
  for (const StationEntry& e : stations())
    if (e.station == station) return e;
  return stations().front();
}

std::vector<EditEntry> all_edits() {
  std::vector<EditEntry> all = general_edits();
  for (const StationEntry& e : stations()) all.insert(all.end(), e.edits.begin(), e.edits.end());
  return all;
}

std::vector<ProcedureEntry> all_procedures() {
  std::vector<ProcedureEntry> all;
  for (const StationEntry& e : stations()) all.insert(all.end(), e.procedures.begin(), e.procedures.end());
  return all;
}

std::vector<const CheckFamily*> check_families() {
  std::vector<const CheckFamily*> all;
  for (const StationEntry& e : stations())
    for (const CheckFamily& f : e.checks) all.push_back(&f);
  std::stable_sort(all.begin(), all.end(),
                   [](const CheckFamily* a, const CheckFamily* b) { return turn_of(a->id) < turn_of(b->id); });
  return all;
}

}  // namespace rigging
