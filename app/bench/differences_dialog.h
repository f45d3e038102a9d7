#pragma once

#include <QDialog>

#include "link/image.h"

class QRadioButton;

namespace rigging::app {

/// Where board and rig differ, in words; the builder chooses a side part by part.
class DifferencesDialog : public QDialog {
  Q_OBJECT
 public:
  DifferencesDialog(const std::vector<link::Difference>& differences, bool auto_trim, QWidget* parent);
  /// Parts for which the board is right.
  std::vector<std::string> from_board() const;

 private:
  std::vector<std::pair<std::string, QRadioButton*>> board_;
};

}  // namespace rigging::app
