#pragma once

#include <QDialog>

#include "begin/class_choice.h"

class QTableWidget;

namespace rigging::app {

/// All classes side by side, for this aircraft: does it drive it, is there room, what it senses, what is lost, what it
/// costs in the work.
class ClassDialog : public QDialog {
  Q_OBJECT
 public:
  explicit ClassDialog(const std::vector<ClassChoice>& choices, QWidget* parent);
  /// Id of the chosen class.
  std::string chosen() const;

 private:
  std::vector<ClassChoice> choices_;
  QTableWidget* table_;
};

}  // namespace rigging::app
