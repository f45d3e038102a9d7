#pragma once

#include "rig/rig.h"

namespace rigging::link {

/// One output as the controller holds it, known by its socket.
struct ImageOutput {
  std::string socket;
  Mix mix;
  bool reversed = false;
  double low_us = 1000, centre_us = 1500, high_us = 2000;
  double rate_hz = 50;
  Extra extra;
  bool operator==(const ImageOutput&) const = default;
};

/// The whole configuration that a controller holds and that Rigging writes.
struct Image {
  std::vector<ImageOutput> outputs;  ///< sorted by socket
  Sensing sensing;
  std::vector<Channel> channels;  ///< what the controller takes each channel for, sorted by number; transmitter
                                  ///< settings are no part of it, learned ends are
  Sharing sharing = Sharing::each_stops;
  Extra extra;
  bool operator==(const Image&) const = default;
};

Image image_of(const Rig& rig);

/// Canonical bytes: equal images, equal bytes.
std::string image_bytes(const Image& image);
Result<Image> image_from_bytes(std::string_view bytes, const std::string& where);
/// 16 hexadecimal digits over the canonical bytes.
std::string image_hash(std::string_view bytes);

/// One part in which rig and board differ.
struct Difference {
  std::string part;  ///< "output s3", "sensing", "channel 2"
  std::string words;
};

/// Empty when both hold the same.
std::vector<Difference> differences(const Image& rig, const Image& board);

/// The rig with the named parts taken over from the board. An output on the board that the rig does not have is added
/// without a surface; one that the board lacks is left alone.
Rig with_board_parts(Rig rig, const Image& board, const std::vector<std::string>& parts);

}  // namespace rigging::link
