#include "printable.h"

namespace rigging::cli {

Printable::Printable(std::ostream& stream) : stream_(stream), to_(stream.rdbuf(this)) {}

Printable::~Printable() {
  if (held_) to_->sputc('?');
  stream_.flush();
  stream_.rdbuf(to_);
}

Printable::int_type Printable::overflow(int_type c) {
  if (traits_type::eq_int_type(c, traits_type::eof())) return traits_type::not_eof(c);
  constexpr char lead = '\xc2';
  const auto byte = static_cast<unsigned char>(c);
  if (held_) {
    held_ = false;
    if (byte >= 0x80 && byte < 0xa0) return to_->sputc('?'), c;
    to_->sputc(lead);
  }
  if (byte == 0xc2) {
    held_ = true;
    return c;
  }
  const bool control = (byte < 0x20 && byte != '\n' && byte != '\t') || byte == 0x7f;
  return traits_type::eq_int_type(to_->sputc(control ? '?' : static_cast<char>(byte)), traits_type::eof())
             ? traits_type::eof()
             : c;
}

int Printable::sync() { return to_->pubsync(); }

}  // namespace rigging::cli
