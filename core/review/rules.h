#pragma once

#include <variant>

#include "review/review.h"

namespace rigging {

struct DeferredReview;

/// What a rule looks at. `controller` is null when the rig names a class that the catalogue does not have.
struct Inspection {
  const Rig& rig;
  const Catalogue& catalogue;
  const ControllerClass* controller;
  const Reports& reports;
  const std::vector<CheckStatus>& checks;
  const std::vector<LooseEnd>& due;
  const DeferredReview* deferred = nullptr;  ///< for rules of the second tier, which find no checks

  Inspection(const Reports& of, const std::vector<CheckStatus>& checks_of, const std::vector<LooseEnd>& due_of,
             const DeferredReview* deferred_of = nullptr)
      : rig(of.rig()),
        catalogue(of.catalogue()),
        controller(of.controller()),
        reports(of),
        checks(checks_of),
        due(due_of),
        deferred(deferred_of) {}
};

/// When a rule can be asked: at once after an edit, or when the worker has the second tier.
enum class Tier { at_once, deferred };

/// Takes what one rule finds.
class Findings {
 public:
  Findings(std::string_view code, Station station, const char* source, std::vector<Snag>& snags)
      : code_(code), station_(station), source_(source), snags_(snags) {}

  /// The snag, so that a fix can be put to it. Good until the next one is added.
  Snag& add(Severity severity, std::string subject, std::string what, std::string why, std::string remedy);
  std::string_view code() const { return code_; }

 private:
  std::string_view code_;
  Station station_;
  const char* source_;
  std::vector<Snag>& snags_;
};

/// One rule: a stable code, where it belongs, what it rests on, and a function that adds the snags it finds.
struct Rule {
  std::string_view code;
  Station station;
  void (*inspect)(const Inspection&, Findings&);
  const char* source;
  Tier tier = Tier::at_once;
};

/// What the rules of one tier find, in the order of the stations.
std::vector<Snag> found_by_rules(const Inspection& inspection, Tier tier);

/// A fix that sets single values, by their places in the document (rig/place.h).
using PlacedValue = std::pair<std::string, std::variant<bool, double, std::string>>;
Fix sets(std::string label, std::vector<PlacedValue> values);

/// Says for all that wants leads that there are none yet.
inline constexpr std::string_view nothing_wired_code = "WIRING-38";

/// What rules rest on.
namespace source {
inline constexpr const char common[] = "common practice";
inline constexpr const char plan[] = "the plan itself: two places of it disagree, or one is empty";
inline constexpr const char proof[] = "what was proven, and what it depended on";
inline constexpr const char catalogue[] = "what the catalogue says of the class or part";
inline constexpr const char board[] = "abilities of the controller class";
inline constexpr const char terminals[] = "what the two terminals carry";
inline constexpr const char timer[] = "outputs of one timer share their pulse rate";
inline constexpr const char baud[] = "baud of the part against the port's";
inline constexpr const char inverted[] = "idle-low framed serial needs an inverting input";
inline constexpr const char geometry[] = "the measures typed in";
inline constexpr const char figures[] = "wing loading is mass by area";
inline constexpr const char statics[] = "sum of moments of the weighed and placed parts";
inline constexpr const char margin[] = "static margin between balance point and neutral point";
inline constexpr const char cube[] = "the 24 proper rotations of the cube";
inline constexpr const char field[] = "Biot–Savart; World Magnetic Model 2025";
inline constexpr const char wmm[] = "World Magnetic Model 2025";
inline constexpr const char network[] = "Kirchhoff's laws on the rails, with the currents of the parts";
inline constexpr const char ohm[] = "Ohm's law; copper at 20 °C, ASTM B258";
inline constexpr const char junction[] = "junction = ambient + P·θJA";
inline constexpr const char heat[] = "heat = (Vin − Vout)·I";
inline constexpr const char window[] = "voltage window of the part";
inline constexpr const char rating[] = "rating of the part";
inline constexpr const char usb[] = "USB 2.0: 500 mA a port";
inline constexpr const char drive[] = "motor equation and propeller coefficients";
inline constexpr const char hinge[] = "hinge moment by thin aerofoil theory, as a band";
inline constexpr const char sign[] = "required directions of ISO 1151 axes on each surface";
inline constexpr const char mix[] = "sum of the weights at full commands";
inline constexpr const char fourbar[] = "planar four-bar (Freudenstein 1954)";
inline constexpr const char loop[] = "margins of the loop over speed, with their band";
inline constexpr const char fins[] = "vortex lattice and fins by Helmbold; body after Munk (NACA report 184)";
inline constexpr const char triangle[] = "drift triangle and the currents of the way";
inline constexpr const char turn[] = "coordinated turn: radius V²/(g·tan bank), FAA-H-8083-25";
inline constexpr const char pulse[] = "pulse = centre + travel, as the transmitter counts";
}  // namespace source

const std::vector<Rule>& airframe_rules();
const std::vector<Rule>& fit_rules();
const std::vector<Rule>& feel_rules();
const std::vector<Rule>& home_rules();
const std::vector<Rule>& power_rules();
const std::vector<Rule>& lead_rules();    ///< the wiring: sockets, what mates, lengths and sections
const std::vector<Rule>& output_rules();  ///< the wiring: which output drives what, and how fast
const std::vector<Rule>& surfaces_rules();
const std::vector<Rule>& sticks_rules();
const std::vector<Rule>& senses_rules();
const std::vector<Rule>& proof_rules();

}  // namespace rigging
