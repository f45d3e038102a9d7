#pragma once

#include <functional>
#include <map>
#include <vector>

#include "rig/rig.h"

/// What a controller holds, as a table. The configuration that goes over the link, its bytes and hash, the differences
/// in words, taking over part by part and the simulated controller all run from it: a later station adds rows. A
/// setting has the name that the rig's file has for it, where the file has one.
namespace rigging {

/// What a setting is kept for: the whole board, each output in use and each port that has a job (by their sockets), or
/// each channel (by its number).
enum class SettingOf { board, output, port, channel };

/// Settings of one group are set in one way where a class has none for each ("mix" for all weights), and those of
/// sensing are taken over together.
enum class SettingGroup { none, mix, ends, ports, gains, limits, sensing, position };

/// What a value is: yes or no, a number in a span, one of some words, a name that `misfit` knows, or a list.
enum class SettingKind { flag, number, choice, name, list };

/// A row of a list: its members by name, as the rig's file has them. Words alone have one member without a name.
using SettingRow = std::map<std::string, Value>;
using SettingList = std::vector<SettingRow>;
/// Absent, or a value of the setting's kind.
using SettingValue = std::variant<std::monostate, bool, double, std::string, SettingList>;

struct Setting {
  std::string name;  ///< in the configuration: "roll", "reversed", "board"
  SettingOf of = SettingOf::board;
  SettingKind kind = SettingKind::number;
  std::string label;  ///< "roll weight"
  SettingGroup group = SettingGroup::none;
  /// Set in this order, those of one number as they stand in the table: what is set later may rest on what was.
  int order = 0;
  std::string yes = {}, no = {};        ///< of a flag, as adjectives: "reversed", "plain"
  Span span = {};                       ///< of a number; its unit is in the name
  std::vector<std::string> words = {};  ///< of a choice
  /// What an absent one means. `always`: it is in every configuration, whatever it is.
  SettingValue usual = {};
  bool always = true;
  /// Of the output, port or channel with this socket or number; empty for the board.
  std::function<SettingValue(const Rig&, const std::string& subject)> get = nullptr;
  /// The value is of the right kind and in its range. The output, port or channel is there.
  std::function<void(Rig&, const std::string& subject, const SettingValue&)> set = nullptr;
  /// A value in words, where the general ones do not do.
  std::function<std::string(const SettingValue&)> say = nullptr;
  /// Of a name or a list: empty, or what was expected.
  std::function<std::string(const SettingValue&)> misfit = nullptr;
};

/// In the order of the table. Open until the program has started: a later station adds its rows, and a test can.
std::vector<Setting>& settings();
const Setting* setting_named(SettingOf of, const std::string& name);
/// In the order in which they are set.
std::vector<const Setting*> settings_in_order();

/// Empty, or what was expected of a value of this setting.
std::string misfit(const Setting& setting, const SettingValue& value);

/// "0.5", "reversed", "1510 µs", "arrow to the right wing, top up".
std::string value_words(const Setting& setting, const SettingValue& value);

/// The output or port in this socket, or the channel of this number; null when there is none.
const Output* output_in(const Rig& rig, const std::string& socket);
Output* output_in(Rig& rig, const std::string& socket);
Port* port_of(Rig& rig, const std::string& socket);
const Channel* channel_of(const Rig& rig, const std::string& number);
Channel* channel_of(Rig& rig, const std::string& number);

}  // namespace rigging
