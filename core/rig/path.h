#pragma once

#include <initializer_list>

#include "rig/rig.h"

/// Places of the document by name: "outputs/out_1/mix/roll". Entries of lists go by their first member (id, part,
/// number, surface), so that their order does not matter; "~" and "/" in such a name are written "~0" and "~1", as in
/// RFC 6901.
namespace rigging {

std::string path_of(std::initializer_list<std::string_view> steps);
/// The steps of a place, as they were before they were joined.
std::vector<std::string> steps_of(const std::string& place);

/// What a place calls this entry of a list: what its first member says. Empty when that is no text and no number.
std::string entry_name(const TypeInfo& list, const void* item);

/// What stands there; nothing when there is no such place, or when it is no single value. Surfaces of an output come as
/// one text.
Value value_at(const Rig& rig, const std::string& place);
Dependencies values_at(const Rig& rig, const std::vector<std::string>& places);

/// "output out_1, roll", for showing.
std::string place_words(const std::string& place);
/// "0.5", "yes", "1510 µs", "none".
std::string value_words(const std::string& place, const Value& value);

}  // namespace rigging
