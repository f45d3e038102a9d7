#include "link/image.h"

#include <algorithm>

#include "base/fields.h"
#include "base/find.h"
#include "base/fingerprint.h"
#include "base/number.h"
#include "link/cbor.h"
#include "rig/ranges.h"

namespace rigging::link {

namespace {

/// An output as it goes over the link.
struct OutputFile {
  std::string socket;
  double roll = 0, pitch = 0, yaw = 0, throttle = 0, flap = 0, roll_differential = 0;
  bool reversed = false;
  double low_us = 1000, centre_us = 1500, high_us = 2000, rate_hz = 50;
  Extra extra;
  bool operator==(const OutputFile&) const = default;
};

/// A channel as the controller knows it.
struct ChannelFile {
  int number = 1;
  ChannelFunction function = ChannelFunction::other;
  std::optional<double> low_us, centre_us, high_us;  ///< learned; absent: 1000, 1500, 2000
  Extra extra;
  bool operator==(const ChannelFile&) const = default;
};

struct ImageFile {
  std::vector<OutputFile> outputs;
  TurnName board;
  bool roll_reversed = false, pitch_reversed = false, yaw_reversed = false;
  std::vector<ChannelFile> channels;
  Sharing sharing = Sharing::each_stops;
  Extra extra;
};

}  // namespace
}  // namespace rigging::link

namespace rigging {

template <>
const Members& Described<link::OutputFile>::members() {
  static const Members all = Describe<link::OutputFile>()
                                 .needed("socket", &link::OutputFile::socket)
                                 .needed("roll", &link::OutputFile::roll, range::weight)
                                 .needed("pitch", &link::OutputFile::pitch, range::weight)
                                 .needed("yaw", &link::OutputFile::yaw, range::weight)
                                 .needed("throttle", &link::OutputFile::throttle, range::weight)
                                 .needed("flap", &link::OutputFile::flap, range::weight)
                                 .member("roll_differential", &link::OutputFile::roll_differential, {-1, 1})
                                 .needed("reversed", &link::OutputFile::reversed)
                                 .needed("low_us", &link::OutputFile::low_us, range::read_us)
                                 .needed("centre_us", &link::OutputFile::centre_us, range::read_us)
                                 .needed("high_us", &link::OutputFile::high_us, range::read_us)
                                 .needed("rate_hz", &link::OutputFile::rate_hz, {20, 560})
                                 .rest(&link::OutputFile::extra);
  return all;
}

template <>
const Members& Described<link::ChannelFile>::members() {
  static const Members all = Describe<link::ChannelFile>()
                                 .needed("number", &link::ChannelFile::number, {1, 32})
                                 .needed("function", &link::ChannelFile::function)
                                 .member("low_us", &link::ChannelFile::low_us, range::read_us)
                                 .member("centre_us", &link::ChannelFile::centre_us, range::read_us)
                                 .member("high_us", &link::ChannelFile::high_us, range::read_us)
                                 .rest(&link::ChannelFile::extra);
  return all;
}

template <>
const Members& Described<link::ImageFile>::members() {
  static const Members all = Describe<link::ImageFile>()
                                 .needed("outputs", &link::ImageFile::outputs)
                                 .needed("board", &link::ImageFile::board)
                                 .needed("roll_reversed", &link::ImageFile::roll_reversed)
                                 .needed("pitch_reversed", &link::ImageFile::pitch_reversed)
                                 .needed("yaw_reversed", &link::ImageFile::yaw_reversed)
                                 .needed("channels", &link::ImageFile::channels)
                                 .member("sharing", &link::ImageFile::sharing)
                                 .rest(&link::ImageFile::extra);
  return all;
}

}  // namespace rigging

