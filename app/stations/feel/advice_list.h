#pragma once

#include <QWidget>

#include "document/rig_document.h"

class QButtonGroup;
class QLabel;
class QPushButton;

namespace rigging::app {

/// What to set first and then, what to look at on the bench, the take-off; and the working behind the picture.
class AdviceList : public QWidget {
  Q_OBJECT
 public:
  AdviceList(RigDocument& document, QWidget* parent = nullptr);

  /// Follows the document; steps are those of this axis.
  void show_axis(Axis axis);

 private:
  enum List { first, steps, what_if, bench, launch };
  void show_words();
  void show_working();
  void ask_takeoff();

  RigDocument& document_;
  Axis axis_ = Axis::roll;
  QButtonGroup* keys_;
  QPushButton *takeoff_, *working_button_;
  QLabel *words_, *working_;
};

}  // namespace rigging::app
