#include "language/glossary.h"

#include "base/file.h"
#include "language/manual.h"

namespace rigging {

std::vector<Term> terms_of(std::string_view chapter) {
  std::vector<Term> terms;
  while (!chapter.empty()) {
    const std::size_t end = std::min(chapter.find('\n'), chapter.size());
    std::string_view line = chapter.substr(0, end);
    chapter.remove_prefix(std::min(end + 1, chapter.size()));
    constexpr std::string_view begin = "- ", mark = "**", next = ", ", colon = ": ";
    if (!line.starts_with(begin)) continue;
    line.remove_prefix(begin.size());
    Term term;
    while (line.starts_with(mark)) {
      const std::size_t close = line.find(mark, mark.size());
      if (close == std::string_view::npos) break;
      term.words.emplace_back(line.substr(mark.size(), close - mark.size()));
      line.remove_prefix(close + mark.size());
      if (line.starts_with(next)) line.remove_prefix(next.size());
    }
    if (term.words.empty() || !line.starts_with(colon)) continue;
    term.meaning = line.substr(colon.size());
    terms.push_back(std::move(term));
  }
  return terms;
}

std::vector<Term> terms_beside(const std::filesystem::path& data_folder) {
  const auto folder = manual_beside(data_folder);
  if (folder.empty()) return {};
  const auto chapter = read_file((folder / "glossary.md").string());
  return chapter ? terms_of(*chapter) : std::vector<Term>();
}

}  // namespace rigging
