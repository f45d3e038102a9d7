#include "stations/surfaces/throws_panel.h"

#include <QComboBox>
#include <QDateTime>
#include <QDoubleSpinBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <cmath>

#include "base/number.h"
#include "link/image.h"
#include "look/pieces.h"
#include "look/units.h"
#include "surfaces/air_loads.h"

namespace rigging::app {
namespace {

constexpr double levels[] = {0, -1, -0.5, 0.5, 1};  // the centre first: it is what is seen

}  // namespace

ThrowsPanel::ThrowsPanel(RigDocument& document, BenchLink& bench, QWidget* parent)
    : QWidget(parent), document_(document), bench_(bench) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 4, 0);
  layout->setSpacing(6);
  todo_ = wrapping_words(11, true);
  todo_->setObjectName(QStringLiteral("throws_todo"));
  layout->addWidget(todo_);
  remark_ = wrapping_words(9);
  remark_->setProperty("soft", true);
  layout->addWidget(remark_);
  caution_ = caution_words();
  layout->addWidget(caution_);
  entry_ = new QWidget;
  auto* entry = new QGridLayout(entry_);
  entry->setContentsMargins(0, 0, 0, 0);
  value_ = number_box(QStringLiteral("throw_value"), tr("Reading at the trailing edge"));
  value_->setRange(-200, 200);
  value_->setDecimals(1);
  value_->setFont(Look::instance().figures(11));
  unit_ = new QComboBox;
  unit_->setObjectName(QStringLiteral("throw_unit"));
  unit_->setAccessibleName(tr("Unit of the reading"));
  unit_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  unit_->addItem(tr("degrees, up positive"));
  unit_->addItem(QString());
  take_ = hinted_button(tr("Take this reading"), "throw_take", tr("Notes the reading and goes on"));
  eyes_ = hinted_button(tr("Read the simulated gauge"), "throw_eyes",
                        tr("Eyes on the simulated model, to a tenth of a degree"));
  entry->addWidget(value_, 0, 0);
  entry->addWidget(unit_, 0, 1);
  entry->addWidget(take_, 1, 0);
  entry->addWidget(eyes_, 1, 1);
  layout->addWidget(entry_);
  answer_words_ = wrapping_words(10);
  answer_words_->setObjectName(QStringLiteral("throws_answer"));
  layout->addWidget(answer_words_);
  hands_ = hinted_button(tr("Arm and rod are set"), "throw_hands",
                         tr("The battery comes out first: a servo that moves pinches"));
  set_ = hinted_button(tr("Set centre and ends"), "throw_set",
                       tr("Into the rig; written to the controller with the next button"));
  write_ = hinted_button(tr("Write to the controller"), "throw_write", tr("The board takes what the rig says"));
  supply_ =
      hinted_button(tr("Battery in (simulated)"), "throw_supply", tr("The simulated servos stand still without it"));
  begin_ = hinted_button(tr("Read this surface"), "throw_begin", tr("Five readings: flush, both ends and half way"));
  record_centred_ = hinted_button(tr("Record: surfaces centred"), "record_centred", tr("All surfaces were read flush"));
  record_throws_ = hinted_button(tr("Record: throws as wanted"), "record_throws",
                                 tr("All throws were read as wanted, left and right alike"));
  layout->addWidget(supply_);
  for (QPushButton* b : {hands_, set_, write_, begin_}) {
    b->setProperty("main", true);
    layout->addWidget(b);
  }
  proofs_ = wrapping_words(9);
  proofs_->setProperty("soft", true);
  layout->addWidget(proofs_);
  layout->addWidget(record_centred_);
  layout->addWidget(record_throws_);
  layout->addStretch(1);
  auto* gauges = hinted_button(tr("Print a throw gauge…"), "print_gauges",
                               tr("Paper gauges for each chord, a level wedge and balance marks, true to scale"));
  layout->addWidget(gauges);
  connect(gauges, &QPushButton::clicked, this, &ThrowsPanel::gauges_asked);

  connect(unit_, &QComboBox::activated, this, &ThrowsPanel::refresh);
  connect(begin_, &QPushButton::clicked, this, &ThrowsPanel::begin);
  connect(take_, &QPushButton::clicked, this, [this] { take(typed_deg()); });
  connect(eyes_, &QPushButton::clicked, this, [this] {
    const auto it = bench_.sight().deflections.find(surface_);
    if (it != bench_.sight().deflections.end()) take(std::round(it->second * 10) / 10);
  });
  connect(supply_, &QPushButton::clicked, this, [this] { bench_.supply(bench_.sight().usb, true); });
  connect(hands_, &QPushButton::clicked, this, &ThrowsPanel::by_hand);
  connect(set_, &QPushButton::clicked, this, &ThrowsPanel::set);
  connect(write_, &QPushButton::clicked, this, [this] { bench_.write(link::image_of(document_.rig())); });
  connect(record_centred_, &QPushButton::clicked, this, [this] { record(surfaces_centred); });
  connect(record_throws_, &QPushButton::clicked, this, [this] { record(throws_equal); });
  connect(&bench_, &BenchLink::problem, this, [this](const QString& words) {
    if (state_ == State::reading) caution_->setText(words + QLatin1Char('.'));
  });
  connect(&bench_, &BenchLink::seen, this, &ThrowsPanel::watch);
  connect(&bench_, &BenchLink::state_changed, this, &ThrowsPanel::refresh);
  connect(&bench_, &BenchLink::board_read, this, &ThrowsPanel::refresh);
  connect(&bench_, &BenchLink::written, this, &ThrowsPanel::refresh);
}

