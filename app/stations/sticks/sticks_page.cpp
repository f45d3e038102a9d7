#include "stations/sticks/sticks_page.h"

#include <QDateTime>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QStyle>
#include <QVBoxLayout>

#include "base/find.h"
#include "base/number.h"
#include "link/image.h"
#include "look/pieces.h"
#include "stations/sticks/channels_dialog.h"
#include "stations/sticks/reach_rulers.h"
#include "stations/sticks/signal_strip.h"
#include "stations/sticks/sticks_dialogs.h"
#include "sticks/edits.h"

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

constexpr ChannelFunction four[] = {ChannelFunction::roll, ChannelFunction::pitch, ChannelFunction::throttle,
                                    ChannelFunction::yaw};

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

  auto* card = new QFrame;
  card->setProperty("card", true);
  card->setFixedWidth(272);
  auto* right = new QVBoxLayout(card);
  right->setContentsMargins(12, 8, 12, 8);
  right->setSpacing(5);
  todo_ = wrapping_words(12, true);
  todo_->setObjectName(QStringLiteral("sticks_todo"));
  right->addWidget(todo_);
  remark_ = wrapping_words(9);
  remark_->setObjectName(QStringLiteral("sticks_remark"));
  right->addWidget(remark_);
  caution_ = caution_words();
  caution_->setText(tr("Propeller off, model held: the throttle will be opened."));
  right->addWidget(caution_);

  listen_ = hinted_button(tr("Listen to the sticks"), "listen",
                          tr("Finds order, direction, centre and ends while you move one stick at a time"));
  again_ =
      hinted_button(tr("That stick again"), "listen_again", tr("Takes back the last stick and asks for it once more"));
  dial_ =
      hinted_button(tr("Dialled in"), "dial_in", tr("What is shown beside the rulers is set in the transmitter now"));
  learn_ = hinted_button(tr("Let the controller learn these ends"), "learn_ends",
                         tr("Takes what was read for the ends of each channel, written with the next configuration"));
  write_ = hinted_button(tr("Write to the controller"), "write_channels",
                         tr("The controller takes each channel for what was found"));
  record_ = hinted_button(tr("Record: sticks calibrated"), "record_calibrated",
                          tr("A proof that goes stale when order, direction, sub-trim or travel change"));
  switch_ =
      hinted_button(tr("Find a switch"), "find_switch", tr("Flip it through all its positions, half a second in each"));
  loss_ = hinted_button(tr("Try the loss of the link"), "try_loss", tr("Transmitter off: does the controller notice?"));
  type_ = hinted_button(tr("Type readings…"), "type_readings",
                        tr("From the controller's own test page, or measured at a servo"));
  transmitter_ = hinted_button(tr("Transmitter…"), "transmitter_settings", tr("How it counts and what it is set to"));
  channels_ = hinted_button(tr("Channels…"), "channels_table",
                            tr("Channels and switches: what shares a channel, which position chooses what"));
  card_ = hinted_button(tr("Settings card…"), "settings_card",
                        tr("What to set in the transmitter and on the model, to print"));
  hidden_ = hinted_button(tr("Nothing tells"), "loss_hidden",
                          tr("The motor goes on, or no lamp shows that the link is gone"));
  listen_->setProperty("main", true);
  dial_->setProperty("main", true);
  for (QPushButton* b : {listen_, again_, dial_, learn_, write_, record_, hidden_}) right->addWidget(b);
  found_ = wrapping_words(9);
  found_->setObjectName(QStringLiteral("sticks_found"));
  right->addWidget(found_);
  right->addStretch(1);
  facts_ = wrapping_words(8.5);
  facts_->setProperty("soft", true);
  facts_->setObjectName(QStringLiteral("sticks_facts"));
  right->addWidget(facts_);
  auto* more = new QGridLayout;
  more->setSpacing(4);
  int at = 0;
  for (QPushButton* b : {switch_, loss_, type_, transmitter_, channels_, card_}) {
    b->setFont(Look::instance().text(9));
    more->addWidget(b, at / 2, at % 2);
    ++at;
  }
  right->addLayout(more);
  page->addWidget(card);

  connect(listen_, &QPushButton::clicked, this, [this] { doing_ == Doing::nothing ? listen() : stop(); });
  connect(again_, &QPushButton::clicked, this, [this] {
    if (setup_) setup_->again();
    update_card();
  });
  connect(dial_, &QPushButton::clicked, this, &SticksPage::dial);
  connect(learn_, &QPushButton::clicked, this, &SticksPage::learn);
  connect(write_, &QPushButton::clicked, this, [this] { bench_.write(link::image_of(document_.rig())); });
  connect(record_, &QPushButton::clicked, this, [this] { record(sticks_calibrated); });
  connect(switch_, &QPushButton::clicked, this, [this] {
    if (doing_ == Doing::a_switch) return finish_switch();
    std::vector<int> taken;
    for (const Channel& c : document_.rig().radio.channels)
      if (std::find(std::begin(four), std::end(four), c.function) != std::end(four)) taken.push_back(c.number);
    switch_setup_.emplace(std::move(taken));
    doing_ = Doing::a_switch;
    result_.clear();
    update_card();
  });
  connect(loss_, &QPushButton::clicked, this, [this] {
    if (doing_ == Doing::loss) {
      const OnLoss before = document_.rig().radio.on_loss;
      return loss_seen(can_listen() ? OnLoss::hold : before == OnLoss::hold ? OnLoss::unknown : before);
    }
    doing_ = Doing::loss;
    result_.clear();
    update_card();
  });
  connect(hidden_, &QPushButton::clicked, this, [this] { loss_seen(OnLoss::hold); });
  connect(card_, &QPushButton::clicked, this, &SticksPage::show_card);
  connect(type_, &QPushButton::clicked, this, &SticksPage::type_in);
  connect(transmitter_, &QPushButton::clicked, this, &SticksPage::transmitter);
  connect(channels_, &QPushButton::clicked, this, &SticksPage::channels);
  connect(&bench_, &BenchLink::frames_heard, this, &SticksPage::heard);
  connect(&bench_, &BenchLink::state_changed, this, &SticksPage::update_card);
  connect(&bench_, &BenchLink::board_read, this, &SticksPage::update_card);
  connect(&bench_, &BenchLink::written, this, &SticksPage::update_card);
  connect(&bench_, &BenchLink::transmitter_read, this, [this](const std::vector<Channel>& settings) {
    Rig rig = document_.rig();
    for (const Channel& s : settings) {
      Channel* c = find_in(rig.radio.channels, [&](const Channel& x) { return x.number == s.number; });
      if (!c) {
        // A channel of no use that stands as it came from the works need not be in the rig.
        if (s.sub_trim_us == 0 && s.travel_low_percent == 100 && s.travel_high_percent == 100 && !s.reversed) continue;
        c = &rig.radio.channels.emplace_back();
        c->number = s.number;
      }
      c->reversed = s.reversed;
      c->sub_trim_us = s.sub_trim_us;
      c->travel_low_percent = s.travel_low_percent;
      c->travel_high_percent = s.travel_high_percent;
    }
    std::sort(rig.radio.channels.begin(), rig.radio.channels.end(),
              [](const Channel& a, const Channel& b) { return a.number < b.number; });
    if (rig.radio != document_.rig().radio)
      document_.edit(std::move(rig), tr("Transmitter settings read from its screen"));
  });
  refresh();
}

