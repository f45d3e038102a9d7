#include "bench/bench_panel.h"

#include <QComboBox>
#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QSlider>
#include <QVBoxLayout>

#include "drawing/stick_square.h"
#include "link/image.h"
#include "look/literals.h"
#include "look/look.h"
#include "look/pieces.h"

namespace rigging::app {

BenchPanel::BenchPanel(RigDocument& document, BenchLink& bench, QWidget* parent)
    : QWidget(parent), document_(document), bench_(bench) {
  setObjectName(u"bench_panel"_s);
  auto* layout = new QHBoxLayout(this);
  layout->setContentsMargins(12, 6, 12, 6);
  layout->setSpacing(14);

  auto* left = new QVBoxLayout;
  left->setSpacing(4);
  auto* title = new QLabel(u"Bench (simulated)"_s);
  title->setFont(Style::instance().text(11, true));
  left->addWidget(title);
  state_ = new QLabel;
  state_->setWordWrap(true);
  state_->setProperty("soft", true);
  state_->setFont(Style::instance().text(9));
  left->addWidget(state_);
  start_ = new QPushButton;
  start_->setObjectName(u"bench_start"_s);
  left->addWidget(start_);
  caution_ = new QLabel(u"Before power: propeller off, clear of its arc."_s);
  caution_->setProperty("caution", true);
  caution_->setWordWrap(true);
  caution_->setFont(Style::instance().text(9));
  left->addWidget(caution_);
  auto* supply = new QHBoxLayout;
  usb_ = new QPushButton(u"USB"_s);
  usb_->setObjectName(u"supply_usb"_s);
  usb_->setToolTip(u"USB feeds the processor only: servos and receiver stay dark"_s);
  battery_ = new QPushButton(u"Battery in"_s);
  battery_->setObjectName(u"supply_battery"_s);
  for (QPushButton* b : {usb_, battery_}) {
    b->setCheckable(true);
    supply->addWidget(b);
    connect(b, &QPushButton::clicked, this, [this] {
      bench_.ask(hands::Supply{usb_->isChecked(), battery_->isChecked()});
    });
  }
  left->addLayout(supply);
  transmitter_ = new QPushButton(u"Transmitter on"_s);
  transmitter_->setObjectName(u"transmitter"_s);
  transmitter_->setCheckable(true);
  transmitter_->setChecked(true);
  transmitter_->setToolTip(u"Transmitter on first, off last. Off: the controller must notice the loss"_s);
  connect(transmitter_, &QPushButton::clicked, this, [this](bool on) {
    transmitter_->setText(on ? u"Transmitter on"_s : u"Transmitter off"_s);
    bench_.ask(hands::SwitchTransmitter{on});
  });
  left->addWidget(transmitter_);
  compare_ = new QPushButton;
  compare_->setObjectName(u"bench_compare"_s);
  connect(compare_, &QPushButton::clicked, this, &BenchPanel::compare_asked);
  left->addWidget(compare_);
  left->addStretch();
  auto* left_box = new QWidget;
  keep_width(left_box, 208);
  left_box->setLayout(left);
  left->setContentsMargins(0, 0, 0, 0);
  layout->addWidget(left_box);

  view_ = new AircraftView(AircraftView::From::behind_above);
  show_live();
  view_->set_dragging_turns(true);
  view_->set_exaggeration(1.3);
  view_->setToolTip(
      u"Drag sideways to bank, up and down to pitch; let go to set it down. Keys: arrows tilt, Home sets it down"_s);
  auto* model = new QVBoxLayout;
  model->setSpacing(0);
  heard_ = new QLabel;
  heard_->setFont(Style::instance().columns(8.5));
  heard_->setObjectName(u"heard"_s);
  heard_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);  // the sticks beside it must not give way for it
  slowly_ = hinted_button(u"Last move, slowly"_s, "replay_slowly",
                          u"What the model and its surfaces did when it was last moved, four times slower"_s);
  slowly_->setProperty("flat", true);
  slowly_->setFont(Style::instance().text(9));
  slowly_->setEnabled(false);
  connect(slowly_, &QPushButton::clicked, this, [this] {
    replaying_from_s_ = Clock::instance().now_s();
    replay_.start();
    view_->set_caption(u"The last move, four times slower"_s);
  });
  connect(&replay_, &Ticks::timeout, this, &BenchPanel::replay);
  model->addWidget(slowly_, 0, Qt::AlignRight);
  model->addWidget(view_, 1);
  model->addWidget(heard_);
  layout->addLayout(model, 1);
  connect(view_, &AircraftView::turned, this, [this](double roll, double pitch) {
    bench_.ask(hands::Hold{roll, pitch, 0});
  });
  connect(view_, &AircraftView::released, this, [this] { bench_.ask(hands::Hold{}); });

