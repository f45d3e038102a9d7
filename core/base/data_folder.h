#pragma once

#include <filesystem>

namespace rigging {

/// The folder of catalogue, demo rigs, schema, magnetic model: `data` beside the program or in the folder above it,
/// then the installed place (share/rigging beside the program's bin), then the source tree that it was built from. The
/// first that holds a catalogue counts; without any the last one, so that the error names a place.
std::filesystem::path data_folder();
/// The same for a program in `bin`.
std::filesystem::path data_folder(const std::filesystem::path& bin);

/// Another program of the suite, beside this one; its bare name, to be found on the path, when it is not there.
std::filesystem::path program_beside(const std::string& name);

}  // namespace rigging
