#include "stations/surfaces/mix_panel.h"

#include <QApplication>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>
#include <cmath>

#include "base/number.h"
#include "look/literals.h"
#include "look/number_box.h"
#include "look/scroll_content.h"
#include "stations/surfaces/output_row.h"
#include "surfaces/edits.h"

namespace rigging::app {

MixPanel::MixPanel(RigDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
  auto* mix = new QVBoxLayout(this);
  mix->setContentsMargins(0, 0, 0, 0);
  explained_ = wrapping_words(9);
  explained_->setProperty("soft", true);
  keep_width(explained_, 384);
  mix->addWidget(explained_);
  refusal_ = caution_words();
  refusal_->setObjectName(u"mix_refusal"_s);
  refusal_->hide();
  mix->addWidget(refusal_);
  tail_row_ = new QWidget;
  auto* tail = new QHBoxLayout(tail_row_);
  tail->setContentsMargins(0, 0, 0, 0);
  tail->addWidget(new QLabel(u"Tail halves roll"_s));
  tail_mix_ = number_box(u"tail_mix"_s, u"Roll of the tail halves"_s, 84);
  tail_mix_->setRange(0, 150);
  tail_mix_->setDecimals(0);
  tail_mix_->setSuffix(u" %"_s);
  tail->addWidget(tail_mix_);
  auto* of = wrapping_words(9);
  of->setText(u"of the ailerons' throw. Start at 25 %."_s);
  tail->addWidget(of, 1);
  connect(tail_mix_, &QDoubleSpinBox::valueChanged, this, [this](double percent) {
    if (refreshing_) return;
    if (auto made = set_tail_mix(document_.rig(), percent))
      document_.apply(std::move(made));
    else
      refuse(said_of(made.error().text()));
  });
  mix->addWidget(tail_row_);
  area_ = new QScrollArea;
  area_->setWidgetResizable(true);
  area_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  keep_width(area_, 392);
  mix->addWidget(area_, 1);
}

void MixPanel::refuse(const QString& why) {
  refusal_->setText(why);
  refusal_->show();
}

void MixPanel::rebuild_rows() {
  rows_.clear();
  auto* inside = new QWidget;
  auto* layout = new QVBoxLayout(inside);
  layout->setContentsMargins(0, 0, 4, 0);
  layout->setSpacing(6);
  for (const Output& o : document_.rig().outputs) {
    auto* row = new OutputRow(document_, o);
    rows_[o.id] = row;
    connect(row, &OutputRow::refused, this, &MixPanel::refuse);
    connect(row, &OutputRow::trying, this, &MixPanel::try_share);
    connect(row, &OutputRow::given_up, this, [this] {
      show_weights(document_.rig());
      Q_EMIT given_up();
    });
    layout->addWidget(row);
  }
  layout->addStretch();
  replace_content(*area_, inside);
}

void MixPanel::show_weights(const Rig& rig) {
  for (const auto& [output, row] : rows_) row->show_weights(rig);
}

void MixPanel::try_share(const std::string& output, MixCommand command, double share) {
  const auto tried = with_share(document_.rig(), output, command, share);
  if (!tried) return;
  show_weights(*tried);
  Command full;
  (command == MixCommand::roll    ? full.roll
   : command == MixCommand::pitch ? full.pitch
   : command == MixCommand::yaw   ? full.yaw
                                  : full.flap) = 1;
  Q_EMIT trying(*tried, full);
}

void MixPanel::refresh() {
  const Rig& rig = document_.rig();
  refreshing_ = true;
  explained_->setText(
      !settable(document_.controller()).reverse
          ? u"Weights say what a command asks of an output. This class turns no output round by itself: it reverses "
            "a whole function, servo and sensing, on every output that carries it."_s
          : u"Weights say what a command asks of an output. “Reverse” turns its servo round, with every command "
            "on it: for a servo that goes the wrong way, never for one command."_s);
  const auto tail = tail_mix_percent(rig);
  tail_row_->setVisible(tail.has_value());
  if (tail && !tail_mix_->hasFocus()) tail_mix_->setValue(std::round(*tail));
  refusal_->hide();
  // Rebuild only when something shown has changed, so that the keyboard keeps its place while weights are typed.
  std::string shape = rig.controller.kind;
  for (const Output& o : rig.outputs) {
    shape += "|" + o.id + o.socket + (o.reversed ? "r" : "");
    for (const Surface s : o.surfaces) shape += s.name();
    for (const double w : {o.mix.roll, o.mix.pitch, o.mix.yaw, o.mix.throttle, o.mix.flap})
      shape += "," + number_text(w, 4);
  }
  for (const SurfaceAnswer& a : document_.review().reports.surfaces().answers)
    for (const auto& ways : {a.positive_deg, a.negative_deg})
      for (const double deg : ways) shape += ";" + number_text(a.in_degrees ? deg : 0, 2);
  if (shape != shape_) {
    const QWidget* focused = QApplication::focusWidget();
    const QString name = focused && isAncestorOf(focused) ? focused->objectName() : QString();
    rebuild_rows();
    shape_ = shape;
    if (!name.isEmpty())
      if (auto* again = findChild<QWidget*>(name)) again->setFocus();
  }
  show_effects();
  refreshing_ = false;
}

void MixPanel::show_effects() {
  if (!document_.deferred()) return;
  for (const auto& [output, row] : rows_) row->show_effects(document_.deferred()->effects);
}

void MixPanel::show_pulses(const Command& command) {
  const Rig& rig = document_.rig();
  const Command asked = shared(rig.outputs, command, rig.saturation);
  for (const Output& o : rig.outputs)
    if (const auto it = rows_.find(o.id); it != rows_.end()) it->second->show_state(mixed(o, asked));
}

bool MixPanel::show_row(const std::string& output) {
  const auto it = rows_.find(output);
  if (it == rows_.end()) return false;
  area_->ensureWidgetVisible(it->second);
  if (auto* button = it->second->findChild<QPushButton*>()) button->setFocus(Qt::ShortcutFocusReason);
  return true;
}

}  // namespace rigging::app