  controls_ = new QWidget;
  auto* controls = new QHBoxLayout(controls_);
  controls->setContentsMargins(0, 0, 0, 0);
  controls->setSpacing(10);
  square_ = new StickSquare;
  square_->setObjectName(u"bench_square"_s);
  connect(square_, &StickSquare::moved, this, [this](double roll, double pitch) {
    bench_.ask(hands::Stick{Axis::roll, roll});
    bench_.ask(hands::Stick{Axis::pitch, pitch});
  });
  controls->addWidget(square_);
  auto* grid = new QGridLayout;
  grid->setVerticalSpacing(4);
  yaw_ = new QSlider(Qt::Horizontal);
  yaw_->setRange(-100, 100);
  yaw_->setAccessibleName(u"Yaw stick"_s);
  throttle_ = new QSlider(Qt::Horizontal);
  throttle_->setRange(0, 100);
  throttle_->setAccessibleName(u"Throttle stick"_s);
  connect(yaw_, &QSlider::valueChanged, this, [this](int v) { bench_.ask(hands::Stick{Axis::yaw, v / 100.0}); });
  // As the pad beside it: it stays where it is put, and a double click or Home centres it.
  yaw_->setToolTip(u"Stays where it is put; a double click or Home centres it"_s);
  yaw_->installEventFilter(this);
  connect(throttle_, &QSlider::valueChanged, this, [this](int v) {
    bench_.ask(hands::Stick{std::nullopt, v / 100.0});
  });
  mode_ = new QComboBox;
  mode_->setObjectName(u"bench_mode"_s);
  mode_->setAccessibleName(u"Mode switch"_s);
  connect(mode_, &QComboBox::activated, this, [this] {
    if (const auto mode = from_name<Mode>(mode_->currentData().toString().toStdString()))
      bench_.ask(hands::ChooseMode{*mode});
  });
  int row = 0;
  for (const auto& [name, widget] :
       {std::pair<QString, QWidget*>{u"Mode"_s, mode_}, {u"Yaw"_s, yaw_}, {u"Throttle"_s, throttle_}}) {
    grid->addWidget(new QLabel(name), row, 0);
    grid->addWidget(widget, row++, 1, 1, 2);
  }
  for (const Axis axis : all_axes) {
    grid->addWidget(new QLabel(axis == Axis::roll    ? u"Flick wing"_s
                               : axis == Axis::pitch ? u"Flick nose"_s
                                                     : u"Swing nose"_s),
                    row, 0);
    for (const int sense : {-1, 1}) {
      const QString words = QString::fromLatin1(sense_word(axis, sense > 0).data());
      auto* button = new QPushButton(axis == Axis::roll ? u"%1 down"_s.arg(words) : words);
      button->setAccessibleName(u"Flick %1 %2"_s.arg(QString::fromLatin1(name_of(axis).data()), words));
      button->setFont(Style::instance().text(9));
      connect(button, &QPushButton::clicked, this, [this, axis, sense] { bench_.ask(hands::Flick{axis, sense}); });
      grid->addWidget(button, row, sense < 0 ? 1 : 2);
    }
    ++row;
  }
  grid->setRowStretch(row, 1);
  controls->addLayout(grid);
  layout->addWidget(controls_);

