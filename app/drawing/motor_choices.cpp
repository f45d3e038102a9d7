#include "drawing/motor_choices.h"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>

#include "airframe/kinds.h"
#include "look/literals.h"

namespace rigging::app {

MotorChoices::MotorChoices(const QString& prefix, QWidget* parent) : QWidget(parent) {
  const auto filled = [&](const char* id, const QString& name, std::initializer_list<std::pair<int, QString>> entries) {
    auto* combo = new QComboBox;
    combo->setObjectName(prefix + QLatin1Char('_') + QLatin1String(id));
    combo->setAccessibleName(name);
    for (const auto& [value, text] : entries) combo->addItem(text, value);
    return combo;
  };
  motors_ = filled("motors", u"Motors"_s,
                   {{static_cast<int>(Motors::one), u"One motor"_s},
                    {static_cast<int>(Motors::two), u"Two motors"_s},
                    {static_cast<int>(Motors::two_steering), u"Two motors that steer"_s}});
  propeller_ = filled("propeller", u"Propeller"_s,
                      {{static_cast<int>(PropellerSide::usual), u"Usual side"_s},
                       {static_cast<int>(PropellerSide::tractor), u"Tractor"_s},
                       {static_cast<int>(PropellerSide::pusher), u"Pusher"_s}});
  joined_ = new QCheckBox(u"Both ailerons on one Y-lead"_s);
  joined_->setObjectName(prefix + u"_joined"_s);
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setVerticalSpacing(4);
  for (QComboBox* box : {motors_, propeller_}) {
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(9);
    box->setFocusPolicy(Qt::StrongFocus);
  }
  grid->addWidget(motors_, 0, 0);
  grid->addWidget(propeller_, 0, 1);
  grid->addWidget(joined_, 1, 0, 1, 2);
  connect(motors_, &QComboBox::activated, this, [this] { Q_EMIT motors_chosen(motors()); });
  connect(propeller_, &QComboBox::activated, this, [this] { Q_EMIT propeller_chosen(propeller()); });
  connect(joined_, &QCheckBox::clicked, this, &MotorChoices::joined_chosen);
}

void MotorChoices::show_airframe(const Airframe& a) {
  motors_->setCurrentIndex(motors_->findData(static_cast<int>(a.motors)));
  propeller_->setCurrentIndex(propeller_->findData(static_cast<int>(a.propeller)));
  joined_->setChecked(joins_ailerons(a));
  const bool motor = a.kind != AirframeKind::towed_glider;
  motors_->setVisible(motor && a.kind != AirframeKind::twin_differential);
  propeller_->setVisible(motor);
  joined_->setVisible(can_join_ailerons(a.kind));
}

Motors MotorChoices::motors() const { return static_cast<Motors>(motors_->currentData().toInt()); }
PropellerSide MotorChoices::propeller() const { return static_cast<PropellerSide>(propeller_->currentData().toInt()); }
bool MotorChoices::joined() const { return joined_->isChecked() && !joined_->isHidden(); }

}  // namespace rigging::app
