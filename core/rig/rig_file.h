#pragma once

#include <filesystem>

#include "rig/rig.h"

namespace rigging {

/// Reads a rig of any version up to `rig_version`. Errors name the path inside the file and what was expected.
/// Beyond the shape it refuses repeated ids, a surface on two outputs and ends that do not enclose the centre.
Result<Rig> rig_from_json(const Json& json, const std::string& file);

/// JSON Schema of the file, as shipped in data/schema.
OrderedJson rig_schema();

/// Canonical member order; members of unknown origin follow the known ones, sorted.
OrderedJson rig_to_json(const Rig& rig);

/// Two-space indented text that ends in a line feed; the same rig always gives the same bytes.
std::string rig_text(const Rig& rig);

Result<Rig> load_rig(const std::filesystem::path& path);
/// The same from a text that was read already; `file` is for messages.
Result<Rig> rig_from_text(const std::string& text, const std::string& file);
/// Would a file that holds this rig be read again? An error says in words which value is not as it may be: what no file
/// can hold is to be refused where it is typed.
Result<void> can_be_kept(const Rig& rig);
/// Nothing is written when the text would not be read again.
Result<void> save_rig(const Rig& rig, const std::filesystem::path& path);

/// As much of a rig as a damaged text, or one beyond the limits, still says.
struct PartOfRig {
  Rig rig;
  std::vector<Error> left_out;  ///< what is not as it was written, with its place; empty when all of it is there
};
/// Errors: no rig at all, or one of a newer version.
Result<PartOfRig> rig_as_far_as_it_goes(const std::string& text, const std::string& file);

/// A safety copy of unsaved work.
struct RigCopy {
  Rig rig;
  std::string of;                    ///< the file it belongs to; empty when it never had one
  std::string before;                ///< a digest of what that file held then; empty when it is not known
  std::vector<Error> left_out = {};  ///< what of it can't be read any more; the rest is here
};
Result<RigCopy> load_copy(const std::filesystem::path& path);
Result<void> save_copy(const RigCopy& copy, const std::filesystem::path& path);

}  // namespace rigging
