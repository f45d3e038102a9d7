#include "stations/sticks/sticks_page.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "base/find.h"
#include "look/pieces.h"
#include "stations/sticks/channels_dialog.h"
#include "stations/sticks/reach_rulers.h"
#include "stations/sticks/signal_strip.h"
#include "stations/sticks/sticks_dialogs.h"

namespace rigging::app {
namespace {

QString signal_name(Signal signal) {
  switch (signal) {
    case Signal::pulse: return QObject::tr("pulse per channel");
    case Signal::summed: return QObject::tr("summed pulse");
    case Signal::inverted_serial: return QObject::tr("inverted serial");
    case Signal::two_way_serial: return QObject::tr("two-way serial");
  }
  return {};
}

}  // namespace

SticksPage::SticksPage(const PageContext& context) : StationPage(Station::sticks, context) {
  auto* page = new QHBoxLayout(this);
  page->setContentsMargins(16, 10, 12, 8);
  page->setSpacing(14);

  auto* left = new QVBoxLayout;
  left->setSpacing(4);
  left->addWidget(heading());
  rulers_ = new ReachRulers;
  left->addWidget(rulers_);
  strip_ = new SignalStrip;
  left->addWidget(strip_, 1);
  page->addLayout(left, 1);

  auto* frame = new QFrame;
  frame->setProperty("card", true);
  frame->setFixedWidth(272);
  auto* right = new QVBoxLayout(frame);
  right->setContentsMargins(12, 8, 12, 8);
  right->setSpacing(4);
  card_ = procedure_card("sticks", ProcedureCard::Form::column);
  right->addWidget(card_, 1);
  type_ = hinted_button(tr("Type readings…"), "type_readings",
                        tr("From the controller's own test page, or measured at a servo"));
  transmitter_ = hinted_button(tr("Transmitter…"), "transmitter_settings", tr("How it counts and what it is set to"));
  channels_ = hinted_button(tr("Channels…"), "channels_table",
                            tr("Channels and switches: what shares a channel, which position chooses what"));
  auto* settings_card = hinted_button(tr("Settings card…"), "settings_card",
                                      tr("What to set in the transmitter and on the model, to print"));
  auto* more = new QGridLayout;
  more->setSpacing(4);
  int at = 0;
  for (QPushButton* b : {type_, transmitter_, channels_, settings_card}) {
    b->setFont(Look::instance().text(9));
    more->addWidget(b, at / 2, at % 2);
    ++at;
  }
  right->addLayout(more);
  page->addWidget(frame);

  connect(settings_card, &QPushButton::clicked, this, &SticksPage::show_settings_card);
  connect(type_, &QPushButton::clicked, this, &SticksPage::type_in);
  connect(transmitter_, &QPushButton::clicked, this, &SticksPage::transmitter);
  connect(channels_, &QPushButton::clicked, this, &SticksPage::channels);
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
  for (QPushButton* b : {type_, transmitter_, channels_}) b->setEnabled(!card.busy);
}

void SticksPage::show_signal() {
  if (!isVisible()) return;
  const auto& all = bench_.frames();
  rulers_->set_now(all.empty() || bench_.silent() ? nullptr : &all.back());
  const ControllerClass* c = document_.controller();
  if (c && !c->sticks.reads_channels)
    return strip_->set_frames(nullptr, tr("This class does not show what it receives."));
  const Reception r = reception(all);
  QString line;
  if (!bench_.signal())
    line = bench_.controller_answers() ? tr("The receiver is dark.") : tr("No bench connected.");
  else if (bench_.silent())
    line = tr("Nothing comes from the receiver.");
  else {
    line = tr("%1 · %2 frames a second · %3 lost")
               .arg(signal_name(*bench_.signal()), QString::number(r.frames_per_s, 'f', 0),
                    QString::number(bench_.tally().lost));
    if (bench_.tally().damaged > 0) line += tr(" · %1 damaged").arg(bench_.tally().damaged);
    if (*bench_.signal() == Signal::two_way_serial && bench_.link_report().strength_dbm < 0)
      line += tr(" · link %1 %, %2 dBm")
                  .arg(bench_.link_report().quality_percent, 0, 'f', 0)
                  .arg(bench_.link_report().strength_dbm, 0, 'f', 0);
    if (r.failsafe) line += tr(" · the receiver reports: link gone");
  }
  strip_->set_frames(&all, line);
}

void SticksPage::type_in() { ask_readings(document_, sticks_needed(document_.review().sticks), this); }

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
  const SticksReport& r = document_.review().sticks;
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
    if (l) pens.emplace_back(l->channel.number, QString::fromLatin1(word(f).data()));
  }
  rulers_->set_lines(std::move(lines), document_.rig().radio.transmitter);
  strip_->set_channels(std::move(pens));
  show_signal();
  follow_card();
}

void SticksPage::show_settings_card() { Q_EMIT sheets_asked(tr("Settings card"), setting_sheets(document_)); }

QList<Request> SticksPage::requests() {
  return {{tr("Print the settings card"), tr("transmitter sub-trim travel hand card throws sheet pdf svg paper"),
           [this] { show_settings_card(); }}};
}

}  // namespace rigging::app
