#include "stations/home/home_plan.h"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QLineEdit>
#include <QVBoxLayout>
#include <cmath>

#include "look/literals.h"
#include "look/number_box.h"
#include "look/pieces.h"
#include "stations/home/home_sheets.h"

namespace rigging::app {
namespace {

QString label_of(LossAction action) {
  switch (action) {
    case LossAction::glide: return u"Motor off, glide level"_s;
    case LossAction::circle: return u"Circle where it is"_s;
    case LossAction::come_home: return u"Come home"_s;
    default: return u"Not decided"_s;
  }
}

QLabel* caption(const QString& words, QWidget* buddy) {
  auto* l = new QLabel(words);
  l->setBuddy(buddy);
  return l;
}

}  // namespace

QDoubleSpinBox* HomePlan::box(const char* id, const QString& label, const QString& unit, Span range, int decimals,
                              const QString& unknown, void (*put)(Home&, std::optional<double>)) {
  auto* b = number_box(QLatin1String(id), label, 112);
  const double step = std::pow(10, -decimals);
  const bool open = !unknown.isEmpty();
  b->setDecimals(decimals);
  b->setRange(open ? range.least - step : range.least, range.most);
  b->setSuffix(QLatin1Char(' ') + unit);
  if (open) b->setSpecialValueText(unknown);
  const int row = grid_->rowCount();
  grid_->addWidget(caption(label, b), row, 0);
  grid_->addWidget(b, row, 1);
  connect(b, &QDoubleSpinBox::valueChanged, this, [this, b, put, open, label](double value) {
    if (filling_) return;
    const double worth = b->suffix().trimmed() == field_unit() ? field_unit_m() : 1;
    const std::optional<double> given =
        open && value < b->minimum() + 1e-9 ? std::nullopt : std::optional(value * worth);
    change_home(document_, label, [&](Home& h) { put(h, given); });
  });
  return b;
}

HomePlan::HomePlan(RigDocument& document, QWidget* parent) : QWidget(parent), document_(document) {
  auto* side = new QVBoxLayout(this);
  side->setSpacing(6);
  side->setContentsMargins(0, 0, 0, 0);
  grid_ = new QGridLayout;
  grid_->setVerticalSpacing(4);
  grid_->setColumnStretch(0, 1);
  on_loss_ = new QComboBox;
  on_loss_->setObjectName(u"on_loss"_s);
  on_loss_->setAccessibleName(u"What it does when the link is gone"_s);
  on_loss_->setToolTip(u"What the controller does by itself; only what can work with what is fitted"_s);
  connect(on_loss_, &QComboBox::activated, this, [this] {
    const auto action = static_cast<LossAction>(on_loss_->currentData().toInt());
    change_home(document_, label_of(action), [action](Home& h) { h.on_loss = action; });
  });
  side->addWidget(caption(u"When the link is gone"_s, on_loss_));
  side->addWidget(on_loss_);
  choice_words_ = wrapping_words(9);
  choice_words_->setProperty("soft", true);
  side->addWidget(choice_words_);
  hold_ = box("home_hold", u"Waits first"_s, u"s"_s, {0, 60}, 1, {},
              [](Home& h, std::optional<double> v) { h.loss_hold_s = *v; });
  height_ = box("home_height", u"Way home at"_s, u"m"_s, {0, 5000}, 0, u"as needed"_s,
                [](Home& h, std::optional<double> v) { h.return_height_m = v; });
  climb_first_ = new QCheckBox(u"Climbs before it turns home"_s);
  climb_first_->setObjectName(u"climb_first"_s);
  climb_first_->setToolTip(u"Else on the way: sooner home, lower over what stands there"_s);
  connect(climb_first_, &QCheckBox::clicked, this,
          [this](bool on) { change_home(document_, u"Climbs first"_s, [on](Home& h) { h.climb_first = on; }); });
  grid_->addWidget(climb_first_, grid_->rowCount(), 0, 1, 2);
  circle_ = box("home_circle", u"Circles at home within"_s, u"m"_s, {5, 2000}, 0, u"as needed"_s,
                [](Home& h, std::optional<double> v) { h.circle_radius_m = v; });
  arrival_ = new QComboBox;
  arrival_->setObjectName(u"on_arrival"_s);
  arrival_->addItem(u"circles on"_s, static_cast<int>(OnArrival::circle));
  arrival_->addItem(u"lands by itself"_s, static_cast<int>(OnArrival::land));
  connect(arrival_, &QComboBox::activated, this, [this] {
    const auto what = static_cast<OnArrival>(arrival_->currentData().toInt());
    change_home(document_, u"At home"_s, [what](Home& h) { h.on_arrival = what; });
  });
  const int row = grid_->rowCount();
  grid_->addWidget(caption(u"Then it"_s, arrival_), row, 0);
  grid_->addWidget(arrival_, row, 1);
  area_ = box("home_area", u"Flies as far as"_s, u"m"_s, {10, 50000}, 0, u"not told"_s,
              [](Home& h, std::optional<double> v) { h.area_m = v; });
  warn_ = box("home_warn", u"Turns home at"_s, u"V"_s, {2, 60}, 1, u"not set"_s,
              [](Home& h, std::optional<double> v) { h.turn_home_v = v; });
  side->addLayout(grid_);
  looked_up_ = new QLineEdit;
  looked_up_->setObjectName(u"looked_up"_s);
  looked_up_->setPlaceholderText(u"which rules, where, when"_s);
  looked_up_->setAccessibleName(u"Rules of the place and the club that were looked up"_s);
  connect(looked_up_, &QLineEdit::editingFinished, this, [this] {
    if (!filling_)
      change_home(document_, u"Rules looked up"_s,
                  [text = looked_up_->text().toStdString()](Home& h) { h.looked_up = text; });
  });
  side->addWidget(caption(u"Rules of the place and the club, looked up"_s, looked_up_));
  side->addWidget(looked_up_);
}

void HomePlan::show_plan(const HomeReport* r) {
  const Home& h = document_.rig().home;
  filling_ = true;
  on_loss_->clear();
  on_loss_->addItem(label_of(LossAction::undecided), static_cast<int>(LossAction::undecided));
  if (r)
    for (const LossAction action : r->choices) on_loss_->addItem(label_of(action), static_cast<int>(action));
  // What was planned and can't work stays to be seen.
  if (on_loss_->findData(static_cast<int>(h.on_loss)) < 0)
    on_loss_->addItem(u"%1 (can't work)"_s.arg(label_of(h.on_loss)), static_cast<int>(h.on_loss));
  on_loss_->setCurrentIndex(on_loss_->findData(static_cast<int>(h.on_loss)));
  const auto show = [](QDoubleSpinBox* b, std::optional<double> value) {
    if (!b->hasFocus() || std::abs(b->value() - value.value_or(b->minimum())) > 1e-9)
      b->setValue(value.value_or(b->minimum()));
  };
  for (const auto& [b, value] :
       {std::pair{height_, h.return_height_m}, {circle_, h.circle_radius_m}, {area_, h.area_m}}) {
    b->setSuffix(QLatin1Char(' ') + field_unit());
    show(b, value ? std::optional(*value / field_unit_m()) : value);
  }
  show(hold_, h.loss_hold_s);
  show(warn_, h.turn_home_v);
  climb_first_->setChecked(h.climb_first);
  arrival_->setCurrentIndex(arrival_->findData(static_cast<int>(h.on_arrival)));
  if (!looked_up_->hasFocus()) looked_up_->setText(said_of(h.looked_up));
  filling_ = false;
  const bool acts = r && r->can_act, homes = h.on_loss == LossAction::come_home;
  hold_->setEnabled(acts);
  for (QWidget* w : std::initializer_list<QWidget*>{height_, climb_first_, circle_, arrival_})
    w->setEnabled(acts && homes);
  choice_words_->setText(!r ? u"Being worked out…"_s
                         : !r->can_act
                             ? u"This class does nothing of its own then: what the receiver has stored counts."_s
                         : !r->knows_place ? u"Without a satellite receiver it can only glide."_s
                                           : QString());
  choice_words_->setVisible(!choice_words_->text().isEmpty());
}

}  // namespace rigging::app