void ThrowsPanel::show_surface(Surface surface) {
  if (surface == surface_) return refresh();
  surface_ = surface;
  state_ = State::idle;
  readings_.clear();
  answer_.reset();
  problem_.clear();
  let_go();
  refresh();
}

bool ThrowsPanel::driven() const { return document_.controller() && document_.controller()->drives_one_output; }

double ThrowsPanel::level() const {
  if (state_ != State::reading) return 0;
  const Output* o = document_.rig().output_of(surface_);
  return levels[at_] * (driven() || !o ? 1 : stick_reach(*o));
}

double ThrowsPanel::pulse_us() const {
  const Output* o = document_.rig().output_of(surface_);
  return o ? output_pulse_us(*o, level()) : 1500;
}

double ThrowsPanel::typed_deg() const {
  if (unit_->currentIndex() == 0) return value_->value();
  return throw_deg(chord_of(document_.rig(), surface_), Units::instance().length_in(value_->value()));
}

void ThrowsPanel::watch() {
  if (state_ != State::reading) return;
  constexpr int still_ms = 250, least_looks = 4;
  constexpr double jitter_deg = 0.4;  // of a noisy gimbal that works the surface
  const auto it = bench_.sight().deflections.find(surface_);
  if (it == bench_.sight().deflections.end()) return;
  ++looks_;
  if (std::abs(it->second - still_deg_) > jitter_deg) {
    still_since_.restart();
    still_deg_ = it->second;
  }
  eyes_->setEnabled(looks_ >= least_looks && still_since_.elapsed() > still_ms);
}

void ThrowsPanel::drive_there() {
  looks_ = 0;
  still_since_.restart();
  eyes_->setEnabled(false);
  const Output* o = document_.rig().output_of(surface_);
  if (!o) return;
  if (driven()) {
    if (!bench_.controller_answers()) return;
    bench_.drive(o->socket, level());
  } else {
    // The simulated hands hold the sticks as the builder would.
    const auto hold = sticks_for(document_.rig(), *o, level());
    if (!hold || !bench_.hands_connected()) return;
    bench_.mode(Mode::manual);
    hold_sticks(*hold);
  }
  drove_ = true;
}

void ThrowsPanel::hold_sticks(const Command& c) {
  for (const auto& [stick, at] : {std::pair{"roll", c.roll}, {"pitch", c.pitch}, {"yaw", c.yaw}})
    bench_.stick(QLatin1String(stick), at);
}

void ThrowsPanel::let_go() {
  if (drove_) driven() ? bench_.release() : hold_sticks({});
  drove_ = false;
}

void ThrowsPanel::begin() {
  state_ = State::reading;
  at_ = 0;
  readings_.clear();
  answer_.reset();
  problem_.clear();
  drive_there();
  refresh();
  Q_EMIT moved();
  value_->setFocus();
  value_->selectAll();
}

void ThrowsPanel::take(double up_deg) {
  if (state_ != State::reading) return;
  readings_.push_back({pulse_us(), up_deg, {}});
  value_->setValue(0);
  if (++at_ >= std::size(levels)) return finish();
  drive_there();
  refresh();
  Q_EMIT moved();
  value_->selectAll();
}

void ThrowsPanel::finish() {
  state_ = State::answered;
  at_ = 0;
  let_go();
  Linkage l = linkage_of(document_.rig(), surface_);
  l.readings = readings_;
  const Output* o = document_.rig().output_of(surface_);
  if (o) {
    const auto c = centre(l, *o, settable(document_.controller()));
    if (c)
      answer_ = *c;
    else
      problem_ = QString::fromStdString(c.error().text());
  }
  document_.edit(with_linkage(document_.rig(), l),
                 tr("Throws of the %1 read").arg(QString::fromStdString(surface_.spoken())));
  refresh();
  Q_EMIT moved();
}