QWidget* SticksPage::first_focus() { return listen_; }

bool SticksPage::can_listen() const {
  const ControllerClass* c = document_.controller();
  return c && c->reads_channels && bench_.signal();
}

std::vector<ChannelFunction> SticksPage::needed() const {
  std::vector<ChannelFunction> list;
  for (const ChannelFunction f : four)
    if (const BudgetLine* b =
            find_in(document_.review().sticks.budget, [&](const BudgetLine& l) { return l.function == f; });
        b && b->needed)
      list.push_back(f);
  return list;
}

QString SticksPage::todo() const {
  if (setup_ && doing_ == Doing::sticks) return QString::fromStdString(setup_->todo());
  return {};
}

void SticksPage::listen() {
  setup_.emplace(needed());
  doing_ = Doing::sticks;
  result_.clear();
  // Eyes on the transmitter's screen: what was set while listening belongs to what is heard.
  bench_.read_transmitter();
  update_card();
}

void SticksPage::stop() {
  doing_ = Doing::nothing;
  setup_.reset();
  switch_setup_.reset();
  update_card();
}

void SticksPage::heard(const std::vector<ChannelFrame>& frames) {
  if (!isVisible() && doing_ == Doing::nothing) return;
  if (doing_ == Doing::sticks && setup_) {
    for (const ChannelFrame& f : frames) setup_->feed(f);
    if (setup_->done()) finish_sticks();
  }
  if (doing_ == Doing::a_switch && switch_setup_)
    for (const ChannelFrame& f : frames) switch_setup_->feed(f);
  if (doing_ == Doing::loss) watch_loss(frames);
  const auto& all = bench_.frames();
  rulers_->set_now(all.empty() || bench_.silent() ? nullptr : &all.back());
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
  if (doing_ != Doing::nothing || listen_->isEnabled() != can_listen()) update_card();
}

