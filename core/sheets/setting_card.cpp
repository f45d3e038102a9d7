#include "sheets/setting_card.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <utility>

#include "airframe/kinds.h"
#include "base/find.h"
#include "base/number.h"
#include "base/units.h"
#include "settings/settings.h"
#include "sheets/sketch.h"
#include "sticks/sticks.h"
#include "surfaces/surface_checks.h"
#include "surfaces/surfaces.h"
#include "surfaces/trim.h"
#include "wiring/ports.h"
#include "wiring/routing.h"

namespace rigging {
namespace {

constexpr double row_mm = 7.5, foot_mm = 262;

struct Column {
  double x;
  std::string title;
  bool empty = false;  ///< a box to write into
};

/// Pages that grow as rows come.
class Card {
 public:
  Card(const Rig& rig, std::string class_name) : rig_(rig), class_(std::move(class_name)) { turn_over(); }

  void section(const std::string& title, const std::string& words, const std::vector<Column>& columns) {
    columns_ = columns;
    if (y_ + 24 > foot_mm) turn_over();
    s_.text(page::left, y_, title, 4.6, "font-weight=\"bold\"");
    y_ += 5.5;
    if (!words.empty())
      for (const std::string& line : wrapped(words, 118)) {
        s_.text(page::left, y_, line, 3);
        y_ += 4.2;
      }
    titles();
  }
  void row(const std::vector<std::string>& cells) {
    if (y_ + row_mm > foot_mm) {
      turn_over();
      titles();
    }
    s_.line(page::left, y_ - 5, page::right, y_ - 5, 0.15);
    std::size_t cell = 0;
    for (std::size_t i = 0; i < columns_.size(); ++i) {
      const Column& c = columns_[i];
      constexpr double between_mm = 1.5;
      const double end =
          i + 1 < columns_.size() && cell + 1 < cells.size() ? columns_[i + 1].x - between_mm : page::right;
      if (c.empty)
        s_.box(c.x, y_ - 4.3, 15, 5.6, 0.25);
      else if (cell < cells.size())
        s_.fitted(c.x, y_, cells[cell++], 3.4, end - c.x);
    }
    y_ += row_mm;
  }
  /// Belongs to the row above it.
  void note(const std::string& words) {
    y_ -= 1.5;
    line(words);
    y_ += 2.5;
  }
  void line(const std::string& words, const char* style = "") {
    for (const std::string& part : wrapped(words, 112)) {
      if (y_ + 5 > foot_mm) turn_over();
      s_.text(page::left, y_, part, 3.2, style);
      y_ += 4.6;
    }
  }
  void gap() { y_ += 5; }
  std::vector<std::string> finished() {
    pages_.push_back(s_.finished());
    return std::move(pages_);
  }

 private:
  void turn_over() {
    if (as_begun_) pages_.push_back(s_.finished());
    as_begun_ = true;
    s_ = Sketch(page::width_mm, page::height_mm);
    s_.text(page::left, 20, "Settings card", 7, "font-weight=\"bold\"");
    s_.fitted(page::right, 20, rig_.name, 4.5, 110, "font-weight=\"bold\"", "end");
    s_.text(page::left, 26, class_, 3.2);
    double y = 272;
    s_.line(page::left, y - 5, page::right, y - 5, 0.3);
    for (const char* caution : {"! Propeller off, or the motor lead unplugged, while anything is powered. Transmitter "
                                "on first, battery last.",
                                "! Battery out before a finger goes near a servo arm."}) {
      for (const std::string& part : wrapped(caution, 96)) {
        s_.text(page::left, y, part, 3.2, "font-weight=\"bold\"");
        y += 5;
      }
    }
    y_ = 36;
  }
  void titles() {
    for (const Column& c : columns_) s_.text(c.x, y_ + 1, c.title, 2.8);
    y_ += row_mm;
  }