void ThrowsPanel::by_hand() {
  if (!answer_) return;
  // The simulated hands do as the builder's do: battery out, arm and clevis, battery in.
  if (bench_.hands_connected()) {
    const Sight& sight = bench_.sight();
    const bool usb = sight.usb, battery = sight.battery;
    if (battery) bench_.supply(usb, false);
    if (answer_->teeth != 0) bench_.tooth(surface_, answer_->teeth);
    if (answer_->clevis_turns != 0) bench_.clevis(surface_, answer_->clevis_turns);
    if (battery) bench_.supply(usb, true);
  }
  Linkage l = worked_over(linkage_of(document_.rig(), surface_), *answer_);
  answer_->teeth = 0;
  answer_->clevis_turns = 0;
  document_.edit(with_linkage(document_.rig(), l),
                 tr("Arm and rod of the %1 set").arg(QString::fromStdString(surface_.spoken())));
  refresh();
}

void ThrowsPanel::set() {
  if (!answer_) return;
  Rig rig = document_.rig();
  const Output* at = rig.output_of(surface_);
  if (!at) return;
  Output* o = rig.output(at->id);
  if (answer_->reverse) o->reversed = !o->reversed;
  o->low_us = std::round(answer_->low_us);
  o->centre_us = std::round(answer_->centre_us);
  o->high_us = std::round(answer_->high_us);
  if (Linkage* l = rig.linkage(surface_)) *l = worked_over(*l, Centring{});
  answer_.reset();
  state_ = State::idle;
  // Without a settings link the builder sets it on the board's own pages or keys; simulated hands do the same.
  if (bench_.hands_connected() && document_.controller() && !document_.controller()->link) bench_.set_output(*o);
  document_.edit(std::move(rig), tr("Centre and ends of the %1").arg(QString::fromStdString(surface_.spoken())));
  refresh();
}

void ThrowsPanel::record(const CheckId& check) { (void)document_.record(check, bench_.simulated()); }

