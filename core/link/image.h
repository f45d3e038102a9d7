#pragma once

#include <map>

#include "settings/settings.h"

namespace rigging::link {

/// Which value of the configuration.
struct SettingId {
  SettingOf of = SettingOf::board;
  std::string subject;  ///< socket of an output, number of a channel; empty for the board
  std::string name;
  auto operator<=>(const SettingId&) const = default;
};

/// The whole configuration that a controller holds and that Rigging writes: every setting of core/settings by its id.
/// Outputs are known by their sockets. Values that this version does not know are kept as they came.
struct Image {
  std::map<SettingId, SettingValue> values;
  bool operator==(const Image&) const = default;

  bool has(SettingOf of, const std::string& subject) const;
  /// Sockets of outputs, or numbers of channels, in their order.
  std::vector<std::string> subjects(SettingOf of) const;
  /// The value, or what an absent one means.
  SettingValue value(const SettingId& id) const;
};

Image image_of(const Rig& rig);

/// What the configuration sets, as a rig that has nothing else: outputs by their socket, channels, sensing, sharing.
Rig configured(const Image& image);

/// The protocol that is spoken here: lists are lists, settings have the names that the rig's file has.
inline constexpr int protocol_version = 2;

/// Canonical bytes: equal images, equal bytes. `protocol` 1 or 2.
std::string image_bytes(const Image& image, int protocol = protocol_version);
/// Of either protocol.
Result<Image> image_from_bytes(std::string_view bytes, const std::string& where);
/// The board's configuration with gains and limits of the stabilizer as planned, and nothing else changed.
Image with_gains(Image board, const Image& planned);
/// 16 hexadecimal digits over the canonical bytes.
std::string image_hash(std::string_view bytes);

/// One part in which rig and board differ.
struct Difference {
  std::string part;  ///< "output slot_3", "sensing", "channel 2"
  std::string words;
  std::vector<SettingId> settings;  ///< empty when one of the two does not have the part at all
  /// Nothing but the centre: what automatic trim moves.
  bool only_centre() const { return settings.size() == 1 && settings.front().name == "centre_us"; }
};

/// Empty when both hold the same.
std::vector<Difference> differences(const Image& rig, const Image& board);

/// The rig with the named parts taken over from the board. An output on the board that the rig does not have is added
/// without a surface; one that the board lacks is left alone. Centres that automatic trim has moved take their proofs
/// along (surfaces/trim.h).
Rig with_board_parts(Rig rig, const Image& board, const std::vector<std::string>& parts);

}  // namespace rigging::link
