#pragma once

#include <QWidget>

#include "rig/airframe.h"

class QCheckBox;
class QComboBox;

namespace rigging::app {

/// What is chosen beside the kind of airframe: how many motors, whether the propeller pulls or pushes, and whether both
/// ailerons hang on one lead. What the kind does not leave open is not shown.
class MotorChoices : public QWidget {
  Q_OBJECT
 public:
  /// Its boxes are named `prefix`_motors, `prefix`_propeller and `prefix`_joined.
  explicit MotorChoices(const QString& prefix, QWidget* parent = nullptr);

  /// Chooses what the airframe has; no signal.
  void show_airframe(const Airframe& airframe);
  Motors motors() const;
  PropellerSide propeller() const;
  bool joined() const;

 Q_SIGNALS:
  void motors_chosen(rigging::Motors motors);
  void propeller_chosen(rigging::PropellerSide side);
  void joined_chosen(bool joined);

 private:
  QComboBox *motors_, *propeller_;
  QCheckBox* joined_;
};

}  // namespace rigging::app