  const Rig& rig_;
  std::string class_;
  Sketch s_{page::width_mm, page::height_mm};
  bool as_begun_ = false;
  double y_ = 0;
  std::vector<Column> columns_;
  std::vector<std::string> pages_;
};

std::string us(double v) { return number_text(v, 0); }

void transmitter(Card& card, const Rig& rig, const SticksReport& sticks) {
  std::string words = "Trim levers in the middle and dual rates off first.";
  if (!rig.radio.transmitter.also_serves.empty()) {
    words += " This memory also flies";
    for (const std::string& other : rig.radio.transmitter.also_serves)
      words += (&other == &rig.radio.transmitter.also_serves.front() ? " " : ", ") + other;
    words += ": what is changed here is changed there.";
  }
  card.section("In the transmitter", words,
               {{page::left, "channel"},
                {36, "for"},
                {72, "direction"},
                {97, "sub-trim"},
                {116, "travel low"},
                {135, "travel high"},
                {155, "then reads low, high", true},
                {171.5, "", true},
                {188, ""}});
  for (const ChannelLine& l : sticks.channels) {
    const bool dial = l.dial && l.dial->changes;
    const Channel& c = l.channel;
    if (c.fixed_us) {
      card.row({us(c.number), function_label(c.function), "fixed at " + us(*c.fixed_us) + " µs"});
      continue;
    }
    const Transmitter& t = rig.radio.transmitter;
    card.row({std::to_string(c.number), function_label(c.function),
              dial && l.dial->turn_round ? (c.reversed ? "plain (!)" : "reversed (!)")
              : c.reversed               ? "reversed"
                                         : "plain",
              shown_sub_trim(t, dial ? l.dial->sub_trim_us : c.sub_trim_us),
              shown_travel(t, dial ? l.dial->travel_low_percent : c.travel_low_percent),
              shown_travel(t, dial ? l.dial->travel_high_percent : c.travel_high_percent), !l.stick ? "" : "µs"});
  }
  const ChannelLine* stick = find_in(sticks.channels, [](const ChannelLine& l) { return l.stick; });
  if (stick)
    card.line("A stick should read " + us(stick->wanted.low_us) + ", " + us(stick->wanted.centre_us) + " and " +
              us(stick->wanted.high_us) + " µs; write down what its ends read.");
  for (const ChannelLine& l : sticks.channels)
    if (l.dial)
      for (const std::string& limit : l.dial->limits)
        card.line(capital(function_label(l.channel.function)) + ": " + limit + ".");
  card.gap();
  if (sticks.switches.empty()) return;
  card.section("Switches", "", {{page::left, "channel"}, {36, "for"}, {72, "positions, µs, and what they choose"}});
  for (const SwitchLine& line : sticks.switches) {
    std::string at;
    for (const SwitchPosition& p : line.positions)
      at += (at.empty() ? "" : ", ") + us(p.pulse_us) + (p.mode.empty() ? "" : " " + p.mode);
    card.row(
        {std::to_string(line.channel), function_label(line.function), at + (line.measured ? "" : " (not measured)")});
  }
  card.gap();
}

void model(Card& card, const Rig& rig, const ControllerClass* controller) {
  const OutputSettings can = settable(controller);
  std::string words = "Arm square and surface flush first, by spline and clevis; then the output.";
  if (!can.centre || !can.ends)
    words += can.centre ? " This class sets a centre, and no ends: the holes set the throw."
                        : " This class sets neither centre nor ends: arm, clevis and holes do all of it.";
  card.section("On the model", words,
               {{page::left, "surface"},
                {58, "output"},
                {80, "low / centre / high, µs"},
                {117, "arm, horn, " + std::string(shown("m").unit)},
                {141, "up / down"},
                {163, "reads up, down", true},
                {180, "", true}});
  for (const Output& o : rig.outputs)
    for (const Surface s : o.surfaces) {
      if (s.kind == SurfaceKind::motor) continue;
      const Linkage* l = rig.linkage(s);
      const Terminal* socket = controller ? controller->socket(o.socket) : nullptr;
      std::string wanted = "as read";
      if (l && (l->want_up_deg || l->want_down_deg))
        wanted = (l->want_up_deg ? number_text(*l->want_up_deg, 0) + "°" : "?") + " / " +
                 (l->want_down_deg ? number_text(*l->want_down_deg, 0) + "°" : "?");
      card.row({capital(s.label()), (socket ? socket->label : o.socket) + (o.reversed ? " rev." : ""),
                us(o.low_us) + " / " + us(o.centre_us) + " / " + us(o.high_us),
                l ? length_figure(l->arm_m, 1) + ", " + length_figure(l->horn_m, 1) : "not measured", wanted});
      if (!l || l->readings.size() < 3) continue;
      const auto c = centre(*l, o, can);
      if (!c || c->settled) continue;
      std::string todo;
      const auto add = [&](const std::string& part) { todo += (todo.empty() ? "To do: " : ", ") + part; };
      if (c->teeth != 0)
        add("arm " + std::to_string(std::abs(c->teeth)) + (std::abs(c->teeth) == 1 ? " tooth " : " teeth ") +
            (c->teeth > 0 ? "toward" : "away from") + " the hinge");
      if (c->clevis_turns != 0)
        add("rod " + number_text(std::abs(c->clevis_turns), 1) + " turns " +
            (c->clevis_turns > 0 ? "longer" : "shorter"));
      if (c->reverse) add("reverse " + o.id);
      if (std::abs(c->centre_us - o.centre_us) > 1) add("centre " + us(c->centre_us) + " µs");
      if (std::abs(c->low_us - o.low_us) > 1 || std::abs(c->high_us - o.high_us) > 1)
        add("ends " + us(c->low_us) + " and " + us(c->high_us) + " µs");
      for (const std::string& limit : c->limits) add(limit);
      if (!todo.empty()) card.note(todo);
    }
}

/// How this class sets it: by the setting's own name, or by what stands for all weights and all axes.
const SettingWay* way_of(const ControllerClass& controller, const Setting& s) {
  if (const SettingWay* own = controller.way(s.name)) return own;
  switch (s.group) {
    case SettingGroup::mix: return controller.way("mix");
    case SettingGroup::gains: return controller.way("gains");
    case SettingGroup::sensing: return controller.way("sensing");
    default: return nullptr;
  }
}

/// Outputs by what they drive, channels by their number; the whole board once.
std::vector<std::pair<std::string, std::string>> subjects_of(const Rig& rig, const ControllerClass& controller,
                                                             SettingOf of) {
  std::vector<std::pair<std::string, std::string>> all;
  if (of == SettingOf::board) all.emplace_back("", "the board");
  if (of == SettingOf::output)
    for (const Output& o : rig.outputs)
      if (const Terminal* t = controller.socket(o.socket))
        all.emplace_back(o.socket, t->label + (o.surfaces.empty() ? "" : ", " + o.surfaces.front().label()));
  if (of == SettingOf::channel)
    for (const Channel& c : rig.radio.channels)
      all.emplace_back(std::to_string(c.number), "channel " + std::to_string(c.number));
  return all;
}

/// Every setting of the table that hands make on the board: what differs from how it comes, and by what it is set.
void board(Card& card, const Rig& rig, const ControllerClass& controller) {
  bool begun = false;
  const auto begin = [&] {
    if (!std::exchange(begun, true))
      card.section("On the board, by hand", "What differs from how the board comes.",
                   {{page::left, "of"}, {72, "setting"}, {116, "value"}, {155, "by"}});
  };
  // What it mixes is chosen by the kind of airframe.
  if (const SettingWay* type = controller.way("airframe_type")) {
    begin();
    card.row({"the board", "type of airframe", facts_of(rig.airframe.kind).name, std::string(name_of(type->by))});
  }
  // Ports have a list of their own.
  for (const SettingOf of : {SettingOf::board, SettingOf::output, SettingOf::channel})
    for (const auto& [subject, label] : subjects_of(rig, controller, of))
      for (const Setting& s : settings()) {
        if (s.of != of || s.group == SettingGroup::ends || s.group == SettingGroup::ports)
          continue;  // those stand above
        const SettingWay* way = way_of(controller, s);
        if (!way || (way->by == SetBy::link && controller.link)) continue;
        const SettingValue value = s.get(rig, subject);
        if (value == s.usual || std::holds_alternative<std::monostate>(value)) continue;
        begin();
        card.row({label, s.label, value_words(s, value), std::string(name_of(way->by))});
      }
  if (begun) card.gap();
}

/// How each port is set, and which signal is listened for.
void ports(Card& card, const Rig& rig, const ControllerClass& c) {
  const SettingWay *way = c.way("ports"), *signal = c.way("receiver_signal");
  if ((!way || rig.ports.empty()) && (!signal || !rig.radio.receiver_signal)) return;
  const bool restart = (way && way->restart) || (signal && signal->restart);
  card.section("Ports and receiver", restart ? "They take effect after a restart: every supply out, and in again." : "",
               {{page::left, "port"}, {50, "job"}, {105, "baud"}, {140, "direction"}});
  if (signal && rig.radio.receiver_signal)
    card.row({"receiver", "listens for " + signal_label(*rig.radio.receiver_signal)});
  if (way)
    for (const Port& p : rig.ports) {
      const Terminal* t = c.terminal(p.socket);
      card.row({t ? t->label : p.socket, label_of(name_of(p.job)), p.baud ? number_text(*p.baud, 0) : "by itself",
                p.direction == PortDirection::both ? "both ways" : std::string(name_of(p.direction)) + " only"});
    }
  card.gap();
}

/// Which channel each socket carries, where that is told in a menu.
void routing(Card& card, const Rig& rig, const Catalogue& catalogue) {
  const Routing r = routing_of(rig, catalogue);
  if (r.lines.empty()) return;
  card.section("Routing", "In the receiver's output menu: which channel each socket carries.",
               {{page::left, "socket"}, {60, "channel"}, {85, "what hangs there"}, {135, ""}});
  for (const RouteLine& l : r.lines)
    card.row({l.label, l.channel > 0 ? std::to_string(l.channel) : "–", l.what, l.words});
  if (!r.freed_words.empty()) card.note(r.freed_words);
  if (r.roll_percent)
    card.note("Tail halves: " + number_text(*r.roll_percent, 0) +
              " % of the aileron throw (start at 25 %; at 50 % they move half as far as the ailerons).");
  for (const std::string& clash : r.clashes) card.note(clash);
  card.gap();
}

std::string power_up_words(PowerUp power_up) {
  switch (power_up) {
    case PowerUp::still: return "Keep the model still until it is ready; it need not be level.";
    case PowerUp::still_and_level: return "Model in flight trim, still and level, until it is ready.";
    case PowerUp::anyhow: break;
  }
  return {};
}

/// What lives on the computer's plug alone; empty for a class without one.
std::string usb_words(const ControllerClass& c) {
  const auto usb = [](const Terminal& t) { return t.kind == TerminalKind::usb; };
  if (std::none_of(c.ports.begin(), c.ports.end(), usb)) return {};
  std::set<std::string> live{"usb"};
  for (std::size_t before = 0; before != live.size();) {
    before = live.size();
    for (const Feed& f : c.feeds)
      if (live.count(f.from)) live.insert(f.to);
  }
  const bool ports = std::any_of(c.ports.begin(), c.ports.end(), [&](const Terminal& t) {
    return !usb(t) && t.kind != TerminalKind::sense_input && live.count(t.net) > 0;
  });
  const bool rail = live.count("servo") > 0;
  return ports ? std::string(
                     "On USB alone the ports live: receiver and satellite receiver can be checked before any battery") +
                     (rail ? "." : "; the servos stay still, which is no fault.")
               : "On USB alone only the processor lives: receiver and servos stay dark, which is no fault.";
}

/// What the board wants of its builder, and what its lamps and tones tell.
void ways_of_the_board(Card& card, const ControllerClass& c) {
  std::vector<std::pair<std::string, std::string>> rows;
  const auto add = [&](const char* when, const std::string& words) {
    if (!words.empty()) rows.emplace_back(when, c.with_leaflet(words));
  };
  add("Power up", power_up_words(c.senses.power_up));
  add("USB", usb_words(c));
  add("Motor", !c.sticks.arming.empty()                ? c.sticks.arming
               : c.sticks.arms_by == ArmsBy::by_switch ? "Armed by a switch."
               : c.sticks.arms_by == ArmsBy::by_stick  ? "Armed by a stick gesture."
               : c.sticks.arms_by == ArmsBy::by_either ? "Armed by a switch or a stick gesture."
                                                       : std::string());
  if (c.sticks.safety_button) add("Before arming", "Press the safety button.");
  add("Level", c.senses.level);
  add("Trim", trim_words(c));
  add("Gains", c.feel.gains);
  if (c.feel.dials == Dials::two_sided)
    add("Dials", "Two-sided: the middle is zero, each side a direction. Reversing means turning through the middle.");
  if (c.feel.gain_is_travel) add("Gain channel", "Its travel is the gain: it need not reach 1000 and 2000 µs.");
  for (const Lamp& lamp : c.proof.lamps) add(lamp.sign.c_str(), lamp.meaning);
  if (rows.empty()) return;
  card.section("How this board behaves", "Your own differs? Write it into My board, at station wiring.", {});
  for (const auto& [when, words] : rows) card.line(capital(when) + ": " + words);
}

}  // namespace

std::vector<std::string> setting_card_svg(const Rig& rig, const Catalogue& catalogue) {
  const ControllerClass* controller = catalogue.controller(rig.controller.kind);
  Card card(rig, controller ? controller->name : "no controller chosen");
  transmitter(card, rig, analyze_sticks(rig, catalogue));
  model(card, rig, controller);
  if (controller) {
    card.gap();
    ports(card, rig, *controller);
    routing(card, rig, catalogue);
    board(card, rig, *controller);
    ways_of_the_board(card, *controller);
  }
  if (controller && controller->sticks.gesture_needs_full_ends) {
    card.gap();
    card.line(
        "The gesture that stores the level counts only when the sticks really reach 1000 and 2000 µs: set the travel "
        "first.",
        "font-weight=\"bold\"");
  }
  return card.finished();
}

}  // namespace rigging
