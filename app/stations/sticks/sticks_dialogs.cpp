#include "stations/sticks/sticks_dialogs.h"

#include "stations/numbers_dialog.h"
#include "sticks/sticks.h"

namespace rigging::app {

std::optional<Rig> ask_readings(const RigDocument& document, const std::vector<ChannelFunction>& needed,
                                QWidget* parent) {
  const ControllerClass* controller = document.controller();
  if (!controller) return std::nullopt;
  Rig rig = document.rig();
  const bool page = controller->sticks.reads_full > 0;
  NumbersDialog dialog(
      QObject::tr("What was read"),
      page ? QObject::tr("Numbers as the board's test page shows them, −%1 to %1: stick at its lower end, let go, at "
                         "its upper end. Throttle: closed and open.")
                 .arg(controller->sticks.reads_full)
           : QObject::tr("Pulses in µs, as a servo tester or logic analyser reads them: lower end, let go, upper end. "
                         "A channel that falls when the stick goes right, back or open reads the wrong way round."),
      parent);
  struct Typed {
    double low, centre, high;
    bool inverted;
  };
  std::vector<std::pair<Channel*, Typed>> typed;
  for (const ChannelFunction f : needed)
    if (Channel* c = rig.channel(f))
      typed.emplace_back(c, Typed{page_from_us(*controller, c->low_us.value_or(1000)),
                                  page_from_us(*controller, c->centre_us.value_or(1500)),
                                  page_from_us(*controller, c->high_us.value_or(2000)), c->inverted});
  const double least = page ? -1.4 * controller->sticks.reads_full : 700,
               most = page ? 1.4 * controller->sticks.reads_full : 2300;
  for (auto& [c, t] : typed) {
    const QString name = QString::fromStdString(capital(spoken_function(c->function)));
    const std::string key(word(c->function));
    const QString unit = page ? QString() : QStringLiteral("µs");
    dialog.add(("low_" + key).c_str(), {QObject::tr("%1, lower end").arg(name), unit, least, most, 1, 1}, t.low);
    if (c->function != ChannelFunction::throttle)
      dialog.add(("centre_" + key).c_str(), {QObject::tr("%1, let go").arg(name), unit, least, most, 1, 1}, t.centre);
    dialog.add(("high_" + key).c_str(), {QObject::tr("%1, upper end").arg(name), unit, least, most, 1, 1}, t.high);
    dialog.add(("inverted_" + key).c_str(), QObject::tr("%1 reads the wrong way round").arg(name), t.inverted);
  }
  if (typed.empty()) return std::nullopt;
  while (dialog.ask()) {
    QString refused;
    for (auto& [c, t] : typed) {
      Channel with = *c;
      with.low_us = us_from_page(*controller, t.low);
      with.high_us = us_from_page(*controller, t.high);
      with.centre_us = c->function == ChannelFunction::throttle ? (*with.low_us + *with.high_us) / 2
                                                                : us_from_page(*controller, t.centre);
      with.inverted = t.inverted;
      with.learned = false;
      const auto ok = dial_in(with, rig.radio.transmitter, {}, with.inverted);
      if (!ok && refused.isEmpty())
        refused = QString::fromStdString(capital(spoken_function(c->function)) + ": " + ok.error().text());
      if (ok) *c = with;
    }
    if (refused.isEmpty()) return rig;
    dialog.refuse(refused);
  }
  return std::nullopt;
}

std::optional<Rig> ask_transmitter(const RigDocument& document, QWidget* parent) {
  Rig rig = document.rig();
  Transmitter& t = rig.radio.transmitter;
  NumbersDialog dialog(
      QObject::tr("The transmitter"),
      QObject::tr("How it counts, and what it is set to now. What is read with these settings tells what to dial in."),
      parent);
  bool in_us = t.counts == TravelUnit::us;
  double count = t.channels;
  dialog.add("counts_us", QObject::tr("It shows sub-trim and travel in µs, not in percent"), in_us);
  dialog.add("full_us", {QObject::tr("100 % of travel moves the pulse by"), QStringLiteral("µs"), 100, 1000, 0, 1},
             t.full_us);
  dialog.add("step_percent", {QObject::tr("Its travel goes in steps of"), QStringLiteral("%"), 0.01, 10, 2, 1},
             t.step_percent);
  dialog.add("sub_trim_step", {QObject::tr("Its sub-trim goes in steps of"), QStringLiteral("µs"), 0.01, 20, 2, 1},
             t.sub_trim_step_us);
  dialog.add("most_travel", {QObject::tr("Most travel"), QStringLiteral("%"), 50, 200, 0, 1}, t.most_travel_percent);
  dialog.add("most_sub_trim", {QObject::tr("Most sub-trim"), QStringLiteral("µs"), 0, 500, 0, 1}, t.most_sub_trim_us);
  dialog.add("channel_count", {QObject::tr("Channels it has"), QString(), 1, 32, 0, 1}, count);
  std::string others;
  for (const std::string& o : t.also_serves) others += (others.empty() ? "" : ", ") + o;
  std::vector<std::pair<Channel*, std::string>> rated;
  for (const ChannelFunction f : {ChannelFunction::roll, ChannelFunction::pitch, ChannelFunction::yaw})
    if (Channel* c = rig.channel(f)) rated.emplace_back(c, "rate_" + std::string(word(f)));
  for (const auto& [c, id] : rated)
    dialog.add(id.c_str(),
               {QObject::tr("Rate of the %1 for the launch").arg(QString::fromStdString(spoken_function(c->function))),
                QStringLiteral("%"), 10, 200, 0, 1},
               c->rate_percent);
  dialog.add("also_serves", QObject::tr("Other rigs on the same memory"), others,
             QObject::tr("names, separated by commas"));
  dialog.add("mixes", QObject::tr("It mixes channels itself"), t.mixes);
  dialog.add("gestures", QObject::tr("Stick gestures that change settings are on"), t.gestures_change_settings);
  if (!dialog.ask()) return std::nullopt;
  t.counts = in_us ? TravelUnit::us : TravelUnit::percent;
  t.channels = static_cast<int>(count);
  t.also_serves.clear();
  for (const QString& name : QString::fromStdString(others).split(QLatin1Char(','), Qt::SkipEmptyParts))
    if (!name.trimmed().isEmpty()) t.also_serves.push_back(name.trimmed().toStdString());
  return rig;
}

}  // namespace rigging::app
