#pragma once

#include <ostream>
#include <streambuf>

namespace rigging::cli {

/// While it lives, what goes to the stream has no control characters but line feed and tab: names come from files, and
/// a terminal obeys what is in them. Others become a question mark (of ASCII, and U+0080 to U+009F).
class Printable : public std::streambuf {
 public:
  explicit Printable(std::ostream& stream);
  ~Printable() override;
  Printable(const Printable&) = delete;
  Printable& operator=(const Printable&) = delete;

 protected:
  int_type overflow(int_type c) override;
  int sync() override;

 private:
  std::ostream& stream_;
  std::streambuf* to_;
  bool held_ = false;  ///< the first byte of a letter from U+0080 to U+00BF waits for its second
};

}  // namespace rigging::cli
