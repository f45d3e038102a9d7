#include "settings/settings.h"

#include <algorithm>
#include <cmath>

#include "base/find.h"
#include "base/number.h"
#include "base/units.h"
#include "rig/ranges.h"
#include "settings/home_settings.h"

namespace rigging {
namespace {

template <class RigType>
auto* find_output(RigType& rig, const std::string& socket) {
  return find_in(rig.outputs, [&](const Output& o) { return o.socket == socket; });
}
template <class RigType>
auto* find_channel(RigType& rig, const std::string& number) {
  return find_in(rig.radio.channels, [&](const Channel& c) { return std::to_string(c.number) == number; });
}

/// A word of each port.
template <class E>
Setting of_port(const char* name, const char* label, E Port::*member) {
  return {.name = name,
          .of = SettingOf::port,
          .kind = SettingKind::choice,
          .label = label,
          .group = SettingGroup::ports,
          .words = all_names<E>(),
          .usual = std::string(name_of(E{})),
          .get = [member](const Rig& rig, const std::string& socket) -> SettingValue {
            const Port* p = rig.port(socket);
            return std::string(name_of(p ? p->*member : E{}));
          },
          .set =
              [member](Rig& rig, const std::string& socket, const SettingValue& v) {
                port_of(rig, socket)->*member = *from_name<E>(std::get<std::string>(v));
              }};
}

/// A number of each output.
template <class Member>
Setting of_output(const char* name, const char* label, SettingGroup group, Span span, Member&& member) {
  return {.name = name,
          .of = SettingOf::output,
          .label = label,
          .group = group,
          .span = span,
          .usual = 0.0,
          .get = [member](const Rig& rig, const std::string& socket) -> SettingValue {
            return member(*output_in(rig, socket));
          },
          .set = [member](Rig& rig, const std::string& socket,
                          const SettingValue& v) { member(*output_in(rig, socket)) = std::get<double>(v); }};
}

/// An end or the centre of a channel, where the controller has learned them.
Setting learned(const char* name, const char* label, std::optional<double> Channel::*member) {
  return {.name = name,
          .of = SettingOf::channel,
          .label = label,
          .order = 1,  // "function" forgets what was learned
          .span = range::read_us,
          .always = false,
          .get = [member](const Rig& rig, const std::string& number) -> SettingValue {
            const Channel& c = *channel_of(rig, number);
            return c.learned && c.*member ? SettingValue(*(c.*member)) : SettingValue{};
          },
          .set =
              [member](Rig& rig, const std::string& number, const SettingValue& v) {
                Channel& c = *channel_of(rig, number);
                // What was read of it stays known when the controller has not learned it.
                if (!std::holds_alternative<double>(v)) return;
                c.learned = true;
                c.*member = std::get<double>(v);
              }};
}

/// One number of what a sensor's readings are corrected by; absent where it corrects nothing.
void add_correction(std::vector<Setting>& all, const std::string& sensor,
                    std::optional<SensorCorrection> Sensing::*correction) {
  using C = SensorCorrection;
  static const C nothing;
  for (const Member& m : Described<C>::members().list) {
    const auto number = [member = &m](const C& c) { return *static_cast<const double*>(member->in(&c)); };
    all.push_back({.name = sensor + "_" + m.name,
                   .of = SettingOf::board,
                   .label = sensor + " " + label_of(m.name),
                   .span = m.span,
                   .always = false,
                   .get = [=](const Rig& rig, const std::string&) -> SettingValue {
                     const auto& c = rig.sensing.*correction;
                     return c && number(*c) != number(nothing) ? SettingValue(number(*c)) : SettingValue{};
                   },
                   .set =
                       [=, member = &m](Rig& rig, const std::string&, const SettingValue& v) {
                         auto& c = rig.sensing.*correction;
                         C now = c.value_or(C{});
                         const auto* value = std::get_if<double>(&v);
                         *static_cast<double*>(member->in(&now)) = value ? *value : number(nothing);
                         c = now == C{} ? std::nullopt : std::optional(now);
                       }});
  }
}

Setting sensing_of(Axis axis) {
  const std::string name(name_of(axis));
  return {.name = name + "_reversed",
          .of = SettingOf::board,
          .kind = SettingKind::flag,
          .label = name + " sensing",
          .group = SettingGroup::sensing,
          .yes = "reversed",
          .no = "plain",
          .usual = false,
          .get = [axis](const Rig& rig, const std::string&) -> SettingValue { return rig.sensing.reversed(axis); },
          .set = [axis](Rig& rig, const std::string&,
                        const SettingValue& v) { rig.sensing.reversed(axis) = std::get<bool>(v); }};
}

/// A number of the board that may be absent.
Setting board_number(std::string name, std::string label, Span span, std::optional<double> Sensing::*member) {
  return {.name = std::move(name),
          .of = SettingOf::board,
          .label = std::move(label),
          .span = span,
          .always = false,
          .get = [member](const Rig& rig, const std::string&) -> SettingValue {
            const auto& v = rig.sensing.*member;
            return v ? SettingValue(*v) : SettingValue{};
          },
          .set =
              [member](Rig& rig, const std::string&, const SettingValue& v) {
                const auto* value = std::get_if<double>(&v);
                rig.sensing.*member = value ? std::optional(*value) : std::nullopt;
              }};
}

/// How hard an axis is corrected; absent where nobody has said it.
Setting gain_setting(Axis axis, const char* name, const char* label, std::optional<double> AxisGain::*member) {
  return {.name = std::string(name_of(axis)) + name,
          .of = SettingOf::board,
          .label = std::string(name_of(axis)) + label,
          .group = SettingGroup::gains,
          .span = {0, 100},
          .always = false,
          .get = [=](const Rig& rig, const std::string&) -> SettingValue {
            const AxisGain* g = rig.feel.gain(axis);
            // Hundredths of a percent: what is written is what is read again.
            return g && g->*member ? SettingValue(std::round(*(g->*member) * 1e4) / 100) : SettingValue{};
          },
          .set =
              [=](Rig& rig, const std::string&, const SettingValue& v) {
                const auto* value = std::get_if<double>(&v);
                if (!value && !rig.feel.gain(axis)) return;
                AxisGain& g = rig.feel.made_gain(axis);
                g.*member = value ? std::optional(*value / 100) : std::nullopt;
                std::erase_if(rig.feel.gains, [](const AxisGain& a) { return a.says_nothing(); });
              }};
}

/// A limit of the levelling mode.
Setting limit_setting(const char* name, const char* label, std::optional<double> Feel::*member) {
  return {.name = name,
          .of = SettingOf::board,
          .label = label,
          .group = SettingGroup::limits,
          .span = {5, 89},
          .always = false,
          .get = [member](const Rig& rig, const std::string&) -> SettingValue {
            const auto& v = rig.feel.*member;
            return v ? SettingValue(*v) : SettingValue{};
          },
          .set =
              [member](Rig& rig, const std::string&, const SettingValue& v) {
                const auto* value = std::get_if<double>(&v);
                rig.feel.*member = value ? std::optional(*value) : std::nullopt;
              }};
}

Setting use_setting(Sensor sensor) {
  return {.name = "uses_" + std::string(name_of(sensor)),
          .of = SettingOf::board,
          .kind = SettingKind::flag,
          .label = std::string(name_of(sensor)),
          .yes = "used",
          .no = "not used",
          .always = false,
          .get = [sensor](const Rig& rig, const std::string&) -> SettingValue {
            const auto& use = rig.sensing.*use_of(sensor);
            return use ? SettingValue(*use) : SettingValue{};
          },
          .set =
              [sensor](Rig& rig, const std::string&, const SettingValue& v) {
                const auto* value = std::get_if<bool>(&v);
                rig.sensing.*use_of(sensor) = value ? std::optional(*value) : std::nullopt;
              }};
}

/// What the motor's current adds to the compass, by axis; absent where nothing is taken off.
Setting motor_field(const char* axis, double CurrentField::*member) {
  return {.name = std::string("motor_field_") + axis + "_ut_per_a",
          .of = SettingOf::board,
          .label = std::string("motor's field ") + axis,
          .span = {-100, 100},
          .always = false,
          .get = [member](const Rig& rig, const std::string&) -> SettingValue {
            const auto& f = rig.sensing.motor_field;
            return f && (*f).*member != 0 ? SettingValue((*f).*member) : SettingValue{};
          },
          .set =
              [member](Rig& rig, const std::string&, const SettingValue& v) {
                CurrentField now = rig.sensing.motor_field.value_or(CurrentField{});
                const auto* value = std::get_if<double>(&v);
                now.*member = value ? *value : 0;
                rig.sensing.motor_field = now == CurrentField{} ? std::nullopt : std::optional(now);
              }};
}

std::vector<Setting> known() {
  std::vector<Setting> all{
      of_output(
          "roll", "roll weight", SettingGroup::mix, range::weight, [](auto& o) -> auto& { return o.mix.roll; }),
      of_output(
          "pitch", "pitch weight", SettingGroup::mix, range::weight, [](auto& o) -> auto& { return o.mix.pitch; }),
      of_output(
          "yaw", "yaw weight", SettingGroup::mix, range::weight, [](auto& o) -> auto& { return o.mix.yaw; }),
      of_output(
          "throttle", "throttle weight", SettingGroup::mix, range::weight,
          [](auto& o) -> auto& { return o.mix.throttle; }),
      of_output(
          "flap", "flap weight", SettingGroup::mix, range::weight, [](auto& o) -> auto& { return o.mix.flap; }),
      of_output(
          "roll_differential", "roll differential", SettingGroup::mix, {-1, 1},
          [](auto& o) -> auto& { return o.mix.roll_differential; }),
      {.name = "reversed",
       .of = SettingOf::output,
       .kind = SettingKind::flag,
       .label = "direction",
       .yes = "reversed",
       .no = "plain",
       .usual = false,
       .get = [](const Rig& rig, const std::string& socket) -> SettingValue {
         return output_in(rig, socket)->reversed;
       },
       .set = [](Rig& rig, const std::string& socket,
                 const SettingValue& v) { output_in(rig, socket)->reversed = std::get<bool>(v); }},
      of_output(
          "low_us", "low end", SettingGroup::ends, range::read_us, [](auto& o) -> auto& { return o.low_us; }),
      of_output(
          "centre_us", "centre", SettingGroup::ends, range::read_us, [](auto& o) -> auto& { return o.centre_us; }),
      of_output(
          "high_us", "high end", SettingGroup::ends, range::read_us, [](auto& o) -> auto& { return o.high_us; }),
      of_output(
          "rate_hz", "pulse rate", SettingGroup::none, {20, 560}, [](auto& o) -> auto& { return o.rate_hz; }),
      {.name = "passthrough_channel",
       .of = SettingOf::output,
       .label = "channel passed through",
       .span = {0, 32},
       .usual = 0.0,
       .always = false,
       .get = [](const Rig& rig, const std::string& socket) -> SettingValue {
         return static_cast<double>(output_in(rig, socket)->passthrough_channel);
       },
       .set =
           [](Rig& rig, const std::string& socket, const SettingValue& v) {
             output_in(rig, socket)->passthrough_channel = static_cast<int>(std::get<double>(v));
           },
       .say =
           [](const SettingValue& v) {
             const double number = std::get<double>(v);
             return number < 1 ? std::string("none") : number_text(number, 0);
           }},
      of_port("job", "job", &Port::job),
      of_port("direction", "direction", &Port::direction),
      {.name = "baud",
       .of = SettingOf::port,
       .label = "baud",
       .group = SettingGroup::ports,
       .span = range::baud,
       .always = false,
       .get = [](const Rig& rig, const std::string& socket) -> SettingValue {
         const Port* p = rig.port(socket);
         return p && p->baud ? SettingValue(*p->baud) : SettingValue{};
       },
       .set =
           [](Rig& rig, const std::string& socket, const SettingValue& v) {
             const auto* number = std::get_if<double>(&v);
             port_of(rig, socket)->baud = number ? std::optional(*number) : std::nullopt;
           }},
      {.name = "receiver_signal",
       .of = SettingOf::board,
       .kind = SettingKind::choice,
       .label = "receiver's signal",
       .group = SettingGroup::ports,
       .words = all_names<Signal>(),
       .always = false,
       .get = [](const Rig& rig, const std::string&) -> SettingValue {
         return rig.radio.receiver_signal ? SettingValue(std::string(name_of(*rig.radio.receiver_signal)))
                                          : SettingValue{};
       },
       .set =
           [](Rig& rig, const std::string&, const SettingValue& v) {
             const auto* text = std::get_if<std::string>(&v);
             rig.radio.receiver_signal = text ? from_name<Signal>(*text) : std::nullopt;
           }},
      {.name = "board",
       .of = SettingOf::board,
       .kind = SettingKind::name,
       .label = "told to sit with its",
       .group = SettingGroup::position,
       .usual = "none",
       .get = [](const Rig& rig, const std::string&) -> SettingValue { return rig.sensing.board.name(); },
       .set = [](Rig& rig, const std::string&,
                 const SettingValue& v) { rig.sensing.board = TurnName(*turn_from_name(std::get<std::string>(v))); },
       .say = [](const SettingValue& v) { return turn_from_name(std::get<std::string>(v))->label(); },
       .misfit =
           [](const SettingValue& v) {
             const auto* name = std::get_if<std::string>(&v);
             return name && turn_from_name(*name) ? std::string() : TurnName::expected();
           }},
      sensing_of(Axis::roll),
      sensing_of(Axis::pitch),
      sensing_of(Axis::yaw),
      {.name = "saturation",
       .of = SettingOf::board,
       .kind = SettingKind::choice,
       .label = "sharing",
       .words = all_names<Saturation>(),
       .usual = std::string(name_of(Saturation::each_stops)),
       .always = false,
       .get = [](const Rig& rig, const std::string&) -> SettingValue { return std::string(name_of(rig.saturation)); },
       .set = [](Rig& rig, const std::string&,
                 const SettingValue& v) { rig.saturation = *from_name<Saturation>(std::get<std::string>(v)); }},
      {.name = "function",
       .of = SettingOf::channel,
       .kind = SettingKind::choice,
       .label = "taken for",
       .words = all_names<ChannelFunction>(),
       .usual = std::string(name_of(ChannelFunction::other)),
       .get = [](const Rig& rig, const std::string& number) -> SettingValue {
         return std::string(name_of(channel_of(rig, number)->function));
       },
       .set =
           [](Rig& rig, const std::string& number, const SettingValue& v) {
             Channel& c = *channel_of(rig, number);
             c.function = *from_name<ChannelFunction>(std::get<std::string>(v));
             c.learned = false;  // what it has learned is set after this
           }},
      learned("low_us", "learned lower end", &Channel::low_us),
      learned("centre_us", "learned centre", &Channel::centre_us),
      learned("high_us", "learned upper end", &Channel::high_us)};
  add_correction(all, "accelerometer", &Sensing::accelerometer);
  add_correction(all, "compass", &Sensing::compass);
  all.push_back(board_number("level_nose_up_deg", "level, nose up", range::degrees, &Sensing::level_nose_up_deg));
  all.push_back(
      board_number("level_right_down_deg", "level, right wing down", range::small_deg, &Sensing::level_right_down_deg));
  all.push_back(motor_field("x", &CurrentField::x_ut_per_a));
  all.push_back(motor_field("y", &CurrentField::y_ut_per_a));
  all.push_back(motor_field("z", &CurrentField::z_ut_per_a));
  for (const Sensor s : {Sensor::barometer, Sensor::compass, Sensor::airspeed, Sensor::satellites})
    all.push_back(use_setting(s));
  for (const Axis axis : all_axes) {
    all.push_back(gain_setting(axis, "_gain_percent", " gain", &AxisGain::rate));
    all.push_back(gain_setting(axis, "_level_gain_percent", " level gain", &AxisGain::level));
    all.push_back(gain_setting(axis, "_direct_stick_percent", " direct stick", &AxisGain::stick));
  }
  all.push_back(limit_setting("bank_limit_deg", "bank limit", &Feel::bank_limit_deg));
  all.push_back(limit_setting("nose_limit_deg", "nose limit", &Feel::nose_limit_deg));
  for (Setting& s : home_settings()) all.push_back(std::move(s));
  for (Setting& s : all)
    if (s.name == "roll_differential" || (s.of == SettingOf::port && s.name == "direction")) s.always = false;
  return all;
}

}  // namespace

const Output* output_in(const Rig& rig, const std::string& socket) { return find_output(rig, socket); }
Output* output_in(Rig& rig, const std::string& socket) { return find_output(rig, socket); }
Port* port_of(Rig& rig, const std::string& socket) {
  return find_in(rig.ports, [&](const Port& p) { return p.socket == socket; });
}
const Channel* channel_of(const Rig& rig, const std::string& number) { return find_channel(rig, number); }
Channel* channel_of(Rig& rig, const std::string& number) { return find_channel(rig, number); }

std::vector<Setting>& settings() {
  static std::vector<Setting> all = known();
  return all;
}

std::vector<const Setting*> settings_in_order() {
  std::vector<const Setting*> all;
  for (const Setting& s : settings()) all.push_back(&s);
  std::stable_sort(all.begin(), all.end(), [](const Setting* a, const Setting* b) { return a->order < b->order; });
  return all;
}

const Setting* setting_named(SettingOf of, const std::string& name) {
  return find_in(settings(), [&](const Setting& s) { return s.of == of && s.name == name; });
}

std::string misfit(const Setting& s, const SettingValue& value) {
  if (!s.always && std::holds_alternative<std::monostate>(value)) return {};
  switch (s.kind) {
    case SettingKind::flag: return std::holds_alternative<bool>(value) ? "" : "true or false";
    case SettingKind::number: {
      const auto* number = std::get_if<double>(&value);
      return number && *number >= s.span.least && *number <= s.span.most
                 ? ""
                 : "a number from " + number_text(s.span.least, 6) + " to " + number_text(s.span.most, 6);
    }
    case SettingKind::choice: {
      const auto* text = std::get_if<std::string>(&value);
      return text && std::find(s.words.begin(), s.words.end(), *text) != s.words.end() ? "" : choice_of(s.words);
    }
    case SettingKind::name:
    case SettingKind::list: break;
  }
  return s.misfit(value);
}

std::string value_words(const Setting& s, const SettingValue& value) {
  if (std::holds_alternative<std::monostate>(value)) return "not set";
  if (s.say) return s.say(value);
  if (const auto* yes = std::get_if<bool>(&value)) return *yes ? s.yes : s.no;
  if (const auto* text = std::get_if<std::string>(&value)) return label_of(*text);
  const auto unit = unit_of_name(s.name);
  return number_text(std::get<double>(value), 3) + (unit.empty() ? "" : " " + std::string(unit));
}

}  // namespace rigging