void SticksPage::finish_sticks() {
  const auto findings = setup_->findings();
  QStringList list;
  for (const StickFinding& f : findings) list << QString::fromStdString(f.words);
  const auto readings = setup_->readings();
  doing_ = Doing::nothing;
  setup_.reset();
  result_ = list.join(QStringLiteral("\n"));
  document_.edit(with_readings(document_.rig(), readings), tr("Sticks read"));
  update_card();
}

void SticksPage::finish_switch() {
  const int channel = switch_setup_->channel();
  const auto positions = switch_setup_->positions();
  doing_ = Doing::nothing;
  switch_setup_.reset();
  if (channel == 0) {
    result_ = tr("No channel but the sticks' moved.");
    return update_card();
  }
  Rig rig = document_.rig();
  Channel* c = find_in(rig.radio.channels, [&](const Channel& x) { return x.number == channel; });
  if (!c) {
    c = &rig.radio.channels.emplace_back();
    c->number = channel;
  }
  c->positions_us.clear();
  for (const double us : positions) c->positions_us.push_back(std::round(us * 10) / 10);
  c->control = positions.size() == 2   ? Control::two_position
               : positions.size() == 3 ? Control::three_position
               : positions.size() > 6  ? Control::slider
                                       : Control::multi_position;
  QStringList at;
  for (const double us : positions) at << QString::number(us, 'f', 0);
  result_ = tr("Channel %1 rests at %2 µs.").arg(channel).arg(at.join(QStringLiteral(", ")));
  document_.edit(std::move(rig), tr("Positions of channel %1 read").arg(channel));
  update_card();
}

void SticksPage::watch_loss(const std::vector<ChannelFrame>& frames) {
  const bool flagged = !frames.empty() && frames.back().failsafe;
  if (flagged || bench_.silent()) loss_seen(flagged ? OnLoss::flag : OnLoss::no_pulses);
}

void SticksPage::loss_seen(OnLoss behaviour) {
  const bool hidden = behaviour == OnLoss::hold;
  doing_ = Doing::nothing;
  // With frames still coming, or nothing that tells, the loss stays hidden; else it was heard, or the builder saw it.
  result_ = hidden ? tr("The receiver repeats its last values: the loss stays hidden. Store another behaviour in the "
                        "receiver, after binding.")
            : behaviour == OnLoss::flag && can_listen()      ? tr("Noticed: the receiver reports the loss.")
            : behaviour == OnLoss::no_pulses && can_listen() ? tr("Noticed: the receiver fell silent.")
                                                             : tr("Noticed: motor and lamp told.");
  if (behaviour != document_.rig().radio.on_loss) {
    Rig rig = document_.rig();
    rig.radio.on_loss = behaviour;
    document_.edit(std::move(rig), hidden ? tr("Loss of the link tried: hidden") : tr("Loss of the link tried"));
  }
  if (!hidden) record(loss_noticed);
  update_card();
}

