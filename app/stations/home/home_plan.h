#pragma once

#include <QWidget>

#include "base/described.h"
#include "document/rig_document.h"
#include "home/home.h"

class QCheckBox;
class QComboBox;
class QDoubleSpinBox;
class QGridLayout;
class QLabel;
class QLineEdit;

namespace rigging::app {

/// The plan for a lost link in boxes: what it does, how long it waits, height, circle, area, threshold, and the rules
/// of the place that were looked up.
class HomePlan : public QWidget {
  Q_OBJECT
 public:
  explicit HomePlan(RigDocument& document, QWidget* parent = nullptr);
  /// As the rig stands; null while it is being worked out.
  void show_plan(const HomeReport* report);

 private:
  /// A number of the plan; `unknown` for one that may be open.
  QDoubleSpinBox* box(const char* id, const QString& label, const QString& unit, Span range, int decimals,
                      const QString& unknown, void (*put)(Home&, std::optional<double>));
  RigDocument& document_;
  QGridLayout* grid_;
  QLabel* choice_words_;
  QComboBox *on_loss_, *arrival_;
  QCheckBox* climb_first_;
  QDoubleSpinBox *hold_, *height_, *circle_, *area_, *warn_;
  QLineEdit* looked_up_;
  bool filling_ = false;
};

}  // namespace rigging::app
