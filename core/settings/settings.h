#pragma once

#include <functional>
#include <vector>

#include "rig/rig.h"

/// What a controller holds, as a table. The configuration that goes over the link, its bytes and hash, the differences
/// in words, taking over part by part and the simulated controller all run from it: a later station adds rows.
namespace rigging {

/// What a setting is kept for: the whole board, each output in use and each port that has a job (by their sockets), or
/// each channel (by its number).
enum class SettingOf { board, output, port, channel };

/// Settings of one group are set in one way where a class has none for each ("mix" for all weights), and those of
/// sensing are taken over together.
enum class SettingGroup { none, mix, ends, gains, limits, sensing, position };

struct Setting {
  std::string name;  ///< in the configuration: "roll", "reversed", "board"
  SettingOf of = SettingOf::board;
  std::string spoken;  ///< "roll weight"
  SettingGroup group = SettingGroup::none;
  std::string yes = {}, no = {};        ///< of a flag, as adjectives: "reversed", "plain"
  Span span = {};                       ///< of a number; its unit is in the name
  std::vector<std::string> words = {};  ///< what a text may be; empty: told by `fits`
  /// What an absent one means. `always`: it is in every configuration, whatever it is.
  Value usual = {};
  bool always = true;
  /// Of the output, port or channel with this socket or number; empty for the board.
  std::function<Value(const Rig&, const std::string& subject)> get = nullptr;
  /// The value is of the right type and in its range. The output, port or channel is there.
  std::function<void(Rig&, const std::string& subject, const Value&)> set = nullptr;
  /// A value in words, where the general ones do not do.
  std::function<std::string(const Value&)> say = nullptr;
  std::function<bool(const std::string&)> fits = nullptr;
};

/// Open until the program has started: a later station adds its rows, and a test can.
std::vector<Setting>& settings();
const Setting* setting_named(SettingOf of, const std::string& name);

/// Empty, or what was expected of a value of this setting.
std::string misfit(const Setting& setting, const Value& value);

/// "0.5", "reversed", "1510 µs", "arrow to the right wing, top up".
std::string value_words(const Setting& setting, const Value& value);

/// The output or port in this socket, or the channel of this number; null when there is none.
const Output* output_in(const Rig& rig, const std::string& socket);
Output* output_in(Rig& rig, const std::string& socket);
Port* port_of(Rig& rig, const std::string& socket);
const Channel* channel_of(const Rig& rig, const std::string& number);
Channel* channel_of(Rig& rig, const std::string& number);

}  // namespace rigging