  connect(start_, &QPushButton::clicked, this, [this] {
    if (bench_.hands_connected())
      bench_.stop();
    else
      Q_EMIT start_asked();
  });
  connect(&bench_, &BenchLink::state_changed, this, &BenchPanel::refresh);
  connect(&bench_, &BenchLink::board_read, this, &BenchPanel::refresh);
  connect(&bench_, &BenchLink::seen, this, &BenchPanel::update_sight);
  connect(&bench_, &BenchLink::channels_heard, this, [this] {
    // What the class itself would not show is not shown for it.
    const ControllerClass* c = document_.controller();
    if (c && !c->sticks.reads_channels && !bench_.listening()) return heard_->clear();
    QStringList parts;
    for (const auto& [name, us] : bench_.channels())
      parts << u"%1 %2"_s.arg(QString::fromStdString(name).left(8), -8).arg(us, 4, 'f', 0);
    heard_->setText(parts.isEmpty() ? u"receiver dark"_s
                                    : u"hears µs  "_s + parts.mid(0, 2).join(u"  "_s) + u"\n          "_s +
                                          parts.mid(2).join(u"  "_s));
  });
  refresh();
}

void BenchPanel::refresh() {
  const bool on = bench_.hands_connected();
  const hands::Sight& sight = bench_.sight();
  state_->setText(bench_.state_words());
  start_->setText(on ? u"Put the bench away"_s : u"Start the bench"_s);
  for (QWidget* w :
       {static_cast<QWidget*>(usb_), static_cast<QWidget*>(battery_), static_cast<QWidget*>(transmitter_), controls_})
    w->setEnabled(on);
  if (!on) {
    transmitter_->setChecked(true);
    transmitter_->setText(u"Transmitter on"_s);
  }
  usb_->setChecked(sight.usb);
  battery_->setChecked(sight.battery);
  battery_->setText(sight.battery ? u"Battery out"_s : u"Battery in"_s);
  const ControllerClass* c = document_.controller();
  const QString of = c ? QString::fromStdString(c->id) : QString();
  if (of != modes_of_) {
    modes_of_ = of;
    mode_->clear();
    if (c)
      for (const ModeAnswer& m : c->proof.modes)
        mode_->addItem(QString::fromLatin1(name_of(m.mode).data()), QString::fromLatin1(name_of(m.mode).data()));
  }
  int differing = 0;
  if (bench_.board()) differing = static_cast<int>(link::differences(document_.image(), *bench_.board()).size());
  compare_->setVisible(bench_.board().has_value() && differing > 0);
  compare_->setText(differing == 1 ? u"Board differs: 1 part…"_s : u"Board differs: %1 parts…"_s.arg(differing));
  state_->setVisible(!compare_->isVisibleTo(this));  // the foot line says it, too
  view_->set_panels(document_.review().reports.airframe().panels);
  square_->set_rig(document_.rig(), document_.review().reports.control_margins().plain);
  update_sight();
}

int BenchPanel::least_height() const { return static_cast<int>(206 * Style::instance().text().pointSizeF() / 10); }

void BenchPanel::update_sight() {
  last_move_.see(static_cast<qint64>(1000 * Clock::instance().now_s()), bench_.sight());
  slowly_->setEnabled(last_move_.any());
  if (!replay_.is_active()) show_sight(bench_.sight());
}

void BenchPanel::show_sight(const hands::Sight& s) {
  view_->set_deflections(s.deflections);
  view_->set_pose(s.roll_deg, s.pitch_deg, s.yaw_deg);
}

void BenchPanel::show_live() { view_->set_caption(u"The simulated model · drag to tilt it"_s); }

void BenchPanel::replay() {
  constexpr int slower = 4;
  if (const hands::Sight* seen =
          last_move_.at(static_cast<qint64>(1000 * (Clock::instance().now_s() - replaying_from_s_)) / slower))
    return show_sight(*seen);
  replay_.stop();
  show_live();
  show_sight(bench_.sight());
}

/// The yaw lever behaves as the pad beside it.
bool BenchPanel::eventFilter(QObject* watched, QEvent* event) {
  const bool home = event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Home;
  if (watched != yaw_ || (!home && event->type() != QEvent::MouseButtonDblClick))
    return QWidget::eventFilter(watched, event);
  yaw_->setValue(0);
  return true;
}

}  // namespace rigging::app