void ThrowsPanel::refresh() {
  const Rig& rig = document_.rig();
  const Output* o = rig.output_of(surface_);
  const QString name = QString::fromStdString(surface_.spoken());
  const auto n = [](double v, int places) { return QString::fromStdString(number_text(v, places)); };
  const bool reading = state_ == State::reading;
  const bool supplied = bench_.hands_connected() && bench_.sight().battery;
  const bool drives = driven() && bench_.controller_answers() && bench_.sight().battery;
  const bool differs = bench_.board() && !link::differences(link::image_of(rig), *bench_.board()).empty();
  const bool hinged = o && surface_.kind != SurfaceKind::motor;
  unit_->setItemText(1, tr("%1 at the edge, up positive").arg(Units::instance().length_unit()));
  value_->setDecimals(unit_->currentIndex() == 1 && !Units::instance().metric() ? 2 : 1);
  QString todo, remark, answer;
  const auto moved_words = [&](double deg, const QString& way, const QString& other) {
    return tr("%1° %2").arg(n(std::abs(deg), 1), deg >= 0 ? way : other);
  };
  if (!hinged) {
    todo = tr("Choose a surface.");
  } else if (reading) {
    const double at = levels[at_];
    const bool all = driven() || stick_reach(*o) > 0.999;
    const QString place = at == 0    ? tr("its centre")
                          : at == -1 ? (all ? tr("its low end") : tr("the lowest the sticks give"))
                          : at == 1  ? (all ? tr("its high end") : tr("the highest the sticks give"))
                                     : tr("half way");
    todo = tr("Read the %1 at %2: %3 µs.").arg(name, place, n(pulse_us(), 0));
    const QString count =
        tr("Reading %1 of %2, against flush; down counts negative.").arg(at_ + 1).arg(std::size(levels));
    if (drives) {
      remark = tr("The controller drives it there. ") + count;
    } else if (driven()) {
      remark = tr("The controller drives it there once it has supply: connect, battery in. ") + count;
    } else if (const auto hold = sticks_for(rig, *o, level())) {
      remark = QString::fromStdString(spoken_sticks(*hold)) + tr(", in manual, throttle closed. ") +
               (supplied ? tr("The simulated hands do. ") : QString()) + count;
    } else {
      remark = QString::fromStdString(hold.error().text());
    }
  } else if (!problem_.isEmpty()) {
    todo = tr("The readings of the %1 can't be used.").arg(name);
    remark = bench_.hands_connected() && !supplied ? tr("The battery is out: nothing moves.") : QString();
  } else if (const auto read = read_throws(rig, surface_); read && !answer_) {
    todo = tr("The %1 reads %2 at neutral, %3, %4.")
               .arg(name,
                    std::abs(read->neutral_deg) < 0.05 ? tr("flush")
                                                       : moved_words(read->neutral_deg, tr("up"), tr("down")),
                    moved_words(read->up_deg, tr("up"), tr("down")), moved_words(read->down_deg, tr("down"), tr("up")));
  } else if (!answer_) {
    todo = tr("Read the %1 with a throw gauge.").arg(name);
    remark = differs && drives
                 ? tr("The board holds other settings than the rig: write first, so that it drives where the readings "
                      "belong.")
                 : tr("Five readings tell the real linkage: what the arm, the rod and the output have to change.");
  } else {
    todo = tr("What the readings say of the %1").arg(name);
  }
  bool mechanical = false, settings = false;
  if (answer_ && !reading) {
    QStringList lines;
    lines << tr("It stands %1° off at its centre.").arg(n(answer_->neutral_now_deg, 1));
    if (answer_->teeth != 0)
      lines << tr("<b>Set the servo arm %1 %2 %3 the hinge.</b>")
                   .arg(std::abs(answer_->teeth))
                   .arg(std::abs(answer_->teeth) == 1 ? tr("tooth") : tr("teeth"),
                        answer_->teeth > 0 ? tr("toward") : tr("away from"));
    if (answer_->clevis_turns != 0)
      lines << tr("<b>Make the rod %1 by %2 %3 of the clevis.</b>")
                   .arg(answer_->clevis_turns > 0 ? tr("longer") : tr("shorter"), n(std::abs(answer_->clevis_turns), 1),
                        std::abs(answer_->clevis_turns) == 1 ? tr("turn") : tr("turns"));
    mechanical = answer_->teeth != 0 || answer_->clevis_turns != 0;
    const bool moves =
        o && (std::abs(o->low_us - answer_->low_us) > 1 || std::abs(o->centre_us - answer_->centre_us) > 1 ||
              std::abs(o->high_us - answer_->high_us) > 1);
    settings = !mechanical && (answer_->reverse || moves);
    if (answer_->reverse)
      lines << tr("<b>Reverse %1</b>: a rising pulse moves this servo the other way than the output is set for. The "
                  "mix stays as it is.")
                   .arg(QString::fromStdString(o->id));
    if (moves)
      lines << (mechanical ? tr("Then low %1, centre %2, high %3 µs give %4° up and %5° down.")
                           : tr("Low %1, centre %2, high %3 µs give %4° up and %5° down."))
                   .arg(n(answer_->low_us, 0), n(answer_->centre_us, 0), n(answer_->high_us, 0), n(answer_->up_deg, 1),
                        n(answer_->down_deg, 1));
    if (!mechanical && !settings)
      lines << (answer_->limits.empty() ? tr("Nothing has to change.") : tr("Nothing more can be set."));
    for (const std::string& limit : answer_->limits) lines << QString::fromStdString(capital(limit)) + QLatin1Char('.');
    answer = lines.join(QStringLiteral("<br>"));
  }
  if (!problem_.isEmpty()) answer = problem_;
  todo_->setText(todo);
  remark_->setText(remark);
  remark_->setVisible(!remark.isEmpty());
  answer_words_->setText(answer);
  answer_words_->setVisible(!answer.isEmpty());
  caution_->setText(mechanical ? tr("Battery out before a finger goes near the arm.")
                               : tr("Propeller off. Fingers clear of the linkage while it moves."));
  caution_->setVisible(mechanical || reading || supply_->isVisibleTo(this));
  entry_->setVisible(reading);
  eyes_->setVisible(bench_.hands_connected());
  supply_->setVisible(bench_.hands_connected() && !supplied);
  hands_->setVisible(!reading && mechanical);
  set_->setVisible(!reading && settings);
  write_->setVisible(!reading && !mechanical && !settings && differs && !bench_.writing());
  begin_->setText(o && read_throws(rig, surface_) ? tr("Read it again") : tr("Read this surface"));
  begin_->setVisible(hinged && !reading && !mechanical && !settings && !(differs && drives));
  QStringList proofs;
  for (const auto& [id, record] : {std::pair{&surfaces_centred, record_centred_}, {&throws_equal, record_throws_}}) {
    const CheckStatus* c = find_check(document_.review().checks, *id);
    if (!c) continue;
    record->setVisible(!reading && c->holds && !c->stands());
    proofs << tr("%1: %2").arg(QString::fromStdString(c->title), c->stands()
                                                                     ? QString::fromLatin1(word(c->state).data())
                                                                 : c->holds ? tr("holds, not recorded")
                                                                            : QString::fromStdString(c->why_not));
  }
  proofs_->setText(proofs.join(QStringLiteral(".\n")) + QLatin1Char('.'));
}

}  // namespace rigging::app
