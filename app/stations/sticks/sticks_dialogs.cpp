#include "stations/sticks/sticks_dialogs.h"

#include "look/literals.h"
#include "stations/numbers_dialog.h"
#include "sticks/edits.h"
#include "sticks/sticks.h"

namespace rigging::app {
namespace {

const Channel* channel_numbered(const Rig& rig, int number) {
  for (const Channel& c : rig.radio.channels)
    if (c.number == number) return &c;
  return nullptr;
}

}  // namespace

void ask_readings(RigDocument& document, const std::vector<ChannelFunction>& needed, ReadOn where, QWidget* parent) {
  const ControllerClass* controller = document.controller();
  if (!controller) return;
  const Rig& rig = document.rig();
  const bool screen = where == ReadOn::transmitter, page = !screen && controller->sticks.reads_full > 0;
  NumbersDialog dialog(
      u"What was read"_s,
      screen ? u"Numbers as the transmitter's own channel screen shows them, in percent of its travel: stick "
               "at its lower end, let go, at its upper end. Throttle: closed and open. What the receiver "
               "makes of them is not seen there."_s
      : page ? u"Numbers as the board's test page shows them, −%1 to %1: stick at its lower end, let go, at "
               "its upper end. Throttle: closed and open."_s.arg(controller->sticks.reads_full)
             : u"Pulses in µs, as a servo tester or logic analyser reads them: lower end, let go, upper end. "
               "A channel that falls when the stick goes right, back or open reads the wrong way round."_s,
      parent);
  std::vector<TypedReading> typed;
  for (const ChannelFunction f : needed)
    if (const Channel* c = rig.channel(f)) typed.push_back(typed_reading(rig, *c, *controller, where));
  std::vector<TypedPositions> positions;
  for (const Channel& c : rig.radio.channels)
    if (!is_stick(c.function) && !c.fixed_us) positions.push_back(typed_positions(rig, c, *controller, where));
  if (typed.empty() && positions.empty()) return;
  const Span range = typed_range(rig, *controller, where);
  const QString unit = screen ? u"%"_s : page ? QString() : u"µs"_s;
  for (TypedReading& t : typed) {
    const QString name = QString::fromStdString(capital(function_label(t.function)));
    const std::string key(name_of(t.function));
    const auto add = [&](const char* end, const QString& label, std::optional<double>& value) {
      dialog.add((end + key).c_str(),
                 NumbersDialog::with_unknown({label.arg(name), unit, range.least, range.most, 1, 1}), value,
                 u"not read"_s);
    };
    add("low_", u"%1, lower end"_s, t.low);
    if (t.function != ChannelFunction::throttle) add("centre_", u"%1, let go"_s, t.centre);
    add("high_", u"%1, upper end"_s, t.high);
    dialog.add(("inverted_" + key).c_str(), u"%1 reads the wrong way round"_s.arg(name), t.inverted);
  }
  for (TypedPositions& p : positions) {
    const Channel* c = channel_numbered(rig, p.channel);
    dialog.add(
        ("positions_" + std::to_string(p.channel)).c_str(),
        u"Channel %1, %2"_s.arg(p.channel).arg(QString::fromStdString(c ? function_label(c->function) : std::string())),
        p.positions, u"each position, with spaces between"_s);
  }
  dialog.ask(document, [&] { return type_readings(document.rig(), document.catalogue(), typed, where, positions); });
}

void ask_transmitter(RigDocument& document, QWidget* parent) {
  Transmitter t = document.rig().radio.transmitter;
  NumbersDialog dialog(
      u"The transmitter"_s,
      u"How it counts, and what it is set to now. What is read with these settings tells what to dial in."_s, parent);
  bool in_us = t.counts == TravelUnit::us;
  double count = t.channels;
  dialog.add("counts_us", u"It shows sub-trim and travel in µs, not in percent"_s, in_us);
  dialog.add("full_us", t, &Transmitter::full_us, u"100 % of travel moves the pulse by"_s);
  dialog.add("step_percent", t, &Transmitter::step_percent, u"Its travel goes in steps of"_s);
  dialog.add("sub_trim_step", t, &Transmitter::sub_trim_step_us, u"Its sub-trim goes in steps of"_s);
  dialog.add("most_travel", t, &Transmitter::most_travel_percent, u"Most travel"_s);
  dialog.add("most_sub_trim", t, &Transmitter::most_sub_trim_us, u"Most sub-trim"_s);
  dialog.add("tolerance", t, &Transmitter::tolerance_us, u"Sticks shall land within ±"_s);
  dialog.add("channel_count", NumbersDialog::described(member_of(&Transmitter::channels), -2, u"Channels it has"_s),
             count);
  std::string others;
  for (const std::string& o : t.also_serves) others += (others.empty() ? "" : ", ") + o;
  std::map<ChannelFunction, double> rates;
  for (const ChannelFunction f : {ChannelFunction::roll, ChannelFunction::pitch, ChannelFunction::yaw})
    if (const Channel* c = document.rig().channel(f)) rates[f] = c->rate_percent;
  for (auto& [f, percent] : rates)
    dialog.add(
        ("rate_" + std::string(name_of(f))).c_str(),
        NumbersDialog::described(member_of(&Channel::rate_percent), -2,
                                 u"Rate of the %1 for the launch"_s.arg(QString::fromStdString(function_label(f)))),
        percent);
  dialog.add("also_serves", u"Other rigs on the same memory"_s, others, u"names, separated by commas"_s);
  dialog.add("mixes", u"It mixes channels itself"_s, t.mixes);
  dialog.add("gestures", u"Stick gestures that change settings are on"_s, t.gestures_change_settings);
  dialog.ask(document, [&] {
    t.counts = in_us ? TravelUnit::us : TravelUnit::percent;
    t.channels = static_cast<int>(count);
    t.also_serves.clear();
    for (const QString& name : QString::fromStdString(others).split(QLatin1Char(','), Qt::SkipEmptyParts))
      if (!name.trimmed().isEmpty()) t.also_serves.push_back(name.trimmed().toStdString());
    return describe_transmitter(document.rig(), t, rates);
  });
}

}  // namespace rigging::app
