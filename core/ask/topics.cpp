#include "ask/topics.h"

#include "ask/sayings.h"
#include "base/fields.h"
#include "base/file.h"

namespace rigging {
namespace {

constexpr std::size_t most_topics = 2000;

struct TopicsFile {
  std::vector<Topic> topics;
  UnknownMembers unknown_members;
  bool operator==(const TopicsFile&) const = default;
};

}  // namespace

template <>
const Members& Described<Topic>::members() {
  static const Members all = Describe<Topic>()
                                 .needed("phrases", &Topic::phrases)
                                 .needed("text", &Topic::text)
                                 .member("station", &Topic::station)
                                 .member("subject", &Topic::subject)
                                 .member("says", &Topic::says)
                                 .member("view", &Topic::view)
                                 .member("tells", &Topic::tells)
                                 .rest(&Topic::unknown_members);
  return all;
}

template <>
const Members& Described<TopicsFile>::members() {
  static const Members all = Describe<TopicsFile>()
                                 .needed("topics", &TopicsFile::topics)
                                 .at_most(most_topics)
                                 .rest(&TopicsFile::unknown_members);
  return all;
}

Result<std::vector<Topic>> topics_of(std::string_view text, const std::string& name) {
  const auto json = parse_json(text, name);
  if (!json) return tl::make_unexpected(json.error());
  auto file = read_fields<TopicsFile>(*json, name);
  if (!file) return tl::make_unexpected(file.error());
  for (std::size_t i = 0; i < file->topics.size(); ++i) {
    const Topic& t = file->topics[i];
    const std::string where = name + ": topics/" + std::to_string(i);
    if (t.phrases.empty()) return failure(where + "/phrases", "is empty", "the words in which it is asked");
    if (!t.says.empty() && !saying_named(t.says))
      return failure(where + "/says", "\"" + t.says + "\" is no saying", "one of " + choice_of(saying_names()));
    if (!t.station && t.view == AskedView::none) return failure(where, "leads nowhere", "a station or a view");
  }
  return std::move(file->topics);
}

Interpretation answer_of(const Topic& t, const AskedOf& of) {
  Interpretation a;
  a.text = t.text, a.subject = t.subject, a.view = t.view;
  a.leads = t.view == AskedView::none && !t.tells;
  if (t.view == AskedView::none) a.station = t.station;
  if (const auto say = saying_named(t.says)) {
    const std::string own = say(of);
    if (t.tells)
      a.text += (t.text.ends_with(':') ? " " : ". ") + (own.empty() ? "not known yet" : own);
    else if (!own.empty())
      a.text = own, a.leads = false;
  }
  return a;
}

std::vector<Topic> topics_beside(const std::filesystem::path& data_folder) {
  const std::filesystem::path path = data_folder / "ask" / "topics.json";
  const auto text = read_file(path);
  auto topics = text ? topics_of(*text, path.string()) : Result<std::vector<Topic>>();
  return topics ? std::move(*topics) : std::vector<Topic>();
}

}  // namespace rigging
