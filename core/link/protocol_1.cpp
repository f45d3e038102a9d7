#include "link/protocol_1.h"

#include <array>
#include <sstream>

#include "base/number.h"

namespace rigging::link {
namespace {

/// A list of the board: the members of one entry in their order. The last may be absent; none: words alone.
struct ListOfTexts {
  const char* name;
  std::vector<const char*> members;
  std::size_t least;
};
const std::array<ListOfTexts, 3> lists{
    {{"modes", {"mode", "channel", "from_us", "to_us"}, 4}, {"triggers", {"on", "does", "at"}, 2}, {"goggles", {}, 1}}};
constexpr std::size_t most_entries = 64;

std::string word_of(const Json& value) {
  return value.is_number() ? number_text(value.get<double>(), 3) : value.is_string() ? value.get<std::string>() : "";
}

std::string text_of(const Json& list, const ListOfTexts& form) {
  std::string text;
  for (const Json& entry : list) {
    std::string words = entry.is_object() ? "" : word_of(entry);
    for (const char* member : form.members)
      if (entry.contains(member)) words += (words.empty() ? "" : " ") + word_of(entry[member]);
    text += (text.empty() ? "" : "; ") + words;
  }
  return text;
}

/// Nothing where it is no such text.
std::optional<Json> list_of(const std::string& text, const ListOfTexts& form) {
  Json list = Json::array();
  std::istringstream entries(text);
  for (std::string entry; std::getline(entries, entry, ';');) {
    std::istringstream in(entry);
    std::vector<std::string> words;
    for (std::string w; in >> w;) words.push_back(w);
    if (words.size() < form.least || words.size() > std::max<std::size_t>(form.members.size(), 1)) return std::nullopt;
    if (list.size() >= most_entries) return std::nullopt;
    Json item = Json::object();
    for (std::size_t i = 0; i < form.members.size() && i < words.size(); ++i) {
      const auto number = number_of(words[i]);
      item[form.members[i]] = number ? Json(*number) : Json(words[i]);
    }
    list.push_back(form.members.empty() ? Json(words[0]) : std::move(item));
  }
  return list.empty() ? std::nullopt : std::optional(std::move(list));
}

}  // namespace

Json to_protocol_1(Json image) {
  rename_member(image, "saturation", "sharing");
  for (Json& output : image["outputs"]) rename_member(output, "passthrough_channel", "passes");
  for (const ListOfTexts& form : lists)
    if (image.contains(form.name)) image[form.name] = text_of(image[form.name], form);
  return image;
}

Json from_protocol_1(Json image) {
  if (!image.is_object()) return image;
  rename_member(image, "sharing", "saturation");
  if (image.contains("outputs") && image["outputs"].is_array())
    for (Json& output : image["outputs"]) rename_member(output, "passes", "passthrough_channel");
  for (const ListOfTexts& form : lists)
    if (image.contains(form.name) && image[form.name].is_string())
      if (auto list = list_of(image[form.name].get_ref<const std::string&>(), form))
        image[form.name] = std::move(*list);
  return image;
}

}  // namespace rigging::link
