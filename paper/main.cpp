#include <iostream>
#include <iterator>

#include "paper.h"

/// Drawings in SVG on standard input, a zero byte behind each, become the pages of one PDF.
int main(int argc, char** argv) {
  if (argc != 2 || std::string_view(argv[1]).starts_with("-")) {
    std::cerr << "usage: rigging-paper FILE.pdf < drawings in SVG, a zero byte behind each\n";
    return 2;
  }
  const std::string all{std::istreambuf_iterator<char>(std::cin), {}};
  std::vector<std::string> pages;
  for (std::size_t from = 0, to = all.find('\0'); to != all.npos; from = to + 1, to = all.find('\0', from))
    pages.push_back(all.substr(from, to - from));
  if (pages.empty()) {
    std::cerr << "rigging-paper: standard input holds no drawing; expected SVG with a zero byte behind it\n";
    return 2;
  }
  const auto written = rigging::write_pdf(pages, argv[1]);
  if (written) return 0;
  std::cerr << "rigging-paper: " << written.error().text() << '\n';
  return 2;
}
