#include "sticks/stick_checks.h"

#include "rig/path.h"
#include "sticks/sticks.h"

namespace rigging {
namespace {

std::vector<std::string> calibration_places(const CheckContext& in, const std::string&) {
  std::vector<std::string> all{"controller/kind"};
  for (const Channel& c : in.rig.radio.channels)
    if (is_stick(c.function))
      for (const char* member :
           {"function", "reversed", "sub_trim_us", "travel_low_percent", "travel_high_percent", "learned"})
        all.push_back(path_of({"radio", "channels", std::to_string(c.number), member}));
  return all;
}

std::vector<std::string> loss_places(const CheckContext& in, const std::string&) {
  std::vector<std::string> all{"radio/on_loss", "controller/kind", "home/on_loss"};
  for (const Part* p : parts_of(in.rig, in.catalogue, PartGroup::receiver))
    all.push_back(path_of({"parts", p->id, "kind"}));
  return all;
}

std::string failing_sticks(const CheckContext& in, const std::string&) {
  const SticksReport r = analyze_sticks(in.rig, in.catalogue);
  return !r.all_read ? "not every stick has been read" : !r.all_land ? "not every stick lands" : "";
}

CheckCard sticks_card(const CheckContext&, const std::string&) {
  return {"Sticks calibrated",
          "",
          "At station sticks, let the controller listen while each stick goes to its ends and back.",
          "Every stick lands on its marks.",
          "",
          {"Propeller off: the throttle will be opened."}};
}

CheckCard loss_card(const CheckContext&, const std::string&) {
  return {"Loss of signal noticed",
          "",
          "At station sticks, try the loss: transmitter off.",
          "The motor stops, and the controller reports the loss.",
          "",
          {"Propeller off. Hold the model where nothing can catch the surfaces or the shaft."}};
}

}  // namespace

std::vector<CheckFamily> hearing_checks() {
  CheckFamily calibrated = reading_family(sticks_calibrated, Station::sticks, "Sticks calibrated");
  calibrated.depends_on = calibration_places;
  calibrated.card = sticks_card;
  calibrated.why_not = failing_sticks;
  CheckFamily loss = reading_family(loss_noticed, Station::sticks, "Loss noticed");
  loss.depends_on = loss_places;
  loss.card = loss_card;
  return {calibrated, loss};
}

}  // namespace rigging
