#pragma once

#include "base/json_fwd.h"
#include "catalogue/catalogue.h"
#include "rig/rig.h"

/// Edits: a new rig from an old one, with what the undo list says of it. Screens, ask box and command line call the
/// same.
namespace rigging {

struct Edit {
  Rig rig;
  std::string label;
};

/// One that can be asked for by name, with words (`rigging-cli edit RIG NAME …`).
struct EditEntry {
  std::string name;  ///< "add-part"
  std::string help;
  std::vector<std::string> arguments;  ///< what each word is, for the usage: "KIND"
  /// `given` has as many words as `arguments`.
  Result<Edit> (*apply)(const Rig&, const Catalogue&, const std::vector<std::string>& given) = nullptr;
};

/// Any single value of the document, by its place (rig/place.h): type, range and what belongs together are checked as
/// when a file is read. Null clears what may be absent.
Result<Edit> set_value(const Rig& rig, const std::string& place, const Json& value);
/// Several at once, by their places: only the rig that has them all is checked. The first place gives the label.
Result<Edit> set_values(const Rig& rig, const std::vector<std::pair<std::string, Json>>& values);
/// The value in words: a number, yes or no, true or false, nothing, or a text.
Result<Edit> set_value_in_words(const Rig& rig, const std::string& place, const std::string& words);

/// Edits that belong to no station.
std::vector<EditEntry> general_edits();

}  // namespace rigging
