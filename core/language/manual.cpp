#include "language/manual.h"

#include <algorithm>
#include <system_error>

#include "base/file.h"

namespace rigging {
namespace {

/// "![picture](x)" is left out, of "[word](link)" the word stays, marks of emphasis go.
std::string unmarked(std::string_view marked) {
  std::string text;
  for (std::size_t i = 0; i < marked.size(); ++i) {
    const bool picture = marked.substr(i).starts_with("![");
    if (picture || marked[i] == '[') {
      const std::size_t from = i + (picture ? 2 : 1), close = marked.find("](", from), end = marked.find(')', close);
      if (close != std::string_view::npos && end != std::string_view::npos) {
        if (!picture) text += unmarked(marked.substr(from, close - from));
        i = end;
        continue;
      }
    }
    if (marked[i] != '*' && marked[i] != '`') text += marked[i] == '\n' ? ' ' : marked[i];
  }
  return text;
}

std::vector<std::string> sentences_of(const std::string& text) {
  std::vector<std::string> all;
  std::size_t from = 0;
  for (std::size_t i = 0; i < text.size(); ++i) {
    const bool last = i + 1 == text.size();
    if (!last && !((text[i] == '.' || text[i] == '?' || text[i] == '!') && text[i + 1] == ' ')) continue;
    const std::size_t begin = text.find_first_not_of(' ', from);
    if (begin != std::string::npos && begin <= i) all.push_back(text.substr(begin, i + 1 - begin));
    from = i + 1;
  }
  return all;
}

}  // namespace

std::string Passage::text() const {
  std::string all;
  for (const std::string& s : sentences) all += (all.empty() ? "" : " ") + s;
  return all;
}

std::vector<Passage> passages_of(std::string_view chapter, const std::string& name) {
  std::vector<Passage> all;
  while (!chapter.empty()) {
    const std::size_t end = std::min(chapter.find("\n\n"), chapter.size());
    const std::string_view block = chapter.substr(0, end);
    chapter.remove_prefix(std::min(end + 2, chapter.size()));
    if (block.starts_with('#') || block.starts_with("```") || block.starts_with('|')) continue;
    Passage p{name, sentences_of(unmarked(block))};
    if (!p.sentences.empty()) all.push_back(std::move(p));
  }
  return all;
}

std::filesystem::path manual_beside(const std::filesystem::path& data_folder) {
  std::error_code none;
  for (const auto& folder : {data_folder / "manual", data_folder / ".." / "docs" / "manual"})
    if (std::filesystem::exists(folder / "glossary.md", none)) return folder;
  return {};
}

std::vector<Passage> passages_beside(const std::filesystem::path& data_folder) {
  std::vector<Passage> all;
  const auto folder = manual_beside(data_folder);
  if (folder.empty()) return all;
  std::vector<std::filesystem::path> chapters;
  std::error_code none;
  for (const auto& entry : std::filesystem::directory_iterator(folder, none))
    if (const auto& p = entry.path(); p.extension() == ".md" && p.stem() != "glossary" && p.stem() != "README")
      chapters.push_back(p);
  std::sort(chapters.begin(), chapters.end());
  for (const auto& path : chapters)
    if (const auto text = read_file(path.string()))
      for (Passage& p : passages_of(*text, path.stem().string())) all.push_back(std::move(p));
  return all;
}

}  // namespace rigging
