#include "airframe/edits.h"

#include "airframe/kinds.h"
#include "airframe/proportions.h"
#include "base/fields.h"
#include "base/json.h"
#include "base/units.h"
#include "catalogue/sockets.h"
#include "language/typed.h"

namespace rigging {

namespace {

/// New outputs go where the class wants them.
Edit settled(Edit edit, const Catalogue& catalogue) {
  if (const ControllerClass* c = catalogue.controller(edit.rig.controller.kind)) settle_in_sockets(edit.rig, *c);
  return edit;
}

}  // namespace

Result<Edit> change_kind(const Rig& rig, const Catalogue& catalogue, AirframeKind kind) {
  Edit edit{with_kind(rig, kind), "Airframe is now: " + facts_of(kind).name};
  edit.rig.airframe = with_guesses_following(std::move(edit.rig.airframe));
  return settled(std::move(edit), catalogue);
}

Result<Edit> measure(const Rig& rig, const std::string& member, std::optional<double> value) {
  auto edit = set_value(rig, "airframe/" + member, value ? Json(*value) : Json());
  if (edit) edit->rig.airframe = with_guesses_following(std::move(edit->rig.airframe));
  return edit;
}

Result<Edit> change_motors(const Rig& rig, const Catalogue& catalogue, Motors motors) {
  if (rig.airframe.kind == AirframeKind::towed_glider)
    return failure("motors", "a towed glider has none", "another kind of airframe");
  if (rig.airframe.kind == AirframeKind::twin_differential)
    return failure("motors", "two motors steer this kind instead of a rudder", "another kind of airframe");
  const char* words = motors == Motors::one   ? "One motor"
                      : motors == Motors::two ? "Two motors"
                                              : "Two motors that steer";
  return settled({with_motors(rig, motors), words}, catalogue);
}

Result<Edit> join_ailerons(const Rig& rig, const Catalogue& catalogue, bool joined) {
  if (!can_join_ailerons(rig.airframe.kind))
    return failure("ailerons", "of " + facts_of(rig.airframe.kind).name + " are none that could hang on one lead",
                   "a kind with two ailerons");
  if (rig.airframe.kind == AirframeKind::aileron_y_lead)
    return joined ? set_value(rig, "airframe/ailerons_joined", Json(true))
                  : change_kind(rig, catalogue, AirframeKind::two_ailerons);
  return settled(
      {with_joined_ailerons(rig, joined), joined ? "Both ailerons on a Y-lead" : "An output for each aileron"},
      catalogue);
}

Result<Edit> turn_propeller(const Rig& rig, PropellerSide side) {
  if (rig.airframe.kind == AirframeKind::towed_glider)
    return failure("propeller", "a towed glider has none", "another kind of airframe");
  Edit edit{rig, side == PropellerSide::pusher    ? "It is a pusher"
                 : side == PropellerSide::tractor ? "It is a tractor"
                                                  : "The propeller is where the kind usually has it"};
  edit.rig.airframe.propeller = side;
  return edit;
}

Result<Edit> change_class(const Rig& rig, const Catalogue& catalogue, const std::string& id) {
  const ControllerClass* c = catalogue.controller(id);
  if (!c) return failure(id, "is no controller class that is known", "an id of the catalogue");
  Edit edit{rig, "Controller is now: " + c->name};
  edit.rig.controller.kind = id;
  edit.rig.controller.firmware.clear();
  settle_in_sockets(edit.rig, *c);
  return edit;
}

Result<Edit> measure_wing(const Rig& rig, const Airframe& airframe) {
  if (const auto ok = in_range(airframe, "airframe"); !ok) return tl::make_unexpected(ok.error());
  Edit edit{rig, "Wing and cruise"};
  edit.rig.airframe = airframe;
  return edit;
}

Result<Edit> mount_board(const Rig& rig, bool mounted) {
  Edit edit{rig, mounted ? "Board mounted" : "Board loose"};
  edit.rig.controller.mounted = mounted;
  return edit;
}

std::vector<EditEntry> airframe_edits() {
  return {{"kind",
           "Another kind of airframe",
           {"KIND"},
           [](const Rig& rig, const Catalogue& catalogue, const std::vector<std::string>& given) -> Result<Edit> {
             const auto kind = from_name<AirframeKind>(given[0]);
             if (!kind) return failure(given[0], "is no kind of airframe", choice_of<AirframeKind>());
             return change_kind(rig, catalogue, *kind);
           }},
          {"motors",
           "One motor, two, or two that steer",
           {"one|two|two_steering"},
           [](const Rig& rig, const Catalogue& catalogue, const std::vector<std::string>& given) -> Result<Edit> {
             const auto motors = from_name<Motors>(given[0]);
             if (!motors) return failure(given[0], "is no number of motors", choice_of<Motors>());
             return change_motors(rig, catalogue, *motors);
           }},
          {"ailerons",
           "Both ailerons on one lead, or an output for each",
           {"joined|apart"},
           [](const Rig& rig, const Catalogue& catalogue, const std::vector<std::string>& given) -> Result<Edit> {
             if (given[0] != "joined" && given[0] != "apart") return failure(given[0], "is neither", "joined or apart");
             return join_ailerons(rig, catalogue, given[0] == "joined");
           }},
          {"propeller",
           "Whether it pulls or pushes",
           {"tractor|pusher|usual"},
           [](const Rig& rig, const Catalogue&, const std::vector<std::string>& given) -> Result<Edit> {
             const auto side = from_name<PropellerSide>(given[0]);
             if (!side) return failure(given[0], "is no side of a propeller", choice_of<PropellerSide>());
             return turn_propeller(rig, *side);
           }},
          {"class",
           "Another class of controller",
           {"CLASS"},
           [](const Rig& rig, const Catalogue& catalogue, const std::vector<std::string>& given) {
             return change_class(rig, catalogue, given[0]);
           }},
          {"measure",
           "A measure of the airframe; what is only guessed follows it",
           {"NAME", "VALUE"},
           [](const Rig& rig, const Catalogue&, const std::vector<std::string>& given) -> Result<Edit> {
             const auto value = typed_number(given[1], unit_of_name(given[0]));
             if (!value) return tl::make_unexpected(value.error());
             return measure(rig, given[0], *value);
           }},
          {"mounted",
           "Whether the board is mounted",
           {"yes|no"},
           [](const Rig& rig, const Catalogue&, const std::vector<std::string>& given) -> Result<Edit> {
             if (given[0] != "yes" && given[0] != "no") return failure(given[0], "is neither", "yes or no");
             return mount_board(rig, given[0] == "yes");
           }}};
}

}  // namespace rigging
