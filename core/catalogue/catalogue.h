#pragma once

#include <filesystem>

#include "catalogue/controller_class.h"
#include "catalogue/part_kind.h"
#include "earth/magnetic_model.h"

/// Kinds of parts and classes of controllers, with the model of the earth's field. Reads data/catalogue, data/magnetic
/// and, beside a rig, the builder's own file.
namespace rigging {

/// What hands can and must do with any class.
struct SharedByAll {
  std::vector<RemedySteps> remedies;
  std::vector<HandStep> steps;
};

struct Catalogue {
  std::vector<ControllerClass> controllers;
  std::vector<PartKind> parts;
  SharedByAll shared;
  std::optional<MagneticModel> earth;  ///< shipped beside the catalogue; absent when it could not be read

  const ControllerClass* controller(const std::string& id) const;
  const PartKind* part(const std::string& id) const;
};

/// The rig's parts of this group, in its order.
std::vector<const Part*> parts_of(const Rig& rig, const Catalogue& catalogue, PartGroup group);
/// The smallest switching regulator whose outlet lies between two voltages and gives so much; null when there is none.
const PartKind* least_regulator(const Catalogue& catalogue, double least_v, double most_v, double amps);

/// Reads every *.json of the folder, and the magnetic model from the folder magnetic beside it. Ids must differ.
Result<Catalogue> load_catalogue(const std::filesystem::path& folder);

/// Adds the user's own parts: `{"format":"parts","version":1,"parts":[…],"controllers":[…]}`. An id that exists already
/// is an error.
Result<void> add_own_parts(Catalogue& catalogue, const std::filesystem::path& file);

/// "model.rig.json" has its own parts in "model.parts.json" beside it.
std::filesystem::path own_parts_path(const std::filesystem::path& rig_file);

/// Adds the kind to the user's own file, or puts it in the place of one with the same id; everything else in the file
/// is kept.
Result<void> save_own_part(const std::filesystem::path& file, const PartKind& kind);

/// The same for a class of the builder's own. What every class has (`shared`) is not written.
Result<void> save_own_class(const std::filesystem::path& file, const ControllerClass& own, const SharedByAll& shared);
/// What stands in one file of the builder's own comes into another one as well, beside what is there. Refused before
/// anything is written when something else has one of the names there. No file, nothing to carry.
Result<void> carry_own_parts(const std::filesystem::path& from, const std::filesystem::path& to);
/// The class without what every class has, and without the cures that follow from its settings.
ControllerClass bare(ControllerClass own, const SharedByAll& shared);

/// The classes of somebody's parts file. Errors: what can't be read, or holds none.
Result<std::vector<ControllerClass>> classes_in(const std::filesystem::path& file);

/// A board of the builder's own, begun as the nearest class there is.
ControllerClass own_class(const ControllerClass& nearest, std::string id, std::string name);

/// JSON Schema of a parts file, as shipped in data/schema.
OrderedJson parts_schema();

/// What one kind says of itself must fit together: ids that differ, loads and feeds on nets that exist, windows the
/// right way round, the figures of its group.
Result<void> consistent(const PartKind& kind, const std::string& where);
/// The same of a class; and its sockets lie on it, each at an edge that there is, pulse outputs in timer groups.
Result<void> consistent(const ControllerClass& own, const std::string& where);

}  // namespace rigging