void SticksPage::dial() {
  const SticksReport& r = document_.review().sticks;
  Rig rig = document_.rig();
  int dialled_in = 0;
  for (const ChannelLine& l : r.channels) {
    if (!l.dial || !l.dial->changes) continue;
    Channel* c = find_in(rig.radio.channels, [&](const Channel& x) { return x.number == l.channel.number; });
    *c = dialled(*c, *l.dial);
    bench_.dial(*c);  // the simulated hands do what the builder's do
    ++dialled_in;
  }
  if (dialled_in == 0) return;
  result_ = tr("Listen once more: only what is heard counts.");
  for (const std::string& other : rig.radio.transmitter.also_serves)
    result_ += tr(" This memory also flies %1: look at it, too.").arg(QString::fromStdString(other));
  document_.edit(std::move(rig), tr("Dialled in: %1 channels").arg(dialled_in));
}

void SticksPage::learn() { document_.apply(learn_ends(document_.rig())); }

void SticksPage::record(const CheckId& check) { (void)document_.record(check, bench_.simulated()); }

void SticksPage::type_in() {
  if (auto typed = ask_readings(document_, needed(), this)) document_.edit(std::move(*typed), tr("Readings typed"));
}

void SticksPage::transmitter() {
  if (auto described = ask_transmitter(document_, this))
    document_.edit(std::move(*described), tr("The transmitter described"));
}

void SticksPage::channels() { ChannelsDialog(document_, this).exec(); }

void SticksPage::go_to(const QString& subject) {
  if (subject.startsWith(QLatin1String("channel")) || subject == QLatin1String("modes")) {
    channels_->setFocus(Qt::OtherFocusReason);
    return;
  }
  (can_listen() ? listen_ : type_)->setFocus(Qt::OtherFocusReason);
}

