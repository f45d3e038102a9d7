#include "stations/sticks/sticks_page.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "base/find.h"
#include "look/literals.h"
#include "look/pieces.h"
#include "stations/sticks/channels_dialog.h"
#include "stations/sticks/reach_rulers.h"
#include "stations/sticks/receiver_dialog.h"
#include "stations/sticks/signal_strip.h"
#include "stations/sticks/sticks_dialogs.h"
#include "stations/sticks/switch_bars.h"
#include "wiring/ports.h"

namespace rigging::app {

SticksPage::SticksPage(const PageContext& context) : StationPage(Station::sticks, context) {
  auto* page = new QHBoxLayout(this);
  page->setContentsMargins(16, 10, 12, 8);
  page->setSpacing(14);

  auto* left = new QVBoxLayout;
  left->setSpacing(2);
  left->addWidget(heading());
  rulers_ = new ReachRulers;
  left->addWidget(rulers_);
  strip_ = new SignalStrip;
  switches_ = new SwitchBars;
  left->addWidget(switches_);
  left->addWidget(strip_, 1);
  page->addLayout(left, 1);

  auto* frame = new QFrame;
  frame->setProperty("card", true);
  keep_width(frame, 272);
  auto* right = new QVBoxLayout(frame);
  right->setContentsMargins(12, 8, 12, 8);
  right->setSpacing(4);
  card_ = procedure_card("sticks", ProcedureCard::Form::column);
  right->addWidget(card_, 1);
  type_ = hinted_button(u"Type readings…"_s, "type_readings",
                        u"From the controller's own test page, or measured at a servo"_s);
  transmitter_ = hinted_button(u"Transmitter…"_s, "transmitter_settings", u"How it counts and what it is set to"_s);
  channels_ = hinted_button(u"Channels…"_s, "channels_table",
                            u"Channels and switches: what shares a channel, which position chooses what"_s);
  auto* settings_card = hinted_button(u"Settings card…"_s, "settings_card",
                                      u"What to set in the transmitter and on the model, to print"_s);
  auto* more = new QGridLayout;
  more->setSpacing(3);
  int at = 0;
  receiver_ =
      hinted_button(u"Real receiver…"_s, "real_receiver", u"Listen to a receiver by itself, at a serial device"_s);
  connect(receiver_, &QPushButton::clicked, this, &SticksPage::listen_to_receiver);
  screen_ = hinted_button(u"Its screen…"_s, "type_screen",
                          u"Type what the transmitter's own channel screen shows, in percent"_s);
  for (QPushButton* b : {type_, screen_, transmitter_, channels_, settings_card, receiver_}) {
    b->setFont(Style::instance().text(9));
    more->addWidget(b, at / 2, at % 2);
    ++at;
  }
  right->addLayout(more);
  page->addWidget(frame);

  connect(settings_card, &QPushButton::clicked, this, &SticksPage::show_settings_card);
  connect(type_, &QPushButton::clicked, this, [this] { type_in(ReadOn::board); });
  connect(screen_, &QPushButton::clicked, this, [this] { type_in(ReadOn::transmitter); });
  connect(transmitter_, &QPushButton::clicked, this, &SticksPage::transmitter);
  connect(channels_, &QPushButton::clicked, this, &SticksPage::channels);
  connect(rulers_, &ReachRulers::again, this,
          [this](ChannelFunction f) { card_->runner().tell(Pressed{"again_" + std::string(name_of(f))}); });
  history_due_.set_single(true);
  connect(&history_due_, &Ticks::timeout, this, &SticksPage::show_history);
  connect(&bench_, &BenchLink::frames_heard, this, &SticksPage::show_signal);
  connect(&card_->runner(), &ProcedureRunner::card_changed, this, &SticksPage::follow_card);
  refresh();
}

QWidget* SticksPage::first_focus() {
  QWidget* first = card_->first_focus();
  return first ? first : type_;
}

void SticksPage::follow_card() {
  const Card& card = card_->runner().card();
  rulers_->set_asked(card.picture.stick, card.picture.side);
  rulers_->set_again(std::any_of(card.actions.begin(), card.actions.end(),
                                 [](const Action& a) { return stick_again(a.id).has_value(); }));
  for (QPushButton* b : {type_, screen_, transmitter_, channels_}) b->setEnabled(!card.busy);
}

void SticksPage::show_signal() {
  if (!isVisible()) return;
  const auto& all = bench_.frames();
  const ChannelFrame* now = all.empty() || bench_.silent() ? nullptr : &all.back();
  rulers_->set_now(now);
  switches_->set_now(now);
  if (!history_due_.is_active()) history_due_.start();
}

void SticksPage::show_history() {
  const auto& all = bench_.frames();
  const ControllerClass* c = document_.controller();
  if (c && !c->sticks.reads_channels && !bench_.listening())
    return strip_->set_frames(nullptr, u"This class does not show what it receives."_s);
  const Reception r = reception(all);
  QString line;
  if (!bench_.signal())
    line = bench_.controller_answers() ? u"The receiver is dark."_s : u"No bench connected."_s;
  else if (bench_.silent() && bench_.listening() && bench_.bytes_heard() > 0)
    line = u"%1 bytes came, and no frame is among them: another signal or baud, or a line that is not inverted."_s.arg(
        bench_.bytes_heard());
  else if (bench_.silent())
    line = u"Nothing comes from the receiver."_s;
  else {
    line = u"%1 · %2 frames a second · %3 lost"_s.arg(QString::fromStdString(signal_label(*bench_.signal())),
                                                      QString::number(r.frames_per_s, 'f', 0),
                                                      QString::number(bench_.tally().lost));
    if (bench_.tally().damaged > 0) line += u" · %1 damaged"_s.arg(bench_.tally().damaged);
    if (*bench_.signal() == Signal::two_way_serial && bench_.link_report().strength_dbm < 0)
      line += u" · link %1 %, %2 dBm"_s.arg(bench_.link_report().quality_percent, 0, 'f', 0)
                  .arg(bench_.link_report().strength_dbm, 0, 'f', 0);
    if (r.failsafe) line += u" · the receiver reports: link gone"_s;
  }
  strip_->set_frames(&all, line);
}

void SticksPage::listen_to_receiver() { ReceiverDialog(document_, bench_, this).exec(); }

void SticksPage::type_in(ReadOn where) {
  ask_readings(document_, sticks_needed(document_.review().reports.sticks()), where, this);
}

void SticksPage::transmitter() { ask_transmitter(document_, this); }

void SticksPage::channels() { ChannelsDialog(document_, this).exec(); }

void SticksPage::go_to(const QString& subject) {
  if (subject.startsWith(QLatin1String("channel")) || subject == QLatin1String("modes")) {
    channels_->setFocus(Qt::OtherFocusReason);
    return;
  }
  first_focus()->setFocus(Qt::OtherFocusReason);
}

void SticksPage::refresh() {
  const SticksReport& r = document_.review().reports.sticks();
  std::vector<ChannelLine> lines;
  std::vector<std::pair<int, QString>> pens;
  for (const ChannelFunction f : sticks_needed(r)) {
    const ChannelLine* l = find_in(r.channels, [&](const ChannelLine& x) { return x.channel.function == f; });
    ChannelLine line;
    if (l)
      line = *l;
    else {
      line.channel.function = f;
      line.channel.number = 0;
      line.verdict = "no channel carries it";
    }
    lines.push_back(line);
    if (l) pens.emplace_back(l->channel.number, QString::fromLatin1(name_of(f).data()));
  }
  std::vector<int> sticks;
  for (const ChannelLine& l : lines) sticks.push_back(l.channel.number);
  for (const Channel& c : document_.rig().radio.channels)
    if (is_stick(c.function)) sticks.push_back(c.number);
  switches_->set_lines(r.switches, std::move(sticks), document_.rig().modes,
                       document_.rig().radio.transmitter.channels);
  rulers_->set_lines(std::move(lines), document_.rig().radio.transmitter);
  strip_->set_channels(std::move(pens));
  show_signal();
  show_history();
  follow_card();
}

void SticksPage::show_settings_card() { Q_EMIT sheets_asked(u"Settings card"_s, setting_sheets(document_)); }

QList<NamedAction> SticksPage::named_actions() {
  QList<NamedAction> all;
  for (const ChannelFunction f : sticks_needed(document_.review().reports.sticks()))
    all.append({u"Listen to the %1 once more"_s.arg(QString::fromStdString(function_label(f))),
                u"again repeat calibrate one"_s, [this, f] {
                  come_here();
                  card_->runner().tell(Pressed{"again_" + std::string(name_of(f))});
                }});
  return all +
         QList<NamedAction>{
             {u"Print the settings card"_s, u"transmitter sub-trim travel hand card throws sheet pdf svg paper"_s,
              [this] { show_settings_card(); }},
             {u"Listen to a real receiver"_s, u"serial device adapter inverted two-way frames bytes baud"_s, [this] {
                come_here();
                listen_to_receiver();
              }}};
}

}  // namespace rigging::app
