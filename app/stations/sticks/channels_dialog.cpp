#include "stations/sticks/channels_dialog.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include "base/find.h"
#include "look/literals.h"
#include "look/number_box.h"
#include "look/pieces.h"
#include "look/scroll_content.h"
#include "sticks/edits.h"
#include "sticks/sticks.h"

namespace rigging::app {

ChannelsDialog::ChannelsDialog(RigDocument& document, QWidget* parent) : QDialog(parent), document_(document) {
  setObjectName(u"channels_dialog"_s);
  setWindowTitle(u"Channels and switches"_s);
  resize(620, 520);
  auto* layout = new QVBoxLayout(this);
  auto* area = new QScrollArea;
  area->setObjectName(u"channels_area"_s);
  area->setWidgetResizable(true);
  layout->addWidget(area, 1);
  auto* done = new QPushButton(u"Done"_s);
  done->setProperty("main", true);
  done->setDefault(true);
  auto* bottom = new QHBoxLayout;
  bottom->addStretch();
  bottom->addWidget(done);
  layout->addLayout(bottom);
  connect(done, &QPushButton::clicked, this, &QDialog::accept);
  connect(&document_, &RigDocument::changed, this, &ChannelsDialog::rebuild);
  rebuild();
}

void ChannelsDialog::rebuild() {
  const SticksReport& report = document_.review().reports.sticks();
  auto* content = new QWidget;
  auto* column = new QVBoxLayout(content);
  column->setSpacing(6);
  const auto edit = [this](int number, const std::function<void(Channel&)>& change) {
    Channel channel;
    channel.number = number;
    for (const Channel& c : document_.rig().radio.channels)
      if (c.number == number) channel = c;
    change(channel);
    document_.apply(put_channel(document_.rig(), channel));
  };
  const int count = std::clamp(document_.rig().radio.transmitter.channels, 1, 16);
  for (int number = 1; number <= count; ++number) {
    const Channel* known =
        find_in(document_.rig().radio.channels, [&](const Channel& x) { return x.number == number; });
    auto* row = new QFrame;
    row->setProperty("card", true);
    auto* grid = new QGridLayout(row);
    grid->setContentsMargins(10, 6, 10, 6);
    auto* name = new QLabel(u"Channel %1"_s.arg(number));
    name->setFont(Style::instance().text(10, true));
    grid->addWidget(name, 0, 0);
    auto* function = new QComboBox;
    function->setObjectName(u"function_%1"_s.arg(number));
    function->setAccessibleName(u"What channel %1 is for"_s.arg(number));
    for (const auto& [f, w] : Names<ChannelFunction>::list)
      function->addItem(f == ChannelFunction::other ? u"free"_s : QString::fromStdString(function_label(f)),
                        QString::fromLatin1(w.data()));
    function->setCurrentIndex(
        function->findData(QString::fromLatin1(name_of(known ? known->function : ChannelFunction::other).data())));
    grid->addWidget(function, 0, 1);
    connect(function, &QComboBox::activated, this, [edit, number, function] {
      const auto f = from_name<ChannelFunction>(function->currentData().toString().toStdString());
      if (f) edit(number, [&](Channel& c) { c.function = *f; });
    });
    auto* control = new QComboBox;
    control->setObjectName(u"control_%1"_s.arg(number));
    control->setAccessibleName(u"What works channel %1"_s.arg(number));
    control->addItem(u"not said"_s, QString());
    for (const auto& [c, w] : Names<Control>::list)
      control->addItem(QString::fromStdString(label_of(w)), QString::fromLatin1(w.data()));
    if (known && known->control)
      control->setCurrentIndex(control->findData(QString::fromLatin1(name_of(*known->control).data())));
    grid->addWidget(control, 0, 2);
    connect(control, &QComboBox::activated, this, [edit, number, control] {
      edit(number, [&](Channel& c) {
        c.control = from_name<Control>(control->currentData().toString().toStdString());
        c.fixed_us = c.control == Control::fixed ? std::optional(c.fixed_us.value_or(1000)) : std::nullopt;
      });
    });
    grid->setColumnStretch(3, 1);
    // One switch may move two channels, mixed in the transmitter.
    if (known && known->function == ChannelFunction::mode) {
      auto* with = new QComboBox;
      with->setObjectName(u"with_%1"_s.arg(number));
      with->setAccessibleName(u"Whose switch moves channel %1 as well"_s.arg(number));
      with->addItem(u"switch of its own"_s, 0);
      for (const Channel& other : document_.rig().radio.channels)
        if (other.number != number && other.function == ChannelFunction::mode && other.with_channel == 0)
          with->addItem(u"moves with channel %1"_s.arg(other.number), other.number);
      with->setCurrentIndex(std::max(0, with->findData(known->with_channel)));
      with->setVisible(with->count() > 1);
      grid->addWidget(with, 0, 3);
      connect(with, &QComboBox::activated, this, [edit, number, with] {
        edit(number, [&](Channel& c) { c.with_channel = with->currentData().toInt(); });
      });
    }
    if (known && known->function != ChannelFunction::other && !known->fixed_us) {
      // What the transmitter's screen shows now; what was read was read with it.
      auto* settings = new QHBoxLayout;
      settings->setSpacing(6);
      auto* turned = new QCheckBox(u"turned"_s);
      turned->setObjectName(u"turned_%1"_s.arg(number));
      turned->setChecked(known->reversed);
      turned->setToolTip(u"The transmitter reverses this channel"_s);
      connect(turned, &QCheckBox::clicked, this,
              [edit, number](bool on) { edit(number, [&](Channel& c) { c.reversed = on; }); });
      settings->addWidget(turned);
      const Transmitter& t = document_.rig().radio.transmitter;
      const bool us = t.counts == TravelUnit::us;
      const auto box = [&](const char* id, const QString& what, double Channel::*member, double per) {
        auto* caption = new QLabel(what);
        caption->setProperty("soft", true);
        caption->setFont(Style::instance().text(9));
        settings->addWidget(caption);
        auto* b =
            number_box(u"%1_%2"_s.arg(QLatin1String(id)).arg(number), u"%1 of channel %2"_s.arg(what).arg(number), 82);
        const Span range = member_of(member).span;
        b->setRange(range.least * per, range.most * per);
        b->setDecimals(1);
        b->setSuffix(us ? u" µs"_s : u" %"_s);
        b->setFont(Style::instance().figures(9));
        b->setValue(known->*member * per);
        connect(b, &QDoubleSpinBox::valueChanged, this, [edit, number, per, member](double shown) {
          edit(number, [&](Channel& c) { c.*member = shown / per; });
        });
        settings->addWidget(b);
      };
      const double travel = us ? t.full_us / 100 : 1, trim = us ? 1 : 100 / t.full_us;
      box("travel_low", u"low"_s, &Channel::travel_low_percent, travel);
      box("sub_trim", u"sub-trim"_s, &Channel::sub_trim_us, trim);
      box("travel_high", u"high"_s, &Channel::travel_high_percent, travel);
      settings->addStretch(1);
      grid->addLayout(settings, 2, 0, 1, 4);
    }
    QStringList at;
    double least = 1000;
    if (const SwitchLine* s = find_in(report.switches, [&](const SwitchLine& x) {
          return x.channel == number && x.function != ChannelFunction::other;
        })) {
      for (const SwitchPosition& p : s->positions) {
        at << (p.mode.empty() ? u"%1"_s.arg(p.pulse_us, 0, 'f', 0)
                              : u"%1 %2"_s.arg(p.pulse_us, 0, 'f', 0).arg(QString::fromStdString(p.mode)));
        if (!p.mode.empty()) least = std::min(least, p.guard_us);
      }
      QString line = (s->measured ? u"rests at %1 µs"_s : u"as a plain switch: %1 µs"_s).arg(at.join(u" · "_s));
      if (least < 1000) line += u", at least %1 µs from a boundary"_s.arg(least, 0, 'f', 0);
      auto* words = new QLabel(line);
      words->setProperty(least < least_guard_us ? "caution" : "soft", true);
      words->setFont(Style::instance().text(9));
      words->setWordWrap(true);
      grid->addWidget(words, 1, 0, 1, 4);
    }
    column->addWidget(row);
  }
  column->addStretch(1);
  replace_content(*findChild<QScrollArea*>(u"channels_area"_s), content);
}

}  // namespace rigging::app