namespace rigging::link {

Image image_of(const Rig& rig) {
  Image image;
  for (const Output& o : rig.outputs)
    if (!o.socket.empty()) {
      Mix mix = o.mix;
      mix.extra = {};
      image.outputs.push_back({o.socket, mix, o.reversed, o.low_us, o.centre_us, o.high_us, o.rate_hz, {}});
    }
  std::sort(image.outputs.begin(), image.outputs.end(),
            [](const auto& a, const auto& b) { return a.socket < b.socket; });
  image.sensing = rig.sensing;
  image.sensing.level_nose_up_deg.reset();
  image.sensing.extra = {};
  for (const Channel& c : rig.radio.channels) {
    Channel heard;
    heard.number = c.number;
    heard.function = c.function;
    if (c.learned) {
      heard.learned = true;
      heard.low_us = c.low_us;
      heard.centre_us = c.centre_us;
      heard.high_us = c.high_us;
    }
    image.channels.push_back(heard);
  }
  image.sharing = rig.sharing;
  std::sort(image.channels.begin(), image.channels.end(),
            [](const auto& a, const auto& b) { return a.number < b.number; });
  return image;
}

std::string image_bytes(const Image& image) {
  ImageFile file;
  for (const ImageOutput& o : image.outputs)
    file.outputs.push_back({o.socket, o.mix.roll, o.mix.pitch, o.mix.yaw, o.mix.throttle, o.mix.flap,
                            o.mix.roll_differential, o.reversed, o.low_us, o.centre_us, o.high_us, o.rate_hz, o.extra});
  file.board = image.sensing.board;
  file.roll_reversed = image.sensing.roll_reversed;
  file.pitch_reversed = image.sensing.pitch_reversed;
  file.yaw_reversed = image.sensing.yaw_reversed;
  for (const Channel& c : image.channels)
    file.channels.push_back({c.number, c.function, c.low_us, c.centre_us, c.high_us, {}});
  file.sharing = image.sharing;
  file.extra = image.extra;
  std::string bytes;
  // Through plain JSON: members sorted, so that the bytes do not depend on the order of a description.
  Json::to_cbor(Json(write_fields(file)), bytes);
  return bytes;
}

Result<Image> image_from_bytes(std::string_view bytes, const std::string& where) {
  const auto json = parse_cbor(bytes, where);
  if (!json) return tl::make_unexpected(json.error());
  auto file = read_fields<ImageFile>(*json, where);
  if (!file) return tl::make_unexpected(file.error());
  Image image;
  for (OutputFile& o : file->outputs)
    image.outputs.push_back({std::move(o.socket),
                             {o.roll, o.pitch, o.yaw, o.throttle, o.flap, o.roll_differential, {}},
                             o.reversed,
                             o.low_us,
                             o.centre_us,
                             o.high_us,
                             o.rate_hz,
                             std::move(o.extra)});
  image.sensing.board = file->board;
  image.sensing.roll_reversed = file->roll_reversed;
  image.sensing.pitch_reversed = file->pitch_reversed;
  image.sensing.yaw_reversed = file->yaw_reversed;
  for (const ChannelFile& h : file->channels) {
    Channel c;
    c.number = h.number;
    c.function = h.function;
    c.low_us = h.low_us;
    c.centre_us = h.centre_us;
    c.high_us = h.high_us;
    c.learned = h.low_us || h.centre_us || h.high_us;
    image.channels.push_back(c);
  }
  image.sharing = file->sharing;
  image.extra = std::move(file->extra);
  for (const ImageOutput& o : image.outputs)
    if (!(o.low_us < o.centre_us && o.centre_us < o.high_us))
      return failure(where + ": output " + o.socket, "the ends do not enclose the centre",
                     "low_us < centre_us < high_us");
  return image;
}

std::string image_hash(std::string_view bytes) { return Fingerprint().add(bytes).text(); }

namespace {

std::string output_words(const ImageOutput& rig, const ImageOutput& board) {
  std::string words;
  const auto add = [&](const std::string& more) { words += (words.empty() ? "" : "; ") + more; };
  if (rig.reversed != board.reversed)
    add(board.reversed ? "reversed on the board, plain in the rig" : "plain on the board, reversed in the rig");
  const auto number = [&](const char* name, double in_rig, double on_board, const char* unit) {
    if (in_rig != on_board)
      add(std::string(name) + " " + number_text(on_board, 3) + unit + " on the board, " + number_text(in_rig, 3) +
          unit + " in the rig");
  };
  number("roll weight", rig.mix.roll, board.mix.roll, "");
  number("pitch weight", rig.mix.pitch, board.mix.pitch, "");
  number("yaw weight", rig.mix.yaw, board.mix.yaw, "");
  number("throttle weight", rig.mix.throttle, board.mix.throttle, "");
  number("flap weight", rig.mix.flap, board.mix.flap, "");
  number("roll differential", rig.mix.roll_differential, board.mix.roll_differential, "");
  number("low end", rig.low_us, board.low_us, " µs");
  number("centre", rig.centre_us, board.centre_us, " µs");
  number("high end", rig.high_us, board.high_us, " µs");
  number("pulse rate", rig.rate_hz, board.rate_hz, " Hz");
  return words;
}

}  // namespace

std::vector<Difference> differences(const Image& rig, const Image& board) {
  std::vector<Difference> all;
  for (const ImageOutput& o : rig.outputs) {
    const ImageOutput* b = find_in(board.outputs, [&](const ImageOutput& x) { return x.socket == o.socket; });
    if (!b)
      all.push_back({"output " + o.socket, "not used on the board, used in the rig"});
    else if (const std::string words = output_words(o, *b); !words.empty())
      all.push_back({"output " + o.socket, words});
  }
  for (const ImageOutput& b : board.outputs)
    if (!find_in(rig.outputs, [&](const ImageOutput& x) { return x.socket == b.socket; }))
      all.push_back({"output " + b.socket, "used on the board, not used in the rig"});

  std::string sensing;
  if (rig.sensing.board != board.sensing.board)
    sensing = "told to sit with its " + board.sensing.board.spoken() + " on the board, with its " +
              rig.sensing.board.spoken() + " in the rig";
  for (const Axis axis : all_axes)
    if (rig.sensing.reversed(axis) != board.sensing.reversed(axis))
      sensing += (sensing.empty() ? "" : "; ") + std::string(word(axis)) + " sensing " +
                 (board.sensing.reversed(axis) ? "reversed on the board, plain in the rig"
                                               : "plain on the board, reversed in the rig");
  if (!sensing.empty()) all.push_back({"sensing", sensing});

  for (int number = 1; number <= 32; ++number) {
    const auto has = [&](const Channel& c) { return c.number == number; };
    const Channel *r = find_in(rig.channels, has), *b = find_in(board.channels, has);
    const auto name = [](const Channel* c) {
      if (!c) return std::string("nothing");
      std::string words(word(c->function));
      if (c->learned)
        words += " with learned ends " + number_text(c->low_us.value_or(1000), 1) + ", " +
                 number_text(c->centre_us.value_or(1500), 1) + ", " + number_text(c->high_us.value_or(2000), 1) + " µs";
      return words;
    };
    if (name(r) != name(b))
      all.push_back({"channel " + std::to_string(number), name(b) + " on the board, " + name(r) + " in the rig"});
  }
  if (rig.sharing != board.sharing)
    all.push_back(
        {"sharing", spoken(word(board.sharing)) + " on the board, " + spoken(word(rig.sharing)) + " in the rig"});
  return all;
}

Rig with_board_parts(Rig rig, const Image& board, const std::vector<std::string>& parts) {
  const auto wanted = [&](const std::string& part) {
    return std::find(parts.begin(), parts.end(), part) != parts.end();
  };
  for (const ImageOutput& b : board.outputs) {
    if (!wanted("output " + b.socket)) continue;
    auto it =
        std::find_if(rig.outputs.begin(), rig.outputs.end(), [&](const Output& o) { return o.socket == b.socket; });
    if (it == rig.outputs.end()) {
      Output added;
      for (int n = 1; added.id.empty() || rig.output(added.id); ++n) added.id = "out_" + std::to_string(n);
      added.socket = b.socket;
      rig.outputs.push_back(std::move(added));
      it = rig.outputs.end() - 1;
    }
    const Extra kept = it->mix.extra;
    it->mix = b.mix;
    it->mix.extra = kept;
    it->reversed = b.reversed;
    it->low_us = b.low_us;
    it->centre_us = b.centre_us;
    it->high_us = b.high_us;
    it->rate_hz = b.rate_hz;
  }
  if (wanted("sensing")) {
    rig.sensing.board = board.sensing.board;
    for (const Axis axis : all_axes) rig.sensing.reversed(axis) = board.sensing.reversed(axis);
  }
  for (int number = 1; number <= 32; ++number) {
    if (!wanted("channel " + std::to_string(number))) continue;
    const Channel* b = find_in(board.channels, [&](const Channel& c) { return c.number == number; });
    std::erase_if(rig.radio.channels, [&](const Channel& c) { return c.number == number && !b; });
    if (!b) continue;
    const auto it = std::find_if(rig.radio.channels.begin(), rig.radio.channels.end(),
                                 [&](const Channel& c) { return c.number == number; });
    Channel& c = it != rig.radio.channels.end() ? *it : rig.radio.channels.emplace_back();
    c.number = number;
    c.function = b->function;
    c.learned = b->learned;
    if (!b->learned) continue;
    c.low_us = b->low_us;
    c.centre_us = b->centre_us;
    c.high_us = b->high_us;
  }
  if (wanted("sharing")) rig.sharing = board.sharing;
  return rig;
}

}  // namespace rigging::link
