#include "stations/proof/proof_page.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <cmath>

#include "look/pieces.h"

namespace rigging::app {
namespace {

QLabel* words(double points, bool bold, const char* property = nullptr) {
  auto* label = wrapping_words(points, bold);
  if (property) label->setProperty(property, true);
  return label;
}

std::vector<Surface> surfaces_of(const direction::Case& c) {
  std::vector<Surface> all;
  for (const auto& o : c.outputs) all.insert(all.end(), o.surfaces.begin(), o.surfaces.end());
  return all;
}

/// How far the picture tilts for a correction: past where the class begins to answer.
double shown_tilt_deg(const DirectionCard& card) {
  return !card.correction ? 0 : card.from_deg > 0 ? card.from_deg + 10 : 26;
}

}  // namespace

ProofPage::ProofPage(const PageContext& context) : StationPage(Station::proof, context), hands_(bench_, this) {
  auto* page = new QHBoxLayout(this);
  page->setContentsMargins(12, 8, 12, 6);
  page->setSpacing(14);
  auto* left = new QVBoxLayout;
  chain_ = new ProofChain;
  connect(chain_, &ProofChain::chosen, this, [this](const QString& id) { choose(id.toStdString()); });
  left->addWidget(chain_, 1);
  looked_ = words(8.5, false, "soft");
  looked_->setFixedWidth(190);
  left->addWidget(looked_);
  page->addLayout(left);

  auto* middle = new QVBoxLayout;
  middle->setSpacing(4);
  title_ = words(13, true);
  title_->setObjectName(QStringLiteral("card_title"));
  todo_ = words(11, false);
  todo_->setObjectName(QStringLiteral("card_todo"));
  caution_ = words(9, true, "caution");
  how_ = words(9, false, "soft");
  picture_words_ = words(9, false);
  view_ = new AircraftView(AircraftView::From::behind_above);
  do_it_ = new QPushButton(tr("Do it on the simulated bench"));
  do_it_->setObjectName(QStringLiteral("do_it"));
  middle->addWidget(title_);
  middle->addWidget(todo_);
  middle->addWidget(caution_);
  middle->addWidget(view_, 1);
  middle->addWidget(picture_words_);
  middle->addWidget(how_);
  auto* doing = new QHBoxLayout;
  doing->addWidget(do_it_);
  doing->addStretch();
  middle->addLayout(doing);
  page->addLayout(middle, 1);

  auto* right = new QVBoxLayout;
  right->setSpacing(6);
  verdict_ = words(12, true);
  verdict_->setObjectName(QStringLiteral("verdict"));
  remedy_ = words(10, false);
  remedy_->setObjectName(QStringLiteral("remedy"));
  as_shown_ = new QPushButton(tr("Yes, all as shown"));
  as_shown_->setObjectName(QStringLiteral("as_shown"));
  as_shown_->setProperty("main", true);
  as_shown_->setMinimumHeight(40);
  keys_ = new LookKeys;
  note_ = new QPushButton(tr("This is what I saw"));
  note_->setObjectName(QStringLiteral("note"));
  note_->setMinimumHeight(34);
  apply_ = new QPushButton;
  apply_->setObjectName(QStringLiteral("apply"));
  apply_->setProperty("main", true);
  apply_->setMinimumHeight(40);
  card_button_ = new QPushButton(tr("Show the hand card"));
  card_button_->setObjectName(QStringLiteral("hand_card"));
  by_hand_button_ = new QPushButton(tr("I have done it by hand"));
  by_hand_button_->setObjectName(QStringLiteral("by_hand"));
  by_hand_button_->setProperty("main", true);
  by_hand_button_->setMinimumHeight(40);
  again_ = new QPushButton(tr("Forget those and look again"));
  again_->setObjectName(QStringLiteral("look_again"));
  back_ = new QPushButton(tr("Take back my last look"));
  back_->setObjectName(QStringLiteral("take_back"));
  write_ = new QPushButton(tr("Write the rig to the controller"));
  write_->setObjectName(QStringLiteral("write_rig"));
  write_->setProperty("main", true);
  write_->setMinimumHeight(40);
  right->addWidget(verdict_);
  right->addWidget(remedy_);
  there_ = new QPushButton;
  there_->setObjectName(QStringLiteral("to_station"));
  there_->setProperty("main", true);
  there_->setMinimumHeight(40);
  right->addWidget(there_);
  record_ = new QPushButton(tr("Yes, I saw it"));
  record_->setObjectName(QStringLiteral("record_card"));
  record_->setProperty("main", true);
  record_->setMinimumHeight(40);
  right->addWidget(record_);
  right->addWidget(write_);
  right->addWidget(as_shown_);
  right->addWidget(keys_);
  right->addWidget(note_);
  right->addWidget(apply_);
  right->addWidget(by_hand_button_);
  right->addWidget(card_button_);
  right->addWidget(again_);
  right->addStretch();
  right->addWidget(back_);
  auto* right_box = new QWidget;
  right_box->setFixedWidth(392);
  right->setContentsMargins(0, 0, 0, 0);
  right_box->setLayout(right);
  page->addWidget(right_box);

  connect(as_shown_, &QPushButton::clicked, this, [this] {
    direction::Observation seen = asked_;
    for (const Expected& e : card_->looks) seen.saw.push_back({e.surface, e.motion});
    note(std::move(seen));
  });
  connect(there_, &QPushButton::clicked, this, [this] {
    if (const CheckStatus* now = status(current_))
      Q_EMIT wanted(now->family->station, QString::fromStdString(now->id.subject));
  });
  connect(record_, &QPushButton::clicked, this, [this] {
    const CheckStatus* now = status(current_);
    if (!now) return;
    if (const auto ok = document_.record(now->id, bench_.simulated()); !ok)
      Q_EMIT said(QString::fromStdString(ok.error().text()));
  });
  connect(note_, &QPushButton::clicked, this, [this] { note(keys_->observation()); });
  connect(keys_, &LookKeys::pressed, this, [this] { note_->setEnabled(keys_->anything_pressed()); });
  connect(apply_, &QPushButton::clicked, this, &ProofPage::apply);
  connect(write_, &QPushButton::clicked, this, [this] { bench_.write(link::image_of(document_.rig())); });
  connect(&bench_, &BenchLink::board_read, this, &ProofPage::present);
  connect(by_hand_button_, &QPushButton::clicked, this, &ProofPage::done_by_hand);
  connect(card_button_, &QPushButton::clicked, this, [this] {
    const ControllerClass* controller = document_.controller();
    if (!controller) return;
    std::vector<HandCard> cards;
    const auto& faults = by_hand_.empty() ? session_.answer().explanations.front().faults : by_hand_;
    const auto& c = by_hand_.empty() ? session_.looks() : by_hand_case_;
    for (const auto& f : faults) cards.push_back(rigging::hand_card(document_.rig(), *controller, f, c));
    Q_EMIT sheets_asked(tr("Hand cards"), hand_card_sheets(document_, cards));
  });
  connect(again_, &QPushButton::clicked, this, [this] {
    session_.drop_contradictions();
    present();
  });
  connect(back_, &QPushButton::clicked, this, [this] {
    session_.take_back_last();
    present();
  });
  connect(do_it_, &QPushButton::clicked, this, &ProofPage::do_it);
  connect(&hands_, &BenchHands::finished, this, [this] { do_it_->setEnabled(true); });
  connect(&bench_, &BenchLink::state_changed, this, [this] { present(); });
  connect(&bench_, &BenchLink::channels_heard, this, [this] {
    // The controller itself says what it hears while the stick is held.
    const auto& heard = bench_.channels();
    const bool moved = std::any_of(heard.begin(), heard.end(), [](const auto& c) {
      return c.first != "throttle" && std::abs(c.second - 1500) > 300;
    });
    if (asking_ == Asking::question && asked_.act == direction::Act::stick && moved && hands_.busy())
      keys_->hear(heard);
  });
  connect(&bench_, &BenchLink::written, this, [this](bool good, const QString& text) {
    Q_EMIT said(text);
    if (!good) return;
    present();
  });
  connect(&animation_, &QTimer::timeout, this, &ProofPage::animate);
  animation_.start(40);
  restart_session();
}

QWidget* ProofPage::first_focus() {
  for (QPushButton* b : {there_, record_, write_, as_shown_, apply_, by_hand_button_, again_})
    if (b->isVisible()) return b;
  auto* key = keys_->findChild<QPushButton*>();
  return key ? static_cast<QWidget*>(key) : chain_;
}

const CheckStatus* ProofPage::status(const std::string& id) const { return find_check(document_.review().checks, id); }

void ProofPage::restart_session() {
  session_rig_ = document_.rig();
  if (const ControllerClass* controller = document_.controller())
    session_ = BenchSession(document_.rig(), *controller);
  else
    session_ = {};
}

void ProofPage::refresh() {
  const Rig& rig = document_.rig();
  // Looks count only for the aircraft on which they were made.
  if (rig.outputs != session_rig_.outputs || rig.sensing != session_rig_.sensing ||
      !(rig.radio == session_rig_.radio) || !(rig.controller == session_rig_.controller) ||
      !(rig.airframe.kind == session_rig_.airframe.kind)) {
    if (rig.controller.kind != session_rig_.controller.kind) by_hand_.clear();
    restart_session();
  }
  session_rig_ = rig;
  view_->set_panels(document_.review().airframe.panels);
  present();
}

void ProofPage::go_to(const QString& subject) {
  if (status(subject.toStdString())) choose(subject.toStdString());
}

void ProofPage::choose(const std::string& check) {
  current_ = check;
  if (session_.wrong() || !session_.answer().contradictions.empty()) session_.forget();
  present();
}

void ProofPage::present() {
  const auto& checks = document_.review().checks;
  chain_->set_checks(checks);
  const auto to_do = [](const CheckStatus& c) { return is_direction(c.id) && !c.stands(); };
  const bool open = std::any_of(checks.begin(), checks.end(), to_do);
  if (!status(current_)) current_.clear();
  if (current_.empty())
    for (const CheckStatus& c : checks)
      if (current_.empty() && to_do(c)) current_ = c.id.text();
  if (current_.empty() && !checks.empty()) current_ = checks.front().id.text();
  chain_->set_current(current_);
  const bool contradiction = session_.anything_seen() && session_.answer().explanations.empty();
  asking_ = !by_hand_.empty() || session_.diagnosed() ? Asking::verdict
            : contradiction                           ? Asking::contradiction
            : session_.wrong()                        ? Asking::question
            : open                                    ? Asking::check
                                                      : Asking::done;
  const bool looking = asking_ == Asking::check || asking_ == Asking::question || asking_ == Asking::done;
  const CheckStatus* now = status(current_);
  // What its own station records, and what comes from a later one, is told and led to.
  const bool elsewhere = now && !is_direction(now->id) && (asking_ == Asking::check || asking_ == Asking::done);
  there_->setVisible(elsewhere && now->family->by_station);
  record_->setVisible(elsewhere && !now->family->by_station && now->holds);
  if (elsewhere) return present_elsewhere(*now);
  view_->setVisible(now);
  view_->set_selected({});
  for (QWidget* w : {static_cast<QWidget*>(todo_), static_cast<QWidget*>(caution_), static_cast<QWidget*>(how_),
                     static_cast<QWidget*>(keys_), static_cast<QWidget*>(note_), static_cast<QWidget*>(picture_words_)})
    w->setVisible(looking && now);
  as_shown_->setVisible((asking_ == Asking::check || asking_ == Asking::done) && now);
  do_it_->setVisible(looking && bench_.hands_connected());
  apply_->hide();
  by_hand_button_->hide();
  card_button_->hide();
  const bool differs = board_differs() && looking;
  write_->setVisible(differs);
  if (differs)
    for (QWidget* w : {static_cast<QWidget*>(as_shown_), static_cast<QWidget*>(keys_), static_cast<QWidget*>(note_),
                       static_cast<QWidget*>(do_it_)})
      w->hide();
  again_->setVisible(asking_ == Asking::contradiction);
  back_->setVisible(session_.anything_seen() && by_hand_.empty());
  looked_->setText(session_.anything_seen()
                       ? tr("%1 looks count in this sitting.").arg(session_.looks().observations.size())
                       : QString());
  if (!now) {
    title_->setText(document_.controller() ? tr("Nothing to check: no output drives a surface.")
                                           : tr("The controller class is not known."));
    verdict_->clear();
    remedy_->clear();
    return;
  }
  switch (asking_) {
    case Asking::check:
    case Asking::done: present_check(*now); break;
    case Asking::question: present_question(); break;
    case Asking::verdict: present_verdict(); break;
    case Asking::contradiction: present_contradiction(); break;
  }
  note_->setEnabled(keys_->anything_pressed());
  if (differs) {
    verdict_->setText(tr("The controller holds something else than the rig."));
    remedy_->setText(
        tr("A look would prove the board's settings, not these. Write the rig, or compare part by part on the bench "
           "below."));
  }
  // The keyboard must not be left on "take back" when what it was on has gone.
  if (isVisible() && (!focusWidget() || focusWidget() == back_ || !focusWidget()->isVisible()))
    first_focus()->setFocus(Qt::OtherFocusReason);
}

bool ProofPage::board_differs() const {
  return bench_.controller_answers() && bench_.board() && document_.controller() && document_.controller()->link &&
         !bench_.writing() && link::image_of(document_.rig()) != *bench_.board();
}

void ProofPage::present_check(const CheckStatus& s) {
  card_ = direction_card({document_.rig(), document_.catalogue()}, s.id);
  const double reach = shown_tilt_deg(*card_);
  view_->set_reach(card_->axis == Axis::roll ? reach : 0, card_->axis == Axis::pitch ? reach : 0,
                   card_->axis == Axis::yaw ? reach : 0);
  const bool same = asked_.act == card_->observation.act && asked_.axis == card_->observation.axis &&
                    asked_.mode == card_->observation.mode && asked_.output == card_->observation.output &&
                    keys_->anything_pressed();
  asked_ = card_->observation;
  title_->setText(QString::fromStdString(s.title));
  todo_->setText(QString::fromStdString(card_->todo));
  how_->setText(QString::fromStdString(card_->how));
  caution_->setText(QString::fromStdString(card_->cautions.front()));
  std::vector<Surface> surfaces;
  std::map<Surface, int> arrows;
  for (const Expected& e : card_->looks) {
    surfaces.push_back(e.surface);
    arrows[e.surface] = e.motion;
  }
  view_->set_caption(tr("What you should see"));
  view_->set_arrows(arrows);
  picture_words_->setText(QString::fromStdString(card_->expected));
  verdict_->setText(asking_ == Asking::done
                        ? QString::fromStdString(document_.review().readiness.words) + QLatin1Char('.')
                    : s.state == ProofState::stale ? tr("Gone stale: %1").arg(QString::fromStdString(s.because))
                    : s.state == ProofState::fresh ? tr("Proven %1").arg(QString::fromStdString(s.at))
                                                   : tr("What did you see?"));
  remedy_->setText(asking_ == Asking::done ? tr("Any check can be done again.")
                                           : tr("Watch the surface, not the stick. Say it aloud."));
  if (!same) keys_->ask(asked_, surfaces, false);
}

void ProofPage::present_elsewhere(const CheckStatus& s) {
  card_.reset();
  const CheckCard card = card_of({document_.rig(), document_.catalogue()}, s.id);
  title_->setText(QString::fromStdString(s.title));
  todo_->setText(QString::fromStdString(card.before_power.empty() ? card.todo : card.before_power + " " + card.todo));
  caution_->setText(card.cautions.empty() ? QString() : QString::fromStdString(card.cautions.front()));
  picture_words_->setText(tr("Should show: %1").arg(QString::fromStdString(card.expected)));
  how_->setText(QString::fromStdString(card.how));
  for (QWidget* w : {static_cast<QWidget*>(title_), static_cast<QWidget*>(todo_), static_cast<QWidget*>(caution_),
                     static_cast<QWidget*>(picture_words_)})
    w->show();
  how_->setVisible(!card.how.empty());
  for (QWidget* w : {static_cast<QWidget*>(view_), static_cast<QWidget*>(do_it_), static_cast<QWidget*>(as_shown_),
                     static_cast<QWidget*>(keys_), static_cast<QWidget*>(note_), static_cast<QWidget*>(apply_),
                     static_cast<QWidget*>(by_hand_button_), static_cast<QWidget*>(card_button_),
                     static_cast<QWidget*>(write_), static_cast<QWidget*>(again_), static_cast<QWidget*>(back_)})
    w->hide();
  verdict_->setText(s.state == ProofState::stale ? tr("Gone stale: %1").arg(QString::fromStdString(s.because))
                    : s.stands()                 ? tr("Proven %1").arg(QString::fromStdString(s.at))
                    : s.holds                    ? tr("Not recorded yet.")
                                                 : tr("Not yet: %1.").arg(QString::fromStdString(s.why_not)));
  const QString station = QString::fromLatin1(word(s.family->station).data());
  remedy_->setText(s.family->by_station ? tr("It is done and recorded at station %1.").arg(station) : QString());
  there_->setText(tr("Go to station %1").arg(station));
}

void ProofPage::present_question() {
  card_.reset();
  const direction::Question& q = *session_.answer().next;
  asked_ = q.observation;
  const direction::Case& c = session_.looks();
  title_->setText(tr("Something is wrong. One more look tells more."));
  todo_->setText(QString::fromStdString(capital(direction::observation_text(asked_, c))) + QLatin1Char('.'));
  const ModeAnswer* answer = asked_.act == direction::Act::tilt && document_.controller()
                                 ? document_.controller()->mode(asked_.mode)
                                 : nullptr;
  how_->setText(asked_.act == direction::Act::drive
                    ? tr("Only this one output is moved: it shows what is plugged where, and which way it turns.")
                : answer && answer->answer == AnswerKind::momentary ? tr("Momentary: a quick flick shows it best.")
                                                                    : QString());
  caution_->setText(tr("Propeller off. Stand clear of its arc."));
  view_->set_arrows({});
  view_->set_caption(tr("Watch every surface that moves, and those that should not"));
  picture_words_->setText(q.channels && q.surfaces ? tr("Note the surfaces, and what the controller hears.")
                          : q.channels             ? tr("Read what the controller hears.")
                                       : tr("Note every surface you can; leave open what you did not look at."));
  verdict_->setText(tr("%1 accounts still fit.").arg(session_.answer().explanations.size()));
  QStringList lines;
  for (std::size_t i = 0; i < std::min<std::size_t>(3, session_.answer().explanations.size()); ++i) {
    QStringList faults;
    for (const auto& f : session_.answer().explanations[i].faults)
      faults << QString::fromStdString(direction::fault_text(f, c));
    lines << tr("Perhaps %1").arg(faults.join(tr(" and ")));
  }
  if (session_.answer().explanations.size() > 3)
    lines << tr("or one of %1 others.").arg(session_.answer().explanations.size() - 3);
  remedy_->setText(lines.join(QLatin1Char('\n')));
  keys_->ask(asked_, q.surfaces ? surfaces_of(c) : std::vector<Surface>{}, q.channels);
}

void ProofPage::present_verdict() {
  card_.reset();
  const ControllerClass* controller = document_.controller();
  const bool waiting = !by_hand_.empty();
  const direction::Case& c = waiting ? by_hand_case_ : session_.looks();
  const std::vector<direction::Fault>& faults = waiting ? by_hand_ : session_.answer().explanations.front().faults;
  QStringList wrong, steps;
  bool writes = false;
  int n = 0;
  for (const auto& f : faults) {
    wrong << QString::fromStdString(direction::fault_text(f, c));
    const HandCard hand = rigging::hand_card(document_.rig(), *controller, f, c);
    if (hand.over_link && controller->link && !waiting) {
      writes = true;
      steps << tr("%1. %2: Rigging writes it to the controller.")
                   .arg(++n)
                   .arg(QString::fromStdString(capital(direction::remedy_text(f, c))));
    } else {
      for (const std::string& step : hand.steps) steps << tr("%1. %2").arg(++n).arg(QString::fromStdString(step));
    }
  }
  title_->setText(waiting ? tr("Now by hand") : tr("Found it"));
  std::set<Surface> concerned;
  for (const auto& f : faults) {
    if (f.kind == direction::FaultKind::linkage_opposed) concerned.insert(f.surface);
    for (const int output : {f.output, f.other_output})
      if (output >= 0 && f.kind != direction::FaultKind::linkage_opposed)
        for (const Surface s : c.outputs[static_cast<std::size_t>(output)].surfaces) concerned.insert(s);
    const bool by_axis = f.kind == direction::FaultKind::gyro_reversed ||
                         f.kind == direction::FaultKind::transmitter_reversed ||
                         f.kind == direction::FaultKind::transmitter_swapped;
    for (const auto& o : c.outputs)
      if (by_axis && o.mix[static_cast<std::size_t>(index_of(f.axis))] != 0)
        concerned.insert(o.surfaces.begin(), o.surfaces.end());
  }
  view_->set_arrows({});
  view_->set_caption(concerned.empty() ? QString() : tr("What it concerns"));
  view_->set_selected(std::move(concerned));
  verdict_->setText(QString::fromStdString(capital(wrong.join(tr("; and ")).toStdString())) + QLatin1Char('.'));
  QString more = steps.join(QLatin1Char('\n'));
  if (!waiting && session_.answer().equivalent)
    more += tr("\nNothing that can be looked at tells this apart from %1 other accounts; this one is the likeliest.")
                .arg(session_.answer().explanations.size() - 1);
  remedy_->setText(more);
  apply_->setVisible(!waiting && writes);
  apply_->setText(writes && bench_.controller_answers() ? tr("Apply, and write it to the controller") : tr("Apply"));
  by_hand_button_->setVisible(waiting || !writes);
  card_button_->setVisible(waiting || !writes);
}

void ProofPage::present_contradiction() {
  card_.reset();
  const direction::Case& c = session_.looks();
  view_->set_arrows({});
  view_->set_caption({});
  title_->setText(tr("Two looks disagree"));
  verdict_->setText(tr("What was noted can't all be true, whatever is wrong. Most often a surface was misread."));
  QStringList lines;
  for (const int i : session_.answer().contradictions) {
    const auto& o = c.observations[static_cast<std::size_t>(i)];
    QStringList seen;
    for (const auto& s : o.saw)
      seen << QString::fromStdString(s.surface.spoken() + " " + std::string(motion_word(s.surface, s.motion)));
    lines << tr("• %1: %2")
                 .arg(QString::fromStdString(capital(direction::observation_text(o, c))),
                      seen.join(QStringLiteral(", ")));
  }
  remedy_->setText(tr("Look again at:\n%1").arg(lines.join(QLatin1Char('\n'))));
}

void ProofPage::note(direction::Observation seen) {
  if (!document_.controller()) return;
  const CheckStatus* now = status(current_);
  const bool passed = card_ && now && as_expected(*card_, seen);
  session_.add(std::move(seen));
  keys_->ask(asked_, {}, false);
  if (passed && !session_.wrong() && !session_.answer().explanations.empty()) {
    const CheckId check = now->id;
    const QString title = QString::fromStdString(now->title);
    current_.clear();
    if (const auto ok = document_.record(check, bench_.simulated()); !ok)
      Q_EMIT said(QString::fromStdString(ok.error().text()));
    else
      Q_EMIT said(tr("Proven: %1").arg(title));
    return;
  }
  present();
}

void ProofPage::apply() {
  const ControllerClass* controller = document_.controller();
  if (!controller || session_.answer().explanations.empty()) return;
  const direction::Case c = session_.looks();
  Cured done = cured(document_.rig(), *controller, c, session_.answer().explanations.front());
  by_hand_ = done.by_hand;
  by_hand_case_ = c;
  const bool settings = done.rig.outputs != document_.rig().outputs || done.rig.sensing != document_.rig().sensing;
  restart_session();
  document_.edit(std::move(done.rig), QString::fromStdString(done.label));
  if (controller->link && settings) {
    if (bench_.controller_answers())
      bench_.write(link::image_of(document_.rig()));
    else
      Q_EMIT said(tr("No controller answers: the rig is changed, the board is not. Connect and write it."));
  }
  restart_session();
  present();
}

void ProofPage::done_by_hand() {
  if (by_hand_.empty()) apply();
  for (const auto& f : by_hand_)
    if (bench_.hands_connected())
      bench_.work(direction::remedy_of(f.kind), direction::remedy_to_json(f, by_hand_case_));
  by_hand_.clear();
  restart_session();
  present();
  Q_EMIT said(tr("Now look again."));
}

void ProofPage::do_it() {
  if (!bench_.sight().battery) {
    Q_EMIT said(tr("The servos have no supply. Propeller off, then plug the battery in on the bench below."));
    return;
  }
  const ControllerClass* controller = document_.controller();
  const ModeAnswer* answer = controller ? controller->mode(asked_.mode) : nullptr;
  std::string socket;
  if (asked_.act == direction::Act::drive)
    if (const Output* o = document_.rig().output(session_.looks().outputs[static_cast<std::size_t>(asked_.output)].id))
      socket = o->socket;
  do_it_->setEnabled(false);
  hands_.perform(asked_, socket,
                 answer && (answer->answer == AnswerKind::momentary || answer->answer == AnswerKind::springs_back),
                 answer ? answer->from_deg : 0);
}

void ProofPage::animate() {
  if (!view_->isVisible()) return;
  phase_ += 0.04;
  if (phase_ > 3.2) phase_ = 0;
  std::map<Surface, double> deflections;
  double tilt = 0;
  if (card_) {
    const bool held = card_->answer == AnswerKind::held || card_->answer == AnswerKind::runs_away || !card_->correction;
    // Rest, move, stay, return: the tilt leads and the answer follows in its own way.
    const double ramp = phase_ < 0.5   ? 0
                        : phase_ < 0.9 ? (phase_ - 0.5) / 0.4
                        : phase_ < 2.4 ? 1
                        : phase_ < 2.9 ? 1 - (phase_ - 2.4) / 0.5
                                       : 0;
    double answer = ramp;
    if (card_->correction) {
      tilt = ramp * shown_tilt_deg(*card_);
      if (!held)
        answer = phase_ > 0.5 && phase_ < 0.9 ? 1
                 : phase_ >= 0.9 && phase_ < 1.5
                     ? std::exp(-(phase_ - 0.9) * (card_->answer == AnswerKind::springs_back ? 4 : 9))
                     : 0;
      if (card_->from_deg > 0) answer = tilt > card_->from_deg ? 1 : 0;
      if (card_->answer == AnswerKind::runs_away)
        answer = phase_ < 0.5 ? 0 : std::min(1.4, (phase_ - 0.5) * 0.9) * (phase_ < 2.9 ? 1 : 0);
    }
    for (const Expected& e : card_->looks) deflections[e.surface] = e.motion * 22 * answer;
    // Some units lean the rudder into a held bank: shown, so that nobody takes it for a fault.
    const bool into_bank = card_->correction && card_->axis == Axis::roll && document_.controller() &&
                           document_.controller()->rudder_into_bank;
    for (const Output& o : document_.rig().outputs)
      for (const Surface s : o.surfaces)
        if (into_bank && s.kind == SurfaceKind::rudder && !deflections.count(s)) deflections[s] = 5 * ramp;
  }
  view_->set_deflections(deflections);
  const Axis axis = card_ ? card_->axis : Axis::roll;
  view_->set_pose(axis == Axis::roll ? tilt : 0, axis == Axis::pitch ? tilt : 0, axis == Axis::yaw ? tilt : 0);
}

QList<Request> ProofPage::requests() {
  QList<Request> all;
  for (const CheckStatus& c : document_.review().checks)
    all.append({tr("Check: %1").arg(QString::fromStdString(c.title)), tr("prove bench test"),
                [this, id = QString::fromStdString(c.id.text())] { come_here(id); }});
  return all;
}

}  // namespace rigging::app
