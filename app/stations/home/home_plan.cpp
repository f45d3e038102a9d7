#include "stations/home/home_plan.h"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QLineEdit>
#include <QVBoxLayout>
#include <cmath>

#include "look/number_box.h"
#include "look/pieces.h"
#include "stations/home/home_sheets.h"

namespace rigging::app {
namespace {

QString spoken(LossAction action) {
  switch (action) {
    case LossAction::glide: return QObject::tr("Motor off, glide level");
    case LossAction::circle: return QObject::tr("Circle where it is");
    case LossAction::come_home: return QObject::tr("Come home");
    default: return QObject::tr("Not decided");
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
  on_loss_->setObjectName(QStringLiteral("on_loss"));
  on_loss_->setAccessibleName(tr("What it does when the link is gone"));
  on_loss_->setToolTip(tr("What the controller does by itself; only what can work with what is fitted"));
  connect(on_loss_, &QComboBox::activated, this, [this] {
    const auto action = static_cast<LossAction>(on_loss_->currentData().toInt());
    change_home(document_, spoken(action), [action](Home& h) { h.on_loss = action; });
  });
  side->addWidget(caption(tr("When the link is gone"), on_loss_));
  side->addWidget(on_loss_);
  choice_words_ = wrapping_words(9);
  choice_words_->setProperty("soft", true);
  side->addWidget(choice_words_);
  hold_ = box("home_hold", tr("Waits first"), tr("s"), {0, 60}, 1, {},
              [](Home& h, std::optional<double> v) { h.hold_s = *v; });
  height_ = box("home_height", tr("Way home at"), tr("m"), {0, 5000}, 0, tr("as needed"),
                [](Home& h, std::optional<double> v) { h.height_m = v; });
  climb_first_ = new QCheckBox(tr("Climbs before it turns home"));
  climb_first_->setObjectName(QStringLiteral("climb_first"));
  climb_first_->setToolTip(tr("Else on the way: sooner home, lower over what stands there"));
  connect(climb_first_, &QCheckBox::clicked, this,
          [this](bool on) { change_home(document_, tr("Climbs first"), [on](Home& h) { h.climb_first = on; }); });
  grid_->addWidget(climb_first_, grid_->rowCount(), 0, 1, 2);
  circle_ = box("home_circle", tr("Circles at home within"), tr("m"), {5, 2000}, 0, tr("as needed"),
                [](Home& h, std::optional<double> v) { h.circle_radius_m = v; });
  arrival_ = new QComboBox;
  arrival_->setObjectName(QStringLiteral("on_arrival"));
  arrival_->addItem(tr("circles on"), static_cast<int>(OnArrival::circle));
  arrival_->addItem(tr("lands by itself"), static_cast<int>(OnArrival::land));
  connect(arrival_, &QComboBox::activated, this, [this] {
    const auto what = static_cast<OnArrival>(arrival_->currentData().toInt());
    change_home(document_, tr("At home"), [what](Home& h) { h.on_arrival = what; });
  });
  const int row = grid_->rowCount();
  grid_->addWidget(caption(tr("Then it"), arrival_), row, 0);
  grid_->addWidget(arrival_, row, 1);
  area_ = box("home_area", tr("Flies as far as"), tr("m"), {10, 50000}, 0, tr("not told"),
              [](Home& h, std::optional<double> v) { h.area_m = v; });
  warn_ = box("home_warn", tr("Turns home at"), tr("V"), {2, 60}, 1, tr("not set"),
              [](Home& h, std::optional<double> v) { h.warn_v = v; });
  side->addLayout(grid_);
  looked_up_ = new QLineEdit;
  looked_up_->setObjectName(QStringLiteral("looked_up"));
  looked_up_->setPlaceholderText(tr("which rules, where, when"));
  looked_up_->setAccessibleName(tr("Rules of the place and the club that were looked up"));
  connect(looked_up_, &QLineEdit::editingFinished, this, [this] {
    if (!filling_)
      change_home(document_, tr("Rules looked up"),
                  [text = looked_up_->text().toStdString()](Home& h) { h.looked_up = text; });
  });
  side->addWidget(caption(tr("Rules of the place and the club, looked up"), looked_up_));
  side->addWidget(looked_up_);
}

void HomePlan::show_plan(const HomeReport* r) {
  const Home& h = document_.rig().home;
  filling_ = true;
  on_loss_->clear();
  on_loss_->addItem(spoken(LossAction::undecided), static_cast<int>(LossAction::undecided));
  if (r)
    for (const LossAction action : r->choices) on_loss_->addItem(spoken(action), static_cast<int>(action));
  // What was planned and can't work stays to be seen.
  if (on_loss_->findData(static_cast<int>(h.on_loss)) < 0)
    on_loss_->addItem(tr("%1 (can't work)").arg(spoken(h.on_loss)), static_cast<int>(h.on_loss));
  on_loss_->setCurrentIndex(on_loss_->findData(static_cast<int>(h.on_loss)));
  const auto show = [](QDoubleSpinBox* b, std::optional<double> value) {
    if (!b->hasFocus() || std::abs(b->value() - value.value_or(b->minimum())) > 1e-9)
      b->setValue(value.value_or(b->minimum()));
  };
  for (const auto& [b, value] : {std::pair{height_, h.height_m}, {circle_, h.circle_radius_m}, {area_, h.area_m}}) {
    b->setSuffix(QLatin1Char(' ') + field_unit());
    show(b, value ? std::optional(*value / field_unit_m()) : value);
  }
  show(hold_, h.hold_s);
  show(warn_, h.warn_v);
  climb_first_->setChecked(h.climb_first);
  arrival_->setCurrentIndex(arrival_->findData(static_cast<int>(h.on_arrival)));
  if (!looked_up_->hasFocus()) looked_up_->setText(said_of(h.looked_up));
  filling_ = false;
  const bool acts = r && r->can_act, homes = h.on_loss == LossAction::come_home;
  hold_->setEnabled(acts);
  for (QWidget* w : std::initializer_list<QWidget*>{height_, climb_first_, circle_, arrival_})
    w->setEnabled(acts && homes);
  choice_words_->setText(!r ? tr("Being worked out…")
                         : !r->can_act
                             ? tr("This class does nothing of its own then: what the receiver has stored counts.")
                         : !r->knows_place ? tr("Without a satellite receiver it can only glide.")
                                           : QString());
  choice_words_->setVisible(!choice_words_->text().isEmpty());
}

}  // namespace rigging::app