void SticksPage::refresh() {
  const SticksReport& r = document_.review().sticks;
  std::vector<ChannelLine> lines;
  std::vector<std::pair<int, QString>> pens;
  for (const ChannelFunction f : needed()) {
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
  QStringList facts;
  for (const BudgetLine& b : r.budget)
    if (b.needed && b.channel == 0)
      facts << tr("No channel for %1: %2.")
                   .arg(QString::fromLatin1(word(b.function).data()), QString::fromStdString(b.words));
  facts << tr("%1 of %2 channels free.").arg(r.free_channels).arg(document_.rig().radio.transmitter.channels);
  for (const LossLine& l : r.losses)
    if (l.chosen) facts << QString::fromStdString(l.words);
  for (const std::string& a : r.authority) facts << QString::fromStdString(a) + QLatin1Char('.');
  facts_->setText(facts.join(QLatin1Char(' ')));
  update_card();
}

void SticksPage::update_card() {
  const SticksReport& r = document_.review().sticks;
  const ControllerClass* c = document_.controller();
  const bool busy = doing_ != Doing::nothing;
  bool changes = false, wrong_way = false;
  QStringList limits;
  for (const ChannelLine& l : r.channels)
    if (l.dial) {
      changes = changes || l.dial->changes;
      wrong_way = wrong_way || l.dial->turn_round;
      for (const std::string& limit : l.dial->limits)
        limits << QString::fromStdString(capital(spoken_function(l.channel.function)) + ": " + limit + ".");
    }
  QString todo, remark;
  if (doing_ == Doing::sticks && setup_) {
    todo = QString::fromStdString(setup_->todo());
    remark = setup_->remark().empty() ? tr("Step %1 of %2").arg(setup_->steps_done() + 1).arg(setup_->steps())
                                      : QString::fromStdString(setup_->remark());
    rulers_->set_asked(setup_->stick(), setup_->side());
  } else {
    rulers_->set_asked(std::nullopt, 0);
    if (doing_ == Doing::a_switch) {
      todo = tr("Flip one switch through all its positions, half a second in each.");
      QStringList at;
      for (const double us : switch_setup_->positions()) at << QString::number(us, 'f', 0);
      remark = switch_setup_->channel() == 0
                   ? tr("Nothing moved yet.")
                   : tr("Channel %1: %2 µs").arg(switch_setup_->channel()).arg(at.join(QStringLiteral(", ")));
    } else if (doing_ == Doing::loss) {
      const bool off = !bench_.frames().empty() && !bench_.silent();
      todo = tr("Switch the transmitter off.");
      remark = !can_listen() ? tr("Propeller off. The motor must stop, and the lamp should tell.")
               : off ? tr("Frames still come as if nothing had happened. If that stays so with the transmitter off, "
                          "the receiver hides the loss.")
                     : QString();
    } else if (!changes && !r.all_land && (!c || !c->reads_channels)) {
      todo = tr("Read the pulses and type them in.");
      remark =
          tr("This class does not show what it receives: a servo tester or a logic analyser does (rigging-cli decode "
             "reads its captures).");
    } else if (r.all_land) {
      todo = tr("The sticks land.");
      remark = tr("Low, centre and high are within %1 µs.").arg(lands_well_us);
    } else if (changes) {
      todo = tr("Dial in what stands beside the rulers.");
      remark = wrong_way ? tr("Trim levers in the middle; directions first, then sub-trim and travel.")
                         : tr("Trim levers in the middle, then sub-trim and travel of each channel.");
    } else if (!bench_.signal()) {
      todo = tr("Nothing is heard yet.");
      remark = c->reads_full > 0
                   ? tr("Type what the test page shows, or start the bench below.")
                   : tr("Transmitter on first, throttle low, then the battery. The bench below plays both.");
    } else {
      todo = r.all_read ? tr("Nearly: let the controller learn the rest, or listen again.")
                        : tr("Move one stick at a time while Rigging listens.");
      remark = tr("It finds order, direction, centre and ends by itself.");
    }
  }
  if (c && !c->reads_channels) strip_->set_frames(nullptr, tr("This class does not show what it receives."));
  todo_->setText(todo);
  remark_->setText(remark);
  caution_->setVisible(doing_ == Doing::sticks || (!busy && can_listen() && !r.all_land && !changes));
  const auto set = [](QPushButton* b, bool visible, bool enabled = true) {
    b->setVisible(visible);
    b->setEnabled(enabled);
  };
  listen_->setText(doing_ == Doing::sticks || doing_ == Doing::loss ? tr("Stop")
                   : r.all_read || changes                          ? tr("Listen again")
                                                                    : tr("Listen to the sticks"));
  set(listen_, c && c->reads_channels && doing_ != Doing::a_switch, can_listen());
  if (doing_ == Doing::loss && !can_listen()) set(listen_, true);
  // One thing to do next stands out.
  if (const bool main = !(!busy && changes); listen_->property("main").toBool() != main) {
    listen_->setProperty("main", main);
    listen_->style()->polish(listen_);
  }
  set(again_, doing_ == Doing::sticks && setup_ && setup_->steps_done() > 1);
  set(dial_, !busy && changes);
  const bool ends_known = r.all_read && !r.all_land && !wrong_way;
  set(learn_, !busy && c && c->learns_ends && ends_known && (!limits.isEmpty() || !changes));
  const bool differs = bench_.board() && !link::differences(link::image_of(document_.rig()), *bench_.board()).empty();
  set(write_, !busy && differs && r.all_read && !bench_.writing());
  const CheckStatus* calibrated = find_check(document_.review().checks, sticks_calibrated);
  set(record_, !busy && r.all_land && calibrated && !calibrated->stands());
  switch_->setText(doing_ == Doing::a_switch ? tr("That was all") : tr("Find a switch"));
  set(switch_, true, can_listen() && (doing_ == Doing::nothing || doing_ == Doing::a_switch));
  loss_->setText(doing_ != Doing::loss ? tr("Try the loss") : can_listen() ? tr("Off, frames come") : tr("It told me"));
  set(loss_, true, (can_listen() || (c && !c->reads_channels)) && (doing_ == Doing::nothing || doing_ == Doing::loss));
  set(hidden_, doing_ == Doing::loss && !can_listen());
  for (QPushButton* b : {type_, transmitter_, channels_}) b->setEnabled(!busy);
  QStringList found = limits;
  if (!result_.isEmpty()) found.prepend(result_);
  found_->setText(found.join(QStringLiteral("\n")));
  found_->setVisible(!found.isEmpty());
}

void SticksPage::show_card() { Q_EMIT sheets_asked(tr("Settings card"), setting_sheets(document_)); }

QList<Request> SticksPage::requests() {
  return {{tr("Print the settings card"), tr("transmitter sub-trim travel hand card throws sheet pdf svg paper"),
           [this] { show_card(); }}};
}

}  // namespace rigging::app
