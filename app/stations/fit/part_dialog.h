#pragma once

#include <QDialog>

#include "document/rig_document.h"

class QDoubleSpinBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;

namespace rigging::app {

/// Choose a kind of part, or describe one of your own from the nearest kind there is. Own kinds go to the parts file
/// beside the rig.
class PartDialog : public QDialog {
  Q_OBJECT
 public:
  PartDialog(RigDocument& document, QWidget* parent);
  /// Id of the chosen kind; empty when none.
  const std::string& chosen() const { return chosen_; }

 private:
  void fill();
  void show_kind();
  /// Mine, as the few lines here say it.
  PartKind described() const;
  void keep_own(const PartKind& mine);
  const PartKind* current() const;

  RigDocument& document_;
  std::string chosen_;
  QLineEdit *search_, *own_id_, *own_name_;
  QListWidget* list_;
  QLabel *facts_, *complaint_;
  QDoubleSpinBox *mass_, *idle_, *typical_, *most_;
  QPushButton *own_, *everything_, *add_;
};

}  // namespace rigging::app
